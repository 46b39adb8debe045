/** What is said of tasks under way: the cases of the core, minutes from the plate, nothing in the future. */
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { RunEvent, Timetable } from "../../lib/api/client";
import cases from "../../../../tests/fixtures/run-events.json";
import { FakeServer } from "../../lib/testing/fakeServer";
import { asked, marksOf, minuteNow, shownBy, takeOldMarks, type Mark } from "./marks";

const mark = (task: string, more: Partial<Mark> = {}): Mark => ({
  task,
  begun_min: -30,
  ended_min: null,
  until_min: null,
  ...more,
});
const PLANNED = {
  tasks: [{ key: "mix", start_min: -60, end_min: -50, lanes: ["cook-0"] }],
} as unknown as Timetable;
interface Case {
  what: string;
  events: RunEvent[];
  marks: Mark[];
}
const CASES = cases as Case[];

describe("the minute now", () => {
  it("counts from the hour on the plate of the service's day", () => {
    expect(minuteNow("2026-12-04", 1110, new Date(2026, 11, 4, 18, 0))).toBe(-30);
    expect(minuteNow("2026-12-04", 1110, new Date(2026, 11, 4, 18, 30, 59))).toBe(0);
    expect(minuteNow("2026-12-04", 1110, new Date(2026, 11, 3, 18, 30))).toBe(-1440);
    expect(minuteNow("2026-12-04", 1110, new Date(2026, 11, 4, 18, 29, 59))).toBe(-1);
  });
});

describe("what stands", () => {
  it.each(CASES)("is drawn as the core has it: $what", ({ events, marks }) => {
    expect(marksOf(events)).toEqual(marks);
  });
  it("is shown at once on the tasks as they were answered last", () => {
    const tasks = ["mix", "grind", "chill", "cut"].map((key) => ({ key, status: "to-do" }));
    const marks = [mark("mix"), mark("grind", { ended_min: -5 })];
    expect(shownBy(tasks, marks).map((t) => t.status)).toEqual(["running", "done", "to-do", "to-do"]);
    // Taken back, what the core still calls done is to do again.
    expect(shownBy([{ key: "cut", status: "done" }], []).map((t) => t.status)).toEqual(["to-do"]);
  });
});

describe("what the core is asked", () => {
  it("turns the hour said into minutes left, and never less than none", () => {
    const marks = [mark("mix", { until_min: -10 }), mark("grind", { until_min: -25 }), mark("chill")];
    expect(asked(marks, -20, PLANNED).marks.map((m) => m.still_min)).toEqual([10, 0, null]);
  });
  it("holds no mark that lies after now, though the clock was set back", () => {
    const marks = [mark("mix", { begun_min: 5 }), mark("grind", { begun_min: -9, ended_min: 5 })];
    expect(asked(marks, -20, PLANNED).marks).toMatchObject([
      { begun_min: -20, ended_min: null },
      { begun_min: -20, ended_min: -20 },
    ]);
  });
  it("says where each task stood", () => {
    expect(asked([], -20, PLANNED).stood).toEqual([
      { task: "mix", start_min: -60, end_min: -50, lanes: ["cook-0"] },
    ]);
  });
});

describe("what a version before kept in this browser", () => {
  let server: FakeServer;
  const KEY = "vianda.underway.3.2026-12-04";
  beforeEach(() => (server = new FakeServer()));
  afterEach(() => vi.unstubAllGlobals());
  it("is found once, for its own service and day", () => {
    server.local.setItem(KEY, JSON.stringify([mark("mix")]));
    expect(takeOldMarks(3, "2026-12-11")).toEqual([]);
    expect(takeOldMarks(4, "2026-12-04")).toEqual([]);
    expect(takeOldMarks(3, "2026-12-04")).toEqual([mark("mix")]);
    expect(takeOldMarks(3, "2026-12-04")).toEqual([]);
  });
  it.each(["{half", "7", "null", '[{"task": 1}]', '[{"task":"mix","begun_min":"x"}]'])(
    "and is damaged breaks nothing: %s",
    (damaged) => {
      server.local.setItem(KEY, damaged);
      expect(takeOldMarks(3, "2026-12-04")).toEqual([]);
    },
  );
});
