import { expect } from 'chai';
import { once } from '../src/lib/live/once.ts';

describe('what is pressed twice', () => {
  it('is done once while it is under way, and again afterwards, also when it failed', async () => {
    const done: string[] = [];
    let end = { well: () => {}, badly: () => {} };
    const act = once((what: string) => {
      done.push(what);
      return new Promise<void>((well, badly) => (end = { well, badly: () => badly(new Error('no room')) }));
    });
    const first = act('first');
    await act('pressed twice');
    end.well();
    await first;
    const second = act('second').catch((error: Error) => error.message);
    end.badly();
    expect(await second).equal('no room');
    void act('third');
    expect(done).deep.equal(['first', 'second', 'third']);
  });
});
