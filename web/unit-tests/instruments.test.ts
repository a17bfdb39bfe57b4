import { expect } from 'chai';
import { type ChildProcess, spawn } from 'node:child_process';
import { type AddressInfo, createServer } from 'node:net';
import { clawPoleGeneric } from '../../core/src/machines/index.ts';
import { seeded } from '../../core/src/numeric/index.ts';
import { readScenario } from '../../standins/src/bench/index.ts';
import { House } from '../../standins/src/house.ts';
import { instrumentSchema, type LiveWord, settingSchema, type ShopInstrument } from '../src/lib/instruments.ts';
import { capture, drivers } from '../src/lib/server/instruments/drivers.ts';
import { Link } from '../src/lib/server/instruments/link.ts';
import { endAll, partWith, watchOf } from '../src/lib/server/instruments/watch.ts';

const machine = { ...clawPoleGeneric(12, 90), connection: 'star', diodeKind: 'silicon' } as const;
const failure = async (act: Promise<unknown>): Promise<string> => {
  try {
    await act;
  } catch (cause) {
    return (cause as Error).message;
  }
  return 'no failure';
};
const until = async (holds: () => boolean, what: string): Promise<void> => {
  for (let n = 0; n < 150; n++) {
    if (holds()) return;
    await new Promise((done) => setTimeout(done, 50));
  }
  throw new Error(`did not come about: ${what}`);
};

/** What a driver may be pointed at: our own stand-ins, and a responder that shares no code with them. */
interface Bench {
  readonly multimeter: number;
  readonly oscilloscope: number;
  /** Lets the meter see a value in the base unit; it may show it in its own way. */
  readonly show: (what: 'a winding' | 'nothing') => Promise<void>;
  /** Of the winding and its leads, in ohms. */
  readonly truth: () => number;
  readonly close: () => Promise<void>;
}

async function ownBench(): Promise<Bench> {
  const house = new House(await readScenario({ name: 'a test', machine, faults: [], meter: 'bench' }), seeded(417));
  await house.open(0);
  const at = { together: false, assembly: 'unsoldered', jumper: false };
  return {
    multimeter: house.portOf('multimeter'),
    oscilloscope: house.portOf('oscilloscope'),
    show: async (what) => {
      house.bench.move(what === 'nothing' ? at : { ...at, red: 'lead:A', black: 'lead:B' });
      await new Promise((done) => setTimeout(done, what === 'nothing' ? 0 : 1500));
    },
    truth: () => house.bench.atRest('ohms', house.bench.meter, false).value,
    close: () => house.close(),
  };
}

async function otherBench(): Promise<Bench> {
  const child: ChildProcess = spawn('python3', [new URL('second-responder.py', import.meta.url).pathname]);
  const port = await new Promise<number>((done, failed) => {
    child.stdout!.once('data', (text) => done(Number(text)));
    child.once('error', failed);
  });
  const link = new Link('127.0.0.1', port);
  return {
    multimeter: port,
    oscilloscope: port,
    show: (what) => link.tell(`SIM:VALUE ${what === 'nothing' ? 9.9e37 : 0.12}`),
    truth: () => 0.12,
    close: async () => {
      link.close();
      child.kill();
      await new Promise((done) => child.once('exit', done));
    },
  };
}

for (const [name, open] of [
  ['our stand-ins', ownBench],
  ['a second responder', otherBench],
] as const)
  describe(`the driver, speaking with ${name}`, () => {
    let bench: Bench;
    let link: Link;
    before(async () => {
      bench = await open();
      link = new Link('127.0.0.1', bench.multimeter);
    });
    after(async () => {
      link.close();
      await bench.close();
    });
    const poll = () => drivers.multimeter.poll(link);

    it('sets a function and reads on it', async () => {
      await bench.show('a winding');
      for (const use of ['ohms', 'diode', 'volts', 'volts-ac'] as const) {
        await link.tell(drivers.multimeter.words!({ use })!);
        expect(await poll()).property('use', use);
      }
      await link.tell(drivers.multimeter.words!({ use: 'ohms' })!);
      const seen = await poll();
      expect(seen.state === 'reads' && seen.kind === 'multimeter' && seen.value).closeTo(bench.truth(), 0.02);
    });
    it('over-range is no number', async () => {
      await bench.show('nothing');
      await link.tell(drivers.multimeter.words!({ use: 'ohms', range: 500 })!);
      expect(await poll()).deep.equal({ state: 'reads', kind: 'multimeter', use: 'ohms', value: null });
    });
    it('what it refuses comes back in its own words, and the next message goes on', async () => {
      expect(await failure(link.tell('CONF:FLAVOUR'))).match(/refuses.*Undefined header/);
      await link.tell('CONF:RES');
      expect(await link.ask('*IDN?')).match(/^[^,]+,[^,]+,/);
    });
    it('a trace comes as a block whose bytes may look like ends of lines', async () => {
      const scope = new Link('127.0.0.1', bench.oscilloscope);
      const { secondsPerSample, volts, amps } = await capture(scope, 0.02, 2570);
      scope.close();
      expect(secondsPerSample).closeTo(0.02 / 2570, 1e-9);
      expect([volts.length, amps.length]).deep.equal([2570, 2570]);
      expect([...volts, ...amps].every(Number.isFinite)).equal(true);
      expect(await link.ask('*OPC?'), 'the line is still in step').equal('1');
    });
  });

