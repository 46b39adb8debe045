"""When a flat piece is ready to turn: usual practice turns it when grey has come up a third to a half of its side."""

from __future__ import annotations

from dataclasses import replace

from vianda.core.basis.band import Band
from vianda.core.heat.case import CookCase
from vianda.core.heat.conduction.run import FLIP_FRAC, Simulation
from vianda.core.heat.run_setup import setup_of
from vianda.core.model.styles import FLAT

# Of the thickness past 60 °C: common practice, no published source.
TURNED_FROM_FRAC, TURNED_TO_FRAC = 0.35, 0.55


def turning_s(case: CookCase) -> Band | None:
    """Seconds on the first side until 35, 40 and 55 % of the thickness have passed 60 °C.

    Parameters
    ----------
    case : CookCase
        The piece and how it is cooked.

    Returns
    -------
    Band | None
        When usual practice turns it, as computed; None where nothing is turned by that cue.
    """
    setup = setup_of(case)
    first = setup.stages[0]
    if case.style.form not in FLAT or first.end != "two-fifths":
        return None
    run = Simulation(setup, keep_every_s=1e9)
    ends: list[float] = []
    done_s = 0.0
    for frac in (TURNED_FROM_FRAC, FLIP_FRAC, TURNED_TO_FRAC):
        # It is pressed once; and the copy is not taken for the last stage, which waits for the coldest meat as well.
        took, met = run.stage(replace(first, pressed=None if ends else first.pressed), end_value=frac)
        done_s += took
        if not met:
            return None
        ends.append(done_s)
    return Band(*ends)
