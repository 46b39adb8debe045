"""Edits of when a formula is cooked: the hour on the plate, cooks, own tasks, and tasks that are pinned."""

from __future__ import annotations

from dataclasses import replace

from vianda.core.basis.errors import OutOfRangeError, UnknownItemError
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.model import edit as e
from vianda.core.model.formula import MOST_COOKS, MOST_OWN_TASKS, MOST_PINS, WHENEVER, Formula, OwnTask, Pin
from vianda.core.reading.clock import read_clock_min
from vianda.core.reading.entry import read_count, read_seconds, read_temp_c

LONGEST_TITLE, LONGEST_MIN = 80, 1440.0


def type_timing(formula: Formula, edit: e.TypeTiming) -> Formula:
    """The hour on the plate, the hour work begins, or the cooks, from what was typed.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    edit : e.TypeTiming
        Which, and the text.

    Returns
    -------
    Formula
        The changed formula.

    Raises
    ------
    UnreadableEntryError
        When the text is no time of day, or no whole number.
    OutOfRangeError
        When there are no cooks, or too many.
    """
    timing = formula.timing
    if edit.what == "cooks":
        cooks = read_count(edit.text, field="/timing/cooks")
        if not 1 <= cooks <= MOST_COOKS:
            raise OutOfRangeError(f"1 to {MOST_COOKS} cooks stand in a kitchen.", field="/timing/cooks")
        timing = replace(timing, cooks=cooks)
    elif edit.what == "ready":
        timing = replace(timing, ready_min=read_clock_min(edit.text, field="/timing/ready_min"))
    elif not edit.text.strip():
        timing = replace(timing, opens_min=WHENEVER)
    else:
        timing = replace(timing, opens_min=read_clock_min(edit.text, field="/timing/opens_min"))
    return replace(formula, timing=timing)


def add_task(formula: Formula, edit: e.AddTask, *, kitchen: Kitchen) -> Formula:
    """The formula with one more own task.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    edit : e.AddTask
        The task as typed.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.

    Returns
    -------
    Formula
        The changed formula.

    Raises
    ------
    OutOfRangeError
        When it has no name, is too long, or there is no room for one more.
    UnreadableEntryError
        When the text is no length of time, or no temperature.
    UnknownItemError
        When the kitchen has no such surface.
    """
    own = formula.timing.own
    title = " ".join(edit.title.split())
    if not title or len(title) > LONGEST_TITLE or not title.isprintable():
        raise OutOfRangeError(f"A task has a name of 1 to {LONGEST_TITLE} visible characters.", field="/timing/own")
    if len(own) >= MOST_OWN_TASKS:
        raise OutOfRangeError(f"At most {MOST_OWN_TASKS} own tasks stand in one timetable.", field="/timing/own")
    minutes = read_seconds(edit.text, bare_s=60.0, field="/timing/own") / 60.0
    if not 1.0 <= minutes <= LONGEST_MIN:
        raise OutOfRangeError("A task takes 1 minute to 24 hours.", field="/timing/own")
    oven_c = None
    if edit.surface:
        surface = kitchen.surface(edit.surface, field="/timing/own")
        if surface.kind == "oven":
            oven_c = read_temp_c(edit.oven, unit_system=kitchen.unit_system, field="/timing/own")
    numbers = {int(t.key.removeprefix("own-")) for t in own if t.key.removeprefix("own-").isdigit()}
    key = f"own-{max(numbers, default=0) + 1}"
    task = OwnTask(key, title, minutes, edit.hands, edit.surface, oven_c, edit.hot)
    return replace(formula, timing=replace(formula.timing, own=(*own, task)))


def drop_task(formula: Formula, key: str) -> Formula:
    """The formula without one of its own tasks, and without its pin.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    key : str
        Key of the task.

    Returns
    -------
    Formula
        The changed formula.

    Raises
    ------
    UnknownItemError
        When there is no such task.
    """
    timing = formula.timing
    if all(t.key != key for t in timing.own):
        raise UnknownItemError(f"There is no own task “{key}”.", field="/timing/own")
    own = tuple(t for t in timing.own if t.key != key)
    pins = tuple(p for p in timing.pins if p.task != key)
    return replace(formula, timing=replace(timing, own=own, pins=pins))


def pin_task(formula: Formula, edit: e.PinTask) -> Formula:
    """The formula with a task pinned, or let go.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    edit : e.PinTask
        Which, and when it begins.

    Returns
    -------
    Formula
        The changed formula. Pins of tasks that a change of the formula took away are passed over by the timetable.

    Raises
    ------
    OutOfRangeError
        When too many are pinned, or a start is given without a task.
    """
    timing = formula.timing
    if not edit.task:
        if edit.start_min is not None:
            raise OutOfRangeError("Say which task begins then.", field="/timing/pins")
        return replace(formula, timing=replace(timing, pins=()))
    rest = tuple(p for p in timing.pins if p.task != edit.task)
    if edit.start_min is None:
        return replace(formula, timing=replace(timing, pins=rest))
    if len(rest) >= MOST_PINS:
        raise OutOfRangeError(f"At most {MOST_PINS} tasks are pinned.", field="/timing/pins")
    return replace(formula, timing=replace(timing, pins=(*rest, Pin(edit.task, edit.start_min))))
