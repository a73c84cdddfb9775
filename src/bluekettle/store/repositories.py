"""Queries, by table."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime
from typing import Any

from sqlmodel import Session, col, func, select

from bluekettle.store.tables import Appliance, Cook, CookEvent, Observation, Outcome, Plan, Sauce


def plans(session: Session, most: int) -> Sequence[Plan]:
    """Kept plans, newest first."""
    return session.exec(
        select(Plan).order_by(col(Plan.updated_at).desc(), col(Plan.id).desc()).limit(most)
    ).all()


def cooks(session: Session, most: int) -> Sequence[Cook]:
    """Cooks, newest first."""
    return session.exec(
        select(Cook).order_by(col(Cook.started_at).desc(), col(Cook.id).desc()).limit(most)
    ).all()


def events(session: Session, cook_id: int) -> Sequence[CookEvent]:
    """A cook's events in order."""
    return session.exec(
        select(CookEvent).where(CookEvent.cook_id == cook_id).order_by(col(CookEvent.seq))
    ).all()


def append_event(
    session: Session,
    cook_id: int,
    kind: str,
    happened_at: datetime,
    recorded_at: datetime,
    data: dict[str, Any],
) -> CookEvent:
    """Append one event with the next number."""
    last = session.exec(select(func.max(CookEvent.seq)).where(CookEvent.cook_id == cook_id)).one()
    event = CookEvent(
        cook_id=cook_id,
        seq=(last or 0) + 1,
        kind=kind,
        happened_at=happened_at,
        recorded_at=recorded_at,
        data=data,
    )
    session.add(event)
    return event


def outcomes(session: Session, cook_ids: Sequence[int]) -> dict[int, Outcome]:
    """Outcomes by cook."""
    found = session.exec(select(Outcome).where(col(Outcome.cook_id).in_(cook_ids))).all()
    return {outcome.cook_id: outcome for outcome in found}


def sauces(session: Session, most: int) -> Sequence[Sauce]:
    """Kept sauces by name."""
    return session.exec(select(Sauce).order_by(col(Sauce.name), col(Sauce.id)).limit(most)).all()


def sauce_users(session: Session) -> dict[int, list[Plan]]:
    """Plans that hold a copy of a kept sauce, by the sauce's number."""
    found: dict[int, list[Plan]] = {}
    for plan in session.exec(select(Plan).order_by(col(Plan.id))).all():
        sauce = plan.dish.get("sauce")
        if isinstance(sauce, dict) and sauce.get("sauce_id"):
            found.setdefault(int(sauce["sauce_id"]), []).append(plan)
    return found


def appliances(session: Session) -> Sequence[Appliance]:
    """All appliances in the order in which they came."""
    return session.exec(select(Appliance).order_by(col(Appliance.id))).all()


def observations(session: Session, appliance_id: int) -> Sequence[Observation]:
    """What was seen of an appliance, in order."""
    wanted = select(Observation).where(Observation.appliance_id == appliance_id)
    return session.exec(wanted.order_by(col(Observation.made_at), col(Observation.id))).all()
