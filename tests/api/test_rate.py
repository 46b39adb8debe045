"""A program that has run wild is told to wait; a cook never is."""

from __future__ import annotations

import pytest

from vianda.app import create_app


@pytest.fixture
def wild(database, mariadb):
    app = create_app({"DATABASE_URL": mariadb.url, "PAGES": "", "RATELIMIT_DEFAULT": "5 per minute"})
    return app.test_client()


def test_what_asks_too_often_is_told_when_to_ask_again(wild) -> None:
    answers = [wild.get("/api/formulas") for _ in range(6)]
    assert [a.status_code for a in answers] == [200] * 5 + [429]
    told = answers[-1].get_json(force=True)
    assert (told["status"], answers[-1].content_type) == (429, "application/problem+json")
    assert int(answers[-1].headers["Retry-After"]) >= 1
    assert "default-src" in answers[-1].headers["Content-Security-Policy"]


def test_a_drag_and_a_page_full_of_files_are_far_below(database, mariadb) -> None:
    usual = create_app({"DATABASE_URL": mariadb.url, "PAGES": ""}).test_client()
    assert {usual.get("/api/formulas").status_code for _ in range(60)} == {200}
