"""The tasks that a formula's other steps decided, what must lie between them, and what they take of the kitchen."""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any, Literal

from vianda.core.basis import phrase as ph
from vianda.core.basis.band import Band
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.phrase import Phrase, say
from vianda.core.equipment.heating import LASTS_MIN, LIGHT_MIN
from vianda.core.equipment.kitchen import Surface
from vianda.core.equipment.task_pace import TaskKind
from vianda.core.heat.fire import fire_plan
from vianda.core.model.formula import BREAD_LAYERS, WHENEVER, Timing
from vianda.core.model.styles import BLOCKS, FLAT
from vianda.core.pipeline.figures import Figures
from vianda.core.sauce.brine import USUAL_H
from vianda.core.sauce.figures import BesideFigures
from vianda.core.sauce.from_raw import COOKED_BESIDE, from_raw
from vianda.core.schedule.model import Absence, Lag, Problem, Resource, Task, When
from vianda.core.timetable import practice as pr
from vianda.core.timetable.fire_tasks import READY, SET, FireTask, SharedFire, fire_tasks, shared_fires, smoke_task

HOB, GRINDER, LAST = "hob", "grinder", "serve"
IN_POT = ("cooking-sauce", "sauce-base", "gravy")


@dataclass(frozen=True, slots=True)
class Dish:
    """One dish of a timetable: what its tasks' keys begin with, its name, and its figures.

    Both are empty for a formula on its own.
    """

    prefix: str
    name: str
    figures: Figures


@dataclass
class _Sheet:
    """What is gathered while the steps of a dish are walked through, in the order of the hands."""

    figures: Figures
    tasks: list[Task]
    lags: list[Lag]
    places: dict[str, Resource]
    fires: Mapping[str, SharedFire]
    prefix: str = ""
    dish: str = ""
    # Keys of this dish's own tasks, as its steps call them.
    known: set[str] = field(default_factory=set)

    def task(
        self,
        key: str,
        title: Phrase,
        takes: Band,
        *,
        hands: bool = True,
        needs: tuple[str, ...] = (),
        oven_c: float | None = None,
        ahead: bool = False,
        own: bool = False,
        kind: TaskKind | Literal[""] = "",
    ) -> str:
        """Note a task; its key within the dish."""
        for need in needs:
            self.places.setdefault(need, self._place(need))
        pace = self.figures.context.kitchen.pace(kind)
        low, usual, high = pace * takes.low, pace * takes.usual, pace * takes.high
        when: When = "ahead" if ahead else "today"
        self.known.add(key)
        self.tasks.append(
            Task(
                self.key_of(key),
                title,
                low,
                usual,
                high,
                hands,
                needs,
                oven_c,
                when,
                own=own,
                dish=self.dish,
                kind=kind,
                pace=pace,
            )
        )
        return key

    def lag(self, before: str, after: str, least: float = 0, most: int | None = None, **marks: Any) -> None:
        """Note what must lie between two tasks; a task that is not there binds nothing."""
        if before and after:
            least_min = math.ceil(least - 1e-9)
            self.lags.append(Lag(self.key_of(before), self.key_of(after), least_min, most, **marks))

    def after(self, ready: str, task: str, most: int | None) -> None:
        """Note that a task begins at most so long after one of any dish, told by its key in the whole timetable."""
        self.lags.append(Lag(ready, self.key_of(task), 0, most))

    def key_of(self, key: str) -> str:
        """The key in the whole timetable; serving is one for all."""
        return key if key == LAST else self.prefix + key

    def _place(self, key: str) -> Resource:
        if key == HOB:
            return Resource(HOB, "Hob", pr.HOB_PLACES)
        if key == GRINDER:
            return Resource(GRINDER, self.figures.meat.grind.tool_name or "Grinder")
        surface = self.figures.context.kitchen.surface(key)
        return Resource(key, surface.name, pr.OVEN_SHELVES if surface.kind == "oven" else 1, lasts_min=_lasts(surface))


def _lasts(surface: Surface) -> int | None:
    """Minutes for which its fire is at its best; None for what does not burn down."""
    if surface.kind != "grate" or surface.heating.fuel == "gas":
        return None
    return int(surface.heating.lasts_min or LASTS_MIN[surface.heating.fuel])


def tasks_of(figures: Figures) -> Problem:
    """Everything there is to do for a formula, ready to be put in time.

    Parameters
    ----------
    figures : Figures
        The results of all stages.

    Returns
    -------
    Problem
        Tasks with their ranges, lags with their limits, and the places they take.

    References
    ----------
    ``timetable.practice``: common practice, no published source. Minutes on the heat, resting, grinding, soaking,
    chilling and cooking beside the meat are those of the other steps.
    """
    return tasks_together((Dish("", "", figures),), timing=figures.context.formula.timing)


