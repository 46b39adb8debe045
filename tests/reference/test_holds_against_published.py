"""Published times at temperature: USDA FSIS Appendix A (1999), FDA Food Code 3-401.11, 9 CFR 318.23, UK FSA advice.

All from memory, high confidence but for 9 CFR 318.23 at 157 °F and up (medium). US rules are in °F.
"""

from __future__ import annotations

import math

import numpy as np
import pytest

from vianda.core.basis.units import c_from_f
from vianda.core.heat.conduction.slab import D60_S, Z_K
from vianda.core.heat.floor import FOOD_CODE, UK_FSA, USDA_GROUND
from vianda.core.heat.holds import Hold, hold_tables, holds_of, line_c, met_at

TABLES = {t.key: t for t in hold_tables()}


def _seconds(table: str, fahrenheit: float) -> float:
    return next(h.time_s for h in TABLES[table].holds if h.temp_c == pytest.approx(c_from_f(fahrenheit), abs=0.01))


@pytest.mark.parametrize(
    ("fahrenheit", "log65", "log7"),
    # From the table of 1999: minutes at the cool end, seconds at the hot one.
    [(130, 112 * 60, 121 * 60), (140, 12 * 60, 12 * 60), (145, 4 * 60, 4 * 60), (150, 67, 72), (155, 22, 23)],
)
def test_appendix_a(fahrenheit: float, log65: float, log7: float) -> None:
    # The lines of whole minutes are rounded there.
    rel = 0.08 if log65 >= 240 else 0.02
    assert _seconds("appendix-a-6.5", fahrenheit) == pytest.approx(log65, rel=rel)
    assert _seconds("appendix-a-7", fahrenheit) == pytest.approx(log7, rel=rel + 0.04)


def test_the_curve_of_lethality_is_a_fit_of_appendix_a() -> None:
    worst = 0.0
    for hold in TABLES["appendix-a-6.5"].holds:
        if hold.time_s == 0:
            continue
        logs = hold.time_s / (D60_S * 10 ** ((60.0 - hold.temp_c) / Z_K))
        worst = max(worst, abs(logs / 6.5 - 1))
    # A prototype found 10 % at worst, by the rounding of whole minutes.
    assert worst < 0.13


def test_a_strict_model_gives_less_than_half_of_it() -> None:
    # Juneja et al. (1997), E. coli O157:H7 in beef, from memory: D60 190 s, z 6.0 °C; the 155 °F, 17 s hold.
    at, seconds = c_from_f(155), 17.0
    ours = seconds / (D60_S * 10 ** ((60 - at) / Z_K))
    strict = seconds / (190.0 * 10 ** ((60 - at) / 6.0))
    assert ours == pytest.approx(5.0, abs=0.3)
    assert strict == pytest.approx(2.2, abs=0.2)
    assert strict < ours / 2


def test_food_code_pairs_patties_and_the_uk_family() -> None:
    assert _seconds("food-code", 145) == 180
    assert _seconds("food-code", 155) == 17
    assert _seconds("patties-9cfr", 151) == 41
    assert [(h.temp_c, h.time_s) for h in TABLES["uk-fsa"].holds] == [
        (60, 2700),
        (65, 600),
        (70, 120),
        (75, 30),
        (80, 6),
    ]


def test_any_hold_of_its_table_meets_a_floor() -> None:
    assert {(round(h.temp_c, 1), h.time_s) for h in holds_of(FOOD_CODE)} >= {(68.3, 17.0), (70.0, 0.0), (62.8, 180.0)}
    assert holds_of(USDA_GROUND) == (Hold(USDA_GROUND.temp_c, 0),)
    assert line_c(UK_FSA, target_c=75.0) == 70.0


def _steady(temp_c: float, seconds: float) -> tuple[np.ndarray, np.ndarray]:
    times = np.linspace(0.0, seconds, 61)
    return times, np.full((61, 3), temp_c)


def test_a_hold_counts_from_when_the_last_place_got_there_without_a_break() -> None:
    times = np.arange(0.0, 301.0, 1.0)
    early, late = np.where(times >= 50, 69.0, 60.0), np.where(times >= 120, 69.0, 60.0)
    broken = np.where((times >= 50) & (times != 60), 69.0, 60.0)
    assert met_at(times, np.stack([early, late], axis=1), Hold(68.3, 17)) == pytest.approx(137, abs=1)
    assert met_at(times, broken[:, None], Hold(68.3, 17)) == pytest.approx(77.9, abs=1.1)
    assert met_at(*_steady(68.2, 300), Hold(68.3, 17)) is None
    assert met_at(*_steady(68.4, 16), Hold(68.3, 17)) is None
    assert met_at(*_steady(68.4, 18), Hold(68.3, 17)) == pytest.approx(17)
    assert not math.isnan(met_at(*_steady(90.0, 10), Hold(71.1, 0)) or 0.0)
