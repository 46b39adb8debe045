"""Each rule at both sides of its threshold."""

from __future__ import annotations

from dataclasses import replace
from datetime import date
from decimal import Decimal

import pytest

from counsel_beside_cases import CASES_BESIDE, CONFITS, HELD, HOUSE_SAUCES, bowl
from formulas import blended, lines, mixed, smash, whole
from vianda.core.counsel.rules import ALL_RULES
from vianda.core.demo.kitchen import yard_galley
from vianda.core.editing.apply_edit import apply_edit
from vianda.core.editing.set_shape import set_filling
from vianda.core.equipment.kitchen import Kitchen, Scale
from vianda.core.evaluation.evaluate import Evaluation, evaluate
from vianda.core.inventory.evidence import evidence_of
from vianda.core.inventory.inventory import Inventory, starter_inventory
from vianda.core.inventory.lot import Lot
from vianda.core.inventory.pantry import starter_pantry
from vianda.core.model.formula import BlendPart, Formula, Grind, MixLine


@pytest.fixture(scope="module")
def inventory() -> Inventory:
    return Inventory.of(
        starter_inventory().meats.values(), BOXES, [*starter_pantry().values(), *CONFITS, *HOUSE_SAUCES]
    )


FLAKY, COARSE_SALT = (replace(yard_galley(), salt=key) for key in ("salt-flake", "salt-coarse"))
EU = replace(yard_galley(), naming_rule="EU")


def _line(key: str, per: float, **values: object) -> tuple[MixLine, ...]:
    return (*lines(**HELD), MixLine(key, per, **values))


COARSE = Scale(step_g=5, capacity_g=5000)
SMALL = Scale(step_g=1, capacity_g=2000)

BOXES = (
    Lot(
        "odd", "sirloin", "Odd box", 9000, Decimal("14.8"), date(2026, 11, 20), None, (evidence_of("laboratory", 0.45),)
    ),
    Lot(
        "fair",
        "sirloin",
        "Fair box",
        9000,
        Decimal("14.8"),
        date(2026, 11, 20),
        None,
        (evidence_of("laboratory", 0.10),),
    ),
    Lot("low", "chuck", "Low box", 1000, Decimal("9.4"), date(2026, 11, 20), None),
    Lot("full", "chuck", "Full box", 9000, Decimal("9.4"), date(2026, 11, 20), None),
)


def _from_box(meat: str, lot: str) -> Formula:
    return smash(parts=(BlendPart(meat, 1.0, lot=lot),))


def _tinned(mass_g: float) -> Formula:
    return mixed(style="loaf-tin", piece_mass_g=mass_g, lines=lines(**HELD))


def _filled(*, share: float = 0.15, **shape: object) -> Formula:
    formula = mixed(style="filled-burger", parts=blended(chuck=1.0), **shape)
    return set_filling(formula, share, inventory=starter_inventory())


def _egg_loaf(eggs: float, *, height: float = 85.0) -> Formula:
    """A filled loaf with so much egg by mass of the meat: two eggs at 0.09."""
    put = (*lines(**HELD), MixLine("boiled-egg", eggs))
    return mixed(style="loaf-filled", lines=put, thickness_mm=height)


def _grilled(**shape: object) -> Formula:
    return mixed(style="grilled", parts=blended(chuck=1.0), **shape)


