"""One decorator a route: body in by pydantic, answer out by pydantic, and the OpenAPI document from both.

APIFlask was tried: it joins error paths into one string and names nested models once per parent, which doubles
the generated types. This is the little that is left to do.
"""

from __future__ import annotations

import functools
import hashlib
import re
from collections.abc import Callable
from dataclasses import dataclass, fields, is_dataclass
from typing import Any

from flask import Blueprint, Response, request
from pydantic import BaseModel, TypeAdapter
from pydantic.json_schema import GenerateJsonSchema, JsonSchemaMode
from werkzeug.exceptions import HTTPException

from vianda.api.permissions import WRITES
from vianda.api.problems import Problem, ProblemError, core_problem, problem
from vianda.api.searched import LINES, in_lines, wants_lines
from vianda.api.sent_texts import plainly
from vianda.core.basis.errors import CoreError
from vianda.runtime.searching import Looking, Search
from vianda.services.again import done_again
from vianda.services.once import once_only
from vianda.storage.actor import actor

JSON_TYPE = "application/json"
SCHEMAS = "#/components/schemas/"
FILE = {"schema": {"type": "string", "format": "binary"}}


@dataclass(frozen=True, slots=True)
class Operation:
    """What the OpenAPI document says of a route."""

    method: str
    path: str
    name: str
    summary: str
    body: type[BaseModel] | None
    answer: TypeAdapter[Any] | None
    status: int
    problems: tuple[int, ...]
    path_types: tuple[tuple[str, str], ...]
    once: bool = False
    searched: bool = False
    takes: tuple[str, ...] = ()
    gives: str = ""


OPERATIONS: list[Operation] = []
# The header of the draft standard for requests that are sent again (IETF httpapi).
TOKEN = "Idempotency-Key"
_TOKEN = re.compile(r"[A-Za-z0-9-]{8,80}")
_PLACE = re.compile(r"<(?:(\w+):)?(\w+)>")


def _sent() -> bytes:
    try:
        return request.get_data()
    except HTTPException:
        raise
    except Exception:  # noqa: BLE001
        # A chunk that says no length, a line that went dead: each server has its own name for it.
        raise ProblemError(
            problem(400, "malformed", "The request cannot be read", "The request broke off or says no length.")
        ) from None


def _read_body(model: type[BaseModel], *, kept: bool) -> BaseModel:
    if request.mimetype != JSON_TYPE:
        raise ProblemError(problem(415, "media-type", "Send JSON", f"This address takes {JSON_TYPE} only."))
    return model.model_validate_json(plainly(_sent()) if kept else _sent())


def _read_file(takes: tuple[str, ...]) -> bytes:
    if request.mimetype not in takes:
        kinds = f"{', '.join(takes[:-1])} or {takes[-1]}"
        raise ProblemError(problem(415, "media-type", "Send a file of that kind", f"This address takes {kinds} only."))
    return _sent()


def _once(token: str, answered: Callable[[], Response]) -> Response:
    """The answer of the first request that came with this token."""
    if not _TOKEN.fullmatch(token):
        raise ProblemError(
            problem(400, "malformed", "The request cannot be read", f"{TOKEN} has 8 to 80 letters, digits and hyphens.")
        )
    asked = "\n".join((request.method, request.full_path, request.headers.get("Vianda-Kitchen", "")))
    if (who := actor()) is not None:
        # An answer is its asker's: nobody else is given it.
        asked += f"\n{who.person_id}"
    digest = hashlib.sha256(asked.encode() + b"\n" + request.get_data()).hexdigest()

    def do() -> tuple[int, str]:
        first = answered()
        return first.status_code, first.get_data(as_text=True)

    kept = once_only(token, digest, do)
    if kept.request != digest:
        raise ProblemError(
            problem(422, "token-used", "Another request had this token", f"{TOKEN} was used for another request.")
        )
    return Response(kept.body or None, status=kept.status, content_type=JSON_TYPE)


