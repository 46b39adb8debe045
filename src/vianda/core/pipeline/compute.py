"""The stages of an evaluation, each computed once from what it needs; see docs/pipeline.md for the picture."""

from __future__ import annotations

from dataclasses import replace

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.batch.batch import Batch, batch_of
from vianda.core.batch.division import batch_yield
from vianda.core.batch.lines import per_meat
from vianda.core.batch.salt_ledger import SaltFigures, kitchen_salt, salt_figures
from vianda.core.blend.blend import blend_fats, blend_figures, blend_meats, blend_spread, has_poultry
from vianda.core.blend.connective import collagen_figures
from vianda.core.blend.cost import cost_figures
from vianda.core.blend.grind import grind_plan
from vianda.core.blend.label_names import Additions, label_names
from vianda.core.blend.slip import butcher_slip
from vianda.core.cook.served import Served
from vianda.core.cook.stove_plan import stove_plan
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.heat.case import CookCase
from vianda.core.heat.computed import ComputedHeat, computed_heat
from vianda.core.heat.engine import DIRECT, Engine
from vianda.core.heat.floor import floors_for, target_meant
from vianda.core.heat.practice import practice_plan
from vianda.core.inventory.inventory import Inventory
from vianda.core.mix.figures import MixFigures, mix_figures
from vianda.core.mix.sheet import mix_sheet
from vianda.core.model.field_table import FIGURES, range_text, stored_value
from vianda.core.model.formula import Formula
from vianda.core.model.styles import BLOCKS, style_of
from vianda.core.pipeline.figures import (
    Context,
    CookFigures,
    Figures,
    MeatFigures,
    PieceFigures,
    Prepared,
    TradeFigures,
)
from vianda.core.pipeline.portion import beside_of_context, buns_of, remarks_of_build, served_of_context
from vianda.core.sauce.figures import made_grams
from vianda.core.sauce.from_raw import taken_frac
from vianda.core.shape.laying import laying_of
from vianda.core.shape.piece import bread_of, piece_shape
from vianda.core.shape.piece_composition import piece_composition


def _check_ranges(formula: Formula) -> None:
    """A formula from a file may hold what no edit would have let through."""
    for figure, rule in FIGURES.items():
        if rule.stored and not rule.holds(value := stored_value(formula, figure)):
            raise OutOfRangeError(range_text(figure, value), field=rule.pointer)


def context_of(formula: Formula, *, inventory: Inventory, kitchen: Kitchen) -> Context:
    """Stage 1: the formula's ranges checked, and what it names looked up.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.

    Returns
    -------
    Context
        The formula with what it names looked up.

    Raises
    ------
    OutOfRangeError
        “…” is a …, not a ….
    """
    _check_ranges(formula)
    style = style_of(formula.dish.style, field="/dish/style")
    if style.dish != formula.dish.dish:
        raise OutOfRangeError(f"“{style.title}” is a {style.dish}, not a {formula.dish.dish}.", field="/dish/style")
    return Context(
        formula=formula,
        inventory=inventory,
        kitchen=kitchen,
        style=style,
        bun=bread_of(formula, style=style, kitchen=kitchen),
        surface=kitchen.surface(formula.heat.surface, field="/heat/surface"),
        meats=tuple(blend_meats(formula.parts, inventory=inventory)),
    )


def meat_of_context(context: Context, batch: Batch) -> MeatFigures:
    """Stage 3: the blend, its spread, its connective tissue, and the grind.

    Parameters
    ----------
    context : Context
        The formula with what it names looked up.
    batch : Batch
        The mix divided into pieces, and the meat in it.

    Returns
    -------
    MeatFigures
        The blend on the scale with its spread, its connective tissue, and how it is ground.
    """
    formula, inventory, kitchen, style = context.formula, context.inventory, context.kitchen, context.style
    spread = blend_spread(formula.parts, inventory=inventory)
    blend = blend_figures(
        formula.parts,
        inventory=inventory,
        batch_mass_g=batch.meat_weighed_g,
        step_g=kitchen.scale.step_g,
        band_frac=style.fat_band_frac,
        spread=spread,
    )
    collagen = collagen_figures(
        [p.share_frac for p in blend.parts], context.meats, blend_fats(formula.parts, inventory=inventory)
    )
    grind = grind_plan(
        blend.parts,
        inventory=inventory,
        kitchen=kitchen,
        style=style,
        grind=formula.grind,
        sinewy_frac=collagen.sinewy_share_frac,
    )
    return MeatFigures(blend, spread, collagen, grind)


