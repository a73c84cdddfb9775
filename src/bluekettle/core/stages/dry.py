"""A piece of food in hot air, smoke or foil, for every member at once (compiled).

Here the air's heat and mass transfer, conduction in the piece, cook value and log reduction meet;
the skin browns by its own protein where it has dried.
"""

from __future__ import annotations

from typing import Any

import numpy as np
from numba import njit

from bluekettle.core.glaze.kernel import GAS_J_MOL_K
from bluekettle.core.heat import cell_geometry
from bluekettle.core.heat.air import CRUST, LOST, SKIN, SURFACE, step_air
from bluekettle.core.stages.tally import TALLIES, add_step
from bluekettle.core.stages.vessel import CELLS
from bluekettle.core.units import KELVIN

MAX_STEP_S = 30.0  # against 5 s throughout, cook values are up to 2 % lower
CHANGE_K = 0.3  # of the front in one step: the less it moves, the longer the steps may be


@njit(cache=True, nogil=True, error_model="numpy")
def run_dry(
    half: Any,
    start: Any,
    h: Any,
    exponent: int,
    enthalpy: Any,
    k_table: Any,
    water_kg_m3: float,
    air_c: float,
    wall_c: float,
    element: float,
    vapour_pa: float,
    wet: bool,
    pressure: float,
    boil_c: float,
    emissivity: float,
    crust_k: float,
    crust_d: float,
    supply_0: float,
    brown_rate: float,
    brown_ea: float,
    reference_c: float,
    skin_dry_m: float,
    d60_min: float,
    z_c: float,
    hold_s: float,
    dt: float,
    every_s: float,
    samples: int,
) -> Any:
    """Hold all members in their surroundings for `hold_s`, in steps of `dt` [s] and more where
    little changes.

    half, start, h : (members,) half-thickness [m], start [°C], exchange with the air [W/m²K].
    Returns (sums (members, TALLIES) as in `add_step`, profile (members, CELLS) [°C], surface
    (members, 3): dried crust [m], browning index of the bare skin, water lost [kg/m²]; trace
    (samples, 4) of member 0: time, air, centre, mean).
    """
    members = half.size
    sums = np.zeros((members, TALLIES))
    profile = np.empty((members, CELLS))
    surface = np.zeros((members, 3))
    trace = np.full((samples, 4), np.nan)
    work = np.empty((5, CELLS + 1))
    for m in range(members):
        dx, volume, area = cell_geometry(half[m], exponent, CELLS)
        whole = np.sum(volume)
        temp = np.full(CELLS, start[m])
        state = np.array([start[m], 0.0, 0.0, start[m]])
        index, k, clock, step = 0.0, 0, 0.0, dt
        while hold_s - clock > 1e-6:
            step = min(step, hold_s - clock)
            before = state[SURFACE]
            step_air(
                temp,
                state,
                dx,
                volume,
                area,
                enthalpy,
                k_table,
                water_kg_m3,
                half[m],
                h[m],
                air_c,
                wall_c,
                element,
                vapour_pa,
                wet,
                pressure,
                boil_c,
                emissivity,
                crust_k,
                crust_d,
                supply_0,
                step,
                work,
            )
            clock += step
            mean = add_step(sums[m], temp, volume, whole, step, clock, d60_min, z_c, 0.0)
            dry = min(1.0, state[CRUST] / skin_dry_m)
            if dry > 0.0:
                colder = 1.0 / (state[SKIN] + KELVIN) - 1.0 / (reference_c + KELVIN)
                index += brown_rate * np.exp(-brown_ea / GAS_J_MOL_K * colder) * dry * step
            if m == 0 and clock >= k * every_s and k < samples:
                trace[k, 0], trace[k, 1], trace[k, 2], trace[k, 3] = clock, air_c, temp[0], mean
                k += 1
            moved = abs(state[SURFACE] - before) / step
            step = max(dt, min(MAX_STEP_S, 1.5 * step, CHANGE_K / max(moved, 1e-6)))
        profile[m, :] = temp
        surface[m, 0], surface[m, 1], surface[m, 2] = state[CRUST], index, state[LOST]
    return sums, profile, surface, trace
