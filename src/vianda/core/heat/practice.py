"""Minutes from usual practice: the table of common practice, interpolated over thickness. No physics.

Source: common practice, no published source. The uncertainty is the table's own from–to.
"""

from __future__ import annotations

from typing import Literal

from vianda.core.basis.band import Band as Spread
from vianda.core.basis.band import along
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.phrase import delta_temp, duration, say, temp
from vianda.core.heat.doneness import doneness_at
from vianda.core.heat.floor import FloorChoice
from vianda.core.heat.plan import HeatPlan, Practice, Reach, Stage
from vianda.core.model.formula import Heat
from vianda.core.model.styles import FLAT, PROBE_THICKNESS_MM, Style
from vianda.core.shape.figures import ShapeFigures

SHORTEST_SIDE_S = 20.0


def first_side_s(style: Style, *, thickness_mm: float) -> Spread:
    """Seconds on the first side at a thickness: the style's rows, joined by straight lines.

    Parameters
    ----------
    style : Style
        The style whose usual values count.
    thickness_mm : float
        Raw thickness, mm, above 0.

    Returns
    -------
    Spread
        Seconds on the first side at a thickness.

    Raises
    ------
    OutOfRangeError
        Where the line would run below 20 s: the table does not reach so thin.

    References
    ----------
    Common practice, no published source.

    Examples
    --------
    >>> from vianda.core.model.styles import style_of
    >>> first_side_s(style_of("smashed"), thickness_mm=5).usual
    67.5
    """
    low = along(tuple((r.thickness_mm, r.seconds[0]) for r in style.first_side), thickness_mm)
    high = along(tuple((r.thickness_mm, r.seconds[1]) for r in style.first_side), thickness_mm)
    if low < SHORTEST_SIDE_S:
        raise OutOfRangeError(
            f"The table of usual practice knows no minutes for {thickness_mm:.3g} mm in this style.",
            field="/shape/thickness_mm",
        )
    return Spread(low, (low + high) / 2, high)


MODEL: Literal["practice"] = "practice"


def practice_plan(*, style: Style, shape: ShapeFigures, heat: Heat, floors: FloorChoice) -> HeatPlan:
    """The heat of one piece by usual practice: from–to minutes by style and thickness.

    Parameters
    ----------
    style : Style
        Whose table is read.
    shape : ShapeFigures
        The raw piece.
    heat : Heat
        Surface and target.
    floors : FloorChoice
        The published floors that stand beside it.

    Returns
    -------
    HeatPlan
        Stages, times and cues.

    Raises
    ------
    OutOfRangeError
        Where the table does not reach so thin a piece.

    References
    ----------
    Common practice, no published source.
    """
    if style.form not in FLAT:
        return _all_round(style, shape=shape, heat=heat, floors=floors)
    first = first_side_s(style, thickness_mm=shape.thickness_mm)
    ratio = style.second_side_ratio
    second = Spread(first.low * ratio, first.usual * ratio, first.high * ratio)
    finish = Spread(style.finish_s[0], sum(style.finish_s) / 2, style.finish_s[1])
    rest = Spread(style.rest_s[0], sum(style.rest_s) / 2, style.rest_s[1])
    carry = Spread(style.carry_over_k[0], sum(style.carry_over_k) / 2, style.carry_over_k[1])
    probe = shape.thickness_mm >= PROBE_THICKNESS_MM
    pull = heat.target_core_temp_c - carry.low
    before = finish if style.finish_first else Spread(0, 0, 0)
    flip = Spread(before.low + first.low, before.usual + first.usual, before.high + first.high)
    on_heat = Spread(
        first.low + second.low + finish.low,
        first.usual + second.usual + finish.usual,
        first.high + second.high + finish.high,
    )
    return HeatPlan(
        model=MODEL,
        stages=tuple(
            _stages(style, first=first, second=second, finish=finish, rest=rest, heat=heat, pull_c=pull, probe=probe)
        ),
        surface_low_c=style.surface_temp_c[0],
        surface_high_c=style.surface_temp_c[1],
        flip_s=flip,
        on_heat_s=on_heat,
        rest_s=rest,
        target_c=heat.target_core_temp_c,
        doneness=doneness_at(heat.target_core_temp_c),
        pull_c=pull,
        carry_over_k=carry,
        probe=probe,
        reach=_reach(style, shape=shape, heat=heat),
        practice=Practice(flip, on_heat),
        floors=floors,
        below_floor=heat.target_core_temp_c < floors.leading.temp_c - 1e-6,
    )


