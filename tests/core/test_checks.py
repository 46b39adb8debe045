"""What a kitchen writes down: every country's line just inside and just outside, and what is said when it is missed."""

from __future__ import annotations

import pytest

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.units import c_from_f
from vianda.core.checks.judge import CORRECTIVE, MOST_READINGS, Judged, Reading, judge
from vianda.core.checks.limits import KIND_TITLES, CheckKind, CheckLimit, limit_of

COUNTRIES = ("US", "CA", "UK", "other")
H = 3600.0


def _limit(kind: CheckKind, country: str, **more) -> CheckLimit:
    return limit_of(kind, country=country, setting=more.pop("setting", "food-service"), **more)  # type: ignore[arg-type]


def _judged(
    kind: CheckKind, country: str, *readings: tuple[float, float], unit_system: str = "metric", **more
) -> Judged:
    return judge(
        _limit(kind, country, **more),
        [Reading(temp, at) for temp, at in readings],
        reheat=_limit("reheat", country),
        unit_system=unit_system,  # type: ignore[arg-type]
    )


# From memory: the lines and who says so stand in ``checks.limits``.
@pytest.mark.parametrize(("country", "most_c"), [("US", c_from_f(41.0)), ("CA", 4.0), ("UK", 8.0), ("other", 5.0)])
def test_cold_holding_just_inside_and_just_outside(country: str, most_c: float) -> None:
    assert _judged("cold", country, (most_c, 0.0)).verdict == "kept"
    assert _judged("cold", country, (most_c - 3.0, 0.0)).verdict == "kept"
    missed = _judged("cold", country, (most_c + 0.1, 0.0))
    assert missed.verdict == "missed"
    assert missed.corrective is not None
    assert missed.corrective.amounts["most"].value == pytest.approx(most_c)


@pytest.mark.parametrize(("country", "least_c"), [("US", 57.0), ("CA", 60.0), ("UK", 63.0), ("other", 60.0)])
def test_hot_holding_just_inside_and_just_outside(country: str, least_c: float) -> None:
    assert _judged("hot", country, (least_c, 0.0)).verdict == "kept"
    missed = _judged("hot", country, (least_c - 0.1, 0.0))
    assert missed.verdict == "missed"
    assert missed.corrective is not None
    # Once warmed through it may be held again: both figures are said.
    assert {"least", "reheat"} <= missed.corrective.amounts.keys()


@pytest.mark.parametrize(
    ("country", "setting", "poultry", "least_c", "hold_s"),
    [
        ("US", "home", False, c_from_f(160.0), 0.0),
        ("US", "food-service", False, c_from_f(155.0), 17.0),
        ("US", "food-service", True, c_from_f(165.0), 0.0),
        ("CA", "home", False, 71.0, 0.0),
        ("CA", "home", True, 74.0, 0.0),
        ("UK", "food-service", False, 70.0, 120.0),
    ],
)
def test_the_core_is_held_against_the_floor_that_leads(country, setting, poultry, least_c, hold_s) -> None:
    limit = _limit("core", country, setting=setting, poultry=poultry)
    assert (limit.least_c, limit.hold_s) == (pytest.approx(least_c), hold_s)
    # Typed as the screen shows it, 68.3 °C is 155 °F. What must be held is not kept by one moment.
    shown = round(least_c, 1)
    at_once = _judged("core", country, (shown, 0.0), setting=setting, poultry=poultry)
    assert (at_once.verdict, at_once.next_s) == (("running", hold_s) if hold_s else ("kept", None))
    assert _judged("core", country, (shown, 0.0), (shown, hold_s), setting=setting, poultry=poultry).verdict == "kept"
    # Below the coolest hold of its table it is missed; between them it may be held for longer.
    coolest = round(min(h.temp_c for h in limit.holds), 1)
    missed = _judged("core", country, (coolest - 0.1, 0.0), setting=setting, poultry=poultry)
    assert missed.verdict == "missed"
    below = _judged("core", country, (shown - 0.1, 0.0), setting=setting, poultry=poultry)
    assert below.verdict == ("missed" if coolest == shown else "running")
    assert ("hold" in missed.says.amounts) is (hold_s > 0)


# FDA Food Code 3-401.11: 68.3 °C for 17 s, 70 °C at once; UK: 70 °C for 2 min, 75 °C for 30 s. From memory, high.
@pytest.mark.parametrize(
    ("country", "readings", "verdict"),
    [
        ("US", [(68.3, 0), (68.3, 16.9)], "running"),
        ("US", [(68.3, 0), (68.3, 17)], "kept"),
        ("US", [(70.0, 0)], "kept"),
        ("UK", [(70.0, 0), (71.0, 119)], "running"),
        ("UK", [(70.0, 0), (71.0, 120)], "kept"),
        ("UK", [(75.0, 0), (75.0, 29)], "running"),
        ("UK", [(75.0, 0), (75.0, 30)], "kept"),
        # It fell below in between: the clock starts anew.
        ("UK", [(70.0, 0), (69.0, 60), (70.0, 121)], "running"),
        ("UK", [(70.0, 0), (69.0, 121)], "running"),
        ("UK", [(75.0, 0), (59.0, 30)], "missed"),
    ],
)
def test_a_floor_is_held_for_its_time_or_met_hotter_and_shorter(country, readings, verdict) -> None:
    assert _judged("core", country, *readings).verdict == verdict


