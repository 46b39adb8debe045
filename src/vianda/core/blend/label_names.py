"""Which names a raw blend may carry on a label. Published law; local rules decide.

United States, 9 CFR 319.15: *ground beef* and *hamburger* are beef with at most 30 % fat and no added water,
binders or extenders; hamburger may have beef fat added as such, ground beef may not; cheek at most 25 % unless
declared; *beef patties* (c) may hold more. European Union, Regulation 1169/2011 Annex VI part B, judged on a daily
average: fat and collagen by protein; Regulation
853/2004: under 1 % salt, nothing else added. Canada, Food and Drug Regulations B.14.015B: fat. United Kingdom, Products
Containing Meat etc. Regulations 2014: a *beefburger* is at least 62 % beef. All from memory, high confidence for
the limits; read them against the current text.

What counts as meat. EU and UK, Regulation 1169/2011 Annex VII part B 17: skeletal muscle; diaphragm and masseters are
part of it, so cheek counts; heart, tongue, tail, and muscles of the head other than the masseters do not. US: ground
beef is of skeletal muscle, with cheek to a quarter; tail is skeletal, heart and tongue are not (FSIS labelling policy).
Canada: the text we know names neither, so such a blend is *unsure*. From memory: EU and UK high, US medium, Canada low.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from vianda.core.blend.blend import BlendFigures
from vianda.core.blend.connective import CollagenFigures
from vianda.core.equipment.kitchen import NamingRule
from vianda.core.inventory.fat_range import FatSpread

US_FAT_LIMIT_FRAC = 0.30
US_CHEEK_LIMIT_FRAC = 0.25
UK_BEEF_LEAST_FRAC = 0.62
# Regulation (EC) 853/2004, Annex I 1.13: minced meat holds less than 1 % salt.
EU_SALT_LIMIT_FRAC = 0.01

Bar = Literal[
    "none",
    "fat",
    "collagen",
    "other-species",
    "added-fat",
    "offal",
    "not-meat",
    "unsure",
    "cheek",
    "too-little-beef",
    "binder",
    "salt",
]
Kind = Literal["fat", "collagen", "beef"]


@dataclass(frozen=True, slots=True)
class NameTest:
    """One limit a name sets: the figure, the limit, the margin (positive: kept) and the chance that a batch fails."""

    kind: Kind
    limit_frac: float
    value_frac: float
    margin_frac: float
    chance_failed: float


@dataclass(frozen=True, slots=True)
class NameFigures:
    """One name: whether the usual figures allow it, what bars it (in words too), each limit with margin and chance."""

    name: str
    allowed: bool
    bar: Bar
    verdict: str
    tests: tuple[NameTest, ...]
    chance_failed: float


_VERDICTS: dict[Bar, str] = {
    "none": "may be carried",
    "fat": "too much fat",
    "collagen": "too much collagen",
    "other-species": "not for these species",
    "added-fat": "not with fat added as such",
    "offal": "not with heart, tongue or organs",
    "not-meat": "not with heart, tongue, tail or organs: they are no “meat” there",
    "unsure": "the rule is silent on heart, tongue and tail: ask before you use it",
    "cheek": "too much cheek meat, unless declared",
    "too-little-beef": "too little beef",
    "binder": "not with what is mixed in",
    "salt": "not with that much salt",
}

SOURCES: dict[NamingRule, str] = {
    "US": "9 CFR 319.15 (a) to (c)",
    "EU": "Regulation (EU) 1169/2011, Annex VI part B; Regulation (EC) 853/2004: minced meat holds under 1 % salt",
    "CA": "Food and Drug Regulations (Canada), B.14.015B",
    "UK": "Products Containing Meat etc. Regulations 2014 (England)",
    "none": "no naming rule is set in this kitchen",
}


@dataclass(frozen=True, slots=True)
class Additions:
    """What a mix adds to the meat: its share of the whole (0–1), salt by mass of the whole, and binders or the like.

    ``more_than_seasoning``: crumb, egg, liquid, cheese, vegetables: what 319.15 calls water, binders or extenders.
    """

    meat_frac: float = 1.0
    salt_frac: float = 0.0
    more_than_seasoning: bool = False


@dataclass(frozen=True, slots=True)
class Contents:
    """What the rules ask of a blend. Shares 0–1 of the raw meat."""

    blend: BlendFigures
    spread: FatSpread
    collagen: CollagenFigures
    additions: Additions

    def share(self, **wanted: str) -> float:
        """Share of the parts whose fields have these values.

        Parameters
        ----------
        **wanted : str
            What the curve is made for.

        Returns
        -------
        float
            Share of the parts whose fields have these values.
        """
        return sum(
            p.share_frac for p in self.blend.parts if all(getattr(p, name) == value for name, value in wanted.items())
        )

    def fat_test(self, limit_frac: float) -> NameTest:
        """Fat against its limit.

        Parameters
        ----------
        limit_frac : float
            The limit, 0–1.

        Returns
        -------
        NameTest
            One limit a name sets.
        """
        fat = self.blend.fat_frac
        return NameTest("fat", limit_frac, fat, limit_frac - fat, self.spread.chance_above(limit_frac))

    def collagen_test(self, limit_frac: float) -> NameTest:
        """Collagen by protein against its limit.

        Parameters
        ----------
        limit_frac : float
            The limit, 0–1.

        Returns
        -------
        NameTest
            One limit a name sets.
        """
        usual = self.collagen.usual_frac
        return NameTest("collagen", limit_frac, usual, limit_frac - usual, self.collagen.chance_above(limit_frac))


# Cuts by their key in the larder: the tail is muscle, and no meat by the EU's definition.
TAILS = frozenset({"oxtail"})


def _no_meat(c: Contents) -> float:
    """Share that Annex VII B 17 of Regulation 1169/2011 does not call meat: heart, tongue, organs, tail."""
    tail = sum(p.share_frac for p in c.blend.parts if p.meat in TAILS)
    return c.share(kind="offal") + tail


def _judged(name: str, *tests: NameTest, bar: Bar = "none") -> NameFigures:
    failed = next((t.kind for t in tests if t.margin_frac < -1e-12), None)
    found: Bar = bar
    if bar == "none" and failed is not None:
        found = "too-little-beef" if failed == "beef" else failed
    return NameFigures(
        name, found == "none", found, _VERDICTS[found], tests, max((t.chance_failed for t in tests), default=0.0)
    )


def _united_states(c: Contents) -> tuple[NameFigures, ...]:
    beef = 1.0 - c.share(species="beef")
    general: Bar = "none"
    if beef > 1e-9:
        general = "other-species"
    elif c.additions.more_than_seasoning:
        general = "binder"
    elif c.share(kind="offal") > 0:
        general = "offal"
    elif sum(p.share_frac for p in c.blend.parts if p.meat.startswith("cheek")) > US_CHEEK_LIMIT_FRAC + 1e-9:
        general = "cheek"
    fat = c.fat_test(US_FAT_LIMIT_FRAC)
    strict: Bar = general
    if general == "none" and fat.margin_frac >= -1e-12 and c.share(kind="fat") > 0:
        strict = "added-fat"
    return (
        _judged("ground beef", fat, bar=strict),
        _judged("hamburger", fat, bar=general),
        _judged("beef patties", bar="other-species" if beef > 1e-9 else "none"),
    )


def _european_union(c: Contents) -> tuple[NameFigures, ...]:
    bar: Bar = "none"
    if _no_meat(c) > 0:
        bar = "not-meat"
    elif c.additions.more_than_seasoning:
        bar = "binder"
    elif c.additions.salt_frac >= EU_SALT_LIMIT_FRAC:
        bar = "salt"
    lean = _judged("lean minced meat", c.fat_test(0.07), c.collagen_test(0.12), bar=bar)
    if c.share(species="beef") > 1.0 - 1e-9:
        return lean, _judged("minced pure beef", c.fat_test(0.20), c.collagen_test(0.15), bar=bar)
    if c.share(species="pork") > 0:
        return lean, _judged("minced meat containing pigmeat", c.fat_test(0.30), c.collagen_test(0.18), bar=bar)
    return lean, _judged("minced meat of other species", c.fat_test(0.25), c.collagen_test(0.15), bar=bar)


def _canada(c: Contents) -> tuple[NameFigures, ...]:
    bar: Bar = "none" if c.share(species="beef") > 1.0 - 1e-9 else "other-species"
    if bar == "none" and _no_meat(c) > 0:
        bar = "unsure"
    if bar == "none" and c.additions.more_than_seasoning:
        bar = "binder"
    grades = (("extra lean", 0.10), ("lean", 0.17), ("medium", 0.23), ("regular", 0.30))
    return tuple(_judged(f"{grade} ground beef", c.fat_test(limit), bar=bar) for grade, limit in grades)


def _united_kingdom(c: Contents) -> tuple[NameFigures, ...]:
    # Heart, tongue, tail and organs may go in, declared; they are not counted as beef.
    tail = sum(p.share_frac for p in c.blend.parts if p.meat in TAILS)
    beef = (c.share(species="beef") - c.share(species="beef", kind="offal") - tail) * c.additions.meat_frac
    margin = beef - UK_BEEF_LEAST_FRAC
    return (_judged("beefburger", NameTest("beef", UK_BEEF_LEAST_FRAC, beef, margin, float(margin < 0))),)


NOTHING_ADDED = Additions()
_RULES = {"US": _united_states, "EU": _european_union, "CA": _canada, "UK": _united_kingdom}


def label_names(
    blend: BlendFigures,
    *,
    spread: FatSpread,
    collagen: CollagenFigures,
    rule: NamingRule,
    additions: Additions = NOTHING_ADDED,
) -> tuple[NameFigures, ...]:
    """Names under the kitchen's naming rule, in order of how much they promise.

    Parameters
    ----------
    blend : BlendFigures
        The blend on the scale.
    spread : FatSpread
        The distribution of the blend's fat.
    collagen : CollagenFigures
        Connective tissue of the blend.
    rule : NamingRule
        Whose naming rule.
    additions : Additions, default NOTHING_ADDED
        What comes to the meat.

    Returns
    -------
    tuple[NameFigures, ...]
        Each: one name.

    References
    ----------
    9 CFR 319.15; Regulation (EU) 1169/2011 and (EC) 853/2004; Food and Drug Regulations (Canada) B.14.015B;
    Products Containing Meat etc. Regulations 2014 (UK). From memory.

    Examples
    --------
    A blend of chuck with suet below 30 % may be *hamburger* but not *ground beef*.
    """
    return _RULES[rule](Contents(blend, spread, collagen, additions)) if rule in _RULES else ()


def widest_fat_limit(names: tuple[NameFigures, ...]) -> float | None:
    """The most fat that any name still open to these meats allows; None when no name sets a limit.

    Parameters
    ----------
    names : tuple[NameFigures, ...]
        The verdict on each name.

    Returns
    -------
    float | None
        The most fat that any name still open to these meats allows. None where there is none.

    References
    ----------
    As ``label_names``.
    """
    limits = [t.limit_frac for n in names if n.bar in ("none", "fat", "collagen") for t in n.tests if t.kind == "fat"]
    return max(limits, default=None)
