"""Counsel on the blend: too lean, too fat, uncertain, or not to be called what it is called."""

from __future__ import annotations

from vianda.core.basis.phrase import frac, length, mass, number, say, word
from vianda.core.blend.grind import FINE_MM, SINEWY_SHARE_FRAC
from vianda.core.counsel.rule import PRACTICE, Change, Remark, Rule
from vianda.core.inventory.evidence import disagrees
from vianda.core.model.edit import SetFigure, SwapMeat
from vianda.core.model.styles import Style
from vianda.core.pipeline.figures import Figures

# A band wider than this leaves the cook guessing between "dry" and "greasy" (ours).
WIDE_BAND_FRAC = 0.12
# A blend on the right side of the law whose batches cross it more often than this is worth a word (ours).
CHANCE_WORTH_SAYING = 0.10
# A blend whose usual fat is right, but fewer of whose batches are, is worth a test (ours).
SURE_ENOUGH = 0.75


def _toward(figures: Figures, target_frac: float) -> tuple[Change, ...]:
    """A change of one share that brings the blend to a target, when two unlocked meats straddle it."""
    free = [p for p in figures.meat.blend.parts if not p.locked]
    if len(free) < 2:
        return ()
    fattest = max(free, key=lambda p: p.fat_usual_frac)
    now = figures.meat.blend.fat_frac
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
    return (Change(label, SetFigure("share", share, item=fattest.meat)),)


def _middle(style: Style) -> float:
    return style.fat_start_frac


def _too_lean(figures: Figures) -> Remark | None:
    low = figures.context.style.fat_band_frac[0]
    if figures.meat.blend.fat_frac >= low - 1e-9:
        return None
    return Remark(
        say("{fat} fat is lean for this style", fat=frac(figures.meat.blend.fat_frac)),
        say(
            "Usual is {low} to {high}. Below it the piece eats dry; below about {dry} any burger does.",
            low=frac(low),
            high=frac(figures.context.style.fat_band_frac[1]),
            dry=frac(0.15),
        ),
        _toward(figures, _middle(figures.context.style)),
    )


def _too_fat(figures: Figures) -> Remark | None:
    high = figures.context.style.fat_band_frac[1]
    if figures.meat.blend.fat_frac <= high + 1e-9:
        return None
    return Remark(
        say("{fat} fat is rich for this style", fat=frac(figures.meat.blend.fat_frac)),
        say(
            "Usual is {low} to {high}. Above it the piece shrinks hard, and flares on a grate.",
            low=frac(figures.context.style.fat_band_frac[0]),
            high=frac(high),
        ),
        _toward(figures, _middle(figures.context.style)),
    )


def _name_not_allowed(figures: Figures) -> Remark | None:
    # "Beef patties" promises nothing about fat, so it does not count as a name left.
    names = [n for n in figures.trade.names if n.tests]
    # Balls and loaves are not sold under these names; what a mix costs a burger is counsel on the mix.
    if figures.context.formula.dish.dish != "burger" or any(n.bar in ("binder", "salt") for n in names):
        return None
    if not names or any(n.allowed for n in names):
        return None
    widest = names[-1]
    said = ", ".join(f"not {n.name}" for n in (names if len(names) < 3 else names[-2:]))
    said = said[0].upper() + said[1:]
    if widest.bar == "fat":
        test = next(t for t in widest.tests if t.kind == "fat")
        return Remark(
            say(f"{{fat}} fat: {said[0].lower() + said[1:]}", fat=frac(test.value_frac)),
            say("The rule in force here allows at most {limit} fat under these names.", limit=frac(test.limit_frac)),
            _toward(figures, min(_middle(figures.context.style), test.limit_frac - 0.01)),
        )
    return Remark(say(said), say(_WHY_BARRED[widest.bar]))


