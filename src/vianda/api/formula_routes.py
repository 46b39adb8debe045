"""Formulas: list, keep, change, version, export, import."""

from __future__ import annotations

from flask import Blueprint, Response

from vianda.api import schemas as s
from vianda.api.attachment import json_file
from vianda.api.contract import operation
from vianda.core.basis.phrase import count, lean_to_fat, mass, say
from vianda.core.model.styles import style_of
from vianda.interchange.formula_file import FormulaFile, formula_file_schema
from vianda.services import formulas, shelf

blueprint = Blueprint("formulas", __name__, url_prefix="/api")


@operation(blueprint, "GET", "/formulas", summary="All formulas", answer=list[s.ShelfItem])
def list_formulas() -> list[s.ShelfItem]:
    return [_item(shelved) for shelved in shelf.shelf()]


def _item(shelved: shelf.Shelved) -> s.ShelfItem:
    stored, comes_to = shelved.stored, shelved.comes_to
    item = s.ShelfItem(
        id=stored.id,
        name=stored.formula.name,
        updated_at=stored.updated_at,
        style=style_of(stored.formula.dish.style).title,
        strips=list(comes_to.strips) if comes_to else [],
        problem=shelved.problem,
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
