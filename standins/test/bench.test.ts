import { expect } from 'chai';
import { type ClawPole, clawPoleGeneric, familyOf, starterGeneric } from '@refectum/core/machines';
import { seeded } from '@refectum/core/numeric';
import { ordersOf } from '@refectum/core/waveform';
import { control, scenarios } from '../src/control.ts';
import { readScenario, type Scenario, SimulatedBench } from '../src/bench/index.ts';
import { House } from '../src/house.ts';
import type { ScpiInstrument } from '../src/scpi/index.ts';
import { simulatedCommander, SimulatedMultimeter, Supply } from '../src/instruments/index.ts';

const machine = { ...clawPoleGeneric(12, 90), connection: 'star', diodeKind: 'silicon' } as const;
const scenario = (faults: Scenario['faults']): Promise<Scenario> =>
  readScenario({ name: 'a test', machine, faults, meter: 'bench', seed: 7 });

/** A bench whose clock is moved by hand. */
async function benchWith(faults: Scenario['faults']) {
  let seconds = 0;
  const bench = new SimulatedBench(await scenario(faults), () => seconds, seeded(417));
  return { bench, later: (more: number) => (seconds += more) };
}
/** The check of a regulator's volts, as a machine has it. */
function regulationOf(kind: ClawPole) {
  const check = familyOf(kind)
    .checks(kind)
    .find(({ id }) => id === 'regulation');
  if (check?.method.kind !== 'finding' || !check.method.watched) throw new Error('nothing is watched');
  return { watched: check.method.watched };
}
const onStand = { together: false, assembly: 'stand', jumper: false, red: 'output', black: 'case' };

