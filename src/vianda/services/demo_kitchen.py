"""Fill an empty database once with the demo kitchen, its larder and its formulas."""

from __future__ import annotations

from vianda.core.demo import DEMO_FORMULAS
from vianda.core.kitchen import yard_galley
from vianda.core.larder import starter_larder
from vianda.storage import formula_repository, kitchen_repository, larder_repository
from vianda.storage.transaction import transaction


def seed_once(*, with_formulas: bool = True) -> bool:
    """Seed when there is no kitchen yet. Returns whether anything was written."""
    with transaction():
        if kitchen_repository.has_kitchen():
            return False
        kitchen_repository.create_kitchen(yard_galley())
        larder_repository.add_meats(starter_larder().meats.values())
        if with_formulas:
            # The last one made stands first on the shelf.
            for make in reversed(DEMO_FORMULAS):
                formula_repository.create_formula(make())
        return True
