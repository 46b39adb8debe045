"""Meats and lots: add, correct, retire, take in and hand out as a file, and learn what is in a box."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace
from datetime import date
from typing import Literal

from vianda.core.basis.errors import CoreError, OutOfRangeError
from vianda.core.basis.units import UnitSystem
from vianda.core.basis.working import Working
from vianda.core.inventory.evidence import ROUGHNESS, Evidence, disagrees, evidence_of, update_working, updated
from vianda.core.inventory.fat_range import FatRange
from vianda.core.inventory.fat_test import FatTest, fat_test
from vianda.core.inventory.inventory import Inventory, Meat
from vianda.core.inventory.lot import Lot
from vianda.core.inventory.plausible import check_composition
from vianda.core.reading.entry import read_frac, read_mass_g
from vianda.core.reading.names import MeatNames, check_meat_name
from vianda.interchange.larder_csv import CsvRow, read_csv, write_csv
from vianda.services.bench import context
from vianda.services.breaking import Here, refuse_breaking_lot, refuse_breaking_meat
from vianda.services.row_report import RowReport
from vianda.storage import formula_repository
from vianda.storage import larder_repository as repository
from vianda.storage.larder_repository import StoredLot
from vianda.storage.records import StoredFormula
from vianda.storage.transaction import transaction

MOST_LOTS = 500


@dataclass(frozen=True, slots=True)
class Finding:
    """One piece of evidence: how rough its kind is, and whether it is unlike the meat's name."""

    evidence: Evidence
    roughness: str
    disagrees: bool


@dataclass(frozen=True, slots=True)
class KnownLot:
    """A lot with its revision, and the fat by its name and after its evidence."""

    revision: int
    lot: Lot
    prior: FatRange
    known: FatRange
    findings: tuple[Finding, ...]
    working: Working


def get_inventory() -> Inventory:
    """All meats and lots."""
    return repository.load_inventory()


def list_lots() -> list[KnownLot]:
    """All lots with what is known of them, open ones first, the one to be used up next before others."""
    inventory, _ = context()
    lots = [known(stored, inventory) for stored in repository.list_lots()]
    return sorted(lots, key=lambda k: (k.lot.closed, k.lot.use_by or date.max, k.lot.delivered, k.lot.key))


def known(stored: StoredLot, inventory: Inventory | None = None) -> KnownLot:
    """What a lot's evidence says."""
    held = inventory or context()[0]
    meat = held.meat(stored.lot.meat)
    findings = tuple(Finding(e, ROUGHNESS[e.kind], disagrees(meat.fat, e)) for e in stored.lot.evidence)
    evidence = stored.lot.evidence
    prior = held.untested(meat.key, evidence)
    return KnownLot(
        stored.revision, stored.lot, prior, updated(prior, evidence), findings, update_working(prior, evidence)
    )


def save_meat(meat: Meat, *, seen: Meat | None) -> Meat:
    """Add a meat, or write over the one that was seen."""
    with transaction():
        meats = repository.load_inventory().meats
        check_meat_name(meat, before=meats.get(meat.key), meats=meats)
        _check_parts(meat, before=meats.get(meat.key))
        refuse_breaking_meat(meat, context())
        return repository.save_meat(meat, seen=seen)


def _check_parts(meat: Meat, *, before: Meat | None) -> None:
    # What was kept of old stays as it is until somebody touches it.
    if before is None or meat.composition != before.composition:
        check_composition(meat.composition, meat=True, field="/meat/composition")


def add_lot(lot: Lot) -> KnownLot:
    """Write a delivery down under a key made from its meat and day."""
    with transaction():
        inventory = repository.load_inventory()
        inventory.meat(lot.meat, field="/lot/meat")
        if len(inventory.lots) >= MOST_LOTS:
            raise OutOfRangeError(f"The larder keeps at most {MOST_LOTS} lots.", field="/lot")
        key = _free_key(f"{lot.meat[:40]}-{lot.delivered}", inventory)
        return known(repository.create_lot(replace(lot, key=key)))


def _free_key(wanted: str, inventory: Inventory) -> str:
    base = re.sub(r"[^a-z0-9-]+", "-", wanted.lower()).strip("-") or "lot"
    key, at = base, 2
    while key in inventory.lots:
        key, at = f"{base}-{at}", at + 1
    return key


