"""The kitchen: settings, appliances, calibration; fit and effects, which keep nothing."""

from __future__ import annotations

from flask import Response
from flask_openapi import APIBlueprint, Tag

from bluekettle.api.base import (
    CHANGED,
    CONFLICT,
    FOUND,
    PREFIX,
    PROBLEMS,
    IdPath,
    IfMatch,
    engine,
    now,
    tagged,
)
from bluekettle.schemas.kitchen import (
    ApplianceCreate,
    AppliancePublic,
    CalibratedPublic,
    FitCreate,
    FitPublic,
    KitchenPublic,
    ObservationCreate,
    SettingsDocument,
)
from bluekettle.services import fits
from bluekettle.services import kitchen as service

blueprint = APIBlueprint("kitchen", __name__, url_prefix=PREFIX, abp_tags=[Tag(name="kitchen")])


@blueprint.get("/kitchen", responses={200: KitchenPublic})
def get_kitchen() -> KitchenPublic:
    """Settings, appliances with what is assumed, kinds, and the figures that go into dishes."""
    return service.get_kitchen(engine(), now())


@blueprint.put("/kitchen/settings", responses={200: KitchenPublic, **PROBLEMS})
def change_settings(body: SettingsDocument) -> KitchenPublic:
    """Change altitude, units, hands, hours, price and gear."""
    return service.keep_settings(engine(), body, now())


@blueprint.post("/kitchen/appliances", responses={201: AppliancePublic, **PROBLEMS})
def create_appliance(body: ApplianceCreate) -> Response:
    """Keep an appliance."""
    return tagged(service.keep_appliance(engine(), body), 201)


@blueprint.put("/kitchen/appliances/<int:id>", responses={200: AppliancePublic, **CHANGED})
def change_appliance(path: IdPath, body: ApplianceCreate, header: IfMatch) -> Response:
    """Change an appliance; with If-Match, only the version that was read."""
    return tagged(service.keep_appliance(engine(), body, path.id, header.version))


@blueprint.delete("/kitchen/appliances/<int:id>", responses={204: None, **CONFLICT})
def drop_appliance(path: IdPath) -> Response:
    """Delete an appliance; refused while another shares its body."""
    service.drop_appliance(engine(), path.id)
    return Response(status=204)


@blueprint.post(
    "/kitchen/appliances/<int:id>/observations", responses={201: CalibratedPublic, **CONFLICT}
)
def observe(path: IdPath, body: ObservationCreate) -> tuple[CalibratedPublic, int]:
    """Tell a sign seen under its heat; the belief before and after."""
    return service.observe(engine(), path.id, body, now()), 201


@blueprint.delete("/kitchen/observations/<int:id>", responses={200: AppliancePublic, **FOUND})
def forget(path: IdPath) -> AppliancePublic:
    """Forget one observation; it stays in the list, marked, and teaches nothing."""
    return service.forget(engine(), path.id, now(), again=False)


@blueprint.post("/kitchen/observations/<int:id>/restore", responses={200: AppliancePublic, **FOUND})
def restore(path: IdPath) -> AppliancePublic:
    """Take a forgotten observation back in."""
    return service.forget(engine(), path.id, now(), again=True)


@blueprint.post("/fit", responses={200: FitPublic, **PROBLEMS})
def fit(body: FitCreate) -> FitPublic:
    """How a cut lies in a vessel, drawn to scale."""
    return fits.fit(body)
