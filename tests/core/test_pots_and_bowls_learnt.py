"""Pots and bowls: what a weighing says of them, what is learnt, and what is reckoned with it."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest

from heat_formulas import INVENTORY, KITCHEN
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.batch.division import expected_loss_g
from vianda.core.demo.formulas import slipway_smash
from vianda.core.equipment.pot_rate import PotRate
from vianda.core.learning.effects import Estimate
from vianda.core.learning.figures import Observation
from vianda.core.learning.from_kitchen import bowl_observation, evaporation_observation
from vianda.core.learning.in_use import BOWL, all_in_use, with_factor
from vianda.core.learning.learnt import learnt_of
from vianda.core.pipeline.compute import compute
from vianda.core.sauce.cook_down import cook_down, pot_key, pot_name

W_M2 = 16_000.0


def _pot(minutes: float, *, start: float = 2000.0, left: float = 1500.0, factor: float = 1.0) -> Observation:
    return evaporation_observation(
        1, 0.0, start_g=start, left_g=left, minutes=minutes, boil="simmer", diameter_mm=237.0, burner_w_m2=W_M2,
        factor=factor,
    )  # fmt: skip


def _bowl(mix: float, shaped: float, left: float, *, pieces: int = 40, step: float = 1.0, factor: float = 1.0):
    return bowl_observation(
        3, 0.0, mix_g=mix, shaped_g=shaped, left_g=left, pieces=pieces, step_g=step, factor=factor
    )  # fmt: skip


def test_a_pot_that_took_half_as_long_boils_off_twice_as_fast() -> None:
    told = cook_down(2000.0, 1500.0, "simmer", diameter_mm=237.0, burner_w_m2=W_M2).minutes
    seen = _pot(told.usual / 2)
    assert seen.value == pytest.approx(math.log(2.0))
    assert (seen.figure, seen.thing, seen.usual) == ("evaporation", "simmer-240", told.usual)
    assert seen.low == told.low < told.usual < told.high == seen.high
    # Whatever factor it was planned with, the same minutes ask for the same factor.
    assert _pot(told.usual / 2, factor=1.5).value == pytest.approx(math.log(2.0))


def test_a_rate_is_multiplied_and_boils_off_no_more_and_no_less() -> None:
    plain, fast = (
        cook_down(2000.0, 1500.0, "simmer", diameter_mm=240.0, burner_w_m2=W_M2, rate_factor=f) for f in (1.0, 1.6)
    )
    assert plain.minutes.usual == pytest.approx(1.6 * fast.minutes.usual)
    assert (plain.water_g, plain.heat_up_s, plain.energy_j) == (fast.water_g, fast.heat_up_s, fast.energy_j)


def test_weighing_and_clock_are_worth_what_they_are() -> None:
    """A thousand draws of scale and clock spread the logarithm as far as is reckoned with."""
    rng = np.random.default_rng(3)
    told = cook_down(2000.0, 1500.0, "simmer", diameter_mm=240.0, burner_w_m2=W_M2).minutes.usual
    start, left = 2000 * (1 + rng.normal(0, 0.01, 20_000)), 1500 * (1 + rng.normal(0, 0.01, 20_000))
    drawn = np.log((start - left) / 500.0) - np.log((told + rng.normal(0, 1.0, 20_000)) / told)
    assert _pot(told).sd == pytest.approx(float(np.std(drawn)), rel=0.05)


@pytest.mark.parametrize(
    ("minutes", "left", "says"),
    [(0.0, 1500.0, "1 min to a day"), (-5.0, 1500.0, "1 min to"), (0.99, 1500.0, "1 min to"),
     (1441.0, 1500.0, "to a day"),
     (20.0, 1960.1, "too little"), (20.0, 2001.0, "can be left"), (20.0, 0.0, "can be left")],
)  # fmt: skip
def test_what_no_pot_does_is_refused(minutes, left, says) -> None:
    with pytest.raises(OutOfRangeError, match=says):
        _pot(minutes, left=left)


def test_a_minute_is_told_and_less_is_not_whatever_it_would_say() -> None:
    assert _pot(1.0).observed == 1.0
    with pytest.raises(OutOfRangeError, match="1 min"):
        _pot(1e-45)


@pytest.mark.parametrize(("start", "left"), [(5e-324, 5e-324), (1.0, 0.901), (0.05, 0.01)])
def test_what_no_scale_shows_was_not_weighed(start: float, left: float) -> None:
    with pytest.raises(OutOfRangeError, match="too little"):
        _pot(20.0, start=start, left=left)
    assert _pot(20.0, start=1.0, left=0.899).observed == 20.0


def test_a_reading_that_would_overflow_is_told_as_the_largest() -> None:
    assert Estimate(0.0, 1e45).factor(1.645) == pytest.approx(1e30)


def test_just_enough_boiled_off() -> None:
    assert _pot(5.0, left=1960.0).observed == 5.0


def test_pots_have_names() -> None:
    assert pot_key("gentle", 244.9) == "gentle-240"
    assert pot_key("rolling", 2000.0) == "rolling-2000"
    assert pot_name("rolling-280") == "Rolling, pot of 28 cm"


def test_what_is_missing_stayed_on_bowl_and_gloves() -> None:
    usual = expected_loss_g(40)
    seen = _bowl(3450.0, 3400.0, 2.0)
    assert seen is not None
    assert (seen.observed, seen.usual, seen.thing) == (48.0, usual, BOWL)
    assert seen.value == pytest.approx(math.log(48.0 / usual))
    assert _bowl(3450.0, 3400.0, 2.0, factor=1.5).value == pytest.approx(seen.value)
    # Forty readings of a coarser scale are worth less.
    assert _bowl(3450.0, 3400.0, 2.0, step=5.0).sd == pytest.approx(5 * seen.sd)


def test_a_scale_that_is_off_is_not_read_as_a_loss() -> None:
    sd = math.sqrt(42 / 12.0)
    assert _bowl(3400.0, 3400.0, 0.0) is None
    assert _bowl(3400.0 + 0.99 * sd, 3400.0, 0.0) is None
    assert _bowl(3400.0 + 1.01 * sd, 3400.0, 0.0) is not None
    assert _bowl(3400.0 - 2.99 * sd, 3400.0, 0.0) is None
    with pytest.raises(OutOfRangeError, match="are more than"):
        _bowl(3400.0 - 3.01 * sd, 3400.0, 0.0)


def test_batches_teach_the_bowl_and_pots_their_boil() -> None:
    names = {("bowl", BOWL): "Bowl and gloves", ("pot", "simmer-240"): pot_name("simmer-240")}
    told = cook_down(2000.0, 1500.0, "simmer", diameter_mm=240.0, burner_w_m2=W_M2).minutes.usual
    pots = [replace(_pot(told / 1.4), cook=n, at=float(n)) for n in range(5)]
    bowls = [replace(_bowl(3424.0 + 24 + n % 2, 3400.0, 0.0), cook=n, at=float(n)) for n in range(5)]
    found = {row.figure: row for row in learnt_of([*pots, *bowls], names=names, in_use=all_in_use(KITCHEN))}
    assert 1.25 < found["evaporation"].posterior.usual < 1.45
    assert found["evaporation"].name == "Simmer, pot of 24 cm"
    assert 1.5 < found["bowl"].posterior.usual < 2.05
    assert "from {n} batches" in found["bowl"].says.text
    assert (found["bowl"].in_use, found["bowl"].news) == (1.0, True)


def test_factors_in_use_move_what_is_allowed_for_and_nothing_else() -> None:
    kitchen = with_factor(KITCHEN, figure="bowl", level="bowl", key=BOWL, factor=1.5)
    plain, used = (
        compute(slipway_smash(), inventory=INVENTORY, kitchen=k).trade.batch_yield for k in (KITCHEN, kitchen)
    )
    assert used.expected_loss_g == pytest.approx(1.5 * plain.expected_loss_g)
    assert (used.bowl_g, used.shaped_g) == (plain.bowl_g, plain.shaped_g)
    fast = with_factor(KITCHEN, figure="evaporation", level="pot", key="simmer-240", factor=1.3)
    assert fast.pots == (PotRate("simmer-240", 1.3),)
    assert (fast.pot_rate("simmer-240"), fast.pot_rate("gentle-240")) == (1.3, 1.0)
    assert all_in_use(fast)["evaporation", "pot", "simmer-240"] == 1.3
    assert with_factor(fast, figure="evaporation", level="pot", key="simmer-240", factor=1.0).pots == ()


@pytest.mark.parametrize("key", ["", "simmer", "simmer-", "stew-240", "simmer-24000", "simmer-240; DROP TABLE pot"])
def test_what_is_no_pot_is_refused(key) -> None:
    with pytest.raises(OutOfRangeError):
        with_factor(KITCHEN, figure="evaporation", level="pot", key=key, factor=1.2)
