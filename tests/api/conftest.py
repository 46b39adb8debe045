"""A kitchen with accounts: its first owner, and whoever comes in by an invitation."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import pytest

from accounts import OTHER, WORDS
from vianda.services import passwords


@pytest.fixture
def quick(monkeypatch: pytest.MonkeyPatch) -> None:
    """The same function with less to do: what it costs a thief is not what is tried here."""
    from argon2 import PasswordHasher

    hasher = PasswordHasher(time_cost=1, memory_cost=8, parallelism=1)
    monkeypatch.setattr(passwords, "_HASHER", hasher)
    monkeypatch.setattr(passwords, "_NOBODY", hasher.hash("nobody"))


@pytest.fixture
def owner(client, quick) -> Any:
    """A client that is signed in as the first owner."""
    made = client.post("/api/session/first-owner", json={"name": "Ines Holm", "password": WORDS})
    assert made.status_code == 200, made.get_json()
    return client


@pytest.fixture
def come_in(app, owner) -> Callable[..., Any]:
    """Another browser, in by an invitation of the owner's."""

    def accept(name: str, role: str, *, pin: str = "") -> Any:
        asked = owner.post("/api/people/invitations", json={"name": name, "role": role}).get_json()
        browser = app.test_client()
        token = asked["link"].split("#")[1]
        done = browser.post("/api/invitations/accept", json={"token": token, "password": OTHER, "pin": pin})
        assert done.status_code == 200, done.get_json()
        return browser

    return accept
