"""Pasted recipes, and formulas written as recipes."""

from __future__ import annotations

import re

from flask import Blueprint, Response, json

from vianda.api import schemas as s
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
    plain = re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-") or "recipe"
    return Response(
        json.dumps(content, indent=2, ensure_ascii=False),
        content_type="application/ld+json",
        headers={"Content-Disposition": f'attachment; filename="{plain}.recipe.json"'},
    )
