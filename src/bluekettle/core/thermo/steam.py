"""Saturated steam and the pressure of the air."""

from __future__ import annotations

from functools import lru_cache

import numpy as np
from numba import njit
from numpy.typing import NDArray
from scipy.optimize import brentq

from bluekettle.core.errors import Ranges
from bluekettle.core.units import KELVIN

CRITICAL_K = 647.096  # critical point, IAPWS
CRITICAL_PA = 22.064e6  # critical point, IAPWS
VAPOUR_J_KG_K = 461.526  # specific gas constant of water vapour

# A grid of ln(p_sat) for the kernels: linear interpolation in ln p over 0.25 K errs by under 1e-5
# of p.
GRID_C0, GRID_STEP_C, GRID_N = -5.0, 0.25, 1301


def saturation_pressure_pa(temp_c: float) -> float:
    """Saturation vapour pressure of water [Pa] at `temp_c` [°C].

    Wagner and Pruss (1993), equation 1; valid 0 to 373 °C, error under 0.1 %.

    Raises
    ------
    OutOfRange
        Outside -5 to 370 °C (below 0 °C the line of undercooled water is continued).

    Examples
    --------
    >>> round(saturation_pressure_pa(100.0) / 1000, 1)
    101.4
    """
    ranges = Ranges()
    ranges.within("temp_c", temp_c, -5.0, 370.0, "°C")
    ranges.close()
    return float(_wagner_pruss(np.asarray(temp_c)))


def _wagner_pruss(temp_c: NDArray[np.float64]) -> NDArray[np.float64]:
    ratio = (temp_c + KELVIN) / CRITICAL_K
    tau = 1.0 - ratio
    # Coefficients of equation 1, as above.
    series = (
        -7.85951783 * tau
        + 1.84408259 * tau**1.5
        - 11.7866497 * tau**3
        + 22.6807411 * tau**3.5
        - 15.9618719 * tau**4
        + 1.80122502 * tau**7.5
    )
    return np.asarray(CRITICAL_PA * np.exp(series / ratio))


@lru_cache(maxsize=4096)
def saturation_temp_c(pressure_pa: float) -> float:
    """Temperature [°C] of saturated steam at an absolute pressure [Pa].

    The inverse of `saturation_pressure_pa`, by bracketing. Raises OutOfRange outside 1 kPa to 4
    MPa.

    Examples
    --------
    >>> round(saturation_temp_c(101_325 + 80_000), 1)
    117.1
    """
    ranges = Ranges()
    ranges.within("pressure_pa", pressure_pa, 1e3, 4e6, "Pa")
    ranges.close()
    return float(
        # brackets of the root (numerical)
        brentq(lambda t: _wagner_pruss(np.asarray(t)) - pressure_pa, -5.0, 300.0, xtol=1e-6)
    )


@lru_cache(maxsize=4096)  # of every member in every heat of a chain
def ambient_pressure_pa(altitude_m: float) -> float:
    """Air pressure [Pa] at an altitude [m] in the international standard atmosphere (ISO 2533).

    Raises OutOfRange outside -430 to 5000 m.
    """
    ranges = Ranges()
    ranges.within("altitude_m", altitude_m, -430.0, 5000.0, "m")
    ranges.close()
    # the standard atmosphere, ISO 2533
    return float(101_325.0 * (1.0 - 2.25577e-5 * altitude_m) ** 5.25588)


def boiling_point_c(altitude_m: float) -> float:
    """Boiling point of water [°C] at an altitude [m]."""
    return saturation_temp_c(ambient_pressure_pa(altitude_m))


_LN_PSAT: NDArray[np.float64] = np.log(
    _wagner_pruss(np.asarray(GRID_C0 + GRID_STEP_C * np.arange(GRID_N), dtype=np.float64))
)


@njit(cache=True, error_model="numpy")
def psat_grid_pa(temp_c: float) -> float:
    """Saturation pressure [Pa] for kernels, from the grid; -5 to 320 °C, held at the ends."""
    place = (temp_c - GRID_C0) / GRID_STEP_C
    if place < 0.0:
        place = 0.0
    if place > GRID_N - 2.0:
        place = GRID_N - 2.0
    i = int(place)
    part = place - i
    return float(np.exp(_LN_PSAT[i] * (1.0 - part) + _LN_PSAT[i + 1] * part))


@njit(cache=True, error_model="numpy")
def latent_heat_j_kg(temp_c: float) -> float:
    """Latent heat of evaporation [J/kg], 0 to 150 °C, within 0.5 %: a straight line through the
    steam tables.
    """
    return 2.5025e6 - 2433.0 * temp_c  # a line through the steam tables
