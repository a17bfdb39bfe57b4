import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const deck = readFileSync(new URL('turning.cir', import.meta.url), 'utf8');

/** A running unit in the deck: other values of its parameters, and diodes (ap, an, ea, …) whose bond is torn. */
export interface DeckedRun {
  readonly rpm: number;
  /** What the field takes from exciter diodes, A; none are there when it isn't said. */
  readonly fieldAmps?: number;
  readonly values?: Readonly<Record<string, number>>;
  readonly torn?: readonly string[];
  /** Six when it isn't said: those at the star are torn. */
  readonly diodes?: 6 | 8;
}

export interface DeckedPeriod {
  /** Mean amperes through the cable over one period of the steady state, and their ripple, rms. */
  readonly mean: number;
  readonly ripple: number;
  /** Rms of each order, from 1 up. */
  readonly rms: readonly number[];
  /** Mean of phase A's lead over the output, against the case. */
  readonly tap: number;
  /** Mean volts of the exciter diodes against the case. */
  readonly exciter: number;
  readonly milliseconds: number;
}

const polePairs = 6;
const periods = 24;
const stepsPerPeriod = 1000;
/** All that alternates is in so many orders; rms less the mean would drown a small ripple in the mean's own error. */
const orders = 60;

/** The deck run in ngspice until it is steady (Gear's method, a thousandth of a period at most), and its last period. */
export function runTurning({ rpm, values = {}, torn = [] }: DeckedRun): DeckedPeriod {
  const hertz = (rpm / 60) * polePairs;
  const set = Object.entries({ ...values, w: 2 * Math.PI * hertz });
  const lines = deck
    .split('\n')
    .filter((line) => !torn.some((diode) => line.toLowerCase().startsWith(`d${diode} `)))
    .map((line) => (line.startsWith('.param') ? withValues(line, set) : line));
  const from = (periods - 1) / hertz;
  const to = periods / hertz;
  const folder = mkdtempSync(join(tmpdir(), 'refectum-turning-'));
  try {
    const file = join(folder, 'run.cir');
    const step = 1 / hertz / stepsPerPeriod;
    const asked = [
      '.control',
      'set numdgt=12',
      `tran ${step} ${to} 0 ${step} uic`,
      'let amps = (v(out)-v(bus))/0.003',
      `meas tran mean AVG amps from=${from} to=${to}`,
      `meas tran lead AVG v(ga) from=${from} to=${to}`,
      `meas tran post AVG v(out) from=${from} to=${to}`,
      `meas tran exciter AVG v(ex) from=${from} to=${to}`,
      `set nfreqs=${orders + 1}`,
      'set fourgridsize=2000',
      `fourier ${hertz} amps`,
      'quit 0',
      '.endc',
    ];
    // Every step is a thousandth of a period at most; the truncation error alone would let some be too small to take.
    const options = '.options temp=25 tnom=25 gmin=1e-12 reltol=1e-5 abstol=1e-6 vntol=1e-5 trtol=50 method=gear';
    writeFileSync(file, ['* a unit on the stand', options, ...lines, ...asked, '.end', ''].join('\n'));
    const began = performance.now();
    const printed = spawnSync('ngspice', ['-b', file], { encoding: 'utf8' }).stdout;
    const milliseconds = performance.now() - began;
    const found = (name: string) => Number(new RegExp(`^${name}\\s*=\\s*(\\S+)`, 'm').exec(printed)?.[1]);
    const asNumbers = ['mean', 'lead', 'post', 'exciter'].map(found) as [number, number, number, number];
    const [mean, lead, post, exciter] = asNumbers;
    if (!asNumbers.every(Number.isFinite)) throw new Error(`ngspice did not finish:\n${printed}`);
    // Rows of `fourier`: harmonic, frequency, magnitude (a peak), and more.
    const rows = [...printed.matchAll(/^\s*(\d+)\s+([\d.e+-]+)\s+([\d.e+-]+)\s+[\d.e+-]+\s+[\d.e+-]+/gm)];
    const rms = rows.filter(([, order]) => Number(order) > 0).map(([, , , peak]) => Number(peak) / Math.SQRT2);
    if (rms.length !== orders) throw new Error(`ngspice told ${rms.length} orders:\n${printed}`);
    return { mean, ripple: Math.hypot(...rms), rms, tap: lead / post, exciter, milliseconds };
  } finally {
    rmSync(folder, { recursive: true });
  }
}

function withValues(line: string, set: readonly (readonly [string, number])[]): string {
  return set.reduce(
    (now, [name, value]) => now.replace(new RegExp(`(?<=\\s)${name}=\\S+`), `${name}=${value.toExponential(12)}`),
    line,
  );
}
