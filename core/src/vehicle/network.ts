import { type Edit, type Emf, type JunctionLaw, type Network, type Resistor, saturationFor } from '../circuit/index.ts';
import { batteryOhmAmps, batteryPerKelvin } from '../handbook/index.ts';
import type { AssemblyState, Nuisance } from '../machines/index.ts';
import { sets, type Vehicle } from './vehicle.ts';

/** What the vehicle is doing while a reading is taken. */
export type Scene = 'parked' | 'driven' | 'cable-off' | 'pile' | 'idle' | 'raised' | 'loaded' | 'cranking';

/** In the order of work, with the minutes from one to the next [from memory]. */
export const scenes: readonly AssemblyState[] = [
  { id: 'driven', name: 'Just driven', minutes: 0 },
  { id: 'parked', name: 'Parked, key off', minutes: 2 },
  { id: 'cable-off', name: 'Output cable off', minutes: 3 },
  { id: 'pile', name: 'Under the load tester', minutes: 2 },
  { id: 'cranking', name: 'Cranking, not firing', minutes: 2 },
  { id: 'idle', name: 'Running at idle', minutes: 1 },
  { id: 'raised', name: 'Running at 2 000 rpm', minutes: 0.5 },
  { id: 'loaded', name: 'Running at 2 000 rpm, everything on', minutes: 1 },
];

/** A clamp round the battery's negative cable reads amps as volts over this piece of it. */
export const clampOhms = 2e-4;

/**
 * Values of a sound 12 V system [from memory]: rested volts 12.6, internal resistance 4.8 Ω per cold-cranking ampere
 * (8 mΩ at 600 A), charge cable with its joints 5 mΩ, ground path 2 mΩ, regulated 14.2 V.
 */
export const usual = {
  restedVolts: 12.6,
  matVolts: 0.2,
  /** Running, the plates have a layer of their own: more volts to push in, less stiffness. */
  chargeVolts: 0.7,
  chargeOhms: 0.05,
  surfaceVolts: 0.35,
  cableOhms: 5e-3,
  linkOhms: 1e-3,
  groundOhms: 1.5e-3,
  regulatedVolts: 14.2,
  loadAmps: { idle: 14, raised: 25 },
  /** Everything on, and the load tester: of the machine's amps. */
  loadedShare: 0.7,
  outputShare: { idle: 0.45, raised: 0.9, loaded: 0.9 },
  drainOhms: 500,
  unitLeakOhms: 1e6,
  starterCableOhms: 1.2e-3,
  /** Of a machine whose field carries nothing: what the iron has kept gives so much at its post, and no current to speak of. */
  residualVolts: 2,
} as const;

/** The regulator as a stiff junction that takes what the machine could give beyond the regulated volts; also what ends a
 * starter's pull where it stands. */
const limiterVolts = 0.1;
const limiter: JunctionLaw = { saturationAmps: saturationFor(limiterVolts, 50, 0.2), ideality: 0.2, seriesOhms: 1e-4 };
/** So high that the machine is a source of current, and a turning starter a sink. */
const openVolts = 2e4;

/** A field that carries nothing. */
export const fieldLost = (n: number): readonly Edit[] => [
  { element: 'machine-emf', set: usual.residualVolts * n },
  { element: 'output-limit', set: residualOhms },
];
const residualOhms = 1e3;

/** A starter while it cranks. */
export interface StarterAtWork {
  readonly contactOhms: number;
  /** All behind the contacts. */
  readonly ohms: number;
  /** What its engine asks of it while the battery can turn it at all. */
  readonly amps: number;
}

/** Battery, cables, loads, starter and machine as one network: node names as a technician has them. */
export function vehicleNetwork(vehicle: Vehicle, scene: Scene, starter: StarterAtWork): Network {
  const n = sets(vehicle);
  const resistors = [...battery(vehicle, scene), ...wiring(n, scene)];
  const emfs = [cells(vehicle, scene)];
  if (scene === 'pile') {
    const volts = 10.3 * n;
    resistors.push({ name: 'pile', a: 'battery+', b: 'battery-', ohms: volts / (vehicle.crankingAmps / 2) });
  }
  if (scene === 'cranking') {
    resistors.push(...turning(n, starter));
    // The engine's torque settles the amps; the volts left for it settle the speed, down to none.
    emfs.push({ name: 'pull', plus: 'case', minus: 'pulled', volts: openVolts, ohms: 1e-3 });
    const standstill = { name: 'standstill', anode: 'case', cathode: 'armature', law: limiter };
    return { resistors, emfs, junctions: [standstill] };
  }
  if (!running(scene)) return { resistors, junctions: [], emfs };
  const amps = vehicle.machineAmps * usual.outputShare[scene];
  const loadAmps = scene === 'loaded' ? usual.loadedShare * vehicle.machineAmps : usual.loadAmps[scene];
  resistors.push(
    {
      name: 'loads',
      a: 'battery+',
      b: 'star',
      ohms: (13.3 * n) / loadAmps,
      spread: scene === 'loaded' ? ['pile'] : ['loads'],
    },
    { name: 'output-limit', a: 'open-circuit', b: 'machine', ohms: openVolts / amps, spread: ['output'] },
    { name: 'feed', a: 'machine', b: 'post', ohms: clampOhms },
  );
  emfs.push(
    { name: 'machine-emf', plus: 'open-circuit', minus: 'case', volts: openVolts, ohms: 1e-3, spread: ['residual'] },
    {
      name: 'regulated',
      plus: 'regulator',
      minus: 'case',
      volts: usual.regulatedVolts * n - limiterVolts,
      ohms: 1e-4,
      spread: ['regulated'],
    },
  );
  return { resistors, emfs, junctions: [{ name: 'limiter', anode: 'machine', cathode: 'regulator', law: limiter }] };
}

