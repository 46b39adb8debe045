"""The people of a kitchen: who they are, what they may, where they are signed in, and what they changed."""

from __future__ import annotations

from urllib.parse import quote

import segno
from flask import Blueprint, request

from vianda.api import identity
from vianda.api.contract import operation
from vianda.api.people_schemas import (
    AuditAnswer,
    AuditRequest,
    DisableRequest,
    InvitedAnswer,
    InviteRequest,
    PersonAnswer,
    PlaceAnswer,
    RoleRequest,
    person_answer,
    place_answers,
)
from vianda.services import people
from vianda.services.audit_words import ToldLine
from vianda.storage.people_repository import Invitation

blueprint = Blueprint("people", __name__, url_prefix="/api")


@operation(blueprint, "GET", "/people", summary="Everybody who may sign in", answer=list[PersonAnswer], problems=(401,))
def list_people() -> list[PersonAnswer]:
    return [person_answer(found) for found in people.list_people()]


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
    return person_answer(people.change_role(person_id, body.role))


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
    return person_answer(people.disable(person_id, disabled=body.disabled))


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
    return place_answers(people.sign_ins_of(None), mine=identity.user().session.key)


@operation(blueprint, "DELETE", "/people/places/<key>", summary="End anybody's sign-in", problems=(401, 404))
def end_any_place(key: str) -> None:
    people.end_sign_in(key, of=None)


def _line(found: ToldLine) -> AuditAnswer:
    line = found.line
    return AuditAnswer(
        id=line.id, at=line.at, person=line.person, kitchen_id=line.kitchen_id, action=line.action, about=line.about,
        said=found.said,
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
