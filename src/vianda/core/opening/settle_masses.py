"""The weights that a line said, settled: which is the whole, which a piece, and what cannot hold together."""

from __future__ import annotations

import math

from vianda.core.basis import phrase as ph
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.phrase import say
from vianda.core.model.styles import style_of
from vianda.core.opening.wish import APART, Wish, left_out, respelt
from vianda.core.reading.line import LineReading
from vianda.core.reading.piece import Ask, Choice
from vianda.core.reading.said import Figure, MeatSaid

# So much more than the meat a mixed piece may weigh: crumbs, egg, onion and liquid (common practice, the widest mix).
MOST_MIXED = 2.2
LIGHTEST, HEAVIEST = 0.5, 2.0
# A weight that stands alone beside burgers or balls. Up to ``each`` it is the weight of one where no count is said,
# from ``whole`` on the weight of all; between them it is asked. With a count, it is the whole if a piece then has
# ``least``, unless it may as well be one piece (up to ``either``): then it is asked. g, ours.
LONE_G = {
    "burger": {"each": 250.0, "whole": 450.0, "least": 70.0, "either": 300.0},
    "meatball": {"each": 80.0, "whole": 150.0, "least": 12.0, "either": 0.0},
}
# Of smaller kinds a piece may be so light, g.
LEAST_OF_STYLE_G = {"slider": 30.0, "smashed": 50.0}
# A piece lighter than this fraction of what its style takes is none of that style (ours).
LIGHT = 0.6
# No ball and no helping of sauce weighs more; said of each, it is each person's (ours), g.
MOST_EACH_G = {"meatball": 120.0, "sauce": 0.0}
# Nobody eats a meat sauce of less meat than this, g a person (ours).
LEAST_SAUCE_MEAT_G = 60.0
# A burger or a ball heavier than this is asked about, unless the line says "each": no style goes beyond it, g.
HEAVIEST_BURGER_G = 340.0
HEAVIEST_G = {"burger": HEAVIEST_BURGER_G, "meatball": 150.0}


def _range_of(wish: Wish) -> tuple[float, float]:
    style = style_of(wish.style) if wish.style not in ("", "burger") else None
    low, high = style.piece_mass_g if style else (35.0, 340.0)
    return low * LIGHTEST, high * HEAVIEST


def _dish(wish: Wish) -> str:
    return "burger" if wish.style in ("", "burger") else style_of(wish.style).dish


def settle_masses(reading: LineReading, wish: Wish) -> None:
    """Which weight is the whole, which a piece, which a person's; writes them into the wish.

    Parameters
    ----------
    reading : LineReading
        The line as it was read.
    wish : Wish
        What is to be made; its masses and questions are added to.

    Raises
    ------
    OutOfRangeError
        A weight of nothing.
    """
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
    if wish.each_g is not None and wish.guests and wish.each_g > MOST_EACH_G.get(_dish(wish), math.inf):
        # "meatballs for six, 150 g meat each": a person's, no ball is so heavy.
        wish.head_g, wish.each_g = wish.each_g, None
        wish.assumed.append(say("{m} taken as the meat for each person", m=ph.mass(wish.head_g)))
    # One mass on a meat and none on the others is the mass of all: "600 g chuck and pork".
    others = [m for m in said.meats if m.mass is None and m.share is None and m.part is None]
    if wish.total_g is None and massed and (len(massed) == len(said.meats) or not others or len(massed) > 1):
        wish.total_g = sum(m.mass.value for m in massed if m.mass)
    elif wish.total_g is None and massed:
        wish.total_g = massed[0].mass.value  # type: ignore[union-attr]
    _bare_masses(reading, wish)
    _ranges([*said.totals, *said.masses, *(m.mass for m in massed if m.mass)], wish)
    if wish.head_g is not None and wish.total_g is None:
        guests = wish.guests or (wish.pieces or 0)
        if guests:
            wish.total_g = wish.head_g * guests
        elif wish.each_g is None:
            wish.each_g = wish.head_g
    _heavy_piece(reading, wish)
    _light_piece(reading, wish)