# rule id, a formula that calls for it, one just short of it, and the scale of the kitchen
CASES = [
    *CASES_BESIDE,
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
    ("shape.tin-overflows", _tinned(1500), _tinned(1450), None),
    ("shape.tin-full", _tinned(1300), _tinned(1200), None),
    ("shape.rim-narrow", _filled(rim_mm=9.9), _filled(rim_mm=10), None),
    ("shape.filling-walls-thin", _filled(share=0.25, rim_mm=24), _filled(share=0.25), None),
    ("shape.filling-heavy", _filled(share=0.26), _filled(share=0.25), None),
    ("shape.filling-no-room", _filled(share=0.01, rim_mm=50), _filled(share=0.01, rim_mm=40), None),
    ("shape.eggs-do-not-fit", _egg_loaf(0.2), _egg_loaf(0.09), None),
    ("shape.egg-wall-thin", _egg_loaf(0.09, height=72), _egg_loaf(0.09, height=74), None),
    (
        "shape.scoop-off",
        mixed(style="ball-baked", mould="scoop-24", piece_mass_g=45),
        mixed(style="ball-baked", mould="scoop-24", piece_mass_g=41),
        None,
    ),
    ("shape.over-the-bun", smash(thickness_mm=5), smash(thickness_mm=6), None),
    ("shape.loose-on-a-grate", _grilled(packing="loose", firmness="soft"), _grilled(packing="loose"), None),
    ("shape.soft-to-the-heat", _grilled(firmness="soft"), smash(firmness="soft"), None),
    ("shape.frozen-to-smash", smash(firmness="frozen"), smash(), None),
    ("shape.frozen-is-slower", _grilled(firmness="frozen"), _grilled(), None),
    ("shape.ragged-edge", _grilled(edges="ragged"), smash(edges="ragged"), None),
    (
        "shape.stacked-bare",
        replace(_grilled(), grind=Grind(keep="frozen")),
        replace(_grilled(papers=True), grind=Grind(keep="frozen")),
        None,
    ),
    ("shape.too-few", smash(spare_pieces=-1), smash(spare_pieces=0), None),
    ("heat.below-floor", smash(target_core_temp_c=68.2), smash(target_core_temp_c=68.4), None),
    (
        "heat.wild-game",
        smash(parts=blended(venison_ground=1.0), target_core_temp_c=73.8),
        smash(parts=blended(venison_ground=1.0), target_core_temp_c=73.9),
        None,
    ),
    ("heat.hold-needed", smash(target_core_temp_c=69), smash(target_core_temp_c=71.1), None),
    ("heat.by-thermometer", smash(style="thick", thickness_mm=28, piece_mass_g=225), smash(), None),
    (
        "heat.falls-short",
        smash(style="grilled", thickness_mm=16, piece_mass_g=140, surface="charcoal-grate", surface_temp_c=80),
        smash(),
        None,
    ),
    ("heat.practice-falls-short", smash(style="grilled", thickness_mm=22, piece_mass_g=140), smash(), None),
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
    ("mix.crumb-without-liquid", bowl(put={"egg": None, "milk": 1.9}), bowl(put={"egg": None, "milk": 2.1}), None),
    ("mix.soup", bowl(put={"milk": 18.6}), bowl(put={"milk": 18.2}), None),
    ("mix.liquid-without-crumb", bowl(put={"panko": None, "milk": 3.2}), bowl(put={"panko": None, "milk": 2.8}), None),
    ("mix.soak-short", bowl(soak_min=9), bowl(soak_min=10), None),
    ("mix.crumb-heavy", bowl(put={"panko": 15.1, "milk": 18}), bowl(put={"panko": 15, "milk": 18}), None),
    ("mix.binder-short", mixed(lines=lines(egg=4.9)), mixed(lines=lines(egg=5.0)), None),
    ("mix.crumb-in-burger", bowl("smashed", put={"panko": 4.1}), bowl("smashed", put={"panko": 4}), None),
    ("mix.egg-short", bowl(put={"egg": 4.9}), bowl(put={"egg": 5}), None),
    ("mix.egg-heavy", bowl(put={"egg": 14.4}), bowl(put={"egg": 14.2}), None),
    (
        "mix.egg-rounded",
        mixed(lines=(*lines(panko=8, milk=10), MixLine("egg", 0.068, counted=True))),
        mixed(lines=(*lines(panko=8, milk=10), MixLine("egg", 0.08, counted=True))),
        None,
    ),
    (
        "mix.cheese-heavy",
        bowl("ball-baked", put={"panko": 6, "parmesan": 10.2}),
        bowl("ball-baked", put={"panko": 6, "parmesan": 9.9}),
        None,
    ),
    (
        "mix.lean-without-panade",
        mixed(lines=lines(panko=8, egg=8), parts=blended(round=0.95, chuck=0.05)),
        mixed(lines=lines(panko=8, egg=8), parts=blended(round=0.5, chuck=0.5)),
        None,
    ),
    ("mix.no-school", bowl(put={"panko": 40}), bowl(), None),
    ("mix.filling-unfit", bowl("ball-baked", put={"boiled-egg": 10}), bowl(put={"boiled-egg": 10}), None),
    ("mix.unsalted", bowl(salt_frac=0.0079), bowl(salt_frac=0.0081), None),
    ("mix.unsalted", mixed(style="ragu", salt_frac=0.012), mixed(style="ragu", salt_frac=0.014), None),
    ("mix.salted-twice", mixed(style="ragu", salt_frac=0.034), mixed(style="ragu", salt_frac=0.030), None),
    (
        "mix.salt-comes-along",
        bowl(put={"pecorino": 12}, salt_frac=0.005),
        bowl(put={"pecorino": 12}, salt_frac=0.010),
        None,
    ),
    ("mix.salted-twice", bowl(salt_frac=0.0221), bowl(salt_frac=0.0219), None),
    (
        "mix.cured-and-salted",
        bowl(parts=blended(round=0.65, bacon=0.35), salt_frac=0.018),
        bowl(parts=blended(round=0.65, bacon=0.35), salt_frac=0.014),
        None,
    ),
    (
        "mix.cured-brings-salt",
        bowl(parts=blended(round=0.65, bacon=0.35), salt_frac=0.014),
        bowl(parts=blended(round=1.0), salt_frac=0.014),
        None,
    ),
    (
        "mix.salted-early",
        mixed(style="smashed", lines=(), salt_place="mixed", salt_frac=0.0031),
        mixed(style="smashed", lines=(), salt_place="mixed", salt_frac=0.0029),
        None,
    ),
    ("mix.light-spoon", bowl(), bowl(), (FLAKY, COARSE_SALT)),
    ("mix.raw-wet-vegetable", bowl(put={"onion": 3.1}), bowl(put={"onion": 3}), None),
    (
        "mix.hot-part",
        mixed(lines=_line("soft-onion", 0.1, temp_c=31)),
        mixed(lines=_line("soft-onion", 0.1, temp_c=30)),
        None,
    ),
    (
        "mix.too-warm",
        mixed(lines=_line("chicken-stock", 0.4, temp_c=36)),
        mixed(lines=_line("chicken-stock", 0.4, temp_c=20)),
        None,
    ),
    ("mix.meat-warm", bowl(meat_temp_c=5.5), bowl(meat_temp_c=5), None),
    ("mix.overworked", bowl(work="processor", work_s=16), bowl(work="processor", work_s=15), None),
    ("mix.overworked", bowl(work_s=181), bowl(work_s=180), None),
    ("mix.not-chilled", bowl(chill_min=29), bowl(chill_min=30), None),
    ("mix.beef-only", bowl(parts=blended(chuck=1.0)), bowl(), None),
    ("mix.poultry-floor", bowl(parts=blended(chuck=0.5, turkey_ground=0.5)), bowl(), None),
    (
        "mix.name-lost",
        mixed(style="smashed", parts=blended(chuck=1.0), lines=lines(egg_white=4)),
        mixed(style="smashed", parts=blended(chuck=1.0), lines=lines(pepper=0.3)),
        None,
    ),
    (
        "mix.name-lost",
        mixed(style="smashed", parts=blended(ground_85=1.0), lines=(), salt_place="mixed", salt_frac=0.0102),
        mixed(style="smashed", parts=blended(ground_85=1.0), lines=(), salt_place="mixed", salt_frac=0.0098),
        EU,
    ),
    (
        "mix.guessed",
        mixed(lines=_line("olive-oil", 0.01, uncertainty_frac=0.45)),
        mixed(lines=_line("olive-oil", 0.01, uncertainty_frac=0.35)),
        None,
    ),
    ("mix.hidden-fish", bowl(put={"worcester": 1}), bowl(put={"soy_sauce": 1}), None),
    (
        "mix.sugar-burns",
        bowl(put={"brown_sugar": 6}, surface_temp_c=200),
        bowl(put={"brown_sugar": 6}, surface_temp_c=199),
        None,
    ),
    ("mix.garlic-in-oil", bowl(put={"confit-week": 1}), bowl(put={"confit-days": 1}), None),
    ("mix.fat-from-mix", bowl(put={"butter": 10}), bowl(put={"butter": 4}), None),
    *(
        (f"mix.{limit}", bowl(avoid=(limit,), put={key: 2}), bowl(avoid=(limit,), put={"panko": None}), None)
        for limit, key in (
            ("no-soy", "soy_sauce"),
            ("no-fish", "worcester"),
            ("no-sesame", "tahini"),
            ("no-nuts", "walnuts"),
            ("no-mustard", "mustard"),
            ("no-celery", "celery"),
            ("no-sulphites", "raisins"),
            ("no-alcohol", "red_wine"),
            ("no-garlic", "garlic"),
        )
    ),
    ("mix.no-egg", bowl(avoid=("no-egg",)), bowl(avoid=("no-egg",), put={"egg": None}), None),
    ("mix.no-onion", bowl(avoid=("no-onion",), put={"shallot": 1}), mixed(lines=(), avoid=("no-onion",)), None),
    ("mix.halal", bowl(avoid=("halal",)), bowl(avoid=("halal",), parts=blended(chuck=1.0)), None),
    ("mix.no-beef", bowl(avoid=("no-beef",)), bowl(avoid=("no-beef",), parts=blended(lamb_ground=1.0)), None),
    ("mix.without", bowl(without=("panko",)), bowl(without=("nutmeg",), put={"nutmeg": None}), None),
    ("mix.no-pork", bowl(avoid=("no-pork",)), bowl(avoid=("no-pork",), parts=blended(chuck=1.0)), None),
    ("mix.no-dairy", bowl(avoid=("no-dairy",)), bowl(avoid=("no-dairy",), put={"milk": None, "stock": 10}), None),
    (
        "mix.no-gluten",
        bowl(avoid=("no-gluten",)),
        bowl(avoid=("no-gluten",), put={"panko": None, "gf_crumbs": 8}),
        None,
    ),
    ("mix.less-fat", bowl(avoid=("less-fat",)), bowl(avoid=("less-fat",), parts=blended(round=1.0)), None),
    ("mix.less-sugar", bowl(avoid=("less-sugar",), put={"ketchup": 14}), bowl(avoid=("less-sugar",)), None),
    ("mix.less-salt", bowl(avoid=("less-salt",), salt_frac=0.016), bowl(avoid=("less-salt",), salt_frac=0.012), None),
    ("scale.cannot-weigh", smash(piece_mass_g=95), smash(piece_mass_g=100), COARSE),
    ("scale.cannot-weigh", smash(guests=12), smash(guests=11), SMALL),
]


