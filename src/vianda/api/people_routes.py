"""Signing in and out, one's own account, shifts at a device, and the people of a kitchen."""

from __future__ import annotations

import hashlib
from typing import Annotated, Literal
from urllib.parse import quote

import segno
from flask import Blueprint, request
from pydantic import Field

from vianda.api import identity
from vianda.api.contract import operation
from vianda.api.guard import limited
from vianda.api.wire import Answer, Moment
from vianda.interchange.documents import Strict
from vianda.services import people
from vianda.storage.audit_repository import AuditLine
from vianda.storage.people_repository import Invitation, Person, Role, SignIn

blueprint = Blueprint("people", __name__, url_prefix="/api")
# Each process counts its own, and there are two: ten in a quarter of an hour, by name and by address.
TRIES = "5 per 15 minutes"
Secret = Annotated[str, Field(max_length=200)]
PersonName = Annotated[str, Field(max_length=80)]
Token = Annotated[str, Field(min_length=20, max_length=100, pattern=r"^[A-Za-z0-9_-]+$")]


def _by_name() -> str:
    said = request.get_json(silent=True)
    name = said.get("name", "") if isinstance(said, dict) else ""
    return "name:" + hashlib.sha256(str(name).casefold().encode()).hexdigest()


def _by_address() -> str:
    return f"address:{request.remote_addr}"


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


def _person(found: Person) -> PersonAnswer:
    return PersonAnswer(
        id=found.id, name=found.name, role=found.role, has_pin=found.has_pin, disabled=found.disabled,
        created_at=found.created_at,
    )  # fmt: skip


def _session(person: Person | None, by: str | None, *, shift: bool) -> SessionAnswer:
    crew = [ShortPerson(id=p.id, name=p.name) for p in people.with_pins()] if shift else []
    told = _person(person) if person else None
    return SessionAnswer(accounts=people.anybody(), person=told, by=by, shift=shift, crew=crew)  # type: ignore[arg-type]


def _given(given: people.Given, by: str) -> SessionAnswer:
    lasts = people.SHIFT if by == "pin" else people.LASTS
    identity.give(given.token, cookie=identity.COOKIE, seconds=lasts.total_seconds())
    return _session(given.person, by, shift=identity.device_of_shift() is not None)


@operation(
    blueprint, "GET", "/session", summary="Whether there are accounts, and who is signed in", answer=SessionAnswer
)
def get_session() -> SessionAnswer:
    user = identity.signed_in()
    shift = identity.device_of_shift() is not None
    return _session(user.person if user else None, user.session.kind if user else None, shift=shift)


@operation(blueprint, "POST", "/session", summary="Sign in", body=SignInRequest, answer=SessionAnswer, problems=(429,))
@limited(TRIES, _by_address)
@limited(TRIES, _by_name)
def sign_in(body: SignInRequest) -> SessionAnswer:
    return _given(people.sign_in(body.name, body.password, device=identity.browser()), "password")


@operation(blueprint, "DELETE", "/session", summary="Sign out", answer=SessionAnswer, problems=(401,))
def sign_out() -> SessionAnswer:
    people.sign_out(identity.user().session)
    identity.take(identity.COOKIE)
    return _session(None, None, shift=identity.device_of_shift() is not None)


@operation(
    blueprint,
    "POST",
    "/session/first-owner",
    summary="Make the first account, from the kitchen's own machine; from then on everybody signs in",
    body=SignInRequest,
    answer=SessionAnswer,
)
def first_owner(body: SignInRequest) -> SessionAnswer:
    return _given(people.first_owner(body.name, body.password, device=identity.browser()), "password")


@operation(
    blueprint,
    "POST",
    "/session/shift",
    summary="Make this device one of a shift: the crew takes it up by PIN until it is over",
    answer=SessionAnswer,
    problems=(401,),
)
def begin_shift() -> SessionAnswer:
    user = identity.user()
    given = people.begin_shift(device=identity.browser())
    identity.give(given.token, cookie=identity.DEVICE_COOKIE, seconds=people.SHIFT.total_seconds())
    return _session(user.person, user.session.kind, shift=True)


@operation(
    blueprint,
    "DELETE",
    "/session/shift",
    summary="End the shift at this device, and sign out whoever has it",
    answer=SessionAnswer,
    problems=(401,),
)
def end_shift() -> SessionAnswer:
    user, device = identity.user(), identity.device_of_shift()
    if device is not None:
        people.end_sign_in(device.key, of=None)
    identity.take(identity.DEVICE_COOKIE)
    if user.session.kind == "pin":
        identity.take(identity.COOKIE)
        return _session(None, None, shift=False)
    return _session(user.person, user.session.kind, shift=False)


@operation(
    blueprint,
    "POST",
    "/session/pin",
    summary="Take a device of a shift up with a PIN",
    body=PinRequest,
    answer=SessionAnswer,
    problems=(401,),
)
def take_up_shift(body: PinRequest) -> SessionAnswer:
    device = identity.device_of_shift()
    if device is None:
        raise people.NotAllowedError("The shift at this device is over. Sign in with a password.")
    return _given(people.take_up(device, body.person_id, body.pin), "pin")


@operation(
    blueprint, "PUT", "/session/password", summary="Set a new password", body=PasswordRequest, problems=(401, 429)
)
@limited(TRIES, _by_address)
def change_password(body: PasswordRequest) -> None:
    people.change_password(identity.user().session, old=body.old, new=body.new)


