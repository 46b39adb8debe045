/** The opening line: read after a pause, at once on Enter, and an older answer never wins. */
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Edit } from "../../lib/api/client";
import { FakeServer, problem } from "../../lib/testing/fakeServer";
import type { OpeningState as OpeningStateClass } from "./opening.svelte";

let server: FakeServer;
let state: OpeningStateClass;
let hold: Record<string, () => void>;
const settle = (ms = 0) => vi.advanceTimersByTimeAsync(ms);
const opened = (line: string) => ({
  opening: { formula: { name: line }, questions: [] },
  evaluation: { of: line },
});
const lineOf = (body: unknown) => (body as { line: string }).line;
const name = () => (state.opened?.opening.formula as { name: string } | null | undefined)?.name;

beforeEach(async () => {
  vi.useFakeTimers();
  server = new FakeServer();
  hold = {};
  const { OpeningState } = await import("./opening.svelte");
  state = new OpeningState();
  server.on("POST", "/opening", async ({ body }) => {
    const line = lineOf(body);
    if (line.startsWith("slow")) await new Promise<void>((done) => (hold[line] = done));
    if (line.includes("nonsense")) return problem(422, "no meat was named");
    return { status: 200, body: opened(line) };
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe("the opening line", () => {
  it("is read a moment after the last key, once", async () => {
    for (const text of ["700", "700 g", "700 g mince"]) {
      state.type(text);
      await settle(200);
    }
    expect(server.count("POST", "/opening")).toBe(0);
    await settle(450);
    expect(server.count("POST", "/opening")).toBe(1);
    expect(name()).toBe("700 g mince");
  });
  it("is read at once on Enter, and not again after the pause", async () => {
    state.type("700 g mince");
    await state.read();
    await settle(1000);
    expect(server.count("POST", "/opening")).toBe(1);
    expect(state.busy).toBe(false);
  });
  it("that is half typed is no mistake, and is one on Enter", async () => {
    state.type("nonsense");
    await settle(500);
    expect([state.problem, state.opened]).toEqual([null, null]);
    await state.read();
    expect(state.problem).toBe("no meat was named");
  });
  it("shorter than three letters asks nothing and clears what stood there", async () => {
    await state.read();
    state.type("700 g mince");
    await settle(500);
    const before = server.asked.length;
    state.type("70");
    await settle(1000);
    expect(state.opened).toBeNull();
    expect(server.asked.length).toBe(before);
  });
  it("answered late never overtakes a newer line", async () => {
    state.type("slow mince");
    await settle(500);
    state.type("quick mince");
    await settle(500);
    expect(name()).toBe("quick mince");
    hold["slow mince"]?.();
    await settle();
    expect(name()).toBe("quick mince");
  });
  it("refused late does not take a newer answer away", async () => {
    state.type("slow nonsense");
    void state.read();
    await settle();
    state.type("quick mince");
    await settle(500);
    hold["slow nonsense"]?.();
    await settle();
    expect([name(), state.problem]).toEqual(["quick mince", null]);
  });
});

describe("a question of the opening", () => {
  const edit: Edit = { kind: "rename", name: "answered" };
  it("is answered into the formula, and marked", async () => {
    server.on("POST", "/evaluate", () => ({
      status: 200,
      body: { formula: { name: "answered" }, evaluation: { of: "answered" } },
    }));
    state.take("700 g mince");
    await settle();
    await state.answer(edit, 2);
    expect(name()).toBe("answered");
    expect(state.answered).toEqual([2]);
  });
  it("that is refused says why and leaves the formula", async () => {
    server.on("POST", "/evaluate", () => problem(422, "too fat"));
    state.take("700 g mince");
    await settle();
    await state.answer(edit, 0);
    expect([name(), state.problem, state.busy]).toEqual(["700 g mince", "too fat", false]);
    expect(state.answered).toEqual([]);
  });
  it("answered late does not bring an older line back", async () => {
    let done: () => void = () => undefined;
    server.on("POST", "/evaluate", async () => {
      await new Promise<void>((go) => (done = go));
      return { status: 200, body: { formula: { name: "answered" }, evaluation: {} } };
    });
    state.take("700 g mince");
    await settle();
    void state.answer(edit, 0);
    await settle();
    state.type("quick mince");
    await settle(500);
    done();
    await settle();
    expect(name()).toBe("quick mince");
    expect(state.answered).toEqual([]);
  });
  it("before anything was opened does nothing", async () => {
    await state.answer(edit, 0);
    expect(server.asked).toEqual([]);
  });
});
