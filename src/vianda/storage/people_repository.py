"""People, where they are signed in, and invitations. Tokens are kept as digests only."""

from __future__ import annotations

import hashlib
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Literal, cast

from peewee import Expression, IntegrityError

from vianda.storage.clock import now_utc
from vianda.storage.folded import folded
from vianda.storage.records import ConflictError, NotFoundError
from vianda.storage.revisions import touch
from vianda.storage.tables import (
    AuditRow,
    CookRow,
    FormulaRow,
    InvitationRow,
    PersonRow,
    RunEventRow,
    ServiceRow,
    SignedInRow,
    VersionRow,
    WeighingRow,
)

Role = Literal["owner", "chef", "cook", "reader"]
SignInKind = Literal["password", "device", "pin"]
# Seen again within this is not written down each time.
SEEN_EVERY = timedelta(minutes=5)
NOBODY = "somebody who left"
# Under which changes of who may do what are counted.
PEOPLE = "people"


@dataclass(frozen=True, slots=True)
class Person:
    """Somebody who may sign in."""

    id: int
    name: str
    role: Role
    has_password: bool
    has_pin: bool
    disabled: bool
    created_at: datetime


@dataclass(frozen=True, slots=True)
class SignIn:
    """Where somebody is signed in; a device of a shift has nobody. ``key`` names it without giving its token away."""

    key: str
    person: Person | None
    kind: SignInKind
    device: str
    created_at: datetime
    seen_at: datetime
    ends_at: datetime
    by_device: str


@dataclass(frozen=True, slots=True)
class Invitation:
    """Who is asked in; ``person_id`` for somebody who is here already and sets a new password."""

    name: str
    role: Role
    person_id: int | None
    ends_at: datetime


def digest(token: str) -> str:
    """What is kept of a token."""
    return hashlib.sha256(token.encode()).hexdigest()


def _person(row: PersonRow) -> Person:
    return Person(
        row.id, row.name, cast(Role, row.role), bool(row.password_hash), bool(row.pin_hash), bool(row.disabled),
        row.created_at,
    )  # fmt: skip


def anybody() -> bool:
    """Whether there are accounts."""
    return bool(PersonRow.select(PersonRow.id).limit(1).exists())


def owner_with_password() -> bool:
    """Whether an owner can sign in."""
    can = (PersonRow.role == "owner") & (PersonRow.password_hash != "") & ~PersonRow.disabled
    return bool(PersonRow.select(PersonRow.id).where(can).limit(1).exists())


def people() -> list[Person]:
    """Everybody, in the order of their names."""
    return [_person(row) for row in PersonRow.select().order_by(PersonRow.folded)]


def get_person(person_id: int) -> Person:
    """One of them."""
    row = PersonRow.get_or_none(PersonRow.id == person_id)
    if row is None:
        raise NotFoundError(f"person {person_id}")
    return _person(row)


def lock_people() -> list[Person]:
    """Everybody, held until the transaction ends: two owners never take each other's last right away.

    A lock holds on one node of a cluster; of two that both count a change, one is taken back and done again.
    """
    touch(PEOPLE)
    return [_person(row) for row in PersonRow.select().order_by(PersonRow.id).for_update()]


def find_person(name: str) -> tuple[Person, str] | None:
    """Somebody by name, with the digest of their password."""
    row = PersonRow.get_or_none(PersonRow.folded == folded(name))
    return (_person(row), row.password_hash) if row is not None else None


def hashes(person_id: int) -> tuple[str, str]:
    """The digests of somebody's password and PIN."""
    row = PersonRow.get_by_id(person_id)
    return row.password_hash, row.pin_hash


def add_person(name: str, role: Role, *, password_hash: str, pin_hash: str = "") -> Person:
    """Somebody new; ``ConflictError`` when the name is taken."""
    try:
        number = PersonRow.insert(
            name=name, folded=folded(name), role=role, password_hash=password_hash, pin_hash=pin_hash,
            created_at=now_utc(),
        ).execute()  # fmt: skip
    except IntegrityError:
        raise ConflictError(None) from None
    return get_person(int(number))


def change_person(
    person_id: int,
    *,
    role: Role | None = None,
    disabled: bool | None = None,
    password_hash: str | None = None,
    pin_hash: str | None = None,
) -> Person:
    """Change what is given."""
    given = {"role": role, "disabled": disabled, "password_hash": password_hash, "pin_hash": pin_hash}
    changes = {name: value for name, value in given.items() if value is not None}
    if changes:
        PersonRow.update(**changes).where(PersonRow.id == person_id).execute()
    return get_person(person_id)


