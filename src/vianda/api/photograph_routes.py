"""Photographs of cooks over the wire: a file in, two JPEG files out."""

from __future__ import annotations

from typing import Annotated

from flask import Blueprint, Response
from pydantic import Field

from vianda.api.contract import operation
from vianda.api.wire import Answer, Moment
from vianda.interchange.documents import Strict
from vianda.interchange.photograph import MEDIA_TYPES
from vianda.services import photographs
from vianda.storage.photograph_repository import StoredPhotograph

blueprint = Blueprint("photographs", __name__, url_prefix="/api")
JPEG = "image/jpeg"
# A photograph never changes under its number; another kitchen on this machine must still not see it in a shared cache.
FOR_EVER = "private, max-age=31536000, immutable"


class CaptionRequest(Strict):
    """What is seen on it."""

    caption: Annotated[str, Field(max_length=120)]


class PhotographAnswer(Answer):
    """One photograph; sides in pixels."""

    id: int
    caption: str
    width: int
    height: int
    at: Moment


def _answer(found: tuple[StoredPhotograph, ...]) -> list[PhotographAnswer]:
    return [PhotographAnswer(id=p.id, caption=p.caption, width=p.width, height=p.height, at=p.at) for p in found]


@operation(
    blueprint,
    "GET",
    "/cooks/<int:cook_id>/photographs",
    summary="Photographs of a cook",
    answer=list[PhotographAnswer],
    problems=(404,),
)
def list_photographs(cook_id: int) -> list[PhotographAnswer]:
    return _answer(photographs.of(cook_id))


@operation(
    blueprint,
    "POST",
    "/cooks/<int:cook_id>/photographs",
    summary="Keep a photograph of a cook; it is written anew without place and camera",
    answer=list[PhotographAnswer],
    status=201,
    problems=(404,),
    once=True,
    takes=MEDIA_TYPES,
)
def add_photograph(cook_id: int, file: bytes) -> list[PhotographAnswer]:
    return _answer(photographs.add(cook_id, file))


@operation(
    blueprint,
    "PUT",
    "/photographs/<int:photograph_id>/caption",
    summary="Say what is seen on a photograph",
    body=CaptionRequest,
    problems=(404,),
)
def caption_photograph(photograph_id: int, body: CaptionRequest) -> None:
    photographs.caption(photograph_id, body.caption)


@operation(blueprint, "DELETE", "/photographs/<int:photograph_id>", summary="Delete a photograph for good")
def delete_photograph(photograph_id: int) -> None:
    photographs.remove(photograph_id)


@operation(
    blueprint,
    "GET",
    "/photographs/<int:photograph_id>/file",
    summary="A photograph as a file",
    problems=(404,),
    gives=JPEG,
)
def photograph_file(photograph_id: int) -> Response:
    return _file(photographs.jpeg(photograph_id, small=False))


@operation(
    blueprint,
    "GET",
    "/photographs/<int:photograph_id>/small",
    summary="A photograph as a small file, for lists",
    problems=(404,),
    gives=JPEG,
)
def small_photograph(photograph_id: int) -> Response:
    return _file(photographs.jpeg(photograph_id, small=True))


def _file(jpeg: bytes) -> Response:
    return Response(jpeg, content_type=JPEG, headers={"Cache-Control": FOR_EVER})
