import type { Person } from '../people.ts';
import { createStore, del, entries, set, type UseStore } from 'idb-keyval';

/** A write on its way to the server. */
export interface Outgoing {
  readonly id: string;
  readonly tag: number;
  /** When it was written, ms, later than any before it: the order of delivery. */
  readonly at: number;
  readonly method: 'POST' | 'PATCH';
  readonly path: string;
  /** Name of who wrote it, for the screen until the server tells. */
  readonly by: string;
  /** Carries the id of who wrote it as `technician`. */
  readonly body: Readonly<Record<string, unknown>>;
}

export interface Returned {
  readonly item: Outgoing;
  readonly message: string;
}

let kept: UseStore | undefined;
/** Each write under a key of its own, so that two windows don't overwrite one another's. */
const store = (): UseStore => (kept ??= createStore('refectum-outbox', 'writes'));
const retryMilliseconds = 1500;
/** So much later it goes to the server: what follows from a reading is waited for, that it was delivered isn't. */
const postMilliseconds = 120;
/** A write that the server fails on is set aside after so many trials, so that the writes behind it get through. */
const mostFailures = 4;

/**
 * Writes wait in the browser's own database until the server has them, and are delivered in order. Each carries
 * its id, so that one delivered twice counts once. What the server refuses comes back with its reason; what it
 * fails on again and again comes back too, but stays in the browser's database for the next visit. What somebody wrote
 * who isn't signed in here any more is held until they are.
 */
class Outbox {
  #waiting = $state.raw<readonly Outgoing[]>([]);
  #taken = $state.raw<readonly Outgoing[]>([]);
  #returned = $state.raw<readonly Returned[]>([]);
  #held = $state.raw<readonly Outgoing[]>([]);
  #away = $state(false);
  #delivering = false;
  #loaded: Promise<void> | undefined;
  /** When the newest was written. */
  #last = 0;
  /** Of what is being stored, the last. */
  #stored: Promise<void> = Promise.resolve();
  #delivered: ((tag: number) => void)[] = [];

  /** Not yet taken by the server, oldest first. */
  get waiting(): readonly Outgoing[] {
    return [...this.#held, ...this.#waiting];
  }
  /** Of those, the ones whose writer must sign in here first. */
  get held(): readonly Outgoing[] {
    return this.#held;
  }
  /** Taken by the server since this page was opened: until it tells of them, the screen knows them from here. */
  get taken(): readonly Outgoing[] {
    return this.#taken;
  }
  get returned(): readonly Returned[] {
    return this.#returned;
  }
  /** Whether the server did not answer the last time. */
  get away(): boolean {
    return this.#away;
  }

  /** Takes up what an earlier visit to the page left behind. */
  open(): Promise<void> {
    if (!this.#loaded) addEventListener('pagehide', () => void this.#deliver(true));
    this.#loaded ??= entries<string, Outgoing>(store()).then(
      (found) => {
        const left = found.sort(([a], [b]) => (a < b ? -1 : 1)).map(([, item]) => item);
        this.#waiting = [...left, ...this.#waiting];
        void this.#deliver();
      },
      () => undefined,
    );
    return this.#loaded;
  }

  onDelivered(hear: (tag: number) => void): () => void {
    this.#delivered.push(hear);
    return () => (this.#delivered = this.#delivered.filter((h) => h !== hear));
  }

  /** Until the server has (or has refused) what was written of one unit; not while it is away. */
  async delivered(tag: number): Promise<void> {
    await this.#stored;
    while (!this.#away && this.#waiting.some((item) => item.tag === tag))
      await new Promise((resolve) => setTimeout(resolve, 20));
  }

  /** Stores a write, and only then shows and delivers it: what is on screen outlives the page. */
  send(by: Person, write: Omit<Outgoing, 'at' | 'by'>): Promise<void> {
    this.#last = Math.max(Date.now(), this.#last + 1);
    const item = { ...write, at: this.#last, by: by.name, body: { ...write.body, technician: by.id } };
    return (this.#stored = this.#stored.then(async () => {
      await this.open();
      await set(keyOf(item), item, store()).catch(() => undefined);
      this.#waiting = [...this.#waiting, item];
      setTimeout(() => void this.#deliver(), postMilliseconds);
    }));
  }

  /** Gives a returned write up for good. */
  async dismiss(id: string): Promise<void> {
    const found = this.#returned.find(({ item }) => item.id === id);
    if (found) await del(keyOf(found.item), store()).catch(() => undefined);
    this.#returned = this.#returned.filter(({ item }) => item.id !== id);
  }

  /** From a page that is left the browser still delivers the oldest; what else waits is delivered at the next visit. */
  async #deliver(leaving = false): Promise<void> {
    if (this.#delivering) return;
    this.#delivering = true;
    let failures = 0;
    while (this.#waiting.length > 0) {
      const item = this.#waiting[0]!;
      const answer = await post(item, leaving);
      leaving = false;
      if (answer === 'failed') failures++;
      if (answer === 'away' || (answer === 'failed' && failures < mostFailures)) {
        this.#away = true;
        await new Promise((resolve) => setTimeout(resolve, retryMilliseconds));
        continue;
      }
      this.#away = false;
      failures = 0;
      if (answer === 'taken') this.#taken = [...this.#taken, item];
      else if (answer === 'held') this.#held = [...this.#held, item];
      else this.#returned = [...this.#returned, { item, message: answer === 'failed' ? failedText : answer.refused }];
      this.#waiting = this.#waiting.slice(1);
      if (answer !== 'failed' && answer !== 'held') await del(keyOf(item), store()).catch(() => undefined);
      this.#delivered.forEach((hear) => hear(item.tag));
    }
    this.#delivering = false;
  }
}

const keyOf = ({ at, id }: Outgoing): string => `${String(at).padStart(15, '0')} ${id}`;

const failedText = 'The server failed on it several times. It is kept here and tried again when the page is reloaded.';

async function post(
  { method, path, body }: Outgoing,
  keepalive: boolean,
): Promise<'taken' | 'held' | 'away' | 'failed' | { refused: string }> {
  try {
    const response = await fetch(path, {
      method,
      keepalive,
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
    if (response.ok) return 'taken';
    if (response.status === 401) return 'held';
    // 502 to 504 come from something between: the application itself is away.
    if (response.status > 501) return 'away';
    if (response.status >= 500) return 'failed';
    const told = (await response.json().catch(() => undefined)) as { message?: string } | undefined;
    return { refused: told?.message ?? `The server refused it (${response.status}).` };
  } catch {
    return 'away';
  }
}

export const outbox = new Outbox();

/** A fresh id; randomUUID is missing on plain http over a network. */
export function freshId(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  bytes[6] = (bytes[6]! & 0x0f) | 0x40;
  bytes[8] = (bytes[8]! & 0x3f) | 0x80;
  const hex = [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('');
  return [hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20)].join('-');
}
