import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Deck, deckText } from './deck.ts';

/** Runs a deck in ngspice (Debian's package) and answers what it was asked, in volts. */
export function runSpice(deck: Deck): number[] {
  const folder = mkdtempSync(join(tmpdir(), 'refectum-spice-'));
  try {
    for (const tolerance of [1e-6, 1e-5, 1e-4]) {
      const file = join(folder, 'unit.cir');
      writeFileSync(file, deckText({ ...deck, tolerance }));
      const found = answersOf(spawnSync('ngspice', ['-b', file], { encoding: 'utf8' }).stdout);
      if (found.length === deck.ask.length && found.every(Number.isFinite)) return found;
    }
    throw new Error(`ngspice found no operating point:\n${deckText(deck)}`);
  } finally {
    rmSync(folder, { recursive: true });
  }
}

const answersOf = (printed: string): number[] =>
  [...printed.matchAll(/^\S*v\(\S* = (\S+)$/gm)].map((match) => Number(match[1]));
