"""What a kitchen's own cooks have taught it of a style: factors that multiply what the tables say."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import Ge, Le

from vianda.core.basis.bounds import Key

StyleFigure = Literal["loss", "shrink"]
# No factor that was learnt is used beyond these: what lies further is not chance but something else. Ours.
LEAST_FACTOR, MOST_FACTOR = 0.5, 2.0


@dataclass(frozen=True, slots=True)
class StyleFactor:
    """A factor on the mass lost, or on the share of the diameter lost, of one style in this kitchen; 0.5 to 2."""

    figure: StyleFigure
    style: Key
    factor: Annotated[float, Ge(LEAST_FACTOR), Le(MOST_FACTOR)]
