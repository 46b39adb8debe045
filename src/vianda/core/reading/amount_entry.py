"""Read how cooks say an amount of an ingredient: ``1/3 cup``, ``2 tsp``, ``3 cloves``, ``2 large eggs``, ``a glug``.

Every answer is grams with the uncertainty that the measure brings: a spoon of crumbs is not a weighing, and a pinch is
a guess. Uncertainties of measures are ours (common practice, no published source).
"""

from __future__ import annotations

import math
import re
from dataclasses import dataclass

from vianda.core.basis.errors import OutOfRangeError, UnreadableEntryError
from vianda.core.basis.units import G_PER_OZ, ML_PER_TBSP, ML_PER_TSP, UnitSystem
from vianda.core.inventory.pantry import Ingredient, Pantry, PieceMass
from vianda.core.reading.entry import MASS_UNITS, NUMBER, NUMBER_WORDS, VOLUME_UNITS, cleaned_entry, number_value

LONGEST_ADDITION = 300
HEAVIEST_G = 1_000_000.0
MASS_UNCERTAINTY, LIQUID_UNCERTAINTY, POWDER_UNCERTAINTY, PIECE_UNCERTAINTY = 0.0, 0.03, 0.12, 0.10
POURED = frozenset({"liquid", "egg", "white", "sauce", "fat", "sweet", "acid", "tomato"})


@dataclass(frozen=True, slots=True)
class VagueMeasure:
    """What a word such as pinch is taken for, in ml, and how far it may be off either way (a factor)."""

    ml: float
    factor: float


# A pinch as 1/16 and a dash as 1/8 teaspoon: kitchen convention, from memory. The rest is ours.
VAGUE: dict[str, VagueMeasure] = {
    "pinch": VagueMeasure(ML_PER_TSP / 16, 2.0),
    "dash": VagueMeasure(ML_PER_TSP / 8, 2.0),
    "shake": VagueMeasure(ML_PER_TSP / 8, 2.5),
    "sprinkle": VagueMeasure(ML_PER_TSP / 2, 2.5),
    "splash": VagueMeasure(ML_PER_TSP, 2.0),
    "drizzle": VagueMeasure(ML_PER_TSP * 2, 2.0),
    "glug": VagueMeasure(ML_PER_TBSP, 2.0),
    "knob": VagueMeasure(ML_PER_TBSP, 1.7),
    "handful": VagueMeasure(ML_PER_TBSP * 5, 1.8),
}


@dataclass(frozen=True, slots=True)
class ReadAmount:
    """An amount in grams with its range, and whether it was counted in whole pieces or guessed."""

    mass_g: float
    low_g: float
    high_g: float
    pieces: float = 0.0
    guessed: bool = False

    @property
    def uncertainty_frac(self) -> float:
        """Half the range by the amount, 0 for a weighing."""
        return (self.high_g - self.low_g) / 2 / self.mass_g if self.mass_g > 0 else 0.0

    def __add__(self, other: ReadAmount) -> ReadAmount:
        # Errors of separate measures are independent: their half ranges add as squares.
        low = math.hypot(self.mass_g - self.low_g, other.mass_g - other.low_g)
        high = math.hypot(self.high_g - self.mass_g, other.high_g - other.mass_g)
        total = self.mass_g + other.mass_g
        return ReadAmount(
            total, max(0.0, total - low), total + high, self.pieces + other.pieces, self.guessed or other.guessed
        )


@dataclass(frozen=True, slots=True)
class ReadAddition:
    """An ingredient and how much of it was said to go in."""

    ingredient: str
    amount: ReadAmount
    text: str


_WORDS = "|".join(sorted((re.escape(w) for w in NUMBER_WORDS), key=len, reverse=True))
_HOW_MANY = re.compile(rf"\s*(?:(half an?|an?|some|{_WORDS})\b|({NUMBER}))?\s*", re.IGNORECASE)
# Between two additions; a comma only before another amount, since names and decimals hold commas too.
_BETWEEN = re.compile(rf"\s*(?:\+|;|\n|&|,\s+(?=\d|an?\b|half\b|some\b|(?:{_WORDS})\b)|\band\b)\s*")
_SIZES = ("extra large", "large", "medium", "small", "jumbo", "thick", "thin", "big")


def _how_many(text: str, *, field: str) -> tuple[float | None, str]:
    match = _HOW_MANY.match(text)
    if match is None:
        return None, text
    rest = text[match.end() :]
    word, digits = match.groups()
    if digits:
        return number_value(digits, field=field), rest
    if word:
        if word.startswith("half"):
            return 0.5, rest
        return float(NUMBER_WORDS.get(word, 1)), rest
    return None, rest


def _singular(word: str) -> str:
    if word.endswith("ies"):
        return word[:-3] + "y"
    for ending in ("oes", "ches", "shes", "sses"):
        if word.endswith(ending):
            return word[:-2]
    return word[:-1] if word.endswith("s") and not word.endswith("ss") else word


