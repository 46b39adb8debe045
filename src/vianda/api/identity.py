"""Who asks: signed in by a cookie that only this server can read, or the one cook of a kitchen without accounts.

flask-login carries the user through a request. Its own session lives in a signed cookie and cannot be revoked, so the
user is loaded from the request itself: by a random token whose digest is in the database.
"""

from __future__ import annotations

from flask import Flask, Response, after_this_request, request
from flask_login import LoginManager, UserMixin, current_user

from vianda.api.permissions import OPEN, OWN, WRITES, least_role
from vianda.api.problems import ProblemError, problem
from vianda.services import people
from vianda.storage.actor import Actor, acts
from vianda.storage.people_repository import Person, SignIn

COOKIE, DEVICE_COOKIE = "vianda", "vianda-device"
# Whom a window knows to be signed in: what they did is never taken under the name of who came after them.
PERSON = "Vianda-Person"


class User(UserMixin):  # type: ignore[misc]
    """Somebody who is signed in, as flask-login wants it."""

    def __init__(self, session: SignIn, person: Person) -> None:
        self.id = str(person.id)
        self.session, self.person = session, person


def _load(_: object) -> User | None:
    token = request.cookies.get(_name(COOKIE), "")
    session = people.who(token) if token else None
    return User(session, session.person) if session is not None and session.person is not None else None


def install(app: Flask) -> None:
    """Have flask-login know who asks."""
    manager = LoginManager()
    manager.session_protection = None
    manager.request_loader(_load)
    manager.init_app(app)


def _name(name: str) -> str:
    # A name with this beginning is taken from no other host, and only over TLS.
    return f"__Host-{name}" if request.is_secure else name


def check(*, local: bool) -> None:
    """Let in who may ask for this, and say who it is; ``local``: it was asked from this machine.

    Raises
    ------
    ProblemError
        401: nobody is signed in, or somebody else than the window knows; 403: somebody without the role, an owner
        who came in by PIN, or from elsewhere before there is an owner.
    """
    acts(None)
    operation = (request.endpoint or "").rsplit(".", 1)[-1]
    user = signed_in()
    if user is None:
        if operation in OPEN and (local or operation != "first_owner"):
            return
        if people.anybody():
            raise ProblemError(problem(401, "sign-in", "Sign in first", "This kitchen asks who you are: sign in."))
        if not local:
            raise ProblemError(
                problem(
                    403,
                    "no-owner",
                    "Not from elsewhere yet",
                    "Set an owner's password on the kitchen's own machine first (Kitchen, People).",
                )
            )
        return
    meant = request.headers.get(PERSON, user.id)
    if meant != user.id and operation not in OPEN:
        raise ProblemError(
            problem(
                401,
                "another-person",
                "Somebody else is signed in",
                f"{user.person.name} is signed in at this browser now; this was to be done by somebody else.",
            )
        )
    wanted = least_role(operation)
    if operation not in OWN and operation not in OPEN and not people.may(user.person, wanted):
        raise ProblemError(
            problem(
                403,
                "role",
                "That is not yours to do",
                f"You are signed in as {user.person.role}; this is for a {wanted} to do.",
            )
        )
    if wanted == "owner" and user.session.kind == "pin":
        raise ProblemError(
            problem(
                403,
                "password-wanted",
                "That takes a password",
                "You came in by PIN, which does for a shift. Who comes in and what is deleted is decided with a "
                "password: sign out here, and sign in with yours.",
            )
        )
    acts(Actor(user.person.id, user.person.name, operation if operation in WRITES else "", request.path))


def signed_in() -> User | None:
    """Who is signed in, if anybody."""
    return current_user._get_current_object() if current_user.is_authenticated else None


def user() -> User:
    """Who is signed in; a problem where nobody is."""
    found = signed_in()
    if found is None:
        raise ProblemError(problem(401, "sign-in", "Sign in first", "There is nobody signed in."))
    return found


def device_of_shift() -> SignIn | None:
    """The shift that this device is of, if any."""
    token = request.cookies.get(_name(DEVICE_COOKIE), "")
    found = people.who(token) if token else None
    return found if found is not None and found.kind == "device" else None


def give(token: str, *, cookie: str, seconds: float) -> None:
    """Have the answer set a cookie that no script can read and no other site can send."""
    name, secure = _name(cookie), request.is_secure

    @after_this_request
    def set_it(response: Response) -> Response:
        response.set_cookie(
            name, token, max_age=int(seconds), path="/", httponly=True, samesite="Strict", secure=secure
        )
        return response


def take(cookie: str) -> None:
    """Have the answer forget a cookie."""
    name, secure = _name(cookie), request.is_secure

    @after_this_request
    def forget_it(response: Response) -> Response:
        response.delete_cookie(name, path="/", httponly=True, samesite="Strict", secure=secure)
        return response


def browser() -> str:
    """What a browser says it is, short: so that somebody knows their own devices in a list."""
    agent = request.headers.get("User-Agent", "")
    system = next((s for s in ("Android", "iPhone", "iPad", "Windows", "Mac OS", "Linux") if s in agent), "")
    kind = next((k for k in ("Firefox", "Edg", "Chrome", "Safari") if k in agent), "")
    words = " on ".join(part for part in ({"Edg": "Edge"}.get(kind, kind), system) if part)
    return words or "a program"
