/** Shopping in a window: ticks wait while the line is down, the newest tick wins, and the list fetched last is shown. */
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { ShopLine, SpanShopping, Tick } from "../../lib/api/client";
import { FakeServer, problem } from "../../lib/testing/fakeServer";
import { dayAfter, dayName } from "../../lib/days";
import { grouped } from "./groups";
import type { ShoppingBench as ShoppingBenchClass } from "./shopping.svelte";

const SPAN = { from_day: "2026-12-01", to_day: "2026-12-07" };
const line = (key: string, more: Partial<ShopLine> = {}): ShopLine => ({
  kind: "thing",
  key,
  name: key,
  needed: 100,
  used: 0,
  par_short: 0,
  buy: 100,
  pack: 0,
  packs: 0,
  bought: 100,
  left_over: 0,
  cost: "1.00",
  priced: true,
  supplier: "",
  shelf: "Dry goods",
  first_day: "2026-12-04",
  order_by: "2026-12-04",
  dishes: ["Loaf"],
  lots: [],
  instead: "",
  price: "10.00",
  about: null,
  ...more,
});
const SHEET = "shopping/2026-12-01/2026-12-07";
const listed = (lines: ShopLine[], ticked: string[] = []): SpanShopping => ({
  servings: [{ service_id: 1, name: "Friday", day: "2026-12-04", guests: 20, problems: [] }],
  undated: 0,
  shopping: {
    lines,
    makes: [],
    unused: [],
    cost: "1.00",
    unpriced: 0,
    from_lots: [],
    strayed: [],
    worths: [],
  },
  sheet: SHEET,
  ticked: ticked.map((one) => ({ sheet: SHEET, line: one, amount: 100, more: 0 })),
  currency_code: "KSC",
});
const PANKO = line("panko");
let server: FakeServer;
let ShoppingBench: typeof ShoppingBenchClass;
let down = false;
let kept: Map<string, boolean>;
const opened = async (span = SPAN) => {
  const bench = new ShoppingBench(span, "1");
  await bench.load();
  return bench;
};
const settle = (ms = 100) => vi.advanceTimersByTimeAsync(ms);

