"""Laws of a surface that stand alone: how it browns and chars, what holds that back, its own steam
and juice, and when a milestone is passed within a step (compiled).
"""

from __future__ import annotations

from typing import Any

import numpy as np
from numba import njit

from bluekettle.core.glaze.records import BROWNED, CHARRED, CLEAR
from bluekettle.core.thermo.steam import VAPOUR_J_KG_K, psat_grid_pa
from bluekettle.core.units import KELVIN

GAS_J_MOL_K = 8.314462  # gas constant, CODATA 2018
# rho cp of hot humid air at film temperature, with Lewis number near 1 (typical, estimated)
AIR_J_M3_K = 950.0
AIR_VAPOUR_PA = 3000.0  # vapour in a vented hot cavity (typical, estimated)


@njit(cache=True, error_model="numpy")
def wetness_factor(water_fraction: float, half: float) -> float:
    """How far water holds browning back [-]: 1 dry, a half at the reference fraction."""
    ratio = water_fraction / half
    return 1.0 / (1.0 + ratio * ratio)


@njit(cache=True, error_model="numpy")
def pace_at(temp_c: float, ea_j_mol: float, reference_c: float) -> float:
    """How fast a reaction runs against its rate at the reference [-], by Arrhenius."""
    colder = 1.0 / (temp_c + KELVIN) - 1.0 / (reference_c + KELVIN)
    return float(np.exp(-ea_j_mol / GAS_J_MOL_K * colder))


@njit(cache=True, error_model="numpy")
def left_to_brown(browned: float, most: float) -> float:
    """Share of what can brown that is still there [-]: its index tends to `most` and stays."""
    return max(0.0, 1.0 - browned / most)


@njit(cache=True, error_model="numpy")
def own_steam(
    below_c: float, crust_m: float, h_vented: float, crust_d: float, pressure: float
) -> float:
    """Water of the food itself that leaves through its dried layer by diffusion [kg/m²s]."""
    partial = min(
        psat_grid_pa(below_c),
        0.97 * pressure,  # never quite the boiling point (numerical)
    )  # short of the logarithm's pole (numerical)
    drive = np.log((pressure - AIR_VAPOUR_PA) / (pressure - partial))
    resist = AIR_J_M3_K / h_vented + crust_m / crust_d
    return float(max(0.0, pressure / (VAPOUR_J_KG_K * (below_c + KELVIN)) * drive / resist))


@njit(cache=True, error_model="numpy")
def note_setting(
    times: Any,
    t: float,
    step: float,
    before_c: float,
    film_c: float,
    wet_before: float,
    wet_fraction: float,
    boil_c: float,
    set_water_fraction: float,
) -> None:
    """When the film sets (at a water fraction), and when it bubbles [s under the heat], within the
    step.
    """
    after = t + step
    if times[0] == np.inf and wet_fraction < set_water_fraction:
        dried, over = wet_before - wet_fraction, wet_before - set_water_fraction
        times[0] = t + (step * over / dried if dried > over > 0.0 else step)
    if times[1] == np.inf and film_c > boil_c and times[0] < np.inf:
        rise = film_c - before_c
        over = film_c - boil_c
        late = over / rise * step if rise > over > 0.0 else 0.0
        times[1] = max(after - late, times[0])


@njit(cache=True, error_model="numpy")
def note_colours(
    times: Any,
    t: float,
    step: float,
    seen: float,
    seen_before: float,
    worst: float,
    worst_before: float,
    marks: Any,
) -> None:
    """When the top layer is amber and mahogany, and the worst one bitter and burnt [s under the
    heat], within the step.
    """
    for j in range(4):
        now, before = (seen, seen_before) if j < 2 else (worst, worst_before)
        if times[2 + j] == np.inf and now >= marks[j]:
            part = (marks[j] - before) / (now - before) if now > before else 1.0
            times[2 + j] = t + step * min(1.0, max(0.0, part))


@njit(cache=True, error_model="numpy")
def seen_and_worst(layers: Any, laid: int, shows: float) -> Any:
    """Index of the colour that is seen and of the worst layer [-].

    Every coat adds its own colour to what shows through it of the coats below.
    What is dark enough shows through whatever lies on it, the food itself too: so mahogany never
    comes after bitter.
    """
    worst = layers[0, BROWNED] + layers[0, CHARRED]
    seen = worst if laid == 0 else 0.0
    for i in range(1, laid + 1):
        own = layers[i, BROWNED] + layers[i, CHARRED]
        seen = own + layers[i, CLEAR] * seen
        worst = max(worst, own)
    return max(seen, worst - shows), worst
