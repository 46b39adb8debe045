"""What a line said, settled: which dish, for how many, how many pieces, and what to ask back."""

from __future__ import annotations

import math
from collections.abc import Collection, Sequence

from vianda.core.basis import phrase as ph
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.phrase import Phrase, say
from vianda.core.model.styles import Style, style_of
from vianda.core.opening.said_twice import asked_once
from vianda.core.opening.settle_masses import hold_together, settle_masses
from vianda.core.opening.settle_meats import settle_meats
from vianda.core.opening.wish import Wish, left_out, respelt
from vianda.core.reading.line import LineReading
from vianda.core.reading.piece import Ask, Choice
from vianda.core.reading.said import PieceWord, Said

# A bare number of people beside a number of pieces: no more than so many for each piece (ours).
MOST_GUESTS_A_PIECE = 4
# A number beside a meat that is this large counts no people and no pieces of it: it is grams (ours).
LEAST_BARE_GRAMS = 100
# A loaf for one (common practice, no published source), g; and for how many, where nobody says.
MINI_LOAF_G, USUAL_GUESTS = 200.0, 4
DISH_NOUNS = {"burger": "burgers", "meatball": "meatballs", "meatloaf": "meatloaf", "sauce": "meat sauce"}


def settled(reading: LineReading) -> Wish:
    """A reading, settled.

    Parameters
    ----------
    reading : LineReading
        The line as it was read.

    Returns
    -------
    Wish
        What is to be made.

    Raises
    ------
    OutOfRangeError
        Nothing for nobody: a mass or a number of people of zero.
    """
    said, wish = reading.said, Wish()
    _dish(reading, wish)
    _people(said, wish)
    _counts(reading, wish)
    _bare_numbers(reading, wish)
    _too_few(reading, wish)
    settle_masses(reading, wish)
    settle_meats(reading, wish)
    hold_together(reading, wish)
    wish.asks += asked_once(reading)
    for text, choices in said.asks:
        wish.asks.append(Ask(text, tuple(Choice(label, respelt(reading, piece, by)) for label, piece, by in choices)))
    return wish


# --- what dish --------------------------------------------------------------------------------------------------------


def _words(said: Said) -> list[PieceWord]:
    return [w for w in said.pieces if w.style]


def _dish(reading: LineReading, wish: Wish) -> None:
    said = reading.said
    words = _words(said)
    # Balls of a smashed burger are its pieces before the press.
    if any(w.style == "smashed" for w in words) or any(k == "smashed" for k, _ in said.styles):
        words = [w for w in words if w.word.lower() not in ("ball", "balls")]
    wish.dish_said = bool(words or said.styles)
    named = {_family(w.style): w for w in reversed(words)}
    if len(named) > 1:
        wish.asks.append(
            Ask(
                say("One plan makes one dish. Which first?"),
                tuple(
                    Choice(
                        say("{dish}", dish=ph.word(DISH_NOUNS.get(family, family))),
                        left_out(reading, [w.piece for f, w in named.items() if f != family]),
                    )
                    for family in named
                ),
            )
        )
    style = next((w.style for w in words if w.style != "burger"), "burger" if words else "")
    if not style and said.moulds and any(k in ("tin", "tray") for k, _, _ in said.moulds):
        style = "loaf-free"
    wish.style = _refined(style, said)


def _family(style: str) -> str:
    return "burger" if style == "burger" else ("taco" if style == "smashed-taco" else style_of(style).dish)


def _refined(style: str, said: Said) -> str:
    """The style a word for pieces brings, with what else was said of its way."""
    ways = [key for key, _ in said.styles if key not in said.not_styles]
    moulds = [key for key, _, _ in said.moulds]
    if style.startswith("ball"):
        return "ball-simmered" if "ball-simmered" in ways or style == "ball-simmered" else "ball-baked"
    if style.startswith("loaf"):
        if style == "loaf-free" and "filled-burger" in ways:
            return "loaf-filled"
        if style == "loaf-free" and "tin" in moulds:
            return "loaf-tin"
        if style == "loaf-free" and "tray" in moulds:
            return "loaf-tray"
        return style
    if style in ("", "burger"):
        burger = [w for w in ways if style_of(w).dish == "burger"]
        if burger:
            return burger[0]
        if not style and "ball-simmered" in ways:
            return "ball-simmered"
        sizes = [key for key, _ in said.sizes]
        if "thick" in sizes:
            return "thick"
        if "small" in sizes and style == "burger":
            return "slider"
        if "thin" in sizes:
            return "smashed"
    return style


