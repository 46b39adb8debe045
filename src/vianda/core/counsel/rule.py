"""What a rule of counsel is: an id, a threshold, a reason, and at most one change to offer."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

from vianda.core.basis.phrase import Phrase
from vianda.core.model.edit import Edit
from vianda.core.pipeline.figures import Figures

PRACTICE = "common practice, no published source"
Step = Literal["dish", "meat", "mix", "shape", "heat", "sauce", "time", "cook", "notes"]
Severity = Literal["limit", "check", "note"]


@dataclass(frozen=True, slots=True)
class Change:
    """A change counsel offers, in words and as the edit that makes it."""

    label: Phrase
    edit: Edit


@dataclass(frozen=True, slots=True)
class Remark:
    """What a rule found: the figure in a title, the reason in a sentence, and changes to offer."""

    title: Phrase
    reason: Phrase
    changes: tuple[Change, ...] = ()


@dataclass(frozen=True, slots=True)
class Counsel:
    """A remark with the rule that made it. ``severity``: limit (a rule or floor is crossed), asks, note."""

    rule: str
    step: Step
    severity: Severity
    title: Phrase
    reason: Phrase
    changes: tuple[Change, ...]
    source: str


@dataclass(frozen=True, slots=True)
class Rule:
    """A rule: when ``check`` returns a remark, it becomes counsel. ``threshold`` is for people to read."""

    id: str
    step: Step
    severity: Severity
    threshold: str
    source: str
    check: Callable[[Figures], Remark | None]

    def counsel(self, figures: Figures) -> Counsel | None:
        """Counsel on these figures, or nothing.

        Parameters
        ----------
        figures : Figures
            The results of all stages.

        Returns
        -------
        Counsel | None
            A remark with the rule that made it. None where there is none.
        """
        remark = self.check(figures)
        if remark is None:
            return None
        return Counsel(self.id, self.step, self.severity, remark.title, remark.reason, remark.changes, self.source)
