"""Who may do what: accounts, signing in and out, shifts at a device, invitations.

A kitchen without accounts has one cook, who may do everything from this machine. With the first owner's password
everybody signs in.
"""

from __future__ import annotations

import secrets
from collections.abc import Callable
from dataclasses import dataclass
from datetime import timedelta

from vianda.core.basis.errors import CoreError, OutOfRangeError
from vianda.services import passwords
from vianda.services.audit_words import ToldLine, told
from vianda.services.plain_names import plain_name
from vianda.services.sign_in_times import SignInTimes
from vianda.storage import audit_repository as audit
from vianda.storage import people_repository as repository
from vianda.storage.clock import now_utc
from vianda.storage.people_repository import Invitation, Person, Role, SignIn
from vianda.storage.records import ConflictError, NotFoundError
from vianda.storage.transaction import transaction

ROLES: tuple[Role, ...] = ("reader", "cook", "chef", "owner")
# A shift at a shared device, with what it takes to open and close.
SHIFT = timedelta(hours=14)
INVITED_FOR = timedelta(days=3)
MOST_WRONG_PINS = 5
MOST_PEOPLE = 200


class _AsSet:
    """What this process was told at its start."""

    times = SignInTimes()


def use_times(times: SignInTimes) -> None:
    """How long sign-ins last from now on; of those that stand, how long nobody may be seen."""
    _AsSet.times = times


def sign_in_times() -> SignInTimes:
    """How long sign-ins last."""
    return _AsSet.times


class NotAllowedError(CoreError):
    """It is not theirs to do."""

    code = "not-allowed"
    title = "That is not yours to do"


class WrongSecretError(CoreError):
    """A password or PIN that does not fit, of a known name or not."""

    code = "wrong-secret"
    title = "That does not fit"


@dataclass(frozen=True, slots=True)
class Given:
    """A new sign-in: the token to keep, and whose it is."""

    token: str
    person: Person | None


def anybody() -> bool:
    """Whether there are accounts."""
    return repository.anybody()


def may(person: Person, role: Role) -> bool:
    """Whether somebody has a role or one above it."""
    return ROLES.index(person.role) >= ROLES.index(role)


def ready_for_others() -> bool:
    """Whether it may be served beyond this machine: an owner has a password."""
    return repository.owner_with_password()


def first_owner(name: str, password: str, *, device: str) -> Given:
    """The first account, which makes everybody sign in from now on."""
    plain = _checked_name(name)
    passwords.check_password(password, name=plain)
    kept = passwords.hashed(password)
    with transaction():
        if repository.lock_people():
            raise NotAllowedError("There are accounts already; the owner invites others.")
        person = repository.add_person(plain, "owner", password_hash=kept)
        audit.note("first-owner", plain, person=plain, person_id=person.id)
        return _signed_in(person, device=device)


def sign_in(name: str, password: str, *, device: str) -> Given:
    """Sign in by name and password.

    Raises
    ------
    WrongSecretError
        Which of the two does not fit is not said.
    """
    found = repository.find_person(name)
    right = passwords.fits(password, found[1] if found else "")
    if found is None or not right or found[0].disabled:
        with transaction():
            audit.note("sign-in-refused", name[:40], person=found[0].name if found else "")
        raise WrongSecretError(
            "No such name with this password. After five wrong ones it waits for a quarter of an hour."
        )
    with transaction():
        repository.forget_ended()
        audit.note("sign-in", device, person=found[0].name, person_id=found[0].id)
        return _signed_in(found[0], device=device)


def _signed_in(person: Person, *, device: str) -> Given:
    token = secrets.token_urlsafe(32)
    repository.sign_in(token, person.id, "password", device=device, lasts=sign_in_times().lasts)
    return Given(token, person)


def who(token: str) -> SignIn | None:
    """Who is signed in with a token."""
    return repository.signed_in(token, idle=sign_in_times().idle)


def sign_out(session: SignIn) -> None:
    """End a sign-in."""
    with transaction():
        repository.end_sign_in(session.key)


def begin_shift(*, device: str) -> Given:
    """Make a device one of a shift: whoever has a PIN takes it up there, until the shift is over."""
    token = secrets.token_urlsafe(32)
    with transaction():
        repository.sign_in(token, None, "device", device=device, lasts=SHIFT)
    return Given(token, None)


