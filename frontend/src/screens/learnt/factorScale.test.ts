import { describe, expect, it } from "vitest";
import { LEAST, MARKS, MOST, place, times } from "./factorScale";

describe("the scale of factors", () => {
  it("has 1 in the middle, and halving as far from it as doubling", () => {
    expect(place(LEAST)).toBeCloseTo(0);
    expect(place(1)).toBeCloseTo(50);
    expect(place(MOST)).toBeCloseTo(100);
    expect(50 - place(1 / 1.3)).toBeCloseTo(place(1.3) - 50);
  });
  it("keeps what lies beyond an end at that end", () => {
    expect(place(9)).toBe(100);
    expect(place(0.1)).toBe(0);
    expect(place(0)).toBe(0);
  });
  it("is marked in order", () => {
    const at = MARKS.map(place);
    expect([...at].sort((a, b) => a - b)).toEqual(at);
  });
  it("says a factor with two digits", () => expect(times(0.9)).toBe("× 0.90"));
});
