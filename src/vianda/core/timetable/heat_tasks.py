"""The tasks on the heat: the surface made hot or the fire laid, the waves, and what finishes in a sauce."""

from __future__ import annotations

import math
from collections.abc import Iterable

from vianda.core.basis import phrase as ph
from vianda.core.basis.band import Band
from vianda.core.basis.phrase import Phrase, say
from vianda.core.equipment.heating import LIGHT_MIN
from vianda.core.heat.fire import fire_plan
from vianda.core.timetable import practice as pr
from vianda.core.timetable.fire_tasks import READY, SET, FireTask, SharedFire, fire_tasks, smoke_task
from vianda.core.timetable.sheet import HOB, Sheet, minutes_at_best


def _minutes(low_s: float, usual_s: float, high_s: float) -> Band:
    return Band(low_s / 60.0, usual_s / 60.0, high_s / 60.0)


def onto_heat(sheet: Sheet, shaped: str) -> tuple[list[str], list[tuple[str, int]]]:
    """Preheating, waves, and simmering in a sauce.

    Parameters
    ----------
    sheet : Sheet
        Where the tasks are noted.
    shaped : str
        The task after which raw pieces lie ready.

    Returns
    -------
    tuple[list[str], list[tuple[str, int]]]
        The waves; and each group's last task with the pieces it brings.
    """
    f = sheet.figures
    plan, stove, surface = f.cook.plan, f.cook.stove, f.context.surface
    heat_c = f.context.formula.heat.surface_temp_c
    simmers = [s for s in plan.stages if s.kind == "simmer"]
    low_s = sum(s.low_s for s in simmers)
    usual_s = sum((s.low_s + s.high_s) / 2 for s in simmers)
    high_s = sum(s.high_s for s in simmers)
    on = plan.on_heat_s
    one = _minutes(max(30.0, on.low - low_s), max(45.0, on.usual - usual_s), max(60.0, on.high - high_s))
    oven = surface.kind == "oven"
    pot = surface.key if surface.kind in ("plate", "grate", "oven", "pan") else HOB
    lasts = minutes_at_best(surface)
    fire = sheet.fires.get(surface.key)
    shared = fire.ready if fire is not None and lasts is not None else ""
    ready = shared or _get_hot(sheet, pot, fire)
    smoke_s = sum(s.timer_s for s in plan.stages if s.kind == "smoke")
    if fire is not None and smoke_s > 0:
        _note(sheet, [smoke_task(smoke_s / 60.0, first_wave="wave-1")], pot)
    if fire is not None and lasts is not None and max(fire.needed_min, one.usual * stove.waves) > lasts:
        # It is fed meanwhile, or a little past its best at the end.
        lasts = None
    groups = _groups(stove.waves)
    pieces = [stove.first_wave, *([stove.at_once] * max(0, stove.waves - 2)), stove.last_wave][: stove.waves]
    ends: list[tuple[str, int]] = []
    waves: list[str] = []
    at = 0
    for n, size in enumerate(groups):
        mine = sum(pieces[at : at + size])
        at += size
        key = f"wave-{n + 1}"
        stands = not oven and one.usual <= pr.STOOD_AT_MIN
        name = _wave_name(n, size, len(groups), mine, loose=stove.load_mass_g > 0)
        takes = one.times(size)
        sheet.task(key, name, takes, hands=stands, needs=(pot,), oven_c=heat_c if oven else None)
        if n == 0:
            sheet.lag(shaped, key, 0, pr.COLD, cold=True)
            # Where another dish has the fire lit, this one's turn comes when it comes.
            sheet.after(ready, key, None if shared else pr.STANDS_HOT_MIN)
        else:
            sheet.lag(waves[-1], key, pr.CHANGE_MIN)
        if lasts is not None:
            # A fire is past its best this long after it was ready.
            sheet.after(ready, key, max(0, lasts - math.ceil(takes.usual)))
        waves.append(key)
        ends.append((key, mine))
    if simmers:
        pot_of = sheet.task(
            "simmer", say("In the sauce, until done"), _minutes(low_s, usual_s, high_s), hands=False, needs=(HOB,)
        )
        for key in waves:
            sheet.lag(key, pot_of, 0, pr.KEPT_HOT)
        ends = [(pot_of, sum(pieces))]
    return waves, ends


def _note(sheet: Sheet, tasks: Iterable[FireTask], grate: str) -> None:
    for task in tasks:
        sheet.task(
            task.key,
            task.title,
            task.takes,
            hands=task.hands,
            needs=(grate,) if task.at_grate else (),
            kind="set-fire" if task.key == SET else "",
        )
        for before, after, least, most in task.waits:
            sheet.lag(before, after, least, most)


def _get_hot(sheet: Sheet, pot: str, fire: SharedFire | None) -> str:
    """The surface is heated, or a fire laid, lit and fed; the task after which it is ready, by its key in the whole."""
    f = sheet.figures
    surface, heat_c = f.context.surface, f.context.formula.heat.surface_temp_c
    light = LIGHT_MIN[surface.heating.fuel] if surface.kind == "grate" else 0.0
    burns = minutes_at_best(surface) is not None
    title = "The {what} burns until it is ready" if burns else "Heat the {what}"
    ready = sheet.task(
        READY,
        say(title, what=ph.word(surface.name.lower())),
        Band(0.8 * light, light, 1.3 * light) if light else pr.PREHEAT,
        hands=False,
        needs=(pot,),
        oven_c=heat_c if surface.kind == "oven" else None,
    )
    if fire is not None:
        fire.ready = sheet.key_of(ready)
        burned = fire_plan(surface, fire_c=heat_c, needed_min=fire.needed_min)
        assert burned is not None
        _note(sheet, fire_tasks(surface, burned), pot)
    return sheet.key_of(ready)


def _groups(waves: int) -> list[int]:
    """Waves told one by one, or in groups where there are many."""
    size = math.ceil(waves / pr.MOST_GROUPS)
    found = [size] * (waves // size)
    return [*found, waves - sum(found)] if sum(found) < waves else found


def _wave_name(n: int, size: int, groups: int, pieces: int, *, loose: bool) -> Phrase:
    if groups == 1:
        return say("Cook the meat" if loose else "Cook all {n}", **({} if loose else {"n": ph.count(pieces)}))
    if loose:
        return say("Brown load {n}", n=ph.count(n + 1))
    if size == 1:
        return say("Wave {n}: {p} pieces", n=ph.count(n + 1), p=ph.count(pieces))
    first = n * size + 1
    return say("Waves {a} to {b}: {p} pieces", a=ph.count(first), b=ph.count(first + size - 1), p=ph.count(pieces))
