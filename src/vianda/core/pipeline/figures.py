"""All figures of one evaluation together: what counsel judges and workings explain."""

from __future__ import annotations

from dataclasses import dataclass

from vianda.core.batch.batch import Batch
from vianda.core.batch.division import BatchYield
from vianda.core.batch.portions import Portions
from vianda.core.batch.salt_ledger import SaltFigures
from vianda.core.blend.blend import BlendFigures
from vianda.core.blend.connective import CollagenFigures
from vianda.core.blend.cost import CostFigures
from vianda.core.blend.grind import GrindPlan
from vianda.core.blend.label_names import NameFigures
from vianda.core.blend.slip import Slip
from vianda.core.cook.stove_plan import StovePlan
from vianda.core.equipment.kitchen import Bun, Kitchen, Surface
from vianda.core.heat.plan import HeatPlan
from vianda.core.inventory.fat_range import FatSpread
from vianda.core.inventory.inventory import Larder
from vianda.core.mix.figures import MixFigures
from vianda.core.model.formula import Formula
from vianda.core.model.styles import Style
from vianda.core.shape.figures import ShapeFigures
from vianda.core.shape.laying import Laid


@dataclass(frozen=True, slots=True)
class Figures:
    """Everything computed for a formula, and what it was computed from."""

    formula: Formula
    larder: Larder
    kitchen: Kitchen
    style: Style
    bun: Bun
    surface: Surface
    portions: Portions
    blend: BlendFigures
    names: tuple[NameFigures, ...]
    salt: SaltFigures
    shape: ShapeFigures
    heat: HeatPlan
    stove: StovePlan
    cost: CostFigures
    spread: FatSpread
    collagen: CollagenFigures
    grind: GrindPlan
    slip: Slip
    batch: Batch
    mix: MixFigures
    laid: Laid
    batch_yield: BatchYield
