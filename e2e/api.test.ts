import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { expect } from 'chai';
import { openFolder } from './harness.ts';
import { type Decision, overrode } from '../web/src/lib/job.ts';
import { apiJob, ask, freshUnit, postJson, readingEntry, visitor } from './stage.ts';

describe('the API', () => {
  it('takes the same reading twice as one', async () => {
    const body = readingEntry();
    const before = (await apiJob(1003)).readings.length;
    const answers = await Promise.all([
      postJson('/api/jobs/1003/readings', body),
      postJson('/api/jobs/1003/readings', body),
    ]);
    expect(answers.map((a) => a.status)).deep.equal([200, 200]);
    expect((await apiJob(1003)).readings.length).equal(before + 1);
  });
  it('what comes once more, later, changes nothing: not the state of assembly, nor the meter, nor where it stands', async () => {
    const tag = await freshUnit();
    const send = async (to: string, body: object) =>
      expect((await postJson(`/api/jobs/${tag}/${to}`, body)).status).equal(200);
    const change = async (setting: object) =>
      expect((await visitor.send('PATCH', `/api/jobs/${tag}`, { ...setting, technician: visitor.id })).status).equal(
        200,
      );
    const { id: technician } = visitor;
    const opens = readingEntry();
    const fits = { id: crypto.randomUUID(), fitted: ['rectifier'], mended: [], note: '', at: opens.at, technician };
    const standing = async () => {
      const { assembly, meter, stand } = await apiJob(tag);
      return { assembly, meter, stand };
    };
    await send('readings', opens);
    expect(await standing()).deep.equal({ assembly: 'opened', meter: 'workshop', stand: 'bench' });
    await send('works', fits);
    await change({ meter: 'pocket' });
    await send('moves', { id: crypto.randomUUID(), to: 'in', note: '', technician });
    const later = { assembly: 'closed', meter: 'pocket', stand: 'in' };
    expect(await standing()).deep.equal(later);
    await send('readings', opens);
    expect(await standing()).deep.equal(later);
    await change({ assembly: 'opened' });
    await send('works', fits);
    expect(await standing()).deep.equal({ ...later, assembly: 'opened' });
    const warmed = { id: crypto.randomUUID(), celsius: 31, meter: 'workshop', assembly: 'closed' };
    await change(warmed);
    expect(await standing()).deep.equal({ ...later, meter: 'workshop' });
    await change({ celsius: 24, meter: 'pocket', assembly: 'opened' });
    await change(warmed);
    expect(await standing()).deep.equal({ ...later, assembly: 'opened' });
    expect((await apiJob(tag)).celsius).equal(24);
  });
  it('a unit checked in twice at once is one, under one tag', async () => {
    const line = { customer: 'Post van', model: 'unknown', serial: '', complaint: 'no-charge', words: '', due: '' };
    const lines = [{ ...line, id: crypto.randomUUID(), volts: '12', amps: '70' }];
    const send = () => postJson('/api/check-ins', { lines, dry: false, technician: visitor.id });
    const answers = await Promise.all([send(), send(), send()]);
    expect(answers.map(({ status }) => status)).deep.equal([200, 200, 200]);
    const tags = await Promise.all(answers.map(async (answer) => ((await answer.json()) as { tag: number }[])[0]!.tag));
    expect(new Set(tags).size).equal(1);
    expect(await freshUnit(), 'no number is lost').equal(tags[0]! + 1);
  });
  const refused: readonly (readonly [string, Record<string, unknown>, number, RegExp])[] = [
    ['an outcome that is none', { outcome: { kind: 'value', value: 'x' } }, 422, /outcome/],
    ['an unknown meter', { meter: 'borrowed' }, 422, /meter/],
    ['a check the unit lacks', { check: 'diode-forward:N+' }, 422, /no check/],
    ['a check of the bench on the vehicle', { place: 'vehicle' }, 422, /vehicle has no check/],
    ['hearsay on the bench', { told: 'customer' }, 422, /measure ourselves/],
    ['a result the check can’t have', { outcome: { kind: 'finding', finding: 'smooth' } }, 422, /can’t have/],
    ['nobody’s word', { told: 'neighbour' }, 422, /told/],
    ['nobody’s name', { technician: '00000000-0000-4000-8000-000000000000' }, 401, /Somebody else wrote this/],
    ['a time that is none', { at: 'noon' }, 422, /at: must be a time/],
    ['a field too many', { extra: 1 }, 422, /unknown field|unspecified/],
  ];
  for (const [what, change, status, told] of refused) {
    it(`refuses ${what} with ${status} and a reason`, async () => {
      const answer = await postJson('/api/jobs/1003/readings', readingEntry(change));
      expect(answer.status).equal(status);
      expect(((await answer.json()) as { message: string }).message).match(told);
    });
  }
  it('strikes a reading out once, whoever asks twice; never one of another unit', async () => {
    const technician = visitor.id;
    const [first] = (await apiJob(1012)).readings;
    const strike = { reading: first!.id, at: new Date().toISOString(), technician };
    expect((await postJson('/api/jobs/1011/strikes', strike)).status).equal(404);
    expect((await postJson('/api/jobs/1012/strikes', strike)).status).equal(200);
    const once = (await apiJob(1012)).readings[0]!.struck;
    expect((await postJson('/api/jobs/1012/strikes', { ...strike, at: '2026-01-01T00:00:00Z' })).status).equal(200);
    expect((await apiJob(1012)).readings[0]!.struck).deep.equal(once);
  });

  const badChanges: readonly (readonly [string, Record<string, unknown>, RegExp])[] = [
    ['a state of assembly that is none', { assembly: 'in pieces' }, /no state of assembly/],
    ['a meter the shop lacks', { meter: 'borrowed' }, /no meter “borrowed”/],
    ['a part hotter than any bench', { celsius: 900 }, /above 200/],
    ['a price below nothing', { prices: { items: {}, exchange: -5 } }, /prices\.exchange/],
    ['a battery that is none', { vehicle: { crankingAmps: 9 } }, /vehicle\.crankingAmps.*50/],
    ['a vehicle without a battery', { vehicle: { battery: null } }, /vehicle\.battery/],
    ['a field nobody knows', { colour: 'red' }, /unknown|unspecified/],
  ];
  for (const [what, change, told] of badChanges) {
    it(`changes nothing for ${what}`, async () => {
      const before = await (await ask('/api/jobs/1003/view')).text();
      const answer = await visitor.send('PATCH', '/api/jobs/1003', { ...change, technician: visitor.id });
      expect(answer.status).equal(422);
      expect(((await answer.json()) as { message: string }).message).match(told);
      expect(await (await ask('/api/jobs/1003/view')).text()).equal(before);
    });
  }

  it('keeps what two changed of one thing at once; null takes away again', async () => {
    const change = (more: object) =>
      visitor.send('PATCH', '/api/jobs/1003', { ...more, technician: visitor.id }).then(({ status }) => status);
    const { prices } = await apiJob(1003);
    const both = [{ prices: { labourPerHour: 61 } }, { prices: { items: { rectifier: { minutes: 33 } } } }];
    expect(
      await Promise.all([...both, { vehicle: { battery: 'mat' } }, { vehicle: { engineLitres: 9 } }].map(change)),
    ).deep.equal([200, 200, 200, 200]);
    const changed = await apiJob(1003);
    expect(changed.prices).deep.equal({
      ...prices,
      labourPerHour: 61,
      items: { ...prices.items, rectifier: { ...prices.items.rectifier, minutes: 33 } },
    });
    expect(changed.vehicle).deep.include({ battery: 'mat', engineLitres: 9 });
    expect(await change({ vehicle: { engineLitres: null } })).equal(200);
    expect((await apiJob(1003)).vehicle)
      .deep.include({ battery: 'mat' })
      .and.not.have.property('engineLitres');
  });

  it('a decision needs a course and a reason; sent twice it is one', async () => {
    const decision = {
      id: crypto.randomUUID(),
      course: 'reject',
      reason: 'Case cracked.',
      technician: visitor.id,
    };
    const before = (await apiJob(1003)).verdicts.length;
    expect((await postJson('/api/jobs/1003/verdicts', { ...decision, reason: '  ' })).status).equal(422);
    expect((await postJson('/api/jobs/1003/verdicts', { ...decision, course: 'sell' })).status).equal(422);
    const both = await Promise.all([1, 2].map(() => postJson('/api/jobs/1003/verdicts', decision)));
    expect(both.map((answer) => answer.status)).deep.equal([200, 200]);
    expect((await apiJob(1003)).verdicts.length).equal(before + 1);
    const kept = (await apiJob(1003)).verdicts.at(-1) as unknown as Decision;
    expect([kept.technician, overrode(kept)]).deep.equal([
      'Wenna Oskarby',
      'against the sheet: “Nothing found yet that condemns the unit.”',
    ]);
    expect(await (await ask('/unit/1003/report')).text()).contain(overrode(kept));
  });

  it('publishes the schema of the job file, and the file it gives fits it', async () => {
    const schema = (await (await ask('/api/schema')).json()) as object;
    const fits = new Ajv2020({ strict: true, formats: { 'date-time': true } }).compile(schema);
    for (const tag of [1001, 1005, 1012, 1013]) {
      expect(fits(await (await ask(`/api/jobs/${tag}`)).json()), JSON.stringify(fits.errors)).equal(true);
    }
  });

  /** What a stream says until something matches. */
  async function heardUntil(listening: Response, wanted: RegExp): Promise<RegExpExecArray> {
    const reader = listening.body!.getReader();
    let heard = '';
    for (;;) {
      const { value, done } = await reader.read();
      if (done) throw new Error(`the stream ended after “${heard}”`);
      heard += new TextDecoder().decode(value);
      const found = wanted.exec(heard);
      if (found) return reader.cancel().then(() => found);
    }
  }

  it('tells of a change to whoever listens', async () => {
    const listening = await ask('/api/events');
    await postJson('/api/jobs/1003/readings', readingEntry());
    expect((await heardUntil(listening, /^data: 1003$/m))[0]).equal('data: 1003');
  });

  it('tells whoever comes back what changed meanwhile, and says so where that isn’t known', async () => {
    const firstEvent = async (since: number) => {
      const [, id, tag] = await heardUntil(await ask(`/api/events?since=${since}`), /^id: (\d+)\ndata: (\d+)$/m);
      return [Number(id), tag] as const;
    };
    const [now, any] = await firstEvent(1);
    expect(any).equal('0');
    await postJson('/api/jobs/1003/readings', readingEntry());
    expect((await firstEvent(now))[1]).equal('1003');
    expect((await firstEvent(now + 1e6))[1]).equal('0');
  });

  it('refuses what comes from another site, and a tag that isn’t there', async () => {
    expect(
      (await postJson('/api/jobs/1003/readings', readingEntry(), { origin: 'http://elsewhere.example' })).status,
    ).equal(403);
    expect((await postJson('/api/jobs/4711/readings', readingEntry())).status).equal(404);
    expect((await postJson('/api/jobs/x/readings', readingEntry())).status).equal(404);
    expect((await postJson('/api/jobs/99999999999/readings', readingEntry())).status).equal(404);
  });
  it('gives the job file, which the command assesses as the server does', async () => {
    const file = join(openFolder(), 'job.json');
    writeFileSync(file, await (await ask(`/api/jobs/1007`)).text());
    const printed = JSON.parse(execFileSync('bin/refectum', ['assess', file], { encoding: 'utf8' })) as Record<
      string,
      { suspects: { fault: string; chance: number }[]; verdict: unknown }
    >;
    const there = (await (await ask(`/api/jobs/1007/assessment`)).json()) as (typeof printed)[string];
    expect(printed[file]!.suspects.map((s) => s.fault)).deep.equal(there.suspects.map((s) => s.fault));
    printed[file]!.suspects.forEach((s, i) => expect(s.chance).closeTo(there.suspects[i]!.chance, 1e-9));
    expect(printed[file]!.verdict).deep.equal(there.verdict);
  });
});
