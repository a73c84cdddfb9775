"""A piece of food in hot air, smoke or foil, for every member at once (compiled).

Here the air's heat and mass transfer, conduction in the piece, cook value and log reduction meet;
the skin browns by its own protein where it has dried.
"""

from __future__ import annotations

from typing import Any, NamedTuple

import numpy as np
from numba import njit

from bluekettle.core.glaze.kernel import GAS_J_MOL_K
from bluekettle.core.heat import cell_geometry
from bluekettle.core.heat.air import CRUST, LOST, SKIN, SURFACE, Air, Drying, step_air
from bluekettle.core.stages.tally import TALLIES, Death, add_step
from bluekettle.core.stages.vessel import CELLS, Run
from bluekettle.core.units import KELVIN

MAX_STEP_S = 30.0  # against 5 s throughout, cook values are up to 2 % lower
CHANGE_K = 0.3  # of the front in one step: the less it moves, the longer the steps may be
LONGER = 1.5  # times the last step at the most (numerical)


class Browning(NamedTuple):
    """Of bare skin: rate at the reference [1/s], activation energy [J/mol], reference [°C], and the
    crust from which it browns at its full pace [m].
    """

    rate_1_s: float
    ea_j_mol: float
    reference_c: float
    dry_m: float


@njit(cache=True, nogil=True, error_model="numpy")
def run_dry(
    half: Any,
    start: Any,
    h: Any,
    pressure: Any,
    boil: Any,
    power: float,
    food: Drying,
    air: Air,
    skin: Browning,
    death: Death,
    run: Run,
) -> Any:
    """Hold all members in their surroundings for `run.hold_s`, in steps of `run.base_s` and more
    where little changes.

    half, start, h, pressure, boil : (members,) half-thickness [m], start [°C], exchange with the
    air [W/m²K], pressure [Pa] and boiling point [°C]; the rest of `food` and `air` is common.
    Returns (sums (members, TALLIES) as in `add_step`, profile (members, CELLS) [°C], surface
    (members, 3): dried crust [m], browning index of the bare skin, water lost [kg/m²]; trace
    (samples, 4) of member 0: time, air, centre, mean).
    """
    members = half.size
    sums = np.zeros((members, TALLIES))
    profile = np.empty((members, CELLS))
    surface = np.zeros((members, 3))
    trace = np.full((run.samples, 4), np.nan)
    work = np.empty((5, CELLS + 1))
    for m in range(members):
        cells = cell_geometry(half[m], power, CELLS)
        whole = np.sum(cells.volume)
        piece = Drying(
            half[m],
            food.enthalpy,
            food.k_table,
            food.water_kg_m3,
            food.emissivity,
            food.crust_k_w_m_k,
            food.crust_vapour_m2_s,
            food.juice_supply_kg_m2_s,
        )
        own = Air(
            h[m],
            air.air_c,
            air.wall_c,
            air.element_w_m2,
            air.vapour_pa,
            air.wet,
            pressure[m],
            boil[m],
        )
        temp = np.full(CELLS, start[m])
        state = np.array([start[m], 0.0, 0.0, start[m]])
        index, k, clock, step = 0.0, 0, 0.0, run.base_s
        while run.hold_s - clock > 1e-6:
            step = min(step, run.hold_s - clock)
            before = state[SURFACE]
            step_air(temp, state, cells, piece, own, step, work)
            clock += step
            mean = add_step(sums[m], temp, cells.volume, whole, step, clock, death)
            dry = min(1.0, state[CRUST] / skin.dry_m)
            if dry > 0.0:
                colder = 1.0 / (state[SKIN] + KELVIN) - 1.0 / (skin.reference_c + KELVIN)
                warmth = np.exp(-skin.ea_j_mol / GAS_J_MOL_K * colder)
                index += skin.rate_1_s * warmth * dry * step
            if m == 0 and clock >= k * run.every_s and k < run.samples:
                trace[k, 0], trace[k, 1], trace[k, 2], trace[k, 3] = clock, air.air_c, temp[0], mean
                k += 1
            moved = abs(state[SURFACE] - before) / step
            longest = min(MAX_STEP_S, LONGER * step, CHANGE_K / max(moved, 1e-6))
            step = max(run.base_s, longest)
        profile[m, :] = temp
        surface[m, 0], surface[m, 1], surface[m, 2] = state[CRUST], index, state[LOST]
    return sums, profile, surface, trace
