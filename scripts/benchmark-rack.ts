// bin/refectum benchmark, last part: rack and search with 10 000 jobs and 100 000 readings, the plans behind them,
// and the first screen in the browser.
import pg from 'pg';
import { openBrowser } from '../e2e/browser.ts';
import { Stand } from '../e2e/harness.ts';
import { signInAt, Visitor } from '../e2e/visitor.ts';

const jobs = 10_000;
const readings = 100_000;
await Stand.during(async (stand) => {
  const pool = new pg.Pool({ connectionString: stand.databaseUrl });
  await pool.query(
    `insert into job (id, shop_id, tag, customer, model, serial, complaint, words, machine, stand, assembly, meter,
     celsius, prices, checked_in_at, technician_id, changed_at, changed_by)
   select gen_random_uuid(), j.shop_id, 100000 + n, 'Customer ' || n % 700, 'Model ' || n % 90, 'S' || n, j.complaint, '',
     j.machine, (array['in','bench','waiting','ready'])[1 + n % 4], j.assembly, j.meter, 20, j.prices,
     now() - n * interval '1 hour', j.technician_id, now() - n * interval '1 hour', j.changed_by
   from generate_series(1, $1::int) n, (select * from job where tag = 1001) j`,
    [jobs],
  );
  // A shop of this size has a few hundred units in the house; the rest have gone.
  await pool.query(`update job set stand = 'gone' where tag > 100300`);
  await pool.query(
    `insert into reading (id, job_id, "check", typed, outcome, meter, celsius, taken_at, technician_id)
   select gen_random_uuid(), j.id, 'ring-ring', '3.1', '{"kind":"value","value":3.1}', 'workshop', 20, now(), j.technician_id
   from job j, generate_series(1, $1::int) n where j.tag > 100000`,
    [readings / jobs],
  );
  await pool.query('analyze');
  const visitor = await Visitor.signIn(stand.url);

  const median = (times: readonly number[]): number => [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)]!;
  async function milliseconds(path: string): Promise<{ median: number; slowest: number }> {
    const times: number[] = [];
    for (let i = 0; i < 30; i++) {
      const began = performance.now();
      const answer = await visitor.ask(path);
      await answer.text();
      if (!answer.ok) throw new Error(`${path}: ${answer.status}`);
      if (i >= 5) times.push(performance.now() - began);
    }
    return { median: median(times), slowest: Math.max(...times) };
  }

  console.log(`\n${jobs} jobs, ${readings} readings; the whole page from the server, target under 100 ms:`);
  for (const [what, path] of [
    ['rack', '/__data.json'],
    ['search by customer', '/__data.json?find=Customer%20123'],
    ['search by serial', '/__data.json?find=S4711'],
    ['known models', '/api/known?model=Model'],
  ] as const) {
    const { median: usual, slowest } = await milliseconds(path);
    console.log(
      `  ${what.padEnd(20)} median ${usual.toFixed(1).padStart(6)} ms, slowest ${slowest.toFixed(1).padStart(6)} ms`,
    );
  }
  const { rows } = await pool.query<{ 'QUERY PLAN': string }>(
    `explain (analyze, costs off, timing off, summary off)
   select tag from job where stand <> 'gone' order by due asc nulls last, tag limit 400`,
  );
  console.log(`  the rack's plan:\n${rows.map((row) => `    ${row['QUERY PLAN']}`).join('\n')}`);
  await pool.end();

  const browser = await openBrowser();
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await signInAt(page, stand.url, 'Ansa Brimmel');
  const screens: number[] = [];
  for (let i = 0; i < 7; i++) {
    const began = performance.now();
    await page.goto(`${stand.url}/`, { waitUntil: 'commit' });
    await page.waitForSelector('html[data-ready] a[href^="/unit/"]');
    screens.push(performance.now() - began);
  }
  await browser.close();
  console.log(
    `  the rack in the browser, drawn and answering: median ${median(screens).toFixed(0)} ms, ` +
      `slowest ${Math.max(...screens).toFixed(0)} ms; target under 1000 ms`,
  );
});
