/** What is kept in a browser that several people use: each finds their own, and nobody sends another's. */
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { here } from "./api/ask";
import type { Formula } from "./api/client";
import { findDraft, keepDraft } from "./drafts";
import { foundLocally, keepLocally, Outbox } from "./outbox.svelte";
import { forgetOwn, keepHere, unsentHere } from "./ownStore";
import { FakeServer, newWindow } from "./testing/fakeServer";

let server: FakeServer;
const draft = (name: string) => ({ revision: 1, formula: { name } as Formula, waiting: [], sent: null });
const stays = () => Object.keys(server.local).filter((key) => key.startsWith("vianda."));

beforeEach(() => {
  server = new FakeServer();
  here.person = 0;
});
afterEach(() => {
  here.person = 0;
  vi.useRealTimers();
});

describe("what is kept for somebody", () => {
  it("is found by them alone", () => {
    here.person = 7;
    keepLocally("vianda.stove.1", ["done"]);
    here.person = 8;
    expect(foundLocally("vianda.stove.1")).toEqual([]);
    keepLocally("vianda.stove.1", ["theirs"]);
    here.person = 7;
    expect(foundLocally("vianda.stove.1")).toEqual(["done"]);
    keepLocally("vianda.stove.1", []);
    expect(stays()).toEqual(["vianda.stove.1@8"]);
  });
  it("from before there were accounts is taken up once, by who is there then", () => {
    keepLocally("vianda.ticks.1", ["salt"]);
    here.person = 7;
    expect(foundLocally("vianda.ticks.1")).toEqual(["salt"]);
    here.person = 8;
    expect(foundLocally("vianda.ticks.1")).toEqual([]);
    here.person = 7;
    expect(foundLocally("vianda.ticks.1")).toEqual(["salt"]);
  });
  it("from before is not lost where the store has no room for a second one", () => {
    keepLocally("vianda.ticks.1", ["salt"]);
    here.person = 7;
    vi.spyOn(server.local, "setItem").mockImplementation(() => {
      throw new DOMException("full", "QuotaExceededError");
    });
    expect(foundLocally("vianda.ticks.1")).toEqual(["salt"]);
    expect(server.local.getItem("vianda.ticks.1")).toBe('["salt"]');
  });
  it("is not sent by who comes after them", async () => {
    const sent: string[] = [];
    const outbox = (answers: boolean) =>
      new Outbox<string>({
        send: async (item) => {
          if (!answers) return new Promise(() => undefined);
          sent.push(`${here.person} ${item}`);
        },
        keep: (items) => keepLocally("vianda.said.1", items),
        refused: () => undefined,
      });
    here.person = 7;
    outbox(false).push("67 °C");
    here.person = 8;
    const theirs = outbox(true);
    theirs.restore(foundLocally("vianda.said.1"));
    theirs.push("71 °C");
    await expect.poll(() => sent).toEqual(["8 71 °C"]);
    here.person = 7;
    outbox(true).restore(foundLocally("vianda.said.1"));
    await expect.poll(() => sent).toEqual(["8 71 °C", "7 67 °C"]);
  });
  it("a draft too, of this window and of one that was closed", () => {
    vi.useFakeTimers();
    here.person = 7;
    keepDraft(1, draft("hers"));
    here.person = 8;
    expect(findDraft(1)).toBeNull();
    newWindow(server);
    vi.advanceTimersByTime(60_000);
    expect(findDraft(1)).toBeNull();
    here.person = 7;
    expect(findDraft(1)?.formula.name).toBe("hers");
  });
});

describe("who signs out", () => {
  beforeEach(() => {
    keepHere("vianda.units", "us");
    here.person = 77;
    keepLocally("vianda.stove.1", ["of somebody whose number ends alike"]);
    here.person = 7;
    keepDraft(3, draft("hers"));
    keepLocally("vianda.ticks.1", ["salt"]);
    keepLocally("vianda.said.1.2.2026-12-04", ["67 °C"]);
    keepLocally("vianda.shopping.1.2026-12-04.2026-12-04", [{ fetched: true }]);
    keepLocally("vianda.who", [{ name: "Liv" }]);
  });
  it("is told what waits", () => {
    expect(unsentHere()).toEqual({ drafts: 1, others: 2 });
    here.person = 9;
    expect(unsentHere()).toEqual({ drafts: 0, others: 0 });
  });
  it("leaves only what waits, and a device's own settings", () => {
    forgetOwn({ unsent: false });
    expect(stays().filter((key) => key.endsWith("@7"))).toHaveLength(3);
    expect(unsentHere()).toEqual({ drafts: 1, others: 2 });
    expect(stays()).toContain("vianda.units");
    expect(stays().some((key) => key.includes("shopping") || key.includes("who"))).toBe(false);
  });
  it("may leave nothing at all, and takes nothing of anybody else's", () => {
    forgetOwn({ unsent: true });
    expect(stays().sort()).toEqual(["vianda.stove.1@77", "vianda.units"]);
  });
  it("without accounts has nothing to forget", () => {
    here.person = 0;
    keepLocally("vianda.ticks.2", ["salt"]);
    forgetOwn({ unsent: true });
    expect(stays()).toContain("vianda.ticks.2");
  });
});

it("a store that is forbidden keeps nothing and breaks nothing", () => {
  vi.stubGlobal("localStorage", {
    getItem: () => {
      throw new DOMException("forbidden", "SecurityError");
    },
    setItem: () => {
      throw new DOMException("full", "QuotaExceededError");
    },
  });
  here.person = 7;
  keepLocally("vianda.ticks.1", ["salt"]);
  expect(foundLocally("vianda.ticks.1")).toEqual([]);
});