def tasks_together(dishes: Sequence[Dish], *, timing: Timing) -> Problem:
    """Everything there is to do for dishes that are served together, in one kitchen.

    Parameters
    ----------
    dishes : Sequence[Dish]
        One or more, computed for the same kitchen.
    timing : Timing
        The hour, the cooks, own tasks and pins that count; a dish's own tasks join in, its pins do not.

    Returns
    -------
    Problem
        Tasks of all dishes; places and hands are shared.

    Raises
    ------
    OutOfRangeError
        When there is no dish.
    """
    if not dishes:
        raise OutOfRangeError("There is nothing to cook yet: choose a dish.", field="/dishes")
    tasks: list[Task] = []
    lags: list[Lag] = []
    places: dict[str, Resource] = {}
    fires = shared_fires((d.figures.context.surface, d.figures.cook.stove) for d in dishes)
    for dish in dishes:
        sheet = _Sheet(dish.figures, tasks, lags, places, fires, dish.prefix, dish.name)
        waves, ends = _heat(sheet, _shape(sheet, _make_mix(sheet)))
        _finish(sheet, waves, ends)
        if dish.prefix:
            _own(sheet, dish.figures.context.formula.timing)
    whole = _Sheet(dishes[0].figures, tasks, lags, places, fires)
    whole.task(LAST, say("On the plate"), Band(1.0, 1.0, 1.0), hands=False)
    _own(whole, timing)
    opens = None
    if timing.opens_min != WHENEVER:
        # What opens after the hour of serving opened the day before.
        opens = timing.opens_min - timing.ready_min
        opens -= 1440 if opens >= 0 else 0
    known = {t.key for t in tasks}
    return Problem(
        tasks=tuple(tasks),
        lags=tuple(lags),
        resources=tuple(places.values()),
        last=LAST,
        cooks=timing.cooks,
        opens_min=opens,
        pinned={p.task: p.start_min for p in timing.pins if p.task in known},
        # Of a cook who is not counted nothing is said.
        away=tuple(
            Absence(a.cook - 1, a.from_min - timing.ready_min, a.to_min - timing.ready_min)
            for a in timing.away
            if a.cook <= timing.cooks and a.to_min > a.from_min
        ),
    )


def _make_mix(sheet: _Sheet) -> str:
    """Cubes, grinding, panade and bowl; the task after which the meat is mixed."""
    f = sheet.figures
    formula, grind = f.context.formula, f.meat.grind
    meat = ph.mass(f.batch.meat_mass_g)
    last = ""
    if grind.minutes > 0 and grind.ground_mass_g > 0:
        firm = sheet.task("freeze-cubes", say("Cubes to the freezer, edges firm"), pr.FREEZE_CUBES, hands=False)
        cut = sheet.task("cut-cubes", say("Cut {m} into cubes", m=meat), _per_kg(f, 2.0, 3.0, 5.0), kind="cut-cubes")
        takes = Band(*(grind.minutes * x for x in (pr.GRIND_FACTOR.low, 1.0, pr.GRIND_FACTOR.high)))
        last = sheet.task("grind", say("Grind {m}", m=meat), takes, needs=(GRINDER,), kind="grind")
        sheet.lag(cut, firm, 0, 60)
        sheet.lag(firm, last, 0, pr.FIRM)
    lines = [x for x in f.mix.lines if x.per_meat_frac > 0]
    soaked = ""
    if f.mix.panade.crumb_g > 0 and formula.mix.soak_min > 0:
        stirred = sheet.task("panade", say("Stir the panade"), pr.STIR_PANADE, kind="panade")
        soak = formula.mix.soak_min
        soaked = sheet.task("soak", say("The panade soaks"), Band(soak, soak, soak * 1.2), hands=False)
        sheet.lag(stirred, soaked, 0, 0)
    cooled = [_soften(sheet, line.ingredient, line.mass_g) for line in lines if line.ingredient in COOKED_BESIDE]
    if not lines and formula.seasoning.salt_place != "mixed":
        # Nothing goes in: the meat is only portioned.
        return last
    work = formula.mix.work_s / 60.0
    takes = pr.BOWL.plus(pr.WEIGH_LINE.times(len(lines))).plus(Band(0.8 * work, work, 1.3 * work))
    mix = sheet.task("mix", say("Weigh out and mix {m}", m=ph.mass(f.batch.mix_mass_g)), takes, kind="mix")
    sheet.lag(last, mix, 0, pr.COLD, cold=True)
    sheet.lag(soaked, mix, 0, pr.SOAKED, cold=True)
    for key in cooled:
        sheet.lag(key, mix, 0, pr.COLD, cold=True)
    return mix


def _per_kg(f: Figures, low: float, usual: float, high: float) -> Band:
    return Band(low, usual, high).times(max(0.5, f.batch.meat_mass_g / 1000.0))


