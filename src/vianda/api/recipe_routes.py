"""Pasted recipes, and formulas written as recipes."""

from __future__ import annotations

from flask import Blueprint, Response

from vianda.api import schemas as s
from vianda.api.attachment import json_file
from vianda.api.contract import operation
from vianda.services import recipes

blueprint = Blueprint("recipes", __name__, url_prefix="/api")


@operation(
    blueprint,
    "POST",
    "/recipe/read",
    summary="Read a pasted recipe: what each line became, the formula, the sauces, what waits",
    body=s.RecipeRequest,
    answer=recipes.ReadRecipe,
)
def read_recipe(body: s.RecipeRequest) -> recipes.ReadRecipe:
    return recipes.read(body.text, summary=body.summary, unit_system=body.unit_system)


@operation(
    blueprint,
    "POST",
    "/recipe/keep",
    summary="Put a pasted recipe on the shelf with its sauces",
    body=s.RecipeRequest,
    answer=s.FormulaAnswer,
    status=201,
    once=True,
)
def keep_recipe(body: s.RecipeRequest) -> s.FormulaAnswer:
    return s.formula_answer(recipes.keep(body.text, summary=body.summary, unit_system=body.unit_system))


@operation(
    blueprint,
    "GET",
    "/formulas/<int:formula_id>/recipe",
    summary="The formula as a schema.org Recipe",
    answer=dict[str, object],
    problems=(404,),
)
def write_recipe(formula_id: int) -> Response:
    name, content = recipes.written(formula_id)
    return json_file(content, name=name, ending="recipe", otherwise="recipe", kind="application/ld+json")
