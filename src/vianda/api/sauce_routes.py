"""Taste and nudge a sauce, and cook it down."""

from __future__ import annotations

from typing import Annotated

from flask import Blueprint
from pydantic import Field

from vianda.api.contract import operation
from vianda.core.basis.bounds import Key, KeyOrEmpty
from vianda.core.inventory.pantry import MOST_HOUSE_LINES, HouseLine
from vianda.core.model.formula import Role
from vianda.core.sauce.cook_down import Boil, CookDown
from vianda.core.sauce.nudge import Handle
from vianda.core.sauce.schools import SauceSchool
from vianda.interchange.documents import Strict
from vianda.services import sauces

blueprint = Blueprint("sauces", __name__, url_prefix="/api")

Grams = Annotated[float, Field(ge=0, le=1_000_000)]


class SauceRequest(Strict):
    """The lines of a sauce, what cooking down leaves (g, or a share; 0: all), its role, and the school beside it."""

    lines: Annotated[list[HouseLine], Field(min_length=1, max_length=MOST_HOUSE_LINES)]
    left_g: Grams = 0.0
    left_frac: Annotated[float, Field(ge=0, le=1)] = 0.0
    role: Role = "burger-sauce"
    school: KeyOrEmpty = ""


class NudgeRequest(SauceRequest):
    """A word, what may not move, and whether things can only be added."""

    handle: Handle
    locked: Annotated[tuple[Key, ...], Field(max_length=MOST_HOUSE_LINES)] = ()
    only_add: bool = False


class PotRequest(Strict):
    """What goes in and is to be left, g; how hard it cooks, and the width of the pot."""

    start_g: Annotated[float, Field(gt=0, le=1_000_000)]
    left_g: Annotated[float, Field(gt=0, le=1_000_000)]
    boil: Boil
    diameter_mm: Annotated[float, Field(gt=0, le=2000)]


class BrineRequest(Strict):
    """The lines of a brine, the vegetable and its grams, how thick its slices are, and whether it stands cold."""

    lines: Annotated[list[HouseLine], Field(min_length=1, max_length=MOST_HOUSE_LINES)]
    vegetable: Key
    vegetable_g: Annotated[float, Field(gt=0, le=1_000_000)]
    slice_mm: Annotated[float, Field(gt=0, le=200)]
    cold: bool = True


@operation(blueprint, "GET", "/sauces/schools", summary="Schools of sauce", answer=list[SauceSchool])
def schools() -> list[SauceSchool]:
    return list(sauces.schools_offered())


@operation(
    blueprint,
    "POST",
    "/sauces/taste",
    summary="How a sauce tastes, beside its school",
    body=SauceRequest,
    answer=sauces.SauceTaste,
)
def taste(body: SauceRequest) -> sauces.SauceTaste:
    return sauces.taste_lines(
        tuple(body.lines), left_g=body.left_g, left_frac=body.left_frac, role=body.role, school=body.school
    )


@operation(
    blueprint,
    "POST",
    "/sauces/nudge",
    summary="The smallest change that does what a word asks",
    body=NudgeRequest,
    answer=sauces.NudgeAnswer,
)
def nudge(body: NudgeRequest) -> sauces.NudgeAnswer:
    return sauces.nudge_lines(
        tuple(body.lines),
        body.handle,
        left_g=body.left_g,
        left_frac=body.left_frac,
        locked=body.locked,
        only_add=body.only_add,
        role=body.role,
        school=body.school,
    )


@operation(blueprint, "POST", "/sauces/pot", summary="How long it cooks down", body=PotRequest, answer=CookDown)
def pot(body: PotRequest) -> CookDown:
    return sauces.pot_of(body.start_g, body.left_g, body.boil, diameter_mm=body.diameter_mm)


@operation(
    blueprint,
    "POST",
    "/sauces/brine",
    summary="Where a brine and a vegetable come to rest, and how soon",
    body=BrineRequest,
    answer=sauces.Pickled,
)
def brine(body: BrineRequest) -> sauces.Pickled:
    return sauces.brine_of(tuple(body.lines), body.vegetable, body.vegetable_g, slice_mm=body.slice_mm, cold=body.cold)
