"""How hot an appliance's air stays with this much food in it."""

from __future__ import annotations

from bluekettle.core.heat import loaded_air_c
from bluekettle.core.stages.piece import Piece
from bluekettle.core.tables import Row

RADIANT_W_M2_K = 14.0  # between surfaces near 130 °C, 4 ε σ T³ (CODATA 2018)
WET_C = {"first": 70.0, "finish": 100.0}  # of a surface that dries, and that boils (estimated)


def held_c(dish: Piece, line: Row, dial_c: float, h_w_m2_k: float, stage: str) -> float:
    """Air [°C] that the appliance of this row holds at its dial with the dish's food in it; the
    dial itself where the table knows no power (fires outdoors, hot plates).

    stage : {"first", "finish"}; KeyError for any other.
    """
    food_c = WET_C[stage]
    if not line["power_w"] or not line["loss_w_k"]:
        return dial_c
    return loaded_air_c(
        dial_c,
        float(line["power_w"]),
        float(line["loss_w_k"]),
        h_w_m2_k + RADIANT_W_M2_K,
        dish.surface_m2(),
        food_c,
    )
