import { currentClamp, rangeFor } from '@refectum/core/instruments';
import type { SimulatedBench } from '../bench/index.ts';
import { booleanOf, type Command, isWord, nr3, numberOf, ScpiError, ScpiInstrument } from '../scpi/index.ts';
import { Converter, wait } from './measuring.ts';

const readingMilliseconds = 100;

/** A clamp around the cable from the output post. */
export function simulatedClamp(bench: SimulatedBench): ScpiInstrument {
  const converter = new Converter(bench.normal);
  const shown = async (amps: number): Promise<string> => {
    await wait(readingMilliseconds);
    return nr3(converter.shown(amps, rangeFor(currentClamp, amps), currentClamp.at(-1)!.fullScale));
  };
  let alternating = false;
  const read = () => shown(alternating ? bench.leadAmps.ripple : bench.leadAmps.mean);
  const choose = (wanted: boolean) => (): undefined => {
    alternating = wanted;
  };
  const commands: Command[] = [
    { header: 'CONFigure[:SCALar]:CURRent[:DC]', run: choose(false) },
    { header: 'CONFigure[:SCALar]:CURRent:AC', run: choose(true) },
    { header: '[SENSe:]FUNCtion[:ON]?', run: () => (alternating ? '"CURR:AC"' : '"CURR"') },
    { header: 'READ?', run: read },
    { header: 'MEASure[:SCALar]:CURRent[:DC]?', run: () => (choose(false)(), read()) },
    { header: 'MEASure[:SCALar]:CURRent:AC?', run: () => (choose(true)(), read()) },
  ];
  return new ScpiInstrument('Refectum,Simulated clamp,0,0.2', commands, choose(false));
}

/** The stand: its drive turns a rotor by the belt, its brake and arm hold a pinion; speed and torque of either. */
export function simulatedStand(bench: SimulatedBench): ScpiInstrument {
  const speed = { unit: 'RPM', least: 0, most: 18000, usual: 0 };
  const torque = { unit: 'N.M', least: 0, most: 500, usual: 0 };
  const commands: Command[] = [
    {
      header: '[SOURce:]SPEed[:LEVel][:IMMediate]',
      takes: [1, 1],
      run: ([rpm]) => {
        const wanted = numberOf(rpm!, speed);
        if (wanted > 0 && bench.fed) throw new ScpiError('-221', 'it turns by itself');
        if (wanted > 0 && !bench.isClamped) throw new ScpiError('-221', 'nothing is clamped');
        bench.turn(wanted);
      },
    },
    { header: '[SOURce:]SPEed[:LEVel][:IMMediate]?', run: () => nr3(bench.wantedRpm) },
    {
      header: '[SOURce:]TORQue[:LEVel][:IMMediate]',
      takes: [1, 1],
      run: ([newtonMetres]) => bench.brake(numberOf(newtonMetres!, torque)) as undefined,
    },
    { header: '[SOURce:]TORQue[:LEVel][:IMMediate]?', run: () => nr3(bench.fed?.braked ?? 0) },
    {
      header: 'MEASure:SPEed?',
      run: async () => {
        await wait(readingMilliseconds);
        return nr3(Math.max(0, Math.round(bench.rpm + bench.normal())));
      },
    },
    {
      header: 'MEASure:TORQue?',
      run: async () => {
        await wait(readingMilliseconds);
        return nr3(Math.max(0, bench.newtonMetres * (1 + 0.01 * bench.normal())));
      },
    },
  ];
  return new ScpiInstrument('Refectum,Simulated stand,0,0.2', commands, () => {
    bench.turn(0);
    bench.brake(0);
  });
}

/** A load at the output post: constant current, volts or ohms. */
export function simulatedLoad(bench: SimulatedBench): ScpiInstrument {
  const limits = {
    amps: { unit: 'A', least: 0, most: 500, usual: 0 },
    volts: { unit: 'V', least: 0, most: 60, usual: 13.5 },
    ohms: { unit: 'OHM', least: 0.02, most: 1e4, usual: 1e4 },
  } as const;
  const modes = { current: 'CURRent', voltage: 'VOLTage', resistance: 'RESistance' } as const;
  const level = (header: string, what: keyof typeof limits): Command[] => [
    {
      header: `[SOURce:]${header}[:LEVel][:IMMediate][:AMPLitude]`,
      takes: [1, 1],
      run: ([text]) => bench.draw({ ...bench.load, [what]: numberOf(text!, limits[what]) }) as undefined,
    },
    { header: `[SOURce:]${header}[:LEVel][:IMMediate][:AMPLitude]?`, run: () => nr3(bench.load[what]) },
  ];
  const commands: Command[] = [
    ...level('CURRent', 'amps'),
    ...level('VOLTage', 'volts'),
    ...level('RESistance', 'ohms'),
    {
      header: '[SOURce:]FUNCtion[:MODE]',
      takes: [1, 1],
      run: ([text]) => {
        const mode = (Object.keys(modes) as (keyof typeof modes)[]).find((one) => isWord(text!, modes[one]));
        if (!mode) throw new ScpiError('-224', text);
        bench.draw({ ...bench.load, mode });
      },
    },
    { header: '[SOURce:]FUNCtion[:MODE]?', run: () => modes[bench.load.mode].replace(/[a-z]+$/, '') },
    {
      header: 'INPut[:STATe]',
      takes: [1, 1],
      run: ([on]) => bench.draw({ ...bench.load, on: booleanOf(on!) }) as undefined,
    },
    { header: 'INPut[:STATe]?', run: () => (bench.load.on ? '1' : '0') },
    { header: 'MEASure:VOLTage[:DC]?', run: () => nr3(bench.run?.volts.mean ?? bench.restingVolts) },
  ];
  return new ScpiInstrument('Refectum,Simulated load,0,0.2', commands, () => bench.draw({ ...bench.load, on: false }));
}
