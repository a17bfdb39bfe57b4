// bin/refectum benchmark, a part of it: what the reasoning holds in memory, with all that the bench prepares, on an
// ordinary unit of unknown build and on one strewn three times as wide as its kind. Needs node --expose-gc.
import { type TapeReading, unitSession } from '../core/src/assess/index.ts';
import { multimeterById } from '../core/src/instruments/index.ts';
import { clawPoleGeneric } from '../core/src/machines/index.ts';
import { seeded } from '../core/src/numeric/index.ts';
import { HiddenUnit } from '../core/src/practice/index.ts';
import { hide } from '../core/test/hidden-units.ts';
import { spreads } from '../core/test/spreads.ts';

const meter = multimeterById('bench');
const looks = [15, 30, 60, 90];

function megabytes(): number {
  if (!globalThis.gc) throw new Error('run it with node --expose-gc, or by bin/refectum benchmark');
  // Buffers are swept beside the collection, and what hung on what was collected goes with the next.
  for (let n = 0; n < 3; n++) globalThis.gc();
  const { heapUsed, arrayBuffers } = process.memoryUsage();
  return (heapUsed + arrayBuffers) / 1e6;
}

/** Megabytes after so many readings, every check at rest in its order. */
function heldAfter(seed: number, scale: number): number[] {
  const before = megabytes();
  const session = unitSession(clawPoleGeneric(12, 65), 'none', [meter]);
  const { opened } = session;
  const random = seeded(seed);
  const unit = new HiddenUnit(random, opened.subject, meter, hide(random, opened), spreads, scale);
  const readings: TapeReading[] = [];
  return opened.checks
    .filter(({ assembly }) => assembly !== 'stand')
    .slice(0, looks.at(-1))
    .flatMap((check) => {
      readings.push({
        id: String(readings.length),
        check: check.id,
        outcome: unit.read(check),
        meter: meter.id,
        celsius: 20,
      });
      const situation = { readings: [...readings], assembly: check.assembly || 'closed', meter: meter.id, celsius: 20 };
      session.diagnose(situation);
      const { next } = session.advice(situation);
      for (const _ of session.prepare(
        situation,
        next.slice(0, 3).map((one) => one.check),
      ));
      return looks.includes(readings.length) ? [megabytes() - before] : [];
    });
}

console.log(
  `\nmegabytes that the reasoning holds after ${looks.join(', ')} readings of a unit of unknown build; target under 150`,
);
for (const [what, seed, scale] of [
  ['strewn as its kind', 11, 1],
  ['three times as wide', 13, 3],
] as const)
  console.log(
    what.padEnd(30),
    heldAfter(seed, scale)
      .map((mb) => mb.toFixed(0).padStart(5))
      .join(''),
  );
