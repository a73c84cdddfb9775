"""The film's energy balance, step by step."""

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from bluekettle.core.glaze.kernel import AIR_J_M3_K, AIR_VAPOUR_PA, SIGMA, film_temp_c
from bluekettle.core.glaze.records import Around
from bluekettle.core.thermo.steam import latent_heat_j_kg, psat_grid_pa

PRESSURE = 101_325.0


def at_end(start, capacity, dt, around, u, below, activity, water_rate=1.0):
    """One backward Euler step of the film: temperature, evaporation and net heat at its end."""
    return film_temp_c(
        start, capacity, dt, around, u, below, activity, PRESSURE, water_rate, 0.93, 1.0, 0.0
    )


@given(
    start=st.floats(20, 180),
    h=st.floats(5, 60),
    air=st.floats(120, 260),
    element=st.floats(0, 6000),
    u=st.floats(30, 400),
    below=st.floats(40, 100),
    activity=st.floats(0.02, 1.0),
    gain=st.floats(0.4, 2.5),
)
def test_heat_in_is_heat_out_and_heat_stored_within_one_per_cent(
    start, h, air, element, u, below, activity, gain
):
    """gain [h dT + eps sigma dT^4 + element] = U (T - T_food) + L m + C dT/dt at the end of every
    step.
    """
    assume(activity * psat_grid_pa(start) < 0.95 * PRESSURE)
    capacity, dt = 1500.0, 2.0
    temp, rate, _ = film_temp_c(
        start,
        capacity,
        dt,
        Around(h, air, (air + 273.15) ** 4, element, gain, 1.0),
        u,
        below,
        activity,
        PRESSURE,
        1.0,
        0.93,
        1.0,
        0.0,
    )
    into = gain * (
        h * (air - temp) + 0.93 * SIGMA * ((air + 273.15) ** 4 - (temp + 273.15) ** 4) + element
    )
    out = (
        u * (temp - below)
        + latent_heat_j_kg(min(temp, 200.0)) * rate
        + capacity * (temp - start) / dt
    )
    # A hundredth of all heat that moves; near boiling the last step of Newton's method is worth a
    # few watts.
    moved = abs(into) + abs(u * (temp - below)) + latent_heat_j_kg(min(temp, 200.0)) * rate
    assert abs(into - out) < 0.01 * moved + 60.0
    assert rate >= 0.0
    assert activity * psat_grid_pa(temp) <= 1.05 * PRESSURE


@pytest.mark.parametrize("activity", [0.3, 0.6, 0.9])
def test_a_film_dries_by_the_analogy_of_heat_and_mass(activity):
    """m = h_m p / (R_v T) ln((p - p_air) / (p - a_w p_sat)), written out."""
    temp, rate, _ = film_temp_c(
        70.0,
        1e9,
        2.0,
        Around(20.0, 200.0, 473.15**4, 0.0, 1.0, 1.0),
        100.0,
        70.0,
        activity,
        PRESSURE,
        1.0,
        0.93,
        1.0,
        0.0,
    )
    partial = activity * psat_grid_pa(temp)
    expected = 20.0 / AIR_J_M3_K * PRESSURE / (461.526 * (temp + 273.15))
    expected *= np.log((PRESSURE - AIR_VAPOUR_PA) / (PRESSURE - partial))
    assert rate == pytest.approx(max(0.0, expected), rel=1e-3)


def test_water_that_is_not_there_cannot_leave():
    _, rate, _ = film_temp_c(
        90.0,
        1500.0,
        2.0,
        Around(50.0, 200.0, 473.15**4, 5000.0, 1.0, 1.0),
        10.0,
        90.0,
        1.0,
        PRESSURE,
        1e-6,
        0.93,
        1.0,
        0.0,
    )
    assert rate == pytest.approx(1e-6)
