"""Stateless: the explorer, advice, rescue and calibration."""

from __future__ import annotations

from flask_openapi import APIBlueprint, Tag

from bluekettle.api.base import PREFIX, PROBLEMS
from bluekettle.schemas.advice import (
    AdvicePublic,
    CalibrationCreate,
    CalibrationPublic,
    ExplorerPublic,
    RescueCreate,
    RescuePublic,
)
from bluekettle.schemas.dish import DishDocument
from bluekettle.services import advice as service

blueprint = APIBlueprint("advice", __name__, url_prefix=PREFIX, abp_tags=[Tag(name="advice")])


@blueprint.post("/explorer", responses={200: ExplorerPublic, **PROBLEMS})
def explorer(body: DishDocument) -> ExplorerPublic:
    """A map of time under heat against heat or rack distance."""
    return service.explore_dish(body)


@blueprint.post("/advice", responses={200: AdvicePublic, **PROBLEMS})
def advice(body: DishDocument) -> AdvicePublic:
    """The widest pull window, two runners-up and the last exits."""
    return service.advise_dish(body)


@blueprint.post("/rescues", responses={200: RescuePublic, **PROBLEMS})
def rescues(body: RescueCreate) -> RescuePublic:
    """Ways out from a seen state."""
    return service.rescue_dish(body)


@blueprint.post("/calibrations", responses={200: CalibrationPublic, **PROBLEMS})
def calibrations(body: CalibrationCreate) -> CalibrationPublic:
    """What signs teach, before and after."""
    return service.calibrate(body)
