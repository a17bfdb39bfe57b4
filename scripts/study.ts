// bin/refectum study [STORIES]: is the unit blamed or cleared wrongly, over made-up vehicles with hidden faults?
import { Stories, type Story, wilson } from '../core/test/stories.ts';

const count = Number(process.argv[2] ?? 10_000);
const complaints = ['no-charge', 'charge-lamp', 'low-charge', 'overcharge', 'drains-overnight', 'whine', 'slow-crank'];
// Chosen after 400 stories of another seed had moved “to blame” from even odds to nine in ten, before any of this one.
const stories = new Stories(20261126);
const hearsays = new Stories(20261126 + 1);
const told: Story[] = [];
const hearsay: Story[] = [];
for (let i = 0; i < count; i++) {
  told.push(stories.tell(complaints[i % complaints.length]!, 'own'));
  hearsay.push(hearsays.tell(complaints[i % complaints.length]!, 'customer'));
  if ((i + 1) % 500 === 0) console.error(`${i + 1} of ${count}`);
}

const percent = (p: number): string => `${(100 * p).toFixed(2)} %`;
function say(what: string, hits: readonly Story[], of: readonly Story[], target: string): void {
  const { share, low, high } = wilson(hits.length, of.length);
  console.log(
    `${what}: ${hits.length} of ${of.length}, ${percent(share)} (95 %: ${percent(low)} to ${percent(high)}); ${target}`,
  );
}
const sound = told.filter((story) => !story.unitFaulty);
const faulty = told.filter((story) => story.unitFaulty);
say(
  'sound unit called to blame',
  sound.filter(({ blame }) => blame.course === 'bench'),
  sound,
  'target under 5 %',
);
say(
  'faulty unit returned as good',
  faulty.filter(({ blame }) => blame.course === 'return'),
  faulty,
  'target under 2 %',
);
say(
  'sound unit returned',
  sound.filter(({ blame }) => blame.course === 'return'),
  sound,
  'no target',
);
say(
  'faulty unit called to blame',
  faulty.filter(({ blame }) => blame.course === 'bench'),
  faulty,
  'no target',
);
say(
  'returned on hearsay alone',
  hearsay.filter(({ blame }) => blame.course === 'return'),
  hearsay,
  'target none',
);
// Calibration: of the stories given a chance of p, a share of p should be the unit's.
for (let low = 0; low < 1; low += 0.1) {
  const within = told.filter(({ blame }) => blame.unit >= low && blame.unit < low + 0.1);
  if (within.length) {
    const mean = within.reduce((sum, { blame }) => sum + blame.unit, 0) / within.length;
    say(
      `  told ${percent(mean)} on average`,
      within.filter((story) => story.unitFaulty),
      within,
      'should hold it',
    );
  }
}
const missed = faulty.filter(({ blame }) => blame.course === 'return').map((story) => story.faults.join(' + '));
if (missed.length) console.log(`returned though faulty: ${missed.join('; ')}`);
