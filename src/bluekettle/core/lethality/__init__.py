"""Pasteurisation as a log reduction, and minutes in the danger zone. Knows species classes, no
stages.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numba import njit
from numpy.typing import NDArray

from bluekettle.core.errors import Ranges

__all__ = ["NO_CREDIT_BELOW_C", "Kill", "kill_for", "log_rate", "log_reduction"]


@dataclass(frozen=True)
class Kill:
    """Thermal death of Salmonella in one class of meat: D at 60 °C [min], z [°C], log reduction
    wanted.
    """

    d60_min: float
    z_c: float
    wanted_log: float


# Set on the unfavourable side of the FSIS tables; tests/against hold each of their points.
POULTRY = Kill(5.4, 6.0, 7.0)
# (D60 1.85 min with z 5.6 would be 4 % short of the beef table at 145 °F.)
RED_MEAT = Kill(1.92, 5.65, 6.5)
NO_CREDIT_BELOW_C = 54.4  # the usual guidance: 130 °F
LN10 = math.log(10.0)
DANGER_LOW_C, DANGER_HIGH_C = 5.0, 54.4  # the usual guidance: 41 and 130 °F


def kill_for(species: str) -> Kill:
    """The class a species is judged by. Anything not known as red meat is judged as poultry, the
    stricter.
    """
    return RED_MEAT if species in ("beef", "pork", "lamb") else POULTRY


@njit(cache=True, error_model="numpy")
def log_rate(temp_c: float, d60_min: float, z_c: float) -> float:
    """Log reductions per minute at a temperature [°C]; none below 54.4 °C, no further gain above 90
    °C.
    """
    if temp_c < NO_CREDIT_BELOW_C:
        return 0.0
    # no credit for more than 90 °C: the line was not measured there
    return math.exp(LN10 * (min(temp_c, 90.0) - 60.0) / z_c) / d60_min


def log_reduction(kill: Kill, time_s: NDArray[np.float64], temp_c: NDArray[np.float64]) -> float:
    """Log reduction [-] of a temperature history (trapezoidal rule).

    Raises OutOfRange on unequal shapes or values that are not finite.
    """
    ranges = Ranges()
    if time_s.shape != temp_c.shape or not (
        np.isfinite(time_s).all() and np.isfinite(temp_c).all()
    ):
        ranges.add("time_s", time_s.shape, "finite values, as many times as temperatures")
    ranges.close()
    rate = np.array([log_rate(temp, kill.d60_min, kill.z_c) for temp in temp_c])
    return float(np.trapezoid(rate, time_s) / 60.0)
