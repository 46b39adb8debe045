"""Each rule at both sides of its threshold."""

from __future__ import annotations

from dataclasses import replace
from decimal import Decimal

import pytest

from formulas import blended, smash
from vianda.core.apply_edit import apply_edit
from vianda.core.counsel.rules import ALL_RULES
from vianda.core.evaluate import Evaluation, evaluate
from vianda.core.evidence import told
from vianda.core.formula import BlendPart, Formula, Grind
from vianda.core.kitchen import Kitchen, Scale
from vianda.core.larder import Larder, starter_larder
from vianda.core.lot import Lot


@pytest.fixture(scope="module")
def larder() -> Larder:
    return Larder.of(starter_larder().meats.values(), BOXES)


COARSE = Scale(step_g=5, capacity_g=5000)
SMALL = Scale(step_g=1, capacity_g=2000)

BOXES = (
    Lot("odd", "sirloin", "Odd box", 9000, Decimal("14.8"), "2026-11-20", "", (told("laboratory", 0.45),)),
    Lot("fair", "sirloin", "Fair box", 9000, Decimal("14.8"), "2026-11-20", "", (told("laboratory", 0.10),)),
    Lot("low", "chuck", "Low box", 1000, Decimal("9.4"), "2026-11-20", ""),
    Lot("full", "chuck", "Full box", 9000, Decimal("9.4"), "2026-11-20", ""),
)


def _from_box(meat: str, lot: str) -> Formula:
    return smash(parts=(BlendPart(meat, 1.0, lot=lot),))


# rule id, a formula that calls for it, one just short of it, and the scale of the kitchen
CASES = [
    ("meat.too-lean", smash(parts=blended(chuck=0.9, sirloin=0.1)), smash(parts=blended(ground_80=1.0)), None),
    ("meat.too-fat", smash(parts=blended(short_rib_plate=0.8, chuck=0.2)), smash(parts=blended(ground_70=1.0)), None),
    ("meat.name-not-allowed", smash(parts=blended(short_rib_plate=1.0)), smash(parts=blended(ground_70=1.0)), None),
    (
        "meat.name-not-allowed",
        smash(parts=blended(chuck=0.9, pork_shoulder=0.1)),
        smash(parts=blended(chuck=1.0)),
        None,
    ),
    ("meat.hamburger-only", smash(parts=blended(chuck=0.95, suet=0.05)), smash(parts=blended(chuck=1.0)), None),
    ("meat.name-doubtful", smash(parts=blended(rib=1.0)), smash(parts=blended(chuck=1.0)), None),
    ("meat.fat-uncertain", smash(parts=blended(mince_unknown=1.0)), smash(parts=blended(ground_80=1.0)), None),
    (
        "shape.pieces-do-not-divide",
        smash(portioning="by_batch", batch_mass_g=3403),
        smash(portioning="by_batch", batch_mass_g=3400),
        None,
    ),
    ("shape.below-usual-weight", smash(piece_mass_g=54), smash(piece_mass_g=55), None),
    ("shape.above-usual-weight", smash(piece_mass_g=116), smash(piece_mass_g=115), None),
    ("shape.thickness-unusual", smash(thickness_mm=9.5), smash(thickness_mm=9), None),
    ("shape.narrower-than-bun", smash(bun="soft-115"), smash(bun="soft-100"), None),
    ("heat.below-floor", smash(core_target_c=68.2), smash(core_target_c=68.4), None),
    ("heat.hold-needed", smash(core_target_c=69), smash(core_target_c=71.1), None),
    ("heat.habit-may-fall-short", smash(style="grilled", thickness_mm=17, piece_mass_g=140), smash(), None),
    ("heat.surface-too-cool", smash(surface_temp_c=199), smash(surface_temp_c=200), None),
    ("heat.surface-too-hot", smash(surface_temp_c=261), smash(surface_temp_c=260), None),
    ("heat.wrong-surface", smash(surface="charcoal-grate"), smash(surface="iron-pan"), None),
    (
        "meat.band-uncertain",
        smash(style="grilled", parts=blended(rib=0.7, chuck=0.3)),
        smash(parts=blended(rib=0.7, chuck=0.3)),
        None,
    ),
    ("meat.lot-unlike-its-name", _from_box("sirloin", "odd"), _from_box("sirloin", "fair"), None),
    ("meat.lot-too-small", _from_box("chuck", "low"), _from_box("chuck", "full"), None),
    (
        "meat.plate-too-coarse",
        replace(smash(parts=blended(chuck=0.7, shank=0.3)), grind=Grind(tool="knife")),
        replace(smash(parts=blended(chuck=0.71, shank=0.29)), grind=Grind(tool="knife")),
        None,
    ),
    ("scale.cannot-weigh", smash(piece_mass_g=95), smash(piece_mass_g=100), COARSE),
    ("scale.cannot-weigh", smash(guests=12), smash(guests=11), SMALL),
]