describe('an instrument that goes away', () => {
  const instrument = (port: number, more: Partial<ShopInstrument> = {}): ShopInstrument => ({
    id: '00000000-0000-4000-8000-000000000001',
    name: 'Clamp by the window',
    kind: 'clamp',
    host: '127.0.0.1',
    port,
    meter: null,
    ...more,
  });
  it('is said to be gone, with where, and is heard again once it is back', async () => {
    const house = new House(await readScenario({ name: 'a test', machine, faults: [] }), seeded(417));
    await house.open(0);
    const words: LiveWord[] = [];
    const watch = watchOf(instrument(house.portOf('clamp')));
    const end = watch.listen((word) => words.push(word));
    try {
      await until(() => words.length > 3, 'readings');
      expect(words.every(({ state }) => state === 'reads')).equal(true);
      await house.power('clamp', false);
      await until(() => words.at(-1)?.state === 'gone', 'gone');
      const gone = words.at(-1)!;
      expect(gone.state === 'gone' && gone.why).match(/switched off|nobody is there/);
      expect(await failure(watch.capture(0.01, 200))).match(/^Clamp by the window: nobody is there at 127\.0\.0\.1/);
      await house.power('clamp', true);
      await until(() => words.at(-1)?.state === 'reads', 'back');
    } finally {
      end();
      await house.close();
    }
  });
  it('what turns a unit is stopped once nobody looks on any more, and at once when the server ends', async () => {
    const house = new House(await readScenario({ name: 'a test', machine, faults: [] }), seeded(417));
    await house.open(0);
    house.bench.move({ together: false, assembly: 'stand', jumper: false });
    const watch = watchOf(instrument(house.portOf('stand'), { kind: 'stand', name: 'Stand' }));
    try {
      const end = watch.listen(() => undefined);
      await watch.set({ rpm: 3000 });
      expect(house.bench.wantedRpm).equal(3000);
      end();
      const back = watch.listen(() => undefined);
      await new Promise((done) => setTimeout(done, 4500));
      expect(house.bench.wantedRpm, 'somebody came back').equal(3000);
      back();
      await until(() => house.bench.wantedRpm === 0, 'stopped unwatched');
      await watch.set({ rpm: 2000 });
      await endAll();
      expect(house.bench.wantedRpm).equal(0);
    } finally {
      await house.close();
    }
  });
  it('what turns where an instrument is reached no more is stopped there', async () => {
    const house = new House(await readScenario({ name: 'a test', machine, faults: [] }), seeded(417));
    await house.open(0);
    house.bench.move({ together: false, assembly: 'stand', jumper: false });
    const stand = instrument(house.portOf('stand'), { kind: 'stand', name: 'Stand' });
    const turns = async () => {
      await watchOf(stand).set({ rpm: 3000 });
      expect(house.bench.wantedRpm).equal(3000);
    };
    try {
      await turns();
      await partWith(stand.id, { ...stand, name: 'Stand by the door' });
      expect(house.bench.wantedRpm, 'another name, the same stand').equal(3000);
      await partWith(stand.id, { ...stand, port: house.portOf('load') });
      expect(house.bench.wantedRpm, 'reached elsewhere').equal(0);
      await turns();
      await partWith(stand.id);
      expect(house.bench.wantedRpm, 'reached no more').equal(0);
      await turns();
      watchOf({ ...stand, port: house.portOf('load') });
      await until(() => house.bench.wantedRpm === 0, 'somebody looks on at its new place');
      await turns();
      await house.power('stand', false);
      await partWith(stand.id);
      expect(house.bench.wantedRpm, 'its line is cut').equal(3000);
      await house.power('stand', true);
      await until(() => house.bench.wantedRpm === 0, 'stopped as soon as it answers');
    } finally {
      await endAll();
      await house.close();
    }
  });
  it('a stop that didn’t reach it is made good as soon as it answers, watched or not', async () => {
    const house = new House(await readScenario({ name: 'a test', machine, faults: [] }), seeded(417));
    await house.open(0);
    house.bench.move({ together: false, assembly: 'stand', jumper: false });
    const watch = watchOf(instrument(house.portOf('stand'), { kind: 'stand', name: 'Stand' }));
    const turnsOutOfReach = async () => {
      await watch.set({ rpm: 3000 });
      await house.power('stand', false);
      expect(await failure(watch.stop())).match(/^Stand: (nobody is there|it was switched off)/);
      expect(house.bench.wantedRpm, 'its line is cut, not its drive').equal(3000);
    };
    try {
      await turnsOutOfReach();
      await house.power('stand', true);
      await until(() => house.bench.wantedRpm === 0, 'stopped with nobody looking on');
      let said: LiveWord['state'] | undefined;
      const end = watch.listen(({ state }) => (said = state));
      await turnsOutOfReach();
      await until(() => said === 'gone', 'gone');
      await house.power('stand', true);
      await until(() => house.bench.wantedRpm === 0, 'stopped with somebody looking on');
      await until(() => said === 'reads', 'back');
      await watch.set({ rpm: 2000 });
      await new Promise((done) => setTimeout(done, 1000));
      expect(house.bench.wantedRpm, 'no stop is owed any more').equal(2000);
      end();
    } finally {
      await endAll();
      await house.close();
    }
  });
  it('one that falls silent is given up after a while; one that answers nonsense is named', async () => {
    const silent = await otherBench();
    const link = new Link('127.0.0.1', silent.multimeter);
    try {
      expect(await failure(drivers.clamp.poll({ ask: () => Promise.resolve('WARM') } as never))).match(
        /answers “WARM”/,
      );
      await link.ask('*OPC?');
      const asked = failure(link.ask('SIM:HUSH;*OPC?'));
      expect(await asked).match(/doesn’t answer “SIM:HUSH;\*OPC\?”/);
    } finally {
      link.close();
      await silent.close();
    }
  });
  it('an oscilloscope that answers a word where a trace belongs, or no time, gives no trace of nothing', async () => {
    const answers = async (interval: string, trace: string) => {
      const server = createServer((socket) =>
        socket.on('data', (piece) => {
          for (const line of piece.toString('latin1').trim().split('\n'))
            if (line.includes('?'))
              socket.write(
                `${/TINT/.test(line) ? interval : /TRAC/.test(line) ? trace : /ERR/.test(line) ? '0' : '1'}\n`,
              );
        }),
      );
      await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
      const link = new Link('127.0.0.1', (server.address() as AddressInfo).port);
      const said = await failure(capture(link, 0.01, 2));
      link.close();
      await new Promise((done) => server.close(done));
      return said;
    };
    expect(await answers('1e-3', '+0.0E0,+1.0E0')).match(/answers “\+0\.0E0,\+1\.0E0” where a trace belongs/);
    expect(await answers('9.91E37', '#18\x00\x00\x00\x00\x00\x00\x00\x00')).match(/time between two samples/);
    expect(await answers('LATER', '#18\x00\x00\x00\x00\x00\x00\x00\x00')).match(/answers “LATER” where a number/);
    expect(await answers('1e-3', '#18\x00\x00\x00\x00\x00\x00\x00\x00')).equal('no failure');
  });
  it('nobody at all: said at once', async () => {
    const house = new House(await readScenario({ name: 'a test', machine, faults: [] }), seeded(417));
    await house.open(0);
    const port = house.portOf('load');
    await house.close();
    expect(await failure(new Link('127.0.0.1', port).ask('*IDN?'))).match(
      new RegExp(`nobody is there at 127.0.0.1, port ${port}`),
    );
  });
});

