import { describe, expect, it } from "vitest";
import { timeTicks } from "./span";

describe("the labels of a time axis", () => {
  it.each([45, 300, 3600, 7200, 9000, 4 * 3600, 26 * 3600, 9 * 86_400])(
    "never stand nearer than they are apart, over %i s",
    (end) => {
      for (const width of [180, 320, 560, 900]) {
        const ticks = timeTicks(end, width);
        expect(ticks[0]).toBe(0);
        expect(ticks.length).toBeGreaterThan(1 - Number(end < 15));
        const gap = (((ticks[1] ?? end) - 0) / end) * width;
        expect(gap).toBeGreaterThanOrEqual(Math.min(80, width / 2) - 1e-9);
      }
    },
  );
  it("are whole minutes, half hours or hours where a clock is read", () => {
    expect(timeTicks(3 * 3600, 560)).toEqual([0, 1800, 3600, 5400, 7200, 9000, 10_800]);
  });
});
