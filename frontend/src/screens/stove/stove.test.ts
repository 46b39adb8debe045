/** At the stove: where the cook stands, by the server's clock, with reports that wait for a lost line. */
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { FakeServer, problem } from "../../lib/testing/fakeServer";
import { Stove } from "./stove.svelte";

interface Event {
  token: string;
  kind: string;
  place: number;
  value: number | null;
  since_start_s: number;
}
const step = (title: string, timer_s = 0) => ({
  kind: "first-side",
  title,
  cue: { text: "", amounts: {} },
  done_word: "Done",
  timer_s,
  check_from_s: timer_s / 2,
});
const plan = {
  stove: {
    at_once: 4,
    first_wave: 4,
    waves: 2,
    last_wave: 3,
    before: [step("Heat")],
    each_wave: [step("Lay on {n}"), step("First side", 90), step("Second side", 45)],
    after: [step("Rest", 60)],
  },
};
let server: FakeServer;
let events: Event[];
let away = false;
let elapsed = 0;

beforeEach(() => {
  vi.useFakeTimers({
    toFake: ["setTimeout", "clearTimeout", "setInterval", "clearInterval", "performance", "Date"],
  });
  server = new FakeServer();
  events = [];
  away = false;
  elapsed = 0;
  const cook = () => ({
    id: 5,
    formula_name: "Slipway smash",
    elapsed_s: elapsed,
    plan,
    events: [...events],
  });
  server.on("GET", "/cooks/5", () => (away ? "away" : { status: 200, body: cook() }));
  server.on("POST", "/cooks/5/events", ({ body }) => {
    if (away) return "away";
    const event = body as Event;
    if (event.kind === "probe" && (event.value ?? 0) > 200) return problem(422, "no core is as hot as that");
    // The same token twice counts once, as in the database.
    if (!events.some((e) => e.token === event.token)) events.push(event);
    return { status: 200, body: cook() };
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

async function stove(): Promise<Stove> {
  const made = new Stove(5);
  await made.load();
  return made;
}
const pass = (seconds: number) => vi.advanceTimersByTimeAsync(seconds * 1000);

const onTheHeat = (timer_end_s: number, moved = true) => ({
  said: 1,
  forecast: {
    metal: true,
    on_the_heat: {
      wave: 1,
      laid_s: 10,
      ends: [{ place: 2, end_s: { low: 90, usual: timer_end_s, high: 120 }, timer_end_s }],
      moved,
    },
  },
});

describe("what is foretold", () => {
  it("moves the timer of the step it speaks of, and the cook's seconds come on top", async () => {
    const s = await stove();
    s.done();
    await pass(10);
    server.on("GET", "/cooks/5/forecast", () => ({ status: 200, body: onTheHeat(70) }));
    s.done();
    await pass(1);
    // Since 10 s from the start, until 70 s from the start.
    expect(s.timerS).toBeCloseTo(60, 0);
    s.more();
    expect(s.timerS).toBeCloseTo(75, 0);
    s.done();
    await pass(1);
    expect(s.current?.step.title).toBe("Second side");
    expect(s.timerS).toBe(45);
  });
  it("leaves the plan's times where nothing has moved, or no forecast comes", async () => {
    server.on("GET", "/cooks/5/forecast", () => ({ status: 200, body: onTheHeat(70, false) }));
    const s = await stove();
    s.done();
    s.done();
    await pass(1);
    expect(s.timerS).toBe(90);
    server.on("GET", "/cooks/5/forecast", () => "away");
    s.read("core", 40);
    await pass(1);
    expect(s.timerS).toBe(90);
    expect(s.problem).toBeNull();
  });
  it("that was asked for earlier and comes later does not count", async () => {
    const s = await stove();
    s.done();
    await pass(10);
    let release: (() => void) | undefined;
    server.on(
      "GET",
      "/cooks/5/forecast",
      () => new Promise((done) => (release = () => done({ status: 200, body: onTheHeat(500) }))),
    );
    s.done();
    await pass(1);
    server.on("GET", "/cooks/5/forecast", () => ({ status: 200, body: onTheHeat(70) }));
    s.read("core", 40);
    await pass(1);
    release?.();
    await pass(1);
    expect(s.timerS).toBeCloseTo(60, 0);
  });
  it("reads the surface until a wave is on, then cores", async () => {
    const s = await stove();
    expect(s.reads).toBe("surface");
    s.read("surface", 228);
    s.done();
    s.done();
    await pass(1);
    expect(s.reads).toBe("core");
    expect(events.map((e) => e.kind)).toEqual(["surface", "done", "done"]);
  });
  it("counts down to a surface that is hot enough", async () => {
    server.on("GET", "/cooks/5/forecast", () => ({
      status: 200,
      body: {
        said: 1,
        forecast: {
          metal: true,
          surface: { place: 1, hot_at_s: 60, message: { text: "It reads 190.", amounts: {} } },
        },
      },
    }));
    const s = await stove();
    await pass(20);
    expect(s.hotInS).toBeCloseTo(40, 0);
    s.done();
    await pass(41);
    expect(s.hotInS ?? 1).toBeLessThanOrEqual(0);
    s.done();
    expect(s.surface).toBeNull();
  });
});

describe("the plan", () => {
  it("is laid out wave by wave, the last one smaller", async () => {
    const s = await stove();
    expect(s.places.map((p) => p.step.title)).toEqual([
      "Heat",
      "Lay on {n}",
      "First side",
      "Second side",
      "Lay on {n}",
      "First side",
      "Second side",
      "Rest",
    ]);
    expect(s.places.map((p) => p.count)).toEqual([4, 4, 4, 4, 3, 3, 3, 3]);
  });
  it("ends when every place is done", async () => {
    const s = await stove();
    for (let at = 0; at < 8; at++) {
      s.done();
      await pass(1);
    }
    expect(s.over).toBe(true);
    s.back();
    await pass(1);
    expect(s.over).toBe(false);
    expect(s.current?.step.title).toBe("Rest");
  });
});

describe("timers", () => {
  it("run from when the step began and are lengthened by the knuckle", async () => {
    const s = await stove();
    s.done();
    s.done();
    await pass(30);
    expect(s.current?.step.title).toBe("First side");
    expect(s.leftS).toBeCloseTo(60, 0);
    s.more();
    await pass(0.5);
    expect(s.leftS).toBeCloseTo(74.5, 0);
    s.done();
    await pass(0.5);
    expect(s.timerS).toBe(45);
  });
  it("go by the server's clock after a reload, whatever this machine's says", async () => {
    const s = await stove();
    s.done();
    s.done();
    await pass(20);
    s.close();
    elapsed = performance.now() / 1000;
    vi.setSystemTime(new Date("2001-01-01"));
    const again = await stove();
    expect(again.current?.step.title).toBe("First side");
    expect(again.leftS).toBeCloseTo(70, 0);
  });
});

describe("a lost line", () => {
  it("does not stop the cook, and what was done is told afterwards with its own time", async () => {
    const s = await stove();
    s.done();
    await pass(1);
    away = true;
    s.done();
    await pass(25);
    s.done();
    await pass(1);
    expect(s.away).toBe(true);
    expect(s.current?.step.title).toBe("Second side");
    expect(events).toHaveLength(1);
    away = false;
    await pass(5);
    expect(s.away).toBe(false);
    expect(events.map((e) => e.place)).toEqual([0, 1, 2]);
    expect(events[2]!.since_start_s - events[1]!.since_start_s).toBeCloseTo(25, 0);
    expect(server.local.length).toBe(0);
  });
  it("that is slow does not turn round what was said", async () => {
    const s = await stove();
    let arrive: () => void = () => undefined;
    const late = new Promise<void>((done) => (arrive = done));
    const first = server.route("POST", "/cooks/5/events");
    server.on("POST", "/cooks/5/events", async (asked) => {
      await late;
      return first(asked);
    });
    await pass(1);
    s.done();
    await pass(0.5);
    s.done();
    await pass(4);
    expect(s.current?.step.title).toBe("First side");
    arrive();
    await pass(1);
    expect(events.map((e) => e.since_start_s)).toEqual([expect.closeTo(1, 1), expect.closeTo(1.5, 1)]);
    expect(s.current?.step.title).toBe("First side");
    expect(s.leftS).toBeCloseTo(90 - 5, 0);
  });
  it("survives a reload: the reports wait in this browser", async () => {
    const s = await stove();
    away = true;
    s.done();
    await pass(1);
    s.close();
    away = false;
    const again = await stove();
    await pass(3);
    expect(again.current?.step.title).toBe("Lay on {n}");
    expect(events).toHaveLength(1);
  });
  it("a report the server will never take does not block the ones behind it", async () => {
    const s = await stove();
    s.read("core", 500);
    await pass(1);
    expect(s.problem).toContain("as hot as that");
    s.done();
    await pass(1);
    expect(events.map((e) => e.kind)).toEqual(["done"]);
  });
});
