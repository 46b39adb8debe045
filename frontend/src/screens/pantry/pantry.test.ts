/** The pantry room: what stands there, changes that are tried, refused, or were overtaken by another window. */
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { ProblemError } from "../../lib/api/client";
import { FakeServer, problem } from "../../lib/testing/fakeServer";
import { GROUPS, PantryRoom } from "./pantry.svelte";

const thing = (key: string, house: object | null = null) => ({
  revision: 1,
  ingredient: { key, name: key, group: "sauce", house },
});
let server: FakeServer;
let stands: object[];

beforeEach(() => {
  server = new FakeServer();
  stands = [thing("mustard"), thing("own-sauce", { lines: [], yield_g: 0, keeps_days: 3 })];
  server.on("GET", "/pantry", () => ({ status: 200, body: { ingredients: stands } }));
});
afterEach(() => vi.unstubAllGlobals());

const refuse = (status: number, detail: string) => () =>
  Promise.reject(new ProblemError({ type: "t", title: "t", status, detail, fields: [] }));

describe("the pantry", () => {
  it("tells what is made here from what is bought", async () => {
    const room = new PantryRoom();
    expect([room.house, room.bought]).toEqual([[], []]);
    await room.load();
    expect(room.house.map((t) => t.ingredient.key)).toEqual(["own-sauce"]);
    expect(room.bought.map((t) => t.ingredient.key)).toEqual(["mustard"]);
  });
  it("gives a key that nothing has yet", async () => {
    const room = new PantryRoom();
    expect(room.freeKey("Mustard")).toBe("mustard");
    await room.load();
    expect(room.freeKey("Mustard")).toBe("mustard-2");
    expect(room.freeKey("🌶")).toBe("thing");
  });
  it("says why it cannot be read", async () => {
    server.on("GET", "/pantry", () => problem(503, "The store is away."));
    const room = new PantryRoom();
    await room.load();
    expect([room.problem, room.things]).toEqual(["The store is away.", null]);
  });
  it("is looked at again after a change, and says what was done", async () => {
    const room = new PantryRoom();
    await room.load();
    stands = [...stands, thing("ketchup")];
    expect(await room.attempt(() => Promise.resolve(), "Kept.")).toBe(true);
    expect([room.things?.length, room.status, room.problem]).toEqual([3, "Kept.", null]);
  });
  it("keeps what stands when a change is refused, with the reason", async () => {
    const room = new PantryRoom();
    await room.load();
    await room.attempt(() => Promise.resolve(), "Kept.");
    expect(await room.attempt(refuse(422, "no such group"), "Kept.")).toBe(false);
    expect([room.things?.length, room.status, room.problem]).toEqual([2, "", "no such group"]);
  });
  it("shows what another window made of it", async () => {
    const room = new PantryRoom();
    await room.load();
    stands = [thing("mustard")];
    expect(await room.attempt(refuse(409, "overtaken"), "Kept.")).toBe(false);
    expect(room.things).toHaveLength(1);
    expect(room.problem).toContain("Another window changed it meanwhile");
  });
  it("does not hide a fault of our own", async () => {
    const room = new PantryRoom();
    await expect(room.attempt(() => Promise.reject(new TypeError("ours")))).rejects.toThrow("ours");
  });
  it("has a title for every group that the contract knows", () => {
    expect(Object.values(GROUPS).every((title) => title.length > 2)).toBe(true);
    expect(new Set(Object.values(GROUPS)).size).toBe(Object.keys(GROUPS).length);
  });
});
