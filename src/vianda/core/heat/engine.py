"""Who runs the simulations: here, one after another; elsewhere with a memory and several at once.

The rules only say what is to be computed. A process that serves many cooks hands in an engine of its own, which
remembers runs and shares them out; the answers are the same.
"""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterable
from typing import Any, Protocol, TypeVar, cast

from vianda.core.heat.conduction.run import Setup

Found = TypeVar("Found")
Key = tuple[Hashable, ...]


class Engine(Protocol):
    """Runs simulations and may remember them."""

    def recall(self, key: Key) -> Any | None:
        """What was kept under a key, or None.

        Parameters
        ----------
        key : Key
            What was asked, with all it was asked of.

        Returns
        -------
        Any | None
            What was kept under a key, or None.
        """
        ...

    def keep(self, key: Key, found: Any) -> None:
        """Keep an answer under a key, or do not.

        Parameters
        ----------
        key : Key
            What was asked, with all it was asked of.
        found : Any
            The answer to keep.
        """
        ...

    def each(self, run: Callable[[Setup], Found], setups: Iterable[Setup]) -> list[Found]:
        """The answer of each run, in the order of the setups.

        Parameters
        ----------
        run : Callable[[Setup], Found]
            A pure function of a setup.
        setups : Iterable[Setup]
            The setups to run.

        Returns
        -------
        list[Found]
            The answer of each run, in the order of the setups.
        """
        ...


class Direct:
    """An engine without memory that runs one after another."""

    def recall(self, key: Key) -> None:
        """Nothing is ever remembered.

        Parameters
        ----------
        key : Key
            What was asked, with all it was asked of.
        """

    def keep(self, key: Key, found: Any) -> None:
        """Nothing is kept.

        Parameters
        ----------
        key : Key
            What was asked, with all it was asked of.
        found : Any
            The answer to keep.
        """

    def each(self, run: Callable[[Setup], Found], setups: Iterable[Setup]) -> list[Found]:
        """One after another.

        Parameters
        ----------
        run : Callable[[Setup], Found]
            A pure function of a setup.
        setups : Iterable[Setup]
            The setups to run.

        Returns
        -------
        list[Found]
            One after another.
        """
        return [run(setup) for setup in setups]


DIRECT = Direct()


def once(engine: Engine, function: Callable[..., Found], *given: Hashable) -> Found:
    """A function's answer, from the engine's memory where it has it.

    Parameters
    ----------
    engine : Engine
        Who remembers.
    function : Callable[..., Found]
        A pure function.
    *given : Hashable
        What it is given.

    Returns
    -------
    object
        What the function returns.

    Examples
    --------
    >>> once(DIRECT, max, 1, 2)
    2
    """
    key = (function.__name__, *given)
    found = engine.recall(key)
    if found is None:
        found = function(*given)
        engine.keep(key, found)
    return cast(Found, found)
