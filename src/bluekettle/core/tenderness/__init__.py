"""Tenderness as an accumulated cook value (C-value, reference 100 °C, z = 24 °C). Knows no stages
and no cuts' names.
"""

from __future__ import annotations

import math

import numpy as np
from numba import njit
from numpy.typing import NDArray

from bluekettle.core.errors import Ranges
from bluekettle.core.tables import value

__all__ = ["BITES", "REFERENCE_C", "cook_rate", "cook_value_min"]

BITES = ("sliceable", "tug", "falls", "shreds")
REFERENCE_C = value("cook_reference_c")
_Z_C = value("cook_z_c")
_LN10_Z = math.log(10.0) / _Z_C  # exp is several times as fast as a power


@njit(cache=True, error_model="numpy")
def cook_rate(temp_c: float) -> float:
    """Cook value gained per minute [-] at a temperature [°C]; 1 at 100 °C. Negligible under 50 °C
    and cut off there.
    """
    if temp_c < 50.0:  # below it nothing turns tender in an evening (compiled)
        return 0.0
    return math.exp((temp_c - REFERENCE_C) * _LN10_Z)


def cook_value_min(time_s: NDArray[np.float64], temp_c: NDArray[np.float64]) -> float:
    """Cook value [min] of a temperature history, by the trapezoidal rule (second order in the
    step).

    Parameters
    ----------
    time_s, temp_c : ndarray, shape (n,)
        Rising times [s] and temperatures [°C].

    Raises
    ------
    OutOfRange
        Different lengths, times that fall, or values that are not finite.

    Examples
    --------
    >>> cook_value_min(np.array([0.0, 600.0]), np.array([100.0, 100.0]))
    10.0
    """
    ranges = Ranges()
    if time_s.shape != temp_c.shape or time_s.ndim != 1 or time_s.size < 2:
        ranges.add("time_s", time_s.shape, "two or more points, as many times as temperatures")
    elif not (
        np.isfinite(time_s).all() and np.isfinite(temp_c).all() and (np.diff(time_s) >= 0).all()
    ):
        ranges.add("time_s", "history", "finite values at rising times")
    ranges.close()
    rate = np.array([cook_rate(temp) for temp in temp_c])
    return float(np.trapezoid(rate, time_s) / 60.0)