# --- for how many, and how many pieces --------------------------------------------------------------------------------


def _people(said: Said, wish: Wish) -> None:
    if said.children or said.for_children:
        wish.remarks.append(_children_eat(said.children))
    if said.at_risk:
        wish.remarks.append(_at_risk_eat(said.at_risk))
    if not said.people and said.family is not None:
        said.people.append(said.family)
    if not said.people:
        return
    # People of two kinds add up; a second plain number says the first again.
    guests = round(sum(p.high for p in said.people))
    if guests < 1:
        raise OutOfRangeError("Nobody to eat it: say for how many.", field="/line")
    if 0 < said.meatless < guests:
        guests -= said.meatless
        wish.assumed.append(
            say("{n} of them eat no meat: planned for {g}", n=ph.count(said.meatless), g=ph.count(guests))
        )
    wish.guests, wish.children = guests, said.children
    for p in said.people:
        if p.high > p.low:
            wish.assumed.append(
                say(
                    "{a} to {b} people: planned for {b}, so that nobody goes without",
                    a=ph.number(p.low),
                    b=ph.number(p.high),
                )
            )


def _children_eat(n: int) -> Phrase:
    rule = "mince for children is cooked to the published floor (FDA Food Code 3-401.11)."
    if n == 1:
        return say("One child eats too: " + rule)
    return say("{n} children eat too: " + rule, n=ph.count(n)) if n else say("Children eat: " + rule)


_WHO = {
    "pregnant": "someone pregnant eats",
    "old": "older people eat",
    "ill": "someone with weak immunity eats",
    "care": "people in care eat",
    "young": "small children eat",
}


def _at_risk_eat(keys: list[str]) -> Phrase:
    """Served undercooked to none of them, advisory or not: Food Code 3-401.11(D), 3-801.11(C)."""
    who = ", ".join(dict.fromkeys(_WHO[key] for key in keys))
    return say(
        who[0].upper() + who[1:] + " too: mince for them is cooked to the published floor and its hold, never below "
        "(FDA Food Code 3-801.11). Local codes and licensed practice decide."
    )


def _counts(reading: LineReading, wish: Wish) -> None:
    said = reading.said
    counted = [w for w in said.pieces if w.count is not None]
    times = [w.times for w in said.pieces if w.times > 1]
    wish.multiple = max(times, default=1)
    # "Doubles, 2 x 70 g": the two patties of one, said again.
    again = [w for w in counted if not w.word and wish.multiple > 1 and w.count and w.count.value == wish.multiple]
    whole = [w for w in counted if not w.each and not (w in again and said.people)]
    each = [w for w in counted if w.each]
    if each and each[0].count is not None:
        wish.per_guest = max(1, round(each[0].count.high)) * wish.multiple
    if whole:
        figures = [w.count for w in whole if w.count is not None]
        most, least = max(f.value for f in figures), min(f.value for f in figures)
        if most > least and most == wish.multiple * least:
            # "16 patties for 8 doubles" is one number said twice.
            wish.guests, wish.pieces = wish.guests or round(least), round(most)
            return
        if len({f.value for f in figures}) > 1 and not _same_dish(whole):
            return
        figure = figures[0]
        if len({f.value for f in figures}) > 1:
            wish.asks.append(
                Ask(
                    say("Two numbers of pieces. Which is meant?"),
                    tuple(
                        Choice(
                            say("{n} pieces", n=ph.number(w.count.value)),
                            left_out(reading, [x.piece for x in whole if x is not w]),
                        )
                        for w in whole
                        if w.count is not None
                    ),
                )
            )
        count = round(figure.high)
        if count < 1:
            raise OutOfRangeError("No pieces at all: say how many.", field="/line")
        if figure.high > figure.low:
            wish.assumed.append(
                say("{a} to {b} pieces: planned for {b}", a=ph.number(figure.low), b=ph.number(figure.high))
            )
        if wish.multiple > 1:
            wish.guests = wish.guests or count
            wish.pieces = count * wish.multiple
        else:
            wish.pieces = count
    elif wish.multiple > 1 and wish.per_guest is None:
        wish.per_guest = wish.multiple
    if wish.pieces is None and wish.per_guest is None and any(w.single for w in said.pieces):
        loaf = any(w.single and w.style.startswith("loaf") for w in said.pieces)
        # "a 2 kg meatloaf for eight" is one; "a 150 g burger for eight" is one for each.
        if loaf or wish.guests is None:
            wish.pieces = 1
    mini = any(w.style.startswith("loaf") and w.word.lower().startswith("mini") for w in said.pieces)
    if (
        mini
        and wish.pieces is None
        and not (said.eachs or said.totals or said.masses or any(m.mass for m in said.meats))
    ):
        wish.pieces, wish.each_g = wish.guests or USUAL_GUESTS, MINI_LOAF_G
        wish.assumed.append(say("small loaves of {m}, one each", m=ph.mass(MINI_LOAF_G)))
    if wish.pieces is None and said.loaves:
        wish.pieces = max(1, round(said.loaves[0].value))
    if said.extra or said.extra_frac:
        _more_of_them(said, wish)


