"""Counsel on salt: none, twice, too early, and what brings it unasked."""

from __future__ import annotations

from vianda.core.basis.phrase import fine_frac, mass, say, word
from vianda.core.batch.salt_ledger import START_MIXED_SALT_FRAC, USUAL_SALT_FRAC
from vianda.core.counsel.rule import PRACTICE, Change, Remark, Rule
from vianda.core.model.edit import Choose, SetFigure
from vianda.core.pipeline.figures import Figures

# All salt put in or brought, by mass of the meat.
LEAST_SALT_FRAC, MOST_USUAL_SALT_FRAC = 0.008, 0.022
# The same by mass of a whole sauce, before it boils down (ours).
SAUCE_SALT_FRAC = (0.005, 0.012)
OVER_FRAC = 0.0005
CURED_FROM_FRAC, FULL_SALT_FRAC, BESIDE_CURED_FRAC = 0.002, 0.010, 0.007
EARLY_FRAC = 0.003
LIGHT_SPOON_G = 4.5


def _total(figures: Figures) -> float:
    ledger = figures.salt.ledger
    return ledger.brought_frac + ledger.to_add_frac


def _is_sauce(figures: Figures) -> bool:
    return figures.context.formula.dish.dish == "sauce"


def _unsalted(figures: Figures) -> Remark | None:
    if _is_sauce(figures):
        return _sauce_unsalted(figures)
    if figures.context.formula.dish.dish == "burger" or _total(figures) >= LEAST_SALT_FRAC - 1e-9:
        return None
    if "less-salt" in figures.context.formula.mix.avoid and _total(figures) >= LEAST_SALT_FRAC / 2:
        return None
    return Remark(
        say("{salt} salt in all: bland, and a weak bind", salt=fine_frac(_total(figures))),
        say(
            "Balls and loaves are salted through; usual is {band} of the meat, from whatever brings it.",
            band=fine_frac(*USUAL_SALT_FRAC),
        ),
        (Change(say("Salt it to {s}", s=fine_frac(START_MIXED_SALT_FRAC)), SetFigure("salt", START_MIXED_SALT_FRAC)),),
    )


def _sauce_unsalted(figures: Figures) -> Remark | None:
    salt = figures.salt
    if salt.of_mix_frac >= SAUCE_SALT_FRAC[0] - 1e-9:
        return None
    # By mass of the meat, as the salt is kept, so that the pot stands in the middle.
    wanted = sum(SAUCE_SALT_FRAC) / 2 * figures.batch.mix_per_meat
    return Remark(
        say("{salt} salt in the pot", salt=fine_frac(salt.of_mix_frac)),
        say(
            "A sauce is salted for all of it, tomato and liquid too: {band} before it boils down.",
            band=fine_frac(*SAUCE_SALT_FRAC),
        ),
        (Change(say("Salt it to {s} of the meat", s=fine_frac(wanted)), SetFigure("salt", wanted)),)
        if wanted <= 0.05
        else (),
    )


def _too_much_comes_along(figures: Figures) -> Remark | None:
    ledger = figures.salt.ledger
    if ledger.over_frac < OVER_FRAC:
        return None
    worst = ledger.entries[0]
    return Remark(
        say(
            "{brought} of salt comes along, {over} more than is wanted",
            brought=mass(figures.salt.brought_g),
            over=mass(ledger.over_frac * figures.batch.meat_mass_g),
        ),
        say(
            "{what} brings {g} of it. Add none; it cannot be taken out, only less of what brings it put in.",
            what=word(worst.name),
            g=mass(worst.per_meat_frac * figures.batch.meat_mass_g),
        ),
        (Change(say("Let {s} be the salt", s=fine_frac(ledger.brought_frac)), SetFigure("salt", ledger.brought_frac)),)
        if ledger.brought_frac <= MOST_USUAL_SALT_FRAC
        else (),
    )


def _salted_twice(figures: Figures) -> Remark | None:
    total = _total(figures)
    most = MOST_USUAL_SALT_FRAC
    if _is_sauce(figures):
        total, most = figures.salt.of_mix_frac, SAUCE_SALT_FRAC[1]
    if total <= most + 1e-9:
        return None
    ledger = figures.salt.ledger
    change: tuple[Change, ...] = ()
    if ledger.brought_frac <= MOST_USUAL_SALT_FRAC and not _is_sauce(figures):
        wanted = max(START_MIXED_SALT_FRAC, ledger.brought_frac)
        change = (Change(say("Bring it to {s}", s=fine_frac(wanted)), SetFigure("salt", wanted)),)
    return Remark(
        say("{salt} salt in all", salt=fine_frac(total)),
        say(
            "{brought} comes along and {add} is added. Past {most} most people find it too salty.",
            brought=mass(figures.salt.brought_g),
            add=mass(figures.salt.batch_salt_g),
            most=fine_frac(most),
        ),
        change,
    )


