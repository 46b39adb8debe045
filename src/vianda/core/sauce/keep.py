"""A sauce, or balls in one, kept for later: how fast a tray of it cools, against the published limits.

A tray is a plane wall that loses heat through both faces: the series of the textbook, exact for constant properties.
Corners cool faster, so a wide tray is what is computed.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from vianda.core.basis.band import Band
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.phrase import Phrase, number, say, temp
from vianda.core.heat.after import (
    COOL_ALL_S,
    COOL_FIRST_S,
    COOL_FROM_C,
    COOL_MIDDLE_C,
    COOL_TO_C,
    REHEAT_C,
    cools_in_time,
)

Cooled = Literal["fridge", "ice-bath", "freezer"]
# What surrounds a tray, °C, and how it takes heat, W/(m² K): least, usual, most. From memory and ours, low: a still
# fridge 5, one with a fan 15; ice water that is stirred through the metal some 200, from below and the sides only.
AROUND: Mapping[Cooled, tuple[float, tuple[float, float, float]]] = {
    "fridge": (3.0, (6.0, 10.0, 15.0)),
    "ice-bath": (0.5, (80.0, 150.0, 250.0)),
    "freezer": (-18.0, (6.0, 10.0, 15.0)),
}
# Sauces and meat in sauce: about as water with a tenth to a fifth of dry matter (Choi & Okos, from memory, medium).
K_W_M_K, RHO_KG_M3, CP_J_KG_K = 0.53, 1050.0, 3700.0
TERMS, LONGEST_S = 12, 72 * 3600.0
# Warmed up within this: FDA Food Code 3-403.11, to 74 °C within 2 h. From memory, high.
REHEAT_WITHIN_S = 2 * 3600.0


@dataclass(frozen=True, slots=True)
class TrayCooling:
    """A tray cooled: hours from 57 to 21 °C and to 5 °C (``lines_c``), and whether both keep the published limits.

    ``deepest_mm`` is the deepest tray that would, by the usual air; ``said``: what to make of it.
    """

    first_h: Band
    whole_h: Band
    lines_c: tuple[float, float, float]
    within: bool
    surely_within: bool
    deepest_mm: float
    said: Phrase


def centre_s(depth_mm: float, *, h: float, around_c: float, from_c: float, to_c: float) -> float:
    """How long the middle of a tray takes from one temperature to another, both faces cooled alike.

    Parameters
    ----------
    depth_mm : float
        Depth of what is in it, mm, above 0.
    h : float
        Heat transfer at each face, W/(m² K), above 0.
    around_c : float
        What surrounds it, °C.
    from_c : float
        All of it at the start, °C, above ``to_c``.
    to_c : float
        The middle at the end, °C, above ``around_c``.

    Returns
    -------
    float
        s.

    References
    ----------
    Plane wall with convection, Incropera, Fundamentals of Heat and Mass Transfer, 5.5; from memory, high.

    Examples
    --------
    >>> round(centre_s(40, h=10, around_c=3, from_c=57, to_c=21) / 3600, 1)
    2.8
    """
    half = depth_mm / 2000.0
    roots = [(_beta(h * half / K_W_M_K, n)) for n in range(TERMS)]
    share = (to_c - around_c) / (from_c - around_c)

    def theta(seconds: float) -> float:
        fourier = K_W_M_K / (RHO_KG_M3 * CP_J_KG_K) * seconds / half**2
        return math.fsum(4.0 * math.sin(b) / (2.0 * b + math.sin(2.0 * b)) * math.exp(-b * b * fourier) for b in roots)

    low, high = 0.0, LONGEST_S
    for _ in range(60):
        middle = (low + high) / 2
        low, high = (middle, high) if theta(middle) > share else (low, middle)
    return high


def _beta(biot: float, n: int) -> float:
    """The nth root of β tan β = Bi, counted from 0: it lies in (n π, n π + π/2)."""
    low, high = n * math.pi, n * math.pi + math.pi / 2 - 1e-12
    for _ in range(80):
        middle = (low + high) / 2
        low, high = (middle, high) if middle * math.tan(middle) < biot else (low, middle)
    return (low + high) / 2


def keep(depth_mm: float, cooled: Cooled) -> TrayCooling:
    """Whether a tray so deep cools as fast as published, and what to do with it then.

    Parameters
    ----------
    depth_mm : float
        Depth of what is in the tray, mm, 5 to 300.
    cooled : Cooled
        In a fridge, in ice water, or in a freezer.

    Returns
    -------
    TrayCooling
        Times with their band, and the depth that would do.

    Raises
    ------
    OutOfRangeError
        When the depth is none.

    References
    ----------
    FDA Food Code 3-501.14 (cooling), 3-403.11 (warming up); from memory, high.

    Examples
    --------
    >>> found = keep(25, "fridge")
    >>> found.within, round(found.deepest_mm)
    (True, 30)
    """
    if not 5.0 <= depth_mm <= 300.0:
        raise OutOfRangeError("A tray is filled 5 to 300 mm deep.", field="/depth_mm")
    around, hs = AROUND[cooled]
    slow, usual, fast = (_both(depth_mm, h, around) for h in hs)
    within, surely = cools_in_time(*usual), cools_in_time(*slow)
    deepest = _deepest(hs[1], around)
    text = (
        "The Food Code's line: from {hot} to {middle} within {first} h, and to {cold} within {all} h. {verdict} Then "
        "cold for days or frozen; warmed to {again} throughout within {soon} h, once. Local codes decide."
    )
    verdict = "So deep it is too slow: shallower trays, or ice water."
    if within:
        verdict = "So deep it is computed to keep it" + (": measure it." if surely else ", but not surely: measure it.")
    return TrayCooling(
        Band(*(t[0] / 3600.0 for t in (fast, usual, slow))),
        Band(*(t[1] / 3600.0 for t in (fast, usual, slow))),
        (COOL_FROM_C, COOL_MIDDLE_C, COOL_TO_C),
        within,
        surely,
        deepest,
        say(
            text.replace("{verdict}", verdict),
            hot=temp(COOL_FROM_C),
            middle=temp(COOL_MIDDLE_C),
            cold=temp(COOL_TO_C),
            first=number(COOL_FIRST_S / 3600.0),
            all=number(COOL_ALL_S / 3600.0),
            again=temp(REHEAT_C),
            soon=number(REHEAT_WITHIN_S / 3600.0),
        ),
    )


def _both(depth_mm: float, h: float, around_c: float) -> tuple[float, float]:
    return (
        centre_s(depth_mm, h=h, around_c=around_c, from_c=COOL_FROM_C, to_c=COOL_MIDDLE_C),
        centre_s(depth_mm, h=h, around_c=around_c, from_c=COOL_FROM_C, to_c=COOL_TO_C),
    )


def _deepest(h: float, around_c: float) -> float:
    """The deepest tray that still cools in time, mm."""
    low, high = 1.0, 400.0
    for _ in range(40):
        middle = (low + high) / 2
        low, high = (middle, high) if cools_in_time(*_both(middle, h, around_c)) else (low, middle)
    return low
