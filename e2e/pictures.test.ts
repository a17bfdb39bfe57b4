import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect } from 'chai';
import pg from 'pg';
import sharp from 'sharp';
import { openFolder, pdfText } from './harness.ts';
import { ask, browser, page, stand, until, visit, visitor } from './stage.ts';
import { openAt, Visitor } from './visitor.ts';

const folder = openFolder();
const file = (name: string, bytes: Uint8Array): string => {
  const path = join(folder, name);
  writeFileSync(path, bytes);
  return path;
};
const plain = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: '#b4622a' } });
/** As a phone takes it: lying on its side, and with its place written into it. */
const fromPhone = () =>
  plain(2600, 1300)
    .jpeg()
    .withExif({
      IFD0: { Make: 'A phone', Orientation: '6' },
      IFD3: { GPSLatitude: '50/1 10/1 30/1', GPSLatitudeRef: 'N' },
    })
    .withMetadata({ orientation: 6 })
    .toBuffer();
const pictures = (tag: number, on = page) => visit(`/unit/${tag}/pictures`, on);
const shown = (on = page) => on.locator('main ul li img');

const send = (bytes: Uint8Array, more: { to?: string; id?: string; cookie?: string } = {}): Promise<Response> => {
  const body = new FormData();
  body.set('id', more.id ?? crypto.randomUUID());
  body.set('caption', 'sent');
  body.set('picture', new Blob([new Uint8Array(bytes)]), 'a.jpg');
  return fetch(stand.url + (more.to ?? '/unit/1003/pictures/add'), {
    method: 'POST',
    headers: { origin: stand.url, cookie: more.cookie ?? visitor.cookie },
    body,
  });
};
const listed = async (tag: number) =>
  [...(await (await ask(`/unit/${tag}/pictures`)).text()).matchAll(/\/pictures\/([0-9a-f-]{36})\?size=small/g)].map(
    ([, id]) => id!,
  );

