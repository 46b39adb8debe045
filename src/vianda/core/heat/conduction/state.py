"""What the run works on: named groups of arrays that machine code can take.

Units: temperatures in °C, masses in kg, lengths in m, heat in J. Shapes: a flat piece or a ball has ``n`` cells in a
row, a loaf ``(rows, columns)``; written here as ``(cells)``. Flows are for a square metre of a flat piece, a steradian
of a ball, a metre of half a loaf.
"""

from __future__ import annotations

from typing import NamedTuple

from vianda.core.heat.conduction.meat import Array


class Cells(NamedTuple):
    """What a step changes in the cells.

    Attributes
    ----------
    temp : Array
        Temperatures, °C, shape ``(cells)``.
    shares : Array
        Mass of each constituent by the first mass of its cell, shape ``(cells, 5)``.
    tally : Array
        Sums in the order of ``slab.HEAT_IN`` and after it: J, kg, browning.
    lethal : Array
        log₁₀ reductions so far, shape ``(cells)``.
    peak : Array
        Highest temperature so far, °C, shape ``(cells)``.
    """

    temp: Array
    shares: Array
    tally: Array
    lethal: Array
    peak: Array


class Mesh(NamedTuple):
    """What stays as it is: the geometry and what was there at first.

    Attributes
    ----------
    width, height : Array
        Of the cells, m; ``height`` is of a loaf only.
    area : Array
        Between the cells of a row and at its two ends, m², shape ``(n + 1)``.
    mass : Array
        At first, kg, shape ``(cells)``.
    first : Array
        ``shares`` at first.
    release : Array
        How readily what is loose gets out of a cell, 0–1; 0 where no meat is.
    core_weight : Array
        Weights of the cells whose mean is the core.
    """

    width: Array
    height: Array
    area: Array
    mass: Array
    first: Array
    release: Array
    core_weight: Array


class Until(NamedTuple):
    """What ends a stage: an ``END_…`` code, its value (°C or a fraction), and the longest it may take, s.

    ``coldest_c`` is what every place in the meat must have come to besides, °C, where the core is waited for.
    """

    end: int
    value: float
    coldest_c: float
    seconds: float


class Record(NamedTuple):
    """Samples on the way. ``clock``: now, when the next is due, and how often one is, s.

    ``time_s`` has shape ``(kept)``, ``temp`` ``(kept, cells)``, ``more`` ``(kept, 9)`` in the order of ``slab.KEPT_…``.
    """

    clock: Array
    time_s: Array
    temp: Array
    more: Array


class Line(NamedTuple):
    """A row or a column of cells for one step.

    ``water`` is its share, ``k`` the conductivity in W/(m K), ``across`` the areas between cells in m², ``blended``
    ``(n, BLENDED)`` the heat content of each cell as ``props.blend`` makes it.
    """

    temp: Array
    water: Array
    mass: Array
    k: Array
    width: Array
    across: Array
    blended: Array
