import { type Advice, advise, hiddenFaults, isOpen, whereAfter, type Whereabouts } from '../advice/index.ts';
import {
  type Belief,
  type Case,
  checkOf,
  type Conditions,
  countedAt,
  countingOf,
  type Followed,
  hearsay,
  History,
  openCase,
  type Outset,
  type Reading,
  type Scope,
  soundBands,
  soundChance,
  standingParticles,
  type Steps,
  slipChanceOf,
  type Teller,
  unlikeChance,
  wordOf,
} from '../belief/index.ts';
import { type Check, type Equipment, findingsOf, type Outcome, type Word } from '../checks/index.ts';
import type { OutputAt, OutputPoint } from '../curves/index.ts';
import type { Multimeter } from '../instruments/index.ts';
import type { Complaint, Subject } from '../machines/index.ts';
import type { Prices } from '../verdict/index.ts';
import type { AssessedVerdict, Assessment, Diagnosis, Gate, JudgedReading, Outlook } from './assessment.ts';
import { gateOf } from './gate.ts';
import { LastTold } from './last-told.ts';
import { netOf } from './net.ts';
import { apartOf, nextChecks, runsFirst, stopReason } from './next.ts';
import { buildsOf, clearedOf, partsOf, suspectsOf, unlikeInOf, verdictOf, windingsOf } from './told.ts';
import { asides, bandsText, hiddenText, otherLeads, outcomeText, slipWords, undecided } from './words.ts';

/** Version of the reasoning: kept with every verdict. */
export const engineVersion = '0.2.0';

/** A reading as it stands on the tape, not struck out. */
export interface TapeReading {
  readonly id: string;
  readonly check: string;
  readonly outcome: Outcome;
  readonly meter: string;
  readonly celsius: number;
  /** Who measured it; we did when it isn't said. */
  readonly told?: Teller;
}

/** What may change between two assessments of one subject. */
export interface Situation {
  readonly readings: readonly TapeReading[];
  /** Points of its output against speed, field full by its own regulator. */
  readonly output?: readonly OutputPoint[] | undefined;
  readonly assembly: string;
  readonly meter: string;
  readonly celsius: number;
  /** What this shop doesn't have: checks that need it are not advised, nor a run on the stand. */
  readonly lacks?: readonly Equipment[] | undefined;
  /** Its last reading is so long ago that it has rested since. */
  readonly rested?: boolean | undefined;
}

/** All that was read of a subject. */
export type Read = Pick<Situation, 'readings' | 'output'>;

/** What is believed along all that was read. */
interface Along {
  readonly tape: readonly TapeReading[];
  /** The tape as one text. */
  readonly written: string;
  readonly readings: readonly Reading[];
  readonly followed: Followed;
  readonly belief: Belief;
  /** Before the points of the output, which bar no run. */
  readonly atRest: Belief;
}

/** On the bench there is money in it too. */
export interface BenchSituation extends Situation {
  readonly prices: Prices;
}

/** Predictions worked out beforehand: for how many hypotheses, and how many in one step. */
const preparedHypotheses = 400;
const preparedAtOnce = 16;
/** With less from its post, A, nothing says that the field was on: such a point tells nothing of the output [our estimate]. */
const leastOutput = 1;
/** Of what is measured where no temperature is told, °C. */
const usualCelsius = 20;

/** One subject's reasoning, kept warm while readings come in. */
export class Session {
  readonly opened: Case;
  readonly #history: History;
  /** What was followed last. */
  #along: Along | undefined;
  readonly #diagnoses = new LastTold<Diagnosis>();
  readonly #advice = new LastTold<Advice>();
  /** Words given to readings, by what they met. */
  readonly #words = new WeakMap<Outset, Map<string, { expected: string; word: Word }>>();
  /** Points of the output as checks, by what was held. */
  readonly #points = new Map<string, Check>();
  readonly #meters: ReadonlyMap<string, Multimeter>;

