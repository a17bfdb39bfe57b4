import { SimulatedBench, type Scenario } from './bench/index.ts';
import {
  SimulatedMultimeter,
  simulatedClamp,
  simulatedCommander,
  simulatedLoad,
  simulatedOscilloscope,
  simulatedStand,
  Supply,
} from './instruments/index.ts';
import { Port, type ScpiInstrument } from './scpi/index.ts';

/** In the order of their ports. */
export const instrumentNames = ['multimeter', 'clamp', 'stand', 'load', 'supply', 'oscilloscope', 'commander'] as const;
export type InstrumentName = (typeof instrumentNames)[number];

/** All stand-ins around one simulated bench, each at a port of its own that can be switched off and on. */
export class House {
  readonly bench: SimulatedBench;
  readonly multimeter: SimulatedMultimeter;
  readonly #instruments: Readonly<Record<InstrumentName, ScpiInstrument>>;
  readonly #ports = new Map<InstrumentName, { readonly number: number; port: Port | undefined }>();

  constructor(scenario: Scenario, random: () => number = Math.random) {
    this.bench = new SimulatedBench(scenario, () => performance.now() / 1000, random);
    const supply = new Supply(this.bench);
    this.multimeter = new SimulatedMultimeter(this.bench, supply);
    this.#instruments = {
      multimeter: this.multimeter.scpi,
      clamp: simulatedClamp(this.bench),
      stand: simulatedStand(this.bench),
      load: simulatedLoad(this.bench),
      supply: supply.scpi,
      oscilloscope: simulatedOscilloscope(this.bench),
      commander: simulatedCommander(this.bench),
    };
  }

  /** Opens every port from `first` on, or any that is free where it is 0. */
  async open(first: number): Promise<void> {
    for (const [n, name] of instrumentNames.entries()) {
      const port = new Port(this.#instruments[name], first === 0 ? 0 : first + n);
      this.#ports.set(name, { number: await port.open(), port });
    }
  }

  portOf(name: InstrumentName): number {
    return this.#ports.get(name)!.number;
  }
  isOn(name: InstrumentName): boolean {
    return this.#ports.get(name)?.port !== undefined;
  }

  /** Switches an instrument off, so that nobody is there any more, or on again at the same port. */
  async power(name: InstrumentName, on: boolean): Promise<void> {
    const place = this.#ports.get(name)!;
    if (on === this.isOn(name)) return;
    if (on) {
      const port = new Port(this.#instruments[name], place.number);
      await port.open();
      place.port = port;
    } else {
      const { port } = place;
      place.port = undefined;
      await port!.close();
    }
  }

  async close(): Promise<void> {
    for (const name of instrumentNames) await this.power(name, false);
  }
}
