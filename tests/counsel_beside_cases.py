"""Cases of counsel for what goes with the meat and for the build: what calls a rule, and what falls just short."""

from __future__ import annotations

from dataclasses import replace

from formulas import blended, lines, mixed, smash
from vianda.core.demo.kitchen import yard_galley
from vianda.core.evaluation.evaluate import evaluate
from vianda.core.inventory.inventory import Inventory, starter_inventory
from vianda.core.inventory.pantry import HouseFormula, HouseLine, Ingredient, starter_pantry
from vianda.core.model.formula import Accompaniment, Formula, HeatStage, StackLayer

HELD = {"panko": 8.0, "milk": 10.0, "egg": 8.0}


def bowl(style: str = "loaf-free", **changes: object) -> Formula:
    """A sound mix of panko, milk and egg, with some of it otherwise; None takes a line out."""
    amounts = {**HELD, **{k.replace("_", "-"): v for k, v in changes.pop("put", {}).items()}}  # type: ignore[attr-defined]
    return mixed(style=style, lines=lines(**{k: v for k, v in amounts.items() if v is not None}), **changes)


def _confit(key: str, keeps_days: int) -> Ingredient:
    """Garlic under oil, kept so many days."""
    oil = (HouseLine("garlic", 100), HouseLine("olive-oil", 200))
    return replace(starter_pantry()["olive-oil"], key=key, name=key, house=HouseFormula(oil, 300, keeps_days))


CONFITS = (_confit("confit-week", 7), _confit("confit-days", 4))


def _house(key: str, keeps_days: int, **grams: float) -> Ingredient:
    made = tuple(HouseLine(k.replace("_", "-"), g) for k, g in grams.items())
    return replace(starter_pantry()["mayonnaise"], key=key, name=key, house=HouseFormula(made, 0.0, keeps_days))


def _boiled(key: str, left_g: float, **grams: float) -> Ingredient:
    """A sauce of which so much is left."""
    made = _house(key, 3, **grams)
    assert made.house is not None
    return replace(made, house=replace(made.house, yield_g=left_g))


HOUSE_SAUCES = (
    _house("mild-sauce", 3, mayonnaise=150, ketchup=60),
    _house("thin-sauce", 3, mayonnaise=100, tomatoes=150),
    _house("stiff-sauce", 3, mayonnaise=100, tomatoes=90),
    _house("dull-sauce", 3, mayonnaise=100, cream=40),
    _house("raw-three", 3, egg=50, neutral_oil=200, vinegar=15),
    _house("raw-two", 2, egg=50, neutral_oil=200, vinegar=15),
    _house("hidden-sauce", 3, mayonnaise=100, worcester=10),
    _house("garlic-five", 5, garlic=20, neutral_oil=200),
    _house("garlic-four", 4, garlic=20, neutral_oil=200),
    _house("plain-sauce", 3, sour_cream=100, tomatoes=20),
    # 17.7 and 18.3 g of flour in 600 g of water: just less and just more than 3 %.
    _house("thin-gravy", 3, stock=620, flour=17.7, butter=18),
    _house("fair-gravy", 3, stock=620, flour=18.3, butter=18),
    _house("starch-gravy", 3, stock=620, cornflour=9.2, butter=18),
    _house("onion-gravy", 3, stock=100, brown_onion=900),
    _boiled("dry-sauce", 282, tomatoes=1000, olive_oil=30),
    _boiled("left-sauce", 292, tomatoes=1000, olive_oil=30),
    _house("wet-relish", 3, mayonnaise=150, relish=70),
    _house("less-relish", 3, mayonnaise=150, relish=22),
    _house("sweet-glaze", 5, ketchup=150, brown_sugar=60),
)


LARDER = Inventory.of(starter_inventory().meats.values(), (), [*starter_pantry().values(), *HOUSE_SAUCES])


def _with(key: str, role: str = "burger-sauce", dose: float = 20.0, **changes: object) -> Formula:
    """A smashed burger with one thing that goes with it."""
    more = {k: changes.pop(k) for k in ("made_g", "coats") if k in changes}
    return replace(smash(**changes), beside=(Accompaniment(role, key, dose, **more),))  # type: ignore[arg-type]


def _glazed(brushed: str, *, rest_g: float | None = None) -> Formula:
    """A loaf with a glaze beside it, and one brushed on in the oven; much of it, or so much more than two coats."""
    loaf = replace(bowl(), beside=(Accompaniment("glaze", "sweet-glaze", 20.0, 9000.0, 2),))
    if rest_g is not None:
        plan = evaluate(loaf, inventory=LARDER, kitchen=yard_galley()).beside.things[0].glaze
        assert plan is not None
        loaf = replace(loaf, beside=(replace(loaf.beside[0], made_g=plan.coats_g + rest_g),))
    stages = (HeatStage("oven", until="core", temp_c=175.0, glaze=True),)
    return replace(loaf, heat=replace(loaf.heat, glaze=brushed, stages=stages))


def _stack(*kinds: str, plain: tuple[str, ...] = (), **changes: object) -> Formula:
    """A build from below; bread is toasted but what is named plain."""
    layers = tuple(
        StackLayer(k, toasted=k in ("heel", "crown", "club") and k not in plain)  # type: ignore[arg-type]
        for k in kinds
    )
    return replace(smash(**changes), stack=layers)