def _bare_masses(reading: LineReading, wish: Wish) -> None:
    """Weights without a word of what they weigh, the largest first."""
    bare = sorted(reading.said.masses, key=lambda f: -f.value)
    low, high = _range_of(wish)
    for figure in bare:
        if wish.total_g is None and wish.each_g is None and wish.head_g is None and len(bare) == 1:
            _lone_mass(reading, wish, figure)
            continue
        fits_piece = low <= figure.value <= high
        n = _count(wish)
        if (
            wish.each_g is None
            and wish.head_g is None
            and fits_piece
            and (wish.total_g is not None or (n >= 2 and figure.value / n < low))
        ):
            _as_each(wish, figure)
        elif wish.total_g is None:
            wish.total_g = figure.value
        elif figure.value != wish.total_g and (named := _of_a_meat(reading, wish.total_g)):
            _ask_rest(reading, figure, named)
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


def _of_a_meat(reading: LineReading, total_g: float) -> MeatSaid | None:
    """The only meat with a weight, when its weight was taken for the whole."""
    massed = [m for m in reading.said.meats if m.mass is not None]
    one = massed[0] if len(massed) == 1 else None
    return one if one is not None and one.mass is not None and one.mass.value == total_g else None


def _ask_rest(reading: LineReading, figure: Figure, named: MeatSaid) -> None:
    """``1 kg of meatballs with 300 g pork``: of it, or beside it?"""
    assert named.mass is not None
    whole, part = ph.mass(figure.value), ph.mass(named.mass.value)
    meat = ph.word(named.word)
    asks = reading.said.asks
    of_it = say("{whole} in all, {part} of it {meat}", whole=whole, part=part, meat=meat)
    beside = say("{whole} of beef mince and {part} of {meat}", whole=whole, part=part, meat=meat)
    word = next((w.word for w in reading.said.pieces if w.piece == figure.piece and w.word), "")
    mass = f"{figure.value:.5g} g"
    choices = [(beside, figure.piece, f"{word} {mass} beef mince".strip())]
    if figure.value > named.mass.value:
        choices.insert(0, (of_it, figure.piece, f"{word} {mass} in all".strip()))
    asks.append((say("{whole} and {part} of {meat}: one of the other?", whole=whole, part=part, meat=meat), choices))


def _count(wish: Wish) -> int:
    """Pieces, as far as the line counts them."""
    return wish.pieces or round((wish.per_guest or 0) * (wish.guests or 0))


def _as_each(wish: Wish, figure: Figure) -> None:
    wish.each_g = figure.value
    wish.assumed.append(say("{m} taken as the weight of each piece", m=ph.mass(figure.value)))


def _lone_mass(reading: LineReading, wish: Wish, figure: Figure) -> None:
    """The only weight of a line: of all of it, or of a piece, as its size tells; between the two it is asked."""
    dish, m, n, guests = _dish(wish), figure.value, _count(wish), wish.guests or 0
    wish.total_g = m
    if dish == "sauce":
        if guests >= 2 and m / guests < LEAST_SAUCE_MEAT_G:
            wish.head_g, wish.total_g = m, None
            wish.assumed.append(say("{m} taken as the meat for each person", m=ph.mass(m)))
        return
    if dish == "meatloaf":
        low, high = _range_of(wish)
        if n >= 2 and low <= m <= high and m / n < low:
            wish.total_g = None
            _as_each(wish, figure)
        return
    lone = LONE_G[dish]
    least = LEAST_OF_STYLE_G.get(wish.style, lone["least"])
    most_each = {"slider": 80.0, "smashed": 130.0}.get(wish.style, lone["each"])
    if wish.style not in ("", "burger", *LEAST_OF_STYLE_G):
        low, high = style_of(wish.style).piece_mass_g
        least, most_each = max(least, LIGHT * low) if dish == "burger" else least, max(most_each, high)
    if not n and guests and dish == "burger":
        n = guests
    if n == 1 or (not n and guests == 1):
        return
    if not n:
        if not wish.dish_said:
            return
        if m <= most_each and (not guests or m / guests < LEAST_SAUCE_MEAT_G):
            wish.total_g = None
            _as_each(wish, figure)
        elif m < lone["whole"] and not guests:
            _ask_role(reading, wish, figure)
        return
    if m / n < least and m <= max(most_each, _range_of(wish)[1] / HEAVIEST):
        wish.total_g = None
        _as_each(wish, figure)
    elif (m / n < least and m <= lone["either"]) or (
        m / n >= least and m <= lone["either"] and wish.style not in LEAST_OF_STYLE_G
    ):
        _ask_role(reading, wish, figure)


