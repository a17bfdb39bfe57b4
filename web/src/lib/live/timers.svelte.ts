/** What is timed at the run stand, in seconds [common practice, no source]. */
export const timed = [
  { id: 'load', name: 'Load on', seconds: 10, then: 'Load off, let it cool.' },
  { id: 'cool', name: 'Cool down', seconds: 60, then: 'Cool enough for the next load.' },
  { id: 'warm', name: 'Warm-up', seconds: 900, then: 'Warm: a two-contact regulator may be read now.' },
] as const;
type Timed = (typeof timed)[number]['id'];

/** Timers that go on whatever screen is looked at, each with a sound at its end. */
class Timers {
  #ends = $state<Partial<Record<Timed, number>>>({});
  #now = $state(Date.now());
  #ticking: ReturnType<typeof setInterval> | undefined;
  #sound: AudioContext | undefined;
  /** What ended last. */
  said = $state('');

  left(id: Timed): number | undefined {
    const end = this.#ends[id];
    return end === undefined ? undefined : Math.max(0, Math.ceil((end - this.#now) / 1000));
  }

  start(id: Timed): void {
    // A sound may only follow from a touch.
    this.#sound ??= new AudioContext();
    this.said = '';
    this.#now = Date.now();
    this.#ends[id] = this.#now + timed.find((one) => one.id === id)!.seconds * 1000;
    this.#ticking ??= setInterval(() => this.#tick(), 250);
  }

  stop(id: Timed): void {
    delete this.#ends[id];
  }

  #tick(): void {
    this.#now = Date.now();
    for (const { id, then } of timed) {
      if ((this.#ends[id] ?? Infinity) > this.#now) continue;
      delete this.#ends[id];
      this.said = then;
      this.#beep();
    }
    if (Object.keys(this.#ends).length > 0) return;
    clearInterval(this.#ticking);
    this.#ticking = undefined;
  }

  #beep(): void {
    const sound = this.#sound;
    if (!sound) return;
    const tone = sound.createOscillator();
    const volume = sound.createGain();
    tone.frequency.value = 880;
    volume.gain.value = 0.2;
    tone.connect(volume).connect(sound.destination);
    tone.start();
    tone.stop(sound.currentTime + 0.6);
  }
}

export const timers = new Timers();
