"""The plan a cook kept, read by today's shapes: figures that came later get the value they had by not being there."""

from __future__ import annotations

from vianda.core.shape.bread_fit import AS_WIDE_MM
from vianda.core.shape.scoop import SAME_FRAC, TOO_FAR_FRAC
from vianda.core.shape.solids import END_FRAC, SECTION_POWER, ball_diameter_mm
from vianda.interchange import upgrades
from vianda.interchange.documents import Json


def up_to_date(plan: Json) -> Json:
    """A plan with what plans hold now; a new one is returned as it is."""
    plan = upgrades.plan(plan)
    if "form" not in plan["shape"]:
        plan = _with_mix(plan)
    if "packing" not in plan["shape"]:
        plan = _with_piece(plan)
    plan = _with_ends(_with_footprint(plan))
    if "practice" not in plan["heat"]:
        plan = _with_practice(plan)
    if "first_wave" not in plan["stove"]:
        plan = _with_first_wave(plan)
    return _with_verdicts(plan)


def _with_first_wave(plan: Json) -> Json:
    """Before anything lay beside the meat the first wave was as full as the others."""
    stove = plan["stove"]
    first = stove["at_once"] if stove["waves"] > 1 else stove["last_wave"]
    return {**plan, "stove": {**stove, "first_wave": first}}


def _with_verdicts(plan: Json) -> Json:
    """Before the core said how far off the bread a piece is, and what of a scoop, the browser did."""
    shape = plan["shape"]
    fit, scoop = shape.get("fit"), shape.get("scoop")
    if fit and "off_mm" not in fit:
        off = shape["cooked_diameter_mm"]["usual"] - fit["wanted_mm"]
        fit = {**fit, "off_mm": off if abs(off) >= AS_WIDE_MM else 0.0}
    if scoop and "worth_going_by" not in scoop:
        own = bool(scoop["key"])
        off, least = abs(scoop["error_frac"]), abs(scoop["error_of_all_frac"])
        scoop = {
            **scoop,
            "worth_going_by": own and SAME_FRAC < off < TOO_FAR_FRAC,
            "another_is_nearer": own and least < off - SAME_FRAC,
        }
    if fit is shape.get("fit") and scoop is shape.get("scoop"):
        return plan
    return {**plan, "shape": {**shape, "fit": fit, "scoop": scoop}}


def _with_practice(plan: Json) -> Json:
    """Before the heat was computed a plan's minutes were those of usual practice."""
    heat = plan["heat"]
    practice = {"flip_s": heat["flip_s"], "on_heat_s": heat["on_heat_s"]}
    return {**plan, "heat": {**heat, "practice": practice}}


def _with_mix(plan: Json) -> Json:
    """Before mixes every piece was a disc, nothing was mixed in, and all salt was fine and on the surface."""
    shape, salt, meat_g = plan["shape"], plan["salt"], plan["portions"]["batch_mass_g"]
    across = shape["raw_diameter_mm"]
    ledger = {
        "wanted_frac": salt["salt_frac"],
        "place": salt["salt_place"],
        "entries": [],
        "brought_frac": 0.0,
        "to_add_frac": salt["salt_frac"],
        "over_frac": 0.0,
    }
    newer: Json = {
        **plan,
        "shape": {**shape, "form": "disc", "length_mm": across, "width_mm": across},
        "stove": {**plan["stove"], "footprint_mm": [across, across]},
        "salt": {
            **salt,
            "ledger": ledger,
            "wanted_g": salt["salt_frac"] * meat_g,
            "brought_g": 0.0,
            "rim_salt_g": 0.0,
            "salt_name": "Fine salt",
            "g_per_tsp": 6.0,
            "of_mix_frac": salt["salt_frac"],
        },
    }
    if plan.get("cost"):
        newer["cost"] = {**plan["cost"], "mix_cost": "0"}
    return newer


def _with_footprint(plan: Json) -> Json:
    """Before pieces lay staggered they lay in squares, each as long and wide as it is."""
    shape = plan["shape"]
    lies = {"footprint_mm": [shape["length_mm"], shape["width_mm"]], "in_squares": plan["stove"]["at_once"]}
    return {**plan, "stove": {**lies, **plan["stove"]}}


def _with_ends(plan: Json) -> Json:
    """Before ends, section and ball were figures of the plan they followed from what else it says."""
    shape = plan["shape"]
    ends = END_FRAC.get(shape["ends"], 0.0) * shape["width_mm"] if shape["form"] == "loaf" else 0.0
    ball = ball_diameter_mm(volume_ml=shape["volume_ml"]) if shape.get("press_kg") else 0.0
    return {**plan, "shape": {"end_mm": ends, "section_power": SECTION_POWER, "ball_mm": ball, **shape}}


def _with_piece(plan: Json) -> Json:
    """Before the piece had wares and fillings: the first ones took the remainder, the loss was not split, and a piece
    was taken as thick cooked as raw."""
    shape, portions = plan["shape"], plan["portions"]
    piece, density = portions["piece_mass_g"], shape.get("density_g_per_ml") or 1.04
    thick = shape["thickness_mm"]
    return {
        **plan,
        "portions": {**portions, "heavier_mass_g": piece + portions["step_g"], "left_g": 0, "remainder": "first"},
        "shape": {
            **shape,
            "packing": "light",
            "volume_ml": piece / density,
            "cooked_thickness_mm": {"low": thick, "usual": thick, "high": thick},
            "water_lost_g": max(0.0, piece - shape["cooked_mass_g"]["usual"]),
            "fat_rendered_g": 0.0,
            "method": "pan-broiled",
            "dimple_size": None,
            "mould_key": "",
            "mould_name": "",
            "ends": "",
            "end_mm": 0.0,
            "section_power": 3.0,
            "ball_mm": 0.0,
            "press_kg": None,
            "fit": None,
            "scoop": None,
            "vessel": None,
            "filling": None,
            "eggs": None,
            "lumps": None,
        },
    }
