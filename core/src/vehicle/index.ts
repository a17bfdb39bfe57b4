export {
  type DrainEntry,
  type DrainLog,
  type DrainShare,
  type DrainStep,
  mostAsleep,
  outputCable,
  readDrainLog,
  sleepMinutes,
} from './drain-log.ts';
export { places } from './faults.ts';
export { type Scene, scenes, type StarterAtWork, vehicleNetwork } from './network.ts';
export { vehicleSubject } from './subject.ts';
export { type Caught, caught, type WrongWay, wrongWays } from './wrong-ways.ts';
export { type Fuel, type Vehicle, vehicleGeneric, type VehicleNumber, vehicleNumbers } from './vehicle.ts';
export {
  type Crank,
  type Cranked,
  crankRules,
  crankRun,
  type CrankWord,
  crankWord,
  engineOf,
  engineTorque,
  starterAtWork,
} from './cranking.ts';
