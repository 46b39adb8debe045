"""A cold box on the way: the heat that comes in, the ice that takes it up, and what happens without ice."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from vianda.core.basis.band import Band
from vianda.core.basis.errors import OutOfRangeError

BoxKind = Literal["thin", "usual", "thick"]
# Ice melts with so much, kJ/kg (CRC Handbook: 333.55, from memory, high); a litre of ice in pieces holds so much, kg.
MELTS_KJ_KG, ICE_KG_L = 333.55, 0.55
# Air within and without, W/(m² K): still air by a vertical wall and radiation, some 8 (ASHRAE, 8.3; from memory, high).
FILM_W_M2K = 8.3
# Heat through lid, handle and each opening comes beside that of the walls: a tenth to a half more (ours).
LID = Band(1.1, 1.25, 1.5)
# Room that things take in a box beside what they displace (ours).
FILLS_FRAC = 0.6
LONGEST_H, HOTTEST_C, COLDEST_C, LARGEST_L = 24.0, 50.0, -20.0, 500.0


@dataclass(frozen=True, slots=True)
class Box:
    """Walls of a box: what they are called, their thickness, mm, and what they conduct, W/(m K)."""

    title: str
    wall_mm: float
    conducts_w_m_k: float


# Conductivities as the tables of ``ht.insulation`` have them; thicknesses ours.
BOXES: Mapping[BoxKind, Box] = {
    "thin": Box("Foam box, beads, 25 mm", 25.0, 0.0355),
    "usual": Box("Cool box, 35 mm of foam", 35.0, 0.026),
    "thick": Box("Heavy box, 60 mm of foam", 60.0, 0.026),
}


@dataclass(frozen=True, slots=True)
class BoxFigures:
    """A box on its way.

    ``ice_kg`` keeps what lies in it near 0 °C; ``box_l`` is its room, litres, ``heat_w`` what comes in. Without ice it
    is ``arrives_c`` at the end, and passes ``line_c`` after ``line_min``; None: not on the way.
    """

    box_l: float
    heat_w: float
    ice_kg: Band
    arrives_c: float
    line_min: float | None


def u_w_m2k(box: Box) -> float:
    """What a square metre of wall lets through: 1 / U = 1 / h + d / k + 1 / h.

    Parameters
    ----------
    box : Box
        The walls.

    Returns
    -------
    float
        W/(m² K).

    References
    ----------
    Plane wall between two films, as in every textbook of heat transfer.

    Examples
    --------
    >>> round(u_w_m2k(BOXES["usual"]), 2)
    0.63
    """
    return 1.0 / (2.0 / FILM_W_M2K + box.wall_mm / 1000.0 / box.conducts_w_m_k)


def in_a_box(
    *,
    mass_kg: float,
    volume_l: float,
    heat_j_kg_k: float,
    from_c: float,
    around_c: float,
    hours: float,
    line_c: float,
    kind: BoxKind = "usual",
    box_l: float = 0.0,
) -> BoxFigures:
    """What lies in a cold box for so long.

    Ice takes up what comes through the walls, U A (around − 0 °C) t, and what the food gives until it is at 0 °C.
    Without ice the food warms as one: T = around − (around − from) exp(−U A t / (m c)).

    Parameters
    ----------
    mass_kg : float
        Food, kg, above 0.
    volume_l : float
        What it displaces, l, above 0.
    heat_j_kg_k : float
        Its specific heat, J/(kg K).
    from_c : float
        Its temperature when it is packed, −1 to 30 °C.
    around_c : float
        Air round the box, −20 to 50 °C.
    hours : float
        On the way, above 0 to 24 h.
    line_c : float
        The line that cold food keeps below, °C.
    kind : BoxKind, default "usual"
        The walls.
    box_l : float, default 0
        Room of the box that is taken, l, 0 to 500; as large as food and ice need where that is more.

    Returns
    -------
    BoxFigures
        A cube; a long box takes more ice.

    Raises
    ------
    OutOfRangeError
        Outside the ranges above.

    References
    ----------
    Steady conduction through a plane wall; a body that is stirred within (lumped).
    """
    if not 0.0 < hours <= LONGEST_H:
        raise OutOfRangeError(f"It is on the way for up to {LONGEST_H:.0f} h.", field="/trip/hours")
    if not COLDEST_C <= around_c <= HOTTEST_C:
        raise OutOfRangeError(f"The air round it has {COLDEST_C:.0f} to {HOTTEST_C:.0f} °C.", field="/trip/around_c")
    if not -1.0 <= from_c <= 30.0:
        raise OutOfRangeError("It is packed at −1 to 30 °C.", field="/trip/from_c")
    if not 0.0 <= box_l <= LARGEST_L:
        raise OutOfRangeError(f"A box holds up to {LARGEST_L:.0f} l.", field="/trip/box_l")
    if mass_kg <= 0.0 or volume_l <= 0.0:
        raise OutOfRangeError("There is nothing to carry.", field="/formula")
    wall = u_w_m2k(BOXES[kind])
    capacity_j_k = mass_kg * heat_j_kg_k
    seconds = 3600.0 * hours
    ice_kg = 0.0
    # The more ice, the larger the box, the more heat: it settles within a few rounds.
    for _ in range(12):
        room_l = max(box_l, (volume_l + ice_kg / ICE_KG_L) / FILLS_FRAC)
        through = wall * _area_m2(room_l) * max(0.0, around_c) * seconds
        ice_kg = (LID.usual * through + capacity_j_k * max(0.0, from_c)) / 1000.0 / MELTS_KJ_KG
    at_once = capacity_j_k * max(0.0, from_c) / 1000.0 / MELTS_KJ_KG
    walls = (ice_kg - at_once) / LID.usual
    # Without ice a box may be smaller.
    heat_w_k = LID.usual * wall * _area_m2(max(box_l, volume_l / FILLS_FRAC))
    gone = math.exp(-heat_w_k * seconds / capacity_j_k)
    return BoxFigures(
        box_l=room_l,
        heat_w=LID.usual * wall * _area_m2(room_l) * max(0.0, around_c),
        ice_kg=Band(at_once + LID.low * walls, ice_kg, at_once + LID.high * walls),
        arrives_c=around_c - (around_c - from_c) * gone,
        line_min=warms_to_min(from_c, line_c, around_c=around_c, rate_per_s=heat_w_k / capacity_j_k, most_s=seconds),
    )


def warms_to_min(from_c: float, to_c: float, *, around_c: float, rate_per_s: float, most_s: float) -> float | None:
    """When a body that warms as one passes a line.

    Parameters
    ----------
    from_c : float
        Its temperature at first, °C.
    to_c : float
        The line, °C.
    around_c : float
        What surrounds it, °C.
    rate_per_s : float
        Heat transfer over heat capacity, 1/s, above 0.
    most_s : float
        How long is looked, s.

    Returns
    -------
    float | None
        Minutes; 0 where it is past it already, None where it is not within the time.

    References
    ----------
    T = around − (around − from) exp(−rate t), solved for t.

    Examples
    --------
    >>> round(warms_to_min(3.0, 5.0, around_c=25.0, rate_per_s=1 / 3600, most_s=7200), 1)
    5.7
    """
    if from_c >= to_c:
        return 0.0
    if around_c <= to_c:
        return None
    seconds = math.log((around_c - from_c) / (around_c - to_c)) / rate_per_s
    return seconds / 60.0 if seconds <= most_s else None


def _area_m2(litres: float) -> float:
    """Outer faces of a cube."""
    side = math.cbrt(litres / 1000.0)
    return 6.0 * side * side
