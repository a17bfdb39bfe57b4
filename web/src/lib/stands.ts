/** Where a unit stands in the shop, in the order of work. */
export const stands = [
  { id: 'in', name: 'Checked in', empty: 'Nothing waits to be begun.' },
  { id: 'bench', name: 'On the bench', empty: 'The benches are free.' },
  { id: 'waiting', name: 'Waiting for parts or time', empty: 'Nothing waits.' },
  { id: 'ready', name: 'Ready', empty: 'Nothing to hand over.' },
  { id: 'gone', name: 'Gone', empty: 'Nothing has left yet.' },
] as const;

export type Stand = (typeof stands)[number]['id'];
export const standIds: readonly Stand[] = stands.map(({ id }) => id);
