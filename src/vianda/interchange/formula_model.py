"""The formula as JSON: one pydantic model a part, with units in the names and the outermost bounds.

The core checks the trade's ranges; here only the form is checked: types, finite numbers, known keys, lengths.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from vianda.core.model import formula as core
from vianda.core.model.formula import Ends, Packing

Key = Annotated[str, Field(min_length=1, max_length=64, pattern=r"^[a-z0-9][a-z0-9-]*$")]
LotKey = Annotated[str, Field(max_length=64, pattern=r"^([a-z0-9][a-z0-9-]*)?$")]
Share = Annotated[float, Field(ge=0, le=1)]
MassG = Annotated[float, Field(gt=0, le=10_000_000)]
TempC = Annotated[float, Field(ge=-50, le=1000)]


class Strict(BaseModel):
    """A model that refuses unknown fields, NaN and infinities."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False, strict=True)


class DishModel(Strict):
    """What it is, for how many guests, how many pieces each, and how many share one."""

    dish: core.Dish
    style: Key
    guests: Annotated[int, Field(ge=1, le=100_000)]
    pieces_per_guest: Annotated[int, Field(ge=1, le=1000)]
    guests_per_piece: Annotated[int, Field(ge=1, le=1000)] = 1
    spare_pieces: Annotated[int, Field(ge=-1000, le=1000)] = 0


class PartModel(Strict):
    """One meat of the blend and its share of the whole (0–1)."""

    meat: Key
    share_frac: Share
    locked: bool = False
    lot: LotKey = ""


class GrindModel(Strict):
    """The tool that grinds ("" lets the plan choose), when it is used, and services a week for the supplier."""

    tool: LotKey = ""
    keep: Literal["fresh", "made-ahead", "frozen"] = "fresh"
    services_per_week: Annotated[int, Field(ge=1, le=50)] = 1


class SeasoningModel(Strict):
    """Salt by mass of raw meat (0–1) and where it goes."""

    salt_frac: Annotated[float, Field(ge=0, le=1)]
    salt_place: core.SaltPlace


class LineModel(Strict):
    """One ingredient by mass of the meat, the doubt of its measure (0–1), and its temperature (null: as it stands)."""

    ingredient: Key
    per_meat_frac: Annotated[float, Field(ge=0, le=5)]
    locked: bool = False
    doubt_frac: Annotated[float, Field(ge=0, le=10)] = 0.0
    temp_c: TempC | None = None
    counted: bool = False
    core: bool = False


class MixModel(Strict):
    """What goes into the meat, and how it is worked: minutes, seconds, °C; and the limits it keeps."""

    lines: Annotated[list[LineModel], Field(max_length=core.MOST_LINES)] = []
    meat_temp_c: TempC = 3.0
    soak_min: Annotated[float, Field(ge=0, le=10_000)] = 15.0
    chill_min: Annotated[float, Field(ge=0, le=10_000)] = 45.0
    work: core.Work = "hand"
    work_s: Annotated[float, Field(ge=0, le=10_000)] = 90.0
    avoid: Annotated[list[core.Limit], Field(max_length=6)] = []

    def to_core(self) -> core.Mix:
        """The core's mix."""
        return core.Mix(
            lines=tuple(core.MixLine(**line.model_dump()) for line in self.lines),
            meat_temp_c=self.meat_temp_c,
            soak_min=self.soak_min,
            chill_min=self.chill_min,
            work=self.work,
            work_s=self.work_s,
            avoid=tuple(dict.fromkeys(self.avoid)),
        )

    @classmethod
    def from_core(cls, mix: core.Mix) -> MixModel:
        """The model of a core mix."""
        return cls(
            lines=[LineModel.model_validate(line, from_attributes=True) for line in mix.lines],
            meat_temp_c=mix.meat_temp_c,
            soak_min=mix.soak_min,
            chill_min=mix.chill_min,
            work=mix.work,
            work_s=mix.work_s,
            avoid=list(mix.avoid),
        )


