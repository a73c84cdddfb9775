"""A whole heating curve of one piece under one constant boundary: the plain form of the kernel."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.errors import Ranges
from bluekettle.core.heat.kernel import GEOMETRY, Boundary, Matter, cell_geometry, step_piece
from bluekettle.core.thermo import FoodProperties

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Conducted:
    """Temperatures of one piece over time: time [s] (n,), centre, mean [°C] (n,), heat taken up
    [J/m² surface] (n,).
    """

    time_s: Array
    centre_c: Array
    mean_c: Array
    heat_j_m2: Array


def biot_number(h_w_m2_k: float, half_m: float, k_w_m_k: float) -> float:
    """Ratio of outer to inner conductance [-]: h L / k. Raises OutOfRange for figures of no food or
    kitchen.
    """
    ranges = Ranges()
    ranges.within("h_w_m2_k", h_w_m2_k, 0.0, 1e5, "W/m²K")
    ranges.within("half_m", half_m, 0.0, 0.5, "m")
    ranges.within("k_w_m_k", k_w_m_k, 0.01, 10.0, "W/mK")
    ranges.close()
    return h_w_m2_k * half_m / k_w_m_k


def conduct(
    food: FoodProperties,
    shape: str,
    half_m: float,
    start_c: float,
    h_w_m2_k: float,
    env_c: float,
    time_s: float,
    dt_s: float = 5.0,  # step at which cooking is sampled (numerical)
    cells: int = 30,
) -> Conducted:
    """Heat or cool one piece under a constant convective boundary.

    Parameters
    ----------
    food : FoodProperties
    shape : {"slab", "cylinder", "sphere"}
    half_m : float
        Half-thickness or radius [m], 0.5 mm to 0.25 m.
    start_c, env_c : float
        Uniform start and surroundings [°C], -35 to 155.
    h_w_m2_k : float
        Heat transfer coefficient [W/m²K], 0.1 to 1e5.
    time_s, dt_s : float
        Duration and step [s].

    Returns
    -------
    Conducted
        First order in the step, second order in the cell width; within 0.5 °C of the analytic
        series for Biot 0.1 to 100 at the default step and cells
        (tests/against/test_conduction_series.py).

    Raises
    ------
    OutOfRange
        Names every argument outside its range.
    """
    ranges = Ranges()
    ranges.one_of("shape", shape, tuple(GEOMETRY))
    ranges.within("half_m", half_m, 5e-4, 0.25, "m")
    ranges.within("start_c", start_c, -35.0, 155.0, "°C")
    ranges.within("env_c", env_c, -35.0, 155.0, "°C")
    ranges.within("h_w_m2_k", h_w_m2_k, 0.1, 1e5, "W/m²K")
    ranges.within("time_s", time_s, 0.01, 1e6, "s")
    ranges.within("dt_s", dt_s, 0.01, 600.0, "s")
    ranges.within("cells", cells, 4, 200)
    ranges.close()
    grid = cell_geometry(half_m, GEOMETRY[shape], cells)
    matter = Matter(food.enthalpy_j_m3, food.k_w_m_k)
    around = Boundary(float(h_w_m2_k), float(env_c), 0.0, 0.0, 0.0)
    temp = np.full(cells, float(start_c))
    work = np.empty((5, cells + 1))
    steps = round(time_s / dt_s)
    out = np.empty((3, steps + 1))
    out[:, 0] = (start_c, start_c, 0.0)
    whole = np.sum(grid.volume)
    for n in range(steps):
        heat, _ = step_piece(temp, grid, matter, float(dt_s), around, work)
        out[:, n + 1] = (temp[0], np.sum(temp * grid.volume) / whole, out[2, n] + heat)
    return Conducted(
        np.asarray(dt_s * np.arange(steps + 1), dtype=np.float64), out[0], out[1], out[2]
    )
