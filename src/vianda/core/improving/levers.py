"""What may be changed of a formula to change how it eats, and what the table of faults says each would do.

A lever's step is what takes a batch from a fault of too little to none: ours.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from vianda.core.basis.phrase import Amount, duration, fine_frac, frac, number, per_hundred, temp
from vianda.core.blend.blend import blend_fats
from vianda.core.cook.scores import ScoreKey
from vianda.core.editing.set_figure import current_value
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.faults.causes import Symptom, all_causes
from vianda.core.inventory.inventory import Inventory
from vianda.core.model.edit import Edit, Figure, SetFigure
from vianda.core.model.formula import Formula
from vianda.core.model.styles import BLOCKS, Form, style_of

LeverKey = Literal["fat", "salt", "surface", "core", "crumb", "panade", "work"]


# On which scale a symptom shows, and toward which end.
SHOWS: Mapping[Symptom, tuple[ScoreKey, float]] = {
    "dry": ("juice", -1.0),
    "tough": ("bite", 1.0),
    "falls-apart": ("bind", -1.0),
    "crumbles": ("bind", -1.0),
    "greasy": ("grease", 1.0),
    "no-crust": ("crust", -1.0),
    "watery": ("crust", -1.0),
    "burnt-raw": ("crust", 1.0),
    "bland": ("salt", -1.0),
    "salty": ("salt", 1.0),
    "domed": ("looks", -1.0),
    "shrunk": ("looks", -1.0),
    "glaze": ("looks", -1.0),
}
# Points that a fault which always shows moves its score by: ours.
POINTS = 1.2


@dataclass(frozen=True, slots=True)
class Lever:
    """One thing that may be changed: its step in the base unit of its figure, and the faults of too little and much.

    A changed value is a whole number of ``grain``, as a cook would set it.
    """

    key: LeverKey
    title: str
    more: str
    less: str
    step: float
    grain: float
    little: tuple[str, ...] = ()
    much: tuple[str, ...] = ()


LEVERS: tuple[Lever, ...] = (
    Lever("fat", "Fat of the blend", "More fat", "Less fat", 0.05, 0.005, ("too-lean",), ("too-fat",)),
    Lever("salt", "Salt by mass of the meat", "More salt", "Less salt", 0.004, 0.0005, ("little-salt",),
          ("much-salt",)),
    Lever("surface", "Surface", "A hotter surface", "A cooler surface", 25.0, 5.0, ("plate-cool",), ("too-fierce",)),
    Lever("core", "Core wanted", "A hotter core", "A cooler core", 6.0, 1.0, (), ("overcooked",)),
    Lever("crumb", "Crumb to a hundred of meat", "More crumb", "Less crumb", 0.03, 0.005, ("little-binder",),
          ("thirsty-crumb",)),
    Lever("panade", "Liquid to one of crumb", "A wetter panade", "A stiffer panade", 0.5, 0.1, ("thirsty-crumb",),
          ("too-wet",)),
    Lever("work", "Time it is worked", "Work it longer", "Work it less", 60.0, 5.0, ("mixed-little",), ("overworked",)),
)  # fmt: skip
_FIGURES: Mapping[LeverKey, tuple[Figure, str]] = {
    "salt": ("salt", ""),
    "surface": ("surface_temp", ""),
    "core": ("target_core_temp", ""),
    "crumb": ("group", "crumb"),
    "panade": ("panade", ""),
    "work": ("work_time", ""),
}
# Meats that differ by less than this in fat cannot move a blend: ours.
LEAST_APART_FRAC = 0.05


def levers_for(form: Form) -> tuple[Lever, ...]:
    """Levers of a form: only what is bound has crumb, and a loaf's oven is not set for its crust.

    Parameters
    ----------
    form : Form
        Form of the piece.

    Returns
    -------
    tuple[Lever, ...]
        In the order of the cook's path.

    Examples
    --------
    >>> [lever.key for lever in levers_for("disc")]
    ['fat', 'salt', 'surface', 'core', 'work']
    """
    bound = form in (*BLOCKS, "ball")
    return tuple(
        lever
        for lever in LEVERS
        if (bound or lever.key not in ("crumb", "panade")) and not (form in BLOCKS and lever.key == "surface")
    )


def prior_slope(lever: Lever, score: ScoreKey, form: Form) -> float:
    """Points that a score moves for one step more of a lever, by the table of faults.

    Parameters
    ----------
    lever : Lever
        What is changed.
    score : ScoreKey
        What is scored.
    form : Form
        Form of the piece.

    Returns
    -------
    float
        Points (no unit) a step, about −2 to 2; 0 where no fault links them.

    Examples
    --------
    >>> fat = LEVERS[0]
    >>> round(prior_slope(fat, "juice", "disc"), 2), round(prior_slope(fat, "grease", "disc"), 2)
    (0.72, 0.72)
    """
    total = 0.0
    for causes, sign in ((lever.little, -1.0), (lever.much, 1.0)):
        for key in causes:
            cause = all_causes()[key]
            if form not in cause.forms:
                continue
            # Two symptoms of one scale are one complaint: the likelier counts.
            shown = [p * SHOWS[s][1] for s, p in cause.makes.items() if s in SHOWS and SHOWS[s][0] == score]
            total += sign * max(shown, key=abs, default=0.0)
    return POINTS * total


def lever_values(formula: Formula, *, inventory: Inventory, kitchen: Kitchen) -> dict[LeverKey, float]:
    """Where every lever of a formula stands.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.

    Returns
    -------
    dict[LeverKey, float]
        In the base unit of each figure: fractions 0–1, °C, s.
    """
    found: dict[LeverKey, float] = {}
    for lever in levers_for(style_of(formula.dish.style).form):
        if lever.key == "fat":
            found["fat"] = _fat_frac(formula, inventory)
        else:
            figure, item = _FIGURES[lever.key]
            found[lever.key] = current_value(formula, figure, item, inventory, kitchen)
    return found


def _fat_frac(formula: Formula, inventory: Inventory) -> float:
    fats = blend_fats(formula.parts, inventory=inventory)
    return sum(p.share_frac * fat.usual_frac for p, fat in zip(formula.parts, fats, strict=True))


def lever_edit(formula: Formula, lever: Lever, value: float, *, inventory: Inventory) -> Edit | None:
    """The edit that sets a lever.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    lever : Lever
        What is changed.
    value : float
        Where to, in the base unit of its figure.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.

    Returns
    -------
    Edit | None
        None where the formula has nothing to move it with: one meat alone, or none that differs in fat.
    """
    if lever.key != "fat":
        figure, item = _FIGURES[lever.key]
        return SetFigure(figure=figure, value=round(value, 6), item=item)
    fats = [fat.usual_frac for fat in blend_fats(formula.parts, inventory=inventory)]
    now = _fat_frac(formula, inventory)
    free = [(fat, p) for fat, p in zip(fats, formula.parts, strict=True) if not p.locked]
    if len(free) < 2 or max(fats) - min(fats) < LEAST_APART_FRAC:
        return None
    fat, part = max(free, key=lambda one: one[0])
    others = (now - part.share_frac * fat) / (1.0 - part.share_frac) if part.share_frac < 1.0 else now
    if fat - others < LEAST_APART_FRAC:
        return None
    share = (value - others) / (fat - others)
    return SetFigure(figure="share", value=round(share, 4), item=part.meat) if 0.0 <= share <= 1.0 else None


def lever_amount(key: LeverKey, value: float) -> Amount:
    """Where a lever stands, in words.

    Parameters
    ----------
    key : LeverKey
        Which lever.
    value : float
        In the base unit of its figure: fractions 0–1, °C, s.

    Returns
    -------
    Amount
        As a cook reads it.
    """
    if key in ("surface", "core"):
        return temp(value)
    if key == "work":
        return duration(value)
    if key == "panade":
        return number(value)
    if key == "crumb":
        return per_hundred(value)
    return fine_frac(value) if key == "salt" else frac(value)
