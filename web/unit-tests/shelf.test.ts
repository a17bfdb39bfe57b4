import { expect } from 'chai';
import fc from 'fast-check';
import { clawPoleGeneric } from '@refectum/core/machines';
import type { ShelfModel } from '@refectum/core/shelf';
import { demoShelf } from '../src/lib/server/demo/shelf.ts';
import {
  checkModel,
  draftOf,
  factsOfDraft,
  freshDraft,
  modelOf,
  readShelf,
  readShelfSheet,
  writeShelfFile,
  writeShelfSheet,
} from '../src/lib/shelf.ts';

const byName = (models: readonly ShelfModel[]) => [...models].sort((a, b) => (a.name < b.name ? -1 : 1));

describe('the shelf as a sheet and as a file', () => {
  it('what is written as CSV or JSON reads back the same, every value with its source', () => {
    for (const write of [writeShelfSheet, writeShelfFile]) {
      const { models, problems } = readShelf(write(demoShelf));
      expect(problems).deep.equal([]);
      expect(byName(models)).deep.equal(byName(demoShelf));
    }
  });
  it('a model that a file has twice counts once, and that is said', () => {
    const [first] = demoShelf;
    const other = { ...first!, name: ` ${first!.name.toUpperCase()}`, traps: [] };
    const { models, problems } = readShelf(writeShelfFile([first!, other]));
    expect(models).deep.equal([first]);
    expect(problems).deep.equal([`${other.name}: it stands in this file twice, the first one counts.`]);
  });
  it('of two of one name the first that can be read counts; a mark before the file is none of it', () => {
    const [first] = demoShelf;
    const file = JSON.parse(writeShelfFile([first!, first!])) as { models: { facts: Record<string, object> }[] };
    file.models[0]!.facts = {};
    const { models, problems } = readShelf(`\uFEFF${JSON.stringify(file)}`);
    expect(models).deep.equal([first]);
    expect(problems.length).greaterThan(0);
    for (const problem of problems)
      expect(problem)
        .match(new RegExp(`^${first!.name}: `))
        .and.not.match(/twice/);
  });
  it('so does any text in sources, traps and variants: quotes, commas, line ends', () => {
    const words = fc.string({ minLength: 1, maxLength: 40, unit: 'grapheme' }).map((s) => `x${s.trim()}y`);
    fc.assert(
      fc.property(words, words, words, words, (source, say, name, tell) => {
        const model: ShelfModel = {
          name: 'Ferrolux',
          family: 'claw-pole',
          facts: {
            ratedVolts: { value: 12, source },
            ratedAmps: { value: 90.5, source },
            frame: { value: say, source },
          },
          variants: [{ name, tell, facts: { rotorOhms: { value: 2.75, source } } }],
          traps: [{ about: 'brush-holder', say, source }],
        };
        const { models, problems } = readShelfSheet(`\uFEFF${writeShelfSheet([model])}`);
        expect(problems).deep.equal([]);
        expect(models).deep.equal([model]);
      }),
      { numRuns: 150 },
    );
  });
  it('takes names or ids, in any order and case, as a spreadsheet gives them', () => {
    const sheet = [
      'What\tvalue\tSOURCE\tmodel\tvariant',
      'limit.ring-ring.least\t2.5\tsheet\tNorvik 14-70\t',
      'RATED CURRENT\t70 A\tplate\tnorvik 14-70\t',
      'ratedVolts\t12\tplate\tNorvik 14-70\t',
      'Trap: direction\tFan leans.\there\tNorvik 14-70\t',
    ].join('\n');
    const { models, problems } = readShelf(sheet);
    expect(problems).deep.equal([]);
    expect(models.map(({ name }) => name)).deep.equal(['Norvik 14-70']);
    expect(models[0]!.facts['limit.ring-ring.least']).deep.equal({ value: 2.5, source: 'sheet' });
    expect(models[0]!.traps).deep.equal([{ about: 'direction', say: 'Fan leans.', source: 'here' }]);
  });
  it('leaves a model with a bad line out, says which line and why, and takes the others', () => {
    const head = 'model,variant,what,value,source';
    const good = 'Good,,Rated voltage,12,plate\nGood,,Rated current,70,plate';
    const bad: readonly (readonly [string, RegExp])[] = [
      ['Bad,,Rated voltage,12,plate\nBad,,Rated current,lots,plate', /^Bad: Rated current: “lots” is not a number/],
      ['Bad,,Rated voltage,12,plate\nBad,,Rated current,70,', /^Bad: Rated current: say where the value comes from/],
      ['Bad,,Weight,7,plate', /^Line 2: “Weight” is nothing that Bad can have/],
      ['Bad,,Trap: weather,wet,me', /^Line 2: “Trap: weather” is no trap/],
      [',,Rated voltage,12,plate', /name is missing/],
    ];
    for (const [lines, why] of bad) {
      const { models, problems } = readShelf(`${head}\n${lines}\n${good}`);
      expect(models.map(({ name }) => name)).deep.equal(['Good']);
      expect(
        problems.some((problem) => why.test(problem)),
        problems.join('\n'),
      ).equal(true);
    }
    expect(readShelf('a,b\n1,2').problems[0]).match(/The first line lacks model/);
  });
  it('says what is wrong with a file that is none', () => {
    expect(readShelf('{').problems).deep.equal(['This is no JSON.']);
    expect(readShelf('{"format":"other"}').problems[0]).match(/no shelf file of version 1/);
    const half = { format: 'refectum-shelf', version: 1, models: [demoShelf[0], { name: 'Half' }, null] };
    const { models, problems } = readShelf(JSON.stringify(half));
    expect(models).deep.equal([demoShelf[0]]);
    expect(problems.some((problem) => problem.startsWith('Half: '))).equal(true);
    expect(problems.some((problem) => problem.startsWith('Model 3: '))).equal(true);
  });
});

