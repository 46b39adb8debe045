"""What a kitchen has learnt: priors, data, posteriors, what is proposed, and how good forecasts were."""

from __future__ import annotations

import itertools
import math
from dataclasses import replace

import numpy as np
import pytest

from vianda.core.basis.errors import OutOfRangeError, UnknownItemError
from vianda.core.demo.formulas import keepers_loaf, slipway_smash
from vianda.core.explain import workings_of
from vianda.core.learning.figures import FIGURES, LearntFigure, Observation
from vianda.core.learning.in_use import FactorsInUse, all_in_use, factors_in_use, with_factor
from vianda.core.learning.learnt import NEWEST, Learnt, error_sd, learnt_of
from vianda.core.learning.scores import foretold, scores_of
from vianda.core.pipeline.compute import compute

NAMES = {
    ("style", "smashed"): "Smashed", ("style", "thick"): "Thick",
    ("surface", "plate"): "Yard plate", ("surface", "grate"): "Grate",
}  # fmt: skip


def _seen(
    cook: int, factor: float, *, figure: LearntFigure = "loss", style: str = "smashed", surface: str = "plate",
    sd: float = 0.03,
) -> Observation:  # fmt: skip
    usual = 0.3
    return Observation(
        figure, cook, float(cook), style, surface, usual * factor, 0.24, usual, 0.36, math.log(factor), sd
    )


def _one(found: tuple[Learnt, ...], figure: LearntFigure, level: str, key: str) -> Learnt:
    return next(x for x in found if (x.figure, x.level, x.key) == (figure, level, key))


def test_a_new_kitchen_has_learnt_nothing() -> None:
    assert learnt_of([], names=NAMES, in_use={}) == ()
    assert scores_of([]) == ()


def test_it_moves_as_far_as_its_data_allow() -> None:
    factors = []
    for cooks in (1, 3, 10, 40):
        seen = [_seen(n, 1.25) for n in range(cooks)]
        found = learnt_of(seen, names=NAMES, in_use={})
        style, surface = _one(found, "loss", "style", "smashed"), _one(found, "loss", "surface", "plate")
        factors.append(style.posterior.usual * surface.posterior.usual)
        assert (style.prior.usual, surface.prior.usual) == (1.0, 1.0)
        assert surface.posterior.high - surface.posterior.low < surface.prior.high - surface.prior.low
    assert 1.0 < factors[0] < factors[1] < factors[2] < factors[3] < 1.25
    # Forty cooks of one style on one surface: together they say what was seen.
    assert factors[3] == pytest.approx(1.25, rel=0.01)


def test_what_two_surfaces_share_is_the_kitchen_s_and_what_differs_is_theirs() -> None:
    seen = [_seen(n, 1.3 if n % 2 else 1.1, surface="grate" if n % 2 else "plate") for n in range(40)]
    found = learnt_of(seen, names=NAMES, in_use={})
    plate, grate = (_one(found, "loss", "surface", key).posterior.usual for key in ("plate", "grate"))
    assert 1.0 < plate < grate


def test_what_is_set_aside_does_not_count_and_is_still_shown() -> None:
    seen = [_seen(n, 1.2) for n in range(5)]
    seen[2] = replace(seen[2], aside=True)
    row = _one(learnt_of(seen, names=NAMES, in_use={}), "loss", "surface", "plate")
    assert (row.counted, len(row.data)) == (4, 5)
    assert [d.aside for d in row.data] == [False, False, True, False, False]
    without = learnt_of([o for o in seen if not o.aside], names=NAMES, in_use={})
    assert row.posterior == _one(without, "loss", "surface", "plate").posterior
    # All of them aside: what was thought before, and nothing is proposed.
    nothing = learnt_of([replace(o, aside=True) for o in seen], names=NAMES, in_use={})
    row = _one(nothing, "loss", "surface", "plate")
    assert (row.counted, row.proposed, row.news) == (0, 1.0, False)
    assert row.posterior == row.prior
    assert "Nothing counts" in row.says.text


def test_a_tray_on_the_scale_is_named() -> None:
    seen = [*(_seen(n, 1.05) for n in range(8)), _seen(8, 0.35)]
    row = _one(learnt_of(seen, names=NAMES, in_use={}), "loss", "surface", "plate")
    assert [d.outlier for d in row.data] == [False] * 8 + [True]
    assert row.counted == 8


