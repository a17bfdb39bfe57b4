import type { Equipment } from '@refectum/core/checks';
import type { StandProfile } from '@refectum/core/handbook';
import type { School } from '@refectum/core/limits';
import { schools } from '@refectum/core/limits';
import { array, mixed, number, object } from 'yup';

/** How an output is read: both schools count [common practice, no source]. */
export const outputSchools = {
  volts: 'Amps at the rated volts',
  most: 'The most amps the pile draws',
} as const;
export type OutputSchool = keyof typeof outputSchools;

/** How this shop works, where technicians differ. */
export interface HouseRules {
  /** Which limits lead, first to last. */
  readonly limits: readonly School[];
  readonly output: OutputSchool;
  /** What the run stand can pull. */
  readonly stand: StandProfile;
}

/** What the trade does most [common practice, no source]. */
export const usualRules: HouseRules = { limits: ['published', 'siblings', 'own'], output: 'volts', stand: {} };

const names = Object.keys(schools) as School[];

/** An oscilloscope that samples slower shows no bars passing. */
export const leastKilohertz = 20;

/** What the shop lacks for some checks, as far as it says what it has. */
export const lacksOf = ({ stand }: HouseRules): readonly Equipment[] => [
  ...(stand.motorKilowatts === undefined ? (['stand'] as const) : []),
  ...(stand.brakeNewtonMetres === undefined ? (['brake'] as const) : []),
  ...(stand.commanderHertz === undefined ? (['commander'] as const) : []),
  ...((stand.oscilloscopeKilohertz ?? 0) < leastKilohertz ? (['oscilloscope'] as const) : []),
];

/** A figure of the stand; left empty where nobody knows it. */
const figure = (name: string, least: number, most: number, unit: string) =>
  number()
    .transform((value: number, given: unknown) => (given === '' ? undefined : value))
    .typeError(`${name}: type a number of ${unit}, or leave it empty — got “\${originalValue}”`)
    .min(least, `${name}: from ${least} to ${most} ${unit} — got \${value}`)
    .max(most, `${name}: from ${least} to ${most} ${unit} — got \${value}`);

export const standProfileSchema = object({
  motorKilowatts: figure('Motor', 0.1, 200, 'kW'),
  beltKilowatts: figure('Belt', 0.1, 200, 'kW'),
  fuseAmps: figure('Fuse', 5, 1000, 'A'),
  loadAmps: figure('Load', 5, 1000, 'A'),
  loadSeconds: figure('Load on', 1, 600, 's'),
  brakeNewtonMetres: figure('Brake', 1, 1000, 'Nm'),
  commanderHertz: figure('Commander', 1, 2000, 'Hz'),
  oscilloscopeKilohertz: figure('Oscilloscope', 0.1, 1e7, 'kHz'),
}).noUnknown('unknown field: ${unknown}');

export const rulesSchema = object({
  limits: array(mixed<School>().oneOf(names, 'no such school: ${value}').required())
    .required('Say which limits lead')
    .test(
      'each once',
      'Name each school once',
      (given) => new Set(given).size === names.length && given?.length === names.length,
    ),
  output: mixed<OutputSchool>()
    .oneOf(Object.keys(outputSchools) as OutputSchool[], 'no such way to read an output: ${value}')
    .required('Say how an output is read'),
}).noUnknown('unknown field: ${unknown}');
