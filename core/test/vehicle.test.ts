import { multimeterById } from '../src/instruments/index.ts';
import { expect } from 'chai';
import { type TapeReading, VehicleSession } from '../src/assess/index.ts';
import type { Teller } from '../src/belief/index.ts';
import { clawPoleGeneric, familyOf, subjectOf } from '../src/machines/index.ts';
import { caught, vehicleGeneric, vehicleSubject, wrongWays } from '../src/vehicle/index.ts';
import { Stories, wilson } from './stories.ts';

const unit = clawPoleGeneric(12, 90);
const vehicle = vehicleGeneric(12, 90);
const take = (check: string, result: number | string, told: Teller = 'own'): TapeReading => ({
  id: `${check} ${result} ${told}`,
  check,
  outcome: typeof result === 'number' ? { kind: 'value', value: result } : { kind: 'finding', finding: result },
  meter: 'workshop',
  celsius: 20,
  told,
});
const open = (complaint = 'no-charge', to = vehicle) =>
  new VehicleSession(to, unit, complaint, [multimeterById('workshop')]);
const judge = (readings: readonly TapeReading[], complaint?: string, to?: typeof vehicle) =>
  open(complaint, to).assessVehicle({ readings, assembly: 'parked', meter: 'workshop', celsius: 20 });
const likeliest = (readings: readonly TapeReading[], complaint?: string) =>
  judge(readings, complaint).suspects.map((suspect) => suspect.fault);

