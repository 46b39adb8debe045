"""What was worked out of kept formulas, remembered until the formula, the kitchen or its larder changes."""

from __future__ import annotations

from collections.abc import Callable
from typing import Generic, TypeVar

from vianda.core.basis.units import UnitSystem
from vianda.core.model.formula import Formula
from vianda.runtime.newest import Newest
from vianda.storage.caches import on_rollback
from vianda.storage.here import kitchen_here
from vianda.storage.kitchen_repository import load_kitchen
from vianda.storage.larder_repository import larder_here
from vianda.storage.records import StoredFormula
from vianda.storage.revisions import revision_number

Found = TypeVar("Found")
# A year's services of sixty formulas have about two thousand pairs of formula and guests.
MOST_KEPT = 4096


def state_here(unit_system: UnitSystem | None = None) -> tuple[object, ...]:
    """This kitchen as it stands now, its larder and the units: what is worked out of the same state is the same."""
    kitchen = load_kitchen()
    units = unit_system or kitchen.kitchen.unit_system
    return (kitchen_here(), kitchen.revision, revision_number(larder_here()), str(units))


class Remembered(Generic[Found]):
    """Small results of formulas by what they depend on. The result of nothing that is still being changed is kept."""

    def __init__(self) -> None:
        self._newest: Newest[Found] = Newest(MOST_KEPT)
        on_rollback(self._newest.forget)

    def here(self, unit_system: UnitSystem | None = None) -> _Here[Found]:
        """The memory as this kitchen stands now. Ask before what the results are worked out from is read."""
        return _Here(self._newest, state_here(unit_system))


class _Here(Generic[Found]):
    """A memory at one state of one kitchen and larder."""

    def __init__(self, newest: Newest[Found], stamp: tuple[object, ...]) -> None:
        self._newest, self.stamp = newest, stamp

    def of(self, stored: StoredFormula, work: Callable[[Formula], Found], *, guests: int = 0) -> Found:
        """What the work makes of a formula as it stands, worked out once; ``guests`` tells its uses apart."""
        key = (*self.stamp, stored.id, stored.revision, guests)
        return self._newest.of(key, lambda: work(stored.formula))
