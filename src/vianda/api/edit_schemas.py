"""The edits a cook can make, as they come over the wire."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field

from vianda.api.wire import Text
from vianda.core import edit as core
from vianda.interchange.formula_model import Key, LotKey, Share, Strict

MeatOrNone = Annotated[str, Field(max_length=64)]


class TypeEdit(Strict):
    kind: Literal["type"]
    figure: core.Figure
    text: Text
    meat: MeatOrNone = ""


class NudgeEdit(Strict):
    kind: Literal["nudge"]
    figure: core.Figure
    steps: Annotated[int, Field(ge=-100, le=100)]
    meat: MeatOrNone = ""


class SetEdit(Strict):
    kind: Literal["set"]
    figure: core.Figure
    value: float
    meat: MeatOrNone = ""


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
    "rename": core.Rename,
    "write-remark": core.WriteRemark,
}


def edit_to_core(model: Strict) -> core.Edit:
    """The core's edit of a validated one."""
    values: dict[str, Any] = {name: tuple(v) if isinstance(v, list) else v for name, v in model.model_dump().items()}
    return _EDITS[values["kind"]](**values)
