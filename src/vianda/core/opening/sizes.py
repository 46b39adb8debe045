"""How large a piece is, the mould it is made in, and its bread, as a line says them."""

from __future__ import annotations

from dataclasses import replace

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import say
from vianda.core.batch.batch import batch_of
from vianda.core.editing.choose_shape import usual_mould
from vianda.core.model.edit import Choose, SetFigure
from vianda.core.model.formula import Formula
from vianda.core.model.styles import FLAT, Style
from vianda.core.opening.division import dish_for
from vianda.core.opening.draft import PlanDraft
from vianda.core.pipeline.compute import prepare

# A loaf said to be so many mm is so wide up to here, so long above (ours).
WIDEST_LOAF_MM = 150.0
# A bread or a mould within so much of the size said is that one (ours), mm.
SAME_MM = 6.0


def sized(draft: PlanDraft, formula: Formula, style: Style) -> Formula:
    """The formula with the thickness, width and cooked weight that the line says.

    Parameters
    ----------
    draft : PlanDraft
        The wish; what was assumed and could not be kept is noted there.
    formula : Formula
        The formula so far.
    style : Style
        Its style.

    Returns
    -------
    Formula
        With those that can be kept; the others are told.
    """
    said = draft.said
    thick = list(said.thickness)
    across = list(said.across)
    for figure in said.lengths:
        flat = style.form in FLAT
        (thick if flat and figure.value <= 45 else across).append(figure)
    if thick:
        formula = draft.edit(
            formula, SetFigure("thickness", thick[0].value), say("{l} thick", l=ph.length(thick[0].value))
        )
        if across and style.form in FLAT and draft.wish.each_g is None and draft.wish.total_g is None:
            # Thickness and width are said, the weight is not: it is what fills them.
            return _filling(draft, formula, across[0].value)
    total = draft.wish.total_g
    counted_balls = style.form == "ball" and draft.wish.pieces is not None
    long_loaf = style.dish == "meatloaf" and bool(across) and across[0].value > WIDEST_LOAF_MM
    if across and total is not None and (counted_balls or long_loaf):
        # The size of a piece follows from the meat and the count that were said.
        draft.told.add("diameter")
        draft.remarks.append(
            say(
                "{l} is not kept: what {t} makes is as large as it comes.",
                l=ph.length(across[0].value),
                t=ph.mass(total),
            )
        )
    elif across and style.form != "crumbled":
        loaf = "width" if across[0].value <= WIDEST_LOAF_MM else "length"
        figure_name = "diameter" if style.form in (*FLAT, "ball") else loaf
        formula = draft.edit(
            formula,
            SetFigure(figure_name, across[0].value),  # type: ignore[arg-type]
            say("{l} across", l=ph.length(across[0].value)),
        )
        if style.form == "ball" and draft.wish.total_g is not None and formula.shape.portioning == "by_piece":
            formula = _weighed_out(draft, formula, style, draft.wish.total_g)
    if draft.wish.cooked_g is not None and draft.wish.each_g is not None:
        draft.remarks.append(
            say("{m} cooked is not kept: the raw weight was said too.", m=ph.mass(draft.wish.cooked_g))
        )
    elif draft.wish.cooked_g is not None:
        formula = draft.edit(
            formula, SetFigure("cooked_mass", draft.wish.cooked_g), say("{m} cooked", m=ph.mass(draft.wish.cooked_g))
        )
    return formula


def _filling(draft: PlanDraft, formula: Formula, across_mm: float) -> Formula:
    """Pieces as heavy as a disc of their thickness and the width said."""
    now = prepare(formula, inventory=draft.inventory, kitchen=draft.kitchen).piece.shape.raw_diameter_mm
    mass = formula.shape.piece_mass_g * (across_mm / now) ** 2
    draft.assumed.append(say("{m} each, as {l} across takes", m=ph.mass(mass), l=ph.length(across_mm)))
    return draft.edit(formula, SetFigure("piece_mass", mass), say("{m} each", m=ph.mass(mass)))


