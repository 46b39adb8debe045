import { describe, expect, it } from "vitest";
import { between, heatColour, readAt } from "./heatColour";

describe("the colour of heat", () => {
  it("runs from raw red to crust and stays there", () => {
    expect(heatColour(-20)).toEqual([101, 26, 41]);
    expect(heatColour(20)).toEqual([131, 44, 58]);
    expect(heatColour(500)).toEqual([36, 21, 9]);
  });
});

describe("reading a curve", () => {
  const times = [0, 10, 30];
  it("stands between samples", () => {
    expect(between(times, 20)).toEqual({ at: 1, share: 0.5 });
    expect(readAt(times, [5, 25, 65], 20)).toBe(45);
  });
  it("holds before the first and after the last", () => {
    expect(readAt(times, [5, 25, 65], -3)).toBe(5);
    expect(readAt(times, [5, 25, 65], 99)).toBe(65);
    expect(readAt([0], [7], 4)).toBe(7);
  });
});
