import { Ajv2020 } from 'ajv/dist/2020.js';
import { expect } from 'chai';
import { ValidationError } from 'yup';
import { clawPoleGeneric, subjectOf } from '../src/machines/index.ts';
import { machineSchema, shelfFileJsonSchema, shelfFileSchema, shelfModelSchema } from '../src/record/index.ts';
import {
  type Facts,
  factsOf,
  fitsFact,
  limitOf,
  machineOf,
  pricesOf,
  readFact,
  type ShelfModel,
  warningsOf,
  writeFact,
} from '../src/shelf/index.ts';

const from = (source: string, values: Record<string, number | string | boolean>): Facts =>
  Object.fromEntries(Object.entries(values).map(([id, value]) => [id, { value, source }]));
const model = (name: string, facts: Facts = {}, more: Partial<ShelfModel> = {}): ShelfModel => ({
  name,
  family: 'claw-pole',
  facts: { ...from('plate', { ratedVolts: 24, ratedAmps: 90 }), ...facts },
  variants: [],
  traps: [],
  ...more,
});
function problems(given: unknown): string[] {
  try {
    shelfModelSchema.validateSync(given, { abortEarly: false, strict: true });
    return [];
  } catch (cause) {
    if (!(cause instanceof ValidationError)) throw cause;
    return (cause.inner.length ? cause.inner : [cause]).map(({ path, message }) => `${path}: ${message}`);
  }
}
const facts = factsOf(clawPoleGeneric(24, 90));
const fact = (id: string) => facts.find((one) => one.id === id)!;

describe('what can be known of a model', () => {
  it('every parameter of a machine, once, and nothing that is none', () => {
    const machineFacts = facts.filter(({ group }) => group === 'machine').map(({ id }) => id);
    const known = ['ringLeastMillimetres', 'polePairs', 'cutInRpm'];
    const parameters = [...Object.keys(clawPoleGeneric(24, 90)), ...known].filter((n) => n !== 'family');
    expect([...machineFacts].sort()).deep.equal([...parameters].sort());
  });
  it('a price for every part, and least and most for every check that gives a number', () => {
    const { items, checks } = subjectOf(clawPoleGeneric(24, 90));
    for (const { id } of items) expect(fact(`price.${id}`), id).not.equal(undefined);
    const numbers = checks.filter(({ method }) => method.kind !== 'finding');
    expect(numbers.length).greaterThan(20);
    expect(facts.filter(({ group }) => group === 'limits').length % 2).equal(0);
    expect(fact('limit.ring-ring.least').kind).deep.equal({ unit: 'ohms' });
    expect(fact('limit.rings-by-eye.least')).equal(undefined);
    expect(new Set(facts.map(({ id }) => id)).size).equal(facts.length);
    expect(new Set(facts.map(({ name }) => name.toLowerCase())).size, 'names told apart in a sheet').equal(
      facts.length,
    );
  });
  const typed: readonly (readonly [string, string, unknown])[] = [
    ['rotorOhms', '8.6', 8.6],
    ['statorPairOhms', '220m', 0.22],
    ['statorPairOhms', '0,22 Ω', 0.22],
    ['ratedVolts', '24', 24],
    ['ratedVolts', '24 V', 24],
    ['connection', ' Star ', 'star'],
    ['exciterDiodes', 'none', false],
    ['exciterDiodes', 'true', true],
    ['diodes', 'eight: two on the star point', 8],
    ['price.brushes', '12,50', 12.5],
    ['frame', 'F28', 'F28'],
  ];
  for (const [id, text, value] of typed)
    it(`${id}: reads “${text}”`, () => expect(readFact(fact(id), text)).deep.equal({ value }));
  const refused: readonly (readonly [string, string, RegExp])[] = [
    ['rotorOhms', '540 mV', /reads as volts/],
    ['rotorOhms', 'OL', /a number is needed/],
    ['connection', 'Y', /“Y” is none of star, delta, not known/],
    ['price.brushes', '-1', /no amount/],
    ['price.brushes', '', /no amount/],
    ['frame', 'x'.repeat(61), /at most 60/],
  ];
  for (const [id, text, why] of refused)
    it(`${id}: refuses “${text.slice(0, 12)}”, and says why`, () => {
      const read = readFact(fact(id), text);
      expect('problem' in read && read.problem).match(why);
    });
  it('what is written reads back, for every choice and a number of every kind', () => {
    for (const one of facts) {
      const values =
        'choices' in one.kind ? one.kind.choices.map(({ value }) => value) : 'longest' in one.kind ? ['F 28'] : [0.125];
      for (const value of values) {
        expect(readFact(one, writeFact(one, value)), one.id).deep.equal({ value });
        expect(fitsFact(one, value), one.id).equal(true);
      }
      expect(fitsFact(one, {}), one.id).equal(false);
    }
  });
});

describe('a model on the shelf', () => {
  it('describes its machine; what isn’t known is as usual for the rating', () => {
    const machine = machineOf(model('A', from('sheet', { rotorOhms: 8.6, connection: 'delta', frame: 'F28' })));
    expect(machine).deep.equal({ ...clawPoleGeneric(24, 90), rotorOhms: 8.6, connection: 'delta' });
    expect(machineSchema.isValidSync(machine, { strict: true })).equal(true);
  });
  it('a variant changes what differs and no more', () => {
    const late = { name: 'Late', tell: 'green varnish', facts: from('tag 1003', { statorPairOhms: 0.075 }) };
    const made = model('A', from('sheet', { statorPairOhms: 0.1, rotorOhms: 2.7 }), { variants: [late] });
    expect(machineOf(made, late)).deep.equal({ ...machineOf(made), statorPairOhms: 0.075 });
  });
  it('gives the verdict its prices, and leaves unknown what it doesn’t have', () => {
    const known = model('A', from('list', { 'price.rotor': 85, 'price.exchange': 210, 'limit.ring-ring.least': 8 }));
    expect(pricesOf(known)).deep.equal({ exchange: 210, items: { rotor: { price: 85 } } });
    expect(pricesOf(model('B'))).deep.equal({ items: {} });
  });
  it('has a limit where one is published, on one side or both', () => {
    const known = model('A', from('sheet', { 'limit.ring-ring.least': 7.9 }));
    expect(limitOf(known, 'ring-ring')).deep.equal({ least: { value: 7.9, source: 'sheet' }, most: undefined });
    expect(limitOf(known, 'ring-core')).equal(undefined);
  });
});

