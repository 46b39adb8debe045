"""What each word may mean: a trie of phrases over stems, from the word lists, larder, pantry and kitchen."""

from __future__ import annotations

import tomllib
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cache
from importlib.resources import files
from typing import Any

from rapidfuzz import process
from rapidfuzz.distance import OSA

from vianda.core.basis import units
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.inventory import UNKNOWN_MINCE, Inventory, Meat, starter_inventory
from vianda.core.inventory.pantry import Ingredient, starter_pantry
from vianda.core.reading.tokens import tokens_of

# Imperial pint and fluid ounce, ml (UK Weights and Measures Act 1985, schedule 1: gallon of 4.54609 dm3).
ML_PER_UK_PINT = 4546.09 / 8
ML_PER_UK_FL_OZ = 4546.09 / 160
FACTORS: Mapping[str, float] = {
    "g": 1.0,
    "kg": 1000.0,
    "dag": 10.0,
    "oz": units.G_PER_OZ,
    "lb": units.G_PER_LB,
    "ml": 1.0,
    "cl": 10.0,
    "dl": 100.0,
    "l": 1000.0,
    "tsp": units.ML_PER_TSP,
    "dessertspoon": 2 * units.ML_PER_TSP,
    "tbsp": units.ML_PER_TBSP,
    "cup": units.ML_PER_CUP,
    "floz": units.ML_PER_US_GALLON / 128,
    "pint": units.ML_PER_US_GALLON / 8,
    "quart": units.ML_PER_US_GALLON / 4,
    "gallon": units.ML_PER_US_GALLON,
    "mm": 1.0,
    "cm": 10.0,
    "in": units.MM_PER_IN,
    "s": 1.0,
    "min": 60.0,
    "h": 3600.0,
}
IMPERIAL: Mapping[str, float] = {
    "floz": ML_PER_UK_FL_OZ,
    "pint": ML_PER_UK_PINT,
    "quart": 2 * ML_PER_UK_PINT,
    "gallon": 8 * ML_PER_UK_PINT,
}
# Shorter words are too near one another to be corrected by guess.
LEAST_FUZZY, SURE_FUZZY, LONG_FUZZY = 4, 6, 9


@dataclass(frozen=True, slots=True)
class Sense:
    """One meaning of a phrase: its kind, which one of that kind, and a figure where it carries one."""

    kind: str
    key: str = ""
    value: float = 0.0
    factor: float = 1.0
    name: str = ""


@dataclass(slots=True)
class _Node:
    senses: list[Sense] = field(default_factory=list)
    next: dict[str, _Node] = field(default_factory=dict)


