"""What one step of a first heat adds up to: cook value, log reduction, minutes in the danger zone
(compiled).
"""

from __future__ import annotations

from typing import Any, NamedTuple

import numpy as np
from numba import njit

from bluekettle.core.lethality import DANGER_HIGH_C, DANGER_LOW_C, log_rate
from bluekettle.core.tenderness import REFERENCE_C, cook_rate

CENTRE, MEAN, LOG, DANGER, PEAK, LATE, CENTRE_AWAY, MEAN_AWAY = range(8)
TALLIES = 8


class Brought(NamedTuple):
    """What food brings into a stage from those before: its profile from the middle out
    (members, CELLS) [°C], what they added up to (members, TALLIES), and seconds since the first
    act (members,).
    """

    profile_c: Any
    sums: Any
    since_s: Any


def raw(start_c: Any, cells: int) -> Brought:
    """Food that nothing has been done to yet: as warm all through as it is, (members,) [°C]."""
    start = np.asarray(start_c, dtype=float)
    profile = np.repeat(start[:, None], cells, axis=1)
    return Brought(profile, np.zeros((start.size, TALLIES)), np.zeros(start.size))


class Death(NamedTuple):
    """Thermal death: D at 60 °C [min], z [°C], and how much colder than the model a time
    counts [K].
    """

    d60_min: float
    z_c: float
    less_k: float


@njit(cache=True, nogil=True, error_model="numpy")
def add_step(
    sums: Any, temp: Any, volume: Any, whole: float, dt: float, clock: float, death: Death
) -> float:
    """Add a step of `dt` [s] ending at `clock` [s] to one member's sums (TALLIES,); returns the
    mean temperature [°C].

    sums : cook value at the centre and averaged [min], log reduction [-] counted colder, danger
    minutes, peak of the centre [°C], the last moment at which the centre was under 54.4 °C [s], and
    both cook values times how far from 100 °C they were gained [K min].
    """
    centre, mean, rate, away = temp[0], 0.0, 0.0, 0.0
    for i in range(temp.size):
        mean += temp[i] * volume[i]
        gained = cook_rate(temp[i]) * volume[i]
        rate += gained
        away += gained * (temp[i] - REFERENCE_C)
    gained = cook_rate(centre) * dt / 60.0
    sums[CENTRE] += gained
    sums[CENTRE_AWAY] += gained * (centre - REFERENCE_C)
    sums[MEAN] += rate / whole * dt / 60.0
    sums[MEAN_AWAY] += away / whole * dt / 60.0
    sums[LOG] += log_rate(centre - death.less_k, death.d60_min, death.z_c) * dt / 60.0
    if DANGER_LOW_C < centre < DANGER_HIGH_C:
        sums[DANGER] += dt / 60.0
    sums[PEAK] = max(sums[PEAK], centre)
    if centre < DANGER_HIGH_C:
        sums[LATE] = clock
    return float(mean / whole)
