import { time } from "../../lib/format";

/** Steps of a time axis, seconds: what a clock is read by. */
const STEPS = [15, 30, 60, 120, 300, 600, 900, 1800, 3600, 7200, 10_800, 21_600, 43_200, 86_400];

/** Where a time axis is labelled: round times, at least `apart` pixels from one another, however long the span. */
export function timeTicks(end: number, width: number, apart = 80): number[] {
  const most = Math.max(2, Math.floor(width / apart));
  const days = Math.ceil(end / (86_400 * most)) * 86_400;
  const step = STEPS.find((s) => end / s <= most) ?? days;
  return Array.from({ length: Math.floor(end / step) + 1 }, (_, n) => n * step);
}

/** From–to; past an hour seconds say more than anyone knows. */
export function span(low: number, high: number): string {
  if (high - low < 1) return time(high);
  return high >= 3600 ? `${Math.round(low / 60)}–${Math.round(high / 60)} min` : `${time(low)}–${time(high)}`;
}