@dataclass(slots=True)
class Lexicon:
    """Phrases to senses; ``words`` are all stems that stand in any phrase.

    ``held`` are the meats and ingredients there are; senses that name others do not count. None: all count.
    """

    root: _Node = field(default_factory=_Node)
    words: set[str] = field(default_factory=set)
    base: Lexicon | None = None
    held: frozenset[str] | None = None

    def add(self, phrase: str, sense: Sense) -> None:
        """Let a phrase mean something, beside what it means already.

        Parameters
        ----------
        phrase : str
            One or more words.
        sense : Sense
            The meaning.
        """
        node = self.root
        for part in stems_of(phrase):
            self.words.add(part)
            node = node.next.setdefault(part, _Node())
        if node is not self.root and sense not in node.senses:
            node.senses.append(sense)

    def knows(self, word: str) -> bool:
        """Whether a stem stands in any phrase.

        Parameters
        ----------
        word : str
            A stem.

        Returns
        -------
        bool
            Whether it does.
        """
        return word in self.words or (self.base is not None and self.base.knows(word))

    def longest(self, stems: Sequence[str], at: int) -> tuple[int, tuple[Sense, ...]]:
        """The longest phrase that begins at a place, and its senses; length 0 when there is none.

        Parameters
        ----------
        stems : Sequence[str]
            The stems of a text.
        at : int
            Index of the first stem (count).

        Returns
        -------
        tuple[int, tuple[Sense, ...]]
            How many stems it takes, and what they may mean.
        """
        length, senses = self.base.longest(stems, at) if self.base else (0, ())
        node, n = self.root, 0
        while at + n < len(stems) and (node_next := node.next.get(stems[at + n])) is not None:
            node, n = node_next, n + 1
            if node.senses and n >= length:
                senses = (*node.senses, *senses) if n == length else tuple(node.senses)
                length = n
        if self.held is not None:
            senses = tuple(x for x in senses if x.kind not in ("MEAT", "ING") or x.key in self.held)
        return length, senses

    def all_words(self) -> Iterator[str]:
        """Every stem of every phrase.

        Yields
        ------
        str
            A stem.
        """
        yield from self.words
        if self.base:
            yield from self.base.all_words()

    def spelt(self, word: str) -> str | None:
        """The known word that this one is a misspelling of, or None: the one nearest by optimal string alignment.

        Short words are corrected for a letter too many, too few or swapped only: another letter makes another word.

        Parameters
        ----------
        word : str
            A stem that no phrase holds.

        Returns
        -------
        str | None
            The word that was meant, if there is exactly one.
        """
        if len(word) < LEAST_FUZZY or not word.isalpha():
            return None
        most = 2 if len(word) >= LONG_FUZZY else 1
        pool = [w for w in self.all_words() if len(w) >= LEAST_FUZZY and w[0] == word[0]]
        near = process.extract(word, pool, scorer=OSA.distance, score_cutoff=most, limit=3)
        if not near:
            return None
        best, distance, _ = near[0]
        if len(near) > 1 and near[1][1] == distance and near[1][0] != best:
            return None
        if len(word) < SURE_FUZZY and len(best) == len(word) and sorted(best) != sorted(word):
            return None
        return str(best)


def stems_of(phrase: str) -> tuple[str, ...]:
    """The stems of a phrase, without joining hyphens and dots.

    Parameters
    ----------
    phrase : str
        One or more words.

    Returns
    -------
    tuple[str, ...]
        The stems.

    Examples
    --------
    >>> stems_of("Pork blade (Boston butts)")
    ('pork', 'blade', 'boston', 'butt')
    """
    return tuple(t.stem for t in tokens_of(phrase) if t.text not in "-.()’'")


def meat_phrases(meat: Meat) -> tuple[str, ...]:
    """What a meat is called by its own name: whole, short, ground or minced, with its species before it.

    Parameters
    ----------
    meat : Meat
        One meat.

    Returns
    -------
    tuple[str, ...]
        The phrases.
    """
    short = meat.name.split(" (")[0]
    found: list[str] = []
    for phrase in dict.fromkeys((meat.name, short, short.split(",")[0])):
        found.append(phrase)
        if meat.kind in ("cut", "trim"):
            found += [form.format(phrase) for form in ("ground {}", "minced {}", "{} mince", "{} trimmings")]
            if meat.species not in phrase.lower():
                found.append(f"{meat.species} {phrase}")
    return tuple(found)


def phrases(text: str) -> list[str]:
    """A list of the word file as its phrases.

    Parameters
    ----------
    text : str
        Phrases parted by commas.

    Returns
    -------
    list[str]
        Each phrase.
    """
    return [part.strip() for part in text.split(",") if part.strip()]


@cache
def word_lists() -> Mapping[str, Any]:
    """The word file ``data/words.toml``.

    Returns
    -------
    Mapping[str, Any]
        Its tables.
    """
    return tomllib.loads((files("vianda.core.reading") / "data" / "words.toml").read_text(encoding="utf-8"))


@cache
def substitutes() -> Mapping[str, tuple[str, str]]:
    """What is not in the starter pantry: the nearest thing that is, and what changes: ``data/substitutes.toml``.

    Returns
    -------
    Mapping[str, tuple[str, str]]
        Key of the nearest ingredient and what changes, by name.
    """
    text = (files("vianda.core.reading") / "data" / "substitutes.toml").read_text(encoding="utf-8")
    return {name: (row[0], row[1]) for name, row in tomllib.loads(text)["like"].items()}


@cache
def noise_words() -> frozenset[str]:
    """The closed list of function words that may be left over, as stems.

    Returns
    -------
    frozenset[str]
        The stems.
    """
    return frozenset(s for phrase in phrases(word_lists()["noise"]) for s in stems_of(phrase))


