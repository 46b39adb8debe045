"""The lines of a mix: each ingredient in grams, with its uncertainty, its salt and its cost."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.inventory.pantry import Group, Ingredient, Pantry, ingredient_of
from vianda.core.model.formula import MOST_LINES, MOST_PER_MEAT, MixLine


@dataclass(frozen=True, slots=True)
class Entering:
    """A line with the ingredient it means."""

    line: MixLine
    ingredient: Ingredient

    @property
    def group(self) -> Group:
        """What it counts as: what lies whole in the middle is filling, whatever it is made of."""
        return "filling" if self.line.filling else self.ingredient.group


# An amount is worth showing as a range when that is wider than this share of it: ours.
UNSURE_FRAC = 0.15


@dataclass(frozen=True, slots=True)
class LineFigures:
    """One ingredient in the mix. ``per_meat_frac`` is its mass by the mass of the meat; ``low_g`` to ``high_g`` the
    uncertainty its measure brings; ``salt_g`` the salt it brings by its sodium."""

    ingredient: str
    name: str
    group: Group
    house: bool
    per_meat_frac: float
    mass_g: float
    low_g: float
    high_g: float
    salt_g: float
    temp_c: float
    locked: bool
    counted: bool
    filling: bool
    cost: Decimal
    remark: str
    unsure: bool = False


def entering(lines: Sequence[MixLine], *, pantry: Pantry) -> tuple[Entering, ...]:
    """The lines with their ingredients, after checking that they are lines.

    Parameters
    ----------
    lines : Sequence[MixLine]
        The lines of the mix.
    pantry : Pantry
        Ingredients by key.

    Returns
    -------
    tuple[Entering, ...]
        Each: a line with the ingredient it means.

    Raises
    ------
    OutOfRangeError, UnknownItemError
        Too many, one named twice, an amount below zero or beyond five times the meat, salt as a line, or unknown.
    """
    if len(lines) > MOST_LINES:
        raise OutOfRangeError(f"A mix has at most {MOST_LINES} lines; this one has {len(lines)}.", field="/mix/lines")
    found = []
    seen: set[str] = set()
    for at, line in enumerate(lines):
        where = f"/mix/lines/{at}"
        ingredient = ingredient_of(pantry, line.ingredient, field=f"{where}/ingredient")
        if line.ingredient in seen:
            raise OutOfRangeError(f"{ingredient.name} is named twice; put the two amounts together.", field=where)
        seen.add(line.ingredient)
        if ingredient.group == "salt":
            raise OutOfRangeError(
                f"{ingredient.name} has its own place: say how much salt in all.", field=f"{where}/ingredient"
            )
        if not 0.0 <= line.per_meat_frac <= MOST_PER_MEAT:
            raise OutOfRangeError(
                f"{ingredient.name}: from nothing to {MOST_PER_MEAT:.0f} times the meat.",
                field=f"{where}/per_meat_frac",
            )
        if line.temp_c is not None and not -30.0 <= line.temp_c <= 100.0:
            raise OutOfRangeError(f"{ingredient.name} goes in at −30 to 100 °C.", field=f"{where}/temp_c")
        found.append(Entering(line, ingredient))
    return tuple(found)


def line_figures(entered: Sequence[Entering], *, meat_mass_g: float) -> tuple[LineFigures, ...]:
    """Every line in grams for a mass of meat: m = per_meat_frac × meat.

    Parameters
    ----------
    entered : Sequence[Entering]
        The lines of the mix with their ingredients.
    meat_mass_g : float
        Meat mass, g.

    Returns
    -------
    tuple[LineFigures, ...]
        Each: one ingredient in the mix.
    """
    return tuple(_figures(e, meat_mass_g) for e in entered)


def _figures(entered: Entering, meat_mass_g: float) -> LineFigures:
    line, ingredient = entered.line, entered.ingredient
    mass = line.per_meat_frac * meat_mass_g
    return LineFigures(
        ingredient=ingredient.key,
        name=ingredient.name,
        group=entered.group,
        house=ingredient.house is not None,
        per_meat_frac=line.per_meat_frac,
        mass_g=mass,
        low_g=mass * max(0.0, 1.0 - line.uncertainty_frac),
        high_g=mass * (1.0 + line.uncertainty_frac),
        salt_g=mass * ingredient.composition.salt_frac(),
        temp_c=line_temp_c(entered),
        locked=line.locked,
        counted=line.counted,
        filling=line.filling,
        cost=Decimal(repr(mass)) / 1000 * ingredient.price_per_kg,
        remark=ingredient.remark,
        unsure=2.0 * line.uncertainty_frac > UNSURE_FRAC,
    )


def line_temp_c(entered: Entering) -> float:
    """The temperature a line goes in at: what the cook says, else where the ingredient usually stands.

    Parameters
    ----------
    entered : Entering
        A line of the mix with its ingredient.

    Returns
    -------
    float
        Temperature at which the line goes in, °C.
    """
    return entered.ingredient.temp_c if entered.line.temp_c is None else entered.line.temp_c


def per_meat(entered: Sequence[Entering], *groups: Group) -> float:
    """Mass of some groups together by the mass of the meat; of everything when no group is named.

    Parameters
    ----------
    entered : Sequence[Entering]
        The lines of the mix with their ingredients.
    *groups : Group
        Groups.

    Returns
    -------
    float
        Mass of some groups together by the mass of the meat.
    """
    return sum(e.line.per_meat_frac for e in entered if not groups or e.group in groups)
