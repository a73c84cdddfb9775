"""Meals that are being cooked."""

from __future__ import annotations

from flask_openapi import APIBlueprint, Tag

from bluekettle.api.base import CONFLICT, HEAVY, PREFIX, IdPath, engine, now, strips
from bluekettle.schemas.supper import (
    SideMoveCreate,
    SideTellCreate,
    SupperChange,
    SupperPlanCreate,
    SupperPublic,
)
from bluekettle.services import suppers as service

blueprint = APIBlueprint(
    "suppers", __name__, url_prefix=PREFIX + "/suppers", abp_tags=[Tag(name="suppers")]
)


@blueprint.put("/<int:id>", responses={200: SupperPublic, **CONFLICT, **HEAVY})
def change_supper(path: IdPath, body: SupperChange) -> SupperPublic:
    """Guests who come at another moment, more or fewer hands, or what moved was read."""
    return service.change_supper(engine(), path.id, body, now(), strips())


@blueprint.post("/<int:id>/plan", responses={200: SupperPublic, **CONFLICT, **HEAVY})
def plan_rest(path: IdPath, body: SupperPlanCreate) -> SupperPublic:
    """Plan the rest of it anew, where it drifted from what was told."""
    return service.plan_rest(engine(), path.id, body.version, now(), strips())


@blueprint.post("/<int:id>/sides", responses={200: SupperPublic, **CONFLICT})
def tell_side(path: IdPath, body: SideTellCreate) -> SupperPublic:
    """A step of a side is done, or the last one was not."""
    return service.tell_side(engine(), path.id, body, now(), strips())


@blueprint.post("/<int:id>/sides/elsewhere", responses={200: SupperPublic, **CONFLICT, **HEAVY})
def move_side(path: IdPath, body: SideMoveCreate) -> SupperPublic:
    """A side goes into something else than what broke or was taken, or back."""
    return service.move_side(engine(), path.id, body, now(), strips())