def piece_of_context(context: Context, batch: Batch, meat: MeatFigures) -> PieceFigures:
    """Stage 4: what a piece is made of, its size, and how the batch lies on its surface.

    Parameters
    ----------
    context : Context
        The formula with what it names looked up.
    batch : Batch
        The mix divided into pieces, and the meat in it.
    meat : MeatFigures
        The results of the meat stage.

    Returns
    -------
    PieceFigures
        One piece.
    """
    style, surface = context.style, context.surface
    composition = piece_composition(meat.blend, batch=batch, inventory=context.inventory)
    shape = piece_shape(
        context.formula,
        style=style,
        piece_mass_g=batch.portions.piece_mass_g,
        composition=composition,
        surface=surface,
        kitchen=context.kitchen,
    )
    laying = laying_of(
        style.form,
        surface=surface,
        pieces=batch.portions.pieces,
        diameter_mm=shape.raw_diameter_mm,
        length_mm=shape.length_mm,
        width_mm=shape.width_mm,
        gap_mm=style.gap_mm,
        crumbled_g=batch.meat_mass_g / batch.portions.pieces,
        taken_frac=_taken_frac(context),
    )
    return PieceFigures(composition, shape, laying)


def _taken_frac(context: Context) -> float:
    """Share of the surface that something beside the first wave takes; an oven and a pot have room for all."""
    formula = context.formula
    if context.surface.kind not in ("plate", "pan", "grate") or context.style.form in BLOCKS:
        return 0.0
    wanted = [(a.ingredient, made_grams(a, guests=formula.dish.guests)) for a in formula.beside]
    return taken_frac(wanted, surface=context.surface)


def salt_of_context(context: Context, batch: Batch, piece: PieceFigures) -> SaltFigures:
    """Stage 6: the salt ledger in this kitchen's measures.

    Parameters
    ----------
    context : Context
        The formula with what it names looked up.
    batch : Batch
        The mix divided into pieces, and the meat in it.
    piece : PieceFigures
        The results of the piece stage.

    Returns
    -------
    SaltFigures
        Salt of a batch.
    """
    return salt_figures(
        batch.ledger,
        meat_mass_g=batch.meat_mass_g,
        mix_mass_g=batch.mix_mass_g,
        piece_mass_g=batch.portions.piece_mass_g,
        salt=kitchen_salt(context.kitchen.salt, context.inventory.pantry),
        thickness_mm=piece.shape.thickness_mm,
        diameter_mm=piece.shape.raw_diameter_mm,
    )


def mix_of_context(context: Context, batch: Batch, meat: MeatFigures, salt: SaltFigures) -> MixFigures:
    """Stage 7: what goes in, and how the mix holds, works and weighs out.

    Parameters
    ----------
    context : Context
        The formula with what it names looked up.
    batch : Batch
        The mix divided into pieces, and the meat in it.
    meat : MeatFigures
        The results of the meat stage.
    salt : SaltFigures
        The salt figures of the batch.

    Returns
    -------
    MixFigures
        The mix of a formula.
    """
    return mix_figures(
        context.formula,
        batch=batch,
        blend=meat.blend,
        salt=salt,
        inventory=context.inventory,
        kitchen=context.kitchen,
        plate_mm=meat.grind.plate_mm,
    )


def cook_case(context: Context, batch: Batch, meat: MeatFigures, piece: PieceFigures) -> CookCase:
    """Stage 5: what the heat needs to know, with the times of usual practice and the published floors.

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
    CookCase
        One kind of piece and how it is to be cooked.
    """
    style, kitchen, heat = context.style, context.kitchen, context.formula.heat
    floors = floors_for(
        country=kitchen.country,
        setting=kitchen.setting,
        poultry=has_poultry(meat.blend),
        stuffed=style.filled or is_stuffed(batch),
    )
    target = target_meant(heat.target_core_temp_c, floors.leading, unit_system=kitchen.unit_system)
    heat = replace(heat, target_core_temp_c=target)
    usual = practice_plan(style=style, shape=piece.shape, heat=heat, floors=floors)
    return CookCase(
        style=style,
        heat=heat,
        firmness=context.formula.shape.firmness,
        kitchen=kitchen,
        surface=context.surface,
        shape=piece.shape,
        composition=piece.composition,
        laying=piece.laying,
        usual=usual,
        pieces=batch.portions.pieces,
        piece_mass_g=batch.portions.piece_mass_g,
    )


def prepare(formula: Formula, *, inventory: Inventory, kitchen: Kitchen) -> Prepared:
    """All that a formula's heat is computed from, and nothing else.

    Parameters
    ----------
    formula : Formula
        The design.
    inventory : Inventory
        The meats, lots and ingredients it names.
    kitchen : Kitchen
        Where it is made.

    Returns
    -------
    Prepared
        The results of the stages before the heat.

    Raises
    ------
    CoreError
        When a value is outside what the rules cover, or names something unknown.
    """
    context = context_of(formula, inventory=inventory, kitchen=kitchen)
    batch = batch_of(formula, inventory=inventory, kitchen=kitchen)
    meat = meat_of_context(context, batch)
    piece = piece_of_context(context, batch, meat)
    return Prepared(context, batch, meat, piece, cook_case(context, batch, meat, piece))


