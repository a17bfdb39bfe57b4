import { type Build, kinOf, type Strewn, type StrewnApart, timesWider, type Variant } from './build.ts';
import type { Family, Runner, Subject } from './family.ts';

/** Where a model has variants: chance that the unit is built as it was checked in [from memory]. */
const asCheckedIn = 0.8;

/**
 * Some units are strewn so many times wider than a family says [our estimate], in all or in some things alone, one as
 * often as another: other makes of the same type, earlier repairs, parts of several batches. Readings that surprise by
 * small steps raise them. The first stands for all until a unit may be any (`Scope`).
 */
const [wide, slight] = [2.5, 1.6];
/** The share of all of them where nothing is known of the shop's own [our estimate]. */
export const usualUnlikeShare = 0.05;
/** Chance that the build isn't what was checked in [our estimate]. */
const contraryShare = 0.02;

/** Each build as the family says, and strewn wider. */
function withStrewn(builds: readonly Build[], share: number, alone: readonly StrewnApart[]): Build[] {
  const ways = [{ times: wide }, { times: slight }, ...alone.map((apart) => ({ times: wide, apart }))];
  return [
    ...builds.map((build) => ({ ...build, prior: build.prior * (1 - share) })),
    ...ways.flatMap((way: Omit<Strewn, 'like'>, n) =>
      builds.map((build) => ({
        ...build,
        id: `${build.id}, ${way.apart?.name ?? 'all'} strewn ${way.times} times`,
        name: `${build.name}, unlike its kind`,
        prior: (build.prior * share) / ways.length,
        priorAsItsKind: n === 0 ? build.prior * share : 0,
        strewn: { ...way, like: build.id },
      })),
    ),
  ];
}

/**
 * A family applied to one machine. `variants`: what else it may be; one whose parts or checks are others can't be
 * weighed against it and is left out. `unlikeShare`: of units unlike their kind, between 0 and 1.
 */
export function apply<M>(
  family: Family<M>,
  machine: M,
  variants: readonly Variant<M>[] = [],
  unlikeShare = usualUnlikeShare,
): Subject {
  const likes = variants.filter((variant) => comparable(family, machine, variant.machine));
  const own = new Map<string, M>();
  const buildsOf = (of: M, share: number, variant?: string, all = family.builds(of)): Build[] =>
    all.map((build) => {
      const id = variant === undefined ? build.id : `${variant}: ${build.id}`;
      own.set(id, of);
      const name = variant === undefined ? build.name : `${variant}, ${build.name}`;
      return { ...build, id, name, variant, prior: build.prior * share };
    });
  const builds = [
    ...buildsOf(machine, likes.length ? asCheckedIn : 1),
    ...likes.flatMap(({ name, machine: of }) => buildsOf(of, (1 - asCheckedIn) / likes.length, name)),
  ];
  const contrary = buildsOf(machine, contraryShare, undefined, family.contrary?.(machine) ?? []).map(
    (build): Build => ({ ...build, priorAsItsKind: 0, contrary: true }),
  );
  const machineOf = (build: Build): M => own.get(kinOf(build))!;
  const runners = new Map<M, Runner>();
  const runnerOf = (of: M): Runner => {
    const known = runners.get(of) ?? family.runner(of);
    runners.set(of, known);
    return known;
  };
  return {
    ...fixedOf(family, machine),
    builds: [...withStrewn(builds, unlikeShare, family.strewnApart ?? []), ...contrary],
    network: (build, assembly) => family.network(machineOf(build), build, assembly),
    run: (build, setup, faults) => runnerOf(machineOf(build))(build, setup, faults),
    shows: (build, setup, faults, off) => family.shows(machineOf(build))(build, setup, faults, off),
    spin:
      family.generates &&
      ((build, stand, faults, off) => family.generates!.spin(machineOf(build))(build, stand, faults, off)),
    nuisances: (build) =>
      family.nuisances(machineOf(build), build).map((one) => {
        return { ...one, sigma: one.sigma * timesWider(build, one.name) };
      }),
  };
}

/** Whether two machines have the same parts, faults and checks. */
function comparable<M>(family: Family<M>, a: M, b: M): boolean {
  const shape = (m: M) => JSON.stringify([family.faults(m), family.checks(m)].map((all) => all.map(({ id }) => id)));
  return shape(a) === shape(b);
}

const fixedOf = <M>(
  family: Family<M>,
  machine: M,
): Omit<Subject, 'builds' | 'network' | 'run' | 'shows' | 'spin' | 'nuisances'> => ({
  name: family.name,
  complaints: family.complaints,
  assemblies: family.assemblies,
  symmetries: family.symmetries,
  standRules: family.standRules,
  runsPairs: family.runsPairs,
  parts: family.parts(machine),
  items: family.items(machine),
  windings: family.windings,
  strewnApart: family.strewnApart,
  faults: family.faults(machine),
  checks: family.checks(machine),
  outputCheck: family.generates && ((at) => family.generates!.outputCheck(machine, at)),
  wrongVerdictMinutes: family.wrongVerdictMinutes,
  chain: family.chain,
  stops: {
    done: family.done,
    idle: family.idle,
  },
});
