"""The layers of one build with thickness, width and mass, and what they come to against a comfortable bite."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.phrase import Phrase, say
from vianda.core.equipment.kitchen import Bun, BunKind
from vianda.core.inventory.pantry import Ingredient, Pantry
from vianda.core.model.formula import BREAD_LAYERS, Accompaniment, LayerKind, StackLayer
from vianda.core.model.styles import FLAT, Form
from vianda.core.shape.figures import ShapeFigures

Wetness = Literal["dry", "damp", "wet"]
# A comfortable bite: common practice, no published source, 75 to 80 mm.
BITE_MM, BITE_MOST_MM = 75.0, 80.0


@dataclass(frozen=True, slots=True)
class KindRule:
    """What a kind of layer usually is: mass and thickness of one, how wet, whether it slides, salty, sharp, crisp.

    ``width_frac`` is its width by that of the bread.
    """

    title: str
    mass_g: float
    thickness_mm: float
    wetness: Wetness
    slick: bool
    width_frac: float = 0.95
    salty: bool = False
    sharp: bool = False


# Layers, g and mm: common practice, no published source; wetness and slip ours.
KINDS: Mapping[LayerKind, KindRule] = {
    "heel": KindRule("Heel", 32.0, 18.0, "dry", False, 1.0),
    "crown": KindRule("Crown", 32.0, 26.0, "dry", False, 1.0),
    "club": KindRule("Middle slice", 25.0, 12.0, "dry", False, 1.0),
    "patty": KindRule("Patty", 0.0, 0.0, "damp", False, 0.0),
    "cheese": KindRule("Cheese", 21.0, 2.0, "dry", False, 0.95, salty=True),
    "sauce": KindRule("Sauce", 10.0, 1.0, "wet", True, 0.9),
    "leaf": KindRule("Leaf", 10.0, 3.0, "dry", True, 1.05),
    "tomato": KindRule("Tomato slice", 25.0, 6.0, "wet", True, 0.75),
    "onion": KindRule("Raw onion ring", 11.0, 3.0, "damp", False, 0.7, sharp=True),
    "soft-onion": KindRule("Soft onions", 25.0, 5.0, "damp", False, 0.8),
    "pickle": KindRule("Pickle slices", 15.0, 4.0, "wet", True, 0.7, salty=True, sharp=True),
    "relish": KindRule("Relish", 12.0, 2.5, "wet", True, 0.8, sharp=True),
    "bacon": KindRule("Bacon, crisp", 8.0, 4.0, "dry", False, 1.1, salty=True),
    "egg": KindRule("Fried egg", 50.0, 12.0, "damp", True, 0.9),
    "mushroom": KindRule("Mushrooms, cooked down", 25.0, 8.0, "damp", False, 0.8),
    "pepper": KindRule("Cooked pepper", 20.0, 5.0, "damp", True, 0.8),
    "other": KindRule("Other", 20.0, 6.0, "damp", False, 0.9),
}
BREADS = BREAD_LAYERS
# Bread by its kind: thickness of the lower part and the upper, mm. Common practice for buns; the rest ours.
BREAD_MM: Mapping[BunKind, tuple[float, float]] = {
    "bun": (18.0, 26.0),
    "slice": (12.0, 12.0),
    "tortilla": (2.0, 2.0),
    "flatbread": (6.0, 6.0),
}
FOLDED: tuple[BunKind, ...] = ("tortilla", "flatbread")
# Things that lie on a layer as usual when the pantry has them.
USUAL_OF: Mapping[LayerKind, str] = {
    "cheese": "processed-cheese",
    "leaf": "butterhead",
    "tomato": "tomato",
    "onion": "onion",
    "soft-onion": "soft-onion",
    "pickle": "dill-pickle",
    "relish": "relish",
    "bacon": "crisp-bacon",
    "egg": "egg",
    "mushroom": "cooked-mushroom",
    "pepper": "soft-pepper",
}


@dataclass(frozen=True, slots=True)
class MeatLayer:
    """The meat of one build as it lies there: a patty, a row of balls, a slice of a loaf, a spoonful of sauce."""

    name: str
    mass_g: float
    thickness_mm: float
    width_mm: float


# A meat sauce is spooned about as high as this, and weighs about as much as water: ours.
SPOONED_MM, BALLS_IN_A_ROW = 15.0, 3


def meat_layer(shape: ShapeFigures, form: Form, *, pieces: int, builds: int) -> MeatLayer:
    """The meat of one build.

    Parameters
    ----------
    shape : ShapeFigures
        Size of the piece, mm.
    form : Form
        Form of the piece.
    pieces : int
        Pieces in all (count).
    builds : int
        Builds in all (count), 1 or more.

    Returns
    -------
    MeatLayer
        Of a flat piece one patty, which may lie there twice; of anything else all that one build gets.
    """
    mass, thick = shape.cooked_mass_g.usual, shape.cooked_thickness_mm.usual
    across = shape.cooked_diameter_mm.usual
    each = pieces / builds
    if form in FLAT:
        return MeatLayer("Patty", mass, thick, across)
    if form == "ball":
        balls = max(1, round(each))
        name = "Ball" if balls == 1 else f"{balls} balls"
        return MeatLayer(name, each * mass, thick, min(balls, BALLS_IN_A_ROW) * across)
    if form == "crumbled":
        cm2 = each * mass / (SPOONED_MM / 10.0)
        return MeatLayer("Meat sauce", each * mass, SPOONED_MM, 20.0 * math.sqrt(cm2 / math.pi))
    # A loaf is cut across: as thick a slice as everybody gets of its length.
    shrink = across / shape.length_mm if shape.length_mm > 0 else 1.0
    return MeatLayer("Slice of the loaf", each * mass, each * across, shape.width_mm * shrink)


@dataclass(frozen=True, slots=True)
class LayerChoice:
    """A kind of layer that can be laid on, with what it usually is; no ingredient for bread and the patty."""

    kind: LayerKind
    title: str
    ingredient: str


def layer_choices(pantry: Pantry) -> tuple[LayerChoice, ...]:
    """The kinds of layer a cook chooses from, the patty first and bread last; sauces come from what goes with it.

    Parameters
    ----------
    pantry : Pantry
        Ingredients by key.

    Returns
    -------
    tuple[LayerChoice, ...]
        A thing the pantry lacks is offered without its ingredient, and counts for size only.

    Examples
    --------
    >>> layer_choices({})[0].kind
    'patty'
    """
    usual = [LayerChoice(kind, KINDS[kind].title, key if key in pantry else "") for kind, key in USUAL_OF.items()]
    bread = [LayerChoice(kind, KINDS[kind].title, "") for kind in ("heel", "club", "crown")]
    return (LayerChoice("patty", KINDS["patty"].title, ""), *usual, *bread)


@dataclass(frozen=True, slots=True)
class Layer:
    """One layer as it is built: name, mass, thickness and width, and whether its face is toasted.

    ``folded``: it is folded over with its bread, so that it lies above and below the rest, each so thick and wide.
    """

    kind: LayerKind
    ingredient: str
    name: str
    mass_g: float
    thickness_mm: float
    width_mm: float
    toasted: bool
    folded: bool = False

    @property
    def rule(self) -> KindRule:
        """What its kind tells the rules: how wet, whether it slides, salty, sharp."""
        return KINDS[self.kind]


@dataclass(frozen=True, slots=True)
class Build:
    """A build from below: its layers, height, mass, what hangs over the bread, and whether it was the usual one.

    ``folded``: one thin bread laid over what is on it, as wide as half of it. ``tasted`` says when its sharp layers
    meet the tongue.
    """

    layers: tuple[Layer, ...]
    height_mm: float
    mass_g: float
    overhang_mm: float
    bite: Literal["comfortable", "tall", "too tall"]
    usual: bool
    folded: bool = False
    tasted: Phrase | None = None


def usual_stack(*, bun: Bun, patties: int, cheese: str, beside: Sequence[Accompaniment]) -> tuple[StackLayer, ...]:
    """The build a style has until something else is said: sauce on both faces, cheese on each patty.

    Parameters
    ----------
    bun : Bun
        The bread.
    patties : int
        Patties in one build (count), at least 1.
    cheese : str
        Key of the cheese laid on at the heat, "" for none.
    beside : Sequence[Accompaniment]
        What goes with it.

    Returns
    -------
    tuple[StackLayer, ...]
        Layers from below.

    References
    ----------
    Sauce on both faces, a leaf below as a raft: common practice, no published source.
    """
    sauce = next((a.ingredient for a in beside if a.role == "burger-sauce"), "")
    bread = bun.diameter_mm > 0
    found: list[StackLayer] = [StackLayer("heel", toasted=True)] if bread else []
    if sauce and bread:
        found.append(StackLayer("sauce", sauce))
    found += [StackLayer(_LAYER_OF[a.role], a.ingredient, a.dose_g) for a in beside if a.role in ("pickle", "relish")]
    for _ in range(max(1, patties)):
        found.append(StackLayer("patty"))
        if cheese:
            found.append(StackLayer("cheese", cheese))
    found += [
        StackLayer(_LAYER_OF[a.role], a.ingredient, a.dose_g) for a in beside if a.role in ("soft-onions", "ferment")
    ]
    if sauce and bread:
        found.append(StackLayer("sauce", sauce))
    if bread and bun.kind in ("bun", "slice"):
        found.append(StackLayer("crown", toasted=True))
    return tuple(found)


_LAYER_OF: Mapping[str, LayerKind] = {
    "pickle": "pickle",
    "relish": "relish",
    "soft-onions": "soft-onion",
    "ferment": "relish",
}


def build_of(
    stack: Sequence[StackLayer],
    *,
    bun: Bun,
    meat: MeatLayer,
    beside: Sequence[Accompaniment],
    pantry: Pantry,
    usual: bool,
) -> Build:
    """Layers with their sizes, and what the build comes to.

    A sauce that goes with it is shared out over its layers. A tortilla or flatbread with nothing above is folded over
    what lies on it, with the meat that was pressed or laid as wide as it.

    Parameters
    ----------
    stack : Sequence[StackLayer]
        Layers from below.
    bun : Bun
        The bread.
    meat : MeatLayer
        The meat of one build.
    beside : Sequence[Accompaniment]
        What goes with it, with its doses.
    pantry : Pantry
        Ingredients by key.
    usual : bool
        Whether it is the usual build.

    Returns
    -------
    Build
        The build.
    """
    folded = bun.diameter_mm > 0 and bun.kind in FOLDED and [x.kind for x in stack if x.kind in BREADS] == ["heel"]
    bread_mm = (bun.diameter_mm or meat.width_mm) / (2.0 if folded else 1.0)
    halves = sum(layer.kind in BREADS for layer in stack) or 1
    doses = {a.ingredient: a.dose_g for a in beside}
    sauces = [layer.ingredient for layer in stack if layer.kind == "sauce"]
    layers = []
    for layer in stack:
        rule = KINDS[layer.kind]
        over = folded and layer.kind in BREADS
        mass, thick, width = layer.mass_g or rule.mass_g, rule.thickness_mm, rule.width_frac * bread_mm
        if layer.kind in BREADS:
            lower, upper = BREAD_MM[bun.kind]
            thick = {"heel": lower, "crown": upper}.get(layer.kind, rule.thickness_mm)
            mass = bun.mass_g / halves
        elif layer.kind == "patty":
            mass, thick, width = meat.mass_g, meat.thickness_mm, meat.width_mm
            over = folded and width > bread_mm
            width /= 2.0 if over else 1.0
        elif layer.kind == "sauce":
            if not layer.mass_g and layer.ingredient in doses:
                mass = doses[layer.ingredient] / sauces.count(layer.ingredient)
            thick = mass / (math.pi / 4 * (width / 10.0) ** 2) * 10.0
        elif rule.mass_g > 0.0:
            # Twice as much of it lies twice as high.
            thick *= mass / rule.mass_g
        thing = pantry.get(layer.ingredient)
        layers.append(
            Layer(
                layer.kind,
                layer.ingredient,
                _name(layer.kind, thing, bread=bun.name if folded else "", meat=meat.name),
                mass,
                thick,
                width,
                layer.toasted,
                over,
            )
        )
    height = math.fsum(x.thickness_mm * (2 if x.folded else 1) for x in layers)
    wider = max((x.width_mm - bread_mm for x in layers if x.kind not in BREADS), default=0.0)
    overhang = max(0.0, wider) if bun.diameter_mm else 0.0
    bite: Literal["comfortable", "tall", "too tall"] = "comfortable"
    if height > BITE_MM:
        bite = "tall" if height <= BITE_MOST_MM else "too tall"
    return Build(
        tuple(layers), height, math.fsum(x.mass_g for x in layers), overhang, bite, usual, folded, _tasted(layers)
    )


def _tasted(layers: Sequence[Layer]) -> Phrase | None:
    """What is sharp below the meat meets the tongue first, what is above it last."""
    meat = [n for n, x in enumerate(layers) if x.kind == "patty"]
    sharp = [n for n, x in enumerate(layers) if x.rule.sharp]
    if not meat or not sharp:
        return None
    below, above = sharp[0] < meat[0], sharp[-1] > meat[-1]
    if below and above:
        return say("Sharp above and below the meat: tasted from the first bite to the last.")
    if below:
        return say("What is sharp lies under the meat, where it is tasted first. Others lay it on top, tasted last.")
    if above:
        return say("What is sharp lies over the meat, where it is tasted last. Others lay it under, tasted first.")
    return say("What is sharp lies in the middle of the meat: it comes with every bite of it.")


def _name(kind: LayerKind, thing: Ingredient | None, *, bread: str, meat: str) -> str:
    """A thin bread has no heel: it goes by its own name."""
    if thing is not None:
        return thing.name
    if kind == "patty":
        return meat
    # Its size is drawn: the name goes without.
    return bread.split(",")[0] if bread and kind in BREADS else KINDS[kind].title


def moved(stack: Sequence[StackLayer], at: int, to: int) -> tuple[StackLayer, ...]:
    """The layers with one moved to another place.

    Parameters
    ----------
    stack : Sequence[StackLayer]
        Layers from below.
    at : int
        Which, from 0 (count).
    to : int
        Where to, from 0 (count).

    Returns
    -------
    tuple[StackLayer, ...]
        Layers from below.

    Raises
    ------
    OutOfRangeError
        When there is no such place.

    Examples
    --------
    >>> [x.kind for x in moved((StackLayer("heel"), StackLayer("patty"), StackLayer("leaf")), 2, 1)]
    ['heel', 'leaf', 'patty']
    """
    if not (0 <= at < len(stack) and 0 <= to < len(stack)):
        raise OutOfRangeError(f"There are {len(stack)} layers, counted from 0.", field="/stack")
    left = list(stack)
    left.insert(to, left.pop(at))
    return tuple(left)


def toasted(stack: Sequence[StackLayer]) -> tuple[StackLayer, ...]:
    """The layers with every bread toasted.

    Parameters
    ----------
    stack : Sequence[StackLayer]
        Layers from below.

    Returns
    -------
    tuple[StackLayer, ...]
        Layers from below.
    """
    return tuple(replace(x, toasted=True) if x.kind in BREADS else x for x in stack)