describe('a model as it is typed', () => {
  it('the demo’s models may all stand on the shelf, and survive being opened and put back', () => {
    for (const model of demoShelf) {
      expect(checkModel(model), model.name).deep.equal({});
      expect(modelOf(draftOf(model))).deep.equal({ model });
    }
  });
  it('names every problem at its place, and understands the rest', () => {
    const read = modelOf({
      name: '',
      family: 'claw-pole',
      cells: { ratedVolts: { text: '12 V', source: 'plate' }, ratedAmps: { text: 'x', source: '' } },
      variants: [{ name: 'Late', tell: '', cells: { rotorOhms: { text: '3', source: '' } } }],
      traps: [{ about: 'rating', say: 'Look.', source: '' }],
    });
    expect('problems' in read && Object.keys(read.problems).sort()).deep.equal(
      ['facts.ratedAmps', 'name', 'traps[0].source', 'variants[0].facts.rotorOhms', 'variants[0].tell'].sort(),
    );
  });
  it('empty variants, traps and cells are nobody’s', () => {
    const read = modelOf({
      name: 'A',
      family: 'claw-pole',
      cells: {
        ratedVolts: { text: '12', source: 'p' },
        ratedAmps: { text: '70', source: 'p' },
        frame: { text: ' ', source: '' },
      },
      variants: [{ name: ' ', tell: '', cells: {} }],
      traps: [{ about: 'rating', say: '', source: ' ' }],
    });
    expect('model' in read && [Object.keys(read.model.facts), read.model.variants, read.model.traps]).deep.equal([
      ['ratedVolts', 'ratedAmps'],
      [],
      [],
    ]);
  });
  it('a starter stands on it, in file and sheet, by its own facts; the sheet names its family', () => {
    const read = modelOf({
      name: 'Slipway 24-55 S',
      family: 'starter',
      cells: {
        ratedVolts: { text: '24', source: 'plate' },
        ratedKilowatts: { text: '5.5', source: 'plate' },
        layout: { text: 'reduction gear, wound field', source: 'own bench' },
        'price.solenoid': { text: '42', source: 'list' },
        'limit.no-load-amps.most': { text: '95', source: 'sheet 4' },
      },
      variants: [],
      traps: [],
    });
    if (!('model' in read)) throw new Error(JSON.stringify(read.problems));
    const sheet = writeShelfSheet([read.model]);
    expect(sheet).match(/Slipway 24-55 S,,Family,Starter,/);
    expect(readShelfSheet(sheet)).deep.equal({ models: [read.model], problems: [] });
    expect(readShelfSheet(sheet.replace('Family,Starter', 'Family,Magneto')).problems[0]).match(/is no family/);
    const amps = modelOf({
      name: 'A',
      family: 'starter',
      cells: { ratedVolts: { text: '12', source: 'p' }, ratedAmps: { text: '70', source: 'p' } },
      variants: [],
      traps: [],
    });
    expect('problems' in amps && Object.keys(amps.problems)).include('facts.ratedAmps');
  });
  it('what the machine is decides what else there is: exciter diodes have a price where there are some', () => {
    const priced = (exciterDiodes: string) =>
      factsOfDraft({ family: 'claw-pole', cells: { exciterDiodes: { text: exciterDiodes, source: '' } } }).some(
        ({ id }) => id === 'price.exciter-diodes',
      );
    expect([priced('three'), priced('none')]).deep.equal([true, false]);
  });
  it('from a unit that was here: what was looked at, with its tag; what was left as usual is not claimed', () => {
    const machine = { ...clawPoleGeneric(24, 110), rotorOhms: 8.2, connection: 'star' as const };
    const draft = freshDraft({ name: 'Ferrolux 28-110', machine, tag: 1012 });
    expect(draft.cells).deep.equal({
      ratedVolts: { text: '24 V', source: 'tag 1012' },
      ratedAmps: { text: '110', source: 'tag 1012' },
      connection: { text: 'star', source: 'tag 1012' },
      rotorOhms: { text: '8.2', source: 'tag 1012' },
    });
  });
});
