"""The pantry in a real MariaDB: revisions, conflicts, house formulas, and a kitchen from before there was one."""

from __future__ import annotations

import copy
import json
from dataclasses import replace
from decimal import Decimal

import pytest

from formulas import lines, mixed
from vianda.core.demo.formulas import HOUSE_FORMULAS, night_watch_balls
from vianda.core.demo.kitchen import yard_galley
from vianda.core.evaluation.evaluate import evaluate
from vianda.core.inventory.house import CircularHouseError
from vianda.core.inventory.inventory import Inventory, starter_inventory
from vianda.core.inventory.pantry import HouseFormula, HouseLine, starter_pantry
from vianda.interchange.formula_file import FormulaBundle, read_file, read_text, write_file
from vianda.interchange.kept_plan import up_to_date
from vianda.services import formulas, pantry
from vianda.services.demo_kitchen import take_up_new_ingredients, take_up_pantry
from vianda.storage import kitchen_repository
from vianda.storage import larder_repository as repository
from vianda.storage.records import ConflictError, NotFoundError
from vianda.storage.tables import IngredientRow, KitchenRow

pytestmark = pytest.mark.usefixtures("database")
RUB = HOUSE_FORMULAS[0]


def _known(key: str) -> pantry.KnownIngredient:
    return next(k for k in pantry.list_pantry() if k.ingredient.key == key)


def test_the_pantry_comes_back_as_it_was_seeded() -> None:
    stored = {s.ingredient.key: s.ingredient for s in repository.list_ingredients()}
    assert stored == {**starter_pantry(), **{i.key: i for i in HOUSE_FORMULAS}}
    assert repository.load_inventory().pantry["yard-rub"].composition.sodium_mg_per_100g > 15_000


def test_an_ingredient_is_saved_over_the_revision_seen_and_no_other() -> None:
    milk = repository.get_ingredient("milk").ingredient
    dearer = replace(milk, price_per_kg=Decimal("2.0000"))
    assert repository.save_ingredient(dearer, revision=1).revision == 2
    assert repository.load_inventory().pantry["milk"].price_per_kg == 2
    with pytest.raises(ConflictError) as conflict:
        repository.save_ingredient(milk, revision=1)
    assert conflict.value.current.ingredient == dearer
    with pytest.raises(ConflictError):
        repository.save_ingredient(milk, revision=0)
    with pytest.raises(NotFoundError):
        repository.get_ingredient("unicorn")


def test_a_dearer_ingredient_is_felt_through_every_house_formula_and_its_use() -> None:
    before = _known("yard-rub").figures
    paprika = repository.get_ingredient("paprika").ingredient
    pantry.save_ingredient(replace(paprika, price_per_kg=Decimal(100)), revision=1)
    after = _known("yard-rub").figures
    assert after.price_per_kg - before.price_per_kg == Decimal(84) * 50 / 200


def test_a_house_formula_that_would_hold_itself_is_refused_and_nothing_is_kept() -> None:
    crumbs = repository.get_ingredient("boathouse-crumbs").ingredient
    crust = replace(
        crumbs, key="crust", name="Crust", house=HouseFormula((HouseLine("boathouse-crumbs", 100),), 100, 3)
    )
    pantry.save_ingredient(crust, revision=0)
    ring = replace(crumbs, house=HouseFormula((HouseLine("crust", 100),), 100, 3))
    with pytest.raises(CircularHouseError):
        pantry.save_ingredient(ring, revision=1)
    assert repository.get_ingredient("boathouse-crumbs").ingredient == crumbs


def test_where_it_is_used_names_formulas_and_house_formulas() -> None:
    formulas.create_formula(replace(mixed(lines=lines(boathouse_crumbs=8, milk=12, egg=8)), name="Watch"))
    bread = _known("crusty-bread")
    assert bread.in_house == ("Boathouse crumbs",)
    assert "Watch" in bread.in_formulas
    assert "Watch" in _known("boathouse-crumbs").in_formulas


