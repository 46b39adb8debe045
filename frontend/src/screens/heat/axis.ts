/** How finely stages are moved in time: what a cook can keep to. */
export function stepOf(end_s: number): number {
  return end_s > 7200 ? 60 : end_s > 1200 ? 15 : 5;
}

/** A moment on whole steps, between two bounds that it never passes. */
export function snapped(
  at_s: number,
  { step, least, most }: { step: number; least: number; most: number },
): number {
  return Math.min(Math.max(Math.round(at_s / step) * step, least), Math.max(least, most));
}
