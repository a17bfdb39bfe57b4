/** So long goes unnoticed, ms. */
const noticed = 500;

/** Whether what somebody waits for takes long; of several that were begun the newest is waited for. */
export class Lateness {
  #isLate = $state(false);
  #newest: Promise<void> | undefined;

  get isLate(): boolean {
    return this.#isLate;
  }

  async watch(wait: Promise<void>): Promise<void> {
    this.#newest = wait;
    const tell = (late: boolean) => {
      if (this.#newest === wait) this.#isLate = late;
    };
    const timer = setTimeout(tell, noticed, true);
    try {
      await wait;
    } finally {
      clearTimeout(timer);
      tell(false);
    }
  }
}
