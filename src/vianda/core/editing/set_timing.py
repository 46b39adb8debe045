"""Edits of when it is cooked: the hour on the plate, cooks and who is away, own tasks, and tasks that are pinned."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from vianda.core.basis.errors import OutOfRangeError, UnknownItemError
from vianda.core.basis.seen_text import is_seen
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.model import edit as e
from vianda.core.model.formula import MOST_AWAY, MOST_OWN_TASKS, MOST_PINS, WHENEVER, Away, OwnTask, Pin, Timing
from vianda.core.reading.clock import DAY_MIN, read_clock_min
from vianda.core.reading.entry import read_count, read_seconds, read_temp_c
from vianda.core.schedule.model import MOST_COOKS

LONGEST_TITLE, LONGEST_MIN = 80, 1440.0


def type_timing(timing: Timing, edit: e.TypeTiming) -> Timing:
    """The hour on the plate, the hour work begins, or the cooks, from what was typed.

    Parameters
    ----------
    timing : Timing
        The hour, cooks, own tasks and pins.
    edit : e.TypeTiming
        Which, and the text.

    Returns
    -------
    Timing
        The changed timing.

    Raises
    ------
    UnreadableEntryError
        When the text is no time of day, or no whole number.
    OutOfRangeError
        When there are no cooks, or too many.
    """
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
    return timing


def add_task(timing: Timing, edit: e.AddTask, *, kitchen: Kitchen) -> Timing:
    """The timing with one more own task.

    Parameters
    ----------
    timing : Timing
        The hour, cooks, own tasks and pins.
    edit : e.AddTask
        The task as typed.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.

    Returns
    -------
    Timing
        The changed timing.

    Raises
    ------
    OutOfRangeError
        When it has no name, is too long, or there is no room for one more.
    UnreadableEntryError
        When the text is no length of time, or no temperature.
    UnknownItemError
        When the kitchen has no such surface.
    """
    own = timing.own
    title = " ".join(edit.title.split())
    if not title or len(title) > LONGEST_TITLE or not is_seen(title):
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
    return replace(timing, own=(*own, task))


def drop_task(timing: Timing, key: str) -> Timing:
    """The timing without one of its own tasks, and without its pin.

    Parameters
    ----------
    timing : Timing
        The hour, cooks, own tasks and pins.
    key : str
        Key of the task.

    Returns
    -------
    Timing
        The changed timing.

    Raises
    ------
    UnknownItemError
        When there is no such task.
    """
    if all(t.key != key for t in timing.own):
        raise UnknownItemError(f"There is no own task “{key}”.", field="/timing/own")
    own = tuple(t for t in timing.own if t.key != key)
    pins = tuple(p for p in timing.pins if p.task != key)
    return replace(timing, own=own, pins=pins)


def pin_task(timing: Timing, edit: e.PinTask) -> Timing:
    """The timing with a task pinned, or let go.

    Parameters
    ----------
    timing : Timing
        The hour, cooks, own tasks and pins.
    edit : e.PinTask
        Which, and when it begins.

    Returns
    -------
    Timing
        The changed timing. Pins of tasks that a change took away are passed over by the timetable.

    Raises
    ------
    OutOfRangeError
        When too many are pinned, or a start is given without a task.
    """
    if not edit.task:
        if edit.start_min is not None:
            raise OutOfRangeError("Say which task begins then.", field="/timing/pins")
        return replace(timing, pins=())
    rest = tuple(p for p in timing.pins if p.task != edit.task)
    if edit.start_min is None:
        return replace(timing, pins=rest)
    if len(rest) >= MOST_PINS:
        raise OutOfRangeError(f"At most {MOST_PINS} tasks are pinned.", field="/timing/pins")
    return replace(timing, pins=(*rest, Pin(edit.task, edit.start_min)))


def add_away(timing: Timing, edit: e.AddAway) -> Timing:
    """The timing with a cook away for a while.

    Parameters
    ----------
    timing : Timing
        The hour, cooks, own tasks, pins and who is away.
    edit : e.AddAway
        Which cook, and from when to when as typed; without either it is the whole day.

    Returns
    -------
    Timing
        The changed timing. An end before its beginning is the day after's.

    Raises
    ------
    UnreadableEntryError
        When a text is no time of day.
    OutOfRangeError
        When there is no such cook, the time has no length, or too much is said.
    """
    start = read_clock_min(edit.from_text, field="/timing/away") if edit.from_text.strip() else 0
    end = read_clock_min(edit.to_text, field="/timing/away") if edit.to_text.strip() else DAY_MIN
    if start == end:
        raise OutOfRangeError(
            "Give the hour of leaving and that of coming back: they are the same.", field="/timing/away"
        )
    return keep_away(timing, (Away(edit.cook, start, end if end > start else end + DAY_MIN),))


def keep_away(timing: Timing, away: Sequence[Away]) -> Timing:
    """The timing with more of who is away, in order, nothing twice.

    Parameters
    ----------
    timing : Timing
        The hour, cooks, own tasks, pins and who is away.
    away : Sequence[Away]
        What is added.

    Returns
    -------
    Timing
        The changed timing.

    Raises
    ------
    OutOfRangeError
        When there is no such cook, or too much is said.
    """
    for one in away:
        if one.cook > timing.cooks:
            raise OutOfRangeError(f"There is no cook {one.cook}.", field="/timing/away")
    whole = sorted({*timing.away, *away}, key=lambda a: (a.cook, a.from_min, a.to_min))
    if len(whole) > MOST_AWAY:
        raise OutOfRangeError(f"At most {MOST_AWAY} absences stand in one timetable.", field="/timing/away")
    return replace(timing, away=tuple(whole))


def edited_timing(timing: Timing, edit: e.TimingEdit, *, kitchen: Kitchen) -> Timing:
    """One edit of a timing carried out.

    Parameters
    ----------
    timing : Timing
        The hour, cooks, own tasks and pins.
    edit : e.TimingEdit
        What is changed.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.

    Returns
    -------
    Timing
        The changed timing.

    Raises
    ------
    CoreError
        When what was typed cannot be.
    """
    match edit:
        case e.TypeTiming():
            return type_timing(timing, edit)
        case e.AddTask():
            return add_task(timing, edit, kitchen=kitchen)
        case e.DropTask():
            return drop_task(timing, edit.task)
        case e.PinTask():
            return pin_task(timing, edit)
        case e.AddAway():
            return add_away(timing, edit)
        case e.DropAway():
            return replace(timing, away=tuple(a for a in timing.away if a.cook != edit.cook))