def test_a_kitchen_from_before_takes_up_pantry_and_oven_and_keeps_the_rest() -> None:
    stored = kitchen_repository.load_kitchen()
    without = tuple(s for s in stored.kitchen.surfaces if s.kind != "oven")
    kitchen_repository.save_kitchen(replace(stored.kitchen, surfaces=without, name="Old"), revision=stored.revision)
    IngredientRow.delete().execute()
    repository.touch("larder")
    take_up_pantry()
    take_up_pantry()
    kitchen = kitchen_repository.load_kitchen().kitchen
    assert kitchen.name == "Old"
    assert [s.kind for s in kitchen.surfaces].count("oven") == 1
    assert len(repository.list_ingredients()) == len(starter_pantry())


def test_a_kitchen_takes_up_what_came_since_and_keeps_its_own_names_and_prices() -> None:
    came = ("crisp-bacon", "soft-pepper", "grilled-onion")
    starters = starter_pantry()
    IngredientRow.delete().where(IngredientRow.key.in_(came)).execute()
    own = replace(starters["crisp-bacon"], key="my-bacon", price_per_kg=Decimal(9))
    repository.add_ingredients([own])
    milk = replace(repository.get_ingredient("milk").ingredient, price_per_kg=Decimal("2.5"))
    pantry.save_ingredient(milk, revision=1)
    take_up_new_ingredients()
    take_up_new_ingredients()
    now = {s.ingredient.key: s.ingredient for s in repository.list_ingredients()}
    # A name that a cook has given is not given twice.
    assert "crisp-bacon" not in now
    assert now["my-bacon"].price_per_kg == 9
    assert now["milk"].price_per_kg == Decimal("2.5")
    assert {"soft-pepper", "grilled-onion"} <= now.keys()
    names = [i.name.casefold() for i in now.values()]
    assert len(names) == len(set(names))


def test_prices_of_the_demo_are_not_given_to_a_kitchen_of_ones_own() -> None:
    KitchenRow.update(demo=False).execute()
    IngredientRow.delete().where(IngredientRow.key == "grilled-onion").execute()
    repository.touch(repository.larder_here())
    take_up_new_ingredients()
    assert repository.get_ingredient("grilled-onion").ingredient.price_per_kg == 0


def test_a_file_carries_the_pantry_it_stands_on_and_joins_a_kitchen_without_it() -> None:
    inventory = Inventory.of(starter_inventory().meats.values(), (), [*starter_pantry().values(), *HOUSE_FORMULAS])
    formula = mixed(lines=lines(boathouse_crumbs=8, milk=12, egg=8, yard_rub=1))
    file = write_file(FormulaBundle(formula, inventory, yard_galley()))
    keys = {i["key"] for i in file["pantry"]}
    assert {"boathouse-crumbs", "crusty-bread", "yard-rub", "paprika", "salt-fine", "milk"} <= keys
    assert "panko" not in keys
    bundle = read_text(json.dumps(file))
    there = evaluate(bundle.formula, inventory=bundle.inventory, kitchen=bundle.kitchen)
    assert there == evaluate(formula, inventory=inventory, kitchen=yard_galley())
    IngredientRow.delete().where(IngredientRow.key == "boathouse-crumbs").execute()
    repository.touch("larder")
    done = formulas.import_formula(file)
    assert "Boathouse crumbs" in done.meats_added
    assert repository.get_ingredient("boathouse-crumbs").ingredient.house is not None


def test_version_3_is_upgraded_and_nothing_is_mixed_in() -> None:
    file = write_file(FormulaBundle(night_watch_balls(), starter_inventory(), yard_galley()))
    old = copy.deepcopy(file)
    old["version"] = 3
    del old["pantry"], old["formula"]["mix"], old["formula"]["dish"]["guests_per_piece"], old["kitchen"]["salt"]
    bundle = read_file(old)
    assert bundle.formula.mix.lines == ()
    assert bundle.formula.dish.guests_per_piece == 1
    assert evaluate(bundle.formula, inventory=bundle.inventory, kitchen=bundle.kitchen).salt.g_per_tsp == pytest.approx(
        6
    )


