"""What a line said, settled: which mass is the whole and which a piece, whose share is whose, and what to ask back."""

from __future__ import annotations

from collections.abc import Sequence

from vianda.core.basis import phrase as ph
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.phrase import Phrase, say
from vianda.core.model.styles import Style, style_of
from vianda.core.opening.settle_meats import settle_meats
from vianda.core.opening.wish import APART, Wish, left_out, respelt
from vianda.core.reading.line import LineReading
from vianda.core.reading.piece import Ask, Choice
from vianda.core.reading.said import PieceWord, Said

# So much more than the meat a mixed piece may weigh: crumbs, egg, onion and liquid (common practice, the widest mix).
MOST_MIXED = 2.2
LIGHTEST, HEAVIEST = 0.5, 2.0
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
    _masses(reading, wish)
    settle_meats(reading, wish)
    _hold_together(reading, wish)
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
        texts = {w.piece: reading.pieces[said.order.get(w.piece, w.piece)].text.lower().split()[-1] for w in words}
        words = [w for w in words if texts[w.piece] not in ("ball", "balls")]
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
    ways = [key for key, _ in said.styles]
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
    if not said.people:
        return
    # People of two kinds add up; a second plain number says the first again.
    guests = round(sum(p.high for p in said.people))
    if guests < 1:
        raise OutOfRangeError("Nobody to eat it: say for how many.", field="/line")
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
    if said.children:
        wish.remarks.append(
            say(
                "{n} children eat too: mince for children is cooked to the published floor (FDA Food Code 3-401.11).",
                n=ph.count(said.children),
            )
        )


def _counts(reading: LineReading, wish: Wish) -> None:
    said = reading.said
    counted = [w for w in said.pieces if w.count is not None]
    times = [w.times for w in said.pieces if w.times > 1]
    wish.multiple = max(times, default=1)
    whole = [w for w in counted if not w.each]
    each = [w for w in counted if w.each]
    if each and each[0].count is not None:
        wish.per_guest = max(1, round(each[0].count.high)) * wish.multiple
    if whole:
        figures = [w.count for w in whole if w.count is not None]
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
    if wish.pieces is None and said.loaves:
        wish.pieces = max(1, round(said.loaves[0].value))


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
    elif word is not None and wish.guests is not None and wish.per_guest is None:
        wish.pieces = n * wish.multiple
        wish.assumed.append(say("{n} taken as the number of pieces", n=ph.count(n)))
    elif wish.pieces is not None:
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


def _same_dish(words: Sequence[PieceWord]) -> bool:
    return len({_family(w.style) for w in words if w.style}) <= 1


# --- masses -----------------------------------------------------------------------------------------------------------


def _range_of(wish: Wish) -> tuple[float, float]:
    style = style_of(wish.style) if wish.style not in ("", "burger") else None
    low, high = style.piece_mass_g if style else (35.0, 340.0)
    return low * LIGHTEST, high * HEAVIEST


def _masses(reading: LineReading, wish: Wish) -> None:
    said = reading.said
    for figure in [*said.totals, *said.masses, *said.eachs, *said.heads, *(m.mass for m in said.meats if m.mass)]:
        if figure.value <= 0:
            raise OutOfRangeError("No meat, no burger: say how much there is.", field="/line")
    massed = [m for m in said.meats if m.mass is not None]
    if said.totals:
        wish.total_g = said.totals[0].value
    if said.eachs:
        wish.each_g = said.eachs[0].value
    if said.heads:
        wish.head_g = said.heads[0].value
    if said.cooked:
        wish.cooked_g = said.cooked[0].value
    bare = list(said.masses)
    # One mass on a meat and none on the others is the mass of all: "600 g chuck and pork".
    others = [m for m in said.meats if m.mass is None and m.share is None and m.part is None]
    if wish.total_g is None and massed and (len(massed) == len(said.meats) or not others or len(massed) > 1):
        wish.total_g = sum(m.mass.value for m in massed if m.mass)
    elif wish.total_g is None and massed:
        wish.total_g = massed[0].mass.value  # type: ignore[union-attr]
    low, high = _range_of(wish)
    bare.sort(key=lambda f: -f.value)
    n = wish.pieces or round((wish.per_guest or 0) * (wish.guests or 0))
    for figure in bare:
        fits_piece = low <= figure.value <= high
        if (
            wish.each_g is None
            and wish.head_g is None
            and fits_piece
            and (wish.total_g is not None or (n >= 2 and figure.value / n < low))
        ):
            wish.each_g = figure.value
            wish.assumed.append(say("{m} taken as the weight of each piece", m=ph.mass(figure.value)))
        elif wish.total_g is None:
            wish.total_g = figure.value
        elif figure.value != wish.total_g:
            first = next((f for f in bare if f is not figure), figure)
            wish.asks.append(
                Ask(
                    say("Two weights. Which is the whole?"),
                    (
                        Choice(say("{m} in all", m=ph.mass(wish.total_g)), left_out(reading, [figure.piece])),
                        Choice(say("{m} in all", m=ph.mass(figure.value)), left_out(reading, [first.piece])),
                    ),
                )
            )
    if wish.head_g is not None and wish.total_g is None:
        guests = wish.guests or (wish.pieces or 0)
        if guests:
            wish.total_g = wish.head_g * guests
        elif wish.each_g is None:
            wish.each_g = wish.head_g