SOUND = ("heel", "sauce", "leaf", "patty", "cheese", "patty", "onion", "sauce", "crown")

# Rule, what calls it, what falls short of it, and the kitchen where it is not the usual one.
CASES_BESIDE = [
    ("sauce.not-enough", _with("mild-sauce", made_g=200.0), _with("mild-sauce", made_g=2000.0), None),
    ("sauce.dose", _with("mild-sauce", dose=7.4), _with("mild-sauce", dose=7.6), None),
    ("sauce.dose", _with("mild-sauce", dose=37.6), _with("mild-sauce", dose=37.4), None),
    ("sauce.runs", _with("thin-sauce"), _with("stiff-sauce"), None),
    (
        "sauce.not-sharp",
        _with("dull-sauce", parts=blended(ground_80=1.0)),
        _with("mild-sauce", parts=blended(ground_80=1.0)),
        None,
    ),
    (
        "sauce.not-sharp",
        _with("dull-sauce", parts=blended(ground_80=1.0)),
        _with("dull-sauce", parts=blended(ground_90=1.0)),
        None,
    ),
    ("sauce.raw-egg", _with("raw-three"), _with("raw-two"), None),
    ("sauce.under-oil", _with("garlic-five", "topping"), _with("garlic-four", "topping"), None),
    ("sauce.hidden-allergen", _with("hidden-sauce"), _with("plain-sauce"), None),
    (
        "sauce.glaze-short",
        _with("sweet-glaze", "glaze", made_g=20.0, coats=2),
        _with("sweet-glaze", "glaze", made_g=9000.0, coats=2),
        None,
    ),
    (
        "sauce.glaze-not-brushed",
        replace(bowl(), beside=(Accompaniment("glaze", "sweet-glaze", 20.0, 9000.0, 2),)),
        replace(bowl(), beside=(Accompaniment("glaze", "sweet-glaze", 20.0, 9000.0, 0),)),
        None,
    ),
    ("sauce.another-glaze", _glazed("ketchup"), _glazed("sweet-glaze"), None),
    (
        "sauce.sugar-on-fire",
        _with("sweet-glaze", "glaze", style="grilled", surface="charcoal-grate", surface_temp_c=230),
        _with("sweet-glaze", "glaze"),
        None,
    ),
    ("stack.no-patty", _stack("heel", "cheese", "crown"), _stack(*SOUND), None),
    ("stack.upside-down", _stack("crown", "patty", "heel"), _stack(*SOUND), None),
    ("stack.wet-on-bread", _stack("heel", "tomato", "patty", "sauce", "crown"), _stack(*SOUND), None),
    ("stack.soggy-in", _stack(*SOUND, plain=("heel",)), _stack(*SOUND), None),
    (
        "stack.too-tall",
        _stack("heel", *(["patty", "cheese"] * 3), "egg", "crown"),
        _stack("heel", "patty", "cheese", "crown"),
        None,
    ),
    (
        "stack.slides",
        _stack("heel", "sauce", "patty", "cheese", "patty", "tomato", "pickle", "sauce", "crown"),
        _stack("heel", "sauce", "patty", "tomato", "patty", "sauce", "crown"),
        None,
    ),
    ("stack.one-face", _stack("heel", "sauce", "patty", "cheese", "crown"), _stack(*SOUND), None),
    ("stack.no-glue", _stack("heel", "sauce", "patty", "patty", "sauce", "crown"), _stack(*SOUND), None),
    ("stack.hangs-over", _stack(*SOUND), _stack(*SOUND, thickness_mm=12.0), None),
    (
        "stack.salt-on-salt",
        _stack("heel", "sauce", "patty", "cheese", "bacon", "pickle", "onion", "crown"),
        _stack("heel", "sauce", "patty", "cheese", "bacon", "onion", "crown"),
        None,
    ),
    (
        "stack.nothing-sharp",
        _stack("heel", "patty", "cheese", "crown", parts=blended(ground_80=1.0)),
        _stack("heel", "patty", "cheese", "crown", parts=blended(ground_90=1.0)),
        None,
    ),
    ("stack.leaf-on-heat", _stack("heel", "sauce", "patty", "leaf", "sauce", "crown"), _stack(*SOUND), None),
    ("sauce.gravy-thin", _with("thin-gravy", "gravy", 80.0), _with("fair-gravy", "gravy", 80.0), None),
    ("sauce.gravy-thin", _with("thin-gravy", "gravy", 80.0), _with("starch-gravy", "gravy", 80.0), None),
    # Onions thicken by what is in them, and what is no gravy need not be thick.
    ("sauce.gravy-thin", _with("thin-gravy", "gravy", 80.0), _with("onion-gravy", "gravy", 80.0), None),
    ("sauce.gravy-thin", _with("thin-gravy", "gravy", 80.0), _with("thin-gravy", "cooking-sauce", 80.0), None),
    ("sauce.cooked-dry", _with("dry-sauce", "cooking-sauce", 80.0), _with("left-sauce", "cooking-sauce", 80.0), None),
    ("sauce.not-drained", _with("wet-relish"), _with("less-relish"), None),
    # A rest of 10 g comes to the table; less clings to the bowl.
    ("sauce.one-brush", _glazed("sweet-glaze"), _glazed("sweet-glaze", rest_g=9.0), None),
    ("sauce.one-brush", _glazed("sweet-glaze", rest_g=11.0), _glazed("ketchup"), None),
]
