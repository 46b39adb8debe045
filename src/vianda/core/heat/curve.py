"""What goes on inside a piece while it cooks: a computed curve, with its uncertainty, beside usual practice's minutes.

No cooking times stand behind it, only published properties, coefficients and cooked weights; see docs/heat-model.md.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from vianda.core.basis.band import Band
from vianda.core.basis.phrase import Phrase, number, say
from vianda.core.heat.boundary_conditions import CHEESE_MELTS_C
from vianda.core.heat.case import CookCase
from vianda.core.heat.conduction.body import BodyForm
from vianda.core.heat.conduction.meat import Array
from vianda.core.heat.conduction.run import Cooked
from vianda.core.heat.conduction.slab import (
    BROWN_HIGH,
    BROWN_LOW,
    D60_S,
    FAT_LOST,
    KEPT_FLIPPED,
    KEPT_SKIN_HIGH,
    KEPT_SKIN_LOW,
    KEPT_STORE_HIGH,
    KEPT_STORE_LOW,
    WATER_LOST,
    Z_K,
)
from vianda.core.heat.conduction.stages import StageName
from vianda.core.heat.cooked import BrownWord, Wanted, brown_word, cooked_of, core_series, meat_series, wanted_of
from vianda.core.heat.doneness import doneness_at
from vianda.core.heat.engine import DIRECT, Engine, once
from vianda.core.heat.fit import NOTHING_SEEN, PRIOR_SD, HeatFit, Observed, fit
from vianda.core.heat.floor import AT_RISK
from vianda.core.heat.holds import HoldVerdict, least_heated, verdicts
from vianda.core.heat.remarks import HeatRemark, plate_facts, remarks_on
from vianda.core.heat.run_setup import NO_OVERRIDES, Overrides, setup_of
from vianda.core.heat.uncertainty import MeasuredSpread, Uncertainty, UncertaintyPart, uncertainty_steps

MOST_SHOWN = 150


@dataclass(frozen=True, slots=True)
class Mark:
    """Something that happens: at a second, with the core's temperature."""

    kind: Literal["flip", "cheese", "glaze", "pull", "peak", "floor", "melted"]
    at_s: float
    core_c: float


@dataclass(frozen=True, slots=True)
class StageRun:
    """A stage as it ran, in seconds from the start; whether what ended it was reached."""

    kind: StageName
    from_s: float
    to_s: float
    flip: bool
    cheese: bool
    glaze: bool


@dataclass(frozen=True, slots=True)
class HeatCurve:
    """A piece from the first second on the heat to the end of its rest.

    ``temp_c`` is by time, then by depth from below; of a ball from its middle, of a loaf along its middle plane.
    ``cold_c`` is what every place in the meat has come to by then; ``log10`` the integral of lethality where it is
    least. ``pull_s`` is when it leaves the heat. Bands are from the 10th to the 90th of a hundred such pieces;
    ``uncertainty`` None: they are still being computed,
    and stand on their usual value. ``reached`` False: it never comes to what is wanted, and ends where patience does.
    ``middle_mm`` is what lies in the middle, 0 for nothing.
    """

    form: BodyForm
    size_mm: float
    middle_mm: float
    start_c: float
    depth_mm: tuple[float, ...]
    times_s: tuple[float, ...]
    temp_c: tuple[tuple[float, ...], ...]
    core_c: tuple[float, ...]
    cold_c: tuple[float, ...]
    surface_c: tuple[float, ...]
    plate_c: tuple[float, ...]
    log10: tuple[float, ...]
    stages: tuple[StageRun, ...]
    flip_s: Band | None
    pull_s: Band
    pull_core_c: float
    target_c: float
    peak_c: float
    doneness: str
    reached: bool
    marks: tuple[Mark, ...]
    verdicts: tuple[HoldVerdict, ...]
    uncertainty: tuple[UncertaintyPart, ...] | None
    water_lost_frac: float
    fat_lost_frac: float
    yield_frac: float
    weighed_frac: Band
    browned: tuple[float, float]
    brown_words: tuple[BrownWord, BrownWord]
    plate_low_c: float | None
    plate_recovers_s: float | None
    remarks: tuple[HeatRemark, ...]
    fitted: HeatFit | None
    message: Phrase
    lethality_message: Phrase
    kind: Literal["curve"] = "curve"


@dataclass(frozen=True, slots=True)
class Progress:
    """How much of the uncertainty is computed, 0–1."""

    done_frac: float
    kind: Literal["progress"] = "progress"


def heat_curve(
    case: CookCase, *, overrides: Overrides = NO_OVERRIDES, observed: Observed = NOTHING_SEEN, engine: Engine = DIRECT
) -> HeatCurve:
    """The curve of a formula's piece, without its uncertainty.

    Parameters
    ----------
    case : CookCase
        The piece and how it is cooked.
    overrides : Overrides, default NO_OVERRIDES
        What is taken instead of the formula's own values.
    observed : Observed, default NOTHING_SEEN
        What the cook saw of this piece.
    engine : Engine, default DIRECT
        Who runs the simulations of the heat.

    Returns
    -------
    HeatCurve
        A piece from the first second on the heat to the end of its rest.

    Raises
    ------
    AssertionError
        a curve always comes first
    """
    for answer in curve_steps(case, overrides=overrides, observed=observed, engine=engine):
        if isinstance(answer, HeatCurve):
            return answer
    raise AssertionError("a curve always comes first")