def _said(plan: object) -> object:
    """A plan as it is sent: what is null is left out."""
    if isinstance(plan, dict):
        return {k: _said(v) for k, v in plan.items() if v is not None}
    return [_said(v) for v in plan] if isinstance(plan, list) else plan


def test_a_plan_kept_before_mixes_came_is_read_by_todays_shapes(client) -> None:
    formula = next(f for f in client.get("/api/formulas").get_json() if f["name"] == "Slipway smash")
    cook = client.post("/api/cooks", json={"formula_id": formula["id"]}).get_json()
    now = cook["plan"]
    old = copy.deepcopy(now)
    for name in ("form", "length_mm", "width_mm"):
        del old["shape"][name]
    for name in ("ledger", "wanted_g", "brought_g", "rim_salt_g", "salt_name", "g_per_tsp", "of_mix_frac"):
        del old["salt"][name]
    del old["stove"]["footprint_mm"], old["cost"]["mix_cost"]
    upgraded = _said(up_to_date(old))
    assert up_to_date(now) == now
    for part in ("shape", "stove", "portions", "heat"):
        assert upgraded[part] == now[part], part
    assert {k: v for k, v in upgraded["salt"].items() if k != "g_per_tsp"} == {
        k: pytest.approx(v) if isinstance(v, float) else v for k, v in now["salt"].items() if k != "g_per_tsp"
    }


def test_a_plan_kept_before_the_piece_had_wares_is_read_by_todays_shapes(client) -> None:
    formula = next(f for f in client.get("/api/formulas").get_json() if f["name"] == "Slipway smash")
    cook = client.post("/api/cooks", json={"formula_id": formula["id"]}).get_json()
    now = cook["plan"]
    old = copy.deepcopy(now)
    kept = {
        "form",
        "density_g_per_ml",
        "thickness_mm",
        "length_mm",
        "width_mm",
        "raw_diameter_mm",
        "cooked_diameter_mm",
        "cooked_mass_g",
        "cooked_yield_frac",
        "dimple",
        "bun_diameter_mm",
        "bun_name",
    }
    old["shape"] = {k: v for k, v in now["shape"].items() if k in kept}
    for name in ("heavier_mass_g", "left_g", "remainder"):
        del old["portions"][name]
    del old["stove"]["in_squares"]
    upgraded = _said(up_to_date(old))
    # How it fits its bun and a scoop was not known yet.
    assert upgraded["shape"].keys() == now["shape"].keys() - {"fit", "scoop", "press_kg"}
    assert upgraded["stove"] == now["stove"] | {"in_squares": now["stove"]["at_once"]}
    assert upgraded["portions"] == now["portions"]
    assert upgraded["shape"]["volume_ml"] == pytest.approx(now["shape"]["volume_ml"])
    # What such a cook lost is known; how much of it was fat is not.
    lost = 85 - now["shape"]["cooked_mass_g"]["usual"]
    assert upgraded["shape"]["water_lost_g"] == pytest.approx(lost)


def test_a_plan_kept_before_its_fit_was_told_is_told_it_now(client) -> None:
    formula = next(f for f in client.get("/api/formulas").get_json() if f["name"] == "Night-watch balls")
    now = client.post("/api/cooks", json={"formula_id": formula["id"]}).get_json()["plan"]
    old = copy.deepcopy(now)
    del old["shape"]["scoop"]["worth_going_by"], old["shape"]["scoop"]["another_is_nearer"]
    assert _said(up_to_date(old)) == now
    smash = next(f for f in client.get("/api/formulas").get_json() if f["name"] == "Slipway smash")
    now = client.post("/api/cooks", json={"formula_id": smash["id"]}).get_json()["plan"]
    old = copy.deepcopy(now)
    del old["shape"]["fit"]["off_mm"]
    assert _said(up_to_date(old)) == now
