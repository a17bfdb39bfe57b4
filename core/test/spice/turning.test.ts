import { expect } from 'chai';
import { tellingOrders } from '../../src/waveform/index.ts';
import { runTurning } from './turning-deck.ts';
import { decked, runOurs, turningUnits } from './turning-units.ts';

describe('a running alternator against ngspice, a deck written by hand', () => {
  for (const [name, [hidden, run]] of Object.entries(turningUnits)) {
    for (const rpm of [1800, 3000, 6000]) {
      it(`${name}, ${rpm} rpm: mean amps within 1 %, ripple within 3 %, orders too`, () => {
        const spice = runTurning(decked(rpm, run));
        const found = runOurs(rpm, hidden);
        expect(found.mean).closeTo(spice.mean, 0.01 * spice.mean);
        expect(found.ripple).closeTo(spice.ripple, 0.03 * spice.ripple);
        // Orders that tell a pattern, in shares of all that alternates. Farthest off is a leak of 5 Ω at 3,000 rpm, whose
        // ripple is a few amperes: 0.054, less with finer steps (0.037 with twice as many).
        for (const order of tellingOrders)
          expect(found.rms[order - 1]! / found.ripple, `order ${order}`).closeTo(
            spice.rms[order - 1]! / spice.ripple,
            0.06,
          );
        expect(found.tap).closeTo(spice.tap, 0.01);
      });
    }
  }
});
