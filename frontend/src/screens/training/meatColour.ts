/**
 * Minced beef by its temperature as a section shows it: raw red, greying from 50, grey-brown past 60, a crust past 120.
 * Brown is no sign that it is done: it only stands for the temperature here.
 */
import { between } from "../heat/heatColour";

const STOPS: readonly (readonly [number, readonly [number, number, number]])[] = [
  [0, [134, 30, 48]],
  [40, [150, 46, 58]],
  [50, [184, 94, 94]],
  [57, [190, 136, 122]],
  [60, [164, 136, 118]],
  [75, [142, 116, 96]],
  [100, [110, 80, 58]],
  [130, [74, 46, 30]],
  [200, [42, 24, 16]],
];

export function meatColour(temp_c: number): string {
  const temps = STOPS.map(([t]) => t);
  const { at, share } = between(temps, temp_c);
  const low = (STOPS[at] ?? STOPS[0])?.[1] ?? [0, 0, 0];
  const high = (STOPS[at + 1] ?? STOPS[at])?.[1] ?? low;
  return `rgb(${low.map((c, n) => Math.round(c + share * ((high[n] ?? c) - c))).join(" ")})`;
}
