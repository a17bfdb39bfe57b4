import { request } from 'node:http';
import { expect } from 'chai';
import pg from 'pg';
import { Stand } from './harness.ts';
import { apiJob, bench, browser, openPage, pick, readingEntry, reload, stand, tape, until } from './stage.ts';
import { openAt, signInAt, Visitor } from './visitor.ts';

const tellsOf = async (answer: Response) => ((await answer.json()) as { message: string }).message;
const cookieOf = (answer: Response) => answer.headers.getSetCookie().find((set) => set.startsWith('session='));

/** A stand of its own, so that closed doors keep nobody else out. */
const onOwnStand = (work: (stand: Stand) => Promise<void>, demo = true) => Stand.during(work, demo);

describe('who works here', () => {
  it('at the bench: a letter for the name, the PIN, Enter; whoever was on the page before comes back to it', async () => {
    const own = await browser.newContext();
    const page = await openPage('Tovik Harle', own);
    await bench(1004, page);
    await page.keyboard.type('12');
    await page.keyboard.press('Escape');
    await page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await page.keyboard.press('w');
    await page.waitForURL(/sign-in/);
    await page.waitForSelector('input[name="who"]:focus');
    await page.keyboard.press('W');
    await page.keyboard.type('6052');
    await page.keyboard.press('Enter');
    await page.waitForURL(/\/unit\/1004$/);
    expect(await page.textContent('header a[href^="/sign-in"]')).equal('Wenna Oskarby');
    await page.waitForSelector('#entry');
    await until(async () => (await page.inputValue('#entry')) === '12', 'the entry of before');
    await own.close();
  });

  it('nobody signed in sees nothing but the sign-in page; the API says so', async () => {
    for (const path of ['/', '/unit/1004', '/unit/1004/report.pdf', '/people', '/check-in']) {
      const answer = await fetch(stand.url + path, { redirect: 'manual' });
      expect([answer.status, answer.headers.get('location')], path).deep.equal([
        303,
        `/sign-in?back=${encodeURIComponent(path)}`,
      ]);
    }
    for (const path of ['/api/jobs/1004', '/api/jobs/1004/view', '/api/known?customer=K', '/api/events']) {
      const answer = await fetch(stand.url + path);
      expect(answer.status, path).equal(401);
      expect(await tellsOf(answer)).match(/sign in first/);
    }
    expect((await fetch(`${stand.url}/api/health`)).status).equal(200);
  });

  it('a write needs the origin, a session and its own name', async () => {
    const visitor = await Visitor.signIn(stand.url);
    const send = (headers: Record<string, string>, body = readingEntry({ technician: visitor.id })) =>
      fetch(`${stand.url}/api/jobs/1003/readings`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', ...headers },
        body: JSON.stringify(body),
      });
    const { cookie } = visitor;
    expect((await send({ cookie })).status, 'no origin').equal(403);
    expect((await send({ cookie, origin: 'null' })).status, 'an origin that is none').equal(403);
    expect((await send({ cookie, origin: 'http://elsewhere.example' })).status, 'another site').equal(403);
    expect((await send({ origin: stand.url })).status, 'nobody').equal(401);
    expect((await send({ cookie: 'session=made-up', origin: stand.url })).status, 'a made-up cookie').equal(401);
    const other = [...(await Visitor.names(stand.url))].find(([name]) => name === 'Tovik Harle')![1];
    expect((await send({ cookie, origin: stand.url }, readingEntry({ technician: other }))).status).equal(401);
    expect((await send({ cookie, origin: stand.url })).status).equal(200);
  });

  it('a viewer looks and writes nothing; a technician keeps no people', async () => {
    const viewer = await Visitor.signIn(stand.url, 'Perran Quill');
    expect((await viewer.ask('/api/jobs/1003')).status).equal(200);
    const refused = await viewer.send('POST', '/api/jobs/1003/readings', readingEntry({ technician: viewer.id }));
    expect([refused.status, await tellsOf(refused)]).deep.equal([
      403,
      'Perran Quill may look, not write: a technician must sign in.',
    ]);
    const technician = await Visitor.signIn(stand.url);
    expect((await technician.ask('/people')).status).equal(403);
    const made = await technician.submit('/people?/add', { name: 'Me Again', role: 'lead', pin: '8305' });
    expect(made.status).equal(403);
    expect((await Visitor.names(stand.url)).has('Me Again')).equal(false);
  });

  it('what somebody wrote while the server was away waits for them, whoever works meanwhile', async () => {
    const own = await browser.newContext();
    const page = await openPage('Wenna Oskarby', own);
    await bench(1010, page);
    await page.route('**/readings', (route) => route.abort());
    await pick('Slip ring to slip ring', page);
    await page.keyboard.type('9.5');
    await page.keyboard.press('Enter');
    await page.waitForSelector('text=nothing is lost');
    await page.unroute('**/readings');
    await own.route('**/readings', (route) => route.abort());
    await signInAt(page, stand.url, 'Tovik Harle');
    await own.unroute('**/readings');
    await reload();
    await page.waitForSelector('text=1 by Wenna Oskarby kept here: sent once Wenna Oskarby signs in');
    await bench(1010, page);
    expect(await tape(page).first().textContent()).contain('9.5');
    expect((await apiJob(1010)).readings.some(({ typed }) => typed === '9.5')).equal(false);
    await signInAt(page, stand.url, 'Wenna Oskarby');
    await until(async () => (await apiJob(1010)).readings.some(({ typed }) => typed === '9.5'), 'the reading sent');
    const { readings } = (await apiJob(1010)) as unknown as { readings: { typed: string; technician: string }[] };
    expect(readings.find(({ typed }) => typed === '9.5')!.technician).equal('Wenna Oskarby');
    await own.close();
  });
});

