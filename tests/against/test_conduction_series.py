"""Conduction against the analytic series for slab, cylinder and sphere (Carslaw and Jaeger;
Incropera, ch. 5).
"""

import numpy as np
import pytest
from scipy.optimize import brentq
from scipy.special import j0, j1

from bluekettle.core.heat import biot_number, conduct
from bluekettle.core.thermo import FoodProperties, food_properties
from bluekettle.core.thermo.food import GRID_C0, GRID_N, GRID_STEP_C

K, RHO_CP, HALF = 0.5, 3.7e6, 0.02
CONSTANT = FoodProperties(
    1000.0, (GRID_C0 + GRID_STEP_C * np.arange(GRID_N) - GRID_C0) * RHO_CP, np.full(GRID_N, K), 0.7
)


def roots(function, period, count=12):
    """The first roots of a transcendental equation, one per interval."""
    return [brentq(function, n * period + 1e-9, (n + 1) * period - 1e-9) for n in range(count)]


def centre_share(shape, biot, fourier):
    """(T_centre - T_env) / (T_start - T_env) by the series."""
    if shape == "slab":
        zeta = [
            brentq(lambda z: z * np.sin(z) - biot * np.cos(z), n * np.pi, n * np.pi + np.pi / 2)
            for n in range(12)
        ]
        return sum(
            4 * np.sin(z) / (2 * z + np.sin(2 * z)) * np.exp(-(z**2) * fourier) for z in zeta
        )
    if shape == "cylinder":
        grid = np.linspace(1e-6, 40, 8001)
        values = grid * j1(grid) - biot * j0(grid)
        found = [
            brentq(lambda z: z * j1(z) - biot * j0(z), a, b)
            for a, b, fa, fb in zip(grid, grid[1:], values, values[1:], strict=False)
            if fa * fb < 0
        ]
        return sum(
            2 / z * j1(z) / (j0(z) ** 2 + j1(z) ** 2) * np.exp(-(z**2) * fourier) for z in found
        )
    zeta = [
        brentq(
            lambda z: np.sin(z) * (1 - biot) - z * np.cos(z),
            n * np.pi + 1e-6,
            (n + 1) * np.pi - 1e-6,
        )
        for n in range(12)
    ]
    return sum(
        4 * (np.sin(z) - z * np.cos(z)) / (2 * z - np.sin(2 * z)) * np.exp(-(z**2) * fourier)
        for z in zeta
    )


@pytest.mark.parametrize("shape", ["slab", "cylinder", "sphere"])
@pytest.mark.parametrize("h", [5.0, 25.0, 250.0, 2500.0])
def test_centre_follows_the_series_within_half_a_degree(shape, h):
    run = conduct(CONSTANT, shape, HALF, 5.0, h, 100.0, 3600.0)
    biot, alpha = biot_number(h, HALF, K), K / RHO_CP
    for time_s in (300.0, 900.0, 1800.0, 3600.0):
        fourier = alpha * time_s / HALF**2
        if fourier > 0.1:
            expected = 100.0 + (5.0 - 100.0) * centre_share(shape, biot, fourier)
            assert run.centre_c[round(time_s / 5.0)] == pytest.approx(expected, abs=0.5)


@pytest.mark.parametrize("shape", ["slab", "cylinder", "sphere"])
@pytest.mark.parametrize("start_c", [-20.0, 4.0])
def test_heat_taken_up_is_the_enthalpy_gained_frozen_or_not(shape, start_c):
    food = food_properties({"water": 0.7, "protein": 0.2, "fat": 0.09, "ash": 0.01})
    run = conduct(food, shape, HALF, start_c, 200.0, 100.0, 2400.0)
    volume = HALF / {"slab": 1, "cylinder": 2, "sphere": 3}[shape]
    # The mean temperature of a nearly even piece stands for its mean enthalpy.
    late = conduct(food, shape, HALF, start_c, 200.0, 100.0, 20_000.0, dt_s=10.0)
    gained = np.interp([start_c, late.mean_c[-1]], food.temp_c, food.enthalpy_j_m3)
    assert late.heat_j_m2[-1] == pytest.approx((gained[1] - gained[0]) * volume, rel=0.01)
    assert np.all(np.diff(run.centre_c) > -1e-6)


def test_thawing_takes_about_three_times_as_long_as_warming_the_same_span():
    """Latent heat of 0.7 kg/kg water is about that of 65 K of thawed meat."""
    food = food_properties({"water": 0.7, "protein": 0.2, "fat": 0.09, "ash": 0.01})
    frozen = conduct(food, "slab", HALF, -18.0, 600.0, 100.0, 5400.0)
    fresh = conduct(food, "slab", HALF, 4.0, 600.0, 100.0, 5400.0)

    def time_to(run, temp_c):
        return float(run.time_s[np.searchsorted(run.centre_c, temp_c)])

    assert 1.3 < time_to(frozen, 70.0) / time_to(fresh, 70.0) < 2.5
