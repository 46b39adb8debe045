/** The days that shopping, prep and the butcher's slip are for: one span for all of them while the window is open. */
import { dayAfter } from "./days";
import { today } from "./format";
import type { Span } from "./ui/SpanFields.svelte";

class ShownSpan {
  #span = $state.raw<Span | null>(null);

  get span(): Span {
    return this.#span ?? { from_day: today(), to_day: dayAfter(today(), 6) };
  }
  set span(span: Span) {
    this.#span = span;
  }
}

export const shown = new ShownSpan();
