"""The plan of the heat from the computed cook: stages, minutes with their doubt, flip, pull. Habit stands beside it.

It answers the same interface as the table of habit, whose cues and rests it keeps; the band of each time comes from the
causes that matter most, so that a whole formula is still evaluated at once. The full doubt is in ``curve``.
"""

from __future__ import annotations

import math
from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace
from functools import lru_cache

from vianda.core.basis.band import Band
from vianda.core.basis.phrase import Phrase, duration, say, temp
from vianda.core.cook.stove_plan import stove_plan
from vianda.core.equipment.heating import LIGHT_MIN
from vianda.core.heat.conduction.run import Cooked, Setup, rough_times_of
from vianda.core.heat.cooked import cooked_of, meat_series, wanted_of
from vianda.core.heat.holds import least_heated, verdicts
from vianda.core.heat.methods import before_heat, on_heat, stages_of
from vianda.core.heat.plan import HeatPlan, Reach, Stage, StageKind
from vianda.core.heat.run_setup import setup_of
from vianda.core.heat.uncertainty import P90, UNMEASURED, doubt_pairs
from vianda.core.heat.waves import wait_s
from vianda.core.model.formula import HeatStage
from vianda.core.model.styles import FLAT
from vianda.core.pipeline.figures import Figures

# A middle that is hotter than planned by less than this is only the last step of the march.
LAG_K = 0.5
# What moves times most; each is tried on its slow side only, and counted on both.
QUICK_CAUSES = ("thickness", "conductivity", "air", "surface")


def with_computed_heat(figures: Figures) -> Figures:
    """The figures with the heat, and what follows from it at the stove, computed instead of looked up."""
    plan = computed_plan(figures)
    # What simmers until it is tender and what is browned until it looks right is habit's to time.
    stove = stove_plan(
        heat=plan,
        portions=figures.portions,
        salt=figures.salt,
        surface=figures.surface,
        surface_temp_c=figures.formula.heat.surface_temp_c,
        laid=figures.laid,
        at_once=figures.stove.at_once if figures.style.form == "crumbled" else None,
        wait_s=_wait_s(figures),
    )
    return replace(figures, heat=plan, stove=stove)


def _wait_s(figures: Figures) -> float:
    """Between two waves; only flat pieces draw down metal that has to come back."""
    if figures.stove.waves < 2 or figures.style.form not in FLAT:
        return 0.0
    return wait_s(cooked_of(setup_of(figures), wanted_of(figures)))


def computed_plan(figures: Figures) -> HeatPlan:
    """The plan; habit's own where the cook goes by look and tenderness alone (what is crumbled)."""
    habit = figures.heat
    own = not (figures.formula.heat.stages or figures.formula.heat.method)
    if figures.style.form == "crumbled" and own:
        return habit
    setup, wanted = setup_of(figures), wanted_of(figures)
    cooked = cooked_of(setup, wanted)
    bands = _bands(cooked.setup, cooked.ended_s)
    all_of_them = stages_of(figures.formula.heat, figures.style, figures.surface)
    specs = on_heat(all_of_them)
    lengths = _lengths(bands)
    pull = _pull_c(cooked, wanted.target_c - habit.carry_over_k.low)
    # Nobody can probe it: who wants the floor keeps to the cold edge of the doubt.
    wants_floor = habit.target_c >= habit.floors.leading.temp_c - 1e-6
    blind_s = bands[-1].high - bands[-1].usual if wants_floor and not habit.probe and cooked.reached else 0.0
    stages = (
        _own_stages(figures, specs, lengths, pull, blind_s)
        if own
        else _composed(figures, specs, lengths, cooked, blind_s)
    )
    turned = [n for n, s in enumerate(specs) if s.flip and n > 0]
    none = Band(0.0, 0.0, 0.0)
    whole = bands[-1]
    simmers = [s for s in stages if s.kind == "simmer"]
    if simmers and own:
        # It is done long before it is tender: the sauce's time is habit's.
        before, simmer = bands[-2], simmers[-1]
        middle = (simmer.low_s + simmer.high_s) / 2
        whole = Band(before.low + simmer.low_s, before.usual + middle, before.high + simmer.high_s)
    return replace(
        habit,
        model="conduction",
        stages=tuple(stages),
        flip_s=bands[turned[0] - 1] if turned else none,
        on_heat_s=whole,
        pull_c=pull,
        reach=_reach(figures, cooked),
        before=tuple(_chilled(s) for s in before_heat(all_of_them)),
    )


def _pull_c(cooked: Cooked, planned_c: float) -> float:
    """What a probe in the middle reads when it may come off; more than planned where the coldest meat lags behind."""
    if cooked.setup.piece.middle is not None or not cooked.reached:
        return planned_c
    core = cooked.body.core_c(cooked.at_pull.temp)
    return core if core > planned_c + LAG_K else planned_c


