import type { Teller } from '@refectum/core/belief';
import type { BenchSituation, Diagnosis, JudgedReading, Ruler } from '@refectum/core/assess';
import { type Check, type Equipment, findingsOf, type Outcome } from '@refectum/core/checks';
import type { Multimeter } from '@refectum/core/instruments';
import { asReceived, stateFor, type Subject, subjectOf } from '@refectum/core/machines';
import { caught, type Vehicle, vehicleSubject } from '@refectum/core/vehicle';
import type { Remote } from 'comlink';
import type { Person } from '../people.ts';
import {
  benchRounds,
  type Job,
  hasRested,
  metersInUse,
  outputOf,
  type Place,
  type ReadingDetail,
  type TakenReading,
  type TakenWork,
  tapeReading,
  vehicleOf,
} from '../job.ts';
import type { Setting, SettingChange } from '../setting.ts';
import { askAgain } from './again.ts';
import { Lateness } from './lateness.svelte.ts';
import { freshId, outbox } from './outbox.svelte.ts';
import type { Asked, PlaceOutlook, Reasoner } from './reasoner.worker.ts';
import { reasonerFor } from './reasoners.ts';
import { takenBeforeRefresh } from './refresh.ts';
import { readingsSent, runsSent, settingSent, worksSent } from './sent.ts';
import { outcomeTyped } from './typed-outcome.ts';

/** How many of the next checks are worked out beforehand. */
const prepared = 3;

/** The meter in hand at this screen, for whatever unit comes next. */
const meterKey = 'refectum-meter';

const draftKey = (tag: number, at: Place): string => `refectum-entry-${at}-${tag}`;

/** What a check showed. */
export type Shown = Pick<TakenReading, 'outcome' | 'typed' | 'detail'> & { readonly check: Check };

/**
 * One unit at one screen, on the bench or still on its vehicle: what the server knows, what is on its way there, and
 * what follows from both.
 */
export class Bench {
  readonly at: Place;
  readonly #lacks: readonly Equipment[];
  #served = $state.raw<Job>()!;
  #person = $state.raw<Person>()!;
  #reasoner: Remote<Reasoner> | undefined;
  #round = 0;
  #thought = '';
  #thinking: Promise<void> = Promise.resolve();
  /** Of what is being thought out, the first that somebody waits for: the suspects, and the words of the readings. */
  #diagnosing: Promise<void> = Promise.resolve();
  readonly lateness = new Lateness();
  #diagnosis = $state.raw<Diagnosis | undefined>();
  #outlook = $state.raw<PlaceOutlook | undefined>();
  #ruler = $state.raw<Ruler | undefined>();
  #picked = $state<string | undefined>();
  #entry = $state('');
  #problem = $state<string | undefined>();
  /** An entry that was held back once. */
  #caught = '';
  /** The check whose reading waits for the last one to be thought through. */
  #taking: string | undefined;
  /** How many of the taken writes the served job is known to hold: at first those of before this bench. */
  #settled = $state(outbox.taken.length);
  #told = $state<Teller>('own');
  #inHand = $state<string | undefined>();
  #subject = $derived.by(() => this.#subjectOf(this.#served, vehicleOf({ ...this.#served, ...this.#setting })));
  #setting = $derived.by(() => this.#withWaitingChanges());
  #all = $derived.by(() => readingsSent(this.#served));
  #works = $derived.by(() => worksSent(this.#served));
  #taken = $derived({ readings: this.#all, runs: runsSent(this.#served), works: this.#works });
  #readings = $derived(this.#all.filter(({ place, round }) => place === this.at && round === this.round));

  constructor(job: Job, person: Person, at: Place, lacks: readonly Equipment[] = []) {
    this.at = at;
    this.#lacks = lacks;
    this.#served = job;
    this.#person = person;
  }

