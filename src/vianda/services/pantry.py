"""The pantry: add, correct and retire ingredients, and the house formulas made of them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from vianda.core.basis.errors import CoreError, OutOfRangeError, UnreadableEntryError
from vianda.core.basis.units import UnitSystem
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.house import HouseFigures, all_house_figures, house_figures, needs, used_in, with_house_made
from vianda.core.inventory.inventory import Inventory
from vianda.core.inventory.pantry import Ingredient, Pantry
from vianda.core.inventory.plausible import check_composition
from vianda.core.reading.amount_entry import read_amount
from vianda.core.reading.names import PantryNames, admitted, check_names
from vianda.interchange.pantry_csv import PantryRow, pantry_csv, read_pantry_csv
from vianda.services.bench import context
from vianda.services.breaking import needed_by, refuse_breaking, refuse_breaking_ingredient
from vianda.services.row_report import RowReport
from vianda.storage import larder_repository as repository
from vianda.storage.formula_repository import list_formulas
from vianda.storage.larder_repository import StoredIngredient
from vianda.storage.records import StoredFormula
from vianda.storage.transaction import transaction

MOST_INGREDIENTS = 1000


@dataclass(frozen=True, slots=True)
class KnownIngredient:
    """An ingredient as it was written down, what a house formula comes to, and where it is used.

    ``problem`` says why a house formula cannot be worked out; it is left out of use then.
    """

    revision: int
    ingredient: Ingredient
    figures: HouseFigures | None
    problem: str
    in_house: tuple[str, ...]
    in_formulas: tuple[str, ...]


def list_pantry() -> list[KnownIngredient]:
    """The whole pantry with what its house formulas come to and where each thing is used."""
    stored = repository.list_ingredients()
    pantry = {s.ingredient.key: s.ingredient for s in stored}
    figures, refused = all_house_figures(pantry)
    users: dict[str, list[str]] = {}
    for formula in list_formulas():
        f = formula.formula
        entering = [line.ingredient for line in f.mix.lines]
        entering += [a.ingredient for a in f.beside] + [layer.ingredient for layer in f.stack]
        for thing in dict.fromkeys(entering):
            if thing in pantry:
                for key in needs(thing, pantry=pantry):
                    users.setdefault(key, []).append(f.name)
    return [
        KnownIngredient(
            s.revision,
            s.ingredient,
            figures.get(s.ingredient.key),
            refused[s.ingredient.key].detail if s.ingredient.key in refused else "",
            used_in(s.ingredient.key, pantry=pantry),
            tuple(dict.fromkeys(users.get(s.ingredient.key, ()))),
        )
        for s in stored
    ]


def _known(stored: StoredIngredient, pantry: Pantry, in_formulas: tuple[str, ...]) -> KnownIngredient:
    figures, problem = None, ""
    if stored.ingredient.house is not None:
        try:
            figures = house_figures(stored.ingredient, pantry=pantry)
        except CoreError as error:
            problem = error.detail
    return KnownIngredient(
        stored.revision, stored.ingredient, figures, problem, used_in(stored.ingredient.key, pantry=pantry), in_formulas
    )


def amount_g(key: str, text: str, *, unit_system: UnitSystem) -> float:
    """Grams of an ingredient from what was typed for it: ``2 tbsp``, ``3 cloves``, ``1 kg``."""
    ingredient = repository.get_ingredient(key).ingredient
    # Per cent of the meat means nothing in a house formula: there is no meat to take it of.
    if "%" in text:
        raise UnreadableEntryError(
            "A house formula has no meat to be per cent of; type grams or a measure.", field="/text"
        )
    return read_amount(text, ingredient, meat_mass_g=0.0, unit_system=unit_system, field="/text").mass_g


def try_house(ingredient: Ingredient) -> HouseFigures:
    """What a house formula would come to, before it is kept."""
    return house_figures(ingredient, pantry=_with(ingredient))


def _with(ingredient: Ingredient) -> Pantry:
    stored = {s.ingredient.key: s.ingredient for s in repository.list_ingredients()}
    return {**stored, ingredient.key: ingredient}


def _room(things: int) -> None:
    if things > MOST_INGREDIENTS:
        raise OutOfRangeError(
            f"The pantry keeps at most {MOST_INGREDIENTS} things, and that would make {things}.", field="/ingredient"
        )


def admit(things: Sequence[Ingredient]) -> tuple[str, ...]:
    """Add what a file or a recipe brings, by the rules that hold for what is typed; all of it or nothing.

    A name or an alias that means another thing here gives way; the answer says which.

    Raises
    ------
    CoreError
        The pantry would be fuller than it may be, or one of the house formulas cannot be worked out.
    """
    held = {s.ingredient.key: s.ingredient for s in repository.list_ingredients()}
    new = {i.key: i for i in things if i.key not in held}
    if not new:
        return ()
    coming = admitted(new.values(), pantry=held)
    new = {a.ingredient.key: a.ingredient for a in coming}
    pantry = held | new
    _room(len(pantry))
    refused = all_house_figures(pantry)[1]
    for key in new:
        if key in refused:
            raise refused[key]
    repository.add_ingredients(new.values())
    return tuple(change for a in coming for change in a.changes)


def save_ingredient(ingredient: Ingredient, *, revision: int) -> KnownIngredient:
    """Add an ingredient (revision 0) or write over the revision seen.

    Raises
    ------
    CoreError
        A house formula that cannot be worked out, or would be an ingredient of itself.
    """
    with transaction():
        pantry = _with(ingredient)
        # What is here already can always be corrected or retired, however full the pantry is.
        if revision == 0:
            _room(len(pantry))
        if ingredient.house is not None:
            house_figures(ingredient, pantry=pantry)
            # Its figures follow from its lines; what was sent for them is not kept.
            ingredient = replace(ingredient, allergens=())
        held = {s.ingredient.key: s.ingredient for s in repository.list_ingredients()}
        before = held.get(ingredient.key)
        check_names(ingredient, before=before, pantry=held)
        _check_parts(ingredient, before=before)
        if before is not None:
            refuse_breaking_ingredient(ingredient, {**pantry, ingredient.key: ingredient})
        stored = repository.save_ingredient(ingredient, revision=revision)
        return _known(stored, pantry, ())


def _check_parts(ingredient: Ingredient, *, before: Ingredient | None) -> None:
    """A house formula's parts follow from its lines; what was kept of old stays until somebody touches it."""
    if ingredient.house is None and (before is None or before.composition != ingredient.composition):
        check_composition(ingredient.composition, meat=False, field="/ingredient/composition")