describe('the simulated bench', () => {
  it('the probes lift, scratch and sit; nothing is read before', async () => {
    const { bench, later } = await benchWith([]);
    expect(bench.contact.kind).equal('open');
    bench.move({ red: 'output', black: 'case', together: false, assembly: 'closed', jumper: false });
    later(0.5);
    expect(bench.contact.kind).equal('open');
    later(0.2);
    const kinds = Array.from({ length: 40 }, () => bench.contact.kind);
    expect(kinds).include('flickering');
    expect(kinds).include('held');
    later(1);
    expect(bench.contact).property('kind', 'held');
  });
  it('the same tag is the same unit, another is another; a tag that the scenario names hides what it says', async () => {
    const { bench } = await benchWith(undefined);
    const hidden = () => JSON.stringify(bench.hidden.map(({ fault, severity }) => [fault.id, severity]));
    const shown = () => {
      bench.move({ red: 'output', black: 'case', together: false, assembly: 'closed', jumper: false });
      return bench.atRest('ohms', bench.meter, false).value;
    };
    bench.clamp(1, machine);
    const first = [hidden(), shown()];
    bench.clamp(2, machine);
    expect(shown()).not.equal(first[1]);
    bench.clamp(1, machine);
    expect([hidden(), shown()]).deep.equal(first);
    const named = await readScenario({
      name: 'x',
      machine,
      units: [{ tag: 5, faults: [{ fault: 'rotor-open', severity: 1 }] }],
    });
    bench.play(named);
    bench.clamp(5, machine);
    expect(hidden()).equal('[["rotor-open",1]]');
  });
  it('sound units, small ones too, hold their volts through the regulator’s course', async () => {
    const { bench, later } = await benchWith([]);
    const told: string[] = [];
    // A shop's battery isn't always as full as the simulated one: so many amps more [our estimate].
    const hungry = 10;
    for (const amps of [45, 80]) {
      const kind = { ...machine, ratedAmps: amps };
      const { watched } = regulationOf(kind);
      for (let tag = 1; tag <= 12; tag++) {
        bench.clamp(tag, kind);
        bench.move(onStand);
        // The last state is the first one again.
        const seen = watched.course!.slice(0, 2).map(({ rpm, amps }) => {
          bench.turn(rpm);
          bench.draw({ on: true, mode: 'current', amps: amps + hungry, volts: 0, ohms: 0 });
          later(10);
          return bench.run!.volts.mean;
        });
        told.push(watched.says(seen, 25)!);
      }
    }
    // The check's own odds say that one sound unit in 66 sags.
    expect(told.filter((one) => one !== 'holds').length, told.join(' ')).lessThan(2);
  });
  it('its battery takes a few amps at the set-point, gives what the unit doesn’t, and rests where neither is', async () => {
    const { bench, later } = await benchWith([]);
    bench.move(onStand);
    const at = (rpm: number, amps: number) => {
      bench.turn(rpm);
      bench.draw({ on: amps > 0, mode: 'current', amps, volts: 0, ohms: 0 });
      later(10);
      const { volts, amps: given } = bench.run!;
      return { volts: volts.mean, taken: given.mean - amps };
    };
    const charging = at(3000, 5);
    expect(charging.volts).within(14.1, 14.3);
    expect(charging.taken).within(3, 6);
    const missing = at(800, 45);
    expect(missing.taken).within(-45.5, -44.5);
    // Ohm's law: 0.02 Ω of its own.
    expect(missing.volts).closeTo(12.6 - 0.02 * 45, 0.02);
    expect(at(800, 0).volts).closeTo(12.6, 0.02);
  });
  it('comes to speed, charges by its regulator, gives what the load holds, stops', async () => {
    const { bench, later } = await benchWith([]);
    bench.move(onStand);
    expect(bench.restingVolts).equal(12.6);
    bench.turn(3000);
    later(0.3);
    expect(bench.rpm).within(500, 2500);
    later(6);
    expect(bench.rpm).closeTo(3000, 1);
    expect(bench.run!.volts.mean, 'its set-point').closeTo(14.2, 0.05);
    bench.draw({ ...bench.load, on: true, mode: 'current', amps: 40 });
    expect(bench.run!.volts.mean).within(13.6, 14.3);
    expect(bench.run!.amps.mean).within(38, 62);
    bench.draw({ ...bench.load, mode: 'voltage', volts: 13.5 });
    expect(bench.run!.volts.mean).closeTo(13.5, 0.1);
    expect(bench.run!.amps.mean).within(45, 90);
    const watts = bench.run!.volts.mean * bench.run!.amps.mean;
    expect(bench.newtonMetres * ((2 * Math.PI * 3000) / 60), 'more in than out').greaterThan(watts);
    bench.turn(0);
    later(6);
    expect(bench.run).equal(undefined);
  });
  it('a dead regulator charges nothing, and everything once it is bypassed', async () => {
    const { bench, later } = await benchWith([{ fault: 'regulator', severity: 1 }]);
    bench.move(onStand);
    bench.turn(3000);
    later(6);
    expect(bench.run!.amps.mean).lessThan(1);
    bench.draw({ ...bench.load, on: true, mode: 'voltage', volts: 13.5 });
    bench.move({ ...onStand, jumper: true });
    expect(bench.run!.amps.mean).greaterThan(45);
  });
  it('an open diode shows as order 1 in the trace, a sound unit as order 6', async () => {
    for (const [faults, order] of [
      [[{ fault: 'diode-open:B+', severity: 1 }], 1],
      [[], 6],
    ] as const) {
      const { bench, later } = await benchWith([...faults]);
      bench.move(onStand);
      bench.draw({ ...bench.load, on: true, mode: 'resistance', ohms: 0.3 });
      bench.turn(3000);
      later(6);
      const { rms } = ordersOf(bench.run!.trace.amps);
      expect(rms.indexOf(Math.max(...rms)) + 1).equal(order);
    }
  });
  it('a scenario with mistakes is refused in words', async () => {
    const refused = async (given: unknown) => {
      try {
        await readScenario(given);
      } catch (cause) {
        return (cause as Error).message;
      }
      return 'taken';
    };
    expect(await refused({ name: 'x', machine, faults: [{ fault: 'diode-open:Z', severity: 1 }] })).match(
      /no fault “diode-open:Z”/,
    );
    expect(await refused({ name: 'x', machine, meter: 'gold' })).match(/The meter is one of pocket, workshop, bench/);
    expect(await refused({ machine })).match(/needs a name/);
    expect(await refused({ name: 'x', machine: { ...machine, ratedAmps: -4 } })).match(/ratedAmps|Rated current/);
    for (const [file, given] of Object.entries(scenarios()))
      expect((await readScenario(given)).name, file).not.equal('');
  });
});

