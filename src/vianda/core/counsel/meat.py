"""Counsel on the blend: too lean, too fat, uncertain, or not to be called what it is called."""

from __future__ import annotations

from vianda.core.counsel.rule import Change, Remark, Rule
from vianda.core.edit import SetFigure, SwapMeat
from vianda.core.figures import Figures
from vianda.core.phrase import frac, mass, say, word
from vianda.core.styles import Style

PRACTICE = "common practice, no published source"
# A band wider than this leaves the cook guessing between "dry" and "greasy" (ours).
WIDE_BAND_FRAC = 0.12
# A blend on the right side of the law whose batches cross it more often than this is worth a word (ours).
CHANCE_WORTH_SAYING = 0.10


def _toward(figures: Figures, target_frac: float) -> tuple[Change, ...]:
    """A change of one share that brings the blend to a target, when two unlocked meats straddle it."""
    free = [p for p in figures.blend.parts if not p.locked]
    if len(free) < 2:
        return ()
    fattest = max(free, key=lambda p: p.fat_usual_frac)
    now = figures.blend.fat_frac
    others_share = sum(p.share_frac for p in free if p is not fattest)
    if others_share <= 0:
        return ()
    others_fat = sum(p.share_frac * p.fat_usual_frac for p in free if p is not fattest) / others_share
    reach = fattest.fat_usual_frac - others_fat
    if reach <= 1e-9:
        return ()
    # Moving share d from the others to the fattest moves the blend by d × reach.
    share = round(fattest.share_frac + (target_frac - now) / reach, 2)
    if not 0.0 < share < fattest.share_frac + others_share:
        return ()
    label = say("Set {meat} to {share}", meat=word(fattest.name), share=frac(share))
    return (Change(label, SetFigure("share", share, meat=fattest.meat)),)


def _middle(style: Style) -> float:
    return style.fat_start_frac


def _too_lean(figures: Figures) -> Remark | None:
    low = figures.style.fat_band_frac[0]
    if figures.blend.fat_frac >= low - 1e-9:
        return None
    return Remark(
        say("{fat} fat is lean for this style", fat=frac(figures.blend.fat_frac)),
        say(
            "Usual is {low} to {high}. Below it the piece eats dry; below about {dry} any burger does.",
            low=frac(low),
            high=frac(figures.style.fat_band_frac[1]),
            dry=frac(0.15),
        ),
        _toward(figures, _middle(figures.style)),
    )


def _too_fat(figures: Figures) -> Remark | None:
    high = figures.style.fat_band_frac[1]
    if figures.blend.fat_frac <= high + 1e-9:
        return None
    return Remark(
        say("{fat} fat is rich for this style", fat=frac(figures.blend.fat_frac)),
        say(
            "Usual is {low} to {high}. Above it the piece shrinks hard, and flares on a grate.",
            low=frac(figures.style.fat_band_frac[0]),
            high=frac(high),
        ),
        _toward(figures, _middle(figures.style)),
    )


def _name_not_allowed(figures: Figures) -> Remark | None:
    if not figures.names or figures.names[1].allowed:
        return None
    strict = figures.names[0]
    if strict.bar == "other-species":
        return Remark(
            say("Not ground beef, not hamburger"),
            say("There is another animal than beef in the blend; under the US rule it carries neither name."),
        )
    return Remark(
        say("{fat} fat: not ground beef, not hamburger", fat=frac(strict.limit_frac - strict.margin_frac)),
        say("The US rule allows at most {limit} fat under either name.", limit=frac(strict.limit_frac)),
        _toward(figures, _middle(figures.style)),
    )


def _hamburger_only(figures: Figures) -> Remark | None:
    if not figures.names or figures.names[0].allowed or not figures.names[1].allowed:
        return None
    return Remark(
        say("May be called hamburger, not ground beef"),
        say("Under the US rule beef fat may be added as such to hamburger only."),
    )


def _name_doubtful(figures: Figures) -> Remark | None:
    if not figures.names:
        return None
    name = figures.names[1]
    if not name.allowed or name.chance_over < CHANCE_WORTH_SAYING:
        return None
    return Remark(
        say("{chance} of batches pass {limit} fat", chance=frac(name.chance_over), limit=frac(name.limit_frac)),
        say("Then they may not be sold as ground beef or hamburger in the United States. Test the meat, or go leaner."),
    )


def _fat_uncertain(figures: Figures) -> Remark | None:
    blend = figures.blend
    width = blend.fat_high_frac - blend.fat_low_frac
    if width <= WIDE_BAND_FRAC:
        return None
    worst = max(blend.parts, key=lambda p: p.doubt_share_frac)
    changes: tuple[Change, ...] = ()
    if worst.meat == "mince-unknown" and "ground-80" in figures.larder.meats:
        changes = tuple(
            Change(say("The label says {fat} fat", fat=frac(fat)), SwapMeat("mince-unknown", key))
            for key, fat in (("ground-80", 0.20), ("ground-90", 0.10))
            if all(p.meat != key for p in blend.parts)
        )
    return Remark(
        say(
            "Fat may be anything from {low} to {high}",
            low=frac(blend.fat_low_frac),
            high=frac(blend.fat_high_frac),
        ),
        say(
            "{meat} brings {share} of that doubt. Ask the butcher, read the label, or cook out a small sample: "
            "{sample} is enough.",
            meat=word(worst.name),
            share=frac(worst.doubt_share_frac),
            sample=mass(100),
        ),
        changes,
    )


RULES = (
    Rule("meat.too-lean", "meat", "asks", "fat below the style's band", PRACTICE, _too_lean),
    Rule("meat.too-fat", "meat", "asks", "fat above the style's band", PRACTICE, _too_fat),
    Rule(
        "meat.name-not-allowed",
        "meat",
        "limit",
        "fat above 30 %, or another species: neither US name is left",
        "9 CFR 319.15",
        _name_not_allowed,
    ),
    Rule(
        "meat.hamburger-only",
        "meat",
        "note",
        "beef fat added as such",
        "9 CFR 319.15",
        _hamburger_only,
    ),
    Rule(
        "meat.name-doubtful",
        "meat",
        "asks",
        "more than one batch in ten above 30 % fat",
        "9 CFR 319.15; the chance is ours",
        _name_doubtful,
    ),
    Rule(
        "meat.fat-uncertain",
        "meat",
        "asks",
        "90 % band of fat wider than 12 points",
        "our own rule",
        _fat_uncertain,
    ),
)
