/** The trainer in a window: a round, the answer chosen, how sure, what the core says of it, and the next. */
import { api, ProblemError, type JudgedRound, type Training } from "../../lib/api/client";
import { newToken } from "../../lib/outbox.svelte";

export class Trainer {
  state = $state.raw<Training | null>(null);
  /** The answer chosen, before it is said how sure. */
  chosen = $state<number | null>(null);
  judged = $state.raw<JudgedRound | null>(null);
  busy = $state(false);
  problem = $state<string | null>(null);
  /** One answer counts once, however often it is sent. */
  #token = "";

  get round() {
    return this.state?.next ?? null;
  }
  get standings() {
    return this.judged?.standings ?? this.state?.standings ?? [];
  }
  get right(): boolean | null {
    return this.judged ? this.judged.right === this.chosen : null;
  }

  async load(): Promise<void> {
    await this.#attempt(async () => this.#show(await api.training()));
  }
  async beginAnew(): Promise<void> {
    await this.#attempt(async () => this.#show(await api.beginTrainingAnew()));
  }

  choose(answer: number): void {
    const answers = this.round?.round.answers.length ?? 0;
    if (this.judged || this.busy || answer < 0 || answer >= answers) return;
    this.chosen = answer;
  }
  thinkAgain(): void {
    if (!this.judged) this.chosen = null;
  }
  async say(confidence: number): Promise<void> {
    const { round, chosen } = this;
    if (!round || chosen === null || this.judged) return;
    await this.#attempt(async () => {
      this.judged = await api.answerRound({
        kind: round.round.kind,
        formula_id: round.formula_id,
        seed: round.seed,
        stamp: round.stamp,
        choice: chosen,
        confidence,
        token: this.#token,
      });
    });
  }

  #show(state: Training): void {
    this.state = state;
    this.chosen = null;
    this.judged = null;
    this.#token = newToken();
  }
  async #attempt(what: () => Promise<void>): Promise<void> {
    if (this.busy) return;
    this.busy = true;
    this.problem = null;
    try {
      await what();
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      this.problem = error.problem.detail;
    } finally {
      this.busy = false;
    }
  }
}
