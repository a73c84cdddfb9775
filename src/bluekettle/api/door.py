"""The door: where the kettle is served beyond this machine, a device has to know the passcode.

A device that has told it gets a signed cookie. The key of the signature hangs on the passcode, so
that every session ends when the passcode changes. Wrong ones are counted, by address and in all.
"""

from __future__ import annotations

import hashlib
import hmac
import io
import secrets
import socket
from datetime import timedelta
from pathlib import Path
from urllib.parse import quote, urlsplit

import segno
from flask import Flask, Response, current_app, request, session
from flask_openapi import APIBlueprint, Tag
from limits import RateLimitItemPerHour, RateLimitItemPerMinute
from limits.storage import MemoryStorage
from limits.strategies import MovingWindowRateLimiter

from bluekettle.api.base import PREFIX
from bluekettle.api.guard import is_own, refused
from bluekettle.schemas.problem import Problem
from bluekettle.schemas.session import SessionCreate, SessionPublic

blueprint = APIBlueprint("session", __name__, url_prefix=PREFIX, abp_tags=[Tag(name="session")])
OPEN_PATHS = (f"{PREFIX}/session",)
WRONG = (RateLimitItemPerMinute(5), RateLimitItemPerHour(20))  # by one address
WRONG_IN_ALL = RateLimitItemPerHour(60)  # by all of them: addresses are cheap
SECRET_BYTES = 32
STAYS = timedelta(days=30)


class Door:
    """Who is in. passcode : empty where none is asked for. beyond : other devices reach it."""

    def __init__(self, passcode: str, beyond: bool) -> None:
        self.passcode, self.beyond = passcode, beyond
        self.limiter = MovingWindowRateLimiter(MemoryStorage())

    @property
    def needed(self) -> bool:
        """Whether a passcode is asked for at all."""
        return bool(self.passcode)

    def is_open(self) -> bool:
        """Whether the device that asks may come in."""
        return not self.needed or session.get("in") is True

    def barred(self, address: str) -> bool:
        """Whether so many wrong ones were told that nobody listens for a while."""
        own = all(self.limiter.test(limit, address) for limit in WRONG)
        return not (own and self.limiter.test(WRONG_IN_ALL, "all"))

    def is_right(self, told: str, address: str) -> bool:
        """Compare what was told with the passcode; a wrong one is counted."""
        if hmac.compare_digest(told.encode(), self.passcode.encode()):
            return True
        for limit in WRONG:
            self.limiter.hit(limit, address)
        self.limiter.hit(WRONG_IN_ALL, "all")
        return False


def signing_key(folder: Path, passcode: str) -> bytes:
    """The key of the cookies: a secret of this folder, made once, and the passcode."""
    file = folder / "session.key"
    secret = file.read_bytes() if file.exists() else b""
    if len(secret) != SECRET_BYTES:  # none yet, or one whose writing was cut short
        secret = secrets.token_bytes(SECRET_BYTES)
        file.touch(mode=0o600)
        file.write_bytes(secret)
    return hashlib.sha256(secret + passcode.encode()).digest()


def hang(app: Flask, folder: Path, passcode: str, beyond: bool) -> None:
    """Hang the door into an application."""
    door = Door(passcode, beyond)
    app.extensions["kettle_door"] = door
    app.register_api(blueprint)  # type: ignore[attr-defined]
    if not door.needed:
        return
    app.secret_key = signing_key(folder, passcode)
    app.config.update(
        SESSION_COOKIE_NAME="kettle",
        SESSION_COOKIE_HTTPONLY=True,
        SESSION_COOKIE_SAMESITE="Strict",
        PERMANENT_SESSION_LIFETIME=STAYS,
    )

    @app.before_request
    def ask() -> Response | None:
        inside = request.path.startswith(PREFIX) and request.path not in OPEN_PATHS
        if not inside or door.is_open():
            return None
        return refused(401, "Passcode wanted", "this device has not told this kettle's passcode")


def own_address() -> str:
    """The address under which another device reaches this one: that of the request, unless it is
    this machine's own; then that of its way out.
    """
    asked = urlsplit(f"//{request.host}")
    if not is_own(asked.hostname or ""):
        return request.host
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as way:
        try:
            way.connect(("192.0.2.1", 9))  # nothing is sent: it only asks which way it would go
        except OSError:
            return request.host
        return f"{way.getsockname()[0]}:{asked.port or 80}"


@blueprint.get("/session", responses={200: SessionPublic})
def get_session() -> SessionPublic:
    """Whether a passcode is asked for, and whether this device has told it; how another joins."""
    door: Door = current_app.extensions["kettle_door"]
    inside = door.is_open()
    if not (door.needed and inside and door.beyond):
        return SessionPublic(needed=door.needed, inside=inside)
    address = f"http://{own_address()}/"
    drawn = io.BytesIO()
    code = segno.make(f"{address}#join={quote(door.passcode)}", micro=False)
    code.save(drawn, kind="svg", scale=6, xmldecl=False, svgns=True, nl=False)
    return SessionPublic(
        needed=True, inside=True, address=address, code_svg=drawn.getvalue().decode()
    )


@blueprint.post(
    "/session", responses={204: None, 403: Problem, 409: Problem, 422: Problem, 429: Problem}
)
def open_session(body: SessionCreate) -> Response:
    """Tell the passcode. Wrong ones are slowed down."""
    door: Door = current_app.extensions["kettle_door"]
    if not door.needed:
        return refused(
            409, "No passcode", "this kettle asks for none: it answers this machine alone"
        )
    address = request.remote_addr or ""
    if door.barred(address):
        return refused(429, "Too many tries", "too many wrong passcodes: wait some minutes")
    if not door.is_right(body.passcode, address):
        return refused(403, "Not the passcode", "that is not this kettle's passcode")
    session.permanent = True
    session["in"] = True
    return Response(status=204)
