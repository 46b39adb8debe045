"""Cells through a piece: a slab from its lower to its upper face, or a ball from its middle to its skin."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np

from vianda.core.heat.conduction.meat import Array

Geometry = Literal["slab", "ball"]


@dataclass(frozen=True, slots=True)
class Mesh:
    """Cell widths, middles and volumes, and the areas between cells, for a unit of face (slab) or a steradian (ball).

    Lengths in m. ``area`` has one more entry than there are cells; a ball's first is 0, its middle.
    """

    geometry: Geometry
    width: Array
    middle: Array
    volume: Array
    area: Array

    @property
    def size_m(self) -> float:
        """Thickness of a slab, radius of a ball."""
        return float(np.sum(self.width))


def mesh_of(geometry: Geometry, size_m: float, *, cells: int) -> Mesh:
    """Cells that are finest at the faces, where temperature is steepest.

    Parameters
    ----------
    geometry : Geometry
        Flat or round.
    size_m : float
        Thickness of a flat piece, radius of a round one, m, above 0.
    cells : int
        Number of cells, 1 or more (count).

    Returns
    -------
    Mesh
        What stays as it is.

    References
    ----------
    Control volumes; BDF2 with unlike steps; a section by rows and columns (Douglas 1962): textbook methods,
    from memory, checked against the series of Carslaw & Jaeger.

    Examples
    --------
    >>> m = mesh_of("slab", 0.02, cells=30)
    >>> round(float(m.volume.sum()), 6), round(float(m.width[0] / m.width[15]), 2)
    (0.02, 0.12)
    """
    edges = np.linspace(0.0, 1.0, cells + 1)
    if geometry == "slab":
        # A cosine crowds both ends; mixed with an even spacing so that the outermost are not needlessly thin.
        edges = 0.9 * 0.5 * (1.0 - np.cos(np.pi * edges)) + 0.1 * edges
    else:
        edges = 0.85 * np.sin(0.5 * np.pi * edges) + 0.15 * edges
    edges = edges * size_m
    width = np.diff(edges)
    middle = (edges[1:] + edges[:-1]) / 2
    if geometry == "slab":
        return Mesh(geometry, width, middle, width.copy(), np.ones(cells + 1))
    return Mesh(geometry, width, middle, np.diff(edges**3) / 3.0, edges**2)


def block_widths(length_m: float, cells: int, *, both_ends: bool) -> Array:
    """Widths of the cells along one side of a loaf's section, finest at its skin; of half a width only at one end.

    Parameters
    ----------
    length_m : float
        Length of the side, m, above 0.
    cells : int
        Number of cells, 1 or more (count).
    both_ends : bool
        Whether cells are fine at both ends.

    Returns
    -------
    Array
        Values in the order of what was given.

    Examples
    --------
    >>> w = block_widths(0.06, 28, both_ends=True)
    >>> round(float(w.sum()), 6), bool(w[0] < w[14])
    (0.06, True)
    """
    edges = np.linspace(0.0, 1.0, cells + 1)
    if both_ends:
        edges = 0.75 * 0.5 * (1.0 - np.cos(np.pi * edges)) + 0.25 * edges
    else:
        edges = 0.8 * np.sin(0.5 * np.pi * edges) + 0.2 * edges
    return np.asarray(np.diff(edges * length_m))
