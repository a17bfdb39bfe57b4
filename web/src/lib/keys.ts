/** Every key, as `?` lists it. None is a letter that a reading may hold. */
export const keys: readonly { readonly key: string; readonly does: string }[] = [
  { key: '0–9', does: 'type the reading, from anywhere on the bench' },
  { key: 'Enter', does: 'record the reading' },
  { key: '*', does: 'over-range (OL)' },
  { key: '=', does: 'same leads as before: take their null over' },
  { key: 'h', does: 'hands free: the meter at a port is taken from, once it is steady' },
  { key: 'space', does: 'pedal, hands free: take what the meter shows now, an open too' },
  { key: 'i', does: 'run stand: take the point from the instruments; starter bench: feed it and read' },
  { key: 's, d', does: 'run stand: the speed to turn at, the amps to draw' },
  { key: 'Esc', does: 'run stand, starter bench: load, drive and battery off, from anywhere' },
  { key: 'p', does: 'simulated bench: the probes where the drawing has them' },
  { key: 'x', does: 'other leads are in the meter: hold them together first' },
  { key: 't, n', does: 'typed as the reading: changes when touched, not accessible' },
  { key: '+', does: 'next check: put this one aside' },
  { key: 'a', does: 'take again what asks for it, or the newest' },
  { key: 'Delete', does: 'take back: strike out the newest reading' },
  { key: '↑ ↓', does: 'another check from the list' },
  { key: 'v', does: 'stop here: verdict sheet' },
  { key: 'b', does: 'back to the bench' },
  { key: 'w', does: 'who works here: somebody else signs in' },
  { key: '/', does: 'find a tag' },
  { key: '?', does: 'all keys' },
];

/** Whether letters act as keys on this screen; some people turn them off. */
const setting = 'refectum-keys-off';
export const keysOn = (): boolean => localStorage.getItem(setting) !== '1';
export const switchKeys = (on: boolean): void => localStorage.setItem(setting, on ? '0' : '1');

/** Whether a key may act on its own: nobody types elsewhere, and the reading's field is empty. */
export const isFree = (event: KeyboardEvent): boolean => {
  const target = event.target as HTMLInputElement;
  return !inField(event) || (target.dataset.keys === 'open' && target.value === '');
};

/** Whether a key was meant for a field that takes text. */
export const inField = (event: KeyboardEvent): boolean =>
  event.target instanceof HTMLElement && event.target.closest('input, textarea, select, [contenteditable]') !== null;
