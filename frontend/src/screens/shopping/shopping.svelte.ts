/**
 * The shopping of a span of days in a window, on a phone in a shop: what is ticked waits here while the line is down, and
 * the list that was fetched last is shown.
 */
import {
  api,
  ProblemError,
  type ShopLine,
  type SpanShopping,
  type Stocked,
  type Tick,
} from "../../lib/api/client";
import { foundLocally, keepLocally, Outbox } from "../../lib/outbox.svelte";
import type { Span } from "../../lib/ui/SpanFields.svelte";
import { units } from "../../lib/units.svelte";

const idOf = (line: { kind: string; key: string }) => `${line.kind}/${line.key}`;
const listKey = (kitchen: string, span: Span) => `vianda.shopping.${kitchen}.${span.from_day}.${span.to_day}`;

const set = (all: readonly string[], id: string, on: boolean) => [
  ...all.filter((one) => one !== id),
  ...(on ? [id] : []),
];

/** A list that an older version of this application kept: what it did not know yet is none. */
const whole = (kept: SpanShopping): SpanShopping => ({
  ...kept,
  shopping: { ...{ from_lots: [], strayed: [], worths: [] }, ...kept.shopping },
});

export class ShoppingBench {
  readonly span: Span;
  readonly #kitchen: string;
  found = $state.raw<SpanShopping | null>(null);
  ticked = $state.raw<readonly string[]>([]);
  problem = $state<string | null>(null);
  /** The list on the screen is one of before: the line is down. */
  old = $state(false);
  readonly outbox: Outbox<Tick>;

  constructor(span: Span, kitchen: string) {
    this.span = span;
    this.#kitchen = kitchen;
    const waiting = `vianda.ticks.${kitchen}`;
    this.outbox = new Outbox<Tick>({
      send: async (tick) => void (await api.tick(tick)),
      keep: (items) => keepLocally(waiting, items),
      refused: (_, problem) => (this.problem = problem.detail),
      idle: () => {
        if (this.old && !this.outbox.away) void this.load();
      },
    });
    this.outbox.restore(foundLocally<Tick>(waiting));
  }

  async load(): Promise<void> {
    try {
      const found = await api.shopping({ ...this.span, unit_system: units.system });
      this.#show(found, false);
      keepLocally(listKey(this.#kitchen, this.span), [found]);
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      const [before] = error.away ? foundLocally<SpanShopping>(listKey(this.#kitchen, this.span)) : [];
      if (before) this.#show(whole(before), true);
      else this.problem = error.problem.detail;
    }
  }

  #show(found: SpanShopping, old: boolean): void {
    this.found = found;
    this.old = old;
    this.problem = null;
    // What was ticked while the line was down is newer than what the server knows.
    const newer = this.outbox.items.filter(
      (t) => t.from_day === this.span.from_day && t.to_day === this.span.to_day,
    );
    this.ticked = newer.reduce(
      (all, t) => set(all, idOf(t), t.ticked),
      found.ticked.map(([kind, key]) => idOf({ kind, key })),
    );
  }

  has(line: ShopLine): boolean {
    return this.ticked.includes(idOf(line));
  }

  tick(line: ShopLine, ticked: boolean): void {
    this.ticked = set(this.ticked, idOf(line), ticked);
    this.outbox.push({ ...this.span, kind: line.kind, key: line.key, ticked });
  }

  async keep(stocked: Stocked): Promise<void> {
    await api.keepStocked(stocked);
    await this.load();
  }

  close(): void {
    this.outbox.close();
  }
}
