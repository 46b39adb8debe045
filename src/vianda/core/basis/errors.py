"""What the core says when it cannot answer: one exception family with a code, a title and a field."""

from __future__ import annotations


class CoreError(ValueError):
    """A request the core refuses, with a reason a cook can act on.

    Parameters
    ----------
    detail : str
        One sentence for people: what is wrong, with the figure, and what would be accepted.
    field : str
        JSON pointer to the offending place in the formula document, or "" when there is none.

    Examples
    --------
    >>> OutOfRangeError("0 g is not a piece", field="/shape/piece_mass_g").code
    'out-of-range'
    """

    code = "refused"
    title = "This cannot be worked out"

    def __init__(self, detail: str, *, field: str = "") -> None:
        super().__init__(detail)
        self.detail = detail
        self.field = field


class OutOfRangeError(CoreError):
    """A value outside the range in which the rules hold."""

    code = "out-of-range"
    title = "That value is out of range"


class UnreadableEntryError(CoreError):
    """Typed text that is not a quantity of the kind asked for."""

    code = "unreadable-entry"
    title = "That entry was not understood"


class UnknownItemError(CoreError):
    """A meat, style, bun or surface that the larder or the kitchen does not hold."""

    code = "unknown-item"
    title = "That item is not known here"


class InfeasibleBlendError(CoreError):
    """Shares that cannot be made to add up to the whole batch."""

    code = "infeasible-blend"
    title = "The blend cannot be made to add up"
