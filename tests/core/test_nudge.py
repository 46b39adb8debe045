"""A nudge does what was asked and no more, holds the rest, and is the smallest there is."""

from __future__ import annotations

import itertools

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.inventory.pantry import starter_pantry
from vianda.core.sauce.nudge import COLD_ONLY, HANDLES, HELD, MOST_ADDED, Handle, Nudge, nudge
from vianda.core.sauce.schools import sauce_schools
from vianda.core.sauce.tastes import taste_of

PANTRY = starter_pantry()
SAUCE = [("mayonnaise", 150.0), ("ketchup", 60.0), ("relish", 30.0)]
handles = st.sampled_from(sorted(HANDLES))
schools = st.sampled_from(sorted(sauce_schools()))


def _after(lines: list[tuple[str, float]], found: Nudge) -> list[tuple[str, float]]:
    now = dict(lines)
    now.update({m.ingredient: m.after_g for m in found.moved})
    return [(k, g) for k, g in now.items() if g > 0.0]


@settings(max_examples=60)
@given(schools, handles, st.floats(0.3, 30.0), st.booleans())
def test_it_does_what_was_asked_and_is_told_truly(school: str, handle: Handle, size: float, only_add: bool) -> None:
    lines = [(k, g * size) for k, g in sauce_schools()[school].lines]
    found = nudge(lines, handle, pantry=PANTRY, only_add=only_add)
    assume(found is not None)
    assert found is not None
    rule = HANDLES[handle]
    whole = sum(g for _, g in lines)
    again = taste_of(_after(lines, found), pantry=PANTRY)
    for name in HELD:
        assert again.of(name) == pytest.approx(found.after.of(name), rel=2e-3, abs=2e-3)
    moved = found.after.of(rule.taste) - found.before.of(rule.taste)
    assert moved > 0.0 if rule.direction == "more" else moved < 0.0
    assert all(m.after_g >= 0.0 for m in found.moved)
    assert sum(max(0.0, m.after_g - m.before_g) for m in found.moved) <= MOST_ADDED * whole * (1 + 1e-6)
    if only_add:
        assert all(m.after_g >= m.before_g for m in found.moved)
    # What is not said to give way is held.
    for name, (least, frac) in HELD.items():
        if name != rule.taste and name not in found.gave_way:
            room = max(least, frac * found.before.of(name))
            assert abs(found.after.of(name) - found.before.of(name)) <= room * (1 + 1e-6)


@settings(max_examples=40)
@given(handles, st.floats(0.02, 2.0))
def test_never_more_than_asked(handle: Handle, by: float) -> None:
    found = nudge(SAUCE, handle, pantry=PANTRY, by=by)
    assume(found is not None)
    assert found is not None
    rule = HANDLES[handle]
    sign = 1.0 if rule.direction == "more" else -1.0
    assert sign * (found.after.of(rule.taste) - found.before.of(rule.taste)) == pytest.approx(by, rel=1e-6)


@pytest.mark.parametrize("handle", ["sweeter", "sharper", "saltier", "hotter"])
def test_one_line_alone_is_as_small_as_any_pair_by_brute_force(handle: Handle) -> None:
    """On a small sauce every pair of changes on a fine grid that does as much, held as closely, weighs no less."""
    lines = [("mayonnaise", 100.0), ("ketchup", 40.0)]
    found = nudge(lines, handle, pantry=PANTRY)
    assert found is not None
    rule = HANDLES[handle]
    grams = sum(abs(m.after_g - m.before_g) for m in found.moved)
    assert len(found.moved) == 1
    asked = found.after.of(rule.taste)
    helper = found.moved[0].ingredient
    steps = [x * 0.5 for x in range(-10, 11)]
    for a, b in itertools.product(steps, steps):
        # The helper that would be needed beside these two changes.
        mix = [("mayonnaise", 100.0 + a), ("ketchup", 40.0 + b)]
        spent = abs(a) + abs(b)
        if spent >= grams * 0.95 or spent == 0.0:
            continue
        most = taste_of([*mix, (helper, max(1e-9, grams * 0.95 - spent))], pantry=PANTRY)
        held = all(
            abs(most.of(n) - found.before.of(n)) <= max(least, frac * found.before.of(n))
            for n, (least, frac) in HELD.items()
            if n != rule.taste
        )
        assert most.of(rule.taste) < asked or not held


def test_what_is_there_is_moved_before_something_new_comes_in() -> None:
    with_vinegar = [*SAUCE, ("vinegar", 5.0)]
    found = nudge(with_vinegar, "sharper", pantry=PANTRY)
    assert found is not None
    assert [(m.ingredient, m.new) for m in found.moved] == [("vinegar", False)]


def test_a_locked_line_stays() -> None:
    sauce = [("ketchup", 150.0), ("brown-sugar", 30.0), ("cider-vinegar", 15.0)]
    free = nudge(sauce, "sweeter", pantry=PANTRY)
    held = nudge(sauce, "sweeter", pantry=PANTRY, locked=frozenset({"brown-sugar"}))
    assert free is not None
    assert held is not None
    assert "brown-sugar" in {m.ingredient for m in free.moved}
    assert "brown-sugar" not in {m.ingredient for m in held.moved}


def test_in_the_pot_things_are_only_added_and_nothing_that_breaks() -> None:
    tomato = list(sauce_schools()["quick-tomato"].lines)
    left = 0.81 * sum(g for _, g in tomato)
    for handle in HANDLES:
        found = nudge(tomato, handle, pantry=PANTRY, left_g=left)
        assert found is not None, handle
        assert all(m.after_g > m.before_g for m in found.moved), handle
        assert not {m.ingredient for m in found.moved} & COLD_ONLY, handle
        assert found.before == taste_of(tomato, pantry=PANTRY, left_g=left)


def test_where_there_is_no_change_it_says_so() -> None:
    # Nothing in the pantry makes oil oilier.
    assert nudge([("olive-oil", 100.0)], "richer", pantry=PANTRY) is None
    # All that could be moved is locked, and nothing that helps is at hand.
    bare = {k: PANTRY[k] for k in ("mayonnaise", "ketchup")}
    locked = frozenset(bare)
    assert nudge([("mayonnaise", 100.0), ("ketchup", 50.0)], "hotter", pantry=bare, locked=locked) is None


@pytest.mark.parametrize("by", [0.0, -1.0, 101.0])
def test_a_nudge_by_nothing_is_refused(by: float) -> None:
    with pytest.raises(OutOfRangeError, match="more than zero"):
        nudge(SAUCE, "sweeter", pantry=PANTRY, by=by)


def test_an_empty_bowl_is_refused() -> None:
    with pytest.raises(OutOfRangeError):
        nudge([], "sweeter", pantry=PANTRY)


def test_a_retired_thing_is_not_reached_for() -> None:
    from dataclasses import replace

    pantry = {**PANTRY, "cider-vinegar": replace(PANTRY["cider-vinegar"], retired=True)}
    found = nudge(SAUCE, "sharper", pantry=pantry)
    assert found is not None
    assert [m.ingredient for m in found.moved] == ["lemon-juice"]
