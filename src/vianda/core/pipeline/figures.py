"""What the stages of an evaluation give: one small result each, and all of them together for counsel and workings."""

from __future__ import annotations

from dataclasses import dataclass

from vianda.core.batch.batch import Batch
from vianda.core.batch.division import BatchYield
from vianda.core.batch.salt_ledger import SaltFigures
from vianda.core.blend.blend import BlendFigures
from vianda.core.blend.connective import CollagenFigures
from vianda.core.blend.cost import CostFigures
from vianda.core.blend.grind import GrindPlan
from vianda.core.blend.label_names import NameFigures
from vianda.core.blend.slip import Slip
from vianda.core.cook.served import Served
from vianda.core.cook.stove_plan import StovePlan
from vianda.core.equipment.kitchen import Bun, Kitchen, Surface
from vianda.core.heat.case import CookCase
from vianda.core.heat.plan import HeatPlan
from vianda.core.inventory.fat_range import FatSpread
from vianda.core.inventory.inventory import Inventory, Meat
from vianda.core.mix.figures import MixFigures
from vianda.core.mix.sheet import MixSheet
from vianda.core.model.formula import Formula, StackLayer
from vianda.core.model.styles import Style
from vianda.core.sauce.figures import BesideFigures
from vianda.core.shape.figures import ShapeFigures
from vianda.core.shape.laying import Laying
from vianda.core.shape.piece_composition import PieceComposition
from vianda.core.stack.checklist import CheckLine
from vianda.core.stack.layers import Build
from vianda.core.stack.rules import StackRemark


@dataclass(frozen=True, slots=True)
class Context:
    """The formula with what it names looked up: style, bread, surface and meats, and the inventory and kitchen
    they are in."""

    formula: Formula
    inventory: Inventory
    kitchen: Kitchen
    style: Style
    bun: Bun
    surface: Surface
    meats: tuple[Meat, ...]


@dataclass(frozen=True, slots=True)
class MeatFigures:
    """The blend on the scale with its spread, its connective tissue, and how it is ground."""

    blend: BlendFigures
    spread: FatSpread
    collagen: CollagenFigures
    grind: GrindPlan


@dataclass(frozen=True, slots=True)
class PieceFigures:
    """One piece: what it is made of, its size raw and cooked, and how the batch lies on its surface."""

    composition: PieceComposition
    shape: ShapeFigures
    laying: Laying


@dataclass(frozen=True, slots=True)
class Prepared:
    """The stages before the heat, and what the heat needs to know of them."""

    context: Context
    batch: Batch
    meat: MeatFigures
    piece: PieceFigures
    case: CookCase


@dataclass(frozen=True, slots=True)
class CookFigures:
    """The heat as planned, what to do at the stove, and the piece it was planned for."""

    plan: HeatPlan
    stove: StovePlan
    case: CookCase


@dataclass(frozen=True, slots=True)
class BesideSheet:
    """What goes with it, what is built, and its list to tick; ``builds`` of them are made."""

    things: tuple[BesideFigures, ...]
    stack: tuple[StackLayer, ...]
    build: Build
    builds: int
    checklist: tuple[CheckLine, ...]


@dataclass(frozen=True, slots=True)
class TradeFigures:
    """What it costs, what to order, what it may be called, and what the bowl yields."""

    cost: CostFigures
    slip: Slip
    names: tuple[NameFigures, ...]
    batch_yield: BatchYield


@dataclass(frozen=True, slots=True)
class Figures:
    """The results of all stages, which the last ones (counsel, workings, ticket) read."""

    context: Context
    batch: Batch
    meat: MeatFigures
    piece: PieceFigures
    salt: SaltFigures
    mix: MixFigures
    sheet: MixSheet
    cook: CookFigures
    served: Served
    beside: BesideSheet
    build_remarks: tuple[StackRemark, ...]
    trade: TradeFigures