def save_lot(lot: Lot, *, revision: int) -> KnownLot:
    """Correct a lot over the revision seen. Its meat stays what it is."""
    with transaction():
        standing = repository.get_lot(lot.key)
        if standing.lot.meat != lot.meat:
            raise OutOfRangeError("A lot keeps its meat; close it and write a new one down.", field="/lot/meat")
        refuse_breaking_lot(lot)
        return known(repository.save_lot(lot, revision=revision))


def learn(lot_key: str, *, kind: Literal["label", "butcher", "laboratory"], fat: str, revision: int) -> KnownLot:
    """Add what a label, a butcher or a laboratory says of a lot's fat; ``fat`` as typed, per cent."""
    lot = repository.get_lot(lot_key).lot
    if kind == "label" and repository.load_inventory().meat(lot.meat).labelled:
        raise OutOfRangeError(
            "This meat goes by its label already, so the label is no news. Test it, or ask.", field="/kind"
        )
    return _add(lot_key, evidence_of(kind, read_frac(fat, field="/fat")), revision)


@dataclass(frozen=True, slots=True)
class TypedWeights:
    """The four weights of a fat test as typed."""

    raw: str
    lean: str
    fat: str
    liquid: str


def try_fat_test(weights: TypedWeights, *, unit_system: UnitSystem) -> FatTest:
    """What the weights say, before they are kept."""
    _, kitchen = context()

    def grams(text: str, name: str) -> float:
        return read_mass_g(text, unit_system=unit_system, field=f"/weights/{name}")

    return fat_test(
        raw_g=grams(weights.raw, "raw"),
        lean_g=grams(weights.lean, "lean"),
        fat_g=grams(weights.fat, "fat"),
        liquid_g=grams(weights.liquid or "0", "liquid"),
        step_g=kitchen.scale.step_g,
    )


def log_fat_test(lot_key: str, weights: TypedWeights, *, unit_system: UnitSystem, revision: int) -> KnownLot:
    """Keep a fat test as evidence on its lot."""
    return _add(lot_key, try_fat_test(weights, unit_system=unit_system).evidence(), revision)


def forget(lot_key: str, *, at: int, revision: int) -> KnownLot:
    """Take one finding back."""
    with transaction():
        lot = repository.get_lot(lot_key).lot
        if not 0 <= at < len(lot.evidence):
            raise OutOfRangeError("There is no such finding on this lot.", field="/at")
        less = replace(lot, evidence=(*lot.evidence[:at], *lot.evidence[at + 1 :]))
        refuse_breaking_lot(less)
        return known(repository.save_lot(less, revision=revision))


def _add(lot_key: str, evidence: Evidence, revision: int) -> KnownLot:
    with transaction():
        lot = repository.get_lot(lot_key).lot
        more = replace(lot, evidence=(*lot.evidence, evidence))
        refuse_breaking_lot(more)
        return known(repository.save_lot(more, revision=revision))


def export_csv() -> str:
    """All meats as a CSV file."""
    return write_csv(repository.load_inventory().meats.values())


def import_csv(text: str) -> list[RowReport]:
    """Take in every good row of a larder file; a bad one is refused with its reason and stops no other."""
    rows = read_csv(text)
    with transaction():
        taking = _Taking(context(), formula_repository.list_formulas())
        reports = [taking.take(row) for row in rows]
        repository.save_meats(taking.changes)
        return reports


class _Taking:
    """Rows taken in one after the other; what the first one was called, the next one may not be."""

    def __init__(self, here: Here, shelf: list[StoredFormula]) -> None:
        self._here, self._shelf = here, shelf
        self._names = MeatNames(here[0].meats)
        self.changes: list[tuple[Meat, Meat | None]] = []

    def take(self, row: CsvRow) -> RowReport:
        if row.meat is None:
            return RowReport(row.line, row.key, "refused", row.reason)
        # No key stands in a file twice.
        standing = self._here[0].meats.get(row.meat.key)
        if standing == row.meat:
            return RowReport(row.line, row.key, "unchanged", "")
        try:
            self._names.check(row.meat, before=standing)
            _check_parts(row.meat, before=standing)
            if standing is not None:
                refuse_breaking_meat(row.meat, self._here, shelf=self._shelf)
        except CoreError as refused:
            return RowReport(row.line, row.key, "refused", refused.detail)
        self._names.put(row.meat, before=standing)
        self.changes.append((row.meat, standing))
        return RowReport(row.line, row.key, "added" if standing is None else "corrected", "")
