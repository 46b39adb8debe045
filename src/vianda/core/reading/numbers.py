"""Numbers as people say them: figures, fractions, words, dozens and couples, ranges and approximations."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from vianda.core.reading.lexicon import Sense
from vianda.core.reading.tokens import Token

# A number said to be about so much is taken as within a tenth either way (ours).
ABOUT = 0.10
_BIG = {"hundred": 100.0, "thousand": 1000.0}
_FRACTIONS = {"w:half": 1 / 2, "w:third": 1 / 3, "w:quarter": 1 / 4, "w:fifth": 1 / 5}


@dataclass(frozen=True, slots=True)
class Item:
    """A stretch of the text before the grammar: a number, a sign, or a phrase of the lexicon with its senses."""

    tokens: tuple[int, ...]
    token: Token
    senses: tuple[Sense, ...] = ()
    glued: bool = False

    def is_a(self, kind: str) -> bool:
        """Whether one of its senses is of a kind.

        Parameters
        ----------
        kind : str
            Kind of sense.

        Returns
        -------
        bool
            Whether it is.
        """
        return any(s.kind == kind for s in self.senses)

    def sense(self, kind: str) -> Sense | None:
        """Its sense of a kind, if it has one.

        Parameters
        ----------
        kind : str
            Kind of sense.

        Returns
        -------
        Sense | None
            The sense.
        """
        return next((s for s in self.senses if s.kind == kind), None)


@dataclass(frozen=True, slots=True)
class Number:
    """A number with its range, and the items it was read from.

    ``ratio`` are its parts when it may be a ratio (80/20, 2:1, 80 to 20). ``fraction``: it was said as a part of
    one ("a third", "1/2"). ``other`` is the other reading of a ``mark`` that may part thousands.
    """

    value: float
    low: float
    high: float
    next: int
    about: bool = False
    ratio: tuple[float, ...] = ()
    fraction: bool = False
    other: float | None = None
    mark: str = ""

    @property
    def whole(self) -> bool:
        """Whether it counts whole things."""
        return abs(self.value - round(self.value)) < 1e-9

    @property
    def ranged(self) -> bool:
        """Whether it is a range of two numbers said."""
        return not self.about and self.high > self.low


def _plain(value: float, at: int, *, fraction: bool = False, other: float | None = None, mark: str = "") -> Number:
    return Number(value, value, value, at, fraction=fraction, other=other, mark=mark)


def _fraction_of(item: Item) -> float | None:
    parts = item.token.parts
    return parts[0] / parts[1] if item.token.kind == "fraction" and parts[1] else None


def _word_value(items: Sequence[Item], at: int) -> tuple[float, int] | None:
    """Numbers in words from a place: ``twenty four``, ``a hundred and twenty``, ``two dozen``."""
    total, current, n = 0.0, 0.0, at
    seen = False
    while n < len(items):
        sense = items[n].sense("number")
        if sense is None:
            after = items[n + 1].sense("number") if n + 1 < len(items) else None
            # "a hundred and twenty": the and belongs to the number.
            if seen and items[n].is_a("w:and") and current >= 100 and after and after.value < 100:
                n += 1
                continue
            break
        key, value = sense.key, sense.value
        if key in _BIG:
            current = (current or 1.0) * value
        elif key in ("dozen", "score", "couple", "pair"):
            if seen and key in ("couple", "pair"):
                break
            current = (current or 1.0) * value
            n, seen = n + 1, True
            break
        elif not seen or (current >= 20 and current % 10 == 0 and value < 10) or (current >= 100 and value < 100):
            current += value
        else:
            break
        n, seen = n + 1, True
    return (total + current, n) if seen else None


def _one(items: Sequence[Item], at: int) -> Number | None:
    """One number without its range: figures with a fraction behind them, a fraction, or words."""
    if at >= len(items):
        return None
    item, token = items[at], items[at].token
    if token.kind == "number" and not item.senses:
        value, n = token.parts[0], at + 1
        other = value * 1000 if token.grouped else None
        if n < len(items) and value == int(value) and not token.grouped:
            part = _fraction_of(items[n])
            if part is not None and part < 1 and len(items[n].token.parts) == 2:
                return _plain(value + part, n + 1)
        more = _and_part(items, n)
        if more:
            value, n, other = value + more[0], more[1], None
        dozens = items[n].sense("number") if n < len(items) else None
        if dozens and dozens.key in ("dozen", "hundred", "thousand", "score"):
            return _plain(value * dozens.value, n + 1)
        if more:
            return _plain(value, n)
        return _plain(value, n, other=other, mark=token.grouped)
    if token.kind == "fraction":
        above, below = token.parts
        part = above / below if below else None
        ratio = (above, below) if above + below == 100 or (above == int(above) and below == int(below)) else ()
        if part is None:
            return None
        n = at + 1
        if n < len(items) and (s := items[n].sense("number")) and s.key in ("dozen", "hundred"):
            return _plain(part * s.value, n + 1)
        return Number(part, part, part, n, ratio=ratio, fraction=True)
    if token.kind == "ratio":
        return Number(token.parts[0], token.parts[0], token.parts[0], at + 1, ratio=token.parts, fraction=True)
    article = item.is_a("w:a")
    n = at + 1 if article else at
    if n < len(items):
        for kind, part in _FRACTIONS.items():
            if items[n].is_a(kind):
                after = n + 1
                # "half a dozen", "half a kilo": the article belongs to the fraction.
                if after < len(items) and items[after].is_a("w:a"):
                    after += 1
                if after < len(items) and (s := items[after].sense("number")) and s.key in ("dozen", "hundred"):
                    return _plain(part * s.value, after + 1)
                return _plain(part, after, fraction=True)
    words = _word_value(items, n)
    if words is None:
        return None
    value, n = words
    if n < len(items):
        # "two thirds", "three quarters": a plural fraction.
        for kind, part in _FRACTIONS.items():
            measure = n + 1 < len(items) and any(items[n + 1].is_a(f"u:{f}") for f in ("mass", "volume"))
            plural = items[n].token.text.lower().endswith("s") or measure
            single = value == 1 and not (n + 1 < len(items) and items[n + 1].is_a("pounder"))
            if items[n].is_a(kind) and (plural or single) and 0 < value * part < 1:
                return _plain(value * part, n + 1, fraction=True)
        part_after = _fraction_of(items[n])
        if part_after is not None and part_after < 1:
            return _plain(value + part_after, n + 1)
    more = _and_part(items, n)
    if more is None:
        return _plain(value, n)
    if (last := items[n - 1].sense("number")) and last.key in ("dozen", "hundred", "thousand", "score"):
        # "a dozen and a half": half of a dozen.
        return _plain(value + more[0] * last.value, more[1])
    value, n = value + more[0], more[1]
    if n < len(items) and (s := items[n].sense("number")) and s.key in ("dozen", "hundred"):
        return _plain(value * s.value, n + 1)
    return _plain(value, n)


def _and_part(items: Sequence[Item], at: int) -> tuple[float, int] | None:
    """``and a half`` behind a number."""
    if at + 1 < len(items) and items[at].is_a("w:and"):
        n = at + 1
        if items[n].is_a("w:a") and n + 1 < len(items):
            n += 1
        for kind in ("w:half", "w:quarter"):
            if items[n].is_a(kind):
                after = n + 1
                if after < len(items) and items[after].is_a("w:a"):
                    return None
                return _FRACTIONS[kind], after
        if (
            n + 1 < len(items)
            and (s := items[n].sense("number"))
            and s.key == "three"
            and items[n + 1].is_a("w:quarter")
        ):
            return 0.75, n + 2
        part = _fraction_of(items[at + 1])
        if part is not None and part < 1 and items[at + 1].token.parts[0] + items[at + 1].token.parts[1] != 100:
            return part, at + 2
    return None


def number_at(items: Sequence[Item], at: int) -> Number | None:
    """The number that begins at an item, with its range: ``about 500``, ``2-3``, ``2 to 3``, ``80 to 20`` (a ratio).

    Parameters
    ----------
    items : Sequence[Item]
        The text as items.
    at : int
        Index of the first item (count).

    Returns
    -------
    Number | None
        The number, or None when none begins there.
    """
    n, about = at, False
    while n < len(items) and items[n].is_a("about"):
        n, about = n + 1, True
    if n < len(items) and items[n].is_a("w:between"):
        low = _one(items, n + 1)
        if low is not None and low.next < len(items) and items[low.next].is_a("w:and"):
            high = _one(items, low.next + 1)
            if high is not None and high.value > low.value:
                return Number((low.value + high.value) / 2, low.value, high.value, high.next)
    first = _one(items, n)
    if first is None:
        return None
    if about and first.next - n == 1 and items[n].is_a("w:a"):
        return None
    if any(i.token.text.lower() == "few" for i in items[n : first.next]):
        # A few are about three: two to four (ours).
        return Number(first.value, 2.0, 4.0, first.next, True)
    n = first.next
    between = n < len(items) and (items[n].token.text in "-–—" or items[n].is_a("w:to") or items[n].is_a("w:or"))
    if between and not first.ratio[2:]:
        dash = items[n].token.text in "-–—"
        second = _one(items, n + 1)
        if second is not None and (not second.ratio or second.value < 1):
            if not dash and items[n].is_a("w:to") and first.value + second.value == 100 and first.whole:
                return Number(first.value, first.value, first.value, second.next, ratio=(first.value, second.value))
            if second.value > first.value and (dash or not items[n + 1].is_a("w:a")):
                both: tuple[float, ...] = ()
                if first.whole and second.whole and first.value + second.value == 100:
                    both = (first.value, second.value)
                middle = (first.value + second.value) / 2
                return Number(middle, first.value, second.value, second.next, ratio=both)
            if items[n].is_a("w:to") and first.whole and second.whole and first.value <= 10:
                return Number(first.value, first.value, first.value, second.next, ratio=(first.value, second.value))
            if dash and first.value + second.value == 100:
                return Number(first.value, first.value, first.value, second.next, ratio=(first.value, second.value))
    if n < len(items) and items[n].is_a("about") and items[n].token.text == "or":
        about, n = True, n + 1
    if about:
        v = first.value
        return Number(v, v * (1 - ABOUT), v * (1 + ABOUT), n, True, first.ratio, first.fraction, first.other)
    return first
