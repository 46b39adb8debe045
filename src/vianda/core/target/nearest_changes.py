"""When no blend meets a wish: the smallest single change that would let one, in words with figures."""

from __future__ import annotations

import numpy as np

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Phrase, say
from vianda.core.inventory.fat_range import Curve
from vianda.core.target.program import Program, Row

MOST_CHANGES = 3
# How much a point of each weighs when the changes are ranked: a point of fat is felt more than a point of share.
WEIGHT = {"fat-most": 4.0, "fat-least": 4.0, "collagen-most": 4.0}


def nearest_changes(program: Program, *, batch_mass_g: int) -> tuple[Phrase, ...]:
    """Changes each of which alone would make the wish possible, the smallest first; else what must give together.

    For every row the least slack s with Σ cᵢ xᵢ ≤ most + s is found by linear programming with all other rows held.

    Parameters
    ----------
    program : Program
        The wish as numbers.
    batch_mass_g : int
        Mass of the batch, g, above 0.

    Returns
    -------
    tuple[Phrase, ...]
        Each: a sentence with ``{name}`` places and the amounts which fill them.

    Notes
    -----
    Smallest shares, the number of meats and whole scale steps are left out; when only those stand in the way, that
    is what is said.
    """
    if _least_slack(program, None) is not None:
        return (
            say(
                "The limits leave room, but not for at most {n} meats of at least {least} each: allow more meats or a "
                "smaller share",
                n=ph.count(program.wish.most_meats),
                least=ph.frac(program.wish.least_share_frac),
            )
            if program.wish.confidence_frac == 0.0
            else say(
                "The usual fat fits, but not for {sure} of batches: test the most doubtful meat, widen the band, or "
                "ask for less certainty",
                sure=ph.frac(program.wish.confidence_frac),
            ),
        )
    single = []
    for at, row in enumerate(program.rows):
        slack = _least_slack(program, at)
        if slack is not None and slack > 1e-9:
            single.append((slack * WEIGHT.get(row.name, 1.0), _said(row, slack, batch_mass_g)))
    if single:
        single.sort(key=lambda s: s[0])
        return tuple(text for _, text in single[:MOST_CHANGES])
    together = _all_slacks(program)
    return tuple(
        _said(row, float(slack), batch_mass_g)
        for row, slack in zip(program.rows, together, strict=True)
        if slack > 1e-6
    )


def _parts(program: Program) -> tuple[Curve, Curve]:
    return np.array([row.coefficients for row in program.rows]), np.array([row.most for row in program.rows])


def _least_slack(program: Program, loose: int | None) -> float | None:
    """Least slack of one row with the others held (0 when none is loose and a blend exists), or None."""
    # Imported here: it takes a second, and most evaluations never solve anything.
    from scipy.optimize import linprog

    matrix, limits = _parts(program)
    extra = np.zeros((len(limits), 1))
    if loose is not None:
        extra[loose, 0] = -1.0
    cost = np.zeros(program.size + 1)
    cost[-1] = 1.0
    done = linprog(
        cost,
        A_ub=np.hstack((matrix, extra)),
        b_ub=limits + 1e-9,
        A_eq=np.concatenate((np.ones(program.size), [0.0]))[None, :],
        b_eq=[1.0],
        bounds=[(0.0, 1.0)] * program.size + [(0.0, None if loose is not None else 0.0)],
    )
    return None if done.x is None else float(done.x[-1])


def _all_slacks(program: Program) -> Curve:
    from scipy.optimize import linprog

    matrix, limits = _parts(program)
    rows = len(limits)
    weights = np.array([WEIGHT.get(row.name, 1.0) for row in program.rows])
    done = linprog(
        np.concatenate((np.zeros(program.size), weights)),
        A_ub=np.hstack((matrix, -np.eye(rows))),
        b_ub=limits,
        A_eq=np.concatenate((np.ones(program.size), np.zeros(rows)))[None, :],
        b_eq=[1.0],
        bounds=[(0.0, 1.0)] * program.size + [(0.0, None)] * rows,
    )
    return np.zeros(rows) if done.x is None else np.asarray(done.x[program.size :], dtype=np.float64)


def _said(row: Row, slack: float, batch_mass_g: int) -> Phrase:
    more, name = ph.fine_frac(slack), ph.word(row.about)
    match row.name:
        case "fat-most":
            return say("Let the fat go up to {to}, {more} more", to=ph.fine_frac(row.most + slack), more=more)
        case "fat-least":
            return say("Let the fat go down to {to}, {more} less", to=ph.fine_frac(-row.most - slack), more=more)
        case "share-most":
            return say("Let {name} go up to {to}", name=name, to=ph.fine_frac(row.most + slack))
        case "share-least":
            return say("Let {name} go down to {to}", name=name, to=ph.fine_frac(-row.most - slack))
        case "species-most":
            return say("Let {name} go up to {to} of the blend", name=name, to=ph.fine_frac(row.most + slack))
        case "species-least":
            return say("Let {name} go down to {to} of the blend", name=name, to=ph.fine_frac(-row.most - slack))
        case "stock":
            return say("Find {grams} more of {name}, trimmed", grams=ph.mass(slack * batch_mass_g), name=name)
        case _:
            return say("Allow more connective tissue: a fifth of the protein, say, or leave out the sinewy cuts")
