"""What the wire carries besides formulas: requests and answers."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import BaseModel, Field

from vianda.api.pantry_schemas import PantryItem
from vianda.api.wire import Answer, KeyAsked, Moment, Text, Units
from vianda.core.basis.option import Option
from vianda.core.basis.phrase import Phrase
from vianda.core.blend.schools import School
from vianda.core.carried.carried import Trip
from vianda.core.equipment.kitchen import Country, Kitchen, Setting, SurfaceKind, kitchen_options
from vianda.core.evaluation.evaluate import Evaluation, FigureRange
from vianda.core.evaluation.style_preview import StylePreview
from vianda.core.heat.doneness import Doneness
from vianda.core.inventory.inventory import Meat
from vianda.core.inventory.lot import Lot
from vianda.core.mix.schools import MixSchool
from vianda.core.model.edit import Edit, Figure
from vianda.core.model.formula import Formula
from vianda.core.opening.opening import Opening
from vianda.core.orders.arrivals import Orders
from vianda.core.sauce.tastes import TasteTitle
from vianda.core.stack.layers import LayerChoice
from vianda.core.timetable.short_of_time import LEAST_MIN, MOST_MIN
from vianda.interchange.documents import Strict
from vianda.storage.kitchen_repository import StoredKitchen
from vianda.storage.records import StoredFormula, StoredVersion

AnyEdit = Annotated[Edit, Field(discriminator="kind")]


class EvaluateRequest(Strict):
    """A formula, edits to apply to it in order, and the units on the screen."""

    formula: Formula
    edits: Annotated[list[AnyEdit], Field(max_length=100, default_factory=list)]
    unit_system: Units | None = None


class SheetsRequest(Strict):
    """The formula whose figures are looked into."""

    formula: Formula
    unit_system: Units | None = None


class OrdersRequest(SheetsRequest):
    """A formula that is cooked to order, and the orders that are expected."""

    orders: Orders


class CarriedRequest(SheetsRequest):
    """A formula whose raw pieces are carried elsewhere, and how."""

    trip: Trip


class ShortOfTimeRequest(SheetsRequest):
    """A formula, and how many minutes there are until it is to be on the plate."""

    minutes: Annotated[int, Field(ge=LEAST_MIN, le=MOST_MIN)]


class OpeningRequest(Strict):
    """One line, such as "700 g unknown mince, iron pan, four people"."""

    line: Annotated[str, Field(max_length=2000)]
    unit_system: Units | None = None


class HotThingRequest(Strict):
    """Something that gets hot, with its size as typed; "" takes the usual size."""

    kind: SurfaceKind
    width: Text = ""
    depth: Text = ""


class FirstKitchenRequest(Strict):
    """A few answers about a new kitchen; each may be left as it is."""

    name: Annotated[str, Field(max_length=80)] = ""
    country: Country = "other"
    setting: Setting = "home"
    unit_system: Units = "metric"
    currency_code: Annotated[str, Field(max_length=6)] = ""
    scale_step_g: Literal[1, 2, 5, 10] = 1
    surfaces: Annotated[list[HotThingRequest], Field(max_length=20)]
    salt: Literal["salt-fine", "salt-coarse", "salt-flake"] = "salt-fine"


class ListedKitchen(Answer):
    """A kitchen in the list of them."""

    id: int
    name: str
    demo: bool


class KitchensAnswer(Answer):
    """All kitchens, the one opened last first, and which is open (0: none is set up yet)."""

    kitchens: list[ListedKitchen]
    here: int


class ReadMixRequest(Strict):
    """What a cook typed to go into a formula's mix."""

    formula: Formula
    text: Annotated[str, Field(max_length=400)]
    unit_system: Units | None = None


class RecipeRequest(Strict):
    """A pasted recipe; ``summary`` is its summary line as corrected, "" for the recipe's own."""

    text: Annotated[str, Field(max_length=200_000)]
    summary: Annotated[str, Field(max_length=300)] = ""
    unit_system: Units | None = None


class ReadRequest(Strict):
    """Typed text to be read as a quantity, outside a formula."""

    kind: Literal["mass_g", "length_mm", "temp_c", "frac", "number", "time_s", "delta_temp_k"]
    text: Text
    unit_system: Units


