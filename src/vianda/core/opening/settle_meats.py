"""The meats that a line said, settled: whose share is whose, with what fat, and what is left for the rest."""

from __future__ import annotations

from collections.abc import Sequence

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import say
from vianda.core.inventory.inventory import UNKNOWN_MINCE
from vianda.core.model.formula import BlendPart
from vianda.core.opening.wish import APART, Wish, left_out, respelt
from vianda.core.reading.line import LineReading
from vianda.core.reading.piece import Ask, Choice
from vianda.core.reading.rules.common import MOSTLY, SOME
from vianda.core.reading.said import Figure, MeatSaid, Noted, Said

# "Some marrow" or suet is a tenth: more of it would melt away (ours).
LITTLE_FAT = 0.10
# So much of one meat alone leaves the rest to beef; of more it is asked what the rest is (ours).
MOST_NAMED = 0.5


def _key(meat: MeatSaid, said: Said, fat: float | None) -> str:
    base = meat.key or UNKNOWN_MINCE
    wanted = meat.fat if meat.fat is not None else fat
    return said.inventory.key_with_fat(base, wanted) if wanted is not None else base


def settle_meats(reading: LineReading, wish: Wish) -> None:
    """Which meats, in what shares and with what fat; writes them into the wish.

    Parameters
    ----------
    reading : LineReading
        The line as it was read.
    wish : Wish
        What is to be made; its parts, remarks and questions are added to.
    """
    said = reading.said
    meats = _distinct(said, wish)
    fat = said.fats[0].value if said.fats else None
    if len(said.fats) > 1 and len({f.value for f in said.fats}) > 1:
        wish.asks.append(
            Ask(
                say("Two fat contents. Which is meant?"),
                tuple(
                    Choice(
                        say("{r} lean to fat", r=ph.lean_to_fat(f.value)),
                        left_out(reading, [g.piece for g in said.fats if g is not f]),
                    )
                    for f in said.fats
                ),
            )
        )
    if fat is not None and len(meats) == 1 and abs((meats[0].share or 0.0) + fat - 1.0) < 1e-6:
        wish.asks.append(_lean_or_parts(reading, meats[0], said.fats[0], fat))
        meats[0].share = None
    wish.parts_said = bool(meats) or fat is not None
    if not meats:
        meats = [MeatSaid(-1, any="beef")]
    _rest_of_it(meats, wish)
    generic = [m for m in meats if m.any and m.fat is None]
    whole_fat = fat if len(meats) == 1 else None
    if fat is not None and len(meats) == 1 and meats[0].fat not in (None, fat):
        # "5 % mince, 12 % fat": the mince cannot have it; what it lacks must be added.
        wish.aim_fat = fat
    if fat is not None and len(meats) > 1:
        if len(generic) == 1:
            generic[0].fat = fat
        else:
            wish.aim_fat = fat
    shares = _shares(meats, reading, wish)
    parts: dict[str, float] = {}
    for meat, share in zip(meats, shares, strict=True):
        key = _key(meat, said, whole_fat)
        parts[key] = parts.get(key, 0.0) + share
    kept = [(k, v) for k, v in parts.items() if v > 0]
    total = sum(v for _, v in kept)
    fractions = [v / total for _, v in kept]
    fractions[-1] = 1.0 - sum(fractions[:-1])
    wish.parts = tuple(BlendPart(k, f) for (k, _), f in zip(kept, fractions, strict=True))


def _distinct(said: Said, wish: Wish) -> list[MeatSaid]:
    """The meats said, each once; cured ones without an amount, beside others, are no part of the blend."""
    found: list[MeatSaid] = []
    for meat in said.meats:
        same = next((m for m in found if (m.key, m.any) == (meat.key, meat.any) and m.fat in (None, meat.fat)), None)
        bare = meat.mass is None and meat.share is None and meat.part is None
        if same is not None and (bare or (same.mass is None and same.share is None and same.part is None)):
            if bare:
                same.fat = same.fat if same.fat is not None else meat.fat
                continue
            found.remove(same)
        # "700 g mince … beef burgers": a generic word says again what a mass was given for.
        if (
            bare
            and meat.any
            and meat.fat is None
            and any(m.any or said.inventory.meat(m.key).species == "beef" for m in found)
        ):
            continue
        found.append(meat)
    named = [
        m for m in found if not (m.any and m.mass is None and m.share is None and m.part is None and m.fat is None)
    ]
    if len(named) < len(found) and any(
        m.key and said.inventory.meat(m.key).species == "beef" and m.mass is None for m in named
    ):
        found = named
    # Bacon, fat trim or marrow without an amount is never the whole of a dish.
    cured = [
        m for m in found if m.key and _beside(said, m.key) and m.mass is None and m.share is None and m.part is None
    ]
    if said.fats:
        # "round with suet to 20 % fat": the fat is what brings it there.
        cured = [m for m in cured if said.inventory.meat(m.key).cured]
    if len(cured) < len(found):
        cured = [m for m in cured if not m.joined]
    if cured and len(found) == len(cured):
        found.append(MeatSaid(-1, any="beef"))
    if cured:
        for meat in cured:
            name = said.inventory.meat(meat.key).name
            said.notes.append(Noted("meat", f"With {name.lower()}, amount not said", meat.piece))
            wish.remarks.append(
                say("{meat}: no amount said, so it is not ground in; kept as a note.", meat=ph.word(name))
            )
        found = [m for m in found if m not in cured]
    return found[:8]


