/** Where a factor stands on a drawn scale: half as much on the left, twice as much on the right, 1 in the middle. */
export const LEAST = 0.5;
export const MOST = 2;
export const MARKS = [0.5, 0.7, 1, 1.4, 2] as const;

/** Per cent of the width; what lies beyond an end stands at it. */
export function place(factor: number): number {
  const whole = Math.log(MOST) - Math.log(LEAST);
  const at = (Math.log(Math.max(factor, 1e-6)) - Math.log(LEAST)) / whole;
  return 100 * Math.min(1, Math.max(0, at));
}

export const times = (factor: number): string => `× ${factor.toFixed(2)}`;
