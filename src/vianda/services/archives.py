"""A whole kitchen out as one archive, and in: looked at first, then all of it or nothing."""

from __future__ import annotations

import hashlib
from collections.abc import Iterator
from dataclasses import asdict, dataclass
from datetime import UTC
from typing import IO, Literal

from vianda.interchange import archive_parts as ap
from vianda.interchange.archive_parts import PARTS
from vianda.interchange.kitchen_archive import Archive, Writer
from vianda.services.bringing_in import Bringing, Differing, Line
from vianda.storage import archive_reading as out
from vianda.storage import kitchen_repository, larder_repository
from vianda.storage.clock import now_utc
from vianda.storage.here import chosen_kitchen, use_kitchen
from vianda.storage.records import ConflictError
from vianda.storage.transaction import transaction

Into = Literal["new", "here"]
# Lines that a preview shows of each part; all are counted.
MOST_SHOWN = 200


@dataclass(frozen=True, slots=True)
class PartReport:
    """What becomes of one part: how many items are added, changed, the same already, and left out."""

    part: str
    title: str
    added: int
    changed: int
    same: int
    skipped: int
    lines: tuple[Line, ...]
    more: int


@dataclass(frozen=True, slots=True)
class ArchiveReport:
    """What an archive would do, or did. ``digest`` stands for all of it; ``kitchen_id`` is where it went."""

    kitchen: str
    made_at: str
    into: Into
    differing: Differing
    parts: tuple[PartReport, ...]
    digest: str
    done: bool
    kitchen_id: int


class _OnlyLookedAtError(Exception):
    """Takes everything back that was done to find out what would be done."""


def write_out(file: IO[bytes]) -> str:
    """Write the kitchen here as an archive; the kitchen's name."""
    # One transaction: what is read is of one moment.
    with transaction():
        kitchen = kitchen_repository.load_kitchen().kitchen
        writer = Writer(file, kitchen=kitchen.name, made_at=now_utc().replace(tzinfo=UTC, microsecond=0))
        writer.part("kitchen", [kitchen])
        writer.part("meats", larder_repository.load_inventory().meats.values())
        writer.part("lots", out.lots())
        writer.part("pantry", out.pantry())
        writer.part("stock", out.stock())
        writer.part("formulas", out.formulas())
        writer.part("services", out.services())
        writer.part("cooks", out.cooks())
        writer.part("weighings", out.weighings())
        writer.part("tastings", out.tastings())
        writer.part("evenings", out.evenings())
        writer.part("observations", out.observations())
        writer.part("training", out.training())
        writer.part("photographs", _photographs(writer))
        writer.close()
    return kitchen.name


def _photographs(writer: Writer) -> Iterator[ap.PhotographItem]:
    for number, cook_id, caption, at, jpeg in out.photographs():
        writer.photograph(number, jpeg)
        yield ap.PhotographItem(
            id=number, cook_id=cook_id, caption=caption, at=at, sha256=hashlib.sha256(jpeg).hexdigest()
        )


def look_at(file: IO[bytes], *, into: Into, differing: Differing = "keep") -> ArchiveReport:
    """What bringing an archive in would do. It is done and taken back, so that nothing else can come of it.

    Raises
    ------
    CoreError
        The archive cannot be read, or what it holds breaks a rule of the kitchen: then none of it could be brought in.
    """
    archive = Archive(file)
    found: list[ArchiveReport] = []
    before = chosen_kitchen()
    try:
        with transaction():
            found.append(_bring(archive, into=into, differing=differing, looking=True))
            raise _OnlyLookedAtError
    except _OnlyLookedAtError:
        return found[0]
    finally:
        # The kitchen that was made to look at it is gone again.
        use_kitchen(before)


def bring_in(file: IO[bytes], *, into: Into, differing: Differing = "keep", expected: str = "") -> ArchiveReport:
    """Bring an archive in, all of it or nothing.

    Parameters
    ----------
    file
        The archive.
    into
        ``new``: as a kitchen of its own; ``here``: into the kitchen here.
    differing
        What becomes of things that stand here and differ: ``keep`` ours, or ``replace`` them.
    expected
        The digest of what was looked at; "" for whatever comes of it.

    Raises
    ------
    ConflictError
        Something else would come of it than was looked at; with what would come of it now.
    """
    archive = Archive(file)
    with transaction():
        done = _bring(archive, into=into, differing=differing, looking=False)
        if expected and done.digest != expected:
            raise ConflictError(done)
    use_kitchen(None)
    return done


def _bring(archive: Archive, *, into: Into, differing: Differing, looking: bool) -> ArchiveReport:
    bringing = Bringing(archive, into_new=into == "new", differing=differing, looking=looking)
    lines = bringing.run()
    parts = tuple(_part(name, lines[name], bringing.counted[name]) for name in PARTS)
    counted = [(p.part, p.added, p.changed, p.same, p.skipped, [asdict(line) for line in p.lines]) for p in parts]
    digest = hashlib.sha256(repr((into, differing, archive.manifest, counted)).encode()).hexdigest()
    made_at = archive.manifest.made_at.isoformat()
    return ArchiveReport(
        archive.manifest.kitchen, made_at, into, differing, parts, digest, not looking, bringing.kitchen_id
    )


def _part(name: str, lines: list[Line], counted: dict[str, int]) -> PartReport:
    shown = tuple(lines[:MOST_SHOWN])
    return PartReport(
        name, PARTS[name].title, counted["added"], counted["changed"], counted["same"], counted["skipped"], shown,
        len(lines) - len(shown),
    )  # fmt: skip
