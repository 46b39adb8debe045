/** A house formula being written: read by the core line by line, worked out after a pause, refused in words. */
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { HouseDraft as HouseDraftClass } from "./house.svelte";
import { FakeServer, problem } from "../../lib/testing/fakeServer";
import { itemKey } from "../../lib/itemKey";
import { PantryRoom } from "./pantry.svelte";

// The draft reads the units kept in the browser as it is loaded, so the browser must be there first.
let HouseDraft: typeof HouseDraftClass;
let server: FakeServer;
let answers: Record<string, number>;

beforeEach(async () => {
  server = new FakeServer();
  ({ HouseDraft } = await import("./house.svelte"));
  vi.useFakeTimers();
  answers = { "80 g": 80, "3 tbsp": 20, "200 g": 200 };
  server.on("POST", "/pantry/amount", ({ body }) => {
    const { text } = body as { text: string };
    return text in answers
      ? { status: 200, body: { mass_g: answers[text] } }
      : problem(422, `“${text}” is not an amount`);
  });
  server.on("POST", "/read", ({ body }) => ({
    status: 200,
    body: { value: parseFloat((body as { text: string }).text) },
  }));
  server.on("POST", "/pantry/house", ({ body }) => {
    const { ingredient } = body as {
      ingredient: { house: { lines: { mass_g: number }[]; yield_g: number } };
    };
    const total = ingredient.house.lines.reduce((sum, l) => sum + l.mass_g, 0);
    return { status: 200, body: { input_g: total, yield_g: ingredient.house.yield_g } };
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

function written(): HouseDraftClass {
  const draft = new HouseDraft(null);
  draft.name = "Breakwater rub";
  draft.lines = [
    { ingredient: "salt-fine", text: "80 g" },
    { ingredient: "paprika", text: "3 tbsp" },
  ];
  return draft;
}

describe("a draft", () => {
  it("is worked out once, a moment after the last change", async () => {
    const draft = written();
    draft.compute();
    draft.compute();
    await vi.advanceTimersByTimeAsync(100);
    expect(server.count("POST", "/pantry/house")).toBe(0);
    await vi.advanceTimersByTimeAsync(400);
    expect(server.count("POST", "/pantry/house")).toBe(1);
    expect(draft.figures?.input_g).toBe(100);
  });
  it("without a yield says nothing of it, and with one says so", async () => {
    const draft = written();
    expect((await draft.written("x")).house?.yield_g).toBe(0);
    draft.yield = "60";
    expect((await draft.written("x")).house?.yield_g).toBe(60);
  });
  it("leaves out a line without an amount, and asks nothing while there is none", async () => {
    const draft = written();
    draft.lines = [{ ingredient: "paprika", text: "  " }];
    draft.compute();
    await vi.advanceTimersByTimeAsync(500);
    expect(draft.figures).toBeNull();
    expect(draft.refused).toBeNull();
    expect(server.count("POST", "/pantry/house")).toBe(0);
  });
  it("shows what was refused, and forgets it when it is mended", async () => {
    const draft = written();
    draft.lines[1]!.text = "a lot";
    draft.compute();
    await vi.advanceTimersByTimeAsync(500);
    expect(draft.refused).toContain("not an amount");
    expect(draft.figures).toBeNull();
    draft.lines[1]!.text = "3 tbsp";
    draft.compute();
    await vi.advanceTimersByTimeAsync(500);
    expect(draft.refused).toBeNull();
    expect(draft.figures?.input_g).toBe(100);
  });
  it("never lets an older answer overtake a newer one", async () => {
    const draft = written();
    let slow = true;
    server.on("POST", "/pantry/house", async ({ body }) => {
      const { ingredient } = body as { ingredient: { house: { lines: { mass_g: number }[] } } };
      const total = ingredient.house.lines.reduce((sum, l) => sum + l.mass_g, 0);
      if (slow) {
        slow = false;
        await new Promise((done) => setTimeout(done, 2000));
      }
      return { status: 200, body: { input_g: total } };
    });
    draft.compute();
    await vi.advanceTimersByTimeAsync(300);
    draft.lines.push({ ingredient: "pepper", text: "200 g" });
    draft.compute();
    await vi.advanceTimersByTimeAsync(400);
    expect(draft.figures?.input_g).toBe(300);
    await vi.advanceTimersByTimeAsync(3000);
    expect(draft.figures?.input_g).toBe(300);
  });
});

describe("a key", () => {
  it("is made of letters, digits and hyphens", () => {
    expect(itemKey("Käpt’n’s  Rub № 5!")).toBe("kapt-n-s-rub-no-5");
    expect(itemKey("☕")).toBe("");
  });
  it("is one that nothing has yet", async () => {
    const room = new PantryRoom();
    const things = ["rub", "rub-2", "thing"].map((key) => ({ ingredient: { key, house: null } }));
    server.on("GET", "/pantry", () => ({ status: 200, body: { ingredients: things } }));
    await room.load();
    expect(room.freeKey("Rub")).toBe("rub-3");
    expect(room.freeKey("☕")).toBe("thing-2");
    expect(room.bought).toHaveLength(3);
    expect(room.house).toHaveLength(0);
  });
});

describe("the room", () => {
  it("shows what stands when another window was faster", async () => {
    const room = new PantryRoom();
    let price = "1";
    server.on("GET", "/pantry", () => ({
      status: 200,
      body: { ingredients: [{ ingredient: { key: "milk", house: null, price_per_kg: price } }] },
    }));
    await room.load();
    price = "2";
    server.on("PUT", "/pantry/milk", () => problem(409, "saved in between"));
    const { api } = await import("../../lib/api/client");
    const done = await room.attempt(async () => {
      await api.saveIngredient({ key: "milk" } as never, 1);
    }, "Corrected");
    expect(done).toBe(false);
    expect(room.problem).toContain("Another window");
    expect(room.things?.[0]?.ingredient.price_per_kg).toBe("2");
    expect(room.status).toBe("");
  });
});
