"""Limits beyond allergens: what breaks them, and the swaps that keep a mix working, with what each swap costs.

Swaps: common practice, no published source. What counts as less: ours, stated beside each limit.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from vianda.core.batch.lines import LineFigures
from vianda.core.blend.blend import BlendFigures
from vianda.core.inventory.inventory import Inventory
from vianda.core.mix.whole import WholeMix
from vianda.core.model.formula import Limit

# In the order they are offered: the usual ones first.
TITLES: Mapping[Limit, str] = {
    "no-pork": "No pork",
    "no-dairy": "No dairy",
    "no-gluten": "No gluten",
    "no-egg": "No egg",
    "halal": "Halal",
    "less-fat": "Less fat",
    "less-sugar": "Less sugar",
    "less-salt": "Less salt",
    "no-beef": "No beef",
    "no-nuts": "No nuts",
    "no-soy": "No soy",
    "no-fish": "No fish or shellfish",
    "no-sesame": "No sesame",
    "no-celery": "No celery",
    "no-mustard": "No mustard",
    "no-sulphites": "No sulphites",
    "no-alcohol": "No alcohol",
    "no-onion": "No onion",
    "no-garlic": "No garlic",
}
# Limits that are an allergen, or several, of EU Regulation 1169/2011 Annex II.
BY_ALLERGEN: Mapping[Limit, tuple[str, ...]] = {
    "no-dairy": ("milk",),
    "no-gluten": ("gluten",),
    "no-egg": ("egg",),
    "no-nuts": ("nuts", "peanut"),
    "no-soy": ("soy",),
    "no-fish": ("fish", "crustaceans", "molluscs"),
    "no-sesame": ("sesame",),
    "no-celery": ("celery",),
    "no-mustard": ("mustard",),
    "no-sulphites": ("sulphites",),
}
# Limits that name ingredients by a word of their key (ours). Gelatine and lard are of the pig unless a label says not;
# meat itself is halal only by its slaughter, which no composition shows.
BY_WORD: Mapping[Limit, tuple[str, ...]] = {
    "no-pork": ("lard", "gelatine", "bacon", "ham"),
    "halal": ("lard", "gelatine", "bacon", "ham", "wine", "beer", "brandy", "sherry", "marsala", "mirin", "sake"),
    "no-alcohol": ("wine", "beer", "brandy", "sherry", "marsala", "mirin", "sake"),
    "no-onion": ("onion", "shallot", "leek", "chive"),
    "no-garlic": ("garlic",),
    "no-fish": ("anchovy", "fish"),
    "no-beef": ("beef", "tallow", "dripping", "suet", "veal"),
}
BY_SPECIES: Mapping[Limit, str] = {"no-pork": "pork", "halal": "pork", "no-beef": "beef"}
# Fat, sugars and salt by mass of the whole mix. UK front-of-pack lines between medium and high are 17.5, 22.5 and
# 1.5 g in 100 g (from memory); ours sit below, where a mix of this kind can be.
LESS_FAT_FRAC, LESS_SUGAR_FRAC, LESS_SALT_FRAC = 0.15, 0.02, 0.012


@dataclass(frozen=True, slots=True)
class Breach:
    """A limit that is broken and what breaks it, by its kind.

    "line" of the mix, "meat", "whole" (key ""), or what comes beside: "cheese", "glaze", "pan-fat", "frying-fat",
    "bread".

    ``value_frac`` and ``limit_frac`` are set for the limits that are an amount.
    """

    limit: Limit
    kind: str
    key: str
    name: str
    value_frac: float = 0.0
    limit_frac: float = 0.0


@dataclass(frozen=True, slots=True)
class Swap:
    """One ingredient or meat for another ("" to leave it out), and what that costs."""

    what: str
    to: str
    cost: str


# What is swapped for what, first what is usual. Keys of the pantry and of the larder.
_LINE_SWAPS: Mapping[Limit, Mapping[str, tuple[Swap, ...]]] = {
    "no-dairy": {
        "milk": (
            Swap("milk", "chicken-stock", "less round, a little salt comes along"),
            Swap("milk", "water", "plainer"),
        ),
        "buttermilk": (Swap("buttermilk", "chicken-stock", "no tang"),),
        "cream": (Swap("cream", "chicken-stock", "less rich: fat goes"),),
        "yogurt": (Swap("yogurt", "chicken-stock", "no tang"),),
        "sour-cream": (Swap("sour-cream", "chicken-stock", "no tang, less rich"),),
        "butter": (Swap("butter", "olive-oil", "another taste"),),
        "salted-butter": (Swap("salted-butter", "olive-oil", "another taste; its salt goes"),),
        "dry-crumbs": (Swap("dry-crumbs", "panko", "coarser; read its label for milk"),),
        "seasoned-crumbs": (Swap("seasoned-crumbs", "panko", "its seasoning goes"),),
        "toast-crumbs": (Swap("toast-crumbs", "panko", "firmer"),),
        "fresh-crumbs": (Swap("fresh-crumbs", "crusty-bread", "chewier"),),
        "white-bread": (Swap("white-bread", "crusty-bread", "chewier"),),
        "": (Swap("", "", "bind and savour go with it; its salt is made up"),),
    },
    "no-gluten": {
        "worcester": (Swap("worcester", "tamari", "no fish, more salt"),),
        "soy-sauce": (Swap("soy-sauce", "tamari", "read its label"),),
        "flour": (Swap("flour", "cornflour", "half would do"),),
        "": (
            Swap("", "gf-crumbs", "binds a little less, drinks more"),
            Swap("", "potato-flakes", "softer; drinks much more"),
            Swap("", "rice", "hardly binds: another egg helps"),
        ),
    },
    "less-sugar": {
        "ketchup": (Swap("ketchup", "tomato-paste", "sharper, and thicker"),),
        "bbq-sauce": (Swap("bbq-sauce", "tomato-paste", "no smoke, no sweetness"),),
        "": (Swap("", "", "its sweetness goes"),),
    },
    "no-pork": {"lard": (Swap("lard", "butter", "another taste; milk comes along"),)},
    "halal": {
        "lard": (Swap("lard", "butter", "another taste; milk comes along"),),
        "red-wine": (Swap("red-wine", "stock", "no fruit, less acid"),),
        "white-wine": (Swap("white-wine", "chicken-stock", "no acid"),),
    },
    "no-alcohol": {
        "red-wine": (Swap("red-wine", "stock", "no fruit, less acid"),),
        "white-wine": (Swap("white-wine", "chicken-stock", "no acid"),),
    },
    "no-egg": {
        "egg": (
            Swap("egg", "potato-flakes", "binds by starch; hold it a little wetter"),
            Swap("egg", "", "looser: hold it cold, turn it late"),
        ),
        "yolk": (Swap("yolk", "", "less rich, a little looser"),),
        "egg-white": (Swap("egg-white", "", "looser"),),
        "mayonnaise": (Swap("mayonnaise", "neutral-oil", "the fat stays, the bind goes"),),
        "": (Swap("", "", "its egg goes with it"),),
    },
    "no-soy": {
        "soy-sauce": (Swap("soy-sauce", "", "its salt and savour go; salt is made up"),),
        "fresh-crumbs": (Swap("fresh-crumbs", "crusty-bread", "chewier"),),
        "white-bread": (Swap("white-bread", "crusty-bread", "chewier"),),
        "toast-crumbs": (Swap("toast-crumbs", "panko", "firmer"),),
        "": (Swap("", "", "what it brought goes with it"),),
    },
    "no-fish": {"worcester": (Swap("worcester", "soy-sauce", "no tang; soy and wheat come along"),)},
    "no-onion": {"": (Swap("", "", "its sweetness and moisture go"),)},
    "no-garlic": {"": (Swap("", "", "plainer"),)},
    "less-fat": {},
    "less-salt": {},
}
_MEAT_SWAPS: tuple[Swap, ...] = (
    Swap("", "veal-ground", "as tender, less rich, dearer"),
    Swap("", "turkey-ground", "leaner and plainer; the poultry floor leads"),
    Swap("", "chuck", "firmer, all beef"),
)


def breaches(
    avoid: tuple[Limit, ...],
    *,
    lines: tuple[LineFigures, ...],
    blend: BlendFigures,
    whole: WholeMix,
    beside: Sequence[tuple[str, str, str, Sequence[str]]] = (),
    inventory: Inventory,
) -> tuple[Breach, ...]:
    """What breaks the limits a cook has set, in their order.

    Parameters
    ----------
    avoid : tuple[Limit, ...]
        Limits that the mix must keep.
    lines : tuple[LineFigures, ...]
        The lines of the mix.
    blend : BlendFigures
        The blend on the scale.
    whole : WholeMix
        The whole mix.
    beside : Sequence[tuple[str, str, str, Sequence[str]]], default ()
        What comes in at the heat and the bread: kind, key, name and declared allergens of each.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.

    Returns
    -------
    tuple[Breach, ...]
        Each: a limit that is broken and what breaks it.

    References
    ----------
    Lines of salt, fat and sugar: ours, below the UK front-of-pack lines (from memory). Allergens: EU 1169/2011
    Annex II.

    Examples
    --------
    Milk and a milk-holding crumb break "no dairy" twice: each is named.
    """
    found: list[Breach] = []
    present = [line for line in lines if line.per_meat_frac > 0]
    for limit in avoid:
        if limit in BY_SPECIES:
            found += [
                Breach(limit, "meat", p.meat, p.name)
                for p in blend.parts
                if p.species == BY_SPECIES[limit] and p.share_frac > 0
            ]
        if limit in BY_ALLERGEN or limit in BY_WORD:
            found += [
                Breach(limit, "line", line.ingredient, line.name)
                for line in present
                if breaks(limit, line.ingredient, inventory=inventory)
            ]
            found += [
                Breach(limit, kind, key, name)
                for kind, key, name, declared in beside
                if _holds(limit, f"{key} {name}" if kind != "bread" else "", declared)
            ]
        if limit == "less-fat" and whole.fat_frac > LESS_FAT_FRAC:
            found.append(Breach(limit, "whole", "", "the mix", whole.fat_frac, LESS_FAT_FRAC))
        elif limit == "less-salt" and whole.salt_g / whole.mass_g > LESS_SALT_FRAC:
            found.append(Breach(limit, "whole", "", "the mix", whole.salt_g / whole.mass_g, LESS_SALT_FRAC))
        elif limit == "less-sugar" and whole.sugars_g / whole.mass_g > LESS_SUGAR_FRAC:
            sweetest = max(
                present, key=lambda line: line.mass_g * inventory.pantry[line.ingredient].composition.sugars_g_per_100g
            )
            found.append(
                Breach(
                    limit, "line", sweetest.ingredient, sweetest.name, whole.sugars_g / whole.mass_g, LESS_SUGAR_FRAC
                )
            )
    return tuple(found)


def breaks(limit: Limit, ingredient: str, *, inventory: Inventory) -> bool:
    """Whether an ingredient breaks a limit by what it is or by an allergen it carries.

    Parameters
    ----------
    limit : Limit
        The limit.
    ingredient : str
        Key of the ingredient.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.

    Returns
    -------
    bool
        Whether it does.

    References
    ----------
    Allergens: EU Regulation 1169/2011 Annex II. Words: ours.

    Examples
    --------
    >>> from vianda.core.inventory.inventory import starter_inventory
    >>> breaks("no-gluten", "panko", inventory=starter_inventory())
    True
    """
    thing = inventory.pantry[ingredient]
    return _holds(limit, f"{ingredient} {thing.name}", thing.allergens)


def _holds(limit: Limit, called: str, allergens: Sequence[str]) -> bool:
    if any(a.split(" (")[0] in BY_ALLERGEN.get(limit, ()) for a in allergens):
        return True
    words = BY_WORD.get(limit, ())
    names = called.lower().replace("-", " ").replace(",", " ").split()
    return any(w in names or f"{w}s" in names for w in words)


def swaps_for(breach: Breach, *, inventory: Inventory) -> tuple[Swap, ...]:
    """The usual swaps for what breaks a limit; empty when there is none but taking less.

    Parameters
    ----------
    breach : Breach
        A limit that is not kept.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.

    Returns
    -------
    tuple[Swap, ...]
        Each: one ingredient or meat for another ("" to leave it out), and what that costs.

    References
    ----------
    Common practice, no published source.
    """
    if breach.kind == "meat":
        return tuple(s for s in _MEAT_SWAPS if s.to in inventory.meats and not inventory.meats[s.to].retired)
    if breach.kind != "line":
        return ()
    table = _LINE_SWAPS.get(breach.limit, {})
    offered = table.get(breach.key, table.get("", (Swap("", "", "what it brought goes with it"),)))
    crumb_like = inventory.pantry[breach.key].group in ("crumb", "bread", "starch")
    fits = (s for s in offered if not s.to or (s.to in inventory.pantry and (s.what or crumb_like)))
    # A swap that breaks the same limit again is none.
    return tuple(s for s in fits if not s.to or not breaks(breach.limit, s.to, inventory=inventory))
