"""Numbers with their units: weights, volumes, times, temperatures, lengths and dimensions as they are typed."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace

from vianda.core.basis import units
from vianda.core.basis.units import UnitSystem
from vianda.core.reading.atom import Atom
from vianda.core.reading.lexicon import IMPERIAL, Sense
from vianda.core.reading.numbers import Item, Number, number_at
from vianda.core.reading.tokens import Token

SEPARATORS = frozenset(",;.():!?/|•·*–—-\"“”'[]…")
# No oven, plate or core stands beyond these in degrees Celsius, so a bare "350°" is Fahrenheit (ours).
HOTTEST_BARE_C = 290.0
COLDEST_CUP = 30.0
# Two measures joined by "to" are one range if the second is at most so many times the first (ours).
WIDEST_RANGE = 3.0
# A stroke between figures from here on parts two weights; below, it is a fraction: 3/4 lb (ours).
LEAST_OF_TWO = 20.0
# A heaped spoon and a scant cup by their level ones (common practice, no published source).
FILLS: Mapping[str, float] = {
    "heaped": 1.5,
    "heaping": 1.5,
    "rounded": 1.25,
    "generous": 1.15,
    "level": 1.0,
    "scant": 0.9,
}


def _unit(item: Item, family: str, number: Number, tokens: Sequence[Token]) -> Sense | None:
    sense = item.sense(f"u:{family}")
    if sense is None:
        return None
    text = item.token.text
    if family == "volume" and sense.key == "tsp" and text == "T":
        return Sense("u:volume", "tbsp", 3 * sense.value)
    if sense.key in ("c", "cup") and text.lower() == "c":
        hot = number.value >= COLDEST_CUP
        if (family == "temp") != hot:
            return None
    if family == "temp" and sense.key == "f" and text.lower() == "f" and number.value < COLDEST_CUP:
        return None
    return sense


def _as_grouped(number: Number, unit: str, points: bool) -> Number:
    """1,200 g is 1200 g, and so is 1.200 g of meat (``points``); 1.200 kg and 1,250 kg are what they say."""
    if number.other is None or (number.mark == "." and not points):
        return number
    if unit in ("g", "ml", "gram", "", "mm"):
        v = number.other
        return replace(number, value=v, low=v, high=v, other=number.value)
    return number


class AtomBuilder:
    """Runs over the items of a text and gathers atoms."""

    def __init__(
        self,
        tokens: Sequence[Token],
        items: list[Item],
        *,
        spelt: Mapping[int, str],
        imperial: bool,
        system: UnitSystem,
        points: bool,
    ) -> None:
        self.tokens, self.items, self.spelt = tokens, items, spelt
        self.imperial, self.system = imperial, system
        self.points = points
        self.atoms: list[Atom] = []
        self.noise: set[int] = set()

    def _span(self, start: int, end: int) -> tuple[int, ...]:
        return tuple(i for item in self.items[start:end] for i in item.tokens)

    def _text(self, start: int, end: int) -> str:
        return " ".join(self.tokens[i].text for i in self._span(start, end))

    def _is(self, at: int, kind: str) -> bool:
        return at < len(self.items) and self.items[at].is_a(kind)

    def _quantity(self, at: int) -> tuple[Atom, int] | None:
        """A number with the unit behind it, or a bare one."""
        number = number_at(self.items, at)
        start = at
        if number is None:
            # "a kilo", "an ounce", "a pint": the article counts one.
            if self._is(at, "w:a") and at + 1 < len(self.items):
                one = Number(1.0, 1.0, 1.0, at + 1)
                for family in ("mass", "volume", "time"):
                    # "a second" is more often the next one than a time.
                    if self._is(at + 1, f"u:{family}") and self.items[at + 1].token.text.lower() != "second":
                        return self._measured(start, one)
                # "on a tray", "in a bag" say where, not how many.
                where = at > 0 and (self._is(at - 1, "w:on") or self._is(at - 1, "w:in"))
                if not where and any(self._is(at + 1, k) for k in ("VAGUE", "HOLDER", "UNIT_PIECE")):
                    return self._bare(start, one)
                if self.items[at + 1].token.text.lower() in FILLS and self._is(at + 2, "u:volume"):
                    return self._measured(start, one)
            return None
        if self._negative(start):
            return (
                Atom(self._span(start - 1, number.next), frozenset({"BAD"}), value=-number.value, text="below zero"),
                number.next,
            )
        return self._measured(start, number)

    def _negative(self, at: int) -> bool:
        if at == 0 or self.items[at - 1].token.text not in "-−–" or not self.items[at].glued:
            return False
        return at == 1 or not self.items[at - 1].glued

    def _measured(self, start: int, number: Number) -> tuple[Atom, int]:
        n = number.next
        if n >= len(self.items):
            return self._bare(start, number)
        item = self.items[n]
        # "1 heaped tablespoon", "a scant cup": so many level ones, less surely.
        fill = FILLS.get(item.token.text.lower())
        if fill is not None and n + 1 < len(self.items) and self.items[n + 1].is_a("u:volume"):
            v = number.value * fill
            spread = 0.2 if fill != 1.0 else 0.0
            filled = replace(
                number, value=v, low=number.low * fill * (1 - spread), high=number.high * fill * (1 + spread)
            )
            sense = self.items[n + 1].sense("u:volume")
            assert sense is not None
            return self._with_unit(start, filled, n + 1, "volume", "VOL", sense)
        # "a half of a kilo", "2 of 500 g" is no unit: only fractions may have an of before the unit.
        if number.fraction and item.is_a("w:of") and n + 1 < len(self.items):
            skip = n + 2 if self._is(n + 1, "w:a") else n + 1
            if self._is(skip, "u:mass") or self._is(skip, "u:volume"):
                n, item = skip, self.items[skip]
        if item.is_a("u:percent"):
            # "20-25 %"; a ratio before it ("80/20 %") stays a ratio.
            parts = number.ratio
            return (
                Atom(
                    self._span(start, n + 1),
                    frozenset({"PCT", *({"RATIO"} if parts else ())}),
                    value=number.value / 100,
                    low=number.low / 100,
                    high=number.high / 100,
                    number=number,
                    parts=parts,
                    text=self._text(start, n + 1),
                ),
                n + 1,
            )
        if item.is_a("pounder"):
            grams = number.value * units.G_PER_LB
            atom = Atom(self._span(start, n + 1), frozenset({"POUNDER"}), value=grams, low=grams, high=grams)
            return replace(atom, number=number, text=self._text(start, n + 1)), n + 1
        for family, kind in (
            ("mass", "MASS"),
            ("volume", "VOL"),
            ("time", "TIME"),
            ("temp", "TEMP"),
            ("length", "LEN"),
        ):
            sense = _unit(item, family, number, self.tokens)
            if sense is None:
                continue
            if family == "length" and item.token.text.lower() == "in" and not self._inch(n):
                continue
            return self._with_unit(start, number, n, family, kind, sense)
        return self._bare(start, number)

    def _inch(self, n: int) -> bool:
        """Whether ``in`` behind a number is the inch: glued to it, or before a word of size."""
        if self.items[n].glued:
            return True
        after = self.items[n + 1] if n + 1 < len(self.items) else None
        return after is not None and any(
            after.is_a(k) for k in ("w:thick", "w:across", "w:bun", "MOULD", "PIECE", "w:times")
        )

    def _with_unit(self, start: int, number: Number, n: int, family: str, kind: str, sense: Sense) -> tuple[Atom, int]:
        number = _as_grouped(number, sense.key, self.points)
        end = n + 1
        if family in ("mass", "length") and (number.ratio[2:] or min(number.ratio, default=0.0) >= LEAST_OF_TWO):
            # "100/150/200 g": several weights, no fraction.
            return Atom(self._span(start, end), frozenset({"BAD"}), text=self._text(start, end)), end
        if family == "temp":
            return self._temperature(start, number, sense.key, end)
        factor = IMPERIAL.get(sense.key, sense.value) if self.imperial else sense.value
        value, low, high = number.value * factor, number.low * factor, number.high * factor
        smallest = factor
        # "1 lb 4 oz", "1 h 30", "a pound and a half", "1 cup and 2 tbsp".
        while end < len(self.items):
            step = end + 1 if self._is(end, "w:and") else end
            more = number_at(self.items, step)
            if more is None:
                break
            unit = self.items[more.next].sense(f"u:{family}") if more.next < len(self.items) else None
            size = unit.value if unit else 0.0
            # "1 kg, 100 g each" are two masses even without the comma: nobody says a piece of 1.1 kg so.
            two = family == "mass" and sense.key == "kg" and self._is(more.next + 1, "w:each")
            if unit and size < smallest and not two and not (unit.key == "in" and not self._inch(more.next)):
                value, low, high = value + more.value * size, low + more.low * size, high + more.high * size
                smallest, end = size, more.next + 1
                continue
            if step > end and unit is None and more.fraction and not more.ratio[2:] and more.value < 1:
                if self._is(step, "w:a") or not self._follows_food(more.next):
                    value, low, high = (x + more.value * factor for x in (value, low, high))
                    end = more.next
            elif (
                step == end
                and unit is None
                and family == "time"
                and sense.key == "h"
                and more.whole
                and more.value < 60
            ):
                value, low, high, end = value + 60 * more.value, low + 60 * more.low, high + 60 * more.high, more.next
            break
        if ranged := self._to_another(end, family, value):
            low, high, end = value, ranged[0], ranged[1]
            value = (low + high) / 2
        kinds = {kind}
        if family == "length" and number.ratio == () and end < len(self.items) and self._is(end, "w:times"):
            kinds.add("LEN")
        parts: tuple[float, ...] = ()
        dims = self._dimensions(end, value, sense)
        if family == "length" and dims:
            parts, end = dims
            kinds = {"DIMS"}
        return (
            Atom(
                self._span(start, end),
                frozenset(kinds),
                value=value,
                low=low,
                high=high,
                number=number,
                parts=parts,
                unit=sense.key,
                text=self._text(start, end),
            ),
            end,
        )

    def _to_another(self, at: int, family: str, first: float) -> tuple[float, int] | None:
        """The far end of a range whose both ends have their unit: "750 g to 800 g", "1 kg - 1.2 kg"."""
        joined = self._is(at, "w:to") or self._is(at, "w:or")
        if not joined and not (at < len(self.items) and self.items[at].token.text in "-–—"):
            return None
        more = number_at(self.items, at + 1)
        unit = self.items[more.next].sense(f"u:{family}") if more and more.next < len(self.items) else None
        if more is None or unit is None or more.ratio or (unit.key == "in" and not self._inch(more.next)):
            return None
        size = IMPERIAL.get(unit.key, unit.value) if self.imperial else unit.value
        far = more.value * size
        return (far, more.next + 1) if first < far <= WIDEST_RANGE * first else None

    def _follows_food(self, at: int) -> bool:
        """Whether what follows a fraction is a thing of its own: "500 g beef and half pork"."""
        return at < len(self.items) and any(
            self.items[at].is_a(k) for k in ("MEAT", "ANY", "ING", "VAGUE", "HOLDER", "UNIT_PIECE", "w:of")
        )

    def _dimensions(self, at: int, first: float, sense: Sense) -> tuple[tuple[float, ...], int] | None:
        found, n = [first], at
        while n + 1 < len(self.items) and self.items[n].is_a("w:times"):
            more = number_at(self.items, n + 1)
            if more is None:
                break
            n = more.next
            size = sense.value
            if n < len(self.items) and (u := self.items[n].sense("u:length")) and self.items[n].token.text != "in":
                size, n = u.value, n + 1
            found.append(more.value * size)
        return (tuple(found), n) if len(found) > 1 else None

    def _temperature(self, start: int, number: Number, unit: str, end: int) -> tuple[Atom, int]:
        kinds = {"TEMP"}
        if unit == "degree":
            hot = number.value > HOTTEST_BARE_C
            unit = "f" if hot or self.system == "us" else "c"
            kinds.add("TEMP_BARE")
        to_c = units.c_from_f if unit == "f" else float
        return (
            Atom(
                self._span(start, end),
                frozenset(kinds),
                value=to_c(number.value),
                low=to_c(number.low),
                high=to_c(number.high),
                number=number,
                unit=unit,
                text=self._text(start, end),
            ),
            end,
        )

    def _bare(self, start: int, number: Number) -> tuple[Atom, int]:
        number = _as_grouped(number, "", self.points)
        n = number.next
        kinds = {"NUM"}
        parts = number.ratio
        if parts:
            kinds.add("RATIO")
        # "23 x 13 cm": the unit stands behind the last one only.
        if n < len(self.items) and self.items[n].is_a("w:times") and not number.ranged:
            dims = self._trailing_dimensions(n, number.value)
            if dims:
                parts, end = dims
                return Atom(self._span(start, end), frozenset({"DIMS"}), number=number, parts=parts), end
        return (
            Atom(
                self._span(start, n),
                frozenset(kinds),
                value=number.value,
                low=number.low,
                high=number.high,
                number=number,
                parts=parts,
                text=self._text(start, n),
                glued=self.items[start].glued,
            ),
            n,
        )

    def _trailing_dimensions(self, at: int, first: float) -> tuple[tuple[float, ...], int] | None:
        found, n = [first], at
        while n + 1 < len(self.items) and self.items[n].is_a("w:times"):
            more = number_at(self.items, n + 1)
            if more is None:
                return None
            found.append(more.value)
            n = more.next
        tin = self.atoms and "MOULD" in self.atoms[-1].kinds and all(f <= 20 for f in found)
        if len(found) >= 2 and tin and not (n < len(self.items) and self.items[n].sense("u:length")):
            return tuple(f * units.MM_PER_IN for f in found), n
        if len(found) < 2 or n >= len(self.items):
            return None
        unit = self.items[n].sense("u:length")
        if unit is not None and (self.items[n].token.text.lower() != "in" or self._inch(n)):
            return tuple(f * unit.value for f in found), n + 1
        # "9x5 pan": inches, as such tins are called.
        if (self.items[n].is_a("MOULD") or self.items[n].is_a("SURFACE")) and all(f <= 20 for f in found):
            return tuple(f * units.MM_PER_IN for f in found), n
        return None

    def run(self) -> list[Atom]:
        """The atoms of all items, in their order.

        Returns
        -------
        list[Atom]
            One for each phrase, number with its unit, and separator; function words are set aside as ``noise``.
        """
        at, article = 0, False
        while at < len(self.items):
            item = self.items[at]
            if item.token.kind == "clock":
                self.atoms.append(Atom(item.tokens, frozenset({"CLOCK"}), parts=item.token.parts, text=item.token.text))
                at += 1
                continue
            read = self._quantity(at)
            if read is not None:
                atom, end = read
                if "BAD" in atom.kinds and self.atoms and self.atoms[-1].kinds == {"SEP"}:
                    self.atoms.pop()
                self.atoms.append(replace(atom, article=article))
                at, article = end, False
                continue
            kinds = frozenset(s.kind for s in item.senses)
            spelt = next((self.spelt[i] for i in item.tokens if i in self.spelt), "")
            if not kinds and item.token.kind in ("number", "fraction", "ratio"):
                kinds = frozenset({"BAD"})
            elif not kinds:
                kinds = frozenset({"SEP"}) if item.token.text in SEPARATORS else frozenset({"UNKNOWN"})
            if kinds == {"noise"} or kinds <= {"noise", "w:a", "about"}:
                self.noise.update(item.tokens)
                article = item.is_a("w:a")
            else:
                text = self._text(at, at + 1)
                glued = item.glued
                self.atoms.append(
                    Atom(item.tokens, kinds, item.senses, glued=glued, spelt=spelt, text=text, article=article)
                )
                article = False
            at += 1
        return self.atoms
