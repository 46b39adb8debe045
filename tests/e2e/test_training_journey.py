"""The trainer in a browser: rounds by keyboard alone, what was right and why, and what comes again."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import expect


@pytest.mark.parametrize("width", [1280, 390])
def test_rounds_are_answered_by_keyboard(watch, kestrel, width: int) -> None:
    watched = watch(kestrel, width=width, height=844)
    page = watched.page
    assert page.request.delete(f"{kestrel.address}/api/training").ok
    watched.go("/log")
    page.get_by_role("link", name="Practise").click()
    shown = page.get_by_role("region", name="Round")
    seen = set()
    for _ in range(4):
        expect(shown).to_have_attribute("data-round", "open")
        title = shown.locator("p").first.inner_text()
        seen.add(title)
        expect(page.get_by_role("list", name="Answers").get_by_role("button").first).to_be_enabled()
        assert watched.axe() == []
        page.keyboard.press("2")
        expect(shown.get_by_text("How sure are you?")).to_be_visible()
        # Thought again, and the other answer.
        page.keyboard.press("Escape")
        expect(shown.get_by_text("How sure are you?")).to_have_count(0)
        page.keyboard.press("1")
        page.keyboard.press("3")
        expect(shown).to_have_attribute("data-round", "judged")
        verdict = shown.get_by_role("status")
        expect(verdict).to_contain_text(re.compile(r"Right\.|Not quite\."))
        row = page.get_by_role("region", name="How you stand").get_by_role("listitem").filter(has_text=title)
        expect(row).to_contain_text("1 round, Brier 0.")
        assert watched.axe() == []
        expect(shown.get_by_role("button", name="Next round")).to_be_focused()
        page.keyboard.press("Enter")
    # Each kind once before any comes again.
    assert len(seen) == 4
    assert page.evaluate("document.documentElement.scrollWidth") <= width
    page.get_by_role("button", name="Begin anew").click()
    expect(page.get_by_role("region", name="How you stand")).to_contain_text("Nothing answered yet")


def test_a_kitchen_without_formulas_is_sent_to_the_shelf(watch, bare_kitchen) -> None:
    watched = watch(bare_kitchen)
    watched.go("/training")
    expect(watched.page.get_by_text("No formula of this kitchen has a round yet")).to_be_visible()
    assert watched.axe() == []