def _all_round(style: Style, *, shape: ShapeFigures, heat: Heat, floors: FloorChoice) -> HeatPlan:
    """What cooks from all sides at once: baked, or browned in a pan; then, in some styles, simmered."""
    first = first_side_s(style, thickness_mm=shape.thickness_mm)
    simmer = Spread(style.simmer_s[0], sum(style.simmer_s) / 2, style.simmer_s[1])
    rest = Spread(style.rest_s[0], sum(style.rest_s) / 2, style.rest_s[1])
    carry = Spread(style.carry_over_k[0], sum(style.carry_over_k) / 2, style.carry_over_k[1])
    probe = style.form != "crumbled" and shape.thickness_mm >= PROBE_THICKNESS_MM
    pull = heat.target_core_temp_c - carry.low
    oven = style.baked
    where = say("Until it measures {t}", t=temp(heat.surface_temp_c))
    stages = [Stage("preheat", "Heat the oven" if oven else "Heat the pan", where, 600, 1200, 0)]
    if style.form == "crumbled":
        cue = say("Brown and dry; drain the fat before the next batch")
    elif simmer.high:
        cue = say("Browned all over; the middle may still be raw")
    else:
        cue = say("The probe reads {pull} in the middle of the largest", pull=temp(pull))
    kind, title = ("bake", "In the oven") if oven else ("brown", "Brown")
    stages.append(Stage(kind, title, cue, first.low, first.high, first.usual))  # type: ignore[arg-type]
    if simmer.high:
        end = say("Tender; the middle reads {t} at least", t=temp(heat.target_core_temp_c))
        stages.append(Stage("simmer", "In the sauce", end, simmer.low, simmer.high, simmer.low))
    if rest.high:
        stages.append(Stage("rest", "Rest", say("Under foil, or the juice runs out"), rest.low, rest.high, rest.usual))
    none = Spread(0.0, 0.0, 0.0)
    on_heat = Spread(first.low + simmer.low, first.usual + simmer.usual, first.high + simmer.high)
    return HeatPlan(
        model=MODEL,
        stages=tuple(stages),
        surface_low_c=style.surface_temp_c[0],
        surface_high_c=style.surface_temp_c[1],
        flip_s=none,
        on_heat_s=on_heat,
        rest_s=rest,
        target_c=heat.target_core_temp_c,
        doneness=doneness_at(heat.target_core_temp_c),
        pull_c=pull,
        carry_over_k=carry,
        probe=probe,
        reach=_reach(style, shape=shape, heat=heat),
        practice=Practice(none, on_heat),
        floors=floors,
        below_floor=heat.target_core_temp_c < floors.leading.temp_c - 1e-6,
    )


def _reach(style: Style, *, shape: ShapeFigures, heat: Heat) -> Reach:
    if style.practice_reaches_floor_to_mm == 0:
        return "thermometer-decides"
    too_thick = shape.thickness_mm > style.practice_reaches_floor_to_mm
    too_cool = heat.surface_temp_c < style.surface_temp_c[0]
    return "may-fall-short" if too_thick or too_cool else "usually"


def _stages(
    style: Style, *, first: Spread, second: Spread, finish: Spread, rest: Spread, heat: Heat, pull_c: float, probe: bool
) -> list[Stage]:
    surface = temp(heat.surface_temp_c)
    stages = [Stage("preheat", "Heat the surface", say("Until it measures {surface}", surface=surface), 600, 1200, 0)]
    slow = Stage(
        "finish",
        "Gentle heat",
        say("Lid down, off the fire; until the probe reads {pull}", pull=temp(pull_c)),
        finish.low,
        finish.high,
        finish.low,
    )
    if style.finish_first:
        stages.append(
            Stage(
                "finish",
                "Slow and indirect",
                say("At about {air} beside the fire", air=temp(107)),
                finish.low,
                finish.high,
                finish.usual,
            )
        )
    if style.press_by_s:
        stages.append(
            Stage(
                "press",
                "Press once, hard",
                say("To the gauge, then never again"),
                5,
                style.press_by_s,
                style.press_by_s,
            )
        )
    cue = (
        say("Grey creeps up the edge, juice pools on top, the crust lets go")
        if not probe
        else say("The crust lets go cleanly")
    )
    pressed = style.press_by_s
    stages.append(Stage("first-side", "First side", cue, first.low, first.high, first.usual - pressed))
    if probe and (style.finish_first or not finish.high):
        end = say(
            "The probe reads {pull} in the middle, {carry} more while it rests",
            pull=temp(pull_c),
            carry=delta_temp(style.carry_over_k[0], style.carry_over_k[1]),
        )
    elif probe:
        end = say("Browned like the first")
    else:
        end = say("Firm to a fingertip, juice clear: weak cues, so keep to {time} at least", time=duration(second.low))
    stages.append(Stage("second-side", "Second side", end, second.low, second.high, second.usual))
    if finish.high and not style.finish_first:
        stages.append(slow)
    stages.append(Stage("rest", "Rest", say("Off the heat, on a clean tray or rack"), rest.low, rest.high, rest.usual))
    return stages
