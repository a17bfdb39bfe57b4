import { benchSupply } from '@refectum/core/instruments';
import type { SimulatedBench } from '../bench/index.ts';
import { booleanOf, nr3, numberOf, ScpiInstrument } from '../scpi/index.ts';

/** The bench supply that feeds a part for a test under current. */
export class Supply {
  readonly scpi: ScpiInstrument;
  on = false;
  #volts: number = benchSupply.volts;
  #amps = 5;

  /** On a clamped starter its clips hold the battery's switch. */
  constructor(bench: SimulatedBench) {
    const turn = (on: boolean): void => {
      this.on = on;
      bench.feed(on);
    };
    const volts = { unit: 'V', least: 0, most: 30, usual: benchSupply.volts };
    const amps = { unit: 'A', least: 0, most: 10, usual: 5 };
    this.scpi = new ScpiInstrument(
      'Refectum,Simulated supply,0,0.2',
      [
        {
          header: '[SOURce:]VOLTage[:LEVel][:IMMediate][:AMPLitude]',
          takes: [1, 1],
          run: ([text]) => void (this.#volts = numberOf(text!, volts)),
        },
        { header: '[SOURce:]VOLTage[:LEVel][:IMMediate][:AMPLitude]?', run: () => nr3(this.#volts) },
        {
          header: '[SOURce:]CURRent[:LEVel][:IMMediate][:AMPLitude]',
          takes: [1, 1],
          run: ([text]) => void (this.#amps = numberOf(text!, amps)),
        },
        { header: '[SOURce:]CURRent[:LEVel][:IMMediate][:AMPLitude]?', run: () => nr3(this.#amps) },
        { header: 'OUTPut[:STATe]', takes: [1, 1], run: ([on]) => turn(booleanOf(on!)) as undefined },
        { header: 'OUTPut[:STATe]?', run: () => (this.on ? '1' : '0') },
      ],
      () => turn(false),
    );
  }
}
