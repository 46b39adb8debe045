"""How quantities look on the screen, written a second time and apart from the front end, to compare with it."""

from __future__ import annotations

import re

NBSP, GROUP = "\u00a0", "\u202f"


def _number(value: float, digits: int) -> str:
    # JavaScript's toFixed rounds the exact binary value half up; Python's format does the same but for exact ties,
    # which only occur at binary fractions such as 0.5.
    text = f"{abs(value) + (1e-12 if digits == 0 else 0):.{digits}f}"
    whole, _, part = text.partition(".")
    if len(whole) > 4:
        whole = re.sub(r"\B(?=(\d{3})+$)", GROUP, whole)
    return whole + (f".{part}" if part else "")


def _clock(seconds: float) -> str:
    whole = int(seconds + 0.5)
    if whole >= 3600:
        return f"{whole // 3600}:{whole % 3600 // 60:02d}:{whole % 60:02d}"
    return f"{whole // 60}:{whole % 60:02d}"


def _one(kind: str, value: float, text: str, currency: str) -> tuple[str, str]:
    match kind:
        case "mass_g":
            return _number(value, 1 if value < 10 else 0), f"{NBSP}g"
        case "temp_c":
            return _number(value, 1 if 0.05 < value % 1 < 0.95 and value < 100 else 0), f"{NBSP}°C"
        case "delta_temp_k":
            return _number(value, 1 if 0 < value < 10 and value % 1 > 0.05 else 0), f"{NBSP}°C"
        case "length_mm":
            return _number(value, 1 if value < 20 and value % 1 > 0.05 else 0), f"{NBSP}mm"
        case "frac":
            return _number(value * 100, 0), f"{NBSP}%"
        case "fine_frac":
            per_cent = value * 100
            digits = 0 if abs(per_cent - round(per_cent)) < 0.005 else 2 if per_cent < 0.1 else 1
            return _number(per_cent, digits), f"{NBSP}%"
        case "time_s":
            return _clock(value), ""
        case "money":
            return _number(value, 2), f"{NBSP}{currency}"
        case "price_per_kg":
            return _number(value, 2), f"{NBSP}{currency}/kg"
        case "count":
            return _number(value, 0), ""
        case "lean_to_fat":
            fat = int(value * 100 + 0.5)
            return f"{100 - fat}{NBSP}:{NBSP}{fat}", ""
        case "per_hundred":
            return _number(value * 100, 0 if value <= 0 or value >= 0.9995 else 2 if value < 0.00995 else 1), ""
        case "minutes":
            return (_number(value / 60, 0), f"{NBSP}h") if value >= 240 else (_number(value, 0), f"{NBSP}min")
        case "energy_kcal":
            return _number(value, 0), f"{NBSP}kcal"
        case "mass_mg":
            return _number(value, 0), f"{NBSP}mg"
        case "word":
            return text, ""
    raise AssertionError(kind)


def amount(a: dict, currency: str = "KSC") -> str:
    """One quantity as metric text."""
    low, unit = _one(a["kind"], a.get("value", 0.0), a.get("text", ""), currency)
    if a.get("high") is None:
        return low + unit
    high, unit = _one(a["kind"], a["high"], a.get("text", ""), currency)
    return high + unit if low == high else f"{low}–{high}{unit}"


def phrase(p: dict) -> str:
    """A sentence as metric text."""
    return re.sub(r"\{(\w+)\}", lambda m: amount(p["amounts"][m.group(1)]), p["text"])
