/** A colour for a temperature, lightest where mince greys: it stands for heat, not for what a cut would show. */
type Rgb = readonly [number, number, number];

const STOPS: readonly (readonly [number, Rgb])[] = [
  [-20, [30, 42, 56]],
  [0, [44, 66, 82]],
  [30, [104, 132, 142]],
  [50, [176, 188, 178]],
  [60, [240, 226, 184]],
  [71, [226, 170, 92]],
  [85, [196, 108, 52]],
  [100, [146, 58, 34]],
  [140, [88, 30, 22]],
  [200, [40, 16, 12]],
];

export function heatColour(temp_c: number): Rgb {
  const last = STOPS.length - 1;
  const at = STOPS.findIndex(([t]) => temp_c < t);
  if (at <= 0) return (at === 0 ? STOPS[0] : STOPS[last])?.[1] ?? [0, 0, 0];
  const [t0, low] = STOPS[at - 1] as (typeof STOPS)[number];
  const [t1, high] = STOPS[at] as (typeof STOPS)[number];
  const share = (temp_c - t0) / (t1 - t0);
  return [0, 1, 2].map((c) =>
    Math.round((low[c] as number) + share * ((high[c] as number) - (low[c] as number))),
  ) as unknown as Rgb;
}

/** Where a value would stand in a rising list: the index below and how far it is to the next. */
export function between(list: readonly number[], value: number): { at: number; share: number } {
  const next = list.findIndex((x) => x > value);
  if (next === -1) return { at: Math.max(0, list.length - 2), share: list.length > 1 ? 1 : 0 };
  if (next === 0) return { at: 0, share: 0 };
  const low = list[next - 1] as number;
  const high = list[next] as number;
  return { at: next - 1, share: (value - low) / (high - low) };
}

/** A series read at a moment, by a straight line between its samples. */
export function readAt(times: readonly number[], series: readonly number[], moment: number): number {
  const { at, share } = between(times, moment);
  const low = series[at] ?? 0;
  return low + share * ((series[at + 1] ?? low) - low);
}
