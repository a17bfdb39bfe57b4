import { copperOhms, type Settled, Turning } from '../../circuit/index.ts';
import type { OutputModel } from '../../curves/index.ts';
import type { PriorParameter } from '../../numeric/index.ts';
import { ordersOf } from '../../waveform/index.ts';
import { heldAt, type OutputShape, type RunningFault } from '../family.ts';
import type { ClawPoleBuild } from './builds.ts';
import { usual } from './circuit.ts';
import type { ClawPole } from './parameters.ts';
import { clawPoleTurning, excitationOf, fluxShare, regulatorDrop } from './running.ts';

/** Coarser steps than a trace needs, and a prime number: smooth where a curve is fitted through runs. */
const steps = 97;
const settledShare = 1e-3;
/** Of windings whose temperature nobody took, °C [from memory]. */
const usualCelsius = 60;
/** What the plate leaves open of flux, inductance and stator resistance, how much iron saturates and poles damp [from memory]. */
const spreads = { flux: 0.15, inductance: 0.2, stator: 0.3, saturation: 0.4, damping: 0.14 } as const;
/** Poles that don't damp at all leave the whole inductance. */
const mostDamping = 0.99;

/** Shapes that tell something; which diode or phase it is changes nothing. */
export const clawPoleShapes: readonly OutputShape[] = [
  { name: 'a sound machine' },
  { name: 'one diode open', fault: { id: 'diode-open:A+', severity: 1 } },
  { name: 'a diode shorted', fault: { id: 'diode-shorted:A+', severity: 0.05 } },
  { name: 'a phase lost', fault: { id: 'stator-open:A', severity: 1 } },
  { name: 'shorted turns', fault: { id: 'stator-turns:A', severity: 0.2 } },
];

/**
 * The output of one machine at full field by its own regulator, by ln of flux, inductance and stator resistance over
 * what its plate says, of saturation over the usual, and of subtransient over synchronous inductance over the usual.
 * `measured`: what readings at rest say of that resistance.
 */
export function clawPoleOutput(
  machine: ClawPole,
  build: ClawPoleBuild,
  faults: readonly RunningFault[] = [],
  measured?: PriorParameter,
): OutputModel {
  const plate = excitationOf(machine, build);
  /** Where the last run at a speed ended: the next there is near it. */
  const settledAt = new Map<number, Settled>();
  const amps: OutputModel['amps'] = (
    { rpm, volts, celsius = usualCelsius },
    [flux, henries, ohms, saturates, damps],
  ) => {
    const rotorShare = machine.rotorOhms / (copperOhms(machine.rotorOhms, celsius) + 2 * usual.brushOhms);
    const field = (rotorShare * (volts - regulatorDrop)) / (plate.fullAmps * machine.rotorOhms);
    const network = clawPoleTurning(
      { ...machine, statorPairOhms: machine.statorPairOhms * Math.exp(ohms!) },
      build,
      faults,
      { rpm, ...heldAt(volts) },
      {
        ...plate,
        fluxWebers: plate.fluxWebers * Math.exp(flux!) * fluxShare(field, Math.exp(saturates!)),
        henries: plate.henries * Math.exp(henries!),
        damping: Math.min(plate.damping * Math.exp(damps!), mostDamping),
      },
    );
    const turning = new Turning(network, 'case', { windings: celsius, diodes: celsius });
    const electricalHertz = (rpm * plate.polePairs) / 60;
    const draws = [{ from: 'output', to: 'case', amps: field * plate.fullAmps }];
    const from = settledAt.get(rpm);
    const period = turning.steady({ electricalHertz, draws, stepsPerPeriod: steps, settledShare, from });
    settledAt.set(rpm, period.settled);
    return Math.max(ordersOf(period.amps('cable')).mean, 0);
  };
  return {
    // Flux, inductance, stator resistance, saturation, damping.
    priors: [
      { mean: 0, sigma: spreads.flux },
      { mean: 0, sigma: spreads.inductance },
      priorOf(spreads.stator, measured),
      { mean: 0, sigma: spreads.saturation },
      { mean: 0, sigma: spreads.damping },
    ],
    amps,
  };
}

/** A plate's word that leaves `sigma` open, together with what was measured. */
function priorOf(sigma: number, measured: PriorParameter | undefined): PriorParameter {
  if (!measured) return { mean: 0, sigma };
  const precision = sigma ** -2 + measured.sigma ** -2;
  return { mean: measured.mean / measured.sigma ** 2 / precision, sigma: precision ** -0.5 };
}