describe('pictures', () => {
  it('from this screen: with words, upright, small enough, and without the place the camera wrote into it', async () => {
    const sent = await fromPhone();
    expect((await sharp(sent).metadata()).exif, 'the camera wrote something').not.equal(undefined);
    await pictures(1003);
    await page.fill('label:has-text("What it shows") input', 'Case as it came');
    await page.setInputFiles('input[type="file"]', [
      file('phone.jpg', sent),
      file('list.jpg', Buffer.from('no picture')),
    ]);
    await page.waitForSelector('text=list.jpg: That is no picture that can be read');
    await until(async () => (await shown().count()) === 1, 'the picture on the page');
    expect(await page.textContent('main ul li'))
      .match(/Case as it came/)
      .and.match(/Wenna Oskarby/);
    expect(await page.inputValue('label:has-text("What it shows") input'), 'words stay for the one to mend').equal(
      'Case as it came',
    );
    const [id] = await listed(1003);
    const whole = Buffer.from(await (await ask(`/pictures/${id}`)).arrayBuffer());
    const { format, width, height, exif, orientation } = await sharp(whole).metadata();
    expect({ format, width, height, exif, orientation }).deep.equal({
      format: 'jpeg',
      width: 1000,
      height: 2000,
      exif: undefined,
      orientation: undefined,
    });
    expect(whole.includes('A phone')).equal(false);
    const small = Buffer.from(await (await ask(`/pictures/${id}?size=small`)).arrayBuffer());
    expect((await sharp(small).metadata()).height).equal(480);
  });

  it('struck out it stays, and leaves the report; back in it is printed, in the PDF too', async () => {
    await pictures(1003);
    const onReport = async () => (await (await ask('/unit/1003/report')).text()).includes('Case as it came');
    expect(await onReport()).equal(true);
    await page.click('button:text-is("strike")');
    await page.waitForSelector('text=struck out');
    expect(await onReport()).equal(false);
    const [picture] = await listed(1003);
    expect((await visitor.submit('/unit/1003/pictures?/strike', { picture: picture!, strike: 'out' })).status).equal(
      200,
    );
    expect(await onReport(), 'asked for twice is once').equal(false);
    const neither = await visitor.submit('/unit/1003/pictures?/strike', { picture: picture! });
    expect(await neither.text()).contain('Out or back in?');
    expect(await onReport(), 'neither changes nothing').equal(false);
    await page.click('button:text-is("back in")');
    await page.waitForSelector('button:text-is("strike")');
    expect(await onReport()).equal(true);
    const pdf = new Uint8Array(await (await ask('/unit/1003/report.pdf')).arrayBuffer());
    expect(pdfText(pdf)).match(/Pictures\n[\s\S]*Case as it came/);
  });

  it('with the answer lost on its way the same picture chosen again is one; a strike that isn’t taken says so', async () => {
    await pictures(1011);
    const chosen = file('bearing.png', await plain(30, 20).png().toBuffer());
    await page.evaluate(() => {
      const { fetch } = window;
      window.fetch = async (...asked) => {
        await fetch(...asked);
        window.fetch = fetch;
        throw new TypeError('lost');
      };
    });
    await page.setInputFiles('input[type="file"]', chosen);
    await page.waitForSelector('text=bearing.png: the server did not answer');
    expect(await listed(1011), 'it had arrived').length(1);
    await page.setInputFiles('input[type="file"]', chosen);
    await page.waitForSelector('text=The picture is with the unit.');
    expect(await listed(1011)).length(1);
    await page.setInputFiles('input[type="file"]', chosen);
    await until(async () => (await listed(1011)).length === 2, 'taken and chosen once more it is another');
    await page.route('**/pictures?/strike', (route) => route.abort());
    await page.locator('button:text-is("strike")').first().click();
    await page.waitForSelector('[role="alert"]:has-text("The server did not take it")');
    expect(await page.title()).match(/Pictures, tag 1011/);
    await page.unroute('**/pictures?/strike');
    await page.locator('button:text-is("strike")').first().click();
    await page.waitForSelector('text=struck out');
    expect(await page.locator('[role="alert"]').count()).equal(0);
  });

  it('the PDF says so where it has room for the first of them alone', async () => {
    const tiny = await plain(20, 20).png().toBuffer();
    for (let n = 0; n < 11; n++) await send(tiny, { to: '/unit/1002/pictures/add' });
    const pdf = await (await ask('/unit/1002/report.pdf')).arrayBuffer();
    expect(pdfText(new Uint8Array(pdf))).match(/9 of 11; the others are kept with the unit/);
  });

  it('a phone with a code sends pictures of that unit alone, signed in as nobody, in the name of who asked', async () => {
    await pictures(1006);
    await page.click('button:has-text("Give a phone a code")');
    await page.waitForSelector('img[alt="Square code for the phone"]');
    const address = (await page.textContent('p.figure.break-all'))!;
    expect(address).match(new RegExp(`^${stand.lanUrl}/p/[a-z2-9]{10}$`));
    const phone = await browser.newContext({ viewport: { width: 390, height: 780 } });
    const there = await phone.newPage();
    await openAt(there, address);
    await there.waitForSelector('h1:has-text("Pictures of tag 1006")');
    expect(await there.locator('header').count(), 'nothing else to go to').equal(0);
    await there.fill('label:has-text("What it shows") input', 'Rings, as opened');
    await there.setInputFiles('input[type="file"]', file('rings.webp', await plain(300, 200).webp().toBuffer()));
    await there.waitForSelector('text=The picture is with the unit.');
    await page.waitForSelector('img[alt="Rings, as opened"]');
    expect(await page.textContent('main ul li:has(img[alt="Rings, as opened"])')).match(/Wenna Oskarby/);
    await openAt(there, `${stand.lanUrl}/unit/1006`);
    await there.waitForURL(/sign-in/);
    await phone.close();
  });

  it('a code’s time ends, and a made-up one was never given', async () => {
    await pictures(1006);
    await page.click('button:has-text("Give a phone a code")');
    await page.waitForSelector('p.figure.break-all');
    const code = /p\/(.*)$/.exec((await page.textContent('p.figure.break-all'))!)![1]!;
    const sent = await plain(20, 20).png().toBuffer();
    expect((await send(sent, { to: `/p/${code}/add`, cookie: '' })).status).equal(200);
    const pool = new pg.Pool({ connectionString: stand.databaseUrl });
    const { rows } = await pool.query(`select extract(epoch from max(expires_at) - now()) as left from picture_code`);
    expect(Number((rows[0] as { left: string }).left)).within(590, 600);
    expect((await pool.query('select 1 from picture_code where id = $1', [code])).rowCount, 'kept as a hash').equal(0);
    await pool.query(`update picture_code set expires_at = now() - interval '1 second'`);
    await pool.end();
    for (const [what, wrong] of [
      ['late', code],
      ['made up', 'aaaaaaaaaa'],
    ] as const) {
      const answer = await send(sent, { to: `/p/${wrong}/add`, cookie: '' });
      expect([answer.status, ((await answer.json()) as { message: string }).message], what).deep.equal([
        410,
        'This code is used up: ask for a new one at the bench, under Pictures.',
      ]);
      expect((await fetch(`${stand.url}/p/${wrong}`)).status).equal(410);
    }
  });

  it('sent twice it is one; too large, no picture or by nobody it is none', async () => {
    const sent = await plain(20, 20).png().toBuffer();
    const id = crypto.randomUUID();
    const before = (await listed(1011)).length;
    for (const answer of [
      await send(sent, { to: '/unit/1011/pictures/add', id }),
      await send(sent, { to: '/unit/1011/pictures/add', id }),
    ])
      expect(answer.status).equal(200);
    expect((await listed(1011)).length).equal(before + 1);
    const noise = Buffer.alloc(13 * 1024 * 1024, 7);
    expect((await send(noise, { to: '/unit/1011/pictures/add' })).status).equal(413);
    expect(
      (await send(Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>'), { to: '/unit/1011/pictures/add' })).status,
    ).equal(415);
    expect((await send(sent.subarray(0, 60), { to: '/unit/1011/pictures/add' })).status).equal(415);
    expect((await send(new Uint8Array(), { to: '/unit/1011/pictures/add' })).status).equal(422);
    expect((await send(sent, { to: '/unit/1011/pictures/add', cookie: '' })).status).equal(401);
    const viewer = await Visitor.signIn(stand.url, 'Perran Quill');
    expect((await send(sent, { to: '/unit/1011/pictures/add', cookie: viewer.cookie })).status).equal(403);
    expect((await fetch(`${stand.url}/pictures/${id}`, { redirect: 'manual' })).status, 'not for everybody').equal(303);
    expect((await listed(1011)).length).equal(before + 1);
  });
});
