"""Live cooks and the log."""

from __future__ import annotations

from flask_openapi import APIBlueprint, Tag

from bluekettle.api.base import FOUND, PREFIX, PROBLEMS, IdPath, engine, now
from bluekettle.schemas.cook import (
    CookCreate,
    CookPublic,
    CooksPublic,
    EventCreate,
    LivePublic,
    OutcomeCreate,
)
from bluekettle.schemas.forecast import GlazePublic
from bluekettle.schemas.problem import Problem
from bluekettle.services import cooks as service

blueprint = APIBlueprint(
    "cooks", __name__, url_prefix=PREFIX + "/cooks", abp_tags=[Tag(name="cooks")]
)


@blueprint.get("", responses={200: CooksPublic})
def list_cooks() -> CooksPublic:
    """All cooks, newest first."""
    return service.list_cooks(engine())


@blueprint.post("", responses={201: LivePublic, **PROBLEMS})
def start_cook(body: CookCreate) -> tuple[LivePublic, int]:
    """Start cooking now."""
    return service.start_cook(engine(), body, now()), 201


@blueprint.get("/<int:id>", responses={200: CookPublic, **FOUND})
def get_cook(path: IdPath) -> CookPublic:
    """One cook, plan against actual."""
    return service.get_cook(engine(), path.id)


@blueprint.get("/<int:id>/live", responses={200: LivePublic, **FOUND})
def live_cook(path: IdPath) -> LivePublic:
    """Where a cook stands."""
    return service.live_cook(engine(), path.id, now())


@blueprint.get("/<int:id>/glaze", responses={200: GlazePublic, **FOUND})
def cook_glaze(path: IdPath) -> GlazePublic:
    """The glaze strip after what was seen."""
    return service.cook_glaze(engine(), path.id, now())


@blueprint.post("/<int:id>/events", responses={201: LivePublic, 409: Problem, **FOUND})
def tell(path: IdPath, body: EventCreate) -> tuple[LivePublic, int]:
    """Tell what happened."""
    return service.tell(engine(), path.id, body, now()), 201


@blueprint.put("/<int:id>/outcome", responses={200: CookPublic, **FOUND})
def end_cook(path: IdPath, body: OutcomeCreate) -> CookPublic:
    """End a cook with what it was like."""
    return service.end_cook(engine(), path.id, body, now())
