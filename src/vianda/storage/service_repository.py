"""Services in the database, each kitchen's own."""

from __future__ import annotations

from collections.abc import Collection
from datetime import date
from typing import Any

from peewee import Expression

from vianda.core.model.service import Service
from vianda.interchange.kinds import SERVICES
from vianda.storage.actor import actor_name, made
from vianda.storage.clock import now_utc
from vianda.storage.here import kitchen_here
from vianda.storage.records import NotFoundError, StoredService, standing_or_conflict
from vianda.storage.tables import ServiceRow

MOST_LISTED = 300
WITHOUT_END = "9999-12-31"


def _here(service_id: int) -> Expression:
    return (ServiceRow.id == service_id) & (ServiceRow.kitchen_id == kitchen_here())


def _stored(row: ServiceRow) -> StoredService:
    return StoredService(row.id, row.revision, row.updated_at, SERVICES.kept(row.document))


def columns_of(service: Service) -> dict[str, Any]:
    """The document, the days it may come on, and who writes it down."""
    last_day = (service.until or WITHOUT_END) if service.day and service.repeat else service.day
    return {
        "document": SERVICES.text(service),
        "updated_at": now_utc(),
        "first_day": service.day,
        "last_day": last_day,
        "changed_by": actor_name(),
    }


def list_services() -> list[StoredService]:
    """The services of this kitchen, the one changed last first."""
    rows = ServiceRow.select().where(ServiceRow.kitchen_id == kitchen_here())
    return [
        _stored(row) for row in rows.order_by(ServiceRow.updated_at.desc(), ServiceRow.id.desc()).limit(MOST_LISTED)
    ]


def services_between(first: date, last: date) -> list[StoredService]:
    """The services that may come on a day of a span, by their first and last days, the one changed last first."""
    rows = ServiceRow.select().where(
        (ServiceRow.kitchen_id == kitchen_here())
        & (ServiceRow.last_day >= str(first))
        & (ServiceRow.first_day <= str(last))
    )
    return [_stored(row) for row in rows.order_by(ServiceRow.updated_at.desc(), ServiceRow.id.desc())]


def services_of(service_ids: Collection[int]) -> dict[int, StoredService]:
    """Those services that stand, by number, in one question."""
    if not service_ids:
        return {}
    rows = ServiceRow.select().where(
        (ServiceRow.kitchen_id == kitchen_here()) & ServiceRow.id.in_(sorted(set(service_ids)))
    )
    return {row.id: _stored(row) for row in rows}


def count_undated() -> int:
    """How many services have no day."""
    here = (ServiceRow.kitchen_id == kitchen_here()) & (ServiceRow.first_day == "")
    return int(ServiceRow.select().where(here).count())


def get_service(service_id: int) -> StoredService:
    """One service."""
    row = ServiceRow.get_or_none(_here(service_id))
    if row is None:
        raise NotFoundError(f"service {service_id}")
    return _stored(row)


def create_service(service: Service) -> StoredService:
    """Write a service down."""
    row = ServiceRow.create(kitchen_id=kitchen_here(), revision=1, **columns_of(service))
    made(f"/api/services/{row.id}")
    return _stored(row)


def save_service(service_id: int, service: Service, *, revision: int) -> StoredService:
    """Save over the revision seen, or raise ``ConflictError`` with what stands now."""
    changed = (
        ServiceRow.update(revision=ServiceRow.revision + 1, **columns_of(service))
        .where(_here(service_id) & (ServiceRow.revision == revision))
        .execute()
    )
    stored = get_service(service_id)
    return stored if changed else standing_or_conflict(stored, same=stored.service == service)


def delete_service(service_id: int) -> None:
    """Delete a service for good; its formulas stay."""
    if not ServiceRow.delete().where(_here(service_id)).execute():
        raise NotFoundError(f"service {service_id}")
