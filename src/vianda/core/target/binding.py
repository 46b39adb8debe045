"""What binds an answer, with its shadow price in words; and at what price a cut would come in."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal

import numpy as np

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Phrase, say
from vianda.core.inventory.fat_range import Curve
from vianda.core.target.program import Program, Row
from vianda.core.target.solve import Answer
from vianda.core.target.wish import Wish

# A row is tight when less than this is left of it (shares, or fat as a fraction).
TIGHT = 2e-3
# Shadow prices below a tenth of a cent a kilogram are not worth a sentence.
LEAST_PRICE = 1e-3


@dataclass(frozen=True, slots=True)
class SwapPrice:
    """A cut that is left out, its price now and the price below which it would come in, a kilogram as bought."""

    meat: str
    name: str
    price_per_kg: Decimal
    enters_below_per_kg: Decimal


def binding_limits(program: Program, shares: Sequence[float], *, priced: bool) -> tuple[Phrase, ...]:
    """The limits an answer leans on; ``priced`` adds what one point of each would save, by linear programming.

    The shadow price is that of the program with this answer's meats, flowing shares.

    Parameters
    ----------
    program : Program
        The wish as numbers.
    shares : Sequence[float]
        Shares of the meats, 0–1, which sum to 1.
    priced : bool
        Whether money is the aim.

    Returns
    -------
    tuple[Phrase, ...]
        Each: a sentence with ``{name}`` places and the amounts which fill them.
    """
    at = np.array(shares)
    worth = _shadow_prices(program, at) if priced else None
    found = []
    for i, row in enumerate(program.rows):
        if row.most - float(row.coefficients @ at) > TIGHT:
            continue
        price = float(worth[i]) if worth is not None else 0.0
        found.append(_said(row, price))
    return tuple(found)


def _shadow_prices(program: Program, at: Curve) -> Curve | None:
    """Currency a kilogram of blend saved by one unit more room in each row."""
    # Imported here: it takes a second, and most evaluations never solve anything.
    from scipy.optimize import linprog

    inside = np.nonzero(at > 0)[0]
    matrix = np.array([row.coefficients[inside] for row in program.rows])
    limits = np.array([row.most for row in program.rows])
    fixed = np.minimum(program.wish.least_share_frac, at[inside])
    done = linprog(
        program.price_per_kg[inside],
        A_ub=matrix,
        b_ub=limits + 1e-9,
        A_eq=np.ones((1, len(inside))),
        b_eq=[1.0],
        bounds=[(low, 1.0) for low in fixed],
    )
    return None if done.x is None else -np.asarray(done.ineqlin.marginals)


def _said(row: Row, price: float) -> Phrase:
    name = ph.word(row.about)
    dear = ph.money(Decimal(repr(abs(price) / 100.0)))
    worth = price > LEAST_PRICE
    match row.name:
        case "fat-most":
            text = "It is as fat as you allow"
            text += ": one point leaner costs {dear} a kilo more" if worth else ""
            return say(text, dear=dear) if worth else say(text)
        case "fat-least":
            text = "It is as lean as you allow"
            text += ": one point fatter costs {dear} a kilo more" if worth else ""
            return say(text, dear=dear) if worth else say(text)
        case "share-most":
            text = "{name} is at its most" + (": one point more would save {dear} a kilo" if worth else "")
        case "share-least":
            text = "{name} is at its least" + (": one point less would save {dear} a kilo" if worth else "")
        case "stock":
            text = "All that is left of {name} is used" + (
                ": one point more of it would save {dear} a kilo" if worth else ""
            )
        case "species-most":
            text = "As much {name} as you allow" + (": one point more would save {dear} a kilo" if worth else "")
        case "species-least":
            text = "As little {name} as you allow" + (": one point less would save {dear} a kilo" if worth else "")
        case _:
            return (
                say("The limit of connective tissue is reached: a little more would save money")
                if worth
                else say("The limit of connective tissue is reached")
            )
    return say(text, name=name, dear=dear) if worth else say(text, name=name)


def price_of_certainty(sure: Answer, plain: Answer, *, wish: Wish) -> tuple[Phrase, ...]:
    """What it costs a kilogram to be sure, against the cheapest blend that meets the same limits without it.

    Parameters
    ----------
    sure : Answer
        The answer with the certainty wanted.
    plain : Answer
        The answer without the certainty.
    wish : Wish
        What is wanted of the blend.

    Returns
    -------
    tuple[Phrase, ...]
        Each: a sentence with ``{name}`` places and the amounts which fill them.
    """
    dear = sure.price_per_kg - plain.price_per_kg
    if dear <= LEAST_PRICE:
        return ()
    return (
        say(
            "Being sure in {sure} of batches costs {dear} a kilo more: without that, {fat} fat at {price} would do",
            sure=ph.frac(wish.confidence_frac),
            dear=ph.money(Decimal(repr(dear))),
            fat=ph.fine_frac(plain.fat_frac),
            price=ph.price(Decimal(repr(plain.price_per_kg))),
        ),
    )


def swap_prices(program: Program, *, usable: Curve, prices: Sequence[Decimal]) -> tuple[SwapPrice, ...]:
    """For each candidate the cheapest blend leaves out: the price, as bought, below which it would come in.

    Price in the bowl − reduced cost, brought back to the shop: × usable fraction. The cheapest ones to enter first.

    Parameters
    ----------
    program : Program
        The wish as numbers.
    usable : Curve
        What is left of a kilogram bought, 0–1, shape ``(n,)``.
    prices : Sequence[Decimal]
        Price of each candidate, currency units a kilogram.

    Returns
    -------
    tuple[SwapPrice, ...]
        Each: a cut that is left out, its price now and the price below which it would come in, a kilogram as bought.
    """
    from scipy.optimize import linprog

    matrix = np.array([row.coefficients for row in program.rows])
    limits = np.array([row.most for row in program.rows])
    done = linprog(
        program.price_per_kg,
        A_ub=matrix,
        b_ub=limits + 1e-9,
        A_eq=np.ones((1, program.size)),
        b_eq=[1.0],
        bounds=[(0.0, 1.0)] * program.size,
    )
    if done.x is None:
        return ()
    reduced = np.asarray(done.lower.marginals)
    found = []
    for i, meat in enumerate(program.meats):
        if done.x[i] > 1e-9 or reduced[i] <= 1e-9:
            continue
        enters = (program.price_per_kg[i] - reduced[i]) * usable[i]
        if enters > 0:
            found.append(SwapPrice(meat.key, meat.name, prices[i], Decimal(f"{enters:.4f}")))
    return tuple(sorted(found, key=lambda s: float(s.price_per_kg - s.enters_below_per_kg) / float(s.price_per_kg)))