describe('the vehicle: facts of the trade (common practice, no source)', () => {
  const facts: readonly (readonly [string, string, readonly TapeReading[], string | RegExp])[] = [
    [
      'volts at the post, none at the battery: link or cable, not the unit',
      'no-charge',
      [take('battery-raised', 12), take('post-raised', 14.4)],
      /fuse-blown|charge-cable/,
    ],
    [
      'no volts anywhere and no excitation at the plug: wiring, not the unit',
      'no-charge',
      [take('battery-raised', 11.9), take('post-raised', 11.9), take('plug-ignition', 'dead')],
      'excitation-lost',
    ],
    [
      'a drain that goes with the output cable: diode leakage',
      'drains-overnight',
      [take('drain', 0.6), take('drain-cable-off', 0.03)],
      'diode-leaky',
    ],
    [
      'a drain that stays: a consumer',
      'drains-overnight',
      [take('drain', 0.6), take('drain-cable-off', 0.58)],
      'body-drain',
    ],
    [
      'runs away with a dead sense feed: the feed before the regulator',
      'overcharge',
      [take('battery-raised', 16.2), take('plug-sense', 'dead')],
      'sense-bad',
    ],
    [
      'runs away with a live sense feed: the regulator',
      'overcharge',
      [take('battery-raised', 16.2), take('plug-sense', 'live')],
      'regulator-full',
    ],
    [
      'noise that does not stop with the plug off: bearing or pulley',
      'whine',
      [take('noise', 'mechanical')],
      'bearing-worn|pulley-worn',
    ],
    [
      'low cranking volts with low amps, rested well: the battery',
      'slow-crank',
      [take('rested-volts', 12.6), take('cranking-volts', 9.2), take('cranking-amps', 90)],
      'battery-worn',
    ],
    [
      'low cranking volts with high amps: starter or engine',
      'slow-crank',
      [take('rested-volts', 12.6), take('cranking-volts', 10.2), take('cranking-amps', 290)],
      'starter-drag',
    ],
    [
      'no command at the solenoid: not the starter',
      'no-crank',
      [take('command', 'dead'), take('key-in-start', 'silent')],
      'no-command',
    ],
    [
      'whirs on few amps while the engine stands: the drive, not the alternator',
      'spins',
      [take('key-in-start', 'spins'), take('cranking-amps', 62)],
      'starter-drive',
    ],
    ['grinds: pinion or ring gear', 'grinds', [take('key-in-start', 'grinds')], 'starter-drive'],
    ['2 V along the ground path while cranking: straps', 'slow-crank', [take('crank-drop-ground', 2)], 'ground-path'],
    ['a belt that slips and squeals', 'low-charge', [take('belt', 'slack'), take('noise', 'squeal')], 'belt-slip'],
  ];
  for (const [what, complaint, readings, fault] of facts) {
    it(what, () =>
      expect(likeliest(readings, complaint)[0]).match(
        new RegExp(`^(${fault instanceof RegExp ? fault.source : fault})$`),
      ),
    );
  }
  it('regulated volts at a post that feeds nothing clear its field, whatever else is wrong: what the iron keeps gives a few', () => {
    const unitChance = (volts: number) => {
      const { blame } = judge([
        take('rested-volts', 12.05),
        take('battery-raised', 11.9),
        take('post-raised', volts),
        take('drop-charge', volts - 11.9),
      ]);
      return blame.unit;
    };
    expect(unitChance(14.3)).lessThan(0.15);
    expect(unitChance(2)).greaterThan(0.8);
  });
  it('13.0 V straight after driving says next to nothing of the charge; rested it does', () => {
    const flat = (readings: readonly TapeReading[]) =>
      judge(readings).suspects.find(({ fault }) => fault === 'battery-flat')?.chance ?? 0;
    const nothing = flat([]);
    expect(Math.abs(Math.log2(flat([take('driven-volts', 12.7)]) / nothing))).lessThan(1);
    expect(flat([take('rested-volts', 12.1)])).greaterThan(3 * nothing);
  });
  it('everything scales with 24 V', () => {
    const large = vehicleGeneric(24, 90);
    const { suspects } = judge([take('battery-raised', 23.9), take('post-raised', 28.6)], 'no-charge', large);
    expect(suspects[0]!.fault).match(/fuse-blown|charge-cable/);
  });
  it('drops known by difference say less than the drop measured itself', () => {
    const sure = (readings: readonly TapeReading[]) =>
      judge(readings, 'low-charge').suspects.find(({ fault }) => fault === 'charge-cable')!.chance;
    const difference = sure([take('battery-raised', 13.1), take('post-raised', 14.2)]);
    const direct = sure([take('drop-charge', 1.1)]);
    expect(difference).greaterThan(sure([]));
    expect(direct).greaterThan(difference);
  });
  const { checks: all } = vehicleSubject(vehicle, unit, 'none').subject;
  const catches = (id: string, typed: string, on = vehicle) =>
    caught(
      on,
      all.find((check) => check.id === id)!,
      typed,
    );
  const wrong: readonly (readonly [string, string, string, RegExp, boolean])[] = [
    ['ohms of a path that carries current', 'drop-charge', '20 ohm', /are ohms\. A path that carries current/, false],
    ['ohms of the ground path while cranking', 'crank-drop-ground', '0R2', /Type the volts/, false],
    ['no current at all', 'drain', '0', /fuse is blown/, true],
    ['a clamp not zeroed', 'drain', '-0.08', /not zeroed, or sits the other way round/, true],
    ['surface charge taken for charge', 'rested-volts', '13.1', /driven or charged just before/, true],
  ];
  for (const [what, id, typed, why, mayStand] of wrong)
    it(`catches ${what}`, () => {
      const held = catches(id, typed)!;
      expect(held.why).match(why);
      expect(held.mayStand).equal(mayStand);
    });
  it('holds back nothing else, and knows 24 V and mats', () => {
    for (const [id, typed] of [
      ['drop-charge', '0.2'],
      ['drop-charge', '200m'],
      ['drop-charge', 'abc'],
      ['drain', '0.04'],
      ['rested-volts', '12.7'],
      ['driven-volts', '13.4'],
      ['cranking-amps', '150'],
    ] as const)
      expect(catches(id, typed), `${id} ${typed}`).equal(undefined);
    expect(catches('rested-volts', '25.4', vehicleGeneric(24, 90))).equal(undefined);
    expect(catches('rested-volts', '26.2', vehicleGeneric(24, 90))).not.equal(undefined);
    expect(catches('rested-volts', '13.0', { ...vehicle, battery: 'mat' })).equal(undefined);
  });
  it('every wrong way names checks that exist, and says why', () => {
    const { checks } = vehicleSubject(vehicle, unit, 'none').subject;
    for (const { why, instead, name } of wrongWays) {
      expect(why.length, name).greaterThan(60);
      for (const id of instead)
        expect(
          checks.some((check) => check.id === id),
          `${name}: ${id}`,
        ).equal(true);
    }
  });
});

describe('the vehicle: the unit’s faults are the bench’s own', () => {
  it('every species of fault has its row, shares add up to one', () => {
    for (const machine of [unit, { ...unit, exciterDiodes: false }]) {
      const rows = familyOf(machine).onVehicle(machine);
      const species = new Set(subjectOf(machine).faults.map((fault) => fault.species));
      expect(new Set(rows.map((row) => row.species))).deep.equal(species);
      for (const name of species) {
        const shares = rows.filter((row) => row.species === name).reduce((sum, row) => sum + row.share, 0);
        expect(shares, name).closeTo(1, 1e-12);
      }
    }
  });
  it('both begin from one opinion of how often the unit is to blame', () => {
    for (const { id, sound } of subjectOf(unit).complaints) {
      expect(judge([], id).blame.unit, id).closeTo(1 - sound, 0.12);
    }
  });
  it('nothing learnt leaves the bench’s prior as it was', () => {
    const [heard] = subjectOf(unit).complaints;
    const after = open(heard!.id).complaintAfter([]);
    expect(after.sound).closeTo(heard!.sound, 1e-9);
    for (const { species } of subjectOf(unit).faults) {
      expect(after.factors[species] ?? 1, species).closeTo(heard!.factors[species] ?? 1, 1e-9);
    }
  });
  it('a drain that goes with the cable raises leaky diodes on the bench and lowers an open rotor', () => {
    const session = open('no-charge');
    const after = session.complaintAfter([take('drain', 0.6), take('drain-cable-off', 0.03)]);
    const before = session.complaintAfter([]);
    expect(after.factors['diode-leaky']).greaterThan(5 * before.factors['diode-leaky']!);
    expect(after.factors['rotor-open']).lessThan(before.factors['rotor-open']! / 5);
    expect(after.sound).lessThan(before.sound / 5);
  });
  it('a blown link raises the odds of a sound unit fourfold and more', () => {
    const after = open().complaintAfter([take('battery-raised', 12), take('post-raised', 14.3)]);
    const odds = (chance: number) => chance / (1 - chance);
    expect(odds(after.sound)).greaterThan(4 * odds(open().complaintAfter([]).sound));
  });
});

