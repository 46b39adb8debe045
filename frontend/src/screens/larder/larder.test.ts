/** The larder room: a change is taken or refused in words, and a conflict shows what stands now. */
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { LarderContent } from "../../lib/api/client";
import { api } from "../../lib/api/client";
import { FakeServer, problem } from "../../lib/testing/fakeServer";
import { LarderRoom } from "./larder.svelte";

let server: FakeServer;
let content: { meats: unknown[]; lots: unknown[] };

beforeEach(() => {
  server = new FakeServer();
  content = { meats: [{ key: "chuck" }], lots: [] };
  server.on("GET", "/larder", () => ({ status: 200, body: content }));
});
afterEach(() => vi.unstubAllGlobals());

const file = (text: string, size = text.length) =>
  ({ size, text: () => Promise.resolve(text) }) as unknown as File;

describe("a change", () => {
  it("that is taken is followed by a new look and a word", async () => {
    const room = new LarderRoom();
    await room.load();
    server.on("POST", "/larder/lots/box/forget", () => ({ status: 200, body: {} }));
    content = { meats: [{ key: "chuck" }, { key: "rib" }], lots: [] };
    const done = await room.attempt(async () => {
      await api.forget("box", 0, 1);
    }, "Taken back");
    expect(done).toBe(true);
    expect(room.status).toBe("Taken back");
    expect(room.content?.meats).toHaveLength(2);
  });
  it("that is refused keeps what is on the screen and says why", async () => {
    const room = new LarderRoom();
    await room.load();
    server.on("POST", "/larder/lots/box/evidence", () => problem(422, "not a per cent"));
    const before: LarderContent | null = room.content;
    const done = await room.attempt(async () => {
      await api.learn("box", "label", "lots", 1);
    }, "Noted");
    expect(done).toBe(false);
    expect(room.problem).toBe("not a per cent");
    expect(room.status).toBe("");
    expect(room.content).toBe(before);
  });
  it("that comes too late shows what another window made of it", async () => {
    const room = new LarderRoom();
    await room.load();
    server.on("PUT", "/larder/meats/chuck", () => problem(409, "conflict"));
    content = { meats: [{ key: "chuck", price_per_kg: "20" }], lots: [] };
    const done = await room.attempt(async () => {
      await api.saveMeat({ key: "chuck" } as never, null);
    }, "Corrected");
    expect(done).toBe(false);
    expect(room.problem).toContain("Another window changed it meanwhile");
    expect(room.content?.meats[0]).toMatchObject({ price_per_kg: "20" });
  });
  it("while the server is away is said, and a later one clears it", async () => {
    const room = new LarderRoom();
    server.on("GET", "/larder", () => "away");
    await room.load();
    expect(room.problem).toContain("Nothing was lost");
    server.on("GET", "/larder", () => ({ status: 200, body: content }));
    await room.load();
    expect(room.problem).toBeNull();
    expect(room.content?.meats).toHaveLength(1);
  });
});

describe("a file", () => {
  it("is sent as text and its report is kept", async () => {
    const room = new LarderRoom();
    const rows = [{ line: 2, key: "chuck", outcome: "refused", reason: "species" }];
    server.on("POST", "/larder/file", () => ({ status: 200, body: { rows } }));
    await room.file.take(file("key,name\n"));
    expect(room.file.report).toEqual(rows);
    expect(server.asked[0]?.body).toEqual({ text: "key,name\n" });
  });
  it("that is too large is not sent at all", async () => {
    const room = new LarderRoom();
    await room.file.take(file("", 10_000_000));
    expect(room.problem).toContain("900 kB");
    expect(server.asked).toHaveLength(0);
  });
  it("that is none gets the server's reason and leaves no old report", async () => {
    const room = new LarderRoom();
    server.on("POST", "/larder/file", () => problem(422, "The first line names the columns"));
    room.file.report = [];
    await room.file.take(file("x"));
    expect(room.file.report).toBeNull();
    expect(room.problem).toContain("names the columns");
  });
});
