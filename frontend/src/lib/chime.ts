/** A short chime from the browser's own oscillator; nothing is loaded. Silent where sound is not allowed. */
let context: AudioContext | null = null;

/** Browsers allow sound only after a touch; call this from one. */
export function wakeSound(): void {
  context ??= new AudioContext();
  if (context.state === "suspended") void context.resume();
}

/** Tones of a chime in Hz, one after the other: each question sounds different. */
export const CHIMES = {
  /** Look at it from now on. */
  look: [880],
  /** Something is to be begun. */
  begin: [880, 1175],
  /** Its time is over. */
  over: [880, 1175, 880],
  /** A temperature is to be measured and written down. */
  measure: [1320, 1320],
  /** The plate will be late. */
  late: [440, 330],
} as const;
export type Chime = keyof typeof CHIMES;

export function chime(which: Chime): void {
  if (!context || context.state !== "running") return;
  for (const [at, tone_hz] of CHIMES[which].entries()) {
    const tone = context.createOscillator();
    const gain = context.createGain();
    const start = context.currentTime + at * 0.32;
    tone.frequency.value = tone_hz;
    gain.gain.setValueAtTime(0.0001, start);
    gain.gain.exponentialRampToValueAtTime(0.4, start + 0.02);
    gain.gain.exponentialRampToValueAtTime(0.0001, start + 0.28);
    tone.connect(gain).connect(context.destination);
    tone.start(start);
    tone.stop(start + 0.3);
  }
}