_WHY_BARRED = {
    "other-species": "There is another animal than beef in the blend; under the rule in force here it carries no "
    "such name.",
    "added-fat": "Fat was added as such.",
    "offal": "Heart and other offal are not covered by these names.",
    "not-meat": "Heart, tongue, tail and organs are no “meat” by Regulation (EU) 1169/2011, Annex VII B 17; cheek is.",
    "unsure": "The rule is silent on heart, tongue and tail. Ask the authority before the name is used.",
    "cheek": "Cheek meat is more than a quarter of it: say so on the label, or use less.",
    "collagen": "There is too much connective tissue for its protein: leave out sinewy cuts.",
    "too-little-beef": "There is less beef in it than the name asks for.",
}


def _hamburger_only(figures: Figures) -> Remark | None:
    if (
        figures.context.formula.dish.dish != "burger"
        or not figures.trade.names
        or figures.trade.names[0].bar != "added-fat"
    ):
        return None
    return Remark(
        say("May be called hamburger, not ground beef"),
        say("Under the US rule beef fat may be added as such to hamburger only."),
    )


def _name_doubtful(figures: Figures) -> Remark | None:
    name = next((n for n in figures.trade.names if n.allowed and n.tests), None)
    if figures.context.formula.dish.dish != "burger" or name is None or name.chance_failed < CHANCE_WORTH_SAYING:
        return None
    worst = max(name.tests, key=lambda t: t.chance_failed)
    kind = {"fat": "fat", "collagen": "collagen by protein", "beef": "beef"}[worst.kind]
    return Remark(
        say(
            f"{{chance}} of batches pass {{limit}} {kind}",
            chance=frac(worst.chance_failed),
            limit=frac(worst.limit_frac),
        ),
        say(
            "Then they may not be sold as {name} under the rule in force here. Test the meat, or keep further away.",
            name=word(name.name),
        ),
    )


def _fat_uncertain(figures: Figures) -> Remark | None:
    blend = figures.meat.blend
    width = blend.fat_high_frac - blend.fat_low_frac
    if width <= WIDE_BAND_FRAC:
        return None
    worst = max(blend.parts, key=lambda p: p.uncertainty_share_frac)
    changes: tuple[Change, ...] = ()
    if worst.meat == "mince-unknown" and "ground-80" in figures.context.inventory.meats:
        changes = tuple(
            Change(say("The label says {fat} fat", fat=frac(fat)), SwapMeat("mince-unknown", key))
            for key, fat in (("ground-80", 0.20), ("ground-90", 0.10))
            if all(p.meat != key for p in blend.parts)
        )
    return Remark(
        say("Fat may be anything from {low} to {high}", low=frac(blend.fat_low_frac), high=frac(blend.fat_high_frac)),
        say(
            "{meat} brings {share} of that uncertainty. Read the label, or cook out {sample} of it: one fat test would "
            "narrow {wide} points to {left}.",
            meat=word(worst.name),
            share=frac(worst.uncertainty_share_frac),
            sample=mass(200),
            wide=number(width * 100),
            left=number(worst.tested_width_frac * 100),
        ),
        changes,
    )


def _band_uncertain(figures: Figures) -> Remark | None:
    blend, (low, high) = figures.meat.blend, figures.context.style.fat_band_frac
    if not low - 1e-9 <= blend.fat_frac <= high + 1e-9 or blend.chance_in_band >= SURE_ENOUGH:
        return None
    if blend.fat_high_frac - blend.fat_low_frac > WIDE_BAND_FRAC:
        return None
    worst = max(blend.parts, key=lambda p: p.uncertainty_share_frac)
    return Remark(
        say(
            "Only {sure} of batches lie within {low} to {high} fat",
            sure=frac(blend.chance_in_band),
            low=frac(low),
            high=frac(high),
        ),
        say(
            "{meat} brings {share} of the uncertainty: one fat test of it would narrow {wide} points to {left}. Or aim "
            "nearer to the middle.",
            meat=word(worst.name),
            share=frac(worst.uncertainty_share_frac),
            wide=number((blend.fat_high_frac - blend.fat_low_frac) * 100),
            left=number(worst.tested_width_frac * 100),
        ),
    )


