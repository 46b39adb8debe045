"""The demo kitchen: made when a cook wants to look round, deleted at will; never mixed with other kitchens."""

from __future__ import annotations

from dataclasses import replace
from datetime import timedelta
from decimal import Decimal

from vianda.core.demo.formulas import DEMO_FORMULAS, HOUSE_FORMULAS, norquay_lots
from vianda.core.demo.kitchen import yard_galley
from vianda.core.equipment.kitchen import usual_oven
from vianda.core.inventory.inventory import starter_inventory
from vianda.core.inventory.pantry import starter_pantry
from vianda.storage import formula_repository, kitchen_repository, larder_repository
from vianda.storage.clock import now_utc
from vianda.storage.here import use_kitchen
from vianda.storage.transaction import transaction

# Cuts from a butcher, held at 0 to 4 °C (common practice).
KEEPS_DAYS = 3


def take_up_pantry() -> None:
    """Give each older kitchen what the starter pantry has since, and an oven if it has none."""
    for listed in kitchen_repository.list_kitchens():
        use_kitchen(listed.id)
        with transaction():
            larder_repository.add_ingredients(starter_pantry().values())
            stored = kitchen_repository.load_kitchen()
            kitchen = stored.kitchen
            if kitchen.surface_of_kind("oven") is None and all(s.key != usual_oven().key for s in kitchen.surfaces):
                better = replace(kitchen, surfaces=(*kitchen.surfaces, usual_oven()))
                kitchen_repository.save_kitchen(better, revision=stored.revision)
    use_kitchen(None)


def take_up_new_ingredients() -> None:
    """Give each kitchen the ingredients that have come since; what a cook changed stays.

    A name that a cook has given already is not given twice, and only the demo's prices are invented.
    """
    for listed in kitchen_repository.list_kitchens():
        use_kitchen(listed.id)
        with transaction():
            names = {i.name.casefold() for i in larder_repository.load_inventory().pantry.values()}
            new = [i for i in starter_pantry().values() if i.name.casefold() not in names]
            free = Decimal(0)
            larder_repository.add_ingredients(new if listed.demo else [replace(i, price_per_kg=free) for i in new])
    use_kitchen(None)


def take_up_new_meats() -> int:
    """Give each older larder the meats that have come since, and the class of connective tissue to those it has.

    Prices, ranges and trim losses that a cook may have corrected stay. Returns how many meats were added.
    """
    starters = starter_inventory().meats
    added = 0
    for listed in kitchen_repository.list_kitchens():
        use_kitchen(listed.id)
        with transaction():
            for key, standing in larder_repository.load_inventory().meats.items():
                if key in starters and standing.connective != starters[key].connective:
                    better = replace(standing, connective=starters[key].connective, cured=starters[key].cured)
                    larder_repository.save_meat(better, seen=standing)
            added += larder_repository.add_meats(starters.values())
    use_kitchen(None)
    return added


def seed_once(*, with_formulas: bool = True) -> bool:
    """Make the demo kitchen when there is no kitchen yet. Returns whether anything was written."""
    if kitchen_repository.has_kitchen():
        return False
    make_demo(with_formulas=with_formulas)
    return True


def make_demo(*, with_formulas: bool = True) -> int:
    """Make the demo kitchen with its larder and formulas, and open it; its number."""
    with transaction():
        number = kitchen_repository.create_kitchen(yard_galley(), demo=True)
        use_kitchen(number)
        larder_repository.add_meats(starter_inventory().meats.values())
        larder_repository.add_ingredients(starter_pantry().values())
        if with_formulas:
            larder_repository.add_ingredients(HOUSE_FORMULAS)
            today = now_utc().date()
            for lot in norquay_lots(delivered=today, use_by=today + timedelta(days=KEEPS_DAYS)):
                larder_repository.create_lot(lot)
            # The last one made stands first on the shelf.
            for make in reversed(DEMO_FORMULAS):
                formula_repository.create_formula(make())
    use_kitchen(None)
    return number
