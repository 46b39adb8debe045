"""The shelf: formulas a page at a time with what each comes to, those that cannot be worked out too."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict, dataclass
from datetime import datetime
from hashlib import sha256

from vianda.core.basis.errors import CoreError
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.evaluation.evaluate import evaluate
from vianda.core.inventory.inventory import Inventory
from vianda.core.model.formula import Formula
from vianda.runtime.core_digest import core_digest
from vianda.runtime.engine import ENGINE
from vianda.services.bench import context
from vianda.services.remembered import state_here
from vianda.storage import formula_repository, shelf_repository
from vianda.storage.shelf_repository import Cooked, ShelfLine, ShelfQuery

PAGE = 50


@dataclass(frozen=True, slots=True)
class ComesTo:
    """What the shelf shows of a formula: share and fat of each part, fat of the blend, pieces, g of a raw one."""

    strips: tuple[tuple[float, float], ...]
    fat_frac: float
    pieces: int
    piece_mass_g: float


@dataclass(frozen=True, slots=True)
class Shelved:
    """A formula of the shelf and what it comes to; ``problem`` says why nothing does ("" when it does)."""

    id: int
    name: str
    style: str
    updated_at: datetime
    comes_to: ComesTo | None
    problem: str
    cooked: Cooked | None


@dataclass(frozen=True, slots=True)
class ShelfPage:
    """So many formulas; on the first page how many there are in all, and how many are archived.

    ``next``: after which the next page begins (None: this is the last); ``dishes`` that stand on the shelf.
    """

    items: tuple[Shelved, ...]
    next: int | None
    total: int | None
    archived: int | None
    dishes: tuple[str, ...]


def shelf_page(query: ShelfQuery, *, before: int | None = None) -> ShelfPage:
    """A page of the shelf. A formula that cannot be worked out hides none of the others."""
    # One more than is shown tells whether there is another page.
    found = shelf_repository.find_lines(query, before=before, most=PAGE + 1)
    shown = found[:PAGE]
    figures, cooked = _worked_out(shown), shelf_repository.cooked_of([line.id for line in shown])
    items = tuple(
        Shelved(line.id, line.name, line.style, line.updated_at, *figures[line.id], cooked.get(line.id))
        for line in shown
    )
    more = items[-1].id if len(found) > PAGE else None
    if before is not None:
        return ShelfPage(items, more, None, None, ())
    return ShelfPage(
        items,
        more,
        shelf_repository.count_lines(query),
        shelf_repository.count_lines(ShelfQuery(archived=True)),
        tuple(shelf_repository.dishes_here()),
    )


def shelf_names() -> list[ShelfLine]:
    """Every formula that stands on the shelf, by name and style."""
    return shelf_repository.names_here()


def _worked_out(lines: Sequence[ShelfLine]) -> dict[int, tuple[ComesTo | None, str]]:
    """What formulas come to, by number; what was worked out of another kitchen, larder or core is worked out anew."""
    here = state_here()
    stamps = {line.id: _stamp(here, line.revision) for line in lines}
    stale = [line.id for line in lines if line.stamp != stamps[line.id]]
    fresh: dict[int, tuple[ComesTo | None, str]] = {}
    if stale:
        inventory, kitchen = context()
        formulas = formula_repository.formulas_of(stale, archived_too=True)
        # A formula that was saved meanwhile carries the stamp of what was worked out.
        fresh = {n: _shown(stored.formula, inventory, kitchen) for n, stored in formulas.items()}
        shelf_repository.keep_figures(
            (n, _stamp(here, formulas[n].revision), asdict(comes_to) if comes_to else None, problem)
            for n, (comes_to, problem) in fresh.items()
        )
    return {line.id: fresh.get(line.id) or (_read(line), line.problem) for line in lines}


def _stamp(here: tuple[object, ...], revision: int) -> str:
    return sha256(repr((core_digest(), here, revision)).encode()).hexdigest()


def _read(line: ShelfLine) -> ComesTo | None:
    kept = line.comes_to
    if kept is None:
        return None
    return ComesTo(
        tuple((share, fat) for share, fat in kept["strips"]), kept["fat_frac"], kept["pieces"], kept["piece_mass_g"]
    )


def _shown(formula: Formula, inventory: Inventory, kitchen: Kitchen) -> tuple[ComesTo | None, str]:
    try:
        found = evaluate(formula, inventory=inventory, kitchen=kitchen, engine=ENGINE)
    except CoreError as refused:
        return None, refused.detail
    strips = tuple((p.share_frac, p.fat_usual_frac) for p in found.blend.parts)
    return ComesTo(strips, found.blend.fat_frac, found.portions.pieces, found.portions.piece_mass_g), ""
