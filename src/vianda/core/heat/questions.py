"""The heat asked the other way round: what thickness, what surface, what minutes lead to what is wanted."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.phrase import Amount, Phrase, delta_temp, duration, length, say, temp, word
from vianda.core.heat.case import CookCase
from vianda.core.heat.conduction.body import PieceGeometry
from vianda.core.heat.conduction.run import Cooked, Setup, Simulation, cook, times_of
from vianda.core.heat.conduction.slab import BROWN_HIGH, BROWN_LOW
from vianda.core.heat.cooked import (
    BROWN_FROM,
    BrownWord,
    Wanted,
    cooked_of,
    core_series,
    leading_met,
    peak_of,
    wanted_of,
)
from vianda.core.heat.engine import DIRECT, Engine, once
from vianda.core.heat.run_setup import NO_OVERRIDES, Overrides, setup_of
from vianda.core.heat.uncertainty import hotter
from vianda.core.model.edit import SetFigure
from vianda.core.model.field_table import FIGURES
from vianda.core.model.styles import BLOCKS, FLAT

QuestionKind = Literal["how-thick", "how-hot", "how-long", "land-on-target", "reach-floor", "floor-in-time"]
TRIES = 9
SHORTEST_S, LONGEST_S = 20.0, 6 * 3600.0
# An answer nearer than this to its bound is none.
HOTTEST_C = 320.0
# A core so far above what was asked for was waited for by something else, K.
KEPT_ON_K = 0.5


@dataclass(frozen=True, slots=True)
class HeatAnswer:
    """An answer in words, its figure, and the change that brings it about, where there is one."""

    message: Phrase
    value: float | None
    change: SetFigure | None


def ask(
    case: CookCase,
    kind: QuestionKind,
    *,
    value: float | None = None,
    crust: BrownWord | None = None,
    overrides: Overrides = NO_OVERRIDES,
    engine: Engine = DIRECT,
) -> HeatAnswer:
    """Answer one question of the heat.

    Parameters
    ----------
    case : CookCase
        The piece and how it is cooked.
    kind : QuestionKind
        ``how-thick`` for so many seconds on the heat; ``how-hot`` for a ``crust`` by so many seconds; ``how-long`` at
        so many °C; ``land-on-target`` what it gains while it rests counted in full; ``reach-floor`` how long until
        the coldest meat meets the leading floor; ``floor-in-time`` whether it does when it is taken off after so
        many.
    value : float | None, default None
        What the question asks about, s or °C; None for none.
    crust : BrownWord | None, default None
        How brown it is wanted.
    overrides : Overrides, default NO_OVERRIDES
        What is taken instead of the formula's own values.
    engine : Engine, default DIRECT
        Who runs the simulations of the heat.

    Returns
    -------
    HeatAnswer
        An answer in words, its figure, and the change that brings it about, where there is one.

    Raises
    ------
    OutOfRangeError
        A value nobody means, or a question that this piece does not have.
    """
    wanted = wanted_of(case)
    setup = replace(setup_of(case, overrides), coldest_c=wanted.coldest_c)
    match kind:
        case "how-thick":
            return _how_thick(case, setup, wanted, _seconds(value))
        case "how-hot":
            return _how_hot(case, setup, _seconds(value), crust or "brown")
        case "how-long":
            if value is None or not 80.0 <= value <= 400.0:
                raise OutOfRangeError("An oven or a surface has 80 to 400 °C.", field="/value")
            moved = hotter(setup, value - case.heat.surface_temp_c)
            times, reached = times_of(moved, core_c=wanted.target_c - wanted.counted_carry_k)
            if not reached:
                return HeatAnswer(
                    say("At {t} it does not come to {core}.", t=temp(value), core=temp(wanted.target_c)), None, None
                )
            return HeatAnswer(
                say("At {t} the core is there after {time}.", t=temp(value), time=duration(times[-1])),
                times[-1],
                SetFigure("surface_temp", value),
            )
        case "land-on-target":
            return _land(setup, wanted)
        case "reach-floor":
            return _reach_floor(setup, wanted, engine)
        case "floor-in-time":
            return _floor_in_time(setup, wanted, _seconds(value))


def _seconds(value: float | None) -> float:
    if value is None or not SHORTEST_S <= value <= LONGEST_S:
        raise OutOfRangeError("Say how long: 20 s to 6 h.", field="/value")
    return value


def _bisect(good: Callable[[float], bool], low: float, high: float) -> float:
    """The largest value that is good, when small ones are and large ones are not."""
    for _ in range(TRIES):
        middle = (low + high) / 2
        low, high = (middle, high) if good(middle) else (low, middle)
    return low


def _how_thick(case: CookCase, setup: Setup, wanted: Wanted, seconds: float) -> HeatAnswer:
    if case.style.form not in FLAT and case.style.form not in BLOCKS:
        raise OutOfRangeError("A ball is as thick as it is heavy: change its weight.", field="/kind")
    pull = wanted.target_c - wanted.counted_carry_k
    rule = FIGURES["thickness"]
    scale = setup.piece.size_mm / case.shape.thickness_mm

    def in_time(raw_mm: float) -> bool:
        piece = setup.piece
        sized = PieceGeometry(piece.form, raw_mm * scale, piece.meat, piece.width_mm, piece.middle)
        times, reached = times_of(replace(setup, piece=sized), core_c=pull)
        return reached and times[-1] <= seconds

    thinnest = rule.low if setup.piece.middle is None else max(rule.low, setup.piece.middle.size_mm / scale + 4.0)
    thickest = 60.0 if case.style.form in FLAT else rule.high
    if not in_time(thinnest):
        return HeatAnswer(
            say("Not even {mm} is done in {time} this way.", mm=length(thinnest), time=duration(seconds)), None, None
        )
    raw = _bisect(in_time, thinnest, thickest)
    return HeatAnswer(
        say(
            "Up to {mm} raw comes to {core} in {time}.",
            mm=length(raw),
            core=temp(wanted.target_c),
            time=duration(seconds),
        ),
        raw,
        SetFigure("thickness", round(raw, 1)),
    )


def _how_hot(case: CookCase, setup: Setup, seconds: float, crust: BrownWord) -> HeatAnswer:
    least = next((v for v, name in BROWN_FROM if name == crust), 0.0)
    now = case.heat.surface_temp_c

    def pale(hot_c: float) -> bool:
        run = Simulation(hotter(setup, hot_c - now), keep_every_s=1e9)
        left = seconds
        for stage in run.setup.stages:
            if left <= 0:
                break
            took, _ = run.stage(stage, seconds=min(stage.seconds, left))
            left -= took
        return float(max(run.now.tally[BROWN_LOW], run.now.tally[BROWN_HIGH])) < least

    if pale(HOTTEST_C):
        return HeatAnswer(
            say(
                "No surface up to {t} makes it {crust} in {time}.",
                t=temp(HOTTEST_C),
                crust=word(crust),
                time=duration(seconds),
            ),
            None,
            None,
        )
    hot = _bisect(pale, 100.0, HOTTEST_C)
    return HeatAnswer(
        say(
            "About {t} makes it {crust} in {time}. Browning only ranks: trust the order, not the degree.",
            t=temp(hot),
            crust=word(crust),
            time=duration(seconds),
        ),
        hot,
        SetFigure("surface_temp", round(hot)),
    )


def _land(setup: Setup, wanted: Wanted) -> HeatAnswer:
    def too_little(pull: float) -> bool:
        cooked = cook(replace(setup, pull_c=pull), keep_every_s=max(1.0, wanted.expected_s / 60))
        return peak_of(cooked) < wanted.target_c

    low, high = wanted.target_c - 20.0, wanted.target_c
    pull = high if too_little(high) else _bisect(too_little, low, high)
    cooked = cook(replace(setup, pull_c=pull), keep_every_s=max(1.0, wanted.expected_s / 60))
    if not cooked.reached:
        return HeatAnswer(say("It does not come to {core} this way.", core=temp(wanted.target_c)), None, None)
    # What is wanted is not what ends it where the coldest meat comes to the floor later.
    off_c = float(np.interp(cooked.on_heat_s, cooked.times_s, core_series(cooked)))
    if setup.piece.middle is None and off_c > pull + KEPT_ON_K:
        return HeatAnswer(
            say(
                "The coldest meat keeps it on until {time}: taken off at {pull} then, it rises to {core} at rest.",
                pull=temp(off_c),
                time=duration(cooked.on_heat_s),
                core=temp(peak_of(cooked)),
            ),
            cooked.on_heat_s,
            None,
        )
    return HeatAnswer(
        say(
            "Taken off at {pull}, after {time}, it rises to {core} while it rests, if the carry-over is as computed. "
            "Cooks count on {low} at least; the advice does too.",
            pull=temp(pull),
            time=duration(cooked.on_heat_s),
            core=temp(peak_of(cooked)),
            low=delta_temp(wanted.counted_carry_k),
        ),
        cooked.on_heat_s,
        None,
    )


def floor_needs_s(setup: Setup, wanted: Wanted) -> float | None:
    """The least time on the heat after which the leading floor is met, rest included; None: not this way.

    Parameters
    ----------
    setup : Setup
        All that decides how the piece cooks.
    wanted : Wanted
        What the curve is made for.

    Returns
    -------
    float | None
        Least time on the heat, s. None where no time meets the floor.
    """
    keep = max(1.0, wanted.expected_s / 60)

    def short(pull: float) -> bool:
        cooked = cook(replace(setup, pull_c=pull), keep_every_s=keep)
        return leading_met(cooked, wanted) is None

    low, high = min(setup.pull_c, wanted.floors.leading.temp_c) - 10.0, 99.0
    if short(high):
        return None
    pull = _bisect(short, low, high)
    # The bracket's hot end is the one that meets it.
    step = (high - low) / 2**TRIES
    return cook(replace(setup, pull_c=pull + step), keep_every_s=keep).on_heat_s


def _reach_floor(setup: Setup, wanted: Wanted, engine: Engine) -> HeatAnswer:
    floor = wanted.floors.leading
    usual = once(engine, cooked_of, setup, wanted)
    met = leading_met(usual, wanted)
    if met is not None:
        said = say("As planned the coldest meat meets {floor} at {time}.", floor=_line(wanted), time=duration(met))
        return HeatAnswer(said, met, None)
    needed = floor_needs_s(setup, wanted)
    if needed is None:
        return HeatAnswer(say("This way the coldest meat does not meet {floor}.", floor=_line(wanted)), None, None)
    said = say(
        "Leave it on for {time}, not {planned}: then the coldest meat meets {floor}, resting included.",
        time=duration(needed),
        planned=duration(usual.on_heat_s),
        floor=_line(wanted),
    )
    return HeatAnswer(said, needed, SetFigure("target_core_temp", round(floor.temp_c + 0.05, 1)))


def _line(wanted: Wanted) -> Amount:
    return temp(wanted.floors.leading.temp_c)


def _floor_in_time(setup: Setup, wanted: Wanted, seconds: float) -> HeatAnswer:
    run = Simulation(setup, keep_every_s=max(0.5, seconds / 80))
    left = seconds
    for stage in setup.stages:
        if left <= 0:
            break
        last = stage is setup.stages[-1]
        took, _ = run.stage(
            stage, end_value=1000.0 if last else None, seconds=left if last else min(stage.seconds, left)
        )
        left -= took
    ended = run.now.copy()
    run.stage(setup.resting)
    times, temps, more = run.samples()
    cooked = Cooked(setup, run.body, (seconds,), True, times, temps, more, ended, run.now)
    met = leading_met(cooked, wanted)
    highest = float(core_series(cooked).max())
    if met is None:
        said = say(
            "No: off after {time}, the core comes to {core} and the coldest meat stays short of {floor}.",
            time=duration(seconds),
            core=temp(highest),
            floor=_line(wanted),
        )
    else:
        said = say(
            "Yes: taken off after {time}, the coldest meat meets {floor} at {met}.",
            time=duration(seconds),
            floor=_line(wanted),
            met=duration(met),
        )
    return HeatAnswer(said, met, None)
