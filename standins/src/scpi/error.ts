/** Errors by their numbers and words in SCPI-1999 volume 2, chapter 21 [from memory]. */
const texts = {
  '-101': 'Invalid character',
  '-102': 'Syntax error',
  '-104': 'Data type error',
  '-108': 'Parameter not allowed',
  '-109': 'Missing parameter',
  '-113': 'Undefined header',
  '-120': 'Numeric data error',
  '-131': 'Invalid suffix',
  '-141': 'Invalid character data',
  '-151': 'Invalid string data',
  '-221': 'Settings conflict',
  '-222': 'Data out of range',
  '-224': 'Illegal parameter value',
  '-230': 'Data corrupt or stale',
  '-240': 'Hardware error',
  '-350': 'Queue overflow',
  '-363': 'Input buffer overrun',
} as const;
export type ErrorCode = keyof typeof texts;

/** What an instrument can't do, with the number that its error queue will show. */
export class ScpiError extends Error {
  readonly code: number;

  constructor(code: ErrorCode, detail = '') {
    super(detail ? `${texts[code]};${detail}` : texts[code]);
    this.code = Number(code);
  }

  /** As SYSTem:ERRor? answers it. */
  get queued(): string {
    return `${this.code},"${this.message.replaceAll('"', "'")}"`;
  }

  /** The bit of the standard event status register for its class: command, execution, device, query. */
  get eventBit(): number {
    const kind = Math.trunc(-this.code / 100);
    return ({ 1: 1 << 5, 2: 1 << 4, 3: 1 << 3, 4: 1 << 2 } as Record<number, number>)[kind] ?? 1 << 3;
  }
}
