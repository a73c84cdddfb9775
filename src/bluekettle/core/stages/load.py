"""How hot an appliance's air stays with this much food in it."""

from __future__ import annotations

from bluekettle.core.heat import loaded_air_c
from bluekettle.core.stages.appliances import ApplianceKind
from bluekettle.core.stages.piece import Piece

RADIANT_W_M2_K = 14.0  # between surfaces near 130 °C, 4 ε σ T³ (CODATA 2018)
WET_C = {"first": 70.0, "finish": 100.0}  # of a surface that dries, and that boils (estimated)


def held_c(dish: Piece, kind: ApplianceKind, dial_c: float, h_w_m2_k: float, stage: str) -> float:
    """Air [°C] that an appliance of this kind holds at its dial with the dish's food in it; the
    dial itself where the table knows no power (fires outdoors, hot plates).

    stage : {"first", "finish"}; KeyError for any other.
    """
    food_c = WET_C[stage]
    if kind.power_w is None or kind.loss_w_k is None:
        return dial_c
    return loaded_air_c(
        dial_c,
        kind.power_w,
        kind.loss_w_k,
        h_w_m2_k + RADIANT_W_M2_K,
        dish.surface_m2(),
        food_c,
    )
