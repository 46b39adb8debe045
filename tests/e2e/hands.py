"""What a cook's hands do on the bench, said once for every journey."""

from __future__ import annotations

import re

import show
from playwright.sync_api import Page, expect


def type_figure(page: Page, name: str, text: str) -> None:
    """Type into a figure by its label, and press Enter."""
    field = page.get_by_role("spinbutton", name=name, exact=True)
    field.click()
    field.fill(text)
    field.press("Enter")


def agrees(page: Page, evaluation: dict) -> None:
    """Ticket and rail on the screen say what the command line says."""
    for figure in evaluation["ticket"]:
        cell = page.locator(f"[data-ticket={figure['id']}]")
        expect(cell.locator("[data-value]")).to_have_text(show.phrase(figure["value"]))
        expect(cell).to_contain_text(show.phrase(figure["aside"]))
    rail = page.get_by_role("navigation", name="Steps")
    for step in evaluation["rail"]:
        link = rail.get_by_role("link", name=re.compile(rf"^{step['number']} ?{step['title']}"))
        expect(link).to_contain_text(show.phrase(step["answer"]))
