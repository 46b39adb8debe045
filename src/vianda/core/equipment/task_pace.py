"""How fast a kitchen's own hands are at a kind of task, beside what is usual."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated, Literal, get_args

from annotated_types import Ge, Le

from vianda.core.equipment.style_factor import LEAST_FACTOR, MOST_FACTOR

TaskKind = Literal["cut-cubes", "grind", "panade", "mix", "shape", "cut", "sauce", "build", "plate", "set-fire"]
# Tasks that a cook stands at all the time, and that come again from evening to evening.
TASK_KINDS: Mapping[TaskKind, str] = {
    "cut-cubes": "Cutting meat into cubes",
    "grind": "Grinding",
    "panade": "Stirring a panade",
    "mix": "Weighing out and mixing",
    "shape": "Shaping",
    "cut": "Cutting for the build",
    "sauce": "Making a house sauce",
    "build": "Building",
    "plate": "Slicing and plating",
    "set-fire": "Setting a fire",
}
assert set(TASK_KINDS) == set(get_args(TaskKind))


@dataclass(frozen=True, slots=True)
class TaskPace:
    """What the usual minutes of one kind of task are multiplied with in this kitchen; 0.5 to 2."""

    task: TaskKind
    factor: Annotated[float, Ge(LEAST_FACTOR), Le(MOST_FACTOR)]
