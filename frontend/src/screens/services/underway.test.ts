/** A service under way in two windows: what is said in one is seen in the other, waits for the line, and is sent once. */
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Run, RunEvent, Said, Service, Timetable, Underway } from "../../lib/api/client";
import { FakeServer, problem } from "../../lib/testing/fakeServer";
import type * as UnderwayModule from "./underway.svelte";

const DAY = "2026-12-04";
const SERVICE = {
  name: "Friday",
  day: DAY,
  dishes: [{ formula_id: 1, guests: 20 }],
  timing: { ready_min: 1110, cooks: 1, opens_min: -1, own: [], pins: [] },
} as unknown as Service;
const PLANNED = {
  tasks: [{ key: "mix", start_min: -60, end_min: -50, lanes: ["cook-0"] }],
} as unknown as Timetable;

/** As the server writes it down. */
const kept = (said: Said): RunEvent => {
  const { token, kind, minute, task, value, of, check, who, remark } = said;
  return { token, kind, minute, task, value, of, check, who, remark, temp_c: said.temp };
};

let server: FakeServer;
let down: boolean;
let said: RunEvent[];
let module: typeof UnderwayModule;
let open: UnderwayModule.UnderwayBench[];
const run = (): Run => ({
  service_id: 3,
  day: DAY,
  number: said.length,
  changed: true,
  events: said,
  marks: [],
});
const opened = (service = SERVICE, from = run()) => {
  const bench = new module.UnderwayBench(3, service, from, "1");
  open.push(bench);
  return bench;
};
const settle = (ms = 50) => vi.advanceTimersByTimeAsync(ms);

