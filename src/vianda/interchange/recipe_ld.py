"""Recipes as schema.org JSON-LD: read into plain lines, and a formula written as one.

Vocabulary: schema.org Recipe (name, recipeYield, recipeIngredient, recipeInstructions with HowToStep and HowToSection).
"""

from __future__ import annotations

import json
from collections.abc import Iterator, Mapping
from typing import Any

from vianda.core.basis.errors import CoreError
from vianda.core.basis.phrase import Phrase
from vianda.core.evaluation.evaluate import Evaluation, Sheets
from vianda.core.inventory.inventory import Inventory
from vianda.core.model.formula import Formula
from vianda.interchange.documents import Json


class UnreadableRecipeError(CoreError):
    """A document that holds no schema.org recipe."""

    code = "unreadable-file"
    title = "That document holds no recipe"


def looks_like_json(text: str) -> bool:
    """Whether a pasted text is JSON rather than a page."""
    return text.lstrip()[:1] in ("{", "[")


def recipe_text(text: str) -> str:
    """The recipe of a JSON-LD document as plain lines.

    Raises
    ------
    UnreadableRecipeError
        It is no JSON, or no recipe stands in it.
    """
    try:
        content = json.loads(text)
    except (json.JSONDecodeError, RecursionError) as error:
        raise UnreadableRecipeError(f"This is not JSON: {error}.", field="/text") from None
    recipe = next(_recipes(content), None)
    if recipe is None:
        raise UnreadableRecipeError("No schema.org Recipe stands in this document.", field="/text")
    lines = [_plain(recipe.get("name"))]
    lines += list(dict.fromkeys(_serves(y) for y in _list(recipe.get("recipeYield"))))
    lines.append("Ingredients")
    lines += [_plain(i) for i in _list(recipe.get("recipeIngredient") or recipe.get("ingredients"))]
    lines.append("Method")
    lines += list(_steps(recipe.get("recipeInstructions")))
    return "\n".join(line for line in lines if line)


def _recipes(content: Any, depth: int = 0) -> Iterator[Mapping[str, Any]]:
    if depth > 6:
        return
    if isinstance(content, list):
        for item in content:
            yield from _recipes(item, depth + 1)
    elif isinstance(content, dict):
        kinds = content.get("@type")
        if "Recipe" in (kinds if isinstance(kinds, list) else [kinds]):
            yield content
        for value in (content.get("@graph"), content.get("mainEntity")):
            yield from _recipes(value, depth + 1)


def _list(value: Any) -> list[Any]:
    if value is None:
        return []
    return value if isinstance(value, list) else [value]


def _plain(value: Any) -> str:
    return " ".join(value.split()) if isinstance(value, str) else str(value) if isinstance(value, int) else ""


def _serves(value: Any) -> str:
    text = _plain(value)
    if text.isdigit() or text.lower().endswith(("slices", "servings", "portions", "people")):
        return f"Serves {text}"
    return f"Makes {text}" if text[:1].isdigit() else text


def _steps(value: Any, depth: int = 0) -> Iterator[str]:
    if depth > 6:
        return
    for item in _list(value):
        if isinstance(item, str):
            yield from (" ".join(part.split()) for part in item.split("\n"))
        elif isinstance(item, dict):
            if item.get("itemListElement") is not None:
                yield from _steps(item["itemListElement"], depth + 1)
            else:
                yield _plain(item.get("text") or item.get("name"))


def said_plainly(phrase: Phrase) -> str:
    """A sentence in grams, degrees Celsius and millimetres, rounded as a cook writes them down."""
    out = phrase.text
    for name, a in phrase.amounts.items():
        out = out.replace("{" + name + "}", _shown(a.kind, a.value, a.high, a.text))
    return out


_UNITS: Mapping[str, tuple[str, float, str]] = {
    "mass_g": (" g", 1.0, ".0f"),
    "temp_c": (" °C", 1.0, ".0f"),
    "delta_temp_k": (" K", 1.0, ".0f"),
    "length_mm": (" mm", 1.0, ".0f"),
    "frac": (" %", 100.0, ".0f"),
    "fine_frac": (" %", 100.0, ".2g"),
    "per_hundred": (" per hundred", 100.0, ".2g"),
    "minutes": (" min", 1.0, ".0f"),
    "volume_ml": (" ml", 1.0, ".0f"),
}


def _shown(kind: str, value: float | None, high: float | None, text: str | None) -> str:
    if text is not None:
        return text
    if value is None:
        return ""
    if kind == "time_s":
        whole = f"{value / 60:.0f} min" if value >= 120 else f"{value:.0f} s"
        return (
            whole if high is None else f"{whole} to {high / 60:.0f} min" if high >= 120 else f"{whole} to {high:.0f} s"
        )
    if kind == "lean_to_fat":
        return f"{100 * (1 - value):.0f} lean to {100 * value:.0f} fat"
    unit, factor, digits = _UNITS.get(kind, ("", 1.0, ".4g"))
    shown = f"{value * factor:{digits}}"
    return f"{shown}–{high * factor:{digits}}{unit}" if high is not None else f"{shown}{unit}"


def write_recipe(formula: Formula, *, evaluation: Evaluation, sheets: Sheets, inventory: Inventory) -> Json:
    """A formula as a schema.org Recipe: what is weighed, how it is mixed and shaped, how it cooks."""
    portions, meat_g = evaluation.portions, evaluation.mix.whole.meat_g
    ingredients = [
        f"{p.share_frac * meat_g:.0f} g {inventory.meat(p.meat).name}" for p in formula.parts if p.share_frac > 0
    ]
    ingredients += [
        f"{line.mass_g:.4g} g {inventory.pantry[line.ingredient].name.lower()}" for line in evaluation.mix.lines
    ]
    if evaluation.salt.batch_salt_g > 0:
        ingredients.append(f"{evaluation.salt.batch_salt_g:.3g} g salt")
    surface = evaluation.heat
    steps = [f"{s.title}: {said_plainly(s.text)}" for s in sheets.protocol.steps] if formula.mix.lines else []
    steps.append(f"Shape into {portions.pieces} pieces of {portions.piece_mass_g:.0f} g.")
    steps.append(
        f"Cook at {formula.heat.surface_temp_c:.0f} °C until the core reads {formula.heat.target_core_temp_c:.1f} °C; "
        f"the published floor here is {surface.floors.leading.temp_c:.1f} °C. Local codes decide."
    )
    steps += [line for line in formula.remark.split("\n") if line.strip()]
    return {
        "@context": "https://schema.org",
        "@type": "Recipe",
        "name": formula.name,
        "recipeYield": [f"{portions.pieces} pieces", f"serves {formula.dish.guests}"],
        "recipeIngredient": ingredients,
        "recipeInstructions": [{"@type": "HowToStep", "text": step} for step in steps],
    }
