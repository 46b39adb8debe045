// A pasted recipe as it stands: read a moment after the last change; a correction rewrites the text or its summary.
import { api, ProblemError, type ReadRecipe } from "../../lib/api/client";
import { units } from "../../lib/units.svelte";

const PAUSE_MS = 400;
const LARGEST = 150_000;

export class RecipeState {
  text = $state("");
  summary = $state("");
  read = $state.raw<ReadRecipe | null>(null);
  problem = $state<string | null>(null);
  busy = $state(false);
  /** A newer text is being read. */
  asking = $state(false);
  #timer: ReturnType<typeof setTimeout> | undefined;
  #stop: AbortController | null = null;

  get waiting() {
    return this.read?.recipe.lines.filter((line) => line.became === "waiting") ?? [];
  }

  write(text: string): void {
    this.text = text;
    // Another text has another summary.
    this.summary = "";
    this.#soon();
  }

  /** The summary line as corrected; the text stays. */
  correct(summary: string): void {
    this.summary = summary;
    void this.#ask();
  }

  /** One line of the text said otherwise; "" leaves it out. */
  rewrite(place: number, line: string): void {
    const lines = this.text.split("\n");
    if (line) lines[place] = line;
    else lines.splice(place, 1);
    this.text = lines.join("\n");
    void this.#ask();
  }

  async open(file: File): Promise<void> {
    if (file.size > LARGEST) {
      this.problem = `The file has ${Math.round(file.size / 1000)} kB; a recipe has at most ${LARGEST / 1000} kB.`;
      return;
    }
    this.write(await file.text());
  }

  #soon(): void {
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.#ask(), PAUSE_MS);
  }

  async #ask(): Promise<void> {
    clearTimeout(this.#timer);
    this.#stop?.abort();
    const stop = (this.#stop = new AbortController());
    this.asking = true;
    if (!this.text.trim()) {
      this.read = null;
      this.problem = null;
      this.asking = false;
      return;
    }
    try {
      const read = await api.readRecipe(this.text, this.summary, units.system, stop.signal);
      if (stop.signal.aborted) return;
      this.read = read;
      this.problem = null;
      // JSON is shown as the plain lines it holds, so that they can be mended.
      if (read.text !== this.text) this.text = read.text;
    } catch (error) {
      if (stop.signal.aborted) return;
      if (!(error instanceof ProblemError)) throw error;
      this.problem = error.problem.detail;
    }
    this.asking = false;
  }

  async keep(): Promise<number | null> {
    this.busy = true;
    this.problem = null;
    try {
      return (await api.keepRecipe(this.text, this.summary, units.system)).id;
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      this.problem = error.problem.detail;
      return null;
    } finally {
      this.busy = false;
    }
  }
}
