/** The shelf in a window: pages follow one another, and what was done is said with its way back. */
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { FakeServer, problem } from "../../lib/testing/fakeServer";
import type { Shelf as ShelfClass } from "./shelf.svelte";

const item = (id: number) => ({
  id,
  name: `Formula ${id}`,
  style: "Smashed",
  strips: [],
  problem: "",
  cooks: 0,
});
let server: FakeServer;
let shelf: ShelfClass;
const settled = () => vi.advanceTimersByTimeAsync(400);

beforeEach(async () => {
  vi.useFakeTimers();
  server = new FakeServer();
  const { Shelf } = await import("./shelf.svelte");
  server.on("POST", "/shelf", (asked) => {
    const before = (asked.body as { before: number | null }).before;
    const body = before
      ? { items: [item(3), item(2), item(1)], dishes: [] }
      : { items: [item(4), item(3)], next: 3, total: 4, archived: 1, dishes: ["burger"] };
    return { status: 200, body };
  });
  shelf = new Shelf();
  shelf.ask();
  await settled();
});
afterEach(() => {
  shelf.first.clear();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe("the shelf", () => {
  it("goes on where a page ended, and shows what moved between two pages once", async () => {
    await shelf.more();
    expect(shelf.items.map((one) => one.id)).toEqual([4, 3, 2, 1]);
    expect(shelf.next).toBeNull();
    await shelf.more();
    expect(server.asked).toHaveLength(2);
  });

  it("looks for something else from the first page on", async () => {
    await shelf.more();
    shelf.text = "  smash ";
    shelf.ask();
    await settled();
    expect(server.asked.at(-1)?.body).toMatchObject({ text: "smash", before: null });
    expect(shelf.items.map((one) => one.id)).toEqual([4, 3]);
  });

  it("says what was copied and where it is", async () => {
    server.on("POST", "/formulas/4/copy", () => ({
      status: 201,
      body: { id: 9, formula: { name: "Formula 4 2" } },
    }));
    await shelf.copy(item(4) as never);
    expect(shelf.done).toEqual({ what: "copied", item: { id: 9, name: "Formula 4 2" } });
  });

  it("keeps what was archived at hand, and says why it could not be", async () => {
    server.on("DELETE", "/formulas/4", () => ({ status: 204, body: null }));
    await shelf.archive({ id: 4, name: "Formula 4" });
    expect(shelf.done?.what).toBe("archived");
    server.on("POST", "/formulas/4/restore", () => problem(404, "There is no such thing."));
    await shelf.restore({ id: 4, name: "Formula 4" });
    expect(shelf.problem).toBe("There is no such thing.");
    expect(shelf.done?.item.id).toBe(4);
  });
});
