import {
  type Foreseen,
  type Interval,
  motorCurve,
  motorRunUp,
  type MotorPoint,
  type MotorRun,
  motorThrough,
  ofFaulty,
  outputCurve,
  pileVolts,
  type OutputPoint,
} from '@refectum/core/curves';
import type { Winding } from '@refectum/core/assess';
import { familyOf, type Generates, type Machine, runningFault } from '@refectum/core/machines';
import type { TapTrace } from '@refectum/core/checks';
import {
  commutatorSpeed,
  ordersOf,
  periodAt,
  type ReadSpeed,
  type ReadTrace,
  readTrace,
  type ReadTurns,
  tellingOrders,
  turnsOf,
} from '@refectum/core/waveform';
import { expose } from 'comlink';
import Papa from 'papaparse';

/** The output as fitted, for drawing, and what it says of the rating. */
export interface FittedOutput {
  readonly curve: readonly Foreseen[];
  /** At the rating's point, and at idle where a point lies low enough. */
  readonly rated: Foreseen;
  readonly idle: Foreseen | undefined;
  /** The most that a pile draws at the rating's speed, and the volts that are left then. */
  readonly most: Foreseen & { readonly volts: number };
  /** With the windings hot; nothing where a point has no temperature. */
  readonly hot: Foreseen | undefined;
  /** The rating's point, had the one that would narrow it most been taken too. */
  readonly narrowed: { readonly byRpm: number; readonly rated: Foreseen } | undefined;
  /** Which shapes the points are like, likeliest first, shares of one. */
  readonly shapes: readonly { readonly name: string; readonly share: number }[];
}

/** A motor's curve: by its plate, through its points, and with the fault that the points are most like. */
export interface FittedMotorCurve {
  readonly plate: readonly MotorRun[];
  readonly own: readonly MotorRun[];
  readonly like: { readonly name: string; readonly curve: readonly MotorRun[] } | undefined;
  /** Corrected to rated volts and 20 °C; nothing without a point, and no load alone tells nothing of its resistance. */
  readonly told:
    | {
        readonly unloaded: { readonly amps: Interval; readonly rpm: Interval };
        readonly loaded:
          | {
              readonly held: { readonly amps: Interval; readonly newtonMetres: Interval };
              readonly peakWatts: Interval;
            }
          | undefined;
      }
    | undefined;
  readonly shapes: readonly { readonly name: string; readonly share: number }[];
}

/** A trace as a fault would make it: shares of the telling orders in the ripple. */
export interface TracePattern {
  readonly name: string;
  readonly shares: readonly number[];
}

/** Windings and diodes after a minute under load, °C [from memory]. */
const warm = 60;
const idleRpm = 1500;
/** Speed up to which a point must reach for idle to be foreseen. */
const idlePoint = 1700;
const ambient = 23;
const hotCelsius = 110;
const mostRpm = 7000;
const drawn = 16;

/** What a machine has that generates; asked of another it is a mistake of the caller. */
function generatesOf(machine: Machine): Generates<Machine> {
  const { name, generates } = familyOf(machine);
  if (!generates) throw new RangeError(`${name} gives no output`);
  return generates;
}

/** Columns of an oscilloscope's file: time, and so many of what was measured. `told`: share read so far. */
async function columnsOf(
  file: File,
  count: number,
  told: (share: number) => void,
): Promise<{ times: number[]; columns: number[][] }> {
  const times: number[] = [];
  const columns = Array.from({ length: count }, (): number[] => []);
  await new Promise<void>((done, failed) =>
    Papa.parse<string[]>(file, {
      skipEmptyLines: true,
      chunk: ({ data, meta }) => {
        for (const row of data) {
          const [time, ...values] = row
            .slice(0, 1 + count)
            .map((cell) => (cell.trim() ? Number(cell.trim().replace(/^(-?\d+),(\d+)/, '$1.$2')) : NaN));
          if (values.length < count || ![time, ...values].every(Number.isFinite)) continue;
          times.push(time!);
          values.forEach((value, n) => columns[n]!.push(value));
        }
        told(meta.cursor / file.size);
      },
      complete: () => done(),
      error: failed,
    }),
  );
  return { times, columns };
}

/** What a trace says of its orders; beside it, where it was taken, what the phase tap's says against the post's. */
export interface ReadWithTap {
  readonly read: ReadTrace;
  readonly tap: TapTrace | undefined;
}
interface Beside {
  readonly tap: readonly number[];
  readonly volts: readonly number[];
}
function readWithTap(
  times: readonly number[],
  values: readonly number[],
  beside: Beside | undefined,
  expectedHertz: number,
): ReadWithTap {
  const read = readTrace(times, values, expectedHertz);
  if (read.kind !== 'read' || !beside) return { read, tap: undefined };
  const [tap, volts] = [beside.tap, beside.volts].map((one) => ordersOf(periodAt(times, one, read.electricalHertz)));
  return { read, tap: { orders: tap!, share: tap!.mean / volts!.mean } };
}

