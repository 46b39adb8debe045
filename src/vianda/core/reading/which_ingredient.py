"""Which ingredient of the pantry a name in a mix means, where several have it."""

from __future__ import annotations

from collections.abc import Sequence

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import say
from vianda.core.inventory.pantry import Ingredient
from vianda.core.reading.atom import Atom
from vianda.core.reading.lexicon import names_of, stems_of
from vianda.core.reading.mix_item import MixDraft

SPOONS = frozenset({"tsp", "tbsp", "dessertspoon"})
_SIZE_WORDS = frozenset({"large", "medium", "small", "jumbo", "extra", "thick", "thin", "big"})


def thing_named(a: Atom, draft: MixDraft, note: Sequence[str], measures: Sequence[str] = ()) -> Ingredient | None:
    """The ingredient an atom names; several by one name are asked back, unless a note says which.

    Parameters
    ----------
    a : Atom
        The words that name it.
    draft : MixDraft
        What is gathered of the line; a question is noted there.
    note : Sequence[str]
        Words of preparation and size round it.
    measures : Sequence[str], default ()
        Words it is measured by: a can, a clove, ``tsp``.

    Returns
    -------
    Ingredient | None
        The one that is meant, or the first of several with a question; None when the pantry holds none.
    """
    keys = list(dict.fromkeys(s.key for s in a.all("ING")))
    closer = _with_notes(a, draft, note) if note else None
    if closer is not None:
        return closer
    things = [draft.inventory.pantry[k] for k in keys if k in draft.inventory.pantry]
    if not things:
        return None
    salts = [t for t in things if t.group == "salt"]
    if salts and len(salts) == len(things):
        return next((t for t in salts if t.key == draft.kitchen.salt), salts[0])
    measured = [
        t
        for t in things
        if any(stems_of(w) and stems_of(w)[0] in {s for p in t.pieces for s in stems_of(p.name)} for w in measures)
    ]
    if len(things) > 1 and len(measured) == 1:
        return measured[0]
    tinned = [t for t in things if t.group == "tomato"]
    if (
        len(things) > 1
        and tinned
        and {"can", "tin", "jar", "carton"} & {stems_of(w)[0] for w in measures if stems_of(w)}
    ):
        return tinned[0]
    if {t.key for t in things} == {"passata", "tomato-paste"}:
        # "Tomato purée" by the spoon is the concentrated one; by the cup or the can it is sieved tomatoes.
        spooned = bool(SPOONS & {w for m in measures for w in stems_of(m)})
        return next(t for t in things if (t.key == "tomato-paste") == spooned)
    if len(things) > 1:
        # The one whose key is the word itself is the plain one: an onion is raw unless said otherwise.
        word = tuple(w for w in stems_of(a.text) if w not in _SIZE_WORDS)
        plain = [t for t in things if stems_of(t.key) == word]
        if len(plain) == 1 and not _states(plain[0], things):
            return plain[0]
        said = {w for n in note for w in n.lower().split()}
        named = [t for t in things if said & set(t.name.lower().replace(",", " ").split())]
        if len(named) == 1:
            return named[0]
        draft.asks.append(
            (
                say("{what}: which one?", what=ph.word(a.text)),
                draft.at,
                [(say("{t}", t=ph.word(t.name)), t.name.lower()) for t in things],
            )
        )
    return things[0]


def _with_notes(a: Atom, draft: MixDraft, note: Sequence[str]) -> Ingredient | None:
    """What a word of preparation and the name make together: fresh and breadcrumbs are fresh breadcrumbs."""
    bare = stems_of(a.text)
    said = [stems_of(n) for n in note]
    wanted = {(*n[-1:], *bare) for n in said if n} | {(*n, *bare) for n in said}
    wanted |= {(*first, *bare) for n in said for first in ((w,) for w in n)}
    for thing in draft.inventory.pantry.values():
        if not thing.retired and any(stems_of(name) in wanted for name in names_of(thing)):
            return thing
    return None


# Foods that take up so much water that raw and cooked are two things (rice three times its mass).
SWELLS = frozenset({"rice", "bulgur", "lentils", "couscous", "beans", "chickpeas", "barley", "quinoa", "semolina"})


def _states(plain: Ingredient, things: Sequence[Ingredient]) -> bool:
    """Whether raw and cooked differ so much that neither may be assumed."""
    return plain.key in SWELLS and len(things) > 1
