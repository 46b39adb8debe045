"""A formula cooked to order: what the kitchen holds in an hour, how long guests wait, and how much to hold ready."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from vianda.core.basis import phrase as ph
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.phrase import Phrase, say
from vianda.core.model.styles import FLAT
from vianda.core.orders.arrivals import Orders, drawn
from vianda.core.orders.line import Line, served
from vianda.core.pipeline.figures import Figures
from vianda.core.timetable import practice as pr

# Evenings that are drawn; the same seed draws the same ones. How many of ten guests are meant. Ours.
EVENINGS, SEED, WANTED_FRAC = 30, 11, 0.9
# So small a part of the guests is no reason to hold pieces ready: ours.
HARDLY_FRAC = 0.03
# A piece laid, pressed or turned, and taken off; what passes until the next lies in its place. Common practice, no
# published source.
TEND_MIN, CHANGE_MIN = 0.25, 0.33
# More than this lies on the surface too long to be cooked to order: ours.
LONGEST_MIN = 30.0
# More orders than this in one service are not drawn one by one.
MOST_ORDERS, MOST_READY = 2000, 48
Binds = Literal["surface", "hands"]


@dataclass(frozen=True, slots=True)
class Held:
    """One way to hold pieces ready, over the evenings drawn.

    ``within_frac`` of orders wait no longer than wanted; ``half_min`` and ``ninth_min`` are the waits of the fiftieth
    and the ninetieth of a hundred; ``queue`` the most orders at once on one evening of ten; ``wasted_frac`` of all
    pieces cooked is thrown away.
    """

    ready: int
    within_frac: float
    half_min: float
    ninth_min: float
    queue: int
    wasted_frac: float


@dataclass(frozen=True, slots=True)
class More:
    """What more of something would hold, portions an hour."""

    what: Phrase
    per_hour: float


@dataclass(frozen=True, slots=True)
class OrdersFigures:
    """What a kitchen makes of orders as they come.

    ``per_hour`` portions are held at most, bound by the surface or by the hands; ``rush_per_hour`` are asked for in the
    rush. ``soonest_min`` passes from an order to its plate with nothing ready and nobody before it. ``ready`` is what
    is advised, ``enough`` whether nine of ten then wait no longer than wanted. ``raw`` pieces are shaped for nine
    evenings of ten.
    """

    says: Phrase
    per_hour: float
    surface_per_hour: float
    hands_per_hour: float
    binds: Binds
    rush_per_hour: float
    soonest_min: float
    ready: int
    enough: bool
    raw: int
    held: tuple[Held, ...]
    more: tuple[More, ...]


def line_of(figures: Figures, *, cooks: int) -> Line:
    """What a formula's portions are put out with.

    Parameters
    ----------
    figures : Figures
        The results of all stages.
    cooks : int
        How many stand at it (count).

    Returns
    -------
    Line
        Places and minutes of the heat step, hands of the build.

    Raises
    ------
    OutOfRangeError
        For loaves, loose meat, and what lies on the heat for longer than half an hour.
    """
    form = figures.context.style.form
    on_heat_min = figures.cook.plan.on_heat_s.usual / 60.0
    if form not in FLAT or on_heat_min > LONGEST_MIN:
        raise OutOfRangeError(
            "This is cooked before guests come, not to order: hold it hot, and plan it by its timetable.",
            field="/formula",
        )
    pieces = figures.context.formula.dish.pieces_per_guest
    build = pr.BUILD if figures.context.bun.diameter_mm > 0 else pr.PLATE
    builds = figures.beside.builds / max(1, figures.batch.portions.pieces)
    return Line(
        places=figures.cook.stove.at_once,
        lies_min=on_heat_min + CHANGE_MIN,
        rests_min=figures.cook.plan.rest_s.usual / 60.0,
        keeps_min=float(pr.OFF_FLAT),
        pieces=pieces,
        hands_min=pieces * (TEND_MIN + builds * build.usual),
        cooks=cooks,
    )


def as_they_come(figures: Figures, orders: Orders, *, cooks: int) -> OrdersFigures:
    """How a kitchen fares with orders as they come.

    Parameters
    ----------
    figures : Figures
        The results of all stages.
    orders : Orders
        What is expected.
    cooks : int
        How many stand at it (count).

    Returns
    -------
    OrdersFigures
        Equal questions have equal answers.

    Raises
    ------
    OutOfRangeError
        For what is not cooked to order, and for more orders than are drawn one by one.

    References
    ----------
    Simulated evenings; where guests come evenly and one piece is a portion, the waits are those of an M/D/1 queue
    (Pollaczek and Khinchine), which is tested.
    """
    line = line_of(figures, cooks=cooks)
    if orders.expected() > MOST_ORDERS:
        raise OutOfRangeError(f"At most {MOST_ORDERS} orders are drawn for one service.", field="/orders/per_hour")
    evenings = [drawn(orders, np.random.default_rng([SEED, n])) for n in range(EVENINGS)]
    held = [_held(line, orders, evenings, ready) for ready in _ways(line)]
    wanted = [h for h in held if h.within_frac >= WANTED_FRAC]
    # The fewest that suffice; where none do, the fewest that keep about as many guests within the time as any.
    most = max(h.within_frac for h in held)
    best = wanted[0] if wanted else next(h for h in held if h.within_frac >= most - HARDLY_FRAC)
    surface, hands = line.surface_per_hour(), line.hands_per_hour()
    portions = sum(n for evening in evenings for _, n in evening) / EVENINGS
    raw = float(np.quantile([sum(n for _, n in evening) for evening in evenings], WANTED_FRAC)) if portions else 0.0
    rush = orders.per_hour * orders.portions
    if orders.rush_ends_min > orders.rush_from_min:
        rush *= orders.rush_factor
    return OrdersFigures(
        says=_says(line, orders, best, rush),
        per_hour=min(surface, hands),
        surface_per_hour=surface,
        hands_per_hour=hands,
        binds="surface" if surface <= hands else "hands",
        rush_per_hour=rush,
        soonest_min=line.lies_min - CHANGE_MIN + line.rests_min + line.hands_min,
        ready=best.ready,
        enough=bool(wanted),
        raw=int(-(-raw * line.pieces // 1)) + best.ready,
        held=tuple(held),
        more=_more(line),
    )


def _ways(line: Line) -> list[int]:
    """Pieces held ready that are tried: whole portions, up to what lies at once, twice over."""
    most = min(MOST_READY, 2 * line.places)
    tried = [0]
    step = line.pieces
    while step <= most:
        tried.append(step)
        step *= 2
    return tried


def _held(line: Line, orders: Orders, evenings: list[list[tuple[float, int]]], ready: int) -> Held:
    found = [served(line, evening, ready=ready) for evening in evenings]
    waits = np.array([w for one in found for w in one.waits_min])
    if waits.size == 0:
        waits = np.zeros(1)
    cooked, wasted = sum(one.cooked for one in found), sum(one.wasted for one in found)
    return Held(
        ready,
        float(np.mean(waits <= orders.wait_min)),
        float(np.quantile(waits, 0.5)),
        float(np.quantile(waits, 0.9)),
        int(np.quantile([one.longest_queue for one in found], 0.9)),
        wasted / cooked if cooked else 0.0,
    )


def _more(line: Line) -> tuple[More, ...]:
    cook = replace(line, cooks=line.cooks + 1)
    surface = replace(line, places=2 * line.places)
    return tuple(
        More(what, min(changed.surface_per_hour(), changed.hands_per_hour()))
        for what, changed in (
            (say("One more cook"), cook),
            (say("A second surface like it"), surface),
            (say("Both"), replace(cook, places=surface.places)),
        )
    )


def _says(line: Line, orders: Orders, best: Held, rush: float) -> Phrase:
    holds = min(line.surface_per_hour(), line.hands_per_hour())
    within = ph.minutes(best.ninth_min)
    if best.within_frac >= WANTED_FRAC:
        if best.ready == 0:
            return say("Cook to order: nine of ten guests have it within {n}.", n=within)
        return say("Hold {r} pieces ready: nine of ten guests have it within {n}.", r=ph.count(best.ready), n=within)
    if rush > holds:
        return say(
            "{r} portions an hour are asked for in the rush and {h} are held: nine of ten guests wait up to {n}.",
            r=ph.count(round(rush)),
            h=ph.count(int(holds)),
            n=within,
        )
    return say(
        "Nine of ten guests have it within {n}, not within {w}, whatever is held ready.",
        n=within,
        w=ph.minutes(orders.wait_min),
    )
