"""Whether a cut fits a vessel; keeps nothing."""

from __future__ import annotations

from bluekettle.core.safety import USUAL_GUIDANCE
from bluekettle.core.stages import Inside, fit_cut
from bluekettle.schemas.dish import InsideDocument
from bluekettle.schemas.kitchen import (
    FitCreate,
    FitFill,
    FitPublic,
    PlacePublic,
    VerdictPublic,
)


def inside_of(i: InsideDocument) -> Inside:
    """The core's inside."""
    depth = i.width_mm if i.shape == "round" else i.depth_mm
    return Inside(
        i.shape,
        i.width_mm / 1e3,
        depth / 1e3,
        i.height_mm / 1e3,
        i.volume_l,
        i.least_liquid_l,
        i.zones,
    )


def fit(request: FitCreate) -> FitPublic:
    """How a cut lies in a vessel."""
    inside = inside_of(request.inside)
    found = fit_cut(
        request.cut,
        request.mass_kg,
        request.pieces,
        request.thickness_mm,
        inside,
        request.touching,
        request.stacked,
        request.trivet_mm / 1e3,
        request.liquid_l,
        request.swells,
    )
    size = [round(s * 1e3, 1) for s in found.size_m]
    return FitPublic(
        length_mm=size[0],
        breadth_mm=size[1],
        height_mm=size[2],
        places=[
            PlacePublic(x_m=p.x_m, y_m=p.y_m, width_m=p.width_m, depth_m=p.depth_m)
            for p in found.places
        ],
        per_layer=found.per_layer,
        layers=found.layers,
        batches=found.batches,
        free_mm=round(found.free_m * 1e3, 1),
        fill=(
            None if found.fill is None else FitFill.model_validate(found.fill, from_attributes=True)
        ),
        verdicts=[
            VerdictPublic(level=v.level, message=v.message, repair=v.repair) for v in found.verdicts
        ],
        guidance=USUAL_GUIDANCE,
    )
