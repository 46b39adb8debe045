"""A formula's raw pieces carried elsewhere: box, ice, papers, and minutes out of the cold."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated

from annotated_types import Ge, Gt, Le

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Phrase, say
from vianda.core.basis.units import c_from_f
from vianda.core.carried.cold_box import (
    BOXES,
    COLDEST_C,
    FILM_W_M2K,
    HOTTEST_C,
    LARGEST_L,
    LONGEST_H,
    BoxFigures,
    BoxKind,
    in_a_box,
    warms_to_min,
)
from vianda.core.equipment.kitchen import Country
from vianda.core.mix.temperature import heat_capacity_j_per_kg_k
from vianda.core.model.styles import BLOCKS, FLAT
from vianda.core.pipeline.figures import Figures

# Cold food is kept at or below, by country. US: FDA Food Code 3-501.16 (41 °F, high). UK: schedule 4 of the Food Safety
# and Hygiene (England) Regulations 2013 (8 °C, high). Canada: 4 °C (medium). Elsewhere WHO, Five Keys (5 °C, medium).
# All from memory.
COLD_HOLDS: Mapping[Country, tuple[float, str]] = {
    "US": (c_from_f(41.0), "FDA Food Code 3-501.16"),
    "UK": (8.0, "Food Safety and Hygiene (England) Regulations 2013, schedule 4"),
    "CA": (4.0, "Canada, Food Retail and Food Services Code"),
    "other": (5.0, "WHO, Five Keys to Safer Food"),
}
# Flat pieces lie in stacks, a paper under each: as high as they stand without pressing each other flat (ours).
STACK = 5
LOOKED_S = 4 * 3600.0


@dataclass(frozen=True, slots=True)
class Trip:
    """How raw pieces are carried: hours on the way, air round the box, how cold they are packed, in which box, and its
    litres."""

    hours: Annotated[float, Gt(0), Le(LONGEST_H)] = 2.0
    around_c: Annotated[float, Ge(COLDEST_C), Le(HOTTEST_C)] = 25.0
    from_c: Annotated[float, Ge(-1), Le(30)] = 3.0
    box: BoxKind = "usual"
    box_l: Annotated[float, Ge(0), Le(LARGEST_L)] = 25.0


@dataclass(frozen=True, slots=True)
class BoxChoice:
    """A box that could be taken, and the ice it takes, g."""

    key: BoxKind
    title: str
    ice_g: float


@dataclass(frozen=True, slots=True)
class Carried:
    """What a trip takes.

    ``papers`` lie under flat pieces in ``stacks``, 0 for others. ``out_min`` is how long one layer of raw pieces may
    lie in this air until it passes ``line_c``; None: longer than four hours.
    """

    says: Phrase
    pieces: int
    mass_g: float
    box: BoxFigures
    boxes: tuple[BoxChoice, ...]
    papers: int
    stacks: int
    out_min: float | None
    line_c: float
    line_source: str
    remarks: tuple[Phrase, ...]


def carried(figures: Figures, trip: Trip) -> Carried:
    """What it takes to carry the raw pieces of a formula elsewhere.

    Parameters
    ----------
    figures : Figures
        The results of all stages.
    trip : Trip
        How far, how warm, in what.

    Returns
    -------
    Carried
        Box, ice, papers and minutes out of the cold.

    Raises
    ------
    OutOfRangeError
        A trip out of range, or nothing to carry.

    References
    ----------
    ``carried.cold_box``; specific heat by Choi and Okos; cold lines by country (``COLD_HOLDS``).
    """
    portions, shape = figures.batch.portions, figures.piece.shape
    mass_kg = portions.pieces * float(portions.piece_mass_g) / 1000.0
    heat = heat_capacity_j_per_kg_k(figures.piece.composition.mix, temp_c=5.0)
    line_c, source = COLD_HOLDS[figures.context.kitchen.country]

    def box_of(kind: BoxKind) -> BoxFigures:
        return in_a_box(
            mass_kg=mass_kg,
            volume_l=mass_kg / shape.density_g_per_ml,
            heat_j_kg_k=heat,
            from_c=trip.from_c,
            around_c=trip.around_c,
            hours=trip.hours,
            line_c=line_c,
            kind=kind,
            box_l=trip.box_l,
        )

    box = box_of(trip.box)
    form = figures.context.style.form
    stacks = math.ceil(portions.pieces / STACK) if form in FLAT else 0
    # In one layer on a tray a piece takes heat from above and its rim; what lies beneath is as cold as it is.
    rate = FILM_W_M2K * _open_m2(figures) / (float(portions.piece_mass_g) / 1000.0 * heat)
    out = warms_to_min(trip.from_c, line_c, around_c=trip.around_c, rate_per_s=rate, most_s=LOOKED_S)
    return Carried(
        says=_said(trip, box, line_c),
        pieces=portions.pieces,
        mass_g=1000.0 * mass_kg,
        box=box,
        boxes=tuple(BoxChoice(kind, each.title, 1000.0 * box_of(kind).ice_kg.usual) for kind, each in BOXES.items()),
        papers=portions.pieces + stacks if form in FLAT else 0,
        stacks=stacks,
        out_min=out,
        line_c=line_c,
        line_source=source,
        remarks=tuple(_remarks(trip, box, out, line_c, blocks=form in BLOCKS)),
    )


def _open_m2(figures: Figures) -> float:
    """What of a raw piece meets the air on a tray, m²: its top and its rim."""
    shape = figures.piece.shape
    if shape.raw_diameter_mm > 0.0:
        top, rim = math.pi / 4.0 * shape.raw_diameter_mm**2, math.pi * shape.raw_diameter_mm * shape.thickness_mm
    else:
        top = shape.length_mm * shape.width_mm
        rim = 2.0 * (shape.length_mm + shape.width_mm) * shape.thickness_mm
    if top <= 0.0:
        # Loose: as a ball of its mass.
        radius = (3.0 * shape.volume_ml / (4.0 * math.pi)) ** (1.0 / 3.0) * 10.0
        top, rim = 3.0 * math.pi * radius**2, 0.0
    return (top + rim) / 1e6


def _said(trip: Trip, box: BoxFigures, line_c: float) -> Phrase:
    if trip.around_c <= 0.0 and trip.from_c <= 0.0:
        return say("It is as cold outside as ice: no ice is needed.")
    ice = ph.mass(1000.0 * box.ice_kg.usual, 1000.0 * box.ice_kg.high)
    if box.line_min is None:
        return say(
            "Without ice it arrives at {at}, below {line}. With {ice} of ice it stays near 0 °C.",
            at=ph.temp(box.arrives_c),
            line=ph.temp(line_c),
            ice=ice,
        )
    return say(
        "Take {ice} of ice. Without it, it passes {line} after {after} and arrives at {at}.",
        ice=ice,
        line=ph.temp(line_c),
        after=ph.minutes(box.line_min),
        at=ph.temp(box.arrives_c),
    )


def _remarks(trip: Trip, box: BoxFigures, out_min: float | None, line_c: float, *, blocks: bool) -> list[Phrase]:
    found = []
    if trip.from_c > line_c:
        found.append(
            say(
                "It is packed at {at}, above {line}: chill it first. A box keeps cold; it hardly makes cold.",
                at=ph.temp(trip.from_c),
                line=ph.temp(line_c),
            )
        )
    if out_min is not None and trip.from_c <= line_c:
        found.append(
            say(
                "One layer on a tray is past {line} after {out} in this air. Take out what goes on next, no more.",
                line=ph.temp(line_c),
                out=ph.minutes(out_min),
            )
        )
    if box.box_l > trip.box_l + 0.5:
        found.append(say("It and its ice take a box of {n} l, or two of half.", n=ph.count(math.ceil(box.box_l))))
    if blocks:
        found.append(say("A loaf is carried in its tin, covered."))
    found.append(
        say("Raw below, ready to eat above, each closed. Measure on arrival; your own rules and licence come first.")
    )
    return found
