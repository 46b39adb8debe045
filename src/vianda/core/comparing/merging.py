"""Two edits of one formula put together: what each changed since both began, and where both changed the same."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, fields, replace
from typing import Any, Literal

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Phrase, say
from vianda.core.comparing.differences import Difference, differences, name_of, said, worded
from vianda.core.inventory.inventory import Inventory
from vianda.core.model.formula import BlendPart, Formula

Prefer = Literal["mine", "theirs"]
Topic = tuple[str, ...]

# Fields that follow from one another: whoever changed one of them has changed them all.
_TOGETHER: Mapping[str, tuple[tuple[str, str], ...]] = {
    "kind of dish and style": (("dish", "dish"), ("dish", "style")),
    "for how many, and how heavy": (
        ("dish", "guests"), ("dish", "pieces_per_guest"), ("dish", "guests_per_piece"), ("dish", "spare_pieces"),
        ("shape", "portioning"), ("shape", "piece_mass_g"), ("shape", "batch_mass_g"),
    ),
    "surface and way of cooking": (("heat", "surface"), ("heat", "method"), ("heat", "stages")),
}  # fmt: skip
_SECTIONS = ("dish", "grind", "mix", "seasoning", "shape", "heat", "timing")
_GROUPED = {field for group in _TOGETHER.values() for field in group} | {("mix", "lines")}
_SHARES: Topic = ("parts", "")
_ABSENT = object()


@dataclass(frozen=True, slots=True)
class Clash:
    """Something that both changed, each otherwise: what it is, and both values."""

    what: str
    mine: Phrase
    theirs: Phrase


@dataclass(frozen=True, slots=True)
class Merged:
    """Both edits in one formula; of what clashes it has the preferred one. What each changed is told line by line."""

    formula: Formula
    mine: tuple[Difference, ...]
    theirs: tuple[Difference, ...]
    clashes: tuple[Clash, ...]


def merged(base: Formula, mine: Formula, theirs: Formula, *, inventory: Inventory, prefer: Prefer = "mine") -> Merged:
    """Put two edits of one formula together, field by field.

    Parameters
    ----------
    base : Formula
        What both began with.
    mine, theirs : Formula
        What each made of it.
    inventory : Inventory
        Names of meats and ingredients.
    prefer : {'mine', 'theirs'}, default 'mine'
        Whose value stands where both changed the same.

    Returns
    -------
    Merged
        Whether it can be worked out is for the evaluation to say.

    Notes
    -----
    Shares of the meats go together, so that they sum to one; so do guests and weights, style and dish, surface and
    stages. Stages, layers of the build and lists of what is kept out are each one thing.

    Examples
    --------
    >>> from dataclasses import replace
    >>> from vianda.core.demo.formulas import slipway_smash
    >>> from vianda.core.inventory.inventory import starter_inventory
    >>> base = slipway_smash()
    >>> done = merged(
    ...     base, replace(base, name="Mine"), replace(base, remark="Theirs"), inventory=starter_inventory()
    ... )
    >>> (done.formula.name, done.formula.remark, len(done.clashes))
    ('Mine', 'Theirs', 0)
    """
    old, one, two = _topics(base), _topics(mine), _topics(theirs)
    whole: dict[Topic, Any] = {}
    clashes: list[Topic] = []
    for topic in dict.fromkeys([*one, *two]):
        was, ours, others = (held.get(topic, _ABSENT) for held in (old, one, two))
        if ours in (others, was):
            whole[topic] = others
        elif others == was:
            whole[topic] = ours
        else:
            clashes.append(topic)
            whole[topic] = ours if prefer == "mine" else others
    formula = _formula(base, {topic: value for topic, value in whole.items() if value is not _ABSENT})
    told = tuple(_clash(topic, one.get(topic), two.get(topic), inventory) for topic in clashes)
    return Merged(formula, _changes(base, mine, inventory), _changes(base, theirs, inventory), told)


def _topics(formula: Formula) -> dict[Topic, Any]:
    found: dict[Topic, Any] = {
        ("name",): formula.name, ("remark",): formula.remark, ("stack",): formula.stack,
    }  # fmt: skip
    for title, group in _TOGETHER.items():
        found["together", title] = tuple(getattr(getattr(formula, section), field) for section, field in group)
    for section in _SECTIONS:
        held = getattr(formula, section)
        for field in fields(held):
            if (section, field.name) not in _GROUPED:
                found[section, field.name] = getattr(held, field.name)
    found[_SHARES] = tuple((part.meat, part.share_frac) for part in formula.parts)
    # A meat that stands there twice, of two lots, is told apart by its place.
    for at, part in enumerate(formula.parts):
        found["parts", part.meat, _nth(at, [p.meat for p in formula.parts])] = (part.locked, part.lot)
    for at, line in enumerate(formula.mix.lines):
        found["lines", line.ingredient, _nth(at, [x.ingredient for x in formula.mix.lines])] = line
    for at, one in enumerate(formula.beside):
        found["beside", one.ingredient, _nth(at, [x.ingredient for x in formula.beside])] = one
    return found


def _nth(at: int, keys: list[str]) -> str:
    return str(keys[:at].count(keys[at]))


def _formula(base: Formula, whole: Mapping[Topic, Any]) -> Formula:
    changes: dict[str, dict[str, Any]] = {section: {} for section in _SECTIONS}
    for title, group in _TOGETHER.items():
        for (section, field), value in zip(group, whole["together", title], strict=True):
            changes[section][field] = value
    for topic, value in whole.items():
        if len(topic) == 2 and topic[0] in changes:
            changes[topic[0]][topic[1]] = value
    changes["mix"]["lines"] = tuple(value for topic, value in whole.items() if topic[0] == "lines")
    shares = whole[_SHARES]
    parts = []
    for at, (meat, share_frac) in enumerate(shares):
        nth = _nth(at, [key for key, _ in shares])
        locked, lot = whole.get(("parts", meat, nth), (False, ""))
        parts.append(BlendPart(meat, share_frac, locked, lot))
    sections = {section: replace(getattr(base, section), **given) for section, given in changes.items()}
    return replace(
        base,
        name=whole["name",],
        remark=whole["remark",],
        stack=whole["stack",],
        parts=tuple(parts),
        beside=tuple(value for topic, value in whole.items() if topic[0] == "beside"),
        **sections,
    )


def _clash(topic: Topic, ours: Any, others: Any, inventory: Inventory) -> Clash:
    name = topic[-1] if len(topic) == 2 else topic[0]
    if topic == _SHARES:
        what = "shares of the meats"
    elif topic[0] == "together":
        what = topic[1]
    elif topic[0] in ("parts", "lines", "beside"):
        what = name_of(topic[1], inventory)
    else:
        what = worded(name)
    plain = len(topic) == 1 or topic[0] in _SECTIONS
    one, two = (said(name, value, inventory) if plain else say("") for value in (ours, others))
    return Clash(what[0].upper() + what[1:], one, two)


def _changes(before: Formula, after: Formula, inventory: Inventory) -> tuple[Difference, ...]:
    """What differs in how it is made, and besides: its name, for how many, its hour."""
    found = list(differences(before, after, inventory=inventory))
    if before.name != after.name:
        found.append(Difference("Formula", "Name", _word(before.name), _word(after.name)))
    if before.remark != after.remark:
        found.append(Difference("Formula", "Remark", _word(before.remark), _word(after.remark)))
    for what, field in (("Guests", "guests"), ("Spare pieces", "spare_pieces")):
        one, two = getattr(before.dish, field), getattr(after.dish, field)
        if one != two:
            found.append(Difference("Dish", what, say("{x}", x=ph.count(one)), say("{x}", x=ph.count(two))))
    if before.timing.ready_min != after.timing.ready_min:
        found.append(
            Difference("Time", "On the plate", _clock(before.timing.ready_min), _clock(after.timing.ready_min))
        )
    if replace(before.timing, ready_min=0) != replace(after.timing, ready_min=0):
        found.append(Difference("Time", "Cooks, own tasks and what is pinned", say("as before"), say("changed")))
    return tuple(found)


def _word(text: str) -> Phrase:
    return say("{x}", x=ph.word(text)) if text else say("none")


def _clock(minute: int) -> Phrase:
    return _word(f"{minute // 60:02d}:{minute % 60:02d}")
