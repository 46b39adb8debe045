"""The formula file: a formula with the meats and the kitchen it was computed with, so that it stands alone.

Format ``vianda-formula``. Version 1 had no seasoning and named the doneness; version 2 holds salt and the core
temperature; version 3 the lots a blend is taken from, the grind, and of each meat its trim loss and connective
tissue; version 4 the mix, with what it takes from the pantry, and who share a piece; version 5 what a piece is
shaped in and how; version 6 the stages of the heat, the fat in the pan, and how the kitchen's surfaces give heat;
version 7 plain names for some fields, and null for a day that is not known; version 8 more limits, and single things
kept out. Older files are upgraded one version at a time; newer and foreign ones are refused with a reason.
"""

from __future__ import annotations

import json
from collections.abc import Callable
from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field, ValidationError

from vianda.core.basis.errors import CoreError, OutOfRangeError
from vianda.core.basis.units import c_from_f
from vianda.core.batch.salt_ledger import kitchen_salt
from vianda.core.cook.served import FAT_KEYS
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.heat.doneness import target_for
from vianda.core.inventory.house import needs
from vianda.core.inventory.inventory import Inventory, Meat
from vianda.core.inventory.lot import Lot
from vianda.core.inventory.pantry import Ingredient, starter_pantry
from vianda.core.model.formula import Formula
from vianda.core.pipeline.larder_here import larder_here
from vianda.interchange import upgrades
from vianda.interchange.documents import Json, Strict
from vianda.interchange.kept_texts import plain_texts
from vianda.interchange.kinds import INGREDIENTS, as_kept

FORMAT = "vianda-formula"
VERSION = 15


class UnreadableFileError(CoreError):
    """A file that is not a formula file we can read."""

    code = "unreadable-file"
    title = "That file cannot be read as a formula"


class FormulaFile(Strict):
    """One formula, with the meats, lots and ingredients it uses and the kitchen it was made in."""

    format: Literal["vianda-formula"]
    version: Literal[15]
    formula: Formula
    larder: Annotated[list[Meat], Field(min_length=1, max_length=500)]
    lots: Annotated[list[Lot], Field(max_length=500)]
    pantry: Annotated[list[Ingredient], Field(max_length=500)]
    kitchen: Kitchen


@dataclass(frozen=True, slots=True)
class FormulaBundle:
    """What a formula file holds, as the core knows it."""

    formula: Formula
    inventory: Inventory
    kitchen: Kitchen


def write_file(bundle: FormulaBundle) -> Json:
    """The file's content: the formula, only the meats it uses, and the kitchen."""
    parts = bundle.formula.parts
    used = [bundle.inventory.meat(part.meat) for part in parts]
    lots = [bundle.inventory.lot(part.lot, meat=part.meat) for part in parts if part.lot]
    return FormulaFile(
        format="vianda-formula",
        version=15,
        formula=bundle.formula,
        larder=used,
        lots=lots,
        pantry=[as_kept(bundle.inventory.pantry[key]) for key in _ingredients(bundle)],
        kitchen=bundle.kitchen,
    ).model_dump(mode="json")


def _ingredients(bundle: FormulaBundle) -> list[str]:
    """Keys of all the formula stands on: its lines, what their house formulas are made of, and the kitchen's salt."""
    pantry = bundle.inventory.pantry
    wanted = [line.ingredient for line in bundle.formula.mix.lines]
    wanted += [a.ingredient for a in bundle.formula.beside]
    wanted += [layer.ingredient for layer in bundle.formula.stack if layer.ingredient]
    heat = bundle.formula.heat
    wanted += [key for key in (heat.cheese, heat.glaze, FAT_KEYS.get(heat.fat, "")) if key in pantry]
    found = [key for line in wanted for key in needs(line, pantry=pantry)]
    salt = kitchen_salt(bundle.kitchen.salt, pantry)
    return list(dict.fromkeys([*found, *([salt.key] if salt is not None else [])]))


def read_text(text: str) -> FormulaBundle:
    """A bundle from a file's text; see ``read_file``."""
    try:
        content = json.loads(text)
    except (json.JSONDecodeError, RecursionError) as error:
        raise UnreadableFileError(f"This is not JSON: {error}.") from None
    return read_file(content)


