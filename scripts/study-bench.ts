// bin/refectum study bench [UNITS [SPREAD | stand | starters] [regulators] [junctions] [ngspice] [shop] [A,B,C] [FILE.jsonl]]: hidden faults on
// made-up units at the static bench, by every check and by the advice; `stand`: running checks among them; `regulators`: then
// those fail too; `junctions`: diodes of another kind than told; `ngspice`: readings from decks written by hand; `shop`: one
// shop's, learning how common odd units are; A,B,C: other seeds, for units that nothing was tried on yet; FILE.jsonl: outcomes
// are kept there as they come, and those found there aren't worked out again.
import { type ChildProcess, fork } from 'node:child_process';
import { availableParallelism, totalmem } from 'node:os';
import { type DecidedUnit, type Session, unitSession, unlikeShareOf } from '../core/src/assess/index.ts';
import { multimeterById } from '../core/src/instruments/index.ts';
import { type ClawPole, clawPoleGeneric, type Machine, starterGeneric, subjectOf } from '../core/src/machines/index.ts';
import { seeded } from '../core/src/numeric/index.ts';
import { HiddenUnit } from '../core/src/practice/index.ts';
import { bench, hide, type Policy, type Reach, type Told } from '../core/test/hidden-units.ts';
import { showing, spreads, starterShowing, starterSpreads, unseen } from '../core/test/spreads.ts';
import { DeckedAlternator } from '../core/test/spice/decked-alternator.ts';
import { DeckedStarter } from '../core/test/spice/decked-starter.ts';
import { wilson } from '../core/test/stories.ts';
import { KeptOutcomes } from './kept-outcomes.ts';

/** Chosen before the first run, where no others are given; a unit's own seed is one of them and its number. */
const usualSeeds = '20261125,4180,731';
const meter = multimeterById('bench');
const alternators: readonly (readonly [string, ClawPole])[] = [
  ['12 V, star, silicon', { ...clawPoleGeneric(12, 90), connection: 'star', diodeKind: 'silicon' }],
  ['24 V, star, low-loss', { ...clawPoleGeneric(24, 80), connection: 'star', diodeKind: 'low-loss' }],
  ['12 V, delta, silicon', { ...clawPoleGeneric(12, 120), connection: 'delta', diodeKind: 'silicon' }],
  ['12 V, build not known', clawPoleGeneric(12, 65)],
];
const starters: readonly (readonly [string, Machine])[] = [
  ['12 V, direct drive', starterGeneric(12, 1.4, 'direct')],
  ['12 V, planetary', starterGeneric(12, 1.1, 'planetary')],
  ['24 V, reduction gear', starterGeneric(24, 5.5, 'reduction')],
  ['12 V, inertia drive', starterGeneric(12, 0.9, 'inertia')],
];
type Outcome = Told & { readonly unit: number; readonly model: string; readonly way: string };

const [countText = '10000', ...words] = process.argv.slice(2);
const kinds = ['ngspice', 'stand', 'starters', 'shop', 'regulators', 'junctions'];
const [inSpice, onStand, ofStarters, ofOneShop, regulatorsFail, otherJunctions] = kinds.map((word) =>
  words.includes(word),
);
const isSeeds = (word: string): boolean => /^\d+(,\d+){2}$/.test(word);
const seedsText = words.find(isSeeds) ?? usualSeeds;
const seeds = seedsText.split(',').map(Number);
const keptPath = words.find((word) => word.endsWith('.jsonl'));
const [scaleText = '1', ...unknown] = words.filter((word) => ![...kinds, seedsText, keptPath].includes(word));
/** Other diodes than told there are only where something was told of them. */
const studiedAlternators = alternators.filter(([, { diodeKind }]) => !otherJunctions || diodeKind !== 'unknown');
const models: readonly (readonly [string, Machine])[] = ofStarters ? starters : studiedAlternators;
/** What units told as such a machine truly are. */
const truly = (machine: Machine): Machine =>
  otherJunctions && machine.family === 'claw-pole'
    ? { ...machine, diodeKind: machine.diodeKind === 'silicon' ? 'low-loss' : 'silicon' }
    : machine;
