"""Workings of the blend: fat, grams, how sure, names, grind."""

from __future__ import annotations

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Phrase, say
from vianda.core.basis.working import Working
from vianda.core.blend.label_names import SOURCES
from vianda.core.explain.sources import PRACTICE
from vianda.core.pipeline.figures import Figures

_NAME_KINDS = {"fat": "fat", "collagen": "collagen by protein", "beef": "beef"}


def lean_to_fat(f: Figures) -> Working:
    """Fat of each part, summed, and the band.

    Parameters
    ----------
    f : Figures
        The results of all stages.

    Returns
    -------
    Working
        How one figure came about.
    """
    steps = [
        say(
            "{name}: {share} × {fat} = {points}",
            name=ph.word(p.name),
            share=ph.fine_frac(p.share_frac),
            fat=ph.fine_frac(p.fat_usual_frac),
            points=ph.fine_frac(p.share_frac * p.fat_usual_frac),
        )
        for p in f.meat.blend.parts
    ]
    steps.append(
        say(
            "Together {fat} fat, so lean to fat {ratio}",
            fat=ph.fine_frac(f.meat.blend.fat_frac),
            ratio=ph.lean_to_fat(f.meat.blend.fat_frac),
        )
    )
    for p in f.meat.blend.parts:
        steps.append(
            say(
                "{name} ranges {range} and brings {uncertainty} of the uncertainty",
                name=ph.word(p.name),
                range=ph.fine_frac(p.fat_low_frac, p.fat_high_frac),
                uncertainty=ph.frac(p.uncertainty_share_frac),
            )
        )
    steps.append(
        say(
            "The meats' distributions folded together: nine batches in ten lie in {band}",
            band=ph.fine_frac(f.meat.blend.fat_low_frac, f.meat.blend.fat_high_frac),
        )
    )
    sources = sorted({f.context.inventory.meat(p.meat).range_source for p in f.meat.blend.parts})
    rows = [f"{p.name}: {f.context.inventory.meat(p.meat).composition_note}" for p in f.meat.blend.parts]
    return Working(
        "Lean to fat", tuple(steps), f"Fat ranges: {'; '.join(sources)}. Anchors: {'; '.join(rows)}. {_trimming(f)}"
    )


def _trimming(f: Figures) -> str:
    """Whether cuts are taken as independent, and where that is said."""
    shared = f.context.inventory.shared_trim_frac
    if shared == 0.0:
        return (
            "Meats are taken as independent, as from different suppliers. Cuts trimmed by one hand turn out fat or "
            "lean together, and the range is wider: say so under Kitchen, Cuts."
        )
    return (
        f"Cuts are taken to correlate by {shared:g}, since one knife trims them (set under Kitchen; the figure is "
        "ours, no published source); ground meat by its label varies on its own."
    )


def part_masses(f: Figures) -> Working:
    """Grams of each meat on the scale.

    Parameters
    ----------
    f : Figures
        The results of all stages.

    Returns
    -------
    Working
        How one figure came about.
    """
    steps = [
        say(
            "{name}: {share} × {batch} → {mass}",
            name=ph.word(p.name),
            share=ph.fine_frac(p.share_frac),
            batch=ph.mass(f.meat.blend.batch_mass_g),
            mass=ph.mass(p.mass_g),
        )
        for p in f.meat.blend.parts
    ]
    steps.append(
        say(
            "On the scale's step of {step}; the largest remainders are rounded up, so that the parts sum to {batch}",
            step=ph.mass(f.batch.portions.step_g),
            batch=ph.mass(sum(p.mass_g for p in f.meat.blend.parts)),
        )
    )
    return Working("Grams of each meat", tuple(steps), "Arithmetic (largest remainder method).")


