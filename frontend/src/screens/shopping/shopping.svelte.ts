/** The shopping of a span of days in a window, on a phone in a shop. */
import { api, type ShopLine, type SpanShopping, type Stocked } from "../../lib/api/client";
import { TickedList } from "../../lib/tickedList.svelte";
import type { Span } from "../../lib/ui/SpanFields.svelte";
import { units } from "../../lib/units.svelte";

const lineOf = (line: { kind: string; key: string }) => `${line.kind}/${line.key}`;
const sheetOf = (span: Span) => `shopping/${span.from_day}/${span.to_day}`;

/** A list that an older version of this application kept: what it did not know yet is none. */
const whole = (kept: SpanShopping, span: Span): SpanShopping => {
  const sheet = sheetOf(span);
  const ticked = kept.ticked as (SpanShopping["ticked"][number] | [string, string])[];
  return {
    ...kept,
    shopping: { ...{ from_lots: [], strayed: [], worths: [] }, ...kept.shopping },
    sheet,
    ticked: ticked.map((t) => (Array.isArray(t) ? { sheet, line: t.join("/"), amount: null, more: 0 } : t)),
  };
};

export class ShoppingBench extends TickedList<SpanShopping> {
  readonly #sheet: string;

  constructor(span: Span, kitchen: string) {
    super({
      kitchen,
      key: `vianda.shopping.${kitchen}.${span.from_day}.${span.to_day}`,
      fetch: () => api.shopping({ ...span, unit_system: units.system }),
      whole: (kept) => whole(kept, span),
    });
    this.#sheet = sheetOf(span);
  }

  isIn(line: ShopLine): boolean {
    return this.has(this.#sheet, lineOf(line));
  }

  /** How much more is to be bought than is in the basket already; 0 for what is in, or not in at all. */
  moreOf(line: ShopLine): number {
    return this.more(this.#sheet, lineOf(line));
  }

  put(line: ShopLine, isIn: boolean): void {
    this.tick(this.#sheet, lineOf(line), line.bought, isIn);
  }

  async keep(stocked: Stocked): Promise<void> {
    await api.keepStocked(stocked);
    await this.load();
  }
}
