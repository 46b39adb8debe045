"""A pasted recipe taken apart: title, yield, ingredients by section, steps; each line with what it is.

Only what stands on the page is read here; ``opening.recipe`` makes a formula of it.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import Literal

from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.inventory import Inventory
from vianda.core.reading.atom import Atom
from vianda.core.reading.atoms import atoms_of
from vianda.core.reading.lexicon import Lexicon, lexicon_of

LineKind = Literal["title", "yield", "heading", "ingredient", "step"]
LONGEST_RECIPE = 20_000
MOST_LINES = 300
_INGREDIENTS = re.compile(
    r"^\W*(?:ingredients?|zutaten|ingrédients|ingredienti|you(?:'ll| will) need|what you need)\b", re.I
)
_METHOD = re.compile(
    r"^\W*(?:method|directions?|instructions?|preparation|steps?|procedure|how to (?:make|cook)|zubereitung|"
    r"préparation|preparazione|to (?:make|cook))\b.{0,40}$",
    re.I,
)
_YIELD = re.compile(r"^\W*(?:serves?|servings?|yields?|makes?|portions?|feeds|for)\b\W*.{0,60}$", re.I)
_NOTES = re.compile(
    r"^\W*(?:notes?|tips?|nutrition|source|storage|calories|prep(?:aration)? time|cook(?:ing)? time|total time)\b", re.I
)
_BULLET = re.compile(r"^\s*(?:[-–—•*·▢□☐✓]|\(?\d{1,2}[.)](?=\s))\s*")
_NUMBERED = re.compile(r"^\s*\(?\d{1,2}[.)]\s|^\s*step\s+\d", re.I)
_SAUCE = re.compile(
    r"\b(sauce|glaze|gravy|dressing|relish|pickles?|topping|mayo(?:nnaise)?|aioli|slaw|ketchup|marinade|dip|salsa)\b",
    re.I,
)
_SERVING = re.compile(r"\b(serv(?:e|ing)|garnish|assembl\w*|buns?)\b", re.I)


@dataclass(frozen=True, slots=True)
class PageLine:
    """A line of a recipe: its place (counted from 0), what it is, the section it stands in ("" the main one)."""

    place: int
    text: str
    kind: LineKind
    section: str = ""


@dataclass(frozen=True, slots=True)
class HeatSaid:
    """What a step says of the heat: where, how hot (°C), how long (s), to which core (°C); None where it does not."""

    kind: str
    temp_c: float | None
    time_s: float | None
    core_c: float | None


def _has_amount(line: str) -> bool:
    return bool(re.match(r"^\W*(?:[\d¼½¾⅓⅔⅛]|an?\s|half|one|two|three|four|five|six|some|pinch|handful)", line, re.I))


def page_lines(text: str) -> tuple[PageLine, ...]:
    """A recipe's text as lines, each with what it is by its place and its look.

    Parameters
    ----------
    text : str
        The recipe as pasted.

    Returns
    -------
    tuple[PageLine, ...]
        Each line that holds anything.

    Examples
    --------
    >>> lines = page_lines("Balls\\nServes 4\\nIngredients\\n500 g mince\\nMethod\\nBake at 200 C for 20 minutes.")
    >>> [(x.kind, x.text) for x in lines][:4]
    [('title', 'Balls'), ('yield', 'Serves 4'), ('heading', 'Ingredients'), ('ingredient', '500 g mince')]
    """
    found: list[PageLine] = []
    part, section, titled = "", "", False
    for place, raw in enumerate(text.replace("\r", "").split("\n")[:MOST_LINES]):
        line = _BULLET.sub("", raw).strip()
        if not line:
            continue
        bulleted = _BULLET.match(raw) is not None
        kind, part, section = _kind(line, raw, bulleted, part, section, titled)
        titled = titled or kind == "title"
        found.append(PageLine(place, line, kind, section if kind in ("ingredient", "heading") else ""))
    return tuple(found)


def _kind(line: str, raw: str, bulleted: bool, part: str, section: str, titled: bool) -> tuple[LineKind, str, str]:
    short = len(line) <= 48
    if _INGREDIENTS.match(line) and short:
        return "heading", "ingredients", _section(line)
    if _METHOD.match(line) and short and not _has_amount(line):
        return "heading", "method", ""
    if _YIELD.match(line) and short and any(c.isdigit() for c in line) and part != "method":
        return "yield", part, section
    headed = re.match(r"^(?:for (?:the )?[a-z ]+|to serve|for serving|to garnish|assembly)$", line, re.I)
    if short and (line.endswith(":") or headed):
        if part == "method" and not _SAUCE.search(line):
            return "step", part, section
        return "heading", "ingredients", _section(line)
    if _NOTES.match(line):
        return "step", "method", section
    if not titled and not _has_amount(line) and part == "" and len(line) <= 90:
        return "title", part, section
    if part == "method" or _NUMBERED.match(raw):
        return "step", "method", section
    long = len(line.split()) > 14 or (line.endswith(".") and len(line.split()) > 6 and not _has_amount(line))
    if long and not bulleted:
        return "step", "method", section
    return "ingredient", part or "ingredients", section


def _section(line: str) -> str:
    """The section a heading opens: "" for the main one, else its name."""
    name = re.sub(r"^\W*(?:for (?:the )?|ingredients(?: for (?:the )?)?)", "", line, flags=re.I).strip(" :.-–")
    if _SAUCE.search(name) or _SERVING.search(name):
        return name
    return ""


def is_sauce(section: str) -> bool:
    """Whether a section is made apart and kept as a house formula.

    Parameters
    ----------
    section : str
        Its name.

    Returns
    -------
    bool
        Whether it is.
    """
    return bool(_SAUCE.search(section))


def is_serving(section: str) -> bool:
    """Whether a section names what it is served with.

    Parameters
    ----------
    section : str
        Its name.

    Returns
    -------
    bool
        Whether it does.
    """
    return bool(_SERVING.search(section)) and not is_sauce(section)


_OVEN = re.compile(r"\b(oven|bake|baked|baking|roast(?:ed|ing)?)\b", re.I)
_SIMMER = re.compile(r"\b(simmer(?:ed|ing)?|stew|braise|poach)\b", re.I)
_BROIL = re.compile(r"\b(broil(?:er|ed)?)\b", re.I)
_SURFACE = re.compile(r"\b(pan|skillet|grill|griddle|plate|fry|sear|brown|barbecue|plancha|cook)\b", re.I)
_CORE = re.compile(r"\b(internal|core|centre|center|thermometer|middle|inside|registers?|reaches)\b", re.I)
_OTHER = re.compile(r"\b(chill|refrigerat\w*|rest|soak|stand|freez\w*|marinat\w*|cool|fridge)\b", re.I)
_PREHEAT = re.compile(r"\b(pre-?heat|heat the oven|set the oven)\b", re.I)


def heat_said(
    step: str, *, inventory: Inventory, kitchen: Kitchen, lexicon: Lexicon | None = None
) -> tuple[HeatSaid, ...]:
    """What the clauses of a step say of temperatures and minutes.

    Parameters
    ----------
    step : str
        One step of a recipe.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.
    lexicon : Lexicon | None, default None
        What the words may mean; made from the others when None.

    Returns
    -------
    tuple[HeatSaid, ...]
        One record a clause that says any.

    Examples
    --------
    >>> from vianda.core.demo.kitchen import yard_galley
    >>> from vianda.core.inventory.inventory import starter_inventory
    >>> heat_said("Bake at 200 C for 20 minutes.", inventory=starter_inventory(), kitchen=yard_galley())
    (HeatSaid(kind='oven', temp_c=200.0, time_s=1200.0, core_c=None),)
    """
    words = lexicon or lexicon_of(inventory=inventory, kitchen=kitchen)
    found: list[HeatSaid] = []
    for clause in re.split(r"(?<=[.;!?])\s+|,\s*then\s+|\bthen\b|\buntil\b(?=[^.]*\d)", step):
        atoms = atoms_of(clause, lexicon=words, system=kitchen.unit_system).atoms
        temps = [a for a in atoms if "TEMP" in a.kinds]
        times = [a for a in atoms if "TIME" in a.kinds and a.value > 0]
        if not temps and not times:
            continue
        core = next((a.value for a in temps if a.value <= 100 and (_CORE.search(clause) or a.value < 90)), None)
        hot = next((a.value for a in temps if a.value > 100 or (core is None and a.value >= 90)), None)
        kind = _where(clause, found)
        # A clause that only goes on ("until the core reads 71 C") belongs to the stage before it.
        if kind == "core" and found:
            last = found[-1]
            found[-1] = HeatSaid(last.kind, last.temp_c, last.time_s, core if core is not None else last.core_c)
            continue
        found.append(HeatSaid(kind, hot, _usual(times), core))
    return tuple(found)


def _usual(times: list[Atom]) -> float | None:
    return times[0].value if times else None


def _where(clause: str, found: list[HeatSaid]) -> str:
    if _OTHER.search(clause) and not (_OVEN.search(clause) or _SIMMER.search(clause)):
        return "other"
    for pattern, kind in ((_PREHEAT, "preheat"), (_BROIL, "broiler"), (_SIMMER, "simmer"), (_OVEN, "oven")):
        if pattern.search(clause):
            return kind
    if _CORE.search(clause) and found:
        return "core"
    return "surface" if _SURFACE.search(clause) else "other"
