"""Saturated steam (steam tables) and sugar syrups (customary stages of boiling)."""

import numpy as np
import pytest

from bluekettle.core.glaze import boiling_temp_c, water_activity
from bluekettle.core.pressure import gauge_saturation_c
from bluekettle.core.thermo import boiling_point_c, latent_heat_j_kg, saturation_pressure_pa
from bluekettle.core.thermo.steam import psat_grid_pa


@pytest.mark.parametrize(
    ("gauge_kpa", "altitude_m", "temp_c"),
    [(70, 0, 115.4), (80, 0, 117.1), (103, 0, 120.9), (80, 1500, 114.15)],
)
def test_pots_reach_the_temperature_of_the_steam_tables(gauge_kpa, altitude_m, temp_c):
    assert gauge_saturation_c(gauge_kpa, altitude_m) == pytest.approx(temp_c, abs=0.2)


@pytest.mark.parametrize(
    ("temp_c", "kpa"), [(20, 2.339), (60, 19.946), (100, 101.42), (120, 198.67), (180, 1002.8)]
)
def test_saturation_pressure_agrees_with_steam_tables(temp_c, kpa):
    """Saturated water, temperature table (IAPWS-95 values as printed in textbooks)."""
    assert saturation_pressure_pa(temp_c) / 1e3 == pytest.approx(kpa, rel=1e-3)
    assert psat_grid_pa(temp_c) == pytest.approx(saturation_pressure_pa(temp_c), rel=1e-4)


@pytest.mark.parametrize(
    ("temp_c", "kj_kg"), [(20, 2453.5), (60, 2357.7), (100, 2256.4), (140, 2144.3)]
)
def test_latent_heat_agrees_with_steam_tables(temp_c, kj_kg):
    assert latent_heat_j_kg(temp_c) / 1e3 == pytest.approx(kj_kg, rel=0.01)


def test_water_boils_lower_up_a_mountain():
    """Standard atmosphere: about 95 °C at 1500 m."""
    assert boiling_point_c(0) == pytest.approx(99.97, abs=0.05)
    assert boiling_point_c(1500) == pytest.approx(95.0, abs=0.3)


@pytest.mark.parametrize(
    ("solids", "low_c", "high_c"),
    [(0.825, 112, 112), (0.92, 121, 130), (0.95, 127, 143), (0.99, 149, 154)],
)
def test_sucrose_syrup_boils_where_sugar_boilers_say(solids, low_c, high_c):
    assert low_c - 5 <= boiling_temp_c(solids) <= high_c + 5


def test_honey_and_saturated_sucrose_have_their_known_water_activity():
    assert 0.50 <= water_activity(0.83, mono_share=1.0) <= 0.62
    assert 0.84 <= water_activity(0.674) <= 0.87


def test_water_activity_falls_all_the_way_to_dry():
    values = [water_activity(s) for s in np.linspace(0, 1, 201)]
    assert np.all(np.diff(values) < 0)
