"""Meats and kitchens as JSON: what an exported formula carries along, and what the database keeps."""

from __future__ import annotations

from decimal import Decimal
from typing import Annotated, Literal

from pydantic import ConfigDict, Field

from vianda.core.equipment.heating import FireLayout, Fuel, Heating, Metal, Power
from vianda.core.equipment.kitchen import Bun, BunKind, Grinder, Kitchen, Scale, Surface, usual_grinders
from vianda.core.equipment.moulds import Ware, WareKind, usual_wares
from vianda.core.inventory.composition import Composition
from vianda.core.inventory.evidence import Evidence
from vianda.core.inventory.inventory import Meat
from vianda.core.inventory.lot import Lot
from vianda.core.inventory.pantry import MOST_HOUSE_LINES, Group, HouseFormula, HouseLine, Ingredient, Piece
from vianda.interchange.formula_model import Key, Share, Strict

Grams = Annotated[float, Field(ge=0, le=100)]
Money = Annotated[Decimal, Field(ge=0, le=1_000_000, max_digits=12, decimal_places=4, strict=False)]
Name = Annotated[str, Field(min_length=1, max_length=80)]
Length = Annotated[float, Field(ge=0, le=3000)]


class CompositionModel(Strict):
    """Grams in 100 g, sodium in mg."""

    water_g_per_100g: Grams
    protein_g_per_100g: Grams
    fat_g_per_100g: Grams
    carbohydrate_g_per_100g: Grams
    ash_g_per_100g: Grams
    sodium_mg_per_100g: Annotated[float, Field(ge=0, le=40_000)]
    sugars_g_per_100g: Grams = 0.0


class MeatModel(Strict):
    """One meat as bought: composition, fat range (0–1), price per kilogram, and where the figures come from."""

    key: Key
    name: Name
    species: Literal["beef", "pork", "veal", "lamb", "turkey", "chicken", "venison"]
    kind: Literal["cut", "trim", "ground", "fat", "offal"]
    composition: CompositionModel
    composition_note: Annotated[str, Field(max_length=300)]
    fat_low_frac: Share
    fat_usual_frac: Share
    fat_high_frac: Share
    price_per_kg: Money
    range_source: Annotated[str, Field(max_length=200)]
    remark: Annotated[str, Field(max_length=500)] = ""
    connective: Literal["low", "medium", "high", "fat"] = "medium"
    cured: bool = False
    trim_loss_frac: Annotated[float, Field(ge=0, le=0.9)] = 0.0
    pack_mass_g: Annotated[float, Field(ge=0, le=50_000)] = 0.0
    retired: bool = False

    def to_core(self) -> Meat:
        """The core's meat; the core checks that the range rises."""
        values = {name: getattr(self, name) for name in type(self).model_fields}
        values["composition"] = Composition(**self.composition.model_dump())
        return Meat(**values)

    @classmethod
    def from_core(cls, meat: Meat) -> MeatModel:
        """The model of a core meat."""
        return cls.model_validate(meat, from_attributes=True)


class EvidenceModel(Strict):
    """One thing known about a lot's fat: its kind, fat and standard error 0–1, and how it came about."""

    kind: Literal["label", "butcher", "fat-test", "laboratory"]
    fat_frac: Share
    sd_frac: Annotated[float, Field(ge=0.001, le=0.2)]
    detail: Annotated[str, Field(max_length=200)] = ""


class LotModel(Strict):
    """One delivery of a meat: grams left, price, ISO dates, and what is known of its fat."""

    key: Key
    meat: Key
    name: Name
    left_mass_g: Annotated[float, Field(ge=0, le=1_000_000)]
    price_per_kg: Money
    delivered: Annotated[str, Field(max_length=10)]
    use_by: Annotated[str, Field(max_length=10)] = ""
    evidence: Annotated[list[EvidenceModel], Field(max_length=20, default_factory=list)]
    closed: bool = False

    def to_core(self) -> Lot:
        """The core's lot; the core checks days and mass."""
        values = {name: getattr(self, name) for name in type(self).model_fields}
        values["evidence"] = tuple(Evidence(**e.model_dump()) for e in self.evidence)
        return Lot(**values)

    @classmethod
    def from_core(cls, lot: Lot) -> LotModel:
        """The model of a core lot."""
        values = {name: getattr(lot, name) for name in cls.model_fields}
        values["evidence"] = [EvidenceModel.model_validate(e, from_attributes=True) for e in lot.evidence]
        return cls(**values)


class PieceModel(Strict):
    """What one piece of an ingredient weighs in g."""

    name: Name
    mass_g: Annotated[float, Field(gt=0, le=5000)]


class HouseLineModel(Strict):
    """So many grams of an ingredient in a house formula."""

    ingredient: Key
    mass_g: Annotated[float, Field(gt=0, le=1_000_000)]