@lru_cache(maxsize=256)
def _bands(setup: Setup, ended_s: tuple[float, ...]) -> tuple[Band, ...]:
    """From–to of each stage's end, by the causes that matter most."""
    pairs = doubt_pairs(setup, UNMEASURED)
    slower = [pairs[cause][0] for cause in QUICK_CAUSES if cause in pairs]
    with ThreadPoolExecutor(max_workers=2) as pool:
        usual, *ends = pool.map(rough_times_of, [setup, *slower])
    parts = [[math.log(max(a, 1e-3) / max(b, 1e-3)) ** 2 for a, b in zip(end, usual, strict=True)] for end in ends]
    found = []
    for n, end_s in enumerate(ended_s):
        spread = math.exp(P90 * math.sqrt(sum(p[n] for p in parts)))
        found.append(Band(end_s / spread, end_s, end_s * spread))
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
    figures: Figures, specs: tuple[HeatStage, ...], lengths: tuple[Band, ...], pull_c: float, blind_s: float
) -> list[Stage]:
    """Habit's stages with the computed times; preheat, press, simmer and rest stay habit's.

    ``blind_s`` is what the last one is timed longer than usual, since nobody can probe it.
    """
    times = iter(zip(specs, lengths, strict=True))
    left = len(lengths)
    found = []
    pressed = figures.style.press_by_s
    for stage in figures.heat.stages:
        if stage.kind in ("preheat", "press", "rest"):
            found.append(_around(figures, stage))
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


def _around(figures: Figures, stage: Stage) -> Stage:
    """Before and after the heat: a fire takes as long to light as its fuel does; a rest is as the cook wants it."""
    if stage.kind == "rest":
        open_ = figures.formula.heat.resting == "open"
        return replace(
            stage,
            cue=say("Off the heat, on a clean tray or rack")
            if open_
            else say("Under foil, on a clean tray: the juice settles"),
        )
    if stage.kind != "preheat" or figures.surface.kind != "grate":
        return stage
    seconds = LIGHT_MIN[figures.surface.heating.fuel] * 60.0
    return replace(stage, title="Light the fire", low_s=0.8 * seconds, high_s=1.2 * seconds)


def _chilled(spec: HeatStage) -> Stage:
    """In the fridge or the freezer, before its clock begins."""
    where = "In the freezer first" if spec.kind == "freeze" else "In the fridge first"
    cue = say("Apart on a cold tray, {time}: firm, and easier to lay", time=duration(spec.time_s))
    return Stage("chill", where, cue, spec.time_s, spec.time_s, spec.time_s)


COVERED = " Cover it, with a spoonful of water."
_KINDS: dict[str, StageKind] = {
    "indirect": "indirect",
    "smoke": "smoke",
    "oven": "bake",
    "broiler": "broil",
    "fry": "fry",
    "simmer": "simmer",
}
_TITLES: dict[StageKind, str] = {
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
    figures: Figures, specs: tuple[HeatStage, ...], lengths: tuple[Band, ...], cooked: Cooked, blind_s: float
) -> list[Stage]:
    """Stages of another way, or composed by hand."""
    flat = figures.style.form in FLAT
    turns = 0
    found = [_around(figures, s) for s in figures.heat.stages if s.kind == "preheat"]
    for spec, length in zip(specs, lengths, strict=True):
        turns += spec.flip
        kind: StageKind = _KINDS.get(spec.kind, "brown")
        if spec.kind == "surface" and flat:
            kind = (
                "often" if spec.turn_every_s else "turn" if turns > 1 else "second-side" if spec.flip else "first-side"
            )
        if spec.glaze and spec.kind == "broiler":
            kind = "glaze"
        timer = length.usual + (blind_s if spec is specs[-1] and spec.until == "core" else 0.0)
        cue = _cue(figures, spec, cooked)
        found.append(Stage(kind, _TITLES[kind], cue, length.low, max(length.high, timer), max(5.0, timer)))
    rests = [_around(figures, s) for s in figures.heat.stages if s.kind == "rest"]
    return [*found, *rests]


def _cue(figures: Figures, spec: HeatStage, cooked: Cooked) -> Phrase:
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
    if figures.heat.probe:
        return say(
            "The probe reads {pull} in the middle." + extra, pull=temp(_pull_c(cooked, cooked.setup.pull_c)), **every
        )
    return say("Firm to a fingertip, juice clear: weak cues, so keep to the clock." + extra, **every)


def _reach(figures: Figures, cooked: Cooked) -> Reach:
    if figures.heat.target_c < figures.heat.floors.leading.temp_c - 1e-6:
        # What is wished below the floor does not come to it; counsel says so.
        return "thermometer-decides" if figures.heat.reach == "thermometer-decides" else "may-fall-short"
    if not cooked.reached:
        return "may-fall-short"
    places, lethal = meat_series(cooked)
    leading = verdicts(cooked.times_s, least_heated(places, lethal), floors=figures.heat.floors)[0]
    if leading.met_at_s is None:
        return "may-fall-short"
    return "thermometer-decides" if figures.heat.reach == "thermometer-decides" else "usually"
