"""What to do at the stove, step by step: once before, for each wave, once after."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from vianda.core.basis.phrase import Phrase, duration, mass, say, temp
from vianda.core.batch.salt_ledger import SaltFigures
from vianda.core.equipment.kitchen import Surface
from vianda.core.heat.fire import FirePlan, as_poured, fire_plan, smoke_wood
from vianda.core.heat.plan import HeatPlan, Stage
from vianda.core.shape.laying import Laying

StepKind = Literal[
    "chill",
    "ready",
    "lay",
    "press",
    "first-side",
    "second-side",
    "turn",
    "often",
    "finish",
    "indirect",
    "smoke",
    "bake",
    "broil",
    "glaze",
    "brown",
    "fry",
    "simmer",
    "rest",
]


@dataclass(frozen=True, slots=True)
class StoveStep:
    """One instruction. ``timer_s`` 0 means that the cook says when; else it chimes then.

    ``check_from_s`` is when to begin to look for the cue.
    """

    kind: StepKind
    title: str
    cue: Phrase
    done_word: str
    timer_s: float
    check_from_s: float


@dataclass(frozen=True, slots=True)
class StovePlan:
    """Steps and waves. The last wave may be smaller, and the first, where something lies beside it.

    ``footprint_mm`` is a piece across and deep, as it lies; ``in_squares`` how many a plain square grid would hold.
    ``load_mass_g`` of loose meat is browned at once, g; 0 for pieces.
    """

    surface_width_mm: float
    surface_depth_mm: float
    surface_round: bool
    centres_mm: tuple[tuple[float, float], ...]
    footprint_mm: tuple[float, float]
    at_once: int
    in_squares: int
    waves: int
    first_wave: int
    last_wave: int
    before: tuple[StoveStep, ...]
    each_wave: tuple[StoveStep, ...]
    after: tuple[StoveStep, ...]
    on_heat_s: float
    load_mass_g: float = 0.0


# A wait shorter than the change of waves is none: ours.
WORTH_WAITING_S = 30.0
_DONE = {
    "press": "Pressed",
    "first-side": "Flipped",
    "second-side": "Off the heat",
    "finish": "Off the heat",
    "bake": "Out of the oven",
    "brown": "Browned",
    "simmer": "Tender",
    "turn": "Turned",
    "often": "Off the heat",
    "indirect": "Off the heat",
    "smoke": "Next",
    "broil": "Off the heat",
    "glaze": "Sticky",
    "fry": "Off the heat",
    "rest": "Rested",
}


def stove_plan(
    *,
    heat: HeatPlan,
    laying: Laying,
    salt: SaltFigures,
    surface: Surface,
    surface_temp_c: float,
    wait_s: float = 0.0,
    load_mass_g: float = 0.0,
) -> StovePlan:
    """The stove's steps from the heat plan.

    Parameters
    ----------
    heat : HeatPlan
        The stages with their times.
    laying : Laying
        Where the pieces lie, and the waves.
    salt : SaltFigures
        The salt that goes on at the stove.
    surface : Surface
        What it cooks on.
    surface_temp_c : float
        What the surface is meant to measure, °C.
    wait_s : float, default 0.0
        How long the surface takes to come back between two waves, s.
    load_mass_g : float, default 0.0
        Loose meat that is browned at once, g; 0 for pieces.

    Returns
    -------
    StovePlan
        Steps before, for each wave, and after.
    """
    together = sum((s.low_s + s.high_s) / 2 for s in heat.stages if s.kind == "simmer")
    on_heat_s = (heat.on_heat_s.usual - together) * laying.waves + together
    fire = fire_plan(surface, fire_c=surface_temp_c, needed_min=on_heat_s / 60.0)
    ready = StoveStep(
        "ready",
        "Heat the oven" if surface.kind == "oven" else "Heat the surface and measure it",
        _ready_cue(surface, surface_temp_c, fire),
        "It is hot",
        0,
        0,
    )
    chilled = [StoveStep("chill", s.title, s.cue, "Out of the cold", s.timer_s, s.low_s) for s in heat.before]
    lay = StoveStep(
        "lay",
        "Put in a load of meat, loose" if load_mass_g > 0 else "Lay on {n}",
        _fed(_lay_cue(salt, surface, surface_temp_c, wait_s if laying.waves > 1 else 0.0), fire),
        "They are on",
        0,
        0,
    )
    timed: list[StoveStep] = []
    after: list[StoveStep] = []
    stages = [s for s in heat.stages if s.kind != "preheat"]
    gentle = False
    last_on_heat = [s for s in stages if s.kind != "rest"][-1]
    for stage in stages:
        done = _DONE[stage.kind]
        if done in ("Off the heat", "Out of the oven") and stage is not last_on_heat:
            done = "Next"
        cue = _at_fire(stage, surface, after_gentle=gentle)
        gentle = stage.kind in BESIDE_FIRE
        step = StoveStep(stage.kind, stage.title, cue, done, stage.timer_s, stage.low_s)  # type: ignore[arg-type]
        # What simmers does so together, once every wave is browned.
        (after if stage.kind in ("rest", "simmer") else timed).append(step)
    return StovePlan(
        surface_width_mm=surface.width_mm,
        surface_depth_mm=surface.depth_mm,
        surface_round=surface.round_shape,
        centres_mm=laying.centres_mm,
        footprint_mm=(laying.across_mm, laying.deep_mm),
        at_once=laying.at_once,
        in_squares=laying.in_squares,
        waves=laying.waves,
        first_wave=laying.first_wave,
        last_wave=laying.last_wave,
        before=(*chilled, ready),
        each_wave=(lay, *timed),
        after=tuple(after),
        on_heat_s=on_heat_s,
        load_mass_g=load_mass_g,
    )


# Stages in which the meat lies away from the flames.
BESIDE_FIRE = ("indirect", "smoke")
# How the coals lie, in words.
_LAID = {"even": "spread evenly", "two-zones": "all to one side", "ring": "in a ring round the middle"}


def _ready_cue(surface: Surface, surface_temp_c: float, fire: FirePlan | None) -> Phrase:
    """When it is hot enough; of a fire how much fuel, when it is lit and how it lies."""
    if surface.kind == "oven":
        return say("In when it reads {t} at the shelf", t=temp(surface_temp_c))
    if fire is None:
        return say("Lay on when the surface reads {t}; wipe it dry first", t=temp(surface_temp_c))
    lid = " Lid: its vents open for hotter, half shut to hold; a reminder, not computed." if surface.heating.lid else ""
    if fire.fuel == "gas":
        return say(
            f"Lit {{time}} ahead; burners turned until the grate reads {{t}}. Brush it clean first.{lid}",
            time=duration(60.0 * fire.lit_before_min), t=temp(surface_temp_c),
        )  # fmt: skip
    return say(
        f"About {{m}} of {fire.fuel}, lit {{time}} ahead, {_LAID[surface.heating.layout]}. Lay on when the grate reads "
        f"{{t}}; brush it clean first.{lid}",
        m=as_poured(fire.first_g),
        time=duration(60.0 * fire.lit_before_min), t=temp(surface_temp_c),
    )  # fmt: skip


def _at_fire(stage: Stage, surface: Surface, *, after_gentle: bool) -> Phrase:
    """What is done with the fire as a stage begins: where the meat lies, burners, wood for smoke; reminders."""
    if surface.kind != "grate":
        return stage.cue
    gas = surface.heating.fuel == "gas"
    said, more = "", {}
    if stage.kind in BESIDE_FIRE:
        said = " The burner under the meat off, the others up" if gas else " On the side without coals"
        said += ", lid on." if surface.heating.lid else "."
    elif after_gentle:
        said = " All burners up, until it glows." if gas else " Over the coals now."
    if stage.kind == "smoke":
        said += " {wood} of dry wood on the fire as it begins; a reminder, not computed."
        more = {"wood": as_poured(smoke_wood(stage.timer_s / 60.0))}
    return Phrase(stage.cue.text + said, {**stage.cue.amounts, **more}) if said else stage.cue


def _fed(cue: Phrase, fire: FirePlan | None) -> Phrase:
    """With when the fire is fed, where it does not last: coals that already burn, lit so much sooner."""
    if fire is None or not fire.fed_min:
        return cue
    what = (
        "dry wood go on every {every}."
        if fire.fuel == "wood"
        else ("lit coals go on every {every}; light them {sooner} before.")
    )
    text = cue.text.rstrip(".") + ". {feed} of " + what
    more = {"feed": as_poured(fire.feed_g), "every": duration(60.0 * fire.fed_min[0])}
    if fire.fuel != "wood":
        more["sooner"] = duration(60.0 * fire.lit_before_min)
    return Phrase(text, {**cue.amounts, **more})


def _lay_cue(salt: SaltFigures, surface: Surface, surface_temp_c: float, wait_s: float) -> Phrase:
    """How the pieces go on, and what a later wave waits for."""
    later = (
        " A later wave waits for {t} again, about {wait} after the last is off." if wait_s >= WORTH_WAITING_S else ""
    )
    more = {"t": temp(surface_temp_c), "wait": duration(wait_s)} if later else {}
    if salt.piece_salt_g > 0 and salt.salt_place == "surface":
        cue = "Salt the tops, {salt} a side; the rim too if it is thick" + ("." if later else "")
        return say(cue + later, salt=mass(salt.side_salt_g), **more)
    if surface.kind == "oven":
        return say("Room between them on the tray, so that they brown instead of steaming")
    return say("Cold from the fridge, with room between them" + ("." if later else "") + later, **more)
