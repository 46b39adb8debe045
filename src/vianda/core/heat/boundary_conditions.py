"""What a stage means for the faces of a piece: the kitchen's equipment turned into temperatures and coefficients."""

from __future__ import annotations

from dataclasses import dataclass, replace

from vianda.core.equipment.heating import (
    FIRE_H,
    PLATE_BAND_K,
    POWER_W_M2,
    Heating,
    lateral_gain_frac,
    lid_air_c,
    oven_h,
    plate_store_j_m2_k,
)
from vianda.core.equipment.kitchen import Kitchen, Surface
from vianda.core.heat.conduction import stages as st
from vianda.core.heat.conduction.faces import SHUT, Face
from vianda.core.heat.conduction.skin import vapour_pressure_pa
from vianda.core.heat.conduction.stages import CookStage, air
from vianda.core.model.formula import Heat, HeatStage, Resting, StageKind
from vianda.core.model.styles import BLOCKS, FLAT, Form

# A tin's or a tray's wall with the air between: 100–150 W/(m² K) to the meat. Ours, low.
TIN_CONTACT_H = 120.0
RADIATION_H = 11.0
# A slice of cheese 3 mm thick: 1100 kg/m³, 2.8 kJ/(kg K), 0.35 W/(m K), from the fridge; soft at 55 °C. Ours.
CHEESE_STORE, CHEESE_H, CHEESE_C, CHEESE_MELTS_C = 1100.0 * 2800.0 * 0.003, 2 * 0.35 / 0.003, 7.0, 55.0
# Under a cover with a spoonful of water: ours.
STEAMED = air(98.0, 12.0, vapour_pa=st.STEAM_AIR_PA)
LATE_PRESS_OUT = 0.3
# A tortilla 2 mm thick, 0.12 W/(m K): ours.
SHELL_H = 60.0
COAT_KG_M2 = 0.25
# How long what waits for the core is waited for: a flat piece on fierce heat, anything in gentle heat, a loaf.
PATIENCE_S, GENTLE_PATIENCE_S, BLOCK_PATIENCE_S = 2700.0, 3 * 3600.0, 6 * 3600.0
GENTLE: tuple[StageKind, ...] = ("indirect", "smoke", "oven", "simmer")


@dataclass(frozen=True, slots=True)
class Around:
    """What a stage is worked out from: the piece's form and breadth, the kitchen, and how full the surface is.

    ``pan_share`` is the pan's area by the skin of all the lumps in it, at most 1.
    """

    form: Form
    diameter_mm: float
    kitchen: Kitchen
    surface: Surface
    heat: Heat
    covered_frac: float
    on_heat_s: float
    pan_share: float = 1.0


def cook_stages(stages: tuple[HeatStage, ...], around: Around) -> tuple[CookStage, ...]:
    """The stages as the simulation sees them.

    Parameters
    ----------
    stages : tuple[HeatStage, ...]
        Stages of the cook, in order.
    around : Around
        The conditions round the piece.

    Returns
    -------
    tuple[CookStage, ...]
        Each: one stage.
    """
    found = []
    for n, stage in enumerate(stages):
        low, high, side = _faces(stage, around)
        pressed = replace(low, h=low.h * st.PRESSED_H / st.LAID_H) if stage.press and low.kind == "contact" else None
        if stage.cheese:
            high = _cheese(high)
        seconds = stage.time_s if stage.until == "time" else _patience_s(stage, around.form)
        found.append(
            CookStage(
                stage.kind,
                low,
                high,
                stage.until,
                seconds,
                side,
                flip=stage.flip,
                turn_every_s=stage.turn_every_s,
                press_out_frac=LATE_PRESS_OUT if stage.press and n > 0 else 0.0,
                coat_kg_m2=COAT_KG_M2 if stage.glaze else 0.0,
                pressed=pressed,
            )
        )
    return tuple(found)


def _patience_s(stage: HeatStage, form: Form) -> float:
    if form in BLOCKS:
        return BLOCK_PATIENCE_S
    return PATIENCE_S if form in FLAT and stage.kind not in GENTLE else GENTLE_PATIENCE_S


