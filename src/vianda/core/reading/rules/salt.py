"""Rules for salt."""

from __future__ import annotations

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Phrase, say
from vianda.core.reading.grammar import Match
from vianda.core.reading.rules.common import LINE, mass_said
from vianda.core.reading.said import Noted, Said

rule = LINE.rule


@rule("PCT of? salt", "salt SEP|at|to? PCT", "with PCT salt", "salt of? PCT", "with? salt PCT")
def _salt_share(m: Match, s: Said) -> Phrase | None:
    a = m.one("PCT")
    assert a is not None
    if a.value > 0.05:
        return None
    s.salt_frac.append(s.figure(a.value, a.low, a.high))
    return say("salt {s}", s=ph.fine_frac(a.value))


@rule(
    "MASS of? PREP? salt",
    "salt SEP? MASS",
    "with? MASS of? PREP? salt",
    "MASS of? PREP? salt per|to|for MASS",
    "MASS of? PREP? salt per u:mass",
    "salt MASS per u:mass",
    "salt MASS SEP u:mass",
    "MASS SEP u:mass of? salt",
    "salt MASS per MASS",
    "salt at MASS per u:mass",
    "MASS of? salt a u:mass",
    "MASS per u:mass salt",
    "MASS per u:mass of? salt",
)
def _salt_mass(m: Match, s: Said) -> Phrase | None:
    if (stroke := m.one("SEP")) is not None and m.one("u:mass") is not None and stroke.text.strip() != "/":
        return None
    first, *more = m.all("MASS")
    unit = m.one("u:mass")
    if unit is not None or more:
        base = unit.sense("u:mass").value if unit else more[0].value  # type: ignore[union-attr]
        s.salt_frac.append(s.figure(first.value / base, first.low / base, first.high / base))
        return say("salt {m} to {b}", m=mass_said(first), b=ph.mass(base))
    s.salt_mass.append(s.figure(first.value, first.low, first.high))
    return say("{m} of salt", m=mass_said(first))


@rule("VOL of? PREP? salt", "salt VOL", "VOL of? PREP? salt per|to|for MASS", "VOL of? PREP? salt per u:mass")
def _salt_spoons(m: Match, s: Said) -> Phrase:
    a = m.one("VOL")
    assert a is not None
    grams = s.inventory.pantry[s.kitchen.salt].g_per_ml * a.value if s.kitchen.salt in s.inventory.pantry else 0.0
    unit, base = m.one("u:mass"), m.one("MASS")
    if unit is not None or base is not None:
        per = unit.sense("u:mass").value if unit else base.value  # type: ignore[union-attr]
        s.salt_frac.append(s.figure(grams / per))
        return say("salt {m} to {b}, as a spoon of this kitchen's salt weighs", m=ph.mass(grams), b=ph.mass(per))
    s.salt_mass.append(s.figure(grams))
    return say("{m} of salt, as a spoon of this kitchen's salt weighs", m=ph.mass(grams))


@rule("saltfree", "no salt", "no PREP salt", "salt free")
def _no_salt(m: Match, s: Said) -> Phrase:
    s.no_salt = True
    return say("no salt")


@rule("saltoutside", "saltinside", "saltoutside at? PCT", "PCT saltoutside", "PCT saltinside", "no saltinside")
def _salt_where(m: Match, s: Said) -> Phrase | None:
    s.salt_place = "surface" if m.one("saltoutside") or m.one("no") else "mixed"
    share = m.one("PCT")
    if share is not None:
        if share.value > 0.05:
            return None
        s.salt_frac.append(s.figure(share.value, share.low, share.high))
    return say("salt on the surface only") if s.salt_place == "surface" else say("salt mixed into the meat")


@rule("salt totaste", "with? salt", "salt and? ING totaste?", "salt", "with salt and ING", "salt and ING")
def _salt_usual(m: Match, s: Said) -> Phrase:
    s.notes.append(Noted("salt", " ".join(a.text for a in m.atoms), s.at))
    return say("salt: the usual amount, tasted before shaping")
