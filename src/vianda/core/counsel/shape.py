"""Counsel on division, weight, thickness and the bun."""

from __future__ import annotations

import math

from vianda.core.basis.phrase import count, length, mass, say, word
from vianda.core.counsel.rule import PRACTICE, Change, Remark, Rule
from vianda.core.model.edit import Choose, SetFigure
from vianda.core.model.styles import FLAT
from vianda.core.pipeline.figures import Figures
from vianda.core.shape.bun_fit import NARROW_MM, fitting_bun


def _do_not_divide(figures: Figures) -> Remark | None:
    portions = figures.batch.portions
    # All to the last one, or left in the bowl, is what the cook chose.
    if portions.heavier_pieces == 0 or portions.remainder != "first":
        return None
    down = portions.pieces * portions.piece_mass_g
    up = portions.pieces * (portions.piece_mass_g + portions.step_g)
    # With a mix the meat decides the batch by way of its ratio: then the piece is what is set.
    changes = tuple(
        Change(say("Make the batch {mass}", mass=mass(batch)), SetFigure("batch_mass", batch + figures.batch.loss_g))
        for batch in (down, up)
        if batch > 0 and figures.batch.mix_per_meat == 1.0
    ) or (
        Change(
            say("Make each {mass}", mass=mass(portions.piece_mass_g)), SetFigure("piece_mass", portions.piece_mass_g)
        ),
    )
    return Remark(
        say("{pieces} pieces do not divide {batch}", pieces=count(portions.pieces), batch=mass(portions.batch_mass_g)),
        say(
            "{n} of them weigh {heavy}, the other {rest} weigh {light}: the first ones take the remainder.",
            n=count(portions.heavier_pieces),
            heavy=mass(portions.heavier_mass_g),
            rest=count(portions.pieces - portions.heavier_pieces),
            light=mass(portions.piece_mass_g),
        ),
        changes,
    )


def _below_usual(figures: Figures) -> Remark | None:
    low, high = figures.context.style.piece_mass_g
    if figures.batch.portions.piece_mass_g >= low:
        return None
    return Remark(
        say(
            "{piece} is light for {style}",
            style=word(figures.context.style.title.lower()),
            piece=mass(figures.batch.portions.piece_mass_g),
        ),
        say(
            "Usual is {low} to {high} raw; a lighter one is done before it is browned."
            if figures.context.style.form != "crumbled"
            else "Usual is {low} to {high} of the mix for one.",
            low=mass(low),
            high=mass(high),
        ),
        (Change(say("Make it {mass}", mass=mass(low)), SetFigure("piece_mass", low)),),
    )


def _above_usual(figures: Figures) -> Remark | None:
    low, high = figures.context.style.piece_mass_g
    if figures.batch.portions.piece_mass_g <= high:
        return None
    return Remark(
        say(
            "{piece} is heavy for {style}",
            style=word(figures.context.style.title.lower()),
            piece=mass(figures.batch.portions.piece_mass_g),
        ),
        say(
            "Usual is {low} to {high} raw. Two thin ones bring more crust than one heavy one."
            if figures.context.style.form in FLAT
            else "Usual is {low} to {high} raw. A heavier one is slow to cook through: make more of them.",
            low=mass(low),
            high=mass(high),
        ),
        (Change(say("Make it {mass}", mass=mass(high)), SetFigure("piece_mass", high)),),
    )


def _thickness_unusual(figures: Figures) -> Remark | None:
    low, high = figures.context.style.thickness_mm
    now = figures.piece.shape.thickness_mm
    # A ball is as thick as its weight makes it, and what is crumbled has no thickness.
    # A tin or a tray that overflows has a rule of its own.
    if (
        low <= now <= high
        or figures.context.style.form in ("ball", "crumbled")
        or figures.piece.shape.vessel is not None
    ):
        return None
    end = low if now < low else high
    return Remark(
        say("{now} is not how this style is made", now=length(now)),
        say(
            "Usual is {low} to {high}; the minutes of usual practice are stretched beyond their table.",
            low=length(low),
            high=length(high),
        ),
        (Change(say("Make it {mm}", mm=length(end)), SetFigure("thickness", end)),),
    )


def _narrower_than_bun(figures: Figures) -> Remark | None:
    shape = figures.piece.shape
    gap = shape.bun_diameter_mm - shape.cooked_diameter_mm.usual
    if shape.bun_diameter_mm <= 0 or gap <= NARROW_MM or figures.context.style.form == "spread":
        return None
    change: list[Change] = []
    # A disc of the same mass grows as the root of its thinning; pressed to the half millimetre below.
    reach = shape.cooked_diameter_mm.usual / (shape.bun_diameter_mm - NARROW_MM)
    thinner = math.floor(shape.thickness_mm * reach**2 * 2) / 2
    fixed = any(w.key == shape.mould_key and w.kind == "ring" for w in figures.context.kitchen.moulds)
    if thinner >= figures.context.style.thickness_mm[0] and not fixed:
        change.append(Change(say("Make it {mm} thick", mm=length(thinner)), SetFigure("thickness", thinner)))
    best = fitting_bun(figures.context.kitchen, cooked_diameter_mm=shape.cooked_diameter_mm.usual)
    if best.diameter_mm - shape.cooked_diameter_mm.usual <= NARROW_MM:
        change.append(Change(say("Take {bun}", bun=word(best.name)), Choose("bun", best.key)))
    return Remark(
        say("Comes out {gap} narrower than its bun", gap=length(gap)),
        say(
            "{raw} raw draws in to about {cooked}. Press it thinner, make it heavier, or take a smaller bun.",
            raw=length(shape.raw_diameter_mm),
            cooked=length(shape.cooked_diameter_mm.usual),
        ),
        tuple(change),
    )


RULES = (
    Rule(
        "shape.pieces-do-not-divide",
        "shape",
        "check",
        "the batch is not pieces × a weight on the scale's step",
        "arithmetic",
        _do_not_divide,
    ),
    Rule("shape.below-usual-weight", "shape", "check", "piece below the style's usual weight", PRACTICE, _below_usual),
    Rule("shape.above-usual-weight", "shape", "check", "piece above the style's usual weight", PRACTICE, _above_usual),
    Rule(
        "shape.thickness-unusual", "shape", "check", "raw thickness outside the style's", PRACTICE, _thickness_unusual
    ),
    Rule(
        "shape.narrower-than-bun",
        "shape",
        "check",
        "usual cooked diameter over 5 mm below the bun's",
        PRACTICE,
        _narrower_than_bun,
    ),
)