  /** The unit or its vehicle, as the reasoning has it. */
  get subject(): Subject {
    return this.#subject;
  }
  get checks(): readonly Check[] {
    return this.#subject.checks;
  }
  /** Who measured what is typed next. */
  get told(): Teller {
    return this.#told;
  }
  set told(teller: Teller) {
    this.#told = teller;
  }
  get job(): Job {
    return this.#served;
  }
  get diagnosis(): Diagnosis | undefined {
    return this.#diagnosis;
  }
  /** Follows the diagnosis by a moment. */
  get outlook(): PlaceOutlook | undefined {
    return this.#outlook;
  }
  get ruler(): Ruler | undefined {
    return this.#ruler;
  }
  get problem(): string | undefined {
    return this.#problem;
  }
  get entry(): string {
    return this.#entry;
  }
  get setting(): Setting {
    return this.#setting;
  }
  /** The tape: every reading, struck ones too. */
  get readings(): readonly TakenReading[] {
    return this.#readings;
  }
  /** Readings of earlier rounds that stand, oldest first. */
  get earlier(): readonly TakenReading[] {
    return this.#all.filter(({ place, round, struck }) => place === this.at && round < this.round && !struck);
  }
  /** On the bench: one, and one more for every work done. */
  get round(): number {
    return this.at === 'bench' ? this.#works.length + 1 : 1;
  }
  get works(): readonly TakenWork[] {
    return this.#works;
  }
  get meter(): Multimeter | undefined {
    return this.#served.meters.find(({ known }) => known.id === this.#setting.meter)?.known;
  }
  get standing(): readonly TakenReading[] {
    return this.#readings.filter((reading) => !reading.struck);
  }
  /** Readings that ask to be taken again, oldest first. */
  get asking(): readonly JudgedReading[] {
    return askAgain(this.#diagnosis?.readings, this.standing);
  }
  /** The check at hand: picked, or else the most telling. */
  get check(): Check | undefined {
    const id = this.#picked ?? this.#outlook?.next[0]?.check;
    return this.checks.find((check) => check.id === id);
  }
  /** Whether the check at hand was picked rather than advised. */
  get picked(): boolean {
    return this.#picked !== undefined;
  }
  /** The state of assembly that a check is done in. */
  stateFor(check: Check): string {
    return stateFor(this.subject.assemblies, this.#setting.assembly, check);
  }

  /** Starts the reasoning; answers what ends it. */
  start(): () => void {
    this.#inHand = localStorage.getItem(meterKey) ?? undefined;
    this.#entry = sessionStorage.getItem(draftKey(this.#served.tag, this.at)) ?? '';
    this.#reasoner = reasonerFor(this.#served.tag, this.at);
    void outbox.open().then(() => this.think());
    return () => (this.#reasoner = undefined);
  }

  /** The server's newest word on the job. */
  serve(job: Job): void {
    this.#served = job;
    this.#settled = Math.max(this.#settled, takenBeforeRefresh());
    void this.think();
  }

  /** Who works at this screen from now on. */
  staff(person: Person): void {
    this.#person = person;
  }

  type(text: string): void {
    this.#caught = '';
    this.#entry = text;
    this.#problem = undefined;
    sessionStorage.setItem(draftKey(this.#served.tag, this.at), text);
  }

  async pick(check: string | undefined): Promise<void> {
    this.#picked = check;
    this.#problem = undefined;
    await this.#measure();
  }

  /** The next check on the list of advice, or the one after the picked. */
  async skip(): Promise<void> {
    const order = this.#outlook?.next.map((next) => next.check) ?? [];
    const at = order.indexOf(this.check?.id ?? '');
    await this.pick(order[(at + 1) % Math.max(order.length, 1)]);
  }

  /** Takes what was typed as the reading of the check at hand; says what is wrong with it instead. */
  async record(): Promise<boolean> {
    const { check } = this;
    if (!check || this.#isCaught(check)) return false;
    const outcome = outcomeTyped(this.#entry, check, this.#setting.celsius);
    if ('message' in outcome) {
      this.#problem = outcome.message;
      return false;
    }
    return this.take(outcome, this.#entry.trim());
  }

  /** Whether a reading on the vehicle is held back, with the reason; what may stand stands when recorded once more. */
  #isCaught(check: Check): boolean {
    if (this.at !== 'vehicle' || findingsOf(check).length) return false;
    const wrong = caught(vehicleOf({ ...this.#served, ...this.#setting }), check, this.#entry);
    if (!wrong || (wrong.mayStand && this.#caught === this.#entry)) return false;
    this.#caught = this.#entry;
    this.#problem = wrong.mayStand ? `${wrong.why} Enter once more records it all the same.` : wrong.why;
    return true;
  }

  /** Pressed twice is meant once. `ontaken`: what it was typed into may be cleared; the reasoning about it may last. */
  async take(outcome: Outcome, typed: string, detail?: ReadingDetail, ontaken?: () => void): Promise<boolean> {
    const { check } = this;
    if (!check || this.#taking === check.id || !this.#mayWrite() || !(await this.#stillAt(check))) return false;
    this.type('');
    ontaken?.();
    this.#picked = undefined;
    await this.#write([{ check, outcome, typed, detail }]);
    return true;
  }

  /** Takes what instruments read in one run, all at once, whatever check is at hand by now. */
  async takeRun(shown: readonly Shown[]): Promise<void> {
    if (!shown.length || !this.#mayWrite()) return;
    if (shown.some(({ check }) => check.id === this.#picked)) this.#picked = undefined;
    await this.#write(shown);
  }

  async #write(shown: readonly Shown[]): Promise<void> {
    const { meter, celsius } = this.#setting;
    const here = { place: this.at, told: this.#told, meter, celsius, round: this.round, at: new Date().toISOString() };
    const taken = shown.map(({ check, ...more }) => ({ id: freshId(), check: check.id, ...here, ...more }));
    const { readings, ...situation } = this.#situation();
    // While the browser's database writes it down, the reasoning begins.
    void this.#reasoner?.diagnose(this.#asked(), { ...situation, readings: [...readings, ...taken.map(tapeReading)] });
    await this.#send('POST', 'readings', ...taken.map((one) => [one.id, one] as const));
  }

  async strike(reading: string): Promise<void> {
    if (!this.#mayWrite()) return;
    await this.#send('POST', 'strikes', [`strike-${reading}`, { reading, at: new Date().toISOString() }]);
  }

  /** Strikes out the newest reading that stands, and puts its check at hand again. */
  async takeBack(): Promise<void> {
    const newest = this.standing.at(-1);
    if (!newest) return;
    await this.strike(newest.id);
    await this.pick(newest.check);
  }

  /** What was done to the unit: the next round begins. */
  async work(done: Pick<TakenWork, 'fitted' | 'mended' | 'note'>): Promise<void> {
    if (!this.#mayWrite()) return;
    const id = freshId();
    await this.#send('POST', 'works', [id, { id, ...done, at: new Date().toISOString() }]);
    await this.pick(undefined);
  }

  /** The meter in hand belongs to the screen: it is the same for the next unit. */
  async useMeter(id: string): Promise<void> {
    localStorage.setItem(meterKey, id);
    this.#inHand = id;
    await this.think();
  }

  /** Other leads are in the meter: their null comes first. */
  async otherLeads(): Promise<void> {
    await this.pick(this.checks.find(({ method }) => method.kind === 'leads')?.id);
  }

  async change(change: SettingChange): Promise<void> {
    if (!this.#mayWrite()) return;
    const id = freshId();
    await this.#send('PATCH', '', [id, { id, ...change }]);
  }

  /** Works everything out anew if anything changed; only the newest round counts. */
  think(): Promise<void> {
    return (this.#thinking = this.#thinkAnew(this.#thinking));
  }

  async #thinkAnew(last: Promise<void>): Promise<void> {
    if (!this.#reasoner) return;
    const unit = this.#asked();
    const situation = this.#situation();
    const thought = JSON.stringify([unit, situation]);
    if (thought === this.#thought) return last;
    this.#thought = thought;
    const round = ++this.#round;
    const show = (diagnosis: Diagnosis) => {
      if (round === this.#round) this.#diagnosis = diagnosis;
    };
    this.#diagnosing = this.lateness.watch(this.#reasoner.diagnose(unit, situation).then(show));
    const advising = this.#reasoner.advice(unit, situation);
    const looking = this.#reasoner.outlook(unit, situation);
    await this.#diagnosing;
    const advice = await advising;
    // What could hide and the verdict follow by a moment.
    if (round === this.#round && this.#outlook) this.#outlook = { ...this.#outlook, ...advice };
    const outlook = await looking;
    if (round !== this.#round) return;
    this.#outlook = outlook;
    void this.#measure();
  }

  /** The ruler of the check at hand; then, while nobody waits, what the likely next readings will need. */
  async #measure(): Promise<void> {
    const { check } = this;
    const reasoner = this.#reasoner;
    if (!check || !reasoner) return;
    const round = this.#round;
    const others = this.#served.meters.filter(({ retired }) => !retired).map(({ known }) => known);
    const ruler = await reasoner.ruler(this.#asked(), check.id, this.#situation(), others);
    // The server's word may have come meanwhile, with the same check made anew, or the page been left.
    if (round !== this.#round || this.check?.id !== check.id || !this.#reasoner) return;
    this.#ruler = ruler;
    const likely = [check.id, ...(this.#outlook?.next.slice(0, prepared).map((next) => next.check) ?? [])];
    void reasoner.prepare(this.#asked(), this.#situation(), [...new Set(likely)]);
  }

  /** Whether a check is still at hand once the last reading has been thought through; says so when not. */
  async #stillAt(check: Check): Promise<boolean> {
    this.#taking = check.id;
    await this.#thinking.finally(() => (this.#taking = undefined));
    if (this.check?.id === check.id) return true;
    this.#problem = 'The next check was just being chosen, and it is another one now: nothing was recorded.';
    return false;
  }

  #subjectOf({ machine, complaint }: Job, vehicle: Vehicle): Subject {
    return this.at === 'bench' ? subjectOf(machine) : vehicleSubject(vehicle, machine, complaint).subject;
  }

  #mayWrite(): boolean {
    const { name, role } = this.#person;
    if (role === 'viewer') this.#problem = `${name} may look, not write: a technician must sign in (key w).`;
    return role !== 'viewer';
  }

  async #send(method: 'POST' | 'PATCH', what: string, ...writes: readonly (readonly [id: string, body: object])[]) {
    const { tag } = this.#served;
    const path = `/api/jobs/${tag}${what ? `/${what}` : ''}`;
    const last = this.#thinking;
    const sent = writes.map(([id, body]) => outbox.send(this.#person, { id, tag, method, path, body: { ...body } }));
    // It stands on the tape once it is kept; the reasoning doesn't wait for the post.
    const kept = Promise.all(sent);
    this.#thinking = kept.then(() => this.#thinkAnew(last));
    await kept;
    await this.#diagnosing;
  }

  #asked(): Asked {
    const { machine, complaint, variants, unlikeShare, meters: shops } = this.#served;
    const job = { machine, vehicle: this.#setting.vehicle, variants, unlikeShare, ...this.#taken };
    const meters = metersInUse({ readings: this.#all, meters: shops }, this.#setting.meter);
    // On the vehicle its readings are the situation, on the bench they are where it begins.
    const background =
      this.at === 'bench' ? benchRounds(job).background : { origin: { vehicle: vehicleOf(job), readings: [] } };
    return { place: this.at, machine, complaint, meters, background };
  }

  #situation(): BenchSituation {
    const readings = this.standing.map(tapeReading);
    const output = this.at === 'bench' ? outputOf(this.#taken).filter(({ round }) => round === this.round) : undefined;
    return { ...this.#setting, readings, output, lacks: this.#lacks, rested: hasRested(this.standing) };
  }

  #withWaitingChanges(): Setting {
    const place = settingSent(this.#served, this.#settled);
    const inHand = this.#served.meters.find(({ known, retired }) => known.id === this.#inHand && !retired);
    if (inHand) place.meter = inHand.known.id;
    const newest = this.#all.filter((reading) => reading.place === this.at).at(-1);
    if (this.at === 'vehicle') {
      const { checks } = this.#subjectOf(this.#served, vehicleOf({ ...this.#served, vehicle: place.vehicle }));
      return { ...place, assembly: checks.find(({ id }) => id === newest?.check)?.assembly || 'parked' };
    }
    // What was worked on has been put together again.
    if (newest && newest.round < this.round && this.#served.works.length < this.#works.length)
      return { ...place, assembly: asReceived(subjectOf(this.#served.machine).assemblies).id };
    const known = this.#served.readings.some(({ id }) => id === newest?.id);
    const { checks, assemblies } = subjectOf(this.#served.machine);
    const check = known ? undefined : checks.find(({ id }) => id === newest?.check);
    return { ...place, assembly: check ? stateFor(assemblies, place.assembly, check) : place.assembly };
  }
}
