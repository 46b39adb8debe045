"""The pantry: ingredients and house formulas."""

from __future__ import annotations

from flask import Blueprint, Response

from vianda.api import pantry_schemas as s
from vianda.api.attachment import csv_file
from vianda.api.contract import operation
from vianda.api.larder_schemas import CsvAnswer, CsvRequest
from vianda.api.problems import ProblemError, problem
from vianda.core.inventory.house import HouseFigures
from vianda.services import pantry

blueprint = Blueprint("pantry", __name__, url_prefix="/api/pantry")


@operation(blueprint, "GET", "/file.csv", summary="The pantry as CSV", gives="text/csv")
def pantry_as_csv() -> Response:
    return csv_file(pantry.export_csv(), name="pantry")


@operation(
    blueprint,
    "POST",
    "/file",
    summary="Take in a pantry file, row by row",
    body=CsvRequest,
    answer=CsvAnswer,
    once=True,
)
def import_pantry_csv(body: CsvRequest) -> CsvAnswer:
    return CsvAnswer(rows=pantry.import_csv(body.text))


@operation(blueprint, "GET", "", summary="The whole pantry", answer=s.PantryAnswer)
def get_pantry() -> s.PantryAnswer:
    return s.PantryAnswer(ingredients=[s.ingredient_answer(k) for k in pantry.list_pantry()])


@operation(
    blueprint,
    "PUT",
    "/<key>",
    summary="Add, correct or retire an ingredient",
    body=s.IngredientRequest,
    answer=s.IngredientAnswer,
    problems=(404, 409),
    once=True,
)
def save_ingredient(key: str, body: s.IngredientRequest) -> s.IngredientAnswer:
    if key != body.ingredient.key:
        raise ProblemError(
            problem(422, "invalid", "A value does not fit", "The ingredient has another key than its address.")
        )
    return s.ingredient_answer(pantry.save_ingredient(body.ingredient, revision=body.revision))


@operation(
    blueprint,
    "POST",
    "/house",
    summary="Work a house formula out without keeping it",
    body=s.HouseRequest,
    answer=HouseFigures,
)
def try_house(body: s.HouseRequest) -> HouseFigures:
    return pantry.try_house(body.ingredient)


@operation(
    blueprint,
    "POST",
    "/amount",
    summary="Read an amount of an ingredient",
    body=s.AmountRequest,
    answer=s.AmountAnswer,
    problems=(404,),
)
def read_amount(body: s.AmountRequest) -> s.AmountAnswer:
    return s.AmountAnswer(mass_g=pantry.amount_g(body.ingredient, body.text, unit_system=body.unit_system))
