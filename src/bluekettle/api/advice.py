"""Stateless: the explorer, advice, rescue and calibration."""

from __future__ import annotations

from flask_openapi import APIBlueprint, Tag

from bluekettle.api.base import HEAVY, PREFIX, InKitchen, cooked_in, heavy
from bluekettle.schemas.advice import (
    AdvicePublic,
    CalibrationCreate,
    CalibrationPublic,
    ExplorerPublic,
    FireCreate,
    RescueCreate,
    RescuePublic,
)

blueprint = APIBlueprint("advice", __name__, url_prefix=PREFIX, abp_tags=[Tag(name="advice")])


def fire_in(body: FireCreate, header: InKitchen) -> FireCreate:
    """One fire of a plan, in the kitchen that the request wants."""
    return body.model_copy(update={"chain": cooked_in(body.chain, header)})


@blueprint.post("/explorer", responses={200: ExplorerPublic, **HEAVY})
def explorer(body: FireCreate, header: InKitchen) -> ExplorerPublic:
    """A map of time under heat against heat or rack distance."""
    found: ExplorerPublic = heavy("explore", fire_in(body, header))
    return found


@blueprint.post("/advice", responses={200: AdvicePublic, **HEAVY})
def advice(body: FireCreate, header: InKitchen) -> AdvicePublic:
    """The widest pull window, two runners-up and the last exits."""
    found: AdvicePublic = heavy("advise", fire_in(body, header))
    return found


@blueprint.post("/rescues", responses={200: RescuePublic, **HEAVY})
def rescues(body: RescueCreate) -> RescuePublic:
    """Ways out from a seen state."""
    found: RescuePublic = heavy("rescue", body)
    return found


@blueprint.post("/calibrations", responses={200: CalibrationPublic, **HEAVY})
def calibrations(body: CalibrationCreate) -> CalibrationPublic:
    """What signs teach, before and after."""
    found: CalibrationPublic = heavy("calibrate", body)
    return found
