/** Keys from names: plain letters, never one that is taken, never an empty one. */
import { describe, expect, it } from "vitest";
import { freshKey, itemKey } from "./itemKey";

describe("a key from a name", () => {
  it.each([
    ["Rib Cap", "rib-cap"],
    ["  Crème fraîche (30 %) ", "creme-fraiche-30"],
    ["Žemaitė's own", "zemaite-s-own"],
    ["7-spice", "7-spice"],
    ["---", ""],
    ["🍔", ""],
    ["牛肉", ""],
  ])("%s is %s", (name, key) => expect(itemKey(name)).toBe(key));
  it("has at most sixty characters", () => expect(itemKey("x".repeat(500))).toHaveLength(60));
});

describe("a fresh key", () => {
  it("counts on until it is free", () => {
    expect(freshKey("Rib", [], "meat")).toBe("rib");
    expect(freshKey("Rib", ["rib"], "meat")).toBe("rib-2");
    expect(freshKey("Rib", ["rib", "rib-2", "rib-3"], "meat")).toBe("rib-4");
  });
  it("stands in for a name without letters", () => {
    expect(freshKey("🍔", [], "meat")).toBe("meat");
    expect(freshKey("牛肉", ["meat"], "meat")).toBe("meat-2");
  });
  it("of a long name stays within sixty characters", () => {
    const long = "x".repeat(80);
    const key = freshKey(long, [itemKey(long)], "meat");
    expect(key.length).toBeLessThanOrEqual(60);
    expect(key.endsWith("-2")).toBe(true);
  });
});
