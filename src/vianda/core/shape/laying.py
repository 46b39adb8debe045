"""How many pieces lie on a surface at once, and where: discs on a plate or in a pan, loaves on a tray."""

from __future__ import annotations

import csv
import math
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from importlib.resources import files

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.equipment.kitchen import Surface
from vianda.core.model.styles import BLOCKS, Form

Centres = tuple[tuple[float, float], ...]

# A pan browns half a layer of crumbled meat at a time: grams to a square centimetre (common practice: in batches).
CRUMBLED_G_PER_CM2 = 0.7
_DUST = 1e-9


@dataclass(frozen=True, slots=True)
class Laid:
    """Where the pieces of one wave lie: centres in mm from the surface's left and far edge, and one piece's footprint
    in mm, across and deep as it lies. ``in_squares`` is how many a plain square grid would hold."""

    centres_mm: Centres
    across_mm: float
    deep_mm: float
    in_squares: int = 0


@dataclass(frozen=True, slots=True)
class Laying:
    """How a batch goes on a surface: the places of one wave, how many lie at once, and in how many waves.

    The last wave may be smaller, and the first, where something lies beside it. ``in_squares`` is how many a plain
    square grid would hold.
    """

    centres_mm: Centres
    across_mm: float
    deep_mm: float
    at_once: int
    in_squares: int
    waves: int
    first_wave: int
    last_wave: int


