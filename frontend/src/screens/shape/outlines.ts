/** Outlines of drawn pieces, from the core's sizes, in whatever unit the sizes are given in. */

/** A circle whose edge is torn: the same tear each time, a few per cent deep. */
export function raggedCircle(cx: number, cy: number, r: number, teeth = 46): string {
  let path = "";
  for (let k = 0; k <= teeth; k += 1) {
    const turn = (2 * Math.PI * (k % teeth)) / teeth;
    // Two waves that do not fit each other look torn and stay the same.
    const deep = 1 + 0.022 * Math.sin(7 * turn + 1) + 0.018 * Math.cos(17 * turn);
    path += `${k === 0 ? "M" : "L"}${(cx + r * deep * Math.cos(turn)).toFixed(1)} ${(cy + r * deep * Math.sin(turn)).toFixed(1)}`;
  }
  return `${path}Z`;
}

/** The section of a flat piece with a hollow in its top: `left`/`base` is its lower left corner. */
export function dimpledSection(
  left: number,
  base: number,
  width: number,
  height: number,
  dimple: { across: number; deep: number; rise: number },
): string {
  const from = left + (width - dimple.across) / 2;
  const top = base - height - dimple.rise;
  return (
    `M${left} ${base}V${top}H${from}` +
    `Q${left + width / 2} ${top + 2 * (dimple.deep + dimple.rise)} ${from + dimple.across} ${top}` +
    `H${left + width}V${base}Z`
  );
}

/** A loaf cut across: half a superellipse |2x/w|ⁿ + |y/h|ⁿ = 1 on its base. */
export function loafSection(
  left: number,
  base: number,
  width: number,
  height: number,
  power: number,
  steps = 48,
): string {
  let path = `M${left} ${base}`;
  for (let k = 0; k <= steps; k += 1) {
    // Even steps of an angle put points where the curve bends.
    const across = -Math.cos((Math.PI * k) / steps);
    const up = (1 - Math.abs(across) ** power) ** (1 / power);
    path += `L${(left + (width * (1 + across)) / 2).toFixed(1)} ${(base - height * up).toFixed(1)}`;
  }
  return `${path}Z`;
}

/** How much of a loaf's width and height stands at a place along it: each end narrows as an ellipsoid. */
export function endShare(at: number, length: number, end: number): number {
  if (end <= 0) return 1;
  const inside = Math.min(at, length - at);
  return inside >= end ? 1 : Math.sqrt(Math.max(0, 1 - ((end - inside) / end) ** 2));
}

/** A loaf from the side (on its base) or from above (about its middle line). */
export function loafAlong(
  left: number,
  base: number,
  length: number,
  across: number,
  end: number,
  from: "side" | "above",
  steps = 24,
): string {
  const places = Array.from({ length: steps + 1 }, (_, k) => k / steps);
  // Points crowd at the tips, where the curve is steep.
  const near = end > 0 ? places.map((p) => end * (1 - Math.cos((Math.PI / 2) * p))) : [0];
  const along = [...near, ...near.map((p) => length - p).reverse()];
  const upper = along.map((p) => {
    const share = endShare(p, length, end);
    const y = from === "side" ? base - across * share : base - (across / 2) * share;
    return `${(left + p).toFixed(1)} ${y.toFixed(1)}`;
  });
  const lower =
    from === "side"
      ? [`${left + length} ${base}`, `${left} ${base}`]
      : along
          .slice()
          .reverse()
          .map(
            (p) => `${(left + p).toFixed(1)} ${(base + (across / 2) * endShare(p, length, end)).toFixed(1)}`,
          );
  return `M${[...upper, ...lower].join("L")}Z`;
}
