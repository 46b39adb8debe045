"""The changes a cook can make to a formula: typed, nudged, dragged, or offered by counsel.

An edit is data; ``apply_edit`` gives it its meaning. The browser sends edits and never computes a formula.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from vianda.core.model.formula import HeatStage, Limit

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
    "guests_per_piece",
    "line",
    "line_temp",
    "group",
    "panade",
    "meat_temp",
    "soak",
    "chill",
    "work_time",
    "spare_pieces",
    "diameter",
    "cooked_diameter",
    "cooked_mass",
    "length",
    "width",
    "rim",
    "filling",
    "loss",
]
ChoiceField = Literal[
    "style",
    "portioning",
    "bun",
    "surface",
    "doneness",
    "salt_place",
    "school",
    "grind_tool",
    "keep",
    "mix_school",
    "work",
    "ware",
    "ends",
    "packing",
    "edges",
    "papers",
    "firmness",
    "remainder",
    "appetite",
    "method",
    "fat",
    "resting",
]


@dataclass(frozen=True, slots=True)
class TypeFigure:
    """What a cook typed into a figure.

    ``item`` names the meat for ``share`` and ``part_mass``, the ingredient for ``line`` and ``line_temp``, the group of
    the mix for ``group``. ``panade`` is parts of liquid (as milk) to one of crumb.
    """

    figure: Figure
    text: str
    item: str = ""
    kind: Literal["type"] = "type"


@dataclass(frozen=True, slots=True)
class NudgeFigure:
    """So many steps up (positive) or down; the step is the figure's own."""

    figure: Figure
    steps: int
    item: str = ""
    kind: Literal["nudge"] = "nudge"


@dataclass(frozen=True, slots=True)
class SetFigure:
    """A value in the figure's base unit (g, mm, °C, fraction, count)."""

    figure: Figure
    value: float
    item: str = ""
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
    """One of a list: style, how to divide and who gets the rest, bread, what shapes it and how, surface, doneness,
    where the salt goes, school of blending or of mixing, grinding, keeping, how the mix is worked."""

    field: ChoiceField
    key: str
    kind: Literal["choose"] = "choose"


@dataclass(frozen=True, slots=True)
class AddToMix:
    """What goes in, as said: ``1/3 cup panko, 2 large eggs + 1 yolk``. More of what is in already is added to it."""

    text: str
    kind: Literal["add-to-mix"] = "add-to-mix"


@dataclass(frozen=True, slots=True)
class PutIn:
    """An ingredient by mass of the meat (0–5), in place of what is in of it."""

    ingredient: str
    per_meat_frac: float
    kind: Literal["put-in"] = "put-in"


@dataclass(frozen=True, slots=True)
class TakeOut:
    """An ingredient leaves the mix."""

    ingredient: str
    kind: Literal["take-out"] = "take-out"


@dataclass(frozen=True, slots=True)
class SwapIngredient:
    """One ingredient for another at equal effect: crumb by dry matter and as wet a panade, liquid by its water."""

    ingredient: str
    to: str
    kind: Literal["swap-ingredient"] = "swap-ingredient"


@dataclass(frozen=True, slots=True)
class HoldLine:
    """Hold a line when the school changes or its group is moved, or let it go."""

    ingredient: str
    locked: bool
    kind: Literal["hold-line"] = "hold-line"


@dataclass(frozen=True, slots=True)
class CountLine:
    """Take whole pieces of it (eggs stay whole), or weigh it."""

    ingredient: str
    counted: bool
    kind: Literal["count-line"] = "count-line"


@dataclass(frozen=True, slots=True)
class KeepLimit:
    """Keep a limit such as "no dairy", or drop it."""

    limit: Limit
    on: bool
    kind: Literal["keep-limit"] = "keep-limit"


@dataclass(frozen=True, slots=True)
class BowlReading:
    """What the scale showed, as typed, after ``what`` went in: "meat", "salt" or an ingredient."""

    what: str
    shown: str


@dataclass(frozen=True, slots=True)
class WeighBowl:
    """By eye: the empty bowl, then the scale after each thing went in; the differences say what is in it."""

    bowl: str
    readings: tuple[BowlReading, ...]
    kind: Literal["weigh-bowl"] = "weigh-bowl"


@dataclass(frozen=True, slots=True)
class SetStages:
    """The stages of the heat, composed by hand; none goes back to the way chosen."""

    stages: tuple[HeatStage, ...]
    kind: Literal["set-stages"] = "set-stages"


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
    | AddToMix
    | PutIn
    | TakeOut
    | SwapIngredient
    | HoldLine
    | CountLine
    | KeepLimit
    | WeighBowl
    | SetStages
    | Rename
    | WriteRemark
)
