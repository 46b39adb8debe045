/** A sauce on the bench: what is asked of the server, what a word changes, and that each change can be taken back. */
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { SauceSchool } from "../../lib/api/client";
import { FakeServer, problem } from "../../lib/testing/fakeServer";
import { TasteBench } from "./taste.svelte";

const LINES = [
  { ingredient: "mayonnaise", mass_g: 150 },
  { ingredient: "ketchup", mass_g: 60 },
];
const SCHOOL = {
  key: "quick-tomato",
  roles: ["cooking-sauce"],
  lines: [
    ["whole-tomatoes", 800],
    ["olive-oil", 30],
  ],
  left_frac: 0.81,
} as unknown as SauceSchool;
const tasted = (left_frac = 1) => ({
  status: 200,
  body: {
    whole_g: 210,
    left_g: 210 * left_frac,
    left_frac,
    taste: {},
    school: "",
    school_title: "",
    why: "",
    bands: [],
  },
});
const answer = {
  nudge: { moved: [{ ingredient: "sugar", before_g: 0, after_g: 3, change_g: 3, new: true }], gave_way: [] },
  bands: [],
  lines: [...LINES, { ingredient: "sugar", mass_g: 3 }],
  left_frac: 1,
};
let server: FakeServer;
const last = (path: string) =>
  server.asked.filter((a) => a.path === path).at(-1)?.body as Record<string, unknown>;
const settled = () => vi.advanceTimersByTimeAsync(500);

