/** A tall window gives its room to the instruments: so much is added to a drawing's height, px. */
import { innerHeight, innerWidth } from "svelte/reactivity/window";

// Drawings are laid out for a window of 800 px; on a phone they keep their height.
const LAID_OUT_PX = 800;
const WIDE_PX = 1024;

export function room(share: number, most: number): number {
  if ((innerWidth.current ?? 0) < WIDE_PX) return 0;
  return Math.round(Math.min(most, Math.max(0, (innerHeight.current ?? 0) - LAID_OUT_PX) * share));
}
