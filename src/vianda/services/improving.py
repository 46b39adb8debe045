"""What to change next of a formula, from its scored cooks."""

from __future__ import annotations

from vianda.core.cook.scores import SCALES
from vianda.core.improving.next_change import NextChanges, next_changes
from vianda.runtime.engine import ENGINE
from vianda.services.bench import context
from vianda.storage import cook_repository, formula_repository


def next_change_of(formula_id: int) -> NextChanges:
    """The changes that promise most, by all cooks of the formula in any of its versions."""
    inventory, kitchen = context()
    formula = formula_repository.get_formula(formula_id).formula
    cooks = cook_repository.list_cooks(formula_id=formula_id)
    scored = [
        (c.formula, {key: float(c.outcome[key]) for key in SCALES if c.outcome.get(key) is not None})
        for c in cooks
        if c.outcome is not None
    ]
    return next_changes(formula, scored, inventory=inventory, kitchen=kitchen, engine=ENGINE)
