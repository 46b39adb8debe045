"""The changes a cook can make to a formula: typed, nudged, dragged, or offered by counsel.

An edit is data; ``apply_edit`` gives it its meaning. The browser sends edits and never computes a formula.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

Figure = Literal[
    "guests",
    "pieces_per_guest",
    "piece_mass",
    "batch_mass",
    "thickness",
    "salt",
    "surface_temp",
    "core_target",
    "share",
    "part_mass",
    "services_per_week",
]
ChoiceField = Literal["style", "portioning", "bun", "surface", "doneness", "salt_place", "school", "grind_tool", "keep"]


@dataclass(frozen=True, slots=True)
class TypeFigure:
    """What a cook typed into a figure. ``meat`` names the part for ``share`` and ``part_mass``."""

    figure: Figure
    text: str
    meat: str = ""
    kind: Literal["type"] = "type"


@dataclass(frozen=True, slots=True)
class NudgeFigure:
    """So many steps up (positive) or down; the step is the figure's own."""

    figure: Figure
    steps: int
    meat: str = ""
    kind: Literal["nudge"] = "nudge"


@dataclass(frozen=True, slots=True)
class SetFigure:
    """A value in the figure's base unit (g, mm, °C, fraction, count)."""

    figure: Figure
    value: float
    meat: str = ""
    kind: Literal["set"] = "set"


@dataclass(frozen=True, slots=True)
class MoveEdge:
    """The edge between part ``index`` and the next, moved to ``at_frac`` of the whole width."""

    index: int
    at_frac: float
    kind: Literal["move-edge"] = "move-edge"


@dataclass(frozen=True, slots=True)
class AddMeat:
    """A meat joins the blend with a fifth of it; the unlocked ones make room."""

    meat: str
    kind: Literal["add-meat"] = "add-meat"


@dataclass(frozen=True, slots=True)
class SwapMeat:
    """A part keeps its share and changes its meat."""

    meat: str
    to: str
    kind: Literal["swap-meat"] = "swap-meat"


@dataclass(frozen=True, slots=True)
class RemoveMeat:
    """A meat leaves; the unlocked ones take its share."""

    meat: str
    kind: Literal["remove-meat"] = "remove-meat"


@dataclass(frozen=True, slots=True)
class LockMeat:
    """Hold a share where it is, or let it go."""

    meat: str
    locked: bool
    kind: Literal["lock-meat"] = "lock-meat"


@dataclass(frozen=True, slots=True)
class PickLot:
    """Which delivery a part is taken from; "" for any."""

    meat: str
    lot: str
    kind: Literal["pick-lot"] = "pick-lot"


@dataclass(frozen=True, slots=True)
class LayOut:
    """A whole blend in place of this one: meats and shares 0–1 that sum to 1. Meats that stay keep lock and lot."""

    meats: tuple[str, ...]
    shares_frac: tuple[float, ...]
    kind: Literal["lay-out"] = "lay-out"


@dataclass(frozen=True, slots=True)
class Choose:
    """One of a list: style, how to divide, bun, surface, doneness, where the salt goes, school, grinding, keeping."""

    field: ChoiceField
    key: str
    kind: Literal["choose"] = "choose"


@dataclass(frozen=True, slots=True)
class Rename:
    """A new name for the formula."""

    name: str
    kind: Literal["rename"] = "rename"


@dataclass(frozen=True, slots=True)
class WriteRemark:
    """The cook's own remark on the formula."""

    text: str
    kind: Literal["write-remark"] = "write-remark"


Edit = (
    TypeFigure
    | NudgeFigure
    | SetFigure
    | MoveEdge
    | AddMeat
    | SwapMeat
    | RemoveMeat
    | LockMeat
    | PickLot
    | LayOut
    | Choose
    | Rename
    | WriteRemark
)
