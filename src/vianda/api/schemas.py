"""What the wire carries besides formulas: edits, requests and answers."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, PlainSerializer, TypeAdapter

from vianda.core import edit as core
from vianda.core.blend import BlendFigures
from vianda.core.evaluate import Evaluation, TicketFigure
from vianda.core.heat.plan import HeatPlan
from vianda.core.opening import Opening
from vianda.core.outcome import OutcomeFigures
from vianda.core.phrase import Phrase
from vianda.core.portions import Portions
from vianda.core.salt import SaltFigures
from vianda.core.schools import School
from vianda.core.shape import ShapeFigures
from vianda.core.stove_plan import StovePlan
from vianda.core.style_preview import StylePreview
from vianda.interchange.formula_model import FormulaModel, Key, LotKey, Share, Strict
from vianda.interchange.store_models import KitchenModel, LotModel, MeatModel
from vianda.services.cooks import figures_of
from vianda.storage.kitchen_repository import StoredKitchen
from vianda.storage.records import StoredCook, StoredFormula, StoredVersion

Units = Literal["metric", "us"]
Text = Annotated[str, Field(max_length=200)]
MeatOrNone = Annotated[str, Field(max_length=64)]
# The database keeps naive UTC; on the wire the zone is written out.
Moment = Annotated[datetime, PlainSerializer(lambda t: t.isoformat(timespec="milliseconds") + "Z", return_type=str)]


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


class EvaluateRequest(Strict):
    """A formula, edits to apply to it in order, and the units on the screen."""

    formula: FormulaModel
    edits: Annotated[list[EditModel], Field(max_length=100, default_factory=list)]
    unit_system: Units | None = None


class OpeningRequest(Strict):
    """One line, such as "700 g unknown mince, iron pan, four people"."""

    line: Annotated[str, Field(max_length=2000)]
    unit_system: Units | None = None


class ReadRequest(Strict):
    """Typed text to be read as a quantity, outside a formula."""

    kind: Literal["mass_g", "length_mm", "temp_c", "frac"]
    text: Text
    unit_system: Units


class ReadAnswer(BaseModel):
    """The quantity in its base unit."""

    value: float


class SaveRequest(Strict):
    """A formula and the revision it was opened at."""

    formula: FormulaModel
    revision: Annotated[int, Field(ge=1)]


class CreateRequest(Strict):
    """A formula to add."""

    formula: FormulaModel


class KeepRequest(Strict):
    """A name for the version to keep."""

    name: Text


class ImportRequest(Strict):
    """The content of a formula file, as it is."""

    file: Any


class KitchenRequest(Strict):
    """The kitchen and the revision it was opened at."""

    kitchen: KitchenModel
    revision: Annotated[int, Field(ge=1)]


class BeginRequest(Strict):
    """Which formula to cook."""

    formula_id: Annotated[int, Field(ge=1)]


class EventRequest(Strict):
    """Something that happened at the stove; ``token`` makes a repeat count once."""

    token: Annotated[str, Field(min_length=8, max_length=40, pattern=r"^[A-Za-z0-9-]+$")]
    kind: Literal["done", "extra", "probe", "back"]
    place: Annotated[int, Field(ge=0, le=100_000)]
    value: Annotated[float, Field(ge=-50, le=3600)] | None = None
    late_s: Annotated[float, Field(ge=0, le=86_400)] = 0.0


Score = Annotated[int, Field(ge=1, le=5)]


class OutcomeModel(Strict):
    """Weights, temperatures, scores 1–5 and what to change next time."""

    cooked_mass_g: Annotated[float, Field(gt=0, le=1_000_000)] | None = None
    cooked_diameter_mm: Annotated[float, Field(gt=0, le=1000)] | None = None
    core_c: Annotated[float, Field(ge=0, le=120)] | None = None
    crust: Score | None = None
    juice: Score | None = None
    bite: Score | None = None
    bind: Score | None = None
    grease: Score | None = None
    salt: Score | None = None
    note: Annotated[str, Field(max_length=4000)] = ""
    next_time: Annotated[str, Field(max_length=1000)] = ""


class FinishRequest(Strict):
    """The outcome and the revision of the cook seen."""

    outcome: OutcomeModel
    revision: Annotated[int, Field(ge=1)]


class Answer(BaseModel):
    """Base of what we send."""

    model_config = ConfigDict(arbitrary_types_allowed=False)


class OpeningAnswer(Answer):
    """A first formula with what was read, assumed, left unread, and asked."""

    opening: Opening
    evaluation: Evaluation


class FormulaAnswer(Answer):
    """A formula as it stands."""

    id: int
    revision: int
    updated_at: Moment
    formula: FormulaModel


class VersionAnswer(Answer):
    """A kept version."""

    number: int
    name: str
    created_at: Moment
    formula: FormulaModel


class ShelfItem(Answer):
    """A formula on the shelf, in one line. ``strips``: share and fat of each meat (0–1)."""

    id: int
    name: str
    updated_at: Moment
    style: str
    lean_to_fat: Phrase
    pieces: Phrase
    strips: list[tuple[float, float]]


class ImportAnswer(Answer):
    """What an import did."""

    stored: FormulaAnswer
    meats_added: list[str]
    meats_differing: list[str]
    replaced: list[str]


class KitchenAnswer(Answer):
    """The kitchen and its revision."""

    revision: int
    kitchen: KitchenModel


class CatalogueAnswer(Answer):
    """What a cook can choose from: styles, meats and lots (retired and closed ones too, marked), schools."""

    styles: list[StylePreview]
    meats: list[MeatModel]
    lots: list[LotModel]
    schools: list[School]


class EventAnswer(Answer):
    """Something that happened; ``since_start_s`` is told by the server's clock."""

    token: str
    kind: str
    place: int
    value: float | None
    since_start_s: float