describe('the simulated multimeter', () => {
  const read = async (meter: { readonly scpi: ScpiInstrument }, message: string) =>
    String(await meter.scpi.execute(message));
  it('shows what the circuit gives on the function it is set to, within its accuracy, and OL as 9.9E37', async () => {
    const { bench, later } = await benchWith([]);
    const meter = new SimulatedMultimeter(bench, new Supply(bench));
    expect(Number(await read(meter, 'CONF:RES;:READ?'))).equal(9.9e37);
    bench.move({ red: 'lead:A', black: 'lead:B', together: false, assembly: 'unsoldered', jumper: false });
    later(5);
    const truth = bench.atRest('ohms', bench.meter, false).value;
    expect(Number(await read(meter, 'READ?'))).closeTo(truth, 0.02);
    expect(await read(meter, 'FUNC?')).equal('"RES"');
    expect(Number(await read(meter, 'CONF:DIOD;:READ?')), 'a winding on diode test').lessThan(0.01);
    bench.move({ red: 'leg:A', black: 'output', together: false, assembly: 'unsoldered', jumper: false });
    later(5);
    expect(Number(await read(meter, 'READ?'))).within(0.4, 0.7);
    bench.move({ red: 'output', black: 'leg:A', together: false, assembly: 'unsoldered', jumper: false });
    later(5);
    expect(Number(await read(meter, 'READ?'))).equal(9.9e37);
    bench.move({ together: true, assembly: 'closed', jumper: false });
    later(5);
    expect(Number(await read(meter, 'CONF:RES;:READ?'))).closeTo(bench.leadOhms(bench.meter), 0.02);
  });
  it('shows on the running unit what its tips are at: post, phase, exciter terminal', async () => {
    for (const [faults, exciterShare] of [
      [[], 1],
      [[{ fault: 'exciter-open:B', severity: 1 }], 0.8],
    ] as const) {
      const { bench, later } = await benchWith([...faults]);
      const meter = new SimulatedMultimeter(bench, new Supply(bench));
      bench.draw({ ...bench.load, on: true, mode: 'voltage', volts: 13.5 });
      bench.turn(3000);
      const at = async (red: string) => {
        bench.move({ ...onStand, jumper: true, red });
        later(5);
        return Number(await read(meter, 'CONF:VOLT:DC;:READ?'));
      };
      expect(await at('output')).closeTo(13.5, 0.15);
      expect(await at('leg:A')).closeTo(13.5 / 2, 0.2);
      expect(await at('exciter')).closeTo(13.5 * exciterShare, 0.3);
      bench.move({ ...onStand, red: undefined, black: undefined, together: true });
      later(5);
      expect(Number(await read(meter, 'READ?')), 'tips together').closeTo(0, 1e-3);
    }
  });
  it('shows the volts under a current of the supply, by the resistor in its lead; nothing while it is off', async () => {
    const { bench, later } = await benchWith([{ fault: 'exciter-open:B', severity: 1 }]);
    const supply = new Supply(bench);
    const meter = new SimulatedMultimeter(bench, supply);
    const across = async (plus: string, seriesOhms: number) => {
      const feed = { plus, minus: 'exciter', seriesOhms };
      bench.move({ red: plus, black: 'exciter', feed, together: false, assembly: 'opened', jumper: false });
      later(5);
      return Number(await read(meter, 'CONF:VOLT:DC;:READ?'));
    };
    expect(await across('leg:A', 6.8)).closeTo(0, 1e-3);
    await read(supply, 'OUTP ON');
    expect(await across('leg:A', 6.8)).within(0.8, 0.95);
    expect((await across('leg:B', 6.8)) - (await across('leg:C', 6.8)), 'the open one').greaterThan(0.08);
    expect(await across('leg:B', 2.4), 'more amps').greaterThan((await across('leg:B', 6.8)) + 0.1);
  });
  it('a range held by hand is over-range above it; a wrong one is refused; FETCh? needs a reading', async () => {
    const { bench, later } = await benchWith([]);
    const meter = new SimulatedMultimeter(bench, new Supply(bench));
    bench.move({ red: 'output', black: 'case', together: false, assembly: 'closed', jumper: false });
    later(5);
    await read(meter, 'CONF:RES 500');
    expect(await meter.scpi.execute('FETC?')).equal(undefined);
    expect(await read(meter, 'SYST:ERR?')).match(/^-230/);
    expect(Number(await read(meter, 'READ?'))).equal(9.9e37);
    expect(Number(await read(meter, 'CONF:RES 50 MOHM;:READ?'))).within(1e5, 5e7);
    expect(await read(meter, 'FETC?;:RES:RANG:AUTO?')).match(/;0$/);
    await read(meter, 'CONF:RES 1E12');
    expect(await read(meter, 'SYST:ERR?')).match(/^-222/);
    await read(meter, 'FUNC "TEMP"');
    expect(await read(meter, 'SYST:ERR?')).match(/^-224/);
    await read(meter, 'FUNC VOLT');
    expect(await read(meter, 'SYST:ERR?')).match(/^-151/);
  });
});