@operation(
    blueprint, "PUT", "/session/my-pin", summary="Set a PIN for shifts, or none", body=SetPinRequest,
    problems=(401, 429),
)  # fmt: skip
@limited(TRIES, _by_address)
def set_pin(body: SetPinRequest) -> None:
    people.set_pin(identity.user().session, password=body.password, pin=body.pin)


def _places(found: list[SignIn]) -> list[PlaceAnswer]:
    mine = identity.user().session.key
    return [
        PlaceAnswer(
            key=one.key, person=one.person.name if one.person else "", kind=one.kind, device=one.device,
            created_at=one.created_at, seen_at=one.seen_at, here=one.key == mine,
        )
        for one in found
    ]  # fmt: skip


@operation(
    blueprint, "GET", "/session/places", summary="Where you are signed in", answer=list[PlaceAnswer], problems=(401,)
)
def list_places() -> list[PlaceAnswer]:
    return _places(people.sign_ins_of(identity.user().person.id))


@operation(blueprint, "DELETE", "/session/places/<key>", summary="End one of your sign-ins", problems=(401, 404))
def end_place(key: str) -> None:
    people.end_sign_in(key, of=identity.user().person.id)


@operation(blueprint, "GET", "/people", summary="Everybody who may sign in", answer=list[PersonAnswer], problems=(401,))
def list_people() -> list[PersonAnswer]:
    return [_person(found) for found in people.list_people()]


def _invited(token: str, invitation: Invitation) -> InvitedAnswer:
    # Behind the sign that is never sent to a server, so that it stands in no log.
    link = f"{request.host_url}join#{quote(token)}"
    picture = segno.make(link, error="m").svg_data_uri(scale=4, border=2, dark="#1b2327", light="#fff")
    return InvitedAnswer(
        name=invitation.name, role=invitation.role, link=link, picture=picture, ends_at=invitation.ends_at
    )


@operation(
    blueprint,
    "POST",
    "/people/invitations",
    summary="Ask somebody in by a link that works once",
    body=InviteRequest,
    answer=InvitedAnswer,
    status=201,
    problems=(401,),
)
def invite(body: InviteRequest) -> InvitedAnswer:
    return _invited(*people.invite(body.name, body.role))


@operation(
    blueprint,
    "POST",
    "/people/<int:person_id>/invitation",
    summary="Let somebody set a new password by a link that works once",
    answer=InvitedAnswer,
    status=201,
    problems=(401, 404),
)
def invite_again(person_id: int) -> InvitedAnswer:
    return _invited(*people.invite_again(person_id))


@operation(
    blueprint,
    "PUT",
    "/people/<int:person_id>/role",
    summary="Give somebody another role",
    body=RoleRequest,
    answer=PersonAnswer,
    problems=(401, 404),
)
def change_role(person_id: int, body: RoleRequest) -> PersonAnswer:
    return _person(people.change_role(person_id, body.role))


@operation(
    blueprint,
    "PUT",
    "/people/<int:person_id>/disabled",
    summary="Let somebody in no more, or again",
    body=DisableRequest,
    answer=PersonAnswer,
    problems=(401, 404),
)
def disable_person(person_id: int, body: DisableRequest) -> PersonAnswer:
    return _person(people.disable(person_id, disabled=body.disabled))


@operation(
    blueprint,
    "DELETE",
    "/people/<int:person_id>",
    summary="Delete somebody; records keep that somebody did it, without the name",
    problems=(401, 404),
)
def remove_person(person_id: int) -> None:
    people.remove(person_id)


@operation(
    blueprint, "GET", "/people/places", summary="Where anybody is signed in", answer=list[PlaceAnswer], problems=(401,)
)
def list_all_places() -> list[PlaceAnswer]:
    return _places(people.sign_ins_of(None))


@operation(blueprint, "DELETE", "/people/places/<key>", summary="End anybody's sign-in", problems=(401, 404))
def end_any_place(key: str) -> None:
    people.end_sign_in(key, of=None)


@operation(
    blueprint,
    "POST",
    "/invitations/look",
    summary="What an invitation is for",
    body=LookRequest,
    answer=InvitationAnswer,
    problems=(404, 429),
)
@limited("20 per 15 minutes", _by_address)
def look_at_invitation(body: LookRequest) -> InvitationAnswer:
    found = people.look_at_invitation(body.token)
    return InvitationAnswer(name=found.name, role=found.role, again=found.person_id is not None, ends_at=found.ends_at)


@operation(
    blueprint,
    "POST",
    "/invitations/accept",
    summary="Come in by an invitation, with a password and, if wanted, a PIN",
    body=AcceptRequest,
    answer=SessionAnswer,
    problems=(404, 429),
)
@limited("20 per 15 minutes", _by_address)
def accept_invitation(body: AcceptRequest) -> SessionAnswer:
    given = people.accept(body.token, password=body.password, pin=body.pin, device=identity.browser())
    return _given(given, "password")


def _line(found: AuditLine) -> AuditAnswer:
    return AuditAnswer(
        id=found.id, at=found.at, person=found.person, kitchen_id=found.kitchen_id, action=found.action,
        about=found.about,
    )  # fmt: skip


@operation(
    blueprint,
    "POST",
    "/audit",
    summary="Who changed what, the newest first",
    body=AuditRequest,
    answer=list[AuditAnswer],
    problems=(401,),
)
def read_audit(body: AuditRequest) -> list[AuditAnswer]:
    return [_line(found) for found in people.audit_lines(before=body.before, person=body.person)]
