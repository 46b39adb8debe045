"""The factors that a kitchen's forecasts are made with, and how one that was learnt is put to use."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace
from typing import cast

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.equipment.pot_rate import PotRate
from vianda.core.equipment.style_factor import LEAST_FACTOR, MOST_FACTOR, StyleFactor
from vianda.core.equipment.task_pace import TASK_KINDS, TaskKind, TaskPace
from vianda.core.learning.figures import FIGURES, LearntFigure, Level

# A pot by how hard it cooks and its inner width, mm; the one bowl of a kitchen.
POT, BOWL = re.compile(r"(gentle|simmer|rolling)-\d{2,4}"), "bowl"


@dataclass(frozen=True, slots=True)
class FactorsInUse:
    """What one cook's forecasts were multiplied with: its loss, its shrink, the heat of its surface."""

    loss: float = 1.0
    shrink: float = 1.0
    heat: float = 1.0


def factors_in_use(kitchen: Kitchen, *, style: str, surface: str) -> FactorsInUse:
    """The factors that a kitchen forecasts a style on a surface with.

    Parameters
    ----------
    kitchen : Kitchen
        The equipment as it really behaves.
    style, surface : str
        Their keys.

    Returns
    -------
    FactorsInUse
        Each above 0; 1 where nothing was learnt.

    Raises
    ------
    UnknownItemError
        This kitchen has no such surface.
    """
    on = kitchen.surface(surface)
    return FactorsInUse(
        on.loss_factor * kitchen.style_factor("loss", style),
        kitchen.style_factor("shrink", style),
        on.heating.heat_factor,
    )


def all_in_use(kitchen: Kitchen) -> dict[tuple[LearntFigure, Level, str], float]:
    """Every factor of a kitchen, by figure, level and key.

    Parameters
    ----------
    kitchen : Kitchen
        The equipment as it really behaves.

    Returns
    -------
    dict[tuple[LearntFigure, Level, str], float]
        Styles and tasks that nothing was learnt of are not in it.
    """
    found: dict[tuple[LearntFigure, Level, str], float] = {}
    for surface in kitchen.surfaces:
        found["loss", "surface", surface.key] = surface.loss_factor
        found["heat", "surface", surface.key] = surface.heating.heat_factor
    for pace in kitchen.paces:
        found["minutes", "task", pace.task] = pace.factor
    for pot in kitchen.pots:
        found["evaporation", "pot", pot.pot] = pot.factor
    found["bowl", "bowl", BOWL] = kitchen.bowl_factor
    for one in kitchen.learnt:
        found.setdefault((one.figure, "style", one.style), one.factor)
    return found


def with_factor(kitchen: Kitchen, *, figure: LearntFigure, level: Level, key: str, factor: float) -> Kitchen:
    """The kitchen with one factor put to use; a factor of 1 is what the tables say.

    Parameters
    ----------
    kitchen : Kitchen
        The equipment.
    figure : LearntFigure
        What is multiplied.
    level : Level
        Of a style, of a surface or of a kind of task.
    key : str
        Which one.
    factor : float
        About 1, 0.5 to 2.

    Returns
    -------
    Kitchen
        Its forecasts follow from now on; what was cooked before keeps its own.

    Raises
    ------
    OutOfRangeError
        A factor below 0.5 or above 2, a figure that is not learnt of such a thing, or no such kind of task.
    UnknownItemError
        This kitchen has no such surface.
    """
    if not LEAST_FACTOR <= factor <= MOST_FACTOR:
        raise OutOfRangeError(f"A factor is {LEAST_FACTOR:g} to {MOST_FACTOR:g}.", field="/factor")
    if level not in FIGURES[figure].adopt:
        raise OutOfRangeError(f"That is not learnt of a {level}.", field="/level")
    if figure == "minutes":
        if key not in TASK_KINDS:
            raise OutOfRangeError("There is no such kind of task.", field="/key")
        rest = tuple(p for p in kitchen.paces if p.task != key)
        new = () if factor == 1.0 else (TaskPace(cast(TaskKind, key), factor),)
        return replace(kitchen, paces=(*rest, *new))
    if figure == "evaporation":
        if POT.fullmatch(key) is None:
            raise OutOfRangeError("There is no such pot.", field="/key")
        others_p = tuple(p for p in kitchen.pots if p.pot != key)
        mine_p = () if factor == 1.0 else (PotRate(key, factor),)
        return replace(kitchen, pots=(*others_p, *mine_p))
    if figure == "bowl":
        return replace(kitchen, bowl_factor=factor)
    if level == "surface":
        on = kitchen.surface(key, field="/key")
        moved = (
            replace(on, loss_factor=factor)
            if figure == "loss"
            else replace(on, heating=replace(on.heating, heat_factor=factor))
        )
        return replace(kitchen, surfaces=tuple(moved if s.key == key else s for s in kitchen.surfaces))
    if figure == "heat":
        raise OutOfRangeError("That is not learnt of a style.", field="/level")
    others = tuple(f for f in kitchen.learnt if (f.figure, f.style) != (figure, key))
    mine = () if factor == 1.0 else (StyleFactor(figure, key, factor),)
    return replace(kitchen, learnt=(*others, *mine))