describe('what a lead enters, and what an instrument is told', () => {
  const entry = {
    id: '00000000-0000-4000-8000-000000000001',
    name: 'Meter',
    kind: 'multimeter',
    host: '192.168.1.20',
    port: '5025',
    meter: 'bench',
  };
  const said = async (more: object) => failure(instrumentSchema.validate({ ...entry, ...more }));
  it('an address alone: no path, no other scheme, no port out of range, no meter without accuracy', async () => {
    expect(await said({})).equal('no failure');
    expect(await said({ host: 'bench-meter.shop' })).equal('no failure');
    for (const host of ['http://meter', 'meter:80', 'meter/x', '-meter', 'a b', '', '[::1]'])
      expect(await said({ host }), host).match(/address/);
    for (const port of ['0', '70000', 'x', '80.5']) expect(await said({ port }), port).match(/port/i);
    expect(await said({ meter: '' })).match(/Which of the shop’s meters/);
    expect(await said({ kind: 'clamp', meter: '' })).equal('no failure');
    expect(await said({ kind: 'kettle' })).match(/Choose what it is/);
  });
  it('settings have limits; each kind has its own words and none for another’s', async () => {
    expect(await failure(settingSchema.validate({ rpm: 19_000 }))).match(/0 to 18 000 rpm/);
    expect(await failure(settingSchema.validate({ level: -1 }))).match(/0 to 500/);
    expect(drivers.stand.words!({ rpm: 3000 })).equal('SPE 3000');
    expect(drivers.stand.words!({ newtonMetres: 12.5 })).equal('TORQ 12.5');
    expect(drivers.load.words!({ on: true, mode: 'voltage', level: 13.5 })).equal('FUNC VOLT;VOLT 13.5;:INP ON');
    expect(drivers.load.words!({ on: false })).equal('INP OFF');
    expect(drivers.stand.words!({ on: true })).equal(undefined);
    expect(drivers.clamp.words).equal(undefined);
  });
});