class HouseModel(Strict):
    """A sub-formula: what goes in and comes out in g, the days it keeps, how it is made, and whether it is acid."""

    lines: Annotated[list[HouseLineModel], Field(min_length=1, max_length=MOST_HOUSE_LINES)]
    yield_g: Annotated[float, Field(gt=0, le=1_000_000)]
    keeps_days: Annotated[int, Field(ge=0, le=1000)]
    method: Annotated[str, Field(max_length=1000)] = ""
    acid: bool = False


class IngredientModel(Strict):
    """One thing of the pantry: composition, grams a US cup (0: none), pieces, allergens, °C, price per kilogram."""

    key: Key
    name: Name
    group: Group
    composition: CompositionModel
    composition_note: Annotated[str, Field(max_length=300)]
    g_per_cup: Annotated[float, Field(ge=0, le=1000)]
    volume_source: Annotated[str, Field(max_length=100)] = ""
    pieces: Annotated[list[PieceModel], Field(max_length=10, default_factory=list)]
    allergens: Annotated[list[Name], Field(max_length=14, default_factory=list)]
    temp_c: Annotated[float, Field(ge=-30, le=100)]
    price_per_kg: Money
    aliases: Annotated[list[Name], Field(max_length=20, default_factory=list)]
    remark: Annotated[str, Field(max_length=500)] = ""
    house: HouseModel | None = None
    retired: bool = False

    def to_core(self) -> Ingredient:
        """The core's ingredient; the core checks masses and allergens."""
        values = {name: getattr(self, name) for name in type(self).model_fields}
        values["composition"] = Composition(**self.composition.model_dump())
        values["pieces"] = tuple(Piece(p.name, p.mass_g) for p in self.pieces)
        values["allergens"], values["aliases"] = tuple(self.allergens), tuple(self.aliases)
        if self.house is not None:
            lines = tuple(HouseLine(line.ingredient, line.mass_g) for line in self.house.lines)
            values["house"] = HouseFormula(**{**self.house.model_dump(), "lines": lines})
        return Ingredient(**values)

    @classmethod
    def from_core(cls, ingredient: Ingredient) -> IngredientModel:
        """The model of a core ingredient."""
        values = {name: getattr(ingredient, name) for name in cls.model_fields}
        values["composition"] = CompositionModel.model_validate(ingredient.composition, from_attributes=True)
        values["pieces"] = [PieceModel(name=p.name, mass_g=p.mass_g) for p in ingredient.pieces]
        values["allergens"], values["aliases"] = list(ingredient.allergens), list(ingredient.aliases)
        if ingredient.house is not None:
            house = ingredient.house
            # Its price follows from its lines, wherever it is read.
            values["price_per_kg"] = Decimal(0)
            lines = [HouseLineModel(ingredient=line.ingredient, mass_g=line.mass_g) for line in house.lines]
            values["house"] = HouseModel(
                lines=lines, yield_g=house.yield_g, keeps_days=house.keeps_days, method=house.method, acid=house.acid
            )
        return cls(**values)


class GrinderModel(Strict):
    """A grinder, processor or knife: load in g, pace in kg a minute, what stays in it in g, plates in mm."""

    key: Key
    name: Name
    kind: Literal["grinder", "processor", "knife"]
    load_g: Annotated[float, Field(ge=50, le=100_000)]
    pace_kg_per_min: Annotated[float, Field(gt=0, le=100)]
    hold_up_g: Annotated[float, Field(ge=0, le=5000)]
    plates_mm: Annotated[list[float], Field(max_length=12)]

    def to_core(self) -> Grinder:
        """The core's grinder."""
        return Grinder(**{**self.model_dump(), "plates_mm": tuple(self.plates_mm)})

    @classmethod
    def from_core(cls, grinder: Grinder) -> GrinderModel:
        """The model of a core grinder."""
        values = {name: getattr(grinder, name) for name in cls.model_fields}
        return cls(**{**values, "plates_mm": list(grinder.plates_mm)})


def _usual_grinders() -> list[GrinderModel]:
    return [GrinderModel.from_core(g) for g in usual_grinders()]


class ScaleModel(Strict):
    """A scale's step and capacity in grams."""

    step_g: int
    capacity_g: int


class HeatingModel(Strict):
    """How a surface gives heat; see ``core.heating.Heating``, which checks the ranges. mm, °C, K, minutes."""

    metal: Metal = "steel"
    thickness_mm: Annotated[float, Field(ge=0, le=100)] = 0.0
    power: Power = "usual"
    fan: bool = True
    offset_k: Annotated[float, Field(ge=-200, le=200)] = 0.0
    broiler_c: Annotated[float, Field(ge=0, le=1000)] = 450.0
    fuel: Fuel = "charcoal"
    layout: FireLayout = "even"
    lid: bool = True
    outdoor_c: Annotated[float, Field(ge=-60, le=60)] = 20.0
    lasts_min: Annotated[float, Field(ge=0, le=10_000)] = 0.0
    heat_factor: Annotated[float, Field(ge=0.1, le=10)] = 1.0