describe('the simulated commander', () => {
  /** Volts at the post of a machine that a computer commands, at a light load. */
  async function voltsUnder(faults: Scenario['faults'], words: string): Promise<number> {
    const commanded = { ...machine, regulator: 'commanded' } as const;
    const told = await readScenario({ name: 'a test', machine: commanded, faults, meter: 'bench', seed: 7 });
    let seconds = 0;
    const bench = new SimulatedBench(told, () => seconds, seeded(417));
    bench.move(onStand);
    bench.turn(3000);
    seconds += 10;
    bench.draw({ ...bench.load, on: true, amps: 5 });
    const commander = simulatedCommander(bench);
    await commander.execute(words);
    return bench.run!.volts.mean;
  }
  const at = (percent: number) => `FUNC PULS;:FREQ 125;:PULS:DCYC ${percent};:OUTP ON`;

  it('moves a regulator that hears it, and none that is deaf; off, the regulator holds its own', async () => {
    expect(await voltsUnder([], at(40))).closeTo(13.4, 0.05);
    expect(await voltsUnder([], at(80))).closeTo(14.8, 0.05);
    expect(await voltsUnder([], 'PULS:DCYC 80')).closeTo(14.2, 0.05);
    expect(await voltsUnder([{ fault: 'regulator-deaf', severity: 1 }], at(80))).closeTo(14.2, 0.05);
  });
  it('tells what it sends, and refuses what it can’t', async () => {
    const { bench } = await benchWith([]);
    const { execute } = { execute: (words: string) => simulatedCommander(bench).execute(words) };
    expect(await execute('PULS:DCYC 35;DCYC?;:OUTP?')).match(/^35;0$|^\+?3\.50*E\+?0*1;0$/);
    const commander = simulatedCommander(bench);
    for (const [words, code] of [
      ['PULS:DCYC 120', /^-222/],
      ['FREQ 1 MHZ', /^-222/],
      ['FUNC SIN', /^-224/],
    ] as const) {
      await commander.execute(words);
      expect(String(await commander.execute('SYST:ERR?')), words).match(code);
    }
  });
});

