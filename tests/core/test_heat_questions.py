"""The heat asked the other way round, fitted to what was seen, afterwards, in the freezer, and without a
thermometer."""

from __future__ import annotations

from dataclasses import replace

import pytest

from vianda.core.basis.errors import OutOfRangeError, UnknownItemError
from vianda.core.demo.formulas import beacon_grill, harbour_light_pub, keepers_loaf, night_watch_balls, slipway_smash
from vianda.core.demo.kitchen import yard_galley
from vianda.core.editing.apply_edit import apply_edit
from vianda.core.heat.after import afterwards
from vianda.core.heat.case import CookCase
from vianda.core.heat.conduction.meat import Material
from vianda.core.heat.curve import HeatCurve, curve_steps, heat_curve
from vianda.core.heat.firming import firming
from vianda.core.heat.fit import HIGH, LOW, Observed, ProbeReading, fit, model_cores
from vianda.core.heat.plate_signs import SIGNS, guess_surface
from vianda.core.heat.questions import ask
from vianda.core.heat.run_setup import setup_of
from vianda.core.inventory.inventory import starter_inventory
from vianda.core.model.edit import Choose, SetFigure
from vianda.core.model.formula import Formula
from vianda.core.pipeline.compute import prepare

INVENTORY, KITCHEN = starter_inventory(), yard_galley()


def _case(formula: Formula, *edits: object) -> CookCase:
    for edit in edits:
        formula = apply_edit(formula, edit, inventory=INVENTORY, kitchen=KITCHEN)  # type: ignore[arg-type]
    return prepare(formula, inventory=INVENTORY, kitchen=KITCHEN).case


def test_the_thickness_it_names_is_done_in_that_time() -> None:
    answer = ask(_case(beacon_grill()), "how-thick", value=360.0)
    assert answer.change is not None
    made = heat_curve(_case(beacon_grill(), answer.change))
    # The question moves only the thickness; a thinner piece is wider too, and crowds the grate less.
    assert made.pull_s.usual == pytest.approx(360, rel=0.05)


def test_a_question_that_has_no_answer_says_so() -> None:
    none = ask(_case(harbour_light_pub()), "how-thick", value=60.0)
    assert none.value is None
    assert "Not even" in none.message.text
    with pytest.raises(OutOfRangeError, match="heavy"):
        ask(_case(night_watch_balls()), "how-thick", value=600.0)
    for bad in (None, 1.0, 1e6):
        with pytest.raises(OutOfRangeError, match="how long"):
            ask(_case(slipway_smash()), "floor-in-time", value=bad)
    with pytest.raises(OutOfRangeError, match="80 to 400"):
        ask(_case(slipway_smash()), "how-long", value=900.0)


def test_a_browner_crust_in_the_same_time_asks_for_more_heat() -> None:
    golden, brown = (ask(_case(slipway_smash()), "how-hot", value=120.0, crust=c) for c in ("golden", "brown"))
    assert golden.value is not None
    assert brown.value is not None
    assert golden.value < brown.value - 10


def test_a_hotter_oven_takes_less_time() -> None:
    cool, hot = (ask(_case(keepers_loaf()), "how-long", value=t).value for t in (160.0, 190.0))
    assert cool is not None
    assert hot is not None
    assert hot < cool


def test_whether_the_floor_is_met_turns_where_it_is_said_to() -> None:
    pub = _case(harbour_light_pub())
    needed = ask(pub, "reach-floor").value
    assert needed is not None
    assert "Yes" in ask(pub, "floor-in-time", value=needed + 15).message.text
    assert "No" in ask(pub, "floor-in-time", value=needed - 40).message.text
    # As planned a smash that wants the floor meets it.
    assert "As planned" in ask(_case(slipway_smash()), "reach-floor").message.text