def _soften(sheet: _Sheet, ingredient: str, grams: float) -> str:
    """What is cooked soft and goes cold into the mix; the task after which it is cold."""
    surface = _pan(sheet)
    raw = from_raw(ingredient, grams, surface=surface)
    if raw is None:
        return ""
    name = sheet.figures.context.inventory.pantry[ingredient].name.lower()
    takes = Band(raw.minutes.low, raw.minutes.usual, raw.minutes.high)
    cooked = sheet.task(f"soften-{ingredient}", say("Cook {what}", what=ph.word(name)), takes, needs=(HOB,))
    cold = sheet.task(f"cool-{ingredient}", say("Cool {what}", what=ph.word(name)), pr.COOLS, hands=False)
    sheet.lag(cooked, cold, 0, 0)
    return cold


def _pan(sheet: _Sheet) -> Surface:
    context = sheet.figures.context
    return context.kitchen.surface_of_kind("pan") or context.surface


def _shape(sheet: _Sheet, mixed: str) -> str:
    """Chilling and shaping; the task after which raw pieces lie ready."""
    f = sheet.figures
    formula, form, n = f.context.formula, f.context.style.form, f.batch.portions.pieces
    last, most = mixed, pr.SHAPED
    if mixed and formula.mix.chill_min > 0 and formula.mix.lines:
        chill = formula.mix.chill_min
        cold = sheet.task("chill", say("The mix chills"), Band(chill, chill, chill * 1.1), hands=False)
        sheet.lag(mixed, cold, 0, 10)
        last = cold
    one = pr.SHAPE_ONE[form]
    if one.usual > 0:
        word = "{n} loaves" if form in BLOCKS else "{n} pieces"
        shape = sheet.task("shape", say("Shape " + word, n=ph.count(n)), one.times(n), kind="shape")
        sheet.lag(last, shape, 0, most, cold=True)
        last = shape
    for stage in f.cook.plan.before:
        low, high = stage.low_s / 60.0, max(stage.low_s, stage.high_s) / 60.0
        if high > 0:
            waits = Band(low, (low + high) / 2, high)
            key = sheet.task(f"before-{stage.kind}", say(stage.title), waits, hands=False)
            sheet.lag(last, key, 0, 30)
            last = key
    return last


def _minutes(low_s: float, usual_s: float, high_s: float) -> Band:
    return Band(low_s / 60.0, usual_s / 60.0, high_s / 60.0)


def _heat(sheet: _Sheet, shaped: str) -> tuple[list[str], list[tuple[str, int]]]:
    """Preheating and waves; each group's last task with the pieces it brings."""
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
    lasts = _lasts(surface)
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


def _note(sheet: _Sheet, tasks: Iterable[FireTask], grate: str) -> None:
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


def _get_hot(sheet: _Sheet, pot: str, fire: SharedFire | None) -> str:
    """The surface is heated, or a fire laid, lit and fed; the task after which it is ready, by its key in the whole."""
    f = sheet.figures
    surface, heat_c = f.context.surface, f.context.formula.heat.surface_temp_c
    light = LIGHT_MIN[surface.heating.fuel] if surface.kind == "grate" else 0.0
    burns = _lasts(surface) is not None
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


def _finish(sheet: _Sheet, waves: list[str], ends: list[tuple[str, int]]) -> None:
    """Resting, toasting, building or slicing; what goes with it; the plate."""
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


def _buns_at_once(sheet: _Sheet) -> int:
    """Breads that lie cut face down in the pan beside the meat."""
    pan, bun = _pan(sheet), sheet.figures.context.bun
    area = pan.width_mm * pan.depth_mm * (math.pi / 4 if pan.round_shape else 1.0)
    return max(1, int(0.7 * area / (2 * bun.diameter_mm**2)))


def _beside(sheet: _Sheet, thing: BesideFigures, *, first: str, first_wave: str) -> None:
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


def _own(sheet: _Sheet, timing: Timing) -> None:
    """The cook's own tasks, done before serving; what is eaten hot ends shortly before."""
    kitchen = sheet.figures.context.kitchen
    known = {s.key for s in kitchen.surfaces}
    for own in timing.own:
        # A surface that the kitchen no longer has takes no place.
        needs = (own.surface,) if own.surface in known else ()
        takes = Band(0.8 * own.minutes, own.minutes, 1.3 * own.minutes)
        title = say("{what}", what=ph.word(own.title))
        sheet.task(own.key, title, takes, hands=own.hands, needs=needs, oven_c=own.oven_c, own=True)
        if own.hot:
            sheet.lag(own.key, LAST, 0, pr.PLATED, hot=True)
        else:
            sheet.lag(own.key, LAST, 0, 12 * 60, cold=True)
