export { shaftSpeed } from './belt.ts';
export {
  batteryOhmAmps,
  batteryPerKelvin,
  type Cells,
  cellsOf,
  type Chemistry,
  hoursToHalf,
  leastForLoadTest,
  loadTestLimit,
  type LoadTestLimit,
  stateOfCharge,
} from './battery.ts';
export { type BrushLeft, brushLeft } from './brush.ts';
export { driveWatts, mostAmps, type StandLimiter, standLimit, type StandProfile, usualEfficiency } from './drive.ts';
export { awgSquare, cableDrop, type CableDrop, dropAtRated, type Gauge, metricGauges } from './cable.ts';
export { commandedVolts, leastFollowed } from './commanded.ts';
export {
  batteryAlone,
  gassing,
  setPoint,
  twoContact,
  type TwoContactFinding,
  twoContactSays,
  twoContactSteps,
  usualRatio,
} from './two-contact.ts';
export { type HeatRun, heatLeft, starterRestMinutes } from './motor-heat.ts';