def _lean_or_parts(reading: LineReading, meat: MeatSaid, figure: Figure, fat: float) -> Ask:
    """``chuck 80 %, fat 20 %``: so much fat added, or chuck that is so fat?"""
    name, lean = ph.word(meat.word), ph.frac(1.0 - fat)
    return Ask(
        say("{lean} {meat} and {fat} fat: what is meant?", lean=lean, meat=name, fat=ph.frac(fat)),
        (
            Choice(
                say("{lean} {meat} with {fat} fat trim", lean=lean, meat=name, fat=ph.frac(fat)),
                respelt(reading, figure.piece, f"{fat * 100:.3g} % fat trim"),
            ),
            Choice(
                say("{meat} that is {r} lean to fat", meat=name, r=ph.lean_to_fat(fat)),
                left_out(reading, [figure.piece]).replace(
                    reading.pieces[reading.said.order.get(meat.piece, meat.piece)].text,
                    f"{meat.word} with {fat * 100:.3g} % fat",
                ),
            ),
        ),
    )


def _rest_of_it(meats: list[MeatSaid], wish: Wish) -> None:
    """Of a whole only a part is named: ``1 kg in all, 300 g pork``, ``30 % pork``. The rest is beef mince."""
    beef = any(m.any for m in meats)
    known = [m.mass.value for m in meats if m.mass is not None]
    if wish.total_g is not None and len(known) == len(meats) and sum(known) < wish.total_g * (1 - APART):
        if not beef:
            wish.assumed.append(say("the rest beef mince"))
            meats.append(MeatSaid(-1, any="beef"))
        return
    share = meats[0].share
    if len(meats) == 1 and share is not None and share <= MOST_NAMED and not beef:
        wish.assumed.append(say("the rest beef mince"))
        meats.append(MeatSaid(-1, any="beef"))


def _fat(said: Said, meat: MeatSaid) -> bool:
    return bool(meat.key) and said.inventory.meat(meat.key).kind == "fat"


def _beside(said: Said, key: str) -> bool:
    meat = said.inventory.meat(key)
    return (meat.cured and meat.kind != "ground") or meat.kind == "fat"


def _shares(meats: Sequence[MeatSaid], reading: LineReading, wish: Wish) -> list[float]:
    """A share of the blend for each meat, from masses, shares and parts as said."""
    n = len(meats)
    total = wish.total_g
    masses = [m.mass.value if m.mass else None for m in meats]
    if (n > 1 and sum(x is not None for x in masses) > 1) or (
        n > 1 and reading.said.totals and any(x is not None for x in masses)
    ):
        known = sum(x for x in masses if x is not None)
        rest = max(0.0, (total or known) - known)
        open_count = sum(x is None for x in masses)
        if open_count and rest <= 0:
            wish.remarks.append(say("A meat without an amount was named beside meats with one; it is left out."))
        return [x if x is not None else rest / open_count for x in masses]
    shares: list[float | None] = [m.share for m in meats]
    parts = [m.part for m in meats]
    if any(p is not None and p > 0 for p in parts):
        positive = [p if p is not None and p > 0 else 1.0 for p in parts]
        return [p / sum(positive) for p in positive]
    if any(p == -1.0 for p in parts):
        others = n - 1
        little = others == 1 and any(p != -1.0 and _fat(reading.said, m) for m, p in zip(meats, parts, strict=True))
        most = 1 - LITTLE_FAT if little else MOSTLY
        shares = [most if p == -1.0 else (1 - most) / others if others else 1.0 for p in parts]
        if n > 1:
            wish.assumed.append(say("“mostly” as {share} of the meat", share=ph.frac(most)))
        return [s or 0.0 for s in shares] if n > 1 else [1.0]
    if any(p == -2.0 for p in parts) and n > 1:
        some = [LITTLE_FAT if _fat(reading.said, m) else SOME for m in meats]
        shares = [q if p == -2.0 else s for p, s, q in zip(parts, shares, some, strict=True)]
        if all(s is not None for s in shares) and all(p == -2.0 for p in parts):
            shares = [None] * n
        else:
            named = next(q for p, q in zip(parts, some, strict=True) if p == -2.0)
            wish.assumed.append(say("“some” as {share} of the meat", share=ph.frac(named)))
    said_sum = sum(s for s in shares if s is not None)
    opened = [i for i, s in enumerate(shares) if s is None]
    if said_sum > 1.005:
        wish.asks.append(
            Ask(
                say("The shares make {sum}, not 100 %. What is meant?", sum=ph.frac(said_sum)),
                tuple(
                    Choice(
                        say("{meat} gives way", meat=ph.word(meats[i].word)),
                        respelt(reading, meats[i].piece, f"the rest {meats[i].word}"),
                    )
                    for i in range(n)
                    if meats[i].share is not None
                ),
            )
        )
        return [1.0 / n] * n
    if not opened:
        if said_sum < 0.995 and n == 1:
            wish.asks.append(
                Ask(
                    say("{share} {meat}: and the rest?", share=ph.frac(said_sum), meat=ph.word(meats[0].word)),
                    (
                        Choice(say("the rest beef mince"), f"{reading.text}, the rest beef mince"),
                        Choice(
                            say("all {meat}", meat=ph.word(meats[0].word)),
                            respelt(reading, meats[0].piece, meats[0].word),
                        ),
                    ),
                )
            )
        elif said_sum < 0.995:
            wish.assumed.append(say("the shares make {sum}; taken in proportion", sum=ph.frac(said_sum)))
        return [s or 0.0 for s in shares]
    rest = 1.0 - said_sum
    if rest <= 1e-9:
        wish.remarks.append(say("The shares said make 100 %; what else was named is left out."))
    elif len(opened) == n and n > 1:
        wish.assumed.append(say("equal shares of each meat"))
    return [s if s is not None else rest / len(opened) for s in shares]