describe('the vehicle: who told it', () => {
  const readings = (told: Teller) => [take('battery-raised', 12, told), take('post-raised', 14.3, told)];
  const fuse = (told: Teller) => judge(readings(told)).blame.unit;
  it('weighs ours most, another shop’s less, the customer’s least', () => {
    expect(fuse('own')).lessThan(fuse('shop'));
    expect(fuse('shop')).lessThan(fuse('customer'));
    expect(fuse('customer')).lessThan(judge([]).blame.unit);
  });
  it('told twice is told once; measured twice is surer', () => {
    const twice = (told: Teller) => [
      take('post-raised', 14.3, told),
      { ...take('post-raised', 14.3, told), id: 'again' },
    ];
    const once = (told: Teller) => judge([take('post-raised', 14.3, told)]).blame.unit;
    expect(judge(twice('customer')).blame.unit).closeTo(once('customer'), 1e-9);
    expect(judge(twice('own')).blame.unit).not.closeTo(once('own'), 1e-9);
  });
  it('what gives way to a surer reading says so, and asks for nothing', () => {
    const told = take('post-raised', 12.1, 'customer');
    const [heard, measured] = judge([told, { ...take('post-raised', 14.3), id: 'again' }]).readings;
    expect([heard!.counting, heard!.aside, heard!.repeat]).deep.equal([
      'replaced',
      'Another reading counts in its place: surer, or taken anew.',
      undefined,
    ]);
    expect([measured!.counting, measured!.aside]).deep.equal(['counts', undefined]);
  });
  it('two drains that differ are told as differing, the last one counts', () => {
    const [first, last] = judge([take('drain', 0.03), take('drain', 0.6)], 'drains-overnight').readings;
    expect(first!.repeat).match(/disagree/);
    expect(last!.repeat).match(/disagree/);
    const third = judge([take('drain', 0.03), take('drain', 0.6), take('drain', 0.03)], 'drains-overnight').readings;
    expect(third.map(({ repeat }) => repeat)).deep.equal([undefined, undefined, undefined]);
    expect(third.map(({ aside }) => aside)).deep.equal([
      undefined,
      'More readings of this check agree on something else: this one doesn’t count.',
      undefined,
    ]);
  });
  it('what we measure takes the place of what was told, whichever came first', () => {
    const told = take('post-raised', 11.9, 'customer');
    const own = take('post-raised', 14.3);
    const battery = take('battery-raised', 12);
    const alone = judge([battery, own]).blame.unit;
    expect(judge([battery, told, own]).blame.unit).closeTo(alone, 1e-9);
    expect(judge([battery, own, told]).blame.unit).closeTo(alone, 1e-9);
  });
});

describe('the vehicle: a small study of stories, told in full (the whole one: bin/refectum study)', () => {
  const stories = new Stories(20261127);
  const complaints = ['no-charge', 'low-charge', 'overcharge', 'drains-overnight'];
  let told: ReturnType<Stories['tell']>[];
  before(() => {
    told = Array.from({ length: 120 }, (_, i) => stories.tell(complaints[i % complaints.length]!, 'own'));
  });
  it('sound units are called to blame no more often than 5 in 100, as far as so few can tell', () => {
    const sound = told.filter((story) => !story.unitFaulty);
    const { low, high } = wilson(sound.filter(({ blame }) => blame.course === 'bench').length, sound.length);
    expect(low, `of ${sound.length}: up to ${high}`).lessThan(0.05);
  });
  it('faulty units are returned no more often than 2 in 100, as far as so few can tell', () => {
    const faulty = told.filter((story) => story.unitFaulty);
    const { low, high } = wilson(faulty.filter(({ blame }) => blame.course === 'return').length, faulty.length);
    expect(low, `of ${faulty.length}: up to ${high}`).lessThan(0.02);
  });
  it('nothing the customer alone told clears a unit', () => {
    for (let i = 0; i < 24; i++) {
      expect(stories.tell(complaints[i % complaints.length]!, 'customer').blame.course).not.equal('return');
    }
  });
});
