/** Speed of the machine's shaft from the engine's, by the pulleys' diameters in one unit; slip as a share lost. */
export function shaftSpeed(
  engineRpm: number,
  enginePulley: number,
  unitPulley: number,
  slip = 0,
): { ratio: number; rpm: number } {
  if (!(enginePulley > 0) || !(unitPulley > 0)) throw new RangeError('Both pulleys need a diameter above 0.');
  const ratio = enginePulley / unitPulley;
  return { ratio, rpm: engineRpm * ratio * (1 - slip) };
}