def export_csv() -> str:
    """The whole pantry as a CSV file; house formulas with what they come to."""
    held = context()[0].pantry
    return pantry_csv(held.get(s.ingredient.key, s.ingredient) for s in repository.list_ingredients())


def import_csv(text: str) -> list[RowReport]:
    """Take in every good row of a pantry file; a bad one is refused with its reason and stops no other."""
    rows = read_pantry_csv(text)
    with transaction():
        taking = _Taking(repository.list_ingredients(), context(), list_formulas())
        reports = [taking.take(row) for row in rows]
        repository.save_ingredients(taking.changes)
        return reports


class _Taking:
    """Rows taken in one after the other; what the first one was called, the next one may not be."""

    def __init__(
        self, standing: Sequence[StoredIngredient], here: tuple[Inventory, Kitchen], shelf: Sequence[StoredFormula]
    ) -> None:
        self._standing = {s.ingredient.key: s for s in standing}
        self._pantry = {key: s.ingredient for key, s in self._standing.items()}
        self._names = PantryNames(self._pantry)
        self._inventory, self._kitchen = here
        # A file changes no house formula, so that what comes into each formula stays the same all the while.
        self._needed = [(stored, needed_by(stored.formula, self._pantry)) for stored in shelf]
        self.changes: list[tuple[Ingredient, int]] = []

    def take(self, row: PantryRow) -> RowReport:
        thing = row.ingredient
        if thing is None:
            return RowReport(row.line, row.key, "unchanged" if row.house else "refused", row.reason)
        # No key stands in a file twice.
        standing = self._standing.get(row.key)
        before = standing.ingredient if standing is not None else None
        if before == thing:
            return RowReport(row.line, row.key, "unchanged", "")
        if before is not None and before.house is not None:
            why = "a house formula of that key is here; give this one another key"
            return RowReport(row.line, row.key, "refused", why)
        after: Pantry = {**self._pantry, thing.key: thing}
        try:
            if before is None:
                _room(len(after))
            self._names.check(thing, before=before)
            _check_parts(thing, before=before)
            self._refuse_breaking(thing, after)
        except CoreError as refused:
            return RowReport(row.line, row.key, "refused", refused.detail)
        self._names.put(thing, before=before)
        self._pantry[thing.key] = thing
        self.changes.append((thing, standing.revision if standing is not None else 0))
        return RowReport(row.line, row.key, "added" if standing is None else "corrected", "")

    def _refuse_breaking(self, thing: Ingredient, after: Pantry) -> None:
        touched = [stored for stored, needed in self._needed if thing.key in needed]
        if touched:
            now = replace(self._inventory, pantry=with_house_made(self._pantry))
            then = replace(self._inventory, pantry=with_house_made(after))
            refuse_breaking((now, self._kitchen), (then, self._kitchen), field="/ingredient", shelf=touched)
