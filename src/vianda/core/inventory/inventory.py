"""The larder: the meats a cook can reach for, with composition, fat range and price."""

from __future__ import annotations

import csv
import math
import re
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from decimal import Decimal
from functools import cache
from importlib.resources import files
from typing import Annotated, Literal

from annotated_types import Ge, Le, Len

from vianda.core.basis.bounds import Key, Name, Price, Share, ShortText
from vianda.core.basis.errors import OutOfRangeError, UnknownItemError
from vianda.core.inventory.composition import Composition, remembered_composition, sr28_composition, sr28_name
from vianda.core.inventory.evidence import MEASURED, Evidence, updated
from vianda.core.inventory.fat_range import FatRange
from vianda.core.inventory.house import with_house_made
from vianda.core.inventory.lot import Lot
from vianda.core.inventory.pantry import Ingredient, Pantry, starter_pantry

Species = Literal["beef", "pork", "veal", "lamb", "turkey", "chicken", "venison"]
MeatKind = Literal["cut", "trim", "ground", "fat", "offal"]
Connective = Literal["low", "medium", "high", "fat"]
UNKNOWN_MINCE, FAT_SAID = "mince-unknown", "-fat-"
# What a fat content said may be off, by mass (ours: as the labels of the starter larder).
SAID_POINTS = 0.02
POULTRY: frozenset[Species] = frozenset({"turkey", "chicken"})
# What a knife trims; what is ground or rendered elsewhere does not follow it.
TRIMMED: frozenset[MeatKind] = frozenset({"cut", "trim"})


@dataclass(frozen=True, slots=True)
class Meat:
    """One meat or fat as bought.

    ``fat_low_frac`` to ``fat_high_frac`` is read as the range that holds nine deliveries in ten;
    ``fat_usual_frac`` is what we compute with. All are mass of fat by mass of raw meat, 0–1.
    ``kind`` "fat" marks added fat: it may go into hamburger but not into ground beef (9 CFR 319.15).
    ``connective`` is the class of connective tissue ("fat" for pieces of fat, whose little protein is mostly
    collagen). ``price_per_kg`` is paid for the meat as bought; ``trim_loss_frac`` of that is bone, silverskin and
    purge. ``pack_mass_g`` 0 means sold loose. A retired meat is not offered any more but still serves old formulas.
    ``composition_note`` names the SR28 row, or says "from memory".
    """

    key: Key
    name: Name
    species: Species
    kind: MeatKind
    composition: Composition
    composition_note: Annotated[str, Len(0, 300)]
    fat_low_frac: Share
    fat_usual_frac: Share
    fat_high_frac: Share
    price_per_kg: Price
    range_source: ShortText
    remark: Annotated[str, Len(0, 500)] = ""
    connective: Connective = "medium"
    cured: bool = False
    trim_loss_frac: Annotated[float, Ge(0), Le(0.9)] = 0.0
    pack_mass_g: Annotated[float, Ge(0), Le(50_000)] = 0.0
    retired: bool = False

    def __post_init__(self) -> None:
        if not 0.0 <= self.fat_low_frac <= self.fat_usual_frac <= self.fat_high_frac <= 1.0:
            raise OutOfRangeError(
                f"{self.name}: the fat range must rise from low over usual to high, all within 0 to 100 %."
            )
        if self.price_per_kg < 0:
            raise OutOfRangeError(f"{self.name}: a price cannot be below zero.")
        if not 0.0 <= self.trim_loss_frac <= 0.9:
            raise OutOfRangeError(f"{self.name}: trimming takes 0 to 90 % of what is bought.")
        if not 0.0 <= self.pack_mass_g <= 50_000:
            raise OutOfRangeError(f"{self.name}: a pack weighs up to 50 kg; 0 means sold loose.")

    @property
    def labelled(self) -> bool:
        """Whether its name is a label's claim, so that its range is the label's error already."""
        return self.kind == "ground" and self.key.startswith("ground-")

    @property
    def fat(self) -> FatRange:
        """The range of fat that nine deliveries in ten fall into."""
        return FatRange(self.fat_low_frac, self.fat_usual_frac, self.fat_high_frac)

    def composition_at(self, fat_frac: float) -> Composition:
        """Composition at a fat content: the lean keeps its composition, fat takes its place.

        Each part but fat is multiplied by (1 − F) ÷ (1 − F of the analysis).

        Parameters
        ----------
        fat_frac : float
            Fat by mass, 0–1.

        Returns
        -------
        Composition
            Grams of each part in 100 g of the food as bought raw.
        """
        c = self.composition
        lean = 100.0 - c.fat_g_per_100g
        ratio = (1.0 - fat_frac) * 100.0 / lean if lean > 0 else 0.0
        return Composition(
            c.water_g_per_100g * ratio,
            c.protein_g_per_100g * ratio,
            fat_frac * 100.0,
            c.carbohydrate_g_per_100g * ratio,
            c.ash_g_per_100g * ratio,
            c.sodium_mg_per_100g * ratio,
            c.sugars_g_per_100g * ratio,
        )

    def protein_frac(self, fat_frac: float) -> float:
        """Protein 0–1 at a fat content: the lean keeps its composition, fat takes its place.

        Parameters
        ----------
        fat_frac : float
            Fat by mass, 0–1.

        Returns
        -------
        float
            Protein, 0–1.
        """
        lean = 100.0 - self.composition.fat_g_per_100g
        return self.composition.protein_g_per_100g / lean * (1.0 - fat_frac) if lean > 0 else 0.0