const [count, scale] = [Number(countText), Number(scaleText)];
if (
  !Number.isInteger(count) ||
  count < 1 ||
  !(scale > 0) ||
  unknown.length > 0 ||
  (inSpice && onStand) ||
  (regulatorsFail && !onStand) ||
  (otherJunctions && (ofStarters || inSpice)) ||
  (keptPath && ofOneShop)
) {
  console.error(
    `“${process.argv.slice(2).join(' ')}”: give the number of units, and how many times wider they are strewn; “starters”, or “stand” for alternators that run too, their “regulators” failing or not; “junctions” for alternators with another kind of diodes than told; “ngspice” for units at rest, and starters, whose readings come from it; “shop” for units of one shop, which learns how common those unlike their kind are; three seeds like “${usualSeeds}” for other units; a file like “outcomes.jsonl” to go on from, but not of one shop, whose units teach one another.`,
  );
  process.exit(1);
}
/** The deck written by hand is of the first. */
const studied = inSpice ? models.slice(0, 1) : models;
interface Way {
  readonly policy: Policy;
  readonly reach: Reach;
  readonly way: string;
  /** What the shop has not. */
  readonly without: readonly 'brake'[];
}
const reaches: readonly (Omit<Way, 'policy' | 'way'> & { readonly called: string })[] = onStand
  ? [{ reach: 'and on the stand', called: ', on the stand too', without: [] }]
  : ofStarters
    ? [
        { reach: 'at rest', called: ' without a loaded point', without: ['brake'] },
        { reach: 'at rest', called: ' with loaded points', without: [] },
      ]
    : [{ reach: 'at rest', called: '', without: [] }];
const ways = reaches.flatMap(({ reach, called, without }) =>
  (['every check', 'the advice'] as const).map((policy): Way => ({ policy, reach, without, way: policy + called })),
);
/** After so many units a shop of the study takes what it has learnt; a session begun anew is slow at first. */
const learntEvery = 10;
const processes = Math.min(availableParallelism(), count);
/** Megabytes that each process may take; half of them for predictions, a kilobyte each, which units of one model have in common. */
const megabytes = Math.floor(totalmem() / 3e6 / processes);
const mostRemembered = 500 * megabytes;
const never = regulatorsFail || ofStarters ? [] : unseen;
const [strewn, ranges] = ofStarters ? [starterSpreads, starterShowing] : [spreads, showing];

const study = [`strewn ${scale}`, ...kinds.filter((word) => words.includes(word)), seedsText].join(', ');
const kept = keptPath ? new KeptOutcomes<Outcome>(keptPath, study) : undefined;

if (process.send) work();
else void gather();

/**
 * One process's share of the units, a model at a time so that its session stays warm; of one shop, by each way a shop of its
 * own. Without one nothing is learnt from the units before.
 */
function work(): void {
  const [at, of] = [Number(process.env.STUDY_AT), Number(process.env.STUDY_OF)];
  const shops = new Map(ofOneShop ? ways.map(({ way }) => [way, [] as DecidedUnit[]]) : []);
  for (const [m, [model, machine]] of studied.entries()) {
    // What is drawn doesn't hang on what the shop has learnt.
    const subject = subjectOf(truly(machine));
    let session: Session | undefined;
    for (const { policy, reach, way, without } of ways) {
      const done = new Set(kept?.found.filter((one) => one.way === way).map(({ unit }) => unit));
      const shop = shops.get(way);
      let share = unlikeShareOf(shop ?? []);
      if (shop) session = undefined;
      for (let i = m; i < count; i += studied.length) {
        if (Math.floor(i / studied.length) % of !== at || done.has(i)) continue;
        if (shop && shop.length % learntEvery === 0) [share, session] = [unlikeShareOf(shop), undefined];
        if (!session) {
          session = unitSession(machine, 'none', [meter], { unlikeShare: share });
          session.opened.memory.most = mostRemembered;
        }
        const { opened } = session;
        // The same unit and the same luck for all.
        const random = seeded(seeds[i % seeds.length]! + 7919 * i);
        const Unit = !inSpice ? HiddenUnit : ofStarters ? DeckedStarter : DeckedAlternator;
        const unit = new Unit(random, subject, meter, hide(random, opened, never, ranges), strewn, scale);
        const told = bench(session, unit, meter, policy, reach, never, without);
        shop?.push({ chance: told.unlike, share });
        process.send!({ ...told, unit: i, model, way } satisfies Outcome);
      }
    }
  }
}

async function gather(): Promise<void> {
  const outcomes = kept ? kept.found.filter(({ unit }) => unit < count) : [];
  const parts = Array.from({ length: processes }, (_, at) => {
    const part = fork(process.argv[1]!, process.argv.slice(2), {
      execArgv: ['--import', './scripts/typescript.mjs', `--max-old-space-size=${megabytes}`],
      env: { ...process.env, STUDY_AT: String(at), STUDY_OF: String(processes) },
    });
    return part.on('message', (outcome: Outcome) => {
      outcomes.push(outcome);
      kept?.add(outcome);
      if (outcomes.length % 200 === 0) console.error(`${outcomes.length / ways.length} of ${count}`);
    });
  });
  const ended = (part: ChildProcess) =>
    new Promise<void>((done, failed) =>
      part.on('exit', (code) => (code === 0 ? done() : failed(new Error(`a part of the study ended with ${code}`)))),
    );
  try {
    await Promise.all(parts.map(ended));
  } finally {
    for (const part of parts) part.kill();
  }
  if (outcomes.length !== count * ways.length)
    throw new Error(`${outcomes.length} outcomes came back, ${count * ways.length} were worked out`);
  report(outcomes);
}

