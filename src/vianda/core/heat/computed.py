"""The plan of the heat from the computed cook: stages, minutes with their uncertainty, flip, pull. Usual practice
stands beside it.

It answers the same interface as the table of usual practice, whose cues and rests it keeps; the band of each time comes
from the causes that matter most, so that a whole formula is still evaluated at once. The full uncertainty is in
``curve``.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from typing import cast

from vianda.core.basis.band import Band
from vianda.core.basis.phrase import Phrase, duration, say, temp
from vianda.core.equipment.heating import LIGHT_MIN
from vianda.core.heat.case import CookCase
from vianda.core.heat.conduction.run import Cooked, Setup, rough_times_of
from vianda.core.heat.cooked import cooked_of, meat_series, wanted_of
from vianda.core.heat.engine import DIRECT, Engine, once
from vianda.core.heat.holds import least_heated, verdicts
from vianda.core.heat.methods import before_heat, on_heat, stages_of
from vianda.core.heat.plan import HeatPlan, PlanStageKind, Reach, Stage
from vianda.core.heat.run_setup import setup_of
from vianda.core.heat.uncertainty import P90, UNMEASURED, uncertainty_pairs
from vianda.core.heat.waves import wait_s
from vianda.core.model.formula import HeatStage
from vianda.core.model.styles import FLAT

# A middle that is hotter than planned by less than this is only the last step of the simulation.
LAG_K = 0.5
# A reading this near the target is the target: ours.
SAME_TEMP_K = 0.3
# What moves times most; each is tried on its slow side only, and counted on both.
QUICK_CAUSES = ("thickness", "conductivity", "air", "lid", "surface")


@dataclass(frozen=True, slots=True)
class ComputedHeat:
    """The plan of the heat, how long its surface takes to come back between two waves, s, and what it is for."""

    plan: HeatPlan
    wait_s: float
    case: CookCase


def computed_heat(case: CookCase, *, engine: Engine = DIRECT) -> ComputedHeat:
    """The plan with its times computed; usual practice's own where the cook goes by look and tenderness alone.

    Parameters
    ----------
    case : CookCase
        The piece and how it is cooked.
    engine : Engine, default DIRECT
        Who runs the simulations; directly here unless something else is given.

    Returns
    -------
    ComputedHeat
        The plan and the wait between waves, 0 s where there is none.

    Raises
    ------
    OutOfRangeError
        When the stages cannot be gone through; see ``methods.check_stages``.
    """
    usual = case.usual
    own = not (case.heat.stages or case.heat.method)
    if case.style.form == "crumbled" and own:
        return ComputedHeat(usual, 0.0, case)
    setup, wanted = setup_of(case), wanted_of(case)
    cooked = once(engine, cooked_of, setup, wanted)
    bands = _bands(cooked.setup, cooked.ended_s, engine)
    all_of_them = stages_of(case.heat, case.style, case.surface)
    specs = on_heat(all_of_them)
    lengths = _lengths(bands)
    pull = _pull_c(cooked, wanted.target_c - usual.carry_over_k.low)
    # Nobody can probe it: who wants the floor keeps to the cold edge of the uncertainty.
    wants_floor = usual.target_c >= usual.floors.leading.temp_c - 1e-6
    blind_s = bands[-1].high - bands[-1].usual if wants_floor and not usual.probe and cooked.reached else 0.0
    stages = (
        _own_stages(case, specs, lengths, pull, blind_s) if own else _composed(case, specs, lengths, cooked, blind_s)
    )
    turned = [n for n, s in enumerate(specs) if s.flip and n > 0]
    none = Band(0.0, 0.0, 0.0)
    whole = bands[-1]
    simmers = [s for s in stages if s.kind == "simmer"]
    if simmers and own:
        # It is done long before it is tender: the sauce's time is usual practice's.
        before, simmer = bands[-2], simmers[-1]
        middle = (simmer.low_s + simmer.high_s) / 2
        whole = Band(before.low + simmer.low_s, before.usual + middle, before.high + simmer.high_s)
    plan = replace(
        usual,
        model="conduction",
        stages=tuple(stages),
        flip_s=bands[turned[0] - 1] if turned else none,
        on_heat_s=whole,
        pull_c=pull,
        meat_lags=pull > usual.target_c + SAME_TEMP_K,
        reach=_reach(case, cooked),
        before=tuple(_chilled(s) for s in before_heat(all_of_them)),
    )
    # Only flat pieces draw down metal that has to come back.
    waits = case.laying.waves >= 2 and case.style.form in FLAT
    return ComputedHeat(plan, wait_s(cooked) if waits else 0.0, case)


def _pull_c(cooked: Cooked, planned_c: float) -> float:
    """What a probe in the middle reads when it may come off; more than planned where the coldest meat lags behind."""
    if cooked.setup.piece.middle is not None or not cooked.reached:
        return planned_c
    core = cooked.body.core_c(cooked.at_pull.temp)
    return core if core > planned_c + LAG_K else planned_c


def _bands(setup: Setup, ended_s: tuple[float, ...], engine: Engine) -> tuple[Band, ...]:
    """From–to of each stage's end, by the causes that matter most."""
    key = ("bands", setup, ended_s)
    known = engine.recall(key)
    if known is not None:
        return cast(tuple[Band, ...], known)
    pairs = uncertainty_pairs(setup, UNMEASURED)
    slower = [pairs[cause][0] for cause in QUICK_CAUSES if cause in pairs]
    usual, *ends = engine.each(rough_times_of, [setup, *slower])
    parts = [[math.log(max(a, 1e-3) / max(b, 1e-3)) ** 2 for a, b in zip(end, usual, strict=True)] for end in ends]
    found = []
    for n, end_s in enumerate(ended_s):
        spread = math.exp(P90 * math.sqrt(sum(p[n] for p in parts)))
        found.append(Band(end_s / spread, end_s, end_s * spread))
    engine.keep(key, tuple(found))
    return tuple(found)


