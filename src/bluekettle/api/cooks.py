"""Live cooks and the log."""

from __future__ import annotations

from typing import Any

from flask import Response
from flask_openapi import APIBlueprint, Tag

from bluekettle.api.base import (
    CONFLICT,
    FOUND,
    PREFIX,
    PROBLEMS,
    IdPath,
    InKitchen,
    PageQuery,
    cooked_in,
    engine,
    now,
    strips,
)
from bluekettle.schemas.advice import RescuePublic
from bluekettle.schemas.cook import (
    CookCreate,
    CookPublic,
    CooksPublic,
    CookSummary,
    EventCreate,
    LiveListPublic,
    LivePublic,
    OutcomeCreate,
    RehearsalChange,
)
from bluekettle.schemas.elsewhere import ElsewhereCreate, ElsewherePublic, ElsewhereQuery
from bluekettle.schemas.forecast import GlazePublic
from bluekettle.schemas.kitchen import LessonsPublic
from bluekettle.schemas.problem import Problem
from bluekettle.schemas.reading import ReadingsCreate, ReadingsPublic
from bluekettle.services import elsewhere as elsewhere_service
from bluekettle.services import log, readings, stove, teaching, telling

blueprint = APIBlueprint(
    "cooks", __name__, url_prefix=PREFIX + "/cooks", abp_tags=[Tag(name="cooks")]
)
STARTED: dict[str | int, Any] = {
    201: LivePublic,
    404: Problem,
    409: Problem,
    422: Problem,
    503: Problem,
}


@blueprint.get("", responses={200: CooksPublic, **PROBLEMS})
def list_cooks(query: PageQuery) -> CooksPublic:
    """A page of cooks, newest first."""
    return log.list_cooks(engine(), query.search, query.after, query.limit)


@blueprint.post("", responses=STARTED)
def start_cook(body: CookCreate, header: InKitchen) -> tuple[LivePublic, int]:
    """Start cooking now, or wait for the planned start. A stop wants a repair or a reason."""
    asked = body.model_copy(update={"dish": cooked_in(body.dish, header)})
    return telling.start_cook(engine(), asked, now(), strips()), 201


@blueprint.get("/live", responses={200: LiveListPublic})
def live_cooks() -> LiveListPublic:
    """All cooks under way."""
    return stove.live_cooks(engine(), now(), strips())


@blueprint.get("/<int:id>", responses={200: CookPublic, **CONFLICT})
def get_cook(path: IdPath) -> CookPublic:
    """One cook, plan against actual."""
    return log.get_cook(engine(), path.id, now(), strips())


@blueprint.delete("/<int:id>", responses={204: None, **FOUND})
def drop_cook(path: IdPath) -> Response:
    """Delete a cook; it can be restored."""
    log.drop_cook(engine(), path.id, now())
    return Response(status=204)


@blueprint.post("/<int:id>/restore", responses={200: CookSummary, **FOUND})
def restore_cook(path: IdPath) -> CookSummary:
    """Bring a deleted cook back."""
    return log.bring_back(engine(), path.id)


@blueprint.get("/<int:id>/live", responses={200: LivePublic, **CONFLICT})
def live_cook(path: IdPath) -> LivePublic:
    """Where a cook stands."""
    return log.live_cook(engine(), path.id, now(), strips())


@blueprint.get("/<int:id>/glaze", responses={200: GlazePublic, 503: Problem, **CONFLICT})
def cook_glaze(path: IdPath) -> GlazePublic:
    """The glaze strip after what was seen."""
    return log.cook_glaze(engine(), path.id, now(), strips())


@blueprint.get("/<int:id>/truth", responses={200: GlazePublic, **CONFLICT})
def true_strip(path: IdPath) -> GlazePublic:
    """How the simulated food of a rehearsal browns."""
    return log.true_strip_of(engine(), path.id, now())


@blueprint.get("/<int:id>/ways-out", responses={200: RescuePublic, 503: Problem, **CONFLICT})
def ways_out(path: IdPath) -> RescuePublic:
    """What can still be done for food under a fire that does not look right."""
    return log.ways_out(engine(), path.id, now(), strips())


@blueprint.get("/<int:id>/lessons", responses={200: LessonsPublic, 404: Problem})
def lessons(path: IdPath) -> LessonsPublic:
    """What an ended cook taught of its appliances."""
    return teaching.lessons_of(engine(), path.id, now())


@blueprint.post("/<int:id>/events", responses={201: LivePublic, **CONFLICT})
def tell(path: IdPath, body: EventCreate) -> tuple[LivePublic, int]:
    """Tell what happened."""
    return telling.tell(engine(), path.id, body, now(), strips()), 201


@blueprint.get("/<int:id>/elsewhere", responses={200: ElsewherePublic, 503: Problem, **CONFLICT})
def elsewhere(path: IdPath, query: ElsewhereQuery) -> ElsewherePublic:
    """Where the food can go when an appliance broke or was taken, or its foil tore."""
    return elsewhere_service.ways(engine(), path.id, query, now(), strips())


@blueprint.post("/<int:id>/elsewhere", responses={201: LivePublic, 503: Problem, **CONFLICT})
def leave(path: IdPath, body: ElsewhereCreate) -> tuple[LivePublic, int]:
    """Leave a heat for another. It is undone like every tap."""
    return elsewhere_service.leave(engine(), path.id, body, now(), strips()), 201


@blueprint.post("/<int:id>/readings", responses={201: ReadingsPublic, **CONFLICT})
def take_readings(path: IdPath, body: ReadingsCreate) -> tuple[ReadingsPublic, int]:
    """What outside devices read: one reading, or a batch of which all are taken or none. As
    text/csv too, with a first line that names the columns: quantity,value,at,device,site.
    """
    return readings.take_readings(engine(), path.id, body, now()), 201


@blueprint.put("/<int:id>/rehearsal", responses={200: LivePublic, **CONFLICT})
def change_rehearsal(path: IdPath, body: RehearsalChange) -> LivePublic:
    """Let a rehearsal run faster or slower, or keep it in the log."""
    return log.change_rehearsal(engine(), path.id, body, now(), strips())


@blueprint.post("/<int:id>/stop", responses={200: CookPublic, **CONFLICT})
def stop_cook(path: IdPath) -> CookPublic:
    """End a cook without a word on how it was."""
    return log.stop_cook(engine(), path.id, now(), strips())


@blueprint.put("/<int:id>/outcome", responses={200: CookPublic, **CONFLICT})
def end_cook(path: IdPath, body: OutcomeCreate) -> CookPublic:
    """End a cook with what it was like."""
    return log.end_cook(engine(), path.id, body, now(), strips())
