"""Plans that are kept."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import Engine
from sqlmodel import Session

from bluekettle.schemas.cook import PlanPublic, PlansPublic
from bluekettle.schemas.dish import DishDocument
from bluekettle.services.dishes import title_of
from bluekettle.services.errors import NotFound
from bluekettle.store import repositories
from bluekettle.store.engine import for_writing
from bluekettle.store.tables import Plan

MOST = 100


def list_plans(engine: Engine) -> PlansPublic:
    """The newest plans."""
    with Session(engine) as session:
        return PlansPublic(
            plans=[PlanPublic.model_validate(p) for p in repositories.plans(session, MOST)]
        )


def get_plan(engine: Engine, plan_id: int) -> PlanPublic:
    """One plan; NotFound."""
    with Session(engine) as session:
        return PlanPublic.model_validate(_load(session, plan_id))


def keep_plan(
    engine: Engine, document: DishDocument, now: datetime, plan_id: int | None = None
) -> PlanPublic:
    """Keep a new plan, or change the one named. A document that cannot be cooked yet is kept all
    the same.
    """
    with Session(for_writing(engine)) as session:
        plan = (
            _load(session, plan_id)
            if plan_id is not None
            else Plan(title="", dish={}, updated_at=now)
        )
        plan.title = title_of(document)
        plan.dish = document.model_dump(mode="json")
        plan.updated_at = now
        session.add(plan)
        session.commit()
        session.refresh(plan)
        return PlanPublic.model_validate(plan)


def drop_plan(engine: Engine, plan_id: int) -> None:
    """Delete a plan; cooks that came from it keep their own copy."""
    with Session(for_writing(engine)) as session:
        session.delete(_load(session, plan_id))
        session.commit()


def _load(session: Session, plan_id: int) -> Plan:
    plan = session.get(Plan, plan_id)
    if plan is None:
        raise NotFound("plan", plan_id)
    return plan
