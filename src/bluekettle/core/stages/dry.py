"""A piece of food in hot air, smoke or foil, for every member at once (compiled).

Here the air's heat and mass transfer, conduction in the piece, cook value and log reduction meet;
the skin browns by its own protein where it has dried.
"""

from __future__ import annotations

from typing import Any

import numpy as np
from numba import njit

from bluekettle.core.glaze.laws import left_to_brown, pace_at
from bluekettle.core.glaze.records import FilmConstants
from bluekettle.core.heat import cell_geometry
from bluekettle.core.heat.air import (
    CRUST,
    DRY,
    LOST,
    SKIN,
    SURFACE,
    Air,
    Drying,
    at_pressure,
    of_size,
    step_air,
)
from bluekettle.core.stages.tally import Brought, Death, add_step
from bluekettle.core.stages.vessel import CELLS, Run

MAX_STEP_S = 30.0  # against 5 s throughout, cook values are up to 2 % lower
CHANGE_K = 0.3  # of the front in one step: the less it moves, the longer the steps may be
OUTSIDE = 6  # figures of a surface
LONGER = 1.5  # times the last step at the most (numerical)


@njit(cache=True, nogil=True, error_model="numpy")
def run_dry(
    half: Any,
    brought: Brought,
    outside: Any,
    h: Any,
    pressure: Any,
    boil: Any,
    power: float,
    food: Drying,
    air: Air,
    skin: FilmConstants,
    skin_dry_m: float,
    death: Death,
    run: Run,
) -> Any:
    """Hold all members in their surroundings for `run.hold_s`, in steps of `run.base_s` and more
    where little changes.

    half, h, pressure, boil : (members,) half-thickness [m], exchange with the air [W/m²K], pressure
    [Pa] and boiling point [°C]; the rest of `food` and `air` is common. outside : (members, 6) the
    surface as it comes in, in the columns of the one returned.
    Returns (sums (members, TALLIES) as in `add_step`, profile (members, CELLS) [°C], surface
    (members, 6): dried crust [m], how far the bare skin has browned and charred [-], water lost
    [kg/m²], the part of the crust that is bone dry [m], the share of its water that is gone
    [-]; trace (samples, 4) of member 0: time, air, centre, mean; centres (members, samples), taken
    every `run.every_s`).

    skin : the film's constants; bare skin browns at full pace from a crust of `skin_dry_m` [m].
    """
    members = half.size
    sums = brought.sums.copy()
    profile = np.empty((members, CELLS))
    surface = np.zeros((members, OUTSIDE))
    trace = np.full((run.samples, 4), np.nan)
    centres = np.full((members, run.samples), np.nan)
    work = np.empty((5, CELLS + 1))
    for m in range(members):
        cells = cell_geometry(half[m], power, CELLS)
        whole = np.sum(cells.volume)
        piece, own = of_size(food, half[m]), at_pressure(air, h[m], pressure[m], boil[m])
        temp = brought.profile_c[m].copy()
        outer = min(temp[CELLS - 1], boil[m])
        state = np.array([outer, outside[m, 3], outside[m, 0], outer, outside[m, 4]])
        brown, char, k, clock, step = outside[m, 1], outside[m, 2], 0, 0.0, run.base_s
        while run.hold_s - clock > 1e-6:
            step = min(step, run.hold_s - clock)
            before = state[SURFACE]
            step_air(temp, state, cells, piece, own, step, work)
            clock += step
            since = brought.since_s[m] + clock
            mean = add_step(sums[m], temp, cells.volume, whole, step, since, death)
            dry_s = min(1.0, state[CRUST] / skin_dry_m) * step
            if dry_s > 0.0:
                c = state[SKIN]
                pace = pace_at(c, skin.brown_ea_j_mol, skin.brown_reference_c) * dry_s
                left = left_to_brown(brown, skin.brown_protein_most)
                brown += skin.protein_rate_1_s * left * pace
                hot = pace_at(c, skin.char_ea_j_mol, skin.char_reference_c)
                char += skin.char_rate_1_s * hot * dry_s
            if clock >= k * run.every_s and k < run.samples:
                centres[m, k] = temp[0]
                if m == 0:
                    trace[k, 0], trace[k, 1] = clock, air.air_c
                    trace[k, 2], trace[k, 3] = temp[0], mean
                k += 1
            moved = abs(state[SURFACE] - before) / step
            longest = min(MAX_STEP_S, LONGER * step, CHANGE_K / max(moved, 1e-6))
            step = max(run.base_s, longest)
        profile[m, :] = temp
        surface[m, 0], surface[m, 1], surface[m, 2] = state[CRUST], brown, char
        surface[m, 3], surface[m, 4] = state[LOST], state[DRY]
        surface[m, 5] = min(1.0, state[LOST] / (food.water_kg_m3 * whole))
    return sums, profile, surface, trace, centres