const percent = (p: number): string => `${(100 * p).toFixed(1)} %`;
function say(what: string, hits: readonly Outcome[], of: readonly Outcome[]): void {
  if (of.length === 0) return;
  const { share, low, high } = wilson(hits.length, of.length);
  console.log(
    `  ${what}: ${hits.length} of ${of.length}, ${percent(share)} (95 %: ${percent(low)} to ${percent(high)})`,
  );
}
const mean = (numbers: readonly number[]): number => numbers.reduce((sum, n) => sum + n, 0) / numbers.length;

function report(outcomes: readonly Outcome[]): void {
  const source = inSpice ? 'read in ngspice from a deck written by hand' : "read by the program's own circuit";
  console.log(
    `${count} units, strewn ${scale} times as wide as the study's figures, ${source}; ${meter.name}; seeds ${seedsText}`,
  );
  for (const { way } of ways) {
    const all = outcomes.filter((one) => one.way === way);
    const right = (set: 'parts' | 'items') => (one: Outcome) => one[set].told === one[set].truth;
    console.log(
      `\nBy ${way}: ${mean(all.map(({ minutes }) => minutes)).toFixed(1)} min, ${mean(all.map(({ readings }) => readings)).toFixed(1)} readings`,
    );
    say('right component set', all.filter(right('parts')), all);
    say('right assembly set', all.filter(right('items')), all);
    for (const faults of [0, 1, 2]) {
      const some = all.filter(({ hidden }) => hidden.length === faults);
      say(`  with ${['no fault', 'one fault', 'two faults'][faults]}, components`, some.filter(right('parts')), some);
    }
    const sound = all.filter(({ hidden }) => hidden.length === 0);
    say(
      'healthy condemned (something named with 95 % or more)',
      sound.filter(({ parts }) => parts.told !== 'nothing' && parts.chance >= 0.95),
      sound,
    );
    for (const [model] of studied) {
      const of = all.filter((one) => one.model === model);
      say(`  ${model}, components`, of.filter(right('parts')), of);
    }
    const brier = mean(all.map((one) => (one.parts.chance - (right('parts')(one) ? 1 : 0)) ** 2));
    console.log(`  Brier score of the likeliest component set: ${brier.toFixed(4)}`);
    for (const [low, high] of [
      [0, 0.5],
      [0.5, 0.7],
      [0.7, 0.85],
      [0.85, 0.95],
      [0.95, 0.99],
      [0.99, 1.01],
    ] as const) {
      const told = all.filter(({ parts }) => parts.chance >= low && parts.chance < high);
      if (told.length)
        say(
          `  told ${percent(mean(told.map(({ parts }) => parts.chance)))} on average, right`,
          told.filter(right('parts')),
          told,
        );
    }
  }
  const minutesBy = ways.map(({ way }) => mean(outcomes.filter((one) => one.way === way).map((one) => one.minutes)));
  for (let n = 0; n < ways.length; n += 2)
    console.log(
      `\nThe advice takes ${percent(minutesBy[n + 1]! / minutesBy[n]!)} of the minutes${reaches[n / 2]!.called}.`,
    );
  for (const { way } of ways) sayMissed(way, outcomes);
}

/** What was told in place of what was hidden, most often first; places left out. */
function sayMissed(way: string, outcomes: readonly Outcome[]): void {
  const missed = outcomes.filter((one) => one.way === way && one.parts.told !== one.parts.truth);
  const kinds = new Map<string, number>();
  for (const { hidden, parts } of missed) {
    const kind = `${hidden.map((id) => id.replace(/:.*/, '')).join(' + ') || 'sound'}: told ${parts.told.replaceAll(/:[A-Z+-]+/g, '')}`;
    kinds.set(kind, (kinds.get(kind) ?? 0) + 1);
  }
  const most = [...kinds].sort((a, b) => b[1] - a[1]).slice(0, 15);
  console.log(`Most missed by ${way}:\n${most.map(([kind, n]) => `  ${n} × ${kind}`).join('\n')}`);
}
