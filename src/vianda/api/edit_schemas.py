"""The edits a cook can make, as they come over the wire."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field

from vianda.api.wire import Text
from vianda.core.model import edit as core
from vianda.core.model.formula import MOST_STAGES, HeatStage, Limit
from vianda.interchange.formula_model import Key, LotKey, Share, StageModel, Strict

ItemOrNone = Annotated[str, Field(max_length=64)]


class TypeEdit(Strict):
    kind: Literal["type"]
    figure: core.Figure
    text: Text
    item: ItemOrNone = ""


class NudgeEdit(Strict):
    kind: Literal["nudge"]
    figure: core.Figure
    steps: Annotated[int, Field(ge=-100, le=100)]
    item: ItemOrNone = ""


class SetEdit(Strict):
    kind: Literal["set"]
    figure: core.Figure
    value: float
    item: ItemOrNone = ""


class EdgeEdit(Strict):
    kind: Literal["move-edge"]
    index: Annotated[int, Field(ge=0, le=16)]
    at_frac: float


class AddMeatEdit(Strict):
    kind: Literal["add-meat"]
    meat: Key


class SwapMeatEdit(Strict):
    kind: Literal["swap-meat"]
    meat: Key
    to: Key


class RemoveMeatEdit(Strict):
    kind: Literal["remove-meat"]
    meat: Key


class LockMeatEdit(Strict):
    kind: Literal["lock-meat"]
    meat: Key
    locked: bool


class PickLotEdit(Strict):
    kind: Literal["pick-lot"]
    meat: Key
    lot: LotKey


class LayOutEdit(Strict):
    kind: Literal["lay-out"]
    meats: Annotated[list[Key], Field(min_length=1, max_length=8)]
    shares_frac: Annotated[list[Share], Field(min_length=1, max_length=8)]


class ChooseEdit(Strict):
    kind: Literal["choose"]
    field: core.ChoiceField
    key: Annotated[str, Field(max_length=64)]


class AddToMixEdit(Strict):
    kind: Literal["add-to-mix"]
    text: Annotated[str, Field(max_length=400)]


class PutInEdit(Strict):
    kind: Literal["put-in"]
    ingredient: Key
    per_meat_frac: Annotated[float, Field(ge=0, le=5)]


class TakeOutEdit(Strict):
    kind: Literal["take-out"]
    ingredient: Key


class SwapIngredientEdit(Strict):
    kind: Literal["swap-ingredient"]
    ingredient: Key
    to: LotKey


class HoldLineEdit(Strict):
    kind: Literal["hold-line"]
    ingredient: Key
    locked: bool


class CountLineEdit(Strict):
    kind: Literal["count-line"]
    ingredient: Key
    counted: bool


class KeepLimitEdit(Strict):
    kind: Literal["keep-limit"]
    limit: Limit
    on: bool


class BowlReadingModel(Strict):
    what: Key
    shown: Text


class WeighBowlEdit(Strict):
    kind: Literal["weigh-bowl"]
    bowl: Text
    readings: Annotated[list[BowlReadingModel], Field(min_length=1, max_length=30)]


class SetStagesEdit(Strict):
    kind: Literal["set-stages"]
    stages: Annotated[list[StageModel], Field(max_length=MOST_STAGES)]


class RenameEdit(Strict):
    kind: Literal["rename"]
    name: Text


class RemarkEdit(Strict):
    kind: Literal["write-remark"]
    text: Annotated[str, Field(max_length=4000)]


EditModel = Annotated[
    TypeEdit
    | NudgeEdit
    | SetEdit
    | EdgeEdit
    | AddMeatEdit
    | SwapMeatEdit
    | RemoveMeatEdit
    | LockMeatEdit
    | PickLotEdit
    | LayOutEdit
    | ChooseEdit
    | AddToMixEdit
    | PutInEdit
    | TakeOutEdit
    | SwapIngredientEdit
    | HoldLineEdit
    | CountLineEdit
    | KeepLimitEdit
    | WeighBowlEdit
    | SetStagesEdit
    | RenameEdit
    | RemarkEdit,
    Field(discriminator="kind"),
]

_EDITS: dict[str, type[core.Edit]] = {
    "type": core.TypeFigure,
    "nudge": core.NudgeFigure,
    "set": core.SetFigure,
    "move-edge": core.MoveEdge,
    "add-meat": core.AddMeat,
    "swap-meat": core.SwapMeat,
    "remove-meat": core.RemoveMeat,
    "lock-meat": core.LockMeat,
    "pick-lot": core.PickLot,
    "lay-out": core.LayOut,
    "choose": core.Choose,
    "add-to-mix": core.AddToMix,
    "put-in": core.PutIn,
    "take-out": core.TakeOut,
    "swap-ingredient": core.SwapIngredient,
    "hold-line": core.HoldLine,
    "count-line": core.CountLine,
    "keep-limit": core.KeepLimit,
    "weigh-bowl": core.WeighBowl,
    "set-stages": core.SetStages,
    "rename": core.Rename,
    "write-remark": core.WriteRemark,
}


def edit_to_core(model: Strict) -> core.Edit:
    """The core's edit of a validated one."""
    values: dict[str, Any] = {name: tuple(v) if isinstance(v, list) else v for name, v in model.model_dump().items()}
    if values["kind"] == "weigh-bowl":
        values["readings"] = tuple(core.BowlReading(**r) for r in values["readings"])
    if values["kind"] == "set-stages":
        values["stages"] = tuple(HeatStage(**s) for s in values["stages"])
    return _EDITS[values["kind"]](**values)
