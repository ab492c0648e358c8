const LOWEST_HZ = 220;
const GLIDE_S = 0.05;

/** Pitch and loudness for a gust so far over its target; silence while it is calm. */
export function toneOf(over: number | null): { hz: number; gain: number } {
  if (over === null || over <= 0) return { hz: LOWEST_HZ, gain: 0 };
  return {
    hz: LOWEST_HZ * 2 ** Math.min(2.5, 0.2 + over / 2),
    gain: Math.min(0.4, 0.12 + over / 10),
  };
}

/** A tone that rises as the gust passes its target. */
export class LiveTone {
  #context: AudioContext | null = null;
  #source: OscillatorNode | null = null;
  #level: GainNode | null = null;

  /** Begin, silent; a browser allows it only after a key or a tap. */
  start() {
    if (this.#context) return void this.#context.resume();
    this.#context = new AudioContext();
    this.#source = this.#context.createOscillator();
    this.#source.type = "triangle";
    this.#level = this.#context.createGain();
    this.#level.gain.value = 0;
    this.#source.connect(this.#level).connect(this.#context.destination);
    this.#source.start();
  }

  /** over: gust over target, null where it cannot be told. */
  set(over: number | null, on: boolean) {
    if (!this.#context || !this.#source || !this.#level) return;
    const { hz, gain } = toneOf(over);
    const now = this.#context.currentTime;
    this.#level.gain.setTargetAtTime(on ? gain : 0, now, GLIDE_S);
    if (gain > 0) this.#source.frequency.setTargetAtTime(hz, now, GLIDE_S);
  }

  stop() {
    void this.#context?.close();
    this.#context = this.#source = this.#level = null;
  }
}
