"""Which stages each style goes through on its surface."""

from __future__ import annotations

from vianda.core.heat.conduction import stages as st
from vianda.core.heat.conduction.faces import Face
from vianda.core.heat.conduction.stages import CookStage, air
from vianda.core.heat.plan import HeatPlan
from vianda.core.kitchen import Surface
from vianda.core.styles import Form, Style

# What is not modelled yet: a core of another stuff, a loaf in two directions, crumbs.
MODELLED: tuple[Form, ...] = ("disc", "spread", "ball")
# How many times habit's longest a stage is waited for before it is said that it does not get there.
PATIENCE = 3.0


def stages_of(style: Style, *, surface: Surface, surface_temp_c: float, plan: HeatPlan) -> tuple[CookStage, ...]:
    """The stages on the heat, without the rest; the last one ends with the core."""
    if style.form == "ball":
        return _ball(style, surface=surface, temp_c=surface_temp_c, plan=plan)
    return _flat(style, surface=surface, temp_c=surface_temp_c, plan=plan)


def rest_of(style: Style) -> CookStage:
    """Off the heat, on a rack."""
    return CookStage(
        "rest", air(st.ROOM_C, st.ROOM_H), air(st.ROOM_C, st.ROOM_H), "time", max(90.0, 1.5 * style.rest_s[1])
    )


def _below(style: Style, surface: Surface, temp_c: float) -> Face:
    if surface.kind == "grate":
        return Face("fire", temp_c, st.FIRE_H)
    return Face("contact", temp_c, st.PRESSED_H if style.press_by_s or style.form == "spread" else st.LAID_H)


def _above(surface: Surface, temp_c: float) -> Face:
    if surface.kind == "grate":
        # Lid down: the air under it is about two thirds as far above the yard as the grate is.
        return air(st.ROOM_C + (temp_c - st.ROOM_C) * 0.65, st.LID_H, vapour_pa=st.LID_AIR_PA)
    return air(st.OVER_PLATE_C, st.ROOM_H)


def _flat(style: Style, *, surface: Surface, temp_c: float, plan: HeatPlan) -> tuple[CookStage, ...]:
    low, high = _below(style, surface, temp_c), _above(surface, temp_c)
    habit = {s.kind: s for s in plan.stages}
    longest = PATIENCE * plan.on_heat_s.high
    found: list[CookStage] = []
    if style.finish_first:
        slow = air(st.SLOW_C, st.LID_H, vapour_pa=st.LID_AIR_PA)
        usual = (habit["finish"].low_s + habit["finish"].high_s) / 2
        found.append(CookStage("slow", slow, slow, "time", usual, step_s=4.0))
        found.append(CookStage("first-side", low, high, "time", plan.flip_s.usual - usual))
        found.append(CookStage("second-side", low, high, "core", longest, flip=True))
        return tuple(found)
    finish = style.finish_s[1] > 0
    found.append(CookStage("first-side", low, high, "time" if finish else "two-fifths",
                           plan.flip_s.usual if finish else longest))  # fmt: skip
    second = habit["second-side"]
    found.append(CookStage("second-side", low, high, "time" if finish else "core",
                           (second.low_s + second.high_s) / 2 if finish else longest, flip=True))  # fmt: skip
    if finish:
        lid = air(130.0, st.LID_H, vapour_pa=st.LID_AIR_PA)
        found.append(CookStage("gentle", Face("contact", 120.0, st.LAID_H / 2), lid, "core", longest, step_s=2.0))
    return tuple(found)


def _ball(style: Style, *, surface: Surface, temp_c: float, plan: HeatPlan) -> tuple[CookStage, ...]:
    first = plan.stages[1]
    longest = PATIENCE * plan.on_heat_s.high
    oven = surface.kind == "oven"
    skin = air(temp_c, st.FAN_H) if oven else Face("contact", temp_c, st.LAID_H * st.ROLLED_FRAC)
    name: st.StageName = "bake" if oven else "brown"
    if not style.simmer_s[1]:
        return (CookStage(name, st.SHUT, skin, "core", longest, step_s=1.5),)
    sauce = Face("liquid", st.SIMMER_C, st.SIMMER_H)
    browned = (first.low_s + first.high_s) / 2
    return (
        CookStage(name, st.SHUT, skin, "time", browned, step_s=1.5),
        CookStage("simmer", st.SHUT, sauce, "core", longest, step_s=1.5),
    )
