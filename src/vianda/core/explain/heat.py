"""Workings of the heat: minutes, core and floor."""

from __future__ import annotations

from vianda.core import phrase as ph
from vianda.core.explain.sources import PRACTICE
from vianda.core.figures import Figures
from vianda.core.heat.floor import AT_RISK, Floor
from vianda.core.phrase import Phrase, say
from vianda.core.working import Working


def minutes(f: Figures) -> Working:
    """The stages of the heat."""
    h = f.heat
    steps = [
        say("{title}: {time}", title=ph.word(s.title), time=ph.duration(s.low_s, s.high_s))
        for s in h.stages
        if s.kind != "preheat"
    ]
    steps.append(say("On the heat {time} in all", time=ph.duration(h.on_heat_s.low, h.on_heat_s.high)))
    if h.reach != "usually":
        steps.append(say("At this thickness and heat the minutes may end short of the floor: measure"))
    return Working(
        "Minutes",
        tuple(steps),
        "Habit: the table of common practice, joined by straight lines over thickness; no published source.",
    )


def _floor_line(floor: Floor) -> Phrase:
    text = f"{floor.authority}: {{t}}, {floor.rule} ({floor.source})"
    return say(text, t=ph.temp(floor.temp_c))


def core(f: Figures) -> Working:
    """Core wanted, floors, pull."""
    h = f.heat
    steps = [
        say("Wanted: {t}, {name}", t=ph.temp(h.target_c), name=ph.word(h.doneness)),
        say("Leads here, since {why}:", why=ph.word(h.floors.why)),
        _floor_line(h.floors.leading),
        say("The others:"),
        *(_floor_line(o) for o in h.floors.others),
        say(
            "Pull at {target} − {carry} (the low end of what it still gains) = {pull}",
            target=ph.temp(h.target_c),
            carry=ph.delta_temp(h.carry_over_k.low),
            pull=ph.temp(h.pull_c),
        ),
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
