"""Chances of causes from symptoms: a noisy-or network, worked out exactly.

Each cause is there or not, independently; each that is there makes a symptom with its own chance, and something that is
not in the list makes it now and then.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

# What is not in the list makes a symptom so often. Ours.
LEAK = 0.03
# More symptoms at once say nothing more, and cost twice as much each.
MOST_SYMPTOMS = 5


@dataclass(frozen=True, slots=True)
class Node:
    """A cause in the network: its chance before symptoms, 0–1, and how often it makes each symptom."""

    key: str
    chance: float
    makes: Mapping[str, float]


def posteriors(nodes: Sequence[Node], present: Sequence[str], absent: Sequence[str] = ()) -> dict[str, float]:
    """The chance of each cause given symptoms that are there and others that are not.

    Parameters
    ----------
    nodes : Sequence[Node]
        The causes, each with a chance below 1.
    present : Sequence[str]
        Symptoms that are there, at most 5.
    absent : Sequence[str], default ()
        Symptoms that were looked for and are not there.

    Returns
    -------
    dict[str, float]
        By key, 0–1.

    References
    ----------
    Noisy-or with a leak: Pearl, Probabilistic Reasoning in Intelligent Systems (1988), 4.3; summed over the subsets of
    the symptoms that are there: Heckerman's quickscore (1989); both from memory, checked against enumeration.

    Examples
    --------
    One cause that always makes the symptom, as often there as not, against a leak of 3 %:

    >>> round(posteriors([Node("cool", 0.5, {"no-crust": 1.0})], ["no-crust"])["cool"], 3)
    0.971
    """
    if len(present) > MOST_SYMPTOMS:
        raise ValueError(f"At most {MOST_SYMPTOMS} symptoms at once.")
    whole: list[float] = []
    there: list[list[float]] = [[] for _ in nodes]
    for size in range(len(present) + 1):
        for some in itertools.combinations(present, size):
            off = (*absent, *some)
            quiet = [math.prod(1.0 - node.makes.get(s, 0.0) for s in off) for node in nodes]
            # Of each cause: there and silent on all of these, or not there.
            factors = [n.chance * q + 1.0 - n.chance for n, q in zip(nodes, quiet, strict=True)]
            product = (-1.0) ** size * (1.0 - LEAK) ** len(off) * math.prod(factors)
            whole.append(product)
            for n, node in enumerate(nodes):
                there[n].append(product / factors[n] * node.chance * quiet[n])
    total = max(math.fsum(whole), 1e-300)
    return {node.key: min(1.0, max(0.0, math.fsum(there[n]) / total)) for n, node in enumerate(nodes)}


def moved(chance: float, log_ratio: float) -> float:
    """A chance moved by the logarithm of a likelihood ratio.

    Parameters
    ----------
    chance : float
        Before, 0–1, neither end.
    log_ratio : float
        Natural logarithm; above 0 speaks for it, −20 to 20 (about 1).

    Returns
    -------
    float
        After, 0–1.

    Examples
    --------
    >>> round(moved(0.2, math.log(4.0)), 3)
    0.5
    """
    odds = math.log(chance / (1.0 - chance)) + log_ratio
    return 1.0 / (1.0 + math.exp(-max(-20.0, min(20.0, odds))))


def uncertainty_bits(chances: Mapping[str, float]) -> float:
    """How much is not known of all causes together, bits: the sum of their own entropies.

    Parameters
    ----------
    chances : Mapping[str, float]
        Of each cause, 0–1.

    Returns
    -------
    float
        0 where everything is known.

    Examples
    --------
    >>> uncertainty_bits({"a": 0.5, "b": 1.0})
    1.0
    """
    return math.fsum(-p * math.log2(p) for c in chances.values() for p in (c, 1.0 - c) if 0.0 < p < 1.0)
