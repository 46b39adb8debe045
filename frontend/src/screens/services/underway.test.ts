/** A service under way in a window: what is said is kept, can be taken back, and goes to the core as minutes. */
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Service, Timetable } from "../../lib/api/client";
import { FakeServer } from "../../lib/testing/fakeServer";
import type { UnderwayBench as UnderwayBenchClass } from "./underway.svelte";

const SERVICE = {
  name: "Friday",
  day: "2026-12-04",
  dishes: [{ formula_id: 1, guests: 20 }],
  timing: { ready_min: 1110, cooks: 1, opens_min: -1, own: [], pins: [] },
} as unknown as Service;
const PLANNED = {
  tasks: [{ key: "mix", start_min: -60, end_min: -50, lanes: ["cook-0"] }],
} as unknown as Timetable;

let UnderwayBench: typeof UnderwayBenchClass;
let run: UnderwayBenchClass;
beforeEach(async () => {
  new FakeServer();
  vi.useFakeTimers();
  vi.setSystemTime(new Date(2026, 11, 4, 17, 40));
  ({ UnderwayBench } = await import("./underway.svelte"));
  run = new UnderwayBench(3, SERVICE);
});
afterEach(() => {
  run.close();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe("a service under way", () => {
  it("knows the minute and goes with the clock", () => {
    expect(run.now).toBe(-50);
    expect(run.clock).toBe("17:40");
    vi.setSystemTime(new Date(2026, 11, 4, 17, 42));
    vi.advanceTimersByTime(5000);
    expect(run.now).toBe(-48);
    expect(run.clock).toBe("17:42");
  });
  it("stamps what is said with the minute it is said at, though the clock has not ticked", () => {
    vi.setSystemTime(new Date(2026, 11, 4, 17, 45, 3));
    run.begin("mix");
    vi.setSystemTime(new Date(2026, 11, 4, 17, 52));
    run.end("mix", 10);
    expect(run.marks).toEqual([{ task: "mix", begun_min: -45, ended_min: -38, until_min: null }]);
  });
  it("puts a longer task's end after the end that is planned now", () => {
    run.begin("mix");
    run.longer("mix", -40, 15);
    expect(run.question(PLANNED, "metric").marks).toEqual([
      { task: "mix", begun_min: -50, ended_min: null, still_min: 25 },
    ]);
  });
  it("takes back one thing after the other, and only what was said in this window", () => {
    run.begin("mix");
    run.begin("mix");
    run.end("mix", 10);
    run.takeBack();
    expect(run.marks[0]?.ended_min).toBeNull();
    run.takeBack();
    expect(run.marks).toEqual([]);
    expect(run.canTakeBack).toBe(false);
    run.takeBack();
    expect(run.marks).toEqual([]);
  });
  it("is found again after a reload, and on another day begins anew", () => {
    run.begin("mix");
    run.close();
    const again = new UnderwayBench(3, SERVICE);
    expect(again.marks).toHaveLength(1);
    const next = new UnderwayBench(3, { ...SERVICE, day: "2026-12-11" });
    expect(next.marks).toEqual([]);
    again.close();
    next.close();
  });
  it("begins the evening again, and that can be taken back", () => {
    run.begin("mix");
    run.forget();
    expect(run.marks).toEqual([]);
    run.takeBack();
    expect(run.marks).toHaveLength(1);
  });
});
