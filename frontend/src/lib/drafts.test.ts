/** Drafts: one a formula and window, taken over from a closed window, never from one that is still at work. */
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Formula } from "./api/client";
import { dropDraft, findDraft, keepDraft } from "./drafts";
import { FakeServer, newWindow } from "./testing/fakeServer";

let server: FakeServer;
const draft = (name: string) => ({ revision: 1, formula: { name } as Formula, waiting: [], sent: null });

beforeEach(() => {
  vi.useFakeTimers();
  server = new FakeServer();
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe("a draft", () => {
  it("is found again by its own window, for its own formula", () => {
    keepDraft(1, draft("mine"));
    expect(findDraft(1)?.formula.name).toBe("mine");
    expect(findDraft(2)).toBeNull();
    dropDraft(1);
    expect(findDraft(1)).toBeNull();
  });
  it("of a window at work is left to it, and is taken over once that window is quiet", () => {
    keepDraft(1, draft("theirs"));
    newWindow(server);
    expect(findDraft(1)).toBeNull();
    vi.advanceTimersByTime(10_500);
    expect(findDraft(1)?.formula.name).toBe("theirs");
    // Taken over, not copied: a third window finds nothing.
    newWindow(server);
    expect(findDraft(1)).toBeNull();
  });
  it("that was left last is the one taken over", () => {
    keepDraft(1, draft("older"));
    vi.advanceTimersByTime(1000);
    newWindow(server);
    keepDraft(1, draft("newer"));
    vi.advanceTimersByTime(20_000);
    newWindow(server);
    expect(findDraft(1)?.formula.name).toBe("newer");
  });
  it("that is damaged is no draft and breaks nothing", () => {
    keepDraft(1, draft("mine"));
    const key = Object.keys(server.local).find((k) => k.startsWith("vianda.draft.1."))!;
    server.local.setItem(key, "{half");
    expect(findDraft(1)).toBeNull();
  });
  it("from a clock that was set back is still found", () => {
    vi.setSystemTime(new Date("2030-01-01"));
    keepDraft(1, draft("future"));
    vi.setSystemTime(new Date("2026-11-24"));
    newWindow(server);
    expect(findDraft(1)?.formula.name).toBe("future");
  });
});
