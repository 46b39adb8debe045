"""Rules for what stays out."""

from __future__ import annotations

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Phrase, say
from vianda.core.inventory.pantry import Ingredient
from vianda.core.reading.atom import Atom
from vianda.core.reading.grammar import Match
from vianda.core.reading.rules.common import LINE
from vianda.core.reading.said import Said

rule = LINE.rule

_NAMED = {"beef": "no-beef", "pork": "no-pork"}


def _of_group(group: str, thing: Ingredient) -> bool:
    """Whether an ingredient is a cheese, or made of bread: oats, milk powder and yeast bind too and are no crumbs."""
    if group == "group-cheese":
        return thing.group == "cheese"
    return thing.group in ("crumb", "bread") and (
        "crumb" in thing.key or any(x.startswith("gluten") for x in thing.allergens)
    )


def _kept_out(a: Atom, s: Said) -> str | None:
    """Take up one thing to avoid; its name, or None when it is nothing that can be avoided."""
    if diet := a.sense("DIET"):
        s.limits.append(diet.key)
        return diet.key.replace("-", " ")
    if (avoided := a.sense("AVOIDED")) and avoided.key.startswith("group-"):
        s.no_bread = s.no_bread or a.text.lower() == "bread"
        s.without += [k for k, thing in s.inventory.pantry.items() if _of_group(avoided.key, thing)]
        return a.text
    if avoided := a.sense("AVOIDED"):
        s.limits.append(avoided.key)
        return a.text
    meat, generic, thing = a.sense("MEAT"), a.sense("ANY"), a.all("ING")
    if meat is not None:
        species = s.inventory.meat(meat.key).species
        if s.inventory.meat(meat.key).cured:
            s.without.append(meat.key)
        elif species == "pork":
            s.limits.append("no-pork")
        elif species == "beef" or s.inventory.meat(meat.key).kind not in ("ground",):
            s.without.append(meat.key)
        else:
            s.without += [k.key for k in s.inventory.meats.values() if k.species == species]
        return a.text
    if thing:
        s.without += [t.key for t in thing]
        # "without any salt or egg": the salt of the kitchen is no line of the mix, so the share is set to none.
        s.no_salt = s.no_salt or any(t.key.startswith("salt-") for t in thing)
        return a.text
    if generic is not None:
        s.limits.append("no-beef" if generic.key == "beef" else f"no-{generic.key}")
        return a.text
    return None


_X = "AVOIDED|DIET|MEAT|ANY|ING|MEATP"


_TAIL = "AVOIDED|DIET|ING"


@rule(
    f"no {_X}",
    f"no {_X} or|no {_X}",
    f"no {_X} or {_X} or {_X}",
    f"no {_X} SEP {_TAIL} and|or {_X}",
    f"no {_X} SEP no {_X}",
    f"no {_X} and no {_X}",
    f"no {_X} SEP and|or? no {_X} SEP? and|or? no {_X}",
    f"no {_X} SEP {_TAIL} SEP {_TAIL} and|or {_X}",
    f"no {_TAIL} and {_TAIL}",
    f"no some {_X}",
    f"freeof {_X}",
    f"freeof {_X} and|or {_X}",
    f"{_X} free",
    f"allergic to? {_X}",
    f"allergic to? {_X} and|or {_X}",
    f"{_X} allergy|allergic",
    f"for? PEOPLE no {_X}",
    f"allergy {_X}",
    f"no PREP {_X}",
)
def _avoid(m: Match, s: Said) -> Phrase | None:
    names = [n for a in m.atoms if a.kinds & {"AVOIDED", "DIET", "MEAT", "ANY", "ING"} and (n := _kept_out(a, s))]
    return say("limit: no {what}", what=ph.word(", ".join(names))) if names else None


@rule("DIET", "for DIET", "for DIET PEOPLE", "DIET and DIET", "all DIET")
def _diet(m: Match, s: Said) -> Phrase:
    names = [_kept_out(a, s) or "" for a in m.all("DIET")]
    return say("limit: {what}", what=ph.word(", ".join(names)))


@rule("low salt", "no too? salt")
def _low_salt(m: Match, s: Said) -> Phrase:
    s.limits.append("less-salt")
    return say("limit: less salt")
