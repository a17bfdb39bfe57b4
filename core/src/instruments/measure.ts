import type { Circuit, ElementValues, OperatingPoint, Source } from '../circuit/index.ts';
import { type Multimeter, type Range, rangeFor } from './multimeter.ts';
import { benchSupply, currentClamp, insulationTester, lampAmps, testLamp } from './others.ts';

/** How a reading is taken electrically. A drop is volts across copper that the bench supply's current flows through. */
export type MeterFunction = 'diode' | 'ohms' | 'volts' | 'drop' | 'amps' | 'insulation' | 'lamp';

/** The ranges that a reading is taken on, of the instrument it is taken with; a lamp has none. */
export function rangesOf(meter: Multimeter, use: MeterFunction): readonly Range[] {
  if (use === 'diode') return [meter.diode];
  if (use === 'insulation') return [insulationTester];
  if (use === 'amps') return currentClamp;
  if (use === 'lamp') return [];
  return use === 'ohms' ? meter.ohms : meter.volts;
}

/** Where the bench supply's clips sit, and what is in series with them. */
export interface Feed {
  readonly plus: string;
  readonly minus: string;
  readonly seriesOhms: number;
}

/**
 * Where probes and, for a test under current, the bench supply sit. Amps are those through a piece of conductor of
 * known resistance from red to black.
 */
export interface Setup {
  readonly function: MeterFunction;
  readonly red: string;
  readonly black: string;
  readonly feed?: Feed;
  readonly shuntOhms?: number;
  /**
   * Ohms on a range held by hand, from this full scale up; left to the meter below so many ohms. A junction reads
   * differently on each range, and an automatic meter jumps where it changes over; from the megohms on its source is
   * the same, and a leak far below them is no junction's. `lowest`: the lowest range, and over-range above it; what a
   * meter would find on its way through diodes where a winding is open says nothing.
   */
  readonly held?: 'lowest' | { readonly fullScale: number; readonly freeBelow: number };
}

/**
 * What an ideal copy of the instrument shows: the reading in its base unit (V, Ω; for a lamp the share of its rated
 * current), not yet rounded or cut off at full scale, and how the reading moves with the volts at its terminals.
 */
export interface Shown {
  readonly value: number;
  /** Beyond this the instrument shows over-range; Infinity for a lamp. */
  readonly fullScale: number;
  readonly range: Range | undefined;
  /** d(value)/d(volts across the circuit's terminals). */
  readonly perVolt: number;
  /** d(value)/d(lead ohms). */
  readonly perLeadOhm: number;
  readonly point: OperatingPoint;
}

const openVolts = (circuit: Circuit, setup: Setup, point: OperatingPoint): number =>
  point.nodeVolts[circuit.node(setup.red)]! - point.nodeVolts[circuit.node(setup.black)]!;

const sourceAt = (circuit: Circuit, setup: Setup, volts: number, ohms: number): Source => ({
  plus: circuit.node(setup.red),
  minus: circuit.node(setup.black),
  volts,
  ohms,
});

/** Takes one reading. `start` are junction voltages of a neighbouring state. Pure: nothing is rounded, no dice. */
export function measure(
  circuit: Circuit,
  values: ElementValues,
  setup: Setup,
  meter: Multimeter,
  start?: Float64Array,
): Shown {
  switch (setup.function) {
    case 'diode':
      return measureDiode(circuit, values, setup, meter, start);
    case 'ohms':
      return measureOhms(circuit, values, setup, meter, start);
    case 'volts':
    case 'drop':
      return measureVolts(circuit, values, setup, meter, start);
    case 'amps':
      return measureAmps(circuit, values, setup, start);
    case 'insulation':
      return measureRatio(circuit, values, setup, insulationTester, 0, start);
    case 'lamp':
      return measureLamp(circuit, values, setup, start);
  }
}

function measureDiode(c: Circuit, values: ElementValues, setup: Setup, meter: Multimeter, start?: Float64Array): Shown {
  const { sourceVolts, sourceOhms, fullScale } = meter.diode;
  const source = sourceAt(c, setup, sourceVolts, sourceOhms + meter.leadOhms);
  const point = c.operatingPoint(values, [source], start);
  const volts = openVolts(c, setup, point);
  const amps = (sourceVolts - volts) / source.ohms;
  const range = meter.diode;
  return { value: volts + amps * meter.leadOhms, fullScale, range, perVolt: 1, perLeadOhm: amps, point };
}

