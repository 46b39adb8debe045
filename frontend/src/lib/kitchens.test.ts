/** The kitchen a window is in: kept over a reload, left only when it is gone or another is opened here. */
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { FakeServer, newWindow } from "./testing/fakeServer";

type Module = typeof import("./kitchens.svelte");
const KITCHENS = [
  { id: 1, name: "Kestrel", demo: true },
  { id: 2, name: "Own", demo: false },
];
let server: FakeServer;
let list: typeof KITCHENS;
let open: number;

async function fresh(): Promise<Module["kitchens"]> {
  vi.resetModules();
  return (await import("./kitchens.svelte")).kitchens;
}

beforeEach(() => {
  server = new FakeServer();
  list = KITCHENS;
  open = 1;
  server.on("GET", "/kitchens", () => ({ status: 200, body: { kitchens: list, here: open } }));
  server.on("GET", "/kitchen", () => ({
    status: 200,
    body: { kitchen: { currency_code: "KSC" }, revision: 1 },
  }));
});
afterEach(() => vi.unstubAllGlobals());

describe("the kitchen of a window", () => {
  it("is the one opened last, with its money", async () => {
    const kitchens = await fresh();
    await kitchens.load();
    expect([kitchens.here, kitchens.current?.name, kitchens.ready, kitchens.known]).toEqual([
      1,
      "Kestrel",
      true,
      true,
    ]);
    expect((await import("./units.svelte")).units.currency).toBe("KSC");
  });
  it("stays though another window opens another", async () => {
    await (await fresh()).load();
    open = 2;
    const again = await fresh();
    await again.load();
    expect(again.here).toBe(1);
    newWindow(server);
    const other = await fresh();
    await other.load();
    expect(other.here).toBe(2);
  });
  it("is left when it is gone", async () => {
    await (await fresh()).load();
    list = KITCHENS.slice(1);
    open = 2;
    const again = await fresh();
    await again.load();
    expect([again.here, again.demo]).toEqual([2, undefined]);
  });
  it("moves with what is opened here", async () => {
    const kitchens = await fresh();
    await kitchens.load();
    await kitchens.change(() => Promise.resolve({ kitchens: KITCHENS, here: 2 } as never));
    expect(kitchens.here).toBe(2);
    const again = await fresh();
    await again.load();
    expect(again.here).toBe(2);
  });
  it("is still known while the server is away, and the list is not", async () => {
    await (await fresh()).load();
    server.on("GET", "/kitchens", () => "away");
    const again = await fresh();
    await again.load();
    expect([again.here, again.ready, again.known]).toEqual([1, true, false]);
  });
  it("is none before the first is set up, and no money is asked for", async () => {
    list = [];
    open = 0;
    const kitchens = await fresh();
    await kitchens.load();
    expect([kitchens.here, kitchens.current]).toEqual([0, undefined]);
    expect(server.count("GET", "/kitchen")).toBe(0);
  });
});