PLAN_PARTS = ("ticket", "portions", "shape", "heat", "stove", "salt", "blend")
_PLAN = TypeAdapter(Evaluation)


def plan_of(evaluation: Evaluation) -> dict[str, Any]:
    """The part of an evaluation that a cook keeps."""
    whole: dict[str, Any] = _PLAN.dump_python(evaluation, mode="json")
    return {name: whole[name] for name in PLAN_PARTS}


class KeptPlan(Answer):
    """The figures a cook began with; shapes as in the evaluation."""

    ticket: list[TicketFigure]
    portions: Portions
    shape: ShapeFigures
    heat: HeatPlan
    stove: StovePlan
    salt: SaltFigures
    blend: BlendFigures


class CookAnswer(Answer):
    """One cook. ``elapsed_s`` is how long ago it began, by the server's clock."""

    id: int
    formula_id: int
    formula_name: str
    revision: int
    started_at: Moment
    finished_at: Moment | None
    elapsed_s: float
    plan: KeptPlan
    outcome: OutcomeModel | None
    outcome_figures: OutcomeFigures | None
    events: list[EventAnswer]


class CookLine(Answer):
    """One line of the logbook."""

    id: int
    formula_id: int
    formula_name: str
    started_at: Moment
    finished_at: Moment | None
    pieces: int
    piece_mass_g: int
    batch_mass_g: int
    fat_frac: float
    outcome: OutcomeModel | None


def formula_answer(stored: StoredFormula) -> FormulaAnswer:
    """A stored formula for the wire."""
    return FormulaAnswer(
        id=stored.id,
        revision=stored.revision,
        updated_at=stored.updated_at,
        formula=FormulaModel.from_core(stored.formula),
    )


def version_answer(stored: StoredVersion) -> VersionAnswer:
    """A kept version for the wire."""
    return VersionAnswer(
        number=stored.number,
        name=stored.name,
        created_at=stored.created_at,
        formula=FormulaModel.from_core(stored.formula),
    )


def kitchen_answer(stored: StoredKitchen) -> KitchenAnswer:
    """The kitchen for the wire."""
    return KitchenAnswer(revision=stored.revision, kitchen=KitchenModel.from_core(stored.kitchen))


def cook_answer(cook: StoredCook, now: datetime) -> CookAnswer:
    """One cook for the wire. A clock set back gives nought, never a negative time."""
    return CookAnswer(
        id=cook.id,
        formula_id=cook.formula_id,
        formula_name=cook.formula_name,
        revision=cook.revision,
        started_at=cook.started_at,
        finished_at=cook.finished_at,
        elapsed_s=max(0.0, (now - cook.started_at).total_seconds()),
        plan=KeptPlan.model_validate(cook.plan),
        outcome=OutcomeModel.model_validate(cook.outcome) if cook.outcome else None,
        outcome_figures=figures_of(cook, cook.outcome),
        events=[
            EventAnswer(
                token=e.token,
                kind=e.kind,
                place=e.place,
                value=e.value,
                since_start_s=max(0.0, (e.at - cook.started_at).total_seconds()),
            )
            for e in cook.events
        ],
    )


def cook_line(cook: StoredCook) -> CookLine:
    """One line of the logbook."""
    portions = cook.plan["portions"]
    return CookLine(
        id=cook.id,
        formula_id=cook.formula_id,
        formula_name=cook.formula_name,
        started_at=cook.started_at,
        finished_at=cook.finished_at,
        pieces=portions["pieces"],
        piece_mass_g=portions["piece_mass_g"],
        batch_mass_g=portions["batch_mass_g"],
        fat_frac=cook.plan["blend"]["fat_frac"],
        outcome=OutcomeModel.model_validate(cook.outcome) if cook.outcome else None,
    )
