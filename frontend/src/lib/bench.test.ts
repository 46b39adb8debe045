/** The bench's queue: edits in order, autosave, nothing lost when the server is away, slow, or was overtaken. */
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Edit, Formula } from "./api/client";
import type { Bench as BenchClass } from "./bench.svelte";
import { hand } from "./hand";
import { FakeServer, newWindow, problem } from "./testing/fakeServer";

const formula = (name: string, guests = 20): Formula =>
  ({ name, dish: { dish: "burger", style: "smashed", guests, pieces_per_guest: 2 } }) as unknown as Formula;
const guests = (value: number): Edit => ({ kind: "set", figure: "guests", value, item: "" });
const edge = (at_frac: number): Edit => ({ kind: "move-edge", index: 0, at_frac });

// The bench reads the units kept in the browser as it is loaded, so the browser must be there first.
let Bench: typeof BenchClass;
let server: FakeServer;
let stored: { revision: number; formula: Formula };
let away = false;

beforeEach(async () => {
  server = new FakeServer();
  ({ Bench } = await import("./bench.svelte"));
  vi.useFakeTimers();
  stored = { revision: 1, formula: formula("Slipway smash") };
  away = false;
  const answer = () => ({ ...stored, id: 1, updated_at: "2026-11-24T20:00:00.000Z" });
  server.on("GET", "/formulas/1", () => (away ? "away" : { status: 200, body: answer() }));
  server.on("PUT", "/formulas/1", ({ body }) => {
    if (away) return "away";
    const { formula: sent, revision } = body as { formula: Formula; revision: number };
    if (revision !== stored.revision) return problem(409, "saved in between", { current: answer() });
    stored = { revision: revision + 1, formula: sent };
    return { status: 200, body: answer() };
  });
  server.on("POST", "/evaluate", ({ body }) => {
    if (away) return "away";
    const { formula: given, edits } = body as { formula: Formula; edits: Edit[] };
    let now = given;
    for (const edit of edits) {
      if (edit.kind === "set" && edit.value > 2000) return problem(422, "1 to 2000 guests");
      if (edit.kind === "set") now = { ...now, dish: { ...now.dish, guests: edit.value } };
      if (edit.kind === "rename") now = { ...now, name: edit.name };
      if (edit.kind === "move-edge") now = { ...now, remark: String(edit.at_frac) };
    }
    return { status: 200, body: { formula: now, evaluation: { of: now.dish.guests } } };
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

async function opened(): Promise<BenchClass> {
  const bench = new Bench(1);
  await bench.load();
  return bench;
}
const settle = (ms = 1000) => vi.advanceTimersByTimeAsync(ms);

describe("saves", () => {
  it("go one after the other on a slow line, and never conflict with themselves", async () => {
    const bench = await opened();
    const put = (asked: { body: unknown }) => {
      const { formula: sent, revision } = asked.body as { formula: Formula; revision: number };
      if (revision !== stored.revision) return problem(409, "saved in between", { current: stored });
      stored = { revision: revision + 1, formula: sent };
      return { status: 200, body: { ...stored, id: 1, updated_at: "2026-11-24T20:00:00.000Z" } };
    };
    server.on("PUT", "/formulas/1", async (asked) => {
      await new Promise((resolve) => setTimeout(resolve, 5000));
      return put(asked);
    });
    // Each is kept while the first save is still under way: two wait for it, and only one may go next.
    for (const value of [30, 31, 32, 33]) {
      bench.edit(guests(value));
      await settle(1200);
    }
    await settle(30_000);
    expect(bench.save).toBe("saved");
    expect(stored.formula.dish.guests).toBe(33);
    const puts = server.asked.filter((asked) => asked.method === "PUT");
    expect(puts.map((asked) => (asked.body as { revision: number }).revision)).toEqual([1, 2]);
  });
});

describe("edits", () => {
  it("are applied one after the other, each to the answer of the one before", async () => {
    const bench = await opened();
    bench.edit(guests(30));
    bench.edit({ kind: "rename", name: "Thirty" });
    await settle(0);
    expect(bench.formula).toMatchObject({ name: "Thirty", dish: { guests: 30 } });
    expect(bench.evaluation).toEqual({ of: 30 });
  });
  it("of one drag overtake each other and are one step back", async () => {
    const bench = await opened();
    for (const at of [0.5, 0.52, 0.55, 0.6]) bench.edit(edge(at));
    await settle(0);
    expect(bench.formula?.remark).toBe("0.6");
    expect(server.count("POST", "/evaluate")).toBeLessThan(5);
    await bench.undo();
    expect(bench.formula?.remark).toBeUndefined();
    expect(bench.canUndo).toBe(false);
  });
  it("that are refused say why at their own control and change nothing", async () => {
    const bench = await opened();
    bench.edit(guests(9999));
    await settle(0);
    expect(bench.refusal).toEqual({ target: "guests", detail: "1 to 2000 guests" });
    expect(bench.formula?.dish.guests).toBe(20);
    expect(bench.save).toBe("saved");
    bench.edit(guests(21));
    await settle(0);
    expect(bench.refusal).toBeNull();
  });
});

describe("undo and redo", () => {
  it("take a drag of a bar as one step, and another bar as the next", async () => {
    const bench = await opened();
    const bar = (value: number, item: string): Edit => ({ kind: "set", figure: "group", value, item });
    server.on("POST", "/evaluate", ({ body }) => {
      const { formula: given, edits } = body as { formula: Formula; edits: Edit[] };
      const edit = edits[0];
      const now = edit?.kind === "set" ? { ...given, remark: `${edit.item} ${edit.value}` } : given;
      return { status: 200, body: { formula: now, evaluation: {} } };
    });
    for (const value of [0.05, 0.06, 0.07]) {
      bench.edit(bar(value, "crumb"));
      await settle(20);
    }
    bench.edit(bar(0.1, "egg"));
    await settle(20);
    expect(bench.formula?.remark).toBe("egg 0.1");
    await bench.undo();
    expect(bench.formula?.remark).toBe("crumb 0.07");
    await bench.undo();
    expect(bench.formula?.remark).toBeUndefined();
  });

  it("take a drag as one step however long the hand rests in it, and what is taken hold of anew as the next", async () => {
    const bench = await opened();
    hand.take();
    bench.edit(edge(0.5));
    await settle(3000);
    bench.edit(edge(0.6));
    await settle(3000);
    hand.letGo();
    hand.take();
    bench.edit(edge(0.7));
    await settle(100);
    hand.letGo();
    expect(bench.formula?.remark).toBe("0.7");
    await bench.undo();
    expect(bench.formula?.remark).toBe("0.6");
    await bench.undo();
    expect(bench.formula?.remark).toBeUndefined();
    expect(bench.canUndo).toBe(false);
  });

  it("take what a drag still moves behind a step back as a step of its own", async () => {
    const bench = await opened();
    server.on("POST", "/evaluate", async ({ body }) => {
      const { formula: given, edits } = body as { formula: Formula; edits: Edit[] };
      await settle(300);
      const edit = edits[0];
      const now = edit?.kind === "move-edge" ? { ...given, remark: String(edit.at_frac) } : given;
      return { status: 200, body: { formula: now, evaluation: {} } };
    });
    bench.edit(edge(0.5));
    void bench.undo();
    // The hand still moves while the step back waits for the answer.
    bench.edit(edge(0.6));
    await settle(2000);
    expect(bench.formula?.remark).toBe("0.6");
    expect(bench.canUndo).toBe(true);
    await bench.undo();
    expect(bench.formula?.remark).toBeUndefined();
  });
  it("take a drag as one step though its answers come a second apart, and one after a step back as another", async () => {
    const bench = await opened();
    const bar = (value: number): Edit => ({ kind: "set", figure: "group", value, item: "crumb" });
    server.on("POST", "/evaluate", async ({ body }) => {
      await new Promise((done) => setTimeout(done, 1000));
      const { formula: given, edits } = body as { formula: Formula; edits: Edit[] };
      const edit = edits[0];
      const now = edit?.kind === "set" ? { ...given, remark: `${edit.value}` } : given;
      return { status: 200, body: { formula: now, evaluation: {} } };
    });
    for (const value of [0.05, 0.06, 0.07, 0.08]) {
      bench.edit(bar(value));
      await settle(300);
    }
    await settle(5000);
    expect(bench.formula?.remark).toBe("0.08");
    void bench.undo();
    await settle(200);
    bench.edit(bar(0.2));
    await settle(5000);
    expect(bench.formula?.remark).toBe("0.2");
    void bench.undo();
    await settle(5000);
    expect(bench.formula?.remark).toBeUndefined();
    expect(bench.canUndo).toBe(false);
  });

  it("count every press, however fast they come", async () => {
    const bench = await opened();
    for (const n of [21, 22, 23]) bench.edit(guests(n));
    await settle();
    await Promise.all([bench.undo(), bench.undo()]);
    await settle();
    expect(bench.formula?.dish.guests).toBe(21);
    await Promise.all([bench.redo(), bench.undo(), bench.undo()]);
    await settle();
    expect(bench.formula?.dish.guests).toBe(20);
  });

  it("pressed once too often, do not hold up what is edited next", async () => {
    const bench = await opened();
    bench.edit(guests(21));
    void bench.undo();
    void bench.undo();
    void bench.undo();
    bench.edit(guests(50));
    await settle();
    expect(bench.waiting).toEqual([]);
    expect(bench.formula?.dish.guests).toBe(50);
  });

  it("go back and forth, and a new edit ends the way forth", async () => {
    const bench = await opened();
    bench.edit(guests(30));
    await settle(0);
    bench.edit(guests(40));
    await settle(0);
    await bench.undo();
    expect(bench.formula?.dish.guests).toBe(30);
    await bench.redo();
    expect(bench.formula?.dish.guests).toBe(40);
    await bench.undo();
    bench.edit(guests(50));
    await settle(0);
    expect(bench.canRedo).toBe(false);
  });
});

describe("autosave", () => {
  it("waits for a pause and sends once", async () => {
    const bench = await opened();
    for (const n of [21, 22, 23]) {
      bench.edit(guests(n));
      await settle(100);
    }
    expect(bench.save).toBe("unsaved");
    await settle();
    expect(bench.save).toBe("saved");
    expect(server.count("PUT", "/formulas/1")).toBe(1);
    expect(stored.formula.dish.guests).toBe(23);
  });
  it("keeps edits in this browser while the server is away, and sends them when it is back", async () => {
    const bench = await opened();
    away = true;
    bench.edit(guests(31));
    bench.edit({ kind: "rename", name: "Kept" });
    await settle(0);
    expect(bench.save).toBe("away");
    expect(bench.waiting).toHaveLength(2);
    await settle(6000);
    expect(bench.save).toBe("away");
    away = false;
    await settle(6000);
    expect(bench.save).toBe("saved");
    expect(stored.formula).toMatchObject({ name: "Kept", dish: { guests: 31 } });
    expect(server.local.length).toBe(0);
  });
  it("does not conflict with a save of its own whose answer was lost", async () => {
    const bench = await opened();
    let lose = true;
    server.on("PUT", "/formulas/1", ({ body }) => {
      const { formula: sent, revision } = body as { formula: Formula; revision: number };
      const same = JSON.stringify(sent) === JSON.stringify(stored.formula);
      if (revision !== stored.revision && !same) return problem(409, "saved in between");
      if (revision === stored.revision) stored = { revision: revision + 1, formula: sent };
      if (lose) return "away";
      return { status: 200, body: { ...stored, id: 1, updated_at: "2026-11-24T20:00:00.000Z" } };
    });
    bench.edit(guests(34));
    await settle();
    expect(bench.save).toBe("away");
    bench.edit(guests(35));
    await settle(0);
    lose = false;
    await settle(8000);
    expect(bench.save).toBe("saved");
    expect(stored).toMatchObject({ revision: 3, formula: { dish: { guests: 35 } } });
  });
  it("knows its own save again after a reload that lost the answer", async () => {
    const bench = await opened();
    let lose = true;
    const lands = (body: unknown) => {
      const { formula: sent, revision } = body as { formula: Formula; revision: number };
      const same = JSON.stringify(sent) === JSON.stringify(stored.formula);
      if (revision !== stored.revision && !same) return problem(409, "saved in between", { current: stored });
      if (revision === stored.revision) stored = { revision: revision + 1, formula: sent };
      return { status: 200, body: { ...stored, id: 1, updated_at: "2026-11-24T20:00:00.000Z" } };
    };
    // The save lands; its answer never comes, and the cook reloads with one more edit made.
    server.on("PUT", "/formulas/1", ({ body }) => {
      const answer = lands(body);
      return lose ? new Promise(() => undefined) : answer;
    });
    bench.edit(guests(34));
    await settle();
    expect(stored).toMatchObject({ revision: 2, formula: { dish: { guests: 34 } } });
    bench.edit(guests(35));
    await settle(0);
    lose = false;
    const again = await opened();
    await settle(4000);
    expect(again.save).toBe("saved");
    expect(again.formula?.dish.guests).toBe(35);
    expect(stored).toMatchObject({ revision: 3, formula: { dish: { guests: 35 } } });
  });
  it("finds somebody else's save after a reload that lost the answer to its own", async () => {
    const bench = await opened();
    server.on("PUT", "/formulas/1", () => new Promise(() => undefined));
    bench.edit(guests(34));
    await settle();
    stored = { revision: 2, formula: formula("Theirs", 99) };
    server.on("PUT", "/formulas/1", () =>
      problem(409, "saved in between", { current: { ...stored, id: 1, updated_at: "" } }),
    );
    const again = await opened();
    await settle(4000);
    expect(again.save).toBe("conflict");
    expect(again.theirs?.formula.name).toBe("Theirs");
    expect(again.formula?.dish.guests).toBe(34);
  });
  it("survives a reload in the middle of it", async () => {
    const bench = await opened();
    away = true;
    bench.edit(guests(33));
    await settle(0);
    bench.close();
    away = false;
    const again = await opened();
    await settle();
    expect(again.formula?.dish.guests).toBe(33);
    expect(stored.formula.dish.guests).toBe(33);
  });
  it("goes on when the browser's own store is full", async () => {
    const bench = await opened();
    vi.stubGlobal("localStorage", {
      getItem: () => null,
      removeItem: () => undefined,
      setItem: () => {
        throw new DOMException("full", "QuotaExceededError");
      },
    });
    bench.edit(guests(34));
    await settle();
    expect(bench.save).toBe("saved");
    expect(stored.formula.dish.guests).toBe(34);
  });
  it("settles before a cook begins", async () => {
    const bench = await opened();
    bench.edit(guests(35));
    await settle(0);
    expect(await bench.settle()).toBe(true);
    expect(stored.formula.dish.guests).toBe(35);
  });
});

describe("two windows", () => {
  async function conflicting(): Promise<BenchClass> {
    const bench = await opened();
    stored = { revision: 2, formula: formula("Theirs", 99) };
    bench.edit(guests(30));
    await settle();
    expect(bench.save).toBe("conflict");
    expect(bench.theirs?.formula.name).toBe("Theirs");
    return bench;
  }
  it("keep mine over theirs, and theirs one step back", async () => {
    const bench = await conflicting();
    await bench.keepMine();
    await settle();
    expect(stored).toMatchObject({ revision: 3, formula: { name: "Slipway smash", dish: { guests: 30 } } });
    await bench.undo();
    expect(bench.formula?.name).toBe("Theirs");
  });
  it("take theirs, and mine one step back", async () => {
    const bench = await conflicting();
    await bench.takeTheirs();
    expect(bench.formula?.name).toBe("Theirs");
    expect(bench.save).toBe("saved");
    await bench.undo();
    expect(bench.formula?.dish.guests).toBe(30);
  });
  it("keep both: mine becomes a formula of its own", async () => {
    const bench = await conflicting();
    server.on("POST", "/formulas", ({ body }) => ({
      status: 201,
      body: { id: 7, revision: 1, ...(body as object) },
    }));
    expect(await bench.keepBoth()).toBe(7);
    const made = server.asked.find((a) => a.method === "POST" && a.path === "/formulas");
    expect(made?.body).toMatchObject({ formula: { name: "Slipway smash, mine", dish: { guests: 30 } } });
  });
  it("never overwrite silently while a conflict waits", async () => {
    const bench = await conflicting();
    bench.edit(guests(44));
    await settle(5000);
    expect(stored.formula.name).toBe("Theirs");
    expect(bench.formula?.dish.guests).toBe(44);
  });
  it("a window that was closed with unsaved work leaves it to the next", async () => {
    const bench = await opened();
    away = true;
    bench.edit(guests(61));
    await settle(0);
    bench.close();
    away = false;
    newWindow(server);
    await settle(11_000);
    const next = await opened();
    await settle();
    expect(next.formula?.dish.guests).toBe(61);
  });
});

describe("loading", () => {
  it("says that a formula was archived", async () => {
    const bench = new Bench(404);
    await bench.load();
    expect(bench.missing).toBe(true);
  });
  it("tries again while the server is away", async () => {
    away = true;
    const bench = new Bench(1);
    await bench.load();
    expect(bench.problem).toContain("Nothing was lost");
    away = false;
    await settle(2500);
    expect(bench.formula?.name).toBe("Slipway smash");
    expect(bench.problem).toBeNull();
  });
});
