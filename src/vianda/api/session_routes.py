"""Signing in and out, coming in by an invitation, one's own account, and shifts at a device."""

from __future__ import annotations

import hashlib

from flask import Blueprint, request

from vianda.api import identity
from vianda.api.contract import operation
from vianda.api.guard import limited
from vianda.api.people_schemas import (
    AcceptRequest,
    InvitationAnswer,
    LookRequest,
    PasswordRequest,
    PinRequest,
    PlaceAnswer,
    SessionAnswer,
    SetPinRequest,
    ShortPerson,
    SignInRequest,
    person_answer,
    place_answers,
)
from vianda.services import people
from vianda.storage.people_repository import Person

blueprint = Blueprint("session", __name__, url_prefix="/api")
# Wrong ones by name, and of one's own password by person; all by address, where a whole kitchen may come from one.
# Each process counts its own, and there are two: OWASP ASVS 4.0.3, 2.2.1 allows 100 wrong ones an hour, these are 40.
TRIES, FROM_ONE_PLACE = "5 per 15 minutes", "30 per 15 minutes"


def _by_name() -> str:
    said = request.get_json(silent=True)
    name = said.get("name", "") if isinstance(said, dict) else ""
    return "name:" + hashlib.sha256(str(name).casefold().encode()).hexdigest()


def _by_address() -> str:
    return f"address:{request.remote_addr}"


def _by_person() -> str:
    return f"person:{identity.user().person.id}"


def _session(person: Person | None, by: str | None, *, shift: bool) -> SessionAnswer:
    crew = [ShortPerson(id=p.id, name=p.name) for p in people.with_pins()] if shift else []
    told = person_answer(person) if person else None
    return SessionAnswer(accounts=people.anybody(), person=told, by=by, shift=shift, crew=crew)  # type: ignore[arg-type]


def _given(given: people.Given, by: str) -> SessionAnswer:
    lasts = people.SHIFT if by == "pin" else people.sign_in_times().lasts
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
@limited(FROM_ONE_PLACE, _by_address)
@limited(TRIES, _by_name, forgiven=True)
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
@limited(TRIES, _by_person, forgiven=True)
def change_password(body: PasswordRequest) -> None:
    people.change_password(identity.user().session, old=body.old, new=body.new)


@operation(
    blueprint, "PUT", "/session/my-pin", summary="Set a PIN for shifts, or none", body=SetPinRequest,
    problems=(401, 429),
)  # fmt: skip
@limited(TRIES, _by_person, forgiven=True)
def set_pin(body: SetPinRequest) -> None:
    people.set_pin(identity.user().session, password=body.password, pin=body.pin)


@operation(
    blueprint, "GET", "/session/places", summary="Where you are signed in", answer=list[PlaceAnswer], problems=(401,)
)
def list_places() -> list[PlaceAnswer]:
    return place_answers(people.sign_ins_of(identity.user().person.id), mine=identity.user().session.key)


@operation(blueprint, "DELETE", "/session/places/<key>", summary="End one of your sign-ins", problems=(401, 404))
def end_place(key: str) -> None:
    people.end_sign_in(key, of=identity.user().person.id)


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
