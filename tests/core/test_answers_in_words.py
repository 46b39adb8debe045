"""What binds, what would have to give, and what a lot's arithmetic says: sentences with the right figures in them."""

from __future__ import annotations

import math
from dataclasses import replace
from datetime import date
from decimal import Decimal

import pytest

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.phrase import Phrase
from vianda.core.inventory.evidence import Evidence, evidence_of, update_working, updated
from vianda.core.inventory.inventory import Inventory, starter_inventory
from vianda.core.inventory.lot import Lot
from vianda.core.target.binding import binding_limits, price_of_certainty
from vianda.core.target.nearest_changes import nearest_changes
from vianda.core.target.program import program_of
from vianda.core.target.solve import Answer, NoBlendError, solve
from vianda.core.target.wish import Candidate, SpeciesLimit, Wish

INVENTORY = starter_inventory()


def _text(phrase: Phrase) -> str:
    return phrase.text.replace("{name}", phrase.amounts["name"].text if "name" in phrase.amounts else "")


def _bound(wish: Wish, inventory: Inventory = INVENTORY) -> tuple[Answer, list[str], list[Phrase]]:
    best = solve(wish, inventory=inventory, batch_mass_g=50_000, step_g=1)[0]
    program = program_of(wish, inventory=inventory, batch_mass_g=50_000, grind_loss_frac=0)
    shares = dict(zip(best.meats, best.shares_frac, strict=True))
    found = binding_limits(program, [shares.get(m.key, 0.0) for m in program.meats], priced=True)
    return best, [_text(p) for p in found], list(found)


def _changes(wish: Wish, inventory: Inventory = INVENTORY) -> list[Phrase]:
    with pytest.raises(NoBlendError):
        solve(wish, inventory=inventory, batch_mass_g=3000, step_g=1)
    return list(
        nearest_changes(program_of(wish, inventory=inventory, batch_mass_g=3000, grind_loss_frac=0), batch_mass_g=3000)
    )


def _wish(*candidates: Candidate, low: float = 0.20, high: float = 0.22, **more: object) -> Wish:
    return Wish(candidates, low, high, **more)


def test_a_dear_meat_held_at_its_least_says_what_a_point_less_would_save() -> None:
    wish = _wish(Candidate("rib", least_frac=0.3), Candidate("round"), Candidate("trim-50"))
    best, texts, phrases = _bound(wish)
    at = next(i for i, t in enumerate(texts) if "Rib is at its least" in t)
    # One point less of it, solved again, is the proof.
    less = solve(
        _wish(Candidate("rib", least_frac=0.29), Candidate("round"), Candidate("trim-50")),
        inventory=INVENTORY,
        batch_mass_g=50_000,
        step_g=1,
    )[0]
    assert phrases[at].amounts["dear"].value == pytest.approx(best.price_per_kg - less.price_per_kg, abs=2e-3)


def test_a_cheap_meat_held_at_its_most_says_so() -> None:
    _, texts, _ = _bound(_wish(Candidate("trim-50", most_frac=0.10), Candidate("chuck"), Candidate("rib"), high=0.25))
    assert any("Beef trim 50/50 is at its most: one point more would save" in t for t in texts)


def test_the_last_of_a_lot_binds_and_a_species_does() -> None:
    box = Lot("box", "trim-50", "Box", 2000, Decimal("2"), date(2026, 11, 20), None)
    inventory = Inventory.of(INVENTORY.meats.values(), [box])
    _, texts, _ = _bound(
        _wish(Candidate("trim-50", lot="box"), Candidate("chuck"), Candidate("rib"), low=0.18), inventory
    )
    # Two kilograms of fifty are under the smallest share, so the box is left alone; a bigger one is used up.
    assert not any("All that is left" in t for t in texts)
    inventory = Inventory.of(INVENTORY.meats.values(), [replace(box, left_mass_g=4000)])
    _, texts, _ = _bound(
        _wish(Candidate("trim-50", lot="box"), Candidate("chuck"), Candidate("rib"), low=0.18), inventory
    )
    assert any("All that is left of Beef trim 50/50 is used: one point more of it would save" in t for t in texts)
    limit = (SpeciesLimit("pork", most_frac=0.2),)
    _, texts, _ = _bound(_wish(Candidate("pork-shoulder"), Candidate("rib"), low=0.2, high=0.3, species=limit))
    assert any("As much pork as you allow: one point more would save" in t for t in texts)
    limit = (SpeciesLimit("veal", least_frac=0.2),)
    _, texts, _ = _bound(_wish(Candidate("veal-ground"), Candidate("chuck"), low=0.1, high=0.3, species=limit))
    assert any("As little veal as you allow: one point less would save" in t for t in texts)


def test_sinew_binds_where_the_cheap_meat_is_sinewy() -> None:
    wish = _wish(
        Candidate("shank"), Candidate("round"), Candidate("trim-50"), low=0.10, high=0.3, collagen_most_frac=0.14
    )
    best, texts, _ = _bound(wish)
    assert "shank" in best.meats
    assert any("connective tissue is reached" in t for t in texts)


