"""The core's own classes as JSON, in and out: there is no second declaration of any of them.

A class of the core carries its bounds as annotations; what is read is checked against them, and unknown fields, wrong
types, NaN and infinities are refused.
"""

from __future__ import annotations

import json
from functools import lru_cache
from typing import Annotated, Any, Generic, TypeVar

from pydantic import BaseModel, ConfigDict, Field, TypeAdapter

Json = dict[str, Any]
Kind = TypeVar("Kind")

# Texts of this application's own writing whose objects are remembered, of each kind.
MOST_KEPT = 1024

STRICT = ConfigDict(extra="forbid", allow_inf_nan=False, strict=True)


class Strict(BaseModel):
    """A model that refuses unknown fields, NaN and infinities, in itself and in the core's classes inside it."""

    model_config = STRICT


class Document(Generic[Kind]):
    """One of the core's classes as a JSON document.

    Parameters
    ----------
    kind : type
        A frozen dataclass of the core.

    Examples
    --------
    >>> from vianda.core.equipment.kitchen import Scale
    >>> scales = Document(Scale)
    >>> scales.plain(scales.read('{"step_g": 5, "capacity_g": 3000}'))
    {'step_g': 5, 'capacity_g': 3000}
    """

    def __init__(self, kind: type[Kind]) -> None:
        # A plain dataclass takes its strictness from what holds it: here a list of one.
        # Just one: an empty text holds none, and of two the second would be lost.
        self._held: TypeAdapter[list[Kind]] = TypeAdapter(
            Annotated[list[kind], Field(min_length=1, max_length=1)],  # type: ignore[valid-type, arg-type]
            config=STRICT,
        )
        self._remembered = lru_cache(MOST_KEPT)(self.read)

    def read(self, text: str) -> Kind:
        """The object of a JSON text; ``ValidationError`` when it does not fit."""
        return self._held.validate_json(f"[{text}]")[0]

    def kept(self, text: str) -> Kind:
        """The object of a text that this application wrote itself; one text is read once. Objects are never changed."""
        return self._remembered(text)

    def schema(self) -> Json:
        """The JSON Schema of it."""
        whole = self._held.json_schema(mode="validation")
        return {**whole["items"], "$defs": whole.get("$defs", {})}

    def of(self, content: object) -> Kind:
        """The object of plain JSON values."""
        return self.read(json.dumps(content))

    def text(self, value: Kind) -> str:
        """The JSON text of an object."""
        return self._held.dump_json([value]).decode()[1:-1]

    def plain(self, value: Kind) -> Json:
        """An object as plain JSON values."""
        content: Json = self._held.dump_python([value], mode="json")[0]
        return content
