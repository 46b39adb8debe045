"""Which names a raw blend may carry on a label. Published law; local rules decide.

United States, 9 CFR 319.15: *hamburger* and *ground beef* are beef with at most 30 % fat and no added water,
binders or extenders. Hamburger may have beef fat added as such, ground beef may not. Seasoning is allowed.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from vianda.core.blend import BlendFigures
from vianda.core.kitchen import NamingRule

US_FAT_LIMIT_FRAC = 0.30
US_SOURCE = "9 CFR 319.15 (a) and (b)"

Bar = Literal["none", "fat", "other-species", "added-fat"]


@dataclass(frozen=True, slots=True)
class NameFigures:
    """One name: allowed on the usual fat or not, what bars it, and the chance that a batch crosses the limit."""

    name: str
    allowed: bool
    bar: Bar
    limit_frac: float
    margin_frac: float
    chance_over: float


def label_names(blend: BlendFigures, *, rule: NamingRule) -> tuple[NameFigures, ...]:
    """Names under the kitchen's naming rule, in order of how much they promise.

    Examples
    --------
    A blend of chuck with suet below 30 % may be *hamburger* but not *ground beef*.
    """
    if rule == "none":
        return ()
    other = any(p.species != "beef" and p.share_frac > 0 for p in blend.parts)
    added_fat = any(p.kind == "fat" and p.share_frac > 0 for p in blend.parts)
    chance = blend.chance_fat_above(US_FAT_LIMIT_FRAC)
    margin = US_FAT_LIMIT_FRAC - blend.fat_frac

    def judged(name: str, *, fat_allowed: bool) -> NameFigures:
        bar: Bar = "none"
        if other:
            bar = "other-species"
        elif margin < -1e-12:
            bar = "fat"
        elif added_fat and not fat_allowed:
            bar = "added-fat"
        return NameFigures(name, bar == "none", bar, US_FAT_LIMIT_FRAC, margin, chance)

    return judged("ground beef", fat_allowed=False), judged("hamburger", fat_allowed=True)
