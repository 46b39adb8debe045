/** The orders that are expected, by formula: they stay while this window is open. */
import type { Formula, Orders } from "../../lib/api/client";

let kept = $state.raw<Readonly<Record<string, Orders>>>({});

/** A first guess: the guests of the formula come within an hour and a half, in twos, with a rush in the middle. */
export function guessed(dish: Formula["dish"]): Orders {
  return {
    per_hour: Math.min(600, Math.max(4, Math.round(dish.guests / 3))),
    portions: 2,
    open_min: 120,
    rush_factor: 2,
    rush_from_min: 45,
    rush_min: 30,
    wait_min: 12,
  };
}

export const ordersOf = (formula: Formula): Orders => kept[formula.name] ?? guessed(formula.dish);

export function changeOrders(formula: Formula, part: Partial<Orders>): void {
  kept = { ...kept, [formula.name]: { ...ordersOf(formula), ...part } };
}
