"""A piece that stands in the room, or has a fire on one side, for every member at once
(compiled).
"""

from __future__ import annotations

from typing import Any

import numpy as np
from numba import njit

from bluekettle.core.heat import Boundary, Matter, cell_geometry, step_piece
from bluekettle.core.heat.air import SURFACE, Air, Drying, at_pressure, of_size, step_air
from bluekettle.core.stages.vessel import CELLS

FIRST_STEP_S, LONGER = 0.5, 1.25  # and how steps grow: surfaces within 0.5 K of a tenth (numerical)


@njit(cache=True, nogil=True, error_model="numpy")
def carry_over(
    profile: Any,
    half: Any,
    crust: Any,
    seconds: Any,
    pressure: Any,
    boil: Any,
    power: float,
    food: Drying,
    air: Air,
    longest_s: float,
) -> Any:
    """Let each member's profile (members, CELLS) [°C] stand for its own time in `air`; returns the
    new profiles, the peaks in the middle, and the surfaces (members,) [°C].

    half, crust : (members,) half-thickness and dried crust [m]; pressure and boil : (members,) [Pa]
    and [°C]. A moist surface steams, and so cools faster than any dry one; the steps are short
    while it does, and at most `longest_s`.
    """
    out = profile.copy()
    peak, surface = np.empty(half.size), np.empty(half.size)
    work = np.empty((5, CELLS + 1))
    for m in range(half.size):
        cells = cell_geometry(half[m], power, CELLS)
        piece, own = of_size(food, half[m]), at_pressure(air, air.h_w_m2_k, pressure[m], boil[m])
        temp = out[m]
        state = np.array([min(temp[CELLS - 1], boil[m]), 0.0, crust[m], temp[CELLS - 1], 0.0])
        peak[m] = temp[0]
        clock, step = 0.0, FIRST_STEP_S
        while seconds[m] - clock > 1e-6:
            step = min(step, seconds[m] - clock)
            step_air(temp, state, cells, piece, own, step, work)
            peak[m] = max(peak[m], temp[0])
            clock += step
            step = min(longest_s, LONGER * step)
        surface[m] = state[SURFACE]
    return out, peak, surface


@njit(cache=True, nogil=True, error_model="numpy")
def heat_one_side(
    profile: Any,
    half: Any,
    seconds: Any,
    turns: Any,
    rest_s: float,
    food: Matter,
    fire: Boundary,
    room: Boundary,
    dt: float,
) -> Any:
    """Hottest that the middle gets [°C] (members,) where one broad face is under a heat for its own
    time and the piece then rests: the other face neither gains nor loses.

    profile : (members, CELLS) [°C] from the middle out, the same both ways at the start; half :
    (members,) half-thickness [m]; turns : moments [s] at which the faces change places.
    """
    peak = np.empty(half.size)
    work = np.empty((5, 2 * CELLS + 1))
    temp = np.empty(2 * CELLS)
    for m in range(half.size):
        cells = cell_geometry(2.0 * half[m], 0.0, 2 * CELLS)
        for i in range(CELLS):
            temp[CELLS + i] = profile[m, i]
            temp[CELLS - 1 - i] = profile[m, i]
        peak[m] = temp[CELLS]
        steps = int(np.ceil(seconds[m] / dt))
        clock, turned = 0.0, 0
        for _ in range(steps):
            while turned < turns.size and clock >= turns[turned]:
                temp[:] = temp[::-1].copy()
                turned += 1
            step_piece(temp, cells, food, seconds[m] / steps, fire, work)
            clock += seconds[m] / steps
            peak[m] = max(peak[m], 0.5 * (temp[CELLS - 1] + temp[CELLS]))
        steps = int(np.ceil(rest_s / dt))
        for _ in range(steps):
            step_piece(temp, cells, food, rest_s / steps, room, work)
            peak[m] = max(peak[m], 0.5 * (temp[CELLS - 1] + temp[CELLS]))
    return peak