def _weighed_out(draft: PlanDraft, formula: Formula, style: Style, total_g: float) -> Formula:
    """Balls of the size said from the meat said: as many as it gives."""
    shape = replace(formula.shape, portioning="by_weights", batch_mass_g=total_g, remainder="bowl")
    weighed = replace(formula, shape=shape)
    mix = batch_of(weighed, inventory=draft.inventory, kitchen=draft.kitchen).portions.batch_mass_g
    pieces = max(1, int(mix / shape.piece_mass_g + 1e-9))
    return replace(weighed, dish=dish_for(draft, weighed.dish, style, pieces, weighed.dish.guests))


def moulded(draft: PlanDraft, formula: Formula, style: Style) -> Formula:
    """The formula in the tin, tray, scoop or ring that the line names, or that its batch fills.

    Parameters
    ----------
    draft : PlanDraft
        The wish; what was assumed and could not be kept is noted there.
    formula : Formula
        The formula so far.
    style : Style
        Its style.

    Returns
    -------
    Formula
        With the mould of the kitchen that is nearest.
    """
    if formula.shape.mould and not any(sizes for _, sizes, _ in draft.said.moulds):
        # The tin or tray that this batch fills, not the usual one.
        made = batch_of(formula, inventory=draft.inventory, kitchen=draft.kitchen).portions.piece_mass_g
        mould = usual_mould(style, kitchen=draft.kitchen, piece_mass_g=made)
        formula = replace(formula, shape=replace(formula.shape, mould=mould))
    for kind, sizes, _ in draft.said.moulds:
        fits = {"tin": ("tin",), "tray": ("tray",), "scoop": ("ball", "disc"), "ring": ("disc", "filled")}[kind]
        if style.form not in fits:
            continue
        offered = [m for m in draft.kitchen.moulds if m.kind == kind]
        if not offered:
            draft.remarks.append(say("No {kind} in this kitchen.", kind=ph.word(kind)))
            continue
        if kind == "scoop" and sizes:
            best = min(offered, key=lambda m: abs(m.scoop_number - sizes[0]))
            exact = best.scoop_number == sizes[0]
        elif sizes:
            best = min(offered, key=lambda m: abs(m.length_mm - max(sizes)))
            exact = abs(best.length_mm - max(sizes)) <= 2 * SAME_MM
        else:
            now = next((m for m in offered if m.key == formula.shape.mould), None)
            best, exact = now or offered[0], True
        if not exact:
            draft.remarks.append(say("Not that size in this kitchen: the nearest is {m}.", m=ph.word(best.name)))
        formula = draft.edit(formula, Choose("mould", best.key), say("{m}", m=ph.word(best.name)))
    return formula


def breaded(draft: PlanDraft, formula: Formula) -> Formula:
    """The formula with the bread that the line names, or without any.

    Parameters
    ----------
    draft : PlanDraft
        The wish; what was assumed and could not be kept is noted there.
    formula : Formula
        The formula so far.

    Returns
    -------
    Formula
        With the bread of the kitchen that is nearest.
    """
    said = draft.said
    if said.no_bun or (said.no_bread and formula.dish.dish == "burger"):
        key = next((b.key for b in draft.kitchen.buns if b.diameter_mm == 0), None)
        if key is None:
            draft.remarks.append(say("No bun: add “No bun” under Kitchen."))
            return formula
        return replace(formula, shape=replace(formula.shape, bun=key))
    if said.bun:
        return replace(formula, shape=replace(formula.shape, bun=said.bun))
    if said.bun_mm:
        wanted = said.bun_mm[0].value
        rounds = [b for b in draft.kitchen.buns if b.diameter_mm]
        if rounds:
            best = min(rounds, key=lambda b: abs(b.diameter_mm - wanted))
            if abs(best.diameter_mm - wanted) > SAME_MM:
                draft.remarks.append(
                    say("No bun of {l} in this kitchen: {b} is nearest.", l=ph.length(wanted), b=ph.word(best.name))
                )
            return replace(formula, shape=replace(formula.shape, bun=best.key))
    return formula
