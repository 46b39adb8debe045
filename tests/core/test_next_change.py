"""What to change next: the linear model against integration, and the change it comes to."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest

from vianda.core.cook.scores import SCALES
from vianda.core.demo.formulas import beacon_grill, keepers_loaf, slipway_smash
from vianda.core.editing.apply_edit import apply_edit
from vianda.core.faults.causes import all_causes
from vianda.core.improving.levers import LEVERS, SHOWS, lever_values, levers_for, prior_slope
from vianda.core.improving.next_change import next_changes
from vianda.core.improving.scoring import (
    DESIGN_MEAN,
    DESIGN_SD,
    SCORE_SD,
    SLOPE_SD,
    SLOPE_SHARE,
    ScoredCook,
    score_model,
    squared_gain,
)
from vianda.core.model.formula import BlendPart

FAT, SALT, SURFACE, CORE, CRUMB, PANADE, WORK = LEVERS


def _grid_moments(cooks: list[tuple[float, float]], prior: float) -> tuple[float, float, float]:
    """Mean of design and slope, and the slope's variance, summed over a grid: another way than the model's."""
    sd = SLOPE_SD + SLOPE_SHARE * abs(prior)
    a = np.linspace(DESIGN_MEAN - 6 * DESIGN_SD, DESIGN_MEAN + 6 * DESIGN_SD, 701)[:, None]
    w = np.linspace(prior - 6 * sd, prior + 6 * sd, 701)[None, :]
    log = -0.5 * ((a - DESIGN_MEAN) / DESIGN_SD) ** 2 - 0.5 * ((w - prior) / sd) ** 2
    for x, y in cooks:
        log = log - 0.5 * ((y - a - w * x) / SCORE_SD) ** 2
    p = np.exp(log - log.max())
    p /= p.sum()
    mean_w = float((p * w).sum())
    return float((p * a).sum()), mean_w, float((p * (w - mean_w) ** 2).sum())


def test_the_update_is_that_of_brute_force_integration() -> None:
    seen = [(0.0, 2.0), (1.0, 3.0), (1.0, 3.0), (-0.5, 1.0)]
    base = {"fat": 0.20}
    cooks = [ScoredCook({"fat": 0.20 + 0.05 * x}, {"juice": y}) for x, y in seen]
    model = score_model("juice", [FAT], base, cooks, form="disc")
    a, w, var = _grid_moments(seen, prior_slope(FAT, "juice", "disc"))
    assert float(model.mean[0]) == pytest.approx(a, abs=1e-3)
    assert float(model.mean[1]) == pytest.approx(w, abs=1e-3)
    assert float(model.cov[1, 1]) == pytest.approx(var, rel=1e-3)
    assert model.cooks == 4


def test_the_gain_is_that_of_draws() -> None:
    cooks = [ScoredCook({"fat": 0.20}, {"juice": 2.0}), ScoredCook({"fat": 0.25}, {"juice": 3.0})]
    model = score_model("juice", [FAT], {"fat": 0.20}, cooks, form="disc")
    draws = np.random.default_rng(3).multivariate_normal(model.mean, model.cov, size=400_000)
    gains = (draws[:, 0] - 4.0) ** 2 - (draws[:, 0] + 0.5 * draws[:, 1] - 4.0) ** 2
    mean, variance = squared_gain(model, 0, 0.5, 4.0)
    # Four standard errors of so many draws.
    assert mean == pytest.approx(float(gains.mean()), abs=4 * float(gains.std()) / math.sqrt(400_000))
    assert variance == pytest.approx(float(gains.var()), rel=0.02)


def test_slopes_come_from_the_table_of_faults() -> None:
    makes = {key: cause.makes for key, cause in all_causes().items()}
    assert prior_slope(FAT, "juice", "disc") == pytest.approx(1.2 * makes["too-lean"]["dry"])
    assert prior_slope(FAT, "grease", "disc") == pytest.approx(1.2 * makes["too-fat"]["greasy"])
    assert prior_slope(FAT, "bite", "disc") == pytest.approx(-1.2 * makes["too-lean"]["tough"])
    # Both ends of one scale: too little is bland, too much salty.
    both = makes["little-salt"]["bland"] + makes["much-salt"]["salty"]
    assert prior_slope(SALT, "salt", "disc") == pytest.approx(1.2 * both)
    # No crust and a watery pan are one complaint of the crust.
    assert prior_slope(SURFACE, "crust", "disc") == pytest.approx(1.2 * (0.75 + makes["too-fierce"]["burnt-raw"]))
    assert prior_slope(CORE, "juice", "disc") < 0 < prior_slope(CORE, "bite", "disc")
    # What cannot happen to a form says nothing of it.
    assert prior_slope(CRUMB, "bind", "disc") == pytest.approx(-1.2 * makes["thirsty-crumb"]["crumbles"])
    assert prior_slope(CRUMB, "bind", "ball") > 0


def test_every_cause_of_a_lever_is_in_the_table_and_every_shown_symptom_on_a_scale() -> None:
    for lever in LEVERS:
        assert set(lever.little) | set(lever.much) <= set(all_causes())
        assert any(prior_slope(lever, score, "ball") for score in SCALES)
    assert {score for score, _ in SHOWS.values()} == set(SCALES)


@pytest.fixture
def advise(inventory, kitchen):
    def ask(formula, *cooked):
        return next_changes(formula, cooked, inventory=inventory, kitchen=kitchen)

    return ask


RIGHT = {key: scale.wanted for key, scale in SCALES.items()}


def test_nothing_scored_and_nothing_wrong_change_nothing(advise) -> None:
    none = advise(slipway_smash())
    assert (none.cooks, none.changes) == (0, ())
    assert "scored" in none.message.text
    # Three cooks as wanted: no change promises anything.
    right = advise(slipway_smash(), *[(slipway_smash(), RIGHT)] * 3)
    assert right.changes == ()
    assert "cook it again as it is" in right.message.text


def test_a_bland_one_gets_more_salt_and_the_edit_does_it(advise, inventory, kitchen) -> None:
    formula = slipway_smash()
    found = advise(formula, *[(formula, {**RIGHT, "salt": 1.0})] * 2)
    best = found.changes[0]
    salt = next(s for s in found.scores if s.key == "salt")
    assert 1.0 == salt.least < salt.now < salt.most < salt.wanted
    assert best.lever == "salt"
    assert best.title.text.startswith("More salt")
    assert [m.key for m in best.moves][-1] == "salt"
    assert best.moves[-1].then > best.moves[-1].now + 0.5
    assert best.chance > 0.75
    changed = apply_edit(formula, best.change.edit, inventory=inventory, kitchen=kitchen)
    assert changed.seasoning.salt_frac > formula.seasoning.salt_frac
    # The salty one gets less.
    assert advise(formula, (formula, {**RIGHT, "salt": 5.0})).changes[0].title.text.startswith("Less salt")


def test_more_fat_is_more_of_the_fatter_meat(advise, inventory, kitchen) -> None:
    lean = replace(slipway_smash(), parts=(BlendPart("round", 0.8), BlendPart("trim-50", 0.2)))
    before = lever_values(lean, inventory=inventory, kitchen=kitchen)["fat"]
    found = advise(lean, *[(lean, {"juice": 1.0, "grease": 1.0, "bite": 4.0})] * 2)
    fat = next(c for c in found.changes if c.lever == "fat")
    after = apply_edit(lean, fat.change.edit, inventory=inventory, kitchen=kitchen)
    assert lever_values(after, inventory=inventory, kitchen=kitchen)["fat"] == pytest.approx(before + 0.05, abs=0.002)
    # One meat alone has nothing to move its fat with.
    alone = replace(slipway_smash(), parts=(BlendPart("chuck", 1.0),))
    assert all(c.lever != "fat" for c in advise(alone, (alone, {"juice": 1.0, "grease": 1.0})).changes)


def test_cooks_made_otherwise_move_what_the_table_says(advise) -> None:
    """Salt that did nothing in four cooks is promised less of than the table alone promises."""
    formula = slipway_smash()
    salted = replace(formula, seasoning=replace(formula.seasoning, salt_frac=formula.seasoning.salt_frac + 0.004))
    table = advise(formula, *[(formula, {"salt": 1.0})] * 4).changes[0]
    tried = advise(formula, *[(formula, {"salt": 1.0})] * 4, *[(salted, {"salt": 1.0})] * 4)
    assert table.lever == "salt"
    assert "table of faults alone" in table.why[-1].text
    mine = [c for c in tried.changes if c.lever == "salt"]
    assert not mine or mine[0].gain < 0.5 * table.gain
    worked = advise(formula, *[(formula, {"salt": 1.0})] * 4, *[(salted, {"salt": 3.0})] * 4)
    best = worked.changes[0]
    assert best.lever == "salt"
    assert best.chance > table.chance
    assert best.why[-1].amounts["n"].value == 4
    assert best.why[-1].amounts["all"].value == 8


def test_what_crosses_a_limit_is_not_offered(advise) -> None:
    """A grill that is dry is helped by a cooler core, which would lie below the floor."""
    found = advise(beacon_grill(), *[(beacon_grill(), {"juice": 1.0})] * 3)
    assert found.changes
    assert all(c.lever != "core" or "hotter" in c.title.text for c in found.changes)


def test_a_loaf_that_crumbles_is_bound_and_no_lever_is_named_twice(advise) -> None:
    found = advise(keepers_loaf(), *[(keepers_loaf(), {**RIGHT, "bind": 1.0})] * 2)
    keys = [c.lever for c in found.changes]
    assert len(keys) == len(set(keys)) <= 3
    assert any(m.key == "bind" and m.then > m.now for m in found.changes[0].moves)
    assert "surface" not in {lever.key for lever in levers_for("loaf")}


def test_a_cook_whose_meat_is_gone_does_not_count(advise) -> None:
    gone = replace(slipway_smash(), parts=(BlendPart("no-such-meat", 1.0),))
    assert advise(slipway_smash(), (gone, {"salt": 1.0})).cooks == 0


def test_the_chance_for_the_better_is_what_comes_of_it() -> None:
    """Designs and slopes drawn as the model assumes them: of changes promised with 60 to 90 %, so many are better."""
    rng = np.random.default_rng(11)
    promised, came = [], []
    base = {"fat": 0.20}
    wanted = {"juice": 4.0, "grease": 3.0}
    for _ in range(600):
        truth, models = {}, {}
        xs = rng.normal(0.0, 0.6, size=4)
        for score in wanted:
            prior = prior_slope(FAT, score, "disc")
            a = rng.normal(DESIGN_MEAN, DESIGN_SD)
            w = rng.normal(prior, SLOPE_SD + SLOPE_SHARE * abs(prior))
            truth[score] = (a, w)
            scored = [
                ScoredCook({"fat": 0.20 + 0.05 * x}, {score: float(a + w * x + rng.normal(0, SCORE_SD))}) for x in xs
            ]
            models[score] = score_model(score, [FAT], base, scored, form="disc")
        for steps in (-0.5, 0.5):
            each = [squared_gain(models[s], 0, steps, wanted[s]) for s in wanted]
            gain, sd = sum(g for g, _ in each), math.sqrt(sum(v for _, v in each))
            chance = 0.5 * (1 + math.erf(gain / sd / math.sqrt(2)))
            if 0.6 <= chance <= 0.9:
                promised.append(chance)
                better = sum((truth[s][0] - wanted[s]) ** 2 - (sum(truth[s] * np.array([1, steps])) - wanted[s]) ** 2
                             for s in wanted)  # fmt: skip
                came.append(better > 0)
    assert len(came) > 150
    # Three standard errors of so many, and the gain is not quite normal.
    assert float(np.mean(came)) == pytest.approx(float(np.mean(promised)), abs=3 * math.sqrt(0.2 / len(came)))
