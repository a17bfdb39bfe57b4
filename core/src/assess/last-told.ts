import type { Belief } from '../belief/index.ts';

/** What was told last on each belief: asked the same once more, it isn't thought through once more. */
export class LastTold<Told> {
  readonly #on = new WeakMap<Belief, { readonly asked: string; readonly told: Told }>();

  /** `asked`: all that the answer hangs on beside the belief, as one text. */
  get(belief: Belief, asked: string, think: () => Told): Told {
    const last = this.#on.get(belief);
    if (last?.asked === asked) return last.told;
    const told = think();
    this.#on.set(belief, { asked, told });
    return told;
  }
}