class SurfaceModel(Strict):
    """A hot surface, or an oven by its tray; sizes in mm."""

    key: Key
    name: Name
    kind: Literal["plate", "pan", "grate", "oven"]
    width_mm: Length
    depth_mm: Length
    round_shape: bool
    loss_factor: Annotated[float, Field(ge=0.3, le=3)] = 1.0
    heating: HeatingModel = Field(default_factory=HeatingModel)

    def to_core(self) -> Surface:
        """The core's surface."""
        return Surface(**{**self.model_dump(), "heating": Heating(**self.heating.model_dump())})


class BunModel(Strict):
    """Bread: diameter (of a slice both sides) in mm, mass in g, price, declared allergens."""

    key: Key
    name: Name
    diameter_mm: Length
    mass_g: Annotated[float, Field(ge=0, le=1000)]
    price_each: Money
    allergens: Annotated[list[Name], Field(max_length=20)]
    kind: BunKind = "bun"
    depth_mm: Length = 0.0


class WareModel(Strict):
    """A tin, tray, scoop or ring: inside lengths in mm at brim and bottom, ml as measured, a scoop's number."""

    key: Key
    name: Name
    kind: WareKind
    length_mm: Length = 0.0
    width_mm: Length = 0.0
    height_mm: Length = 0.0
    base_length_mm: Length = 0.0
    base_width_mm: Length = 0.0
    volume_ml: Annotated[float, Field(ge=0, le=100_000)] = 0.0
    scoop_number: Annotated[int, Field(ge=0, le=100)] = 0


def _usual_wares() -> list[WareModel]:
    return [WareModel.model_validate(w, from_attributes=True) for w in usual_wares()]


class KitchenModel(Strict):
    """One kitchen. Country and setting decide which published floor leads."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False, strict=True)

    name: Name
    country: Literal["US", "CA", "UK", "other"]
    setting: Literal["home", "food-service"]
    naming_rule: Literal["US", "EU", "CA", "UK", "none"]
    unit_system: Literal["metric", "us"]
    currency_code: Annotated[str, Field(min_length=1, max_length=6, pattern=r"^[A-Z]+$")]
    scale: ScaleModel
    surfaces: Annotated[list[SurfaceModel], Field(min_length=1, max_length=20)]
    buns: Annotated[list[BunModel], Field(min_length=1, max_length=40)]
    grinders: Annotated[list[GrinderModel], Field(max_length=20, default_factory=_usual_grinders)]
    salt: Key = "salt-fine"
    wares: Annotated[list[WareModel], Field(max_length=60, default_factory=_usual_wares)]

    def to_core(self) -> Kitchen:
        """The core's kitchen; the core checks scale and surfaces."""
        return Kitchen(
            name=self.name,
            country=self.country,
            setting=self.setting,
            naming_rule=self.naming_rule,
            unit_system=self.unit_system,
            currency_code=self.currency_code,
            scale=Scale(self.scale.step_g, self.scale.capacity_g),
            surfaces=tuple(s.to_core() for s in self.surfaces),
            buns=tuple(Bun(**{**b.model_dump(), "allergens": tuple(b.allergens)}) for b in self.buns),
            grinders=tuple(g.to_core() for g in self.grinders),
            salt=self.salt,
            wares=tuple(Ware(**w.model_dump()) for w in self.wares),
        )

    @classmethod
    def from_core(cls, kitchen: Kitchen) -> KitchenModel:
        """The model of a core kitchen."""
        return cls.model_validate(
            {
                "name": kitchen.name,
                "country": kitchen.country,
                "setting": kitchen.setting,
                "naming_rule": kitchen.naming_rule,
                "unit_system": kitchen.unit_system,
                "currency_code": kitchen.currency_code,
                "scale": ScaleModel(step_g=kitchen.scale.step_g, capacity_g=kitchen.scale.capacity_g),
                "surfaces": [SurfaceModel.model_validate(s, from_attributes=True) for s in kitchen.surfaces],
                "buns": [
                    BunModel(
                        key=b.key,
                        name=b.name,
                        diameter_mm=b.diameter_mm,
                        mass_g=b.mass_g,
                        price_each=b.price_each,
                        allergens=list(b.allergens),
                        kind=b.kind,
                        depth_mm=b.depth_mm,
                    )
                    for b in kitchen.buns
                ],
                "grinders": [GrinderModel.from_core(g) for g in kitchen.grinders],
                "salt": kitchen.salt,
                "wares": [WareModel.model_validate(w, from_attributes=True) for w in kitchen.wares],
            }
        )
