"""A moment at which a cook is called."""

from __future__ import annotations

from datetime import datetime

from pydantic import Field

from bluekettle.schemas.base import PublicModel


class AlarmPublic(PublicModel):
    """A moment at which to call the cook: once, or again and again every `every_s` where that is
    not 0, until it is no longer in the list.
    """

    id: str
    at: datetime
    level: str = Field(description="look, due, act, closer, full, out or ask; the last are loudest")
    says: str
    every_s: float
    screen: bool = Field(description="whether it takes the whole screen")