class ShapeModel(Strict):
    """How the batch is divided, and the size of the raw piece in mm; see ``core.formula.Shape``."""

    portioning: core.Portioning
    piece_mass_g: MassG
    batch_mass_g: MassG
    thickness_mm: Annotated[float, Field(gt=0, le=1000)]
    bun: Key
    ware: LotKey = ""
    width_mm: Annotated[float, Field(ge=0, le=1000)] = 0.0
    ends: Ends = "blunt"
    packing: Packing | Literal[""] = ""
    rim_mm: Annotated[float, Field(ge=0, le=200)] = 12.0
    loss_g: Annotated[float, Field(ge=0, le=100_000)] = 0.0
    remainder: core.Remainder = "first"
    edges: core.Edges = "rounded"
    papers: bool = False
    firmness: core.Firmness = "chilled"


class StageModel(Strict):
    """One stage of a cook composed by hand; see ``core.formula.HeatStage``. Seconds and °C."""

    kind: core.StageKind
    until: core.Until
    time_s: Annotated[float, Field(ge=0, le=100_000)] = 0.0
    temp_c: TempC | None = None
    flip: bool = False
    turn_every_s: Annotated[float, Field(ge=0, le=100_000)] = 0.0
    press: bool = False
    cover: bool = False
    cheese: bool = False
    glaze: bool = False


class HeatModel(Strict):
    """The surface, its temperature, the core wanted, in °C, and the way there."""

    surface: Key
    surface_temp_c: TempC
    core_target_c: TempC
    method: LotKey = ""
    stages: Annotated[list[StageModel], Field(max_length=core.MOST_STAGES)] = []
    fat: core.PanFat = ""
    resting: core.Resting = "open"

    def to_core(self) -> core.Heat:
        """The core's heat."""
        stages = tuple(core.HeatStage(**s.model_dump()) for s in self.stages)
        return core.Heat(
            self.surface, self.surface_temp_c, self.core_target_c, self.method, stages, self.fat, self.resting
        )

    @classmethod
    def from_core(cls, heat: core.Heat) -> HeatModel:
        """The model of a core heat."""
        return cls(
            surface=heat.surface,
            surface_temp_c=heat.surface_temp_c,
            core_target_c=heat.core_target_c,
            method=heat.method,
            stages=[StageModel.model_validate(s, from_attributes=True) for s in heat.stages],
            fat=heat.fat,
            resting=heat.resting,
        )


class FormulaModel(Strict):
    """The design of one dish."""

    name: Annotated[str, Field(min_length=1, max_length=core.LONGEST_NAME)]
    dish: DishModel
    parts: Annotated[list[PartModel], Field(min_length=1, max_length=core.MOST_MEATS)]
    seasoning: SeasoningModel
    shape: ShapeModel
    heat: HeatModel
    remark: Annotated[str, Field(max_length=core.LONGEST_REMARK)] = ""
    grind: GrindModel = Field(default_factory=GrindModel)
    mix: MixModel = Field(default_factory=MixModel)

    def to_core(self) -> core.Formula:
        """The core's formula."""
        return core.Formula(
            name=self.name,
            dish=core.DishChoice(**self.dish.model_dump()),
            parts=tuple(core.BlendPart(p.meat, p.share_frac, p.locked, p.lot) for p in self.parts),
            seasoning=core.Seasoning(self.seasoning.salt_frac, self.seasoning.salt_place),
            shape=core.Shape(**self.shape.model_dump()),
            heat=self.heat.to_core(),
            remark=self.remark,
            grind=core.Grind(self.grind.tool, self.grind.keep, self.grind.services_per_week),
            mix=self.mix.to_core(),
        )

    @classmethod
    def from_core(cls, formula: core.Formula) -> FormulaModel:
        """The model of a core formula."""
        d, s = formula.dish, formula.shape
        return cls(
            name=formula.name,
            dish=DishModel.model_validate(d, from_attributes=True),
            parts=[PartModel(meat=p.meat, share_frac=p.share_frac, locked=p.locked, lot=p.lot) for p in formula.parts],
            seasoning=SeasoningModel(salt_frac=formula.seasoning.salt_frac, salt_place=formula.seasoning.salt_place),
            shape=ShapeModel.model_validate(s, from_attributes=True),
            heat=HeatModel.from_core(formula.heat),
            remark=formula.remark,
            grind=GrindModel(
                tool=formula.grind.tool, keep=formula.grind.keep, services_per_week=formula.grind.services_per_week
            ),
            mix=MixModel.from_core(formula.mix),
        )
