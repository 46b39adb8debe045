/** How a stove calls: by a chime, by the browser's own voice, by a buzz. Each can be silenced, and stays so. */
import { chime, CHIMES, type Chime } from "./chime";
import { keepHere } from "./ownStore";

export const WAYS = ["sound", "voice", "buzz"] as const;
export type Way = (typeof WAYS)[number];
const KEY = "vianda.cues";
const TONE_MS = 320;

class Cues {
  /** Nobody asked for a voice: it speaks only when it was switched on. */
  #on = $state.raw<readonly Way[]>(["sound", "buzz"]);
  #read = false;

  #load(): void {
    if (this.#read) return;
    this.#read = true;
    const [kept] = this.#kept();
    if (Array.isArray(kept?.on)) this.#on = WAYS.filter((way) => kept.on.includes(way));
  }

  /** A device keeps its own, whoever is signed in. */
  #kept(): { on: Way[] }[] {
    try {
      return JSON.parse(localStorage.getItem(KEY) ?? "[]") as { on: Way[] }[];
    } catch {
      return [];
    }
  }

  get on(): readonly Way[] {
    return this.#on;
  }

  /** What was chosen in this browser before. */
  restore(): void {
    this.#load();
  }

  set(way: Way, on: boolean): void {
    this.#load();
    this.#on = WAYS.filter((one) => (one === way ? on : this.#on.includes(one)));
    keepHere(KEY, JSON.stringify([{ on: this.#on }]));
    if (way === "voice" && !on) globalThis.speechSynthesis?.cancel();
  }

  /** Call for something: the chime says what kind it is, the voice what it is. */
  call(which: Chime, words: string): void {
    this.#load();
    if (this.#on.includes("sound")) chime(which);
    // Before the first touch a browser refuses to buzz, and says so on its console.
    if (this.#on.includes("buzz") && navigator.userActivation?.hasBeenActive)
      navigator.vibrate?.(CHIMES[which].map(() => TONE_MS));
    if (this.#on.includes("voice") && globalThis.speechSynthesis) {
      speechSynthesis.speak(new SpeechSynthesisUtterance(words));
    }
  }
}

export const cues = new Cues();
