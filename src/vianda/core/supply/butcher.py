"""One slip for the butcher over a span of days: every blend with its cuts, grind and days, and all cuts added up."""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import date, timedelta

from vianda.core.blend.slip import SAMPLE_G
from vianda.core.equipment.kitchen import Country
from vianda.core.inventory.inventory import Inventory
from vianda.core.pipeline.figures import Figures
from vianda.core.supply.arrival import limit_for, limit_ground
from vianda.core.supply.made_ahead import GROUND_KEEPS_DAYS
from vianda.core.supply.shopping import ShopLine

WEEK_DAYS = 7
# Below this no butcher cuts anything: dust of sums, g.
DUST_G = 0.5


@dataclass(frozen=True, slots=True)
class CutShare:
    """One cut of a blend: share of the mass 0–1, and grams trimmed of bone and silverskin."""

    meat: str
    name: str
    share_frac: float
    trimmed_g: float


@dataclass(frozen=True, slots=True)
class BlendTaken:
    """What one dish of one day takes of its blend.

    ``key`` tells blends apart. ``plate_mm`` 0: nothing is ground. ``ground_here``: this kitchen grinds it as a rule.
    ``label_name`` "" where no protected name fits. Masses in g; fat 0–1, from ``fat_low_frac`` to ``fat_high_frac``
    nine times in ten; ``fat_band_frac`` is what the style takes. ``portioned``: its pieces are of the blend alone.
    """

    key: str
    name: str
    cuts: tuple[CutShare, ...]
    mass_g: float
    plate_mm: float
    passes: int
    ground_here: bool
    fat_frac: float
    fat_low_frac: float
    fat_high_frac: float
    fat_band_frac: tuple[float, float]
    pieces: int
    piece_mass_g: float
    piece_tolerance_g: float
    portioned: bool
    label_name: str


@dataclass(frozen=True, slots=True)
class BlendDay:
    """So much of a blend for a day, g and pieces; it comes on ``comes_on`` at the earliest."""

    day: date
    comes_on: date
    mass_g: float
    pieces: int


@dataclass(frozen=True, slots=True)
class BlendOrder:
    """One blend over the span: what it is, ``blend``, with the masses of all days, and each day.

    ``week_mass_g`` is a week's at this rate. It is taken in at ``most_c`` °C at most when ground, as ``source`` says.
    """

    blend: BlendTaken
    days: tuple[BlendDay, ...]
    week_mass_g: float
    most_c: float
    source: str


@dataclass(frozen=True, slots=True)
class CutOrder:
    """One cut over the span, g: trimmed for all blends, as bought for that, there already, and what is to come.

    ``supplier`` "" where none is named. It is taken in at ``most_c`` °C at most.
    """

    meat: str
    name: str
    trimmed_g: float
    needed_g: float
    there_g: float
    order_g: float
    packs: int
    pack_g: float
    first_day: date
    order_by: date
    supplier: str
    most_c: float
    source: str


@dataclass(frozen=True, slots=True)
class ButcherSlip:
    """Every blend and every cut of a span; ``pieces`` are of blends that can be portioned; ``sample_g`` of each
    delivery is cooked out."""

    blends: tuple[BlendOrder, ...]
    cuts: tuple[CutOrder, ...]
    mass_g: float
    pieces: int
    sample_g: float = SAMPLE_G


def blend_taken(figures: Figures, *, name: str, key: str) -> BlendTaken | None:
    """What one dish takes of its blend.

    Parameters
    ----------
    figures : Figures
        The results of all stages.
    name : str
        What the dish is called.
    key : str
        What tells its blend from others.

    Returns
    -------
    BlendTaken | None
        None for a dish without meat.
    """
    slip, context = figures.trade.slip, figures.context
    cuts: dict[str, CutShare] = {}
    for part, line in zip(context.formula.parts, slip.lines, strict=True):
        if line.trimmed_g < DUST_G:
            continue
        # The same cut out of two lots is one cut to the butcher.
        there = cuts.get(part.meat, CutShare(part.meat, context.inventory.meat(part.meat).name, 0.0, 0.0))
        cuts[part.meat] = replace(
            there, share_frac=there.share_frac + line.share_frac, trimmed_g=there.trimmed_g + line.trimmed_g
        )
    if not cuts:
        return None
    return BlendTaken(
        key=key,
        name=name,
        cuts=tuple(cuts.values()),
        mass_g=float(slip.batch_mass_g),
        plate_mm=slip.plate_mm,
        passes=slip.passes,
        ground_here=figures.meat.grind.minutes > 0,
        fat_frac=slip.fat_frac,
        fat_low_frac=slip.fat_low_frac,
        fat_high_frac=slip.fat_high_frac,
        fat_band_frac=context.style.fat_band_frac,
        pieces=slip.pieces,
        piece_mass_g=float(slip.piece_mass_g),
        piece_tolerance_g=slip.piece_tolerance_g,
        portioned=slip.portioned,
        label_name=next((x.name for x in figures.trade.names if x.allowed), ""),
    )


