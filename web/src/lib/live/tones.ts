import type { Word } from '@refectum/core/checks';

/** What is heard: hertz and seconds, one after the other. */
type Tune = readonly (readonly [hertz: number, seconds: number])[];

/** The verdict on a reading by its pitch: high is sound, low has failed, between is neither. */
const tunes: Readonly<Record<Word, Tune>> = {
  sound: [[988, 0.12]],
  doubtful: [
    [620, 0.12],
    [620, 0.12],
  ],
  failed: [[262, 0.4]],
  "can't tell": [
    [620, 0.12],
    [440, 0.2],
  ],
  'not looked at': [[620, 0.12]],
};
const loudness = 0.2;
const gap = 0.06;

let sound: AudioContext | undefined;

/** To be called from a touch or a key: a browser makes no sound before one. */
export function allowSound(): void {
  sound ??= new AudioContext();
  void sound.resume();
}

export function play(tune: Tune): void {
  if (!sound) return;
  let at = sound.currentTime;
  for (const [hertz, seconds] of tune) {
    const tone = sound.createOscillator();
    const volume = sound.createGain();
    tone.frequency.value = hertz;
    volume.gain.value = loudness;
    tone.connect(volume).connect(sound.destination);
    tone.start(at);
    tone.stop(at + seconds);
    at += seconds + gap;
  }
}

export const playWord = (word: Word): void => play(tunes[word]);
