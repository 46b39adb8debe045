"""Into how many pieces, for how many: from the guests, the pieces and the weights that a line says."""

from __future__ import annotations

import math
from dataclasses import replace

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import say
from vianda.core.batch.batch import batch_of
from vianda.core.model.formula import DishChoice, Formula
from vianda.core.model.styles import Style
from vianda.core.opening.draft import PlanDraft
from vianda.core.opening.wish import APART

USUAL_MEAT_PER_GUEST_G = 170.0
PIECES_EACH = 3
MOST_EACH = 12
# The most that a formula holds over and above; beyond it each gets one more and some are left out.
MOST_SPARE = 1000
# A loaf may be so much larger than its style's largest before it is two (ours), as a fraction.
SAME_LOAF = 0.1


def guests_of(draft: PlanDraft, style: Style) -> int:
    """How many eat: as the line says, or as its pieces and weights give.

    Parameters
    ----------
    draft : PlanDraft
        The wish; what was assumed and could not be kept is noted there.
    style : Style
        Its style.

    Returns
    -------
    int
        At least one.
    """
    wish = draft.wish
    if wish.guests is not None:
        return wish.guests
    if wish.pieces is not None:
        if style.dish == "meatloaf":
            guests = wish.pieces * style.guests_per_piece_start
            if wish.each_g is not None:
                # A small loaf feeds as many as its weight does.
                guests = max(1, round(guests * wish.each_g / style.piece_mass_start_g))
        else:
            each = wish.per_guest or (PIECES_EACH if style.dish == "meatball" else wish.multiple)
            guests = max(1, math.ceil(wish.pieces / each))
        draft.assumed.append(
            say("{n} people", n=ph.count(guests))
            if style.dish == "meatloaf"
            else say("{each} each for {n} people", each=ph.number(round(wish.pieces / guests, 2)), n=ph.count(guests))
        )
        return guests
    if wish.total_g is not None and wish.each_g is not None and style.dish == "burger":
        pieces = max(1, int(wish.total_g / wish.each_g + 1e-9))
        guests = max(1, math.ceil(pieces / (wish.per_guest or wish.multiple)))
        draft.assumed.append(say("{n} people, one each", n=ph.count(guests)))
        return guests
    if wish.total_g is not None:
        each_g = wish.head_g or USUAL_MEAT_PER_GUEST_G
        guests = max(1, round(wish.total_g / each_g))
        draft.assumed.append(say("{n} people, at about {m} each", n=ph.count(guests), m=ph.mass(each_g)))
        return guests
    draft.assumed.append(say("{n} people", n=ph.count(4)))
    return 4


def divided(draft: PlanDraft, formula: Formula, style: Style, guests: int) -> Formula:
    """The formula with its meat divided as the line says: by the piece, by the weight of all, or both.

    Parameters
    ----------
    draft : PlanDraft
        The wish; what was assumed and could not be kept is noted there.
    formula : Formula
        The formula so far.
    style : Style
        Its style.
    guests : int
        How many eat.

    Returns
    -------
    Formula
        With its pieces and their weights.
    """
    wish, shape = draft.wish, formula.shape
    total, each, pieces = wish.total_g, wish.each_g, wish.pieces
    if pieces is None and wish.per_guest is not None and style.dish in ("burger", "meatball"):
        pieces = wish.per_guest * guests
    # Of what is mixed the weight said is the meat's: count and meat are kept, and the piece is what they make.
    all_said = style.dish in ("meatball", "meatloaf") and None not in (total, each, pieces)
    if all_said:
        shape = replace(shape, portioning="by_batch", batch_mass_g=total or 0.0)
    elif each is not None and total is not None and (pieces is None or int(total / each + 1e-9) == pieces):
        # The weight said is kept; what does not make another piece stays in the bowl.
        shape = replace(shape, portioning="by_weights", batch_mass_g=total, piece_mass_g=each, remainder="bowl")
    elif each is not None:
        shape = replace(shape, portioning="by_piece", piece_mass_g=each)
    elif total is not None:
        shape = replace(shape, portioning="by_batch", batch_mass_g=total)
    if style.dish == "meatloaf" and total is None and each is None and pieces is not None:
        # So many loaves for so many: each as large as its guests want, within its style.
        low, high = style.piece_mass_g
        wanted = guests / pieces * style.piece_mass_start_g / style.guests_per_piece_start
        shape = replace(shape, piece_mass_g=min(high, max(low, wanted)))
    changed = replace(formula, shape=shape)
    if pieces is None:
        pieces = _usual_pieces(draft, changed, style, guests)
    divided = replace(changed, dish=dish_for(draft, changed.dish, style, pieces, guests))
    if all_said and each is not None:
        made = batch_of(divided, inventory=draft.inventory, kitchen=draft.kitchen).portions.piece_mass_g
        if abs(made - each) > APART * each:
            draft.told.add("each")
            draft.remarks.append(
                say(
                    "{n} from {t} of meat and what is mixed in weigh {made} each, not {said}.",
                    n=ph.count(pieces),
                    t=ph.mass(total or 0.0),
                    made=ph.mass(made),
                    said=ph.mass(each),
                )
            )
    return divided


