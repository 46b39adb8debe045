"""A usual value with its range, and straight lines between the points of a table."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import pairwise


@dataclass(frozen=True, slots=True)
class Band:
    """A usual value with its range."""

    low: float
    usual: float
    high: float

    def times(self, factor: float) -> Band:
        """So many times as much.

        Parameters
        ----------
        factor : float
            Above 0 (ratio).

        Returns
        -------
        Band
            The band.
        """
        return Band(self.low * factor, self.usual * factor, self.high * factor)

    def plus(self, other: Band) -> Band:
        """This and another, one after the other.

        Parameters
        ----------
        other : Band
            What follows.

        Returns
        -------
        Band
            The sum of both, as if what is low in one were low in the other.
        """
        return Band(self.low + other.low, self.usual + other.usual, self.high + other.high)


def along(points: tuple[tuple[float, float], ...], x: float) -> float:
    """Straight lines between points; beyond the ends the last line runs on.

    Parameters
    ----------
    points : tuple[tuple[float, float], ...]
        Points (x, y) with rising x.
    x : float
        Where the line is read, in the unit of the first coordinate.

    Returns
    -------
    float
        Straight lines between points.

    Examples
    --------
    >>> along(((0.0, 0.0), (1.0, 10.0)), 1.5)
    15.0
    """
    if len(points) == 1:
        return points[0][1]
    pairs = list(pairwise(points))
    (x0, y0), (x1, y1) = next((p for p in pairs if x <= p[1][0]), pairs[-1])
    return y0 + (y1 - y0) * (x - x0) / (x1 - x0)
