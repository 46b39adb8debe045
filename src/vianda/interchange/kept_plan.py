"""The plan a cook kept, read by today's shapes: figures that came later get the value they had by not being there."""

from __future__ import annotations

from typing import Any

Json = dict[str, Any]


def up_to_date(plan: Json) -> Json:
    """A plan with what plans have held since mixes came; a new one is returned as it is.

    Before that every piece was a disc, nothing was mixed in, and all salt was fine and on the surface.
    """
    if "form" in plan["shape"]:
        return plan
    shape, salt, meat_g = plan["shape"], plan["salt"], plan["portions"]["batch_mass_g"]
    across = shape["raw_diameter_mm"]
    ledger = {
        "wanted_frac": salt["salt_frac"], "place": salt["salt_place"], "entries": [], "brought_frac": 0.0,
        "to_add_frac": salt["salt_frac"], "over_frac": 0.0,
    }  # fmt: skip
    newer: Json = {
        **plan,
        "shape": {**shape, "form": "disc", "length_mm": across, "width_mm": across},
        "stove": {**plan["stove"], "footprint_mm": [across, across]},
        "salt": {
            **salt, "ledger": ledger, "wanted_g": salt["salt_frac"] * meat_g, "brought_g": 0.0, "rim_salt_g": 0.0,
            "salt_name": "Fine salt", "g_per_tsp": 6.0, "of_mix_frac": salt["salt_frac"],
        },
    }  # fmt: skip
    if plan.get("cost"):
        newer["cost"] = {**plan["cost"], "mix_cost": "0"}
    return newer
