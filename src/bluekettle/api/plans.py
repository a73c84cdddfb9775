"""Kept plans."""

from __future__ import annotations

from flask import Response
from flask_openapi import APIBlueprint, Tag

from bluekettle.api.base import (
    CHANGED,
    FOUND,
    PREFIX,
    PROBLEMS,
    IdPath,
    IfMatch,
    PageQuery,
    engine,
    now,
    tagged,
)
from bluekettle.schemas.plan import PlanCreate, PlanPublic, PlansPublic, RevisionsPublic
from bluekettle.services import plans as service

blueprint = APIBlueprint(
    "plans", __name__, url_prefix=PREFIX + "/plans", abp_tags=[Tag(name="plans")]
)


@blueprint.get("", responses={200: PlansPublic, **PROBLEMS})
def list_plans(query: PageQuery) -> PlansPublic:
    """A page of kept plans, newest first."""
    return service.list_plans(engine(), query.search, query.after, query.limit)


@blueprint.post("", responses={201: PlanPublic, **PROBLEMS})
def create_plan(body: PlanCreate) -> Response:
    """Keep a plan."""
    return tagged(service.keep_plan(engine(), body.dish, now()), 201)


@blueprint.get("/<int:id>", responses={200: PlanPublic, **FOUND})
def get_plan(path: IdPath) -> Response:
    """One plan; its ETag is its version."""
    return tagged(service.get_plan(engine(), path.id))


@blueprint.put("/<int:id>", responses={200: PlanPublic, **CHANGED})
def change_plan(path: IdPath, body: PlanCreate, header: IfMatch) -> Response:
    """Change a plan; with If-Match, only the version that was read."""
    return tagged(service.keep_plan(engine(), body.dish, now(), path.id, header.version))


@blueprint.get("/<int:id>/revisions", responses={200: RevisionsPublic, **FOUND})
def list_revisions(path: IdPath) -> RevisionsPublic:
    """What a plan was before it was changed, newest first."""
    return service.list_revisions(engine(), path.id)


@blueprint.delete("/<int:id>", responses={204: None, **FOUND})
def drop_plan(path: IdPath) -> Response:
    """Delete a plan."""
    service.drop_plan(engine(), path.id)
    return Response(status=204)