def with_pins() -> list[Person]:
    """Who may take a device of a shift up."""
    return [p for p in repository.people() if p.has_pin and not p.disabled]


def take_up(device: SignIn, person_id: int, pin: str) -> Given:
    """Take a device of a shift up with a PIN; after five wrong ones in a row the shift is over there."""
    try:
        person = repository.get_person(person_id)
    except NotFoundError:
        person = None
    right = passwords.fits(pin, repository.hashes(person_id)[1] if person else "")
    if person is None or person.disabled or not right:
        with transaction():
            wrong = repository.count_wrong(device.key)
            audit.note("pin-refused", device.device, person=person.name if person else "")
            if wrong >= MOST_WRONG_PINS:
                repository.end_sign_in(device.key)
        if wrong >= MOST_WRONG_PINS:
            raise WrongSecretError("Five wrong PINs: the shift is over at this device. Sign in with a password.")
        raise WrongSecretError(f"That PIN does not fit. {MOST_WRONG_PINS - wrong} more tries at this device.")
    token = secrets.token_urlsafe(32)
    with transaction():
        repository.count_right(device.key)
        repository.sign_in(token, person.id, "pin", device=device.device, lasts=SHIFT, by_device=device.key)
        audit.note("pin", device.device, person=person.name, person_id=person.id)
    return Given(token, person)


def change_password(session: SignIn, *, old: str, new: str) -> None:
    """Set a new password; everywhere else they are signed out."""
    person = _of(session)
    if not passwords.fits(old, repository.hashes(person.id)[0]):
        raise WrongSecretError("That is not your password of now.", field="/old")
    passwords.check_password(new, name=person.name, field="/new")
    kept = passwords.hashed(new)
    with transaction():
        repository.change_person(person.id, password_hash=kept)
        repository.end_sign_ins(person.id, but=session.key)


def set_pin(session: SignIn, *, password: str, pin: str) -> None:
    """Set a PIN, or with "" none."""
    person = _of(session)
    if not passwords.fits(password, repository.hashes(person.id)[0]):
        raise WrongSecretError("That is not your password.", field="/password")
    if pin:
        passwords.check_pin(pin)
    kept = passwords.hashed(pin) if pin else ""
    with transaction():
        repository.change_person(person.id, pin_hash=kept)


def _of(session: SignIn) -> Person:
    if session.person is None or session.kind != "password":
        raise NotAllowedError("Sign in with your password for that.")
    return session.person


# What the owner does.


def list_people() -> list[Person]:
    """Everybody."""
    return repository.people()


def invite(name: str, role: Role) -> tuple[str, Invitation]:
    """Ask somebody in by a link that works once."""
    plain = _checked_name(name)
    if repository.find_person(plain) is not None:
        raise OutOfRangeError(f"There is a {plain} already; names are told apart by them.", field="/name")
    if len(repository.people()) >= MOST_PEOPLE:
        raise OutOfRangeError(f"A kitchen has at most {MOST_PEOPLE} people.", field="/name")
    token = secrets.token_urlsafe(32)
    with transaction():
        return token, repository.invite(token, plain, role, person_id=None, lasts=INVITED_FOR)


def invite_again(person_id: int) -> tuple[str, Invitation]:
    """Let somebody set a new password by a link that works once."""
    person = repository.get_person(person_id)
    token = secrets.token_urlsafe(32)
    with transaction():
        return token, repository.invite(token, person.name, person.role, person_id=person.id, lasts=INVITED_FOR)


def look_at_invitation(token: str) -> Invitation:
    """An invitation that still stands."""
    return repository.find_invitation(token)


def accept(token: str, *, password: str, pin: str, device: str) -> Given:
    """Come in by an invitation: with it goes a password, and a PIN for shifts if one is wanted."""
    found = repository.find_invitation(token)
    passwords.check_password(password, name=found.name)
    if pin:
        passwords.check_pin(pin)
    kept, kept_pin = passwords.hashed(password), passwords.hashed(pin) if pin else ""
    with transaction():
        found = repository.use_invitation(token)
        if found.person_id is None:
            person = _added(found, kept, kept_pin)
        else:
            person = repository.change_person(found.person_id, password_hash=kept, pin_hash=kept_pin or None)
            repository.end_sign_ins(person.id)
        audit.note("invitation-accepted", person.role, person=person.name, person_id=person.id)
        return _signed_in(person, device=device)