def _rules(evaluation: Evaluation) -> list[str]:
    return [c.rule for c in evaluation.counsel]


def _kitchens(kitchen: Kitchen, where: object) -> tuple[Kitchen, Kitchen]:
    """The kitchen in which the rule speaks, and the one in which it is silent."""
    if isinstance(where, Scale):
        kitchen = replace(kitchen, scale=where)
    elif isinstance(where, Kitchen):
        kitchen = where
    elif isinstance(where, tuple):
        return where
    return kitchen, kitchen


@pytest.mark.parametrize(("rule", "calls", "short", "where"), CASES, ids=[f"{c[0]}-{i}" for i, c in enumerate(CASES)])
def test_a_rule_speaks_past_its_threshold_and_not_before(
    inventory: Inventory, kitchen: Kitchen, rule: str, calls: Formula, short: Formula, where: object
) -> None:
    speaks, silent = _kitchens(kitchen, where)
    assert rule in _rules(evaluate(calls, inventory=inventory, kitchen=speaks))
    assert rule not in _rules(evaluate(short, inventory=inventory, kitchen=silent))


def test_every_rule_has_a_case_and_its_own_id() -> None:
    ids = [rule.id for rule in ALL_RULES]
    assert len(set(ids)) == len(ids)
    assert {c[0] for c in CASES} == set(ids)
    assert all(rule.threshold and rule.source for rule in ALL_RULES)


