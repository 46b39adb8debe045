import { describe, expect, it } from "vitest";
import { FaultTold, MOST_SYMPTOMS, sure } from "./search.svelte";

describe("what was said of a batch", () => {
  it("names a symptom and takes it back", () => {
    const told = new FaultTold();
    told.toggle("dry");
    told.toggle("tough");
    told.toggle("dry");
    expect(told.asked.symptoms).toEqual(["tough"]);
  });
  it("names five at most", () => {
    const told = new FaultTold();
    for (const one of ["dry", "tough", "greasy", "bland", "salty", "watery"] as const) told.toggle(one);
    expect(told.symptoms).toHaveLength(MOST_SYMPTOMS);
    told.toggle("dry");
    told.toggle("watery");
    expect(told.symptoms).toContain("watery");
  });
  it("keeps answers while symptoms change, and takes one back", () => {
    const told = new FaultTold();
    told.answer("plate-cool", true);
    told.answer("crowded", false);
    told.toggle("no-crust");
    told.takeBack("plate-cool");
    expect(told.asked.answers).toEqual({ crowded: false });
  });
  it("says a chance in a word", () => {
    expect([0.9, 0.5, 0.2, 0.05].map(sure)).toEqual(["most likely", "likely", "possible", "hardly"]);
  });
});