def test_certainty_has_its_price() -> None:
    wish = _wish(*(Candidate(m) for m in ("round", "trim-50", "chuck")), low=0.20, high=0.26, confidence_frac=0.8)
    sure, plain = (
        solve(replace(wish, confidence_frac=c), inventory=INVENTORY, batch_mass_g=5000, step_g=1)[0] for c in (0.8, 0.0)
    )
    said = price_of_certainty(sure, plain, wish=wish)[0]
    assert said.amounts["dear"].value == pytest.approx(sure.price_per_kg - plain.price_per_kg)
    assert said.amounts["fat"].value == pytest.approx(0.26, abs=1e-3)
    assert price_of_certainty(plain, plain, wish=wish) == ()


def test_a_limit_with_room_is_not_said_to_bind() -> None:
    wish = _wish(Candidate("chuck", most_frac=0.99), low=0.10, high=0.30)
    with pytest.raises(NoBlendError):
        solve(wish, inventory=INVENTORY, batch_mass_g=1000, step_g=1)
    _, texts, _ = _bound(_wish(Candidate("chuck"), low=0.10, high=0.30))
    assert texts == []


def test_a_box_too_small_says_how_many_grams_are_wanting() -> None:
    box = Lot("box", "suet", "Box", 300, Decimal("2"), date(2026, 11, 20), None)
    inventory = Inventory.of(INVENTORY.meats.values(), [box])
    found = _changes(_wish(Candidate("suet", lot="box"), Candidate("round"), low=0.20, high=0.205), inventory)
    grams = next(p for p in found if "Find" in p.text)
    # 3000 g to 20 %: (0.20 − 0.08) ÷ (0.94 − 0.08) of suet is 419 g in the bowl; 300 g bought are 282 g trimmed.
    assert grams.amounts["grams"].value == pytest.approx(3000 * 0.12 / 0.86 - 300 * 0.94, abs=1)


@pytest.mark.parametrize(
    ("wish", "says", "to"),
    [
        (_wish(Candidate("rib"), Candidate("suet")), "Let the fat go up to", 0.26),
        (_wish(Candidate("rib", least_frac=0.9), Candidate("round")), "Let {name} go down to", 0.7778),
        (
            _wish(
                Candidate("lamb-ground"),
                Candidate("suet", most_frac=0.5),
                Candidate("round"),
                low=0.2,
                high=0.21,
                species=(SpeciesLimit("beef", 0.0, 0.05), SpeciesLimit("lamb", 0.0, 0.5)),
            ),
            "of the blend",
            None,
        ),
    ],
)
def test_the_change_that_would_do_is_named_with_its_figure(wish: Wish, says: str, to: float | None) -> None:
    found = _changes(wish)
    named = [p for p in found if says in p.text]
    assert named
    if to is not None:
        assert named[0].amounts["to"].value == pytest.approx(to, abs=1e-3)


def test_when_no_single_change_does_several_are_named() -> None:
    wish = _wish(Candidate("chuck", least_frac=0.6), Candidate("rib", least_frac=0.6), low=0.10, high=0.12)
    found = _changes(wish)
    assert len(found) >= 2


def test_too_much_sinew_everywhere_is_said() -> None:
    found = _changes(_wish(Candidate("shank"), Candidate("cheek"), low=0.08, high=0.12, collagen_most_frac=0.15))
    assert any("connective tissue" in p.text for p in found)


def test_the_arithmetic_of_a_lot_ends_in_what_the_bench_uses() -> None:
    prior = INVENTORY.meat("chuck").fat
    evidence = (evidence_of("butcher", 0.22), Evidence("fat-test", 0.24, 0.02))
    working = update_working(prior, evidence)
    after = updated(prior, evidence)
    last = working.steps[-1].amounts
    assert (last["usual"].value, last["band"].value, last["band"].high) == pytest.approx(
        (after.usual_frac, after.low_frac, after.high_frac)
    )
    weights = [s.amounts["w"].value for s in working.steps[:3]]
    assert weights == pytest.approx([1 / (prior.sd * 100) ** 2, 1 / 9, 1 / 4])
    together = working.steps[3].amounts
    assert together["sd"].value == pytest.approx(0.01 / math.sqrt(sum(weights)))


@pytest.mark.parametrize(
    ("changes", "says"),
    [
        ({"left_mass_g": -1}, "0 g to 1000 kg"),
        ({"price_per_kg": Decimal("-1")}, "below zero"),
        ({"use_by": date(2026, 11, 1)}, "before it came"),
        ({"evidence": (evidence_of("label", 0.2),) * 21}, "at most 20"),
    ],
)
def test_a_lot_that_cannot_be_is_refused(changes: dict[str, object], says: str) -> None:
    box = Lot("box", "chuck", "Box", 1000, Decimal("9"), date(2026, 11, 20), date(2026, 11, 23))
    with pytest.raises(OutOfRangeError, match=says):
        replace(box, **changes)


@pytest.mark.parametrize("wrong", [{"fat_frac": 1.2}, {"fat_frac": float("nan")}, {"sd_frac": 0.0}, {"sd_frac": 0.5}])
def test_evidence_that_cannot_be_is_refused(wrong: dict[str, float]) -> None:
    with pytest.raises(OutOfRangeError):
        replace(Evidence("label", 0.2, 0.012), **wrong)