const running = (scene: Scene): scene is 'idle' | 'raised' | 'loaded' =>
  scene === 'idle' || scene === 'raised' || scene === 'loaded';

function cells(vehicle: Vehicle, scene: Scene): Emf {
  const n = sets(vehicle);
  const kind = vehicle.battery === 'mat' ? usual.matVolts : 0;
  const more = scene === 'driven' ? usual.surfaceVolts : running(scene) ? usual.chargeVolts : 0;
  return {
    name: 'cells',
    plus: 'plates',
    minus: 'battery-',
    volts: (usual.restedVolts + kind + more) * n,
    ohms: 1e-5,
    spread: scene === 'driven' ? ['cells', 'surface'] : ['cells'],
  };
}

function battery(vehicle: Vehicle, scene: Scene): Resistor[] {
  const ohms =
    (batteryOhmAmps * sets(vehicle)) / vehicle.crankingAmps + (running(scene) ? usual.chargeOhms * sets(vehicle) : 0);
  return [{ name: 'battery', a: 'plates', b: 'battery+', ohms, perKelvin: batteryPerKelvin, spread: ['battery'] }];
}

function wiring(n: number, scene: Scene): Resistor[] {
  const cable =
    scene === 'cable-off'
      ? []
      : [{ name: 'charge-cable', a: 'post', b: 'link', ohms: usual.cableOhms, copper: true, spread: ['charge-cable'] }];
  return [
    ...cable,
    { name: 'fuse-link', a: 'link', b: 'battery+', ohms: usual.linkOhms },
    { name: 'ground-path', a: 'case', b: 'star', ohms: usual.groundOhms, spread: ['ground-path'] },
    { name: 'clamp', a: 'battery-', b: 'star', ohms: clampOhms },
    { name: 'drain', a: 'battery+', b: 'star', ohms: usual.drainOhms * n, spread: ['drain'] },
    { name: 'unit-leak', a: 'post', b: 'case', ohms: usual.unitLeakOhms },
  ];
}

const turning = (n: number, { contactOhms, ohms, amps }: StarterAtWork): Resistor[] => [
  { name: 'starter-cable', a: 'battery+', b: 'solenoid', ohms: usual.starterCableOhms * n },
  { name: 'contacts', a: 'solenoid', b: 'motor', ohms: contactOhms },
  { name: 'starter', a: 'motor', b: 'armature', ohms, copper: true, spread: ['starter'] },
  { name: 'starter-pull', a: 'armature', b: 'pulled', ohms: openVolts / amps, spread: ['engine'] },
];

/** What is uncertain of a sound vehicle: relative for resistances, volts for EMFs [from memory]. */
export const vehicleNuisances = (vehicle: Vehicle): readonly Nuisance[] => {
  const n = sets(vehicle);
  return [
    { name: 'celsius', sigma: 5 },
    { name: 'cells', sigma: 0.08 * n },
    { name: 'surface', sigma: 0.25 * n },
    { name: 'battery', sigma: 0.25 },
    { name: 'charge-cable', sigma: 0.4 },
    { name: 'ground-path', sigma: 0.5 },
    { name: 'drain', sigma: 0.4 },
    { name: 'loads', sigma: 0.35 },
    // The load is set by the clamp.
    { name: 'pile', sigma: 0.07 },
    { name: 'output', sigma: 0.15 },
    { name: 'regulated', sigma: 0.22 * n },
    { name: 'residual', sigma: 1 * n },
    { name: 'starter', sigma: 0.2 },
    // What an engine asks, known by its litres or by its starter alone.
    { name: 'engine', sigma: vehicle.engineLitres === undefined ? 0.3 : 0.2 },
  ];
};
