/** The units a reading can be written in. `most` is the largest magnitude that makes sense on a bench. */
export const units = {
  volts: { symbol: 'V', names: ['v', 'volt', 'volts'], most: 1000, signed: true },
  ohms: { symbol: 'Ω', names: ['Ω', 'Ω', 'ω', 'ohm', 'ohms', 'r'], most: 1e12, signed: false },
  amps: { symbol: 'A', names: ['a', 'amp', 'amps'], most: 5000, signed: true },
  millimetres: { symbol: 'mm', names: ['mm'], most: 1000, signed: false },
  metres: { symbol: 'm', names: ['m', 'metre', 'metres'], most: 1000, signed: false },
  rpm: { symbol: 'rpm', names: ['rpm'], most: 100000, signed: false },
  newtonMetres: { symbol: 'Nm', names: ['nm', 'n·m'], most: 5000, signed: false },
  kilowatts: { symbol: 'kW', names: ['kw'], most: 100, signed: false },
  times: { symbol: '', names: [], most: 1000, signed: false },
  hours: { symbol: 'h', names: ['h', 'hour', 'hours'], most: 100000, signed: false },
  ampHours: { symbol: 'Ah', names: ['ah'], most: 10000, signed: false },
  litres: { symbol: 'l', names: ['l', 'litre', 'litres'], most: 1000, signed: false },
  celsius: { symbol: '°C', names: ['°c', 'c', '°'], most: 400, signed: true },
} as const;

export type Unit = keyof typeof units;

/** Decimal prefixes as people type them: the case of m and M matters, and `meg` is always a million. */
export const prefixes: Readonly<Record<string, number>> = {
  n: 1e-9,
  u: 1e-6,
  µ: 1e-6,
  μ: 1e-6,
  m: 1e-3,
  k: 1e3,
  K: 1e3,
  M: 1e6,
  meg: 1e6,
  G: 1e9,
};
