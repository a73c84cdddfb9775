"""Plans that are kept."""

from __future__ import annotations

from contextlib import suppress
from datetime import datetime, timedelta

from sqlalchemy import Engine
from sqlmodel import Session

from bluekettle.core.errors import Fault, OutOfRange
from bluekettle.schemas.base import AsidePublic
from bluekettle.schemas.chain import ChainDocument
from bluekettle.schemas.dish import SauceDocument
from bluekettle.schemas.plan import (
    PlanPublic,
    PlansPublic,
    RevisionPublic,
    RevisionsPublic,
)
from bluekettle.services.dishes import title_of
from bluekettle.services.errors import Changed, NotFound
from bluekettle.services.paging import make_place, read_place
from bluekettle.services.sauces import without_sauces
from bluekettle.store import repositories
from bluekettle.store.engine import for_writing
from bluekettle.store.tables import Plan, PlanRevision, Sauce

APART = timedelta(minutes=10)  # of editing between two revisions
MOST_REVISIONS = 30


def list_plans(engine: Engine, search: str = "", after: str = "", most: int = 50) -> PlansPublic:
    """A page of plans, newest first."""
    place = read_place(after)
    with Session(engine) as session:
        rows = repositories.plans(session, most + 1, search, place)
        found, aside = [], []
        for row in rows[:most]:
            try:
                ChainDocument.model_validate(row.dish)
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
    document: ChainDocument,
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
        The plan is no longer at the `version` that was read, and holds something else.
    OutOfRange
        A sauce of it names a kept one that is not there.
    """
    wanted = document.model_dump(mode="json")
    with Session(for_writing(engine)) as session:
        check_sauces(session, document)
        if plan_id is None:
            plan = Plan(title="", dish={}, version=0, updated_at=now)
        else:
            plan = _load(session, plan_id)
            if version is not None and version != plan.version:
                if plan.dish == wanted:  # the same save again, its answer was lost
                    return PlanPublic.model_validate(plan)
                raise Changed("plan", plan_id, plan.version)
            keep_revision(session, plan, now)
        plan.title = title_of(document)
        plan.dish = wanted
        plan.version += 1
        plan.updated_at = now
        session.add(plan)
        session.flush()
        answer = PlanPublic.model_validate(plan)
        session.commit()
        return answer


def check_sauces(session: Session, document: ChainDocument) -> None:
    """Every copy of a kept sauce names one that is there; OutOfRange otherwise."""
    held = {
        f"dish.layers.{place}.sauce.sauce_id": layer.sauce
        for place, layer in enumerate(document.layers)
    }
    wanted = {
        field: sauce.sauce_id for field, sauce in held.items() if isinstance(sauce, SauceDocument)
    }
    accepted = "the number of a kept sauce, or null"
    faults = [
        Fault(field, number, accepted)
        for field, number in wanted.items()
        if number is not None and session.get(Sauce, number) is None
    ]
    if faults:
        raise OutOfRange(faults)


def keep_revision(session: Session, plan: Plan, now: datetime) -> None:
    """Keep a plan as it is before it is changed, but not every stroke of the same few minutes."""
    before = repositories.revisions(session, int(plan.id or 0))
    same_sitting = now - plan.updated_at < APART
    if before and same_sitting and plan.updated_at - before[0].kept_at < APART:
        return
    session.add(
        PlanRevision(
            plan_id=int(plan.id or 0),
            version=plan.version,
            title=plan.title,
            dish=plan.dish,
            kept_at=plan.updated_at,
        )
    )
    for old in before[MOST_REVISIONS - 1 :]:
        session.delete(old)


def list_revisions(engine: Engine, plan_id: int) -> RevisionsPublic:
    """What a plan was before, newest first; NotFound."""
    with Session(engine) as session:
        _load(session, plan_id)
        found = []
        for row in repositories.revisions(session, plan_id):
            with suppress(ValueError):  # what cannot be read is no way back
                ChainDocument.model_validate(row.dish)
                told = RevisionPublic.model_validate(row)
                dish = without_sauces(told.dish, lambda number: session.get(Sauce, number) is None)
                found.append(told.model_copy(update={"dish": dish}))
        return RevisionsPublic(revisions=found)


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
