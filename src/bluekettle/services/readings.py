"""Readings of outside devices are taken: all of a batch, or none of it with every fault told."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from sqlalchemy import Engine
from sqlmodel import Session

from bluekettle.core.errors import Fault, OutOfRange
from bluekettle.schemas.reading import ReadingCreate, ReadingsCreate, ReadingsPublic
from bluekettle.services.errors import Conflict
from bluekettle.services.loaded import Loaded
from bluekettle.services.log import load
from bluekettle.store import repositories
from bluekettle.store.engine import for_writing
from bluekettle.store.tables import Reading

AHEAD = timedelta(seconds=5)  # that a device's clock may be ahead of this one
MARK_EVERY = timedelta(seconds=30)
LIMITS = {"core_c": (-40.0, 350.0), "air_c": (-40.0, 600.0)}  # [°C]


@dataclass
class Line:
    """One device's readings of one quantity: the newest, and the newest that is a mark."""

    newest: datetime | None
    marked: datetime | None
    value: float | None

    def next_mark(self, at: datetime, quantity: str, value: float) -> bool:
        """Whether a reading is a mark: half a minute after the last, or a pin that has moved."""
        due = self.marked is None or at - self.marked >= MARK_EVERY
        moved = quantity == "pin" and value != self.value
        return due or moved

    def take(self, at: datetime, value: float, mark: bool) -> None:
        """A reading has come."""
        self.newest, self.value = at, value
        self.marked = at if mark else self.marked


def take_readings(
    engine: Engine, cook_id: int, given: ReadingsCreate, now: datetime
) -> ReadingsPublic:
    """Take a batch.

    Raises
    ------
    NotFound
        There is no such cook.
    Conflict
        It has ended.
    OutOfRange
        Every reading that cannot be: out of its range, from before the cook or the future, or not
        later than what the same device has told.
    """
    with Session(for_writing(engine)) as session:
        loaded = load(session, cook_id)
        if loaded.cook.ended_at is not None:
            raise Conflict("this cook has ended; no reading can be added to it")
        now = loaded.clock(now)
        lines: dict[tuple[str, str], Line] = {}
        rows: list[Reading] = []
        faults: list[Fault] = []
        for place, one in enumerate(given.readings):
            at = one.at or now
            key = (one.quantity, one.device)
            if key not in lines:
                lines[key] = line_of(session, cook_id, one)
            found = faults_of(f"readings.{place}", one, at, loaded, now, lines[key])
            faults += found
            if found:
                continue
            mark = lines[key].next_mark(at, one.quantity, one.value)
            lines[key].take(at, one.value, mark)
            rows.append(
                Reading(
                    cook_id=cook_id,
                    device=one.device,
                    quantity=one.quantity,
                    site=one.site,
                    value=one.value,
                    taken_at=at,
                    received_at=now,
                    mark=mark,
                )
            )
        if faults:
            raise OutOfRange(faults)
        newest = max(row.taken_at for row in rows)
        session.add_all(rows)
        session.commit()
    return ReadingsPublic(taken=len(given.readings), newest_at=newest)


def line_of(session: Session, cook_id: int, one: ReadingCreate) -> Line:
    """What is kept of a device."""
    names = (session, cook_id, one.quantity, one.device)
    newest = repositories.newest_of_device(*names)
    marked = repositories.newest_of_device(*names, marked=True)
    return Line(
        newest.taken_at if newest else None,
        marked.taken_at if marked else None,
        newest.value if newest else None,
    )


def faults_of(
    field: str, one: ReadingCreate, at: datetime, loaded: Loaded, now: datetime, line: Line
) -> Sequence[Fault]:
    """What is wrong with a reading."""
    if one.quantity == "pin" and one.value not in (0.0, 1.0):
        return [Fault(f"{field}.value", one.value, "1 (the pin is up) or 0")]
    if one.quantity != "pin":
        low, high = LIMITS[one.quantity]
        if not low <= one.value <= high:
            return [Fault(f"{field}.value", one.value, f"{low:g} to {high:g} °C")]
    told = at.isoformat()
    if at > now + AHEAD:
        return [Fault(f"{field}.at", told, f"up to now, {now.isoformat()}")]
    if at < loaded.cook.started_at:
        begun = loaded.cook.started_at.isoformat()
        return [Fault(f"{field}.at", told, f"since the cook began, {begun}")]
    if line.newest is not None and at <= line.newest:
        last = line.newest.isoformat()
        accepted = f"later than {last}, the newest of {one.device} that is kept"
        return [Fault(f"{field}.at", told, accepted)]
    return []
