"""What a document of an earlier version lacks or names otherwise, put as today's classes read it.

Used for files, and once for all documents of a database by a migration. Each takes a document of before version 7 of
the formula file, or one of today, and returns one of today.
"""

from __future__ import annotations

from collections.abc import Mapping

from vianda.core.equipment.kitchen import usual_grinders
from vianda.core.equipment.moulds import usual_moulds
from vianda.interchange.documents import Json
from vianda.interchange.kinds import GRINDERS, MOULDS

# Old name to new one, by the part of the document that holds it.
_LINE = {"doubt_frac": "uncertainty_frac", "core": "filling"}
_SHAPE = {"ware": "mould"}
_HEAT = {"core_target_c": "target_core_temp_c"}
_KITCHEN = {"wares": "moulds"}
_PLAN_SHAPE = {"ware_key": "mould_key", "ware_name": "mould_name", "core": "filling"}
_PLAN_PART = {"doubt_share_frac": "uncertainty_share_frac"}


def _renamed(document: Json, names: Mapping[str, str]) -> Json:
    return {names.get(key, key): value for key, value in document.items()}


def formula(document: Json) -> Json:
    """A formula under today's names of its fields."""
    newer = {**document, "shape": _renamed(document["shape"], _SHAPE), "heat": _renamed(document["heat"], _HEAT)}
    if "mix" in document:
        lines = [_renamed(line, _LINE) for line in document["mix"].get("lines", [])]
        newer["mix"] = {**document["mix"], "lines": lines}
    return newer


def kitchen(document: Json) -> Json:
    """A kitchen from before its tools, tins and scoops were written down has the usual ones."""
    grinders = [GRINDERS.plain(g) for g in usual_grinders()]
    moulds = [MOULDS.plain(m) for m in usual_moulds()]
    return {"grinders": grinders, "moulds": moulds, **_renamed(document, _KITCHEN)}


def lot(document: Json) -> Json:
    """A use-by day that is not known was an empty text."""
    return {**document, "use_by": document.get("use_by") or None}


def ingredient(document: Json) -> Json:
    """An ingredient from before volumes had a source."""
    return {"volume_source": "", "pieces": [], "allergens": [], **document}


def plan(document: Json) -> Json:
    """A kept plan under today's names; what it lacks is filled in where it is read (``kept_plan``)."""
    newer = {**document, "shape": _renamed(document["shape"], _PLAN_SHAPE)}
    if "blend" in document:
        parts = [_renamed(part, _PLAN_PART) for part in document["blend"].get("parts", [])]
        newer["blend"] = {**document["blend"], "parts": parts}
    heat = document.get("heat")
    if heat and heat.get("model") == "habit":
        newer["heat"] = {**heat, "model": "practice"}
    return newer
