import { expect } from 'chai';
import { askAgain } from '../src/lib/live/again.ts';

const rings = { id: 'rings', check: 'ring-ring', repeat: 'Check the leads, and take it again.' };
const core = { id: 'core', check: 'ring-core', repeat: 'Fits nothing: take it again.' };
const sound = { id: 'sound', check: 'brush', repeat: undefined };
const ids = (readings: readonly { id: string }[]) => readings.map(({ id }) => id);

describe('what asks to be taken again', () => {
  it('is every reading whose word says so, oldest first', () => {
    const standing = [rings, sound, core];
    expect(ids(askAgain(standing, standing))).deep.equal(['rings', 'core']);
    expect(askAgain(undefined, standing)).deep.equal([]);
  });
  it('is none that was struck out since', () => {
    expect(ids(askAgain([rings, core], [core]))).deep.equal(['core']);
  });
  it('is none that was taken again and isn’t thought through yet; what is judged then says whether it still asks', () => {
    const taken = { id: 'once more', check: 'ring-ring' };
    expect(ids(askAgain([rings, core], [rings, core, taken]))).deep.equal(['core']);
    const judged = { ...taken, repeat: 'They disagree: take it once more.' };
    expect(ids(askAgain([rings, core, judged], [rings, core, taken]))).deep.equal(['rings', 'core', 'once more']);
  });
});