def read_file(content: object) -> FormulaBundle:
    """A bundle from a file's content, upgraded when old.

    Raises
    ------
    UnreadableFileError
        Foreign format, unknown or newer version, or a field that does not fit, with its JSON pointer.
    """
    if not isinstance(content, dict) or content.get("format") != FORMAT:
        raise UnreadableFileError(f"This file does not say that it is a “{FORMAT}” file.", field="/format")
    version = content.get("version")
    if not isinstance(version, int) or isinstance(version, bool) or version < 1:
        raise UnreadableFileError(
            f"A formula file says its version as a whole number from 1 to {VERSION}.", field="/version"
        )
    if version > VERSION:
        raise UnreadableFileError(
            f"This file has version {version}; this Vianda reads up to {VERSION}. Update Vianda to open it.",
            field="/version",
        )
    for step in range(version, VERSION):
        try:
            content = _UPGRADES[step](content)
        except (KeyError, TypeError, AttributeError, ValueError, IndexError):
            raise UnreadableFileError(
                f"This file says version {step}, but lacks what that version holds.", field="/formula"
            ) from None
    try:
        # The JSON route lets decimals be text, as they are written.
        model = FormulaFile.model_validate_json(json.dumps(plain_texts(content)))
    except OutOfRangeError as error:
        raise UnreadableFileError(error.detail, field=error.field) from None
    except ValidationError as error:
        first = error.errors()[0]
        pointer = "/" + "/".join(str(place) for place in first["loc"])
        raise UnreadableFileError(f"{pointer}: {first['msg']}.", field=pointer) from None
    held = larder_here(Inventory.of(model.larder, model.lots, model.pantry), model.kitchen)
    return FormulaBundle(model.formula, held, model.kitchen)


def _from_1_to_2(content: Json) -> Json:
    """Salt joins the formula (none was recorded, so none is assumed); doneness becomes a core temperature."""
    formula = dict(content["formula"])
    heat = dict(formula["heat"])
    # Version 1 knew only the US consumer line for well-done.
    heat["target_core_temp_c"] = target_for(heat.pop("doneness"), floor_c=c_from_f(160))
    formula["heat"] = heat
    formula["seasoning"] = {"salt_frac": 0.0, "salt_place": "none"}
    return {**content, "version": 2, "formula": formula}


def _from_2_to_3(content: Json) -> Json:
    """No lots were known; tools, trim losses and connective tissue take the models' own defaults."""
    return {**content, "version": 3, "lots": []}


def _from_3_to_4(content: Json) -> Json:
    """Nothing was mixed in; the pantry it needs is this kitchen's salt, as every pantry starts with it."""
    salt = INGREDIENTS.plain(starter_pantry()["salt-fine"])
    return {**content, "version": 4, "pantry": [salt]}


def _from_4_to_5(content: Json) -> Json:
    """No mould shaped it, nothing was allowed for bowl and gloves, and the first pieces took the remainder."""
    return {**content, "version": 5}


def _from_5_to_6(content: Json) -> Json:
    """It was cooked the style's own way, on surfaces of the usual make."""
    return {**content, "version": 6}


def _from_6_to_7(content: Json) -> Json:
    """A day that is not known is null, and what a class of today asks for is written out."""
    return {
        **content,
        "version": 7,
        "formula": upgrades.formula(content["formula"]),
        "kitchen": upgrades.kitchen(content["kitchen"]),
        "lots": [upgrades.lot(lot) for lot in content["lots"]],
        "pantry": [upgrades.ingredient(i) for i in content["pantry"]],
    }


def _from_7_to_8(content: Json) -> Json:
    """No single things were kept out, and the limits known then are known now."""
    return {**content, "version": 8}


def _from_8_to_9(content: Json) -> Json:
    """Which cheese and which glaze was not said: the usual ones."""
    return {**content, "version": 9}


def _from_9_to_10(content: Json) -> Json:
    """Nothing was said of what goes with it, and the build was the usual one."""
    return {**content, "version": 10}


def _from_10_to_11(content: Json) -> Json:
    """Nothing was said of when it is eaten: at half past six, by one cook."""
    return {**content, "version": 11}


def _from_11_to_12(content: Json) -> Json:
    """Nobody was said to be away."""
    return {**content, "version": 12}


def _from_12_to_13(content: Json) -> Json:
    """The kitchen had learnt nothing of styles."""
    return {**content, "version": 13}


def _from_13_to_14(content: Json) -> Json:
    """The kitchen had learnt nothing of its hands, nor of how fat its cuts come."""
    return {**content, "version": 14}


def _from_14_to_15(content: Json) -> Json:
    """The kitchen had learnt nothing of its pots, nor of its bowl."""
    return {**content, "version": 15}


_UPGRADES: dict[int, Callable[[Json], Json]] = {
    1: _from_1_to_2,
    2: _from_2_to_3,
    3: _from_3_to_4,
    4: _from_4_to_5,
    5: _from_5_to_6,
    6: _from_6_to_7,
    7: _from_7_to_8,
    8: _from_8_to_9,
    9: _from_9_to_10,
    10: _from_10_to_11,
    11: _from_11_to_12,
    12: _from_12_to_13,
    13: _from_13_to_14,
    14: _from_14_to_15,
}


def formula_file_schema() -> Json:
    """The JSON Schema of the newest version."""
    schema = FormulaFile.model_json_schema(mode="validation")
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **schema, "title": "Vianda formula file"}
