"""Read and change the kitchen."""

from __future__ import annotations

from dataclasses import replace
from decimal import Decimal

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.equipment.first_kitchen import FirstAnswers, first_kitchen
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.heat.methods import lacking
from vianda.core.inventory.inventory import starter_inventory
from vianda.core.inventory.pantry import starter_pantry
from vianda.core.pipeline.reach import reached
from vianda.services.breaking import refuse_breaking
from vianda.services.demo_kitchen import make_demo
from vianda.storage import kitchen_repository, larder_repository
from vianda.storage.formula_repository import list_formulas
from vianda.storage.here import kitchen_here, use_kitchen
from vianda.storage.kitchen_repository import ListedKitchen, StoredKitchen
from vianda.storage.transaction import transaction


def list_kitchens() -> tuple[list[ListedKitchen], int]:
    """All kitchens, and the one this request is about (0 before the first is set up)."""
    listed = kitchen_repository.list_kitchens()
    return listed, kitchen_here() if listed else 0


def is_kitchen(kitchen_id: int) -> bool:
    """Whether there is a kitchen of that number."""
    return kitchen_repository.is_kitchen(kitchen_id)


def here(kitchen_id: int | None) -> None:
    """Say which kitchen this request is about; None for the one opened last."""
    use_kitchen(kitchen_id)


def open_kitchen(kitchen_id: int) -> None:
    """Make a kitchen the one that is opened first from now on."""
    with transaction():
        kitchen_repository.choose_kitchen(kitchen_id)


def set_up(answers: FirstAnswers) -> int:
    """Set up a kitchen of one's own from a few answers, with the starter larder and pantry; its number.

    The starters' prices are invented for the demo, so here none is known: they begin at zero.
    """
    kitchen = first_kitchen(answers)
    free = Decimal(0)
    with transaction():
        number = kitchen_repository.create_kitchen(kitchen)
        use_kitchen(number)
        larder_repository.add_meats(replace(m, price_per_kg=free) for m in starter_inventory().meats.values())
        larder_repository.add_ingredients(replace(i, price_per_kg=free) for i in starter_pantry().values())
    use_kitchen(None)
    return number


def look_round() -> int:
    """Open the demo kitchen, made anew when it was deleted; its number."""
    demo = next((k for k in kitchen_repository.list_kitchens() if k.demo), None)
    if demo is None:
        return make_demo()
    open_kitchen(demo.id)
    return demo.id


def delete_demo(kitchen_id: int) -> None:
    """Delete the demo kitchen with all of its records; a kitchen of one's own is never deleted here.

    Raises
    ------
    OutOfRangeError
        When it is not the demo.
    """
    listed = next((k for k in kitchen_repository.list_kitchens() if k.id == kitchen_id), None)
    if listed is None or not listed.demo:
        raise OutOfRangeError("Only the demo kitchen can be deleted.", field="/kitchen")
    with transaction():
        kitchen_repository.delete_kitchen(kitchen_id)


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
        before = kitchen_repository.load_kitchen().kitchen
        _refuse_gone(before, kitchen)
        inventory = larder_repository.load_inventory()
        refuse_breaking((inventory, before), (inventory, kitchen), touched=reached(before, kitchen), field="/kitchen")
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