@dataclass(frozen=True, slots=True)
class Inventory:
    """All meats by key, the deliveries (lots) of them, and the pantry with its house formulas worked out.

    ``shared_trim_frac``: correlation of the fat of two cuts, 0–1, where one knife trims them. ``bought`` is how fat
    meats come to this kitchen by its own tests, where it uses that.
    """

    meats: Mapping[str, Meat]
    lots: Mapping[str, Lot] = field(default_factory=dict)
    pantry: Pantry = field(default_factory=dict)
    shared_trim_frac: float = 0.0
    bought: Mapping[str, FatRange] = field(default_factory=dict)

    @classmethod
    def of(
        cls, meats: Iterable[Meat], lots: Iterable[Lot] = (), pantry: Iterable[Ingredient] | None = None
    ) -> Inventory:
        """A larder from meats, lots and ingredients in any order; without ingredients named, the starter pantry.

        Parameters
        ----------
        meats : Iterable[Meat]
            The meats, in order.
        lots : Iterable[Lot], default ()
            Deliveries.
        pantry : Iterable[Ingredient] | None, default None
            Ingredients by key.

        Returns
        -------
        Larder
            All meats by key, the deliveries (lots) of them, and the pantry with its house formulas worked out.
        """
        held = starter_pantry() if pantry is None else {i.key: i for i in pantry}
        return cls({meat.key: meat for meat in meats}, {lot.key: lot for lot in lots}, with_house_made(held))

    def lot(self, key: str, *, meat: str, field: str = "") -> Lot:
        """The lot of that key, or ``UnknownItemError`` when it is not there or holds another meat.

        Parameters
        ----------
        key : str
            Key of the thing, in small letters and hyphens.
        meat : str
            Key of the meat.
        field : str, default ''
            JSON pointer named in a refusal, such as ``/shape/bun``; "" for none.

        Returns
        -------
        Lot
            A delivery.

        Raises
        ------
        UnknownItemError
            The larder holds no lot “…” of that meat.
        """
        lot = self.lots.get(key)
        if lot is None or lot.meat != meat:
            raise UnknownItemError(f"The larder holds no lot “{key[:60]}” of that meat.", field=field)
        return lot

    def fat_of(self, meat: str, lot: str = "") -> FatRange:
        """What is known of the fat: the meat's range, narrowed by the evidence on the lot when one is named.

        Parameters
        ----------
        meat : str
            Key of the meat.
        lot : str, default ''
            Key of the lot; "" for any.

        Returns
        -------
        FatRange
            Fat by mass of raw meat, 0–1.
        """
        here = self.meat(meat)
        evidence = self.lot(lot, meat=meat).evidence if lot else ()
        prior = self.untested(meat, evidence)
        fat = updated(prior, evidence)
        if self.shared_trim_frac == 0.0 or here.kind not in TRIMMED:
            return fat
        # An analysis of the lot leaves less to the knife; the butcher's own word is off by the same hand.
        measured = any(e.kind != "butcher" for e in evidence)
        left = min(1.0, fat.sd / prior.sd) if measured and prior.sd > 0.0 else 1.0
        return replace(fat, shared_frac=math.sqrt(self.shared_trim_frac) * left)

    def untested(self, meat: str, evidence: Sequence[Evidence] = ()) -> FatRange:
        """What is known of a delivery's fat before its own evidence.

        Parameters
        ----------
        meat : str
            Key of the meat.
        evidence : Sequence[Evidence], default ()
            What is known of the delivery.

        Returns
        -------
        FatRange
            As it comes to this kitchen, 0–1; the table's range where nothing was learnt, and for a delivery that was
            measured itself: it taught what was learnt, and counts once.
        """
        here = self.meat(meat)
        measured = any(e.kind in MEASURED for e in evidence)
        return here.fat if measured else self.bought.get(meat, here.fat)

    def bought_as(self, bought: Mapping[str, FatRange]) -> Inventory:
        """The same larder with how fat meats come to this kitchen.

        Parameters
        ----------
        bought : Mapping[str, FatRange]
            Fat by mass of raw meat, 0–1, by meat.

        Returns
        -------
        Inventory
            This one when nothing changes.
        """
        return self if bought == self.bought else replace(self, bought=dict(bought))

    def trimmed_by(self, shared_trim_frac: float) -> Inventory:
        """The same larder where the fat of two cuts correlates.

        Parameters
        ----------
        shared_trim_frac : float
            Correlation, a fraction from 0 (each cut on its own) to below 1.

        Returns
        -------
        Inventory
            This one when nothing changes.

        Examples
        --------
        >>> one_hand = starter_inventory().trimmed_by(0.6)
        >>> round(one_hand.fat_of("chuck").shared_frac, 3), one_hand.fat_of("ground-80").shared_frac
        (0.775, 0.0)
        """
        return self if shared_trim_frac == self.shared_trim_frac else replace(self, shared_trim_frac=shared_trim_frac)

    def price_of(self, meat: str, lot: str = "") -> Decimal:
        """Paid for a kilogram as bought: of the lot when one is named, else the meat's usual price.

        Parameters
        ----------
        meat : str
            Key of the meat.
        lot : str, default ''
            Key of the lot; "" for any.

        Returns
        -------
        Decimal
            Paid for a kilogram as bought.
        """
        return self.lot(lot, meat=meat).price_per_kg if lot else self.meat(meat).price_per_kg

    def meat(self, key: str, *, field: str = "") -> Meat:
        """The meat of that key, or ``UnknownItemError``.

        Parameters
        ----------
        key : str
            Key of the thing, in small letters and hyphens.
        field : str, default ''
            JSON pointer named in a refusal, such as ``/shape/bun``; "" for none.

        Returns
        -------
        Meat
            One meat or fat as bought.

        Raises
        ------
        UnknownItemError
            The larder holds no meat “…”.
        """
        meat = self.meats.get(key) or self._as_said(key)
        if meat is None:
            raise UnknownItemError(f"The larder holds no meat “{key[:60]}”.", field=field)
        return meat

    def _as_said(self, key: str) -> Meat | None:
        """A meat of the larder with a fat content that a cook said and no product here has: ``…-fat-22``."""
        base_key, mark, said = key.rpartition(FAT_SAID)
        base = self.meats.get(base_key)
        if not mark or base is None or not re.fullmatch(r"\d{1,2}(-\d)?", said):
            return None
        fat = float(said.replace("-", ".")) / 100.0
        lean = f"{100 * (1 - fat):.3g} lean / {100 * fat:.3g} fat"
        return replace(
            base,
            key=key,
            name=f"Ground beef {lean}" if base_key == UNKNOWN_MINCE else f"{base.name}, {100 * fat:.3g} % fat as said",
            composition=base.composition_at(fat),
            composition_note=f"{base.composition_note}; lean kept, fat as said"[:300],
            fat_low_frac=max(0.0, fat - SAID_POINTS),
            fat_usual_frac=fat,
            fat_high_frac=min(1.0, fat + SAID_POINTS),
            range_source="as said, ± 2 points as of a label",
        )

    def key_with_fat(self, key: str, fat_frac: float) -> str:
        """The key under which a meat is known with a fat content said: a label that says so, or the meat as said.

        Parameters
        ----------
        key : str
            Key of the meat.
        fat_frac : float
            Fat by mass, a fraction of 0.01 to 0.95.

        Returns
        -------
        str
            A key that ``meat`` answers to.

        Raises
        ------
        OutOfRangeError
            When the fat is not within 1 to 95 %.

        Examples
        --------
        >>> inventory = starter_inventory()
        >>> inventory.key_with_fat("mince-unknown", 0.20), inventory.key_with_fat("mince-unknown", 0.22)
        ('ground-80', 'mince-unknown-fat-22')
        """
        if not 0.01 <= fat_frac <= 0.95:
            raise OutOfRangeError("Meat has 1 to 95 % fat.", field="/parts")
        if key == UNKNOWN_MINCE:
            exact = [m for m in self.meats.values() if m.labelled and abs(m.fat_usual_frac - fat_frac) < 5e-4]
            if exact:
                return exact[0].key
        tenths = round(fat_frac * 1000)
        whole, part = divmod(tenths, 10)
        return f"{key}{FAT_SAID}{whole}" + (f"-{part}" if part else "")

    def label_for_fat(self, fat_frac: float) -> Meat:
        """The labelled ground beef nearest to a fat fraction.

        Raises ``UnknownItemError`` when the larder holds no labelled ground beef.

        Parameters
        ----------
        fat_frac : float
            Fat by mass, 0–1.

        Returns
        -------
        Meat
            One meat or fat as bought.

        Raises
        ------
        UnknownItemError
            The larder holds no ground beef with a label.
        """
        labelled = [m for m in self.meats.values() if m.labelled]
        if not labelled:
            raise UnknownItemError("The larder holds no ground beef with a label.")
        return min(labelled, key=lambda m: abs(m.fat_usual_frac - fat_frac))


