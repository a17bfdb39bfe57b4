import { expect } from 'chai';
import { endReasoning, report } from '../src/lib/server/reasoning/index.ts';
import { jobWith } from './job.ts';

describe('reasoning beside the thread that serves', () => {
  it('ends with the server, and begins nothing anew for a page that asks while it ends', async () => {
    const failureOf = (asked: Promise<unknown>) =>
      asked.then(
        () => 'answered',
        (failure: Error) => failure.message,
      );
    const underWay = failureOf(report(jobWith([])));
    const ended = endReasoning();
    const asked = failureOf(report(jobWith([])));
    await ended;
    expect(await underWay).equal('Terminating worker thread');
    expect(await asked).equal('The server is ending: nothing is thought out any more.');
    expect(await failureOf(report(jobWith([])))).equal('The server is ending: nothing is thought out any more.');
  });
});