def curve_steps(
    case: CookCase, *, overrides: Overrides = NO_OVERRIDES, observed: Observed = NOTHING_SEEN, engine: Engine = DIRECT
) -> Iterator[HeatCurve | Progress]:
    """First the curve, then how the uncertainty comes along, then the curve with it.

    Stop asking, and it stops computing.

    Parameters
    ----------
    case : CookCase
        The piece and how it is cooked.
    overrides : Overrides, default NO_OVERRIDES
        What is taken instead of the formula's own values.
    observed : Observed, default NOTHING_SEEN
        What the cook saw of this piece.
    engine : Engine, default DIRECT
        Who runs the simulations of the heat.

    Yields
    ------
    HeatCurve | Progress
        First the curve, then how the uncertainty comes along, then the curve with it.
    """
    setup, wanted = setup_of(case, overrides), wanted_of(case)
    fitted = once(engine, fit, setup, observed) if observed.any else None
    sure = MeasuredSpread()
    if fitted is not None and not fitted.refused:
        f = setup.factors
        by_air = fitted.of == "air"
        setup = replace(
            setup,
            factors=replace(
                f,
                k=f.k if by_air else f.k * fitted.factor,
                air=f.air * fitted.factor if by_air else f.air,
                drip=f.drip * fitted.drip_factor,
            ),
        )
        if fitted.sd < PRIOR_SD:
            # What a reading narrowed is the joint uncertainty: it stands for the others of its kind too.
            sure = MeasuredSpread(air_sd=fitted.sd) if by_air else MeasuredSpread(k_sd=fitted.sd)
    cooked = once(engine, cooked_of, setup, wanted)
    key = ("uncertainty", cooked.setup, sure, cooked.ended_s)
    known = engine.recall(key)
    extra = remarks_on(case, cooked, overrides)
    if known is not None:
        yield _curve_of(cooked, wanted, known, fitted, extra)
        return
    yield _curve_of(cooked, wanted, None, fitted, extra)
    for step in uncertainty_steps(cooked.setup, cooked.ended_s, sure, engine=engine):
        if isinstance(step, Uncertainty):
            engine.keep(key, step)
            yield _curve_of(cooked, wanted, step, fitted, extra)
        else:
            yield Progress(step)


def _curve_of(
    cooked: Cooked,
    wanted: Wanted,
    uncertainty: Uncertainty | None,
    fitted: HeatFit | None,
    extra: tuple[HeatRemark, ...],
) -> HeatCurve:
    setup, body = cooked.setup, cooked.body
    ended = cooked.ended_s
    bands = uncertainty.ended_s if uncertainty else tuple(Band(t, t, t) for t in ended)
    core = core_series(cooked)
    places, lethal = meat_series(cooked)
    times = cooked.times_s
    check = verdicts(times, least_heated(places, lethal), floors=wanted.floors)
    least = int(np.argmin(lethal))
    cold = np.min(np.maximum.accumulate(places, axis=0), axis=1)
    marks = _marks(cooked, core, check)
    flips = [n for n, s in enumerate(setup.stages) if s.flip]
    peak_at = int(np.argmax(core))
    picks = np.unique(np.linspace(0, len(times) - 1, min(MOST_SHOWN, len(times))).round().astype(int))
    shown, depth = _shown(cooked)
    mass = body.mass_kg
    stages = tuple(
        StageRun(s.name, ended[n - 1] if n else 0.0, ended[n], s.flip, s.high.kind == "cheese", s.coat_kg_m2 > 0)
        for n, s in enumerate(setup.stages)
    )
    water, fat = float(cooked.at_pull.tally[WATER_LOST]), float(cooked.at_pull.tally[FAT_LOST])
    brown = (float(cooked.at_pull.tally[BROWN_LOW]), float(cooked.at_pull.tally[BROWN_HIGH]))
    if body.form == "ball":
        brown = (brown[1], brown[1])
    low, recovers = plate_facts(cooked)
    plates = cooked.more[:, KEPT_STORE_LOW] if low is not None else np.zeros(0)
    peak = float(core[peak_at])
    skin = cooked.more[:, KEPT_SKIN_HIGH]
    if body.form != "ball":
        skin = np.maximum(skin, cooked.more[:, KEPT_SKIN_LOW])
    return HeatCurve(
        form=body.form,
        size_mm=setup.piece.size_mm,
        middle_mm=setup.piece.middle.size_mm if setup.piece.middle else 0.0,
        start_c=float(core[0]),
        depth_mm=_plain(depth),
        times_s=_plain(times[picks]),
        temp_c=tuple(_plain(shown[n]) for n in picks),
        core_c=_plain(core[picks]),
        cold_c=_plain(cold[picks]),
        surface_c=_plain(skin[picks]),
        plate_c=_plain(plates[picks]) if low is not None else (),
        log10=_plain(_log10(times, places[:, least])[picks]),
        stages=stages,
        flip_s=bands[flips[0] - 1] if flips and flips[0] > 0 else None,
        pull_s=bands[-1],
        pull_core_c=body.core_c(cooked.at_pull.temp),
        target_c=wanted.target_c,
        peak_c=peak,
        doneness=doneness_at(peak),
        reached=cooked.reached,
        marks=marks,
        verdicts=check,
        uncertainty=uncertainty.causes if uncertainty else None,
        water_lost_frac=water / mass,
        fat_lost_frac=fat / mass,
        yield_frac=1.0 - (water + fat) / mass,
        weighed_frac=wanted.weighed_frac,
        browned=brown,
        brown_words=(brown_word(brown[0]), brown_word(brown[1])),
        plate_low_c=low,
        plate_recovers_s=recovers,
        remarks=extra,
        fitted=fitted,
        message=_said(cooked),
        lethality_message=_summed(float(_log10(times, places[:, least])[-1])),
    )


