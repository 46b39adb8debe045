"""The changes a cook can make to a formula: typed, nudged, dragged, or offered by counsel.

An edit is data; ``apply_edit`` gives it its meaning. The browser sends edits and never computes a formula.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import Ge, Le, Len

from vianda.core.basis.bounds import Key, KeyOrEmpty, Share, ShortText
from vianda.core.model.formula import (
    MOST_LAYERS,
    MOST_MEATS,
    MOST_PER_MEAT,
    MOST_STAGES,
    HeatStage,
    Limit,
    Role,
    StackLayer,
)
from vianda.core.schedule.model import MOST_COOKS

Figure = Literal[
    "guests",
    "pieces_per_guest",
    "piece_mass",
    "batch_mass",
    "thickness",
    "salt",
    "surface_temp",
    "target_core_temp",
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
    "mould",
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
    "cheese",
    "glaze",
]


# What an edit is about: a key of a meat, an ingredient or a group, or a choice; "" for none.
Item = Annotated[str, Len(0, 64)]


@dataclass(frozen=True, slots=True)
class TypeFigure:
    """What a cook typed into a figure.

    ``item`` names the meat for ``share`` and ``part_mass``, the ingredient for ``line`` and ``line_temp``, the group of
    the mix for ``group``. ``panade`` is parts of liquid (as milk) to one of crumb.
    """

    figure: Figure
    text: ShortText
    item: Item = ""
    kind: Literal["type"] = "type"


@dataclass(frozen=True, slots=True)
class NudgeFigure:
    """So many steps up (positive) or down; the step is the figure's own."""

    figure: Figure
    steps: Annotated[int, Ge(-100), Le(100)]
    item: Item = ""
    kind: Literal["nudge"] = "nudge"


@dataclass(frozen=True, slots=True)
class SetFigure:
    """A value in the figure's base unit (g, mm, °C, fraction, count)."""

    figure: Figure
    value: float
    item: Item = ""
    kind: Literal["set"] = "set"


@dataclass(frozen=True, slots=True)
class MoveEdge:
    """The edge between part ``index`` and the next, moved to ``at_frac`` of the whole width."""

    index: Annotated[int, Ge(0), Le(16)]
    at_frac: float
    kind: Literal["move-edge"] = "move-edge"


@dataclass(frozen=True, slots=True)
class AddMeat:
    """A meat joins the blend with a fifth of it; the unlocked ones make room."""

    meat: Key
    kind: Literal["add-meat"] = "add-meat"


@dataclass(frozen=True, slots=True)
class SwapMeat:
    """A part keeps its share and changes its meat."""

    meat: Key
    to: Key
    kind: Literal["swap-meat"] = "swap-meat"


@dataclass(frozen=True, slots=True)
class RemoveMeat:
    """A meat leaves; the unlocked ones take its share."""

    meat: Key
    kind: Literal["remove-meat"] = "remove-meat"


@dataclass(frozen=True, slots=True)
class LockMeat:
    """Hold a share where it is, or let it go."""

    meat: Key
    locked: bool
    kind: Literal["lock-meat"] = "lock-meat"


@dataclass(frozen=True, slots=True)
class PickLot:
    """Which delivery a part is taken from; "" for any."""

    meat: Key
    lot: KeyOrEmpty
    kind: Literal["pick-lot"] = "pick-lot"


@dataclass(frozen=True, slots=True)
class LayOut:
    """A whole blend in place of this one: meats and shares 0–1 that sum to 1. Meats that stay keep lock and lot."""

    meats: Annotated[tuple[Key, ...], Len(1, MOST_MEATS)]
    shares_frac: Annotated[tuple[Share, ...], Len(1, MOST_MEATS)]
    kind: Literal["lay-out"] = "lay-out"


@dataclass(frozen=True, slots=True)
class Choose:
    """One of a list: style, how to divide and who gets the rest, bread, what shapes it and how, surface, doneness,
    where the salt goes, school of blending or of mixing, grinding, keeping, how the mix is worked."""

    field: ChoiceField
    key: Item
    kind: Literal["choose"] = "choose"


@dataclass(frozen=True, slots=True)
class AddToMix:
    """What goes in, as said: ``1/2 cup panko, 1 large egg + 3 yolks``. More of what is in already is added to it."""

    text: Annotated[str, Len(0, 400)]
    kind: Literal["add-to-mix"] = "add-to-mix"


@dataclass(frozen=True, slots=True)
class PutIn:
    """An ingredient by mass of the meat (0–5), in place of what is in of it."""

    ingredient: Key
    per_meat_frac: Annotated[float, Ge(0), Le(MOST_PER_MEAT)]
    kind: Literal["put-in"] = "put-in"


@dataclass(frozen=True, slots=True)
class TakeOut:
    """An ingredient leaves the mix."""

    ingredient: Key
    kind: Literal["take-out"] = "take-out"


@dataclass(frozen=True, slots=True)
class SwapIngredient:
    """One ingredient for another at equal effect: crumb by dry matter and as wet a panade, liquid by its water."""

    ingredient: Key
    to: KeyOrEmpty
    kind: Literal["swap-ingredient"] = "swap-ingredient"


