/** Orders expected: a first guess from the guests, kept by formula while the window is open. */
import { describe, expect, it } from "vitest";
import type { Formula } from "../../lib/api/client";
import { changeOrders, guessed, ordersOf } from "./orders.svelte";

const formula = (name: string, guests: number) =>
  ({ name, dish: { dish: "burger", style: "smashed", guests, pieces_per_guest: 2 } }) as unknown as Formula;

describe("orders expected", () => {
  it("are guessed within what may be asked, from one guest to two thousand", () => {
    for (const guests of [1, 13, 40, 2000]) {
      const found = guessed(formula("x", guests).dish);
      expect(found.per_hour).toBeGreaterThanOrEqual(4);
      expect(found.per_hour).toBeLessThanOrEqual(600);
      expect(Number.isInteger(found.per_hour)).toBe(true);
    }
    expect(guessed(formula("x", 90).dish).per_hour).toBe(30);
  });
  it("stay with their own formula", () => {
    changeOrders(formula("mine", 30), { wait_min: 8 });
    changeOrders(formula("mine", 30), { per_hour: 50 });
    expect(ordersOf(formula("mine", 99))).toMatchObject({ wait_min: 8, per_hour: 50, portions: 2 });
    expect(ordersOf(formula("other", 30)).wait_min).toBe(12);
  });
});
