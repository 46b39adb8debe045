"""A whole kitchen as one archive: out, looked at, and in."""

from __future__ import annotations

import io
import re
import tempfile
from collections.abc import Iterator
from typing import IO, Literal

from flask import Blueprint, Response
from pydantic import TypeAdapter, ValidationError

from vianda.api.contract import operation
from vianda.api.problems import ProblemError, problem
from vianda.api.wire import Answer
from vianda.interchange.kitchen_archive import MEDIA_TYPE, archive_schema
from vianda.services import archives
from vianda.services.archives import ArchiveReport, Into
from vianda.services.bringing_in import Differing
from vianda.storage.clock import now_utc

blueprint = Blueprint("archive", __name__, url_prefix="/api")
# Below so many bytes an archive is made in memory.
IN_MEMORY, CHUNK = 8_000_000, 65_536
_INTO: TypeAdapter[Into] = TypeAdapter(Into)
_DIFFERING: TypeAdapter[Differing] = TypeAdapter(Differing)


class LineAnswer(Answer):
    """What becomes of one item, and why."""

    name: str
    outcome: Literal["added", "changed", "same", "skipped"]
    reason: str


class PartAnswer(Answer):
    """What becomes of one part; ``more`` lines are counted, but not listed."""

    part: str
    title: str
    added: int
    changed: int
    same: int
    skipped: int
    lines: list[LineAnswer]
    more: int


class ArchiveAnswer(Answer):
    """What an archive would do, or did; ``digest`` is sent along to bring in just that."""

    kitchen: str
    made_at: str
    into: Into
    differing: Differing
    parts: list[PartAnswer]
    digest: str
    done: bool
    kitchen_id: int


def archive_answer(report: ArchiveReport) -> ArchiveAnswer:
    """A report for the wire."""
    return ArchiveAnswer.model_validate(report, from_attributes=True)


def _how(into: str, differing: str) -> tuple[Into, Differing]:
    try:
        return _INTO.validate_python(into), _DIFFERING.validate_python(differing)
    except ValidationError:
        raise ProblemError(
            problem(404, "not-found", "There is no such thing", "An archive goes into new or here, to keep or replace.")
        ) from None


@operation(blueprint, "GET", "/archive", summary="The whole kitchen as one archive", gives=MEDIA_TYPE)
def kitchen_archive() -> Response:
    file = tempfile.SpooledTemporaryFile(max_size=IN_MEMORY)  # noqa: SIM115
    try:
        name = archives.write_out(file)
    except BaseException:
        file.close()
        raise
    plain = re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-") or "kitchen"
    headers = {
        "Content-Disposition": f'attachment; filename="{plain}-{now_utc():%Y-%m-%d}.vianda.zip"',
        "Content-Length": str(file.tell()),
    }
    return Response(_chunks(file), content_type=MEDIA_TYPE, headers=headers)


def _chunks(file: IO[bytes]) -> Iterator[bytes]:
    with file:
        file.seek(0)
        while chunk := file.read(CHUNK):
            yield chunk


@operation(
    blueprint,
    "GET",
    "/schema/kitchen-archive",
    summary="The JSON Schemas of the parts of a kitchen archive",
    answer=dict[str, object],
)
def archive_schemas() -> dict[str, object]:
    return archive_schema()


@operation(
    blueprint,
    "POST",
    "/archive/look/<into>/<differing>",
    summary="What an archive would add, change and leave out; nothing is done",
    answer=ArchiveAnswer,
    takes=(MEDIA_TYPE,),
)
def look_at_archive(into: str, differing: str, file: bytes) -> ArchiveAnswer:
    chosen, otherwise = _how(into, differing)
    return archive_answer(archives.look_at(io.BytesIO(file), into=chosen, differing=otherwise))


@operation(
    blueprint,
    "POST",
    "/archive/bring/<into>/<differing>/<digest>",
    summary="Bring an archive in as it was looked at, all of it or nothing",
    answer=ArchiveAnswer,
    takes=(MEDIA_TYPE,),
    problems=(409,),
    once=True,
)
def bring_archive(into: str, differing: str, digest: str, file: bytes) -> ArchiveAnswer:
    chosen, otherwise = _how(into, differing)
    done = archives.bring_in(io.BytesIO(file), into=chosen, differing=otherwise, expected=digest)
    return archive_answer(done)
