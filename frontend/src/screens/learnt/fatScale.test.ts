import { describe, expect, it } from "vitest";
import { fatMarks, fatPlace } from "./fatScale";

describe("the scale of fat", () => {
  it.each([
    [[0.03], 2],
    [[0.08, 0.19], 5],
    [[0.21], 4],
    [[0.62], 5],
    [[0.95], 5],
  ])("holds %j with few marks", (values, marks) => {
    const found = fatMarks(values);
    expect(found).toHaveLength(marks);
    expect(found[0]).toBe(0);
    expect(found.at(-1)).toBeGreaterThanOrEqual(Math.max(...values) - 1e-9);
  });
  it("keeps what lies beyond an end at that end", () => {
    expect(fatPlace(-0.1, 0.4)).toBe(0);
    expect(fatPlace(0.5, 0.4)).toBe(100);
    expect(fatPlace(0.1, 0.4)).toBeCloseTo(25);
  });
});
