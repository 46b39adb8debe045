/** The heat of one formula: its curve as it comes in, one that is held beside it, and what the cook saw. */
import { api, type Formula, type HeatCurve, type HeatWays, type Observed } from "../../lib/api/client";
import { Resource } from "../../lib/resource.svelte";

interface Question {
  formula: Formula;
  more: { surface_now_c: number | null; observed: Observed | null };
}

export class HeatBench {
  ways = $state.raw<HeatWays | null>(null);
  held = $state.raw<{ curve: HeatCurve; name: string } | null>(null);
  /** How much of the uncertainty is computed; 1 when there is nothing to wait for. */
  done = $state(1);
  surfaceNow = $state<number | null>(null);
  probes = $state.raw<Observed["probes"]>([]);
  turned = $state<number | null>(null);
  left = $state<number | null>(null);

  #curve = new Resource<Question, HeatCurve>(async ({ formula, more }, signal, tell) => {
    const ways = api.heatWays(formula, signal).then((found) => (this.ways = found));
    const curve = api.heatCurve(
      formula,
      more,
      (line) => {
        if (signal.aborted) return;
        if (line.kind === "progress") this.done = line.done_frac;
        else {
          tell(line);
          this.done = line.uncertainty ? 1 : 0;
        }
      },
      signal,
    );
    await Promise.all([ways, curve]);
  });

  get curve(): HeatCurve | null {
    return this.#curve.value;
  }
  get busy(): boolean {
    return this.#curve.busy;
  }
  get problem(): string | null {
    return this.#curve.problem?.detail ?? null;
  }

  get observed(): Observed | null {
    if (!this.probes?.length && this.turned == null && this.left == null) return null;
    return { probes: this.probes, turned_s: this.turned, cooked_yield_frac: this.left };
  }

  /** Ask for a formula; the returned function gives up on it. Only the newest question counts. */
  ask(formula: Formula): () => void {
    return this.#curve.ask({
      formula,
      more: { surface_now_c: this.surfaceNow, observed: this.observed },
    });
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