describe('sessions', () => {
  it('the cookie is the browser’s alone and says nothing; each sign-in is a new one, the old one ends', async () => {
    const first = await Visitor.signIn(stand.url);
    const id = first.id;
    const again = await fetch(`${stand.url}/sign-in?/pin`, {
      method: 'POST',
      headers: { origin: stand.url, cookie: first.cookie, 'content-type': 'application/x-www-form-urlencoded' },
      body: new URLSearchParams({ who: id, pin: '6052' }),
      redirect: 'manual',
    });
    const cookie = cookieOf(again)!;
    expect(cookie)
      .match(/HttpOnly/i)
      .and.match(/SameSite=Lax/i)
      .and.match(/Path=\//i)
      .and.match(/Expires=/i);
    expect(cookie).not.contain(id).and.not.contain(first.cookie);
    expect((await first.ask('/api/jobs/1003')).status).equal(401);
    expect((await new Visitor(stand.url, id, cookie.split(';')[0]!).ask('/api/jobs/1003')).status).equal(200);
  });

  it('ends when its time is up, when signed out, and everywhere at once', () =>
    onOwnStand(async ({ url, databaseUrl }) => {
      const [here, there] = [await Visitor.signIn(url), await Visitor.signIn(url)];
      const works = async (visitor: Visitor) => (await visitor.ask('/api/jobs/1003')).status;
      expect([await works(here), await works(there)]).deep.equal([200, 200]);
      expect((await there.submit('/sign-out', {})).headers.get('location')).equal('/sign-in');
      expect([await works(here), await works(there)]).deep.equal([200, 401]);
      const third = await Visitor.signIn(url);
      await here.submit('/me?/everywhere', {});
      expect([await works(here), await works(third)]).deep.equal([401, 401]);

      const late = await Visitor.signIn(url);
      const pool = new pg.Pool({ connectionString: databaseUrl });
      await pool.query(`update session set expires_at = now() - interval '1 second'`);
      await pool.end();
      expect(await works(late)).equal(401);
    }));

  it('a new PIN needs the old one, refuses what is easy, and signs every other screen out', () =>
    onOwnStand(async ({ url }) => {
      const [here, there] = [await Visitor.signIn(url), await Visitor.signIn(url)];
      const renew = async (old: string, pin: string) => {
        const answer = await here.submit('/me?/pin', { old, pin });
        return { answer, text: await answer.text() };
      };
      expect((await renew('0001', '7391')).text).contain('That is not the PIN.');
      expect((await renew('6052', '12')).text).contain('A PIN is 4 to 8 digits');
      for (const easy of ['1111', '1234', '87654']) expect((await renew('6052', easy)).text).contain('first anybody');
      const { answer } = await renew('6052', '7391');
      expect(cookieOf(answer)).not.equal(undefined);
      expect((await there.ask('/api/jobs/1003')).status).equal(401);
      expect(cookieOf(await Visitor.tryPin(url, here.id, '6052'))).equal(undefined);
      expect(cookieOf(await Visitor.tryPin(url, here.id, '7391'))).not.equal(undefined);
    }));
});

describe('a form whose session has ended', () => {
  it('keeps what was typed, says so, and goes through once somebody signs in elsewhere', () =>
    onOwnStand(async (own) => {
      const context = await browser.newContext();
      const page = await context.newPage();
      await signInAt(page, own.url, 'Ansa Brimmel');
      await openAt(page, `${own.url}/check-in`);
      await page.fill('#customer', 'Kelda Farm');
      await page.fill('#model', 'unknown');
      await page.selectOption('#complaint', 'no-charge');
      const shelf = await context.newPage();
      await openAt(shelf, `${own.url}/shelf`);
      await shelf.click('a:text-is("Pumpmate 65")');
      await shelf.fill('[aria-label="Frame"]', 'P6');
      await shelf.fill('[aria-label="Source of Frame"]', 'casting');
      const pool = new pg.Pool({ connectionString: own.databaseUrl });
      await pool.query('delete from session');
      await pool.end();
      await page.click('button:has-text("Check in and start")');
      await page.waitForSelector('[role="alert"]:has-text("You were signed out meanwhile")');
      expect(await page.inputValue('#customer')).equal('Kelda Farm');
      await shelf.click('button:has-text("Put it on the shelf")');
      await shelf.waitForSelector('[role="alert"]:has-text("You were signed out meanwhile")');
      expect(await shelf.inputValue('[aria-label="Frame"]')).equal('P6');
      const again = await context.newPage();
      await signInAt(again, own.url, 'Ansa Brimmel');
      await page.click('button:has-text("Check in and start")');
      await page.waitForURL(/\/unit\/\d+$/);
      await shelf.click('button:has-text("Put it on the shelf")');
      await shelf.waitForURL(`${own.url}/shelf`);
      await context.close();
    }));
});

describe('the door', () => {
  it('closes after five wrong PINs of one person, however fast they come; others still get in', () =>
    onOwnStand(async ({ url }) => {
      const names = await Visitor.names(url);
      const wenna = names.get('Wenna Oskarby')!;
      const tries = await Promise.all(
        ['1', '2', '3', '4', '5', '6', '7'].map((n) => Visitor.tryPin(url, wenna, `900${n}`)),
      );
      const texts = await Promise.all(tries.map((answer) => answer.text()));
      expect(texts.filter((text) => text.includes('That is not the PIN.')).length).equal(5);
      expect(texts.filter((text) => text.includes('Too many wrong tries: the door is closed until')).length).equal(2);
      expect(cookieOf(await Visitor.tryPin(url, wenna, '6052')), 'even with the right one').equal(undefined);
      await Visitor.signIn(url, 'Tovik Harle');
    }));

  it('closes for an address after twenty wrong tries, whoever was tried', () =>
    onOwnStand(async (own) => {
      const password = (name: string, secret: string) =>
        fetch(`${own.url}/sign-in?/password`, {
          method: 'POST',
          headers: { origin: own.url, 'content-type': 'application/x-www-form-urlencoded' },
          body: new URLSearchParams({ name, password: secret }),
          redirect: 'manual',
        });
      for (let i = 0; i < 20; i++)
        expect(await (await password(`Nobody ${i}`, 'guess guess')).text()).contain('do not fit together');
      expect(await (await password('Ansa Brimmel', 'salt on the slipway')).text()).contain('the door is closed until');
    }));

  it('from elsewhere it takes a password; a lead can make the screen a bench screen, then PINs are taken', async () => {
    const elsewhere = await browser.newContext();
    const page = await elsewhere.newPage();
    await openAt(page, `${stand.lanUrl}/`);
    await page.waitForURL(/sign-in/);
    expect(await page.locator('input[name="who"]').count()).equal(0);
    expect(await page.content())
      .not.contain('6052')
      .and.not.contain('slipway');
    const names = await Visitor.names(stand.url);
    const refused = await Visitor.tryPin(stand.lanUrl, names.get('Wenna Oskarby')!, '6052');
    expect([cookieOf(refused), await refused.text()]).satisfy(
      ([cookie, text]: [string | undefined, string]) => !cookie && text.includes('own screens only'),
    );
    await page.fill('input[name="name"]', 'ansa brimmel');
    await page.fill('input[name="password"]', 'salt on the slipway');
    await page.keyboard.press('Enter');
    await page.waitForURL(`${stand.lanUrl}/`);
    await openAt(page, `${stand.lanUrl}/people`);
    await page.fill('label:has-text("Name of this screen") input', 'tablet at bench 2');
    await page.click('button:has-text("Make it a bench screen")');
    await page.waitForSelector('text=This screen is now “tablet at bench 2”');
    await signInAt(page, stand.lanUrl, 'Wenna Oskarby');
    await page.close();
    await elsewhere.close();
  });

  it('answers to its own names only', async () => {
    const status = await new Promise<number>((done) => {
      request(`${stand.url}/api/health`, { headers: { host: 'refectum.example' } }, (got) => {
        got.resume();
        done(got.statusCode!);
      }).end();
    });
    expect(status).equal(421);
  });
});

describe('people', () => {
  it('a new shop has a first lead, made at the serving machine; the lead lets others in', () =>
    onOwnStand(async (own) => {
      const context = await browser.newContext();
      const page = await context.newPage();
      await openAt(page, `${own.lanUrl}/sign-in`);
      await page.waitForSelector('text=made at the machine that serves');
      await openAt(page, `${own.url}/`);
      await page.waitForSelector('h1:has-text("The first lead of this shop")');
      await page.fill('#first-name', 'Jory Tamm');
      await page.fill('#first-pin', '1234');
      await page.fill('#first-password', 'short');
      await page.click('button:has-text("Begin")');
      expect(await page.textContent('#first-pin-told')).contain('first anybody');
      expect(await page.textContent('#first-password-told')).contain('at least 10');
      await page.fill('#first-name', 'Jory Tamm');
      await page.fill('#first-pin', '7305');
      await page.fill('#first-password', 'under the gangway');
      await page.click('button:has-text("Begin")');
      await page.waitForURL(`${own.url}/`);
      await openAt(page, `${own.url}/people`);
      const letIn = page.locator('form[action="?/add"]');
      const typed = (field: string) => letIn.locator(`input[name="${field}"]`);
      const add = async (name: string, pin = '8460') => {
        await typed('name').fill(name);
        await typed('pin').fill(pin);
        await letIn.locator('button').click();
      };
      await add('Loveday Senn', '1234');
      await letIn.locator('[role="alert"]:has-text("first anybody")').waitFor();
      expect(await typed('name').inputValue(), 'refused, it stays').equal('Loveday Senn');
      await add('Loveday Senn');
      await letIn.locator('[role="status"]:has-text("Loveday Senn can sign in.")').waitFor();
      expect([await typed('name').inputValue(), await typed('pin').inputValue()]).deep.equal(['', '']);
      await add('Loveday Senn');
      await letIn.locator('[role="alert"]:has-text("two would be one on the tape")').waitFor();
      const jory = page.locator('li:has(summary:has-text("Jory Tamm"))');
      await page.click('summary:has-text("Jory Tamm")');
      await jory.locator('select[name="role"]').selectOption('technician');
      await jory.locator('button:text-is("Set")').click();
      await jory.locator('[role="alert"]:has-text("The shop needs a lead")').waitFor();
      await page.route(/people/, (route) => route.abort());
      await jory.locator('input[name="pin"]').fill('9053');
      await jory.locator('button:text-is("Give")').first().click();
      await jory.locator('[role="alert"]:has-text("did not take it")').waitFor();
      expect(await jory.locator('input[name="pin"]').inputValue()).equal('9053');
      await page.unroute(/people/);
      await page.click('button:has-text("Jory Tamm has left")');
      await page.waitForSelector('text=The shop needs a lead');
      const loveday = (await Visitor.names(own.url)).get('Loveday Senn')!;
      expect(cookieOf(await Visitor.tryPin(own.url, loveday, '8460'))).not.equal(undefined);
      await page.click('summary:has-text("Loveday Senn")');
      await page.click('button:has-text("Loveday Senn has left")');
      await page.waitForSelector('text=The name stays on the tapes');
      expect(cookieOf(await Visitor.tryPin(own.url, loveday, '8460'))).equal(undefined);
      await context.close();
    }, false));
});
