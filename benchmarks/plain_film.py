"""The film's equations once more, plainly: one member and one site as a system for a stock ODE
solver.

Only for the benchmark: it shows what the compiled kernel saves, and that both agree.
"""

from __future__ import annotations

import math

import numpy as np
from scipy.integrate import solve_ivp

from bluekettle.core.glaze import Coating, Heat, film_constants
from bluekettle.core.glaze.activity import activity_of, sucrose_equivalent
from bluekettle.core.glaze.kernel import SIGMA
from bluekettle.core.glaze.laws import AIR_J_M3_K, AIR_VAPOUR_PA, GAS_J_MOL_K
from bluekettle.core.glaze.records import MEAT
from bluekettle.core.thermo.steam import VAPOUR_J_KG_K, latent_heat_j_kg, psat_grid_pa

PRESSURE, BOIL_C = 101_325.0, 99.974


def solve(
    factors: tuple[float, float, float, float],
    heat: Heat,
    coating: Coating,
    edge: bool,
    time_s: float,
) -> list[float]:
    """Times [s] of amber, mahogany, bitter and burnt of one member at one site, by LSODA."""
    c = film_constants()
    f_heat, f_coat, f_interface, f_brown = factors
    share = c.edge_heat_share if edge else 1.0
    mass = coating.coat_kg_m2 * (c.edge_coat_share if edge else 1.0) * f_coat
    interface = c.interface_face_w_m2_k * (c.interface_edge_share if edge else 1.0) * f_interface
    dry, fat = mass * coating.dry_solids, mass * coating.fat
    bound = mass * sucrose_equivalent(
        coating.sucrose,
        coating.glucose + coating.fructose,
        coating.other,
        coating.protein,
        coating.salt,
        coating.acid,
    )
    h, wall4, element = (
        share * heat.h_w_m2_k,
        (heat.wall_c + 273.15) ** 4,
        share * heat.element_w_m2,
    )
    layer = c.wet_layer_m * MEAT.capacity_j_m3_k
    browning = (
        coating.sugar_power() * c.brown_rate_1_s + c.protein_under_film * c.protein_rate_1_s
    ) * f_brown

    def rates(t: float, y: np.ndarray) -> list[float]:
        film, water, below, crust, brown, _ = y
        water = max(water, 0.0)
        kelvin = film + 273.15
        partial = activity_of(water, bound) * psat_grid_pa(film)
        unit = h / AIR_J_M3_K * PRESSURE / (VAPOUR_J_KG_K * kelvin)
        if partial < 0.98 * PRESSURE:
            rate = unit * math.log((PRESSURE - AIR_VAPOUR_PA) / (PRESSURE - partial))
        else:
            rate = unit * (
                math.log((PRESSURE - AIR_VAPOUR_PA) / (0.02 * PRESSURE))
                + (partial - 0.98 * PRESSURE) / (0.02 * PRESSURE)
            )
        rate = max(0.0, rate) if water > 0.0 else 0.0
        capacity = water * 4186.0 + (dry + fat) * c.film_cp_dry_j_kg_k + 300.0
        u = 1.0 / (1.0 / interface + max(crust, 0.0) / c.crust_k_w_m_k)
        into = f_heat * (
            h * (heat.air_c - film) + c.emissivity * SIGMA * (wall4 - kelvin**4) + element
        )
        d_film = (into - u * (film - below) - latent_heat_j_kg(min(film, 200.0)) * rate) / capacity
        loss = MEAT.k_w_m_k / math.sqrt(math.pi * MEAT.alpha_m2_s * (t + 60.0))
        net = u * (film - below) - loss * (below - 80.0)
        # Held at boiling over a twentieth of a kelvin instead of a corner, on which a stock solver
        # would get stuck.
        held = min(1.0, max(0.0, (below - BOIL_C) / 0.05 + 0.5)) if net > 0.0 else 0.0
        boiled = held * net / latent_heat_j_kg(below)
        d_below = (1.0 - held) * net / layer
        fade = math.exp(-t / c.juice_fade_s)
        dries = boiled * (1.0 - c.juice_share * fade) - c.juice_supply_kg_m2_s * fade
        d_crust = max(0.0, dries) / MEAT.water_kg_m3
        wet = water / (water + dry + fat)
        damp = 1.0 / (1.0 + (wet / c.brown_wet_fraction) ** 2)
        browns = math.exp(-c.brown_ea_j_mol / GAS_J_MOL_K * (1.0 / kelvin - 1.0 / 393.15))
        chars = math.exp(-c.char_ea_j_mol / GAS_J_MOL_K * (1.0 / kelvin - 1.0 / 443.15))
        d_brown = browning * browns * damp * max(0.0, 1.0 - brown / c.brown_sugar_most)
        d_char = c.char_rate_1_s * f_brown * chars * damp
        return [d_film, -rate, d_below, d_crust, d_brown, d_char]

    start = [c.film_start_c, mass * coating.water, 70.0, 0.0, 0.0, 0.0]
    found = solve_ivp(
        rates,
        (0.0, time_s),
        start,
        method="LSODA",
        rtol=1e-6,
        atol=1e-9,
        dense_output=True,
        max_step=5.0,
    )
    grid = np.linspace(0.0, time_s, 24_001)
    index = found.sol(grid)[4] + found.sol(grid)[5]
    marks = (c.amber_index, c.mahogany_index, c.bitter_index, c.burnt_index)
    return [float(grid[np.searchsorted(index, m)]) if index[-1] >= m else math.inf for m in marks]
