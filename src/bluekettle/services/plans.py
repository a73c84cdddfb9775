"""Plans that are kept."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import Engine
from sqlmodel import Session

from bluekettle.core.errors import Fault, OutOfRange
from bluekettle.schemas.cook import AsidePublic, PlanPublic, PlansPublic
from bluekettle.schemas.dish import DishDocument, SauceDocument
from bluekettle.services.dishes import title_of
from bluekettle.services.errors import Changed, NotFound
from bluekettle.services.paging import make_place, read_place
from bluekettle.store import repositories
from bluekettle.store.engine import for_writing
from bluekettle.store.tables import Plan, Sauce


def list_plans(engine: Engine, search: str = "", after: str = "", most: int = 50) -> PlansPublic:
    """A page of plans, newest first."""
    place = read_place(after)
    with Session(engine) as session:
        rows = repositories.plans(session, most + 1, search, place)
        found, aside = [], []
        for row in rows[:most]:
            try:
                DishDocument.model_validate(row.dish)
                found.append(PlanPublic.model_validate(row))
            except ValueError as error:
                why = str(error).splitlines()[0][:200]
                aside.append(AsidePublic(id=int(row.id or 0), title=row.title, why=why))
        more = ""
        if len(rows) > most:
            last = rows[most - 1]
            more = make_place(last.updated_at.isoformat(), int(last.id or 0))
        return PlansPublic(plans=found, aside=aside, more=more)


def get_plan(engine: Engine, plan_id: int) -> PlanPublic:
    """One plan; NotFound."""
    with Session(engine) as session:
        return PlanPublic.model_validate(_load(session, plan_id))


def keep_plan(
    engine: Engine,
    document: DishDocument,
    now: datetime,
    plan_id: int | None = None,
    version: int | None = None,
) -> PlanPublic:
    """Keep a new plan, or change the one named. A document that cannot be cooked yet is kept all
    the same.

    Raises
    ------
    NotFound
    Changed
        The plan is no longer at the `version` that was read.
    OutOfRange
        Its sauce names a kept one that is not there.
    """
    with Session(for_writing(engine)) as session:
        check_sauce(session, document)
        if plan_id is None:
            plan = Plan(title="", dish={}, version=0, updated_at=now)
        else:
            plan = _load(session, plan_id)
            if version is not None and version != plan.version:
                raise Changed("plan", plan_id, plan.version)
        plan.title = title_of(document)
        plan.dish = document.model_dump(mode="json")
        plan.version += 1
        plan.updated_at = now
        session.add(plan)
        session.flush()
        answer = PlanPublic.model_validate(plan)
        session.commit()
        return answer


def check_sauce(session: Session, document: DishDocument) -> None:
    """A copy of a kept sauce names one that is there; OutOfRange otherwise."""
    sauce = document.sauce
    wanted = sauce.sauce_id if isinstance(sauce, SauceDocument) else None
    if wanted is not None and session.get(Sauce, wanted) is None:
        accepted = "the number of a kept sauce, or null"
        raise OutOfRange([Fault("dish.sauce.sauce_id", wanted, accepted)])


def drop_plan(engine: Engine, plan_id: int) -> None:
    """Delete a plan; cooks that came from it keep their own copy."""
    with Session(for_writing(engine)) as session:
        plan = _load(session, plan_id)
        repositories.forget_plan(session, plan_id)
        session.delete(plan)
        session.commit()


def _load(session: Session, plan_id: int) -> Plan:
    plan = session.get(Plan, plan_id)
    if plan is None:
        raise NotFound("plan", plan_id)
    return plan
