// The opening line as it is typed: read a moment after the last key, at once on Enter; an older answer never wins.
import {
  api,
  ProblemError,
  type Edit,
  type Evaluation,
  type Formula,
  type Opening,
} from "../../lib/api/client";
import { units } from "../../lib/units.svelte";

const PAUSE_MS = 450;

export class OpeningState {
  line = $state("");
  opened = $state.raw<{ opening: Opening; evaluation: Evaluation | null } | null>(null);
  answered = $state<number[]>([]);
  problem = $state<string | null>(null);
  busy = $state(false);
  #timer: ReturnType<typeof setTimeout> | undefined;
  #turn = 0;

  type(line: string): void {
    this.line = line;
    clearTimeout(this.#timer);
    this.#turn += 1;
    if (line.trim().length < 3) {
      this.opened = null;
      this.problem = null;
      return;
    }
    this.#timer = setTimeout(() => void this.#open({ quiet: true }), PAUSE_MS);
  }

  take(line: string): void {
    this.line = line;
    void this.read();
  }

  async read(): Promise<void> {
    clearTimeout(this.#timer);
    this.busy = true;
    try {
      await this.#open({ quiet: false });
    } finally {
      this.busy = false;
    }
  }

  async #open({ quiet }: { quiet: boolean }): Promise<void> {
    const turn = (this.#turn += 1);
    try {
      const opened = await api.opening(this.line, units.system);
      if (turn !== this.#turn) return;
      this.opened = { opening: opened.opening, evaluation: opened.evaluation ?? null };
      this.answered = [];
      this.problem = null;
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      if (turn !== this.#turn) return;
      this.opened = null;
      // Half a line is no mistake yet.
      this.problem = quiet ? null : error.problem.detail;
    }
  }

  async attempt(run: () => Promise<void>): Promise<void> {
    this.busy = true;
    this.problem = null;
    try {
      await run();
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      this.problem = error.problem.detail;
    } finally {
      this.busy = false;
    }
  }

  answer(edit: Edit, at: number): Promise<void> {
    return this.attempt(async () => {
      const now = this.opened;
      if (!now?.opening.formula) return;
      const turn = this.#turn;
      const next = await api.evaluate(now.opening.formula as Formula, [edit], units.system);
      // Another line was typed meanwhile: it stands.
      if (turn !== this.#turn) return;
      this.opened = {
        opening: { ...now.opening, formula: next.formula as Opening["formula"] },
        evaluation: next.evaluation,
      };
      this.answered = [...this.answered, at];
    });
  }
}
