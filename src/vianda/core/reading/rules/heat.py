"""Rules for core and surface temperatures, equipment, doneness."""

from __future__ import annotations

from vianda.core.basis import phrase as ph
from vianda.core.basis import units
from vianda.core.basis.phrase import Phrase, say
from vianda.core.reading.atom import Atom
from vianda.core.reading.grammar import Match
from vianda.core.reading.rules.common import LINE, is_whole
from vianda.core.reading.said import Noted, Said

rule = LINE.rule

# A bare figure above the first is Fahrenheit anywhere, above the second in a kitchen of US units (ours).
HOTTEST_BARE_C, COLDEST_US_F = 290.0, 230.0
HOTTEST_SURFACE_C, LEAST_BARE = 400.0, 100.0
HOTTEST_CORE_C, COLDEST_CORE_C, COLDEST_SURFACE_C = 100.0, 40.0, 90.0


# Gas marks in °C (published oven convention of the UK; from memory).
GAS_MARK_C = {1: 140, 2: 150, 3: 160, 4: 180, 5: 190, 6: 200, 7: 220, 8: 230, 9: 240}


@rule(
    "core|to|at? TEMP core?",
    "core to|at|of? TEMP",
    "TEMP in? core",
    "DONENESS TEMP",
    "to core TEMP",
    "core temperature? SEP TEMP",
    "makes core TEMP",
    "core temperature of? TEMP",
    "to core of? TEMP",
    "core at core? TEMP",
    "temperature core TEMP",
    "core TEMP core",
    "core TEMP for TIME",
    "core to|at|of? TEMP for? TIME",
)
def _core(m: Match, s: Said) -> Phrase | None:
    a = m.one("TEMP")
    assert a is not None
    named = any(m.one(w) for w in ("core",)) or m.one("DONENESS") is not None
    value = _core_c(a)
    if not named and value > HOTTEST_CORE_C:
        return None
    if not named and m.one("at") and value >= COLDEST_SURFACE_C:
        return None
    if not COLDEST_CORE_C <= value <= HOTTEST_CORE_C:
        return None
    if d := m.one("DONENESS"):
        s.doneness.append((d.sense("DONENESS").key, s.at))  # type: ignore[union-attr]
    s.core.append(s.figure(value))
    if (held := m.one("TIME")) is not None:
        text = f"Hold at the core: {held.text}"
        s.notes.append(Noted("minutes", text, s.at))
        return say("core {t}, held {s}, the hold kept as a note", t=ph.temp(value), s=ph.duration(held.value))
    return say("core {t}", t=ph.temp(value))


def _core_c(a: Atom) -> float:
    """A core: a bare figure above 100 ° can be no °C, one below 100 ° no °F."""
    if "TEMP_BARE" in a.kinds and a.number is not None:
        said = a.number.value
        return units.c_from_f(said) if said > HOTTEST_CORE_C else said
    return a.value


@rule("core to|at|of? NUM", "NUM core", "to core of? NUM", "core temperature of? NUM", "core SEP NUM", "to NUM")
def _core_bare(m: Match, s: Said) -> Phrase | None:
    a = m.one("NUM")
    assert a is not None
    value = a.value if a.value <= HOTTEST_CORE_C else units.c_from_f(a.value)
    if not COLDEST_CORE_C <= value <= HOTTEST_CORE_C:
        return None
    s.core.append(s.figure(value))
    return say("core {t}", t=ph.temp(value))


def surface_said(m: Match, s: Said) -> str:
    """Take up the surface or tool a pattern took.

    Parameters
    ----------
    m : Match
        What a pattern took.
    s : Said
        The line so far.

    Returns
    -------
    str
        Its name.
    """
    here, kind, tool = m.one("SURFACE_HERE"), m.one("SURFACE"), m.one("TOOL")
    if here is not None:
        key = here.sense("SURFACE_HERE").key  # type: ignore[union-attr]
        s.surfaces.append(("key", key, s.at))
        return s.kitchen.surface(key).name
    if tool is not None:
        sense = tool.sense("TOOL")
        assert sense is not None
        s.tools.append((sense.name, sense.key, s.at))
        return sense.name
    if kind is not None:
        s.surfaces.append(("kind", kind.sense("SURFACE").key, s.at))  # type: ignore[union-attr]
        return kind.text
    return "surface"


@rule(
    "on|in|at|over|for? SURFACE_HERE|SURFACE|TOOL at|to? TEMP",
    "at? TEMP on|in? SURFACE_HERE|SURFACE|TOOL",
    "at|to TEMP",
    "TEMP",
    "TEMP temperature",
    "VERB at TEMP",
    "on|in? SURFACE_HERE|SURFACE|TOOL temperature of? TEMP",
    "SURFACE_HERE|SURFACE|TOOL VERB? to TEMP",
)
def _surface_temp(m: Match, s: Said) -> Phrase | None:
    a = m.one("TEMP")
    assert a is not None
    value, named = a.value, any(m.one(k) for k in ("SURFACE", "SURFACE_HERE", "TOOL", "VERB"))
    if not named and value < COLDEST_SURFACE_C:
        return None
    name = surface_said(m, s)
    if not 0 < value < 1000:
        return None
    s.surface_temp.append(s.figure(value))
    return say("{surface} at {t}", surface=ph.word(name), t=ph.temp(value))


