"""Read and change the kitchen."""

from __future__ import annotations

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.heat.methods import lacking
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
        When a bread, a tin, tray, scoop or ring, or a surface would go that a formula on the shelf is made for, or the
        last oven or grate that its stages need.
    """
    with transaction():
        _refuse_gone(kitchen_repository.load_kitchen().kitchen, kitchen)
        return kitchen_repository.save_kitchen(kitchen, revision=revision)


def _refuse_gone(before: Kitchen, after: Kitchen) -> None:
    gone = {("bun", b.key): b.name for b in before.buns} | {("mould", w.key): w.name for w in before.moulds}
    gone |= {("surface", s.key): s.name for s in before.surfaces}
    kept = [("bun", b.key) for b in after.buns] + [("mould", w.key) for w in after.moulds]
    for one in [*kept, *(("surface", s.key) for s in after.surfaces)]:
        gone.pop(one, None)
    for stored in list_formulas():
        shape, heat = stored.formula.shape, stored.formula.heat
        needs = lacking(heat, after)
        if needs and not lacking(heat, before):
            raise OutOfRangeError(
                f"“{stored.formula.name}” is cooked in {needs}, and this would be the last one; choose another way "
                "there first.",
                field="/kitchen/surfaces",
            )
        for field, key in (("bun", shape.bun), ("mould", shape.mould), ("surface", heat.surface)):
            if (field, key) in gone:
                raise OutOfRangeError(
                    f"“{stored.formula.name}” is made for “{gone[field, key]}”; choose another there first.",
                    field=f"/kitchen/{field}s",
                )
