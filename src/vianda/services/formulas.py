"""Keep, change, version, export and import formulas."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

from vianda.core.editing.apply_edit import checked_name
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.evaluation.evaluate import evaluate
from vianda.core.heat.methods import lacking
from vianda.core.inventory.inventory import Inventory, Meat
from vianda.core.inventory.pantry import Ingredient
from vianda.core.inventory.plausible import check_composition
from vianda.core.model.formula import Formula
from vianda.core.reading.names import admitted_meat
from vianda.interchange.formula_file import FormulaBundle, read_file, write_file
from vianda.runtime.engine import ENGINE
from vianda.services.bench import context
from vianda.services.pantry import admit
from vianda.storage import formula_repository as repository
from vianda.storage.larder_repository import add_meats, create_lot
from vianda.storage.records import StoredFormula, StoredVersion
from vianda.storage.transaction import transaction


def get_formula(formula_id: int) -> StoredFormula:
    """One formula."""
    return repository.get_formula(formula_id)


def checked(formula: Formula) -> Formula:
    """A formula that can be evaluated here; refuses with the core's reason otherwise."""
    named = replace(formula, name=checked_name(formula.name))
    inventory, kitchen = context()
    evaluate(named, inventory=inventory, kitchen=kitchen, engine=ENGINE)
    return named


def create_formula(formula: Formula) -> StoredFormula:
    """Add a formula after checking that it can be evaluated."""
    with transaction():
        return repository.create_formula(checked(formula))


def copy_formula(formula_id: int) -> StoredFormula:
    """Another formula like it, under a name of its own."""
    with transaction():
        formula = repository.get_formula(formula_id).formula
        return repository.create_formula(replace(formula, name=repository.free_name(formula.name)))


def save_formula(formula_id: int, formula: Formula, *, revision: int) -> StoredFormula:
    """Save over the revision the cook saw."""
    with transaction():
        return repository.save_formula(formula_id, checked(formula), revision=revision)


def delete_formula(formula_id: int) -> None:
    """Put a formula away; its logbook entries stay."""
    with transaction():
        repository.delete_formula(formula_id)


def restore_formula(formula_id: int) -> StoredFormula:
    """Bring an archived formula back."""
    with transaction():
        return repository.restore_formula(formula_id)


def keep_version(formula_id: int, *, name: str) -> StoredVersion:
    """Keep this one, under a name."""
    with transaction():
        return repository.keep_version(formula_id, name=checked_name(name))


def list_versions(formula_id: int) -> list[StoredVersion]:
    """The kept versions, newest first."""
    return repository.list_versions(formula_id)


def export_formula(formula_id: int) -> tuple[str, dict[str, Any]]:
    """The formula's name and its file content, which stands alone."""
    stored = repository.get_formula(formula_id)
    inventory, kitchen = context()
    return stored.formula.name, write_file(FormulaBundle(stored.formula, inventory, kitchen))


@dataclass(frozen=True, slots=True)
class Imported:
    """What an import did: the formula, meats and ingredients added, meats known here with other figures (ours stay).

    ``renamed``: names and aliases that gave way to what they mean here, in words.
    """

    stored: StoredFormula
    meats_added: tuple[str, ...]
    meats_differing: tuple[str, ...]
    replaced: tuple[str, ...]
    renamed: tuple[str, ...] = ()

    def remarks(self) -> list[str]:
        """The same in sentences."""
        found = [f"New in the larder: {', '.join(self.meats_added)}."] if self.meats_added else []
        if self.meats_differing:
            found.append(f"Known here with other figures, and ours were kept: {', '.join(self.meats_differing)}.")
        if self.replaced:
            found.append(f"Not in this kitchen, so ours took its place: {', '.join(self.replaced)}.")
        return [*found, *self.renamed]


def import_formula(content: object) -> Imported:
    """Add a formula from a file. Unknown meats join the larder; an unknown bun or surface gives way to ours."""
    return take_in(read_file(content))


def take_in(bundle: FormulaBundle) -> Imported:
    """Add the formula of a bundle, as ``import_formula`` does."""
    with transaction():
        inventory, kitchen = context()
        added: list[Meat] = []
        renamed: list[str] = []
        differing: list[str] = []
        for part in bundle.formula.parts:
            theirs = bundle.inventory.meat(part.meat, field="/larder")
            if theirs.key not in inventory.meats:
                check_composition(theirs.composition, meat=True, field="/larder")
                came, changes = admitted_meat(theirs, meats=inventory.meats)
                added.append(came)
                renamed += changes
            elif inventory.meats[theirs.key] != theirs:
                differing.append(theirs.name)
        add_meats(added)
        things = _new_ingredients(bundle, inventory)
        renamed += admit(things)
        for part in bundle.formula.parts:
            if part.lot and part.lot not in inventory.lots:
                create_lot(bundle.inventory.lot(part.lot, meat=part.meat, field="/lots"))
        formula, replaced = fitted(bundle.formula, kitchen)
        stored = repository.create_formula(checked(formula))
    names = [*(m.name for m in added), *(i.name for i in things)]
    return Imported(stored, tuple(names), tuple(differing), tuple(replaced), tuple(renamed))


def fitted(formula: Formula, kitchen: Kitchen) -> tuple[Formula, list[str]]:
    """A formula as this kitchen can make it, and what of it gave way to what is here."""
    replaced = []
    if all(b.key != formula.shape.bun for b in kitchen.buns):
        formula = replace(formula, shape=replace(formula.shape, bun=kitchen.buns[0].key))
        replaced.append("bun")
    if all(s.key != formula.heat.surface for s in kitchen.surfaces):
        formula = replace(formula, heat=replace(formula.heat, surface=kitchen.surfaces[0].key))
        replaced.append("surface")
    if formula.grind.tool and all(g.key != formula.grind.tool for g in kitchen.grinders):
        formula = replace(formula, grind=replace(formula.grind, tool=""))
        replaced.append("grinder")
    if formula.shape.mould and all(w.key != formula.shape.mould for w in kitchen.moulds):
        formula = replace(formula, shape=replace(formula.shape, mould=""))
        replaced.append("mould")
    if lacking(formula.heat, kitchen):
        formula = replace(formula, heat=replace(formula.heat, method="", stages=()))
        replaced.append("way of cooking")
    return formula, replaced


def _new_ingredients(bundle: FormulaBundle, inventory: Inventory) -> list[Ingredient]:
    """What a file brings that this pantry does not hold, as it was written down there."""
    return [i for key, i in bundle.inventory.pantry.items() if key not in inventory.pantry]
