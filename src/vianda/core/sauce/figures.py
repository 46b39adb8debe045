"""What goes with a formula: each thing's dose, how far a batch goes, its taste beside its school, and the build."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from vianda.core.basis.band import Band
from vianda.core.equipment.kitchen import Surface
from vianda.core.inventory.pantry import Ingredient, Pantry
from vianda.core.model.formula import Accompaniment, Role
from vianda.core.model.styles import Form
from vianda.core.sauce.dose import Batch, Dose, batch_of_sauce, dose, usual_dose
from vianda.core.sauce.from_raw import FromRaw, from_raw
from vianda.core.sauce.glaze import GlazePlan, glaze_plan
from vianda.core.sauce.schools import ROLES, AgainstBand, against, nearest_school
from vianda.core.sauce.tastes import Taste, taste_of
from vianda.core.shape.figures import ShapeFigures

# What of a thing goes on a portion, g: least, usual, most. Common practice, no published source; glaze and side ours.
USUAL_G: dict[Role, tuple[float, float, float]] = {
    "burger-sauce": (15.0, 20.0, 25.0),
    "glaze": (10.0, 20.0, 40.0),
    "cooking-sauce": (60.0, 90.0, 120.0),
    "sauce-base": (80.0, 150.0, 250.0),
    "gravy": (50.0, 80.0, 120.0),
    "relish": (8.0, 12.0, 20.0),
    "pickle": (10.0, 15.0, 20.0),
    "ferment": (10.0, 20.0, 40.0),
    "soft-onions": (20.0, 25.0, 30.0),
    "side": (100.0, 150.0, 250.0),
    "topping": (5.0, 20.0, 60.0),
}


@dataclass(frozen=True, slots=True)
class Table:
    """Whom and what it goes with: guests, width of the bread (mm, 0 for none), the pieces, and the pan beside them."""

    guests: int
    bread_mm: float
    surface: Surface
    shape: ShapeFigures
    form: Form
    pieces: int


@dataclass(frozen=True, slots=True)
class BesideFigures:
    """One thing that goes with it: dose and its usual range, how far what is made goes, and how it tastes.

    ``spread`` of a burger sauce: how it lies on the bread. ``made_g`` is what is made, ``batch`` how far it goes.
    ``raw`` of what is cooked beside the meat: what goes into the pan; ``glaze``: what its coats take.
    ``bands``: its taste beside its nearest school's, empty where the role has none. ``keeps_days`` 0: bought.
    """

    role: Role
    role_title: str
    ingredient: str
    name: str
    house: bool
    dose_g: float
    usual_g: Band
    spread: Dose | None
    made_g: float
    batch: Batch
    taste: Taste
    school: str
    school_title: str
    bands: tuple[AgainstBand, ...]
    keeps_days: int
    coats: int
    raw: FromRaw | None
    glaze: GlazePlan | None


def usual_grams(role: Role, *, bread_mm: float) -> Band:
    """What is usual of a role on a portion; of a burger sauce by the width of the bread.

    Parameters
    ----------
    role : Role
        What it is for.
    bread_mm : float
        Width of the bread, mm; 0 for none.

    Returns
    -------
    Band
        Grams a portion.

    References
    ----------
    Common practice, no published source.

    Examples
    --------
    >>> usual_grams("gravy", bread_mm=0.0).usual
    80.0
    """
    if role == "burger-sauce" and bread_mm > 0.0:
        return usual_dose(bread_mm)
    return Band(*USUAL_G[role])


def made_grams(a: Accompaniment, *, guests: int) -> float:
    """What is made of a thing: as said, or what its doses need, in whole grams.

    Parameters
    ----------
    a : Accompaniment
        What goes with it.
    guests : int
        Portions (count).

    Returns
    -------
    float
        g.

    Examples
    --------
    >>> made_grams(Accompaniment("relish", "relish", 12.0, made_g=500.0), guests=4)
    500.0
    """
    if a.made_g or a.dose_g <= 0.0:
        return a.made_g
    return float(math.ceil(batch_of_sauce(0.0, a.dose_g, wanted=guests).needed_g))


def beside_figures(beside: Sequence[Accompaniment], *, table: Table, pantry: Pantry) -> tuple[BesideFigures, ...]:
    """The figures of everything that goes with a formula.

    Parameters
    ----------
    beside : Sequence[Accompaniment]
        What goes with it.
    table : Table
        Whom and what it goes with.
    pantry : Pantry
        Ingredients by key, house formulas worked out.

    Returns
    -------
    tuple[BesideFigures, ...]
        In the order of the formula; what is no longer in the pantry is passed over.
    """
    return tuple(
        _figures(a, pantry[a.ingredient], table=table, pantry=pantry) for a in beside if a.ingredient in pantry
    )


def _figures(a: Accompaniment, thing: Ingredient, *, table: Table, pantry: Pantry) -> BesideFigures:
    guests, bread_mm = table.guests, table.bread_mm
    taste = taste_of([(thing.key, 100.0)], pantry=pantry)
    school = nearest_school(taste, a.role) if thing.house is not None or a.role in ("burger-sauce", "glaze") else None
    made = made_grams(a, guests=guests)
    batch = batch_of_sauce(made, a.dose_g, wanted=guests) if a.dose_g > 0.0 else Batch(0, made, 0.0, 0.0)
    return BesideFigures(
        role=a.role,
        role_title=ROLES[a.role],
        ingredient=a.ingredient,
        name=thing.name,
        house=thing.house is not None,
        dose_g=a.dose_g,
        usual_g=usual_grams(a.role, bread_mm=bread_mm),
        spread=dose(a.dose_g, diameter_mm=bread_mm) if a.role == "burger-sauce" and bread_mm > 0.0 else None,
        made_g=made,
        batch=batch,
        taste=taste,
        school=school.key if school else "",
        school_title=school.title if school else "",
        bands=against(taste, school) if school else (),
        keeps_days=thing.house.keeps_days if thing.house is not None else 0,
        coats=a.coats,
        raw=from_raw(thing.key, made, surface=table.surface),
        glaze=_glaze(a, made, table=table, pantry=pantry) if a.role == "glaze" else None,
    )


def _glaze(a: Accompaniment, made_g: float, *, table: Table, pantry: Pantry) -> GlazePlan | None:
    if not a.coats or made_g <= 0.0:
        return None
    return glaze_plan(
        [(a.ingredient, made_g)], shape=table.shape, form=table.form, pieces=table.pieces, coats=a.coats, pantry=pantry
    )