def _ask_role(reading: LineReading, wish: Wish, figure: Figure) -> None:
    m = ph.mass(figure.value)
    wish.asks.append(
        Ask(
            say("{m}: each, or in all?", m=m),
            (
                Choice(say("{m} each", m=m), _with_mass(reading, figure, "each")),
                Choice(say("{m} in all", m=m), _with_mass(reading, figure, "in all")),
            ),
        )
    )


def _with_mass(reading: LineReading, figure: Figure, role: str) -> str:
    """The line with the role of a weight said behind it, whatever else its piece says."""
    counted = next((w for w in reading.said.pieces if w.piece == figure.piece and w.count is not None), None)
    mass = f"{figure.value:.5g} g"
    if counted is None or counted.count is None:
        word = next((w.word for w in reading.said.pieces if w.piece == figure.piece and w.word), "")
        return respelt(reading, figure.piece, f"{word} {mass} {role}".strip() if word else f"{mass} {role}")
    name = counted.word or "pieces"
    n = f"{counted.count.value:g}"
    return respelt(reading, figure.piece, f"{n} {name}, {mass} {role}")


def _ranges(figures: list[Figure], wish: Wish) -> None:
    """A weight said as a range is planned for its middle, and that is said."""
    for figure in figures:
        if figure.high > figure.low and wish.total_g == figure.value:
            wish.assumed.append(
                say("{range} in all: planned for {m}", range=ph.mass(figure.low, figure.high), m=ph.mass(figure.value))
            )


def _heavy_piece(reading: LineReading, wish: Wish) -> None:
    """``12 burgers of 1 kg``: nobody forms such burgers, so the weight may be of all of them."""
    most = HEAVIEST_G.get(_dish(wish))
    if most is None or wish.each_g is None or wish.each_g <= most or wish.total_g is not None or wish.pieces == 1:
        return
    figure = next((f for f in reading.said.eachs if f.value == wish.each_g), None)
    if figure is None:
        return
    words = reading.pieces[reading.said.order.get(figure.piece, figure.piece)].text.lower().split()
    if "each" not in words and "apiece" not in words:
        _ask_role(reading, wish, figure)


def _light_piece(reading: LineReading, wish: Wish) -> None:
    """``8 burgers, 150 g beef``: so little for each that the weight may be of one of them."""
    if _dish(wish) != "burger" or wish.total_g is None or wish.each_g is not None or wish.asks or wish.head_g:
        return
    meat = next((m for m in reading.said.meats if m.mass is not None and m.mass.value == wish.total_g), None)
    n = _count(wish) or wish.guests or 0
    if meat is None or meat.mass is None or n < 2 or len([m for m in reading.said.meats if m.mass]) > 1:
        return
    if wish.total_g / n >= LEAST_OF_STYLE_G["slider"] or wish.total_g > HEAVIEST_BURGER_G:
        return
    m = ph.mass(meat.mass.value)
    mass = f"{meat.mass.value:.5g} g"
    wish.asks.append(
        Ask(
            say("{m}: each, or in all?", m=m),
            (
                Choice(say("{m} each", m=m), respelt(reading, meat.piece, f"{mass} of {meat.word} each")),
                Choice(
                    say("{all} in all", all=ph.mass(meat.mass.value * n)),
                    respelt(reading, meat.piece, f"{meat.mass.value * n:.5g} g of {meat.word}"),
                ),
            ),
        )
    )


def hold_together(reading: LineReading, wish: Wish) -> None:
    """Whole, pieces and weight of each, when all three are said, must agree; what does not is asked back.

    Parameters
    ----------
    reading : LineReading
        The line as it was read.
    wish : Wish
        What is to be made; its questions are added to.
    """
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
