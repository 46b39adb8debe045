"""Rules for time at hand, minutes of a stage, and when it is to be ready."""

from __future__ import annotations

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Phrase, say
from vianda.core.reading.grammar import Match
from vianda.core.reading.rules.common import LINE, take_pieces
from vianda.core.reading.rules.heat import COLDEST_SURFACE_C, bare_surface_c, surface_said
from vianda.core.reading.said import Noted, Said

rule = LINE.rule


@rule(
    "in|within|have|for? TIME",
    "within TIME",
    "in within TIME",
    "QUICK",
    "in QUICK",
    "within QUICK",
    "TIME total",
    "have only TIME",
    "within? TIME PIECE",
    "QUICK PIECE",
    "TIME STYLE* PIECE",
    "with TIME",
    "QUICK STYLE* PIECE",
    "in within QUICK",
    "SIZE QUICK",
)
def _at_hand(m: Match, s: Said) -> Phrase | None:
    a, quick = m.one("TIME"), m.one("QUICK")
    seconds = a.value if a is not None else quick.sense("QUICK").value * 60.0  # type: ignore[union-attr]
    if m.one("PIECE"):
        take_pieces(m, s)
    s.minutes.append(s.figure(seconds / 60.0))
    s.quick = quick is not None and a is None
    return say("{t} at hand", t=ph.duration(seconds))


@rule("for? NUM days")
def _days(m: Match, s: Said) -> Phrase | None:
    """``for two days``, ``2 lunches``: no number of people or pieces."""
    a = m.one("NUM")
    assert a is not None
    text = " ".join(x.text for x in m.atoms)
    s.notes.append(Noted("ready", text.capitalize(), s.at))
    return say("{what}, kept as a note", what=ph.word(text))


@rule(
    "at NUM for? TIME",
    "at? TEMP for? TIME",
    "TIME aside",
    "NUM aside",
    "VERB for? TIME",
    "VERB TIME",
    "TIME VERB",
    "STYLE|PREP for? TIME",
    "for? TIME on|in? SURFACE_HERE|SURFACE",
    "SURFACE_HERE|SURFACE for TIME",
    "VERB for? TIME aside",
)
def _stage_minutes(m: Match, s: Said) -> Phrase | None:
    a = m.one("TIME")
    n = m.one("NUM")
    if a is None and n is None:
        return None
    hot = m.one("TEMP")
    if n is not None and m.one("at"):
        celsius = bare_surface_c(n, s)
        if celsius is None:
            return None
        s.surface_temp.append(s.figure(celsius))
    if hot is not None:
        if hot.value < COLDEST_SURFACE_C:
            return None
        s.surface_temp.append(s.figure(hot.value))
    if m.one("SURFACE") or m.one("SURFACE_HERE"):
        surface_said(m, s)
    for st in m.all("STYLE"):
        s.styles.append((st.sense("STYLE").key, s.at))  # type: ignore[union-attr]
    text = " ".join(x.text for x in m.atoms)
    s.notes.append(Noted("minutes", text, s.at))
    return say("minutes of a stage, kept as a note: {t}", t=ph.word(text))


_MEALS = frozenset(
    {
        "lunch",
        "dinner",
        "supper",
        "breakfast",
        "brunch",
        "night",
        "week",
        "burger night",
        "midweek",
        "weeknight",
        "service",
    }
)


@rule(
    "ready|at|by|for? at|by|for? CLOCK DAYPART?",
    "ready|at|by|for? at|by? NUM DAYPART",
    "ready at|by|for? NUM DAYPART?",
    "ready|on|for|by|at? DAY+",
    "DAY at|by CLOCK DAYPART?",
    "DAY at|by NUM DAYPART?",
    "ready at|by|for? DAY",
    "for DAY DAY",
    "by NUM",
    "ready|at|by half NUM",
    "DAY SEP CLOCK",
    "at NUM DAY",
    "on|for DAY ready? at|by NUM|CLOCK DAYPART?",
    "ready|at|by TIME",
    "DAY for NUM PEOPLE",
    "ready|at|by|for? at|by? quarteroftime NUM DAYPART?",
    "ready TIME",
    "ready in|within TIME",
)
def _ready(m: Match, s: Said) -> Phrase | None:
    n, clock, time = m.one("NUM"), m.one("CLOCK"), m.one("TIME")
    if m.one("PEOPLE"):
        return None
    if time is not None and m.one("ready") and not (m.one("at") or m.one("by")):
        s.minutes.append(s.figure(time.value / 60.0))
        return say("{t} at hand", t=ph.duration(time.value))
    if time is not None and (
        time.unit != "h" or time.value > 24 * 3600 or not (m.one("at") or m.one("by") or m.one("ready"))
    ):
        return None
    if n is not None and (not 0 <= n.value <= 24 or (n.number is not None and (n.number.fraction or n.number.ranged))):
        return None
    if clock is not None and clock.parts[0] > 24:
        return None
    words = [a.text for a in m.atoms if not a.kinds & {"w:on", "w:for", "w:at", "w:by", "w:ready"} or "DAY" in a.kinds]
    text = " ".join(words)
    # A meal alone says no time.
    if text.lower() not in _MEALS:
        s.notes.append(Noted("ready", f"Ready: {text}", s.at))
    return say("ready: {when}", when=ph.word(text))
