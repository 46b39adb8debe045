/** Where a share of fat stands on a drawn scale that begins at none. */
const STEPS = [0.05, 0.1, 0.2] as const;
/** More marks than this stand too close to be read. */
const MOST_MARKS = 5;

/** Marks from 0 to the first that holds all of them, as few as can be read. */
export function fatMarks(values: readonly number[]): number[] {
  const most = Math.min(1, Math.max(0.05, ...values));
  const step = STEPS.find((one) => Math.ceil(most / one - 1e-9) < MOST_MARKS) ?? 0.25;
  const count = Math.ceil(most / step - 1e-9);
  return Array.from({ length: count + 1 }, (_, n) => n * step);
}

/** Per cent of the width; what lies beyond an end stands at it. */
export const fatPlace = (value: number, most: number): number => 100 * Math.min(1, Math.max(0, value / most));