def _keyed(lexicon: Lexicon, table: Mapping[str, str], kind: str) -> None:
    for key, text in table.items():
        for phrase in phrases(text):
            lexicon.add(phrase, Sense(kind, key))


@cache
def base_lexicon() -> Lexicon:
    """All that does not depend on a kitchen.

    Returns
    -------
    Lexicon
        Phrases to senses.
    """
    lists, lexicon = word_lists(), Lexicon()
    for word in noise_words():
        lexicon.add(word, Sense("noise"))
    for name, text in lists["joint"].items():
        for phrase in phrases(text):
            lexicon.add(phrase, Sense(f"w:{name}"))
    for family, table in lists["unit"].items():
        for name, text in table.items():
            for phrase in phrases(text):
                lexicon.add(phrase, Sense(f"u:{family}", name, FACTORS.get(name, 1.0)))
    lexicon.add("in", Sense("u:length", "in", FACTORS["in"]))
    for word, value in lists["number"].items():
        lexicon.add(word, Sense("number", word, float(value)))
    for kind in ("about", "pounder"):
        for phrase in phrases(lists[kind]["words"]):
            lexicon.add(phrase, Sense(kind))
    _keyed(lexicon, lists["people"], "PEOPLE")
    _keyed(lexicon, lists["at_risk"], "AT_RISK")
    for eaters, text in lists["party"].items():
        for phrase in phrases(text):
            lexicon.add(phrase, Sense("PARTY", eaters, float(eaters)))
    for kind, table in (
        ("PARTY_OPEN", "party_open"),
        ("DAY", "days"),
        ("DAYPART", "dayparts"),
        ("RESULT", "results"),
        ("PREP", "prep"),
        ("GRIND", "grind_notes"),
        ("SERVED", "served"),
        ("VERB", "verbs"),
    ):
        for phrase in phrases(lists[table]["words"]):
            lexicon.add(phrase, Sense(kind, phrase))
    _keyed(lexicon, lists["pieces"], "PIECE")
    _keyed(lexicon, lists["styles"], "STYLE")
    _keyed(lexicon, lists["sizes"], "SIZE")
    _keyed(lexicon, lists["surfaces"], "SURFACE")
    _keyed(lexicon, lists["grinders"], "GRINDER")
    _keyed(lexicon, lists["moulds"], "MOULD")
    _keyed(lexicon, lists["breads"], "BREAD")
    _keyed(lexicon, lists["doneness"], "DONENESS")
    _keyed(lexicon, lists["diets"], "DIET")
    _keyed(lexicon, lists["avoided"], "AVOIDED")
    for number, text in lists["multiples"].items():
        for phrase in phrases(text):
            lexicon.add(phrase, Sense("MULTIPLE", number, float(number)))
    for kind, table in (("LIKENESS", "likeness"), ("QUICK", "quick")):
        for number, text in lists[table].items():
            for phrase in phrases(text):
                lexicon.add(phrase, Sense(kind, phrase, float(number)))
    for name, (text, near) in lists["tools"].items():
        for phrase in phrases(text):
            lexicon.add(phrase, Sense("TOOL", near, name=name))
    for name, (text, near) in lists["not_made"].items():
        for phrase in phrases(text):
            lexicon.add(phrase, Sense("NOT_MADE", near, name=name))
    for name, row in lists["vague"].items():
        for phrase in phrases(row["words"]):
            lexicon.add(phrase, Sense("VAGUE", name, row["ml"], row["factor"]))
    for name, (nearest, _) in substitutes().items():
        lexicon.add(name, Sense("LIKE", nearest, name=name))
    for name, row in lists["holders"].items():
        for phrase in phrases(row["words"]):
            lexicon.add(phrase, Sense("HOLDER", name, row["g"], row["factor"]))
    return lexicon