def test_landing_where_the_floor_keeps_it_on_says_the_core_as_it_then_is() -> None:
    case = _case(beacon_grill())
    answer = ask(case, "land-on-target")
    assert answer.message.text.startswith("The coldest meat keeps it on until")
    off, peak = (answer.message.amounts[name].value for name in ("pull", "core"))
    assert case.heat.target_core_temp_c < off <= peak < off + 5.0
    # The same moment as the plan's.
    assert answer.value == pytest.approx(heat_curve(case).pull_s.usual, rel=0.02)


def test_landing_on_target_pulls_below_it_and_rises_to_it() -> None:
    answer = ask(_case(harbour_light_pub()), "land-on-target")
    amounts = answer.message.amounts
    assert amounts["pull"].value < 61.0
    assert amounts["core"].value == pytest.approx(61.0, abs=0.3)


@pytest.mark.parametrize("true", [0.75, 1.0, 1.35])
@pytest.mark.parametrize("formula", [beacon_grill(), harbour_light_pub()], ids=["grill", "pub"])
def test_three_readings_recover_how_fast_heat_runs(formula: Formula, true: float) -> None:
    setup = setup_of(_case(formula))
    real = replace(setup, factors=replace(setup.factors, k=setup.factors.k * true))
    moments = (150.0, 240.0, 330.0)
    # A degree of noise, as a probe has.
    readings = tuple(
        ProbeReading(t, c + n) for t, c, n in zip(moments, model_cores(real, moments), (0.8, -0.9, 0.4), strict=True)
    )
    found = fit(setup, Observed(readings))
    assert found.of == "conductivity"
    assert not found.refused
    assert found.factor == pytest.approx(true, rel=0.12)
    assert found.sd < 0.15


def test_an_oven_is_fitted_by_its_air() -> None:
    setup = setup_of(_case(night_watch_balls(), Choose("style", "ball-baked")))
    real = replace(setup, factors=replace(setup.factors, air=1.35))
    moments = (300.0, 480.0, 600.0)
    readings = tuple(ProbeReading(t, c) for t, c in zip(moments, model_cores(real, moments), strict=True))
    found = fit(setup, Observed(readings))
    assert found.of == "air"
    # A prototype recovered 1.35 as 1.376 from three readings; the prior of 0.2 holds ours back.
    assert found.factor == pytest.approx(1.35, abs=0.12)


def test_a_reading_that_cannot_be_of_this_piece_is_refused() -> None:
    found = fit(setup_of(_case(beacon_grill())), Observed((ProbeReading(60.0, 90.0),)))
    assert found.refused
    assert found.factor == 1.0
    assert "was not used" in found.message.text


def test_a_thin_piece_learns_from_when_it_was_ready_to_turn_and_from_what_was_left() -> None:
    case = _case(slipway_smash())
    late = Observed(turned_s=70.0, cooked_yield_frac=0.70)
    found = fit(setup_of(case), late)
    assert LOW < found.factor < 1.0
    assert 1.0 < found.drip_factor < HIGH
    before = heat_curve(case)
    after = heat_curve(case, observed=late)
    assert after.fitted is not None
    assert after.pull_s.usual > before.pull_s.usual
    assert after.yield_frac < before.yield_frac


def test_a_reading_narrows_the_band_and_says_so() -> None:
    case = _case(harbour_light_pub())

    def last(observed: Observed) -> HeatCurve:
        found = [s for s in curve_steps(case, observed=observed) if isinstance(s, HeatCurve)][-1]
        assert found.uncertainty is not None
        return found

    core = heat_curve(case)
    at = core.pull_s.usual * 0.7
    reading = model_cores(setup_of(case), (at,))[0]
    wide, narrow = last(Observed()), last(Observed((ProbeReading(at, reading),)))
    assert narrow.pull_s.high / narrow.pull_s.low < wide.pull_s.high / wide.pull_s.low - 0.05
    assert narrow.fitted is not None
    assert "Fitted to what you saw" in narrow.fitted.message.text


