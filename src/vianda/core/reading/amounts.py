"""An amount of an ingredient in grams, from how it was said: a weighing, a measure, pieces, a pinch, a can.

Every answer carries the uncertainty that the measure brings: a spoon of crumbs is not a weighing, and a pinch is a
guess. Uncertainties of measures are ours (common practice, no published source).
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from vianda.core.basis.errors import OutOfRangeError, UnreadableEntryError
from vianda.core.basis.units import G_PER_OZ, UnitSystem
from vianda.core.inventory.pantry import Ingredient, PieceMass
from vianda.core.reading.atom import Atom
from vianda.core.reading.lexicon import names_of, stems_of
from vianda.core.reading.quantities import FILLS

HEAVIEST_G = 1_000_000.0
MASS_UNCERTAINTY, LIQUID_UNCERTAINTY, POWDER_UNCERTAINTY, PIECE_UNCERTAINTY = 0.0, 0.03, 0.12, 0.10
POURED = frozenset({"liquid", "egg", "white", "sauce", "fat", "sweet", "acid", "tomato"})
_FILLS = FILLS
_SIZES = ("extra large", "large", "medium", "small", "jumbo", "thick", "thin", "big")


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

    def times(self, factor: float) -> ReadAmount:
        """So many times the amount.

        Parameters
        ----------
        factor : float
            How many times, 0 or more (no unit).

        Returns
        -------
        ReadAmount
            The amount.
        """
        return ReadAmount(
            self.mass_g * factor, self.low_g * factor, self.high_g * factor, self.pieces * factor, self.guessed
        )


def _ranged(atom: Atom, factor: float, uncertainty: float, *, guessed: bool = False) -> ReadAmount:
    return ReadAmount(
        atom.value * factor,
        atom.low * factor * (1 - uncertainty),
        atom.high * factor * (1 + uncertainty),
        guessed=guessed,
    )


def density(ingredient: Ingredient, said: str, *, field: str = "") -> float:
    """Grams in a millilitre of a measure.

    Parameters
    ----------
    ingredient : Ingredient
        The ingredient.
    said : str
        What was typed, for the refusal.
    field : str, default ''
        JSON pointer named in a refusal, such as ``/shape/bun``; "" for none.

    Returns
    -------
    float
        Bulk density, g/ml.

    Raises
    ------
    UnreadableEntryError
        Nobody here knows what a cup of … weighs; type grams instead of “…”.
    """
    if ingredient.g_per_cup <= 0:
        raise UnreadableEntryError(
            f"Nobody here knows what a cup of {ingredient.name.lower()} weighs; type grams instead of “{said}”.",
            field=field,
        )
    return ingredient.g_per_ml


def piece_named(said: str, ingredient: Ingredient) -> PieceMass | None:
    """The piece meant by ``large eggs``, ``cloves``, ``slices``; the usual one when only the food is named.

    Parameters
    ----------
    said : str
        The words between the number and the end.
    ingredient : Ingredient
        The ingredient.

    Returns
    -------
    PieceMass | None
        The piece, or None when it is none of this ingredient's.
    """
    words = said.lower().split()
    size = next((s for s in _SIZES if all(p in words for p in s.split())), "")
    noun = stems_of(" ".join(w for w in words if w not in size.split() and w not in ("of", "fresh", "whole")))
    names = {stems_of(n) for n in names_of(ingredient)}
    for name in sorted(names, key=len, reverse=True):
        if noun != name and name and noun[-len(name) :] == name:
            noun = noun[: -len(name)]
            break
    for piece in ingredient.pieces:
        own_size = next((s for s in _SIZES if piece.name.startswith(f"{s} ")), "")
        own_noun = stems_of(piece.name[len(own_size) :])
        fits = noun == own_noun or not noun or noun in names
        # A size that was not said is the usual one: the first piece.
        if fits and (own_size == size or (not size and piece is ingredient.pieces[0])):
            return piece
    return None


def _counted(number: Atom, said: str, ingredient: Ingredient) -> ReadAmount | None:
    piece = piece_named(said, ingredient)
    if piece is None:
        # A size we have no mass for is the usual piece, a quarter surer or not.
        if any(s in said.lower().split() for s in _SIZES) and (usual := piece_named("", ingredient)):
            return ReadAmount(
                number.value * usual.mass_g,
                number.low * usual.mass_g * 0.7,
                number.high * usual.mass_g * 1.3,
                pieces=number.value,
            )
        return None
    return ReadAmount(
        number.value * piece.mass_g,
        number.low * piece.mass_g * (1 - PIECE_UNCERTAINTY),
        number.high * piece.mass_g * (1 + PIECE_UNCERTAINTY),
        pieces=number.value,
    )


def amount_of(
    atoms: Sequence[Atom], ingredient: Ingredient, *, meat_mass_g: float, unit_system: UnitSystem, field: str = ""
) -> ReadAmount | None:
    """Grams of an ingredient from the atoms that say how much; None when they are no amount of it.

    Parameters
    ----------
    atoms : Sequence[Atom]
        The atoms of the amount, without the ingredient's name.
    ingredient : Ingredient
        The ingredient.
    meat_mass_g : float
        For per cent of the meat.
    unit_system : UnitSystem
        Units that a bare number has.
    field : str, default ''
        JSON pointer named in a refusal, such as ``/shape/bun``; "" for none.

    Returns
    -------
    ReadAmount | None
        The amount.

    Raises
    ------
    UnreadableEntryError
        When the measure needs a density that is not known.
    """
    total: ReadAmount | None = None
    at = 0
    while at < len(atoms):
        a = atoms[at]
        if a.kinds & {"w:plusword", "w:and", "SEP"} and at:
            at += 1
            continue
        found = _term(atoms, at, ingredient, meat_mass_g, unit_system, field)
        if found is None:
            return None
        one, at = found
        total = one if total is None else total + one
    if total is not None and (not math.isfinite(total.mass_g) or total.mass_g > HEAVIEST_G):
        raise OutOfRangeError("That is more than a tonne.", field=field)
    return total


def _term(
    atoms: Sequence[Atom], at: int, ingredient: Ingredient, meat_g: float, system: UnitSystem, field: str
) -> tuple[ReadAmount, int] | None:
    a = atoms[at]
    fill = 1.0
    while at < len(atoms) and atoms[at].text.lower() in _FILLS:
        fill *= _FILLS[atoms[at].text.lower()]
        at += 1
    if at >= len(atoms):
        return None
    a = atoms[at]
    if "MASS" in a.kinds:
        if at + 1 < len(atoms) and "HOLDER" in atoms[at + 1].kinds:
            return _ranged(a, 1.0, MASS_UNCERTAINTY), at + 2
        return _ranged(a, 1.0, MASS_UNCERTAINTY), at + 1
    if "VOL" in a.kinds:
        uncertainty = LIQUID_UNCERTAINTY if ingredient.group in POURED else POWDER_UNCERTAINTY
        end = at + 1
        while end < len(atoms) and atoms[end].text.lower() in _FILLS:
            fill *= _FILLS[atoms[end].text.lower()]
            end += 1
        spread = uncertainty if fill == 1.0 else max(uncertainty, 0.2)
        return _ranged(a, fill * density(ingredient, a.text, field=field), spread), end
    if "PCT" in a.kinds:
        return _ranged(a, meat_g, MASS_UNCERTAINTY), at + 1
    if "NUM" in a.kinds:
        return _number_term(atoms, at, fill, ingredient, system, field)
    for kind in ("VAGUE", "HOLDER"):
        if kind in a.kinds:
            one = Atom((), frozenset({"NUM"}), value=1.0, low=1.0, high=1.0)
            read = _loose(one, a, ingredient, field)
            return (read, at + 1) if read else None
    return None


def _number_term(
    atoms: Sequence[Atom], at: int, fill: float, ingredient: Ingredient, system: UnitSystem, field: str
) -> tuple[ReadAmount, int] | None:
    number, end = atoms[at], at + 1
    words: list[str] = []
    while end < len(atoms):
        a = atoms[end]
        if a.text.lower() in _FILLS:
            fill *= _FILLS[a.text.lower()]
        elif "w:times" in a.kinds or ("SEP" in a.kinds and a.text in "()"):
            pass
        elif "MASS" in a.kinds:
            # "2 x 400 g", "1 (400 g) can".
            end += 1
            while end < len(atoms) and (a2 := atoms[end]).kinds & {"HOLDER", "SEP", "w:of"}:
                end += 1
                del a2
            return _ranged(a, number.value, MASS_UNCERTAINTY), end
        elif a.kinds & {"UNIT_PIECE", "SIZE", "PREP", "ING"} and not a.kinds & {"VAGUE", "HOLDER"}:
            words.append(a.text)
        elif a.kinds & {"VAGUE", "HOLDER"}:
            inside = next((n for n in range(end + 1, len(atoms)) if "MASS" in atoms[n].kinds), None)
            if "HOLDER" in a.kinds and inside is not None and all("SEP" in x.kinds for x in atoms[end + 1 : inside]):
                # "1 can (400 g)": what is written on it counts, not what a can usually holds.
                return _ranged(atoms[inside], number.value, MASS_UNCERTAINTY), len(atoms)
            counted = _counted(number, a.text, ingredient)
            if counted is not None:
                return counted, end + 1
            after = [x for x in atoms[end + 1 :] if "MASS" in x.kinds]
            if "HOLDER" in a.kinds and after:
                return _ranged(after[0], number.value, MASS_UNCERTAINTY), len(atoms)
            read = _loose(number, a, ingredient, field)
            return (read.times(fill), end + 1) if read else None
        else:
            break
        end += 1
    if words:
        counted = _counted(number, " ".join(words), ingredient)
        return (counted.times(fill), end) if counted else None
    if ingredient.pieces and "NAMED" in number.kinds:
        counted = _counted(number, "", ingredient)
        return (counted, end) if counted else None
    if "NAMED" in number.kinds:
        return None
    return _ranged(number, 1.0 if system == "metric" else G_PER_OZ, MASS_UNCERTAINTY), end


def _loose(number: Atom, measure: Atom, ingredient: Ingredient, field: str) -> ReadAmount | None:
    """A pinch, a handful, a can: a guess with its factor either way."""
    counted = _counted(number, measure.text, ingredient) if ingredient.pieces else None
    if counted is not None and "HOLDER" in measure.kinds:
        return counted
    vague, holder = measure.sense("VAGUE"), measure.sense("HOLDER")
    if vague is not None:
        grams = number.value * vague.value * density(ingredient, measure.text, field=field)
        factor = vague.factor
    elif holder is not None and holder.value > 0:
        grams, factor = number.value * holder.value, holder.factor
    else:
        return None
    low, high = number.low / number.value if number.value else 1.0, number.high / number.value if number.value else 1.0
    return ReadAmount(grams, grams / factor * low, grams * factor * high, guessed=True)
