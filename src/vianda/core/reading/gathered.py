"""Meats with what is said of their fat, and one quantity in two units: atoms that belong together become one."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace

from vianda.core.reading.atom import Atom
from vianda.core.reading.lexicon import Sense
from vianda.core.reading.rules.common import EXTRA_LEAN_FAT, LEAN_FAT, LEAST_LEAN, RICH_FAT

# Ratios that packs of mince are sold by: lean to fat (US practice; 9 CFR 319.15 caps fat at 30 %).
_FAT_MOST = 60.0
# The same quantity in two units agrees within this fraction, as people round (ours).
SAME = 0.06


def gathered(atoms: Sequence[Atom], species: Mapping[str, str]) -> list[Atom]:
    """Atoms with what belongs together made one: "150 g (5.3 oz)", "80/20", "extra lean 5 % beef mince".

    Parameters
    ----------
    atoms : Sequence[Atom]
        The text as atoms.
    species : Mapping[str, str]
        The animal of each meat, by its key.

    Returns
    -------
    list[Atom]
        The atoms, in order; meats are of the kind ``MEATP``, fat contents ``FAT``.
    """
    return _with_meats(_with_fat(_said_once(atoms)), species)


def _fat_at(atoms: Sequence[Atom], at: int) -> tuple[Atom, int] | None:
    """A lean:fat or a fat content that begins at a place, in any spelling."""

    def has(n: int, kind: str) -> bool:
        return n < len(atoms) and kind in atoms[n].kinds

    def made(
        fat: float, end: int, low: float | None = None, high: float | None = None, *, ratio: Atom | None = None
    ) -> tuple[Atom, int]:
        span = tuple(i for a in atoms[at:end] for i in a.tokens)
        kinds = {"FAT"} | ({"RATIO"} if ratio is not None else set())
        return (
            Atom(
                span,
                frozenset(kinds),
                (),
                fat,
                fat if low is None else low,
                fat if high is None else high,
                parts=ratio.parts if ratio else (),
                text=" ".join(a.text for a in atoms[at:end]),
            ),
            end,
        )

    n = at
    while has(n, "w:within") or has(n, "w:least"):
        n += 1
    # "lean to fat 75:25": the words before the figures.
    if has(n, "w:leanword"):
        after = n + 1
        while after < len(atoms) and (atoms[after].kinds & {"w:to", "w:fat", "SEP"}):
            after += 1
        if after > n + 1 and after < len(atoms) and "RATIO" in atoms[after].kinds and sum(atoms[after].parts) == 100:
            return made(min(atoms[after].parts) / 100, after + 1)
    a = atoms[n] if n < len(atoms) else None
    if a is None:
        return None
    if "RATIO" in a.kinds and len(a.parts) == 2 and sum(a.parts) == 100 and min(a.parts) > 0:
        end, named = n + 1, False
        while end < len(atoms) and (
            {"w:leanword", "w:fat"} & atoms[end].kinds
            or (atoms[end].text in "/:" and has(end + 1, "w:fat"))
            or ("w:to" in atoms[end].kinds and has(end + 1, "w:fat"))
        ):
            named = named or bool({"w:leanword", "w:fat"} & atoms[end].kinds)
            end += 1
        return made(min(a.parts) / 100, end, ratio=None if named else a)
    quantity = "PCT" in a.kinds or ("NUM" in a.kinds and 1 < a.value <= 99 and not a.parts)
    scale = 1.0 if "PCT" in a.kinds else 0.01
    if quantity:
        end = n + 1
        if has(end, "w:of") and has(end + 1, "w:fat"):
            end += 1
        if has(end, "w:leanword"):
            end += 1
            more = end + 1 if has(end, "w:and") or has(end, "SEP") else end
            fatty = more < len(atoms) and {"PCT", "NUM"} & atoms[more].kinds and has(more + 1, "w:fat")
            return made(1 - a.value * scale, more + 2 if fatty else end, 1 - a.high * scale, 1 - a.low * scale)
        if has(end, "w:fat") and (a.value * scale * 100 <= _FAT_MOST):
            end += 1
            if has(end, "w:and") and has(end + 1, "PCT") and has(end + 2, "w:leanword"):
                end += 3
            return made(a.value * scale, end, a.low * scale, a.high * scale)
    if "w:fat" in a.kinds or "w:leanword" in a.kinds:
        end = n + 1
        while (
            has(end, "w:of") or has(end, "w:at") or (end < len(atoms) and atoms[end].text in ":=") or has(end, "about")
        ):
            end += 1
        if has(end, "PCT"):
            value = atoms[end]
            lean = "w:leanword" in a.kinds and "w:fat" not in a.kinds
            after_ok = not (has(end + 1, "MEAT") and "w:fat" not in atoms[end + 1].kinds)
            if after_ok or ":" in atoms[n + 1].text or has(end + 1, "SEP"):
                if lean:
                    return made(1 - value.value, end + 1, 1 - value.high, 1 - value.low)
                if value.value * 100 <= _FAT_MOST:
                    return made(value.value, end + 1, value.low, value.high)
    return None


# Of mince alone, a share up to here is taken for its fat: "5 % beef mince" (label practice of the UK and EU).
_MOST_LABELLED = 0.35


def _labelled_at(atoms: Sequence[Atom], at: int) -> tuple[Atom, int] | None:
    """``5 % beef mince``, ``turkey mince (7 %)``: a small per cent beside mince is its fat, unless shares are said."""
    a = atoms[at]
    if "PCT" not in a.kinds or not 0 < a.high <= _MOST_LABELLED:
        return None
    before = atoms[at - 1] if at else None
    if before is not None and before.text == "(" and at > 1:
        before = atoms[at - 2]
    after = atoms[at + 1] if at + 1 < len(atoms) else None
    if after is not None and (after.kinds & {"w:salt", "ING", "w:saltfree"} and not _is_meat(after)):
        return None
    if any("PCT" in x.kinds and x.value > _MOST_LABELLED for x in atoms):
        return None
    alone = all("MEAT" not in x.kinds for x in atoms)
    for x in (before, after):
        if x is None or not _is_meat(x):
            continue
        minced = bool({"mince", "minced", "ground", "hackfleisch", "hack"} & set(x.text.lower().split()))
        if minced or (alone and "ANY" in x.kinds):
            return Atom(a.tokens, frozenset({"FAT"}), (), a.value, a.low, a.high, text=a.text), at + 1
    return None


def _said_once(atoms: Sequence[Atom]) -> list[Atom]:
    """``150 g (5.3 oz)``, ``57 °C / 135 °F``: one quantity in two units is one."""
    out: list[Atom] = []
    at = 0
    while at < len(atoms):
        out.append(atoms[at])
        kind = next((k for k in ("MASS", "LEN", "TEMP", "VOL") if k in atoms[at].kinds), None)
        after = atoms[at + 1 : at + 4]
        at += 1
        if kind is None or len(after) < 2 or after[0].text not in ("(", "/", "=") or kind not in after[1].kinds:
            continue
        if after[1].unit == out[-1].unit or abs(after[1].value - out[-1].value) > SAME * abs(out[-1].value):
            continue
        end = at + 2 + int(after[0].text == "(" and len(after) > 2 and after[2].text == ")")
        span = tuple(i for a in atoms[at - 1 : end] for i in a.tokens)
        out[-1] = replace(out[-1], tokens=span)
        at = end
    return out


def _with_fat(atoms: Sequence[Atom]) -> list[Atom]:
    out: list[Atom] = []
    at = 0
    while at < len(atoms):
        found = _fat_at(atoms, at) or _labelled_at(atoms, at)
        if found:
            out.append(found[0])
            at = found[1]
        else:
            out.append(atoms[at])
            at += 1
    return out


def _is_meat(a: Atom) -> bool:
    return bool({"MEAT", "ANY"} & a.kinds)


def _meat_at(atoms: Sequence[Atom], at: int, *, blocked: bool, species: Mapping[str, str]) -> tuple[Atom, int] | None:
    """A meat with what is said of its fat before and after it: ``extra lean 5 % beef mince``."""
    n, fat, word = at, None, ""
    while n < len(atoms):
        a = atoms[n]
        if "FAT" in a.kinds and fat is None:
            fat, n = a.value, n + 1
        elif {"w:leanword", "w:fatty", "w:extra"} & a.kinds and not _is_meat(a):
            if "w:extra" in a.kinds and not (n + 1 < len(atoms) and "w:leanword" in atoms[n + 1].kinds):
                return None
            if "w:leanword" in a.kinds:
                extra = n > at and "w:extra" in atoms[n - 1].kinds
                fat = fat if fat is not None else (EXTRA_LEAN_FAT if extra else LEAN_FAT)
            elif "w:fatty" in a.kinds:
                fat = fat if fat is not None else RICH_FAT
            n += 1
        elif n > at and ("w:of" in a.kinds or (a.kinds & {"PREP"} and not _is_meat(a))):
            n += 1
        else:
            break
    if n >= len(atoms) or not _is_meat(atoms[n]):
        return None
    meat = atoms[n]
    first = atoms[at]
    if "FAT" in first.kinds and "RATIO" in first.kinds and max(first.parts) < LEAST_LEAN:
        # "50:50 pork beef": no mince is so fat, so the meats are parted.
        return None
    end = n + 1
    # "beef chuck", "chuck beef": the species is an adjective.
    if end < len(atoms) and _is_meat(atoms[end]) and _one_species(meat, atoms[end], species):
        here_any, next_any = "MEAT" not in meat.kinds, "MEAT" not in atoms[end].kinds
        if here_any and not next_any:
            meat, end = atoms[end], end + 1
        elif next_any and not here_any:
            end += 1
    # A bare ratio before several meats parts them; before one it is lean to fat.
    if "FAT" in first.kinds and "RATIO" in first.kinds and _more_meats(atoms, end):
        return None
    after = end
    if after < len(atoms) and ({"w:with", "w:at"} & atoms[after].kinds or atoms[after].text in ("(", ",")):
        after += 1
    closed = after < len(atoms) and "FAT" in atoms[after].kinds and fat is None
    if closed and not ("RATIO" in atoms[after].kinds and (blocked or _more_meats(atoms, after + 1))):
        comma = after > end and (atoms[after - 1].text == "," or "w:at" in atoms[after - 1].kinds)
        if not comma or not (_more_meats(atoms, after + 1) or blocked):
            fat, end = atoms[after].value, after + 1
            if end < len(atoms) and atoms[end].text == ")":
                end += 1
    senses = [s for s in meat.senses if s.kind in ("MEAT", "ANY", "AVOIDED", "ING", "w:fat", "w:loss")]
    if fat is not None:
        senses.append(Sense("FATSAID", value=fat))
    kinds = {s.kind for s in senses} | {"MEATP"}
    if fat is not None:
        kinds -= {"AVOIDED", "ING"}
    span = tuple(i for a in atoms[at:end] for i in a.tokens)
    word = " ".join(a.text for a in atoms[at:end])
    return Atom(span, frozenset(kinds), tuple(senses), value=fat or 0.0, spelt=meat.spelt, text=word), end


def _one_species(one: Atom, other: Atom, species: Mapping[str, str]) -> bool:
    """Whether two meat words may be of one animal: "beef chuck" is one meat, "pork beef" are two."""

    def of(a: Atom) -> str | None:
        meat, generic = a.sense("MEAT"), a.sense("ANY")
        return species.get(meat.key) if meat else generic.key if generic else None

    a, b = of(one), of(other)
    return a is None or b is None or a == b


def _more_meats(atoms: Sequence[Atom], at: int) -> bool:
    """Whether another meat follows: after "and", a comma, "to" or "with"."""
    n = at
    while n < len(atoms) and (atoms[n].kinds & {"w:and", "w:to", "w:with", "SEP"}):
        n += 1
    return n > at and n < len(atoms) and _is_meat(atoms[n]) and not {"w:fat"} & atoms[n].kinds


def _with_meats(atoms: Sequence[Atom], species: Mapping[str, str]) -> list[Atom]:
    out: list[Atom] = []
    at = 0
    while at < len(atoms):
        blocked = any("MEATP" in a.kinds for a in out)
        found = _meat_at(atoms, at, blocked=blocked, species=species)
        if found:
            out.append(found[0])
            at = found[1]
        else:
            out.append(atoms[at])
            at += 1
    return out
