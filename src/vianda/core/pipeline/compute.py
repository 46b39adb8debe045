"""All figures of a formula, computed in the order in which they rest on each other; no words yet."""

from __future__ import annotations

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.batch.batch import Batch, batch_of
from vianda.core.batch.division import batch_yield
from vianda.core.batch.lines import per_meat
from vianda.core.batch.salt_ledger import kitchen_salt, salt_figures
from vianda.core.blend.blend import blend_fats, blend_figures, blend_meats, blend_spread, has_poultry
from vianda.core.blend.connective import collagen_figures
from vianda.core.blend.cost import cost_figures
from vianda.core.blend.grind import grind_plan
from vianda.core.blend.label_names import Additions, label_names
from vianda.core.blend.slip import butcher_slip
from vianda.core.cook.stove_plan import stove_plan
from vianda.core.equipment.kitchen import Kitchen, Surface
from vianda.core.heat.floor import floors_for
from vianda.core.heat.plan import HeatModel
from vianda.core.heat.practice import HabitTable
from vianda.core.inventory.inventory import Larder
from vianda.core.mix.figures import MixFigures, mix_figures
from vianda.core.model.edit import Figure
from vianda.core.model.field_table import FIGURES, range_text
from vianda.core.model.formula import Formula
from vianda.core.model.styles import BLOCKS, Style, style_of
from vianda.core.pipeline.figures import Figures
from vianda.core.shape.figures import ShapeFigures
from vianda.core.shape.laying import Laid, blocks_at_once, crumbled_at_once_g, discs_at_once
from vianda.core.shape.piece import bread_of, piece_figures

HABIT = HabitTable()


def _check_ranges(formula: Formula) -> None:
    """A formula from a file may hold what no edit would have let through."""
    values: dict[Figure, float] = {
        "guests": formula.dish.guests,
        "pieces_per_guest": formula.dish.pieces_per_guest,
        "piece_mass": formula.shape.piece_mass_g,
        "batch_mass": formula.shape.batch_mass_g,
        "thickness": formula.shape.thickness_mm,
        "salt": formula.seasoning.salt_frac,
        "surface_temp": formula.heat.surface_temp_c,
        "core_target": formula.heat.core_target_c,
        "services_per_week": formula.grind.services_per_week,
        "guests_per_piece": formula.dish.guests_per_piece,
        "meat_temp": formula.mix.meat_temp_c,
        "soak": formula.mix.soak_min,
        "chill": formula.mix.chill_min,
        "work_time": formula.mix.work_s,
        "spare_pieces": formula.dish.spare_pieces,
        "rim": formula.shape.rim_mm,
        "loss": formula.shape.loss_g,
    }
    for figure, value in values.items():
        rule = FIGURES[figure]
        if not rule.low - 1e-9 <= value <= rule.high + 1e-9:
            raise OutOfRangeError(range_text(figure, value), field=rule.pointer)


