/** How a surface gives heat, as it is typed: written in the units of the screen, read by the core, never guessed. */
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { FakeServer, problem } from "../../lib/testing/fakeServer";
import { readHeating, typedHeating } from "./heating";

const METRIC = { system: "metric", currency: "KSC" } as const;
const US = { system: "us", currency: "KSC" } as const;
let server: FakeServer;

beforeEach(() => {
  server = new FakeServer();
  server.on("POST", "/read", ({ body }) => {
    const { text } = body as { text: string };
    const value = Number.parseFloat(text.replace("−", "-"));
    return Number.isNaN(value)
      ? problem(422, `“${text}” was not understood`)
      : { status: 200, body: { value } };
  });
});
afterEach(() => vi.unstubAllGlobals());
const kinds = () => server.asked.map((a) => (a.body as { kind: string; text: string }).kind);

describe("what is typed of a surface", () => {
  it("begins with the usual figures where nothing was said", () => {
    expect(typedHeating(undefined, METRIC)).toMatchObject({
      metal: "steel",
      power: "usual",
      fan: true,
      fuel: "charcoal",
      lid: true,
      thickness: "",
      lasts: "",
      factor: "1",
    });
  });
  it("stands in the units of the screen", () => {
    const was = { thickness_mm: 12, broiler_c: 300, outdoor_c: 0, offset_k: 10 };
    expect(typedHeating(was, METRIC).broiler).toMatch(/^300\s°C$/);
    expect(typedHeating(was, US).broiler).toMatch(/^572\s°F$/);
    expect(typedHeating(was, US).outdoor).toMatch(/^32\s°F$/);
    expect(typedHeating(was, US).offset).toMatch(/^18/);
    expect(typedHeating(was, METRIC).thickness).toMatch(/^12/);
  });
  it("keeps what is none: no fan, no lid", () => {
    expect(typedHeating({ fan: false, lid: false }, METRIC)).toMatchObject({ fan: false, lid: false });
  });
});

describe("what is read of it", () => {
  it("takes every figure through the core, by its kind", async () => {
    const typed = { ...typedHeating(undefined, METRIC), thickness: "12 mm", lasts: "45", factor: "1.2" };
    const found = await readHeating(typed, "metric");
    expect(found).toMatchObject({
      thickness_mm: 12,
      lasts_min: 45,
      heat_factor: 1.2,
      broiler_c: 450,
      outdoor_c: 20,
    });
    expect(kinds()).toEqual(["length_mm", "delta_temp_k", "temp_c", "temp_c", "number", "number"]);
  });
  it("asks nothing of what is left empty: the core's usual value stands", async () => {
    const found = await readHeating(typedHeating(undefined, METRIC), "metric");
    expect(found).toMatchObject({ thickness_mm: 0, lasts_min: 0 });
    expect(kinds()).toEqual(["delta_temp_k", "temp_c", "temp_c", "number"]);
  });
  it("an offset that is cleared is none", async () => {
    const found = await readHeating({ ...typedHeating({ offset_k: 10 }, METRIC), offset: "" }, "metric");
    expect(found.offset_k).toBe(0);
  });
  it("is refused with the core's words", async () => {
    const typed = { ...typedHeating(undefined, METRIC), broiler: "hot" };
    await expect(readHeating(typed, "metric")).rejects.toMatchObject({
      problem: { detail: "“hot” was not understood" },
    });
  });
  it("comes back as it was written", async () => {
    const was = {
      thickness_mm: 12,
      broiler_c: 300,
      outdoor_c: 10,
      offset_k: -5,
      lasts_min: 40,
      heat_factor: 1.5,
    };
    expect(await readHeating(typedHeating(was, METRIC), "metric")).toMatchObject(was);
  });
});
