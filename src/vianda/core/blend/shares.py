"""Shares of a blend that always sum to the whole: set one, move an edge, add, remove."""

from __future__ import annotations

import math
from dataclasses import replace

from vianda.core.basis.errors import InfeasibleBlendError, OutOfRangeError
from vianda.core.model.formula import MOST_MEATS, BlendPart

Parts = tuple[BlendPart, ...]

NEW_MEAT_SHARE = 0.20


def index_of(parts: Parts, meat: str) -> int:
    """Where a meat stands in the blend, or ``InfeasibleBlendError``.

    Parameters
    ----------
    parts : Parts
        Meats with their shares.
    meat : str
        Key of the meat.

    Returns
    -------
    int
        Where a meat stands in the blend, or ``InfeasibleBlendError``.

    Raises
    ------
    InfeasibleBlendError
        “…” is not in this blend.
    """
    for at, part in enumerate(parts):
        if part.meat == meat:
            return at
    raise InfeasibleBlendError(f"“{meat[:60]}” is not in this blend.", field="/parts")


def _tidy(parts: Parts) -> Parts:
    """Let the largest unlocked share take up float dust, so that the sum is 1 to the last bit we can give."""
    free = [i for i, p in enumerate(parts) if not p.locked] or list(range(len(parts)))
    at = max(free, key=lambda i: parts[i].share_frac)
    rest = math.fsum(p.share_frac for i, p in enumerate(parts) if i != at)
    return tuple(replace(p, share_frac=min(1.0, max(0.0, 1.0 - rest))) if i == at else p for i, p in enumerate(parts))


def set_share(parts: Parts, *, meat: str, share_frac: float) -> Parts:
    """Set one share; the other unlocked shares keep their proportions and fill the rest.

    Parameters
    ----------
    parts : Parts
        Meats with their shares.
    meat : str
        Key of the meat.
    share_frac : float
        Share, 0–1.

    Returns
    -------
    Parts
        Set one share.

    Raises
    ------
    InfeasibleBlendError
        When the locked shares leave less room than asked, or nothing else can move.
    OutOfRangeError
        … % is not a share; it lies between 0 and 100 %.

    References
    ----------
    Arithmetic.

    Examples
    --------
    >>> blend = (BlendPart("a", 0.5), BlendPart("b", 0.3), BlendPart("c", 0.2))
    >>> [round(p.share_frac, 3) for p in set_share(blend, meat="a", share_frac=0.75)]
    [0.75, 0.15, 0.1]
    """
    at = index_of(parts, meat)
    field = f"/parts/{at}/share_frac"
    if not (math.isfinite(share_frac) and 0.0 <= share_frac <= 1.0):
        raise OutOfRangeError(f"{share_frac * 100:.4g} % is not a share; it lies between 0 and 100 %.", field=field)
    held = math.fsum(p.share_frac for i, p in enumerate(parts) if i != at and p.locked)
    free = [i for i, p in enumerate(parts) if i != at and not p.locked]
    room = 1.0 - held
    if share_frac > room + 1e-9:
        raise InfeasibleBlendError(
            f"Locked meats hold {held * 100:.4g} %; at most {room * 100:.4g} % is left for this one.", field=field
        )
    rest = max(0.0, room - share_frac)
    if not free:
        if abs(rest) > 1e-9:
            raise InfeasibleBlendError(
                "No other meat is free to take up the change: unlock one or add one.", field=field
            )
        return parts
    before = math.fsum(parts[i].share_frac for i in free)
    moved = list(parts)
    moved[at] = replace(parts[at], share_frac=share_frac)
    for i in free:
        portion = parts[i].share_frac / before if before > 0 else 1.0 / len(free)
        moved[i] = replace(parts[i], share_frac=rest * portion)
    dust = max(free, key=lambda i: moved[i].share_frac)
    others = math.fsum(p.share_frac for i, p in enumerate(moved) if i != dust)
    moved[dust] = replace(moved[dust], share_frac=max(0.0, 1.0 - others))
    return tuple(moved)


