import { type Check, findingCheck } from '../../../checks/index.ts';
import { swellShare } from '../../../curves/index.ts';
import { normalCdf } from '../../../numeric/index.ts';
import { dynamicsOf, starterFed } from '../motor.ts';
import type { Starter } from '../parameters.ts';
import { type freeSpin, runningOf, usualCelsius } from './free-spin.ts';

/** From this swell on, of the current, it is called one; the spread in ln of it [from memory]. */
const swell = { share: 0.025, sigma: 0.5 } as const;
/** Chance that a gap in the ripple is missed where one coil leaves it; less where several do [from memory]. */
const missedGap = 0.15;
/** Chance of either where nothing is wrong [from memory]. */
const least = 0.01;

type Running = Required<Pick<Check, 'run' | 'cautions'>>;

/** What a trace of the current shows that comes again with each turn of the armature. */
export function eachTurn(machine: Starter, spin: ReturnType<typeof freeSpin>, { run, cautions }: Running): Check {
  const running = runningOf(machine);
  return findingCheck({
    id: 'each-turn',
    name: 'No load: the current through each turn',
    assembly: 'clamped',
    minutes: 0.5,
    how: 'Clamp on the oscilloscope, some turns of steady running: do the bars’ ripples come alike, turn by turn?',
    tells: 'armature and commutator from drag and field, before it is opened',
    run,
    cautions,
    needs: 'oscilloscope',
    outcomes: [
      { id: 'alike', name: 'Every bar alike', word: 'sound' },
      {
        id: 'gap',
        name: 'The same bars miss each turn',
        word: 'failed',
        then: 'A coil shorted or open: growler, bar to bar.',
      },
      {
        id: 'swells',
        name: 'Swells once a turn',
        word: 'doubtful',
        then: 'Commutator out of round or dirty, or a bent shaft.',
      },
      { id: 'stands', name: 'It doesn’t run', word: 'failed', then: 'Whole and motor alone say why.' },
    ],
    turned: ({ gaps, swell: seen }) => (gaps > 0 ? 'gap' : seen >= swell.share ? 'swells' : 'alike'),
    chances: (faults) => {
      const { motor, source } = starterFed(machine, running(faults), usualCelsius);
      const stands = spin(faults, 'main')[2];
      const { deadCoils } = motor.turn;
      const gap = deadCoils > 0 ? 1 - missedGap / deadCoils : least;
      const share = swellShare(motor, source, dynamicsOf(machine));
      const swells = Math.max(normalCdf(Math.log(share / swell.share) / swell.sigma), least);
      const runs = [(1 - gap) * (1 - swells), gap, (1 - gap) * swells].map((chance) => (1 - stands) * chance);
      return [...runs, stands];
    },
  });
}
