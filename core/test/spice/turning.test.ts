import { expect } from 'chai';
import { runTurning } from './turning-deck.ts';
import { decked, runOurs, turningUnits } from './turning-units.ts';

describe('a running alternator against ngspice, a deck written by hand', () => {
  for (const [name, [hidden, run]] of Object.entries(turningUnits)) {
    for (const rpm of [1800, 3000, 6000]) {
      it(`${name}, ${rpm} rpm: mean amps within 1 %, ripple within 3 %`, () => {
        const spice = runTurning(decked(rpm, run));
        const found = runOurs(rpm, hidden);
        expect(found.mean).closeTo(spice.mean, 0.01 * spice.mean);
        expect(found.ripple).closeTo(spice.ripple, 0.03 * spice.ripple);
        expect(found.tap).closeTo(spice.tap, 0.01);
      });
    }
  }
});