def _added(found: Invitation, password_hash: str, pin_hash: str) -> Person:
    try:
        return repository.add_person(found.name, found.role, password_hash=password_hash, pin_hash=pin_hash)
    except ConflictError:
        raise OutOfRangeError(f"There is a {found.name} already; ask for another invitation.", field="") from None


def change_role(person_id: int, role: Role) -> Person:
    """Give somebody another role."""
    return _changed(person_id, lambda: repository.change_person(person_id, role=role))


def disable(person_id: int, *, disabled: bool) -> Person:
    """Let somebody in no more, or again."""

    def change() -> Person:
        if disabled:
            repository.end_sign_ins(person_id)
        return repository.change_person(person_id, disabled=disabled)

    return _changed(person_id, change)


def remove(person_id: int) -> None:
    """Delete somebody; records keep that somebody did it, without the name."""

    def change() -> Person:
        person = repository.get_person(person_id)
        repository.delete_person(person_id)
        return person

    _changed(person_id, change, last_may_go=True)


def _changed(person_id: int, change: Callable[[], Person], *, last_may_go: bool = False) -> Person:
    with transaction():
        before = repository.lock_people()
        if all(person.id != person_id for person in before):
            raise NotFoundError(f"person {person_id}")
        done = change()
        after = repository.people()
        if not any(p.role == "owner" and p.has_password and not p.disabled for p in after):
            # With nobody left there are no accounts any more, which only somebody at this machine may bring about.
            if not (last_may_go and not after):
                raise NotAllowedError("One owner with a password must stay; make somebody else an owner first.")
            raise NotAllowedError("The last account goes by the command line: vianda user remove NAME.")
        return done


# By the command line, from the machine itself.


def add_by_hand(name: str, role: Role, password: str) -> Person:
    """Add somebody with a password."""
    plain = _checked_name(name)
    passwords.check_password(password, name=plain)
    kept = passwords.hashed(password)
    with transaction():
        try:
            person = repository.add_person(plain, role, password_hash=kept)
        except ConflictError:
            raise OutOfRangeError(f"There is a {plain} already.", field="/name") from None
        audit.note("added-by-hand", role, person=plain, person_id=person.id)
        return person


def named(name: str) -> Person:
    """Somebody by name."""
    found = repository.find_person(name)
    if found is None:
        raise NotFoundError(f"person {name[:40]}")
    return found[0]


def reset_by_hand(name: str, password: str) -> Person:
    """Set somebody's password anew, and sign them out everywhere."""
    person = named(name)
    passwords.check_password(password, name=person.name)
    kept = passwords.hashed(password)
    with transaction():
        audit.note("reset-by-hand", person=person.name, person_id=person.id)
        repository.end_sign_ins(person.id)
        return repository.change_person(person.id, password_hash=kept, disabled=False)


def change_by_hand(name: str, role: Role) -> Person:
    """Give somebody another role."""
    person = named(name)
    with transaction():
        audit.note("role-by-hand", role, person=person.name, person_id=person.id)
        return repository.change_person(person.id, role=role)


def remove_by_hand(name: str) -> None:
    """Delete somebody, the last one too: then there are no accounts."""
    person = named(name)
    with transaction():
        repository.delete_person(person.id)
        audit.note("removed-by-hand")


def sign_ins_of(person_id: int | None) -> list[SignIn]:
    """Where somebody, or anybody, is signed in."""
    return repository.sign_ins(person_id)


def end_sign_in(key: str, *, of: int | None) -> None:
    """End a sign-in; ``of``: only one of this person's."""
    # Compared here: what was asked for may hold letters that the column's character set cannot be compared with.
    if all(one.key != key for one in repository.sign_ins(of)):
        raise NotFoundError("sign-in")
    with transaction():
        repository.end_sign_in(key)


def audit_lines(*, before: int | None = None, person: str = "") -> list[ToldLine]:
    """Who changed what, the newest first."""
    return told(audit.lines(before=before, person=person))


def forget_audit(older: timedelta) -> int:
    """Forget lines that are older; how many that were. Only by the command line."""
    with transaction():
        forgotten = audit.forget_before(now_utc() - older)
        audit.note("audit-trimmed", f"{forgotten} lines older than {older.days} days")
        return forgotten


def _checked_name(name: str) -> str:
    return plain_name(name, longest=40, field="/name")
