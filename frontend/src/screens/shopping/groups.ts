import type { Shopping, ShopLine } from "../../lib/api/client";

export interface Group {
  title: string;
  lines: ShopLine[];
}
export type Order = "shelf" | "supplier";

/** What there is to buy, under its shelf or its supplier, in the order of the list. */
export function grouped(shopping: Shopping, order: Order): Group[] {
  const groups = new Map<string, ShopLine[]>();
  for (const line of shopping.lines) {
    if (line.bought <= 0) continue;
    const title = order === "shelf" ? line.shelf : line.supplier || "No supplier yet";
    groups.set(title, [...(groups.get(title) ?? []), line]);
  }
  return [...groups].map(([title, lines]) => ({ title, lines }));
}