def _hold_together(reading: LineReading, wish: Wish) -> None:
    """Whole, pieces and weight of each, when all three are said, must agree."""
    total, each, n = wish.total_g, wish.each_g, wish.pieces
    if total is None or each is None or n is None or wish.asks:
        return
    mixed = wish.style not in ("", "burger") and style_of(wish.style).dish != "burger"
    most = total * (MOST_MIXED if mixed else 1 + APART)
    if total * (1 - APART) - each < n * each <= most:
        return
    said = reading.said
    eachs = said.eachs or [f for f in said.masses if f.value == each]
    where = eachs[0].piece
    count_piece = next((w.piece for w in said.pieces if w.count is not None), where)
    totals = said.totals or [m.mass for m in said.meats if m.mass] or [f for f in said.masses if f.value == total]
    fits = max(1, int(total / each + 1e-9))
    noun = next(
        (w for w in ("burgers", "meatballs", "loaves", "patties", "pieces") if w in reading.text.lower()), "pieces"
    )
    same = where == count_piece
    choices = [
        Choice(
            say("{n} of {m} each, from {t}", n=ph.count(n), m=ph.mass(total / n), t=ph.mass(total)),
            respelt(reading, where, f"{n} {noun} of {total / n:.4g} g" if same else f"{total / n:.4g} g each"),
        ),
        Choice(
            say("{n} of {m} each, from {t}", n=ph.count(fits), m=ph.mass(each), t=ph.mass(total)),
            respelt(reading, count_piece, f"{fits} {noun} of {each:.4g} g" if same else f"{fits} {noun}"),
        ),
    ]
    if len(totals) == 1:
        name = next((m.word for m in said.meats if m.mass is totals[0]), "")
        # "12 burgers 1 kg" holds the count as well.
        more = f"{n} {noun} from {n * each:.5g} g" if totals[0].piece == count_piece else f"from {n * each:.5g} g"
        choices.append(
            Choice(
                say("{n} of {m} each, from {t}", n=ph.count(n), m=ph.mass(each), t=ph.mass(n * each)),
                respelt(reading, totals[0].piece, f"{n * each:.5g} g of {name}" if name else more),
            )
        )
    wish.asks.append(
        Ask(
            say(
                "{n} of {m} are {whole}, and {t} is said. Which holds?",
                n=ph.count(n),
                m=ph.mass(each),
                whole=ph.mass(n * each),
                t=ph.mass(total),
            ),
            tuple(choices),
        )
    )


# --- the style --------------------------------------------------------------------------------------------------------


def style_for(wish: Wish, *, surface: str | None, thickness_mm: float | None = None) -> Style:
    """The style a cook would reach for, given the dish, the meat for each and the fire.

    Parameters
    ----------
    wish : Wish
        What is to be made.
    surface : str | None
        Kind of surface said, if any.
    thickness_mm : float | None, default None
        Thickness said, mm; None for none.

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
        return style_of("grilled" if thickness_mm > 10 else "smashed")
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
    return style_of("smashed")
