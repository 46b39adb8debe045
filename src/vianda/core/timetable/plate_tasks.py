"""The tasks behind the heat: resting, toasting, building or slicing, and what goes with the meat."""

from __future__ import annotations

import math

from vianda.core.basis import phrase as ph
from vianda.core.basis.band import Band
from vianda.core.basis.phrase import say
from vianda.core.model.formula import BREAD_LAYERS
from vianda.core.model.styles import BLOCKS, FLAT
from vianda.core.pipeline.figures import Figures
from vianda.core.sauce.brine import USUAL_H
from vianda.core.sauce.figures import BesideFigures
from vianda.core.sauce.from_raw import COOKED_BESIDE
from vianda.core.timetable import practice as pr
from vianda.core.timetable.sheet import HOB, LAST, Sheet, pan_of

IN_POT = ("cooking-sauce", "sauce-base", "gravy")


def onto_plate(sheet: Sheet, waves: list[str], ends: list[tuple[str, int]]) -> None:
    """Resting, toasting, building or slicing; what goes with it; the plate.

    Parameters
    ----------
    sheet : Sheet
        Where the tasks are noted.
    waves : list[str]
        The tasks on the heat.
    ends : list[tuple[str, int]]
        The tasks after which pieces are done, each with how many.
    """
    f = sheet.figures
    form, stack = f.context.style.form, f.beside.build
    rest = f.cook.plan.rest_s.usual / 60.0
    off = pr.OFF_FLAT if form in FLAT else pr.OFF_OTHER
    bread = f.context.bun.diameter_mm > 0
    per_piece = f.beside.builds / max(1, sum(n for _, n in ends))
    toasts = bread and any(x.toasted for x in stack.layers if x.kind in BREAD_LAYERS)
    done: list[str] = []
    for n, (key, pieces) in enumerate(ends):
        many = max(1.0, pieces * per_piece)
        if bread:
            build = sheet.task(
                f"build-{n + 1}", say("Build {n}", n=ph.count(round(many))), pr.BUILD.times(many), kind="build"
            )
        else:
            build = sheet.task(
                f"plate-{n + 1}", say("Slice and plate" if form in BLOCKS else "Plate"), _plates(f, many), kind="plate"
            )
        sheet.lag(key, build, rest, math.ceil(rest) + off, hot=True)
        if toasts:
            loads = max(1, math.ceil(many / _buns_at_once(sheet)))
            # Turned in passing by whoever stands at the meat.
            toast = sheet.task(
                f"toast-{n + 1}",
                say("Toast bread for {n}", n=ph.count(round(many))),
                pr.TOAST.times(loads),
                hands=False,
                needs=(HOB,),
            )
            sheet.lag(toast, build, 0, pr.TOASTED)
        done.append(build)
    most = pr.BUILT if bread and form in FLAT else pr.PLATED
    # One lot is served together; several go out as they come, and wait as little as can be.
    for key in done:
        sheet.lag(key, LAST, 0, most if len(done) == 1 else None, hot=True)
    first = done[0]
    if any(x.kind in ("leaf", "tomato", "onion", "pickle", "relish") for x in stack.layers):
        cut = sheet.task("cut", say("Wash, slice and drain for the build"), pr.CUT, kind="cut")
        sheet.lag(cut, first, 0, pr.CUT_KEEPS, cold=True)
    for thing in f.beside.things:
        _beside(sheet, thing, first=first, first_wave=waves[0])


def _plates(f: Figures, many: float) -> Band:
    return pr.PLATE.times(max(many, f.context.formula.dish.guests))


def _buns_at_once(sheet: Sheet) -> int:
    """Breads that lie cut face down in the pan beside the meat."""
    pan, bun = pan_of(sheet), sheet.figures.context.bun
    area = pan.width_mm * pan.depth_mm * (math.pi / 4 if pan.round_shape else 1.0)
    return max(1, int(0.7 * area / (2 * bun.diameter_mm**2)))


def _beside(sheet: Sheet, thing: BesideFigures, *, first: str, first_wave: str) -> None:
    """What goes with it: made ahead, cooked before the meat, or hot beside it."""
    name, key = ph.word(thing.name), thing.ingredient
    rule = COOKED_BESIDE.get(key)
    if rule is not None and not rule.with_meat and thing.raw is not None:
        takes = Band(thing.raw.minutes.low, thing.raw.minutes.usual, thing.raw.minutes.high)
        task = sheet.task(f"beside-{key}", say("Cook {what}", what=name), takes, needs=(HOB,))
        sheet.lag(task, first, 0, pr.KEPT_HOT)
        return
    if not thing.house:
        return
    keeps = 1440 * max(1, thing.keeps_days)
    if thing.role == "pickle":
        task = sheet.task(f"beside-{key}", say("Put up {what}", what=name), pr.JAR, ahead=True)
        sheet.lag(task, first, 60 * USUAL_H[0], max(keeps, pr.JAR_KEEPS_MIN), cold=True)
    elif thing.role == "ferment":
        task = sheet.task(f"beside-{key}", say("Pack {what}", what=name), pr.CROCK, ahead=True)
        sheet.lag(task, first, pr.YOUNG_MIN, None, cold=True)
    elif thing.role in IN_POT:
        begun = sheet.task(f"begin-{key}", say("Begin {what}", what=name), pr.BEGIN_POT, needs=(HOB,))
        takes = pr.GRAVY if thing.role == "gravy" else pr.SIMMER
        task = sheet.task(f"beside-{key}", say("{what} simmers", what=name), takes, hands=False, needs=(HOB,))
        sheet.lag(begun, task, 0, 0)
        # Where pieces finish in it, it is there before they are.
        after = "simmer" if "simmer" in sheet.known else first
        sheet.lag(task, after, 0, pr.KEPT_HOT, hot=True)
    elif thing.role == "glaze":
        task = sheet.task(f"beside-{key}", say("Stir {what}", what=name), pr.SAUCE, ahead=True, kind="sauce")
        sheet.lag(task, first_wave, 0, keeps, cold=True)
    else:
        task = sheet.task(f"beside-{key}", say("Make {what}", what=name), pr.SAUCE, ahead=True, kind="sauce")
        sheet.lag(task, first, 0, keeps, cold=True)
