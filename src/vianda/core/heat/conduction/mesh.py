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
