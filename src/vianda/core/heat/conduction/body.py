"""The piece as cells: a flat one, a ball, or half the section of a loaf, with what lies in its middle."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

import numpy as np

from vianda.core.heat.conduction.meat import Array, Material
from vianda.core.heat.conduction.mesh import block_widths, mesh_of

BodyForm = Literal["slab", "ball", "block"]
SLAB_CELLS, BALL_CELLS = 80, 32
BLOCK_ROWS, BLOCK_COLUMNS = 28, 20
# From this depth juice and fat get out half as readily as from a face: chosen so that what every way leaves lies in the
# spread of SR28's weights (tests/reference/test_computed_yield_against_usda.py). Ours, low.
HALF_RELEASE_M = 0.005


@dataclass(frozen=True, slots=True)
class Middle:
    """What lies in the middle: its composition, and its thickness; of a loaf both its sides are as long."""

    meat: Material
    size_mm: float


@dataclass(frozen=True, slots=True)
class PieceGeometry:
    """A piece: thickness of a flat one, diameter of a ball, height of a loaf, which also has a width; mm."""

    form: BodyForm
    size_mm: float
    meat: Material
    width_mm: float = 0.0
    middle: Middle | None = None


@dataclass(frozen=True)
class Body:
    """Its cells: of a slab or ball in a row, of a loaf in rows from below and columns from the middle plane.

    ``is_meat`` is 0 where something else lies, ``release`` how readily what is loose gets out from there, 0–1. Volumes
    and areas are of a square metre of slab, a steradian of ball, a metre of half a loaf.
    """

    form: BodyForm
    width: Array
    height: Array
    volume: Array
    area: Array
    mass: Array
    first: Array
    is_meat: Array
    release: Array
    core_weight: Array

    def core_c(self, temp_c: Array) -> float:
        """The geometric middle, where a probe is held, of cells at these temperatures.

        Parameters
        ----------
        temp_c : Array
            Temperatures, °C, shape ``(n,)``.

        Returns
        -------
        float
            Temperature of the middle, °C.
        """
        return float(np.sum(temp_c * self.core_weight))

    @property
    def mass_kg(self) -> float:
        """All of it."""
        return float(np.sum(self.mass))


def release_frac(depth_m: Array) -> Array:
    """How readily what is loose gets out, by how deep it lies under the nearest face, 0–1.

    Parameters
    ----------
    depth_m : Array
        Depth, m.

    Returns
    -------
    Array
        Values in the order of what was given.

    Examples
    --------
    >>> [round(float(f), 2) for f in release_frac(np.array([0.0, 0.005, 0.02]))]
    [1.0, 0.5, 0.02]
    """
    return np.asarray(1.0 / (1.0 + (depth_m / HALF_RELEASE_M) ** 3))


def body_of(piece: PieceGeometry, *, finer: int = 1) -> Body:
    """The cells of a piece; ``finer`` times as many each way for checks, half as many of a loaf for a rough look, 0.

    Parameters
    ----------
    piece : PieceGeometry
        Form and size of the piece.
    finer : int, default 1
        How many times finer than usual each way (count).

    Returns
    -------
    Body
        Its cells.
    """
    if piece.form == "block":
        return _block(piece, finer)
    cells = (SLAB_CELLS if piece.form == "slab" else BALL_CELLS) * max(1, finer)
    size = piece.size_mm / 1000.0
    mesh = mesh_of("slab", size, cells=cells) if piece.form == "slab" else mesh_of("ball", size / 2, cells=cells)
    inside = np.zeros(cells, dtype=bool)
    if piece.middle is not None:
        half = piece.middle.size_mm / 2000.0
        from_middle = np.abs(mesh.middle - size / 2) if piece.form == "slab" else mesh.middle
        inside = from_middle < half
    weight = np.zeros(cells)
    if piece.form == "slab":
        weight[cells // 2 - 1] = weight[cells // 2] = 0.5
    else:
        weight[0] = 1.0
    first, mass = _filled(inside, mesh.volume, piece)
    from_face = np.minimum(mesh.middle, size - mesh.middle) if piece.form == "slab" else size / 2 - mesh.middle
    meat = np.where(inside, 0.0, 1.0)
    return Body(
        piece.form,
        mesh.width,
        np.ones(1),
        mesh.volume,
        mesh.area,
        mass,
        first,
        meat,
        meat * release_frac(from_face),
        weight,
    )


def _block(piece: PieceGeometry, finer: int) -> Body:
    columns, rows = BLOCK_COLUMNS * finer, BLOCK_ROWS * finer
    if not finer:
        columns, rows = BLOCK_COLUMNS // 2, BLOCK_ROWS // 2
    width = block_widths(piece.width_mm / 2000.0, columns, both_ends=False)
    height = block_widths(piece.size_mm / 1000.0, rows, both_ends=True)
    volume = np.outer(height, width)
    inside = np.zeros((rows, columns), dtype=bool)
    if piece.middle is not None:
        # A row of eggs is round; a square of the same area stands for it.
        half = piece.middle.size_mm / 2000.0 * math.sqrt(math.pi) / 2
        x, y = np.cumsum(width) - width / 2, np.cumsum(height) - height / 2 - piece.size_mm / 2000.0
        inside = (np.abs(y)[:, None] < half) & (x[None, :] < half)
    first, mass = _filled(inside, volume, piece)
    weight = np.zeros((rows, columns))
    weight[rows // 2 - 1, 0] = weight[rows // 2, 0] = 0.5
    below, inward = np.cumsum(height) - height / 2, piece.width_mm / 2000.0 - np.cumsum(width) + width / 2
    from_face = np.minimum(np.minimum(below, below[::-1])[:, None], inward[None, :])
    meat = np.where(inside, 0.0, 1.0)
    return Body("block", width, height, volume, np.ones(1), mass, first, meat, meat * release_frac(from_face), weight)


def _filled(inside: Array, volume: Array, piece: PieceGeometry) -> tuple[Array, Array]:
    first = np.empty((*volume.shape, 5))
    first[...] = np.array(piece.meat.shares)
    density = np.full(volume.shape, piece.meat.density_kg_m3)
    if piece.middle is not None:
        first[inside] = np.array(piece.middle.meat.shares)
        density[inside] = piece.middle.meat.density_kg_m3
    return first, density * volume