beforeEach(() => {
  vi.useFakeTimers();
  server = new FakeServer();
  server.on("POST", "/sauces/taste", () => tasted());
  server.on("POST", "/sauces/nudge", () => ({ status: 200, body: answer }));
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe("what lies on the bench", () => {
  it("is tasted as soon as it lies there", async () => {
    const bench = new TasteBench();
    bench.begin(LINES, { role: "burger-sauce" });
    await settled();
    expect(last("/sauces/taste")).toEqual({
      lines: LINES,
      left_g: 0,
      left_frac: 0,
      role: "burger-sauce",
      school: "",
    });
    expect(bench.taste?.whole_g).toBe(210);
  });

  it("begins where a school does, with what cooking down leaves", async () => {
    const bench = new TasteBench();
    bench.start(SCHOOL);
    await settled();
    expect(bench.lines).toEqual([
      { ingredient: "whole-tomatoes", mass_g: 800 },
      { ingredient: "olive-oil", mass_g: 30 },
    ]);
    expect(last("/sauces/taste")).toMatchObject({
      left_frac: 0.81,
      role: "cooking-sauce",
      school: "quick-tomato",
    });
  });

  it("turns a yield in grams into a share, so that more of everything leaves more", async () => {
    server.on("POST", "/sauces/taste", () => tasted(0.8));
    const bench = new TasteBench();
    bench.begin(LINES, { role: "gravy", left_g: 168 });
    await settled();
    expect(last("/sauces/taste")).toMatchObject({ left_g: 168 });
    bench.setLine("ketchup", 90, "ketchup set");
    await settled();
    expect(last("/sauces/taste")).toMatchObject({ left_g: 0, left_frac: 0.8 });
  });

  it("says in words what the server refuses, and asks nothing of an empty bowl", async () => {
    server.on("POST", "/sauces/taste", () =>
      problem(422, "Without a drop of water it would still weigh more."),
    );
    const bench = new TasteBench();
    bench.ask();
    await settled();
    expect(server.asked).toHaveLength(0);
    bench.begin(LINES, { role: "burger-sauce" });
    await settled();
    expect(bench.problem).toContain("drop of water");
  });
});

describe("its lines", () => {
  it("are changed, taken out at zero, and put back one by one", async () => {
    const bench = new TasteBench();
    bench.begin(LINES, { role: "burger-sauce" });
    bench.setLine("ketchup", 80, "ketchup set");
    bench.setLine("ketchup", 0, "ketchup set");
    expect(bench.lines.map((l) => l.ingredient)).toEqual(["mayonnaise"]);
    bench.undo();
    expect(bench.lines[1]?.mass_g).toBe(80);
    bench.undo();
    expect(bench.lines).toEqual(LINES);
    expect(bench.canUndo).toBe(false);
    bench.undo();
    expect(bench.lines).toEqual(LINES);
    await settled();
  });

  it("never all go, and none stands there twice", () => {
    const bench = new TasteBench();
    bench.begin([{ ingredient: "ketchup", mass_g: 60 }], { role: "burger-sauce" });
    bench.setLine("ketchup", 0, "ketchup set");
    expect(bench.lines).toHaveLength(1);
    expect(bench.problem).toContain("one line at least");
    bench.addLine("ketchup", 10, "ketchup added");
    expect(bench.lines).toHaveLength(1);
    expect(bench.problem).toContain("already");
    bench.addLine("sugar", 10, "sugar added");
    expect(bench.lines.at(-1)).toEqual({ ingredient: "sugar", mass_g: 10 });
    expect(bench.problem).toBeNull();
  });
});

describe("a word", () => {
  it("asks with what is held and whether things can only be added, and changes nothing yet", async () => {
    const bench = new TasteBench();
    bench.begin(LINES, { role: "burger-sauce" });
    bench.hold("mayonnaise");
    bench.hold("ketchup");
    bench.hold("ketchup");
    bench.onlyAdd = true;
    await bench.propose("sweeter");
    expect(last("/sauces/nudge")).toMatchObject({
      handle: "sweeter",
      locked: ["mayonnaise"],
      only_add: true,
    });
    expect(bench.lines).toEqual(LINES);
    expect(bench.proposed?.answer.nudge?.moved).toHaveLength(1);
  });

  it("is taken with one tap and taken back with one", async () => {
    const bench = new TasteBench();
    bench.begin(LINES, { role: "burger-sauce" });
    await bench.propose("sweeter");
    bench.take("taken");
    expect(bench.lines.at(-1)).toEqual({ ingredient: "sugar", mass_g: 3 });
    expect(bench.proposed).toBeNull();
    bench.undo();
    expect(bench.lines).toEqual(LINES);
  });

  it("that has no answer leaves the sauce alone", async () => {
    server.on("POST", "/sauces/nudge", () => ({ status: 200, body: { ...answer, nudge: null } }));
    const bench = new TasteBench();
    bench.begin(LINES, { role: "burger-sauce" });
    await bench.propose("richer");
    bench.take("taken");
    expect(bench.lines).toEqual(LINES);
    expect(bench.canUndo).toBe(false);
  });

  it("is forgotten when the sauce changes under it", async () => {
    const bench = new TasteBench();
    bench.begin(LINES, { role: "burger-sauce" });
    await bench.propose("sweeter");
    bench.setLine("ketchup", 61, "ketchup set");
    expect(bench.proposed).toBeNull();
    await bench.propose("sweeter");
    bench.hold("ketchup");
    expect(bench.proposed).toBeNull();
  });

  it("that the server refuses says why", async () => {
    server.on("POST", "/sauces/nudge", () => problem(422, "A sauce has at least one line."));
    const bench = new TasteBench();
    bench.begin(LINES, { role: "burger-sauce" });
    await bench.propose("hotter");
    expect(bench.problem).toContain("at least one line");
    expect(bench.proposed).toBeNull();
  });
});

describe("what is said, poured, scaled or replaced", () => {
  const more = [...LINES, { ingredient: "mustard", mass_g: 10 }];

  it("is one round each, and each is taken back by itself", async () => {
    server.on("POST", "/sauces/compose", () => ({ status: 200, body: { lines: more, reading: {} } }));
    server.on("POST", "/sauces/poured", () => ({ status: 200, body: { mass_g: 20, lines: LINES } }));
    server.on("POST", "/sauces/scale", () => ({ status: 200, body: more }));
    const bench = new TasteBench();
    bench.begin(LINES, { role: "burger-sauce" });
    expect(await bench.compose(" 2 tsp mustard ", "metric")).toBe(true);
    expect(last("/sauces/compose")).toMatchObject({ text: " 2 tsp mustard ", lines: LINES });
    await bench.poured("ketchup", 250, 270, (grams) => `poured ${grams}`);
    expect(last("/sauces/poured")).toMatchObject({
      ingredient: "ketchup",
      before_g: 250,
      after_g: 270,
      lines: more,
    });
    await bench.scale({ whole_g: 900, ingredient: "", mass_g: 0 }, "scaled");
    expect(bench.rounds).toEqual(["2 tsp mustard", "poured 20", "scaled"]);
    bench.undo();
    bench.undo();
    expect(bench.rounds).toEqual(["2 tsp mustard"]);
    expect(bench.lines).toEqual(more);
  });

  it("leaves the sauce alone when a word of it was not read", async () => {
    server.on("POST", "/sauces/compose", () => problem(422, "Not read: “blarg”."));
    const bench = new TasteBench();
    bench.begin(LINES, { role: "burger-sauce" });
    expect(await bench.compose("3 g blarg", "metric")).toBe(false);
    expect(bench.problem).toContain("blarg");
    expect(bench.lines).toEqual(LINES);
    expect(bench.rounds).toEqual([]);
  });

  it("is offered in place of what cannot be had, and the offers go with the sauce they were for", async () => {
    const offer = {
      swapped: { ingredient: "tomato-paste", added: [["tomato-paste", 26]], missed: [] },
      lines: more,
    };
    server.on("POST", "/sauces/swaps", () => ({ status: 200, body: [offer] }));
    const bench = new TasteBench();
    bench.begin(LINES, { role: "burger-sauce" });
    await bench.lacks("ketchup");
    expect(bench.offers?.ingredient).toBe("ketchup");
    await bench.propose("sweeter");
    expect(bench.offers).toBeNull();
    await bench.lacks("ketchup");
    expect(bench.proposed).toBeNull();
    bench.swap(bench.offers!.offers[0]!, "for ketchup");
    expect(bench.offers).toBeNull();
    expect(bench.lines).toEqual(more);
    expect(bench.rounds).toEqual(["for ketchup"]);
  });
});
