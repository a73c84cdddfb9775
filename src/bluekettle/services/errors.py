"""What can go wrong between a good request and the store."""

from __future__ import annotations


class NotFound(Exception):
    """No such record."""

    def __init__(self, what: str, key: int) -> None:
        self.what, self.key = what, key
        super().__init__(f"there is no {what} {key}")


class Conflict(Exception):
    """The record is not in a state that allows this."""


class Changed(Exception):
    """The record was changed by somebody else since it was read."""

    def __init__(self, what: str, key: int, version: int) -> None:
        self.what, self.key, self.version = what, key, version
        super().__init__(
            f"{what} {key} was changed elsewhere meanwhile; it is at version {version} now"
        )


class Unreadable(Exception):
    """A kept record that cannot be read; it is set aside, the others live."""

    def __init__(self, what: str, key: int, title: str, why: str) -> None:
        self.what, self.key, self.title, self.why = what, key, title, why
        super().__init__(
            f"{what} {key} ({title}) cannot be read: {why}. It is kept as it is;"
            " `kettle export` writes it out, and it can be deleted"
        )


class Stopped(Exception):
    """A dish with stops that nobody repaired or gave a reason for."""

    def __init__(self, stops: list[tuple[str, str]]) -> None:
        self.stops = tuple(stops)
        super().__init__("; ".join(message for _, message in stops))


class Busy(Exception):
    """More is being computed than this machine can; worth asking again in a moment."""
