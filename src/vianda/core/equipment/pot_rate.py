"""How fast water leaves this kitchen's pots, beside what is computed."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from annotated_types import Ge, Le

from vianda.core.basis.bounds import Key
from vianda.core.equipment.style_factor import LEAST_FACTOR, MOST_FACTOR


@dataclass(frozen=True, slots=True)
class PotRate:
    """What the computed rate of one pot at one boil is multiplied with, 0.5 to 2.

    ``pot`` is its key: how hard it cooks and its inner width to the centimetre, such as "simmer-240".
    """

    pot: Key
    factor: Annotated[float, Ge(LEAST_FACTOR), Le(MOST_FACTOR)]
