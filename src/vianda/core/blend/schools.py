"""Schools of blending: the usual blend of each, and a formula made to follow one.

Source: common practice, no published source. The schools are in ``data/schools.toml``.
"""

from __future__ import annotations

import math
import tomllib
from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import cache
from importlib.resources import files

from vianda.core.basis.errors import InfeasibleBlendError, UnknownItemError
from vianda.core.inventory.inventory import Inventory
from vianda.core.model.formula import MOST_MEATS, BlendPart

Parts = tuple[BlendPart, ...]


@dataclass(frozen=True, slots=True)
class School:
    """A school: its usual blend (meat, share 0–1) and why cooks follow it."""

    key: str
    title: str
    why: str
    parts: tuple[tuple[str, float], ...]


@cache
def all_schools() -> Mapping[str, School]:
    """Every school by key, in the order they are offered.

    Returns
    -------
    Mapping[str, School]
        Every school by key, in the order they are offered.
    """
    text = (files("vianda.core.blend") / "data" / "schools.toml").read_text(encoding="utf-8")
    rows = tomllib.loads(text)["school"]
    return {
        row["key"]: School(row["key"], row["title"], row["why"], tuple((str(m), float(s)) for m, s in row["parts"]))
        for row in rows
    }


def school_of(key: str, *, field: str = "") -> School:
    """The school of that key, or ``UnknownItemError``.

    Parameters
    ----------
    key : str
        Key of the thing, in small letters and hyphens.
    field : str, default ''
        JSON pointer named in a refusal, such as ``/shape/bun``; "" for none.

    Returns
    -------
    School
        A school.

    Raises
    ------
    UnknownItemError
        No school “…”; known are ….
    """
    try:
        return all_schools()[key]
    except KeyError:
        raise UnknownItemError(f"No school “{key[:60]}”; known are {', '.join(all_schools())}.", field=field) from None


def follow(school: School, parts: Parts, *, inventory: Inventory) -> Parts:
    """The school's blend, with what the cook locked kept as it stands; the school fills the rest.

    Parameters
    ----------
    school : School
        The school.
    parts : Parts
        Meats with their shares.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.

    Returns
    -------
    Parts
        The school's blend, with what the cook locked kept as it stands.

    Raises
    ------
    InfeasibleBlendError
        When everything is locked, the blend would have too many meats, or the larder lacks one.

    References
    ----------
    Common practice, no published source.

    Examples
    --------
    >>> from vianda.core.inventory.inventory import starter_inventory
    >>> locked = (BlendPart("sirloin", 0.2, locked=True), BlendPart("chuck", 0.8))
    >>> followed = follow(school_of("all-chuck"), locked, inventory=starter_inventory())
    >>> [(p.meat, round(p.share_frac, 2)) for p in followed]
    [('sirloin', 0.2), ('chuck', 0.8)]
    """
    kept = tuple(p for p in parts if p.locked)
    room = 1.0 - math.fsum(p.share_frac for p in kept)
    fresh = [(meat, share) for meat, share in school.parts if all(p.meat != meat for p in kept)]
    for meat, _ in fresh:
        inventory.meat(meat, field="/parts")
    if room <= 1e-9 or not fresh:
        raise InfeasibleBlendError("The locked meats fill the whole blend: unlock one first.", field="/parts")
    if len(kept) + len(fresh) > MOST_MEATS:
        raise InfeasibleBlendError(f"With the locked ones that is more than {MOST_MEATS} meats.", field="/parts")
    whole = math.fsum(share for _, share in fresh)
    lots = {p.meat: p.lot for p in parts}
    filled = [BlendPart(meat, share / whole * room, lot=lots.get(meat, "")) for meat, share in fresh]
    rest = 1.0 - math.fsum(p.share_frac for p in (*kept, *filled[:-1]))
    filled[-1] = replace(filled[-1], share_frac=max(0.0, rest))
    return (*kept, *filled)