def _lot_unlike_its_name(figures: Figures) -> Remark | None:
    for part in figures.meat.blend.parts:
        if not part.lot:
            continue
        meat = figures.context.inventory.meat(part.meat)
        for found in figures.context.inventory.lot(part.lot, meat=part.meat).evidence:
            if disagrees(meat.fat, found):
                return Remark(
                    say("{lot} is not like {meat}", lot=word(part.lot_name), meat=word(meat.name.lower())),
                    say(
                        "{fat} fat was found, and nine deliveries in ten of it hold {range}. Look again at the "
                        "weighing, the label and the box.",
                        fat=frac(found.fat_frac),
                        range=frac(meat.fat_low_frac, meat.fat_high_frac),
                    ),
                )
    return None


def _lot_too_small(figures: Figures) -> Remark | None:
    for part, line in zip(figures.meat.blend.parts, figures.trade.cost.parts, strict=True):
        if not part.lot:
            continue
        left = figures.context.inventory.lot(part.lot, meat=part.meat).left_mass_g
        if line.bought_g > left + 0.5:
            return Remark(
                say("{lot} is {short} short", lot=word(part.lot_name), short=mass(line.bought_g - left)),
                say(
                    "{need} are needed before trimming, and {left} are left of it. Make the batch smaller, or top up "
                    "with another meat.",
                    need=mass(line.bought_g),
                    left=mass(left),
                ),
            )
    return None


def _plate_too_coarse(figures: Figures) -> Remark | None:
    grind = figures.meat.grind
    if grind.sinewy_share_frac < SINEWY_SHARE_FRAC or grind.tool_kind == "none":
        return None
    if grind.tool_kind == "grinder" and grind.plate_mm <= FINE_MM + 1.0:
        return None
    return Remark(
        say("{share} sinewy meat wants a fine plate", share=frac(grind.sinewy_share_frac)),
        say(
            "From {limit} of sinewy cuts on it is ground at {fine}, twice; {tool} does not do that.",
            limit=frac(SINEWY_SHARE_FRAC),
            fine=length(FINE_MM),
            tool=word(grind.tool_name),
        ),
    )


RULES = (
    Rule("meat.too-lean", "meat", "check", "fat below the style's band", PRACTICE, _too_lean),
    Rule("meat.too-fat", "meat", "check", "fat above the style's band", PRACTICE, _too_fat),
    Rule(
        "meat.name-not-allowed",
        "meat",
        "limit",
        "no name with a limit is left under the kitchen's rule",
        "the rule of the country; see the working",
        _name_not_allowed,
    ),
    Rule("meat.hamburger-only", "meat", "note", "beef fat added as such", "9 CFR 319.15", _hamburger_only),
    Rule(
        "meat.name-doubtful",
        "meat",
        "check",
        "more than one batch in ten breaks a limit of the best name left",
        "the rule of the country; the chance is ours",
        _name_doubtful,
    ),
    Rule(
        "meat.fat-uncertain", "meat", "check", "90 % band of fat wider than 12 points", "our own rule", _fat_uncertain
    ),
    Rule(
        "meat.band-uncertain",
        "meat",
        "check",
        "usual fat in the style's band, but under three batches in four",
        "our own rule",
        _band_uncertain,
    ),
    Rule(
        "meat.lot-unlike-its-name",
        "meat",
        "check",
        "evidence on a lot more than three standard errors from its meat's range",
        "our own rule",
        _lot_unlike_its_name,
    ),
    Rule("meat.lot-too-small", "meat", "check", "more is needed than is left of the lot", "arithmetic", _lot_too_small),
    Rule(
        "meat.plate-too-coarse",
        "meat",
        "check",
        "30 % or more sinewy meat, and no plate near 3 mm",
        PRACTICE,
        _plate_too_coarse,
    ),
)
