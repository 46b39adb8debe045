"""Counsel on how a piece holds on its way to the heat: packing, cold, edges, papers; and pieces for everybody."""

from __future__ import annotations

from vianda.core.basis.phrase import count, length, say
from vianda.core.counsel.rule import PRACTICE, Change, Remark, Rule
from vianda.core.model.edit import Choose, SetFigure
from vianda.core.model.styles import FLAT
from vianda.core.pipeline.figures import Figures

RAGGED_FROM_MM = 12.0


def _binds(figures: Figures) -> bool:
    return any(line.group in ("egg", "white") and line.per_meat_frac > 0 for line in figures.mix.lines)


def _loose_on_a_grate(figures: Figures) -> Remark | None:
    if figures.context.surface.kind != "grate" or figures.piece.shape.packing != "loose" or _binds(figures):
        return None
    if figures.context.formula.shape.firmness != "soft":
        return None
    return Remark(
        say("Too loose for an open grate"),
        say(
            "A loosely ringed piece keeps its juice, but falls through the bars. Pack it lightly, chill it, put an egg "
            "white in, or take the plate."
        ),
        (
            Change(say("Pack it lightly"), Choose("packing", "light")),
            Change(say("Chill it first"), Choose("firmness", "chilled")),
        ),
    )


def _soft_to_the_heat(figures: Figures) -> Remark | None:
    # A ball that is smashed may be soft; what keeps its shape may not.
    if (
        figures.context.formula.shape.firmness != "soft"
        or figures.context.style.press_by_s > 0
        or figures.context.style.form == "crumbled"
    ):
        return None
    return Remark(
        say("Too warm to hold its shape"),
        say("Soft fat smears, and a warm piece sags or breaks when it is lifted. Half an hour in the cold firms it."),
        (Change(say("Chill it first"), Choose("firmness", "chilled")),),
    )


def _frozen_to_smash(figures: Figures) -> Remark | None:
    if figures.context.formula.shape.firmness != "frozen" or figures.context.style.press_by_s <= 0:
        return None
    return Remark(
        say("Frozen firm it will not smash"),
        say("It cracks at the rim, and the plate loses its heat before it yields."),
        (Change(say("Take it chilled"), Choose("firmness", "chilled")),),
    )


def _frozen_is_slower(figures: Figures) -> Remark | None:
    if (
        figures.context.formula.shape.firmness != "frozen"
        or figures.context.style.press_by_s > 0
        or figures.context.style.form == "crumbled"
    ):
        return None
    return Remark(
        say("Frozen firm, it takes longer than the minutes say"),
        say("To thaw and cook takes about twice the heat of cooking from cold. The thermometer decides."),
    )


def _ragged(figures: Figures) -> Remark | None:
    if figures.context.formula.shape.edges != "ragged" or figures.piece.shape.thickness_mm < RAGGED_FROM_MM:
        return None
    if figures.context.style.form not in FLAT:
        return None
    return Remark(
        say("A ragged rim cracks and burns first"),
        say("On a thin smash it makes lace; at {mm} it splits towards the middle.", mm=length(RAGGED_FROM_MM)),
        (Change(say("Round the edges"), Choose("edges", "rounded")),),
    )


def _stacked_bare(figures: Figures) -> Remark | None:
    ahead = figures.context.formula.grind.keep != "fresh"
    if (
        not ahead
        or figures.context.formula.shape.papers
        or figures.context.style.form not in FLAT
        or figures.context.style.press_by_s > 0
    ):
        return None
    return Remark(
        say("Made ahead and stacked, with nothing between"),
        say("They freeze or stick together and tear when they are parted. A paper under each one."),
        (Change(say("Put papers between"), Choose("papers", "yes")),),
    )


def _too_few(figures: Figures) -> Remark | None:
    dish = figures.context.formula.dish
    wanted = dish.pieces - dish.spare_pieces
    short = wanted - figures.batch.portions.pieces
    if short <= 0:
        return None
    changes: tuple[Change, ...] = ()
    if figures.context.formula.shape.portioning != "by_weights":
        changes = (Change(say("Make {n}", n=count(wanted)), SetFigure("spare_pieces", 0.0)),)
    return Remark(
        say("{n} pieces too few for {g} guests", n=count(short), g=count(dish.guests)),
        say(
            "{all} are wanted, {made} are made. Lighter ones, a larger batch, or fewer guests.",
            all=count(wanted),
            made=count(figures.batch.portions.pieces),
        ),
        changes,
    )


RULES = (
    Rule(
        "shape.loose-on-a-grate",
        "shape",
        "check",
        "loose and soft over a grate, without egg",
        PRACTICE,
        _loose_on_a_grate,
    ),
    Rule("shape.soft-to-the-heat", "shape", "check", "not chilled, and not to be smashed", PRACTICE, _soft_to_the_heat),
    Rule("shape.frozen-to-smash", "shape", "check", "frozen firm, and to be smashed", PRACTICE, _frozen_to_smash),
    Rule("shape.frozen-is-slower", "shape", "note", "frozen firm to the heat", PRACTICE, _frozen_is_slower),
    Rule("shape.ragged-edge", "shape", "note", "ragged edge at 12 mm or more", PRACTICE, _ragged),
    Rule(
        "shape.stacked-bare", "shape", "check", "made ahead or frozen without papers between", PRACTICE, _stacked_bare
    ),
    Rule("shape.too-few", "shape", "check", "fewer pieces than the guests were promised", "arithmetic", _too_few),
)
