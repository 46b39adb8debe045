"""Services as files that stand alone, out and in."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from vianda.interchange.formula_file import FormulaBundle
from vianda.interchange.service_file import read_service_file, renumbered, write_service_file
from vianda.services.bench import context
from vianda.services.formulas import take_in
from vianda.storage import formula_repository, service_repository
from vianda.storage.records import StoredService
from vianda.storage.transaction import transaction


@dataclass(frozen=True, slots=True)
class ImportedService:
    """What an import did: the service, the names of formulas that came with it, and what was changed on the way."""

    stored: StoredService
    formulas_added: tuple[str, ...]
    remarks: tuple[str, ...]


def export_service(service_id: int) -> tuple[str, dict[str, Any]]:
    """The service's name and its file's content."""
    service = service_repository.get_service(service_id).service
    inventory, kitchen = context()
    stored = formula_repository.formulas_of({d.formula_id for d in service.dishes})
    bundles = {key: FormulaBundle(x.formula, inventory, kitchen) for key, x in stored.items()}
    return service.name, write_service_file(service, bundles)


def import_service(content: object) -> ImportedService:
    """Add a service from a file. A formula that is here already is used; others join the shelf. All or nothing."""
    bundle = read_service_file(content)
    with transaction():
        here = {x.formula: x.id for x in reversed(formula_repository.list_formulas())}
        numbers: dict[int, int] = {}
        added: list[str] = []
        remarks: list[str] = []
        for place, formula in enumerate(bundle.formulas, start=1):
            known = here.get(formula.formula)
            if known is None:
                done = take_in(formula)
                known = done.stored.id
                added.append(done.stored.formula.name)
                remarks += done.remarks()
            numbers[place] = known
        stored = service_repository.create_service(renumbered(bundle.service, numbers))
    return ImportedService(stored, tuple(added), tuple(remarks))
