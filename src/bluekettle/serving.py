"""The server that comes with the application: threads, limits of time, its port."""

from __future__ import annotations

import socket
import time
from typing import Any

from waitress.channel import HTTPChannel
from waitress.server import create_server

from bluekettle.services.workshop import MOST_WAITING

SPARE_THREADS = 8  # for taps and lists while every forecast that may wait does so
SILENT_S = 30  # a connection that says nothing is closed
LONGEST_REQUEST_S = 20.0  # a request that is not whole by then is given up


class PatientChannel(HTTPChannel):  # type: ignore[misc]
    """A connection whose request has to be whole within some seconds, however slowly it drips."""

    _since: float | None = None

    def received(self, data: bytes) -> bool:
        """Take in bytes, unless the request has taken too long already."""
        now = time.monotonic()
        if self.request is None:
            self._since = now
        elif not self.requests and now - (self._since or now) > LONGEST_REQUEST_S:
            self.handle_close()
            return False
        return bool(super().received(data))


def open_port(host: str, port: int) -> socket.socket:
    """A socket that listens. Raises OSError where the port is taken."""
    return socket.create_server((host, port))


def make_server(app: Any, listening: socket.socket) -> Any:
    """The server of an application on a socket."""
    server = create_server(
        app,
        sockets=[listening],
        threads=MOST_WAITING + SPARE_THREADS,
        channel_timeout=SILENT_S,
        cleanup_interval=10,
    )
    server.channel_class = PatientChannel
    return server
