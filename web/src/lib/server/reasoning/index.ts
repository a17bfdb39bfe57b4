import { fileURLToPath } from 'node:url';
import { Piscina } from 'piscina';
import type * as thread from './thread.ts';

/** Questions that are answered beside the thread that serves: a stop at the stand waits for none of them. */
type Questions = typeof thread;
const mostThreads = 2;
const holder = globalThis as { refectumReasoning?: Piscina };

const inSource = (path: string): string => fileURLToPath(new URL(path, import.meta.url));

/** Opened by the first question, and kept: what a thread has worked out stays warm. */
const pool = (): Piscina =>
  (holder.refectumReasoning ??= new Piscina({
    // serve.js names the built one; the development server reads it as it is written.
    filename: process.env.REASONING_THREAD ?? inSource('thread.ts'),
    execArgv: process.env.REASONING_THREAD ? [] : ['--import', inSource('../../../../../scripts/typescript.mjs')],
    maxThreads: mostThreads,
    idleTimeout: Infinity,
  }));

let ended = false;

/** Ends what is still being thought out: nobody waits for it any more. What is asked later is refused. */
export async function endReasoning(): Promise<void> {
  ended = true;
  await holder.refectumReasoning?.destroy();
}

const asked =
  <Q extends keyof Questions>(name: Q) =>
  async (given: Parameters<Questions[Q]>[0]): Promise<ReturnType<Questions[Q]>> => {
    // The pool would start threads anew for a page whose job came out of the database just then.
    if (ended) throw new Error('The server is ending: nothing is thought out any more.');
    return (await pool().run(given, { name })) as ReturnType<Questions[Q]>;
  };

export const assess = asked('assess');
export const assessFile = asked('assessFile');
export const assessVehicle = asked('assessVehicle');
export const gate = asked('gate');
export const report = asked('report');
