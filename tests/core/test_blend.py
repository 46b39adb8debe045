from __future__ import annotations

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from formulas import blended
from vianda.core.basis.errors import InfeasibleBlendError, OutOfRangeError, UnknownItemError
from vianda.core.basis.scale_step import shares_on_scale
from vianda.core.blend import shares
from vianda.core.blend.blend import BlendFigures, blend_figures, blend_spread
from vianda.core.inventory.inventory import Inventory, starter_inventory
from vianda.core.model.formula import BlendPart

KEYS = tuple(starter_inventory().meats)
PARTS = st.lists(st.tuples(st.sampled_from(KEYS), st.floats(0.01, 1)), min_size=1, max_size=8, unique_by=lambda p: p[0])


BAND = (0.18, 0.25)


def _figures(parts: tuple[BlendPart, ...]) -> BlendFigures:
    return blend_figures(parts, inventory=starter_inventory(), batch_mass_g=1000, step_g=1, band_frac=BAND)


def _normal(parts: list[tuple[str, float]]) -> tuple[BlendPart, ...]:
    total = sum(s for _, s in parts)
    return tuple(BlendPart(k, s / total) for k, s in parts)


@given(PARTS, st.integers(100, 20_000))
def test_fat_lies_between_the_leanest_and_the_fattest_part(parts: list[tuple[str, float]], batch: int) -> None:
    blend = blend_figures(_normal(parts), inventory=starter_inventory(), batch_mass_g=batch, step_g=1, band_frac=BAND)
    fats = [p.fat_usual_frac for p in blend.parts]
    assert min(fats) - 1e-12 <= blend.fat_frac <= max(fats) + 1e-12
    assert blend.fat_low_frac <= blend.fat_frac <= blend.fat_high_frac
    assert sum(p.mass_g for p in blend.parts) == batch


@given(PARTS, st.integers(200, 50_000), st.sampled_from([1, 2, 5, 10]))
def test_mass_and_fat_close_and_rounding_explains_the_rest(
    parts: list[tuple[str, float]], steps: int, step_g: int
) -> None:
    batch = steps * step_g
    blend = blend_figures(
        _normal(parts), inventory=starter_inventory(), batch_mass_g=batch, step_g=step_g, band_frac=BAND
    )
    # Before rounding: shares sum to the whole and fat to the blend's, to a thousand-millionth.
    assert abs(sum(p.share_frac for p in blend.parts) - 1.0) < 1e-9
    assert abs(sum(p.share_frac * p.fat_usual_frac for p in blend.parts) - blend.fat_frac) < 1e-9
    # On the scale: the sum is exact, and the fat is off by no more than a step of each meat could make it.
    assert sum(p.mass_g for p in blend.parts) == batch
    weighed = sum(p.fat_mass_g for p in blend.parts) / batch
    fats = [p.fat_usual_frac for p in blend.parts]
    assert abs(weighed - blend.fat_frac) <= len(fats) * step_g * (max(fats) - min(fats)) / batch + 1e-9


@given(PARTS)
def test_doubt_shares_sum_to_the_whole_doubt(parts: list[tuple[str, float]]) -> None:
    blend = blend_figures(_normal(parts), inventory=starter_inventory(), batch_mass_g=1000, step_g=1, band_frac=BAND)
    assert sum(p.uncertainty_share_frac for p in blend.parts) == pytest.approx(1.0)


@given(PARTS, st.sampled_from(KEYS), st.floats(0.01, 0.9))
def test_adding_a_meat_fatter_than_the_blend_never_lowers_its_fat(
    parts: list[tuple[str, float]], added: str, share: float
) -> None:
    before = _figures(_normal(parts)).fat_frac
    fat = starter_inventory().meat(added).fat_usual_frac
    rest = [(k, s) for k, s in parts if k != added]
    assume(fat >= before and len(rest) == len(parts) < 8)
    total = sum(s for _, s in parts)
    after = _figures(_normal([(k, s / total * (1 - share)) for k, s in parts] + [(added, share)])).fat_frac
    assert after >= before - 1e-12


def test_more_of_the_fatter_meat_never_lowers_fat(inventory: Inventory) -> None:
    fats = [
        blend_figures(
            blended(sirloin=1 - s, short_rib_plate=s), inventory=inventory, batch_mass_g=1000, step_g=1, band_frac=BAND
        ).fat_frac
        for s in (0.1, 0.3, 0.5, 0.9)
    ]
    assert fats == sorted(fats)


@given(PARTS, st.floats(0, 1), st.floats(0, 1))
def test_chance_above_falls_as_the_limit_rises(parts: list[tuple[str, float]], one: float, two: float) -> None:
    spread = blend_spread(_normal(parts), inventory=starter_inventory())
    low, high = sorted((one, two))
    assert 0 <= spread.chance_above(high) <= spread.chance_above(low) + 1e-12 <= 1 + 1e-9