  /**
   * `meters`: every meter that readings were or will be taken with. `before`: what was believed before the first of
   * them, when that isn't the prior.
   */
  constructor(
    subject: Subject,
    complaint: Complaint,
    meters: readonly Multimeter[],
    before?: (opened: Case, scope: Scope) => Belief,
  ) {
    this.#meters = new Map(meters.map((meter) => [meter.id, meter]));
    this.opened = openCase(subject, complaint, [...this.#meters.values()]);
    this.#history = new History(this.opened, before && ((scope) => before(this.opened, scope)));
  }

  /** A meter of this session by its id. */
  meter(id: string): Multimeter {
    const meter = this.#meters.get(id);
    if (!meter) throw new RangeError(`no meter “${id}” here: known are ${[...this.#meters.keys()].join(', ')}`);
    return meter;
  }

  /** All that follows from the readings of a unit on the bench. */
  assess(situation: BenchSituation): Assessment {
    const verdict = this.verdict(situation);
    return { engine: engineVersion, ...this.diagnose(situation), ...this.outlook(situation), verdict };
  }

  /** What is believed, and why: the quick half. */
  diagnose(situation: Situation): Diagnosis {
    const along = this.#follow(situation);
    return this.#diagnoses.get(along.belief, along.written, () => this.#diagnosis(along, situation.readings.length));
  }

  /** `output`: where in the tape the points of its output begin. */
  #diagnosis(along: Along, output: number): Diagnosis {
    const { opened } = this;
    const { tape, readings, followed, belief, atRest } = along;
    const judged = this.#judgeAll(along);
    return {
      sound: soundChance(belief),
      builds: buildsOf(opened, belief),
      unlike: unlikeChance(opened, belief),
      unlikeIn: unlikeInOf(opened, belief),
      suspects: suspectsOf(opened, belief, followed.counted, tape),
      cleared: clearedOf(opened, belief),
      parts: partsOf(opened, belief),
      readings: judged.slice(0, output),
      output: judged.slice(output),
      windings: windingsOf(opened, atRest),
      gate: gateOf(opened, atRest, readings),
    };
  }

  /** What is to be said of each reading, points of the output after the others. */
  judge(read: Read): JudgedReading[] {
    return this.#judgeAll(this.#follow(read));
  }

  /** Whether the unit may run, alone. */
  gate({ readings }: Situation): Gate | undefined {
    const { readings: read, belief } = this.#follow({ readings });
    return gateOf(this.opened, belief, read);
  }

  /** What to do about it. */
  outlook(situation: Situation): Outlook {
    const { opened } = this;
    const belief = this.beliefAfter(situation);
    const conditions = this.#conditions(situation);
    const done = new Set([...situation.readings.map(({ check }) => check), ...this.#outOfReach(situation)]);
    const hidden = hiddenFaults(opened, belief, conditions, done, situation.assembly);
    return { ...this.advice(situation), hidden: hidden.map((one) => hiddenText(opened, one)) };
  }

  /** What to check next: the part of the outlook that somebody waits for. */
  advice(situation: Situation): Omit<Outlook, 'hidden'> {
    const { opened } = this;
    const { readings, belief, atRest } = this.#follow(situation);
    const conditions = this.#conditions(situation);
    const done = new Set([...readings.map((reading) => reading.check.id), ...this.#outOfReach(situation)]);
    const here = whereabouts(opened.subject, situation, readings);
    const asked = JSON.stringify([here, situation.meter, situation.celsius, [...done]]);
    const gate = gateOf(opened, atRest, readings);
    const danger = gate?.reasons.some(({ check }) => check === undefined) ?? false;
    const advice = this.#advice.get(belief, asked, () => advise(opened, belief, conditions, done, here, !danger));
    const { lacks = [], assembly } = situation;
    const runFirst = !lacks.includes('stand') && runsFirst(opened, belief, advice, readings, assembly, gate);
    return {
      next: nextChecks(opened, advice, readings, conditions.meter, gate, runFirst),
      stop: stopReason(opened, advice),
      runFirst: runFirst && gate!.green,
      apart: apartOf(opened, belief, advice),
    };
  }

  /** The courses for a unit on the bench. */
  verdict(situation: BenchSituation): AssessedVerdict {
    return verdictOf(this.opened, this.beliefAfter(situation), situation.prices);
  }

  /** The belief after all readings, for whoever needs more than the assessment. */
  beliefAfter(read: Read): Belief {
    return this.#follow(read).belief;
  }

  #readings(read: Read): readonly Reading[] {
    return this.#tape(read).map((one) => this.#reading(one));
  }

  #follow(read: Read): Along {
    const tape = this.#tape(read);
    const written = JSON.stringify(tape);
    if (this.#along?.written === written) return this.#along;
    const readings = tape.map((one) => this.#reading(one));
    const followed = this.#history.follow(readings);
    const atRest = followed.after(followed.counted.filter(({ reading }) => !this.#points.has(reading.check.id)).length);
    return (this.#along = { tape, written, readings, followed, belief: followed.belief, atRest });
  }

  /**
   * Works out beforehand what the next assessments will need, a small step at a time: what would be believed of a unit
   * that soon looks unlike its kind, all that the likely next checks could show, all that would follow from each of their
   * findings, then what the heaviest hypotheses expect of every check, for the advice. What is for the first of the checks is
   * never forgotten for the rest. Stop whenever something better comes.
   */
  *prepare(situation: Situation, likely: readonly string[]): Steps<void> {
    const { opened } = this;
    yield* this.#history.prepare(this.#readings(situation));
    opened.memory.begin();
    const [first, ...more] = likely.map((id) => this.#prepareFor(checkOf(opened, id), situation));
    if (first) yield* first;
    for (const steps of [...more, this.#prepareAdvice(situation)])
      for (const _ of steps) {
        if (opened.memory.isFull) return;
        yield;
      }
  }

  *#prepareFor(check: Check, situation: Situation): Steps<void> {
    const { opened } = this;
    const predictor = opened.predictor(this.#conditions(situation));
    const belief = this.beliefAfter(situation);
    for (const [b, { particles, states }] of belief.rows.entries())
      for (const [at, p] of particles.entries()) {
        predictor.predict(check, opened.builds[b]!, opened.particles[p]!, states[at]!);
        if (at % preparedAtOnce === 0) yield;
      }
    yield* this.#rehearse(belief, check, situation);
  }

  *#prepareAdvice(situation: Situation): Steps<void> {
    const { opened } = this;
    const predictor = opened.predictor(this.#conditions(situation));
    const heaviest = standingParticles(this.beliefAfter(situation)).slice(0, preparedHypotheses);
    for (const check of opened.checks.filter((one) => isOpen(opened, one, situation.assembly)))
      for (const [at, { build, particle }] of heaviest.entries()) {
        predictor.predict(check, opened.builds[build]!, opened.particles[particle]!);
        if (at % preparedAtOnce === 0) yield;
      }
  }

  /** Thinks through what would follow from the outcomes of a check that can be foreseen. */
  *#rehearse(belief: Belief, check: Check, situation: Situation): Steps<void> {
    const { readings, output = [], assembly } = situation;
    if (output.length || !isOpen(this.opened, check, assembly) || readings.some((one) => one.check === check.id))
      return;
    for (const outcome of this.#foreseeable(belief, check, situation)) {
      const reading = { id: 'foreseen', check: check.id, outcome, meter: situation.meter, celsius: situation.celsius };
      const then = { ...situation, rested: false, readings: [...readings, reading] };
      yield* this.#history.prepare(this.#readings(then));
      this.diagnose(then);
      yield;
      this.advice(then);
      yield;
    }
  }

  /** Every finding; of numbers what a sound unit shows, since what is read will lie near it more often than not. */
  #foreseeable(belief: Belief, check: Check, situation: Situation): readonly Outcome[] {
    const findings = findingsOf(check);
    if (findings.length) return findings.map(({ id }) => ({ kind: 'finding', finding: id }));
    const [band] = soundBands(this.opened, belief, check, this.#conditions(situation));
    if (!band) return [];
    return [band.over > 0.5 ? { kind: 'over-range' } : { kind: 'value', value: band.middle }];
  }

  /** Checks that this shop can't do. */
  #outOfReach({ lacks = [] }: Situation): string[] {
    return this.opened.checks.flatMap(({ id, needs }) => (needs && lacks.includes(needs) ? [id] : []));
  }

  #conditions({ meter, celsius }: Situation): Conditions {
    return { meter: this.meter(meter), celsius };
  }

  /** The readings, and after them each point of the output as the reading of a check of its own. */
  #tape({ readings, output = [] }: Read): readonly TapeReading[] {
    const [meter] = this.#meters.keys();
    return [
      ...readings,
      ...output
        .filter(({ amps }) => amps >= leastOutput)
        .map(({ amps, ...at }): TapeReading => {
          const { id } = this.#pointOf(at);
          const outcome = { kind: 'value', value: amps } as const;
          return { id, check: id, outcome, meter: meter!, celsius: at.celsius ?? usualCelsius };
        }),
    ];
  }

  #pointOf({ rpm, volts, celsius }: OutputAt): Check {
    const { name, outputCheck } = this.opened.subject;
    if (!outputCheck) throw new RangeError(`${name} gives no output that could have points`);
    const made = outputCheck({ rpm, volts, celsius });
    const known = this.#points.get(made.id) ?? made;
    this.#points.set(made.id, known);
    return known;
  }

  #reading({ check, outcome, meter, celsius, told = 'own' }: TapeReading): Reading {
    const known = this.#points.get(check) ?? checkOf(this.opened, check);
    const using = this.meter(meter);
    return { check: known, outcome: asShown(known, outcome, using), meter: using, celsius, slip: hearsay[told] };
  }

  #judgeAll({ tape, readings, followed }: Along): JudgedReading[] {
    return tape.map((row, i) => this.#judgeOne(row, readings[i]!, readings, followed));
  }

  #judgeOne(
    tape: TapeReading,
    reading: Reading,
    all: readonly Reading[],
    { counted, outsets, belief }: Followed,
  ): JudgedReading {
    const { check, outcome } = reading;
    const shown = outcomeText(check, outcome);
    const named = { id: tape.id, check: check.id, name: check.name, shown, then: consequenceOf(check, outcome) };
    if (outcome.kind === 'no-access')
      return { ...named, net: undefined, expected: '', word: 'not looked at', ...nothingRead };
    const at = countedAt(counted, reading);
    const net = netOf(reading, all);
    const counting = countingOf(counted[at]!, reading);
    const aside = counted[at]!.otherLeads ? otherLeads : asides[counting];
    const toSettle = counting === 'undecided' ? undecided : slipWords(slipChanceOf(belief, at), reading.slip);
    return {
      ...named,
      net: net?.text,
      ...this.#wordFor(outsets[at]!, reading),
      counting,
      aside,
      repeat: aside ? undefined : (net?.repeat ?? toSettle),
    };
  }

  #wordFor(before: Outset, reading: Reading): { expected: string; word: Word } {
    const { check, outcome } = reading;
    const known = this.#words.get(before) ?? new Map<string, { expected: string; word: Word }>();
    this.#words.set(before, known);
    const key = JSON.stringify([check.id, outcome, reading.meter.id, reading.celsius]);
    let found = known.get(key);
    if (!found) {
      const expected = bandsText(check, soundBands(this.opened, before, check, reading));
      known.set(key, (found = { expected, word: wordOf(this.opened, before, check, reading, outcome) }));
    }
    return found;
  }
}

/** Where the readings left it, unless it was taken elsewhere since, or has rested. */
function whereabouts(subject: Subject, { assembly, rested }: Situation, readings: readonly Reading[]): Whereabouts {
  const left = readings.reduce((here: Whereabouts, { check }) => whereAfter(subject, here, check), { assembly });
  return left.assembly === assembly && !rested ? left : { assembly };
}

const consequenceOf = (check: Check, outcome: Outcome): string | undefined =>
  outcome.kind === 'finding' ? findingsOf(check).find(({ id }) => id === outcome.finding)?.then : undefined;

const nothingRead = { counting: undefined, aside: undefined, repeat: undefined };

/** A number that the range a check is read on can't show is over-range there, whatever an automatic meter found. */
function asShown({ method }: Check, outcome: Outcome, meter: Multimeter): Outcome {
  const lowest = method.kind === 'meter' && method.setup.held === 'lowest';
  const beyond = lowest && outcome.kind === 'value' && outcome.value > meter.ohms[0]!.fullScale;
  return beyond ? { kind: 'over-range' } : outcome;
}