def chances(f: Figures) -> Working:
    """How sure the blend is, and what a test would gain.

    Parameters
    ----------
    f : Figures
        The results of all stages.

    Returns
    -------
    Working
        How one figure came about.
    """
    b = f.meat.blend
    low, high = f.context.style.fat_band_frac
    widest = max(b.parts, key=lambda p: p.uncertainty_share_frac)
    steps = [
        say("The style's band is {band} fat", band=ph.frac(low, high)),
        say(
            "Below it {below} of batches, within {within}, above {above}",
            below=ph.frac(b.chance_below_band),
            within=ph.frac(b.chance_in_band),
            above=ph.frac(b.chance_above_band),
        ),
        say(
            "Now nine in ten lie within {width} points; one fat test of {meat} would leave {left} points",
            width=ph.number((b.fat_high_frac - b.fat_low_frac) * 100),
            meat=ph.word(widest.name),
            left=ph.number(widest.tested_width_frac * 100),
        ),
    ]
    for part in b.parts:
        if part.lot:
            lot = f.context.inventory.lot(part.lot, meat=part.meat)
            meat = f.context.inventory.meat(part.meat)
            steps.append(
                say(
                    "{lot}: {prior} by its name; {n} findings leave {now}",
                    lot=ph.word(lot.name),
                    prior=ph.fine_frac(meat.fat_low_frac, meat.fat_high_frac),
                    n=ph.count(len(lot.evidence)),
                    now=ph.fine_frac(part.fat_low_frac, part.fat_high_frac),
                )
            )
    return Working(
        "How sure",
        tuple(steps),
        "The meats' distributions folded together; evidence by Bayes' rule. Errors of labels, "
        "words and tests are our estimates.",
    )


def names(f: Figures) -> Working:
    """Each name with its limits.

    Parameters
    ----------
    f : Figures
        The results of all stages.

    Returns
    -------
    Working
        How one figure came about.
    """
    steps: list[Phrase] = []
    for name in f.trade.names:
        steps.append(say("{name}: {verdict}", name=ph.word(name.name), verdict=ph.word(name.verdict)))
        for test in name.tests:
            most = "at least" if test.kind == "beef" else "at most"
            steps.append(
                say(
                    f"  {_NAME_KINDS[test.kind]} {most} {{limit}}; here {{value}}, {{chance}} of batches fail it",
                    limit=ph.frac(test.limit_frac),
                    value=ph.fine_frac(test.value_frac),
                    chance=ph.frac(test.chance_failed),
                )
            )
    if not f.trade.names:
        steps.append(say("This kitchen has no naming rule set"))
    return Working(
        "Name on the label",
        tuple(steps),
        f"{SOURCES[f.context.kitchen.naming_rule]}; local rules decide. "
        "Collagen by class of cut: from memory, low confidence.",
    )


def grind(f: Figures) -> Working:
    """Plate, loads and what stays in the machine.

    Parameters
    ----------
    f : Figures
        The results of all stages.

    Returns
    -------
    Working
        How one figure came about.
    """
    g = f.meat.grind
    steps = [
        say("{sinewy} of it is sinewy meat", sinewy=ph.frac(g.sinewy_share_frac)),
        say("{mass} to grind", mass=ph.mass(g.ground_mass_g)),
    ]
    if g.tool_kind == "grinder":
        steps.append(
            say(
                "Wanted a {wanted} plate; the nearest here is {plate}",
                wanted=ph.length(g.wanted_plate_mm),
                plate=ph.length(g.plate_mm),
            )
        )
    if g.tool:
        tool = f.context.kitchen.grinder(g.tool)
        steps += [
            say(
                "{mass} ÷ {load} a load → {loads}",
                mass=ph.mass(g.ground_mass_g),
                load=ph.mass(tool.load_g),
                loads=ph.count(g.loads),
            ),
            say(
                "{hold} stay in the machine: {loss} of what goes in",
                hold=ph.mass(tool.hold_up_g),
                loss=ph.fine_frac(g.loss_frac),
            ),
        ]
    return Working("Grind", tuple(steps), PRACTICE + " The tools are this kitchen's.")
