"""Formulas: list, keep, change, version, export, import."""

from __future__ import annotations

from flask import Blueprint, Response

from vianda.api import schemas as s
from vianda.api.attachment import json_file
from vianda.api.contract import operation
from vianda.core.basis.errors import CoreError
from vianda.core.basis.phrase import count, lean_to_fat, mass, say
from vianda.core.model.styles import style_of
from vianda.interchange.formula_file import FormulaFile, formula_file_schema
from vianda.services import formulas, shelf
from vianda.storage.shelf_repository import ShelfQuery

blueprint = Blueprint("formulas", __name__, url_prefix="/api")


@operation(blueprint, "GET", "/formulas", summary="All formulas by name", answer=list[s.FormulaName])
def list_formulas() -> list[s.FormulaName]:
    return [
        s.FormulaName(id=one.id, name=one.name, updated_at=one.updated_at, style=_style(one.style))
        for one in shelf.shelf_names()
    ]


@operation(blueprint, "POST", "/shelf", summary="A page of the shelf", body=s.ShelfRequest, answer=s.ShelfAnswer)
def look_along_shelf(body: s.ShelfRequest) -> s.ShelfAnswer:
    query = ShelfQuery(body.text, body.dish, body.archived, body.sort)
    page = shelf.shelf_page(query, before=body.before)
    return s.ShelfAnswer(
        items=[_item(one) for one in page.items],
        next=page.next,
        total=page.total,
        archived=page.archived,
        dishes=list(page.dishes),
    )


def _style(key: str) -> str:
    try:
        return style_of(key).title
    except CoreError:
        # A style of another age of the application.
        return key


def _item(shelved: shelf.Shelved) -> s.ShelfItem:
    comes_to, cooked = shelved.comes_to, shelved.cooked
    item = s.ShelfItem(
        id=shelved.id,
        name=shelved.name,
        updated_at=shelved.updated_at,
        style=_style(shelved.style),
        strips=list(comes_to.strips) if comes_to else [],
        problem=shelved.problem,
        cooks=cooked.times if cooked else 0,
        last_cooked=cooked.last if cooked else None,
    )
    if comes_to is not None:
        item.lean_to_fat = say("{r}", r=lean_to_fat(comes_to.fat_frac))
        item.pieces = say("{n} × {m}", n=count(comes_to.pieces), m=mass(comes_to.piece_mass_g))
    return item


@operation(
    blueprint,
    "POST",
    "/formulas",
    summary="Add a formula",
    body=s.CreateRequest,
    answer=s.FormulaAnswer,
    status=201,
    once=True,
)
def create_formula(body: s.CreateRequest) -> s.FormulaAnswer:
    return s.formula_answer(formulas.create_formula(body.formula))


@operation(
    blueprint,
    "POST",
    "/formulas/import",
    summary="Add a formula from a file",
    body=s.ImportRequest,
    answer=s.ImportAnswer,
    status=201,
    once=True,
)
def import_formula(body: s.ImportRequest) -> s.ImportAnswer:
    done = formulas.import_formula(body.file)
    return s.ImportAnswer(
        stored=s.formula_answer(done.stored),
        meats_added=list(done.meats_added),
        meats_differing=list(done.meats_differing),
        renamed=list(done.renamed),
        replaced=list(done.replaced),
        remarks=done.remarks(),
    )


@operation(
    blueprint, "GET", "/formulas/<int:formula_id>", summary="One formula", answer=s.FormulaAnswer, problems=(404,)
)
def get_formula(formula_id: int) -> s.FormulaAnswer:
    return s.formula_answer(formulas.get_formula(formula_id))


@operation(
    blueprint,
    "PUT",
    "/formulas/<int:formula_id>",
    summary="Save a formula over the revision seen",
    body=s.SaveRequest,
    answer=s.FormulaAnswer,
    problems=(404, 409),
)
def save_formula(formula_id: int, body: s.SaveRequest) -> s.FormulaAnswer:
    return s.formula_answer(formulas.save_formula(formula_id, body.formula, revision=body.revision))


@operation(blueprint, "DELETE", "/formulas/<int:formula_id>", summary="Archive a formula", problems=(404,))
def delete_formula(formula_id: int) -> None:
    formulas.delete_formula(formula_id)


@operation(
    blueprint,
    "POST",
    "/formulas/<int:formula_id>/restore",
    summary="Bring an archived formula back to the shelf",
    answer=s.FormulaAnswer,
    problems=(404,),
)
def restore_formula(formula_id: int) -> s.FormulaAnswer:
    return s.formula_answer(formulas.restore_formula(formula_id))


@operation(
    blueprint,
    "POST",
    "/formulas/<int:formula_id>/copy",
    summary="Another formula like it",
    answer=s.FormulaAnswer,
    status=201,
    problems=(404,),
    once=True,
)
def copy_formula(formula_id: int) -> s.FormulaAnswer:
    return s.formula_answer(formulas.copy_formula(formula_id))


@operation(
    blueprint,
    "GET",
    "/formulas/<int:formula_id>/versions",
    summary="Kept versions, newest first",
    answer=list[s.VersionAnswer],
    problems=(404,),
)
def list_versions(formula_id: int) -> list[s.VersionAnswer]:
    return [s.version_answer(v) for v in formulas.list_versions(formula_id)]


@operation(
    blueprint,
    "POST",
    "/formulas/<int:formula_id>/versions",
    summary="Keep this one under a name",
    body=s.KeepRequest,
    answer=s.VersionAnswer,
    status=201,
    problems=(404,),
    once=True,
)
def keep_version(formula_id: int, body: s.KeepRequest) -> s.VersionAnswer:
    return s.version_answer(formulas.keep_version(formula_id, name=body.name))


@operation(
    blueprint,
    "GET",
    "/formulas/<int:formula_id>/export",
    summary="The formula as a file that stands alone",
    answer=FormulaFile,
    problems=(404,),
)
def export_formula(formula_id: int) -> Response:
    name, content = formulas.export_formula(formula_id)
    return json_file(content, name=name, ending="vianda", otherwise="formula")


@operation(
    blueprint, "GET", "/schema/formula-file", summary="The JSON Schema of the formula file", answer=dict[str, object]
)
def formula_schema() -> dict[str, object]:
    return formula_file_schema()
