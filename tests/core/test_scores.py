"""How near a cook came to what is wanted: nearest where each score is wanted, and no better beyond it."""

from __future__ import annotations

import pytest

from vianda.core.cook.scores import LEAST, MOST, SCALES, nearness

WANTED = {key: scale.wanted for key, scale in SCALES.items()}


def test_every_score_as_wanted_is_five_and_every_one_at_its_far_end_is_one() -> None:
    far = {key: LEAST if scale.wanted >= 3 else MOST for key, scale in SCALES.items()}
    assert nearness(WANTED) == MOST
    assert nearness(far) == LEAST


@pytest.mark.parametrize("key", SCALES)
def test_a_score_off_to_either_side_is_worse_the_farther_it_is(key) -> None:
    scores = [float(n) for n in (1, 2, 3, 4, 5)]
    near = {n: nearness({**WANTED, key: n}) for n in scores}
    assert max(near, key=near.__getitem__) == SCALES[key].wanted
    for side in ([n for n in scores if n <= SCALES[key].wanted], [n for n in scores if n >= SCALES[key].wanted][::-1]):
        assert [near[n] for n in side] == sorted(near[n] for n in side)
        assert len({near[n] for n in side}) == len(side)


def test_a_salty_greasy_rubbery_burger_is_not_the_best() -> None:
    """The mean of its scores is 5 of 5."""
    assert nearness(dict.fromkeys(SCALES, 5)) < nearness({**WANTED, "crust": 3, "salt": 2})


def test_what_was_not_scored_neither_helps_nor_harms() -> None:
    assert nearness({"salt": 4, "crust": None, "note": None}) == nearness({"salt": 4}) == 3.0
    assert nearness({}) is None
