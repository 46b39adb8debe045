/** What is said of tasks under way: minutes from the plate, nothing lost, nothing in the future. */
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Timetable } from "../../lib/api/client";
import { FakeServer } from "../../lib/testing/fakeServer";
import { asked, begin, end, findMarks, keepMarks, longer, minuteNow, type Mark } from "./marks";

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

describe("the minute now", () => {
  it("counts from the hour on the plate of the service's day", () => {
    expect(minuteNow("2026-12-04", 1110, new Date(2026, 11, 4, 18, 0))).toBe(-30);
    expect(minuteNow("2026-12-04", 1110, new Date(2026, 11, 4, 18, 30, 59))).toBe(0);
    expect(minuteNow("2026-12-04", 1110, new Date(2026, 11, 3, 18, 30))).toBe(-1440);
    expect(minuteNow("2026-12-04", 1110, new Date(2026, 11, 4, 18, 29, 59))).toBe(-1);
  });
  it("is of today where the service has no day", () => {
    expect(minuteNow("", 1110, new Date(2026, 5, 1, 19, 0))).toBe(30);
  });
});

describe("what is said", () => {
  it("begins a task once", () => {
    const one = begin([], "mix", -40);
    expect(one).toEqual([{ task: "mix", begun_min: -40, ended_min: null, until_min: null }]);
    expect(begin(one, "mix", -30)).toBe(one);
  });
  it("ends what runs where it began, and keeps an end that was said", () => {
    const ended = end([mark("mix")], "mix", -20, 10);
    expect(ended).toEqual([mark("mix", { ended_min: -20 })]);
    expect(end(ended, "mix", 0, 10)).toBe(ended);
  });
  it("takes what nobody had begun as begun so long before as it takes", () => {
    expect(end([], "mix", -20, 12)).toEqual([mark("mix", { begun_min: -32, ended_min: -20 })]);
    expect(end([], "mix", -20, -5)).toEqual([mark("mix", { begun_min: -20, ended_min: -20 })]);
  });
  it("says longer only of what runs", () => {
    const marks = [mark("mix"), mark("grind", { ended_min: -5 })];
    expect(longer(marks, "mix", 3)[0]?.until_min).toBe(3);
    expect(longer(marks, "grind", 3)).toEqual(marks);
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

describe("what is kept in this browser", () => {
  let server: FakeServer;
  beforeEach(() => (server = new FakeServer()));
  afterEach(() => vi.unstubAllGlobals());
  it("is found again for its own service and day, and gone when nothing is said", () => {
    keepMarks(3, "2026-12-04", [mark("mix")]);
    expect(findMarks(3, "2026-12-04")).toEqual([mark("mix")]);
    expect(findMarks(3, "2026-12-11")).toEqual([]);
    expect(findMarks(4, "2026-12-04")).toEqual([]);
    keepMarks(3, "2026-12-04", []);
    expect(server.local.length).toBe(0);
  });
  it("that is damaged breaks nothing", () => {
    const key = "vianda.underway.3.2026-12-04";
    for (const damaged of ["{half", "7", "null", '[{"task": 1}]', '[{"task":"mix","begun_min":"x"}]']) {
      server.local.setItem(key, damaged);
      expect(findMarks(3, "2026-12-04")).toEqual([]);
    }
  });
  it("that cannot be kept still stands in the window", () => {
    vi.stubGlobal("localStorage", {
      getItem: () => null,
      removeItem: () => undefined,
      setItem: () => {
        throw new DOMException("full", "QuotaExceededError");
      },
    });
    expect(() => keepMarks(3, "", [mark("mix")])).not.toThrow();
  });
});