def pointer_in(body: BaseModel | None, field: str) -> str:
    """The JSON pointer into the request body of a field that the core names inside one of its own objects.

    Every pointer we send is one into the body that was sent: ``/shape/thickness_mm`` of a formula is
    ``/formula/shape/thickness_mm`` there.
    """
    first = field.removeprefix("/").split("/")[0]
    if body is None or not first or first in type(body).model_fields:
        return field
    for name in type(body).model_fields:
        held = getattr(body, name)
        if is_dataclass(held) and first in {f.name for f in fields(held)}:
            return f"/{name}{field}"
    return field


def operation(
    blueprint: Blueprint,
    method: str,
    path: str,
    *,
    summary: str,
    body: type[BaseModel] | None = None,
    answer: Any = None,
    status: int = 200,
    problems: tuple[int, ...] = (),
    once: bool = False,
    searched: bool = False,
    takes: tuple[str, ...] = (),
    gives: str = "",
) -> Callable[[Callable[..., Any]], Callable[..., Response]]:
    """Register a view. It gets ``body=`` when it takes one, and returns what ``answer`` describes.

    ``searched``: the view returns a search; its answer is waited for, or told line by line where that is accepted.
    ``once``: a write that may come with a token; sent again with it, it is answered as before and not done again.
    ``takes``: media types of a file; the view gets ``file=``, its bytes. ``gives``: it returns a file of that kind.
    """
    adapter: TypeAdapter[Any] | None = TypeAdapter(answer) if answer is not None else None

    def decorate(view: Callable[..., Any]) -> Callable[..., Response]:
        @functools.wraps(view)
        def run(**path_values: Any) -> Response:
            if body is not None:
                path_values["body"] = _read_body(body, kept=view.__name__ in WRITES)
            if takes:
                path_values["file"] = _read_file(takes)

            def refusal(error: CoreError) -> Problem:
                return core_problem(error, pointer_in(path_values.get("body"), error.field))

            def answered() -> Response:
                try:
                    result = view(**path_values)
                    if isinstance(result, Search) and adapter is not None:
                        if wants_lines():
                            return in_lines(result, adapter, refusal)
                        result = result.found()
                except CoreError as error:
                    raise ProblemError(refusal(error)) from error
                if isinstance(result, Response):
                    return result
                if adapter is None:
                    return Response(status=204)
                # What is not there is left out: half of a sentence's quantities would be nulls.
                return Response(adapter.dump_json(result, exclude_none=True), status=status, content_type=JSON_TYPE)

            token = request.headers.get(TOKEN, "") if once else ""
            return done_again(lambda: _once(token, answered) if token else answered())

        blueprint.add_url_rule(path, endpoint=view.__name__, view_func=run, methods=[method])
        prefix = blueprint.url_prefix or ""
        types = tuple((kind or "string", name) for kind, name in _PLACE.findall(path))
        OPERATIONS.append(
            Operation(
                method.lower(),
                _PLACE.sub(r"{\2}", prefix + path),
                view.__name__,
                summary,
                body,
                adapter,
                status if adapter is not None or gives else 204,
                problems,
                types,
                once,
                searched,
                takes,
                gives,
            )
        )
        return run

    return decorate


def _fields(definitions: Any, name: str) -> set[str]:
    return set(definitions.get(name, {}).get("properties", {}))


def _one_a_type(references: Any, definitions: Any) -> tuple[Any, Any]:
    """One schema a type: what is both sent and received is described as we send it, with every field there."""
    twins = {name for name in map(str, definitions) if name.endswith("-Output")}
    plain = {name: name.removesuffix("-Output") for name in twins}
    plain |= {name.replace("-Output", "-Input"): short for name, short in plain.items()}
    for name, short in plain.items():
        if name.endswith("-Input") and (apart := _fields(definitions, name) ^ _fields(definitions, f"{short}-Output")):
            raise TypeError(f"Two classes of the contract are called {short}; only one has {sorted(apart)}.")
    # A type that is only received may still be held by one with a twin.
    kept = {plain.get(str(n), str(n)): d for n, d in definitions.items() if not str(n).endswith("-Input")}

    def renamed(value: Any) -> Any:
        if isinstance(value, dict):
            return {k: renamed(v) for k, v in value.items()}
        if isinstance(value, str) and value.startswith(SCHEMAS):
            name = value.removeprefix(SCHEMAS)
            return SCHEMAS + plain.get(name, name)
        return [renamed(v) for v in value] if isinstance(value, list) else value

    return {k: renamed(v) for k, v in references.items()}, {k: renamed(v) for k, v in kept.items()}


