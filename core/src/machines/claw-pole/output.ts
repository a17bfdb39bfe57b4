import { copperOhms, Turning } from '../../circuit/index.ts';
import type { OutputModel } from '../../curves/index.ts';
import { ordersOf } from '../../waveform/index.ts';
import { heldAt, type OutputShape, type RunningFault } from '../family.ts';
import type { ClawPoleBuild } from './builds.ts';
import { usual } from './circuit.ts';
import type { ClawPole } from './parameters.ts';
import { clawPoleTurning, excitationOf, fluxShare } from './running.ts';

/** Coarser steps than a trace needs, and a prime number: smooth where a curve is fitted through runs. */
const steps = 97;
/** Of windings whose temperature nobody took, °C [from memory]. */
const usualCelsius = 60;
/** What the plate leaves open of flux and inductance, and how much iron saturates [from memory]. */
const spreads = { flux: 0.15, inductance: 0.2, saturation: 0.4 } as const;

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
 * what its plate says, and of saturation over the usual. `statorSigma`: how well the resistance is known, relative.
 */
export function clawPoleOutput(
  machine: ClawPole,
  build: ClawPoleBuild,
  faults: readonly RunningFault[] = [],
  statorSigma = 0.3,
): OutputModel {
  const plate = excitationOf(machine, build);
  const amps: OutputModel['amps'] = ({ rpm, volts, celsius = usualCelsius }, [flux, henries, ohms, saturates]) => {
    const rotorShare = machine.rotorOhms / (copperOhms(machine.rotorOhms, celsius) + 2 * usual.brushOhms);
    const field = (rotorShare * volts) / (plate.fullAmps * machine.rotorOhms);
    const network = clawPoleTurning(
      { ...machine, statorPairOhms: machine.statorPairOhms * Math.exp(ohms!) },
      build,
      faults,
      { rpm, ...heldAt(volts) },
      {
        ...plate,
        fluxWebers: plate.fluxWebers * Math.exp(flux!) * fluxShare(field, Math.exp(saturates!)),
        henries: plate.henries * Math.exp(henries!),
      },
    );
    const turning = new Turning(network, 'case', { windings: celsius, diodes: celsius });
    const electricalHertz = (rpm * plate.polePairs) / 60;
    const draws = [{ from: 'output', to: 'case', amps: field * plate.fullAmps }];
    return Math.max(ordersOf(turning.steady({ electricalHertz, draws, stepsPerPeriod: steps }).amps('cable')).mean, 0);
  };
  return {
    // Flux, inductance, stator resistance, saturation.
    priors: [
      { mean: 0, sigma: spreads.flux },
      { mean: 0, sigma: spreads.inductance },
      { mean: 0, sigma: statorSigma },
      { mean: 0, sigma: spreads.saturation },
    ],
    amps,
  };
}
