"""Bind and looseness of a mix as sums of named rules, each with its points and its reason.

An index to compare two mixes by, not a measurement: the points are ours, ordered by common practice (no published
source). Both run from 0 to 100; plain minced meat, unsalted and lightly worked, stands at 40 and 40.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from vianda.core.basis.phrase import Phrase, say
from vianda.core.mix.panade import PanadeFigures

PLAIN = 40.0
PASTE = ("damp", "stiff", "soft")


@dataclass(frozen=True, slots=True)
class MixFacts:
    """What the rules look at. Amounts are by mass of the meat, 0–1, except where the name says otherwise."""

    egg: float
    white: float
    cheese: float
    raw_onion: float
    raw_wet: float
    salt_in_mix: float
    fat_frac: float
    panade: PanadeFigures
    processor_s: float
    work_s: float
    mix_temp_c: float
    coarse: bool


@dataclass(frozen=True, slots=True)
class IndexTerm:
    """One rule's part in an index: its name, its points (rounded to the half), and why."""

    rule: str
    points: float
    why: Phrase


@dataclass(frozen=True, slots=True)
class Index:
    """The sum of its terms, kept within 0 to 100, and a word for it."""

    value: float
    word: str
    terms: tuple[IndexTerm, ...]


# A word for each fifth of an index.
BIND_WORDS = ("barely holds", "loose", "holds", "slices clean", "firm as sausage")
LOOSE_WORDS = ("rubbery", "tight", "even", "tender", "crumbles")


def _capped(value: float, per: float, most: float) -> float:
    return min(most, value * per)


# rule, points, reason. Egg: one large egg to a pound of meat (11 parts in a hundred) is the usual firm bind.
_Rule = tuple[str, Callable[[MixFacts], float], str]
_BIND: tuple[_Rule, ...] = (
    ("salt worked in", lambda f: _capped(f.salt_in_mix, 500.0, 12.0), "Salt dissolves protein into a glue."),
    ("whole egg and yolk", lambda f: _capped(f.egg, 100.0, 20.0), "Egg sets between the crumbs of meat."),
    ("egg white", lambda f: _capped(f.white, 250.0, 20.0), "White sets firm, without fat."),
    (
        "panade as a paste",
        lambda f: _capped(f.panade.crumb_per_meat_frac, 80.0, 10.0) if f.panade.state in PASTE else 0.0,
        "Swollen crumb fills the gaps and holds juice.",
    ),
    (
        "dry crumb",
        lambda f: -_capped(f.panade.crumb_per_meat_frac, 80.0, 10.0) if f.panade.state == "dry" else 0.0,
        "Dry crumb drinks the meat's juice and breaks the web.",
    ),
    ("soup", lambda f: -20.0 if f.panade.state == "soup" else 0.0, "Free liquid keeps the meat apart."),
    ("cheese", lambda f: _capped(f.cheese, 40.0, 6.0), "Cheese melts and sets as glue."),
    ("raw onion and other wet pieces", lambda f: -_capped(f.raw_wet, 60.0, 12.0), "Pieces that weep leave gaps."),
    (
        "fat past a quarter",
        lambda f: -_capped(max(0.0, f.fat_frac - 0.25), 150.0, 12.0),
        "Fat runs out and leaves holes.",
    ),
    ("working the meat", lambda f: _capped(max(0.0, f.work_s - 60.0), 0.06, 8.0), "Kneading makes it sticky."),
    ("processor", lambda f: _capped(f.processor_s, 0.8, 16.0), "A spin of the blades makes a fine, sliceable bind."),
    ("warm", lambda f: -_capped(max(0.0, f.mix_temp_c - 10.0), 1.5, 15.0), "Warm fat smears and coats the protein."),
)
_LOOSE: tuple[_Rule, ...] = (
    (
        "panade's water",
        lambda f: _capped(f.panade.liquid_per_meat_frac, 130.0, 25.0) if f.panade.state in (*PASTE, "soup") else 0.0,
        "Water held by crumb keeps the protein net open.",
    ),
    ("crumb", lambda f: _capped(f.panade.crumb_per_meat_frac, 80.0, 10.0), "Crumb stands between the strands of meat."),
    (
        "fat",
        lambda f: (
            min(10.0, 100.0 * (f.fat_frac - 0.15)) if f.fat_frac > 0.15 else -min(12.0, 120.0 * (0.15 - f.fat_frac))
        ),
        "Fat is soft; lean meat closes up.",
    ),
    ("onion and other wet pieces", lambda f: _capped(f.raw_wet, 40.0, 6.0), "Wet pieces make it crumble softly."),
    ("coarse plate", lambda f: 5.0 if f.coarse else 0.0, "Coarse strands leave room."),
    ("salt worked in", lambda f: -_capped(f.salt_in_mix, 500.0, 10.0), "Dissolved protein makes a springy bite."),
    ("egg", lambda f: -_capped(f.egg, 40.0, 8.0), "Set egg firms it."),
    ("egg white", lambda f: -_capped(f.white, 100.0, 8.0), "White makes it springy."),
    (
        "working the meat",
        lambda f: -_capped(max(0.0, f.work_s - 60.0), 0.1, 15.0),
        "Overworked meat eats like sausage.",
    ),
    ("processor", lambda f: -_capped(f.processor_s, 0.7, 25.0), "Past 15 seconds it goes springy."),
)


def _index(rules: tuple[_Rule, ...], facts: MixFacts, words: tuple[str, ...]) -> Index:
    terms = [IndexTerm("the meat itself", PLAIN, say("Minced meat, lightly worked, unsalted."))]
    for name, points, why in rules:
        # Half points: finer ones would claim more than the rules know.
        given = round(points(facts) * 2) / 2
        if given:
            terms.append(IndexTerm(name, given, say(why)))
    value = min(100.0, max(0.0, sum(t.points for t in terms)))
    return Index(value, words[min(len(words) - 1, int(value // 20))], tuple(terms))


def bind_index(facts: MixFacts) -> Index:
    """How well the raw mix will hold and slice: 0 falls apart, 100 is a sausage.

    Parameters
    ----------
    facts : MixFacts
        What the rules of the index look at.

    Returns
    -------
    Index
        The sum of its terms, kept within 0 to 100, and a word for it.

    References
    ----------
    Points a rule: ours, low confidence; which way each rule works is common practice.

    Examples
    --------
    More egg never lowers it; a soup always does.
    """
    return _index(_BIND, facts, BIND_WORDS)


def looseness_index(facts: MixFacts) -> Index:
    """How tender and open it will eat: 0 is rubber, 100 falls into crumbs.

    Parameters
    ----------
    facts : MixFacts
        What the rules of the index look at.

    Returns
    -------
    Index
        The sum of its terms, kept within 0 to 100, and a word for it.

    References
    ----------
    Points a rule: ours, low confidence; which way each rule works is common practice.

    Examples
    --------
    A soft panade raises it; ten seconds of processor lower it.
    """
    return _index(_LOOSE, facts, LOOSE_WORDS)
