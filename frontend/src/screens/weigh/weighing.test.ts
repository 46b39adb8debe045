/** Check-weighing: the display as it streams, a line that drops, presses that wait with what was seen. */
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { FakeServer, newWindow, problem } from "../../lib/testing/fakeServer";
import type { WeighingRun as WeighingRunClass } from "./weighing.svelte";

class FakeStream {
  static readonly CLOSED = 2;
  static all: FakeStream[] = [];
  readyState = 1;
  onmessage: ((event: { data: string }) => void) | null = null;
  constructor(readonly path: string) {
    FakeStream.all.push(this);
  }
  close(): void {
    this.readyState = FakeStream.CLOSED;
  }
  tell(display: object): void {
    this.onmessage?.({ data: JSON.stringify(display) });
  }
}

interface Act {
  action: string;
  token: string;
  about: number | null;
  seen_g: number | null;
  late_s: number;
}
let server: FakeServer;
let WeighingRun: typeof WeighingRunClass;
let acts: Act[];
let away: boolean;
let newest: number;
const settle = (ms = 0) => vi.advanceTimersByTimeAsync(ms);
const stream = () => FakeStream.all.at(-1)!;
const shown = (grams: number, state = "steady") => ({ newest, reading: { shown_g: grams, state } });

async function opened(): Promise<WeighingRunClass> {
  const run = new WeighingRun(4);
  await run.open();
  return run;
}

beforeEach(async () => {
  vi.useFakeTimers({
    toFake: ["setTimeout", "clearTimeout", "setInterval", "clearInterval", "performance", "Date"],
  });
  server = new FakeServer();
  vi.stubGlobal("EventSource", FakeStream);
  FakeStream.all = [];
  acts = [];
  away = false;
  newest = 0;
  ({ WeighingRun } = await import("./weighing.svelte"));
  const answer = () => ({ status: 200, body: { id: 4, newest, kept: acts.length } });
  server.on("GET", "/weighings/4", () => (away ? "away" : answer()));
  server.on("GET", "/weighings/4/display", () => (away ? "away" : { status: 200, body: shown(85) }));
  server.on("POST", "/weighings/4/actions", ({ body }) => {
    if (away) return "away";
    const act = body as Act;
    if (act.action === "tare" && act.about === 99) return problem(422, "nothing lies on it");
    if (!acts.some((a) => a.token === act.token)) {
      acts.push(act);
      newest += 1;
    }
    return answer();
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe("a run of check-weighing", () => {
  it("shows the scale as it streams", async () => {
    const run = await opened();
    stream().tell(shown(85));
    expect(run.display?.reading.shown_g).toBe(85);
    stream().tell(shown(86, "moving"));
    expect(run.display?.reading).toEqual({ shown_g: 86, state: "moving" });
    run.close();
    expect(stream().readyState).toBe(FakeStream.CLOSED);
  });
  it("that does not exist is said, and opens no stream", async () => {
    server.on("GET", "/weighings/4", () => problem(404, "no weighing 4"));
    const run = await opened();
    expect(run.missing).toBe(true);
    expect(FakeStream.all).toEqual([]);
  });
  it("keeps what was seen when the key was pressed", async () => {
    const run = await opened();
    stream().tell(shown(85));
    run.act("keep");
    stream().tell(shown(120));
    await settle();
    expect(acts).toMatchObject([{ action: "keep", seen_g: 85 }]);
    run.close();
  });
  it("takes over what another window did", async () => {
    const run = await opened();
    const before = server.count("GET", "/weighings/4");
    newest = 3;
    stream().tell(shown(85));
    await settle();
    expect(server.count("GET", "/weighings/4")).toBe(before + 1);
    expect(run.run?.newest).toBe(3);
    stream().tell(shown(85));
    await settle();
    expect(server.count("GET", "/weighings/4")).toBe(before + 1);
    run.close();
  });
  it("says why something was refused and goes on with what waits behind it", async () => {
    const run = await opened();
    stream().tell(shown(85));
    run.act("tare", 99);
    run.act("keep");
    await settle();
    expect(run.problem).toBe("nothing lies on it");
    expect(acts.map((a) => a.action)).toEqual(["keep"]);
    run.close();
  });
});

describe("a line that drops", () => {
  it("is noticed by its silence, asked for, and opened again", async () => {
    const run = await opened();
    stream().tell(shown(85));
    away = true;
    await settle(4000);
    expect(run.away).toBe(true);
    away = false;
    stream().close();
    await settle(2000);
    expect(run.away).toBe(false);
    expect(FakeStream.all.length).toBeGreaterThan(1);
    run.close();
  });
  it("lets a steady reading wait, once, and sends it with how long ago that was", async () => {
    const run = await opened();
    stream().tell(shown(85));
    away = true;
    run.act("keep");
    await settle();
    expect(run.away).toBe(true);
    run.act("keep");
    expect(run.problem).toBe("This reading waits to be sent already.");
    run.act("count");
    await settle(10_000);
    expect(run.waiting.map((w) => w.action)).toEqual(["keep", "count"]);
    away = false;
    await settle(3000);
    expect(acts.map((a) => [a.action, a.seen_g])).toEqual([
      ["keep", 85],
      ["count", null],
    ]);
    expect(acts[0]!.late_s).toBeGreaterThan(9);
    expect(run.waiting).toEqual([]);
    run.close();
  });
  it("lets nothing be done to the scale, and keeps no reading that had not settled", async () => {
    const run = await opened();
    stream().tell(shown(85, "moving"));
    away = true;
    await settle(4000);
    run.act("tare");
    expect(run.problem).toBe("The scale does not answer just now.");
    run.act("keep");
    expect(run.problem).toContain("had not settled");
    expect(run.waiting).toEqual([]);
    run.close();
  });
  it("and a reload lose nothing, and what had arrived counts once", async () => {
    const run = await opened();
    stream().tell(shown(85));
    away = true;
    run.act("keep");
    await settle();
    run.close();
    newWindow(server);
    away = false;
    const again = await opened();
    await settle();
    expect(acts).toHaveLength(1);
    expect(again.waiting).toEqual([]);
    again.close();
  });
});
