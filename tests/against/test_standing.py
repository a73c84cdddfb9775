"""Food that stands in the room, against an explicit run of the same laws and against the figure
kitchens know: about 69 °C on the surface after five minutes.

The run here shares no code with the model: explicit finite volumes, Antoine's vapour pressure, and
figures of its own. No fit has seen it.
"""

import numpy as np
import pytest
from tests.one_cook import Dish

from bluekettle.core.glaze import draw_members
from bluekettle.core.stages.tenderise import run_tenderise
from bluekettle.core.stages.waiting import COVERED, IN_ROOM, stand

MEDIAN = draw_members().median_only()
DISHES = {
    "ribs": Dish("pork-ribs", 1.4, 4, 26.0, release="quick"),
    "shoulder": Dish("pork-shoulder", 1.8, 5, 60.0, release="mixed"),
    "thighs": Dish("chicken-thighs", 1.2, 6, 28.0, release="quick"),
}


def vapour_pa(temp_c):
    """Antoine's equation of water between 1 and 100 °C (constants in mmHg and °C)."""
    return 133.322 * 10.0 ** (8.07131 - 1730.63 / (233.426 + temp_c))


def steams(temp_c, crust_m):
    """Heat [W/m²] and water [kg/m²s] that leave a moist surface in a still kitchen, through what
    has dried already.
    """
    dry = 7.0 * (temp_c - 21.0)
    radiant = 0.93 * 5.67e-8 * ((temp_c + 273.15) ** 4 - 294.15**4)
    drive = np.log((101_325.0 - 1500.0) / (101_325.0 - min(vapour_pa(temp_c), 0.98 * 101_325.0)))
    resist = 950.0 / 7.0 + crust_m / 5e-7
    gone = 101_325.0 / (461.5 * (temp_c + 273.15)) * drive / resist
    through = 1.0 / (1.0 + 12.0 * crust_m / 0.1125)
    return through * (dry + radiant) + gone * (2.501e6 - 2361.0 * temp_c), gone


def explicit(profile_c, half_m, power, food, seconds):
    """Middle and surface [°C] after standing: 80 shells, explicit in time, from a rough profile."""
    n = 80
    place = (np.arange(n) + 0.5) / n
    given = (np.arange(profile_c.size) + 0.5) / profile_c.size
    temp = np.interp(place, given, profile_c)
    face = (np.arange(n + 1) / n) ** power
    size = np.diff((np.arange(n + 1) / n) ** (power + 1.0)) / (power + 1.0) * half_m
    k, heat = 0.5, food.density_kg_m3 * food.specific_heat_j_kg_k(60.0, 95.0)
    dx = half_m / n
    dt = 0.2 * dx * dx * heat / k
    surface, crust = temp[-1], 0.0
    for _ in range(int(np.ceil(seconds / dt))):
        for _ in range(3):  # the surface follows at once: 2 k (T_last - T) / dx = what leaves
            leaves, gone = steams(surface, crust)
            surface = 0.7 * surface + 0.3 * (temp[-1] - 0.5 * dx / k * leaves)
        crust += max(0.0, gone - 4e-4) * dt / (food.water_fraction * food.density_kg_m3)
        flow = np.zeros(n + 1)
        flow[1:-1] = face[1:-1] * k * np.diff(temp) / dx
        flow[-1] = -2.0 * k * (temp[-1] - surface) / dx
        temp = temp + dt * np.diff(flow) / (size * heat)
    return temp[0], surface


@pytest.mark.parametrize("minutes", [1, 2, 5, 10])
@pytest.mark.parametrize("name", DISHES)
def test_standing_food_cools_as_a_steaming_piece_does(name, minutes):
    dish = DISHES[name]
    cut = dish.piece.check()
    run = run_tenderise(dish.slow, cut, MEDIAN, 1800.0)
    seconds = np.full(1, 60.0 * minutes)
    stood, _, surface = stand(cut, run, run.profile_c, seconds, IN_ROOM)
    middle, outside = explicit(run.profile_c[0], run.half_m[0], run.power, cut.food, seconds[0])
    assert surface[0] == pytest.approx(outside, abs=2.5)
    assert stood[0, 0] == pytest.approx(middle, abs=1.0)
    if minutes == 5:
        assert 64.0 <= surface[0] <= 74.0
    # Under a lid nothing steams off.
    assert stand(cut, run, run.profile_c, seconds, COVERED)[2][0] > surface[0] + 5.0