def _lengths(bands: tuple[Band, ...]) -> tuple[Band, ...]:
    """How long each stage takes: of one that waits for something, as unsure as its end is."""
    found, before = [], Band(0.0, 0.0, 0.0)
    for band in bands:
        usual = band.usual - before.usual
        low, high = max(0.0, band.low - before.low), band.high - before.high
        found.append(Band(min(low, usual), usual, max(high, usual)))
        before = band
    return tuple(found)


def _own_stages(
    case: CookCase, specs: tuple[HeatStage, ...], lengths: tuple[Band, ...], pull_c: float, blind_s: float
) -> list[Stage]:
    """Usual practice's stages with the computed times; preheat, press, simmer and rest stay usual practice's.

    ``blind_s`` is what the last one is timed longer than usual, since nobody can probe it.
    """
    times = iter(zip(specs, lengths, strict=True))
    left = len(lengths)
    found = []
    pressed = case.style.press_by_s
    for stage in case.usual.stages:
        if stage.kind in ("preheat", "press", "rest"):
            found.append(_around(case, stage))
            continue
        (spec, length), left = next(times), left - 1
        extra_s = blind_s if left == 0 else 0.0
        cue = stage.cue
        if spec.cover and stage.kind == "second-side":
            cue = replace(cue, text=cue.text.rstrip(".") + "." + COVERED)
        if "pull" in cue.amounts:
            cue = replace(cue, amounts={**cue.amounts, "pull": temp(pull_c)})
        if "time" in cue.amounts:
            cue = replace(cue, amounts={**cue.amounts, "time": duration(length.usual + extra_s)})
        if stage.kind == "simmer":
            # Tenderness takes longer than the core.
            low = max(stage.low_s, length.usual)
            found.append(replace(stage, low_s=low, high_s=max(stage.high_s, low), timer_s=max(stage.timer_s, low)))
            continue
        timer = length.usual + extra_s - (pressed if stage.kind == "first-side" else 0.0)
        high = max(length.high, length.usual + extra_s)
        found.append(replace(stage, cue=cue, low_s=length.low, high_s=high, timer_s=max(5.0, timer)))
    return found


def _around(case: CookCase, stage: Stage) -> Stage:
    """Before and after the heat: a fire takes as long to light as its fuel does; a rest is as the cook wants it."""
    if stage.kind == "rest":
        open_ = case.heat.resting == "open"
        return replace(
            stage,
            cue=say("Off the heat, on a clean tray or rack")
            if open_
            else say("Under foil, on a clean tray: the juice settles"),
        )
    if stage.kind != "preheat" or case.surface.kind != "grate":
        return stage
    seconds = LIGHT_MIN[case.surface.heating.fuel] * 60.0
    return replace(stage, title="Light the fire", low_s=0.8 * seconds, high_s=1.2 * seconds)


