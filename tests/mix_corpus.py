"""Reads the corpus of mix phrases and says where a reading differs from what it must be."""

from __future__ import annotations

from vianda.core.basis.errors import CoreError
from vianda.core.demo.kitchen import yard_galley
from vianda.core.inventory.inventory import starter_inventory
from vianda.core.opening.draft import plain_text
from vianda.core.reading.mix_line import MixReading, read_mix

MEAT_G = 1000.0
# Display digits: a tenth of a gram or one per cent, whichever is more, since cups are rounded to a tenth of a gram.
REL, ABS = 0.012, 0.06


def read(phrase: str) -> MixReading:
    return read_mix(phrase, inventory=starter_inventory(), kitchen=yard_galley(), meat_mass_g=MEAT_G)


def wrong_phrase(phrase: str, want: dict[str, str]) -> list[str]:
    """Each way in which a reading differs; empty when it is right."""
    try:
        r = read(phrase)
    except CoreError as refused:
        return [f"refused: {refused.detail}"]
    out = []
    lists = {
        "unread": ",".join(r.unread),
        "wait": ",".join(i.ingredient for i in r.waiting),
        "taste": ",".join(i.ingredient for i in r.items if i.to_taste),
        "out": ",".join(i.ingredient for i in r.items if i.left_out),
    }
    asked = " | ".join(plain_text(a.text) for a in r.asks).lower()
    for key, got in lists.items():
        if got != want.get(key, "") and not (key == "wait" and "ask" in want):
            out.append(f"{key} {got!r} instead of {want.get(key, '')!r}")
    if ("ask" in want) != bool(asked) or want.get("ask", "").lower() not in asked:
        out.append(f"asks {asked!r} instead of {want.get('ask', '')!r}")
    if "note" in want and not any(want["note"] in i.note for i in r.items):
        out.append(f"notes {[i.note for i in r.items]} instead of {want['note']!r}")
    if "ask" in want:
        return out
    expected = dict(p.split(":") for p in want.get("", "").split())
    got_g = {i.ingredient: i.amount.mass_g for i in r.items if i.amount is not None}
    if list(got_g) != list(expected):
        return [*out, f"reads {got_g} instead of {expected}"]
    for key, grams in expected.items():
        if abs(got_g[key] - float(grams)) > max(ABS, REL * float(grams)):
            out.append(f"{key} {got_g[key]:.2f} g instead of {grams}")
    return out
