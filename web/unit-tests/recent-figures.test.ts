import { expect } from 'chai';
import { RecentFigures } from '../src/lib/live/recent-figures.ts';
import type { LiveWord } from '../src/lib/instruments.ts';

/** A clamp read every so many milliseconds, on a clock of its own. */
class ClampRead {
  milliseconds = 0;
  readonly recent = new RecentFigures(() => this.milliseconds);
  read(amps: number, times: number, every = 50): this {
    for (let n = 0; n < times; n++) {
      this.milliseconds += every;
      const word: LiveWord = { state: 'reads', instrument: 'clamp', at: this.milliseconds, kind: 'clamp', amps };
      this.recent.hear(word);
    }
    return this;
  }
}

describe('what the stand’s instruments read just now', () => {
  it('rests once it has been the same for a second, and tells the mean', () => {
    const clamp = new ClampRead().read(40, 30);
    expect(clamp.recent.rested('amps')).equal(40);
    expect(clamp.recent.rested('volts')).equal('missing');
    expect(clamp.read(44, 3).recent.rested('amps')).equal('moves');
    expect(clamp.read(44, 30).recent.rested('amps')).equal(44);
  });
  it('takes nothing for rest at once after a change: what was asked before may come in after it', () => {
    const clamp = new ClampRead().read(15.3, 40);
    clamp.recent.forget();
    expect(clamp.recent.rested('amps')).equal('missing');
    // Three readings from before the load, still on their way when it began to draw.
    expect(clamp.read(15.3, 3).recent.rested('amps')).equal('moves');
    expect(clamp.read(45.1, 20).recent.rested('amps')).equal('moves');
    expect(clamp.read(45.1, 10).recent.rested('amps')).closeTo(45.1, 1e-9);
  });
  it('waits for three readings of a slow instrument, and for none that is long gone', () => {
    const clamp = new ClampRead();
    clamp.recent.forget();
    expect(clamp.read(20, 2, 1000).recent.rested('amps')).equal('missing');
    expect(clamp.read(20, 1, 1000).recent.rested('amps')).equal(20);
    clamp.milliseconds += 5000;
    expect(clamp.recent.rested('amps')).equal('missing');
  });
});
