"""Lines of the audit log in words: who changed what, by the name that the thing has now."""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from vianda.storage import audit_repository as repository
from vianda.storage.audit_repository import AuditLine, Thing

# By the operation or the event; {thing} is the name of what its address is of.
SAID: Mapping[str, str] = {
    "sign-in": "signed in",
    "sign-in-refused": "was refused at the door",
    "pin": "took a device up by PIN",
    "pin-refused": "had a wrong PIN",
    "first-owner": "made the first account",
    "invitation-accepted": "came in by an invitation",
    "added-by-hand": "was added at the machine",
    "reset-by-hand": "got a new password at the machine",
    "role-by-hand": "got another role at the machine",
    "removed-by-hand": "was removed at the machine",
    "audit-trimmed": "trimmed this log",
    "note_kitchen_check": "wrote a check down",
    "begin_cook": "began to cook {thing}",
    "note_event": "reported from the stove, {thing}",
    "save_outcome": "noted how {thing} came out",
    "add_photograph": "added a photograph to {thing}",
    "caption_photograph": "said what is on a photograph",
    "delete_photograph": "deleted a photograph",
    "receive": "took in or refused a delivery",
    "add_lot": "wrote the lot {thing} down",
    "save_lot": "changed the lot {thing}",
    "log_fat_test": "tested the fat of {thing}",
    "learn": "wrote down what is said of the fat of {thing}",
    "forget": "took a finding on {thing} back",
    "note_pot": "timed a pot",
    "open_run": "opened the day of {thing}",
    "note_run_event": "reported from {thing}",
    "set_tick": "ticked a line of a list",
    "begin_weighing": "began to weigh pieces of {thing}",
    "act": "weighed pieces of {thing}",
    "note_leftover": "weighed what was left of {thing}",
    "answer_tasting": "wrote down what tasters said",
    "answer_round": "answered the trainer",
    "begin_anew": "began the trainer anew",
    "open_kitchen": "opened a kitchen",
    "begin_shift": "began a shift at a device",
    "create_formula": "made {thing}",
    "import_formula": "took {thing} in from a file",
    "delete_formula": "archived {thing}",
    "save_formula": "changed {thing}",
    "copy_formula": "copied {thing}",
    "restore_formula": "brought {thing} back to the shelf",
    "set_up_tasting": "set up a tasting of {thing}",
    "keep_version": "kept a version of {thing}",
    "keep_recipe": "put {thing} on the shelf, from a pasted recipe",
    "save_kitchen": "changed the kitchen",
    "import_csv": "took a larder file in",
    "save_meat": "changed the meat {thing}",
    "set_observation_aside": "left an observation out, or counted it again",
    "use_factor": "put what was learnt to use",
    "use_fat": "chose which fat blends are reckoned with",
    "import_pantry_csv": "took a pantry file in",
    "save_ingredient": "changed {thing} in the pantry",
    "create_service": "wrote {thing} down",
    "import_service": "took {thing} in from a file",
    "delete_service": "deleted {thing}",
    "save_service": "changed {thing}",
    "keep_stocked": "wrote down what is kept of a thing",
    "look_at_archive": "looked into an archive",
    "set_up_kitchen": "set a kitchen up",
    "look_round": "opened the demo kitchen",
    "delete_kitchen": "deleted the demo kitchen",
    "bring_archive": "brought an archive in",
    "invite": "asked somebody in",
    "invite_again": "made a new link for {thing}",
    "change_role": "gave {thing} another role",
    "disable_person": "let {thing} in no more, or again",
    "remove_person": "deleted {thing}",
    "end_any_place": "ended a sign-in of somebody's",
}
# What stands for a thing that has no name any more; of one that was deleted nobody wonders.
NAMELESS: Mapping[str, str] = {
    "formulas": "a formula", "cooks": "a dish", "services": "a service", "weighings": "a formula", "people": "somebody",
}  # fmt: skip
GONE = " that is gone"
# Lines of an earlier version have the address that was asked for, which names nothing that was made new by it.
_ADDRESS = re.compile(r"^/api/(?:larder/)?(formulas|cooks|services|weighings|people|lots|meats|pantry)(?:/([^/]+))?")


@dataclass(frozen=True, slots=True)
class ToldLine:
    """A line of the log, and what was done in words."""

    line: AuditLine
    said: str


def told(lines: Iterable[AuditLine]) -> list[ToldLine]:
    """Lines in words; what is called otherwise since then is told by the name it has now."""
    lines = list(lines)
    things = [_thing(line) for line in lines]
    names = repository.names_of(things)
    return [
        ToldLine(line, _said(line.action, thing, names.get(thing, "")))
        for line, thing in zip(lines, things, strict=True)
    ]


def _thing(line: AuditLine) -> Thing:
    """What the address of a line is of."""
    match = _ADDRESS.match(line.about)
    return Thing(match[1], match[2] or "", line.kitchen_id) if match else Thing("", "", None)


def _said(action: str, thing: Thing, name: str) -> str:
    said = SAID.get(action, action.replace("_", " "))
    if not name and thing.kind not in NAMELESS:
        # What has lost its name is still known by its key.
        name = thing.key
    gone = thing.key.isdigit() and not said.startswith("deleted")
    nameless = NAMELESS.get(thing.kind, "something") + (GONE if gone else "")
    return said.replace("{thing}", f"“{name}”" if name else nameless)