def cook_of_context(
    context: Context, batch: Batch, salt: SaltFigures, piece: PieceFigures, heat: ComputedHeat
) -> CookFigures:
    """Stage 8: the stove's steps from the computed heat.

    Parameters
    ----------
    context : Context
        The formula with what it names looked up.
    batch : Batch
        The mix divided into pieces, and the meat in it.
    salt : SaltFigures
        The salt figures of the batch.
    piece : PieceFigures
        The results of the piece stage.
    heat : ComputedHeat
        The computed plan, and the wait between waves.

    Returns
    -------
    CookFigures
        The heat as planned, and what to do at the stove.
    """
    loose = batch.meat_mass_g / batch.portions.pieces if context.style.form == "crumbled" else 0.0
    stove = stove_plan(
        heat=heat.plan,
        laying=piece.laying,
        salt=salt,
        surface=context.surface,
        surface_temp_c=context.formula.heat.surface_temp_c,
        wait_s=heat.wait_s,
        load_mass_g=loose * piece.laying.at_once,
    )
    return CookFigures(heat.plan, stove, heat.case)


def trade_of_context(
    context: Context, batch: Batch, meat: MeatFigures, piece: PieceFigures, mix: MixFigures, portion: Served
) -> TradeFigures:
    """Stage 10: money, the butcher's slip, names, and what the bowl yields.

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
    portion : Served
        The portion as it is served.

    Returns
    -------
    TradeFigures
        What it costs, what to order, what it may be called, and what the bowl yields.
    """
    formula, portions = context.formula, batch.portions
    cost = cost_figures(
        meat.blend.parts,
        inventory=context.inventory,
        bun=context.bun,
        buns=buns_of(context, batch),
        guests=formula.dish.guests,
        grind_loss_frac=meat.grind.loss_frac,
        mix_cost=mix.cost,
        heat_cost=portion.cost,
    )
    slip = butcher_slip(
        blend=meat.blend,
        cost=cost,
        portions=portions,
        grind=meat.grind,
        services_per_week=formula.grind.services_per_week,
    )
    names = label_names(
        meat.blend,
        spread=meat.spread,
        collagen=meat.collagen,
        rule=context.kitchen.naming_rule,
        additions=_additions(batch, mix),
    )
    yields = batch_yield(
        formula,
        batch=batch,
        cooked_yield_frac=piece.shape.cooked_yield_frac,
        water_lost_g=piece.shape.water_lost_g,
        fat_rendered_g=piece.shape.fat_rendered_g,
        bowl_factor=context.kitchen.bowl_factor,
    )
    return TradeFigures(cost, slip, names, yields)


def compute(formula: Formula, *, inventory: Inventory, kitchen: Kitchen, engine: Engine = DIRECT) -> Figures:
    """All figures of a formula, without words: stages 1 to 10, each once.

    Parameters
    ----------
    formula : Formula
        The design.
    inventory : Inventory
        The meats, lots and ingredients it names.
    kitchen : Kitchen
        Where it is made.
    engine : Engine, default DIRECT
        Who runs the simulations of the heat.

    Returns
    -------
    Figures
        The result of each stage.

    Raises
    ------
    CoreError
        When a value is outside what the rules cover, or names something unknown.
    """
    ready = prepare(formula, inventory=inventory, kitchen=kitchen)
    context, batch, meat, piece = ready.context, ready.batch, ready.meat, ready.piece
    salt = salt_of_context(context, batch, piece)
    mix = mix_of_context(context, batch, meat, salt)
    heat = computed_heat(ready.case, engine=engine)
    portion = served_of_context(context, batch, meat, piece, mix)
    sheet = beside_of_context(context, batch, meat, piece)
    return Figures(
        context=context,
        batch=batch,
        meat=meat,
        piece=piece,
        salt=salt,
        mix=mix,
        sheet=mix_sheet(
            formula, batch=batch, blend=meat.blend, salt=salt, mix=mix, inventory=inventory, kitchen=kitchen
        ),
        cook=cook_of_context(context, batch, salt, piece, heat),
        served=portion,
        beside=sheet,
        build_remarks=remarks_of_build(context, batch, meat, sheet),
        trade=trade_of_context(context, batch, meat, piece, mix, portion),
    )


def _additions(batch: Batch, mix: MixFigures) -> Additions:
    more = any(line.per_meat_frac > 0 and line.group not in SEASONINGS for line in mix.lines)
    return Additions(
        meat_frac=1.0 / batch.mix_per_meat,
        # The limit speaks of the salt in the mince: what is strewn on a patty at the stove is not in it.
        salt_frac=(batch.ledger.brought_frac + (batch.mix_per_meat - 1.0 - per_meat(batch.entered)))
        / batch.mix_per_meat,
        more_than_seasoning=more,
    )


# What 9 CFR 319.15 lets pass as seasoning.
SEASONINGS = frozenset({"spice", "herb", "salt", "filling"})


def is_stuffed(batch: Batch) -> bool:
    """Whether something lies whole in the middle, such as boiled eggs in a loaf.

    Parameters
    ----------
    batch : Batch
        The mix divided into pieces, and the meat in it.

    Returns
    -------
    bool
        Whether something lies whole in the middle, such as boiled eggs in a loaf.
    """
    return any(e.group == "filling" and e.line.per_meat_frac > 0 for e in batch.entered)
