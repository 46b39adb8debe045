import { describe, expect, it } from "vitest";
import type { Trend } from "../../lib/api/client";
import { brokenAt, heightOf, leftOf, RULES, scaleOf } from "./trend";

const point = (value: number, low: number | null = null, high: number | null = null) =>
  ({ cook_id: 1, formula_name: "", started_at: "", value, low, high }) as Trend["points"][number];

describe("a control chart", () => {
  it("has room for points, forecasts and limits", () => {
    const scale = scaleOf({ points: [point(0.7, 0.6, 0.8), point(0.72)], lower: 0.5, upper: 0.9 });
    expect(scale.low).toBeLessThan(0.5);
    expect(scale.high).toBeGreaterThan(0.9);
    expect(heightOf(scale.high, scale)).toBe(0);
    expect(heightOf(scale.low, scale)).toBe(100);
  });
  it("draws cooks that are all alike", () => {
    const scale = scaleOf({ points: [point(4), point(4)], lower: null, upper: null });
    expect(heightOf(4, scale)).toBeCloseTo(50);
    const nothing = scaleOf({ points: [point(0), point(0)], lower: null, upper: null });
    expect(Number.isFinite(heightOf(0, nothing))).toBe(true);
  });
  it("stands cooks evenly in their order", () => {
    expect([0, 1, 2, 3].map((n) => leftOf(n, 4))).toEqual([12.5, 37.5, 62.5, 87.5]);
  });
  it("names every rule that a point breaks", () => {
    const trend = {
      broken: [
        { rule: "beyond-3s", at: 2 },
        { rule: "8-on-one-side", at: 2 },
      ],
    } as Pick<Trend, "broken">;
    expect(brokenAt(trend, 2)).toEqual([RULES["beyond-3s"], RULES["8-on-one-side"]]);
    expect(brokenAt(trend, 1)).toEqual([]);
  });
});