@pytest.mark.parametrize(
    "bad",
    [
        {"probes": (ProbeReading(0.0, 50.0),)},
        {"probes": (ProbeReading(60.0, 400.0),)},
        {"turned_s": 1.0},
        {"cooked_yield_frac": 0.1},
        {"probes": (ProbeReading(60.0, 50.0),) * 13},
    ],
)
def test_what_nobody_can_have_seen_is_refused(bad: dict) -> None:
    with pytest.raises(OutOfRangeError):
        Observed(**bad)


@pytest.mark.parametrize(
    "formula", [slipway_smash(), night_watch_balls(), keepers_loaf()], ids=["smash", "balls", "loaf"]
)
def test_afterwards_it_is_kept_cooled_and_warmed(formula: Formula) -> None:
    hold, cool, reheat = afterwards(_case(formula))
    assert [line.key for line in (hold, cool, reheat)] == ["hold", "cool", "reheat"]
    assert 600 < cool.time_s < 10 * 3600
    # A whole loaf does not cool in time (common practice: slice it); a patty does.
    assert cool.within is (formula.dish.dish != "meatloaf")
    assert reheat.within
    assert reheat.time_s > 120


def test_cubes_are_firm_when_cooks_say_and_solid_later() -> None:
    # Common practice, no published source: cubes of 2.5–3 cm, 30–45 min, firm but not solid.
    lean = Material((0.63, 0.18, 0.18, 0.0, 0.01))
    small, large = firming(edge_mm=25, meat=lean), firming(edge_mm=30, meat=lean)
    assert 22 <= small.firm_s / 60 < large.firm_s / 60 <= 45
    assert large.solid_s > large.firm_s * 1.5
    assert firming(edge_mm=28, meat=lean, freezer_c=-28.0).firm_s < firming(edge_mm=28, meat=lean).firm_s
    with pytest.raises(OutOfRangeError):
        firming(edge_mm=2, meat=lean)


def test_signs_are_read_together_and_contradictions_are_said() -> None:
    # Common practice: a drop skitters from about 190 °C up; a hand bears 2–3 s hot, 5 s medium.
    assert guess_surface(("drop-skitters",)).low_c == 190.0
    both = guess_surface(("drop-skitters", "fat-shimmers"))
    assert (both.low_c, both.high_c) == (190.0, 210.0)
    assert guess_surface(("fat-smokes",), fat="butter").usual_c < guess_surface(("fat-smokes",), fat="oil").usual_c
    hot, medium = guess_surface(("hand-2",)), guess_surface(("hand-5",))
    assert hot.low_c > medium.high_c
    with pytest.raises(OutOfRangeError, match="contradict"):
        guess_surface(("drop-sits", "fat-shimmers"))
    with pytest.raises(OutOfRangeError, match="Which fat"):
        guess_surface(("fat-smokes",))
    with pytest.raises(UnknownItemError):
        guess_surface(("tea-leaves",))
    assert all(s.low_c <= s.usual_c <= s.high_c for s in SIGNS)


def test_a_question_never_changes_what_it_was_asked_of() -> None:
    case = _case(beacon_grill(), SetFigure("thickness", 15.0))
    before = heat_curve(case)
    for kind, value in (("how-thick", 300.0), ("how-hot", 120.0), ("reach-floor", None), ("floor-in-time", 200.0)):
        ask(case, kind, value=value)  # type: ignore[arg-type]
    assert heat_curve(case) == before


@pytest.mark.parametrize(("country", "hot_c"), [("US", 57.0), ("UK", 63.0), ("CA", 60.0), ("other", 60.0)])
def test_a_piece_kept_hot_is_judged_by_its_own_countrys_line(country: str, hot_c: float) -> None:
    """Food Code 3-501.16 57 °C; England 63 °C; Canada and WHO 60 °C: all from memory. An hour ends near 62 °C here."""
    kitchen = replace(KITCHEN, country=country)
    case = prepare(keepers_loaf(), inventory=INVENTORY, kitchen=kitchen).case
    hold = afterwards(case)[0]
    assert hold.limit.amounts["hot"].value == hot_c
    core = hold.message.amounts["core"].value
    assert core is not None
    assert hold.within is (core >= hot_c)
