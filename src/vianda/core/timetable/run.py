"""A service as it was cooked: what was said of its tasks, in the order in which it was said, and what follows.

Minutes are from the hour on the plate, as the clock of whoever said it had them.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from typing import Literal

RunEventKind = Literal["begin", "end", "longer", "restart", "take-back", "measured", "acted"]


@dataclass(frozen=True, slots=True)
class RunEvent:
    """Something that was said of a task; ``token`` makes a repeat count once.

    ``begin``: it was begun at ``minute``. ``end``: it ended then; ``value`` is how many minutes it takes where nobody
    said that it was begun. ``longer``: it goes on until minute ``value``. ``restart``: nothing said before counts.
    ``take-back``: what was said under the token ``of`` does not count.
    ``measured``: ``temp_c`` (°C) was read for the check ``check``, at second ``value`` of the minute, by ``who``;
    ``remark`` says of what. ``acted``: what was done when that check was missed stands in ``remark``. A restart leaves
    both: what was measured was measured.
    """

    token: str
    kind: RunEventKind
    minute: int
    task: str = ""
    value: int | None = None
    of: str = ""
    check: str = ""
    temp_c: float | None = None
    who: str = ""
    remark: str = ""


@dataclass(frozen=True, slots=True)
class Mark:
    """What stands of a task: when it began, when it ended (None: under way), until when it still takes as was said."""

    task: str
    begun_min: int
    ended_min: int | None = None
    until_min: int | None = None


def taken_back_in(events: Sequence[RunEvent]) -> set[str]:
    """Tokens of what does not count; what was taken back takes nothing back itself.

    Parameters
    ----------
    events : Sequence[RunEvent]
        In the order in which they came.

    Returns
    -------
    set[str]
        The newest word stands: a taking back that was taken back later is as if it had never been said.

    Examples
    --------
    >>> back = RunEvent("b", "take-back", 0, of="a")
    >>> sorted(taken_back_in([back])), sorted(taken_back_in([back, RunEvent("c", "take-back", 0, of="b")]))
    (['a'], ['b'])
    """
    found: set[str] = set()
    for event in reversed(events):
        if event.kind == "take-back" and event.token not in found:
            found.add(event.of)
    return found


def marks_of(events: Iterable[RunEvent]) -> tuple[Mark, ...]:
    """What stands of each task after all that was said.

    Parameters
    ----------
    events : Iterable[RunEvent]
        In the order in which they came.

    Returns
    -------
    tuple[Mark, ...]
        One a task. What was said first of a beginning or an end stands; only a running task takes longer.

    Examples
    --------
    >>> marks_of([RunEvent("a", "begin", -40, "mix"), RunEvent("b", "end", -31, "mix", 10)])
    (Mark(task='mix', begun_min=-40, ended_min=-31, until_min=None),)
    """
    said = list(events)
    taken_back = taken_back_in(said)
    marks: dict[str, Mark] = {}
    for event in said:
        if event.token in taken_back:
            continue
        known = marks.get(event.task)
        if event.kind == "restart":
            marks.clear()
        elif event.kind == "begin" and known is None:
            marks[event.task] = Mark(event.task, event.minute)
        elif event.kind == "longer" and known is not None and known.ended_min is None:
            marks[event.task] = replace(known, until_min=event.value)
        elif event.kind == "end" and (known is None or known.ended_min is None):
            begun = event.minute - max(0, event.value or 0) if known is None else known.begun_min
            # What was said last comes last.
            marks.pop(event.task, None)
            marks[event.task] = Mark(event.task, min(begun, event.minute), event.minute)
    return tuple(marks.values())
