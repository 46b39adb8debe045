import { describe, expect, it } from "vitest";
import { amount, percent, phrase, time, type Display } from "./format";

const metric: Display = { system: "metric", currency: "KSC" };
const us: Display = { system: "us", currency: "KSC" };

describe("amounts", () => {
  it("sets grams in both systems", () => {
    expect(amount({ kind: "mass_g", value: 3400 }, metric)).toBe("3400\u00a0g");
    expect(amount({ kind: "mass_g", value: 34000 }, metric)).toBe("34\u202f000\u00a0g");
    expect(amount({ kind: "mass_g", value: 566.99 }, us)).toBe("20.0\u00a0oz");
    expect(amount({ kind: "mass_g", value: 1000 }, us)).toBe("2\u00a0lb 3.3\u00a0oz");
  });
  it("never shows sixteen ounces beside a pound", () => {
    expect(amount({ kind: "mass_g", value: 453.59237 * 3 - 0.4 }, us)).toBe("3\u00a0lb 0.0\u00a0oz");
  });
  it("keeps the tenth of a floor in °C and drops it in °F", () => {
    expect(amount({ kind: "temp_c", value: 71.1111 }, metric)).toBe("71.1\u00a0°C");
    expect(amount({ kind: "temp_c", value: 71.1111 }, us)).toBe("160\u00a0°F");
  });
  it("does not add the 32 to a difference", () => {
    expect(amount({ kind: "delta_temp_k", value: 10 }, us)).toBe("18\u00a0°F");
  });
  it("joins a range with one unit", () => {
    expect(amount({ kind: "frac", value: 0.19, high: 0.27 }, metric)).toBe("19–27\u00a0%");
    expect(amount({ kind: "temp_c", value: 60.001, high: 60.002 }, metric)).toBe("60\u00a0°C");
  });
  it("says parts to a hundred of meat, small ones finer and large ones whole", () => {
    const per = (value: number) => amount({ kind: "per_hundred", value }, metric);
    expect([0, 0.003, 0.08, 1.3].map(per)).toEqual(["0", "0.30", "8.0", "130"]);
  });
  it("says minutes, from four hours on as hours", () => {
    expect(amount({ kind: "minutes", value: 50, high: 70 }, metric)).toBe("50–70\u00a0min");
    expect(amount({ kind: "minutes", value: 300 }, metric)).toBe("5\u00a0h");
  });
  it("says energy and sodium", () => {
    expect(amount({ kind: "energy_kcal", value: 270.6 }, metric)).toBe("271\u00a0kcal");
    expect(amount({ kind: "mass_mg", value: 962.4 }, us)).toBe("962\u00a0mg");
  });
  it("keeps one decimal on every row of a column", () => {
    expect([0.26, 0.2599, 0.255].map(percent)).toEqual(["26.0\u00a0%", "26.0\u00a0%", "25.5\u00a0%"]);
  });
  it("writes lean before fat", () => {
    expect(amount({ kind: "lean_to_fat", value: 0.2249 }, metric)).toBe("78\u00a0:\u00a022");
  });
});

describe("phrases", () => {
  it("does not read places inside a cook's own words", () => {
    const text = {
      text: "{meat} is {m}",
      amounts: { meat: { kind: "word", value: 0, text: "{m}" }, m: { kind: "count", value: 3 } },
    } as const;
    expect(phrase(text, metric)).toBe("{m} is 3");
  });
});

describe("time", () => {
  it("carries seconds into minutes and hours", () => {
    expect(time(59.6)).toBe("1:00");
    expect(time(3661)).toBe("1:01:01");
  });
});
