"""Kept plans."""

from __future__ import annotations

from flask_openapi import APIBlueprint, Tag

from bluekettle.api.base import FOUND, PREFIX, PROBLEMS, IdPath, engine, now
from bluekettle.schemas.cook import PlanCreate, PlanPublic, PlansPublic
from bluekettle.services import plans as service

blueprint = APIBlueprint(
    "plans", __name__, url_prefix=PREFIX + "/plans", abp_tags=[Tag(name="plans")]
)


@blueprint.get("", responses={200: PlansPublic})
def list_plans() -> PlansPublic:
    """Kept plans, newest first."""
    return service.list_plans(engine())


@blueprint.post("", responses={201: PlanPublic, **PROBLEMS})
def create_plan(body: PlanCreate) -> tuple[PlanPublic, int]:
    """Keep a dish."""
    return service.keep_plan(engine(), body.dish, now()), 201


@blueprint.get("/<int:id>", responses={200: PlanPublic, **FOUND})
def get_plan(path: IdPath) -> PlanPublic:
    """One plan."""
    return service.get_plan(engine(), path.id)


@blueprint.put("/<int:id>", responses={200: PlanPublic, **FOUND})
def change_plan(path: IdPath, body: PlanCreate) -> PlanPublic:
    """Change a plan."""
    return service.keep_plan(engine(), body.dish, now(), path.id)


@blueprint.delete("/<int:id>", responses={204: None, **FOUND})
def drop_plan(path: IdPath) -> tuple[str, int]:
    """Delete a plan."""
    service.drop_plan(engine(), path.id)
    return "", 204
