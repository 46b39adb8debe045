"""The portion as it is served: what comes in at the heat and round the meat, what goes with it, and the build."""

from __future__ import annotations

from vianda.core.batch.batch import Batch
from vianda.core.cook.served import Served, beside, served
from vianda.core.equipment.kitchen import Surface
from vianda.core.heat.methods import on_heat, stages_of
from vianda.core.mix.figures import MixFigures
from vianda.core.model.styles import FLAT
from vianda.core.pipeline.figures import BesideSheet, Context, MeatFigures, PieceFigures
from vianda.core.sauce.figures import Table, beside_figures
from vianda.core.stack.checklist import checklist
from vianda.core.stack.layers import build_of, meat_layer, usual_stack
from vianda.core.stack.rules import StackRemark, remarks_on_build


def buns_of(context: Context, batch: Batch) -> int:
    """How many breads are eaten: doubles share one, a slider or a grilled burger has its own.

    Balls, slices of a loaf and meat sauce lie in one for each guest.

    Parameters
    ----------
    context : Context
        The formula with what it names looked up.
    batch : Batch
        The mix divided into pieces, and the meat in it.

    Returns
    -------
    int
        Breads (count); 0 without one.
    """
    if context.bun.diameter_mm <= 0:
        return 0
    alone = context.style.form in FLAT and not context.style.stacked
    return batch.portions.pieces if alone else context.formula.dish.guests


def served_of_context(
    context: Context, batch: Batch, meat: MeatFigures, piece: PieceFigures, mix: MixFigures
) -> Served:
    """Stage 9: what comes in at the heat and round the meat, and the portion as it is served.

    Parameters
    ----------
    context : Context
        The formula with what it names looked up.
    batch : Batch
        The mix divided into pieces, and the meat in it.
    meat : MeatFigures
        The results of the meat stage.
    piece : PieceFigures
        The results of the piece stage.
    mix : MixFigures
        The figures of the mix.

    Returns
    -------
    Served
        The portion, its allergens, and the limits that are broken.
    """
    formula = context.formula
    stages = on_heat(stages_of(formula.heat, context.style, context.surface))
    things = beside(
        formula,
        form=context.style.form,
        stages=stages,
        shape=piece.shape,
        portions=batch.portions,
        bun=context.bun,
        buns=buns_of(context, batch),
        inventory=context.inventory,
    )
    return served(
        formula,
        things=things,
        lines=mix.lines,
        blend=meat.blend,
        whole=mix.whole,
        stages=stages,
        inventory=context.inventory,
    )


def beside_of_context(context: Context, batch: Batch, meat: MeatFigures, piece: PieceFigures) -> BesideSheet:
    """Stage 9 too: doses and tastes of what goes with it, and the build.

    Parameters
    ----------
    context : Context
        The formula with what it names looked up.
    batch : Batch
        The mix divided into pieces, and the meat in it.
    meat : MeatFigures
        The results of the meat stage.
    piece : PieceFigures
        The results of the piece stage.

    Returns
    -------
    BesideSheet
        What goes with it, and what is built.
    """
    formula, pantry, bun = context.formula, context.inventory.pantry, context.bun
    guests = formula.dish.guests
    builds = buns_of(context, batch)
    # Without bread a build is what one guest is given.
    made = builds or guests
    stages = on_heat(stages_of(formula.heat, context.style, context.surface))
    cheese = formula.heat.cheese if any(s.cheese for s in stages) else ""
    patties = max(1, round(batch.portions.pieces / made)) if context.style.form in FLAT else 1
    stack = formula.stack or usual_stack(bun=bun, patties=patties, cheese=cheese, beside=formula.beside)
    build = build_of(
        stack,
        bun=bun,
        meat=meat_layer(piece.shape, context.style.form, pieces=batch.portions.pieces, builds=made),
        beside=formula.beside,
        pantry=pantry,
        usual=not formula.stack,
    )
    return BesideSheet(
        things=beside_figures(
            formula.beside,
            table=Table(
                guests, bun.diameter_mm, _pan_of(context), piece.shape, context.style.form, batch.portions.pieces
            ),
            pantry=pantry,
        ),
        stack=stack,
        build=build,
        builds=made,
        # A plate without bread and layers has nothing to leave out.
        checklist=checklist(build) if formula.stack or bun.diameter_mm > 0 else (),
    )


def remarks_of_build(context: Context, batch: Batch, meat: MeatFigures, sheet: BesideSheet) -> tuple[StackRemark, ...]:
    """What the rules of the build say of it; counsel says it to the cook.

    Parameters
    ----------
    context : Context
        The formula with what it names looked up.
    batch : Batch
        The mix divided into pieces, and the meat in it.
    meat : MeatFigures
        The results of the meat stage.
    sheet : BesideSheet
        What goes with it, and what is built.

    Returns
    -------
    tuple[StackRemark, ...]
        None for the usual build of a plain formula, which is nobody's choice.
    """
    formula = context.formula
    chosen = bool(formula.stack or formula.beside)
    if not chosen or buns_of(context, batch) == 0 or context.style.form not in FLAT:
        return ()
    return remarks_on_build(sheet.stack, sheet.build, fat_frac=meat.blend.fat_frac)


def _pan_of(context: Context) -> Surface:
    """What is cooked beside the meat lies on the meat's surface, or in a pan where that is a grate or an oven."""
    if context.surface.kind in ("plate", "pan"):
        return context.surface
    kitchen = context.kitchen
    return kitchen.surface_of_kind("pan") or kitchen.surface_of_kind("plate") or context.surface
