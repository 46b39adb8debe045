"""Two versions of a formula side by side: what differs, what is forecast of each, and what came of their cooks."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from vianda.core.basis.errors import CoreError
from vianda.core.basis.units import UnitSystem
from vianda.core.comparing.differences import Difference, differences, made_alike
from vianda.core.comparing.merging import Merged, Prefer, merged
from vianda.core.comparing.outcomes import TITLES, ComparedFigure, compared
from vianda.core.cook.scores import nearness
from vianda.core.evaluation.evaluate import evaluate
from vianda.core.evaluation.ticket import TicketFigure
from vianda.core.model.formula import Formula
from vianda.core.model.styles import Form, style_of
from vianda.runtime.engine import ENGINE
from vianda.services.bench import context
from vianda.storage import cook_repository, formula_repository, photograph_repository
from vianda.storage.records import StoredCook

MOST_PHOTOGRAPHS = 6


@dataclass(frozen=True, slots=True)
class SeenPhotograph:
    """A photograph of one of its cooks."""

    id: int
    cook_id: int
    caption: str


@dataclass(frozen=True, slots=True)
class ComparedVersion:
    """One of the two: its number (0: as it stands), its name, its ticket or why there is none, and its cooks.

    Photographs are those of its newest cooks.
    """

    number: int
    name: str
    ticket: tuple[TicketFigure, ...]
    problem: str
    cooks: tuple[int, ...]
    photographs: tuple[SeenPhotograph, ...]


@dataclass(frozen=True, slots=True)
class Comparison:
    """Two versions, what differs in how they are made, and figures of their cooks side by side."""

    formula_name: str
    before: ComparedVersion
    after: ComparedVersion
    differences: tuple[Difference, ...]
    figures: tuple[ComparedFigure, ...]


def compare(formula_id: int, before: int, after: int, *, unit_system: UnitSystem | None = None) -> Comparison:
    """Two versions by their numbers; 0 is the formula as it stands."""
    inventory, _ = context(unit_system)
    stored = formula_repository.get_formula(formula_id)
    designs = [_design(formula_id, n) for n in (before, after)]
    cooks = cook_repository.list_cooks(formula_id=formula_id)
    mine = [[c for c in cooks if c.finished_at is not None and made_alike(c.formula, f)] for _, f in designs]
    sides = [
        _side(number, name, formula, [c.id for c in of], unit_system)
        for number, (name, formula), of in zip((before, after), designs, mine, strict=True)
    ]
    figures = {key: (list(_values(key, mine[0])), list(_values(key, mine[1]))) for key in TITLES}
    return Comparison(
        stored.formula.name,
        sides[0],
        sides[1],
        differences(designs[0][1], designs[1][1], inventory=inventory),
        compared(figures, forms=(_form(designs[0][1]), _form(designs[1][1]))),
    )


def _design(formula_id: int, number: int) -> tuple[str, Formula]:
    if number == 0:
        return "As it stands", formula_repository.get_formula(formula_id).formula
    version = formula_repository.get_version(formula_id, number)
    return version.name, version.formula


def _form(formula: Formula) -> Form:
    return style_of(formula.dish.style).form


def _side(
    number: int, name: str, formula: Formula, cooks: list[int], unit_system: UnitSystem | None
) -> ComparedVersion:
    inventory, kitchen = context(unit_system)
    try:
        ticket = evaluate(formula, inventory=inventory, kitchen=kitchen, engine=ENGINE).ticket
    except CoreError as error:
        return ComparedVersion(number, name, (), str(error), tuple(cooks), _photographs(cooks))
    return ComparedVersion(number, name, tuple(ticket), "", tuple(cooks), _photographs(cooks))


def _photographs(cooks: list[int]) -> tuple[SeenPhotograph, ...]:
    found = photograph_repository.photographs_of(cooks)
    newest = sorted(found, key=lambda p: (-p.cook_id, p.id))[:MOST_PHOTOGRAPHS]
    return tuple(SeenPhotograph(p.id, p.cook_id, p.caption) for p in newest)


def _values(key: str, cooks: list[StoredCook]) -> Iterator[float]:
    """What cooks said of a figure."""
    for cook in cooks:
        said = cook.outcome or {}
        if key == "yield" and said.get("cooked_mass_g") is not None:
            yield said["cooked_mass_g"] / cook.plan["portions"]["batch_mass_g"]
        elif key == "shrink" and said.get("cooked_diameter_mm") and cook.plan["shape"]["raw_diameter_mm"]:
            yield 1.0 - said["cooked_diameter_mm"] / cook.plan["shape"]["raw_diameter_mm"]
        elif key == "thick" and said.get("cooked_thickness_mm") is not None:
            yield said["cooked_thickness_mm"]
        elif key == "near":
            near = nearness(said)
            if near is not None:
                yield near
        elif said.get(key) is not None:
            yield float(said[key])


@dataclass(frozen=True, slots=True)
class MergedHere:
    """Two edits put together; ``problem`` says why it cannot be worked out here, "" where it can."""

    merged: Merged
    problem: str


def merge_edits(base: Formula, mine: Formula, theirs: Formula, *, prefer: Prefer) -> MergedHere:
    """Put two edits of one formula together, and see whether it can be worked out."""
    inventory, kitchen = context()
    done = merged(base, mine, theirs, inventory=inventory, prefer=prefer)
    try:
        evaluate(done.formula, inventory=inventory, kitchen=kitchen, engine=ENGINE)
    except CoreError as refused:
        return MergedHere(done, refused.detail)
    return MergedHere(done, "")