def _rules(evaluation: Evaluation) -> list[str]:
    return [c.rule for c in evaluation.counsel]


@pytest.mark.parametrize(("rule", "calls", "short", "scale"), CASES, ids=[f"{c[0]}-{i}" for i, c in enumerate(CASES)])
def test_a_rule_speaks_past_its_threshold_and_not_before(
    larder: Larder, kitchen: Kitchen, rule: str, calls: Formula, short: Formula, scale: Scale | None
) -> None:
    here = replace(kitchen, scale=scale) if scale else kitchen
    assert rule in _rules(evaluate(calls, larder=larder, kitchen=here))
    assert rule not in _rules(evaluate(short, larder=larder, kitchen=here))


def test_every_rule_has_a_case_and_its_own_id() -> None:
    ids = [rule.id for rule in ALL_RULES]
    assert len(set(ids)) == len(ids)
    assert {c[0] for c in CASES} == set(ids)
    assert all(rule.threshold and rule.source for rule in ALL_RULES)


@pytest.mark.parametrize(("rule", "calls"), [(c[0], c[1]) for c in CASES if c[3] is None])
def test_a_change_that_counsel_offers_settles_it(larder: Larder, kitchen: Kitchen, rule: str, calls: Formula) -> None:
    before = evaluate(calls, larder=larder, kitchen=kitchen)
    counsel = next(c for c in before.counsel if c.rule == rule)
    for change in counsel.changes:
        after = evaluate(apply_edit(calls, change.edit, larder=larder, kitchen=kitchen), larder=larder, kitchen=kitchen)
        assert rule not in _rules(after), change


def test_limits_are_read_out_first(larder: Larder, kitchen: Kitchen) -> None:
    formula = smash(core_target_c=60, surface_temp_c=150, parts=blended(short_rib_plate=1.0))
    severities = [c.severity for c in evaluate(formula, larder=larder, kitchen=kitchen).counsel]
    assert severities == sorted(severities, key=["limit", "asks", "note"].index)


def test_below_the_floor_counsel_names_who_is_at_risk_and_defers(larder: Larder, kitchen: Kitchen) -> None:
    counsel = next(
        c
        for c in evaluate(smash(core_target_c=60), larder=larder, kitchen=kitchen).counsel
        if c.rule == "heat.below-floor"
    )
    assert counsel.severity == "limit"
    for word in ("children", "pregnant", "weak immunity", "licensed practice"):
        assert word in counsel.reason.text


def test_nowhere_is_a_burger_called_safe(larder: Larder, kitchen: Kitchen) -> None:
    evaluation = evaluate(smash(core_target_c=80), larder=larder, kitchen=kitchen)
    texts = [c.title.text + c.reason.text for c in evaluation.counsel]
    texts += [s.text for w in evaluation.workings.values() for s in w.steps]
    assert not any(" safe" in text.lower() for text in texts)
