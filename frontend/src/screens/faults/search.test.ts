import { describe, expect, it } from "vitest";
import { FaultTold } from "./search.svelte";

describe("what was said of a batch", () => {
  it("names a symptom and takes it back", () => {
    const told = new FaultTold();
    told.toggle("dry", 5);
    told.toggle("tough", 5);
    told.toggle("dry", 5);
    expect(told.asked.symptoms).toEqual(["tough"]);
  });
  it("names as many as are taken", () => {
    const told = new FaultTold();
    for (const one of ["dry", "tough", "greasy", "bland", "salty", "watery"] as const) told.toggle(one, 5);
    expect(told.symptoms).toHaveLength(5);
    told.toggle("dry", 5);
    told.toggle("watery", 5);
    expect(told.symptoms).toContain("watery");
  });
  it("keeps answers while symptoms change, and takes one back", () => {
    const told = new FaultTold();
    told.answer("plate-cool", true);
    told.answer("crowded", false);
    told.toggle("no-crust", 5);
    told.takeBack("plate-cool");
    expect(told.asked.answers).toEqual({ crowded: false });
  });
});
