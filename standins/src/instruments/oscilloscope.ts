import type { SimulatedBench } from '../bench/index.ts';
import { blockOf, type Command, isWord, nr3, numberOf, ScpiError, ScpiInstrument } from '../scpi/index.ts';
import { wait } from './measuring.ts';

const channels = { CH1: 'volts', CH2: 'amps', CH3: 'tap' } as const;
type Channel = keyof typeof channels;

/** An oscilloscope: post volts on channel 1, the clamp on 2, the phase tap on 3. */
export function simulatedOscilloscope(bench: SimulatedBench): ScpiInstrument {
  const points = { unit: '', least: 100, most: 1e6, usual: 4000 };
  const time = { unit: 'S', least: 1e-4, most: 10, usual: 0.02 };
  let [count, seconds, form] = [points.usual, time.usual, 'ASC'];
  let kept: Record<Channel, Float64Array> | undefined;

  const acquire = async (): Promise<undefined> => {
    await wait(1000 * seconds);
    const { run, fed } = bench;
    const motor = fed?.trace(seconds, count);
    const start = Math.abs(bench.normal());
    const sampled = (channel: Channel): Float64Array =>
      Float64Array.from({ length: count }, (_, n) => {
        const noise = channels[channel] === 'amps' ? 0.2 : 0.01;
        if (motor) return (channels[channel] === 'amps' ? motor.amps[n]! : motor.volts[n]!) + noise * bench.normal();
        if (!run) return (channel === 'CH1' ? bench.restingVolts : 0) + noise * bench.normal();
        const period = run.trace[channels[channel]];
        const at = ((start + (n / count) * seconds * run.electricalHertz) % 1) * period.length;
        const [from, share] = [Math.floor(at), at % 1];
        const value = period[from % period.length]! * (1 - share) + period[(from + 1) % period.length]! * share;
        return value + noise * bench.normal();
      });
    kept = { CH1: sampled('CH1'), CH2: sampled('CH2'), CH3: sampled('CH3') };
  };
  const commands: Command[] = [
    {
      header: '[SENSe:]SWEep:POINts',
      takes: [1, 1],
      run: ([text]) => void (count = Math.round(numberOf(text!, points))),
    },
    { header: '[SENSe:]SWEep:POINts?', run: () => String(count) },
    { header: '[SENSe:]SWEep:TIME', takes: [1, 1], run: ([text]) => void (seconds = numberOf(text!, time)) },
    { header: '[SENSe:]SWEep:TIME?', run: () => nr3(seconds) },
    { header: '[SENSe:]SWEep:TINTerval?', run: () => nr3(seconds / count) },
    {
      header: 'FORMat[:DATA]',
      takes: [1, 2],
      run: ([kind, length]) => {
        if (isWord(kind!, 'REAL') && (length === undefined || Number(length) === 32)) form = 'REAL';
        else if (isWord(kind!, 'ASCii')) form = 'ASC';
        else throw new ScpiError('-224', `${kind} ${length ?? ''}`);
      },
    },
    { header: 'INITiate[:IMMediate]', run: acquire },
    {
      header: 'TRACe[:DATA]?',
      takes: [1, 1],
      run: ([text]) => {
        if (!kept) throw new ScpiError('-230');
        const values = kept[text!.toUpperCase() as Channel];
        if (!values) throw new ScpiError('-224', text);
        return form === 'REAL' ? blockOf(values) : Array.from(values, nr3).join(',');
      },
    },
  ];
  return new ScpiInstrument('Refectum,Simulated oscilloscope,0,0.2', commands, () => {
    [count, seconds, form] = [points.usual, time.usual, 'ASC'];
    kept = undefined;
  });
}
