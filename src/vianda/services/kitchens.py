"""Read and change the kitchen."""

from __future__ import annotations

from vianda.core.kitchen import Kitchen
from vianda.storage import kitchen_repository
from vianda.storage.kitchen_repository import StoredKitchen
from vianda.storage.transaction import transaction


def get_kitchen() -> StoredKitchen:
    """The kitchen as it stands."""
    return kitchen_repository.load_kitchen()


def save_kitchen(kitchen: Kitchen, *, revision: int) -> StoredKitchen:
    """Save the kitchen over the revision seen."""
    with transaction():
        return kitchen_repository.save_kitchen(kitchen, revision=revision)
