import type { SimulatedBench } from '../bench/index.ts';
import { booleanOf, isWord, nr3, numberOf, ScpiError, ScpiInstrument } from '../scpi/index.ts';

/** A pulse generator on a regulator's command terminal. */
export function simulatedCommander(bench: SimulatedBench): ScpiInstrument {
  const rate = { unit: 'HZ', least: 1, most: 2000, usual: 125 };
  const share = { unit: 'PCT', least: 0, most: 100, usual: 50 };
  let hertz = rate.usual;
  let percent = share.usual;
  let on = false;
  const send = (): undefined => {
    bench.command(on ? percent / 100 : undefined);
  };
  return new ScpiInstrument(
    'Refectum,Simulated commander,0,0.2',
    [
      {
        header: '[SOURce:]FUNCtion[:SHAPe]',
        takes: [1, 1],
        run: ([shape]) => {
          if (!isWord(shape!, 'PULSe')) throw new ScpiError('-224', shape);
        },
      },
      { header: '[SOURce:]FUNCtion[:SHAPe]?', run: () => 'PULS' },
      {
        header: '[SOURce:]FREQuency[:CW]',
        takes: [1, 1],
        run: ([text]) => void (hertz = numberOf(text!, rate)),
      },
      { header: '[SOURce:]FREQuency[:CW]?', run: () => nr3(hertz) },
      {
        header: '[SOURce:]PULSe:DCYCle',
        takes: [1, 1],
        run: ([text]) => {
          percent = numberOf(text!, share);
          return send();
        },
      },
      { header: '[SOURce:]PULSe:DCYCle?', run: () => nr3(percent) },
      {
        header: 'OUTPut[:STATe]',
        takes: [1, 1],
        run: ([state]) => {
          on = booleanOf(state!);
          return send();
        },
      },
      { header: 'OUTPut[:STATe]?', run: () => (on ? '1' : '0') },
    ],
    () => {
      on = false;
      send();
    },
  );
}