beforeEach(async () => {
  server = new FakeServer();
  vi.stubGlobal("document", { visibilityState: "visible" });
  [down, said, open] = [false, [], []];
  server.on("POST", "/services/3/run/follow", ({ body }) => {
    if (down) return "away";
    const { known } = body as { known: number };
    return { status: 200, body: known === said.length ? { ...run(), changed: false, events: [] } : run() };
  });
  server.on("POST", "/services/3/run/events", ({ body }) => {
    if (down) return "away";
    const { event } = body as { event: RunEvent };
    if (!said.some((e) => e.token === event.token)) said = [...said, event];
    return { status: 200, body: run() };
  });
  vi.useFakeTimers();
  vi.setSystemTime(new Date(2026, 11, 4, 17, 40));
  module = await import("./underway.svelte");
});
afterEach(() => {
  for (const bench of open) bench.close();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe("a service under way", () => {
  it("knows the minute and goes with the clock", async () => {
    const bench = opened();
    expect([bench.now, bench.clock]).toEqual([-50, "17:40"]);
    vi.setSystemTime(new Date(2026, 11, 4, 17, 42));
    await settle(5000);
    expect([bench.now, bench.clock]).toEqual([-48, "17:42"]);
  });
  it("stamps what is said with the minute it is said at, though the clock has not ticked", () => {
    const bench = opened();
    vi.setSystemTime(new Date(2026, 11, 4, 17, 45, 3));
    bench.begin("mix");
    vi.setSystemTime(new Date(2026, 11, 4, 17, 52));
    bench.end("mix", 10);
    expect(bench.marks).toEqual([{ task: "mix", begun_min: -45, ended_min: -38, until_min: null }]);
  });
  it("puts a longer task's end after the end that is planned now", () => {
    const bench = opened();
    bench.begin("mix");
    bench.longer("mix", -40, 15);
    expect(bench.question(PLANNED, "metric").marks).toEqual([
      { task: "mix", begun_min: -50, ended_min: null, still_min: 25 },
    ]);
  });
  it("takes back one thing after the other, and only what was said in this window", async () => {
    const [mine, theirs] = [opened(), opened()];
    theirs.begin("grind");
    await settle(700);
    mine.begin("mix");
    mine.begin("mix");
    mine.end("mix", 10);
    mine.takeBack();
    expect(mine.marks.find((m) => m.task === "mix")?.ended_min).toBeNull();
    mine.takeBack();
    expect(mine.marks.map((m) => m.task)).toEqual(["grind"]);
    expect(mine.canTakeBack).toBe(false);
    mine.takeBack();
    expect(mine.marks.map((m) => m.task)).toEqual(["grind"]);
  });
  it("begins the evening again, and that can be taken back", () => {
    const bench = opened();
    bench.begin("mix");
    bench.forget();
    expect(bench.marks).toEqual([]);
    bench.takeBack();
    expect(bench.marks).toHaveLength(1);
  });
});

describe("two devices", () => {
  it("show within a second what the other said, and ask for nothing that they have", async () => {
    const [griller, chef] = [opened(), opened()];
    griller.begin("mix");
    await settle(1000);
    expect(chef.marks.map((m) => m.task)).toEqual(["mix"]);
    chef.end("mix", 10);
    await settle(1000);
    expect(griller.marks[0]?.ended_min).toBe(-50);
    const known = server.asked
      .filter((a) => a.path.endsWith("/follow"))
      .map((a) => (a.body as Run & { known: number }).known);
    expect(known.at(-1)).toBe(2);
  });
  it("of which nobody looks at one asks seldom", async () => {
    opened();
    vi.stubGlobal("document", { visibilityState: "hidden" });
    await settle(700);
    const before = server.count("POST", "/services/3/run/follow");
    await settle(4000);
    expect(server.count("POST", "/services/3/run/follow")).toBe(before);
  });
});

describe("the line that drops", () => {
  it("loses nothing: what was said stands, waits, and is sent in order when it is back", async () => {
    const bench = opened();
    down = true;
    bench.begin("mix");
    bench.end("mix", 10);
    await settle(1000);
    expect(bench.marks[0]?.ended_min).toBe(-50);
    expect([bench.away, said.length]).toEqual([true, 0]);
    down = false;
    await settle(5000);
    expect(said.map((e) => e.kind)).toEqual(["begin", "end"]);
    expect([bench.away, bench.outbox.items.length]).toEqual([false, 0]);
  });
  it("and a window that closes meanwhile leaves it to the next, which says it once", async () => {
    const first = opened();
    down = true;
    first.begin("mix");
    await settle();
    first.close();
    const next = opened();
    expect(next.marks.map((m) => m.task)).toEqual(["mix"]);
    // The answer to the first sending was lost: it is known already.
    said = [...next.outbox.items].map(kept);
    down = false;
    await settle(5000);
    expect(said).toHaveLength(1);
    expect(next.marks).toHaveLength(1);
  });
  it("opens the evening as it was fetched last", async () => {
    const bench = opened();
    bench.begin("mix");
    await settle();
    bench.remember(PLANNED, { tasks: [] } as unknown as Underway);
    expect(module.keptEvening("1", 3)).toMatchObject({
      service: { name: "Friday" },
      run: { number: 1 },
      planned: PLANNED,
    });
    expect(module.keptEvening("2", 3)).toBeNull();
  });
});

describe("what the server will not have", () => {
  it("is told, stands no more, and holds up nothing behind it", async () => {
    const bench = opened();
    server.on("POST", "/services/3/run/events", ({ body }) => {
      const { event } = body as { event: RunEvent };
      if (event.task === "mix") return problem(422, "At most 5000 things are said of one evening.");
      said = [...said, event];
      return { status: 200, body: run() };
    });
    bench.begin("mix");
    bench.begin("grind");
    await settle(1000);
    expect(bench.problem).toContain("5000 things");
    expect(bench.marks.map((m) => m.task)).toEqual(["grind"]);
  });
});

describe("marks of a version before", () => {
  it("are said now, once, and not where something was said already", async () => {
    const old = [
      { task: "mix", begun_min: -60, ended_min: -52, until_min: null },
      { task: "chill", begun_min: -52, ended_min: null, until_min: -20 },
    ];
    server.local.setItem(`vianda.underway.3.${DAY}`, JSON.stringify(old));
    const bench = opened();
    expect(bench.marks).toEqual([
      { task: "mix", begun_min: -60, ended_min: -52, until_min: null },
      { task: "chill", begun_min: -52, ended_min: null, until_min: -20 },
    ]);
    expect(bench.canTakeBack).toBe(false);
    await settle(1000);
    server.local.setItem(`vianda.underway.3.${DAY}`, JSON.stringify(old));
    expect(opened().marks).toHaveLength(2);
    expect(said).toHaveLength(4);
  });
});
