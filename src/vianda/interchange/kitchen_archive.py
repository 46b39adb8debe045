"""A whole kitchen as one archive: a zip of JSON files, each a part with its version, and photographs beside.

``archive.json`` says what is in it: the format, its version, the kitchen's name, and each file with the part it
belongs to, the version of that part, how many items it holds and the SHA-256 of its bytes. A part with many items is
cut into several files, so that neither side ever holds all of it.
"""

from __future__ import annotations

import hashlib
import json
import re
import zipfile
import zlib
from collections.abc import Iterable, Iterator
from datetime import datetime
from itertools import islice
from typing import IO, Annotated, Any, Literal

from pydantic import AwareDatetime, Field, ValidationError

from vianda.core.basis.errors import CoreError
from vianda.interchange.archive_parts import PARTS
from vianda.interchange.documents import Document, Json, Strict
from vianda.interchange.kept_texts import plain_texts

FORMAT, VERSION = "vianda-kitchen-archive", 1
MEDIA_TYPE = "application/zip"
MANIFEST = "archive.json"
# Items a file; bytes of a file, and of all when unpacked; files: far beyond any kitchen, and short of a full disk.
CHUNK, LARGEST_FILE, LARGEST_UNPACKED, MOST_FILES = 500, 120_000_000, 4_000_000_000, 30_000
_PHOTOGRAPH = re.compile(r"photographs/(\d{1,10})\.jpg")
_DOCUMENTS: dict[str, Document[list[Any]]] = {name: Document(list[part.item]) for name, part in PARTS.items()}  # type: ignore[name-defined]


class UnreadableArchiveError(CoreError):
    """A file that is not a kitchen archive we can read."""

    code = "unreadable-archive"
    title = "That file cannot be read as a kitchen archive"


class FileEntry(Strict):
    """One file of the archive."""

    path: Annotated[str, Field(max_length=60, pattern=r"^[a-z]+-[0-9]{3,6}\.json$")]
    part: Annotated[str, Field(max_length=20)]
    version: Annotated[int, Field(ge=1)]
    items: Annotated[int, Field(ge=0, le=CHUNK)]
    sha256: Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")]


class Manifest(Strict):
    """What an archive says of itself."""

    format: Literal["vianda-kitchen-archive"]
    version: Literal[1]
    kitchen: Annotated[str, Field(min_length=1, max_length=80)]
    made_at: AwareDatetime
    files: Annotated[list[FileEntry], Field(max_length=MOST_FILES)]


def part_format(part: str) -> str:
    """What a file of a part says that it is."""
    return f"vianda-kitchen/{part}"


class Writer:
    """Writes an archive item by item; ``close`` writes what is in it and ends it."""

    def __init__(self, out: IO[bytes], *, kitchen: str, made_at: datetime) -> None:
        self._zip = zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED)
        self._manifest = Manifest(
            format="vianda-kitchen-archive", version=1, kitchen=kitchen, made_at=made_at, files=[]
        )
        self._stamp = made_at.timetuple()[:6]

    def part(self, part: str, items: Iterable[Any]) -> None:
        """Write all items of a part."""
        for at, some in enumerate(_chunks(items), start=1):
            content = {
                "format": part_format(part),
                "version": PARTS[part].version,
                "items": _DOCUMENTS[part].plain(some),
            }
            data = json.dumps(content, ensure_ascii=False, indent=1).encode()
            path = f"{part}-{at:03d}.json"
            self._put(path, data)
            self._manifest.files.append(
                FileEntry(
                    path=path, part=part, version=PARTS[part].version, items=len(some),
                    sha256=hashlib.sha256(data).hexdigest(),
                )
            )  # fmt: skip

    def photograph(self, number: int, jpeg: bytes) -> None:
        """Put the file of a photograph beside."""
        self._put(f"photographs/{number}.jpg", jpeg)

    def close(self) -> Manifest:
        """End the archive; what it says of itself."""
        self._put(MANIFEST, self._manifest.model_dump_json(indent=1).encode())
        self._zip.close()
        return self._manifest

    def _put(self, path: str, data: bytes) -> None:
        info = zipfile.ZipInfo(path, self._stamp)
        info.compress_type = zipfile.ZIP_DEFLATED
        info.external_attr = 0o644 << 16
        self._zip.writestr(info, data)