def cold_stages(stages: tuple[HeatStage, ...], form: Form) -> tuple[CookStage, ...]:
    """In the fridge or the freezer, on a rack: cold air all round.

    Parameters
    ----------
    stages : tuple[HeatStage, ...]
        Stages of the cook, in order.
    form : Form
        Form of the piece.

    Returns
    -------
    tuple[CookStage, ...]
        Each: one stage.
    """
    found = []
    for stage in stages:
        usual = st.CHILL_C if stage.kind == "chill" else st.FREEZE_C
        temp = usual if stage.temp_c is None else stage.temp_c
        cold = air(temp, st.COLD_H, vapour_pa=st.COLD_DAMP_FRAC * vapour_pressure_pa(temp))
        low = SHUT if form == "ball" else cold
        found.append(CookStage(stage.kind, low, cold, "time", stage.time_s, cold))
    return tuple(found)


def resting_stage(resting: Resting, seconds: float, around: Around) -> CookStage:
    """Off the heat: open on a rack, or under foil.

    Parameters
    ----------
    resting : Resting
        How it rests.
    seconds : float
        How long, s.
    around : Around
        The conditions round the piece.

    Returns
    -------
    CookStage
        One stage.
    """
    room = around.surface.heating.outdoor_c if around.surface.kind == "grate" else st.ROOM_C
    if resting == "foil":
        under = replace(air(room + 10.0, st.FOIL_H, vapour_pa=st.FOIL_AIR_PA), emissivity=0.1)
        low = Face("liquid", room + 15.0, 10.0)
    else:
        under = air(room, st.ROOM_H)
        low = under
    if around.form in ("ball", "crumbled"):
        low = SHUT
    return CookStage("rest", low, under, "time", seconds, under)


def _faces(stage: HeatStage, a: Around) -> tuple[Face, Face, Face]:
    """Below, above and beside."""
    round_piece = a.form in ("ball", "crumbled")
    if stage.kind == "simmer":
        sauce = Face("liquid", stage.temp_c or st.SIMMER_C, st.SIMMER_H)
        return (SHUT if round_piece else sauce), sauce, sauce
    if stage.kind == "fry":
        fat = Face("liquid", stage.temp_c or st.FRY_C, st.FRY_H)
        return (SHUT if round_piece else fat), fat, fat
    if stage.kind in ("oven", "broiler"):
        return _oven(stage, a)
    if stage.kind in ("indirect", "smoke"):
        return _beside_fire(stage, a)
    return _surface(stage, a)


def _oven(stage: HeatStage, a: Around) -> tuple[Face, Face, Face]:
    oven = a.surface if a.surface.kind == "oven" else a.kitchen.surface_of_kind("oven")
    heating = oven.heating if oven is not None else Heating()
    dial = stage.temp_c if stage.temp_c is not None else a.heat.surface_temp_c if a.surface.kind == "oven" else 160.0
    # What the formula measured at the shelf is true already; what a stage names is what the oven says.
    temp = dial + (heating.offset_k if stage.temp_c is not None else 0.0)
    if stage.kind == "broiler":
        temp = stage.temp_c if stage.temp_c is not None else 180.0
    h = oven_h(heating) * heating.heat_factor
    around = air(temp, h)
    above = around
    if stage.cover:
        above = air(min(temp, 98.0), h * 0.4, vapour_pa=st.STEAM_AIR_PA)
    if stage.kind == "broiler":
        above = air(temp, h * 0.6, glow_c=heating.broiler_c)
    if a.form == "ball":
        return SHUT, (above if stage.kind == "broiler" else around), SHUT
    tray_h = 1.0 / (1.0 / (0.7 * h + RADIATION_H) + 1.0 / TIN_CONTACT_H)
    below = Face("liquid", temp, tray_h)
    if a.form in ("tin", "tray"):
        wall = 1.0 / (1.0 / (h + RADIATION_H) + 1.0 / TIN_CONTACT_H)
        return below, above, Face("liquid", temp, wall)
    if a.form in BLOCKS:
        return (
            below,
            above,
            (air(temp, h * 0.6, glow_c=(temp + heating.broiler_c) / 2) if stage.kind == "broiler" else around),
        )
    # A flat piece lies on a rack under a broiler, on a tray or in its pan in an oven.
    return (around if stage.kind == "broiler" else below), above, SHUT