def bare_surface_c(a: Atom, s: Said) -> float | None:
    """A bare number as the temperature of a surface.

    Parameters
    ----------
    a : Atom
        A number.
    s : Said
        The line so far; its units decide where both scales fit.

    Returns
    -------
    float | None
        °C, or None where no surface is so hot or so cold.
    """
    fahrenheit = a.value > HOTTEST_BARE_C or (s.system == "us" and a.value > COLDEST_US_F)
    value = units.c_from_f(a.value) if fahrenheit else a.value
    return value if COLDEST_SURFACE_C < value < HOTTEST_SURFACE_C and a.value >= LEAST_BARE else None


@rule(
    "on|in? SURFACE_HERE|SURFACE|TOOL at|to? NUM",
    "at NUM",
    "at? mark NUM",
    "in? SURFACE mark NUM",
    "SURFACE at? mark NUM",
    "in? SURFACE at NUM temperature?",
)
def _surface_temp_bare(m: Match, s: Said) -> Phrase | None:
    a = m.one("NUM")
    assert a is not None
    if a.number is None or a.number.fraction or a.number.ranged:
        return None
    if m.one("mark"):
        c = GAS_MARK_C.get(round(a.value))
        if c is None or not is_whole(a):
            return None
        surface_said(m, s)
        s.surface_temp.append(s.figure(float(c)))
        return say("gas mark {n}: {t}", n=ph.number(a.value), t=ph.temp(float(c)))
    value = bare_surface_c(a, s)
    if value is None:
        return None
    name = surface_said(m, s)
    s.surface_temp.append(s.figure(value))
    return say("{surface} at {t}", surface=ph.word(name), t=ph.temp(value))


@rule(
    "on|in|over|with|for|from|by? SURFACE_HERE|SURFACE",
    "SIZE SURFACE",
    "on|in|over SIZE SURFACE",
    "RESULT SURFACE",
    "on|in|over|with RESULT SURFACE",
    "with? PREP SURFACE_HERE|SURFACE",
    "in|on|with PREP SURFACE_HERE|SURFACE",
    "on|in? LEN SURFACE",
    "NUM SURFACE",
)
def _surface(m: Match, s: Said) -> Phrase | None:
    if (n := m.one("NUM")) is not None and (not is_whole(n) or n.value > 9):
        return None
    name = surface_said(m, s)
    return say("{surface}", surface=ph.word(name))


@rule("on|in|with|for|from|by? TOOL", "VERB? TOOL")
def _tool(m: Match, s: Said) -> Phrase:
    return say("{tool}: not in this kitchen", tool=ph.word(surface_said(m, s)))


@rule("with|by|in|on|from? GRINDER_HERE|GRINDER")
def _grinder(m: Match, s: Said) -> Phrase | None:
    here, kind = m.one("GRINDER_HERE"), m.one("GRINDER")
    if here is not None:
        s.grinder = here.sense("GRINDER_HERE").key  # type: ignore[union-attr]
    elif kind is not None:
        wanted = kind.sense("GRINDER").key  # type: ignore[union-attr]
        found = next((g for g in s.kitchen.grinders if g.kind == wanted), None)
        if found is None:
            s.tools.append((kind.text, "", s.at))
            return say("{tool}: not in this kitchen", tool=ph.word(kind.text))
        s.grinder = found.key
    return say("ground by: {tool}", tool=ph.word(s.kitchen.grinder(s.grinder).name))


@rule("no SURFACE|SURFACE_HERE|TOOL", "no PREP SURFACE|SURFACE_HERE")
def _no_surface(m: Match, s: Said) -> Phrase:
    kind, here = m.one("SURFACE"), m.one("SURFACE_HERE")
    if here is not None:
        s.not_on.append(s.kitchen.surface(here.sense("SURFACE_HERE").key).kind)  # type: ignore[union-attr]
    elif kind is not None:
        s.not_on.append(kind.sense("SURFACE").key)  # type: ignore[union-attr]
    what = m.atoms[-1].text
    return say("without {what}", what=ph.word(what))


@rule("DONENESS", "DONENESS in? core", "DONENESS to|in? core?")
def _doneness(m: Match, s: Said) -> Phrase:
    key = m.atoms[0].sense("DONENESS").key  # type: ignore[union-attr]
    s.doneness.append((key, s.at))
    return say("{key}", key=ph.word(key.replace("-", " ")))
