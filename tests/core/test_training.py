"""The trainer: every round is right by the figures it comes from, and weak kinds come again."""

from __future__ import annotations

import numpy as np
import pytest

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.units import ML_PER_TSP
from vianda.core.batch.salt_ledger import kitchen_salt
from vianda.core.demo.formulas import DEMO_FORMULAS, beacon_grill, keepers_loaf, night_watch_balls, slipway_smash
from vianda.core.heat.curve import heat_curve
from vianda.core.pipeline.compute import compute
from vianda.core.training.practice import COMES_AGAIN_DAYS, DAY_S, Answered, next_kinds, standings
from vianda.core.training.rounds import KINDS, GrindPicture, PieceToWeigh, SectionPicture, SurfaceToFill, make_round

SEEDS = range(12)


@pytest.fixture(scope="module")
def figures(inventory, kitchen):
    known = {}

    def of(make):
        if make not in known:
            known[make] = compute(make(), inventory=inventory, kitchen=kitchen)
        return known[make]

    return of


def _value(phrase) -> float:
    [amount] = phrase.amounts.values()
    return amount.value


@pytest.mark.parametrize("make", DEMO_FORMULAS)
@pytest.mark.parametrize("kind", KINDS)
def test_a_round_has_one_right_answer_among_others_and_is_the_same_for_its_seed(figures, make, kind) -> None:
    made = make_round(kind, figures(make), seed=5)
    if made is None:
        return
    answers = [repr(a) for a in made.round.answers]
    assert len(set(answers)) == len(answers) >= 3
    assert 0 <= made.right < len(answers)
    assert made == make_round(kind, figures(make), seed=5)
    assert made.round.kind == kind


def test_the_place_of_the_right_answer_gives_nothing_away(figures) -> None:
    for kind in ("turn", "core", "fits", "portion", "salt", "fat"):
        places = {made.right for n in range(40) if (made := make_round(kind, figures(slipway_smash), seed=n))}
        assert len(places) >= 3, kind


def test_a_section_is_turned_when_two_fifths_are_grey(figures) -> None:
    curve = heat_curve(figures(beacon_grill).cook.case)
    assert curve.flip_s is not None
    for seed in SEEDS:
        made = make_round("turn", figures(beacon_grill), seed=seed)
        assert made is not None
        assert isinstance(made.round.picture, SectionPicture)
        depths = np.linspace(0, 1, 1001)
        grey = float(np.mean(np.interp(depths, made.round.picture.depths_frac, made.round.picture.temp_c) >= 60.0))
        # "Turn it now" is the first answer: right where two fifths of the thickness is past 60 °C, and only there.
        assert (made.right == 0) == (grey >= 0.38), (seed, grey)
        assert made.right == 0 or grey < 0.35
        waits = 0.0 if made.right == 0 else _value(made.round.answers[made.right])
        assert made.why.amounts["now"].value + waits == pytest.approx(curve.flip_s.usual, rel=1e-6)


def test_the_core_that_is_right_is_that_of_the_drawing(figures) -> None:
    for make in (beacon_grill, night_watch_balls):
        for seed in SEEDS:
            made = make_round("core", figures(make), seed=seed)
            assert made is not None
            picture = made.round.picture
            assert isinstance(picture, SectionPicture)
            middle = float(np.interp(0.5, picture.depths_frac, picture.temp_c))
            said = [_value(a) for a in made.round.answers]
            assert min(range(4), key=lambda n: abs(said[n] - middle)) == made.right


