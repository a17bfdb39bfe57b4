/** What isn't known of the machine's build is itself a hypothesis: one of these is true. */
export interface Build {
  readonly id: string;
  readonly name: string;
  readonly prior: number;
  /** The prior while the unit is taken for one of its kind, where it differs: 0 for a build that isn't weighed until then. */
  readonly priorAsItsKind?: number;
  /** The variant of the model it belongs to, when the unit may be one of several. */
  readonly variant?: string | undefined;
  /** Of a unit that differs more from its kind than the family says. */
  readonly strewn?: Strewn;
  /** Contradicts what was checked in, as no variant of the model does. */
  readonly contrary?: true;
}

/** How a unit differs more from its kind than the family says: so many times, in all or in some things alone. */
export interface Strewn {
  readonly times: number;
  readonly apart?: StrewnApart | undefined;
  /** The build, as its kind is, that it is else. */
  readonly like: string;
}

/** Uncertainties in which alone some units differ from their kind; `leak` stands for `leak:A+` too. */
export interface StrewnApart {
  readonly name: string;
  readonly nuisances: readonly string[];
  /** Species of the faults that a sound unit is then taken for. */
  readonly takenFor: readonly string[];
}

/** Known as well of a unit that is unlike its kind: it is what was typed that is off, not the unit. */
const notStrewn: readonly string[] = ['celsius'];

/** How many times wider an uncertainty is on a build than its family says. */
export function timesWider({ strewn }: Build, nuisance: string): number {
  const [of] = nuisance.split(':') as [string];
  const isWider = strewn?.apart ? strewn.apart.nuisances.includes(of) : !notStrewn.includes(of);
  return strewn && isWider ? strewn.times : 1;
}

/** What a build and the same strewn wider have in common: the id of the former. */
export const kinOf = ({ id, strewn }: Build): string => strewn?.like ?? id;

/** The same model built otherwise: another stator, another rotor. */
export interface Variant<M> {
  readonly name: string;
  readonly machine: M;
}