def _usual_pieces(draft: PlanDraft, formula: Formula, style: Style, guests: int) -> int:
    total = draft.wish.total_g
    if style.dish == "sauce":
        return guests
    if style.dish == "meatloaf":
        if total is None:
            return math.ceil(guests / style.guests_per_piece_start)
        mix = batch_of(formula, inventory=draft.inventory, kitchen=draft.kitchen).portions.batch_mass_g
        # As few loaves as the style's largest allows.
        return max(1, math.ceil(mix / style.piece_mass_g[1] - SAME_LOAF))
    if total is None:
        each = 1 if draft.wish.each_g is not None and style.dish == "burger" else style.pieces_per_guest_start
        return guests * each
    mass = total
    if style.dish == "meatball":
        mass = batch_of(formula, inventory=draft.inventory, kitchen=draft.kitchen).portions.batch_mass_g
    piece = draft.wish.each_g or style.piece_mass_start_g
    if draft.wish.each_g is not None:
        return max(1, int(mass / piece + 1e-9))
    return guests * max(1, min(MOST_EACH, round(mass / guests / piece)))


def dish_for(draft: PlanDraft, dish: DishChoice, style: Style, pieces: int, guests: int) -> DishChoice:
    """Exactly so many pieces, whoever eats them; who gets the odd ones is said.

    Parameters
    ----------
    draft : PlanDraft
        The wish; what was assumed and could not be kept is noted there.
    dish : DishChoice
        The dish so far.
    style : Style
        Its style.
    pieces : int
        How many pieces.
    guests : int
        How many eat.

    Returns
    -------
    DishChoice
        With so many pieces for each, or so many people for a piece.
    """
    if pieces >= guests:
        each, spare = divmod(pieces, guests)
        if spare > MOST_SPARE:
            each, spare = each + 1, spare - guests
        if spare > 0 and style.dish in ("burger", "meatball"):
            draft.remarks.append(
                say(
                    "{n} pieces for {g} people: {each} each, and {spare} over; one person gets one more."
                    if spare == 1
                    else "{n} pieces for {g} people: {each} each, and {spare} over; {spare} of them get one more.",
                    n=ph.count(pieces),
                    g=ph.count(guests),
                    each=ph.count(each),
                    spare=ph.count(spare),
                )
            )
        return replace(dish, pieces_per_guest=each, guests_per_piece=1, spare_pieces=spare)
    share = math.ceil(guests / pieces)
    spare = pieces - math.ceil(guests / share)
    if style.dish in ("burger", "meatball"):
        draft.remarks.append(
            say(
                "{n} pieces for {g} people: not one each. Cut them, or make {g}.",
                n=ph.count(pieces),
                g=ph.count(guests),
            )
        )
    return replace(dish, pieces_per_guest=1, guests_per_piece=share, spare_pieces=spare)
