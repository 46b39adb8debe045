"""People of a kitchen with accounts, as tests let them in."""

from __future__ import annotations

WORDS = "seven herring crates at dawn"
OTHER = "nine lanterns over the slipway"


def ids_by_name(client) -> dict[str, int]:
    """The number of each person, as an owner sees them."""
    return {p["name"]: p["id"] for p in client.get("/api/people").get_json()}
