import type { Belief, Case, Conditions, Particle, Prediction, View } from '../belief/index.ts';
import { standingParticles, viewOf } from '../belief/index.ts';
import type { Check } from '../checks/index.ts';
import type { Build } from '../machines/index.ts';
import type { Gaussian } from '../numeric/index.ts';

/** A hypothesis that still matters, with its share of the belief. */
export interface Member {
  readonly particle: Particle;
  readonly build: Build;
  readonly state: Gaussian;
  readonly weight: number;
}

const mostMembers = 100;

/** The heaviest hypotheses, reweighted to one: what the next outcome is foreseen from. */
export function ensembleOf(opened: Case, belief: Belief): Member[] {
  const heaviest = standingParticles(belief).slice(0, mostMembers);
  const total = heaviest.reduce((sum, m) => sum + m.weight, 0);
  return heaviest.map(({ particle, build, weight, state }) => ({
    particle: opened.particles[particle]!,
    build: opened.builds[build]!,
    state,
    weight: weight / total,
  }));
}

/** What each member expects of a check. */
export type Views = (members: readonly Member[], check: Check) => View[];

/** Views under given conditions; members that share state and prediction share the work, whenever they are asked. */
export function viewsUnder(opened: Case, conditions: Conditions): Views {
  const predictor = opened.predictor(conditions);
  const known = new Map<Gaussian, Map<Prediction, View>>();
  return (members, check) =>
    members.map(({ particle, build, state }) => {
      const prediction = predictor.predict(check, build, particle);
      let row = known.get(state);
      if (!row) known.set(state, (row = new Map()));
      let view = row.get(prediction);
      if (!view) row.set(prediction, (view = viewOf(prediction, state)));
      return view;
    });
}
