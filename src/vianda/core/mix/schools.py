"""Which school of mixing a mix resembles, and how to move it to another in one step.

Source: common practice, no published source (``data/mix_schools.toml``); the scales of the distance are ours.
"""

from __future__ import annotations

import tomllib
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cache
from importlib.resources import files
from typing import Literal

from vianda.core.basis.errors import UnknownItemError
from vianda.core.batch.lines import Entering, entering, per_meat
from vianda.core.inventory.inventory import Inventory
from vianda.core.inventory.pantry import Ingredient
from vianda.core.mix.panade import as_milk_frac
from vianda.core.model.formula import BlendPart, Dish, Formula, MixLine, SaltPlace

SchoolRange = tuple[float, float]
BandGroup = Literal["crumb", "bread", "starch", "liquid", "egg", "white", "cheese", "onion", "tomato"]
BAND_GROUPS: tuple[BandGroup, ...] = BandGroup.__args__  # type: ignore[attr-defined]
TITLES: Mapping[BandGroup, str] = {
    "crumb": "Dry crumb",
    "bread": "Fresh bread",
    "starch": "Rice, potato, flour",
    "liquid": "Liquid, as milk",
    "egg": "Egg and yolk",
    "white": "Egg white",
    "cheese": "Cheese",
    "onion": "Onion",
    "tomato": "Tomato",
}
# How far outside its band a group is one whole step of unlikeness, by mass of the meat (ours).
_SCALE: Mapping[BandGroup, float] = {
    "crumb": 0.04,
    "bread": 0.05,
    "starch": 0.08,
    "liquid": 0.08,
    "egg": 0.05,
    "white": 0.03,
    "cheese": 0.05,
    "onion": 0.08,
    "tomato": 0.50,
}
_UNUSED: Mapping[BandGroup, SchoolRange] = {group: (0.0, 0.06 if group == "onion" else 0.0) for group in BAND_GROUPS}
PLACE_STEP = 0.75
SPECIES_SCALE = 0.25
# Less unlike than this is "as the school does"; more than this is "no school that we know" (ours).
NEAR, FAR = 1e-9, 4.0


@dataclass(frozen=True, slots=True)
class MixSchool:
    """A school: its bands by mass of the meat (0–1), what it puts in, where its salt goes, and why it does so.

    ``species_mixed``: at least so much of the meat is not beef. ``clears``: nothing stays in that is not locked.
    """

    key: str
    title: str
    dishes: tuple[Dish, ...]
    why: str
    bands: Mapping[BandGroup, SchoolRange]
    named: frozenset[BandGroup]
    lines: tuple[tuple[str, float], ...]
    salt_place: SaltPlace
    salt_frac: float
    species_mixed: float
    clears: bool

    def band(self, group: BandGroup) -> SchoolRange:
        """The band of a group; what the school does not use is (0, 0).

        Parameters
        ----------
        group : BandGroup
            Group of the mix.

        Returns
        -------
        SchoolRange
            The band of a group.
        """
        return self.bands[group]


@dataclass(frozen=True, slots=True)
class Misfit:
    """A group outside a school's band: how much is in, and the band, by mass of the meat."""

    group: BandGroup
    value_frac: float
    low_frac: float
    high_frac: float


@dataclass(frozen=True, slots=True)
class Likeness:
    """A school with how unlike it the mix is (0: within all of its bands) and where it differs."""

    key: str
    title: str
    distance: float
    misfits: tuple[Misfit, ...]


@dataclass(frozen=True, slots=True)
class Resemblance:
    """The nearest school, or none when the mix is unlike all of them; every school of the dish, nearest first."""

    nearest: str
    title: str
    exact: bool
    all: tuple[Likeness, ...]


