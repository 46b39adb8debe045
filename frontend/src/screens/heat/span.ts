import { time } from "../../lib/format";

/** From–to; past an hour seconds say more than anyone knows. */
export function span(low: number, high: number): string {
  if (high - low < 1) return time(high);
  return high >= 3600 ? `${Math.round(low / 60)}–${Math.round(high / 60)} min` : `${time(low)}–${time(high)}`;
}
