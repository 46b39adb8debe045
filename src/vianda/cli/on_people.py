"""Accounts from the kitchen's own machine: the first owner, a password that was forgotten, somebody who left."""

from __future__ import annotations

import argparse
import getpass
import sys
from datetime import datetime, timedelta
from typing import Any

from vianda.cli.answers import Code, CommandError, kitchen_open, say

ROLES = ("owner", "chef", "cook", "reader")


def add(commands: Any) -> None:
    """The commands of this file."""
    one = commands.add_parser(
        "user",
        help="list, add, reset, change or remove people who may sign in; read or trim the audit log",
        epilog="Example: vianda user add Ines --role owner    (the password is asked for, or comes by standard input)",
    )
    what = one.add_subparsers(dest="what", required=True, metavar="WHAT")
    what.add_parser("list", help="print everybody").set_defaults(run=_list)
    for name, told, run in (
        ("add", "add somebody; the password is asked for", _add),
        ("reset", "set a new password; they are signed out everywhere", _reset),
        ("role", "give somebody another role", _role),
        ("remove", "delete somebody; records keep that somebody did it, without the name", _remove),
    ):
        parser = what.add_parser(name, help=told)
        parser.add_argument("name")
        if name in ("add", "role"):
            parser.add_argument("--role", required=True, choices=ROLES)
        parser.set_defaults(run=run)
    audit = what.add_parser("audit", help="print the audit log, the newest first")
    audit.add_argument("--keep-days", type=int, metavar="N", help="forget what is older than N days instead")
    audit.set_defaults(run=_audit)


def _password() -> str:
    """Typed without an echo, or the first line of standard input: never an argument, which others on it can see."""
    if not sys.stdin.isatty():
        return sys.stdin.readline().rstrip("\n")
    first = getpass.getpass("Password: ")
    if getpass.getpass("Again: ") != first:
        raise CommandError(Code.REFUSED, "the two passwords differ.")
    return first


def _list(_: argparse.Namespace) -> None:
    from vianda.services import people

    with kitchen_open(None):
        say([_told(person) for person in people.list_people()])


def _told(person: Any) -> dict[str, Any]:
    return {"name": person.name, "role": person.role, "disabled": person.disabled, "pin": person.has_pin}


def _add(given: argparse.Namespace) -> None:
    from vianda.services import people

    with kitchen_open(None):
        say(_told(people.add_by_hand(given.name, given.role, _password())))


def _reset(given: argparse.Namespace) -> None:
    from vianda.services import people

    with kitchen_open(None):
        people.named(given.name)
        say(_told(people.reset_by_hand(given.name, _password())))


def _role(given: argparse.Namespace) -> None:
    from vianda.services import people

    with kitchen_open(None):
        say(_told(people.change_by_hand(given.name, given.role)))


def _remove(given: argparse.Namespace) -> None:
    from vianda.services import people

    with kitchen_open(None):
        people.remove_by_hand(given.name)
        say({"removed": given.name, "accounts": people.anybody()})


def _audit(given: argparse.Namespace) -> None:
    from vianda.services import people

    with kitchen_open(None):
        if given.keep_days is not None:
            if given.keep_days < 0:
                raise CommandError(Code.USAGE, "days to keep are zero or more.")
            say({"forgotten": people.forget_audit(timedelta(days=given.keep_days))})
            return
        say(
            [
                {
                    "at": _utc(x.line.at),
                    "person": x.line.person,
                    "kitchen": x.line.kitchen_id,
                    "action": x.line.action,
                    "about": x.line.about,
                    "said": x.said,
                }
                for x in people.audit_lines()
            ]
        )


def _utc(at: datetime) -> str:
    return at.isoformat(timespec="seconds") + "Z"
