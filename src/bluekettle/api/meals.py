"""Meals of several dishes: their plan, and those that are kept."""

from __future__ import annotations

from flask import Response
from flask_openapi import APIBlueprint, Tag

from bluekettle.api.base import (
    CHANGED,
    CONFLICT,
    FOUND,
    HEAVY,
    PREFIX,
    PROBLEMS,
    IdPath,
    IfMatch,
    PageQuery,
    engine,
    heavy,
    now,
    strips,
    tagged,
    waits,
    workshop,
)
from bluekettle.schemas.meal import (
    MealChoicesPublic,
    MealCreate,
    MealDocument,
    MealPublic,
    MealsPublic,
    MealStartCreate,
    MealStartedPublic,
    SchedulePublic,
    ScheduleQuery,
)
from bluekettle.services import kept_meals as service
from bluekettle.services import meal_cooks
from bluekettle.services import meals as meal_service
from bluekettle.services.calendar import calendar_of

blueprint = APIBlueprint("meals", __name__, url_prefix=PREFIX, abp_tags=[Tag(name="meals")])
UNREADABLE = {**FOUND, 409: FOUND[404]}
CALENDAR = {"content": {"text/calendar": {"schema": {"type": "string"}}}}


@blueprint.get("/meal-choices", responses={200: MealChoicesPublic})
def meal_choices() -> MealChoicesPublic:
    """Common sides, what can be cooked in, and made meals to begin with."""
    return meal_service.choices()


@blueprint.post("/schedules", responses={200: SchedulePublic, **HEAVY})
def schedule(query: ScheduleQuery, body: MealDocument) -> SchedulePublic:
    """Plan a meal; nothing is kept."""
    task = "first_schedule" if query.effort == "first" else "schedule"
    at = now()
    found: SchedulePublic = heavy(task, service.resolved(engine(), body, at), at)
    return found


@blueprint.post("/schedules/calendar", responses={200: CALENDAR, **HEAVY})
def calendar(body: MealDocument) -> Response:
    """The plan of a meal as a calendar (RFC 5545)."""
    at = now()
    found: SchedulePublic = heavy("schedule", service.resolved(engine(), body, at), at)
    return Response(calendar_of(found, at), mimetype="text/calendar")


@blueprint.get("/meals", responses={200: MealsPublic, **PROBLEMS})
def list_meals(query: PageQuery) -> MealsPublic:
    """A page of kept meals, newest first."""
    return service.list_meals(engine(), query.search, query.after, query.limit)


@blueprint.post("/meals", responses={201: MealPublic, **PROBLEMS})
def create_meal(body: MealCreate) -> Response:
    """Keep a meal."""
    return tagged(service.keep_meal(engine(), body.meal, now()), 201)


@blueprint.get("/meals/<int:id>", responses={200: MealPublic, **UNREADABLE})
def get_meal(path: IdPath) -> Response:
    """One meal; its ETag is its version."""
    return tagged(service.get_meal(engine(), path.id))


@blueprint.get("/meals/<int:id>/calendar", responses={200: CALENDAR, **UNREADABLE, **HEAVY})
def kept_calendar(path: IdPath) -> Response:
    """The plan of a kept meal as a calendar (RFC 5545): a later one updates the earlier."""
    found = meal_cooks.planned(engine(), path.id, workshop(), now(), waits())
    return Response(calendar_of(found, now(), f"meal-{path.id}"), mimetype="text/calendar")


@blueprint.post("/meals/<int:id>/cooks", responses={201: MealStartedPublic, **CONFLICT, **HEAVY})
def start_meal(path: IdPath, body: MealStartCreate) -> tuple[MealStartedPublic, int]:
    """Begin to cook a kept meal: each dish as a cook of its own, all of them or none."""
    return meal_cooks.start_meal(engine(), path.id, body, now(), strips()), 201


@blueprint.put("/meals/<int:id>", responses={200: MealPublic, **CHANGED, 409: FOUND[404]})
def change_meal(path: IdPath, body: MealCreate, header: IfMatch) -> Response:
    """Change a meal; with If-Match, only the version that was read."""
    return tagged(service.keep_meal(engine(), body.meal, now(), path.id, header.version))


@blueprint.delete("/meals/<int:id>", responses={204: None, **FOUND})
def drop_meal(path: IdPath) -> Response:
    """Delete a meal; the plans of its dishes stay."""
    service.drop_meal(engine(), path.id)
    return Response(status=204)
