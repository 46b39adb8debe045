/** A search tells how far it is, is stopped by hand, and begins again; the line ends when it is stopped. */
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { api, ProblemError, type Looking } from "./api/client";
import { Search } from "./search.svelte";
import { FakeServer } from "./testing/fakeServer";

let signals: AbortSignal[];
let looks: ((far: Looking) => void)[];
let finish: ((answer: string) => void)[];
const search = () =>
  new Search<string, string>((_, signal, look) => {
    signals.push(signal);
    looks.push(look);
    return new Promise((done) => finish.push(done));
  });
const settle = (ms = 0) => vi.advanceTimersByTimeAsync(ms);

beforeEach(() => {
  vi.useFakeTimers();
  [signals, looks, finish] = [[], [], []];
});
afterEach(() => vi.useRealTimers());

it("tells how far it is, and nothing of a search that was overtaken", async () => {
  const found = search();
  found.ask("a");
  await settle();
  looks[0]?.({ plans: 2, seconds: 0.5 });
  expect(found.looking?.plans).toBe(2);
  found.ask("b");
  expect(found.looking).toBeNull();
  looks[0]?.({ plans: 3, seconds: 0.8 });
  expect(found.looking).toBeNull();
});

it("that is stopped hangs up, keeps what stood, and looks again for the same when it is told to", async () => {
  const found = search();
  found.ask("a");
  await settle();
  finish[0]?.("A");
  await settle(500);
  found.ask("b");
  await settle();
  found.stop();
  expect(signals[1]?.aborted).toBe(true);
  expect([found.value, found.busy, found.stopped]).toEqual(["A", false, true]);
  finish[1]?.("B");
  await settle(500);
  expect(found.value).toBe("A");
  found.again();
  await settle();
  expect([found.busy, found.stopped]).toEqual([true, false]);
  finish[2]?.("B");
  await settle();
  expect([found.value, found.busy]).toEqual(["B", false]);
});

it("comes over the line: how far, then the answer; a refusal at its end is a refusal, a broken line is one away", async () => {
  vi.useRealTimers();
  const server = new FakeServer();
  const far: number[] = [];
  const ask = () => api.planService({} as never, "metric", (l) => far.push(l.plans));
  server.lines("/services/plan", [{ looking: { plans: 3, seconds: 0.6 } }, { found: { dishes: [] } }]);
  expect(await ask()).toEqual({ dishes: [] });
  expect(far).toEqual([3]);
  server.lines("/services/plan", [
    { looking: { plans: 3, seconds: 0.6 } },
    { problem: { status: 422, detail: "not so", fields: [] } },
  ]);
  await expect(ask()).rejects.toThrow("not so");
  server.lines("/services/plan", [{ looking: { plans: 3, seconds: 0.6 } }]);
  const broken = await ask().catch((error: unknown) => error);
  expect(broken instanceof ProblemError && broken.away).toBe(true);
});
