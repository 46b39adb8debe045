"""Find the tightest places for n equal discs in a round pan, n = 1 to 19, and write them as a table.

Each is the best of many starts of SciPy's SLSQP on: least R with |cᵢ| ≤ R − 1 and |cᵢ − cⱼ| ≥ 2. The tests compare R
with the published ratios; nothing at run time needs this script.
"""

from __future__ import annotations

import csv
import math
from pathlib import Path

import numpy as np
from scipy.optimize import minimize

OUT = Path(__file__).parents[1] / "src/vianda/core/data/circle_packings.csv"
MOST, STARTS = 19, 60


def tightest(n: int, rng: np.random.Generator) -> tuple[float, np.ndarray]:
    """Radius of the pan in disc radii, and the centres."""
    if n == 1:
        return 1.0, np.zeros((1, 2))
    pairs = [(i, j) for i in range(n) for j in range(i + 1, n)]
    one = np.array([p[0] for p in pairs], dtype=int)
    two = np.array([p[1] for p in pairs], dtype=int)

    def apart(z: np.ndarray) -> np.ndarray:
        c = z[1:].reshape(n, 2)
        inside = (z[0] - 1) ** 2 - (c**2).sum(axis=1)
        return np.concatenate([inside, ((c[one] - c[two]) ** 2).sum(axis=1) - 4])

    best = (math.inf, np.zeros((n, 2)))
    for _ in range(STARTS):
        guess = rng.uniform(-1, 1, (n, 2)) * math.sqrt(n)
        start = np.concatenate([[2 * math.sqrt(n) + 1], guess.ravel()])
        found = minimize(
            lambda z: z[0],
            start,
            jac=lambda z: np.eye(1, len(z))[0],
            method="SLSQP",
            constraints={"type": "ineq", "fun": apart},
            bounds=[(2.0, None)] + [(None, None)] * (2 * n),
            options={"maxiter": 400, "ftol": 1e-13},
        )
        if found.success and apart(found.x).min() > -1e-7 and found.x[0] < best[0]:
            best = (float(found.x[0]), found.x[1:].reshape(n, 2))
    return best


def main() -> None:
    """Write the table."""
    rng = np.random.default_rng(20)
    with OUT.open("w", encoding="utf-8", newline="") as file:
        writer = csv.writer(file, lineterminator="\n")
        writer.writerow(["n", "pan_radius", "x", "y"])
        for n in range(1, MOST + 1):
            radius, centres = tightest(n, rng)
            print(n, round(radius, 4))
            for x, y in centres:
                writer.writerow([n, f"{radius:.6f}", f"{x:.6f}", f"{y:.6f}"])


if __name__ == "__main__":
    main()
