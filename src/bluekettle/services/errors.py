"""What can go wrong between a good request and the store."""

from __future__ import annotations


class NotFound(Exception):
    """No such record."""

    def __init__(self, what: str, key: int) -> None:
        self.what, self.key = what, key
        super().__init__(f"there is no {what} {key}")


class Conflict(Exception):
    """The record is not in a state that allows this."""