describe('what passes for what', () => {
  const frame = from('sheet', { frame: 'F28' });
  const small = model('Small', frame);
  it('says traps and variants, then what has the same frame and how it differs', () => {
    const large = model('Large', { ...from('sheet', { frame: 'f28' }), ...from('plate', { ratedAmps: 110 }) });
    const known: ShelfModel = {
      ...small,
      traps: [{ about: 'direction', say: 'The fan leans.', source: 'here' }],
      variants: [{ name: 'Late', tell: 'Green varnish.', facts: {} }],
    };
    const said = warningsOf(known, [known, large, model('Other')]);
    expect(said.map(({ about, say }) => ({ about, say: say.replaceAll(/\s/g, ' ') }))).deep.equal([
      { about: 'direction', say: 'The fan leans.' },
      { about: 'stator', say: 'There is another: Late. Green varnish.' },
      { about: 'rating', say: 'Large has the same frame: rated current 110 A there, 90.0 A here.' },
    ]);
  });
  it('tells of another field circuit under its own heading', () => {
    const sides = (['ground', 'supply'] as const).map((side) =>
      model(side, { ...frame, ...from('sheet', { regulatorSide: side }) }),
    );
    expect(warningsOf(sides[0]!, sides)).deep.equal([
      { about: 'field-circuit', say: 'supply has the same frame: field circuit supply side there, ground side here.' },
    ]);
  });
  it('says nothing where nothing differs, where a value is unknown, and where no frame is given', () => {
    expect(warningsOf(small, [small, model('Twin', frame)])).deep.equal([]);
    expect(warningsOf(small, [model('Told', { ...frame, ...from('sheet', { direction: 'either' }) })])).deep.equal([]);
    expect(warningsOf(model('A'), [model('B', from('plate', { ratedAmps: 110 }))])).deep.equal([]);
  });
});

describe('the shelf at the door', () => {
  it('takes a whole model', () => {
    const whole = model('Ferrolux 28-90', from('sheet 7', { rotorOhms: 8.6, 'limit.ring-ring.least': 7.9 }), {
      variants: [{ name: 'Late', tell: 'green', facts: from('tag 1003', { statorPairOhms: 0.2 }) }],
      traps: [{ about: 'rating', say: 'Read the plate.', source: 'here' }],
    });
    expect(problems(whole)).deep.equal([]);
  });
  const bad: readonly (readonly [string, unknown, string])[] = [
    [
      'a value without its source',
      model('A', from(' ', { rotorOhms: 8.6 })),
      'facts.rotorOhms: Rotor winding, ring to ring: say where the value comes from',
    ],
    [
      'a value of another kind',
      model('A', from('s', { rotorOhms: 'much' })),
      'facts.rotorOhms: Rotor winding, ring to ring: "much" can’t be its value',
    ],
    [
      'a value out of range',
      model('A', from('s', { rotorOhms: 900 })),
      'facts.rotorOhms: Rotor winding, ring to ring must lie between 0.5 and 60 Ω — got 900',
    ],
    [
      'a fact that is none',
      model('A', from('s', { colour: 'red' })),
      'facts.colour: “colour” is nothing that this model can have',
    ],
    [
      'no volts',
      { ...model('A'), facts: from('s', { ratedAmps: 90 }) },
      'facts.ratedVolts: Rated volts and rated current are needed: they stand on the plate',
    ],
    [
      'a variant that can’t be',
      model('A', from('s', { diodes: 8 }), {
        variants: [{ name: 'D', tell: 't', facts: from('s', { connection: 'delta' }) }],
      }),
      'variants[0].facts: Eight diodes need a star point: set the stator to star, or the diodes to six.',
    ],
    [
      'a trap about nothing',
      model('A', {}, { traps: [{ about: 'weather' as never, say: 's', source: 's' }] }),
      'traps[0].about: no such kind of trap: weather',
    ],
    ['no name', model(''), 'name: The model’s name is missing'],
    ['a field too many', { ...model('A'), colour: 'red' }, ': unknown field: colour'],
  ];
  for (const [what, given, told] of bad)
    it(`refuses ${what}, at its place`, () => expect(problems(given)).include(told));
  it('publishes a schema that takes what it takes, and refuses what has no source', () => {
    const fits = new Ajv2020({ strict: true, allowUnionTypes: true }).compile(shelfFileJsonSchema);
    const file = (models: unknown[]) => ({ format: 'refectum-shelf', version: 1, models });
    const good = file([model('A', from('sheet', { rotorOhms: 8.6, exciterDiodes: true, frame: 'F' }))]);
    expect(fits(good), JSON.stringify(fits.errors)).equal(true);
    expect(shelfFileSchema.isValidSync(good, { strict: true })).equal(true);
    const unsourced = file([model('A', { rotorOhms: { value: 8.6 } as never })]);
    for (const wrong of [unsourced, { ...good, version: 2 }, { ...good, format: 'other' }, file([{}])]) {
      expect(fits(wrong)).equal(false);
      expect(shelfFileSchema.isValidSync(wrong, { strict: true })).equal(false);
    }
  });
});