@cache
def mix_schools() -> Mapping[str, MixSchool]:
    """Every school of mixing by key, in the order a cook is offered them.

    Returns
    -------
    Mapping[str, MixSchool]
        Every school of mixing by key, in the order a cook is offered them.
    """
    text = (files("vianda.core.mix") / "data" / "mix_schools.toml").read_text(encoding="utf-8")
    return {
        row["key"]: MixSchool(
            key=row["key"],
            title=row["title"],
            dishes=tuple(row["dishes"]),
            why=row["why"],
            bands={**_UNUSED, **{group: (low / 100.0, high / 100.0) for group, (low, high) in row["bands"].items()}},
            named=frozenset(row["bands"]),
            lines=tuple((key, per / 100.0) for key, per in row["lines"]),
            salt_place=row["salt"]["place"],
            salt_frac=row["salt"]["frac"],
            species_mixed=row.get("species_mixed", 0.0),
            clears=row.get("clears", False),
        )
        for row in tomllib.loads(text)["school"]
    }


def schools_for(dish: Dish) -> tuple[MixSchool, ...]:
    """The schools of a dish, its start first.

    Parameters
    ----------
    dish : Dish
        Kind of dish.

    Returns
    -------
    tuple[MixSchool, ...]
        Each: a school.
    """
    return tuple(s for s in mix_schools().values() if dish in s.dishes)


def mix_school(key: str, *, field: str = "") -> MixSchool:
    """The school of that key, or ``UnknownItemError``.

    Parameters
    ----------
    key : str
        Key of the thing, in small letters and hyphens.
    field : str, default ''
        JSON pointer named in a refusal, such as ``/shape/bun``; "" for none.

    Returns
    -------
    MixSchool
        A school.

    Raises
    ------
    UnknownItemError
        No school of mixing “…”.
    """
    try:
        return mix_schools()[key]
    except KeyError:
        raise UnknownItemError(f"No school of mixing “{key[:60]}”.", field=field) from None


def group_amounts(entered: Sequence[Entering]) -> dict[BandGroup, float]:
    """Each group by mass of the meat; liquid computed as milk by the water it brings.

    Parameters
    ----------
    entered : Sequence[Entering]
        The lines of the mix with their ingredients.

    Returns
    -------
    dict[BandGroup, float]
        Each group by mass of the meat.
    """
    amounts = {group: per_meat(entered, group) for group in BAND_GROUPS}
    amounts["liquid"] = sum(e.line.per_meat_frac * as_milk_frac(e.ingredient) for e in entered if e.group == "liquid")
    return amounts


def _outside(value: float, band: SchoolRange) -> float:
    return max(0.0, band[0] - value, value - band[1])


def _likeness(school: MixSchool, amounts: Mapping[BandGroup, float], place: SaltPlace, not_beef: float) -> Likeness:
    distance, misfits = 0.0, []
    for group in BAND_GROUPS:
        low, high = school.band(group)
        off = _outside(amounts[group], (low, high))
        # What a band's edge means is the band itself: float dust is not outside.
        if off > 1e-9:
            distance += off / _SCALE[group]
            misfits.append(Misfit(group, amounts[group], low, high))
    if place not in ("none", school.salt_place):
        distance += PLACE_STEP
    distance += max(0.0, school.species_mixed - not_beef) / SPECIES_SCALE
    return Likeness(school.key, school.title, distance, tuple(misfits))


def _off_centre(school: MixSchool, amounts: Mapping[BandGroup, float]) -> float:
    return sum(
        abs(amounts[g] - (school.band(g)[0] + school.band(g)[1]) / 2) / _SCALE[g]
        for g in BAND_GROUPS
        if g in school.named
    )


