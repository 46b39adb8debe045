"""Documents that are generated from the code: the contract, schemas of files, the rules of counsel."""

from __future__ import annotations

import argparse
import json
from typing import Any

from vianda.core.counsel.listing import counsel_document
from vianda.interchange.formula_file import formula_file_schema
from vianda.interchange.kitchen_archive import archive_schema
from vianda.interchange.service_file import service_file_schema

SCHEMAS = {"formula": formula_file_schema, "service": service_file_schema, "archive": archive_schema}


def add(commands: Any) -> None:
    """The commands of this file."""
    commands.add_parser("openapi", help="print the OpenAPI document").set_defaults(run=_openapi)
    counsel = commands.add_parser("counsel", help="print every rule of counsel, with threshold and source")
    counsel.set_defaults(run=lambda _: print(counsel_document(), end=""))
    schema = commands.add_parser("schema", help="print the JSON Schema of a file format")
    schema.add_argument("kind", nargs="?", default="formula", choices=list(SCHEMAS))
    schema.set_defaults(run=lambda given: print(json.dumps(SCHEMAS[given.kind](), indent=1, sort_keys=True)))


def _openapi(_: argparse.Namespace) -> None:
    from vianda.api.web import openapi_document

    print(json.dumps(openapi_document(), indent=1, sort_keys=True))
