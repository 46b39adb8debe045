/** The heat of one formula: its curve as it comes in, one that is held beside it, and what the cook saw. */
import {
  api,
  ProblemError,
  type Formula,
  type HeatCurve,
  type HeatWays,
  type Observed,
} from "../../lib/api/client";

/** What follows within this is typing, and is asked about when it has paused for so long; the first is at once. */
const TYPING_MS = 400;
const PAUSE_MS = 60;

export class HeatBench {
  curve = $state.raw<HeatCurve | null>(null);
  ways = $state.raw<HeatWays | null>(null);
  held = $state.raw<{ curve: HeatCurve; name: string } | null>(null);
  problem = $state<string | null>(null);
  busy = $state(false);
  /** How much of the doubt is reckoned; 1 when there is nothing to wait for. */
  done = $state(1);
  surfaceNow = $state<number | null>(null);
  probes = $state.raw<Observed["probes"]>([]);
  turned = $state<number | null>(null);
  left = $state<number | null>(null);

  #asked = -Infinity;

  get observed(): Observed | null {
    if (!this.probes?.length && this.turned === null && this.left === null) return null;
    return { probes: this.probes, turned_s: this.turned, cooked_yield_frac: this.left };
  }

  /** Ask for a formula; the returned function gives up on it. Only the newest question counts. */
  ask(formula: Formula): () => void {
    const stop = new AbortController();
    const more = { surface_now_c: this.surfaceNow, observed: this.observed };
    this.busy = true;
    const now = performance.now();
    const pause = now - this.#asked < TYPING_MS ? PAUSE_MS : 0;
    this.#asked = now;
    const wait = setTimeout(() => void this.#run(formula, more, stop.signal), pause);
    return () => {
      clearTimeout(wait);
      stop.abort();
    };
  }

  async #run(
    formula: Formula,
    more: { surface_now_c: number | null; observed: Observed | null },
    signal: AbortSignal,
  ): Promise<void> {
    try {
      const ways = api.heatWays(formula, signal).then((found) => (this.ways = found));
      const curve = api.heatCurve(
        formula,
        more,
        (line) => {
          if (signal.aborted) return;
          if (line.kind === "progress") {
            this.done = line.done_frac;
            return;
          }
          this.curve = line;
          this.problem = null;
          this.busy = false;
          this.done = line.doubt ? 1 : Math.min(this.done, 0);
        },
        signal,
      );
      await Promise.all([ways, curve]);
    } catch (error) {
      if (signal.aborted) return;
      if (!(error instanceof ProblemError)) throw error;
      this.problem = error.problem.detail;
      this.busy = false;
      this.done = 1;
    }
  }

  hold(name: string): void {
    if (this.curve) this.held = { curve: this.curve, name };
  }

  addProbe(at_s: number, core_c: number): void {
    this.probes = [...(this.probes ?? []), { at_s, core_c }].sort((a, b) => a.at_s - b.at_s);
  }

  forget(): void {
    this.probes = [];
    this.turned = null;
    this.left = null;
  }
}
