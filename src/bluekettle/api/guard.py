"""Who may ask: only under a known name, and for a change only from this application's own pages;
and what every answer tells the browser to refuse.
"""

from __future__ import annotations

from ipaddress import ip_address
from urllib.parse import urlsplit

from flask import Flask, Response, request

from bluekettle.api.errors import answer
from bluekettle.schemas.problem import Problem

SAFE_METHODS = ("GET", "HEAD", "OPTIONS")
OWN_SITES = ("", "same-origin", "none")  # of Sec-Fetch-Site; none: typed or opened by the person
HEADERS = {
    "Content-Security-Policy": (
        "default-src 'self'; img-src 'self' data: blob:; style-src 'self' 'unsafe-inline';"
        " script-src 'self'; connect-src 'self'; font-src 'self' data:; media-src data:;"
        " object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'"
    ),
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "no-referrer",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
}


def refused(status: int, title: str, detail: str) -> Response:
    """A refusal as a problem document."""
    return answer(Problem(title=title, status=status, detail=detail))


def is_address(name: str) -> bool:
    """Whether a host is a bare address: no other site's name can be made to point here by one."""
    try:
        ip_address(name)
    except ValueError:
        return False
    return True


def is_own(name: str) -> bool:
    """Whether only this machine is reached under a name."""
    return ip_address(name).is_loopback if is_address(name) else name == "localhost"


def guard(app: Flask, hosts: frozenset[str]) -> None:
    """Hang the guard into an application that answers under these names."""

    @app.before_request
    def check() -> Response | None:
        name = urlsplit(f"//{request.host}").hostname or ""
        if name not in hosts and not is_address(name):
            return refused(421, "Not this kettle", "this server does not answer under that name")
        if request.method in SAFE_METHODS:
            return None
        origin = request.headers.get("Origin")
        site = request.headers.get("Sec-Fetch-Site", "")
        own = origin is None or urlsplit(origin).netloc == request.host
        if not own or site not in OWN_SITES:
            return refused(403, "Not from here", "a change is taken from this kettle's own pages")
        return None

    @app.after_request
    def harden(response: Response) -> Response:
        for name, value in HEADERS.items():
            response.headers.setdefault(name, value)
        return response