def _more_of_them(said: Said, wish: Wish) -> None:
    """Spare pieces are made for the same people."""
    base = wish.pieces or (wish.per_guest or 0) * (wish.guests or 0)
    if not base:
        wish.remarks.append(say("Spare pieces were said, and not how many there are without them; none are added."))
        return
    wish.guests = wish.guests or math.ceil(base / (wish.per_guest or wish.multiple))
    wish.pieces = math.ceil(base * (1 + said.extra_frac) - 1e-9) + said.extra


def _for_text(n: int) -> str:
    return "for 1 person" if n == 1 else f"for {n} people"


def _for(n: int) -> Phrase:
    return say("for one person") if n == 1 else say("for {n} people", n=ph.count(n))


def _pieces_text(n: int) -> str:
    return "1 piece" if n == 1 else f"{n} pieces"


def _pieces(n: int) -> Phrase:
    return say("one piece") if n == 1 else say("{n} pieces", n=ph.count(n))


def _bare_numbers(reading: LineReading, wish: Wish) -> None:
    """A number alone counts what the line has not counted yet; when both are open, it is asked back."""
    said = reading.said
    if not said.numbers:
        return
    bare = [m for m in said.meats if m.mass is None and m.share is None and m.part is None]
    if len(bare) == len(said.numbers) > 1 and abs(sum(f.value for f in said.numbers) - 100) < 1e-9:
        # "chuck 50, brisket 30, short rib 20": a hundred parts.
        for meat, number in zip(bare, said.numbers, strict=True):
            meat.share = number.value / 100
        return
    _grams(reading, wish)
    if not said.numbers:
        return
    figure, n = said.numbers[0], round(said.numbers[0].high)
    word = next((w for w in said.pieces), None)
    if len(said.numbers) > 1 or (wish.pieces is not None and wish.guests is not None):
        wish.asks.append(
            Ask(
                say("{n}: of what?", n=ph.count(n)),
                (
                    Choice(_for(n), respelt(reading, figure.piece, _for_text(n))),
                    Choice(_pieces(n), respelt(reading, figure.piece, _pieces_text(n))),
                    Choice(say("leave it out"), respelt(reading, figure.piece, "")),
                ),
            )
        )
    elif (
        word is not None
        and wish.guests is not None
        and wish.per_guest is None
        and not wish.style.startswith("loaf")
        and wish.style != "ragu"
    ):
        wish.pieces = n * wish.multiple
        wish.assumed.append(say("{n} taken as the number of pieces", n=ph.count(n)))
    elif wish.pieces is not None and n <= MOST_GUESTS_A_PIECE * wish.pieces:
        wish.guests = n
        wish.assumed.append(say("{n} taken as the number of people", n=ph.count(n)))
    else:
        wish.asks.append(
            Ask(
                say("{n}: pieces or people?", n=ph.count(n)),
                (
                    Choice(_pieces(n), respelt(reading, figure.piece, _pieces_text(n))),
                    Choice(_for(n), respelt(reading, figure.piece, _for_text(n))),
                ),
            )
        )