def test_nothing_is_proposed_beyond_half_and_double() -> None:
    found = learnt_of([_seen(n, 3.9, figure="heat", sd=0.02) for n in range(60)], names=NAMES, in_use={})
    row = _one(found, "heat", "surface", "plate")
    assert row.posterior.usual > 2.0
    assert row.proposed == 2.0


def test_what_is_in_use_already_is_no_news() -> None:
    seen = [_seen(n, 1.2) for n in range(20)]
    row = _one(learnt_of(seen, names=NAMES, in_use={}), "loss", "surface", "plate")
    assert row.news
    in_use = {("loss", "surface", "plate"): row.proposed}
    assert not _one(learnt_of(seen, names=NAMES, in_use=in_use), "loss", "surface", "plate").news


def test_what_is_no_longer_there_is_left_out() -> None:
    seen = [_seen(1, 1.2, surface="sold-grill")]
    assert {(x.level, x.key) for x in learnt_of(seen, names=NAMES, in_use={})} == {("style", "smashed")}


def test_only_the_newest_count() -> None:
    old = [_seen(n, 0.8) for n in range(40)]
    new = [_seen(100 + n, 1.2) for n in range(NEWEST)]
    both = learnt_of([*old, *new], names=NAMES, in_use={})
    alone = learnt_of(new, names=NAMES, in_use={})
    assert _one(both, "loss", "surface", "plate").posterior == _one(alone, "loss", "surface", "plate").posterior


def test_words_say_how_much_and_whether_it_may_be_chance() -> None:
    [one] = [x for x in learnt_of([_seen(1, 1.1)], names=NAMES, in_use={}) if x.level == "surface"]
    assert one.says.text.endswith("from {n} cook; it may still be chance")
    assert not one.sure
    many = _one(learnt_of([_seen(n, 1.2) for n in range(30)], names=NAMES, in_use={}), "loss", "surface", "plate")
    assert many.says.text == "Loses more than the tables say, by {by}, from {n} cooks"
    assert many.sure
    less = _one(learnt_of([_seen(n, 0.8) for n in range(30)], names=NAMES, in_use={}), "loss", "surface", "plate")
    assert "Loses less" in less.says.text
    same = _one(learnt_of([_seen(n, 1.0) for n in range(30)], names=NAMES, in_use={}), "loss", "surface", "plate")
    assert same.says.text == "As the tables say, from {n} cooks"


def test_forecasts_know_only_what_was_before_them() -> None:
    seen = [_seen(n, 1.25) for n in range(12)]
    told = foretold(seen)
    assert told[0].off == pytest.approx(math.log(1.25))
    offs = [t.off for t in told]
    assert all(b < a for a, b in itertools.pairwise(offs))
    # What comes later changes nothing of what was foretold.
    assert foretold(seen[:6]) == told[:6]


def test_two_readings_of_one_cook_do_not_foretell_each_other() -> None:
    first = _seen(1, 1.4, figure="heat")
    told = foretold([first, replace(first, piece=1)])
    assert told[0].off == told[1].off


def test_honest_ranges_hold_in_eight_of_ten() -> None:
    """Kitchens drawn as the learner thinks of them: the bands must hold in 80 %, within three standard errors."""
    rng = np.random.default_rng(11)
    held = []
    for _ in range(60):
        kitchen, style, surface = rng.normal(0, 0.08, 3)
        seen = []
        for n in range(8):
            own = error_sd(_seen(0, 1.0))
            seen.append(_seen(n, math.exp(kitchen + style + surface + rng.normal(0, own))))
        held += [t.held for t in foretold(seen)]
    assert np.mean(held) == pytest.approx(0.80, abs=3 * math.sqrt(0.16 / len(held)))


def test_scores_say_how_often_ranges_held_and_what_learning_was_worth() -> None:
    [score] = scores_of([_seen(n, 1.25) for n in range(20)])
    assert (score.figure, score.cooks) == ("loss", 20)
    assert score.off_frac < 0.05 < score.plan_off_frac == pytest.approx(0.25)
    # 0.375 lies outside of the plan's own 0.24 to 0.36.
    assert score.plan_held_frac == 0.0
    assert score.held_frac.low < score.held_frac.usual