def _cured(figures: Figures) -> list[str]:
    return [
        p.name for p in figures.meat.blend.parts if p.share_frac > 0 and figures.context.inventory.meat(p.meat).cured
    ]


def _cured_and_salted(figures: Figures) -> Remark | None:
    ledger = figures.salt.ledger
    names = _cured(figures)
    brought = sum(entry.per_meat_frac for entry in ledger.entries if entry.name in names)
    if brought < CURED_FROM_FRAC or ledger.to_add_frac < FULL_SALT_FRAC - 1e-9:
        return None
    wanted = ledger.brought_frac + BESIDE_CURED_FRAC
    return Remark(
        say("{meat} is salted already", meat=word(names[0])),
        say(
            "It brings {g}, and {add} more are added. Cured meat tastes saltier than its figures: fry a teaspoon.",
            g=mass(brought * figures.batch.meat_mass_g),
            add=mass(figures.salt.batch_salt_g),
        ),
        (
            Change(
                say("Add {g} only", g=mass(BESIDE_CURED_FRAC * figures.batch.meat_mass_g)), SetFigure("salt", wanted)
            ),
        ),
    )


def _cured_brings(figures: Figures) -> Remark | None:
    """Its salt is in the figures already; who salts by hand must know."""
    names = _cured(figures)
    brought = sum(entry.per_meat_frac for entry in figures.salt.ledger.entries if entry.name in names)
    if not names or brought <= 0 or _cured_and_salted(figures) is not None:
        return None
    g = mass(brought * figures.batch.meat_mass_g)
    if figures.salt.batch_salt_g <= 0:
        return Remark(
            say("{meat} brings {g} of salt, and none is added", meat=word(names[0]), g=g),
            say("That is {share} of the meat. Fry a teaspoon before you salt it.", share=fine_frac(brought)),
        )
    return Remark(
        say("{meat} brings {g} of salt", meat=word(names[0]), g=g),
        say(
            "So {add} are added instead of {all}. Cured meat tastes saltier than its figures: fry a teaspoon.",
            add=mass(figures.salt.batch_salt_g),
            all=mass(figures.salt.batch_salt_g + brought * figures.batch.meat_mass_g),
        ),
    )


def _salted_early(figures: Figures) -> Remark | None:
    salt = figures.salt
    if (
        figures.context.formula.dish.dish != "burger"
        or salt.salt_place != "mixed"
        or salt.ledger.to_add_frac < EARLY_FRAC
    ):
        return None
    return Remark(
        say("{salt} of salt worked into a burger", salt=mass(salt.batch_salt_g)),
        say(
            "It dissolves protein: a firm, sausage-like bite and a wetter board. Some want just that; then cook "
            "it at once."
        ),
        (Change(say("Salt the surface instead"), Choose("salt_place", "surface")),),
    )


def _light_spoon(figures: Figures) -> Remark | None:
    salt = figures.salt
    if salt.g_per_tsp >= LIGHT_SPOON_G or salt.batch_salt_g <= 0:
        return None
    return Remark(
        say("A teaspoon of {salt} is {g}", salt=word(salt.salt_name.lower()), g=mass(salt.g_per_tsp)),
        say("Fine salt weighs twice that. The spoons here are of this kitchen's salt; with another, weigh it."),
    )


RULES = (
    Rule(
        "mix.unsalted",
        "mix",
        "check",
        "a ball or loaf with under 0.8 % salt of the meat, a sauce with under 0.5 % of the whole",
        PRACTICE,
        _unsalted,
    ),
    Rule(
        "mix.salt-comes-along",
        "mix",
        "check",
        "ingredients bring 0.05 % of the meat more salt than is wanted",
        "arithmetic",
        _too_much_comes_along,
    ),
    Rule(
        "mix.salted-twice",
        "mix",
        "check",
        "over 2.2 % salt of the meat in all, in a sauce over 1.2 % of the whole",
        "our own rule, from the old rule's 2 %",
        _salted_twice,
    ),
    Rule(
        "mix.cured-and-salted",
        "mix",
        "check",
        "cured meat brings 0.2 % of the meat in salt, and 1 % or more is added",
        PRACTICE,
        _cured_and_salted,
    ),
    Rule(
        "mix.cured-brings-salt", "mix", "note", "any cured meat in the blend", "SR28 sodium; " + PRACTICE, _cured_brings
    ),
    Rule("mix.salted-early", "mix", "check", "over 0.3 % salt worked into a burger", PRACTICE, _salted_early),
    Rule(
        "mix.light-spoon",
        "mix",
        "note",
        "this kitchen's salt weighs under 4.5 g a teaspoon",
        "SR28 02047; " + PRACTICE,
        _light_spoon,
    ),
)
