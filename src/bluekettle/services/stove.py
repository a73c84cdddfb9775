"""All that is on the stove: cooks under way, and the suppers that they are dishes of."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import Engine
from sqlmodel import Session

from bluekettle.schemas.base import AsidePublic
from bluekettle.schemas.cook import LiveListPublic
from bluekettle.schemas.supper import SupperPublic
from bluekettle.services.errors import Unreadable
from bluekettle.services.live import live
from bluekettle.services.log import load
from bluekettle.services.strips import Strips
from bluekettle.services.suppers import on_stove, public
from bluekettle.store import repositories

MOST_LIVE = 20


def live_cooks(engine: Engine, now: datetime, strips: Strips) -> LiveListPublic:
    """All cooks under way, the newest first; what cannot be read is set aside."""
    cooks, suppers, aside = [], [], []
    with Session(engine) as session:
        for cook in repositories.live_cooks(session, MOST_LIVE):
            try:
                loaded = load(session, int(cook.id or 0))
                cooks.append(live(loaded, loaded.clock(now), strips))
            except Unreadable as error:
                aside.append(AsidePublic(id=error.key, title=error.title, why=str(error)))
        keys = dict.fromkeys(one.supper for one in cooks if one.supper is not None)
        for key in keys:
            found = supper_of(session, key, now, strips)
            suppers += [] if found is None else [found]
    return LiveListPublic(cooks=cooks, suppers=suppers, aside=aside)


def supper_of(session: Session, key: int, now: datetime, strips: Strips) -> SupperPublic | None:
    """A supper as it stands; None where what is kept of it, or of one of its dishes, cannot be
    read: each of its dishes goes on by itself.
    """
    try:
        return public(on_stove(session, key, now, strips))
    except Unreadable:
        return None
