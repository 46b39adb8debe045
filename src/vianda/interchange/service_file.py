"""The service file: a service with the formulas of its dishes, each as its own file, so that it stands alone.

Format ``vianda-service``. In the file a dish names its formula by its place among ``formulas``, from 1, and so do the
keys of pinned tasks: numbers of a shelf mean nothing elsewhere. Newer and foreign files are refused with a reason.
"""

from __future__ import annotations

import json
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Annotated, Any, Literal

from pydantic import Field, ValidationError

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.model.service import MOST_DISHES, Service
from vianda.interchange.documents import Json, Strict
from vianda.interchange.formula_file import FormulaBundle, UnreadableFileError, read_file, write_file
from vianda.interchange.kept_texts import plain_texts

FORMAT = "vianda-service"
VERSION = 1
# Tasks of a service are called after the formula: "f12-grind".
_OF_FORMULA = re.compile(r"f(\d+)-(.+)", re.DOTALL)


class ServiceFile(Strict):
    """One service, and the formula files of its dishes; a dish's ``formula_id`` is a place among them, from 1."""

    format: Literal["vianda-service"]
    version: Literal[1]
    service: Service
    # Read by the formula file's own reader, which upgrades older ones.
    formulas: Annotated[list[Any], Field(max_length=MOST_DISHES)]


@dataclass(frozen=True, slots=True)
class ServiceBundle:
    """What a service file holds: the service, whose dishes are places among the formulas, from 1."""

    service: Service
    formulas: tuple[FormulaBundle, ...]


def renumbered(service: Service, numbers: Mapping[int, int]) -> Service:
    """A service whose formulas have other numbers, in its dishes and in what is pinned; unknown dishes are left out."""
    dishes = [replace(d, formula_id=numbers[d.formula_id]) for d in service.dishes if d.formula_id in numbers]
    pins = []
    for pin in service.timing.pins:
        found = _OF_FORMULA.fullmatch(pin.task)
        if found is None:
            pins.append(pin)
        elif int(found[1]) in numbers:
            pins.append(replace(pin, task=f"f{numbers[int(found[1])]}-{found[2]}"))
    return replace(service, dishes=tuple(dishes), timing=replace(service.timing, pins=tuple(pins)))


def write_service_file(service: Service, formulas: Mapping[int, FormulaBundle]) -> Json:
    """The file's content. A dish whose formula is not given is left out: it is no longer on the shelf."""
    used = [key for key in dict.fromkeys(d.formula_id for d in service.dishes) if key in formulas]
    numbers = {key: at for at, key in enumerate(used, start=1)}
    return ServiceFile(
        format="vianda-service",
        version=1,
        service=renumbered(service, numbers),
        formulas=[write_file(formulas[key]) for key in used],
    ).model_dump(mode="json")


def read_service_file(content: object) -> ServiceBundle:
    """A bundle from a file's content.

    Raises
    ------
    UnreadableFileError
        Foreign format, unknown or newer version, a field that does not fit, a dish that names no formula of the file.
    """
    if not isinstance(content, dict) or content.get("format") != FORMAT:
        raise UnreadableFileError(f"This file does not say that it is a “{FORMAT}” file.", field="/format")
    version = content.get("version")
    if not isinstance(version, int) or isinstance(version, bool) or version < 1:
        raise UnreadableFileError(f"A service file says its version as a whole number, {VERSION}.", field="/version")
    if version > VERSION:
        raise UnreadableFileError(
            f"This file has version {version}; this Vianda reads up to {VERSION}. Update Vianda to open it.",
            field="/version",
        )
    try:
        model = ServiceFile.model_validate_json(json.dumps(plain_texts(content)))
    except OutOfRangeError as error:
        raise UnreadableFileError(error.detail, field=error.field) from None
    except ValidationError as error:
        first = error.errors()[0]
        pointer = "/" + "/".join(str(place) for place in first["loc"])
        raise UnreadableFileError(f"{pointer}: {first['msg']}.", field=pointer) from None
    bundles = tuple(_read(at, formula) for at, formula in enumerate(model.formulas))
    _check_places(model.service.dishes, len(bundles))
    return ServiceBundle(model.service, bundles)


def _read(at: int, formula: object) -> FormulaBundle:
    try:
        return read_file(formula)
    except UnreadableFileError as error:
        raise UnreadableFileError(f"Formula {at + 1}: {error.detail}", field=f"/formulas/{at}{error.field}") from None


def _check_places(dishes: Sequence[Any], formulas: int) -> None:
    for at, dish in enumerate(dishes):
        if dish.formula_id > formulas:
            raise UnreadableFileError(
                f"Dish {at + 1} names formula {dish.formula_id}, and the file holds {formulas}.",
                field=f"/service/dishes/{at}/formula_id",
            )


def service_file_schema() -> Json:
    """The JSON Schema of the newest version; formulas are formula files."""
    schema = ServiceFile.model_json_schema(mode="validation")
    schema["properties"]["formulas"]["items"] = {"$ref": "formula-file.schema.json"}
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **schema, "title": "Vianda service file"}
