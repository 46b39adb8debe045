/** An answer that is searched for: it says how far it is, and can be stopped; what stood before stays. */
import type { Looking } from "./api/client";
import { Resource } from "./resource.svelte";

/** What a screen shows of any search. */
export interface Searching {
  readonly busy: boolean;
  readonly value: unknown;
  readonly looking: Looking | null;
  readonly stopped: boolean;
  stop(): void;
  again(): void;
}

export class Search<Question, Answer> extends Resource<Question, Answer> implements Searching {
  /** How far the search is; nothing while it is quicker than anybody could read. */
  looking = $state.raw<Looking | null>(null);
  stopped = $state(false);
  #asked: { question: Question; giveUp: () => void } | null = null;

  constructor(
    fetch: (question: Question, signal: AbortSignal, look: (far: Looking) => void) => Promise<Answer>,
  ) {
    let show: (far: Looking) => void = () => undefined;
    super((question, signal) =>
      fetch(question, signal, (far) => {
        if (!signal.aborted) show(far);
      }),
    );
    show = (far) => (this.looking = far);
  }

  override ask(question: Question): () => void {
    this.looking = null;
    this.stopped = false;
    const giveUp = super.ask(question);
    this.#asked = { question, giveUp };
    return giveUp;
  }

  /** Nobody waits for it any more: the kitchen's computer stops as well. */
  stop(): void {
    this.#asked?.giveUp();
    this.busy = false;
    this.looking = null;
    this.stopped = true;
  }

  again(): void {
    if (this.#asked) this.ask(this.#asked.question);
  }

  override clear(): void {
    super.clear();
    this.looking = null;
    this.stopped = false;
    this.#asked = null;
  }
}