class Archive:
    """An archive that is read.

    Raises
    ------
    UnreadableArchiveError
        It is no zip, holds what no archive holds, lacks what it lists, is of a newer version, or a field does not fit;
        the reason names file and place.
    """

    def __init__(self, file: IO[bytes]) -> None:
        try:
            self._zip = zipfile.ZipFile(file)
        except (zipfile.BadZipFile, OSError, ValueError, NotImplementedError):
            raise UnreadableArchiveError("This is not a zip archive, or it broke off on its way.") from None
        self._check_directory()
        self.manifest = self._read_manifest()
        listed = [entry.path for entry in self.manifest.files]
        held = {name for name in self._zip.namelist() if name != MANIFEST and not _PHOTOGRAPH.fullmatch(name)}
        if len(set(listed)) != len(listed) or held != set(listed):
            odd = sorted(held ^ set(listed)) or listed
            raise UnreadableArchiveError(f"What {MANIFEST} lists is not what the archive holds: {odd[0]}.")
        for entry in self.manifest.files:
            self._check_entry(entry)

    def counts(self) -> dict[str, int]:
        """How many items each part says to hold."""
        found = dict.fromkeys(PARTS, 0)
        for entry in self.manifest.files:
            found[entry.part] += entry.items
        return found

    def items(self, part: str) -> Iterator[Any]:
        """The items of a part, one after the other; each is checked as it is read."""
        for entry in self.manifest.files:
            if entry.part == part:
                yield from self._items(entry)

    def photograph(self, number: int, sha256: str) -> bytes:
        """The file of a photograph."""
        path = f"photographs/{number}.jpg"
        data = self._bytes(path)
        if hashlib.sha256(data).hexdigest() != sha256:
            raise UnreadableArchiveError(f"{path} is not what the archive says it is: its SHA-256 differs.")
        return data

    def _items(self, entry: FileEntry) -> Iterator[Any]:
        data = self._bytes(entry.path)
        if hashlib.sha256(data).hexdigest() != entry.sha256:
            raise UnreadableArchiveError(f"{entry.path} was changed or damaged: its SHA-256 differs.")
        content = _json(entry.path, data)
        if not isinstance(content, dict) or content.get("format") != part_format(entry.part):
            raise UnreadableArchiveError(f"{entry.path} does not say that it is “{part_format(entry.part)}”.")
        items = content.get("items")
        if not isinstance(items, list) or len(items) != entry.items or set(content) != {"format", "version", "items"}:
            raise UnreadableArchiveError(f"{entry.path} does not hold the {entry.items} items that {MANIFEST} says.")
        if content["version"] != entry.version:
            raise UnreadableArchiveError(f"{entry.path} says another version than {MANIFEST}.")
        try:
            yield from _DOCUMENTS[entry.part].of(plain_texts(items, refusing=False))
        except ValidationError as error:
            first = error.errors(include_url=False, include_input=False)[0]
            place = "/".join(str(step) for step in ("items", *first["loc"][1:]))
            raise UnreadableArchiveError(f"{entry.path}, /{place}: {first['msg']}.") from None
        except CoreError as error:
            raise UnreadableArchiveError(f"{entry.path}: {error.detail}") from None

    def _check_directory(self) -> None:
        infos = self._zip.infolist()
        names = [info.filename for info in infos]
        if len(names) > MOST_FILES or len(set(names)) != len(names):
            raise UnreadableArchiveError(f"An archive holds at most {MOST_FILES} files, each once.")
        if sum(info.file_size for info in infos) > LARGEST_UNPACKED:
            raise UnreadableArchiveError(f"Unpacked it has more than {LARGEST_UNPACKED // 10**9} GB.")
        if MANIFEST not in names:
            raise UnreadableArchiveError(f"It holds no {MANIFEST}: this is a zip, but no kitchen archive.")

    def _read_manifest(self) -> Manifest:
        content = _json(MANIFEST, self._bytes(MANIFEST))
        if not isinstance(content, dict) or content.get("format") != FORMAT:
            raise UnreadableArchiveError(f"{MANIFEST} does not say that this is a “{FORMAT}”.")
        version = content.get("version")
        if isinstance(version, int) and not isinstance(version, bool) and version > VERSION:
            raise UnreadableArchiveError(
                f"This archive has version {version}; this Vianda reads up to {VERSION}. Update Vianda to read it."
            )
        try:
            return Manifest.model_validate_json(json.dumps(content))
        except ValidationError as error:
            first = error.errors(include_url=False, include_input=False)[0]
            place = "/".join(str(step) for step in first["loc"])
            raise UnreadableArchiveError(f"{MANIFEST}, /{place}: {first['msg']}.") from None

    def _check_entry(self, entry: FileEntry) -> None:
        if entry.part not in PARTS or not entry.path.startswith(f"{entry.part}-"):
            raise UnreadableArchiveError(f"{entry.path} is said to hold “{entry.part}”, which no kitchen archive has.")
        newest = PARTS[entry.part].version
        if entry.version > newest:
            raise UnreadableArchiveError(
                f"{entry.path} has version {entry.version}; this Vianda reads up to {newest}. Update Vianda to read it."
            )

    def _bytes(self, path: str) -> bytes:
        try:
            with self._zip.open(path) as file:
                data = file.read(LARGEST_FILE + 1)
        except KeyError:
            raise UnreadableArchiveError(f"{path} is not in the archive.") from None
        except (zipfile.BadZipFile, zlib.error, OSError, RuntimeError, NotImplementedError, EOFError, ValueError):
            raise UnreadableArchiveError(f"{path} is damaged, or packed in a way that cannot be read.") from None
        if len(data) > LARGEST_FILE:
            raise UnreadableArchiveError(f"{path} has more than {LARGEST_FILE // 10**6} MB.")
        return data


def _chunks(items: Iterable[Any]) -> Iterator[list[Any]]:
    coming = iter(items)
    while some := list(islice(coming, CHUNK)):
        yield some


def _json(path: str, data: bytes) -> Any:
    try:
        return json.loads(data.decode())
    except (ValueError, RecursionError):
        raise UnreadableArchiveError(f"{path} is not JSON.") from None


def archive_schemas() -> dict[str, Json]:
    """The JSON Schema of every file of an archive, by part, and of ``archive.json`` itself."""
    found: dict[str, Json] = {"archive": Manifest.model_json_schema(mode="validation")}
    for name, part in PARTS.items():
        items = _DOCUMENTS[name].schema()
        definitions = items.pop("$defs", {})
        found[name] = {
            "type": "object",
            "properties": {
                "format": {"const": part_format(name)},
                "version": {"const": part.version},
                "items": {**items, "maxItems": CHUNK},
            },
            "required": ["format", "version", "items"],
            "additionalProperties": False,
            "$defs": definitions,
        }
    return {
        name: {
            "$schema": "https://json-schema.org/draft/2020-12/schema",
            "title": f"Vianda kitchen archive: {name}",
            **one,
        }
        for name, one in found.items()
    }


def archive_schema() -> Json:
    """The same as one document: a schema a part."""
    return {"parts": archive_schemas()}
