import type { Network, Resistor } from '../../circuit/index.ts';
import { partOhms } from './motor.ts';
import { hasSolenoid, type Starter } from './parameters.ts';

export type StarterAssembly = 'clamped' | 'closed' | 'lead-off' | 'cover-off' | 'opened';

/** Resistances of insulation and of contacts that stand apart [from memory]. */
export const apartOhms = { contacts: 1e9, insulation: 5e7 } as const;

/**
 * The starter's circuit at rest. Closed: all joined, its contacts apart. Lead off: the motor's lead off the solenoid.
 * From the end cover off on: brushes lifted, so that armature and field hang on nothing but themselves.
 */
export function starterNetwork(machine: Starter, assembly: StarterAssembly): Network {
  const part = partOhms(machine);
  const lifted = assembly === 'cover-off' || assembly === 'opened';
  const winding = (name: string, a: string, b: string, ohms: number): Resistor => ({
    name,
    a,
    b,
    ohms,
    copper: true,
    spread: ['motor'],
  });
  const insulation = (name: string, a: string): Resistor => ({
    name,
    a,
    b: 'case',
    ohms: apartOhms.insulation,
    spread: [`insulation-${name}`],
  });
  const resistors: Resistor[] = [
    { name: 'contacts', a: 'main', b: 'motor', ohms: apartOhms.contacts, spread: ['insulation-contacts'] },
    insulation('main-case', 'main'),
    { name: 'hold-in', a: 'command', b: 'case', ohms: machine.holdInOhms, copper: true, spread: ['hold-in'] },
    winding('field', 'lead', 'field-end', part.field),
    insulation('field-case', 'field-end'),
    winding('armature', 'bar', 'bar-opposite', part.armature),
    { name: 'armature-core', a: 'bar', b: 'shaft', ohms: apartOhms.insulation, spread: ['insulation-armature-core'] },
    { name: 'bushes', a: 'shaft', b: 'case', ohms: 0.01 },
  ];
  if (hasSolenoid(machine))
    resistors.push({
      name: 'pull-in',
      a: 'command',
      b: 'motor',
      ohms: machine.pullInOhms,
      copper: true,
      spread: ['pull-in'],
    });
  if (assembly === 'closed' || assembly === 'clamped')
    resistors.push({ name: 'joint', a: 'motor', b: 'lead', ohms: part.joint, spread: ['contacts'] });
  if (!lifted)
    resistors.push(
      { name: 'brushes', a: 'field-end', b: 'bar', ohms: part.brushes / 2, spread: ['brushes'] },
      { name: 'ground-brushes', a: 'bar-opposite', b: 'case', ohms: part.brushes / 2, spread: ['brushes'] },
    );
  return { resistors, junctions: [] };
}
