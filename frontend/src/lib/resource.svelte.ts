/**
 * An answer that follows a question: asked a moment after the last change, given up when a newer one comes,
 * and never overtaken by an older answer.
 */
import { ProblemError, type Problem } from "./api/client";

/** What follows within this is typing, and waits until it has paused; the first question is asked at once. */
const TYPING_MS = 400;

export type Fetch<Question, Answer> = (
  question: Question,
  signal: AbortSignal,
  /** For an answer that comes in parts: shown at once. */
  tell: (part: Answer) => void,
) => Promise<Answer | void>;

export class Resource<Question, Answer> {
  value = $state.raw<Answer | null>(null);
  problem = $state.raw<Problem | null>(null);
  busy = $state(false);

  #fetch: Fetch<Question, Answer>;
  #pauseMs: number;
  #askedAt = -Infinity;
  #giveUp: (() => void) | null = null;

  constructor(fetch: Fetch<Question, Answer>, { pauseMs = 60 } = {}) {
    this.#fetch = fetch;
    this.#pauseMs = pauseMs;
  }

  /** Ask; the returned function gives up on it, as a newer question does. */
  ask(question: Question): () => void {
    this.#giveUp?.();
    const stop = new AbortController();
    const now = performance.now();
    const pause = now - this.#askedAt < TYPING_MS ? this.#pauseMs : 0;
    this.#askedAt = now;
    this.busy = true;
    const timer = setTimeout(() => void this.#run(question, stop.signal), pause);
    const giveUp = () => {
      clearTimeout(timer);
      stop.abort();
    };
    this.#giveUp = giveUp;
    return giveUp;
  }

  async #run(question: Question, signal: AbortSignal): Promise<void> {
    const show = (answer: Answer) => {
      if (signal.aborted) return;
      this.value = answer;
      this.problem = null;
      this.busy = false;
    };
    try {
      const answer = await this.#fetch(question, signal, show);
      if (answer !== undefined) show(answer as Answer);
      if (!signal.aborted) this.busy = false;
    } catch (error) {
      if (signal.aborted || error instanceof DOMException) return;
      if (!(error instanceof ProblemError)) throw error;
      this.problem = error.problem;
      this.busy = false;
    }
  }

  /** Forget what was answered, and ask nothing more. */
  clear(): void {
    this.#giveUp?.();
    this.value = null;
    this.problem = null;
    this.busy = false;
  }
}
