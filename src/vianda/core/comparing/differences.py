"""What differs between two formulas, in words with figures."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, fields, is_dataclass, replace
from typing import Any

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Amount, Phrase, say
from vianda.core.inventory.inventory import Inventory
from vianda.core.model.formula import Formula, Timing

# By the part of a formula: where it stands among a cook's steps, and what its list is keyed by.
PARTS: Mapping[str, str] = {
    "dish": "Dish", "parts": "Meat", "grind": "Meat", "seasoning": "Salt", "mix": "Mix", "shape": "Shape",
    "heat": "Heat", "beside": "Beside", "stack": "Build",
}  # fmt: skip
KEYED_BY: Mapping[str, str] = {"parts": "meat", "lines": "ingredient", "beside": "ingredient"}
# Fields whose name says too little.
NAMES: Mapping[str, str] = {
    "salt_frac": "salt of the meat", "salt_place": "salt goes", "work_s": "worked for", "work": "worked by",
    "soak_min": "crumb soaks", "chill_min": "mix chills", "meat_temp_c": "meat at", "loss_g": "handling loss",
    "surface_temp_c": "surface", "target_core_temp_c": "core wanted", "fat": "fat in the pan", "keep": "ground meat is",
    "per_meat_frac": "of the meat", "share_frac": "share", "lot": "lot", "dose_g": "a portion",
    "made_g": "made at once", "flip": "turned", "until": "until", "time_s": "for", "temp_c": "at", "kind": "kind",
}  # fmt: skip
_UNIT = re.compile(r"_(g|mm|c|k|s|min|frac)$")
_BY_UNIT: Mapping[str, Callable[[float], Amount]] = {
    "g": ph.mass, "mm": ph.length, "c": ph.temp, "k": ph.delta_temp, "s": ph.duration, "min": ph.minutes,
    "frac": ph.fine_frac,
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Difference:
    """One thing that differs: which step it belongs to, what it is, and both of its values."""

    step: str
    what: str
    before: Phrase
    after: Phrase


def differences(before: Formula, after: Formula, *, inventory: Inventory) -> tuple[Difference, ...]:
    """Everything that differs in how a dish is made.

    Parameters
    ----------
    before, after : Formula
        Two versions.
    inventory : Inventory
        Names of meats and ingredients.

    Returns
    -------
    tuple[Difference, ...]
        In the order of the cook's steps. Names, remarks, timing and for how many are no part of it.

    Examples
    --------
    >>> from vianda.core.demo.formulas import slipway_smash
    >>> from vianda.core.inventory.inventory import starter_inventory
    >>> differences(slipway_smash(), slipway_smash(), inventory=starter_inventory())
    ()
    """
    found: list[Difference] = []
    before, after = design_of(before), design_of(after)
    for part, step in PARTS.items():
        a, b = getattr(before, part), getattr(after, part)
        found += [Difference(step, what[0].upper() + what[1:], x, y) for what, x, y in _between(part, a, b, inventory)]
    return tuple(found)


def made_alike(before: Formula, after: Formula) -> bool:
    """Whether two formulas are one design: only name, remark, timing and for how many may differ.

    Parameters
    ----------
    before, after : Formula
        Two formulas.

    Returns
    -------
    bool
        Whether a cook of one is a cook of the other.
    """
    return design_of(before) == design_of(after)


def design_of(formula: Formula) -> Formula:
    """A formula without what does not decide how a piece comes out: its name, its hour, for how many it is.

    Parameters
    ----------
    formula : Formula
        The design of one dish.

    Returns
    -------
    Formula
        One for each design.
    """
    return replace(
        formula,
        name="design",
        remark="",
        timing=Timing(),
        dish=replace(formula.dish, guests=1, spare_pieces=0),
        parts=tuple(replace(p, locked=False) for p in formula.parts),
        mix=replace(formula.mix, lines=tuple(replace(line, locked=False) for line in formula.mix.lines)),
        grind=replace(formula.grind, services_per_week=1),
        shape=formula.shape if formula.shape.portioning == "by_batch" else replace(formula.shape, batch_mass_g=1000.0),
    )


_Found = tuple[str, Phrase, Phrase]


def _between(name: str, a: Any, b: Any, inventory: Inventory) -> Iterator[_Found]:
    if a == b:
        return
    if isinstance(a, tuple) and isinstance(b, tuple):
        yield from _lists(name, a, b, inventory)
    elif is_dataclass(a) and is_dataclass(b) and type(a) is type(b):
        for field in fields(a):
            yield from _between(field.name, getattr(a, field.name), getattr(b, field.name), inventory)
    else:
        yield worded(name), said(name, a, inventory), said(name, b, inventory)


def _lists(name: str, a: tuple[Any, ...], b: tuple[Any, ...], inventory: Inventory) -> Iterator[_Found]:
    key = KEYED_BY.get(name)
    if key is None and not any(is_dataclass(x) for x in (*a, *b)):
        yield worded(name), _listed(a), _listed(b)
        return
    if key is None:
        # Stages and layers stand in an order: what is before and after is said whole.
        yield worded(name), _listed(tuple(_short(x) for x in a)), _listed(tuple(_short(x) for x in b))
        return
    olds, news = ({getattr(x, key): x for x in xs} for xs in (a, b))
    for item in dict.fromkeys([*olds, *news]):
        old, new = olds.get(item), news.get(item)
        called = name_of(item, inventory)
        if old is None or new is None:
            only: Any = new if old is None else old
            first = next(f.name for f in fields(only) if _UNIT.search(f.name))
            value, none = said(first, getattr(only, first), inventory), say("none")
            yield called, (none if old is None else value), (value if old is None else none)
            continue
        for what, x, y in _between(key, old, new, inventory):
            yield f"{called}, {what}", x, y


def name_of(item: str, inventory: Inventory) -> str:
    """What a meat or an ingredient is called.

    Parameters
    ----------
    item : str
        Its key.
    inventory : Inventory
        Names of meats and ingredients.

    Returns
    -------
    str
        Its name; of an unknown one the words of its key.
    """
    if item in inventory.meats:
        return inventory.meats[item].name
    thing = inventory.pantry.get(item)
    return thing.name if thing is not None else item.replace("-", " ")


def worded(name: str) -> str:
    """What a field is called on a screen.

    Parameters
    ----------
    name : str
        Name of the field, with its unit.

    Returns
    -------
    str
        Words, without the unit.

    Examples
    --------
    >>> worded("thickness_mm")
    'thickness'
    """
    return NAMES.get(name, _UNIT.sub("", name).replace("_", " "))


def said(name: str, value: Any, inventory: Inventory) -> Phrase:
    """A value of a field, in the unit that its name says.

    Parameters
    ----------
    name : str
        Name of the field, with its unit.
    value : Any
        What stands in it.
    inventory : Inventory
        Names of meats and ingredients.

    Returns
    -------
    Phrase
        The value with its unit.
    """
    unit = _UNIT.search(name)
    if value is None or value == "":
        return say("as usual")
    if isinstance(value, bool):
        return say("yes" if value else "no")
    if unit and isinstance(value, int | float):
        return say("{x}", x=_BY_UNIT[unit.group(1)](float(value)))
    if isinstance(value, int):
        return say("{x}", x=ph.count(value))
    if isinstance(value, float):
        return say("{x}", x=ph.number(value))
    if isinstance(value, str):
        return say("{x}", x=ph.word(name_of(value, inventory)))
    return say("{x}", x=ph.word(_short(value)))


def _short(value: Any) -> str:
    """A stage or a layer in a word or two."""
    words = [str(getattr(value, name)) for name in ("kind", "until", "ingredient") if getattr(value, name, "")]
    if getattr(value, "flip", False):
        words.append("turned")
    return " ".join(words).replace("-", " ") or str(value)


def _listed(values: tuple[Any, ...]) -> Phrase:
    text = ", ".join(str(v).replace("-", " ") for v in values)
    return say("{x}", x=ph.word(text)) if text else say("none")
