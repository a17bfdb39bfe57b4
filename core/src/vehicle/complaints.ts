import type { Complaint, OnVehicle } from '../machines/index.ts';

/** How much likelier a complaint makes each fault beside the unit [from memory]. */
const besideFactors: Readonly<Record<string, Readonly<Record<string, number>>>> = {
  'no-charge': { 'excitation-lost': 5, 'fuse-blown': 5, 'charge-cable': 2, 'belt-slip': 2, 'sense-bad': 0.5 },
  'charge-lamp': { 'excitation-lost': 1, 'fuse-blown': 4, 'belt-slip': 4, 'charge-cable': 2 },
  'low-charge': { 'charge-cable': 4, 'ground-path': 3, 'belt-slip': 4, 'battery-worn': 2, 'fuse-blown': 0.3 },
  overcharge: { 'sense-bad': 20, 'ground-path': 3, 'battery-cell': 4, 'battery-flat': 0.2, 'fuse-blown': 0.3 },
  'drains-overnight': { 'body-drain': 15, 'battery-worn': 4, 'battery-cell': 4, 'battery-sulphated': 3 },
  whine: { 'belt-slip': 6 },
  growl: { 'belt-slip': 1 },
  smell: { 'sense-bad': 4, 'belt-slip': 4, 'battery-cell': 4 },
  'slow-crank': {
    'battery-flat': 4,
    'battery-worn': 6,
    'starter-cable': 8,
    'ground-path': 3,
    'starter-drag': 8,
    'engine-tight': 8,
  },
  click: {
    'battery-flat': 5,
    'engine-tight': 3,
    'battery-worn': 3,
    'contacts-burnt': 10,
    'starter-cable': 5,
    'ground-path': 2,
  },
  spins: { 'starter-drive': 60, 'battery-flat': 0.5 },
  grinds: { 'starter-drive': 60, 'battery-flat': 1.5 },
  'no-crank': { 'no-command': 20, 'engine-tight': 2, 'starter-open': 10, 'battery-flat': 4, 'contacts-burnt': 6 },
  none: {},
};

/** Starting faults don't bring a charging complaint in. */
const startingOnly = [
  'starter-cable',
  'contacts-burnt',
  'starter-drag',
  'starter-open',
  'starter-drive',
  'engine-tight',
  'no-command',
];
const startingComplaints = ['slow-crank', 'click', 'no-crank', 'spins', 'grinds', 'none'];
const unlikely = 0.1;

/** The chance that nothing at all is wrong, though somebody complained [from memory]. */
const nothingWrong = 0.03;
const nothingWrongForStock = 0.3;

/** A unit's complaint as the whole vehicle hears it: `rows` are the unit's faults as the vehicle knows them. */
export function vehicleComplaint(complaint: Complaint, rows: readonly OnVehicle[]): Complaint {
  const own = rows.map(({ id, species }): [string, number] => [id, complaint.factors[species] ?? 1]);
  const starting = startingComplaints.includes(complaint.id) ? [] : startingOnly.map((id) => [id, unlikely] as const);
  const known = new Set(own.map(([id]) => id));
  const beside = Object.entries(besideFactors[complaint.id] ?? {}).filter(([id]) => !known.has(id));
  return {
    ...complaint,
    sound: complaint.id === 'none' ? nothingWrongForStock : nothingWrong,
    factors: Object.fromEntries([...starting, ...own, ...beside]),
  };
}
