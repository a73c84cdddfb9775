"""One implicit step of heat conduction, compiled, for use inside the loops of other rooms."""

from __future__ import annotations

from typing import Any, NamedTuple

import numpy as np
from numba import njit

from bluekettle.core.thermo.food import GRID_C0, GRID_N, GRID_STEP_C

GEOMETRY = {"slab": 0, "cylinder": 1, "sphere": 2}
_LAST = GRID_N - 2.0
KINK_C = -1.0  # where freezing begins: the enthalpy curve has a kink there


class Cells(NamedTuple):
    """Equal cells from centre to surface, per m² of surface: width [m], volumes [m³/m²] (cells,),
    and their inner and outer areas [-] (cells + 1,).
    """

    dx_m: float
    volume: Any
    area: Any


class Matter(NamedTuple):
    """Enthalpy [J/m³] and conductivity [W/mK] of a food on the property grid."""

    enthalpy: Any
    k_table: Any


class Boundary(NamedTuple):
    """What a surface exchanges with: coefficient [W/m²K], temperature [°C], a flux besides [W/m²],
    and, where the surroundings are a body that warms and cools with the food, its heat capacity
    [J/m²K] and its own heat [W/m²], both per m² of food; 0 where they are held.
    """

    h_w_m2_k: float
    env_c: float
    flux_w_m2: float
    env_j_m2_k: float
    env_w_m2: float


@njit(cache=True, error_model="numpy")
def cell_geometry(half_m: float, exponent: float, cells: int) -> Any:
    """Widths, volumes and inner and outer areas of equal cells from centre to surface, per m² of
    surface.

    `half_m` is the half-thickness or radius [m]; exponent 0, 1, 2 for slab, cylinder, sphere, and
    what lies between for a piece that heats through its ends as well.
    """
    dx = half_m / cells
    volume = np.empty(cells)
    area = np.empty(cells + 1)
    for i in range(cells + 1):
        area[i] = (i / cells) ** exponent if exponent > 0.0 else 1.0
    for i in range(cells):
        outer = ((i + 1) / cells) ** (exponent + 1)
        inner = (i / cells) ** (exponent + 1)
        volume[i] = half_m * (outer - inner) / (exponent + 1)
    if exponent <= 0.0:
        area[0] = 0.0  # the mid-plane passes nothing
    return Cells(dx, volume, area)


@njit(cache=True, error_model="numpy")
def grid_value(table: Any, temp_c: float) -> float:
    """Linear interpolation on the food property grid [unit of the table], held at its ends."""
    place = (temp_c - GRID_C0) / GRID_STEP_C
    if place < 0.0:
        place = 0.0
    if place > _LAST:
        place = _LAST
    i = int(place)
    return float(table[i] + (table[i + 1] - table[i]) * (place - i))


@njit(cache=True, error_model="numpy")
def grid_slope(table: Any, temp_c: float) -> float:
    """Slope of the same piecewise line [per K]."""
    place = (temp_c - GRID_C0) / GRID_STEP_C
    if place < 0.0:
        place = 0.0
    if place > _LAST:
        place = _LAST
    i = int(place)
    return float((table[i + 1] - table[i]) / GRID_STEP_C)


@njit(cache=True, error_model="numpy")
def step_piece(
    temp: Any, cells: Cells, food: Matter, dt_s: float, around: Boundary, work: Any
) -> Any:
    """Advance the cell temperatures `temp` [°C] in place by one backward Euler step.

    The surface exchanges with its boundary through half a cell. Where the boundary is a body, its
    temperature is one more unknown of the same system: so a little water around much food cannot
    swing. `work` has shape (5, cells + 1). Enthalpy is the conserved quantity, so latent heat needs
    no special case; Newton's method solves the step, damped because the enthalpy curve has a kink
    where freezing begins. Returns (heat taken up by the food [J/m²], temperature of the
    surroundings after the step [°C]).
    """
    volume, area, enthalpy, k_table = cells.volume, cells.area, food.enthalpy, food.k_table
    dx, h_w_m2_k, env_c = cells.dx_m, around.h_w_m2_k, around.env_c
    flux_w_m2, env_j_m2_k, env_w_m2 = around.flux_w_m2, around.env_j_m2_k, around.env_w_m2
    count = temp.size
    old_h, move, upper, rhs, diag = work[0], work[1], work[2], work[3], work[4]
    coldest = 1e9
    for i in range(count):
        coldest = min(coldest, temp[i])
        old_h[i] = grid_value(enthalpy, temp[i])
    # Conductances between cells, from the temperatures at the start of the step (first order in the
    # step).
    for i in range(count - 1):
        k = 0.5 * (grid_value(k_table, temp[i]) + grid_value(k_table, temp[i + 1]))
        upper[i] = area[i + 1] * k / dx
    surface = 0.0
    if h_w_m2_k > 0.0:
        surface = 1.0 / (1.0 / h_w_m2_k + 0.5 * dx / grid_value(k_table, temp[count - 1]))
    upper[count - 1] = surface
    free = env_j_m2_k > 0.0
    rows = count + 1 if free else count
    env_start, env = env_c, env_c
    for _ in range(40):
        for i in range(count):
            left = upper[i - 1] if i > 0 else 0.0
            beyond = temp[i + 1] if i < count - 1 else env
            flow = upper[i] * (beyond - temp[i])
            if i > 0:
                flow += left * (temp[i - 1] - temp[i])
            if i == count - 1:
                flow += flux_w_m2
            rhs[i] = dt_s * flow - volume[i] * (grid_value(enthalpy, temp[i]) - old_h[i])
            diag[i] = volume[i] * grid_slope(enthalpy, temp[i]) + dt_s * (left + upper[i])
        if free:
            flow = env_w_m2 - surface * (env - temp[count - 1])
            rhs[count] = dt_s * flow - env_j_m2_k * (env - env_start)
            diag[count] = env_j_m2_k + dt_s * surface
        # Thomas algorithm for the symmetric system with off-diagonals -dt * upper.
        for i in range(1, rows):
            factor = dt_s * upper[i - 1] / diag[i - 1]
            diag[i] -= factor * dt_s * upper[i - 1]
            rhs[i] += factor * rhs[i - 1]
        move[rows - 1] = rhs[rows - 1] / diag[rows - 1]
        for i in range(rows - 2, -1, -1):
            move[i] = (rhs[i] + dt_s * upper[i] * move[i + 1]) / diag[i]
        largest = 0.0
        for i in range(count):
            change = move[i]
            # Stop just past the kink instead of leaping over it with the slope of the other side.
            if temp[i] < KINK_C < temp[i] + change:
                change = KINK_C + 1e-6 - temp[i]
            elif temp[i] + change < KINK_C < temp[i]:
                change = KINK_C - 1e-6 - temp[i]
            temp[i] += change
            largest = max(largest, abs(change))
        if free:
            env += move[count]
        # Thawed food has a heat capacity so even that the first step of Newton is within 1e-3 of
        # the last.
        if largest < 2e-3 or coldest > 0.0:
            break
    taken = 0.0
    for i in range(count):
        taken += volume[i] * (grid_value(enthalpy, temp[i]) - old_h[i])
    return taken, env
