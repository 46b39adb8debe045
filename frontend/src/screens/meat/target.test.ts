/** The wish for many meats: which candidates stand there, what is asked, and that stale answers are told apart. */
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Catalogue, Evaluation, Formula } from "../../lib/api/client";
import { FakeServer, problem } from "../../lib/testing/fakeServer";
import { ManyMeats } from "./target.svelte";

const meat = (key: string, species = "beef", retired = false) => ({ key, species, retired, name: key });
const catalogue = {
  meats: [
    meat("chuck"),
    meat("round"),
    meat("trim-50"),
    meat("rib"),
    meat("old-rib", "beef", true),
    meat("mince-unknown"),
    meat("pork-belly", "pork"),
  ],
  lots: [
    { key: "late", meat: "round", closed: false, use_by: "2026-12-02" },
    { key: "soon", meat: "round", closed: false, use_by: "2026-11-25" },
    { key: "gone", meat: "rib", closed: true, use_by: "2026-11-24" },
  ],
} as unknown as Catalogue;
const evaluation = {
  style: { fat_band_frac: [0.2, 0.3] },
  blend: {
    parts: [
      { meat: "chuck", lot: "", share_frac: 0.7 },
      { meat: "rib", lot: "", share_frac: 0.3 },
    ],
  },
} as unknown as Evaluation;
const formula = { name: "x" } as unknown as Formula;
const solved = { answers: [], changes: [], swaps: [] };
let server: FakeServer;

beforeEach(() => {
  server = new FakeServer();
  server.on("POST", "/target/solve", () => ({ status: 200, body: solved }));
});
afterEach(() => vi.unstubAllGlobals());

describe("candidates", () => {
  it("begin with the blend and what usually mends it", () => {
    const wish = new ManyMeats(evaluation, catalogue);
    expect(wish.candidates.map((c) => c.meat)).toEqual(["chuck", "rib", "trim-50", "round"]);
    expect(wish.candidates.map((c) => c.now_frac)).toEqual([0.7, 0.3, 0, 0]);
    expect([wish.fatLow, wish.fatHigh]).toEqual(["20 %", "30 %"]);
  });
  it("come from the open lot whose day is next", () => {
    const wish = new ManyMeats(evaluation, catalogue);
    expect(wish.candidates.find((c) => c.meat === "round")?.lot).toBe("soon");
    expect(wish.candidates.find((c) => c.meat === "rib")?.lot).toBe("");
  });
  it("of a species leave out what is retired or unknown, and nothing stands there twice", () => {
    const wish = new ManyMeats(evaluation, catalogue);
    wish.all("beef", catalogue, evaluation);
    expect(wish.candidates.map((c) => c.meat)).toEqual(["chuck", "rib", "trim-50", "round"]);
    wish.all("pork", catalogue, evaluation);
    wish.add("pork-belly", catalogue, evaluation);
    wish.add("unicorn", catalogue, evaluation);
    expect(wish.candidates.map((c) => c.meat).slice(4)).toEqual(["pork-belly"]);
    wish.remove("chuck");
    wish.onlyThese(evaluation);
    expect(wish.candidates.map((c) => c.meat)).toEqual(["chuck", "rib"]);
  });
});

describe("asking", () => {
  it("sends what was typed as it was typed, and the shares as they are now", async () => {
    const wish = new ManyMeats(evaluation, catalogue);
    wish.fatLow = "one fifth";
    wish.bound("rib", "most", "25 %");
    wish.species = "pork";
    wish.speciesMost = "10";
    const later = {
      ...evaluation,
      blend: { parts: [{ meat: "chuck", lot: "", share_frac: 1 }] },
    } as unknown as Evaluation;
    wish.solve(formula, later);
    await vi.waitFor(() => expect(wish.busy).toBe(false));
    const body = server.asked[0]?.body as Record<string, unknown>;
    expect(body).toMatchObject({
      typed: { fat_low: "one fifth" },
      species: [{ species: "pork", least: "", most: "10" }],
      aim: "cheapest",
    });
    const candidates = body["candidates"] as { meat: string; most: string; now_frac: number }[];
    expect(candidates.find((c) => c.meat === "rib")).toMatchObject({ most: "25 %", now_frac: 0 });
    expect(candidates.find((c) => c.meat === "chuck")?.now_frac).toBe(1);
    expect(wish.stale).toBe(false);
  });
  it("marks an answer stale once the wish changes", async () => {
    const wish = new ManyMeats(evaluation, catalogue);
    wish.solve(formula, evaluation);
    await vi.waitFor(() => expect(wish.busy).toBe(false));
    wish.bound("rib", "least", "10 %");
    expect(wish.stale).toBe(true);
  });
  it("keeps the refusal with its place, and drops the answer before", async () => {
    const wish = new ManyMeats(evaluation, catalogue);
    wish.solve(formula, evaluation);
    await vi.waitFor(() => expect(wish.busy).toBe(false));
    server.on("POST", "/target/solve", () =>
      problem(422, "not a per cent", { fields: [{ pointer: "/typed/fat_low", detail: "not a per cent" }] }),
    );
    wish.solve(formula, evaluation);
    await vi.waitFor(() => expect(wish.busy).toBe(false));
    expect(wish.solved).toBeNull();
    expect(wish.refusal).toEqual({ pointer: "/typed/fat_low", detail: "not a per cent" });
    expect(wish.busy).toBe(false);
  });
});
