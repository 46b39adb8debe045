"""The one evaluation: formula, inventory and kitchen in; figures and counsel for every step out, workings on demand."""

from __future__ import annotations

from dataclasses import dataclass

from vianda.core.basis.working import Working
from vianda.core.batch.division import BatchYield
from vianda.core.batch.portions import Portions
from vianda.core.batch.salt_ledger import SaltFigures
from vianda.core.blend.blend import BlendFigures
from vianda.core.blend.connective import CollagenFigures
from vianda.core.blend.cost import CostFigures
from vianda.core.blend.grind import GrindPlan
from vianda.core.blend.label_names import NameFigures, widest_fat_limit
from vianda.core.blend.slip import Slip
from vianda.core.cook.served import Served
from vianda.core.cook.stove_plan import StovePlan
from vianda.core.counsel.rule import Counsel
from vianda.core.counsel.rules import counsel_on
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.evaluation.ticket import RailStep, TicketFigure, rail_of, ticket_of
from vianda.core.explain import corrections_of, workings_of
from vianda.core.heat.engine import DIRECT, Engine
from vianda.core.heat.plan import HeatPlan
from vianda.core.inventory.inventory import Inventory
from vianda.core.mix.figures import MixFigures
from vianda.core.mix.fry_test import Correction
from vianda.core.mix.protocol import Protocol
from vianda.core.mix.weigh_out import WeighOut
from vianda.core.model.edit import Figure
from vianda.core.model.field_table import FIGURES
from vianda.core.model.formula import Dish, Formula
from vianda.core.model.styles import Form
from vianda.core.pipeline.compute import compute
from vianda.core.pipeline.figures import BesideSheet
from vianda.core.shape.figures import ShapeFigures, takes_mould
from vianda.core.supply.arrival import ArrivalLimit, limit_ground


@dataclass(frozen=True, slots=True)
class FigureRange:
    """How far a figure may go, in its base unit, and what one nudge is."""

    low: float
    high: float
    nudge: float
    unit: str


@dataclass(frozen=True, slots=True)
class StyleLine:
    """What the screens need of the style chosen."""

    key: str
    dish: Dish
    form: Form
    baked: bool
    title: str
    line: str
    fat_band_frac: tuple[float, float]
    piece_mass_g: tuple[float, float]
    thickness_mm: tuple[float, float]
    surface_temp_c: tuple[float, float]
    gap_mm: float
    stacked: bool
    width_mm: float
    moulds: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Evaluation:
    """Everything Vianda says about a formula."""

    ticket: tuple[TicketFigure, ...]
    rail: tuple[RailStep, ...]
    style: StyleLine
    portions: Portions
    blend: BlendFigures
    names: tuple[NameFigures, ...]
    name_limit_frac: float | None
    collagen: CollagenFigures
    salt: SaltFigures
    shape: ShapeFigures
    heat: HeatPlan
    waves: int
    cost: CostFigures
    grind: GrindPlan
    mix: MixFigures
    served: Served
    beside: BesideSheet
    batch_yield: BatchYield
    counsel: tuple[Counsel, ...]


@dataclass(frozen=True, slots=True)
class Sheets:
    """What is opened beside the figures: the working of each, how the mix is made and weighed, what to do when the
    fried teaspoon tastes otherwise, the butcher's slip with how warm its blend may arrive, and the stove's steps.
    """

    workings: dict[str, Working]
    protocol: Protocol
    weigh_out: WeighOut
    corrections: tuple[Correction, ...]
    slip: Slip
    arrival: ArrivalLimit
    stove: StovePlan


def figure_ranges() -> dict[Figure, FigureRange]:
    """How far each figure may go, and what one nudge is.

    Returns
    -------
    dict[Figure, FigureRange]
        How far each figure may go, and what one nudge is.
    """
    return {key: FigureRange(rule.low, rule.high, rule.nudge, rule.unit) for key, rule in FIGURES.items()}


def sheets(formula: Formula, *, inventory: Inventory, kitchen: Kitchen, engine: Engine = DIRECT) -> Sheets:
    """What is opened beside the figures of a formula; asked for when it is.

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
    Sheets
        Workings by the id of their figure, and the sheets.

    Raises
    ------
    CoreError
        As ``evaluate``.
    """
    figures = compute(formula, inventory=inventory, kitchen=kitchen, engine=engine)
    return Sheets(
        workings=workings_of(figures),
        protocol=figures.sheet.protocol,
        weigh_out=figures.sheet.weigh_out,
        corrections=corrections_of(figures),
        slip=figures.trade.slip,
        arrival=limit_ground(figures.context.meats, country=kitchen.country),
        stove=figures.cook.stove,
    )


def evaluate(formula: Formula, *, inventory: Inventory, kitchen: Kitchen, engine: Engine = DIRECT) -> Evaluation:
    """Evaluate a whole formula.

    Pure: the same formula, larder and kitchen give the same answer.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.
    engine : Engine, default DIRECT
        Who runs the simulations of the heat.

    Returns
    -------
    Evaluation
        Everything Vianda says about a formula.

    Raises
    ------
    CoreError
        With a field pointer, when a value is outside what the rules cover or names something unknown.

    Examples
    --------
    >>> from vianda.core.demo.formulas import slipway_smash
    >>> from vianda.core.demo.kitchen import yard_galley
    >>> from vianda.core.inventory.inventory import starter_inventory
    >>> e = evaluate(slipway_smash(), inventory=starter_inventory(), kitchen=yard_galley())
    >>> e.portions.pieces * e.portions.piece_mass_g
    3400
    """
    figures = compute(formula, inventory=inventory, kitchen=kitchen, engine=engine)
    counsel = counsel_on(figures)
    style, trade = figures.context.style, figures.trade
    return Evaluation(
        ticket=ticket_of(figures),
        rail=rail_of(figures, counsel),
        style=StyleLine(
            style.key,
            style.dish,
            style.form,
            style.baked,
            style.title,
            style.line,
            style.fat_band_frac,
            style.piece_mass_g,
            style.thickness_mm,
            style.surface_temp_c,
            style.gap_mm,
            style.stacked,
            style.width_mm,
            takes_mould(style.form),
        ),
        portions=figures.batch.portions,
        blend=figures.meat.blend,
        names=trade.names,
        name_limit_frac=widest_fat_limit(trade.names),
        collagen=figures.meat.collagen,
        salt=figures.salt,
        shape=figures.piece.shape,
        heat=figures.cook.plan,
        waves=figures.piece.laying.waves,
        cost=trade.cost,
        grind=figures.meat.grind,
        mix=figures.mix,
        served=figures.served,
        beside=figures.beside,
        batch_yield=trade.batch_yield,
        counsel=counsel,
    )