@cache
def meat_names() -> Mapping[str, Sequence[str]]:
    """What people call each meat of the starter larder, beside its name: ``data/meat_names.toml``.

    Returns
    -------
    Mapping[str, Sequence[str]]
        Names by key; ``generic`` ones name a species or mince without saying which.
    """
    text = (files("vianda.core.reading") / "data" / "meat_names.toml").read_text(encoding="utf-8")
    return {key: phrases(names) for key, names in tomllib.loads(text).items()}


def lexicon_of(*, inventory: Inventory, kitchen: Kitchen) -> Lexicon:
    """All that the reader knows in this kitchen: the word lists, its meats, ingredients, surfaces, breads and moulds.

    Parameters
    ----------
    inventory : Inventory
        The meats, lots and ingredients a formula may name.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.

    Returns
    -------
    Lexicon
        Phrases to senses.
    """
    first_meats, first_things = starter_inventory().meats, starter_pantry()
    meats = {k: m for k, m in inventory.meats.items() if not m.retired}
    things = {k: i for k, i in inventory.pantry.items() if not i.retired}
    lexicon = Lexicon(base=_starter_lexicon(), held=frozenset((*meats, *things)))
    for key, meat in meats.items():
        if key not in first_meats or first_meats[key].name != meat.name:
            _add_meat(lexicon, meat)
    for key, ingredient in things.items():
        first = first_things.get(key)
        if first is None or (first.name, first.aliases, first.pieces) != (
            ingredient.name,
            ingredient.aliases,
            ingredient.pieces,
        ):
            _add_ingredient(lexicon, ingredient)
    for surface in kitchen.surfaces:
        lexicon.add(surface.name.split(",")[0], Sense("SURFACE_HERE", surface.key))
        lexicon.add(surface.name, Sense("SURFACE_HERE", surface.key))
    for grinder in kitchen.grinders:
        lexicon.add(grinder.name.split(",")[0], Sense("GRINDER_HERE", grinder.key))
    for bread in kitchen.buns:
        if bread.diameter_mm:
            lexicon.add(bread.name.split(",")[0], Sense("BUN_HERE", bread.key))
    return lexicon


@cache
def _starter_lexicon() -> Lexicon:
    """The word lists with the starter larder and pantry: most of what any kitchen holds."""
    lexicon = Lexicon(base=base_lexicon())
    for key, called in meat_names().items():
        for phrase in called:
            sense = Sense("ANY", key[4:]) if key.startswith("any-") else Sense("MEAT", key)
            lexicon.add(phrase, sense)
            meat = starter_inventory().meats.get(key)
            if meat is not None and meat.kind in ("cut", "trim"):
                for form in ("ground {}", "minced {}", "{} mince", "{} trimmings"):
                    lexicon.add(form.format(phrase), sense)
    for meat in starter_inventory().meats.values():
        if meat.key != UNKNOWN_MINCE and not meat.labelled:
            _add_meat(lexicon, meat)
    for ingredient in starter_pantry().values():
        _add_ingredient(lexicon, ingredient)
    return lexicon


def _add_meat(lexicon: Lexicon, meat: Meat) -> None:
    for phrase in meat_phrases(meat):
        lexicon.add(phrase, Sense("MEAT", meat.key))


def _add_ingredient(lexicon: Lexicon, ingredient: Ingredient) -> None:
    named = [stems_of(n) for n in names_of(ingredient)]
    for phrase in names_of(ingredient):
        lexicon.add(phrase, Sense("ING", ingredient.key))
    for piece in ingredient.pieces:
        lexicon.add(piece.name, Sense("UNIT_PIECE", piece.name))
        # "large egg" names the egg too; "clove" and "slice" name nothing.
        if any(stems_of(piece.name)[-len(n) :] == n for n in named):
            lexicon.add(piece.name, Sense("ING", ingredient.key))


def names_of(ingredient: Ingredient) -> Iterable[str]:
    """What people may call an ingredient: its name, the name up to a comma, its key in words, its aliases.

    Parameters
    ----------
    ingredient : Ingredient
        One thing of the pantry.

    Returns
    -------
    Iterable[str]
        The names.
    """
    name = ingredient.name.lower()
    return dict.fromkeys(
        (name, name.replace(",", ""), name.split(",")[0], ingredient.key.replace("-", " "), *ingredient.aliases)
    )
