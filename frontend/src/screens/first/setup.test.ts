/** The first questions: answers as they stand, for the core to complete. */
import { describe, expect, it } from "vitest";
import { SetUp } from "./setup.svelte";

describe("setting a kitchen up", () => {
  it("has a pan and an oven until something else is said", () => {
    expect(new SetUp().body().surfaces.map((s) => s.kind)).toEqual(["pan", "oven"]);
  });
  it("sends only what is there, with what was typed of it, and of a pan its width alone", () => {
    const setUp = new SetUp();
    for (const thing of setUp.things) {
      thing.has = thing.kind === "pan" || thing.kind === "grate";
      thing.width = "48 cm";
      thing.depth = "35 cm";
    }
    expect(setUp.body().surfaces).toEqual([
      { kind: "pan", width: "48 cm", depth: "" },
      { kind: "grate", width: "48 cm", depth: "35 cm" },
    ]);
  });
  it("with nothing to cook on sends none, and the core says so", () => {
    const setUp = new SetUp();
    for (const thing of setUp.things) thing.has = false;
    expect(setUp.body().surfaces).toEqual([]);
  });
  it.each([
    ["US", "us", "USD"],
    ["CA", "metric", "CAD"],
    ["UK", "metric", "GBP"],
    ["other", "metric", "EUR"],
  ] as const)("in %s thinks in %s and offers %s", (country, system, money) => {
    const setUp = new SetUp();
    setUp.country = country;
    setUp.countryChanged();
    expect([setUp.unit_system, setUp.currency]).toEqual([system, money]);
    // Offered is not said: the money stays empty until it is typed.
    expect(setUp.body()).toMatchObject({ country, unit_system: system, currency_code: "" });
  });
});