class ReadAnswer(BaseModel):
    """The quantity in its base unit."""

    value: float


class SaveRequest(Strict):
    """A formula and the revision it was opened at."""

    formula: Formula
    revision: Annotated[int, Field(ge=1)]


class CreateRequest(Strict):
    """A formula to add."""

    formula: Formula


class KeepRequest(Strict):
    """A name for the version to keep."""

    name: Text


class ImportRequest(Strict):
    """The content of a formula file, as it is."""

    file: Any


class KitchenRequest(Strict):
    """The kitchen and the revision it was opened at."""

    kitchen: Kitchen
    revision: Annotated[int, Field(ge=1)]


class OpeningAnswer(Answer):
    """A first formula with what was read, assumed, left unread, and asked."""

    opening: Opening
    evaluation: Evaluation | None


class FormulaAnswer(Answer):
    """A formula as it stands."""

    id: int
    revision: int
    updated_at: Moment
    formula: Formula
    # Who changed it last, where there are accounts.
    changed_by: str = ""


class VersionAnswer(Answer):
    """A kept version, and by whom where there are accounts."""

    number: int
    name: str
    created_at: Moment
    formula: Formula
    kept_by: str = ""


class FormulaName(Answer):
    """A formula that stands on the shelf, by name."""

    id: int
    name: str
    updated_at: Moment
    style: str


class ShelfRequest(Strict):
    """What is looked for; what is empty asks for nothing. ``before``: the last formula of the page before."""

    text: Text = ""
    dish: KeyAsked = ""
    archived: bool = False
    sort: Literal["touched", "name", "newest"] = "touched"
    before: Annotated[int, Field(ge=1)] | None = None


class ShelfItem(FormulaName):
    """A formula on the shelf, in one line. ``strips``: share and fat of each meat (0–1).

    One that cannot be worked out has no figures, and ``problem`` says why.
    """

    lean_to_fat: Phrase | None = None
    pieces: Phrase | None = None
    strips: list[tuple[float, float]]
    problem: str
    cooks: int = 0
    last_cooked: Moment | None = None


class ShelfAnswer(Answer):
    """A page of the shelf. ``total``, ``archived`` and ``dishes`` are told with the first page only."""

    items: list[ShelfItem]
    next: int | None
    total: int | None
    archived: int | None
    dishes: list[str]


class ImportAnswer(Answer):
    """What an import did."""

    stored: FormulaAnswer
    meats_added: list[str]
    meats_differing: list[str]
    renamed: list[str]
    replaced: list[str]
    # The same in sentences.
    remarks: list[str]


class KitchenAnswer(Answer):
    """The kitchen and its revision."""

    revision: int
    kitchen: Kitchen
    options: dict[str, list[Option]]


class CatalogueAnswer(Answer):
    """What a cook can choose from: styles, meats, lots and ingredients (retired ones too, marked), schools."""

    styles: list[StylePreview]
    meats: list[Meat]
    lots: list[Lot]
    schools: list[School]
    pantry: list[PantryItem]
    mix_schools: list[MixSchool]
    ranges: dict[Figure, FigureRange]
    aims: list[Option]
    limits: list[Option]
    roles: list[Option]
    layers: list[LayerChoice]
    tastes: list[TasteTitle]
    doneness: list[Doneness]


def formula_answer(stored: StoredFormula) -> FormulaAnswer:
    """A stored formula for the wire."""
    return FormulaAnswer(
        id=stored.id, revision=stored.revision, updated_at=stored.updated_at, formula=stored.formula,
        changed_by=stored.changed_by,
    )  # fmt: skip


def version_answer(stored: StoredVersion) -> VersionAnswer:
    """A kept version for the wire."""
    return VersionAnswer(
        number=stored.number, name=stored.name, created_at=stored.created_at, formula=stored.formula,
        kept_by=stored.kept_by,
    )  # fmt: skip


def kitchen_answer(stored: StoredKitchen) -> KitchenAnswer:
    """The kitchen for the wire."""
    options = {name: list(choices) for name, choices in kitchen_options(stored.kitchen.scale.capacity_g).items()}
    return KitchenAnswer(revision=stored.revision, kitchen=stored.kitchen, options=options)
