import type { Complaint } from '../family.ts';

const complaint = (id: string, name: string, sound: number, factors: Complaint['factors']): Complaint => ({
  id,
  name,
  sound,
  charging: false,
  factors,
});

/** What brings a starter in. Factors and chances are from memory. */
export const starterComplaints: readonly Complaint[] = [
  complaint('slow-crank', 'Slow crank', 0.35, {
    'bushes-worn': 3,
    'brush-worn': 2,
    'commutator-dirty': 2,
    'contacts-burnt': 1.5,
    'magnets-weak': 2,
    'shaft-rubs': 3,
    'armature-turns': 2,
    'drive-slips': 0.3,
    'pinion-chipped': 0.3,
  }),
  complaint('click', 'Click, no crank', 0.35, {
    'contacts-burnt': 4,
    'brush-worn': 2,
    'field-open': 3,
    'hold-in-open': 3,
    'armature-open': 1.5,
    'drive-slips': 0.3,
    'pinion-chipped': 0.5,
  }),
  complaint('no-crank', 'No crank', 0.4, {
    'pull-in-open': 4,
    'hold-in-open': 2,
    'brush-worn': 2,
    'plunger-sticks': 2,
    'field-open': 2,
    'contacts-burnt': 2,
    'drive-slips': 0.3,
  }),
  complaint('spins', 'Spins without engaging', 0.1, {
    'drive-slips': 12,
    'fork-worn': 10,
    'pinion-chipped': 2,
    'plunger-sticks': 3,
  }),
  complaint('grinds', 'Grinds when cranking', 0.15, {
    'pinion-chipped': 12,
    'drive-slips': 3,
    'fork-worn': 4,
    'case-cracked': 4,
    'bushes-worn': 2,
    'gears-worn': 4,
  }),
  complaint('runs-on', 'Goes on turning', 0.15, {
    'contacts-welded': 40,
    'plunger-sticks': 10,
    'drive-seized': 6,
    'hold-in-turns': 2,
  }),
  complaint('smell', 'Burnt smell', 0.2, {
    'armature-turns': 4,
    'armature-core': 3,
    'field-turns': 3,
    'hold-in-turns': 4,
    'pull-in-turns': 4,
    'contacts-welded': 3,
    'terminals-burnt': 3,
  }),
  complaint('none', 'None: for stock', 0.35, {}),
];