/** A current from the moment it begins to flow, thinned: how it goes in the mean, and its highest moment. */
export interface DrawnCurrent {
  readonly means: readonly { readonly seconds: number; readonly amps: number }[];
  readonly peak: { readonly seconds: number; readonly amps: number };
}
export interface ReadRunUp {
  readonly speed: ReadSpeed;
  readonly turns: ReadTurns;
  /** Nothing where no current ever began. */
  readonly current: DrawnCurrent | undefined;
}
const runUpOf = (times: readonly number[], amps: readonly number[], ripplesPerTurn: number): ReadRunUp => {
  const speed = commutatorSpeed(times, amps, ripplesPerTurn);
  return { speed, turns: turnsOf(times, amps, speed, ripplesPerTurn), current: thinned(times, amps) };
};
const foreseenSamples = 20_000;
const bins = 240;
/** Of the highest, where the current is taken to begin. */
const begun = 0.05;

/** Its highest moment is one of the means, so that neither ripple nor a clamp's noise makes it. */
function thinned(times: readonly number[], values: readonly number[]): DrawnCurrent | undefined {
  const most = values.reduce((high, value) => Math.max(high, value), 0);
  const from = values.findIndex((value) => value > begun * most);
  if (from < 0 || most <= 0) return undefined;
  const size = Math.max(1, Math.ceil((values.length - from) / bins));
  const means = Array.from({ length: Math.floor((values.length - from) / size) }, (_, n) => {
    const [low, high] = [from + n * size, from + (n + 1) * size];
    const amps = values.slice(low, high).reduce((sum, value) => sum + value, 0) / size;
    return { seconds: times[Math.floor((low + high) / 2)]! - times[from]!, amps };
  });
  return { means, peak: means.reduce((high, one) => (one.amps > high.amps ? one : high)) };
}

