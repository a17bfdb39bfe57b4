import { createHash } from 'node:crypto';
import { appendFileSync, existsSync, readdirSync, readFileSync, statSync } from 'node:fs';
import { basename } from 'node:path';

/** What tells outcomes apart that may be counted together: what the units were, and the code that told of them. */
interface Origin {
  readonly study: string;
  readonly code: string;
}

/**
 * Outcomes of a long study, a line of JSON each, so that one broken off goes on where it was, and one counted in pieces
 * adds up. Those of other units, or told by other code, are refused: their sum would be nobody's.
 */
export class KeptOutcomes<T extends { readonly unit: number; readonly way: string }> {
  readonly found: readonly T[];
  readonly #path: string;
  readonly #origin: Origin;

  constructor(path: string, study: string) {
    this.#path = path;
    this.#origin = { study, code: codeOf('core/src', ...ofTheStudies) };
    this.found = existsSync(path) ? this.#read() : [];
  }

  add(outcome: T): void {
    appendFileSync(this.#path, `${JSON.stringify({ ...this.#origin, ...outcome })}\n`);
  }

  #read(): T[] {
    return readFileSync(this.#path, 'utf8')
      .split('\n')
      .filter(Boolean)
      .map((line, i) => {
        const { study, code, ...outcome } = this.#parse(line, i + 1);
        for (const [what, was, is] of [
          ['study', study, this.#origin.study],
          ['code', code, this.#origin.code],
        ])
          if (was !== is)
            throw new Error(
              `${this.#path}, line ${i + 1}: of another ${what} (${was}) than this one (${is}); give another file`,
            );
        return outcome as unknown as T;
      });
  }

  #parse(line: string, number: number): Origin & T {
    try {
      return JSON.parse(line) as Origin & T;
    } catch (cause) {
      throw new Error(
        `${this.#path}, line ${number}: no whole outcome, cut off perhaps as the study was broken off; take the line out and its unit is worked out again`,
        { cause },
      );
    }
  }
}

/** Beside the core itself: how units are drawn and taken through the bench, and the decks written by hand. */
const ofTheStudies = ['core/test/hidden-units.ts', 'core/test/spreads.ts', 'core/test/spice'];

/** Whatever is changed in these files, or in files in these folders, changes it. */
function codeOf(...places: readonly string[]): string {
  const hash = createHash('sha256');
  const add = (name: string, path: string) => hash.update(name).update(readFileSync(path));
  for (const place of places)
    if (statSync(place).isFile()) add(basename(place), place);
    else
      for (const file of readdirSync(place, { recursive: true, encoding: 'utf8' }).sort())
        if (/\.(ts|cir)$/.test(file)) add(file, `${place}/${file}`);
  return hash.digest('hex').slice(0, 16);
}