def _too_few(reading: LineReading, wish: Wish) -> None:
    """``4 people, 2 patties``: so few for so many that they may be for each."""
    n, guests, said = wish.pieces, wish.guests, reading.said
    if n is None or guests is None or 2 * n > guests or wish.asks:
        return
    if wish.style not in ("", "burger") and style_of(wish.style).dish not in ("burger", "meatball"):
        return
    word = next((w for w in said.pieces if w.count is not None and not w.each), None)
    if word is None:
        return
    name = word.word or ("meatballs" if wish.style.startswith("ball") else "burgers")
    if "in all" in reading.pieces[said.order.get(word.piece, word.piece)].text.lower():
        return
    mass = next((f", {f.value:.5g} g each" for f in said.eachs if f.piece == word.piece), "")
    wish.asks.append(
        Ask(
            say("{n} for {g} people: each, or in all?", n=ph.count(n), g=ph.count(guests)),
            (
                Choice(
                    say("{n} each, {m} in all", n=ph.count(n), m=ph.count(n * guests)),
                    respelt(reading, word.piece, f"{n} {name} each{mass}"),
                ),
                Choice(
                    say("one each, {g} in all", g=ph.count(guests)),
                    respelt(reading, word.piece, f"{guests} {name}{mass}"),
                ),
                Choice(
                    say("{n} in all, cut up", n=ph.count(n)), respelt(reading, word.piece, f"{n} {name} in all{mass}")
                ),
            ),
        )
    )


def _grams(reading: LineReading, wish: Wish) -> None:
    """``beef 500, pork 250``: numbers beside their meats, too large to count anything, are grams."""
    said = reading.said
    if said.system == "us" or any(f.value < LEAST_BARE_GRAMS for f in said.numbers):
        return
    bare = {m.piece: m for m in said.meats if m.mass is None and m.share is None and m.part is None}
    for step in (-1, 1):
        pairs = [(f, bare.get(f.piece + step)) for f in said.numbers]
        if all(meat is not None for _, meat in pairs):
            for figure, meat in pairs:
                assert meat is not None
                meat.mass = figure
                wish.assumed.append(
                    say(
                        "{n} taken as {m} of {meat}",
                        n=ph.number(figure.value),
                        m=ph.mass(figure.value),
                        meat=ph.word(meat.word),
                    )
                )
            said.numbers.clear()
            return


def _same_dish(words: Sequence[PieceWord]) -> bool:
    return len({_family(w.style) for w in words if w.style}) <= 1


# --- the style --------------------------------------------------------------------------------------------------------


def style_for(
    wish: Wish, *, surface: str | None, thickness_mm: float | None = None, ruled_out: Collection[str] = ()
) -> Style:
    """The style a cook would reach for, given the dish, the meat for each and the fire.

    Parameters
    ----------
    wish : Wish
        What is to be made.
    surface : str | None
        Kind of surface said, if any.
    thickness_mm : float | None, default None
        Thickness said, mm; None for none.
    ruled_out : Collection[str], default ()
        Styles the line does not want.

    Returns
    -------
    Style
        What is usual for one style.
    """
    if wish.style not in ("", "burger"):
        return style_of(wish.style)
    if surface == "oven" and not wish.style:
        return style_of("ball-baked")
    each = wish.each_g or (wish.total_g / wish.guests if wish.total_g and wish.guests else None)
    if wish.each_g is None and wish.total_g and wish.pieces:
        each = wish.total_g / wish.pieces
    if thickness_mm is not None:
        if thickness_mm >= 22:
            return style_of("thick")
        if thickness_mm <= 10:
            return style_of("smashed" if "smashed" not in ruled_out else "pre-pressed")
        return style_of("grilled")
    if surface == "grate":
        return style_of("thick" if each is not None and each >= 225 else "grilled")
    if wish.each_g is not None or (wish.pieces and wish.total_g and wish.multiple == 1):
        assert each is not None
        if each >= 200:
            return style_of("thick")
        if each > 120:
            return style_of("grilled")
        if each < 52 and wish.style == "burger":
            return style_of("slider")
    return style_of("smashed" if "smashed" not in ruled_out else "grilled")
