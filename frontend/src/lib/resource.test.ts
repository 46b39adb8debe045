/** An answer that follows a question: the newest wins, typing waits, and what was given up on says nothing. */
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { ProblemError, type Problem } from "./api/client";
import { Resource } from "./resource.svelte";

const problem = (detail: string): Problem => ({ type: "t", title: "t", status: 422, detail, fields: [] });
let begun: string[];
let finish: Record<string, (answer: string | Error) => void>;
let signals: Record<string, AbortSignal>;

function resource(pauseMs?: number): Resource<string, string> {
  return new Resource<string, string>(
    (question, signal) => {
      begun.push(question);
      signals[question] = signal;
      return new Promise((done, fail) => {
        finish[question] = (answer) => (typeof answer === "string" ? done(answer) : fail(answer));
      });
    },
    pauseMs === undefined ? {} : { pauseMs },
  );
}
const settle = (ms = 0) => vi.advanceTimersByTimeAsync(ms);

beforeEach(() => {
  vi.useFakeTimers();
  begun = [];
  finish = {};
  signals = {};
});
afterEach(() => vi.useRealTimers());

describe("an answer", () => {
  it("to the first question is asked for at once", async () => {
    const found = resource();
    found.ask("a");
    expect(found.busy).toBe(true);
    await settle();
    expect(begun).toEqual(["a"]);
    finish["a"]?.("A");
    await settle();
    expect([found.value, found.busy, found.problem]).toEqual(["A", false, null]);
  });
  it("while somebody types waits until the typing has paused, and only the last question is asked", async () => {
    const found = resource(60);
    found.ask("a");
    await settle();
    for (const text of ["ab", "abc", "abcd"]) {
      found.ask(text);
      await settle(30);
    }
    expect(begun).toEqual(["a"]);
    await settle(60);
    expect(begun).toEqual(["a", "abcd"]);
  });
  it("after a pause is asked for at once again", async () => {
    const found = resource(60);
    found.ask("a");
    await settle(500);
    found.ask("b");
    await settle();
    expect(begun).toEqual(["a", "b"]);
  });
  it("that is older never overtakes a newer one", async () => {
    const found = resource();
    found.ask("a");
    await settle(500);
    found.ask("b");
    await settle();
    finish["b"]?.("B");
    await settle();
    finish["a"]?.("A");
    await settle();
    expect(found.value).toBe("B");
    expect(signals["a"]?.aborted).toBe(true);
    expect(signals["b"]?.aborted).toBe(false);
  });
  it("stays on the screen while the next one is worked out, and after a refusal", async () => {
    const found = resource();
    found.ask("a");
    await settle();
    finish["a"]?.("A");
    await settle(500);
    found.ask("b");
    await settle();
    expect([found.value, found.busy]).toEqual(["A", true]);
    finish["b"]?.(new ProblemError(problem("not so")));
    await settle();
    expect([found.value, found.busy, found.problem?.detail]).toEqual(["A", false, "not so"]);
  });
  it("takes the refusal of before away", async () => {
    const found = resource();
    found.ask("a");
    await settle();
    finish["a"]?.(new ProblemError(problem("not so")));
    await settle(500);
    found.ask("b");
    await settle();
    finish["b"]?.("B");
    await settle();
    expect(found.problem).toBeNull();
  });
  it("that was given up on is neither shown nor refused", async () => {
    const found = resource();
    const giveUp = found.ask("a");
    await settle();
    giveUp();
    finish["a"]?.(new ProblemError(problem("not so")));
    await settle();
    expect([found.value, found.problem]).toEqual([null, null]);
  });
  it("that was given up on before it was asked for is never asked for", async () => {
    const found = resource(60);
    found.ask("a");
    await settle();
    const giveUp = found.ask("b");
    giveUp();
    await settle(200);
    expect(begun).toEqual(["a"]);
  });
  it("is forgotten when the screen is cleared, though it comes later", async () => {
    const found = resource();
    found.ask("a");
    await settle();
    found.clear();
    finish["a"]?.("A");
    await settle();
    expect([found.value, found.busy]).toEqual([null, false]);
  });
  it("that comes in parts is shown part by part, and none after a newer question", async () => {
    let tellOld: (part: string) => void = () => undefined;
    const found = new Resource<string, string>((question, _, tell) => {
      if (question === "a") tellOld = tell;
      else tell("B1");
      return Promise.resolve();
    });
    found.ask("a");
    await settle();
    tellOld("A1");
    expect(found.value).toBe("A1");
    await settle(500);
    found.ask("b");
    await settle();
    tellOld("A2");
    expect(found.value).toBe("B1");
  });
});
