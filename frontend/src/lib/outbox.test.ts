import { beforeEach, describe, expect, it, vi } from "vitest";
import { ProblemError } from "./api/client";
import { Outbox } from "./outbox.svelte";
import { Resource } from "./resource.svelte";

const problem = (status: number) =>
  new ProblemError({ type: "x", title: "x", status, detail: `answered ${status}`, fields: [] });

describe("what waits to be sent", () => {
  beforeEach(() => void vi.useFakeTimers());

  it("is sent in order, and kept until it is there", async () => {
    const sent: string[] = [];
    const kept: string[][] = [];
    const box = new Outbox<string>({
      send: async (item) => void sent.push(item),
      keep: (items) => void kept.push(items),
      refused: () => undefined,
    });
    box.push("a");
    box.push("b");
    await vi.waitFor(() => expect(box.items).toEqual([]));
    expect(sent).toEqual(["a", "b"]);
    expect(kept.at(-1)).toEqual([]);
  });

  it("is tried again when the line is back, and loses nothing meanwhile", async () => {
    let down = true;
    const sent: string[] = [];
    const box = new Outbox<string>({
      send: async (item) => {
        if (down) throw problem(503);
        sent.push(item);
      },
      keep: () => undefined,
      refused: () => undefined,
      retryMs: 1000,
    });
    box.push("a");
    await vi.advanceTimersByTimeAsync(10);
    expect(box.away).toBe(true);
    box.push("b");
    down = false;
    await vi.advanceTimersByTimeAsync(1100);
    expect(sent).toEqual(["a", "b"]);
    expect(box.away).toBe(false);
  });

  it("is tried again when the server breaks over it, and put aside when it always does", async () => {
    const refused: string[] = [];
    const sent: string[] = [];
    let breaks = 2;
    const box = new Outbox<string>({
      send: async (item) => {
        if (item === "always" || breaks-- > 0) throw problem(500);
        sent.push(item);
      },
      keep: () => undefined,
      refused: (item) => void refused.push(item),
      retryMs: 100,
    });
    box.push("a");
    await vi.advanceTimersByTimeAsync(50);
    expect([box.away, box.items, refused]).toEqual([false, ["a"], []]);
    await vi.advanceTimersByTimeAsync(250);
    expect(sent).toEqual(["a"]);
    box.push("always");
    box.push("b");
    await vi.advanceTimersByTimeAsync(290);
    expect([refused, sent]).toEqual([[], ["a"]]);
    await vi.advanceTimersByTimeAsync(100);
    expect([refused, sent]).toEqual([["always"], ["a", "b"]]);
  });

  it("does not block on what the server will never take", async () => {
    const refused: string[] = [];
    const sent: string[] = [];
    const box = new Outbox<string>({
      send: async (item) => {
        if (item === "bad") throw problem(422);
        sent.push(item);
      },
      keep: () => undefined,
      refused: (item, why) => void refused.push(`${item}: ${why.detail}`),
    });
    box.push("bad");
    box.push("good");
    await vi.waitFor(() => expect(sent).toEqual(["good"]));
    expect(refused).toEqual(["bad: answered 422"]);
  });

  it("sends the newer one when an item was overtaken under way", async () => {
    const sent: number[] = [];
    let answer: () => void = () => undefined;
    const box = new Outbox<number>({
      send: (item) => new Promise((done) => ((answer = done), sent.push(item))),
      keep: () => undefined,
      refused: () => undefined,
    });
    box.push(1);
    box.overtake(2);
    box.overtake(3);
    answer();
    await vi.waitFor(() => expect(sent).toEqual([1, 3]));
  });
});

describe("an answer that follows a question", () => {
  it("is never overtaken by an older one", async () => {
    vi.useRealTimers();
    const answers: Record<string, (text: string) => void> = {};
    const told = new Resource<string, string>((q) => new Promise((done) => (answers[q] = done)), {
      pauseMs: 0,
    });
    told.ask("first");
    await vi.waitFor(() => expect(answers.first).toBeDefined());
    told.ask("second");
    await vi.waitFor(() => expect(answers.second).toBeDefined());
    answers.second?.("new");
    answers.first?.("old");
    await vi.waitFor(() => expect(told.value).toBe("new"));
    expect(told.busy).toBe(false);
  });
});
