import { array, number, object, string } from 'yup';

const positive = (name: string) =>
  number()
    .typeError(`${name} must be a number`)
    .required(`${name} is missing`)
    .moreThan(0, `${name} must be above 0 — got \${value}`);
const share = (name: string) =>
  number().typeError(`${name} must be a number`).required(`${name} is missing`).min(0, `${name} can’t be below 0`);

const range = {
  fullScale: positive('Full scale'),
  step: positive('Smallest step'),
  percent: share('Accuracy in percent').max(50, 'Accuracy worse than 50 % is none — got ${value}'),
  counts: share('Accuracy in steps').max(1000, 'More than 1000 steps is no accuracy — got ${value}'),
};
const source = { sourceVolts: positive('Open volts'), sourceOhms: positive('Source resistance') };

const stepsFit = (ranges: readonly { fullScale: number; step: number }[] | undefined) =>
  (ranges ?? []).every(({ fullScale, step }) => step <= fullScale / 50);
const ascending = (ranges: readonly { fullScale: number }[] | undefined) =>
  (ranges ?? []).every(({ fullScale }, i, all) => i === 0 || fullScale > all[i - 1]!.fullScale);
const ranges = <T extends Parameters<typeof object>[0]>(name: string, more: T) =>
  array(object({ ...range, ...more }).noUnknown('unknown field: ${unknown}'))
    .required(`${name} are missing`)
    .min(1, `${name}: at least one is needed`)
    .max(12, `${name}: at most twelve`)
    .test('order', `${name} must go from the lowest full scale up`, ascending as never)
    .test('steps', `${name}: a smallest step above a fiftieth of full scale is no meter’s`, stepsFit as never);

/** A meter as it is described: in a job file, and in the shop's own list. */
export const multimeterSchema = object({
  id: string().required('a meter needs an id').max(60),
  name: string().trim().required('What is it called in the shop?').max(40, 'at most 40 characters'),
  description: string().trim().max(120, 'at most 120 characters').defined(),
  diode: object({ ...range, ...source }).noUnknown('unknown field: ${unknown}'),
  ohms: ranges('Ohms ranges', source),
  volts: ranges('Volts ranges', {}),
  voltsInputOhms: positive('Input resistance on volts'),
  bandwidthHertz: positive('Bandwidth'),
  leadOhms: share('Leads').max(20, 'Leads of more than 20 Ω are broken — got ${value}'),
  leadOhmsSigma: positive('Spread of the leads'),
}).noUnknown('unknown field: ${unknown}');
