"""What is to be put in time: tasks, what must lie between them, what they need; and what comes out.

Times are whole minutes from the moment of serving: −90 is an hour and a half before it.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal

from vianda.core.basis.errors import CoreError, OutOfRangeError
from vianda.core.basis.phrase import Phrase

# Days ahead is what a ferment takes at most; later than half a day nobody waits for dinner.
EARLIEST_MIN, LATEST_MIN = -45 * 1440, 720
MOST_TASKS, MOST_COOKS = 400, 20
When = Literal["ahead", "today"]
# An oven warms up at 10 K a minute and cools at 4: ours. Nearer than this one heat serves both.
WARMS_K_MIN, COOLS_K_MIN, SAME_OVEN_K = 10.0, 4.0, 10.0


class UnsettledError(CoreError):
    """Neither a plan was found in the time given, nor a proof that there is none."""

    code = "unsettled"
    title = "No plan was found in time"


def change_min(before_c: float, after_c: float) -> int:
    """Minutes an oven takes from one heat to the next.

    Parameters
    ----------
    before_c : float
        Heat of the oven now, °C.
    after_c : float
        Heat wanted, °C.

    Returns
    -------
    int
        Whole minutes; 0 where one heat serves both.

    Examples
    --------
    >>> change_min(160, 200), change_min(200, 160), change_min(175, 180)
    (4, 10, 0)
    """
    step = after_c - before_c
    if abs(step) < SAME_OVEN_K:
        return 0
    return math.ceil(step / WARMS_K_MIN if step > 0 else -step / COOLS_K_MIN)


@dataclass(frozen=True, slots=True)
class Task:
    """One thing to do: how long it takes (low and high are the tenth and ninetieth of a hundred), and what it needs.

    ``hands``: a cook stands at it all the time. ``needs`` are keys of resources, one place of each. ``oven_c`` is the
    heat an oven must have, None without one. ``when`` "ahead" may lie days before; the hour the kitchen opens does not
    bind it. ``own``: the cook's own. ``dish`` is whose it is, "" where there is one only. ``kind`` is what its minutes
    are learnt by, "" for what is not; they are multiplied with ``pace`` already.
    """

    key: str
    title: Phrase
    low_min: float
    usual_min: float
    high_min: float
    hands: bool = False
    needs: tuple[str, ...] = ()
    oven_c: float | None = None
    when: When = "today"
    own: bool = False
    dish: str = ""
    kind: str = ""
    pace: float = 1.0


@dataclass(frozen=True, slots=True)
class Lag:
    """Minutes between the end of one task and the start of another: at least, and at most where that is a limit.

    ``hot``: food waits hot in it. ``cold``: it waits cold, where a cushion costs nothing. ``why`` says what binds.
    """

    before: str
    after: str
    least_min: int = 0
    most_min: int | None = None
    hot: bool = False
    cold: bool = False
    why: Phrase | None = None


@dataclass(frozen=True, slots=True)
class Resource:
    """What can hold so many tasks at once.

    ``lasts_min``: a fire is past its best so many minutes after it is ready; None where nothing burns down.
    """

    key: str
    title: str
    places: int = 1
    lasts_min: int | None = None


@dataclass(frozen=True, slots=True)
class Absence:
    """A cook, from 0, who is not there from one minute to another."""

    cook: int
    from_min: int
    to_min: int


@dataclass(frozen=True, slots=True)
class Problem:
    """Everything that is to be put in time.

    ``last`` ends when it is served. ``opens_min``: nothing of today begins earlier. ``pinned`` tasks start when said.
    ``earliest`` and ``latest`` bound starts. Whoever is ``away`` does nothing meanwhile. With ``near`` given, starts
    stay there where they can, and limits of waiting may be overrun as little as possible: food that stands too long is
    eaten all the same.
    """

    tasks: tuple[Task, ...]
    lags: tuple[Lag, ...]
    resources: tuple[Resource, ...]
    last: str
    cooks: int = 1
    opens_min: int | None = None
    pinned: Mapping[str, int] = field(default_factory=dict)
    earliest: Mapping[str, int] = field(default_factory=dict)
    latest: Mapping[str, int] = field(default_factory=dict)
    near: Mapping[str, int] | None = None
    away: tuple[Absence, ...] = ()

    def __post_init__(self) -> None:
        keys = [t.key for t in self.tasks]
        known = set(keys)
        if len(known) != len(keys):
            raise OutOfRangeError("Two tasks have one key.", field="/tasks")
        if len(keys) > MOST_TASKS:
            raise OutOfRangeError(f"At most {MOST_TASKS} tasks go into one timetable.", field="/tasks")
        if not 1 <= self.cooks <= MOST_COOKS:
            raise OutOfRangeError(f"1 to {MOST_COOKS} cooks stand in a kitchen.", field="/cooks")
        if any(not 0 <= a.cook < self.cooks or a.to_min <= a.from_min for a in self.away):
            raise OutOfRangeError("Somebody is away who is not there, or for no time.", field="/away")
        places = {r.key for r in self.resources}
        bounded = (*self.pinned, *self.earliest, *self.latest, *(self.near or ()))
        named = {self.last, *bounded, *(x for lag in self.lags for x in (lag.before, lag.after))}
        if not named <= known or any(not set(t.needs) <= places for t in self.tasks):
            raise OutOfRangeError("A task or a place is named that is not there.", field="/tasks")

    def task(self, key: str) -> Task:
        """One task.

        Parameters
        ----------
        key : str
            Its key.

        Returns
        -------
        Task
            The task.
        """
        return next(t for t in self.tasks if t.key == key)


@dataclass(frozen=True, slots=True)
class Slot:
    """When a task is done, minutes from serving, which cook stands at it (None where nobody has to), and its places.

    ``places`` are pairs of a resource's key and which of its places, from 0.
    """

    task: str
    start_min: int
    end_min: int
    cook: int | None
    places: tuple[tuple[str, int], ...]


@dataclass(frozen=True, slots=True)
class Plan:
    """Every task in time. ``late_min`` is how long after the moment wanted it is served."""

    slots: tuple[Slot, ...]
    late_min: int
    proved: bool

    def slot(self, key: str) -> Slot:
        """One task's slot.

        Parameters
        ----------
        key : str
            Key of the task.

        Returns
        -------
        Slot
            When it is done.
        """
        return next(s for s in self.slots if s.task == key)
