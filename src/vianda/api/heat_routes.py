"""What goes on inside a piece while it cooks: its curve as a stream of lines, questions, thermometers."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import chain
from typing import Annotated

from flask import Blueprint, Response
from pydantic import Field, TypeAdapter

from vianda.api.contract import operation
from vianda.api.searched import LINES
from vianda.core.basis.bounds import Key, TempC
from vianda.core.heat.after import AfterLine
from vianda.core.heat.cooked import BrownWord
from vianda.core.heat.curve import HeatCurve, Progress
from vianda.core.heat.firming import Firming
from vianda.core.heat.fit import NOTHING_SEEN, Observed
from vianda.core.heat.plate_signs import SurfaceGuess
from vianda.core.heat.questions import HeatAnswer, QuestionKind
from vianda.core.heat.run_setup import Overrides
from vianda.core.model.formula import Formula, PanFat
from vianda.interchange.documents import Strict
from vianda.services import heat_bench, thermometers

blueprint = Blueprint("heat", __name__, url_prefix="/api")


class FormulaRequest(Strict):
    """The formula whose piece is cooked, and the surface as it measures now (null: as meant)."""

    formula: Formula
    surface_now_c: TempC | None = None

    def overrides(self) -> Overrides:
        """What is asked beyond the formula."""
        return Overrides(surface_now_c=self.surface_now_c)


class CurveRequest(FormulaRequest):
    """A curve, with what was observed."""

    observed: Observed | None = None


class QuestionRequest(FormulaRequest):
    """A question: seconds or °C as its kind asks, a crust for ``how-hot``."""

    kind: QuestionKind
    value: Annotated[float, Field(ge=0, le=100_000)] | None = None
    crust: BrownWord | None = None


class SignsRequest(Strict):
    """What is seen, and the fat in the pan."""

    signs: Annotated[list[Key], Field(min_length=1, max_length=6)]
    fat: PanFat = ""


class ProbeRequest(Strict):
    """Which piece is probed, and when (null: when a reading tells most); ``seed`` makes it the same piece."""

    formula: Formula
    at_s: Annotated[float, Field(ge=1, le=21_600)] | None = None
    seed: Annotated[int, Field(ge=0, le=2**31)] = 1


class SurfaceRequest(Strict):
    """How long the surface has been heated, in seconds; ``seed`` makes it the same thermometer."""

    formula: Formula
    heated_s: Annotated[float, Field(ge=1, le=7200)]
    seed: Annotated[int, Field(ge=0, le=2**31)] = 1


class FirmingRequest(Strict):
    """The edge of the cubes in mm, and the freezer in °C."""

    formula: Formula
    edge_mm: Annotated[float, Field(gt=0, le=1000)] = 28.0
    freezer_c: TempC = -18.0


_LINE: TypeAdapter[HeatCurve | Progress] = TypeAdapter(Annotated[HeatCurve | Progress, Field(discriminator="kind")])


@operation(
    blueprint,
    "POST",
    "/heat/curve",
    summary="Temperature through the piece over time, a JSON document a line: the "
    "curve, how its uncertainty comes along, the curve with its uncertainty",
    body=CurveRequest,
    answer=Annotated[HeatCurve | Progress, Field(discriminator="kind")],
)
def curve(body: CurveRequest) -> Response:
    observed = body.observed if body.observed is not None else NOTHING_SEEN
    steps = heat_bench.curve_of(body.formula, overrides=body.overrides(), observed=observed)
    # What is refused is refused before the first line goes out.
    first = next(steps)

    def lines() -> Iterator[bytes]:
        # A browser that hangs up ends the generator, and with it the computing.
        for step in chain([first], steps):
            yield _LINE.dump_json(step) + b"\n"

    return Response(lines(), content_type=LINES, headers={"Cache-Control": "no-store"})


@operation(
    blueprint,
    "POST",
    "/heat/ways",
    summary="How the piece may be cooked here",
    body=FormulaRequest,
    answer=heat_bench.Ways,
)
def ways(body: FormulaRequest) -> heat_bench.Ways:
    return heat_bench.ways_of(body.formula)


@operation(
    blueprint,
    "POST",
    "/heat/ask",
    summary="The heat asked the other way round",
    body=QuestionRequest,
    answer=HeatAnswer,
)
def ask(body: QuestionRequest) -> HeatAnswer:
    return heat_bench.answer_to(body.formula, body.kind, value=body.value, crust=body.crust, overrides=body.overrides())


@operation(
    blueprint,
    "POST",
    "/heat/after",
    summary="Kept hot, cooled and warmed up again",
    body=FormulaRequest,
    answer=list[AfterLine],
)
def after(body: FormulaRequest) -> list[AfterLine]:
    return list(heat_bench.after_of(body.formula, overrides=body.overrides()))


@operation(
    blueprint,
    "POST",
    "/heat/signs",
    summary="How hot a surface is by what is seen",
    body=SignsRequest,
    answer=SurfaceGuess,
)
def signs(body: SignsRequest) -> SurfaceGuess:
    return heat_bench.surface_by_signs(tuple(body.signs), fat=body.fat)


@operation(
    blueprint,
    "POST",
    "/heat/probe",
    summary="What the simulated probe shows",
    body=ProbeRequest,
    answer=thermometers.Read,
)
def probe(body: ProbeRequest) -> thermometers.Read:
    return thermometers.read_probe(body.formula, at_s=body.at_s, seed=body.seed)


@operation(
    blueprint,
    "POST",
    "/heat/surface",
    summary="What the simulated surface thermometer shows",
    body=SurfaceRequest,
    answer=thermometers.Read,
)
def surface(body: SurfaceRequest) -> thermometers.Read:
    return thermometers.read_surface(body.formula, heated_s=body.heated_s, seed=body.seed)


@operation(
    blueprint, "POST", "/heat/firming", summary="How long cubes lie in the freezer", body=FirmingRequest, answer=Firming
)
def firming(body: FirmingRequest) -> Firming:
    return heat_bench.firm_cubes(body.formula, edge_mm=body.edge_mm, freezer_c=body.freezer_c)
