"""What the record of a cook measured, put beside what was planned."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from vianda.core.faults.evidence import BatchReadings

# Steps that were tapped through faster than this share of their time were not cooked by. Ours.
TAPPED_FRAC = 0.2


def readings_of_cook(
    plan: Mapping[str, Any],
    events: Sequence[tuple[str, int, float]],
    outcome: Mapping[str, Any],
    *,
    surface_c: float | None = None,
    core_c: float | None = None,
) -> BatchReadings:
    """What a cook's clock, scale, ruler and probe say.

    Parameters
    ----------
    plan : Mapping[str, Any]
        The plan as the cook keeps it.
    events : Sequence[tuple[str, int, float]]
        Kind, place and seconds since the start of what was said at the stove, in order.
    outcome : Mapping[str, Any]
        What was noted.
    surface_c : float | None, default None
        What the surface measured, °C, as the cook says.
    core_c : float | None, default None
        Core at the end, °C, as the cook says; None: as it was noted.

    Returns
    -------
    BatchReadings
        What was not measured is None.
    """
    stove, shape = plan["stove"], plan["shape"]
    done = {place: at for kind, place, at in events if kind == "done"}
    before, each = len(stove["before"]), stove["each_wave"]
    lay, last = before, before + len(each) - 1
    planned = sum(step["timer_s"] for step in each[1:])
    firsts = [n for n, step in enumerate(each) if step["kind"] == "first-side"]
    first_s = sum(step["timer_s"] for step in each[1 : firsts[0] + 1]) if firsts else 0.0
    rests = [n for n, step in enumerate(stove["after"]) if step["kind"] == "rest"]
    rest = before + len(each) * stove["waves"] + rests[0] if rests else None
    raw_mm, batch_g = shape["raw_diameter_mm"], plan["portions"]["batch_mass_g"]
    return BatchReadings(
        surface_c=surface_c,
        core_c=core_c if core_c is not None else outcome.get("core_c"),
        loss_ratio=_over(outcome.get("cooked_mass_g"), batch_g, shape["cooked_yield_frac"]["usual"]),
        shrink_ratio=_over(
            outcome.get("cooked_diameter_mm"), raw_mm, shape["cooked_diameter_mm"]["usual"] / raw_mm if raw_mm else 1.0
        ),
        heat_ratio=_took(done.get(lay), done.get(last), planned),
        first_side_ratio=_took(done.get(lay), done.get(before + firsts[0]) if firsts else None, first_s),
        rest_ratio=_took(done.get(rest - 1), done.get(rest), stove["after"][rests[0]]["timer_s"], least_frac=0.0)
        if rest is not None
        else None,
    )


def _over(left: float | None, raw: float, expected_frac: float) -> float | None:
    """What was lost over what was expected to be lost."""
    if left is None or raw <= 0.0 or expected_frac >= 0.99:
        return None
    return max(-5.0, min(20.0, (1.0 - left / raw) / (1.0 - expected_frac)))


def _took(begun: float | None, ended: float | None, planned_s: float, least_frac: float = TAPPED_FRAC) -> float | None:
    if begun is None or ended is None or planned_s <= 0.0 or ended < begun:
        return None
    ratio = (ended - begun) / planned_s
    return min(100.0, ratio) if ratio >= least_frac else None
