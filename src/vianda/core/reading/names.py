"""Names and aliases against what is here: no word may come to mean another thing, and no two things share a name."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from typing import Generic, TypeVar

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.inventory.inventory import Meat
from vianda.core.inventory.pantry import Ingredient, Pantry
from vianda.core.reading.lexicon import stems_of

Stems = tuple[str, ...]
Named = TypeVar("Named")
# A name of a thing that came with a file and is taken here already.
FROM_FILE = "{name}, from a file"


@dataclass(frozen=True, slots=True)
class Admitted:
    """A thing as it may come in, and what had to give way for that, in words."""

    ingredient: Ingredient
    changes: tuple[str, ...]


class _Index(Generic[Named]):
    """What each name means, by its stems; of several things of one name the first."""

    def __init__(self) -> None:
        self._means: dict[Stems, dict[str, Named]] = {}

    def meant(self, stems: Stems, *, but: str) -> Named | None:
        return next((thing for key, thing in self._means.get(stems, {}).items() if key != but), None)

    def take(self, key: str, thing: Named, *, names: Iterable[Stems], before: Iterable[Stems]) -> None:
        """The thing has these names now, and those before no more."""
        for stems in before:
            self._means.get(stems, {}).pop(key, None)
        for stems in names:
            self._means.setdefault(stems, {})[key] = thing


def _called(thing: Ingredient) -> dict[Stems, str]:
    """Every name and alias by its stems, as a reader compares them."""
    return {stems_of(word): word for word in (thing.name, *thing.aliases) if stems_of(word)}


class PantryNames:
    """Which thing of the pantry each name, alias and piece means, by its stems: asked for thousands in a row.

    Examples
    --------
    >>> from vianda.core.inventory.pantry import starter_pantry
    >>> pantry = starter_pantry()
    >>> names = PantryNames(pantry)
    >>> names.check(replace(pantry["panko"], key="mine"), before=None)
    Traceback (most recent call last):
    vianda.core.basis.errors.OutOfRangeError: “Panko” is in the pantry already. Call this one otherwise.
    """

    def __init__(self, pantry: Pantry) -> None:
        self._index: _Index[Ingredient] = _Index()
        for thing in pantry.values():
            self.put(thing, before=None)

    def check(self, thing: Ingredient, *, before: Ingredient | None) -> None:
        """Whether an ingredient may be called so; what it was called already stays allowed.

        Parameters
        ----------
        thing : Ingredient
            The ingredient as it is to be kept.
        before : Ingredient | None
            As it stands now; None for a new one.

        Raises
        ------
        OutOfRangeError
            A name or an alias that is another thing's, or two pieces of one name.
        """
        pieces = [stems_of(p.name) for p in thing.pieces]
        double = next((p.name for p, stems in zip(thing.pieces, pieces, strict=True) if pieces.count(stems) > 1), None)
        if double is not None:
            raise OutOfRangeError(
                f"Two pieces are called “{double}”. Give each its own name.", field="/ingredient/pieces"
            )
        kept = set(_called(before)) if before is not None else set()
        for stems, word in _called(thing).items():
            other = self.meant(stems, but=thing.key)
            if other is None or stems in kept:
                continue
            if word == thing.name:
                raise OutOfRangeError(
                    f"“{other.name}” is in the pantry already. Call this one otherwise."
                    if stems_of(other.name) == stems
                    else f"“{word}” means {other.name.lower()} here. Call this one otherwise.",
                    field="/ingredient/name",
                )
            raise OutOfRangeError(
                f"“{word}” means {other.name.lower()} here. Leave it out.", field="/ingredient/aliases"
            )

    def meant(self, stems: Stems, *, but: str) -> Ingredient | None:
        """What a name means here.

        Parameters
        ----------
        stems : Stems
            The stems of the name.
        but : str
            The key of a thing that does not count.

        Returns
        -------
        Ingredient | None
            The first that is called so; None when nothing is.
        """
        return self._index.meant(stems, but=but)

    def put(self, thing: Ingredient, *, before: Ingredient | None) -> None:
        """An ingredient stands in the pantry now, in place of what it was before.

        Parameters
        ----------
        thing : Ingredient
            The ingredient as it stands; a retired one gives its names free.
        before : Ingredient | None
            As it stood; None for a new one.
        """
        names = () if thing.retired else _names_of(thing)
        self._index.take(thing.key, thing, names=names, before=_names_of(before) if before is not None else ())


def _names_of(thing: Ingredient) -> tuple[Stems, ...]:
    return (*_called(thing), *(stems_of(piece.name) for piece in thing.pieces))


def check_names(thing: Ingredient, *, before: Ingredient | None, pantry: Pantry) -> None:
    """Whether an ingredient may be called what it is to be called.

    What it was called already stays allowed: a kitchen may have named two things alike long ago.

    Parameters
    ----------
    thing : Ingredient
        The ingredient as it is to be kept.
    before : Ingredient | None
        As it stands now; None for a new one.
    pantry : Pantry
        Everything that is here.

    Raises
    ------
    OutOfRangeError
        A name or an alias that is another thing's, or two pieces of one name.

    Examples
    --------
    >>> from vianda.core.inventory.pantry import starter_pantry
    >>> pantry = starter_pantry()
    >>> check_names(replace(pantry["panko"], key="mine"), before=None, pantry=pantry)
    Traceback (most recent call last):
    vianda.core.basis.errors.OutOfRangeError: “Panko” is in the pantry already. Call this one otherwise.
    """
    PantryNames(pantry).check(thing, before=before)


class MeatNames:
    """Which meat each name means, by its stems: asked for thousands of meats in a row.

    Examples
    --------
    >>> from vianda.core.inventory.inventory import starter_inventory
    >>> meats = starter_inventory().meats
    >>> names = MeatNames(meats)
    >>> names.check(replace(meats["chuck"], key="mine"), before=None)
    Traceback (most recent call last):
    vianda.core.basis.errors.OutOfRangeError: “Chuck” is in the larder already. Call this one otherwise.
    """

    def __init__(self, meats: Mapping[str, Meat]) -> None:
        self._index: _Index[Meat] = _Index()
        for meat in meats.values():
            self.put(meat, before=None)

    def check(self, meat: Meat, *, before: Meat | None) -> None:
        """Whether a meat may be called so; what it was called before stays allowed.

        Parameters
        ----------
        meat : Meat
            The meat as it is to be kept.
        before : Meat | None
            As it stands now; None for a new one.

        Raises
        ------
        OutOfRangeError
            A name that is another meat's.
        """
        stems = stems_of(meat.name)
        if before is not None and stems_of(before.name) == stems:
            return
        other = self._index.meant(stems, but=meat.key)
        if other is not None:
            raise OutOfRangeError(
                f"“{other.name}” is in the larder already. Call this one otherwise.", field="/meat/name"
            )

    def put(self, meat: Meat, *, before: Meat | None) -> None:
        """A meat stands in the larder now, in place of what it was before.

        Parameters
        ----------
        meat : Meat
            The meat as it stands.
        before : Meat | None
            As it stood; None for a new one.
        """
        names = () if meat.retired else (stems_of(meat.name),)
        self._index.take(meat.key, meat, names=names, before=(stems_of(before.name),) if before is not None else ())


def check_meat_name(meat: Meat, *, before: Meat | None, meats: Mapping[str, Meat]) -> None:
    """Whether a meat may be called what it is to be called.

    Parameters
    ----------
    meat : Meat
        The meat as it is to be kept.
    before : Meat | None
        As it stands now; None for a new one.
    meats : Mapping[str, Meat]
        Everything in the larder by key.

    Raises
    ------
    OutOfRangeError
        A name that is another meat's.
    """
    MeatNames(meats).check(meat, before=before)


def admitted_meat(meat: Meat, *, meats: Mapping[str, Meat]) -> tuple[Meat, tuple[str, ...]]:
    """A meat from a file as it may come in: under another name where its own is taken.

    Parameters
    ----------
    meat : Meat
        What comes in.
    meats : Mapping[str, Meat]
        Everything in the larder by key.

    Returns
    -------
    tuple[Meat, tuple[str, ...]]
        The meat, and what gave way.
    """
    try:
        check_meat_name(meat, before=None, meats=meats)
    except OutOfRangeError:
        name = FROM_FILE.format(name=meat.name)[:80]
        return replace(meat, name=name), (
            f"“{meat.name}” is another meat here; the one of the file is called “{name}”.",
        )
    return meat, ()


def admitted(things: Iterable[Ingredient], *, pantry: Pantry) -> tuple[Admitted, ...]:
    """Things from a file or a recipe as they may come in: aliases that mean another thing here stay behind.

    Parameters
    ----------
    things : Iterable[Ingredient]
        What comes in.
    pantry : Pantry
        Everything that is here.

    Returns
    -------
    tuple[Admitted, ...]
        Each: the thing, and what gave way.

    Examples
    --------
    >>> from vianda.core.inventory.pantry import starter_pantry
    >>> theirs = replace(starter_pantry()["paprika"], key="red-dust", name="Red dust", aliases=("egg", "rust"))
    >>> found = admitted([theirs], pantry=starter_pantry())[0]
    >>> found.ingredient.aliases, found.changes
    (('rust',), ('“egg” goes on meaning whole egg here, not red dust.',))
    """
    here, names = dict(pantry), PantryNames(pantry)
    out = []
    for thing in things:
        changes: list[str] = []
        name = thing.name
        if (other := names.meant(stems_of(name), but=thing.key)) is not None:
            name = FROM_FILE.format(name=thing.name)[:60]
            changes.append(f"“{thing.name}” means {other.name.lower()} here; the one of the file is called “{name}”.")
        aliases = []
        for alias in thing.aliases:
            if (other := names.meant(stems_of(alias), but=thing.key)) is not None:
                changes.append(f"“{alias}” goes on meaning {other.name.lower()} here, not {thing.name.lower()}.")
            else:
                aliases.append(alias)
        pieces, seen = [], set()
        for piece in thing.pieces:
            if stems_of(piece.name) not in seen:
                pieces.append(piece)
            seen.add(stems_of(piece.name))
        came = replace(thing, name=name, aliases=tuple(aliases), pieces=tuple(pieces))
        names.put(came, before=here.get(thing.key))
        here[thing.key] = came
        out.append(Admitted(came, tuple(changes)))
    return tuple(out)
