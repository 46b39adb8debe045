"""What is asked and answered about signing in, and about the people of a kitchen."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from vianda.api.wire import Answer, Moment
from vianda.interchange.documents import Strict
from vianda.storage.people_repository import Person, Role, SignIn

Secret = Annotated[str, Field(max_length=200)]
PersonName = Annotated[str, Field(max_length=80)]
Token = Annotated[str, Field(min_length=20, max_length=100, pattern=r"^[A-Za-z0-9_-]+$")]


class PersonAnswer(Answer):
    """Somebody who may sign in."""

    id: int
    name: str
    role: Role
    has_pin: bool
    disabled: bool
    created_at: Moment


class ShortPerson(Answer):
    """Somebody on the list of a shift's device."""

    id: int
    name: str


class SessionAnswer(Answer):
    """Whether there are accounts, and who is signed in: ``person`` None for nobody.

    ``shift``: this device is of a shift, and ``crew`` takes it up by PIN.
    """

    accounts: bool
    person: PersonAnswer | None
    by: Literal["password", "device", "pin"] | None
    shift: bool
    crew: list[ShortPerson]


class PlaceAnswer(Answer):
    """Where somebody is signed in; ``here``: at this very browser."""

    key: str
    person: str
    kind: Literal["password", "device", "pin"]
    device: str
    created_at: Moment
    seen_at: Moment
    here: bool


class SignInRequest(Strict):
    """Name and password."""

    name: PersonName
    password: Secret


class PinRequest(Strict):
    """Who takes the device up, and their PIN."""

    person_id: Annotated[int, Field(ge=1)]
    pin: Annotated[str, Field(max_length=20)]


class PasswordRequest(Strict):
    """The password of now, and the new one."""

    old: Secret
    new: Secret


class SetPinRequest(Strict):
    """The password, and the new PIN; "" for none."""

    password: Secret
    pin: Annotated[str, Field(max_length=20)]


class InviteRequest(Strict):
    """Who is asked in, and as what."""

    name: PersonName
    role: Role


class InvitedAnswer(Answer):
    """A link that works once, and the same as a picture for a telephone (SVG as a data address)."""

    name: str
    role: Role
    link: str
    picture: str
    ends_at: Moment


class LookRequest(Strict):
    """The token of an invitation."""

    token: Token


class InvitationAnswer(Answer):
    """What an invitation is for; ``again``: of somebody who is here already and sets a new password."""

    name: str
    role: Role
    again: bool
    ends_at: Moment


class AcceptRequest(Strict):
    """The token, a password, and a PIN for shifts or ""."""

    token: Token
    password: Secret
    pin: Annotated[str, Field(max_length=20)] = ""


class RoleRequest(Strict):
    """Another role."""

    role: Role


class DisableRequest(Strict):
    """Whether they are let in no more."""

    disabled: bool


class AuditRequest(Strict):
    """The newest lines, those before a number, or one person's."""

    before: Annotated[int, Field(ge=1)] | None = None
    person: Annotated[str, Field(max_length=40)] = ""


class AuditAnswer(Answer):
    """One change or sign-in."""

    id: int
    at: Moment
    person: str
    kitchen_id: int | None
    action: str
    about: str
    # The same in words, by the name that the thing has now.
    said: str


def person_answer(found: Person) -> PersonAnswer:
    return PersonAnswer(
        id=found.id, name=found.name, role=found.role, has_pin=found.has_pin, disabled=found.disabled,
        created_at=found.created_at,
    )  # fmt: skip


def place_answers(found: list[SignIn], *, mine: str) -> list[PlaceAnswer]:
    return [
        PlaceAnswer(
            key=one.key, person=one.person.name if one.person else "", kind=one.kind, device=one.device,
            created_at=one.created_at, seen_at=one.seen_at, here=one.key == mine,
        )
        for one in found
    ]  # fmt: skip
