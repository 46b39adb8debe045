"""Meats and kitchens as JSON: what an exported formula carries along, and what the database keeps."""

from __future__ import annotations

from decimal import Decimal
from typing import Annotated, Literal

from pydantic import ConfigDict, Field

from vianda.core.composition import Composition
from vianda.core.kitchen import Bun, Kitchen, Scale, Surface
from vianda.core.larder import Meat
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


class MeatModel(Strict):
    """One meat as bought: composition, fat range (0–1), price per kilogram, and where the figures come from."""

    key: Key
    name: Name
    species: Literal["beef", "pork", "veal", "lamb", "turkey", "chicken"]
    kind: Literal["cut", "ground", "fat"]
    composition: CompositionModel
    composition_note: Annotated[str, Field(max_length=300)]
    fat_low_frac: Share
    fat_usual_frac: Share
    fat_high_frac: Share
    price_per_kg: Money
    range_source: Annotated[str, Field(max_length=200)]
    remark: Annotated[str, Field(max_length=500)] = ""

    def to_core(self) -> Meat:
        """The core's meat; the core checks that the range rises."""
        values = {name: getattr(self, name) for name in type(self).model_fields}
        values["composition"] = Composition(**self.composition.model_dump())
        return Meat(**values)

    @classmethod
    def from_core(cls, meat: Meat) -> MeatModel:
        """The model of a core meat."""
        return cls.model_validate(meat, from_attributes=True)


class ScaleModel(Strict):
    """A scale's step and capacity in grams."""

    step_g: int
    capacity_g: int


class SurfaceModel(Strict):
    """A hot surface, sizes in mm."""

    key: Key
    name: Name
    kind: Literal["plate", "pan", "grate"]
    width_mm: Length
    depth_mm: Length
    round_shape: bool


class BunModel(Strict):
    """A bun: diameter in mm, mass in g, price, declared allergens."""

    key: Key
    name: Name
    diameter_mm: Length
    mass_g: Annotated[float, Field(ge=0, le=1000)]
    price_each: Money
    allergens: Annotated[list[Name], Field(max_length=20)]


class KitchenModel(Strict):
    """One kitchen. Country and setting decide which published floor leads."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False, strict=True)

    name: Name
    country: Literal["US", "CA", "UK", "other"]
    setting: Literal["home", "food-service"]
    naming_rule: Literal["US", "none"]
    unit_system: Literal["metric", "us"]
    currency_code: Annotated[str, Field(min_length=1, max_length=6, pattern=r"^[A-Z]+$")]
    scale: ScaleModel
    surfaces: Annotated[list[SurfaceModel], Field(min_length=1, max_length=20)]
    buns: Annotated[list[BunModel], Field(min_length=1, max_length=40)]

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
            surfaces=tuple(Surface(**s.model_dump()) for s in self.surfaces),
            buns=tuple(Bun(**{**b.model_dump(), "allergens": tuple(b.allergens)}) for b in self.buns),
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
                    )
                    for b in kitchen.buns
                ],
            }
        )
