"""A document or a table as a file to keep, named after what is in it."""

from __future__ import annotations

import re

from flask import Response, json


def json_file(content: object, *, name: str, ending: str, otherwise: str, kind: str = "application/json") -> Response:
    """A JSON file; letters and digits of the name are kept, and ``otherwise`` stands for a name that has none."""
    plain = re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-") or otherwise
    return Response(
        json.dumps(content, indent=2, ensure_ascii=False),
        content_type=kind,
        headers={"Content-Disposition": f'attachment; filename="{plain}.{ending}.json"'},
    )


def csv_file(content: str, *, name: str) -> Response:
    """A table as a CSV file of that name."""
    return Response(
        content,
        content_type="text/csv; charset=utf-8",
        headers={"Content-Disposition": f'attachment; filename="{name}.csv"'},
    )
