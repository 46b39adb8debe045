/** The trainer's window: an answer is sent once it is said how sure, counts once, and a refusal leaves the round. */
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { FakeServer, problem } from "../../lib/testing/fakeServer";
import { Trainer } from "./trainer.svelte";

const round = (seed: number) => ({
  formula_id: 3,
  seed,
  stamp: `stamp-${seed}`,
  round: {
    kind: "fat",
    title: "Lean to fat by eye",
    question: { text: "?", amounts: {} },
    picture: { kind: "words" },
    answers: [1, 2, 3, 4].map((n) => ({ text: `${n}`, amounts: {} })),
  },
});
let server: FakeServer;
let seed = 0;
let refuse = false;

beforeEach(() => {
  server = new FakeServer();
  seed = 0;
  refuse = false;
  server.on("GET", "/training", () => ({
    status: 200,
    body: { next: round(++seed), confidences: [0.25, 0.5, 0.75, 0.95], standings: [] },
  }));
  server.on("POST", "/training/answers", () =>
    refuse
      ? problem(422, "this round no longer stands")
      : {
          status: 200,
          body: { right: 2, why: { text: "", amounts: {} }, standings: [{ kind: "fat", rounds: 1 }] },
        },
  );
});
afterEach(() => vi.unstubAllGlobals());

async function opened(): Promise<Trainer> {
  const trainer = new Trainer();
  await trainer.load();
  return trainer;
}

describe("a round", () => {
  it("is answered once it is said how sure, and is then shut", async () => {
    const t = await opened();
    await t.say(0.75);
    expect(server.count("POST", "/training/answers")).toBe(0);
    t.choose(9);
    expect(t.chosen).toBeNull();
    t.choose(1);
    t.thinkAgain();
    expect(t.chosen).toBeNull();
    t.choose(2);
    await t.say(0.75);
    expect(t.right).toBe(true);
    expect(t.standings).toHaveLength(1);
    t.choose(0);
    expect(t.chosen).toBe(2);
    await t.say(0.95);
    expect(server.count("POST", "/training/answers")).toBe(1);
  });
  it("is replaced by the next, with a token of its own", async () => {
    const t = await opened();
    t.choose(0);
    await t.say(0.5);
    expect(t.right).toBe(false);
    await t.load();
    expect(t.round?.seed).toBe(2);
    expect(t.judged).toBeNull();
    t.choose(2);
    await t.say(0.5);
    const tokens = server.asked
      .filter((a) => a.path === "/training/answers")
      .map((a) => (a.body as { token: string }).token);
    expect(new Set(tokens).size).toBe(2);
  });
  it("that is refused says why and stays open", async () => {
    const t = await opened();
    t.choose(2);
    refuse = true;
    await t.say(0.75);
    expect(t.problem).toContain("no longer stands");
    expect(t.judged).toBeNull();
    refuse = false;
    await t.say(0.75);
    expect(t.right).toBe(true);
    const tokens = server.asked
      .filter((a) => a.path === "/training/answers")
      .map((a) => (a.body as { token: string }).token);
    // Sent again it is the same answer.
    expect(new Set(tokens).size).toBe(1);
  });
});
