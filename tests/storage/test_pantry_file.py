"""A pantry file taken in row by row: what one row changed counts for the next, and nothing grows with the rows."""

from __future__ import annotations

from dataclasses import replace
from decimal import Decimal
from typing import Any

import pytest

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.inventory.pantry import Ingredient
from vianda.interchange.pantry_csv import pantry_csv
from vianda.services import breaking, pantry


def _held() -> dict[str, Ingredient]:
    return {s.ingredient.key: s.ingredient for s in pantry.repository.list_ingredients()}


def _crumb(n: int, **changes: Any) -> Ingredient:
    panko = _held()["panko"]
    return replace(panko, **{"key": f"crumb-{n}", "name": f"Crumb number {n}", "aliases": (), "pieces": (), **changes})


def _take(*things: Ingredient) -> list[tuple[str, str]]:
    return [(row.outcome, row.reason) for row in pantry.import_csv(pantry_csv(things))]


def test_what_is_new_or_changed_is_kept_and_the_rest_is_left(database) -> None:
    one, two = _crumb(1), _crumb(2)
    assert [outcome for outcome, _ in _take(one, two)] == ["added", "added"]
    dearer = replace(one, price_per_kg=Decimal("9.90"))
    assert [outcome for outcome, _ in _take(dearer, two, _crumb(3))] == ["corrected", "unchanged", "added"]
    held = pantry.repository.get_ingredient("crumb-1")
    assert (held.ingredient.price_per_kg, held.revision) == (Decimal("9.90"), 2)
    assert [s.ingredient.key for s in pantry.repository.list_ingredients()][-3:] == ["crumb-1", "crumb-2", "crumb-3"]


def test_a_name_taken_or_given_free_by_one_row_counts_for_the_next(database) -> None:
    _take(_crumb(1), _crumb(2))
    twice = _take(_crumb(3, name="Barley rusk"), _crumb(4, name="Barley rusk"))
    assert [outcome for outcome, _ in twice] == ["added", "refused"]
    assert "in the pantry already" in twice[1][1]
    # The first row gives its name up, so that the second may have it.
    assert [o for o, _ in _take(_crumb(1, name="Old rusk"), _crumb(2, name="Crumb number 1"))] == ["corrected"] * 2
    # The other way round it is still taken.
    assert [o for o, _ in _take(_crumb(5, name="Old rusk"), _crumb(1, name="New rusk"))] == ["refused", "corrected"]
    assert _held()["crumb-1"].name == "New rusk"


def test_a_row_that_would_break_a_formula_names_it_and_stops_no_other(database, monkeypatch) -> None:
    real = breaking.evaluate

    def strict(formula: Any, *, inventory: Any, **more: Any) -> Any:
        if inventory.pantry["panko"].g_per_cup > 500:
            raise OutOfRangeError("so heavy a crumb is not known.")
        return real(formula, inventory=inventory, **more)

    monkeypatch.setattr(breaking, "evaluate", strict)
    used = next(f for f in pantry.list_formulas() if any(line.ingredient == "panko" for line in f.formula.mix.lines))
    heavy = replace(_held()["panko"], g_per_cup=501.0)
    found = _take(_crumb(1), heavy, _crumb(2))
    assert [outcome for outcome, _ in found] == ["added", "refused", "added"]
    assert found[1][1].startswith(f"“{used.formula.name}” could not be worked out any more: so heavy a crumb")
    assert _held()["panko"].g_per_cup != 501.0
    assert _take(replace(heavy, g_per_cup=499.0)) == [("corrected", "")]


def test_a_pantry_that_is_full_still_takes_corrections(database, monkeypatch) -> None:
    _take(_crumb(1))
    monkeypatch.setattr(pantry, "MOST_INGREDIENTS", len(_held()) + 1)
    dearer = _crumb(1, price_per_kg=Decimal("8.00"))
    assert [outcome for outcome, _ in _take(_crumb(2), _crumb(3), dearer)] == ["added", "refused", "corrected"]


def test_what_is_asked_of_the_database_does_not_grow_with_the_rows(database, monkeypatch: pytest.MonkeyPatch) -> None:
    asked: list[str] = []
    real = type(database).execute_sql
    monkeypatch.setattr(
        type(database),
        "execute_sql",
        lambda self, sql, *more, **named: (asked.append(sql), real(self, sql, *more, **named))[1],
    )

    def statements(*things: Ingredient) -> int:
        text = pantry_csv(things)
        asked.clear()
        pantry.import_csv(text)
        return len([sql for sql in asked if not sql.startswith("UPDATE")])

    few = statements(*(_crumb(n) for n in range(5)))
    assert statements(*(_crumb(n) for n in range(10, 70))) == few
    changed = statements(*(_crumb(n, price_per_kg=Decimal("7.00")) for n in range(5)))
    assert statements(*(_crumb(n, price_per_kg=Decimal("7.00")) for n in range(10, 70))) == changed
