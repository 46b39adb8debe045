"""The kitchen."""

from __future__ import annotations

from flask import Blueprint

from vianda.api import schemas as s
from vianda.api.contract import operation
from vianda.core.basis.units import UnitSystem
from vianda.core.equipment.first_kitchen import FirstAnswers, HotThing
from vianda.core.reading.entry import read_length_mm
from vianda.services import kitchens

blueprint = Blueprint("kitchen", __name__, url_prefix="/api")


@operation(blueprint, "GET", "/kitchen", summary="The kitchen", answer=s.KitchenAnswer)
def get_kitchen() -> s.KitchenAnswer:
    return s.kitchen_answer(kitchens.get_kitchen())


@operation(
    blueprint,
    "PUT",
    "/kitchen",
    summary="Save the kitchen over the revision seen",
    body=s.KitchenRequest,
    answer=s.KitchenAnswer,
    problems=(409,),
    once=True,
)
def save_kitchen(body: s.KitchenRequest) -> s.KitchenAnswer:
    return s.kitchen_answer(kitchens.save_kitchen(body.kitchen, revision=body.revision))


def _listed() -> s.KitchensAnswer:
    listed, here = kitchens.list_kitchens()
    return s.KitchensAnswer(kitchens=[s.ListedKitchen(id=k.id, name=k.name, demo=k.demo) for k in listed], here=here)


@operation(blueprint, "GET", "/kitchens", summary="All kitchens, and the one that is open", answer=s.KitchensAnswer)
def list_kitchens() -> s.KitchensAnswer:
    return _listed()


def _size(text: str, system: UnitSystem, field: str) -> float:
    return read_length_mm(text, unit_system=system, field=field) if text.strip() else 0.0


@operation(
    blueprint,
    "POST",
    "/kitchens",
    summary="Set up a kitchen of one's own from a few answers, and open it",
    body=s.FirstKitchenRequest,
    answer=s.KitchensAnswer,
    status=201,
    once=True,
)
def set_up_kitchen(body: s.FirstKitchenRequest) -> s.KitchensAnswer:
    things = tuple(
        HotThing(
            thing.kind,
            _size(thing.width, body.unit_system, f"/surfaces/{at}/width"),
            _size(thing.depth, body.unit_system, f"/surfaces/{at}/depth"),
        )
        for at, thing in enumerate(body.surfaces)
    )
    kitchens.set_up(
        FirstAnswers(
            name=body.name or "My kitchen",
            country=body.country,
            setting=body.setting,
            unit_system=body.unit_system,
            currency_code=body.currency_code,
            scale_step_g=body.scale_step_g,
            surfaces=things,
            salt=body.salt,
        )
    )
    kitchens.here(None)
    return _listed()


@operation(
    blueprint,
    "POST",
    "/kitchens/demo",
    summary="Open the demo kitchen; it is made anew when it was deleted",
    answer=s.KitchensAnswer,
    once=True,
)
def look_round() -> s.KitchensAnswer:
    kitchens.look_round()
    kitchens.here(None)
    return _listed()


@operation(
    blueprint,
    "POST",
    "/kitchens/<int:kitchen_id>/open",
    summary="Open a kitchen",
    answer=s.KitchensAnswer,
    problems=(404,),
)
def open_kitchen(kitchen_id: int) -> s.KitchensAnswer:
    kitchens.open_kitchen(kitchen_id)
    kitchens.here(None)
    return _listed()


@operation(
    blueprint,
    "DELETE",
    "/kitchens/<int:kitchen_id>",
    summary="Delete the demo kitchen with all of its records",
    answer=s.KitchensAnswer,
)
def delete_kitchen(kitchen_id: int) -> s.KitchensAnswer:
    kitchens.delete_demo(kitchen_id)
    kitchens.here(None)
    return _listed()