function measureRatio(
  c: Circuit,
  values: ElementValues,
  setup: Setup,
  range: Range & { sourceVolts: number; sourceOhms: number },
  leadOhms: number,
  start?: Float64Array,
): Shown {
  const source = sourceAt(c, setup, range.sourceVolts, range.sourceOhms + leadOhms);
  const point = c.operatingPoint(values, [source], start);
  const volts = openVolts(c, setup, point);
  const amps = Math.max((range.sourceVolts - volts) / source.ohms, 1e-18);
  const perVolt = (1 + volts / (source.ohms * amps)) / amps;
  return { value: volts / amps + leadOhms, fullScale: range.fullScale, range, perVolt, perLeadOhm: 1, point };
}

/** Ranges upward from the lowest until the reading fits, as an automatic meter does, unless a range is held. */
function measureOhms(c: Circuit, values: ElementValues, setup: Setup, meter: Multimeter, start?: Float64Array): Shown {
  const { held } = setup;
  if (held === 'lowest') {
    const [range] = meter.ohms;
    return { ...measureRatio(c, values, setup, range!, meter.leadOhms, start), fullScale: range!.fullScale };
  }
  if (held) {
    const ranges = meter.ohms.filter(({ fullScale }) => fullScale >= held.fullScale);
    const shown = climb(ranges, c, values, setup, meter, start);
    if (shown.value >= held.freeBelow) return shown;
  }
  return climb(meter.ohms, c, values, setup, meter, start);
}

function climb(
  ranges: Multimeter['ohms'],
  c: Circuit,
  values: ElementValues,
  setup: Setup,
  meter: Multimeter,
  start?: Float64Array,
): Shown {
  let shown: Shown | undefined;
  for (const range of ranges) {
    shown = measureRatio(c, values, setup, range, meter.leadOhms, shown?.point.junctionVolts ?? start);
    if (shown.value <= range.fullScale) break;
  }
  return { ...shown!, fullScale: meter.ohms[meter.ohms.length - 1]!.fullScale };
}

function measureVolts(c: Circuit, values: ElementValues, setup: Setup, meter: Multimeter, start?: Float64Array): Shown {
  const supplies = (setup.feed ? [setup.feed] : []).map(({ plus, minus, seriesOhms }) => {
    return { plus: c.node(plus), minus: c.node(minus), volts: benchSupply.volts, ohms: seriesOhms };
  });
  const input = sourceAt(c, setup, 0, meter.voltsInputOhms);
  const point = c.operatingPoint(values, [...supplies, input], start);
  const value = openVolts(c, setup, point);
  const fullScale = meter.volts[meter.volts.length - 1]!.fullScale;
  return { value, fullScale, range: rangeFor(meter.volts, value), perVolt: 1, perLeadOhm: 0, point };
}

/** Current by clamp or in series, low amps on a low range. The instrument itself adds no resistance. */
function measureAmps(c: Circuit, values: ElementValues, setup: Setup, start?: Float64Array): Shown {
  const point = c.operatingPoint(values, [], start);
  const perVolt = 1 / setup.shuntOhms!;
  const value = openVolts(c, setup, point) * perVolt;
  const fullScale = currentClamp[currentClamp.length - 1]!.fullScale;
  return { value, fullScale, range: rangeFor(currentClamp, value), perVolt, perLeadOhm: 0, point };
}

/** The lamp's resistance and its voltage settle by turns: each is a contraction of the other, since R grows slower than V. */
function measureLamp(c: Circuit, values: ElementValues, setup: Setup, start?: Float64Array): Shown {
  let lampVolts = testLamp.supplyVolts;
  let point: OperatingPoint | undefined;
  for (let round = 0; round < 60; round++) {
    const ohms = lampVolts / lampAmps(testLamp, lampVolts);
    point = c.operatingPoint(values, [sourceAt(c, setup, testLamp.supplyVolts, ohms)], point?.junctionVolts ?? start);
    const next = Math.max(testLamp.supplyVolts - openVolts(c, setup, point), 1e-9);
    const settled = Math.abs(next - lampVolts) < 1e-9 * testLamp.supplyVolts;
    lampVolts = next;
    if (settled) break;
  }
  const value = lampAmps(testLamp, lampVolts) / testLamp.ratedAmps;
  return { value, fullScale: Infinity, range: undefined, perVolt: 0, perLeadOhm: 0, point: point! };
}
