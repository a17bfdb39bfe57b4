import { megohms, megohmsHow } from './megohms.ts';
import { type Check, meterCheck } from '../../../checks/index.ts';
import { seriesOhms } from '../../../instruments/index.ts';
import { type Assembly, leg } from '../circuit.ts';
import { type ClawPole, diodeName, diodePlaces, phases } from '../parameters.ts';

const upper = (text: string): string => text[0]!.toUpperCase() + text.slice(1);

/** Anode and cathode of a diode place, as nodes. */
const ends = (place: string): [string, string] =>
  place.endsWith('+') ? [leg(place[0]!), 'output'] : ['case', leg(place[0]!)];

const named: Readonly<Record<string, string>> = { output: 'output post', case: 'case', exciter: 'exciter terminal' };
const spoken = (node: string): string =>
  named[node] ?? (node === 'leg:N' ? 'star lead' : `phase lead ${node.slice(-1)}`);

/** Diode by diode, both ways and in ohms reversed, in one state of assembly. */
function diodes(machine: ClawPole, assembly: Assembly, prefix: string, suffix: string): Check[] {
  const places = diodePlaces(machine).filter((place) => assembly === 'unsoldered' || place[0] !== 'N');
  const cautions = assembly === 'unsoldered' ? ['Solder: fumes, ventilate. Mark the leads before they come off.'] : [];
  return places.flatMap((place) => {
    const [anode, cathode] = ends(place);
    const name = upper(diodeName(place));
    const common = { place, assembly, minutes: 0.3, cautions };
    return [
      meterCheck({
        ...common,
        species: `${prefix}-forward`,
        name: `${name} forward${suffix}`,
        setup: { function: 'diode', red: anode, black: cathode },
        how: `Red probe on the ${spoken(anode)}, black on the ${spoken(cathode)}.`,
        tells: assembly === 'unsoldered' ? 'this diode alone' : 'the three diodes of one side together',
      }),
      meterCheck({
        ...common,
        species: `${prefix}-reverse`,
        name: `${name} reversed${suffix}`,
        setup: { function: 'diode', red: cathode, black: anode },
        how: `Red probe on the ${spoken(cathode)}, black on the ${spoken(anode)}.`,
        tells: 'a short or a strong leak',
      }),
      meterCheck({
        ...common,
        species: `${prefix}-reverse-ohms`,
        name: `${name} reversed, ohms${suffix}`,
        setup: { function: 'ohms', red: cathode, black: anode, held: megohms },
        isolation: true,
        ...(assembly === 'unsoldered' ? {} : { alike: `joined reversed ${place.slice(-1)}` }),
        how: `Ohms, ${megohmsHow}; red probe on the ${spoken(cathode)}, black on the ${spoken(anode)}.`,
        tells: 'a leak that the diode test is blind to',
      }),
    ];
  });
}

export const diodesJoined = (machine: ClawPole): Check[] => diodes(machine, 'opened', 'joined', ', stator joined');
export const diodesAlone = (machine: ClawPole): Check[] => diodes(machine, 'unsoldered', 'diode', '');

/** Volts under the bench supply's current, its clips and the probes on the same two. */
const underCurrent = (
  anode: string,
  cathode: string,
  ohms: number,
  check: { species: string; place: string; name: string; tells: string; cautions: readonly string[] },
): Check =>
  meterCheck({
    ...check,
    assembly: 'opened',
    minutes: 1,
    setup: {
      function: 'volts',
      red: anode,
      black: cathode,
      feed: { plus: anode, minus: cathode, seriesOhms: ohms },
    },
    how: `Bench supply through ${ohms} Ω in series, plus on the ${spoken(anode)}, minus on the ${spoken(cathode)}; read the volts between the same two.`,
  });
const hotResistor = 'The resistor gets hot: a few seconds.';

/** About 5 A into a phase lead: an open diode's own lead stands out, if the stator's resistance lets it. */
export const diodesUnderCurrent = (machine: ClawPole): Check[] =>
  diodePlaces(machine)
    .filter((place) => place[0] !== 'N')
    .map((place) =>
      underCurrent(...ends(place), seriesOhms.fiveAmps, {
        species: 'current-drop',
        place,
        name: `${upper(diodeName(place))} under 5 A, stator joined`,
        tells: 'an open diode without the soldering iron',
        cautions: [hotResistor],
      }),
    );

export const exciterDiodes = (machine: ClawPole): Check[] =>
  machine.exciterDiodes
    ? phases.flatMap((phase) => {
        const common = { place: phase, assembly: 'opened' as const, minutes: 0.3 };
        return [
          meterCheck({
            ...common,
            species: 'exciter-forward',
            name: `Exciter diode ${phase} forward, stator joined`,
            setup: { function: 'diode', red: leg(phase), black: 'exciter' },
            how: `Red probe on phase lead ${phase}, black on the exciter terminal.`,
            tells: 'the three exciter diodes together',
          }),
          meterCheck({
            ...common,
            species: 'exciter-reverse',
            name: `Exciter diode ${phase} reversed, stator joined`,
            setup: { function: 'diode', red: 'exciter', black: leg(phase) },
            how: `Red probe on the exciter terminal, black on phase lead ${phase}.`,
            tells: 'a shorted exciter diode',
          }),
        ];
      })
    : [];

/**
 * A third of the field current, about what each carries at full field; a small diode needn't bear more. With one open its
 * siblings take over through the windings, and those drop more volts than a diode is off from its like.
 */
export const exciterUnderCurrent = (machine: ClawPole): Check[] =>
  machine.exciterDiodes
    ? phases.map((phase) =>
        underCurrent(leg(phase), 'exciter', seriesOhms.smallDiode, {
          species: 'exciter-drop',
          place: phase,
          name: `Exciter diode ${phase} under 1.7 A, stator joined`,
          tells: 'an open exciter diode without the soldering iron',
          cautions: [`Not through the resistor for 5 A: a small diode is not made for it. ${hotResistor}`],
        }),
      )
    : [];

export const exciterAlone = (machine: ClawPole): Check[] =>
  machine.exciterDiodes
    ? phases.map((phase) =>
        meterCheck({
          species: 'exciter-alone',
          place: phase,
          name: `Exciter diode ${phase} forward`,
          assembly: 'unsoldered',
          minutes: 0.3,
          setup: { function: 'diode', red: leg(phase), black: 'exciter' },
          how: `Red probe on phase lead ${phase} of the rectifier, black on the exciter terminal.`,
          tells: 'this exciter diode alone',
        }),
      )
    : [];
