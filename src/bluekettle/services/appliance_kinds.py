"""Kinds of appliances as they are told, and what an appliance shows of its kind."""

from __future__ import annotations

from bluekettle.core.stages import ApplianceKind, appliance_kind
from bluekettle.schemas.kitchen import FigurePublic, KindPublic
from bluekettle.services.learning import FIGURES
from bluekettle.store.tables import Appliance

# Column, words, unit, column of the kind, and how many of that unit one is.
SHOWN = (
    ("power_w", "heats with", "W", "power_w", 1.0),
    ("volume_l", "holds", "L", "volume_l", 1.0),
    ("gauge_kpa", "pressure", "kPa", "gauge_kpa", 1.0),
    ("element_w_m2", "element, on the food at 15 cm", "W/m²", "element_w_m2", 1.0),
    ("setting_c", "set at", "°C", "air_c", 1.0),
    ("top_c", "goes up to", "°C", "top_c", 1.0),
    ("preheat_s", "heats up in", "min", "preheat_s", 1.0 / 60.0),
    ("width_m", "inside, width", "mm", "width_m", 1e3),
    ("depth_m", "inside, depth", "mm", "depth_m", 1e3),
    ("height_m", "inside, height", "mm", "height_m", 1e3),
)


def kind_public(key: str) -> KindPublic:
    """A kind with its typical figures."""
    kind = appliance_kind(key)
    return KindPublic(
        key=key,
        name=kind.name,
        type=kind.type,
        figures=shown(Appliance(kind=key, name="", in_use=True, words={}), kind),
    )


def shown(kept: Appliance, kind: ApplianceKind) -> list[FigurePublic]:
    """Figures that this kind has, stated or typical."""
    found = []
    becomes = FIGURES.get(kind.type, {})
    for column, label, unit, typical, factor in SHOWN:
        stated, usual = getattr(kept, column), getattr(kind, typical)
        if stated is None and usual is None:
            continue
        if column == "setting_c" and kind.type == "broiler":
            continue
        if column in ("element_w_m2", "preheat_s") and not usual and stated is None:
            continue  # has none; or its heating up is computed
        round_inside = (kept.shape or kind.shape) == "round"
        if column == "depth_m" and round_inside:
            continue
        if column == "width_m" and round_inside:
            label = "inside, across"
        value = float(usual if stated is None else stated)
        found.append(
            FigurePublic(
                name=column,
                label=label,
                value=round(value * factor, 3),
                unit=unit,
                assumed=stated is None,
                figure=becomes.get(column),
            )
        )
    return found


def mm_of(stated: float | None, typical: float | None) -> float:
    """A size in mm, 0 where neither is known."""
    return round(1e3 * (stated if stated is not None else typical or 0.0), 1)
