"""The grind plan: cubes, cold, plate and passes, loads, and how long it keeps.

Source: common practice, no published source, unless a line says otherwise.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Phrase, say
from vianda.core.blend.blend import PartFigures
from vianda.core.equipment.kitchen import Grinder, Kitchen
from vianda.core.inventory.inventory import Inventory
from vianda.core.model.formula import Grind, Keep
from vianda.core.model.styles import Style

CUBE_MM = (25.0, 30.0)
FREEZE_MIN = (30.0, 45.0)
HOLD_C = (0.0, 4.0)
FINE_MM = 3.0
# From this share of sinewy meat on, a fine plate and two passes (ours, from the trade's rule for shank and cheek).
SINEWY_SHARE_FRAC = 0.30
PROCESSOR_PULSE_S = 30.0
# Drip lost on thawing, share of the mass; from memory, medium confidence.
THAW_DRIP_FRAC = (0.02, 0.05)


@dataclass(frozen=True, slots=True)
class GrindPlan:
    """How the blend is ground. ``plate_mm`` 0: no plate (knife, processor, or nothing to grind).

    ``loss_frac`` is what stays in the machine, of what goes in. ``steps`` are done in order; ``keeping`` says how
    long, and what waiting costs.
    """

    tool: str
    tool_name: str
    tool_kind: str
    wanted_plate_mm: float
    plate_mm: float
    passes: int
    ground_mass_g: int
    loads: int
    minutes: float
    loss_frac: float
    sinewy_share_frac: float
    steps: tuple[Phrase, ...]
    keeping: tuple[Phrase, ...]


def _tool(grind: Grind, kitchen: Kitchen, mass_g: int) -> Grinder | None:
    """The tool named; else the one with the fewest loads, a grinder before the others."""
    if grind.tool:
        return kitchen.grinder(grind.tool, field="/grind/tool")
    order = {"grinder": 0, "processor": 1, "knife": 2}
    return min(kitchen.grinders, key=lambda g: (order[g.kind], math.ceil(mass_g / g.load_g)), default=None)


def grind_plan(
    parts: Sequence[PartFigures],
    *,
    inventory: Inventory,
    kitchen: Kitchen,
    style: Style,
    grind: Grind,
    sinewy_frac: float,
) -> GrindPlan:
    """Plan the grinding of a blend on a tool of the kitchen.

    Plate by style (a medium 4.5 to 6 mm is the burger standard, 8 to 10 mm for a chopped-steak bite), 3 mm twice
    when much of it is sinewy; the plate at hand nearest to the one wanted. Loads = ⌈mass to grind ÷ load⌉.

    Parameters
    ----------
    parts : Sequence[PartFigures]
        Meats with their shares.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.
    style : Style
        The style whose usual values count.
    grind : Grind
        How it is ground.
    sinewy_frac : float
        Share of sinewy cuts in the blend, 0–1.

    Returns
    -------
    GrindPlan
        How the blend is ground.

    References
    ----------
    Common practice, no published source.

    Examples
    --------
    >>> from vianda.core.demo.formulas import slipway_smash
    >>> from vianda.core.evaluation.evaluate import evaluate
    >>> from vianda.core.demo.kitchen import yard_galley
    >>> from vianda.core.inventory.inventory import starter_inventory
    >>> plan = evaluate(slipway_smash(), inventory=starter_inventory(), kitchen=yard_galley()).grind
    >>> plan.plate_mm, plan.passes, plan.loads
    (4.5, 1, 2)
    """
    cut = [p for p in parts if p.kind != "ground" and p.share_frac > 0]
    bought_ground = [p for p in parts if p.kind == "ground" and p.share_frac > 0]
    mass = sum(p.mass_g for p in cut)
    tool = _tool(grind, kitchen, mass) if mass else None
    sinewy = sinewy_frac >= SINEWY_SHARE_FRAC
    wanted = FINE_MM if sinewy else style.plate_mm
    plate = min(tool.plates_mm, key=lambda p: abs(p - wanted)) if tool is not None and tool.plates_mm else 0.0
    passes = (2 if sinewy else 1) if tool is not None and tool.kind == "grinder" else (1 if mass else 0)
    loads = math.ceil(mass / tool.load_g) if tool is not None else 0
    minutes = mass / 1000.0 / tool.pace_kg_per_min * passes if tool is not None else 0.0
    steps = [*_prepare(cut, inventory), *_cut_up(tool, mass, plate, passes, loads)] if cut else []
    if bought_ground:
        steps.append(
            say(
                "{meats}: ground already. Loosen it in with cold hands at the end; a second grinding makes it dense",
                meats=ph.word(", ".join(p.name for p in bought_ground)),
            )
        )
    steps.append(say("Hold it at {cold} until it is shaped", cold=ph.temp(*HOLD_C)))
    return GrindPlan(
        tool=tool.key if tool else "",
        tool_name=tool.name if tool else "",
        tool_kind=tool.kind if tool else "none",
        wanted_plate_mm=wanted if tool is not None and tool.kind == "grinder" else 0.0,
        plate_mm=plate,
        passes=passes,
        ground_mass_g=mass,
        loads=loads,
        minutes=minutes,
        loss_frac=grind_loss_frac(mass, tool),
        sinewy_share_frac=sinewy_frac,
        steps=tuple(steps),
        keeping=_keeping(grind.keep),
    )


def grind_loss_frac(mass_g: float, tool: Grinder | None) -> float:
    """What stays in the machine, of what goes in: hold-up ÷ (mass wanted + hold-up).

    Parameters
    ----------
    mass_g : float
        Mass of mince wanted, g, 0 or more.
    tool : Grinder | None
        The tool that grinds; None for the kitchen's best.

    Returns
    -------
    float
        What stays in the machine of what goes in, 0–1.

    References
    ----------
    A balance of mass; what stays in a machine is the cook's own figure.

    Examples
    --------
    >>> from vianda.core.equipment.kitchen import usual_grinders
    >>> round(grind_loss_frac(910, usual_grinders()[0]), 3)
    0.09
    """
    return tool.hold_up_g / (mass_g + tool.hold_up_g) if tool is not None and mass_g > 0 else 0.0


def _prepare(cut: Sequence[PartFigures], inventory: Inventory) -> list[Phrase]:
    steps = []
    trimmed = [p for p in cut if inventory.meat(p.meat).trim_loss_frac > 0]
    if trimmed:
        steps.append(
            say(
                "Trim bone, silverskin and glands from {meats}; wipe bone dust away with paper, do not rinse: water "
                "spreads what is on raw meat",
                meats=ph.word(", ".join(p.name for p in trimmed)),
            )
        )
    steps.append(say("Cube at {cube}, small enough for the throat", cube=ph.length(*CUBE_MM)))
    steps.append(
        say(
            "Freeze the cubes {time} minutes on a tray, firm but not solid, and the cutting parts with them: warm fat "
            "smears and the patty turns greasy and dense",
            time=ph.number(*FREEZE_MIN),
        )
    )
    if len(cut) > 1:
        weights = " + ".join(f"{{m{at}}} {{n{at}}}" for at in range(len(cut)))
        amounts = {f"m{at}": ph.mass(p.mass_g) for at, p in enumerate(cut)}
        amounts |= {f"n{at}": ph.word(p.name) for at, p in enumerate(cut)}
        steps.append(
            say(f"Mix the cubes before they go through, so that every handful has the ratio: {weights}", **amounts)
        )
    return steps


def _cut_up(tool: Grinder | None, mass_g: int, plate_mm: float, passes: int, loads: int) -> list[Phrase]:
    if tool is None:
        return [say("This kitchen has no tool to grind with: ask the butcher, the slip says what for")]
    load = ph.mass(mass_g / loads)
    if tool.kind == "grinder":
        text = "{tool}: {plate} plate, {passes}, in {loads} of about {load}"
        times = "once" if passes == 1 else "twice, chilled between"
        return [
            say(
                text,
                tool=ph.word(tool.name),
                plate=ph.length(plate_mm),
                passes=ph.word(times),
                loads=ph.word(_loads(loads)),
                load=load,
            )
        ]
    if tool.kind == "processor":
        return [
            say(
                "{tool}: pulse about {time} seconds a load, in {loads} of about {load}; stop while it is still "
                "in crumbs",
                tool=ph.word(tool.name),
                time=ph.number(PROCESSOR_PULSE_S),
                loads=ph.word(_loads(loads)),
                load=load,
            )
        ]
    return [
        say(
            "{tool}: slice thin, then strips, then chop to a coarse, loose bite, in {loads} of about {load}",
            tool=ph.word(tool.name),
            loads=ph.word(_loads(loads)),
            load=load,
        )
    ]


def _loads(loads: int) -> str:
    return "one load" if loads == 1 else f"{loads} loads"


def _keeping(keep: Keep) -> tuple[Phrase, ...]:
    cold = ph.temp(*HOLD_C)
    wash = say("Wash grinder, board and hands after raw mince; below and apart from anything eaten raw")
    if keep == "fresh":
        return (
            say("Used the same day: juiciest, and the loosest to handle. Mince keeps 1 to 2 days at {c}", c=cold),
            say("Grey inside or after a while in the open is pigment; smell, slime and the date tell spoilage"),
            wash,
        )
    if keep == "made-ahead":
        return (
            say(
                "Formed between papers, boxed at {c}, used within a day: firmer to handle, a little less loose", c=cold
            ),
            say("Salt only when it cooks: salted ahead it turns firm as a sausage"),
            wash,
        )
    return (
        say("Frozen flat at {t}, a few months: stacks, ships, keeps; cooks slower", t=ph.temp(-18)),
        say(
            "Thaw in the cold, overnight, not on the bench. Thawing costs about {drip} in drip and some of the hold",
            drip=ph.frac(*THAW_DRIP_FRAC),
        ),
        wash,
    )
