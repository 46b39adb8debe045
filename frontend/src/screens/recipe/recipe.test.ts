/** A pasted recipe: read after a pause, corrected line by line, kept once, and never by an older answer. */
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { FakeServer, problem } from "../../lib/testing/fakeServer";
import type { RecipeState as RecipeStateClass } from "./recipe.svelte";

let server: FakeServer;
let state: RecipeStateClass;
let hold: (() => void) | null;
const settle = (ms = 0) => vi.advanceTimersByTimeAsync(ms);
const asked = () => server.asked.filter((a) => a.path === "/recipe/read").map((a) => a.body);

beforeEach(async () => {
  vi.useFakeTimers();
  server = new FakeServer();
  hold = null;
  const { RecipeState } = await import("./recipe.svelte");
  state = new RecipeState();
  server.on("POST", "/recipe/read", async ({ body }) => {
    const { text } = body as { text: string };
    if (text.startsWith("slow")) await new Promise<void>((done) => (hold = done));
    if (text.includes("too much")) return problem(422, "a recipe has at most 200 lines");
    const plain = text.startsWith("{") ? "500 g chuck\n10 g salt" : text;
    const lines = plain
      .split("\n")
      .map((line) => ({ line, became: line.includes("?") ? "waiting" : "meat" }));
    return { status: 200, body: { text: plain, recipe: { lines } } };
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe("a pasted recipe", () => {
  it("is read a moment after the last change, once", async () => {
    state.write("500 g");
    await settle(200);
    state.write("500 g chuck");
    await settle(400);
    expect(asked()).toEqual([{ text: "500 g chuck", summary: "", unit_system: "metric" }]);
    expect(state.asking).toBe(false);
  });
  it("tells which lines wait for an answer", async () => {
    state.write("500 g chuck\na bit of ?");
    await settle(400);
    expect(state.waiting.map((w) => (w as unknown as { line: string }).line)).toEqual(["a bit of ?"]);
  });
  it("that is emptied is gone at once and asks nothing", async () => {
    state.write("500 g chuck");
    await settle(400);
    state.write("   ");
    await settle(400);
    expect([state.read, state.problem, state.asking]).toEqual([null, null, false]);
    expect(asked()).toHaveLength(1);
  });
  it("has another summary when it is another text, and keeps its text when the summary is corrected", async () => {
    state.write("500 g chuck");
    await settle(400);
    state.correct("serves 8");
    await settle();
    expect(asked().at(-1)).toMatchObject({ text: "500 g chuck", summary: "serves 8" });
    state.write("700 g chuck");
    await settle(400);
    expect(asked().at(-1)).toMatchObject({ text: "700 g chuck", summary: "" });
  });
  it("is said otherwise line by line, and a line can be left out", async () => {
    state.write("500 g chuck\na knob\n10 g salt");
    state.rewrite(1, "20 g butter");
    await settle();
    expect(state.text).toBe("500 g chuck\n20 g butter\n10 g salt");
    state.rewrite(1, "");
    await settle();
    expect(state.text).toBe("500 g chuck\n10 g salt");
    // The pause of the first writing is not waited for any more.
    await settle(1000);
    expect(asked()).toHaveLength(2);
  });
  it("in JSON becomes the lines it holds", async () => {
    state.write('{"name": "x"}');
    await settle(400);
    expect(state.text).toBe("500 g chuck\n10 g salt");
  });
  it("answered late neither overtakes a newer text nor writes over it", async () => {
    state.write("slow old");
    await settle(400);
    state.write("500 g chuck");
    await settle(400);
    hold?.();
    await settle();
    expect(state.text).toBe("500 g chuck");
    expect(state.read?.text).toBe("500 g chuck");
  });
  it("that is refused says why and leaves what was read before on the screen", async () => {
    state.write("500 g chuck");
    await settle(400);
    state.write("too much");
    await settle(400);
    expect(state.problem).toBe("a recipe has at most 200 lines");
    expect(state.read?.text).toBe("500 g chuck");
    state.write("600 g chuck");
    await settle(400);
    expect(state.problem).toBeNull();
  });
});

describe("a file", () => {
  it("is read as its text", async () => {
    await state.open(new File(["500 g chuck"], "r.txt"));
    await settle(400);
    expect(asked()).toHaveLength(1);
  });
  it("that is too large is refused by its size, before it is read", async () => {
    await state.open(new File(["x".repeat(150_001)], "r.txt"));
    await settle(400);
    expect(state.problem).toBe("The file has 150 kB; a recipe has at most 150 kB.");
    expect(asked()).toEqual([]);
    await state.open(new File(["x".repeat(150_000)], "r.txt"));
    await settle(400);
    expect(asked()).toHaveLength(1);
  });
});

describe("keeping it", () => {
  it("gives the number of its formula and counts once", async () => {
    server.on("POST", "/recipe/keep", () => ({ status: 201, body: { id: 12 } }));
    state.write("500 g chuck");
    expect(await state.keep()).toBe(12);
    expect(state.busy).toBe(false);
    expect(server.asked.at(-1)?.token).not.toBe("");
  });
  it("that is refused says why and gives none", async () => {
    server.on("POST", "/recipe/keep", () => problem(422, "settle the lines that wait first"));
    state.write("500 g ?");
    expect(await state.keep()).toBeNull();
    expect([state.problem, state.busy]).toEqual(["settle the lines that wait first", false]);
  });
});
