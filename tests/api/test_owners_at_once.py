"""Owners who decide at once: one is the first, and one stays."""

from __future__ import annotations

import threading
from collections.abc import Callable, Sequence
from typing import Any

import pytest

from accounts import OTHER, WORDS, ids_by_name
from vianda.storage import tables
from vianda.storage.people_repository import PEOPLE
from vianda.storage.revisions import revision_number

AT_ONCE = 6


def _at_once(asked: Sequence[Callable[[], Any]]) -> list[int]:
    """The statuses of what is asked at one moment, each by a browser of its own."""
    gate, found = threading.Barrier(len(asked)), [0] * len(asked)

    def ask(n: int) -> None:
        gate.wait(30)
        found[n] = asked[n]().status_code

    threads = [threading.Thread(target=ask, args=(n,)) for n in range(len(asked))]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    return sorted(found)


def test_of_several_first_owners_one_is_the_first(app, quick) -> None:
    for turn in range(5):
        tables.PersonRow.delete().execute()

        def first(n: int, turn: int = turn) -> Callable[[], Any]:
            body = {"name": f"Owner {turn} {n}", "password": WORDS}
            return lambda: app.test_client().post("/api/session/first-owner", json=body)

        statuses = _at_once([first(n) for n in range(AT_ONCE)])
        # Who came later is told so, or asked to sign in; nobody meets a fault.
        assert statuses[0] == 200
        assert set(statuses[1:]) <= {401, 422}
        assert tables.PersonRow.select().count() == 1


def test_of_two_owners_who_take_each_other_s_right_one_stays(app, owner, come_in) -> None:
    other = come_in("Sindre", "owner")
    for _ in range(5):
        ids = ids_by_name(owner)

        def demote(browser: Any, name: str, ids: dict[str, int] = ids) -> Callable[[], Any]:
            return lambda: browser.put(f"/api/people/{ids[name]}/role", json={"role": "chef"})

        statuses = _at_once([demote(owner, "Sindre"), demote(other, "Ines Holm")])
        assert statuses[0] == 200
        assert statuses[1] in (403, 422)
        assert tables.PersonRow.select().where(tables.PersonRow.role == "owner").count() == 1
        tables.PersonRow.update(role="owner").execute()


@pytest.mark.parametrize("name", ["Liv", "LIV"])
def test_of_two_invitations_for_one_name_one_is_taken(app, owner, name: str) -> None:
    def asked(said: str) -> str:
        return (
            owner.post("/api/people/invitations", json={"name": said, "role": "cook"}).get_json()["link"].split("#")[1]
        )

    tokens = [asked("Liv"), asked(name)]

    def accept(token: str) -> Callable[[], Any]:
        return lambda: app.test_client().post("/api/invitations/accept", json={"token": token, "password": OTHER})

    assert _at_once([accept(token) for token in tokens]) == [200, 422]
    assert len(ids_by_name(owner)) == 2


def test_who_may_do_what_is_decided_in_turn_on_every_node(owner, come_in) -> None:
    # A lock holds on one node alone: the others meet the same counted row, and one of two is taken back.
    before = revision_number(PEOPLE)
    come_in("Sindre", "owner")
    ids = ids_by_name(owner)
    owner.put(f"/api/people/{ids['Sindre']}/role", json={"role": "chef"})
    owner.put(f"/api/people/{ids['Sindre']}/disabled", json={"disabled": True})
    owner.delete(f"/api/people/{ids['Sindre']}")
    assert revision_number(PEOPLE) == before + 3
