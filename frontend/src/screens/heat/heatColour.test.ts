import { describe, expect, it } from "vitest";
import { between, heatColour, readAt } from "./heatColour";

describe("the colour of heat", () => {
  it("runs from frozen to crust and stays there, lightest where mince greys", () => {
    expect(heatColour(-40)).toEqual([30, 42, 56]);
    expect(heatColour(60)).toEqual([240, 226, 184]);
    expect(heatColour(500)).toEqual([40, 16, 12]);
    const light = (c: number) => heatColour(c).reduce((a, b) => a + b);
    expect(light(60)).toBeGreaterThan(light(50));
    expect(light(60)).toBeGreaterThan(light(70));
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
