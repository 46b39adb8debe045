"""What the rules share: how a count, a mass or a meat is taken up, and the grammar they belong to."""

from __future__ import annotations

from vianda.core.basis import phrase as ph
from vianda.core.reading.atom import Atom
from vianda.core.reading.grammar import Grammar, Match
from vianda.core.reading.said import Figure, MeatSaid, PieceWord, Said

LINE: Grammar[Said] = Grammar()
# Fat of mince called lean, extra lean and fatty, by mass (ours, between the label rules).
LEAN_FAT, EXTRA_LEAN_FAT, RICH_FAT = 0.10, 0.05, 0.25

# Below so many parts of lean in a hundred a ratio beside two meats parts them (ours).
LEAST_LEAN = 65.0
MOSTLY, SOME = 0.75, 0.25


# A piece larger than this, said before its name ("500 g meatballs"), is all of them (ours), g.
HEAVIEST_EACH_G = {"meatball": 150.0, "burger": 400.0}


def mass_said(a: Atom) -> ph.Amount:
    """A mass for a label, as a range where one was said.

    Parameters
    ----------
    a : Atom
        A quantity.

    Returns
    -------
    ph.Amount
        The amount.
    """
    return ph.mass(a.low, a.high) if a.high > a.low else ph.mass(a.value)


def counted(s: Said, a: Atom) -> Figure:
    """A number of people or pieces: about fifteen are fifteen, ten to twelve are a range.

    Parameters
    ----------
    s : Said
        The line so far.
    a : Atom
        A quantity.

    Returns
    -------
    Figure
        The record.
    """
    if a.number is not None and a.number.about:
        return s.figure(a.value)
    return s.figure(a.value, a.low, a.high)


def dish_of(style: str) -> str:
    """The dish that bounds what one piece may weigh.

    Parameters
    ----------
    style : str
        Key of the style.

    Returns
    -------
    str
        "meatball" or "burger".
    """
    return "meatball" if style.startswith("ball") else "burger"


def is_whole(a: Atom) -> bool:
    """Whether a number counts whole things.

    Parameters
    ----------
    a : Atom
        A quantity.

    Returns
    -------
    bool
        Whether it does.
    """
    return a.number is not None and (a.number.whole or a.number.ranged) and a.value >= 0


def count_said(a: Atom) -> ph.Amount:
    """A count for a label, as a range where one was said.

    Parameters
    ----------
    a : Atom
        A quantity.

    Returns
    -------
    ph.Amount
        The amount.
    """
    if a.number is not None and a.number.ranged:
        return ph.number(a.low, a.high)
    return ph.count(round(a.value))


def take_pieces(m: Match, s: Said, *, each: bool = False, count: Atom | None = None) -> str:
    """Take up the word for pieces with its count, multiple and styles.

    Parameters
    ----------
    m : Match
        What a pattern took.
    s : Said
        The line so far.
    each : bool, default False
        Whether the count is for each guest.
    count : Atom | None, default None
        The number said, if any.

    Returns
    -------
    str
        The word said.
    """
    word, multiple = m.one("PIECE"), m.one("MULTIPLE")
    sense = word.sense("PIECE") if word else None
    times = round(multiple.sense("MULTIPLE").value) if multiple else 1  # type: ignore[union-attr]
    figure = counted(s, count) if count is not None else None
    style = sense.key if sense else ("burger" if multiple else "")
    s.pieces.append(PieceWord(style, s.at, figure, each, times, word=word.text if word else ""))
    for a in m.all("STYLE"):
        s.styles.append((a.sense("STYLE").key, s.at))  # type: ignore[union-attr]
    for a in m.all("SIZE"):
        s.sizes.append((a.sense("SIZE").key, s.at))  # type: ignore[union-attr]
    for a in m.all("RESULT"):
        s.results.append(a.text)
    return word.text if word else (multiple.text if multiple else "pieces")


def take_meats(m: Match, s: Said) -> None:
    """Take up the meats a pattern took, without amounts.

    Parameters
    ----------
    m : Match
        What a pattern took.
    s : Said
        The line so far.
    """
    for a in m.all("MEATP"):
        s.meats.append(meat_said(a, s))


def meat_said(a: Atom, s: Said) -> MeatSaid:
    """A meat phrase as a record, without amount.

    Parameters
    ----------
    a : Atom
        A ``MEATP`` atom.
    s : Said
        The line so far.

    Returns
    -------
    MeatSaid
        The record.
    """
    meat, generic = a.sense("MEAT"), a.sense("ANY")
    fat = a.sense("FATSAID")
    return MeatSaid(
        s.at,
        key=meat.key if meat else "",
        any="" if meat else (generic.key if generic else "beef"),
        fat=fat.value if fat else None,
        word=a.text,
    )


def meat_name(a: Atom, s: Said) -> str:
    """What a meat phrase is called here.

    Parameters
    ----------
    a : Atom
        A ``MEATP`` atom.
    s : Said
        The line so far.

    Returns
    -------
    str
        The name.
    """
    meat, fat = a.sense("MEAT"), a.sense("FATSAID")
    name = s.inventory.meat(meat.key).name.lower() if meat else "mince"
    return f"{name}, {fat.value * 100:.3g} % fat" if fat else name


def length_said(a: Atom) -> ph.Amount:
    """A length for a label, as a range where one was said.

    Parameters
    ----------
    a : Atom
        A quantity.

    Returns
    -------
    ph.Amount
        The amount.
    """
    return ph.length(a.low, a.high) if a.high > a.low else ph.length(a.value)
