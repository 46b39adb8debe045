"""The sheet on which the tasks of a dish are noted, with what must lie between them and what they take."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any, Literal

from vianda.core.basis.band import Band
from vianda.core.basis.phrase import Phrase
from vianda.core.equipment.heating import LASTS_MIN
from vianda.core.equipment.kitchen import Surface
from vianda.core.equipment.task_pace import TaskKind
from vianda.core.pipeline.figures import Figures
from vianda.core.schedule.model import Lag, Resource, Task, When
from vianda.core.timetable import practice as pr
from vianda.core.timetable.fire_tasks import SharedFire

HOB, GRINDER, LAST = "hob", "grinder", "serve"


@dataclass(frozen=True, slots=True)
class Dish:
    """One dish of a timetable: what its tasks' keys begin with, its name, and its figures.

    Both are empty for a formula on its own.
    """

    prefix: str
    name: str
    figures: Figures


@dataclass
class Sheet:
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
        """Note a task.

        Parameters
        ----------
        key : str
            Its key within the dish.
        title : Phrase
            What is done.
        takes : Band
            Minutes as usual practice has them; the kitchen's own pace is applied.
        hands : bool, default True
            Whether it takes a cook.
        needs : tuple[str, ...], default ()
            The places it takes.
        oven_c : float | None, default None
            Temperature of the oven that it shares, °C.
        ahead : bool, default False
            Whether it is done on a day before.
        own : bool, default False
            Whether the cook wrote it.
        kind : TaskKind | Literal[''], default ""
            What its pace is learnt by; empty: nothing is.

        Returns
        -------
        str
            The key.
        """
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
        """Note what must lie between two tasks; a task that is not there binds nothing.

        Parameters
        ----------
        before, after : str
            Keys within the dish; empty: that task is not there.
        least : float, default 0
            Fewest minutes between the end of the first and the start of the second.
        most : int | None, default None
            Most minutes; None: as long as one likes.
        **marks : Any
            ``hot`` or ``cold``: what waiting does to it.
        """
        if before and after:
            least_min = math.ceil(least - 1e-9)
            self.lags.append(Lag(self.key_of(before), self.key_of(after), least_min, most, **marks))

    def after(self, ready: str, task: str, most: int | None) -> None:
        """Note that a task begins at most so long after one of any dish.

        Parameters
        ----------
        ready : str
            The earlier one, by its key in the whole timetable.
        task : str
            The later one, by its key within this dish.
        most : int | None
            Most minutes between them; None: as long as one likes.
        """
        self.lags.append(Lag(ready, self.key_of(task), 0, most))

    def key_of(self, key: str) -> str:
        """The key in the whole timetable; serving is one for all.

        Parameters
        ----------
        key : str
            The key within the dish.

        Returns
        -------
        str
            With the dish before it.
        """
        return key if key == LAST else self.prefix + key

    def _place(self, key: str) -> Resource:
        if key == HOB:
            return Resource(HOB, "Hob", pr.HOB_PLACES)
        if key == GRINDER:
            return Resource(GRINDER, self.figures.meat.grind.tool_name or "Grinder")
        surface = self.figures.context.kitchen.surface(key)
        return Resource(
            key, surface.name, pr.OVEN_SHELVES if surface.kind == "oven" else 1, lasts_min=minutes_at_best(surface)
        )


def minutes_at_best(surface: Surface) -> int | None:
    """Minutes for which a surface's fire is at its best.

    Parameters
    ----------
    surface : Surface
        Any surface of the kitchen.

    Returns
    -------
    int | None
        Minutes; None for what does not burn down.
    """
    if surface.kind != "grate" or surface.heating.fuel == "gas":
        return None
    return int(surface.heating.lasts_min or LASTS_MIN[surface.heating.fuel])


def pan_of(sheet: Sheet) -> Surface:
    """The pan that stands beside what the meat is cooked on.

    Parameters
    ----------
    sheet : Sheet
        The dish's sheet.

    Returns
    -------
    Surface
        The kitchen's pan; where it has none, the surface of the meat.
    """
    context = sheet.figures.context
    return context.kitchen.surface_of_kind("pan") or context.surface
