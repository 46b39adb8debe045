"""How fat each cut comes to this kitchen, by the deliveries that were tested."""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import date

from vianda.core.basis import phrase as ph
from vianda.core.basis.band import Band
from vianda.core.basis.phrase import Phrase, say
from vianda.core.equipment.cut_fat import CutFat
from vianda.core.inventory.evidence import MEASURED, Evidence
from vianda.core.inventory.fat_range import Z_90, FatRange
from vianda.core.inventory.inventory import Inventory
from vianda.core.inventory.lot import Lot
from vianda.core.learning.effects import Seen, learn

# Of the variance of a cut's fat this share is from supplier to supplier, the rest from animal to animal. Ours, low.
SUPPLIER_SHARE = 0.5
# A range that moves no end by more than this says nothing new, fraction. Ours.
SAME_FRAC = 0.005
# Tested deliveries that count, the newest: suppliers change. Ours.
NEWEST = 40


@dataclass(frozen=True, slots=True)
class FatDatum:
    """A tested delivery: its fat and the error of its tests, 0–1; ``outlier``: it does not belong to the rest."""

    lot: str
    name: str
    delivered: date
    fat_frac: float
    sd_frac: float
    outlier: bool


@dataclass(frozen=True, slots=True)
class LearntFat:
    """The fat of one cut as it comes to this kitchen.

    Attributes
    ----------
    prior, posterior : Band
        Fat of a delivery nobody has tested, 0–1, nine in ten: by the table, and by the deliveries that were tested.
    in_use : Band | None
        What blends are reckoned with now, None for the table.
    news : bool
        Whether the posterior differs from what is in use by more than nothing.
    counted : int
        How many deliveries count.
    """

    meat: str
    name: str
    prior: Band
    posterior: Band
    in_use: Band | None
    news: bool
    counted: int
    data: tuple[FatDatum, ...]
    says: Phrase


def fats_of_cuts(inventory: Inventory, in_use: Iterable[CutFat]) -> tuple[LearntFat, ...]:
    """What the tested deliveries of each cut say of the next one.

    Parameters
    ----------
    inventory : Inventory
        The meats with the ranges of the tables, and the lots with their evidence.
    in_use : Iterable[CutFat]
        The ranges that blends are reckoned with now.

    Returns
    -------
    tuple[LearntFat, ...]
        By name, of each meat that a delivery of was measured. A label or a butcher's word is no test, and what goes by
        its label learns nothing of its suppliers.

    References
    ----------
    Normal means with known variances, two levels: Gelman et al., Bayesian Data Analysis, 5.4; textbook, from memory.
    The range of the table is the prior of the mean and of a delivery round it, by equal shares of the variance: ours.
    """
    used = {f.meat: Band(f.low_frac, f.usual_frac, f.high_frac) for f in in_use}
    by_meat: dict[str, list[Lot]] = {}
    for lot in inventory.lots.values():
        if any(e.kind in MEASURED for e in lot.evidence):
            by_meat.setdefault(lot.meat, []).append(lot)
    found = []
    for key, lots in by_meat.items():
        meat = inventory.meats.get(key)
        if meat is not None and not meat.labelled and meat.fat.sd > 0.0:
            found.append(_one(key, meat.name, meat.fat, lots, used.get(key)))
    return tuple(sorted(found, key=lambda f: f.name))


def _one(key: str, name: str, table: FatRange, lots: Sequence[Lot], in_use: Band | None) -> LearntFat:
    newest = sorted(lots, key=lambda lot: (lot.delivered, lot.key))[-NEWEST:]
    own_sd = table.sd * math.sqrt(1.0 - SUPPLIER_SHARE)
    tests = [_measured(lot.evidence) for lot in newest]
    seen = [Seen(fat - table.usual_frac, math.hypot(own_sd, sd), (key,)) for fat, sd in tests]
    after = learn(seen, {key: table.sd * math.sqrt(SUPPLIER_SHARE)})
    # What comes next differs from the mean as deliveries do; how far has turned out, too.
    next_one = after.next(key, sd=own_sd)
    mean = min(1.0, max(0.0, table.usual_frac + next_one.mean))
    posterior = Band(max(0.0, mean - Z_90 * next_one.sd), mean, min(1.0, mean + Z_90 * next_one.sd))
    prior = Band(table.low_frac, table.usual_frac, table.high_frac)
    data = tuple(
        FatDatum(lot.key, lot.name, lot.delivered, fat, sd, at in after.outliers)
        for at, (lot, (fat, sd)) in enumerate(zip(newest, tests, strict=True))
    )
    counted = len(newest) - len(after.outliers)
    news = any(abs(a - b) > SAME_FRAC for a, b in zip(_ends(posterior), _ends(in_use or prior), strict=True))
    return LearntFat(key, name, prior, posterior, in_use, news, counted, data, _says(posterior, prior, counted))


def _ends(band: Band) -> tuple[float, float, float]:
    return band.low, band.usual, band.high


def _measured(evidence: Iterable[Evidence]) -> tuple[float, float]:
    """All tests of one delivery together: their mean, weighted by what each is worth, and its error."""
    tests = list(dict.fromkeys(e for e in evidence if e.kind in MEASURED))
    weights = [1.0 / e.sd_frac**2 for e in tests]
    mean = sum(w * e.fat_frac for w, e in zip(weights, tests, strict=True)) / sum(weights)
    return mean, 1.0 / math.sqrt(sum(weights))


def _says(now: Band, table: Band, counted: int) -> Phrase:
    n = ph.count(counted)
    if not counted:
        return say("No delivery counts yet")
    off = now.usual - table.usual
    narrower = (now.high - now.low) / (table.high - table.low)
    word = "fatter" if off > 0 else "leaner"
    if abs(off) <= SAME_FRAC:
        return say("As fat as the table says, from {n} deliveries", n=n)
    tail = "; it may still be chance" if narrower > 0.8 and table.low < now.usual < table.high else ""
    by = ph.number(100.0 * abs(off))
    return say(f"{{by}} points {word} than the table says, from {{n}} deliveries{tail}", by=by, n=n)


def with_fat(fats: Iterable[CutFat], learnt: Mapping[str, LearntFat], meat: str, *, use: bool) -> tuple[CutFat, ...]:
    """The ranges in use with one put to use, or taken back to the table.

    Parameters
    ----------
    fats : Iterable[CutFat]
        Those in use.
    learnt : Mapping[str, LearntFat]
        What was learnt, by meat.
    meat : str
        Which meat.
    use : bool
        Whether blends are reckoned with what was learnt.

    Returns
    -------
    tuple[CutFat, ...]
        One a meat; unchanged where nothing was learnt of it and it is to be used.
    """
    others = tuple(f for f in fats if f.meat != meat)
    if not use:
        return others
    now = learnt.get(meat)
    if now is None:
        return tuple(fats)
    return (*others, CutFat(meat, *(round(x, 4) for x in _ends(now.posterior))))
