import { describe, expect, it } from "vitest";
import type { Tasting } from "../../lib/api/client";
import { chosen, KINDS, letter, ranked } from "./tastings";

const sheet = (answers: { taster: number; codes: number[] }[]) =>
  ({ tasting: { kind: "paired", answers } }) as unknown as Tasting;

describe("answers of a tasting", () => {
  it("takes one a taster, the newest", () => {
    expect(chosen(sheet([{ taster: 1, codes: [123] }]), 1, 456)).toEqual([{ taster: 1, codes: [456] }]);
    expect(chosen(sheet([{ taster: 1, codes: [123] }]), 2, 456)).toHaveLength(2);
  });
  it("is taken back by tapping it again", () => {
    expect(chosen(sheet([{ taster: 1, codes: [123] }]), 1, 123)).toEqual([]);
  });
  it("ranks in the order of the taps", () => {
    expect(ranked(ranked(ranked([], 3), 1), 2)).toEqual([3, 1, 2]);
    expect(ranked([3, 1, 2], 1)).toEqual([3, 2]);
  });
  it("names versions by letters and every kind by its question", () => {
    expect([0, 1, 4, 9].map(letter)).toEqual(["A", "B", "E", "?"]);
    expect(Object.values(KINDS).every((kind) => kind.asks.length > 0 && kind.for.endsWith("?"))).toBe(true);
  });
});