@given(PARTS)
def test_chances_of_the_band_sum_to_one(parts: list[tuple[str, float]]) -> None:
    blend = _figures(_normal(parts))
    assert blend.chance_below_band + blend.chance_in_band + blend.chance_above_band == pytest.approx(1.0)


@given(PARTS)
def test_testing_a_meat_never_widens_the_band(parts: list[tuple[str, float]]) -> None:
    blend = _figures(_normal(parts))
    width = blend.fat_high_frac - blend.fat_low_frac
    assert all(0 <= p.tested_width_frac <= width + 1e-9 for p in blend.parts)


def test_shares_that_do_not_sum_are_refused_with_the_sum(inventory: Inventory) -> None:
    with pytest.raises(InfeasibleBlendError, match="90 %"):
        blend_figures(blended(chuck=0.5, rib=0.4), inventory=inventory, batch_mass_g=1000, step_g=1, band_frac=BAND)


def test_an_unknown_meat_is_named_with_its_place(inventory: Inventory) -> None:
    with pytest.raises(UnknownItemError, match="unicorn") as caught:
        blend_figures(blended(chuck=0.5, unicorn=0.5), inventory=inventory, batch_mass_g=1000, step_g=1, band_frac=BAND)
    assert caught.value.field == "/parts/1/meat"


def test_a_meat_named_twice_is_refused(inventory: Inventory) -> None:
    twice = (BlendPart("chuck", 0.5), BlendPart("chuck", 0.5))
    with pytest.raises(InfeasibleBlendError, match="twice"):
        blend_figures(twice, inventory=inventory, batch_mass_g=1000, step_g=1, band_frac=BAND)


# Weighing


@given(st.lists(st.floats(0.001, 1), min_size=1, max_size=8), st.integers(1, 4000), st.sampled_from([1, 2, 5, 10]))
def test_weights_sum_to_the_batch_and_stray_less_than_a_step(raw: list[float], steps: int, step_g: int) -> None:
    total = sum(raw)
    parts = [r / total for r in raw]
    batch = steps * step_g
    masses = shares_on_scale(parts, batch_g=batch, step_g=step_g)
    assert sum(masses) == batch
    for mass, share in zip(masses, parts, strict=True):
        assert mass % step_g == 0
        assert abs(mass - share * batch) < step_g * (1 + 1e-6)


def test_a_batch_off_the_step_is_refused() -> None:
    with pytest.raises(OutOfRangeError, match="703 g"):
        shares_on_scale([1.0], batch_g=703, step_g=5)


# Shares


@given(PARTS, st.data())
def test_edits_of_shares_keep_the_whole(raw: list[tuple[str, float]], data: st.DataObject) -> None:
    parts = _normal(raw)
    for _ in range(6):
        choice = data.draw(st.sampled_from(["set", "edge", "add", "remove", "lock"]))
        meat = data.draw(st.sampled_from([p.meat for p in parts]))
        try:
            if choice == "set":
                wanted = data.draw(st.floats(0, 1))
                parts = shares.set_share(parts, meat=meat, share_frac=wanted)
                if len(parts) > 1:
                    assert next(p for p in parts if p.meat == meat).share_frac == pytest.approx(wanted, abs=1e-9)
            elif choice == "edge":
                parts = shares.move_edge(parts, index=data.draw(st.integers(0, 8)), at_frac=data.draw(st.floats(-1, 2)))
            elif choice == "add":
                parts = shares.add_meat(parts, meat=data.draw(st.sampled_from(KEYS)))
            elif choice == "remove":
                parts = shares.remove_meat(parts, meat=meat)
            else:
                parts = tuple(BlendPart(p.meat, p.share_frac, p.meat == meat) for p in parts)
        except (InfeasibleBlendError, OutOfRangeError):
            continue
        assert sum(p.share_frac for p in parts) == pytest.approx(1.0, abs=1e-9)
        assert all(0 <= p.share_frac <= 1 for p in parts)


def test_a_locked_share_stays_when_another_is_set() -> None:
    parts = (BlendPart("a", 0.5, locked=True), BlendPart("b", 0.3), BlendPart("c", 0.2))
    moved = shares.set_share(parts, meat="b", share_frac=0.4)
    assert [p.share_frac for p in moved] == pytest.approx([0.5, 0.4, 0.1])


def test_no_more_than_the_locks_leave() -> None:
    parts = (BlendPart("a", 0.7, locked=True), BlendPart("b", 0.3))
    with pytest.raises(InfeasibleBlendError, match="at most 30 %"):
        shares.set_share(parts, meat="b", share_frac=0.4)


def test_the_last_meat_cannot_leave() -> None:
    with pytest.raises(InfeasibleBlendError, match="at least one"):
        shares.remove_meat((BlendPart("a", 1.0),), meat="a")