@pytest.mark.parametrize(("rule", "calls"), [(c[0], c[1]) for c in CASES if c[3] is None])
def test_a_change_that_counsel_offers_settles_it(
    inventory: Inventory, kitchen: Kitchen, rule: str, calls: Formula
) -> None:
    before = evaluate(calls, inventory=inventory, kitchen=kitchen)
    counsel = next(c for c in before.counsel if c.rule == rule)
    for change in counsel.changes:
        after = evaluate(
            apply_edit(calls, change.edit, inventory=inventory, kitchen=kitchen), inventory=inventory, kitchen=kitchen
        )
        assert rule not in _rules(after), change


def test_limits_are_read_out_first(inventory: Inventory, kitchen: Kitchen) -> None:
    formula = smash(target_core_temp_c=60, surface_temp_c=150, parts=blended(short_rib_plate=1.0))
    severities = [c.severity for c in evaluate(formula, inventory=inventory, kitchen=kitchen).counsel]
    assert severities == sorted(severities, key=["limit", "check", "note"].index)


def test_below_the_floor_counsel_names_who_is_at_risk_and_defers(inventory: Inventory, kitchen: Kitchen) -> None:
    counsel = next(
        c
        for c in evaluate(smash(target_core_temp_c=60), inventory=inventory, kitchen=kitchen).counsel
        if c.rule == "heat.below-floor"
    )
    assert counsel.severity == "limit"
    for word in ("children", "pregnant", "weak immunity", "licensed practice"):
        assert word in counsel.reason.text


def test_nowhere_is_a_burger_called_safe(inventory: Inventory, kitchen: Kitchen) -> None:
    evaluation = whole(smash(target_core_temp_c=80), inventory=inventory, kitchen=kitchen)
    texts = [c.title.text + c.reason.text for c in evaluation.counsel]
    texts += [s.text for w in evaluation.workings.values() for s in w.steps]
    assert not any(" safe" in text.lower() for text in texts)
