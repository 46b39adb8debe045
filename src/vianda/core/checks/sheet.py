"""What is to be measured in an evening, what was, and what came of it: the sheet at the stove, and its record after."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from typing import Literal, cast

from vianda.core.basis import phrase as ph
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.phrase import Phrase, say
from vianda.core.basis.units import UnitSystem
from vianda.core.checks.due import Due
from vianda.core.checks.judge import Judged, Reading, judge
from vianda.core.checks.limits import KIND_TITLES, CheckKind, CheckLimit, lasting
from vianda.core.reading.clock import clock_text
from vianda.core.timetable.run import RunEvent, taken_back_in

# Due for longer than this it is told as overdue, min: ours.
OVERDUE_MIN = 15
# Checks that nobody planned have keys of their own: "cool/own-1f3a".
OWN = "own-"
CheckState = Literal["coming", "due", "overdue", "running", "kept", "missed", "settled", "unfinished", "not-measured"]


@dataclass(frozen=True, slots=True)
class ReadingShown:
    """One reading, °C, and when by the clock; ``taken_back``: it was typed wrong and does not count."""

    token: str
    temp_c: float
    at: str
    at_min: int
    who: str
    taken_back: bool


@dataclass(frozen=True, slots=True)
class ActionShown:
    """What was done about a missed check, and when by the clock."""

    token: str
    remark: str
    at: str
    who: str


@dataclass(frozen=True, slots=True)
class CheckRow:
    """One check: what and of which dish, its line, what was read, and what came of it.

    ``task`` is the one it is of, "" for none. ``what`` is what somebody wrote of it. ``due`` is when it is asked for,
    "" for one that nobody planned. ``state``: "missed" asks for something to be done, "settled" says that it was;
    "running": it is to be measured again, at ``next``; where that never came it is "unfinished". Minutes are from the
    hour on the plate.
    """

    key: str
    kind: CheckKind
    task: str
    dish: str
    title: Phrase
    what: str
    line: Phrase
    limit: CheckLimit
    due: str
    due_min: int | None
    state: CheckState
    says: Phrase | None
    corrective: Phrase | None
    next: str
    next_min: int | None
    readings: tuple[ReadingShown, ...]
    actions: tuple[ActionShown, ...]


def kind_of(check: str) -> CheckKind:
    """The kind that a check's key begins with.

    Parameters
    ----------
    check : str
        As in "core/f3-wave-1", or "cold".

    Returns
    -------
    CheckKind
        One of the kinds.

    Raises
    ------
    OutOfRangeError
        When it is none.

    Examples
    --------
    >>> kind_of("cool/own-1f3a")
    'cool'
    """
    kind = check.partition("/")[0]
    if kind not in KIND_TITLES:
        raise OutOfRangeError("There is no such check.", field="/event/check")
    return cast(CheckKind, kind)


def line_of(limit: CheckLimit) -> Phrase:
    """A line in words.

    Parameters
    ----------
    limit : CheckLimit
        The line.

    Returns
    -------
    Phrase
        As in "at least 68.3 °C for 17 s".

    Examples
    --------
    >>> from vianda.core.checks.limits import limit_of
    >>> line_of(limit_of("cold", country="UK", setting="home")).text
    'at most {line}'
    """
    if limit.steps:
        steps = {f"to{n}": ph.temp(s.to_c) for n, s in enumerate(limit.steps)}
        steps |= {f"in{n}": lasting(s.within_s) for n, s in enumerate(limit.steps)}
        return say(", ".join(f"to {{to{n}}} within {{in{n}}}" for n in range(len(limit.steps))), **steps)
    if limit.most_c is not None:
        return say("at most {line}", line=ph.temp(limit.most_c))
    values = {"line": ph.temp(limit.least_c or 0.0)}
    text = "at least {line}"
    if limit.hold_s:
        values["hold"] = lasting(limit.hold_s)
        text += " for {hold}"
    if limit.within_s is not None:
        values["within"] = lasting(limit.within_s)
        text += " within {within}"
    return say(text, **values)


def sheet_of(
    due: Sequence[Due],
    events: Iterable[RunEvent],
    *,
    limit: Callable[[CheckKind, str], CheckLimit],
    ready_min: int,
    now_min: int | None,
    unit_system: UnitSystem = "metric",
) -> tuple[CheckRow, ...]:
    """Every check of an evening.

    Parameters
    ----------
    due : Sequence[Due]
        What the plan, or what happened, asks for.
    events : Iterable[RunEvent]
        All that was said of the evening.
    limit : Callable[[CheckKind, str], CheckLimit]
        The line for a kind and the task it is of ("" for none).
    ready_min : int
        The hour on the plate, minutes from midnight.
    now_min : int | None
        What time it is, minutes from the hour on the plate; None for the record of an evening that is over.
    unit_system : UnitSystem, default "metric"
        Readings and lines are compared as this screen shows them.

    Returns
    -------
    tuple[CheckRow, ...]
        By the time they are due, or were first measured. Readings of a check that the plan no longer asks for stay.

    Raises
    ------
    OutOfRangeError
        When a reading is of no kind of check.
    """
    said = list(events)
    back = taken_back_in(said)
    planned = {d.key: d for d in due}
    measured: dict[str, list[RunEvent]] = {}
    acted: dict[str, list[RunEvent]] = {}
    for event in said:
        if event.kind == "measured" and event.temp_c is not None:
            measured.setdefault(event.check, []).append(event)
        elif event.kind == "acted" and event.token not in back:
            acted.setdefault(event.check, []).append(event)
    keys = [*planned, *(k for k in {**measured, **acted} if k not in planned)]
    rows = []
    for key in keys:
        # Two devices may have been without a line: what counts is when it was measured.
        readings = sorted(measured.get(key, []), key=_at_s)
        counted = [e for e in readings if e.token not in back]
        actions = acted.get(key, [])
        if key not in planned and not counted and not actions:
            continue
        rows.append(_row(key, planned.get(key), readings, back, actions, limit, ready_min, now_min, unit_system))
    return tuple(sorted(rows, key=lambda r: (_when(r), r.key)))


def _at_s(event: RunEvent) -> float:
    return 60.0 * event.minute + (event.value or 0)


def _when(row: CheckRow) -> int:
    if row.due_min is not None:
        return row.due_min
    return row.readings[0].at_min if row.readings else 0


def _row(
    key: str,
    due: Due | None,
    readings: Sequence[RunEvent],
    back: set[str],
    actions: Sequence[RunEvent],
    limit: Callable[[CheckKind, str], CheckLimit],
    ready_min: int,
    now_min: int | None,
    unit_system: UnitSystem,
) -> CheckRow:
    kind = kind_of(key)
    # A check that left the plan still knows its task by its key.
    task = due.task if due else ("" if OWN in key else key.partition("/")[2].partition("/")[0])
    line = limit(kind, task)
    counted = [e for e in readings if e.token not in back]
    judged: Judged | None = None
    next_min: int | None = None
    if counted:
        first = _at_s(counted[0])
        judged = judge(
            line,
            [Reading(e.temp_c or 0.0, _at_s(e) - first) for e in counted],
            reheat=limit("reheat", task),
            unit_system=unit_system,
        )
        if judged.next_s is not None:
            # Rounded up: a minute too soon would have to be measured again.
            next_min = int(-(-(first + judged.next_s) // 60))
    state = _state(due, judged, counted, actions, now_min)
    return CheckRow(
        key=key,
        kind=kind,
        task=task,
        dish=due.dish if due else "",
        title=due.title if due else say(KIND_TITLES[kind]),
        what=next((e.remark for e in reversed(counted) if e.remark), ""),
        line=line_of(line),
        limit=line,
        due=clock_text(ready_min + due.at_min) if due else "",
        due_min=due.at_min if due else None,
        state=state,
        says=judged.says if judged else None,
        corrective=judged.corrective if judged and state == "missed" else None,
        next=clock_text(ready_min + next_min) if next_min is not None else "",
        next_min=next_min,
        readings=tuple(
            ReadingShown(e.token, e.temp_c or 0.0, clock_text(ready_min + e.minute), e.minute, e.who, e.token in back)
            for e in readings
        ),
        actions=tuple(ActionShown(e.token, e.remark, clock_text(ready_min + e.minute), e.who) for e in actions),
    )


def _state(
    due: Due | None,
    judged: Judged | None,
    counted: Sequence[RunEvent],
    actions: Sequence[RunEvent],
    now_min: int | None,
) -> CheckState:
    if judged is not None:
        if judged.verdict == "kept":
            return "kept"
        # What was done before the last reading was done about an earlier one.
        if any(_at_s(a) >= _at_s(counted[-1]) for a in actions):
            return "settled"
        if judged.verdict == "running":
            return "running" if now_min is not None else "unfinished"
        return "missed"
    if due is None or actions:
        return "settled"
    if now_min is None:
        return "not-measured"
    if now_min < due.at_min:
        return "coming"
    return "due" if now_min - due.at_min <= OVERDUE_MIN else "overdue"