@cache
def starter_inventory() -> Inventory:
    """The larder a new kitchen starts with.

    Composition from SR28; fat ranges of the beef cuts are common practice (no published source); prices are
    invented for the demo kitchen.

    Returns
    -------
    Larder
        All meats by key, the deliveries (lots) of them, and the pantry with its house formulas worked out.

    Examples
    --------
    >>> starter_inventory().meat("chuck").fat_usual_frac
    0.19
    """
    text = (files("vianda.core.inventory") / "data" / "starter_larder.csv").read_text(encoding="utf-8")
    return Inventory.of(_starter_meat(row) for row in csv.DictReader(text.splitlines()))


def _starter_meat(row: Mapping[str, str]) -> Meat:
    number = row["ndb_no"]
    if number == "memory":
        note, composition = remembered_composition(row["key"])
    else:
        note, composition = f"SR28 {number}: {sr28_name(number)}", sr28_composition(number)
    return Meat(
        key=row["key"],
        name=row["name"],
        species=row["species"],  # type: ignore[arg-type]
        kind=row["kind"],  # type: ignore[arg-type]
        composition=composition,
        composition_note=note,
        fat_low_frac=float(row["fat_low_frac"]),
        fat_usual_frac=float(row["fat_usual_frac"]),
        fat_high_frac=float(row["fat_high_frac"]),
        price_per_kg=Decimal(row["price_per_kg"]),
        range_source=row["range_source"],
        remark=row["remark"],
        connective=row["connective"],  # type: ignore[arg-type]
        cured=row["cured"] == "yes",
        trim_loss_frac=float(row["trim_loss_frac"]),
        pack_mass_g=float(row["pack_mass_g"]),
    )