def delete_person(person_id: int) -> None:
    """Delete somebody; where they are signed in ends, and records say that somebody did it who left."""
    person = get_person(person_id)
    SignedInRow.delete().where(SignedInRow.person_id == person_id).execute()
    InvitationRow.delete().where(InvitationRow.person_id == person_id).execute()
    PersonRow.delete().where(PersonRow.id == person_id).execute()
    AuditRow.update(person=NOBODY, person_id=None).where(AuditRow.person_id == person_id).execute()
    for column in (
        FormulaRow.changed_by, VersionRow.kept_by, CookRow.begun_by, CookRow.noted_by, ServiceRow.changed_by,
        WeighingRow.begun_by, RunEventRow.who,
    ):  # fmt: skip
        column.model.update({column: NOBODY}).where(column == person.name).execute()


# Where they are signed in.


def sign_in(
    token: str, person_id: int | None, kind: SignInKind, *, device: str, lasts: timedelta, by_device: str = ""
) -> None:
    """Keep that somebody is signed in with a token."""
    now = now_utc()
    SignedInRow.insert(
        token_hash=digest(token), person_id=person_id, kind=kind, device=device[:80], by_device=by_device,
        created_at=now, seen_at=now, ends_at=now + lasts,
    ).execute()  # fmt: skip


def signed_in(token: str, *, idle: timedelta) -> SignIn | None:
    """Who is signed in with a token; None when it ended, was idle for too long, or they may not any more."""
    row = SignedInRow.get_or_none(SignedInRow.token_hash == digest(token))
    if row is None:
        return None
    now = now_utc()
    if row.ends_at <= now or (row.kind == "password" and row.seen_at + idle <= now):
        SignedInRow.delete().where(SignedInRow.token_hash == row.token_hash).execute()
        return None
    person = None
    if row.person_id is not None:
        found = PersonRow.get_or_none(PersonRow.id == row.person_id)
        if found is None or found.disabled:
            return None
        person = _person(found)
    if row.seen_at + SEEN_EVERY <= now:
        SignedInRow.update(seen_at=now).where(SignedInRow.token_hash == row.token_hash).execute()
    return _sign_in(row, person)


def _sign_in(row: SignedInRow, person: Person | None) -> SignIn:
    return SignIn(
        row.token_hash, person, cast(SignInKind, row.kind), row.device, row.created_at, row.seen_at, row.ends_at,
        row.by_device,
    )  # fmt: skip


def sign_ins(person_id: int | None = None) -> list[SignIn]:
    """Where somebody, or anybody, is signed in."""
    rows = SignedInRow.select().where(SignedInRow.ends_at > now_utc()).order_by(SignedInRow.seen_at.desc())
    if person_id is not None:
        rows = rows.where(SignedInRow.person_id == person_id)
    known: dict[int | None, Person] = {person.id: person for person in people()}
    return [_sign_in(row, known.get(row.person_id)) for row in rows]


def end_sign_in(key: str) -> None:
    """End one; of a device, all PINs that came by it too."""
    SignedInRow.delete().where((SignedInRow.token_hash == key) | (SignedInRow.by_device == key)).execute()


def end_sign_ins(person_id: int, *, but: str = "") -> None:
    """End all of somebody's, but for one."""
    SignedInRow.delete().where((SignedInRow.person_id == person_id) & (SignedInRow.token_hash != but)).execute()


def count_wrong(key: str) -> int:
    """One more wrong PIN at a device; how many that are."""
    here = SignedInRow.token_hash == key
    SignedInRow.update(wrong=SignedInRow.wrong + 1).where(here).execute()
    row = SignedInRow.get_or_none(here)
    return row.wrong if row is not None else 0


def count_right(key: str) -> None:
    """A right PIN: wrong ones before it do not count any more."""
    SignedInRow.update(wrong=0).where((SignedInRow.token_hash == key) & (SignedInRow.wrong > 0)).execute()


def forget_ended() -> None:
    """Delete what ended."""
    now = now_utc()
    SignedInRow.delete().where(SignedInRow.ends_at < now).execute()
    InvitationRow.delete().where(InvitationRow.ends_at < now - timedelta(days=30)).execute()


# Invitations.


def invite(token: str, name: str, role: Role, *, person_id: int | None, lasts: timedelta) -> Invitation:
    """Ask somebody in."""
    now = now_utc()
    InvitationRow.insert(
        token_hash=digest(token), name=name, role=role, person_id=person_id, created_at=now, ends_at=now + lasts
    ).execute()
    return Invitation(name, role, person_id, now + lasts)


def _open_invitation(token: str) -> Expression:
    return (
        (InvitationRow.token_hash == digest(token))
        & InvitationRow.used_at.is_null()
        & (InvitationRow.ends_at > now_utc())
    )


def find_invitation(token: str) -> Invitation:
    """An invitation that still stands."""
    row = InvitationRow.get_or_none(_open_invitation(token))
    if row is None:
        raise NotFoundError("invitation")
    return Invitation(row.name, cast(Role, row.role), row.person_id, row.ends_at)


def use_invitation(token: str) -> Invitation:
    """Use it up: the one who is first has it."""
    found = find_invitation(token)
    if not InvitationRow.update(used_at=now_utc()).where(_open_invitation(token)).execute():
        raise NotFoundError("invitation")
    return found
