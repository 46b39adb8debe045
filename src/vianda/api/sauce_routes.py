"""Taste and nudge a sauce, and cook it down."""

from __future__ import annotations

from typing import Annotated

from flask import Blueprint
from pydantic import Field

from vianda.api.contract import operation
from vianda.api.wire import Units
from vianda.core.basis.bounds import Key, KeyOrEmpty
from vianda.core.batch.shaker import Shaker, ShakerTrial
from vianda.core.inventory.pantry import MOST_HOUSE_LINES, HouseLine
from vianda.core.model.formula import Role
from vianda.core.sauce.cook_down import Boil
from vianda.core.sauce.ferment import Ferment, FermentKind
from vianda.core.sauce.keep import Cooled, TrayCooling
from vianda.core.sauce.nudge import Handle
from vianda.core.sauce.schools import SauceSchool
from vianda.core.sauce.thicken import Body, Thickener, Thickening
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


class BindRequest(SauceRequest):
    """Cornflour, and the cold water it is stirred into, g."""

    cornflour_g: Grams
    cold_water_g: Grams


class PotRequest(Strict):
    """What goes in (lines, or grams alone), what is to be left, how hard it cooks, and the pot's width.

    What is left is said in grams, as a share, or as dry matter (0–1 both). ``fat_wanted_frac`` 1: nothing is skimmed.
    ``portions`` and ``balls`` 0: none.
    """

    lines: Annotated[tuple[HouseLine, ...], Field(max_length=MOST_HOUSE_LINES)] = ()
    start_g: Grams = 0.0
    left_g: Grams = 0.0
    left_frac: Annotated[float, Field(ge=0, le=1)] = 0.0
    dry_frac: Annotated[float, Field(ge=0, le=1)] = 0.0
    boil: Boil
    diameter_mm: Annotated[float, Field(gt=0, le=2000)]
    fat_wanted_frac: Annotated[float, Field(ge=0, le=1)] = 1.0
    portions: Annotated[int, Field(ge=0, le=10_000)] = 0
    balls: Annotated[int, Field(ge=0, le=10_000)] = 0
    ball_mm: Annotated[float, Field(ge=0, le=500)] = 0.0


class ThickenRequest(Strict):
    """The liquid, g, what thickens it, and how thick it is to be."""

    liquid_g: Annotated[float, Field(gt=0, le=1_000_000)]
    thickener: Thickener
    body: Body


class FermentRequest(Strict):
    """What is fermented, its grams, where it stands (°C), and its salt by mass (0–1; absent: the usual)."""

    ferment: FermentKind
    vegetable_g: Annotated[float, Field(gt=0, le=1_000_000)]
    temp_c: Annotated[float, Field(ge=-50, le=100)]
    salt_frac: Annotated[float, Field(ge=0, le=1)] | None = None


class SwapRequest(Strict):
    """The lines of a sauce, and which of them cannot be had."""

    lines: Annotated[list[HouseLine], Field(min_length=1, max_length=MOST_HOUSE_LINES)]
    ingredient: Key


class ShakerRequest(Strict):
    """Weighings of a shaker, and the salt that one side wants, g, on so many pieces of two sides."""

    trials: Annotated[list[ShakerTrial], Field(min_length=1, max_length=20)]
    side_g: Annotated[float, Field(gt=0, le=1000)]
    pieces: Annotated[int, Field(ge=1, le=100_000)]


class ComposeRequest(Strict):
    """The lines as they stand, and what a cook says goes in besides."""

    lines: Annotated[tuple[HouseLine, ...], Field(max_length=MOST_HOUSE_LINES)] = ()
    text: Annotated[str, Field(max_length=600)]
    unit_system: Units


class ScaleRequest(Strict):
    """The lines, and what they are to weigh (g), or how much there is of one ingredient (g)."""

    lines: Annotated[tuple[HouseLine, ...], Field(min_length=1, max_length=MOST_HOUSE_LINES)]
    whole_g: Grams = 0.0
    ingredient: KeyOrEmpty = ""
    mass_g: Grams = 0.0


