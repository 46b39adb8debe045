"""Schools of sauce, and where a sauce lies in the bands of one.

Source: common practice, no published source (``data/sauce_schools.toml``).
"""

from __future__ import annotations

import tomllib
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from typing import Literal

from vianda.core.basis.errors import UnknownItemError
from vianda.core.model.formula import Role
from vianda.core.sauce.tastes import TASTES, Taste, TasteName

ROLES: Mapping[Role, str] = {
    "burger-sauce": "Burger sauce",
    "glaze": "Glaze",
    "cooking-sauce": "Cooking sauce",
    "sauce-base": "Base of a meat sauce",
    "gravy": "Gravy",
    "relish": "Relish",
    "pickle": "Pickle",
    "ferment": "Ferment",
    "soft-onions": "Soft onions",
    "side": "Side",
    "topping": "Topping",
}
Where = Literal["below", "within", "above"]


@dataclass(frozen=True, slots=True)
class SauceSchool:
    """A school: for which roles, its bands per 100 g, the grams it starts from and what of them is left."""

    key: str
    title: str
    roles: tuple[Role, ...]
    why: str
    bands: Mapping[TasteName, tuple[float, float]]
    lines: tuple[tuple[str, float], ...]
    left_frac: float


@dataclass(frozen=True, slots=True)
class AgainstBand:
    """One taste beside its band: below, within or above it, and by how much it is outside, per 100 g."""

    taste: TasteName
    value: float
    low: float
    high: float
    where: Where
    outside: float


@cache
def sauce_schools() -> Mapping[str, SauceSchool]:
    """Every school by key; the first of a role is where it starts.

    Returns
    -------
    Mapping[str, SauceSchool]
        Schools by key.

    Examples
    --------
    >>> sauce_schools()["loaf-glaze"].roles
    ('glaze',)
    """
    text = (files("vianda.core.sauce") / "data" / "sauce_schools.toml").read_text(encoding="utf-8")
    return {
        row["key"]: SauceSchool(
            row["key"],
            row["title"],
            tuple(row["roles"]),
            row["why"],
            {
                name: (float(row["bands"][name][0]), float(row["bands"][name][1]))
                for name in TASTES
                if name in row["bands"]
            },
            tuple((key, float(grams)) for key, grams in row["lines"]),
            float(row.get("left_frac", 1.0)),
        )
        for row in tomllib.loads(text)["school"]
    }


def sauce_school(key: str) -> SauceSchool:
    """One school.

    Parameters
    ----------
    key : str
        Its key.

    Returns
    -------
    SauceSchool
        The school.

    Raises
    ------
    UnknownItemError
        When there is no such school.
    """
    try:
        return sauce_schools()[key]
    except KeyError:
        raise UnknownItemError(
            f"No school of sauce “{key[:60]}”; known are {', '.join(sauce_schools())}.", field="/school"
        ) from None


def against(taste: Taste, school: SauceSchool) -> tuple[AgainstBand, ...]:
    """Each banded taste of a sauce beside a school's band.

    Parameters
    ----------
    taste : Taste
        The sauce.
    school : SauceSchool
        The school.

    Returns
    -------
    tuple[AgainstBand, ...]
        In the order of the tastes.
    """
    found = []
    for name, (low, high) in school.bands.items():
        value = taste.of(name)
        where: Where = "below" if value < low else "above" if value > high else "within"
        found.append(AgainstBand(name, value, low, high, where, max(low - value, value - high, 0.0)))
    return tuple(found)


def nearest_school(taste: Taste, role: Role) -> SauceSchool | None:
    """The school of a role whose bands a sauce misses least, each by the width of its own band.

    Parameters
    ----------
    taste : Taste
        The sauce.
    role : Role
        What it is for.

    Returns
    -------
    SauceSchool | None
        The nearest; None where the role has no schools.
    """

    def missed(school: SauceSchool) -> float:
        return sum(b.outside / max(b.high - b.low, 1e-9) for b in against(taste, school))

    return min((s for s in sauce_schools().values() if role in s.roles), key=missed, default=None)