beforeEach(async () => {
  vi.useFakeTimers();
  server = new FakeServer();
  ({ ShoppingBench } = await import("./shopping.svelte"));
  down = false;
  kept = new Map();
  server.on("POST", "/shopping", () =>
    down
      ? "away"
      : {
          status: 200,
          body: listed(
            [PANKO, line("milk", { shelf: "Dairy and eggs" })],
            [...kept].filter(([, on]) => on).map(([key]) => key),
          ),
        },
  );
  server.on("PUT", "/ticks", ({ body }) => {
    if (down) return "away";
    const tick = body as Tick;
    kept.set(tick.line, tick.ticked);
    return { status: 200, body: { ticked: tick.ticked } };
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe("what is in the basket", () => {
  it("is shown at once, sent, and taken out again", async () => {
    const bench = await opened();
    bench.put(PANKO, true);
    expect(bench.isIn(PANKO)).toBe(true);
    await settle();
    expect(kept.get("thing/panko")).toBe(true);
    bench.put(PANKO, false);
    expect(bench.isIn(PANKO)).toBe(false);
    await settle();
    expect(kept.get("thing/panko")).toBe(false);
    bench.close();
  });

  it("waits while the line is down and is sent when it is back, in order", async () => {
    const bench = await opened();
    down = true;
    bench.put(PANKO, true);
    bench.put(PANKO, false);
    bench.put(PANKO, true);
    await settle();
    expect(bench.outbox.away).toBe(true);
    expect(bench.outbox.items).toHaveLength(3);
    down = false;
    await settle(3000);
    expect(bench.outbox.items).toEqual([]);
    expect(kept.get("thing/panko")).toBe(true);
    expect(server.asked.filter((a) => a.method === "PUT" && a.token !== "").length).toBeGreaterThanOrEqual(3);
    bench.close();
  });

  it("outlives the window: what waited is sent by the next one, and stands above what the server says", async () => {
    const first = await opened();
    down = true;
    first.put(PANKO, true);
    await settle();
    first.close();
    const second = await opened();
    expect(second.old).toBe(true);
    expect(second.isIn(PANKO)).toBe(true);
    down = false;
    await settle(3000);
    expect(kept.get("thing/panko")).toBe(true);
    // The line is back: the list is fetched anew.
    expect(second.old).toBe(false);
    expect(second.isIn(PANKO)).toBe(true);
    second.close();
  });

  it("is sent while an older answer is on its way, and stays in the basket", async () => {
    const first = await opened();
    down = true;
    first.put(PANKO, true);
    await settle();
    first.close();
    down = false;
    // The list is worked out before the tick comes, and arrives after it.
    server.on("POST", "/shopping", async () => {
      const before = listed([PANKO]);
      await settle(500);
      return { status: 200, body: before };
    });
    const second = await opened();
    expect(kept.get("thing/panko")).toBe(true);
    expect(second.outbox.items).toEqual([]);
    expect(second.isIn(PANKO)).toBe(true);
    second.close();
  });

  it("of other days is no matter of these", async () => {
    const first = await opened();
    down = true;
    first.put(PANKO, true);
    await settle();
    first.close();
    down = false;
    const other = { from_day: "2026-12-08", to_day: "2026-12-14" };
    const second = await opened(other);
    expect(second.isIn(PANKO)).toBe(false);
    await settle(3000);
    expect(server.asked.filter((a) => a.method === "PUT").at(-1)?.body).toMatchObject({ sheet: SHEET });
    second.close();
  });

  it("that the server will not have is told, and blocks nothing behind it", async () => {
    const bench = await opened();
    server.on("PUT", "/ticks", ({ body }) => {
      const tick = body as Tick;
      if (tick.line === "thing/panko") return problem(422, "A span has at most 62 days.");
      kept.set(tick.line, tick.ticked);
      return { status: 200, body: { ticked: tick.ticked } };
    });
    bench.put(PANKO, true);
    bench.put(line("milk"), true);
    await settle();
    expect(bench.problem).toContain("62 days");
    expect(kept.get("thing/milk")).toBe(true);
    bench.close();
  });
});

describe("a line that has grown since it was ticked", () => {
  it("is in the basket no more, says by how much, and is done when it is ticked again", async () => {
    const grown = line("buns", { kind: "bread", bought: 192 });
    server.on("POST", "/shopping", () => ({
      status: 200,
      body: { ...listed([grown]), ticked: [{ sheet: SHEET, line: "bread/buns", amount: 180, more: 12 }] },
    }));
    const bench = await opened();
    expect([bench.isIn(grown), bench.moreOf(grown)]).toEqual([false, 12]);
    bench.put(grown, true);
    expect([bench.isIn(grown), bench.moreOf(grown)]).toEqual([true, 0]);
    await settle();
    expect(server.asked.at(-1)?.body).toEqual({
      sheet: SHEET,
      line: "bread/buns",
      amount: 192,
      ticked: true,
    });
    bench.close();
  });

  it("waited in a window of an older version and is sent as lists are named now", async () => {
    const old = { ...SPAN, kind: "thing", key: "panko", ticked: true };
    server.local.setItem("vianda.ticks.1", JSON.stringify([old]));
    const bench = await opened();
    expect(bench.isIn(PANKO)).toBe(true);
    await settle();
    expect(kept.get("thing/panko")).toBe(true);
    expect(server.asked.filter((a) => a.method === "PUT").at(-1)?.body).toMatchObject({ amount: null });
    bench.close();
  });
});

describe("the list", () => {
  it("that was fetched last is shown while the line is down, and another span has none", async () => {
    (await opened()).close();
    down = true;
    const again = await opened();
    expect(again.old).toBe(true);
    expect(again.found?.shopping.lines).toHaveLength(2);
    again.close();
    const other = await opened({ from_day: "2027-01-01", to_day: "2027-01-02" });
    expect(other.found).toBeNull();
    expect(other.problem).not.toBeNull();
    other.close();
  });

  it("that an older version of this application kept is shown with what it did not know as none", async () => {
    (await opened()).close();
    const key = Object.keys(server.local).find((k) => k.startsWith("vianda.shopping."))!;
    const [kept] = JSON.parse(server.local.getItem(key)!) as { shopping: Record<string, unknown> }[];
    Object.assign(kept!, { sheet: undefined, ticked: [["thing", "panko"]] });
    delete kept!.shopping.from_lots;
    delete kept!.shopping.strayed;
    server.local.setItem(key, JSON.stringify([kept]));
    down = true;
    const bench = await opened();
    expect(bench.old).toBe(true);
    expect(bench.found?.shopping).toMatchObject({ from_lots: [], strayed: [], cost: "1.00" });
    expect([bench.isIn(PANKO), bench.isIn(line("milk"))]).toEqual([true, false]);
    bench.close();
  });
  it("that is refused says why and shows nothing of before", async () => {
    const bench = await opened();
    server.on("POST", "/shopping", () => problem(422, "The span ends before it begins."));
    await bench.load();
    expect(bench.problem).toBe("The span ends before it begins.");
    expect(bench.old).toBe(false);
    bench.close();
  });

  it("stands under its shelves or suppliers in the order it came, without what is there already", () => {
    const shopping = listed([
      line("a", { shelf: "Meat" }),
      line("b", { shelf: "Dry goods", supplier: "Norquay Butchery" }),
      line("c", { shelf: "Meat", supplier: "Norquay Butchery" }),
      line("d", { bought: 0, buy: 0 }),
    ]).shopping;
    const keys = (order: "shelf" | "supplier") =>
      grouped(shopping, order).map((g) => [g.title, g.lines.map((one) => one.key)]);
    expect(keys("shelf")).toEqual([
      ["Meat", ["a", "c"]],
      ["Dry goods", ["b"]],
    ]);
    expect(keys("supplier")).toEqual([
      ["No supplier yet", ["a"]],
      ["Norquay Butchery", ["b", "c"]],
    ]);
  });
});

describe("days", () => {
  it.each([
    ["2026-12-28", 6, "2027-01-03", "Sun 3 Jan"],
    ["2028-02-28", 1, "2028-02-29", "Tue 29 Feb"],
    ["2026-03-28", 2, "2026-03-30", "Mon 30 Mar"],
    ["2026-12-04", -1, "2026-12-03", "Thu 3 Dec"],
  ])("%s and %i days", (from, days, to, name) => {
    expect(dayAfter(from, days)).toBe(to);
    expect(dayName(to)).toBe(name);
  });
});
