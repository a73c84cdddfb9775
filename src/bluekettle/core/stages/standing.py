"""A piece that stands in the room, or has a fire on one side, for every member at once
(compiled).
"""

from __future__ import annotations

from typing import Any

import numpy as np
from numba import njit

from bluekettle.core.heat import Boundary, Matter, cell_geometry, step_piece
from bluekettle.core.heat.air import SURFACE, Air, Drying, at_pressure, of_size, step_air
from bluekettle.core.stages.tally import Brought, Death, add_step
from bluekettle.core.stages.vessel import CELLS

FIRST_STEP_S, LONGER = 0.5, 1.25  # and how steps grow: surfaces within 0.5 K of a tenth (numerical)


@njit(cache=True, nogil=True, error_model="numpy")
def carry_over(
    brought: Brought,
    half: Any,
    crust: Any,
    seconds: Any,
    pressure: Any,
    boil: Any,
    power: float,
    food: Drying,
    air: Air,
    death: Death,
    longest_s: float,
) -> Any:
    """Let each member stand for its own time in `air`; returns the new profiles (members, CELLS),
    the peaks in the middle and the surfaces (members,) [°C], and the sums (members, TALLIES).

    half, crust : (members,) half-thickness and dried crust [m]; pressure and boil : (members,) [Pa]
    and [°C]. A moist surface steams, and so cools faster than any dry one; the steps are short
    while it does, and at most `longest_s`.
    """
    out, sums = brought.profile_c.copy(), brought.sums.copy()
    peak, surface = np.empty(half.size), np.empty(half.size)
    work = np.empty((5, CELLS + 1))
    for m in range(half.size):
        cells = cell_geometry(half[m], power, CELLS)
        whole = np.sum(cells.volume)
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
            since = brought.since_s[m] + clock
            add_step(sums[m], temp, cells.volume, whole, step, since, death)
            step = min(longest_s, LONGER * step)
        surface[m] = state[SURFACE]
    return out, peak, surface, sums


@njit(cache=True, nogil=True, error_model="numpy")
def fold_halves(temp: Any, both: Any) -> None:
    """The mean of the two halves of a piece, cell by cell from the middle out, into `both` [°C]."""
    for i in range(CELLS):
        both[i] = 0.5 * (temp[CELLS + i] + temp[CELLS - 1 - i])


@njit(cache=True, nogil=True, error_model="numpy")
def heat_one_side(
    brought: Brought,
    half: Any,
    seconds: Any,
    turns: Any,
    rest_s: float,
    food: Matter,
    fire: Boundary,
    room: Boundary,
    death: Death,
    dt: float,
) -> Any:
    """One broad face under a heat for its own time, and then at rest: the other face neither gains
    nor loses. Hottest that the middle gets [°C] (members,), the profile after it, both halves
    together (members, CELLS), and the sums (members, TALLIES).

    brought : its profile the same both ways; half : (members,) half-thickness [m]; turns : moments
    [s] at which the faces change places.
    """
    sums, out = brought.sums.copy(), np.empty(brought.profile_c.shape)
    both = np.empty(CELLS)
    peak = np.empty(half.size)
    work = np.empty((5, 2 * CELLS + 1))
    temp = np.empty(2 * CELLS)
    for m in range(half.size):
        cells = cell_geometry(2.0 * half[m], 0.0, 2 * CELLS)
        for i in range(CELLS):
            temp[CELLS + i] = brought.profile_c[m, i]
            temp[CELLS - 1 - i] = brought.profile_c[m, i]
        peak[m] = temp[CELLS]
        whole = np.sum(cells.volume[CELLS:])
        steps = int(np.ceil(seconds[m] / dt))
        clock, turned = 0.0, 0
        for _ in range(steps):
            while turned < turns.size and clock >= turns[turned]:
                temp[:] = temp[::-1].copy()
                turned += 1
            step = seconds[m] / steps
            step_piece(temp, cells, food, step, fire, work)
            clock += step
            fold_halves(temp, both)
            peak[m] = max(peak[m], both[0])
            since = brought.since_s[m] + clock
            add_step(sums[m], both, cells.volume[CELLS:], whole, step, since, death)
        steps = int(np.ceil(rest_s / dt))
        for _ in range(steps):
            step = rest_s / steps
            step_piece(temp, cells, food, step, room, work)
            clock += step
            fold_halves(temp, both)
            peak[m] = max(peak[m], both[0])
            since = brought.since_s[m] + clock
            add_step(sums[m], both, cells.volume[CELLS:], whole, step, since, death)
        fold_halves(temp, both)
        out[m, :] = both
    return peak, out, sums
