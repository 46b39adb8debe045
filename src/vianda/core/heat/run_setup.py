"""From a piece and how it is cooked to what is simulated: the piece, its stages on this equipment, the factors."""

from __future__ import annotations

import math
from dataclasses import dataclass

from vianda.core.heat.boundary_conditions import Around, cold_stages, cook_stages, resting_stage
from vianda.core.heat.case import CookCase
from vianda.core.heat.conduction.body import Middle, PieceGeometry
from vianda.core.heat.conduction.meat import meat_of
from vianda.core.heat.conduction.run import Factors, Setup
from vianda.core.heat.methods import before_heat, check_stages, on_heat, stages_of
from vianda.core.inventory.composition import Composition
from vianda.core.model.formula import Packing
from vianda.core.model.styles import BLOCKS, FLAT
from vianda.core.shape.density import PACKING
from vianda.core.shape.solids import section_frac

# From the fridge to the heat: what a piece has warmed to on its way (common practice: cold from the fridge).
START_C = {"soft": 10.0, "chilled": 5.0, "frozen": -18.0}
# Juice and steam carry heat besides conduction where there is room between the strands: common practice's minutes ask
# for a quarter more in a loosely packed piece and for nothing in one pressed hard. A loaf holds its water. Ours, low.
K_PACKED: dict[Packing, float] = {"firm": 1.0, "light": 1.2, "loose": 1.25}
K_LOAF = 1.0
# What crumb, egg and starch hold back of the drip, by their mass a mass of meat: 0.35 falls to 0.30. Ours.
HELD_PER_BINDER, HELD_MOST = 0.8, 0.2
# A loaf shorter than this cooks from its ends too: from a prototype.
SHORT_LOAF_MM = 180.0


@dataclass(frozen=True, slots=True)
class Overrides:
    """What a run may be asked with beyond the formula: the surface as it measures now, and how much faster heat
    runs."""

    surface_now_c: float | None = None
    k_factor: float = 1.0


NO_OVERRIDES = Overrides()


def setup_of(case: CookCase, overrides: Overrides = NO_OVERRIDES) -> Setup:
    """What is simulated for a formula's piece.

    Parameters
    ----------
    case : CookCase
        The piece and how it is cooked.
    overrides : Overrides, default NO_OVERRIDES
        What is taken instead of the formula's own values.

    Returns
    -------
    Setup
        All that decides how a piece cooks.

    Raises
    ------
    OutOfRangeError
        When its stages cannot be gone through; see ``methods.check_stages``.
    """
    style, shape, heat = case.style, case.shape, case.heat
    stages = stages_of(heat, style, case.surface)
    check_stages(stages, form=style.form, on=case.surface.kind, kitchen=case.kitchen)
    composition = case.composition
    surface = case.surface
    whole = surface.width_mm * surface.depth_mm * (math.pi / 4 if surface.round_shape else 1.0)
    laid = min(case.laying.at_once, case.pieces) * math.pi / 4 * shape.raw_diameter_mm**2
    skin_cm2 = shape.lumps.surface_cm2 * case.laying.at_once if shape.lumps else 0.0
    around = Around(
        form=style.form,
        diameter_mm=max(20.0, shape.raw_diameter_mm),
        kitchen=case.kitchen,
        surface=surface,
        heat=heat,
        covered_frac=min(0.95, laid / whole),
        on_heat_s=min(300.0, case.usual.on_heat_s.usual),
        pan_share=min(1.0, whole / max(1.0, 100.0 * skin_cm2)),
    )
    held = min(HELD_MOST, HELD_PER_BINDER * composition.binder_frac)
    base = K_LOAF if style.form in BLOCKS else K_PACKED[shape.packing]
    rest_s = max(90.0, 1.5 * style.rest_s[1])
    return Setup(
        piece=_piece(case, composition.mix, composition.filling),
        stages=cook_stages(on_heat(stages), around),
        resting=resting_stage(heat.resting, rest_s, around),
        before=cold_stages(before_heat(stages), style.form),
        start_c=START_C[case.firmness],
        surface_c=heat.surface_temp_c if overrides.surface_now_c is None else overrides.surface_now_c,
        pull_c=heat.target_core_temp_c,
        factors=Factors(k=base * overrides.k_factor, drip=1.0 - held),
    )


def _piece(case: CookCase, mix: Composition, core: Composition | None) -> PieceGeometry:
    style, shape = case.style, case.shape
    meat = meat_of(mix, packing=PACKING[shape.packing])
    middle_meat = meat_of(core, packing=1.0) if core is not None else None
    if style.form in FLAT:
        # A flat piece thickens as it draws in; the mean of raw and cooked is simulated.
        size = (shape.thickness_mm + shape.cooked_thickness_mm.usual) / 2
        middle = Middle(middle_meat, shape.filling.thickness_mm) if shape.filling and middle_meat else None
        return PieceGeometry("slab", size, meat, middle=middle)
    if style.form == "ball":
        return PieceGeometry("ball", shape.raw_diameter_mm, meat)
    if style.form == "crumbled":
        return PieceGeometry("ball", shape.lumps.lump_mm if shape.lumps else shape.thickness_mm, meat)
    width = shape.width_mm
    if shape.vessel is not None:
        width = (shape.vessel.base_width_mm + shape.width_mm) / 2
    # The rounded section of a free loaf is simulated as a rectangle of the same area and proportions.
    scale = math.sqrt(section_frac()) if style.form == "loaf" else 1.0
    egg = Middle(middle_meat, shape.eggs.egg_width_mm) if shape.eggs and middle_meat else None
    return PieceGeometry("block", shape.thickness_mm * scale, meat, width_mm=width * scale, middle=egg)
