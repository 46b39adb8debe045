"""Every rule of counsel as a document, made from the rules themselves."""

from __future__ import annotations

from vianda.core.counsel.rule import Severity
from vianda.core.counsel.rules import ALL_RULES

_MEANS: dict[Severity, str] = {
    "limit": "a rule or a floor is crossed",
    "check": "worth a decision",
    "note": "worth knowing",
}
_TITLES = {"meat": "2 Meat", "mix": "3 Mix", "shape": "4 Shape", "heat": "5 Heat"}


def counsel_document() -> str:
    """The rules as Markdown, by step, in the order in which they are read out.

    Returns
    -------
    str
        The text.

    Examples
    --------
    >>> "mix.soup" in counsel_document()
    True
    """
    lines = [
        "# Counsel",
        "",
        "Every rule, generated from the code (`scripts/generate`). A rule is a threshold, a reason and, where one",
        "change settles it, that change; each is tested on both sides of its threshold.",
        "",
        *(f"- **{name}**: {meaning}." for name, meaning in _MEANS.items()),
    ]
    for step, title in _TITLES.items():
        lines += ["", f"## {title}", "", "| rule | kind | speaks when | source |", "|---|---|---|---|"]
        lines += [f"| {r.id} | {r.severity} | {r.threshold} | {r.source} |" for r in ALL_RULES if r.step == step]
    return "\n".join(lines) + "\n"
