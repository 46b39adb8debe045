"""Reads the corpus of opening lines and says where a reading differs from what it must be."""

from __future__ import annotations

from functools import cache
from pathlib import Path

from vianda.core.basis.errors import CoreError
from vianda.core.basis.phrase import Phrase
from vianda.core.demo.kitchen import yard_galley
from vianda.core.inventory.inventory import starter_inventory
from vianda.core.opening.draft import plain_text
from vianda.core.opening.opening import Opening, open_line
from vianda.core.pipeline.compute import prepare

FOLDER = Path(__file__).parent / "corpus"
# Display digits: a share to 0.0005, a mass to what one gram or a quarter per mille may change.
TOLERANCE = {"meat": 0.6, "each": 1.0, "core": 0.06, "at": 0.2, "salt": 1e-6, "salt_g": 0.01, "t": 0.06}


@cache
def cases(name: str = "opening_lines.txt") -> tuple[tuple[str, dict[str, str]], ...]:
    """Each line with what is expected of it."""
    found = []
    for row in (FOLDER / name).read_text(encoding="utf-8").splitlines():
        if not row.strip() or row.startswith("#"):
            continue
        line, _, want = row.partition(" => ")
        # A part without a name is what goes in: "egg:50 yolk:51".
        pairs = (part.split("=", 1) if "=" in part else ("", part) for part in want.split(";") if part.strip())
        found.append((line, {k.strip(): v.strip() for k, v in pairs}))
    return tuple(found)


def opened(line: str) -> Opening:
    return open_line(line, inventory=starter_inventory(), kitchen=yard_galley())


def _parts(opening: Opening) -> dict[str, float]:
    return {p.meat: p.share_frac for p in opening.formula.parts} if opening.formula else {}


def _said(phrases: tuple[Phrase, ...]) -> str:
    return " | ".join(plain_text(p) for p in phrases).lower()


def wrong(line: str, want: dict[str, str]) -> list[str]:
    """Each way in which a reading differs; empty when it is right."""
    try:
        o = opened(line)
    except CoreError as refused:
        return [f"refused: {refused.detail}"]
    out = []
    unread = ",".join(o.unread)
    if unread != want.get("unread", ""):
        out.append(f"unread {unread!r} instead of {want.get('unread', '')!r}")
    if "ask" in want:
        asked = " | ".join(plain_text(a.text) for a in o.asks).lower()
        if want["ask"].lower() not in asked:
            out.append(f"asks {asked!r} instead of {want['ask']!r}")
    f = o.formula
    if f is None:
        return out + (
            [] if set(want) <= {"ask", "unread"} else [f"no plan; asks {[plain_text(a.text) for a in o.asks]}"]
        )
    ready = prepare(f, inventory=starter_inventory(), kitchen=yard_galley())
    got = {
        "style": f.dish.style,
        "n": str(ready.batch.portions.pieces),
        "g": str(f.dish.guests),
        "surf": f.heat.surface,
        "place": f.seasoning.salt_place,
        "avoid": ",".join(f.mix.avoid),
        "without": ",".join(f.mix.without),
    }
    figures = {
        "meat": ready.batch.meat_mass_g,
        "each": ready.batch.portions.piece_mass_g,
        "core": f.heat.target_core_temp_c,
        "at": f.heat.surface_temp_c,
        "salt": f.seasoning.salt_frac,
        "salt_g": f.seasoning.salt_frac * ready.batch.meat_mass_g,
        "t": f.shape.thickness_mm,
    }
    for key, value in want.items():
        if key in figures and abs(figures[key] - float(value)) > TOLERANCE[key]:
            out.append(f"{key} {figures[key]:.4f} instead of {value}")
        elif key in got and got[key] != value:
            out.append(f"{key} {got[key]!r} instead of {value!r}")
        elif key == "parts":
            parts = {k: float(v) for k, v in (p.split(":") for p in value.split())}
            have = _parts(o)
            if parts.keys() != have.keys() or any(abs(parts[k] - have[k]) > 5e-4 for k in parts):
                out.append(f"parts {have} instead of {parts}")
        elif key == "remark" and not any(v.lower() in _said(o.remarks) for v in value.split("|")):
            out.append(f"remarks {_said(o.remarks)!r} instead of {value!r}")
        elif key == "note" and value.lower() not in f.remark.lower():
            out.append(f"note {f.remark!r} instead of {value!r}")
    return out