def laying_of(
    form: Form,
    *,
    surface: Surface,
    pieces: int,
    diameter_mm: float,
    length_mm: float,
    width_mm: float,
    gap_mm: float,
    crumbled_g: float,
    taken_frac: float = 0.0,
) -> Laying:
    """How the pieces of a batch lie on a surface, wave by wave.

    Parameters
    ----------
    form : Form
        Flat pieces and balls lie as discs, loaves in rows; what is crumbled has one place.
    surface : Surface
        What it cooks on.
    pieces : int
        Pieces, or portions of what is crumbled, in the batch (count).
    diameter_mm : float
        Size of one raw piece, mm.
    length_mm : float
        Length of one raw loaf, mm.
    width_mm : float
        Width of one raw loaf, mm.
    gap_mm : float
        Room left between two pieces, mm.
    crumbled_g : float
        Meat in a portion of what is crumbled, g. Only that is browned; the rest of a portion comes to it in the pot.
    taken_frac : float, default 0.0
        Share of the surface on which something else lies beside the first wave, 0–0.5.

    Returns
    -------
    Laying
        The places of one wave and the number of waves.

    Raises
    ------
    OutOfRangeError
        When not even one piece fits the surface.

    Examples
    --------
    >>> from vianda.core.equipment.kitchen import Surface
    >>> plate = Surface("p", "plate", "plate", 700, 400, False)
    >>> laying = laying_of("disc", surface=plate, pieces=40, diameter_mm=132, length_mm=132, width_mm=132, gap_mm=6,
    ...                    crumbled_g=0)
    >>> laying.at_once, laying.waves, laying.last_wave
    (14, 3, 12)
    """
    at_once: int | None = None
    if form == "crumbled":
        laid = Laid(((surface.width_mm / 2, surface.depth_mm / 2),), 0.0, 0.0)
        at_once = max(1, int(crumbled_at_once_g(surface) // crumbled_g))
    elif form in BLOCKS:
        laid = blocks_at_once(surface=surface, length_mm=length_mm, width_mm=width_mm, gap_mm=gap_mm)
    else:
        laid = discs_at_once(surface=surface, diameter_mm=diameter_mm, gap_mm=gap_mm)
    if not laid.centres_mm:
        raise OutOfRangeError(
            f"One piece is wider than {surface.name}: make it lighter or thicker, or choose a larger surface.",
            field="/heat/surface",
        )
    at_once = min(len(laid.centres_mm) if at_once is None else at_once, pieces)
    room = len(laid.centres_mm) if form != "crumbled" else at_once
    first = min(pieces, at_once, max(1, math.floor(room * (1.0 - taken_frac) + _DUST)))
    more = math.ceil((pieces - first) / at_once)
    return Laying(
        laid.centres_mm[:at_once],
        laid.across_mm,
        laid.deep_mm,
        at_once,
        min(laid.in_squares or at_once, pieces),
        1 + more,
        first,
        pieces - first - at_once * (more - 1) if more else first,
    )


def crumbled_at_once_g(surface: Surface) -> float:
    """Grams of crumbled meat that brown at once on a surface instead of stewing in their juice.

    Parameters
    ----------
    surface : Surface
        What it cooks on.

    Returns
    -------
    float
        Meat that browns at once, g.

    References
    ----------
    Common practice, no published source.
    """
    area_mm2 = surface.width_mm * surface.depth_mm * (math.pi / 4 if surface.round_shape else 1.0)
    return area_mm2 / 100.0 * CRUMBLED_G_PER_CM2


def blocks_at_once(*, surface: Surface, length_mm: float, width_mm: float, gap_mm: float) -> Laid:
    """Where loaves lie on a tray: the fuller of the two ways of laying them in rows, lengthwise when they tie.

    Parameters
    ----------
    surface : Surface
        What it cooks on.
    length_mm : float
        Length of a raw loaf, mm.
    width_mm : float
        Width of a raw loaf, mm.
    gap_mm : float
        Room left between two, mm.

    Returns
    -------
    Laid
        Where the pieces of one wave lie.

    Examples
    --------
    >>> from vianda.core.equipment.kitchen import usual_oven
    >>> len(blocks_at_once(surface=usual_oven(), length_mm=180, width_mm=120, gap_mm=40).centres_mm)
    4
    """
    best = Laid((), length_mm, width_mm)
    for across_mm, deep_mm in ((length_mm, width_mm), (width_mm, length_mm)):
        across = math.floor((surface.width_mm + gap_mm) / (across_mm + gap_mm) + _DUST)
        deep = math.floor((surface.depth_mm + gap_mm) / (deep_mm + gap_mm) + _DUST)
        if across * deep > len(best.centres_mm):
            rows = _spread(surface.depth_mm, deep, deep_mm + gap_mm)
            columns = _spread(surface.width_mm, across, across_mm + gap_mm)
            centres = tuple((x, y) for y in rows for x in columns)
            best = Laid(centres, across_mm, deep_mm, across * deep)
    return best


def discs_at_once(*, surface: Surface, diameter_mm: float, gap_mm: float) -> Laid:
    """Where the discs of one wave lie.

    On a rectangle: rows in step (a square grid) or every other row shifted by half a place, with the rows as close as
    the shift lets them be; both ways round; the fullest wins, the plainest when they tie. In a round pan: the best
    known places for up to 19, a grid or shifted rows beyond. Never fewer than the square grid. Empty when one does not
    fit.

    Parameters
    ----------
    surface : Surface
        What it cooks on.
    diameter_mm : float
        Diameter of a raw piece, mm.
    gap_mm : float
        Room left between two, mm.

    Returns
    -------
    Laid
        Where the pieces of one wave lie.

    References
    ----------
    Round pans: places computed for the purpose, checked against Graham, Lubachevsky, Nurmela & Östergård
    (1998), from memory. Rows: geometry.

    Examples
    --------
    >>> from vianda.core.equipment.kitchen import Surface
    >>> plate = Surface("p", "plate", "plate", 700, 400, False)
    >>> laid = discs_at_once(surface=plate, diameter_mm=132, gap_mm=6)
    >>> len(laid.centres_mm), laid.in_squares
    (14, 10)
    """
    width, depth = surface.width_mm, surface.depth_mm
    if surface.round_shape:
        centres, squares = _in_pan(width, diameter_mm, gap_mm)
    else:
        centres, squares = _on_plate(width, depth, diameter_mm, gap_mm)
    return Laid(centres, diameter_mm, diameter_mm, squares)


def _on_plate(width: float, depth: float, diameter: float, gap: float) -> tuple[Centres, int]:
    room_x, room_y, pitch = width - diameter, depth - diameter, diameter + gap
    if room_x < -_DUST or room_y < -_DUST:
        return (), 0
    room_x, room_y = max(0.0, room_x), max(0.0, room_y)
    best = _square(width, depth, diameter, gap)
    squares = len(best)
    for turned in (False, True):
        long, deep = (room_y, room_x) if turned else (room_x, room_y)
        for spots in _shifted(long, deep, pitch):
            if len(spots) > len(best):
                laid = ((y, x) for x, y in spots) if turned else iter(spots)
                best = tuple((x + diameter / 2, y + diameter / 2) for x, y in laid)
    return best, squares


def _square(width: float, depth: float, diameter: float, gap: float) -> Centres:
    across = math.floor((width + gap) / (diameter + gap) + _DUST)
    deep = math.floor((depth + gap) / (diameter + gap) + _DUST)
    columns = _spread(width, across, diameter + gap)
    return tuple((x, y) for y in _spread(depth, deep, diameter + gap) for x in columns)


def _spread(room: float, count: int, pitch: float) -> tuple[float, ...]:
    """So many centres in a row, spread over the room evenly, but never nearer than the pitch."""
    step = max(pitch, room / count) if count else 0.0
    return tuple(room / 2 + (k - (count - 1) / 2) * step for k in range(count))


def _shifted(long: float, deep: float, pitch: float) -> list[list[tuple[float, float]]]:
    """Layouts with every other row shifted, for each number of rows that fits: centres from the first possible one.

    Rows dy apart let neighbours in a row stand dx = max(pitch, 2 √(pitch² − dy²)) apart; rows two apart must clear each
    other, so dy is half a pitch or more.
    """
    layouts = []
    most = math.floor(deep / (pitch / 2) + _DUST) + 1
    for rows in range(2, most + 1):
        dy = min(deep / (rows - 1), pitch)
        dx = max(pitch, 2.0 * math.sqrt(max(0.0, pitch**2 - dy**2)))
        full = math.floor(long / dx + _DUST) + 1
        short = math.floor((long - dx / 2) / dx + _DUST) + 1 if long >= dx / 2 - _DUST else 0
        # What is left over in a row is shared out, so that nothing crowds one edge.
        spread = (long - (full - 1) * dx - (dx / 2 if short == full else 0.0)) / 2
        down = (deep - (rows - 1) * dy) / 2
        spots = []
        for row in range(rows):
            start, count = (spread, full) if row % 2 == 0 else (spread + dx / 2, short)
            spots += [(start + k * dx, down + row * dy) for k in range(count)]
        layouts.append(spots)
    return layouts


@cache
def _tightest() -> Mapping[int, tuple[float, Centres]]:
    """Radius of the pan in radii of a disc, and the centres, for 1 to 19 discs."""
    text = (files("vianda.core.shape") / "data" / "circle_packings.csv").read_text(encoding="utf-8")
    found: dict[int, tuple[float, list[tuple[float, float]]]] = {}
    for row in csv.DictReader(text.splitlines()):
        found.setdefault(int(row["n"]), (float(row["pan_radius"]), []))[1].append((float(row["x"]), float(row["y"])))
    return {n: (radius, tuple(places)) for n, (radius, places) in found.items()}


def _in_pan(across: float, diameter: float, gap: float) -> tuple[Centres, int]:
    """Discs grown by the gap, in a pan grown by it: no gap is wanted at the rim."""
    middle, half = across / 2, (diameter + gap) / 2
    room = middle + gap / 2
    if diameter > across + _DUST:
        return (), 0
    squares = _grid_in_round(middle, diameter, gap)
    best: Centres = squares
    for n, (radius, places) in _tightest().items():
        if n > len(best) and radius * half <= room + _DUST:
            # Drawn out to the rim, so that they stand as far apart as there is room.
            scale = (room - half) / (radius - 1.0) if radius > 1.0 else 0.0
            best = tuple((middle + x * scale, middle + y * scale) for x, y in places)
    if len(best) >= max(_tightest()):
        shifted = _shifted_in_round(middle, diameter, gap)
        best = shifted if len(shifted) > len(best) else best
    return best, len(squares)


def _inside(spots: list[tuple[float, float]], middle: float, diameter: float) -> Centres:
    reach = middle - diameter / 2 + 1e-6
    return tuple((middle + x, middle + y) for x, y in spots if math.hypot(x, y) <= reach)


def _grid_in_round(middle: float, diameter: float, gap: float) -> Centres:
    pitch = diameter + gap
    steps = math.floor(middle / pitch) + 1
    found: Centres = ()
    for off in (0.0, 0.5):
        for off_y in (0.0, 0.5):
            spots = [
                ((i + off) * pitch, (j + off_y) * pitch)
                for j in range(-steps, steps + 1)
                for i in range(-steps, steps + 1)
            ]
            inside = _inside(spots, middle, diameter)
            found = inside if len(inside) > len(found) else found
    return found


def _shifted_in_round(middle: float, diameter: float, gap: float) -> Centres:
    pitch, found = diameter + gap, ()
    steps = math.floor(middle / pitch) + 2
    best: Centres = found
    for off_x, off_y in ((0.0, 0.0), (0.5, 0.0), (0.0, 1 / math.sqrt(3)), (0.25, math.sqrt(3) / 4)):
        spots = [
            ((i + (j % 2) / 2 + off_x) * pitch, j * pitch * math.sqrt(3) / 2 + off_y * pitch)
            for j in range(-steps, steps + 1)
            for i in range(-steps, steps + 1)
        ]
        inside = _inside(spots, middle, diameter)
        best = inside if len(inside) > len(best) else best
    return best
