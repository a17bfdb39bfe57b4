import type { InstrumentKind, InstrumentSetting, MeterUse, Told } from '../../instruments.ts';
import type { Link } from './link.ts';

/** How one kind of instrument is spoken with, in SCPI-1999 alone. */
interface Driver {
  /** Once, when somebody begins to listen. */
  readonly begin?: string;
  readonly poll: (link: Link) => Promise<Told>;
  /** What takes it back to where it harms nobody. */
  readonly halt?: string;
  /** What a setting is in its words; undefined where it means nothing to this kind. */
  readonly words?: (setting: InstrumentSetting) => string | undefined;
}

/** SCPI's over-range and beyond, not-a-number among it (SCPI-1999 volume 1, 7.2.1). */
const overRange = 9.9e37;
const valueOf = (text: string): number | null => {
  const value = Number(text);
  if (text.trim() === '' || Number.isNaN(value)) throw new RangeError(`it answers “${text}” where a number belongs`);
  return Math.abs(value) >= overRange ? null : value;
};
const isOn = (text: string): boolean => /^\s*(1|on)\s*$/i.test(text);

const setUse: Readonly<Record<MeterUse, string>> = {
  diode: 'CONF:DIOD',
  ohms: 'CONF:RES',
  volts: 'CONF:VOLT:DC',
  'volts-ac': 'CONF:VOLT:AC',
};
/** The function as it names it itself: short or long form, with or without the default node. */
function useOf(named: string): MeterUse | 'other' {
  const name = named.replaceAll(/["']/g, '').trim().toUpperCase();
  if (/^DIOD(E)?$/.test(name)) return 'diode';
  if (/^RES(ISTANCE)?$/.test(name)) return 'ohms';
  if (/^VOLT(AGE)?(:DC)?$/.test(name)) return 'volts';
  return /^VOLT(AGE)?:AC$/.test(name) ? 'volts-ac' : 'other';
}

export const drivers: Readonly<Record<InstrumentKind, Driver>> = {
  multimeter: {
    poll: async (link) => {
      const use = useOf(await link.ask('FUNC?'));
      return { state: 'reads', kind: 'multimeter', use, value: valueOf(await link.ask('READ?')) };
    },
    words: ({ use, range }) => use && (range === undefined ? setUse[use] : `${setUse[use]} ${range}`),
  },
  clamp: {
    begin: 'CONF:CURR:DC',
    poll: async (link) => ({ state: 'reads', kind: 'clamp', amps: valueOf(await link.ask('READ?')) }),
  },
  stand: {
    poll: async (link) => {
      const rpm = valueOf(await link.ask('MEAS:SPE?')) ?? 0;
      return { state: 'reads', kind: 'stand', rpm, newtonMetres: valueOf(await link.ask('MEAS:TORQ?')) ?? 0 };
    },
    halt: 'SPE 0;:TORQ 0',
    words: ({ rpm, newtonMetres }) => {
      if (newtonMetres !== undefined) return `TORQ ${newtonMetres}`;
      return rpm === undefined ? undefined : `SPE ${rpm}`;
    },
  },
  load: {
    poll: async (link) => {
      const on = isOn(await link.ask('INP?'));
      const named = await link.ask('FUNC?');
      const mode = /^VOLT/i.test(named) ? 'voltage' : /^RES/i.test(named) ? 'resistance' : 'current';
      const level = valueOf(await link.ask({ voltage: 'VOLT?', resistance: 'RES?', current: 'CURR?' }[mode])) ?? 0;
      return { state: 'reads', kind: 'load', on, mode, level };
    },
    halt: 'INP OFF',
    words: ({ on, mode, level }) => {
      if (mode !== undefined && level !== undefined)
        return `FUNC ${mode === 'voltage' ? 'VOLT' : 'CURR'};${mode === 'voltage' ? 'VOLT' : 'CURR'} ${level};:INP ${on === false ? 'OFF' : 'ON'}`;
      return on === undefined ? undefined : `INP ${on ? 'ON' : 'OFF'}`;
    },
  },
  supply: {
    halt: 'OUTP OFF',
    poll: async (link) => ({ state: 'reads', kind: 'supply', on: isOn(await link.ask('OUTP?')) }),
    words: ({ on }) => (on === undefined ? undefined : `OUTP ${on ? 'ON' : 'OFF'}`),
  },
  commander: {
    halt: 'OUTP OFF',
    poll: async (link) => {
      const on = isOn(await link.ask('OUTP?'));
      return { state: 'reads', kind: 'commander', on, duty: (valueOf(await link.ask('PULS:DCYC?')) ?? 0) / 100 };
    },
    words: ({ on, hertz, duty }) => {
      if (duty === undefined) return on === undefined ? undefined : `OUTP ${on ? 'ON' : 'OFF'}`;
      const rate = hertz === undefined ? '' : `FREQ ${hertz};:`;
      return `FUNC PULS;:${rate}PULS:DCYC ${100 * duty};:OUTP ${on === false ? 'OFF' : 'ON'}`;
    },
  },
  oscilloscope: {
    poll: async (link) => {
      await link.ask('*OPC?');
      return { state: 'reads', kind: 'oscilloscope' };
    },
  },
};

/** What an oscilloscope caught: volts at the post on channel 1, the clamp's amperes on 2, a phase tap on 3. */
export interface Capture {
  readonly secondsPerSample: number;
  readonly volts: readonly number[];
  readonly amps: readonly number[];
  /** Volts of the phase tap, where it was asked for. */
  readonly tap?: readonly number[];
}

export async function capture(link: Link, seconds: number, points: number, tap = false): Promise<Capture> {
  await link.tell(`FORM REAL,32;:SWE:TIME ${seconds};POIN ${points}`);
  await link.ask('INIT;*OPC?');
  const secondsPerSample = valueOf(await link.ask('SWE:TINT?'));
  if (secondsPerSample === null || secondsPerSample <= 0)
    throw new RangeError('it doesn’t tell the time between two samples');
  return {
    secondsPerSample,
    volts: await link.askBlock('TRAC? CH1'),
    amps: await link.askBlock('TRAC? CH2'),
    ...(tap ? { tap: await link.askBlock('TRAC? CH3') } : {}),
  };
}
