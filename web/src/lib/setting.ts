import type { Machine } from '@refectum/core/machines';
import { apply } from 'json-merge-patch';
import { type Job, vehicleOf } from './job.ts';

/** What describes a unit's bench, its prices and its vehicle. */
export type Setting = { -readonly [K in 'assembly' | 'meter' | 'celsius' | 'prices' | 'vehicle']: Job[K] };

/** A JSON Merge Patch (RFC 7396): what isn't named stays, null takes away. Two people's changes of one thing both hold. */
type Patch<T> = {
  readonly [K in keyof T]?: (NonNullable<T[K]> extends object ? Patch<NonNullable<T[K]>> : T[K]) | null;
};

export type SettingChange = Partial<Pick<Setting, 'assembly' | 'meter' | 'celsius'>> & {
  readonly prices?: Patch<Setting['prices']> | undefined;
  readonly vehicle?: Patch<NonNullable<Setting['vehicle']>> | undefined;
};

/** What somebody may change of a unit that is in. */
export type BenchChange = SettingChange & { readonly knownGood?: boolean | undefined };

/** What it is after a change; a vehicle that nobody described yet begins as the unit's plate tells of it. */
export function settingAfter(before: Setting, change: SettingChange, machine: Machine): Setting {
  const vehicle = change.vehicle ? vehicleOf({ machine, vehicle: before.vehicle }) : before.vehicle;
  return apply(structuredClone({ ...before, vehicle }), change) as Setting;
}