def _same(one: str, two: str) -> bool:
    return one == two or _singular(one) == _singular(two)


def read_amount(
    text: str, ingredient: Ingredient, *, meat_mass_g: float, unit_system: UnitSystem = "metric", field: str = ""
) -> ReadAmount:
    """Grams of one ingredient from what was typed for it.

    Parameters
    ----------
    text : str
        Grams or ounces, a measure, a count of pieces, per cent of the meat, a vague word, or a sum with ``+``.
    ingredient : Ingredient
        The ingredient.
    meat_mass_g : float
        For per cent of the meat.
    unit_system : UnitSystem, default 'metric'
        Units that a bare number has.
    field : str, default ''
        JSON pointer named in a refusal, such as ``/shape/bun``; "" for none.

    Returns
    -------
    ReadAmount
        An amount in grams with its range, and whether it was counted in whole pieces or guessed.

    Raises
    ------
    UnreadableEntryError, OutOfRangeError
    OutOfRangeError
        “…” is more than a tonne.

    Examples
    --------
    >>> from vianda.core.inventory.pantry import starter_pantry
    >>> round(read_amount("1/3 cup", starter_pantry()["dry-crumbs"], meat_mass_g=700).mass_g, 1)
    36.0
    >>> read_amount("2 large eggs", starter_pantry()["egg"], meat_mass_g=700).mass_g
    100.0
    """
    cleaned = cleaned_entry(text, field=field)
    total: ReadAmount | None = None
    for term in re.split(r"\s*\+\s*", cleaned):
        one = _term(term, ingredient, meat_mass_g=meat_mass_g, unit_system=unit_system, field=field)
        total = one if total is None else total + one
    assert total is not None
    if not math.isfinite(total.mass_g) or total.mass_g > HEAVIEST_G:
        raise OutOfRangeError(f"“{text[:60]}” is more than a tonne.", field=field)
    return total


def _term(text: str, ingredient: Ingredient, *, meat_mass_g: float, unit_system: UnitSystem, field: str) -> ReadAmount:
    if text.startswith("-"):
        raise OutOfRangeError(f"“{text}” is below zero, which nothing here can be.", field=field)
    number, rest = _how_many(text, field=field)
    words = rest.replace(".", " ").split()
    if words and words[0] == "of":
        words = words[1:]
    if not words:
        if number is None:
            raise _unread(text, ingredient, field)
        grams = number * (1.0 if unit_system == "metric" else G_PER_OZ)
        return _within(grams, MASS_UNCERTAINTY)
    unit, tail = words[0], words[1:]
    count = 1.0 if number is None else number
    if unit in ("%", "percent"):
        return _within(count / 100.0 * meat_mass_g, MASS_UNCERTAINTY)
    # "1 lb 4 oz" and "1 cup 2 tbsp" run on without a plus.
    more = " ".join(tail)
    if unit in MASS_UNITS:
        return _then(
            _within(count * MASS_UNITS[unit], MASS_UNCERTAINTY), more, ingredient, meat_mass_g, unit_system, field
        )
    if unit in VOLUME_UNITS:
        uncertainty = LIQUID_UNCERTAINTY if ingredient.group in POURED else POWDER_UNCERTAINTY
        grams = count * VOLUME_UNITS[unit] * _density(ingredient, text, field)
        return _then(_within(grams, uncertainty), more, ingredient, meat_mass_g, unit_system, field)
    vague = VAGUE.get(_singular(unit)) or VAGUE.get(unit)
    if vague is not None:
        grams = count * vague.ml * _density(ingredient, text, field)
        return ReadAmount(grams, grams / vague.factor, grams * vague.factor, guessed=True)
    piece = _piece_named(words, ingredient)
    if piece is None:
        raise _unread(text, ingredient, field)
    grams = count * piece.mass_g
    return ReadAmount(grams, grams * (1 - PIECE_UNCERTAINTY), grams * (1 + PIECE_UNCERTAINTY), pieces=count)


def _then(
    first: ReadAmount, more: str, ingredient: Ingredient, meat_mass_g: float, unit_system: UnitSystem, field: str
) -> ReadAmount:
    if not more or more in _names_of(ingredient):
        return first
    return first + _term(more, ingredient, meat_mass_g=meat_mass_g, unit_system=unit_system, field=field)


def _within(grams: float, uncertainty: float) -> ReadAmount:
    return ReadAmount(grams, grams * (1 - uncertainty), grams * (1 + uncertainty))


def _density(ingredient: Ingredient, text: str, field: str) -> float:
    if ingredient.g_per_cup <= 0:
        raise UnreadableEntryError(
            f"Nobody here knows what a cup of {ingredient.name.lower()} weighs; type grams instead of “{text}”.",
            field=field,
        )
    return ingredient.g_per_ml