@dataclass
class _Gathered:
    """One blend while the days are gone through."""

    first: BlendTaken
    mass_g: dict[date, float] = field(default_factory=dict)
    pieces: dict[date, int] = field(default_factory=dict)
    trimmed_g: dict[str, float] = field(default_factory=dict)


def butcher_slip_of(
    taken: Iterable[tuple[date, BlendTaken]],
    *,
    meats: Sequence[ShopLine],
    inventory: Inventory,
    country: Country,
    span_days: int,
) -> ButcherSlip:
    """One slip over a span.

    Parameters
    ----------
    taken : Iterable[tuple[date, BlendTaken]]
        What each dish takes, with the day on which it is cooked.
    meats : Sequence[ShopLine]
        The meats of the shopping list of the same span: they know what is there, packs and suppliers.
    inventory : Inventory
        The meats.
    country : Country
        Where the kitchen is: how warm a delivery may be.
    span_days : int
        Length of the span, days (1–62).

    Returns
    -------
    ButcherSlip
        Blends in the order of their first day, cuts by mass, the most first.

    Examples
    --------
    Forty pieces of 85 g on Friday and sixty on Saturday: 8.5 kg in all, of it 3.4 kg for Friday.
    """
    found: dict[str, _Gathered] = {}
    for day, blend in sorted(taken, key=lambda x: (x[0], x[1].name, x[1].key)):
        one = found.setdefault(blend.key, _Gathered(blend))
        one.mass_g[day] = one.mass_g.get(day, 0.0) + blend.mass_g
        one.pieces[day] = one.pieces.get(day, 0) + blend.pieces
        for cut in blend.cuts:
            one.trimmed_g[cut.meat] = one.trimmed_g.get(cut.meat, 0.0) + cut.trimmed_g
    blends = tuple(_blend_order(one, inventory, country, span_days) for one in found.values())
    trimmed: dict[str, float] = {}
    for one in found.values():
        for meat, grams in one.trimmed_g.items():
            trimmed[meat] = trimmed.get(meat, 0.0) + grams
    cuts = tuple(_cut_order(line, trimmed, inventory, country) for line in meats if line.needed > DUST_G)
    return ButcherSlip(
        blends,
        tuple(sorted(cuts, key=lambda c: (-c.order_g, c.name))),
        math.fsum(b.blend.mass_g for b in blends),
        sum(b.blend.pieces for b in blends if b.blend.portioned),
    )


def _blend_order(one: _Gathered, inventory: Inventory, country: Country, span_days: int) -> BlendOrder:
    mass_g = math.fsum(one.mass_g.values())
    cuts = tuple(replace(cut, trimmed_g=one.trimmed_g[cut.meat]) for cut in one.first.cuts)
    blend = replace(one.first, cuts=cuts, mass_g=mass_g, pieces=sum(one.pieces.values()))
    strictest = limit_ground((inventory.meat(c.meat) for c in cuts), country=country)
    days = tuple(
        BlendDay(day, day - timedelta(days=GROUND_KEEPS_DAYS), grams, one.pieces[day])
        for day, grams in one.mass_g.items()
    )
    return BlendOrder(blend, days, mass_g * WEEK_DAYS / span_days, strictest.most_c, strictest.source)


def _cut_order(line: ShopLine, trimmed: Mapping[str, float], inventory: Inventory, country: Country) -> CutOrder:
    most = limit_for(inventory.meat(line.key), country=country)
    return CutOrder(
        meat=line.key,
        name=line.name,
        trimmed_g=trimmed.get(line.key, 0.0),
        needed_g=line.needed,
        there_g=line.used,
        order_g=line.bought,
        packs=line.packs,
        pack_g=line.pack,
        first_day=line.first_day,
        order_by=line.order_by,
        supplier=line.supplier,
        most_c=most.most_c,
        source=most.source,
    )
