import { describe, expect, it } from "vitest";
import { dimpledSection, endShare, loafAlong, loafSection, raggedCircle } from "./outlines";

function points(path: string): [number, number][] {
  return [...path.matchAll(/(-?[\d.]+) (-?[\d.]+)/g)].map((m) => [Number(m[1]), Number(m[2])]);
}
function area(path: string): number {
  const p = points(path);
  return Math.abs(
    p.reduce((sum, [x, y], k) => {
      const [nx, ny] = p[(k + 1) % p.length] as [number, number];
      return sum + (x * ny - nx * y) / 2;
    }, 0),
  );
}

describe("outlines", () => {
  it("fills as much of a loaf's section as the core computes", () => {
    // Γ(4/3)² ÷ Γ(5/3) = 0.8833 for the third power.
    expect(area(loafSection(0, 100, 120, 75, 3)) / (120 * 75)).toBeCloseTo(0.8833, 2);
  });
  it("draws a square end as a box", () => {
    expect(area(loafAlong(0, 80, 200, 75, 0, "side"))).toBeCloseTo(200 * 75, 0);
  });
  it("narrows ends to nothing, from above as from the side", () => {
    expect(endShare(0, 200, 30)).toBe(0);
    expect(endShare(30, 200, 30)).toBe(1);
    expect(endShare(200, 200, 30)).toBe(0);
    // A quarter ellipse at each end loses (1 − π/4) of it.
    const wanted = 120 * (200 - 2 * 30 * (1 - Math.PI / 4));
    expect(area(loafAlong(0, 60, 200, 120, 30, "above")) / wanted).toBeCloseTo(1, 2);
    expect(area(loafAlong(0, 60, 200, 120, 30, "side")) / wanted).toBeCloseTo(1, 2);
  });
  it("tears an edge by a few per cent only, and always alike", () => {
    const radii = points(raggedCircle(0, 0, 100)).map(([x, y]) => Math.hypot(x, y));
    expect(Math.max(...radii)).toBeLessThan(105);
    expect(Math.min(...radii)).toBeGreaterThan(95);
    expect(raggedCircle(5, 5, 50)).toBe(raggedCircle(5, 5, 50));
  });
  it("hollows a dimpled section by its depth", () => {
    const path = dimpledSection(0, 50, 110, 20, { across: 44, deep: 6, rise: 1 });
    // A quadratic curve reaches half way to its control point.
    expect(path).toContain("Q55 43 77 29");
  });
});