def _plain(series: Array) -> tuple[float, ...]:
    return tuple(float(v) for v in series)


def _log10(times: Array, place_c: Array) -> Array:
    """The integral of lethality at a place, log₁₀ reductions: Σ Δt ÷ D60 × 10^((T − 60) ÷ z)."""
    rate = 10.0 ** ((np.minimum(place_c, 110.0) - 60.0) / Z_K) / D60_S
    return np.concatenate([[0.0], np.cumsum(np.diff(times) * (rate[1:] + rate[:-1]) / 2)])


def _shown(cooked: Cooked) -> tuple[Array, Array]:
    """What is drawn: by time and depth, the side that was down first below."""
    body, temp = cooked.body, cooked.temp_c
    if body.form == "block":
        return temp[:, :, 0], (np.cumsum(body.height) - body.height / 2) * 1000.0
    width = body.width
    if body.form == "slab":
        turned = cooked.more[:, KEPT_FLIPPED] > 0.5
        temp = np.where(turned[:, None], temp[:, ::-1], temp)
        # Two and two: the eye needs no more.
        paired = width.reshape(-1, 2)
        temp = (temp.reshape(len(temp), -1, 2) * paired).sum(axis=2) / paired.sum(axis=1)
        width = paired.sum(axis=1)
    return temp, (np.cumsum(width) - width / 2) * 1000.0


def _marks(cooked: Cooked, core: Array, check: tuple[HoldVerdict, ...]) -> tuple[Mark, ...]:
    times, stages = cooked.times_s, cooked.setup.stages
    ended = cooked.ended_s

    def at(kind: Literal["flip", "cheese", "glaze", "pull", "peak", "floor", "melted"], second: float) -> Mark:
        return Mark(kind, second, float(np.interp(second, times, core)))

    found = []
    for n, stage in enumerate(stages):
        begins = ended[n - 1] if n else 0.0
        if stage.flip and n > 0:
            found.append(at("flip", begins))
        if stage.high.kind == "cheese":
            found.append(at("cheese", begins))
            later = np.nonzero(
                (times >= begins) & (times <= ended[n]) & (cooked.more[:, KEPT_STORE_HIGH] >= CHEESE_MELTS_C)
            )[0]
            if len(later):
                found.append(at("melted", float(times[int(later[0])])))
        if stage.coat_kg_m2 > 0:
            found.append(at("glaze", begins))
    # Where the core never gets there, there is no moment to take it off.
    if cooked.reached:
        found.append(at("pull", ended[-1]))
        found.append(at("peak", float(times[int(np.argmax(core))])))
    leading = check[0].met_at_s
    if leading is not None:
        found.append(at("floor", leading))
    return tuple(sorted(found, key=lambda m: m.at_s))


def _said(cooked: Cooked) -> Phrase:
    if cooked.reached:
        return say("Computed from published properties and cooked weights, not fitted to any cooking times.")
    return say("It does not come to the core wanted in the time a cook would wait: hotter, thinner, or another way.")


# Past this a sum says nothing more.
MANY_LOG10 = 20.0


def _summed(log10: float) -> Phrase:
    """The sum of lethality in words, with what it is worth and who is at risk."""
    reached = "more than {n}" if log10 > MANY_LOG10 else "{n}"
    return say(
        f"As a sum over its rising temperature the place heated least passes {reached} log₁₀ of Salmonella "
        "(D60 {d60} s, z {z} K). A sum never replaces the line: strict models of other bacteria give less than half. "
        f"Most at risk: {AT_RISK}.",
        n=number(min(log10, MANY_LOG10)),
        d60=number(D60_S),
        z=number(Z_K),
    )