def move_edge(parts: Parts, *, index: int, at_frac: float) -> Parts:
    """Move the edge between two neighbours; only these two change.

    ``at_frac`` is the wanted place of the edge, measured from the left end of the whole blend (0–1); it stops
    at the neighbours' outer edges.

    Parameters
    ----------
    parts : Parts
        Meats with their shares.
    index : int
        Place in the blend, from 0 (count).
    at_frac : float
        Place of the edge in the whole width, 0–1.

    Returns
    -------
    Parts
        Move the edge between two neighbours.

    Raises
    ------
    OutOfRangeError
        There is no edge … in a blend of … meats.
    InfeasibleBlendError
        A locked meat stands at that edge: unlock it first.

    Examples
    --------
    >>> blend = (BlendPart("a", 0.5), BlendPart("b", 0.3), BlendPart("c", 0.2))
    >>> [round(p.share_frac, 3) for p in move_edge(blend, index=0, at_frac=0.6)]
    [0.6, 0.2, 0.2]
    """
    if not 0 <= index < len(parts) - 1:
        raise OutOfRangeError(f"There is no edge {index} in a blend of {len(parts)} meats.", field="/parts")
    if not math.isfinite(at_frac):
        raise OutOfRangeError("An edge needs a place to go to.", field="/parts")
    left, right = parts[index], parts[index + 1]
    if left.locked or right.locked:
        raise InfeasibleBlendError("A locked meat stands at that edge: unlock it first.", field="/parts")
    start = math.fsum(p.share_frac for p in parts[:index])
    both = left.share_frac + right.share_frac
    # Whole per cents of the batch: what a hand can mean; the table takes finer ones.
    wanted = round(min(max(at_frac, start), start + both) - start, 2)
    share = min(both, max(0.0, wanted))
    moved = list(parts)
    moved[index] = replace(left, share_frac=share)
    moved[index + 1] = replace(right, share_frac=both - share)
    return tuple(moved)


def add_meat(parts: Parts, *, meat: str) -> Parts:
    """A meat joins with a fifth of the blend, or with what locked meats leave.

    Parameters
    ----------
    parts : Parts
        Meats with their shares.
    meat : str
        Key of the meat.

    Returns
    -------
    Parts
        A meat joins with a fifth of the blend, or with what locked meats leave.

    Raises
    ------
    InfeasibleBlendError
        A blend has at most … meats.
    """
    if len(parts) >= MOST_MEATS:
        raise InfeasibleBlendError(f"A blend has at most {MOST_MEATS} meats.", field="/parts")
    if any(p.meat == meat for p in parts):
        raise InfeasibleBlendError("That meat is in the blend already.", field="/parts")
    if not parts:
        return (BlendPart(meat, 1.0),)
    held = math.fsum(p.share_frac for p in parts if p.locked)
    free = [p for p in parts if not p.locked]
    share = min(NEW_MEAT_SHARE, 1.0 - held) if free else 1.0 - held
    return set_share((*parts, BlendPart(meat, 0.0)), meat=meat, share_frac=max(0.0, share))


def remove_meat(parts: Parts, *, meat: str) -> Parts:
    """A meat leaves; the unlocked others take its share in their proportions.

    Parameters
    ----------
    parts : Parts
        Meats with their shares.
    meat : str
        Key of the meat.

    Returns
    -------
    Parts
        A meat leaves.

    Raises
    ------
    InfeasibleBlendError
        When it is the only meat, or all others are locked.
    """
    at = index_of(parts, meat)
    if len(parts) == 1:
        raise InfeasibleBlendError("A blend needs at least one meat: swap it for another instead.", field="/parts")
    unlocked = replace(parts[at], locked=False)
    emptied = set_share((*parts[:at], unlocked, *parts[at + 1 :]), meat=meat, share_frac=0.0)
    return _tidy(tuple(p for p in emptied if p.meat != meat))