def compute(formula: Formula, *, larder: Larder, kitchen: Kitchen, heat_model: HeatModel = HABIT) -> Figures:
    """All figures of a formula, without words."""
    _check_ranges(formula)
    style = style_of(formula.dish.style, field="/dish/style")
    if style.dish != formula.dish.dish:
        raise OutOfRangeError(f"“{style.title}” is a {style.dish}, not a {formula.dish.dish}.", field="/dish/style")
    bun = bread_of(formula, style=style, kitchen=kitchen)
    surface = kitchen.surface(formula.heat.surface, field="/heat/surface")
    step_g = kitchen.scale.step_g
    meats = blend_meats(formula.parts, larder=larder)
    batch = batch_of(formula, larder=larder, kitchen=kitchen)
    portions = batch.portions
    spread = blend_spread(formula.parts, larder=larder)
    blend = blend_figures(
        formula.parts,
        larder=larder,
        batch_mass_g=batch.meat_weighed_g,
        step_g=step_g,
        band_frac=style.fat_band_frac,
        spread=spread,
    )
    collagen = collagen_figures([p.share_frac for p in blend.parts], meats, blend_fats(formula.parts, larder=larder))
    grind = grind_plan(
        blend.parts,
        larder=larder,
        kitchen=kitchen,
        style=style,
        grind=formula.grind,
        sinewy_frac=collagen.sinewy_share_frac,
    )
    shape = piece_figures(
        formula, style=style, batch=batch, blend=blend, surface=surface, larder=larder, kitchen=kitchen
    )
    salt = salt_figures(
        batch.ledger,
        meat_mass_g=batch.meat_mass_g,
        mix_mass_g=batch.mix_mass_g,
        piece_mass_g=portions.piece_mass_g,
        salt=kitchen_salt(kitchen.salt, larder.pantry),
        thickness_mm=shape.thickness_mm,
        diameter_mm=shape.raw_diameter_mm,
    )
    mix = mix_figures(
        formula, batch=batch, blend=blend, salt=salt, bun=bun, larder=larder, kitchen=kitchen, plate_mm=grind.plate_mm
    )
    floors = floors_for(
        country=kitchen.country, setting=kitchen.setting, poultry=has_poultry(blend), stuffed=is_stuffed(style, mix)
    )
    heat = heat_model.plan(style=style, shape=shape, blend=blend, heat=formula.heat, floors=floors)
    laid, at_once = _at_once(style, shape=shape, surface=surface, batch=batch)
    stove = stove_plan(
        heat=heat,
        portions=portions,
        salt=salt,
        surface=surface,
        surface_temp_c=formula.heat.surface_temp_c,
        laid=laid,
        at_once=at_once,
    )
    # Doubles share a bun; a slider or a grilled burger has its own.
    buns = (formula.dish.guests if style.stacked else portions.pieces) if bun.diameter_mm > 0 else 0
    cost = cost_figures(
        blend.parts,
        larder=larder,
        bun=bun,
        buns=buns,
        guests=formula.dish.guests,
        grind_loss_frac=grind.loss_frac,
        mix_cost=mix.cost,
    )
    slip = butcher_slip(
        blend=blend, cost=cost, portions=portions, grind=grind, services_per_week=formula.grind.services_per_week
    )
    names = label_names(
        blend, spread=spread, collagen=collagen, rule=kitchen.naming_rule, additions=_additions(batch, mix)
    )
    return Figures(
        formula=formula,
        larder=larder,
        kitchen=kitchen,
        style=style,
        bun=bun,
        surface=surface,
        portions=portions,
        blend=blend,
        salt=salt,
        names=names,
        shape=shape,
        heat=heat,
        stove=stove,
        cost=cost,
        spread=spread,
        collagen=collagen,
        grind=grind,
        slip=slip,
        batch=batch,
        mix=mix,
        laid=laid,
        batch_yield=batch_yield(formula, batch=batch, cooked_yield_frac=shape.cooked_yield_frac),
    )


def _at_once(style: Style, *, shape: ShapeFigures, surface: Surface, batch: Batch) -> tuple[Laid, int | None]:
    """Where the pieces of one wave lie; for what is crumbled, one place and how many portions brown at once."""
    if style.form == "crumbled":
        # Only the meat is browned; the rest of a portion comes to it in the pot.
        at_once = max(1, int(crumbled_at_once_g(surface) // (batch.meat_mass_g / batch.portions.pieces)))
        return Laid(((surface.width_mm / 2, surface.depth_mm / 2),), 0.0, 0.0), at_once
    if style.form in BLOCKS:
        laid = blocks_at_once(surface=surface, length_mm=shape.length_mm, width_mm=shape.width_mm, gap_mm=style.gap_mm)
        return laid, None
    return discs_at_once(surface=surface, diameter_mm=shape.raw_diameter_mm, gap_mm=style.gap_mm), None


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


def is_stuffed(style: Style, mix: MixFigures) -> bool:
    """Whether another thing lies in the middle: by the style, or since boiled eggs are among the lines."""
    return style.filled or any(line.group == "filling" and line.per_meat_frac > 0 for line in mix.lines)
