"""The finished piece afterwards: kept hot, cooled, warmed up again; with the published limits beside it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Literal

from vianda.core.basis.phrase import Phrase, duration, frac, say, temp
from vianda.core.basis.units import c_from_f
from vianda.core.equipment.kitchen import Country
from vianda.core.heat.case import CookCase
from vianda.core.heat.conduction import stages as st
from vianda.core.heat.conduction.faces import SHUT, Face
from vianda.core.heat.conduction.run import Cooked, Simulation
from vianda.core.heat.conduction.slab import WATER_LOST
from vianda.core.heat.conduction.stages import CookStage, air
from vianda.core.heat.cooked import cooked_of, wanted_of
from vianda.core.heat.engine import DIRECT, Engine, once
from vianda.core.heat.run_setup import NO_OVERRIDES, Overrides, setup_of

# FDA Food Code 3-501.14: 57 → 21 °C within 2 h, to 5 °C within 6 h in all; leftovers to 165 °F (USDA). From memory,
# high confidence.
COOL_FROM_C, COOL_MIDDLE_C, COOL_TO_C = 57.0, 21.0, 5.0
COOL_FIRST_S, COOL_ALL_S = 2 * 3600.0, 6 * 3600.0
REHEAT_C = c_from_f(165)
# Kept hot at or above, by country. From memory: US and UK high confidence, Canada and the WHO medium.
HOT_HOLDS: Mapping[Country, tuple[float, str]] = {
    "US": (57.0, "FDA Food Code 3-501.16"),
    "UK": (63.0, "Food Safety and Hygiene (England) Regulations 2013, schedule 4"),
    "CA": (60.0, "Canada, Food Retail and Food Services Code"),
    "other": (60.0, "WHO, Five Keys to Safer Food"),
}
HELD_S = 3600.0
LONGEST_S = 24 * 3600.0
# A fridge whose fan runs, air at 3 °C; a warm cupboard at 75 °C, damp; an oven for warming up at 160 °C. Ours.
FRIDGE_C, FRIDGE_H, FRIDGE_PA = 3.0, 10.0, 600.0
CUPBOARD_C, CUPBOARD_PA, OVEN_C = 75.0, 25_000.0, 160.0


@dataclass(frozen=True, slots=True)
class AfterLine:
    """One of the three: what comes of it, whether it keeps the published limit, and the limit."""

    key: Literal["hold", "cool", "reheat"]
    message: Phrase
    within: bool
    limit: Phrase
    time_s: float


def afterwards(
    case: CookCase, overrides: Overrides = NO_OVERRIDES, *, engine: Engine = DIRECT
) -> tuple[AfterLine, ...]:
    """Kept hot for an hour, cooled in the fridge in one layer, and warmed through in an oven.

    Parameters
    ----------
    case : CookCase
        The piece and how it is cooked.
    overrides : Overrides, default NO_OVERRIDES
        What is taken instead of the formula's own values.
    engine : Engine, default DIRECT
        Who runs the simulations of the heat.

    Returns
    -------
    tuple[AfterLine, ...]
        Each: one of the three.

    References
    ----------
    FDA Food Code 2022, 3-501.14; hot holding by country (``HOT_HOLDS``); USDA, leftovers to 165 °F. From memory, high
    confidence.
    """
    cooked = once(engine, cooked_of, setup_of(case, overrides), wanted_of(case))
    return (_hold(cooked, case.kitchen.country), *_cool_and_reheat(cooked))


def stays_hot(core_c: float, country: Country) -> bool:
    """Whether what is kept hot stays at or above its country's line.

    Parameters
    ----------
    core_c : float
        The core after an hour, °C.
    country : Country
        Country of the kitchen.

    Returns
    -------
    bool
        At the line or above it.

    References
    ----------
    See ``HOT_HOLDS``.

    Examples
    --------
    >>> stays_hot(60.0, "US"), stays_hot(60.0, "UK")
    (True, False)
    """
    return core_c >= HOT_HOLDS[country][0]


def cools_in_time(first_s: float, whole_s: float) -> bool:
    """Whether cooked food cools as fast as published: 57 to 21 °C within 2 h, to 5 °C within 6 h in all.

    Parameters
    ----------
    first_s : float
        From 57 to 21 °C, s.
    whole_s : float
        From 57 to 5 °C, s.

    Returns
    -------
    bool
        Within both.

    References
    ----------
    FDA Food Code 2022, 3-501.14; from memory, high confidence.

    Examples
    --------
    >>> cools_in_time(7200.0, 21600.0), cools_in_time(7201.0, 10000.0)
    (True, False)
    """
    return first_s <= COOL_FIRST_S and whole_s <= COOL_ALL_S


def _run_on(cooked: Cooked) -> Simulation:
    run = Simulation(cooked.setup, keep_every_s=1e9, step_factor=4.0 if cooked.body.form != "block" else 1.0)
    run.now = cooked.after.copy()
    run.now.clock[1] = 1e12
    return run


def _stage(cooked: Cooked, around: Face, seconds: float) -> CookStage:
    low = SHUT if cooked.body.form == "ball" else Face("liquid", around.temp_c, 8.0)
    return CookStage("hold", low, around, "time", seconds, around)


def _core(run: Simulation) -> float:
    return run.body.core_c(run.now.temp)


def _hold(cooked: Cooked, country: Country) -> AfterLine:
    hot_c, source = HOT_HOLDS[country]
    run = _run_on(cooked)
    before = float(run.now.tally[WATER_LOST])
    run.stage(_stage(cooked, air(CUPBOARD_C, st.ROOM_H, vapour_pa=CUPBOARD_PA), HELD_S))
    core, lost = _core(run), (float(run.now.tally[WATER_LOST]) - before) / run.body.mass_kg
    return AfterLine(
        "hold",
        say(
            "An hour in a damp cupboard at {t}: the core stands at {core}, and {lost} of the raw weight "
            "in juice is gone besides.",
            t=temp(CUPBOARD_C),
            core=temp(core),
            lost=frac(lost),
        ),
        stays_hot(core, country),
        say(f"{source}: at {{hot}} or above.", hot=temp(hot_c)),
        HELD_S,
    )


def _cool_and_reheat(cooked: Cooked) -> tuple[AfterLine, AfterLine]:
    run = _run_on(cooked)
    fridge = replace(_stage(cooked, air(FRIDGE_C, FRIDGE_H, vapour_pa=FRIDGE_PA), LONGEST_S), name="chill")
    run.cool(fridge, COOL_FROM_C)
    first, _ = run.cool(fridge, COOL_MIDDLE_C)
    second, _ = run.cool(fridge, COOL_TO_C)
    whole = first + second
    cool = AfterLine(
        "cool",
        say(
            "In one layer in a fridge with a fan: {first} from {from_} to {middle}, {all} to {to}.",
            first=duration(first),
            from_=temp(COOL_FROM_C),
            middle=temp(COOL_MIDDLE_C),
            all=duration(whole),
            to=temp(COOL_TO_C),
        ),
        cools_in_time(first, whole),
        say(
            "Food Code 3-501.14: within {first}, and {all} in all. Slice what is thicker, spread it, or use ice.",
            first=duration(COOL_FIRST_S),
            all=duration(COOL_ALL_S),
        ),
        whole,
    )
    run.setup = replace(cooked.setup, stages=(), pull_c=REHEAT_C)
    warm, reached = run.stage(replace(_stage(cooked, air(OVEN_C, 20.0, vapour_pa=8000.0), LONGEST_S), end="core"))
    reheat = AfterLine(
        "reheat",
        say(
            "From {cold} in an oven at {t}: {time} until the core is at {hot}.",
            cold=temp(COOL_TO_C),
            t=temp(OVEN_C),
            time=duration(warm),
            hot=temp(REHEAT_C),
        ),
        reached,
        say("USDA: leftovers to {hot} all through, once.", hot=temp(REHEAT_C)),
        warm,
    )
    return cool, reheat
