"""The way in by result: from what a cook wants to taste to a school, a style and an aim for fat.

Source: common practice, no published source.
"""

from __future__ import annotations

import re
from dataclasses import dataclass

from vianda.core.basis.errors import UnreadableEntryError
from vianda.core.model.styles import style_of

LONGEST_WISH = 200


@dataclass(frozen=True, slots=True)
class Proposal:
    """What a wish comes to: a school, a style, an aim for fat, and the reasons, one a word understood."""

    school: str
    style: str
    fat_aim_frac: float
    reasons: tuple[str, ...]
    unread: tuple[str, ...]
    asks: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class _Trait:
    words: str
    reason: str
    fat: float = 0.0
    school: str = ""
    style: str = ""


# Points of fat, school and style that a word pulls toward (ours, from the trade's rules of thumb).
_TRAITS = (
    _Trait(
        r"rich|juicy|fatty|unctuous",
        "Rich: two points more fat, and a fatty partner for the chuck.",
        0.02,
        "chuck-and-partner",
    ),
    _Trait(r"lean|light", "Lean: toward the low end of the style; below 15 % any burger eats dry.", -0.03),
    _Trait(
        r"crust|crusty|crisp|crispy|lacy|browned",
        "Crusty: smashed thin on a fierce plate; more face, more crust.",
        0.0,
        "",
        "smashed",
    ),
    _Trait(r"thin|flat|diner", "Thin: smashed, cooked through before it dries.", 0.0, "", "smashed"),
    _Trait(r"thick|pub|tall|rare", "Thick: a heavy, dimpled patty; the thermometer decides.", 0.0, "", "thick"),
    _Trait(
        r"loose|crumbly|tender|soft",
        "Loose: a medium plate, formed with as few touches as will hold, no salt inside.",
        0.0,
    ),
    _Trait(
        r"chopped|coarse|steaky|steak|beefy|steakhouse",
        "Steak taste: rib and strip ends, a coarse plate.",
        0.0,
        "steakhouse",
    ),
    _Trait(r"deep|complex|minerally", "Deep: three cuts, each for its own taste.", 0.0, "three-cuts"),
    _Trait(r"smoky|smoke|smoked", "Smoky: slow beside the fire first, seared after.", 0.0, "", "smoked"),
    _Trait(r"bacon", "Bacon ground in, balanced with lean beef.", 0.0, "bacon"),
    _Trait(r"charred|grilled|flame", "Over the grate, lid down.", 0.0, "", "grilled"),
    _Trait(r"small|sliders?", "Small ones, by the scoop.", 0.0, "", "slider"),
    _Trait(r"simple|plain|everyday|cheap", "Plain: one cut that is right on its own.", 0.0, "all-chuck"),
)
_REMEMBERED = re.compile(r"\b(remember|remembered|like the one|used to|childhood)\b")
_FILLER = frozenset("a an and i the one with like want it to be very more that of my we had used".split())  # noqa: SIM905


def propose(wish: str) -> Proposal:
    """A blend, a style and an aim for fat from words such as "rich, loose, crusty".

    Parameters
    ----------
    wish : str
        Words of taste.

    Returns
    -------
    Proposal
        What a wish comes to.

    Raises
    ------
    UnreadableEntryError
        When nothing in it was understood.

    References
    ----------
    Common practice, no published source; how far each word pulls is ours.

    Examples
    --------
    >>> p = propose("rich, loose, crusty")
    >>> p.school, p.style, round(p.fat_aim_frac, 3)
    ('chuck-and-partner', 'smashed', 0.255)
    """
    rest = " ".join(wish.lower().split())[:LONGEST_WISH]
    school, style, shift, reasons = "", "", 0.0, []
    remembered = bool(_REMEMBERED.search(rest))
    rest = _REMEMBERED.sub(" ", rest)
    for trait in _TRAITS:
        pattern = re.compile(rf"\b(?:{trait.words})\b")
        if not pattern.search(rest):
            continue
        rest = pattern.sub(" ", rest)
        reasons.append(trait.reason)
        shift += trait.fat
        school, style = school or trait.school, style or trait.style
    if not reasons and not remembered:
        raise UnreadableEntryError(
            "None of that was understood. Say how it should eat: rich, loose, crusty; thick and beefy; lean and plain.",
            field="/wish",
        )
    chosen = style_of(style or "smashed")
    asks: tuple[str, ...] = ()
    if remembered:
        asks = (
            "Was it thin and crusty, or thick and pink?",
            "Did it drip, or was it lean?",
            "Did it crumble at the bite, or spring back?",
        )
        if not reasons:
            reasons.append("Most burgers people remember from a counter were thin, crusty and rich: the start is that.")
            shift += 0.02
            school = "chuck-and-partner"
    low, high = chosen.fat_band_frac
    return Proposal(
        school=school or "all-chuck",
        style=chosen.key,
        fat_aim_frac=min(high, max(low, chosen.fat_start_frac + shift)),
        reasons=tuple(reasons),
        unread=tuple(w for w in re.findall(r"[^\W_]+", rest) if w not in _FILLER)[:10],
        asks=asks,
    )