/** A motor's figures are told at this temperature. */
const ambientCelsius = 20;
const curves = {
  /** `winding`: what readings at rest say of the one that it hangs on; `reachable`: speeds that the stand can take. */
  output(
    machine: Machine,
    points: readonly OutputPoint[],
    winding: Winding | undefined,
    reachable: readonly number[],
  ): FittedOutput {
    const family = familyOf(machine);
    const generates = generatesOf(machine);
    const build = family.builds(machine)[0]!;
    const faults = family.faults(machine);
    const fits = generates.outputShapes.map(({ name, fault }) => {
      const hidden = faults.filter(({ id }) => id === fault?.id).map((one) => runningFault(one, fault!.severity));
      return { name, curve: outputCurve(generates.output(machine, build, hidden, winding), points) };
    });
    const most = Math.max(...fits.map(({ curve }) => curve.fit.evidence));
    const weights = fits.map(({ curve }) => Math.exp(curve.fit.evidence - most));
    const total = weights.reduce((sum, w) => sum + w, 0);
    // What is foreseen is foreseen of a sound machine through the points; its shape says whether it is one.
    const sound = fits[0]!.curve;
    const volts = points.reduce((sum, point) => sum + point.volts, 0) / points.length;
    const heats = points.flatMap(({ celsius }) => celsius ?? []);
    const celsius = heats.length ? heats.reduce((sum, one) => sum + one, 0) / heats.length : undefined;
    const from = Math.max(800, Math.min(...points.map(({ rpm }) => rpm)) - 700);
    const speeds = Array.from({ length: drawn }, (_, i) => from + ((mostRpm - from) * i) / (drawn - 1));
    const rating = generates.rating(machine);
    const ratedAt = { ...rating, celsius: celsius ?? ambient };
    const further = sound.narrowedBy(
      ratedAt,
      reachable.map((rpm) => ({ rpm, volts, celsius })),
    );
    return {
      curve: speeds.map((rpm) => sound.foresee({ rpm, volts, celsius })),
      rated: sound.foresee(ratedAt),
      most: sound.most(ratedAt, pileVolts(rating.volts)),
      narrowed: further && { byRpm: further.point.rpm, rated: further.foreseen },
      idle: points.some(({ rpm }) => rpm <= idlePoint) ? sound.foresee({ rpm: idleRpm, volts, celsius }) : undefined,
      hot: heats.length === points.length ? sound.foresee({ ...rating, celsius: hotCelsius }) : undefined,
      shapes: fits.map(({ name }, i) => ({ name, share: weights[i]! / total })).sort((a, b) => b.share - a.share),
    };
  },

  /** The curve of a motor on its bench battery, at the temperature of its windings; what is told is told of 20 °C. */
  motor(machine: Machine, points: readonly MotorPoint[], celsius: number): FittedMotorCurve {
    const family = familyOf(machine);
    const { drives } = family;
    if (!drives) throw new RangeError(`${family.name} is no motor`);
    const battery = drives.fed(machine, [], 20).source;
    const plate = motorCurve(drives.fed(machine, [], celsius).motor, battery);
    if (points.length === 0) return { plate, own: [], like: undefined, told: undefined, shapes: [] };
    const all = family.faults(machine);
    // A fault that this machine can't have has no shape.
    const shapes = drives.shapes.filter(({ fault }) => !fault || all.some(({ id }) => id === fault.id));
    const faultsOf = ({ fault }: (typeof shapes)[number]) =>
      all.filter(({ id }) => id === fault?.id).map((one) => runningFault(one, fault!.severity));
    const fits = shapes.map((shape) => {
      const motor = drives.fed(machine, faultsOf(shape), celsius).motor;
      const { evidence } = motorThrough(motor, points, drives.priors, battery).fit;
      return { ...shape, motor, evidence };
    });
    const most = Math.max(...fits.map(({ evidence }) => evidence));
    const weights = fits.map(({ evidence }) => Math.exp(evidence - most));
    const total = weights.reduce((sum, w) => sum + w, 0);
    const ranked = fits.map((one, n) => ({ ...one, share: weights[n]! / total })).sort((a, b) => b.share - a.share);
    const fitted = motorThrough(
      drives.fed(machine, [], celsius).motor,
      points,
      { ...drives.priors, ...ofFaulty },
      battery,
      drives.fed(machine, [], ambientCelsius).motor,
    );
    const stiff = { volts: machine.ratedVolts, ohms: 1e-6 };
    const loaded = points.some(({ load }) => load !== 'none')
      ? { held: fitted.foresee(stiff, 'held'), peakWatts: fitted.peak(drives.ratedOn(machine)) }
      : undefined;
    const like = ranked[0]!.fault && { name: ranked[0]!.name, curve: motorCurve(ranked[0]!.motor, battery) };
    return {
      plate,
      own: motorCurve(fitted.motor, battery),
      like,
      told: { unloaded: fitted.foresee(stiff, { newtonMetres: 0 }), loaded },
      shapes: ranked.map(({ name, share }) => ({ name, share })),
    };
  },

  /**
   * A trace out of an oscilloscope's file: two columns, time and what was measured; with a tap four, time, clamp, post and
   * tap. `told`: share read so far.
   */
  async trace(file: File, expectedHertz: number, hasTap: boolean, told: (share: number) => void): Promise<ReadWithTap> {
    const { times, columns } = await columnsOf(file, hasTap ? 3 : 1, told);
    const [values, volts, tap] = columns;
    if (hasTap && times.length < 2)
      return {
        read: { kind: 'refused', why: 'Four columns are needed here: time, clamp, post, tap.' },
        tap: undefined,
      };
    return readWithTap(times, values!, tap && volts && { tap, volts }, expectedHertz);
  },

  /** The speed of an armature from such a file, and its current as it ran up. */
  async speed(file: File, ripplesPerTurn: number, told: (share: number) => void): Promise<ReadRunUp> {
    const { times, columns } = await columnsOf(file, 1, told);
    return runUpOf(times, columns[0]!, ripplesPerTurn);
  },
  /** The same from samples at equal steps of time. */
  speedOf(secondsPerSample: number, amps: readonly number[], ripplesPerTurn: number): ReadRunUp {
    const times = amps.map((_, n) => n * secondsPerSample);
    return runUpOf(times, amps, ripplesPerTurn);
  },
  /** The current of a motor on its bench battery, from the moment it is fed, by its plate. */
  foreseenCurrent(machine: Machine, celsius: number, seconds: number): DrawnCurrent | undefined {
    const { drives, name } = familyOf(machine);
    if (!drives) throw new RangeError(`${name} is no motor`);
    const { motor, source } = drives.fed(machine, [], celsius);
    const { amps, secondsPerSample } = motorRunUp(motor, source, drives.dynamics(machine), 0, seconds, foreseenSamples);
    return thinned(
      Array.from(amps, (_, n) => n * secondsPerSample),
      Array.from(amps),
    );
  },

  /** Traces that an oscilloscope sent, at equal steps of time: the one to be read, and a tap's beside the post's. */
  captured(
    secondsPerSample: number,
    values: readonly number[],
    beside: Beside | undefined,
    expectedHertz: number,
  ): ReadWithTap {
    const times = values.map((_, n) => n * secondsPerSample);
    return readWithTap(times, values, beside, expectedHertz);
  },

  /** What the orders of a trace look like with each telling fault, half the rated amps drawn. */
  patterns(machine: Machine, rpm: number): readonly TracePattern[] {
    const family = familyOf(machine);
    const build = family.builds(machine)[0]!;
    const generates = generatesOf(machine);
    const spin = generates.spin(machine);
    const { volts, amps } = generates.rating(machine);
    const stand = {
      rpm,
      loadOhms: (2 * volts) / amps,
      batteryVolts: (volts * 12.6) / 13.5,
      batteryOhms: volts / 135,
      cableOhms: 2e-3,
      celsius: { windings: warm, diodes: warm },
      field: 'regulated',
    } as const;
    return generates.outputShapes.map(({ name, fault }) => {
      const faults = family
        .faults(machine)
        .filter(({ id }) => id === fault?.id)
        .map((one) => runningFault(one, fault!.severity));
      const { rms, ripple } = spin(build, stand, faults, {}).amps;
      return { name, shares: tellingOrders.map((order) => rms[order - 1]! / Math.max(ripple, 1e-12)) };
    });
  },
};

export type StandWorker = typeof curves;
expose(curves);
