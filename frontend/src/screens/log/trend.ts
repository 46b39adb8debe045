/** Where the points of a control chart stand, and what its rules are called. */
import type { Trend } from "../../lib/api/client";

type Rule = Trend["broken"][number]["rule"];
export const RULES: Record<Rule, string> = {
  "beyond-3s": "beyond the limits",
  "2-of-3-beyond-2s": "two of three far on one side",
  "4-of-5-beyond-1s": "four of five on one side",
  "8-on-one-side": "eight in a row on one side",
  "6-in-a-row-rising-or-falling": "six in a row rising or falling",
};

export interface Scale {
  low: number;
  high: number;
}

/** From the least to the most that is drawn, with room above and below. */
export function scaleOf(trend: Pick<Trend, "points" | "lower" | "upper">): Scale {
  const drawn = trend.points.flatMap((p) => [p.value, p.low ?? p.value, p.high ?? p.value]);
  const all = [...drawn, ...[trend.lower, trend.upper].filter((v): v is number => v != null)];
  const low = Math.min(...all);
  const high = Math.max(...all);
  const room = (high - low || Math.abs(high) || 1) * 0.08;
  return { low: low - room, high: high + room };
}

/** Per cent from the top. */
export const heightOf = (value: number, scale: Scale): number =>
  (100 * (scale.high - value)) / (scale.high - scale.low);

/** Per cent from the left: cooks in their order, evenly. */
export const leftOf = (at: number, count: number): number => (100 * (at + 0.5)) / Math.max(1, count);

/** Which rules are broken at a point. */
export const brokenAt = (trend: Pick<Trend, "broken">, at: number): string[] =>
  trend.broken.filter((b) => b.at === at).map((b) => RULES[b.rule]);
