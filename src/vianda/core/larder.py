"""The larder: the meats a cook can reach for, with composition, fat range and price."""

from __future__ import annotations

import csv
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from decimal import Decimal
from functools import cache
from importlib.resources import files
from typing import Literal

from vianda.core.composition import Composition, sr28_composition, sr28_name
from vianda.core.errors import OutOfRangeError, UnknownItemError

Species = Literal["beef", "pork", "veal", "lamb", "turkey", "chicken"]
MeatKind = Literal["cut", "ground", "fat"]
POULTRY: frozenset[Species] = frozenset({"turkey", "chicken"})


@dataclass(frozen=True, slots=True)
class Meat:
    """One meat or fat as bought.

    ``fat_low_frac`` to ``fat_high_frac`` is read as the range that holds nine deliveries in ten;
    ``fat_usual_frac`` is what we reckon with. All are mass of fat by mass of raw meat, 0–1.
    ``kind`` "fat" marks added fat: it may go into hamburger but not into ground beef (9 CFR 319.15).
    ``composition_note`` names the SR28 row, or says "from memory".
    """

    key: str
    name: str
    species: Species
    kind: MeatKind
    composition: Composition
    composition_note: str
    fat_low_frac: float
    fat_usual_frac: float
    fat_high_frac: float
    price_per_kg: Decimal
    range_source: str
    remark: str = ""

    def __post_init__(self) -> None:
        if not 0.0 <= self.fat_low_frac <= self.fat_usual_frac <= self.fat_high_frac <= 1.0:
            raise OutOfRangeError(
                f"{self.name}: the fat range must rise from low over usual to high, all within 0 to 100 %."
            )
        if self.price_per_kg < 0:
            raise OutOfRangeError(f"{self.name}: a price cannot be below nought.")


@dataclass(frozen=True, slots=True)
class Larder:
    """All meats by key."""

    meats: Mapping[str, Meat]

    @classmethod
    def of(cls, meats: Iterable[Meat]) -> Larder:
        """A larder from meats in any order."""
        return cls({meat.key: meat for meat in meats})

    def meat(self, key: str, *, field: str = "") -> Meat:
        """The meat of that key, or ``UnknownItemError``."""
        try:
            return self.meats[key]
        except KeyError:
            raise UnknownItemError(f"The larder holds no meat “{key[:60]}”.", field=field) from None

    def label_for_fat(self, fat_frac: float) -> Meat:
        """The labelled ground beef nearest to a fat fraction.

        Raises ``UnknownItemError`` when the larder holds no labelled ground beef.
        """
        labelled = [m for m in self.meats.values() if m.kind == "ground" and m.key.startswith("ground-")]
        if not labelled:
            raise UnknownItemError("The larder holds no ground beef with a label.")
        return min(labelled, key=lambda m: abs(m.fat_usual_frac - fat_frac))


@cache
def starter_larder() -> Larder:
    """The larder a new kitchen starts with.

    Composition from SR28; fat ranges of the beef cuts are common practice (no published source); prices are
    invented for the demo kitchen.

    Examples
    --------
    >>> starter_larder().meat("chuck").fat_usual_frac
    0.19
    """
    text = (files("vianda.core") / "data" / "starter_larder.csv").read_text(encoding="utf-8")
    return Larder.of(
        Meat(
            key=row["key"],
            name=row["name"],
            species=row["species"],  # type: ignore[arg-type]
            kind=row["kind"],  # type: ignore[arg-type]
            composition=sr28_composition(row["ndb_no"]),
            composition_note=f"SR28 {row['ndb_no']}: {sr28_name(row['ndb_no'])}",
            fat_low_frac=float(row["fat_low_frac"]),
            fat_usual_frac=float(row["fat_usual_frac"]),
            fat_high_frac=float(row["fat_high_frac"]),
            price_per_kg=Decimal(row["price_per_kg"]),
            range_source=row["range_source"],
            remark=row["remark"],
        )
        for row in csv.DictReader(text.splitlines())
    )