@dataclass(frozen=True, slots=True)
class HoldLine:
    """Hold a line when the school changes or its group is moved, or let it go."""

    ingredient: Key
    locked: bool
    kind: Literal["hold-line"] = "hold-line"


@dataclass(frozen=True, slots=True)
class CountLine:
    """Take whole pieces of it (eggs stay whole), or weigh it."""

    ingredient: Key
    counted: bool
    kind: Literal["count-line"] = "count-line"


@dataclass(frozen=True, slots=True)
class KeepLimit:
    """Keep a limit such as "no dairy", or drop it."""

    limit: Limit
    on: bool
    kind: Literal["keep-limit"] = "keep-limit"


@dataclass(frozen=True, slots=True)
class KeepOut:
    """Keep a single ingredient or meat out, or let it back in."""

    thing: Key
    on: bool
    kind: Literal["keep-out"] = "keep-out"


@dataclass(frozen=True, slots=True)
class BowlReading:
    """What the scale showed, as typed, after ``what`` went in: "meat", "salt" or an ingredient."""

    what: Key
    shown: ShortText


@dataclass(frozen=True, slots=True)
class WeighBowl:
    """By eye: the empty bowl, then the scale after each thing went in; the differences say what is in it."""

    bowl: ShortText
    readings: Annotated[tuple[BowlReading, ...], Len(1, 30)]
    kind: Literal["weigh-bowl"] = "weigh-bowl"


@dataclass(frozen=True, slots=True)
class SetStages:
    """The stages of the heat, composed by hand; none goes back to the way chosen."""

    stages: Annotated[tuple[HeatStage, ...], Len(0, MOST_STAGES)]
    kind: Literal["set-stages"] = "set-stages"


@dataclass(frozen=True, slots=True)
class PutBeside:
    """Something to go with it, for a role, with the usual dose of that role; there already: its role changes."""

    role: Role
    ingredient: Key
    kind: Literal["put-beside"] = "put-beside"


@dataclass(frozen=True, slots=True)
class TakeBeside:
    """Take away what goes with it."""

    ingredient: Key
    kind: Literal["take-beside"] = "take-beside"


@dataclass(frozen=True, slots=True)
class TypeBeside:
    """A figure of what goes with it, as typed: grams a portion, how much is made, how many coats."""

    ingredient: Key
    what: Literal["dose", "made", "coats"]
    text: ShortText
    kind: Literal["type-beside"] = "type-beside"


@dataclass(frozen=True, slots=True)
class SetStack:
    """The layers of what is built, from below; none goes back to the usual build of the style."""

    layers: Annotated[tuple[StackLayer, ...], Len(0, MOST_LAYERS)]
    kind: Literal["set-stack"] = "set-stack"


@dataclass(frozen=True, slots=True)
class TypeTiming:
    """When it is on the plate, when work can begin ("" for whenever it has to), or how many cooks, as typed."""

    what: Literal["ready", "opens", "cooks"]
    text: ShortText
    kind: Literal["type-timing"] = "type-timing"


@dataclass(frozen=True, slots=True)
class AddTask:
    """An own task: its name and minutes as typed, whether a cook stands at it, what it takes, and whether eaten hot.

    ``oven`` is the heat wanted of an oven, as typed, "" for none.
    """

    title: ShortText
    text: ShortText
    hands: bool = True
    surface: KeyOrEmpty = ""
    oven: ShortText = ""
    hot: bool = False
    kind: Literal["add-task"] = "add-task"


@dataclass(frozen=True, slots=True)
class DropTask:
    """An own task is left out."""

    task: Key
    kind: Literal["drop-task"] = "drop-task"


@dataclass(frozen=True, slots=True)
class PinTask:
    """A task begins when the cook says, minutes from serving; None lets it go again. Without a task: all are let go."""

    task: KeyOrEmpty
    start_min: Annotated[int, Ge(-45 * 1440), Le(720)] | None
    kind: Literal["pin-task"] = "pin-task"


@dataclass(frozen=True, slots=True)
class Rename:
    """A new name for the formula."""

    name: ShortText
    kind: Literal["rename"] = "rename"


@dataclass(frozen=True, slots=True)
class WriteRemark:
    """The cook's own remark on the formula."""

    text: Annotated[str, Len(0, 4000)]
    kind: Literal["write-remark"] = "write-remark"


@dataclass(frozen=True, slots=True)
class AddAway:
    """A cook is away, from and to as typed; "" is from or to whenever: the whole day."""

    cook: Annotated[int, Ge(1), Le(MOST_COOKS)]
    from_text: ShortText
    to_text: ShortText
    kind: Literal["add-away"] = "add-away"


@dataclass(frozen=True, slots=True)
class DropAway:
    """A cook is there after all: all that was said of them."""

    cook: Annotated[int, Ge(1), Le(MOST_COOKS)]
    kind: Literal["drop-away"] = "drop-away"


TimingEdit = TypeTiming | AddTask | DropTask | PinTask | AddAway | DropAway

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
    | KeepOut
    | WeighBowl
    | SetStages
    | PutBeside
    | TakeBeside
    | TypeBeside
    | SetStack
    | TypeTiming
    | AddTask
    | DropTask
    | PinTask
    | AddAway
    | DropAway
    | Rename
    | WriteRemark
)