def test_a_factor_is_put_to_use_where_forecasts_read_it(kitchen) -> None:
    plate = kitchen.surfaces[0].key
    lossy = with_factor(kitchen, figure="loss", level="surface", key=plate, factor=1.1)
    hot = with_factor(lossy, figure="heat", level="surface", key=plate, factor=0.8)
    known = with_factor(hot, figure="shrink", level="style", key="smashed", factor=1.2)
    known = with_factor(known, figure="loss", level="style", key="smashed", factor=1.5)
    assert factors_in_use(known, style="smashed", surface=plate) == FactorsInUse(pytest.approx(1.65), 1.2, 0.8)
    assert factors_in_use(known, style="thick", surface=plate) == FactorsInUse(1.1, 1.0, 0.8)
    assert all_in_use(known)["shrink", "style", "smashed"] == 1.2
    # Put again, it stands once; one is what the tables say.
    again = with_factor(known, figure="shrink", level="style", key="smashed", factor=1.3)
    assert [f.factor for f in again.learnt if f.figure == "shrink"] == [1.3]
    back = with_factor(again, figure="shrink", level="style", key="smashed", factor=1.0)
    assert [f.figure for f in back.learnt] == ["loss"]
    assert with_factor(known, figure="loss", level="surface", key=plate, factor=1.0).surfaces[0].loss_factor == 1.0


@pytest.mark.parametrize("factor", [0.49, 2.01, -1.0])
def test_a_factor_beyond_its_bounds_is_refused(kitchen, factor: float) -> None:
    with pytest.raises(OutOfRangeError):
        with_factor(kitchen, figure="loss", level="style", key="smashed", factor=factor)


@pytest.mark.parametrize("factor", [0.5, 2.0])
def test_a_factor_at_its_bounds_is_taken(kitchen, factor: float) -> None:
    found = with_factor(kitchen, figure="loss", level="style", key="smashed", factor=factor)
    assert found.style_factor("loss", "smashed") == factor


def test_what_is_not_learnt_of_a_thing_is_refused(kitchen) -> None:
    with pytest.raises(OutOfRangeError):
        with_factor(kitchen, figure="heat", level="style", key="smashed", factor=1.1)
    with pytest.raises(OutOfRangeError):
        with_factor(kitchen, figure="shrink", level="surface", key=kitchen.surfaces[0].key, factor=1.1)
    with pytest.raises(UnknownItemError):
        with_factor(kitchen, figure="loss", level="surface", key="no-such", factor=1.1)


def test_every_figure_says_where_it_starts_and_what_may_be_used() -> None:
    for model in FIGURES.values():
        assert model.source
        assert model.adopt
        assert set(model.adopt) <= set(model.level_sd)


def test_a_style_s_factors_move_its_piece_and_its_working_says_so(inventory, kitchen) -> None:
    plain = compute(slipway_smash(), inventory=inventory, kitchen=kitchen)
    known = with_factor(kitchen, figure="loss", level="style", key="smashed", factor=1.2)
    known = with_factor(known, figure="shrink", level="style", key="smashed", factor=1.3)
    moved = compute(slipway_smash(), inventory=inventory, kitchen=known)
    before, after = plain.piece.shape, moved.piece.shape
    assert 1 - after.cooked_yield_frac.usual == pytest.approx(1.2 * (1 - before.cooked_yield_frac.usual))
    shrunk = 1 - before.cooked_diameter_mm.usual / before.raw_diameter_mm
    assert 1 - after.cooked_diameter_mm.usual / after.raw_diameter_mm == pytest.approx(1.3 * shrunk)
    said = " ".join(step.text for working in workings_of(moved).values() for step in working.steps)
    assert "as this kitchen’s cooks of this style lost" in said
    assert "Shrink times {x}, as this kitchen measured it in this style" in said
    assert "this style" not in " ".join(step.text for w in workings_of(plain).values() for step in w.steps)
    # A loaf is another style: nothing of it moved.
    loaf = [compute(keepers_loaf(), inventory=inventory, kitchen=k).piece.shape for k in (kitchen, known)]
    assert loaf[0] == loaf[1]
