"""A piece of food in hot air: conduction inside, and at its surface evaporation that fades as a
drying front recedes.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, NamedTuple

import numpy as np
from numba import njit
from numpy.typing import NDArray

from bluekettle.core.errors import Ranges
from bluekettle.core.heat.body import MOST_POWER
from bluekettle.core.heat.kernel import GEOMETRY, Boundary, Cells, Matter, cell_geometry, step_piece
from bluekettle.core.heat.surroundings import Surroundings
from bluekettle.core.tables import value
from bluekettle.core.thermo import FoodProperties, ambient_pressure_pa, saturation_temp_c
from bluekettle.core.thermo.steam import VAPOUR_J_KG_K, latent_heat_j_kg, psat_grid_pa
from bluekettle.core.units import KELVIN

Array = NDArray[np.float64]

SIGMA = 5.670374e-8  # Stefan-Boltzmann, CODATA 2018
AIR_J_M3_K = 950.0  # rho cp of hot humid air, Lewis number near 1 (typical, estimated)
# share of a piece's water that can come to its surface before it is dry (typical, estimated)
FREE_WATER = 0.45
HELD_W_M2_K = 1e5  # so strong an exchange holds a surface at its temperature (numerical)

SURFACE, LOST, CRUST, SKIN, DRY = range(5)


class Drying(NamedTuple):
    """A piece that may dry: half-thickness [m], property tables, water [kg/m³], and of its surface
    emissivity [-], conductivity [W/mK] and vapour diffusivity [m²/s] of dried crust, and the juice
    that reaches it from within [kg/m²s].
    """

    half_m: float
    enthalpy: Any
    k_table: Any
    water_kg_m3: float
    emissivity: float
    crust_k_w_m_k: float
    crust_vapour_m2_s: float
    juice_supply_kg_m2_s: float


class Air(NamedTuple):
    """What surrounds it: exchange [W/m²K], air and wall [°C], absorbed element flux [W/m²], vapour
    [Pa]; whether nothing evaporates; pressure [Pa] and boiling point [°C].
    """

    h_w_m2_k: float
    air_c: float
    wall_c: float
    element_w_m2: float
    vapour_pa: float
    wet: bool
    pressure_pa: float
    boil_c: float


@njit(cache=True, nogil=True, error_model="numpy")
def of_size(food: Drying, half_m: float) -> Drying:
    """The same food in a piece of another half-thickness [m]."""
    return Drying(
        half_m,
        food.enthalpy,
        food.k_table,
        food.water_kg_m3,
        food.emissivity,
        food.crust_k_w_m_k,
        food.crust_vapour_m2_s,
        food.juice_supply_kg_m2_s,
    )


@njit(cache=True, nogil=True, error_model="numpy")
def at_pressure(air: Air, h_w_m2_k: float, pressure_pa: float, boil_c: float) -> Air:
    """The same air with another exchange [W/m²K], pressure [Pa] and boiling point [°C]."""
    return Air(
        h_w_m2_k,
        air.air_c,
        air.wall_c,
        air.element_w_m2,
        air.vapour_pa,
        air.wet,
        pressure_pa,
        boil_c,
    )


@njit(cache=True, nogil=True, error_model="numpy")
def step_air(
    temp: Any, state: Any, cells: Cells, food: Drying, air: Air, dt: float, work: Any
) -> float:
    """Advance one piece by a step in place; returns the heat it took up [J/m²].

    state (5,): temperature of the evaporating front [°C], water lost [kg/m²], dried crust over it
    [m], the skin's own temperature [°C], which a crust lets rise above the front's, and how much of
    the crust is bone dry [m]: what was never hotter than boiling keeps the water bound in it.
    """
    h = air.h_w_m2_k
    c, half_m = food, food.half_m
    surface, lost, crust = state[SURFACE], state[LOST], state[CRUST]
    free = FREE_WATER * c.water_kg_m3 * np.sum(cells.volume)
    kelvin = surface + KELVIN
    radiant, radiant_slope = 0.0, 0.0
    if not air.wet:  # what is wrapped or under water sees no wall; its h is of all exchange
        radiant = c.emissivity * SIGMA * ((air.wall_c + KELVIN) ** 4 - kelvin**4) + air.element_w_m2
        radiant_slope = 4.0 * c.emissivity * SIGMA * kelvin**3
    rate, rate_slope = 0.0, 0.0
    latent = latent_heat_j_kg(surface)
    if not air.wet:
        # Vapour leaves the front by diffusion through the dried layer and then by the air's own
        # mass transfer.
        partial = min(psat_grid_pa(surface), 0.98 * air.pressure_pa)
        resist = AIR_J_M3_K / h + crust / c.crust_vapour_m2_s
        unit = air.pressure_pa / (VAPOUR_J_KG_K * kelvin) / resist
        rate = max(
            0.0,
            unit
            * np.log(
                # never quite the boiling point (numerical)
                (air.pressure_pa - min(air.vapour_pa, 0.97 * air.pressure_pa))
                / (air.pressure_pa - partial)
            ),
        )
        rate_slope = (
            unit
            / (air.pressure_pa - partial)
            * partial
            * latent
            / (VAPOUR_J_KG_K * kelvin * kelvin)
        )
    # The dried layer stands between air and front: outer exchange in series with it.
    outer = h + radiant_slope
    through = 1.0 / (1.0 / outer + crust / c.crust_k_w_m_k)
    share = through / outer
    inward = share * (h * (air.air_c - surface) + radiant)
    drive = inward - latent * rate
    slope = through + latent * rate_slope
    # The net flux, linear about the surface as it was: an exchange of coefficient `slope` with
    # `env`.
    outer_c = surface + drive / slope
    if surface >= air.boil_c - 0.01 and drive > 0.0:
        # Held at boiling by its own water: the food takes what conduction carries off, the rest
        # leaves as steam.
        slope, outer_c = HELD_W_M2_K, air.boil_c
    around = Boundary(slope, outer_c, 0.0, 0.0, 0.0)
    taken, _ = step_piece(temp, cells, Matter(c.enthalpy, c.k_table), dt, around, work)
    flux = taken / dt
    if slope < HELD_W_M2_K:
        surface = min(outer_c - flux / slope, air.boil_c)
    lost += rate * dt
    supply = c.juice_supply_kg_m2_s * max(0.0, 1.0 - lost / free)
    if rate > supply:
        crust = min(crust + (rate - supply) * dt / c.water_kg_m3, 0.5 * half_m)
    if slope >= HELD_W_M2_K:
        extra = max(0.0, share * (h * (air.air_c - surface) + radiant) - latent * rate - flux)
        # a nudge, so that a front can leave boiling, K (numerical)
        surface = air.boil_c if extra > 0.0 else surface - 0.02
        if not air.wet:
            lost += extra / latent * dt
            crust = min(crust + extra / latent * dt / c.water_kg_m3, 0.5 * half_m)
    state[SURFACE], state[LOST], state[CRUST] = surface, lost, crust
    skin = surface + inward * crust / c.crust_k_w_m_k
    state[SKIN] = skin
    if skin > air.boil_c:
        # What of the crust is hotter than boiling gives off the water bound in it as well.
        state[DRY] = max(state[DRY], crust * (skin - air.boil_c) / (skin - surface))
    return float(taken)


@njit(cache=True, nogil=True, error_model="numpy")
def run_air(
    power: float, count: int, start_c: float, food: Drying, air: Air, dt: float, steps: int
) -> Any:
    """Integrate one piece of `count` cells (`start_c` must be a float); returns (steps + 1, 7):
    time, centre, mean, surface [°C], water lost [kg/m²], crust [m], heat taken up [J/m²].
    """
    cells = cell_geometry(food.half_m, power, count)
    temp = np.full(count, start_c)
    work = np.empty((5, count + 1))
    out = np.empty((steps + 1, 7))
    state = np.array([start_c, 0.0, 0.0, start_c, 0.0])
    whole = np.sum(cells.volume)
    heat = 0.0
    for n in range(steps + 1):
        mean = np.sum(temp * cells.volume) / whole
        out[n, 0], out[n, 1], out[n, 2], out[n, 3] = n * dt, temp[0], mean, state[SURFACE]
        out[n, 4], out[n, 5], out[n, 6] = state[LOST], state[CRUST], heat
        if n < steps:
            heat += step_air(temp, state, cells, food, air, dt, work)
    return out


@dataclass(frozen=True)
class InAir:
    """A piece in its surroundings over time: time [s], centre, mean, surface [°C], water lost
    [kg/m²], crust [m], heat taken up by the food [J/m²]; all of shape (n,)."""

    time_s: Array
    centre_c: Array
    mean_c: Array
    surface_c: Array
    water_lost_kg_m2: Array
    crust_m: Array
    heat_j_m2: Array

    def time_to(self, temp_c: float) -> float:
        """First time the centre reaches a temperature [s]; inf where it does not."""
        reached = np.flatnonzero(self.centre_c >= temp_c)
        return float(self.time_s[reached[0]]) if reached.size else float("inf")


def heat_in(
    around: Surroundings,
    food: FoodProperties,
    shape: str | float,
    half_m: float,
    start_c: float,
    time_s: float,
    altitude_m: float = 0.0,
    dt_s: float = 5.0,  # step at which cooking is sampled (numerical)
    cells: int = 20,
) -> InAir:
    """Heat one piece in any surroundings, with evaporation and a drying front where the air is dry.

    Parameters
    ----------
    around : Surroundings
        From `surroundings(key, air_c)`.
    food, shape, half_m, start_c, time_s, dt_s
        As in `conduct`; `time_s` up to 24 h; `shape` may be a power as in `Body` as well.

    Notes
    -----
    Evaporation by the heat and mass transfer analogy with Spalding's logarithm; the front recedes
    by what leaves beyond the supply of juice from within, which falls as the piece empties. Without
    that supply a smoked rib never stalls. Checked against household times in
    tests/against/test_hot_air.py.

    Raises
    ------
    OutOfRange
        Names every argument outside its range.
    """
    ranges = Ranges()
    if isinstance(shape, str):
        ranges.one_of("shape", shape, tuple(GEOMETRY))
    else:
        ranges.within("shape", shape, 0.0, MOST_POWER)
    ranges.within("half_m", half_m, 5e-4, 0.25, "m")
    ranges.within("start_c", start_c, -35.0, 120.0, "°C")
    ranges.within("time_s", time_s, 0.05, 86_400.0, "s")
    ranges.within("altitude_m", altitude_m, -400.0, 4500.0, "m")
    ranges.within("cells", cells, 4, 200, "cells")
    ranges.within("dt_s", dt_s, 0.05, 60.0, "s")
    ranges.within("h_w_m2_k", around.h_w_m2_k, 0.5, 1e4, "W/m²K")
    ranges.within("air_c", around.air_c, -30.0, 400.0, "°C")
    ranges.within("element_w_m2", around.element_w_m2, 0.0, 25_000.0, "W/m²")
    ranges.close()
    pressure = ambient_pressure_pa(altitude_m)
    air = air_of(around, around.h_w_m2_k, pressure, saturation_temp_c(pressure))
    steps = round(time_s / dt_s)
    drying = drying_of(food, half_m)
    power = float(GEOMETRY[shape] if isinstance(shape, str) else shape)
    out = run_air(power, cells, float(start_c), drying, air, float(dt_s), steps)
    return InAir(out[:, 0], out[:, 1], out[:, 2], out[:, 3], out[:, 4], out[:, 5], out[:, 6])


def drying_of(food: FoodProperties, half_m: float) -> Drying:
    """A piece of a food as the kernel reads it."""
    return Drying(
        float(half_m),
        food.enthalpy_j_m3,
        food.k_w_m_k,
        food.water_fraction * food.density_kg_m3,
        value("emissivity"),
        value("crust_k_w_m_k"),
        value("crust_vapour_m2_s"),
        value("juice_supply_kg_m2_s"),
    )


def air_of(around: Surroundings, h_w_m2_k: float, pressure_pa: float, boil_c: float) -> Air:
    """Surroundings as the kernel reads them."""
    return Air(
        float(h_w_m2_k),
        float(around.air_c),
        float(around.wall_c),
        float(around.element_w_m2),
        float(around.vapour_pa),
        around.wet,
        float(pressure_pa),
        float(boil_c),
    )
