/** A short chime from the browser's own oscillator; nothing is loaded. Silent where sound is not allowed. */
let context: AudioContext | null = null;

/** Browsers allow sound only after a touch; call this from one. */
export function wakeSound(): void {
  context ??= new AudioContext();
  if (context.state === "suspended") void context.resume();
}

export function chime(times: number): void {
  if (!context || context.state !== "running") return;
  for (let at = 0; at < times; at++) {
    const tone = context.createOscillator();
    const gain = context.createGain();
    const start = context.currentTime + at * 0.32;
    tone.frequency.value = at % 2 ? 1175 : 880;
    gain.gain.setValueAtTime(0.0001, start);
    gain.gain.exponentialRampToValueAtTime(0.4, start + 0.02);
    gain.gain.exponentialRampToValueAtTime(0.0001, start + 0.28);
    tone.connect(gain).connect(context.destination);
    tone.start(start);
    tone.stop(start + 0.3);
  }
}