def _beside_fire(stage: HeatStage, a: Around) -> tuple[Face, Face, Face]:
    grate = a.surface if a.surface.kind == "grate" else a.kitchen.surface_of_kind("grate")
    heating = grate.heating if grate is not None else Heating()
    hot = a.heat.surface_temp_c if a.surface.kind == "grate" else 230.0
    if stage.temp_c is not None:
        temp = stage.temp_c
    else:
        temp = st.SMOKE_C if stage.kind == "smoke" else lid_air_c(heating, hot)
    slow = air(temp, st.LID_H * heating.heat_factor, vapour_pa=st.LID_AIR_PA)
    if a.form in ("ball", "crumbled"):
        return SHUT, slow, SHUT
    return slow, slow, slow


def _surface(stage: HeatStage, a: Around) -> tuple[Face, Face, Face]:
    heating, kind = a.surface.heating, a.surface.kind
    temp = stage.temp_c if stage.temp_c is not None else a.heat.surface_temp_c
    if kind == "oven":
        return _oven(replace(stage, kind="oven"), a)
    factor = heating.heat_factor
    if kind == "grate":
        lid = air(lid_air_c(heating, temp), st.LID_H, vapour_pa=st.LID_AIR_PA if heating.lid else st.DAMP_AIR_PA)
        lid = STEAMED if stage.cover else lid
        if a.form in ("ball", "crumbled"):
            return SHUT, Face("fire", temp, FIRE_H[heating.fuel] * factor * 0.6), SHUT
        return Face("fire", temp, FIRE_H[heating.fuel] * factor), lid, SHUT
    h = st.LAID_H * factor * (st.FAT_GAIN if a.heat.fat else 1.0)
    if a.form == "ball":
        return SHUT, Face("liquid", temp, h * st.ROLLED_FRAC), SHUT
    if a.form == "crumbled":
        # All the lumps share one pan: its store and its burner are spread over their skins.
        power = POWER_W_M2[heating.power] * a.pan_share
        pan = Face(
            "contact",
            temp,
            h * st.STIRRED_FRAC * a.pan_share,
            power=power,
            gain=power / PLATE_BAND_K,
            store=plate_store_j_m2_k(heating, kind) * a.pan_share,
            begin_c=temp,
        )
        return SHUT, pan, SHUT
    if stage.temp_c is not None and stage.temp_c < a.heat.surface_temp_c - 30.0:
        # A low flame under the piece: no firm crust to press against.
        h *= 0.5
    if a.form == "spread" and stage.flip:
        # It lies on its shell now.
        h = 1.0 / (1.0 / h + 1.0 / SHELL_H)
    lateral_gain = lateral_gain_frac(
        heating, diameter_mm=a.diameter_mm, covered_frac=a.covered_frac, time_s=a.on_heat_s
    )
    power = POWER_W_M2[heating.power] * lateral_gain
    store = plate_store_j_m2_k(heating, kind) * lateral_gain
    plate = Face("contact", temp, h, store=store, power=power, gain=power / PLATE_BAND_K, begin_c=temp)
    above = STEAMED if stage.cover else air(st.OVER_PLATE_C, st.ROOM_H)
    return plate, above, SHUT


def _cheese(above: Face) -> Face:
    """A slice of cheese instead of bare meat: heat goes through it, and nothing dries."""
    # Steam that falls on it as dew gives several times what air does.
    h = above.h + 6.0 + (60.0 if above.vapour_pa > 30_000 else 0.0)
    return Face("cheese", store=CHEESE_STORE, h=CHEESE_H, round_c=above.temp_c, round_h=h, begin_c=CHEESE_C)
