"""Which formulas a change of the kitchen may make impossible: only those are worked out anew to see whether it does."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import fields
from typing import Any, Protocol

from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.inventory import FAT_SAID
from vianda.core.model.formula import Formula

# Every formula is worked out with these.
EVERYWHERE = frozenset({"country", "setting", "scale", "salt", "trimmed_by", "bowl_factor", "grinders"})
# How things are called, counted, paid and timed: no formula becomes impossible by it.
NOWHERE = frozenset({"name", "unit_system", "currency_code", "naming_rule", "paces", "pots"})
# What a formula names by a key, or is named by one.
BY_KEY = frozenset({"surfaces", "buns", "moulds", "learnt", "fats"})
# A stage takes whichever of them there is.
_OF_NO_FORMULA = frozenset({"oven", "grate"})


class _Keyed(Protocol):
    @property
    def key(self) -> str: ...


def reached(before: Kitchen, after: Kitchen) -> Callable[[Formula], bool]:
    """Which formulas a change of the kitchen may make impossible to work out.

    Parameters
    ----------
    before : Kitchen
        The kitchen as it stands.
    after : Kitchen
        The kitchen as it is to be.

    Returns
    -------
    Callable[[Formula], bool]
        Whether it may make this one impossible; of others it may change figures, such as the scoop that is nearest.

    Examples
    --------
    >>> from dataclasses import replace
    >>> from vianda.core.demo.formulas import keepers_loaf, slipway_smash
    >>> from vianda.core.demo.kitchen import yard_galley
    >>> here = yard_galley()
    >>> renamed = reached(here, replace(here, name="The other yard"))
    >>> renamed(slipway_smash()), renamed(keepers_loaf())
    (False, False)
    >>> fewer = reached(here, replace(here, buns=tuple(b for b in here.buns if b.key != slipway_smash().shape.bun)))
    >>> fewer(slipway_smash()), fewer(keepers_loaf())
    (True, False)
    """
    changed = {f.name for f in fields(Kitchen) if getattr(before, f.name) != getattr(after, f.name)}
    if changed - NOWHERE - BY_KEY:
        return lambda _: True
    surfaces = _differing(before.surfaces, after.surfaces)
    if any(s.kind in _OF_NO_FORMULA for s in (*before.surfaces, *after.surfaces) if s.key in surfaces):
        return lambda _: True
    buns, moulds = _differing(before.buns, after.buns), _differing(before.moulds, after.moulds)
    learnt = {f.style for f in set(before.learnt) ^ set(after.learnt)}
    fats = {f.meat for f in set(before.fats) ^ set(after.fats)}

    def reaches(formula: Formula) -> bool:
        return (
            formula.heat.surface in surfaces
            or any(task.surface in surfaces for task in formula.timing.own)
            or formula.shape.bun in buns
            or formula.shape.mould in moulds
            or bool({formula.dish.style, formula.heat.surface} & learnt)
            or any(part.meat.partition(FAT_SAID)[0] in fats for part in formula.parts)
        )

    return reaches


def _differing(before: Iterable[Any], after: Iterable[Any]) -> set[str]:
    """Keys of what is new, gone or changed."""
    old: dict[str, _Keyed] = {one.key: one for one in before}
    new: dict[str, _Keyed] = {one.key: one for one in after}
    return {key for key in old.keys() | new.keys() if old.get(key) != new.get(key)}
