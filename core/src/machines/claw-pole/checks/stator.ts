import { type Check, meterCheck } from '../../../checks/index.ts';
import { seriesOhms } from '../../../instruments/index.ts';
import { type Assembly, lead } from '../circuit.ts';
import { windingLeads } from '../parameters.ts';

function pairs(assembly: Assembly, species: string, suffix: string): Check[] {
  return Object.values(windingLeads).map((pair) =>
    meterCheck({
      species,
      place: pair,
      name: `Stator leads ${pair[0]} and ${pair[1]}${suffix}`,
      assembly,
      minutes: 0.3,
      setup: { function: 'ohms', red: lead(pair[0]!), black: lead(pair[1]!), held: 'lowest' },
      how: `Lowest ohms range; one probe on lead ${pair[0]}, the other on lead ${pair[1]}. More than the range shows is OL.`,
      tells: 'an open phase; shorted turns only with a meter fine enough',
    }),
  );
}

/** Volts over amps: what an ohmmeter can't tell, since neither leads nor contacts are in it. */
const drops = (): Check[] =>
  Object.values(windingLeads).map((pair) => {
    const [plus, minus] = [lead(pair[0]!), lead(pair[1]!)];
    return meterCheck({
      species: 'stator-drop',
      place: pair,
      name: `Stator leads ${pair[0]} and ${pair[1]} under 5 A, volts across`,
      assembly: 'opened',
      minutes: 1,
      setup: { function: 'drop', red: plus, black: minus, feed: { plus, minus, seriesOhms: seriesOhms.fiveAmps } },
      alike: 'stator drop',
      how: `Bench supply through ${seriesOhms.fiveAmps} Ω in series into lead ${pair[0]}, out of lead ${pair[1]}; the meter’s probes on the winding itself, inside the supply’s clips.`,
      tells: 'shorted turns that no ohmmeter of the shop shows: the three must be alike',
      cautions: ['The resistor gets hot: a few seconds.'],
    });
  });

export const statorPairs = (): Check[] => [
  ...pairs('opened', 'stator-pair', ', diodes joined'),
  ...drops(),
  ...pairs('unsoldered', 'stator-pair-free', ''),
];

const hotLead = 'Hot stator, hot iron: mind your fingers.';

export const statorToCore = (): Check[] => [
  meterCheck({
    species: 'stator-core',
    name: 'Stator to core, ohms',
    assembly: 'unsoldered',
    minutes: 0.4,
    setup: { function: 'ohms', red: lead('A'), black: 'case' },
    isolation: true,
    how: 'Red probe on any stator lead, black on bare iron of the core.',
    tells: 'a winding that touches its core',
    cautions: [hotLead],
  }),
  meterCheck({
    species: 'stator-core-lamp',
    name: 'Stator to core, test lamp',
    assembly: 'unsoldered',
    minutes: 0.4,
    setup: { function: 'lamp', red: lead('A'), black: 'case' },
    how: 'Lamp and battery between any stator lead and bare iron of the core.',
    tells: 'a hard short to the core, and no more',
  }),
  meterCheck({
    species: 'stator-core-insulation',
    name: 'Stator to core, 500 V tester',
    assembly: 'unsoldered',
    minutes: 1.5,
    setup: { function: 'insulation', red: lead('A'), black: 'case' },
    isolation: true,
    how: 'Tester between any stator lead and the core, one minute.',
    tells: 'leakage that an ohmmeter misses',
    cautions: ['500 V: stator unsoldered, regulator off, never across diodes. Discharge the winding afterwards.'],
  }),
];
