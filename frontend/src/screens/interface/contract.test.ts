import { expect, it } from "vitest";
import { bounds, named, operations, words, type Contract } from "./contract";

it("says a type in words, and what a value must keep to", () => {
  expect(words({ type: "array", items: { $ref: "#/components/schemas/Meat" } })).toBe("list of Meat");
  expect(words({ anyOf: [{ type: "number" }, { type: "null" }] })).toBe("number | null");
  expect(words({ enum: ["pan", "grate"] })).toBe('"pan" | "grate"');
  expect(bounds({ type: "number", minimum: 0, maximum: 5 })).toBe("≥ 0, ≤ 5");
  expect(bounds({ anyOf: [{ type: "string", maxLength: 80 }, { type: "null" }] })).toBe("letters ≤ 80");
});

it("finds the types that are named, however deep", () => {
  const inner = { type: "array", items: { anyOf: [{ $ref: "#/c/A" }, { $ref: "#/c/B" }] } };
  expect(named({ type: "object", additionalProperties: inner })).toEqual(["A", "B"]);
});

it("lists operations by topic in the order of the contract", () => {
  const one = { operationId: "x", summary: "s", responses: {} };
  const contract: Contract = {
    info: { title: "", version: "1" },
    paths: { "/api/meats/{key}": { put: one, get: one }, "/api/weighings.csv": { get: one } },
    components: { schemas: {} },
  };
  expect(operations(contract).map((o) => [o.method, o.topic])).toEqual([
    ["GET", "meats"],
    ["PUT", "meats"],
    ["GET", "weighings"],
  ]);
});