describe('the page of the stand-ins', () => {
  it('moves hands, switches instruments, plays scenarios; says what is wrong; refuses other sites', async () => {
    const house = new House(await scenario([]), seeded(1));
    await house.open(0);
    const page = control(house);
    await new Promise<void>((done) => page.listen(0, '127.0.0.1', done));
    const url = `http://127.0.0.1:${(page.address() as { port: number }).port}`;
    const post = (path: string, body: unknown, headers: Record<string, string> = {}) =>
      fetch(url + path, { method: 'POST', body: typeof body === 'string' ? body : JSON.stringify(body), headers });
    const message = async (answer: Response) => ((await answer.json()) as { message: string }).message;
    try {
      expect(await (await fetch(url)).text()).match(/<title>Simulated bench/);
      expect((await post('/hands', { red: 'output', black: 'case', assembly: 'closed' })).status).equal(200);
      expect(house.bench.hands.red).equal('output');
      await post('/instrument', { name: 'clamp', on: false });
      expect(house.isOn('clamp')).equal(false);
      await post('/instrument', { name: 'clamp', on: true });
      expect(house.isOn('clamp')).equal(true);
      await post('/scenario', { file: 'b-open-diode.json' });
      expect(house.bench.hidden[0]!.fault.id).equal('diode-open:B+');
      expect(await message(await post('/instrument', { name: 'kettle' }))).match(/must be one of/);
      expect(await message(await post('/scenario', '{'))).match(/JSON/);
      expect((await post('/scenario', { file: 'none.json' })).status).equal(422);
      expect((await post('/nowhere', {})).status).equal(404);
      expect((await post('/hands', { assembly: 'closed' }, { origin: 'http://elsewhere.example' })).status).equal(403);
      expect(house.bench.hands.red).equal(undefined);
    } finally {
      page.closeAllConnections();
      page.close();
      await house.close();
    }
  });
});

describe('a starter in the simulated vise', () => {
  const starter = starterGeneric(12, 1.4);
  const clamped = { red: 'main', black: 'case', together: false, assembly: 'clamped', jumper: false };
  async function starterWith(faults: { fault: string; severity: number }[]) {
    let now = 100;
    const given = { name: 'a starter', machine: starter, faults, meter: 'bench', seed: 7 };
    const bench = new SimulatedBench(await readScenario(given), () => now, seeded(7));
    return { bench, later: (seconds: number) => (now += seconds) };
  }
  it('stands until it is clamped and fed, runs up, and lets go by itself', async () => {
    const { bench, later } = await starterWith([]);
    bench.feed(true);
    expect(bench.leadAmps.mean, 'not clamped').equal(0);
    bench.move(clamped);
    later(2);
    expect(bench.clampedVolts).within(12, 13.2);
    bench.feed(true);
    later(0.01);
    const inrush = bench.leadAmps.mean;
    later(2);
    expect(inrush).greaterThan(2 * bench.leadAmps.mean);
    expect(bench.leadAmps.mean).within(45, 110);
    expect(bench.rpm).within(5000, 9000);
    expect(bench.clampedVolts).lessThan(12.4);
    later(15);
    expect([bench.leadAmps.mean, bench.rpm]).deep.equal([0, 0]);
  });
  it('braked it slows, held it stands and pulls; its arm, the pile and the drop over its contacts are read', async () => {
    const { bench, later } = await starterWith([{ fault: 'contacts-burnt', severity: 0.02 }]);
    bench.move(clamped);
    bench.feed(true);
    later(3);
    const free = bench.rpm;
    bench.move({ ...clamped, black: 'motor' });
    later(2);
    expect(bench.clampedVolts, 'milliohms at tens of amperes').within(0.8, 2.2);
    bench.brake(2);
    later(1);
    expect(bench.rpm).lessThan(0.8 * free);
    bench.brake(500);
    expect(bench.rpm).equal(0);
    expect(bench.newtonMetres).within(2, 12);
    bench.feed(false);
    bench.move({ ...clamped, red: 'battery+', black: 'battery-' });
    const rested = bench.clampedVolts!;
    bench.draw({ ...bench.load, on: true, mode: 'current', amps: 350 });
    expect(rested - bench.clampedVolts!).within(1.5, 4.5);
  });
  it('without its pull-in winding nothing turns; without its hold-in winding it chatters', async () => {
    const { bench, later } = await starterWith([{ fault: 'pull-in-open', severity: 1 }]);
    bench.move(clamped);
    bench.feed(true);
    later(2);
    expect(bench.rpm).equal(0);
    const chattering = await starterWith([{ fault: 'hold-in-open', severity: 1 }]);
    chattering.bench.move(clamped);
    chattering.bench.feed(true);
    const seen = Array.from({ length: 40 }, () => (chattering.later(0.03), chattering.bench.leadAmps.mean > 30));
    expect(new Set(seen)).deep.equal(new Set([true, false]));
  });
});
