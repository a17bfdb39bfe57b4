import { type ChildProcess, spawn, spawnSync } from 'node:child_process';
import { chmodSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { connect, createServer } from 'node:net';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { expect } from 'chai';
import { freePort, openFolder, root } from './harness.ts';
import { lanAddresses } from '../web/lan.js';
import { Visitor } from './visitor.ts';

const run = (args: string[], env: Record<string, string> = {}) => {
  const { status, stdout, stderr } = spawnSync('bin/refectum', args, {
    cwd: root,
    encoding: 'utf8',
    env: { ...process.env, ...env },
  });
  return { status, stdout, stderr: stderr.trim() };
};

describe('bin/refectum', () => {
  it('lists its commands, and refuses an unknown one', () => {
    expect(run(['help']).stdout).match(/demo.*start.*stop.*test.*benchmark.*assess/s);
    const { status, stderr } = run(['dance']);
    expect(status).equal(1);
    expect(stderr).match(/unknown command “dance”/);
  });
  it('says in one sentence that a port is in use, or is none', async () => {
    const port = await freePort();
    const holder = createServer();
    await new Promise<void>((done) => holder.listen(port, '127.0.0.1', done));
    const home = openFolder();
    const { status, stderr } = run(['demo', '--port', String(port)], { REFECTUM_HOME: home });
    await new Promise((done) => holder.close(done));
    rmSync(home, { recursive: true });
    expect(status).equal(1);
    expect(stderr).equal(
      `refectum: port ${port} is in use: end the program that has it, or give another with --port N.`,
    );
    expect(run(['demo', '--port', 'x']).stderr).match(/no port number/);
  });
  it('says in one sentence that Node.js is too old, or that the disk is full', () => {
    const bin = openFolder();
    const fake = (name: string, script: string) => {
      writeFileSync(join(bin, name), `#!/bin/sh\n${script}\n`);
      chmodSync(join(bin, name), 0o755);
    };
    fake('node', 'case "$1" in -p) echo 18.2.0 ;; *) exit 1 ;; esac');
    expect(run(['benchmark'], { PATH: `${bin}:${process.env.PATH}` }).stderr).equal(
      'refectum: Node.js 18.2.0 is too old: install 20.19 or newer.',
    );
    rmSync(join(bin, 'node'));
    fake('df', 'echo Filesystem; echo "disk 100 90 10 90% /"');
    const { stdout, stderr } = spawnSync('bash', ['-c', 'ROOT=$PWD; . scripts/lib.sh; need_disk 300'], {
      cwd: root,
      encoding: 'utf8',
      env: { ...process.env, PATH: `${bin}:${process.env.PATH}` },
    });
    expect(stdout + stderr).match(/^refectum: the disk is full: 10 MB are free in .*, 300 MB are needed\.\n$/);
    rmSync(bin, { recursive: true });
  });
  it('assess names what is wrong with a file, with its path, and exits with 1', () => {
    const folder = openFolder();
    const file = join(folder, 'broken.json');
    writeFileSync(file, '{"format":"refectum-job","version":7}');
    const { status, stderr } = run(['assess', file, join(folder, 'missing.json')]);
    rmSync(folder, { recursive: true });
    expect(status).equal(1);
    expect(stderr)
      .match(/broken\.json: version: only version 1/)
      .and.match(/missing\.json: ENOENT/);
  });

  describe('demo', () => {
    const home = openFolder();
    let port = 0;
    let running: ChildProcess | undefined;
    const env = { REFECTUM_HOME: home };
    const start = (...args: string[]) =>
      new Promise<string>((done, failed) => {
        running = spawn('bin/refectum', ['demo', '--port', String(port), ...args], {
          cwd: root,
          env: { ...process.env, ...env },
        });
        let said = '';
        running.stdout!.on('data', (text) => {
          said += text;
          if (said.includes('\n')) done(said);
        });
        running.stderr!.on('data', (text) => (said += text));
        running.once('exit', () => failed(new Error(`ended: ${said}`)));
      });
    const terminate = async (): Promise<number> => {
      const began = performance.now();
      running!.removeAllListeners('exit');
      const ended = new Promise((done) => running!.once('exit', done));
      running!.kill('SIGTERM');
      await ended;
      return performance.now() - began;
    };
    const serverLog = () => readFileSync(join(home, 'server.log'), 'utf8');
    const end = async (): Promise<number> => {
      const took = await terminate();
      expect(serverLog(), 'nothing was waited for').not.contain('were cut');
      return took;
    };
    const url = (path: string) => `http://127.0.0.1:${port}${path}`;
    const ask = async (path: string) => (await Visitor.signIn(url(''))).ask(path);
    const celsius = async () => ((await (await ask('/api/jobs/1001')).json()) as { celsius: number }).celsius;
    const customers = async () => [...(await (await ask('/')).text()).matchAll(/href="\/unit\/(\d+)"/g)].length;

    before(async () => {
      mkdirSync(home, { recursive: true });
      port = await freePort();
    });
    after(() => {
      spawnSync('bin/refectum', ['stop'], { cwd: root, env: { ...process.env, ...env } });
      spawnSync('scripts/pg.sh', ['destroy', join(home, 'postgres')], { cwd: root });
      rmSync(home, { recursive: true, force: true });
    });

    it('serves its units and prints its address; a second one at once says it runs already', async () => {
      expect(await start()).contain(`http://127.0.0.1:${port}/`);
      expect(await customers()).equal(17);
      const second = run(['demo', '--port', String(await freePort())], env);
      expect(second.stdout).equal(`Refectum is already running: http://127.0.0.1:${port}/\n`);
      expect(second.status).equal(0);
    });
    it('is reached from this machine alone, and from the network once it is started with --lan', async () => {
      const [address] = lanAddresses();
      const there = (path: string) => fetch(`http://${address}:${port}${path}`, { redirect: 'manual' });
      const refused = await there('/api/health').catch((error: Error) => error);
      expect(refused).instanceOf(Error);
      await end();
      await start('--lan');
      expect((await there('/api/health')).status).equal(200);
      expect((await there('/')).status, 'nobody is signed in').equal(303);
      const page = await (await there('/sign-in')).text();
      expect(page, 'no PIN is taken there, none is shown').not.match(/6052|name="pin"/);
      await end();
      await start();
    });
    it('ends within a second of SIGTERM, database and all', async () => {
      expect(await end()).lessThan(1000);
      const status = spawnSync('scripts/pg.sh', ['status', join(home, 'postgres')], { cwd: root, encoding: 'utf8' });
      expect(status.stdout.trim()).equal('stopped');
    });
    it('ends as soon while reports are thought out that nobody waits for any more', async () => {
      await start();
      const { cookie } = await Visitor.signIn(url(''));
      const asking = spawn('node', [
        '-e',
        `for (let tag = 1001; tag <= 1008; tag++)
          fetch('${url('')}/unit/' + tag + '/report', { headers: { cookie: '${cookie}' } })
            .then((answer) => answer.text()).then(() => console.log(tag))`,
      ]);
      let answered = 0;
      asking.stdout.on('data', (lines) => (answered += String(lines).trim().split('\n').length));
      await wait(800);
      asking.kill('SIGKILL');
      expect(answered, 'some are being thought out').lessThan(8);
      expect(await end()).lessThan(1000);
    });
    it('cuts off after a second what never ends, and names it without its secrets', async () => {
      await start();
      const waiting = connect(port, '127.0.0.1');
      waiting.on('error', () => undefined);
      waiting.write('POST /p/secret/add?code=secret HTTP/1.1\r\nhost: 127.0.0.1\r\ncontent-length: 8\r\n\r\n');
      await wait(300);
      expect(await terminate()).greaterThan(900);
      expect(serverLog()).contain('open a second after the end was asked for were cut: POST /p/…/add.');
    });
    it('started again keeps what was entered; --reset starts anew', async () => {
      await start();
      const fresh = await celsius();
      const visitor = await Visitor.signIn(url(''));
      const changed = await visitor.send('PATCH', '/api/jobs/1001', { celsius: fresh + 12, technician: visitor.id });
      expect(changed.status).equal(200);
      await end();
      await start();
      expect(await celsius()).equal(fresh + 12);
      expect(await customers()).equal(17);
      await end();
      await start('--reset');
      expect(await celsius()).equal(fresh);
      expect(await customers()).equal(17);
      expect(run(['stop'], env).stdout).equal('Refectum is stopped.\n');
    });
    it('backs up while it runs; a restore into an empty cluster brings everything back', async () => {
      const file = join(home, 'all.backup');
      expect(run(['backup', file], env).status, 'nothing is running: still there').equal(0);
      await start();
      const visitor = await Visitor.signIn(url(''));
      await visitor.send('PATCH', '/api/jobs/1001', { celsius: 61, technician: visitor.id });
      expect(run(['backup', file], env).stdout).match(/Everything is in .*all\.backup/);
      const running = run(['restore', file], env);
      expect([running.status, running.stderr]).deep.equal([
        1,
        'refectum: the application is running: end it with bin/refectum stop, then restore.',
      ]);
      await end();
      spawnSync('scripts/pg.sh', ['destroy', join(home, 'postgres')], { cwd: root });
      expect(run(['restore', file], env).stdout).contain('Restored from');
      await start();
      expect(await celsius()).equal(61);
      expect(await customers()).equal(17);
      const [picture] = /\/pictures\/[0-9a-f-]{36}/.exec(await (await ask('/unit/1007/pictures')).text())!;
      const jpeg = await ask(picture);
      expect([jpeg.status, jpeg.headers.get('content-type')], 'pictures too').deep.equal([200, 'image/jpeg']);
      const shelf = (await (await ask('/shelf/shelf.json')).json()) as { models: unknown[] };
      expect(shelf.models.length, 'and the shelf').equal(6);
      await end();
    });
    it('refuses a restore over what is there, unless told; what was there is kept. Refuses what is no backup', async () => {
      const file = join(home, 'all.backup');
      const full = run(['restore', file], env);
      expect(full.status).equal(1);
      expect(full.stderr).contain('holds 17 jobs already');
      const replaced = run(['restore', file, '--replace'], env);
      expect([replaced.status, replaced.stderr]).deep.equal([
        0,
        `refectum: what was there is kept in ${home}/before-restore.dump`,
      ]);
      writeFileSync(join(home, 'list.txt'), 'no backup');
      expect(run(['restore', join(home, 'list.txt')], env).stderr).match(/is no backup made by/);
      expect(run(['restore', join(home, 'nowhere')], env).stderr).match(/there is no file/);
      expect(run(['backup', join(home, 'no/such/folder/x')], env).stderr).match(/there is no folder/);
    });
  });
});
