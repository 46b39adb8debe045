/** Moments on the way's axis are those that a cook can keep to. */
import { describe, expect, it } from "vitest";
import { snapped, stepOf } from "./axis";

describe("moments on the axis of the way", () => {
  it.each([
    [600, 5],
    [1201, 15],
    [7201, 60],
  ])("are %i s long in steps of %i s", (end, step) => expect(stepOf(end)).toBe(step));

  it.each([
    [62.4, 60],
    [62.6, 65],
    [-20, 5],
    [900, 195],
  ])("%d s is %i s", (at, wanted) => expect(snapped(at, { step: 5, least: 5, most: 195 })).toBe(wanted));

  it("stay at the least where nothing lies between the bounds", () => {
    expect(snapped(50, { step: 5, least: 30, most: 10 })).toBe(30);
  });
});