def test_a_thermometer_in_fahrenheit_is_judged_in_whole_degrees() -> None:
    home = {"unit_system": "us", "setting": "home"}
    assert _judged("core", "US", (c_from_f(159.6), 0.0), **home).verdict == "kept"
    assert _judged("core", "US", (c_from_f(159.4), 0.0), **home).verdict == "missed"
    assert _judged("cold", "US", (c_from_f(41.4), 0.0), unit_system="us").verdict == "kept"
    assert _judged("cold", "US", (c_from_f(41.6), 0.0), unit_system="us").verdict == "missed"


@pytest.mark.parametrize(
    ("country", "to_c", "within_s"),
    [("US", c_from_f(70.0), 2 * H), ("CA", 20.0, 2 * H), ("UK", 8.0, 1.5 * H), ("other", 10.0, 2 * H)],
)
def test_the_first_step_of_cooling_just_inside_and_just_outside(country: str, to_c: float, within_s: float) -> None:
    start = (65.0, 0.0)
    assert _judged("cool", country, start, (to_c, within_s)).verdict in ("kept", "running")
    assert _judged("cool", country, start, (to_c, within_s + 1.0)).verdict == "missed"
    # As late as it may be and a tenth too warm.
    assert _judged("cool", country, start, (to_c + 0.2, within_s)).verdict == "missed"
    early = _judged("cool", country, start, (to_c + 5.0, within_s / 2))
    assert (early.verdict, early.next_s, early.corrective) == ("running", within_s, None)


@pytest.mark.parametrize(("country", "to_c"), [("US", c_from_f(41.0)), ("CA", 4.0)])
def test_the_second_step_of_cooling_ends_after_six_hours(country: str, to_c: float) -> None:
    first = ((60.0, 0.0), (18.0, 1.8 * H))
    waits = _judged("cool", country, *first)
    assert (waits.verdict, waits.next_s) == ("running", 6 * H)
    assert _judged("cool", country, *first, (to_c, 6 * H)).verdict == "kept"
    assert _judged("cool", country, *first, (to_c, 6 * H + 1)).verdict == "missed"
    assert _judged("cool", country, *first, (to_c + 0.2, 6 * H)).verdict == "missed"
    # A first step that was missed is not mended by a second one that was kept.
    assert _judged("cool", country, (60.0, 0.0), (30.0, 2 * H), (to_c, 3 * H)).verdict == "missed"
    # Once it was cold in time, a door that stands open later is no matter of cooling.
    assert _judged("cool", country, *first, (to_c, 4 * H), (to_c + 4.0, 7 * H)).verdict == "kept"


@pytest.mark.parametrize(("country", "least_c"), [("US", c_from_f(165.0)), ("CA", 74.0), ("UK", 75.0), ("other", 74.0)])
def test_warming_up_just_inside_and_just_outside(country: str, least_c: float) -> None:
    shown = round(least_c, 1)
    assert _judged("reheat", country, (5.0, 0.0), (shown, 1.5 * H)).verdict == "kept"
    late = _judged("reheat", country, (5.0, 0.0), (shown, 2 * H + 1))
    assert late.verdict == ("kept" if country == "UK" else "missed")
    on = _judged("reheat", country, (5.0, 0.0), (shown - 0.2, H))
    # The UK's guidance has no clock: what is not hot enough is told at once.
    assert on.verdict == ("missed" if country == "UK" else "running")


@pytest.mark.parametrize("kind", KIND_TITLES)
@pytest.mark.parametrize("country", COUNTRIES)
def test_every_line_says_who_says_so_and_what_to_do(kind: CheckKind, country: str) -> None:
    limit = _limit(kind, country)
    assert limit.source
    assert limit.least_c is not None or limit.most_c is not None
    far = 2.0 if limit.least_c is not None else 60.0
    missed = _judged(kind, country, (far, 0.0), (far, 70 * H))
    assert missed.verdict == "missed"
    assert limit.source in missed.says.text
    assert missed.corrective is not None
    # Every figure in the sentence is given, and none that is not in it.
    assert CORRECTIVE[kind].format(**dict.fromkeys(missed.corrective.amounts, "x"))
    for phrase in (missed.says, missed.corrective):
        assert all(f"{{{key}}}" in phrase.text for key in phrase.amounts)


@pytest.mark.parametrize(
    "readings",
    [
        [],
        [Reading(float("nan"))],
        [Reading(-41.0)],
        [Reading(151.0)],
        [Reading(1e308)],
        [Reading(60.0, -1.0)],
        [Reading(60.0, 73 * H)],
        [Reading(60.0, 100.0), Reading(50.0, 99.0)],
        [Reading(60.0, float(n)) for n in range(MOST_READINGS + 1)],
    ],
    ids=str,
)
def test_readings_that_cannot_be_are_refused(readings: list[Reading]) -> None:
    with pytest.raises(OutOfRangeError):
        judge(_limit("cool", "US"), readings, reheat=_limit("reheat", "US"))