def _chilled(spec: HeatStage) -> Stage:
    """In the fridge or the freezer, before its clock begins."""
    where = "In the freezer first" if spec.kind == "freeze" else "In the fridge first"
    cue = say("Apart on a cold tray, {time}: firm, and easier to lay", time=duration(spec.time_s))
    return Stage("chill", where, cue, spec.time_s, spec.time_s, spec.time_s)


COVERED = " Cover it, with a spoonful of water."
_KINDS: dict[str, PlanStageKind] = {
    "indirect": "indirect",
    "smoke": "smoke",
    "oven": "bake",
    "broiler": "broil",
    "fry": "fry",
    "simmer": "simmer",
}
_TITLES: dict[PlanStageKind, str] = {
    "indirect": "Beside the fire",
    "smoke": "Slow and indirect",
    "bake": "In the oven",
    "broil": "Under the broiler",
    "fry": "In the fat",
    "simmer": "In the sauce",
    "first-side": "First side",
    "second-side": "Second side",
    "turn": "Turned over again",
    "brown": "Brown",
    "glaze": "Glaze",
    "often": "Turned often",
}


def _composed(
    case: CookCase, specs: tuple[HeatStage, ...], lengths: tuple[Band, ...], cooked: Cooked, blind_s: float
) -> list[Stage]:
    """Stages of another way, or composed by hand."""
    flat = case.style.form in FLAT
    turns = 0
    found = [_around(case, s) for s in case.usual.stages if s.kind == "preheat"]
    for spec, length in zip(specs, lengths, strict=True):
        turns += spec.flip
        kind: PlanStageKind = _KINDS.get(spec.kind, "brown")
        if spec.kind == "surface" and flat:
            kind = (
                "often" if spec.turn_every_s else "turn" if turns > 1 else "second-side" if spec.flip else "first-side"
            )
        if spec.glaze and spec.kind == "broiler":
            kind = "glaze"
        timer = length.usual + (blind_s if spec is specs[-1] and spec.until == "core" else 0.0)
        cue = _cue(case, spec, cooked)
        found.append(Stage(kind, _TITLES[kind], cue, length.low, max(length.high, timer), max(5.0, timer)))
    rests = [_around(case, s) for s in case.usual.stages if s.kind == "rest"]
    return [*found, *rests]


def _cue(case: CookCase, spec: HeatStage, cooked: Cooked) -> Phrase:
    extra = " Pressed hard at once." if spec.press else ""
    if spec.turn_every_s:
        extra = " Turn it every {every}."
    if spec.cheese:
        extra += " Cheese on now."
    if spec.cover:
        extra += COVERED
    if spec.glaze:
        extra += " A thin coat first."
    every = {"every": duration(spec.turn_every_s)} if spec.turn_every_s else {}
    if spec.until == "time":
        return say("By the clock, {time}." + extra, time=duration(spec.time_s), **every)
    if spec.until == "two-fifths":
        return say("Grey has crept two fifths up the edge; it lets go." + extra, **every)
    if case.usual.probe:
        return say(
            "The probe reads {pull} in the middle." + extra, pull=temp(_pull_c(cooked, cooked.setup.pull_c)), **every
        )
    return say("Firm to a fingertip, juice clear: weak cues, so keep to the clock." + extra, **every)


def _reach(case: CookCase, cooked: Cooked) -> Reach:
    if case.usual.target_c < case.usual.floors.leading.temp_c - 1e-6:
        # What is wished below the floor does not come to it; counsel says so.
        return "thermometer-decides" if case.usual.reach == "thermometer-decides" else "may-fall-short"
    if not cooked.reached:
        return "may-fall-short"
    places, lethal = meat_series(cooked)
    leading = verdicts(cooked.times_s, least_heated(places, lethal), floors=case.usual.floors)[0]
    if leading.met_at_s is None:
        return "may-fall-short"
    return "thermometer-decides" if case.usual.reach == "thermometer-decides" else "usually"
