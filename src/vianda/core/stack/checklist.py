"""The build as a list to tick: what is made ready before, then each layer from below, so that none is left out."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Phrase, say
from vianda.core.model.formula import LayerKind
from vianda.core.stack.layers import BREADS, Build, Layer

When = Literal["before", "build"]
# What each wants before it is laid on. Common practice, no published source.
READY: Mapping[LayerKind, tuple[str, str]] = {
    "tomato": ("Tomato sliced", "Salted on a plate and drained, or it wets the bread."),
    "leaf": ("Leaves washed", "Dry, and cut to the bread."),
    "pickle": ("Pickles drained", "On paper: their brine makes it slide."),
    "relish": ("Relish drained", "In a sieve until it stops dripping."),
    "soft-onion": ("Soft onions ready", "Warm, their juice poured off."),
    "mushroom": ("Mushrooms cooked down", "Warm, and dry in the pan."),
    "pepper": ("Peppers cooked", "Warm and drained."),
    "bacon": ("Bacon fried crisp", "On paper, kept warm."),
    "egg": ("Eggs fried", "At the last moment; the yolk set for those most at risk."),
    "onion": ("Onion in rings", "In cold water for some minutes if it is too sharp."),
}
# How each is laid on. Common practice, no published source.
LAID: Mapping[LayerKind, str] = {
    "cheese": "While the patty is hot, so that it melts",
    "sauce": "To the edge",
    "leaf": "The hollow side up",
    "patty": "Off the heat and rested",
    "soft-onion": "Spread flat",
    "relish": "Spread flat",
}


@dataclass(frozen=True, slots=True)
class CheckLine:
    """One line to tick: when, what, how much of it in one build (g, 0 where it is counted), and how."""

    when: When
    title: str
    mass_g: float
    how: Phrase


def checklist(build: Build) -> tuple[CheckLine, ...]:
    """The lines of a build, what is made ready first.

    Parameters
    ----------
    build : Build
        Layers from below with their sizes.

    Returns
    -------
    tuple[CheckLine, ...]
        In the order of the hand; none for a build of a single layer, where nothing can be left out.

    References
    ----------
    Common practice, no published source.
    """
    if len(build.layers) < 2:
        return ()
    before: list[CheckLine] = []
    if any(x.kind in BREADS and x.toasted for x in build.layers):
        before.append(CheckLine("before", "Bread toasted", 0.0, say("Cut faces crisp, {t}.", t=ph.minutes(1.0, 2.0))))
    kinds = dict.fromkeys(x.kind for x in build.layers)
    before += [CheckLine("before", READY[kind][0], 0.0, say(READY[kind][1])) for kind in kinds if kind in READY]
    return (*before, *(_line(layer) for layer in build.layers))


def _line(layer: Layer) -> CheckLine:
    if layer.kind in BREADS:
        return CheckLine("build", layer.name, 0.0, say("Toasted face in." if layer.toasted else "Cut face in."))
    how = LAID.get(layer.kind)
    return CheckLine("build", layer.name, layer.mass_g, say(f"{how}." if how else ""))
