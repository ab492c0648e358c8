import type { Cue, Spoken } from "./steps";

const TONES = {
  tick: { hz: 660, seconds: 0.09, gain: 0.5 },
  roll: { hz: 990, seconds: 0.45, gain: 0.8 },
  end: { hz: 440, seconds: 0.6, gain: 0.7 },
  beat: { hz: 520, seconds: 0.05, gain: 0.45 },
  mark: { hz: 780, seconds: 0.12, gain: 0.5 },
  breath: { hz: 300, seconds: 2.5, gain: 0.3 },
} as const;
const RAMP_S = 0.006;

export type Played = { at: number; tone: Cue["tone"] };

/**
 * Sounds against the audio clock, which goes on exactly while a tab is hidden. Cues are handed over
 * ahead of time; what has not sounded yet can be called back.
 */
export class Sound {
  #context: AudioContext | null = null;
  #out: GainNode | null = null;
  #ahead = new Set<OscillatorNode>();
  #volume = 0.8;
  /** What was scheduled, on the audio clock; read by tests. */
  readonly log: Played[] = [];
  #interrupted: () => void = () => undefined;

  /** Begin; a browser allows it only after a key or a tap. */
  start() {
    if (!this.#context) {
      this.#context = new AudioContext();
      this.#context.onstatechange = () => {
        // What a phone's call does to a page, where its browser says so.
        if ((this.#context?.state as string | undefined) === "interrupted") this.#interrupted();
      };
      this.#out = this.#context.createGain();
      this.#out.connect(this.#context.destination);
      this.setVolume(this.#volume);
    }
    void this.#context.resume();
  }

  /** What to do when the system takes the sound away, as a call does. */
  whenInterrupted(act: () => void) {
    this.#interrupted = act;
  }

  /** Seconds of the audio clock. */
  now(): number {
    return this.#context?.currentTime ?? 0;
  }

  setVolume(volume: number) {
    this.#volume = volume;
    if (this.#out && this.#context) {
      this.#out.gain.setTargetAtTime(volume, this.#context.currentTime, 0.01);
    }
  }

  /** Sound cues from a time on; speed: how many times faster than life. */
  schedule(cues: readonly Cue[], from: number, speed: number) {
    for (const cue of cues) this.#play(cue.tone, from + cue.at / speed);
  }

  /** Call back everything that has not sounded. */
  cancel() {
    for (const tone of this.#ahead) tone.stop();
    this.#ahead.clear();
  }

  close() {
    this.cancel();
    void this.#context?.close();
    this.#context = null;
  }

  #play(tone: Cue["tone"], at: number) {
    const [context, out] = [this.#context, this.#out];
    if (!context || !out || at < context.currentTime - 0.05) return;
    const { hz, seconds, gain } = TONES[tone];
    const source = context.createOscillator();
    const level = context.createGain();
    source.frequency.setValueAtTime(hz, at);
    if (tone === "breath") source.frequency.linearRampToValueAtTime(hz * 0.6, at + seconds);
    level.gain.setValueAtTime(0, at);
    level.gain.linearRampToValueAtTime(gain, at + RAMP_S);
    level.gain.setValueAtTime(gain, at + Math.max(RAMP_S, seconds - RAMP_S));
    level.gain.linearRampToValueAtTime(0, at + seconds);
    source.connect(level).connect(out);
    source.onended = () => this.#ahead.delete(source);
    source.start(at);
    source.stop(at + seconds + 0.02);
    this.#ahead.add(source);
    this.log.push({ at, tone });
  }
}

/** Speak a short cue where the browser has a voice. */
export function speak(words: string, volume: number) {
  if (!("speechSynthesis" in window) || volume === 0) return;
  const said = new SpeechSynthesisUtterance(words);
  said.volume = volume;
  said.rate = 1.1;
  said.lang = "en";
  speechSynthesis.cancel();
  speechSynthesis.speak(said);
}

/** Says what belongs to a step, some of it later in the step; what is not said yet can be hushed. */
export class Voice {
  #waiting = new Set<ReturnType<typeof setTimeout>>();

  say(spoken: readonly Spoken[], { volume, speed }: { volume: number; speed: number }) {
    this.hush();
    for (const { at, words } of spoken) {
      if (at === 0) speak(words, volume);
      else {
        const id = setTimeout(
          () => {
            this.#waiting.delete(id);
            speak(words, volume);
          },
          (1000 * at) / speed,
        );
        this.#waiting.add(id);
      }
    }
  }

  hush() {
    for (const id of this.#waiting) clearTimeout(id);
    this.#waiting.clear();
    if ("speechSynthesis" in window) speechSynthesis.cancel();
  }
}
