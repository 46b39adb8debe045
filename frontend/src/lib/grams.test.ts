/** Readings as a scale shows them: the decimals it has, a true minus, the units of the screen. */
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { FakeServer } from "./testing/fakeServer";

type Grams = typeof import("./grams");
let grams: Grams;
let units: (typeof import("./units.svelte"))["units"];

beforeEach(async () => {
  new FakeServer();
  vi.resetModules();
  grams = await import("./grams");
  ({ units } = await import("./units.svelte"));
});
afterEach(() => vi.unstubAllGlobals());

describe("a reading in grams", () => {
  it("has no decimals that the scale does not have", () => {
    expect(grams.reading(85)).toBe("85\u00a0g");
    expect(grams.reading(84.98)).toBe("85\u00a0g");
    expect(grams.reading(84.5)).toBe("84.5\u00a0g");
    expect(grams.reading(0)).toBe("0\u00a0g");
  });
  it("below nothing has a minus and not a hyphen", () => {
    expect(grams.reading(-12)).toBe("−12\u00a0g");
    expect(grams.digits(-12)).toBe("−12");
    expect(grams.fine(-0.25)).toBe("−0.3\u00a0g");
  });
  it("of a mean has one decimal more", () => {
    expect(grams.fine(85)).toBe("85.0\u00a0g");
  });
});

describe("a reading in ounces", () => {
  beforeEach(() => units.set("us"));
  it("has two decimals, and three of a mean", () => {
    expect(grams.digits(85)).toBe("3.00");
    expect(grams.fine(85)).toBe("2.998\u00a0oz");
    expect(grams.reading(85)).toContain("oz");
  });
  it("is chosen for good: a new window of this browser shows ounces too", async () => {
    vi.resetModules();
    expect((await import("./units.svelte")).units.system).toBe("us");
  });
  it("goes back with one key", () => {
    units.flip();
    expect(grams.reading(85)).toBe("85\u00a0g");
  });
});
