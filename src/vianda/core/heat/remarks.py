"""What the computed cook gives cause to say: flare-ups, smoke, a cool or crowded plate, glaze, tenderness, ends."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np

from vianda.core.basis.phrase import Phrase, delta_temp, duration, length, mass, say, temp, word
from vianda.core.equipment.heating import (
    HOT_ENOUGH_K,
    LASTS_MIN,
    PLATE_BAND_K,
    POWER_W_M2,
    heats_up_s,
    plate_store_j_m2_k,
)
from vianda.core.heat.case import CookCase
from vianda.core.heat.conduction.run import Cooked
from vianda.core.heat.conduction.slab import FAT_LOST, KEPT_SKIN_HIGH, KEPT_STORE_LOW
from vianda.core.heat.cooked import meat_series
from vianda.core.heat.off_centre import probe_places
from vianda.core.heat.plate_signs import FATS
from vianda.core.heat.run_setup import SHORT_LOAF_MM, Overrides
from vianda.core.heat.waves import wait_s, waves_of
from vianda.core.model.styles import BLOCKS

RemarkKey = Literal[
    "flare-up",
    "smoke-point",
    "plate-cool",
    "crowded",
    "glaze-burns",
    "tender",
    "short-loaf",
    "fuel-fades",
    "late-press",
    "waves",
    "warms-slowly",
    "carries-over",
]
# USDA FSIS, come-up time of slowly heated products: through the range in which bacteria grow within 6 h, °C and s. From
# memory, medium confidence (Appendix A, 2017: 50 to 130 °F; here to the Food Code's 57 °C, which is stricter).
COLD_TO_HOT_C, WARMED_S = (5.0, 57.0), 6 * 3600.0
# Fat that falls on coals flares once a piece lets go of more than this a minute: ours.
FLARE_G_PER_MIN = 1.5
# A plate that falls by more than this under the pieces gives grey meat instead of crust: ours, from common practice.
FELL_K = 60.0
# Sugar on a skin this hot darkens within a minute or two: from memory, medium (caramelisation of sucrose begins at
# 160).
SUGAR_BURNS_C = 165.0
# Below this a plate gives little crust; from 40 min on a simmer softens sinew. Common practice, no published source.
CRUST_FROM_C, TENDER_S = 190.0, 2400.0
# A core that is there so soon was there before: ours.
DONE_BEFORE_S = 5.0
# More than usual practice counts by so much wants a word: ours.
MORE_CARRY_K = 3.0
# A burner that regulates never quite gets to what it is set to: ours.
REGULATED_K = 3.0


@dataclass(frozen=True, slots=True)
class HeatRemark:
    """A remark of the computed cook: what, and why with its case."""

    key: RemarkKey
    title: Phrase
    reason: Phrase


def remarks_on(case: CookCase, cooked: Cooked, overrides: Overrides) -> tuple[HeatRemark, ...]:
    """All that apply, most pressing first.

    Parameters
    ----------
    case : CookCase
        The piece and how it is cooked.
    cooked : Cooked
        The run of the piece.
    overrides : Overrides
        What is taken instead of the formula's own values.

    Returns
    -------
    tuple[HeatRemark, ...]
        Each: a remark of the computed cook.
    """
    found = (
        _slowly(cooked),
        _carries(case, cooked),
        _cool(case, overrides),
        _crowded(case, cooked),
        _waves(case, cooked),
        _flare(case, cooked),
        _smoke(case),
        _glaze(cooked),
        _late_press(case, cooked),
        _fuel(case, cooked),
        _short(case),
        _tender(cooked),
    )
    return tuple(r for r in found if r is not None)


def _slowly(cooked: Cooked) -> HeatRemark | None:
    """The coldest meat on its way from the cold to where nothing grows any more."""
    temp_c, _ = meat_series(cooked)
    coldest = temp_c.min(axis=1)
    times = np.asarray(cooked.times_s)
    warm = np.nonzero(coldest >= COLD_TO_HOT_C[0])[0]
    hot = np.nonzero(coldest >= COLD_TO_HOT_C[1])[0]
    begins = float(times[int(warm[0])]) if len(warm) else float(times[-1])
    ends = float(times[int(hot[0])]) if len(hot) else float(times[-1])
    if ends - begins <= WARMED_S:
        return None
    return HeatRemark(
        "warms-slowly",
        say(
            "The coldest meat takes {time} from {cold} to {hot}",
            time=duration(ends - begins),
            cold=temp(COLD_TO_HOT_C[0]),
            hot=temp(COLD_TO_HOT_C[1]),
        ),
        say(
            "Published advice for slow cooking is {most} at most: what grows on the way may leave a poison that heat "
            "does not undo. A hotter oven or smoke, a thinner piece, or smaller ones. Local codes decide.",
            most=duration(WARMED_S),
        ),
    )


def _cool(case: CookCase, overrides: Overrides) -> HeatRemark | None:
    now, wanted = overrides.surface_now_c, case.heat.surface_temp_c
    if now is None or now >= wanted - HOT_ENOUGH_K:
        return None
    gap = delta_temp(wanted - now)
    if case.surface.kind not in ("plate", "pan"):
        # How fast an oven or a fire comes up is not known here.
        return HeatRemark(
            "plate-cool",
            say("{now} is {gap} short: wait", now=temp(now), gap=gap),
            say("Measured against the {wanted} meant; measure again.", wanted=temp(wanted)),
        )
    heating = case.surface.heating
    power = POWER_W_M2[heating.power]
    store = plate_store_j_m2_k(heating, case.surface.kind)
    wait = heats_up_s(store, power, power / PLATE_BAND_K, now, wanted - REGULATED_K, wanted)
    little = " Laid on now, it gives little crust." if now < CRUST_FROM_C else ""
    return HeatRemark(
        "plate-cool",
        say("{now} is {gap} short: wait {wait}", now=temp(now), gap=gap, wait=duration(wait)),
        say("Measured against the {wanted} meant, with this burner under this metal." + little, wanted=temp(wanted)),
    )


def plate_facts(cooked: Cooked) -> tuple[float | None, float | None]:
    """How far the surface falls under the piece at its first temperature, and how long it takes to come back.

    Parameters
    ----------
    cooked : Cooked
        The run of the piece.

    Returns
    -------
    tuple[float | None, float | None]
        How far the surface falls under the piece at its first temperature, and how long it takes to come back.
    """
    first = cooked.setup.stages[0].low
    if first.kind != "contact" or cooked.body.form != "slab":
        return None, None
    stages = zip(cooked.setup.stages, cooked.ended_s, strict=True)
    ends = [e for s, e in stages if s.low.kind == "contact" and s.low.temp_c == first.temp_c]
    metal = cooked.more[cooked.times_s <= ends[-1] + 1e-6, KEPT_STORE_LOW]
    wanted = first.temp_c
    back = heats_up_s(first.store, first.power, first.gain, float(metal[-1]), wanted - HOT_ENOUGH_K, wanted)
    return float(np.min(metal)), back


def _crowded(case: CookCase, cooked: Cooked) -> HeatRemark | None:
    low, _ = plate_facts(cooked)
    if low is None or cooked.setup.surface_c - low < FELL_K:
        return None
    return HeatRemark(
        "crowded",
        say("The surface falls to {low} under them", low=temp(low)),
        say(
            "{n} cold pieces at once take more than this metal holds, and it needs {back} to come back. "
            "Fewer at once, a thicker plate, or more fire keep the crust.",
            n=word(str(case.laying.at_once)),
            back=duration(wait_s(cooked)),
        ),
    )


def _waves(case: CookCase, cooked: Cooked) -> HeatRemark | None:
    if case.laying.waves < 2:
        return None
    waves = waves_of(cooked, case.laying.waves)
    if len(waves) < 2 or waves[-1].laid_c >= waves[0].laid_c - HOT_ENOUGH_K:
        return None
    first, last = waves[0], waves[-1]
    paler, words = "", {}
    if last.brown != first.brown:
        paler, words = ", its crust {brown} instead of {first}", {"brown": word(last.brown), "first": word(first.brown)}
    return HeatRemark(
        "waves",
        say("Laid on as soon as it is scraped, a later wave finds {laid}", laid=temp(last.laid_c)),
        say(
            "It then takes {off} instead of {usual}" + paler + ". Wait {wait} after a wave is off, and the surface "
            "measures {meant} again.",
            off=duration(last.off_s),
            usual=duration(first.off_s),
            wait=duration(wait_s(cooked)),
            meant=temp(first.laid_c),
            **words,
        ),
    )


def _flare(case: CookCase, cooked: Cooked) -> HeatRemark | None:
    if case.surface.kind != "grate" or not any(s.low.kind == "fire" for s in cooked.setup.stages):
        return None
    fat_g = float(cooked.at_pull.tally[FAT_LOST]) / cooked.body.mass_kg * case.piece_mass_g
    minutes = max(0.5, cooked.on_heat_s / 60.0)
    if fat_g / minutes < FLARE_G_PER_MIN:
        return None
    return HeatRemark(
        "flare-up",
        say("About {fat} of fat a piece falls on the fire", fat=mass(fat_g)),
        say(
            "It flares: lid down, move the meat, no water. One school shrugs for beef, the other moves it to the side."
        ),
    )


def _smoke(case: CookCase) -> HeatRemark | None:
    fat = case.heat.fat
    if not fat:
        return None
    point = FATS[fat].smokes_c
    hot = case.heat.surface_temp_c
    if hot <= point:
        return None
    return HeatRemark(
        "smoke-point",
        say("{fat} smokes from {point}", fat=word(FATS[fat].title), point=temp(point)),
        say(
            "The surface is meant to be {hot}: it burns and tastes of it. Clarified butter or an oil for high heat, or "
            "no fat at all under fatty meat.",
            hot=temp(hot),
        ),
    )


def _glaze(cooked: Cooked) -> HeatRemark | None:
    coats = [n for n, s in enumerate(cooked.setup.stages) if s.coat_kg_m2 > 0]
    if not coats:
        return None
    from_s = cooked.ended_s[coats[0] - 1] if coats[0] else 0.0
    hot = np.nonzero(
        (cooked.times_s >= from_s)
        & (cooked.more[:, KEPT_SKIN_HIGH] >= SUGAR_BURNS_C)
        & (cooked.times_s <= cooked.on_heat_s)
    )[0]
    if not len(hot):
        return None
    at = float(cooked.times_s[int(hot[0])])
    return HeatRemark(
        "glaze-burns",
        say("The glaze passes {t} at {at}", t=temp(SUGAR_BURNS_C), at=duration(at)),
        say("Sugar burns from there on: a shorter round, a lower shelf, or the coat later. Turn the tray."),
    )


def _carries(case: CookCase, cooked: Cooked) -> HeatRemark | None:
    """Why the middle gains more than cooks read."""
    usual = case.usual.carry_over_k
    middle, aside, stem = probe_places(cooked)
    simmered = cooked.setup.stages[-1].name == "simmer"
    if not cooked.reached or simmered or cooked.body.form == "slab" or middle.gains_k <= usual.high + MORE_CARRY_K:
        return None
    return HeatRemark(
        "carries-over",
        say(
            "Its very middle gains {gain} after the pull; usual practice counts {usual}",
            gain=delta_temp(middle.gains_k),
            usual=delta_temp(usual.low, usual.high),
        ),
        say(
            "Its outer half is near boiling by then. A tip {off} off the middle reads {aside} where the middle has "
            "{middle}, and gains {less}; a stem that measures along {stem} reads {along} and gains {least}. Push the "
            "tip past the middle, draw it back, and go by the lowest reading; the plan counts on {low} only.",
            off=length(aside.from_mm),
            aside=temp(aside.reads_c),
            middle=temp(middle.reads_c),
            less=delta_temp(aside.gains_k),
            stem=length(stem.to_mm),
            along=temp(stem.reads_c),
            least=delta_temp(stem.gains_k),
            low=delta_temp(usual.low),
        ),
    )


def _late_press(case: CookCase, cooked: Cooked) -> HeatRemark | None:
    if not any(s.press_out_frac > 0 for s in cooked.setup.stages):
        return None
    return HeatRemark(
        "late-press",
        say("Pressed late: juice and melted fat go on the plate"),
        say("Press once, early and hard, or not at all; after the first half minute it costs juice."),
    )


def _fuel(case: CookCase, cooked: Cooked) -> HeatRemark | None:
    if case.surface.kind != "grate":
        return None
    heating = case.surface.heating
    lasts = (heating.lasts_min or LASTS_MIN[heating.fuel]) * 60.0
    needed = cooked.on_heat_s * case.laying.waves
    if needed <= lasts:
        return None
    return HeatRemark(
        "fuel-fades",
        say("{needed} of cooking on a fire that lasts {lasts}", needed=duration(needed), lasts=duration(lasts)),
        say("Refuel before it fades, half an hour ahead with coals that are lit."),
    )


def _short(case: CookCase) -> HeatRemark | None:
    if case.style.form not in BLOCKS or case.shape.length_mm >= SHORT_LOAF_MM:
        return None
    return HeatRemark(
        "short-loaf",
        say("{length} long: its ends cook it too", length=length(case.shape.length_mm)),
        say("Computed as if it were long, so it is done a little sooner than computed."),
    )


def _tender(cooked: Cooked) -> HeatRemark | None:
    simmers = [n for n, s in enumerate(cooked.setup.stages) if s.name == "simmer"]
    if not simmers:
        return None
    n = simmers[-1]
    took = cooked.ended_s[n] - (cooked.ended_s[n - 1] if n else 0.0)
    there = took < DONE_BEFORE_S
    return HeatRemark(
        "tender",
        say("Cooked through before it goes in the sauce")
        if there
        else say("In the sauce {took} until the core is there", took=duration(took)),
        say(
            "Cooks argue from 10 min to 3 h. Collagen softens slowly at a simmer: sinewy meat gains from {more} on, "
            "lean mince only dries.",
            more=duration(TENDER_S),
        ),
    )