def _names_of(ingredient: Ingredient) -> set[str]:
    """What people may call it: its name, the name up to a comma, its key in words, its aliases."""
    name = ingredient.name.lower()
    return {name, name.replace(",", ""), name.split(",")[0], ingredient.key.replace("-", " "), *ingredient.aliases}


def _piece_named(words: list[str], ingredient: Ingredient) -> PieceMass | None:
    """The piece meant by ``large eggs``, ``cloves``, ``slices``; the usual one when only the food is named."""
    said = " ".join(words)
    size = next((s for s in _SIZES if said == s or said.startswith(f"{s} ")), "")
    noun = said[len(size) :].strip()
    for name in sorted(_names_of(ingredient), key=len, reverse=True):
        if noun != name and noun.endswith(f" {name}"):
            noun = noun[: -len(name)].strip().removesuffix(" of").strip()
            break
    for piece in ingredient.pieces:
        own_size = next((s for s in _SIZES if piece.name.startswith(f"{s} ")), "")
        own_noun = piece.name[len(own_size) :].strip()
        # A size that was not said is the usual one: the first piece.
        fits = _same(noun, own_noun) or noun == "" or any(_same(noun, name) for name in _names_of(ingredient))
        if fits and (own_size == size or (not size and piece is ingredient.pieces[0])):
            return piece
    return None


def _unread(text: str, ingredient: Ingredient, field: str) -> UnreadableEntryError:
    ways = ["40 g"]
    if ingredient.g_per_cup > 0:
        ways.append("1/3 cup")
    if ingredient.pieces:
        ways.append(f"2 × {ingredient.pieces[0].name}".replace(" ×", ""))
    return UnreadableEntryError(
        f"“{text[:40]}” is not an amount of {ingredient.name.lower()}. Type something like {', '.join(ways)}.",
        field=field,
    )


def read_additions(
    text: str, pantry: Pantry, *, meat_mass_g: float, unit_system: UnitSystem = "metric", field: str = ""
) -> tuple[ReadAddition, ...]:
    """What goes in, from one line: ``1/2 cup panko, 1 large egg + 3 yolks, 3 cloves garlic``.

    Parameters
    ----------
    text : str
        What was typed.
    pantry : Pantry
        Ingredients by key.
    meat_mass_g : float
        Meat mass, g.
    unit_system : UnitSystem, default 'metric'
        Units that a bare number has.
    field : str, default ''
        JSON pointer named in a refusal, such as ``/shape/bun``; "" for none.

    Returns
    -------
    tuple[ReadAddition, ...]
        Each: an ingredient and how much of it was said to go in.

    Raises
    ------
    UnreadableEntryError
        When a part of it names nothing in the pantry, or an amount cannot be read; nothing is taken then.

    Examples
    --------
    >>> from vianda.core.inventory.pantry import starter_pantry
    >>> found = read_additions("1 large egg + 3 yolks, a glug of olive oil", starter_pantry(), meat_mass_g=700)
    >>> [(f.ingredient, round(f.amount.mass_g, 1)) for f in found]
    [('egg', 50.0), ('yolk', 51.0), ('olive-oil', 13.5)]
    """
    cleaned = cleaned_entry(text, field=field, longest=LONGEST_ADDITION)
    found: list[ReadAddition] = []
    for chunk in _BETWEEN.split(cleaned):
        if not chunk:
            continue
        ingredient, amount = _named_in(chunk, pantry, field)
        if not amount:
            raise _unread(chunk, ingredient, field)
        count, bare = _how_many(amount, field=field)
        if count is not None and not bare and ingredient.pieces:
            # "2 eggs" are two eggs, not two grams.
            amount = f"{amount} {ingredient.pieces[0].name}"
        read = read_amount(amount, ingredient, meat_mass_g=meat_mass_g, unit_system=unit_system, field=field)
        found.append(ReadAddition(ingredient.key, read, chunk))
    if not found:
        raise UnreadableEntryError("Nothing was typed; say what goes in and how much.", field=field)
    return tuple(found)


def _named_in(chunk: str, pantry: Pantry, field: str) -> tuple[Ingredient, str]:
    """The ingredient a chunk names, the longest name first, and what is left of the chunk: the amount."""
    best: tuple[int, Ingredient, str] | None = None
    for ingredient in pantry.values():
        if ingredient.retired:
            continue
        for name in _names_of(ingredient):
            match = re.search(rf"(?<![\w-]){re.escape(name)}(?:s|es)?(?![\w-])", chunk)
            if match and (best is None or len(name) > best[0]):
                left = f"{chunk[: match.start()]} {chunk[match.end() :]}"
                best = (len(name), ingredient, " ".join(left.replace("(", " ").replace(")", " ").split()))
    if best is None:
        raise UnreadableEntryError(
            f"“{chunk[:40]}” names nothing in the pantry. Try: 1/2 cup panko, 1 large egg + 3 yolks, 2 cloves garlic.",
            field=field,
        )
    _, ingredient, amount = best
    return ingredient, amount.removesuffix(" of").removeprefix("of ").strip()
