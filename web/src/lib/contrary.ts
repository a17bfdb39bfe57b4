import type { Diagnosis } from '@refectum/core/assess';

/** What the unit reads like, and how likely it isn't what it was checked in as; undefined where it may well be that. */
export function contraryBuild({
  builds,
}: Pick<Diagnosis, 'builds'>): { readonly name: string; readonly chance: number } | undefined {
  const contrary = builds.filter((build) => build.contrary);
  const chance = contrary.reduce((sum, build) => sum + build.chance, 0);
  if (chance < 0.5) return undefined;
  const { name } = contrary.reduce((best, build) => (build.chance > best.chance ? build : best));
  return { name, chance };
}