def _optional_where_null(definition: dict[str, Any]) -> None:
    """What may be null is left out of an answer when it is."""
    nullable = {
        name
        for name, schema in definition.get("properties", {}).items()
        if any(kind.get("type") == "null" for kind in schema.get("anyOf", ()))
    }
    if "required" in definition:
        definition["required"] = [name for name in definition["required"] if name not in nullable]


def openapi(version: str) -> dict[str, Any]:
    """The OpenAPI 3.1 document of all registered operations."""
    inputs: list[tuple[Any, JsonSchemaMode, Any]] = []
    generator = GenerateJsonSchema(by_alias=True, ref_template=SCHEMAS + "{model}")
    for at, op in enumerate(OPERATIONS):
        if op.body is not None:
            inputs.append((("body", at), "validation", TypeAdapter(op.body).core_schema))
        if op.answer is not None:
            inputs.append((("answer", at), "serialization", op.answer.core_schema))
    inputs.append((("problem", 0), "serialization", TypeAdapter(Problem).core_schema))
    inputs.append((("looking", 0), "serialization", TypeAdapter(Looking).core_schema))
    references, definitions = generator.generate_definitions(inputs)
    references, definitions = _one_a_type(references, definitions)
    for definition in definitions.values():
        _optional_where_null(definition)
    problem_ref = references[(("problem", 0), "serialization")]
    paths: dict[str, Any] = {}
    for at, op in enumerate(OPERATIONS):
        entry: dict[str, Any] = {"operationId": op.name, "summary": op.summary, "responses": {}}
        if op.path_types:
            entry["parameters"] = [
                {
                    "name": name,
                    "in": "path",
                    "required": True,
                    "schema": {"type": "integer", "minimum": 0} if kind == "int" else {"type": "string"},
                }
                for kind, name in op.path_types
            ]
        if op.once:
            entry.setdefault("parameters", []).append(
                {
                    "name": TOKEN,
                    "in": "header",
                    "required": False,
                    "description": "Sent again with this key within a day, a write is answered as before, done once.",
                    "schema": {"type": "string", "pattern": f"^{_TOKEN.pattern}$"},
                }
            )
        if op.body is not None:
            schema = references[(("body", at), "validation")]
            entry["requestBody"] = {"required": True, "content": {JSON_TYPE: {"schema": schema}}}
        if op.takes:
            entry["requestBody"] = {"required": True, "content": dict.fromkeys(op.takes, FILE)}
        if op.answer is not None:
            schema = references[(("answer", at), "serialization")]
            content = {JSON_TYPE: {"schema": schema}}
            if op.searched:
                line = {
                    "looking": references[(("looking", 0), "serialization")],
                    "found": schema,
                    "problem": problem_ref,
                }
                content[LINES] = {"schema": {"type": "object", "properties": line}}
            entry["responses"][str(op.status)] = {"description": op.summary, "content": content}
        elif op.gives:
            entry["responses"][str(op.status)] = {"description": op.summary, "content": {op.gives: FILE}}
        else:
            entry["responses"]["204"] = {"description": "Done"}
        usual = (400, 413, 415, 422) if op.body is not None or op.takes else ()
        for code in sorted({*usual, *op.problems, 403, 503, 507}):
            entry["responses"][str(code)] = {
                "description": "A problem",
                "content": {"application/problem+json": {"schema": problem_ref}},
            }
        paths.setdefault(op.path, {})[op.method] = entry
    return {
        "openapi": "3.1.0",
        "info": {"title": "Vianda", "version": version},
        "paths": paths,
        "components": {"schemas": {str(k): v for k, v in definitions.items()}},
    }
