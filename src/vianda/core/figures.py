"""All figures of one evaluation together: what counsel judges and workings explain."""

from __future__ import annotations

from dataclasses import dataclass

from vianda.core.batch import Batch
from vianda.core.blend import BlendFigures
from vianda.core.connective import CollagenFigures
from vianda.core.cost import CostFigures
from vianda.core.division import BatchYield
from vianda.core.fat_range import FatSpread
from vianda.core.formula import Formula
from vianda.core.grind import GrindPlan
from vianda.core.heat.plan import HeatPlan
from vianda.core.kitchen import Bun, Kitchen, Surface
from vianda.core.label_names import NameFigures
from vianda.core.larder import Larder
from vianda.core.mix.figures import MixFigures
from vianda.core.mix.salt_ledger import SaltFigures
from vianda.core.portions import Portions
from vianda.core.shape.figures import ShapeFigures
from vianda.core.shape.laying import Laid
from vianda.core.slip import Slip
from vianda.core.stove_plan import StovePlan
from vianda.core.styles import Style


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