def test_grains_portions_and_spoons_are_those_of_the_figures(figures, inventory, kitchen) -> None:
    f = figures(slipway_smash)
    grind = make_round("fat", f, seed=3)
    assert grind is not None
    assert isinstance(grind.round.picture, GrindPicture)
    white = sum(grind.round.picture.white) / len(grind.round.picture.white)
    assert white * 0.8 == pytest.approx(f.meat.blend.fat_frac, abs=0.003)
    portion = make_round("portion", f, seed=3)
    assert portion is not None
    assert isinstance(portion.round.picture, PieceToWeigh)
    assert _value(portion.round.answers[portion.right]) == f.batch.portions.piece_mass_g
    fits = make_round("fits", f, seed=3)
    assert fits is not None
    assert isinstance(fits.round.picture, SurfaceToFill)
    assert _value(fits.round.answers[fits.right]) == f.piece.laying.at_once
    spoon = make_round("salt", f, seed=3)
    salt = kitchen_salt(kitchen.salt, inventory.pantry)
    assert spoon is not None
    assert salt is not None
    wanted = spoon.round.question.amounts["g"].value / (salt.g_per_cup / 48)
    assert _value(spoon.round.answers[spoon.right]) == pytest.approx(wanted)
    assert salt.g_per_ml * ML_PER_TSP == pytest.approx(salt.g_per_cup / 48)


def test_what_a_formula_cannot_practise_is_not_made_up(figures) -> None:
    loaf = figures(keepers_loaf)
    assert [kind for kind in KINDS if make_round(kind, loaf, seed=1) is None] == [
        "turn", "core", "surface", "fits", "portion",
    ]  # fmt: skip
    with pytest.raises(OutOfRangeError):
        make_round("juggling", loaf, seed=1)  # type: ignore[arg-type]


def _standing(answered, kind):
    return next(s for s in standings(answered) if s.kind == kind)


def test_a_brier_score_is_that_of_its_definition() -> None:
    """Always a quarter of four answers, right once in four: (3 × 0.0625 + 0.5625) ÷ 4 = 0.1875."""
    guesses = [Answered("fat", n == 0, 0.25, float(n)) for n in range(4)]
    assert _standing(guesses, "fat").brier == pytest.approx(0.1875)
    assert _standing([Answered("fat", True, 0.95, 0.0)] * 5, "fat").brier == pytest.approx(0.0025)
    assert _standing([], "fat").brier is None


def test_who_is_surer_than_right_is_told() -> None:
    def told(right: int, sure: float) -> str:
        return _standing([Answered("core", n < right, sure, float(n)) for n in range(10)], "core").message.text

    assert told(5, 0.75).startswith("Surer than right")
    assert told(6, 0.75).startswith("As sure as right")
    assert told(10, 0.75).startswith("Better than you think")
    assert _standing([Answered("core", True, 0.95, 0.0)] * 4, "core").message.text == "Too few to tell."


def test_right_answers_climb_a_ladder_a_guess_does_not_and_a_wrong_one_falls_off() -> None:
    climbing = [Answered("fits", True, 0.75, 0.0)] * 3
    assert _standing(climbing, "fits").rung == 3
    assert _standing(climbing, "fits").due_s == COMES_AGAIN_DAYS[3] * DAY_S
    assert _standing([*climbing, Answered("fits", True, 0.25, 0.0)], "fits").rung == 3
    assert _standing([*climbing, Answered("fits", False, 0.25, 0.0)], "fits").rung == 0
    assert _standing(climbing * 9, "fits").rung == len(COMES_AGAIN_DAYS) - 1


def test_what_is_due_comes_first_the_weakest_of_it_first_and_never_the_same_twice() -> None:
    right = [Answered(kind, True, 0.95, 0.0) for kind in KINDS]
    # Everything comes again tomorrow; what was missed is due at once.
    missed = [*right, Answered("salt", False, 0.95, 10.0), Answered("turn", False, 0.5, 20.0),
              Answered("core", True, 0.95, 30.0)]  # fmt: skip
    assert next_kinds(missed, now_s=60.0)[:2] == ("salt", "turn")
    # Just missed: another that is due comes before it.
    assert next_kinds([*missed, Answered("salt", False, 0.95, 40.0)], now_s=60.0)[0] == "turn"
    assert next_kinds([], now_s=0.0) == KINDS
    # Just inside and just outside of its day.
    assert next_kinds(right, now_s=DAY_S - 1.0) == next_kinds(right, now_s=0.0)
    due = [*right[1:], Answered("turn", True, 0.95, -1.0)]
    assert next_kinds([*due, Answered("fat", True, 0.95, 5.0)], now_s=DAY_S - 1.0)[0] == "turn"
