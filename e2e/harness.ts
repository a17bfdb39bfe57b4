import { type ChildProcess, execFileSync, spawn } from 'node:child_process';
import { chmodSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';

import { lanAddresses } from '../web/lan.js';

export const root = resolve(import.meta.dirname, '..');

export const freePort = (): Promise<number> =>
  new Promise((done, failed) => {
    const probe = createServer();
    probe.once('error', failed);
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => done(port));
    });
  });

/** The first of so many free ports in a row. */
async function freePorts(count: number): Promise<number> {
  const isFree = (port: number) =>
    new Promise<boolean>((done) => {
      const probe = createServer();
      probe.once('error', () => done(false));
      probe.listen(port, '127.0.0.1', () => probe.close(() => done(true)));
    });
  for (let first = 20_000 + (process.pid % 10_000); first < 60_000; first += count) {
    const all = await Promise.all(Array.from({ length: count }, (_, n) => isFree(first + n)));
    if (all.every((one) => one)) return first;
  }
  throw new Error(`no ${count} free ports in a row`);
}

/** A folder that PostgreSQL's own user can reach. */
export function openFolder(): string {
  const folder = mkdtempSync(join(tmpdir(), 'refectum-test-'));
  chmodSync(folder, 0o711);
  return folder;
}

/** The words of a PDF, laid out as on the page. */
export function pdfText(pdf: Uint8Array): string {
  const file = join(openFolder(), 'a.pdf');
  writeFileSync(file, pdf);
  return execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' });
}

const wait = (milliseconds: number) => new Promise((done) => setTimeout(done, milliseconds));

/** The production build on a cluster and a port of its own, with the demo data. */
export class Stand {
  readonly url: string;
  readonly #folder: string;
  readonly #env: NodeJS.ProcessEnv;
  #server: ChildProcess | undefined;
  #standIns: ChildProcess | undefined;
  #log = '';

  private constructor(folder: string, port: number, databaseUrl: string, demo: boolean, standInsPort: number) {
    this.#folder = folder;
    this.url = `http://127.0.0.1:${port}`;
    this.#env = {
      ...process.env,
      DATABASE_URL: databaseUrl,
      PORT: String(port),
      MIGRATIONS_DIR: join(root, 'web/drizzle'),
      REFECTUM_DEMO: demo ? '1' : '0',
      REFECTUM_LAN: '1',
      ...(demo ? { REFECTUM_STANDINS: String(standInsPort) } : {}),
    };
  }

  /** The port of the simulated bench's page, whether or not it runs; its instruments have the six after it. */
  get standInsPort(): number {
    return Number(this.#env.REFECTUM_STANDINS);
  }

  async startStandIns(): Promise<void> {
    const args = ['--import', './scripts/typescript.mjs', 'standins/src/main.ts', String(this.standInsPort)];
    this.#standIns = spawn('node', args, { cwd: root });
    this.#standIns.stderr!.on('data', (text) => (this.#log += text));
    await new Promise<void>((done, failed) => {
      this.#standIns!.stdout!.once('data', () => done());
      this.#standIns!.once('exit', () => failed(new Error(`the stand-ins did not start:\n${this.#log}`)));
    });
  }
  stopStandIns(): void {
    this.#standIns?.kill('SIGTERM');
    this.#standIns = undefined;
  }

  static async open(demo = true): Promise<Stand> {
    const folder = openFolder();
    const printed = execFileSync('scripts/pg.sh', ['start', join(folder, 'postgres'), '--test'], {
      cwd: root,
      encoding: 'utf8',
    });
    const url = printed.trim().replace('DATABASE_URL=', '');
    const stand = new Stand(folder, await freePort(), url, demo, await freePorts(8));
    await stand.start().catch(async (error: unknown) => {
      await stand.close();
      throw error;
    });
    return stand;
  }

  /** Opens a stand for some work, and closes it however the work ends. */
  static async during(work: (stand: Stand) => Promise<void>, demo = true): Promise<void> {
    const stand = await Stand.open(demo);
    try {
      await work(stand);
    } finally {
      await stand.close();
    }
  }

  async start(): Promise<void> {
    this.#server = spawn('node', ['web/serve.js'], { cwd: root, env: this.#env });
    this.#server.stdout!.on('data', (text) => (this.#log += text));
    this.#server.stderr!.on('data', (text) => (this.#log += text));
    // It opens once the demo's units are in; a machine with other work takes its time over them.
    for (let i = 0; i < 600; i++) {
      const well = await fetch(`${this.url}/api/health`).then(
        (answer) => answer.ok,
        () => false,
      );
      if (well) return;
      if (this.#server.exitCode !== null) break;
      await wait(100);
    }
    throw new Error(`the application did not start:\n${this.#log}`);
  }

  /** Ends the application, orderly or as in a crash; answers how long that took, in ms. */
  async stop(signal: 'SIGTERM' | 'SIGKILL' = 'SIGTERM'): Promise<number> {
    const server = this.#server!;
    const began = performance.now();
    const ended = new Promise((done) => server.once('exit', done));
    server.kill(signal);
    await ended;
    return performance.now() - began;
  }

  async close(): Promise<void> {
    this.stopStandIns();
    if (this.#server?.exitCode === null) await this.stop();
    execFileSync('scripts/pg.sh', ['destroy', join(this.#folder, 'postgres')], { cwd: root });
    rmSync(this.#folder, { recursive: true, force: true });
  }

  /** The same application as another machine of the network would reach it. */
  get lanUrl(): string {
    return this.url.replace('127.0.0.1', lanAddresses()[0]!);
  }

  /** Its database alone goes away, and comes back where it was. */
  stopDatabase(): void {
    execFileSync('scripts/pg.sh', ['stop', join(this.#folder, 'postgres')], { cwd: root });
  }
  startDatabase(): void {
    const env = { ...process.env, REFECTUM_PGPORT: new URL(this.databaseUrl).port };
    execFileSync('scripts/pg.sh', ['start', join(this.#folder, 'postgres'), '--test'], { cwd: root, env });
  }

  /** Where its database listens, for a benchmark that fills it. */
  get databaseUrl(): string {
    return this.#env.DATABASE_URL!;
  }

  get log(): string {
    return this.#log;
  }
}
