"""Read and change the kitchen."""

from __future__ import annotations

from vianda.core.errors import OutOfRangeError
from vianda.core.kitchen import Kitchen
from vianda.storage import kitchen_repository
from vianda.storage.formula_repository import list_formulas
from vianda.storage.kitchen_repository import StoredKitchen
from vianda.storage.transaction import transaction


def get_kitchen() -> StoredKitchen:
    """The kitchen as it stands."""
    return kitchen_repository.load_kitchen()


def save_kitchen(kitchen: Kitchen, *, revision: int) -> StoredKitchen:
    """Save the kitchen over the revision seen.

    Raises
    ------
    OutOfRangeError
        When a bread, or a tin, tray, scoop or ring, would go that a formula on the shelf is made for.
    """
    with transaction():
        _refuse_gone(kitchen_repository.load_kitchen().kitchen, kitchen)
        return kitchen_repository.save_kitchen(kitchen, revision=revision)


def _refuse_gone(before: Kitchen, after: Kitchen) -> None:
    gone = {("bun", b.key): b.name for b in before.buns} | {("ware", w.key): w.name for w in before.wares}
    for kept in [("bun", b.key) for b in after.buns] + [("ware", w.key) for w in after.wares]:
        gone.pop(kept, None)
    if not gone:
        return
    for stored in list_formulas():
        shape = stored.formula.shape
        for field, key in (("bun", shape.bun), ("ware", shape.ware)):
            if (field, key) in gone:
                raise OutOfRangeError(
                    f"“{stored.formula.name}” is made for “{gone[field, key]}”; choose another there first.",
                    field=f"/kitchen/{field}s",
                )
