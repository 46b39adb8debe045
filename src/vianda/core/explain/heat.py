"""Workings of the heat: minutes, core and floor."""

from __future__ import annotations

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Phrase, say
from vianda.core.basis.working import Working
from vianda.core.explain.sources import PRACTICE
from vianda.core.heat.cooked import cooked_of, wanted_of
from vianda.core.heat.floor import AT_RISK, Floor
from vianda.core.heat.plan import HeatPlan
from vianda.core.heat.remarks import remarks_on
from vianda.core.heat.run_setup import NO_OVERRIDES, setup_of
from vianda.core.heat.turning import turning_s
from vianda.core.pipeline.figures import Figures


def minutes(f: Figures) -> Working:
    """The stages of the heat.

    Parameters
    ----------
    f : Figures
        The results of all stages.

    Returns
    -------
    Working
        How one figure came about.
    """
    h = f.cook.plan
    steps = [
        say("{title}: {time}", title=ph.word(s.title), time=ph.duration(s.low_s, s.high_s))
        for s in h.stages
        if s.kind != "preheat"
    ]
    steps.append(say("On the heat {time} in all", time=ph.duration(h.on_heat_s.low, h.on_heat_s.high)))
    usual, style = h.practice, f.cook.case.style
    steps.append(
        say(
            "Usual practice: {time} on the heat, for {low} to {high} there",
            time=ph.duration(usual.on_heat_s.low, usual.on_heat_s.high),
            low=ph.temp(style.surface_temp_c[0]),
            high=ph.temp(style.surface_temp_c[1]),
        )
    )
    turned = turning_s(f.cook.case) if h.model != "practice" else None
    if turned is not None and usual.flip_s.high > 0.0:
        steps.append(
            say(
                "Cooks turn it with 35 to 55 % of it grey: computed {low} to {high}, here at two fifths, {usual}. "
                "Usual practice turns at {from_} to {to}" + (LATER if usual.flip_s.low > turned.usual else ""),
                low=ph.duration(turned.low),
                high=ph.duration(turned.high),
                usual=ph.duration(turned.usual),
                from_=ph.duration(usual.flip_s.low),
                to=ph.duration(usual.flip_s.high),
            )
        )
    if h.reach != "usually":
        steps.append(say("At this thickness and heat the minutes may end short of the floor: measure"))
    if h.model == "practice":
        return Working("Minutes", tuple(steps), PRACTICE_SOURCE)
    return Working("Minutes", tuple(steps), COMPUTED_SOURCE)


PRACTICE_SOURCE = (
    "Usual practice: the table of common practice, joined by straight lines over thickness; no published source."
)
COMPUTED_SOURCE = (
    "Computed: heat through the piece from published properties (Choi & Okos 1986) and coefficients from memory, not "
    "fitted to any cooking times; from–to is the 10th to the 90th of a hundred such pieces. Trust it to a fifth or a "
    "quarter. Usual practice: common practice, no published source."
)


LATER = ": later, since a real face parts from the metal while its crust grows, which is not computed"


def _floor_line(floor: Floor) -> Phrase:
    text = f"{floor.authority}: {{t}}, {floor.rule} ({floor.source})"
    return say(text, t=ph.temp(floor.temp_c))


def _lagging(h: HeatPlan) -> list[Phrase]:
    """Where the probe must read more, since another place lags behind the middle."""
    if h.pull_c <= h.target_c - h.carry_over_k.low + 0.05:
        return []
    text = "Pull at {pull} in the middle: the coldest meat lies above it, where the first side's heat did not reach"
    return [say(text, pull=ph.temp(h.pull_c))]


def _carrying(f: Figures) -> list[Phrase]:
    """Why what is computed to be gained is more than what cooks count on."""
    if f.cook.plan.model == "practice":
        return []
    cooked = cooked_of(setup_of(f.cook.case), wanted_of(f.cook.case))
    return [
        say(f"{r.title.text}. {r.reason.text}", **{**r.title.amounts, **r.reason.amounts})
        for r in remarks_on(f.cook.case, cooked, NO_OVERRIDES)
        if r.key == "carries-over"
    ]


def core(f: Figures) -> Working:
    """Core wanted, floors, pull.

    Parameters
    ----------
    f : Figures
        The results of all stages.

    Returns
    -------
    Working
        How one figure came about.
    """
    h = f.cook.plan
    steps = [
        say("Wanted: {t}, {name}", t=ph.temp(h.target_c), name=ph.word(h.doneness)),
        say("Leads here, since {why}:", why=ph.word(h.floors.why)),
        _floor_line(h.floors.leading),
        say("The others:"),
        *(_floor_line(o) for o in h.floors.others),
        say(
            "{target} − {carry} (the low end of what it still gains) = {planned}",
            target=ph.temp(h.target_c),
            carry=ph.delta_temp(h.carry_over_k.low),
            planned=ph.temp(h.target_c - h.carry_over_k.low),
        ),
        *_lagging(h),
        *_carrying(f),
        say(
            "Colour and a cut mislead in mince. Most at risk: {who}. Local codes and licensed practice decide.",
            who=ph.word(AT_RISK),
        ),
    ]
    return Working(
        "Core and floor",
        tuple(steps),
        "Floors from memory, high confidence: read them against the current text. Carry-over: " + PRACTICE.lower(),
    )
