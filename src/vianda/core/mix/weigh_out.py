"""Weighing out: what the scale can show, eggs in whole, a pinch by the spoon; and by how much that is off."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from vianda.core.basis.scale_step import shares_on_scale
from vianda.core.basis.units import ML_PER_CUP, ML_PER_TBSP, ML_PER_TSP
from vianda.core.batch.lines import LineFigures
from vianda.core.batch.salt_ledger import SaltFigures
from vianda.core.inventory.pantry import Ingredient, Pantry

How = Literal["scale", "pieces", "spoon", "fine-scale"]
# A line that half a scale step would change by more than this is measured by the spoon (ours).
COARSEST_STEP_FRAC = 0.05
SPOON_STEP = 0.125
LEAST_SPOON = 0.0625


@dataclass(frozen=True, slots=True)
class WeighLine:
    """How one ingredient is measured: exact grams, grams as measured, the way, and the error that this brings.

    ``count`` is pieces for "pieces" and teaspoons for "spoon". ``household`` says it in cups, spoons or pieces, "" when
    nobody measures it so.
    """

    ingredient: str
    name: str
    exact_g: float
    measured_g: float
    how: How
    count: float
    piece: str
    household: str
    error_frac: float


@dataclass(frozen=True, slots=True)
class WeighOut:
    """All that is measured beside the meat, and what the bowl comes to.

    ``off_frac`` is how far the bowl is from the mix wanted; ``worst`` names the line that is furthest off.
    """

    lines: tuple[WeighLine, ...]
    meat_g: int
    comes_to_g: float
    off_frac: float
    worst: str
    worst_frac: float


def weigh_out(
    lines: Sequence[LineFigures],
    *,
    pantry: Pantry,
    salt: SaltFigures,
    salt_ingredient: Ingredient | None,
    meat_g: int,
    mix_g: float,
    step_g: int,
) -> WeighOut:
    """Measure every line: counted ones in whole pieces, small ones by the spoon, the rest on the scale.

    What goes on the scale is rounded to its step so that these lines still sum to their own exact sum, rounded
    (largest remainder). Small seasonings keep their ratio: spoons of an eighth, or a finer scale.

    Parameters
    ----------
    lines : Sequence[LineFigures]
        The lines of the mix.
    pantry : Pantry
        Ingredients by key.
    salt : SaltFigures
        The salt figures of the batch.
    salt_ingredient : Ingredient | None
        The salt of this kitchen; None for none.
    meat_g : int
        Mass of the meat in the batch, g, above 0.
    mix_g : float
        Mass of the whole mix, g, above 0.
    step_g : int
        Step of the scale, g, above 0.

    Returns
    -------
    WeighOut
        All that is measured beside the meat, and what the bowl comes to.

    Examples
    --------
    4.7 eggs become 5, and it says 6 % more.
    """
    measured: dict[str, WeighLine] = {}
    on_scale: list[LineFigures] = []
    for line in lines:
        if line.mass_g <= 0:
            continue
        ingredient = pantry[line.ingredient]
        if line.counted and ingredient.pieces:
            measured[line.ingredient] = _counted(line, ingredient)
        elif step_g / 2 / line.mass_g > COARSEST_STEP_FRAC:
            measured[line.ingredient] = _spooned(line.ingredient, line.name, line.mass_g, ingredient)
        else:
            on_scale.append(line)
    measured |= _weighed(on_scale, pantry=pantry, step_g=step_g)
    ordered = [measured[line.ingredient] for line in lines if line.ingredient in measured]
    if salt.batch_salt_g > 0 and salt_ingredient is not None:
        ordered.append(_salt(salt, salt_ingredient, step_g))
    in_bowl = [w for w in ordered if w.ingredient != "" or salt.salt_place == "mixed"]
    comes_to = meat_g + math.fsum(w.measured_g for w in in_bowl)
    worst = max(ordered, key=lambda w: abs(w.error_frac), default=None)
    return WeighOut(
        tuple(ordered),
        meat_g,
        comes_to,
        comes_to / mix_g - 1.0,
        worst.name if worst else "",
        worst.error_frac if worst else 0.0,
    )


def _counted(line: LineFigures, ingredient: Ingredient) -> WeighLine:
    piece = ingredient.pieces[0]
    # Never none of what the mix asks for: the least is one.
    count = max(1, math.floor(line.mass_g / piece.mass_g + 0.5))
    grams = count * piece.mass_g
    return WeighLine(
        line.ingredient,
        line.name,
        line.mass_g,
        grams,
        "pieces",
        count,
        piece.name,
        f"{count} {piece.name}{'s' if count > 1 else ''}",
        grams / line.mass_g - 1.0,
    )


def _spooned(key: str, name: str, mass_g: float, ingredient: Ingredient) -> WeighLine:
    if ingredient.g_per_cup <= 0:
        tenth = max(0.1, round(mass_g, 1))
        return WeighLine(key, name, mass_g, tenth, "fine-scale", 0.0, "", "", tenth / mass_g - 1.0)
    spoons = mass_g / (ingredient.g_per_ml * ML_PER_TSP)
    # An eighth of a teaspoon is the least that is sold; half of one is a pinch. Below a quarter, sixteenths.
    step = SPOON_STEP if spoons >= 0.25 else LEAST_SPOON
    count = max(LEAST_SPOON, round(spoons / step) * step)
    grams = count * ingredient.g_per_ml * ML_PER_TSP
    return WeighLine(
        key, name, mass_g, grams, "spoon", count, "tsp", household_measure(grams, ingredient), grams / mass_g - 1.0
    )


def _weighed(lines: Sequence[LineFigures], *, pantry: Pantry, step_g: int) -> dict[str, WeighLine]:
    if not lines:
        return {}
    total = math.fsum(line.mass_g for line in lines)
    rounded = max(1, round(total / step_g)) * step_g
    grams = shares_on_scale([line.mass_g / total for line in lines], batch_g=rounded, step_g=step_g)
    return {
        line.ingredient: WeighLine(
            line.ingredient,
            line.name,
            line.mass_g,
            float(g),
            "scale",
            0.0,
            "",
            household_measure(line.mass_g, pantry[line.ingredient]),
            g / line.mass_g - 1.0,
        )
        for line, g in zip(lines, grams, strict=True)
    }


def _salt(salt: SaltFigures, ingredient: Ingredient, step_g: int) -> WeighLine:
    exact = salt.batch_salt_g
    if step_g / 2 / exact > COARSEST_STEP_FRAC:
        return _spooned("", salt.salt_name, exact, ingredient)
    grams = max(1, round(exact / step_g)) * step_g
    return WeighLine(
        "",
        salt.salt_name,
        exact,
        float(grams),
        "scale",
        0.0,
        "",
        household_measure(exact, ingredient),
        grams / exact - 1.0,
    )


_PARTS = {0.125: "⅛", 0.25: "¼", 0.375: "⅜", 0.5: "½", 0.625: "⅝", 0.75: "¾", 0.875: "⅞"}
_THIRDS = {1 / 3: "⅓", 2 / 3: "⅔"}


def _mixed(value: float, steps: dict[float, str]) -> str:
    whole = math.floor(value + 1e-9)
    rest = value - whole
    near = min([0.0, 1.0, *steps], key=lambda s: abs(s - rest))
    if near == 1.0:
        whole, near = whole + 1, 0.0
    part = steps.get(near, "")
    return f"{whole or ''}{part}" if whole or part else "0"


def household_measure(mass_g: float, ingredient: Ingredient) -> str:
    """Grams as a cook with spoons and cups would say them, to the nearest mark; "" when nobody measures it so.

    Parameters
    ----------
    mass_g : float
        Mass, g, 0 or more.
    ingredient : Ingredient
        The ingredient.

    Returns
    -------
    str
        The text.

    References
    ----------
    SR28 household weights; spoons and cups by NIST Handbook 44.

    Examples
    --------
    >>> from vianda.core.inventory.pantry import starter_pantry
    >>> household_measure(36, starter_pantry()["dry-crumbs"]), household_measure(12, starter_pantry()["salt-fine"])
    ('⅓ cup', '2 tsp')
    """
    if ingredient.pieces and (ingredient.g_per_cup <= 0 or ingredient.group in ("egg", "white", "filling", "bread")):
        count = mass_g / ingredient.pieces[0].mass_g
        said = _mixed(count, {0.5: "½"})
        if said != "0":
            return f"{said} {ingredient.pieces[0].name}{'s' if count > 1.25 else ''}"
    if ingredient.g_per_cup <= 0:
        return ""
    ml = mass_g / ingredient.g_per_ml
    if ml >= ML_PER_CUP * 0.24:
        said = _mixed(ml / ML_PER_CUP, {**{q: _PARTS[q] for q in (0.25, 0.5, 0.75)}, **_THIRDS})
        return f"{said} cup{'s' if ml / ML_PER_CUP > 1.1 else ''}"
    if ml >= ML_PER_TBSP * 0.95:
        return f"{_mixed(ml / ML_PER_TBSP, {0.5: '½'})} tbsp"
    if ml < ML_PER_TSP * LEAST_SPOON * 0.75:
        return "less than a pinch"
    if ml < ML_PER_TSP * 0.094:
        return "a pinch"
    return f"{_mixed(ml / ML_PER_TSP, _PARTS)} tsp"
