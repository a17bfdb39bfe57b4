import { expect } from 'chai';
import { apiJob, ask, browser, openPage, page, postJson, readingEntry, until, visit, visitor } from './stage.ts';

const rack = async (find = ''): Promise<void> => {
  await visit(`/${find ? `?find=${encodeURIComponent(find)}` : ''}`);
};
const hook = (name: string, on = page) => on.locator(`section[aria-label="${name}"]`);
const hangs = (name: string, tag: number, on = page) =>
  until(async () => (await hook(name, on).locator(`a[href="/unit/${tag}"]`).count()) === 1, `${tag} under ${name}`);
const choose = (tag: number, to: string) => page.selectOption(`select[aria-label="Move tag ${tag}"]`, { label: to });

describe('the rack: where every unit stands', () => {
  it('moves a tag by its list, and back; each move is kept with its name', async () => {
    await rack();
    await hangs('Checked in', 1013);
    await choose(1013, 'Waiting for parts or time');
    await hangs('Waiting for parts or time', 1013);
    await until(async () => (await apiJob(1013)).stand === 'waiting', 'the move on the server');
    await choose(1013, 'Checked in');
    await until(async () => (await apiJob(1013)).stand === 'in', 'the move back');
    expect((await apiJob(1013)).moves.map(({ from, to, technician }) => [from, to, technician])).deep.equal([
      ['in', 'waiting', 'Wenna Oskarby'],
      ['waiting', 'in', 'Wenna Oskarby'],
    ]);
  });

  it('moves a tag by dragging it', async () => {
    await rack();
    await page.dragAndDrop('li:has(a[href="/unit/1013"])', 'section[aria-label="Waiting for parts or time"] h2');
    await hangs('Waiting for parts or time', 1013);
    await until(async () => (await apiJob(1013)).stand === 'waiting', 'the move on the server');
    await choose(1013, 'Checked in');
    await hangs('Checked in', 1013);
  });

  it('ready needs a verdict: the move comes back with the reason', async () => {
    await rack();
    await choose(1013, 'Ready');
    await page.waitForSelector('[role="alert"]:has-text("Tag 1013 has no verdict yet")');
    await hangs('Checked in', 1013);
    await page.click('button:has-text("Seen")');
  });

  it('gone needs a hand-over, and can be taken back', async () => {
    await rack();
    await hangs('Ready', 1012);
    await choose(1012, 'Gone');
    await page.waitForSelector('label:has-text("Who took it?") input:focus');
    await page.keyboard.press('Enter');
    await page.waitForSelector('form:has-text("Who took it?") [role="alert"]:has-text("Say who took it")');
    await page.keyboard.type('the crane driver');
    await page.keyboard.press('Enter');
    await until(async () => (await apiJob(1012)).stand === 'gone', 'the hand-over');
    expect((await apiJob(1012)).moves.at(-1)).deep.include({ to: 'gone', note: 'the crane driver' });
    await page.click('summary:has-text("Gone")');
    await choose(1012, 'Ready');
    await hangs('Ready', 1012);
  });

  it('a first reading puts the unit on the bench', async () => {
    expect((await apiJob(1014)).stand).equal('in');
    await postJson('/api/jobs/1014/readings', readingEntry());
    expect((await apiJob(1014)).stand).equal('bench');
    expect((await apiJob(1014)).moves.at(-1)).deep.include({ to: 'bench', note: 'first reading' });
  });

  it('a colleague’s move shows by itself', async () => {
    const elsewhere = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    const other = await openPage('Tovik Harle', elsewhere);
    await rack();
    await hangs('On the bench', 1005, other);
    await choose(1005, 'Waiting for parts or time');
    await hangs('Waiting for parts or time', 1005, other);
    await choose(1005, 'On the bench');
    await hangs('On the bench', 1005, other);
    await elsewhere.close();
  });

  it('searches by customer, model, serial and tag; % is a sign like any other', async () => {
    for (const [text, tag] of [
      ['crane', 1012],
      ['norvik 14-70', 1013],
      ['FX 30022', 1012],
      ['1007', 1007],
    ] as const) {
      await rack(text);
      await page.waitForSelector(`a[href="/unit/${tag}"]`);
    }
    await rack('%');
    expect(await page.textContent('[role="status"]:has-text("found")')).contain('0 found');
  });

  it('the server refuses a stand that is none, and takes a move sent twice as one', async () => {
    const technician = visitor.id;
    const post = (body: object) => postJson('/api/jobs/1014/moves', body);
    const move = { id: crypto.randomUUID(), to: 'waiting', note: '', technician };
    expect((await post({ ...move, to: 'attic' })).status).equal(422);
    expect((await post({ ...move, to: 'gone' })).status).equal(422);
    expect((await post({ ...move, to: 'ready' })).status).equal(409);
    const before = (await apiJob(1014)).moves.length;
    expect((await post(move)).status).equal(200);
    expect((await post({ ...move, id: crypto.randomUUID(), to: 'bench' })).status).equal(200);
    expect((await post(move)).status).equal(200);
    expect((await apiJob(1014)).moves.length).equal(before + 2);
    expect((await apiJob(1014)).stand).equal('bench');
    expect((await ask('/?find=1014')).status).equal(200);
  });
});
