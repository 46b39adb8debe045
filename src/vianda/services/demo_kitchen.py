"""Fill an empty database once with the demo kitchen, its larder and its formulas."""

from __future__ import annotations

from dataclasses import replace
from datetime import timedelta

from vianda.core.demo.formulas import DEMO_FORMULAS, HOUSE_FORMULAS, norquay_lots
from vianda.core.demo.kitchen import yard_galley
from vianda.core.equipment.kitchen import usual_oven
from vianda.core.inventory.inventory import starter_inventory
from vianda.core.inventory.pantry import starter_pantry
from vianda.storage import formula_repository, kitchen_repository, larder_repository
from vianda.storage.clock import now_utc
from vianda.storage.transaction import transaction

# Cuts from a butcher, held at 0 to 4 °C (common practice).
KEEPS_DAYS = 3


def take_up_pantry() -> None:
    """Give an older kitchen the starter pantry, and an oven if it has none."""
    with transaction():
        larder_repository.add_ingredients(starter_pantry().values())
        stored = kitchen_repository.load_kitchen()
        kitchen = stored.kitchen
        if kitchen.surface_of_kind("oven") is None and all(s.key != usual_oven().key for s in kitchen.surfaces):
            better = replace(kitchen, surfaces=(*kitchen.surfaces, usual_oven()))
            kitchen_repository.save_kitchen(better, revision=stored.revision)


def take_up_new_meats() -> int:
    """Give an older larder the meats that have come since, and the class of connective tissue to those it has.

    Prices, ranges and trim losses that a cook may have corrected stay. Returns how many meats were added.
    """
    starters = starter_inventory().meats
    with transaction():
        for key, standing in larder_repository.load_inventory().meats.items():
            if key in starters and standing.connective != starters[key].connective:
                better = replace(standing, connective=starters[key].connective, cured=starters[key].cured)
                larder_repository.save_meat(better, seen=standing)
        return larder_repository.add_meats(starters.values())


def seed_once(*, with_formulas: bool = True) -> bool:
    """Seed when there is no kitchen yet. Returns whether anything was written."""
    with transaction():
        if kitchen_repository.has_kitchen():
            return False
        kitchen_repository.create_kitchen(yard_galley())
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
        return True
