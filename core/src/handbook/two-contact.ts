/** What a two-contact regulator's two steps say of it. */
export type TwoContactFinding =
  | 'holds'
  | 'spring too tight'
  | 'spring too slack'
  | 'step too small'
  | 'step too large'
  | 'upper fuse wire'
  | 'lower fuse wire';

/**
 * One design's numbers; the model's own win [common practice, no source]: step 1 at 1,250 engine rpm and 15 A on the
 * lower contacts, step 2 at 2,200 rpm and 7 A on the upper ones, 0.2 to 0.7 V above step 1.
 */
export const twoContactSteps = {
  first: { engineRpm: 1250, amps: 15 },
  second: { engineRpm: 2200, amps: 7, least: 0.2, most: 0.7 },
} as const;

/** Engine speed to rotor speed [common practice, no source: twice]. */
export const usualRatio = 2;

/** What follows for the hand that holds the screwdriver. */
export const twoContactSays: Readonly<Record<TwoContactFinding, string>> = {
  holds: 'Both steps hold: nothing to adjust.',
  'spring too tight': 'Step 1 too high: the spring’s tension is too high, bend its hanger to slacken it.',
  'spring too slack': 'Step 1 too low: the spring’s tension is too low, bend its hanger to tighten it.',
  'step too small': 'Step 2 less than 0.2 V above step 1: contact points or air gap.',
  'step too large': 'Step 2 more than 0.7 V above step 1: contact points or air gap.',
  'upper fuse wire': 'No output in step 1: the upper fuse wire is burnt, if the machine itself charges when bypassed.',
  'lower fuse wire': 'Runs away in step 2: the lower fuse wire is open. Off at once.',
};

/**
 * What a regulator may hold, V at 25 °C on 12 V sets [common practice, no source: 13.8 to 14.5]; less when warm, by so
 * many volts a kelvin [from memory: 7 to 12 mV].
 */
export const setPoint = { least: 13.8, most: 14.5, perKelvin: -0.01, celsius: 25 } as const;
/** Up to here a battery alone stands; above the other batteries gas, V on 12 V sets [common practice, no source]. */
export const batteryAlone = 12.9;
export const gassing = 15;

/**
 * Reads the two steps of a two-contact regulator, in V, taken after warming up and cycling, its cover on; `celsius` near
 * the cover.
 */
export function twoContact(first: number, second: number, celsius: number, ratedVolts: 12 | 24): TwoContactFinding[] {
  const sets = ratedVolts / 12;
  const [low, high] = [first / sets, second / sets];
  const shift = setPoint.perKelvin * (celsius - setPoint.celsius);
  if (low <= batteryAlone) return ['upper fuse wire'];
  if (high > gassing + shift + twoContactSteps.second.most) return ['lower fuse wire'];
  const found: TwoContactFinding[] = [];
  if (low > setPoint.most + shift) found.push('spring too tight');
  if (low < setPoint.least + shift) found.push('spring too slack');
  // A hundredth for what two decimals round away.
  if (high - low < twoContactSteps.second.least - 0.01) found.push('step too small');
  if (high - low > twoContactSteps.second.most + 0.01) found.push('step too large');
  return found.length ? found : ['holds'];
}
