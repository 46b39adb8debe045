"""The kitchen."""

from __future__ import annotations

from flask import Blueprint

from vianda.api import schemas as s
from vianda.api.contract import operation
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
)
def save_kitchen(body: s.KitchenRequest) -> s.KitchenAnswer:
    return s.kitchen_answer(kitchens.save_kitchen(body.kitchen, revision=body.revision))
