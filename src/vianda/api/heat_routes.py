"""What goes on inside a piece while it cooks."""

from __future__ import annotations

from typing import Annotated

from flask import Blueprint
from pydantic import Field

from vianda.api.contract import operation
from vianda.core.heat.curve import HeatCurve, NotModelled
from vianda.interchange.formula_model import FormulaModel, Strict
from vianda.services import heat_curves

blueprint = Blueprint("heat", __name__, url_prefix="/api")


class CurveRequest(Strict):
    """The formula whose piece is cooked."""

    formula: FormulaModel


@operation(
    blueprint, "POST", "/heat/curve", summary="Temperature through the piece over time", body=CurveRequest,
    answer=Annotated[HeatCurve | NotModelled, Field(discriminator="kind")],
)  # fmt: skip
def curve(body: CurveRequest) -> HeatCurve | NotModelled:
    return heat_curves.curve_of(body.formula.to_core())
