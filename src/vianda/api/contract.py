"""One decorator a route: body in by pydantic, answer out by pydantic, and the OpenAPI document from both.

APIFlask was tried: it joins error paths into one string and names nested models once per parent, which doubles
the generated types. This is the little that is left to do.
"""

from __future__ import annotations

import functools
import re
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from flask import Blueprint, Response, request
from pydantic import BaseModel, TypeAdapter
from pydantic.json_schema import GenerateJsonSchema, JsonSchemaMode

from vianda.api.problems import Problem, ProblemError, problem

JSON_TYPE = "application/json"


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


OPERATIONS: list[Operation] = []
_PLACE = re.compile(r"<(?:(\w+):)?(\w+)>")


def _read_body(model: type[BaseModel]) -> BaseModel:
    if request.mimetype != JSON_TYPE:
        raise ProblemError(problem(415, "media-type", "Send JSON", f"This address takes {JSON_TYPE} only."))
    return model.model_validate_json(request.get_data(cache=False))


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
) -> Callable[[Callable[..., Any]], Callable[..., Response]]:
    """Register a view. It gets ``body=`` when it takes one, and returns what ``answer`` describes."""
    adapter: TypeAdapter[Any] | None = TypeAdapter(answer) if answer is not None else None

    def decorate(view: Callable[..., Any]) -> Callable[..., Response]:
        @functools.wraps(view)
        def run(**path_values: Any) -> Response:
            if body is not None:
                path_values["body"] = _read_body(body)
            result = view(**path_values)
            if isinstance(result, Response):
                return result
            if adapter is None:
                return Response(status=204)
            return Response(adapter.dump_json(result), status=status, content_type=JSON_TYPE)

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
                status if adapter is not None else 204,
                problems,
                types,
            )
        )
        return run

    return decorate


def openapi(version: str) -> dict[str, Any]:
    """The OpenAPI 3.1 document of all registered operations."""
    inputs: list[tuple[Any, JsonSchemaMode, Any]] = []
    generator = GenerateJsonSchema(by_alias=True, ref_template="#/components/schemas/{model}")
    for at, op in enumerate(OPERATIONS):
        if op.body is not None:
            inputs.append((("body", at), "validation", TypeAdapter(op.body).core_schema))
        if op.answer is not None:
            inputs.append((("answer", at), "serialization", op.answer.core_schema))
    inputs.append((("problem", 0), "serialization", TypeAdapter(Problem).core_schema))
    references, definitions = generator.generate_definitions(inputs)
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
        if op.body is not None:
            schema = references[(("body", at), "validation")]
            entry["requestBody"] = {"required": True, "content": {JSON_TYPE: {"schema": schema}}}
        if op.answer is not None:
            schema = references[(("answer", at), "serialization")]
            entry["responses"][str(op.status)] = {"description": op.summary, "content": {JSON_TYPE: {"schema": schema}}}
        else:
            entry["responses"]["204"] = {"description": "Done"}
        usual = (400, 413, 415, 422) if op.body is not None else ()
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