class TrayRequest(Strict):
    """How deep a tray is filled, mm, and where it cools."""

    depth_mm: Annotated[float, Field(gt=0, le=1000)]
    cooled: Cooled


class PouredRequest(Strict):
    """What a scale showed before and after, g; what was poured, and the lines of the sauce it went into."""

    lines: Annotated[tuple[HouseLine, ...], Field(max_length=MOST_HOUSE_LINES)] = ()
    ingredient: KeyOrEmpty = ""
    before_g: Grams
    after_g: Grams


class Poured(Strict):
    """What was poured, g, and the lines with it."""

    mass_g: float
    lines: tuple[HouseLine, ...]


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


@operation(blueprint, "POST", "/sauces/bind", summary="Bind a sauce with starch", body=BindRequest, answer=sauces.Bound)
def bind(body: BindRequest) -> sauces.Bound:
    return sauces.bound(
        tuple(body.lines),
        left_g=body.left_g,
        left_frac=body.left_frac,
        cornflour_g=body.cornflour_g,
        cold_water_g=body.cold_water_g,
    )


@operation(blueprint, "POST", "/sauces/pot", summary="Cook it down in a pot", body=PotRequest, answer=sauces.Pot)
def pot(body: PotRequest) -> sauces.Pot:
    asked = {name: getattr(body, name) for name in PotRequest.model_fields}
    return sauces.pot_of(sauces.PotAsked(**asked))


@operation(
    blueprint, "POST", "/sauces/thicken", summary="What thickens a liquid", body=ThickenRequest, answer=Thickening
)
def thicken(body: ThickenRequest) -> Thickening:
    return sauces.thickened(body.liquid_g, body.thickener, body.body)


@operation(
    blueprint, "POST", "/sauces/ferment", summary="Salt and days of a ferment", body=FermentRequest, answer=Ferment
)
def ferment(body: FermentRequest) -> Ferment:
    return sauces.fermented(body.ferment, body.vegetable_g, temp_c=body.temp_c, salt_frac=body.salt_frac)


@operation(
    blueprint,
    "POST",
    "/sauces/swaps",
    summary="What can take an ingredient's place",
    body=SwapRequest,
    answer=list[sauces.SwapOffer],
)
def swaps(body: SwapRequest) -> list[sauces.SwapOffer]:
    return list(sauces.swaps_of(tuple(body.lines), body.ingredient))


@operation(blueprint, "POST", "/sauces/shaker", summary="What a shaker gives", body=ShakerRequest, answer=Shaker)
def shaker(body: ShakerRequest) -> Shaker:
    return sauces.shaker_of(tuple(body.trials), side_g=body.side_g, pieces=body.pieces)


@operation(
    blueprint, "POST", "/sauces/poured", summary="What was poured, by weighing", body=PouredRequest, answer=Poured
)
def poured(body: PouredRequest) -> Poured:
    mass, lines = sauces.poured(body.lines, body.ingredient, before_g=body.before_g, after_g=body.after_g)
    return Poured(mass_g=mass, lines=lines)


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


@operation(
    blueprint,
    "POST",
    "/sauces/compose",
    summary="The lines with what a cook says goes in",
    body=ComposeRequest,
    answer=sauces.ComposedSauce,
)
def compose(body: ComposeRequest) -> sauces.ComposedSauce:
    return sauces.compose(body.lines, body.text, unit_system=body.unit_system)


@operation(blueprint, "POST", "/sauces/scale", summary="Scale a sauce", body=ScaleRequest, answer=list[HouseLine])
def scale(body: ScaleRequest) -> list[HouseLine]:
    return list(sauces.scale(body.lines, whole_g=body.whole_g, ingredient=body.ingredient, mass_g=body.mass_g))


@operation(
    blueprint, "POST", "/sauces/tray", summary="Whether a tray cools in time", body=TrayRequest, answer=TrayCooling
)
def tray(body: TrayRequest) -> TrayCooling:
    return sauces.kept(body.depth_mm, body.cooled)
