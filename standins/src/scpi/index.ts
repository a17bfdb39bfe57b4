export { blockOf, booleanOf, notANumber, nr3, numberOf, type NumberLimits, overRange } from './data.ts';
export { ScpiError } from './error.ts';
export { headerPattern, isWord } from './header.ts';
export { type Command, ScpiInstrument } from './instrument.ts';
export { Port } from './listen.ts';
export { stringOf, unitsOf } from './message.ts';
