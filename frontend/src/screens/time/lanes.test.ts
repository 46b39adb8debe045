import { describe, expect, it } from "vitest";
import type { TimedTask } from "../../lib/api/client";
import { barsOf, clock, dayName, markEvery, marksOf, rowsOf } from "./lanes";

const task = (key: string, start_min: number, end_min: number, ...lanes: string[]) =>
  ({ key, start_min, end_min, lanes }) as unknown as TimedTask;

describe("lanes of a timetable", () => {
  it("draws a task in each lane that it takes", () => {
    const bars = barsOf(
      [task("wave", -10, -5, "cook-0", "plate-0")],
      [{ key: "cook-0" }, { key: "plate-0" }],
    );
    expect(bars.map((b) => [b.lane, b.row])).toEqual([
      ["cook-0", 0],
      ["plate-0", 0],
    ]);
  });

  it("puts what overlaps below one another, and what follows in the same row", () => {
    const bars = barsOf(
      [
        task("a", 0, 10, "waits"),
        task("b", 5, 20, "waits"),
        task("c", 10, 15, "waits"),
        task("d", 16, 18, "waits"),
      ],
      [{ key: "waits" }],
    );
    expect(bars.map((b) => [b.task.key, b.row])).toEqual([
      ["a", 0],
      ["b", 1],
      ["c", 0],
      ["d", 0],
    ]);
    expect(rowsOf(bars, "waits")).toBe(2);
    expect(rowsOf(bars, "empty")).toBe(1);
  });

  it("marks whole steps of the clock, none nearer than a label is wide", () => {
    expect(marksOf(-100, 0, 1110, 30)).toEqual([-90, -60, -30, 0]);
    expect(marksOf(-100, 0, 1105, 30)).toEqual([-85, -55, -25]);
    for (const span of [30, 90, 300, 900, 3000])
      expect((700 * markEvery(span, 700)) / span).toBeGreaterThanOrEqual(span > 2000 ? 50 : 52);
  });

  it("shows minutes from serving on the clock, over midnight too", () => {
    expect(clock(0, 1110)).toBe("18:30");
    expect(clock(-1120, 1110)).toBe("23:50");
    expect(clock(400, 1110)).toBe("01:10");
  });

  it("names days before", () => {
    expect([0, -1, -3].map(dayName)).toEqual(["", "the day before", "3 days before"]);
  });
});