def resembles(
    dish: Dish, entered: Sequence[Entering], *, place: SaltPlace, parts: Sequence[BlendPart], inventory: Inventory
) -> Resemblance:
    """Which school of its dish a mix resembles.

    Distance = Σ over groups of (mass outside the band ÷ the group's scale) + ¾ when the salt goes elsewhere + what is
    short of other species ÷ ¼. The smallest wins; between two that fit wholly, the one whose bands are centred nearer;
    then the one named first. The same mix always gets the same answer.

    Parameters
    ----------
    dish : Dish
        Kind of dish.
    entered : Sequence[Entering]
        The lines of the mix with their ingredients.
    place : SaltPlace
        Where the salt goes.
    parts : Sequence[BlendPart]
        Meats with their shares.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.

    Returns
    -------
    Resemblance
        The nearest school, or none when the mix is unlike all of them.

    References
    ----------
    Bands: common practice, no published source. Scales of the distance: ours.

    Examples
    --------
    >>> from vianda.core.inventory.inventory import starter_inventory
    >>> r = resembles("burger", (), place="surface", parts=(BlendPart("chuck", 1.0),), inventory=starter_inventory())
    >>> r.nearest, r.exact
    ('purist', True)
    """
    amounts = group_amounts(entered)
    not_beef = sum(p.share_frac for p in parts if inventory.meat(p.meat).species != "beef")
    schools = schools_for(dish)
    ranked = sorted(
        ((_likeness(s, amounts, place, not_beef), at, s) for at, s in enumerate(schools)),
        key=lambda found: (round(found[0].distance, 9), round(_off_centre(found[2], amounts), 9), found[1]),
    )
    best = ranked[0][0]
    known = best.distance <= FAR
    return Resemblance(
        nearest=best.key if known else "",
        title=best.title if known else "no school that is known here",
        exact=best.distance <= NEAR,
        all=tuple(found[0] for found in ranked),
    )


def follow_mix(formula: Formula, school: MixSchool, *, inventory: Inventory) -> Formula:
    """The formula with its mix moved to a school in one step.

    Locked lines stay as they are, and what they bring to a group is taken off what the school would put in. Unlocked
    lines of groups the school speaks of, or of the same ingredient, give way; seasonings of others stay, unless the
    school clears the bowl. Salt goes where the school puts it, as much as it wants.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    school : MixSchool
        The school.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.

    Returns
    -------
    Formula
        The changed formula.

    Examples
    --------
    A dry loaf with a locked egg line becomes a panade loaf with that egg line untouched.
    """
    entered = entering(formula.mix.lines, pantry=inventory.pantry)
    # What lies whole in the middle is no matter of the school.
    kept = [e for e in entered if e.line.locked or e.line.filling]
    spoken: set[str] = set(BAND_GROUPS)
    wanted = {key: per for key, per in school.lines if key in inventory.pantry}
    stays = (
        []
        if school.clears
        else [
            e
            for e in entered
            if not (e.line.locked or e.line.filling) and e.group not in spoken and e.ingredient.key not in wanted
        ]
    )
    lines = [e.line for e in kept]
    for key, per in wanted.items():
        if all(e.ingredient.key != key for e in kept):
            per_kept = _after_kept(inventory.pantry[key], per, wanted, kept, inventory)
            if per_kept > 1e-9:
                # Eggs stay whole unless the cook weighs them.
                counted = inventory.pantry[key].group in ("egg", "white")
                lines.append(MixLine(key, per_kept, counted=counted))
    lines += [e.line for e in stays]
    return replace(
        formula,
        mix=replace(formula.mix, lines=tuple(lines)),
        seasoning=replace(formula.seasoning, salt_place=school.salt_place, salt_frac=school.salt_frac),
    )


def _after_kept(
    ingredient: Ingredient, per: float, wanted: Mapping[str, float], kept: Sequence[Entering], inventory: Inventory
) -> float:
    """What is left to put in of one line when locked lines already bring some of its group."""
    group = ingredient.group
    if group not in BAND_GROUPS:
        return per
    whole = sum(p for key, p in wanted.items() if inventory.pantry[key].group == group)
    brought = sum(e.line.per_meat_frac for e in kept if e.group == group)
    return per * max(0.0, whole - brought) / whole
