export { formatChance, formatNumber, formatQuantity, formatReading, formatWithin } from './format.ts';
export { type Entry, parseQuantity } from './parse.ts';
export { prefixes, type Unit, units } from './units.ts';
