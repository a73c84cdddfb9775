"""What a cook value is worth: like pieces differ, and z is not known to the kelvin."""

import math

import numpy as np
import pytest
from scipy.stats import norm

from bluekettle.core.lethality import kill_for
from bluekettle.core.stages.bite import Cooked, share_over
from bluekettle.core.stages.tally import (
    CENTRE,
    CENTRE_AWAY,
    MEAN,
    MEAN_AWAY,
    TALLIES,
    Death,
    add_step,
)

Z_C, BEEF = 24.0, kill_for("beef")
DEATH = Death(BEEF.d60_min, BEEF.z_c, 0.0)


def sums_of(profiles, step_s=60.0):
    """Sums of a piece of equal cells that has each of these profiles for a step."""
    sums, cells = np.zeros(TALLIES), profiles.shape[1]
    for place, profile in enumerate(profiles):
        add_step(sums, profile, np.ones(cells), float(cells), step_s, 60.0 * place, DEATH)
    return sums


@pytest.mark.parametrize(("value", "away"), [(CENTRE, CENTRE_AWAY), (MEAN, MEAN_AWAY)])
def test_how_far_from_a_hundred_degrees_tells_what_another_z_would_have_made_of_it(value, away):
    """Against the same history with z a hundredth of a kelvin higher and lower."""
    rise = np.linspace(55.0, 112.0, 200)
    profiles = np.column_stack([rise - 8.0, rise - 3.0, rise])
    sums = sums_of(profiles)

    def by(z_c):
        rates = np.where(profiles >= 50.0, 10.0 ** ((profiles - 100.0) / z_c), 0.0)
        return (rates[:, 0] if value == CENTRE else rates.mean(axis=1)).sum()

    assert sums[value] == pytest.approx(by(Z_C), rel=1e-9)
    change = math.log(by(Z_C + 0.01) / by(Z_C - 0.01)) / 0.02
    told = -math.log(10.0) * sums[away] / sums[value] / Z_C**2
    assert told == pytest.approx(change, rel=1e-4)


@pytest.mark.parametrize(("held_c", "log_sd"), [(100.0, 0.25), (65.0, 0.293), (115.0, 0.259)])
def test_a_bite_is_least_sure_where_it_was_gained_far_from_a_hundred_degrees(held_c, log_sd):
    """By hand: a quarter of pieces; of z 1.1 K, ln 10 / 24² a kelvin and kelvin away."""
    minutes = np.array([50.0])
    cooked = Cooked(minutes, minutes * (held_c - 100.0))
    assert share_over(cooked, 40.0) == pytest.approx(norm.cdf(math.log(50 / 40) / log_sd), abs=2e-3)
