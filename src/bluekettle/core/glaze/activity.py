"""Water activity of sugar films over the whole range of dryness."""

from __future__ import annotations

import numpy as np
from numba import njit
from scipy.interpolate import PchipInterpolator
from scipy.optimize import brentq

from bluekettle.core.errors import Ranges
from bluekettle.core.tables import rows
from bluekettle.core.thermo import saturation_pressure_pa

# What a kilogram of each kind of solid binds, in kilograms of sucrose. Monosaccharides: set so that
# honey at 17 % water comes to 0.56; salt and acids by their smaller molecules, damped as at the
# concentrations of a glaze; starch, fibre and protein bind less than sugar. Estimated, except the
# first.
MONO_EQUIVALENT, SALT_EQUIVALENT, ACID_EQUIVALENT, OTHER_EQUIVALENT = 1.42, 6.0, 2.0, 0.45

_N = 2001
_POINTS = [
    (float(line["solids"]), float(line["water_activity"]))
    for line in rows("water_activity").values()
]
_GRID = PchipInterpolator(*zip(*_POINTS, strict=True))(np.linspace(0.0, 1.0, _N))


@njit(cache=True, error_model="numpy")
def activity_of(water: float, sucrose_equivalent: float) -> float:
    """Water activity [-] of a film holding so much water and so many kilograms of
    sucrose-equivalent solids.
    """
    if sucrose_equivalent <= 0.0:
        return 1.0 if water > 0.0 else 0.0
    place = sucrose_equivalent / (sucrose_equivalent + water) * (_N - 1)
    i = min(int(place), _N - 2)
    return float(_GRID[i] + (_GRID[i + 1] - _GRID[i]) * (place - i))


def sucrose_equivalent(
    sucrose: float, mono: float, other: float, protein: float, salt: float, acid: float
) -> float:
    """Kilograms of sucrose that bind water as these solids do [kg or -]."""
    return (
        sucrose
        + MONO_EQUIVALENT * mono
        + OTHER_EQUIVALENT * (other + protein)
        + SALT_EQUIVALENT * salt
        + ACID_EQUIVALENT * acid
    )


def water_activity(solids: float, mono_share: float = 0.0) -> float:
    """Water activity [-] of a sugar syrup.

    Parameters
    ----------
    solids : float
        Mass fraction of sugar, 0 to 1.
    mono_share : float
        Share of that sugar that is glucose or fructose, 0 to 1.

    Notes
    -----
    A monotone curve (PCHIP) through the customary points of sugar boiling; taken as independent of
    temperature. Boiling points within 5 K from 80 to 99 % solids.

    Raises
    ------
    OutOfRange

    Examples
    --------
    >>> round(water_activity(0.674), 2)
    0.85
    """
    ranges = Ranges()
    ranges.within("solids", solids, 0.0, 1.0)
    ranges.within("mono_share", mono_share, 0.0, 1.0)
    ranges.close()
    bound = sucrose_equivalent(solids * (1.0 - mono_share), solids * mono_share, 0.0, 0.0, 0.0, 0.0)
    return activity_of(1.0 - solids, bound)


# sea level, the standard atmosphere
def boiling_temp_c(solids: float, pressure_pa: float = 101_325.0, mono_share: float = 0.0) -> float:
    """Temperature [°C] at which a syrup boils at 10 to 300 kPa. Raises OutOfRange, also above 99.9
    % solids.
    """
    ranges = Ranges()
    ranges.within("pressure_pa", pressure_pa, 1e4, 3e5, "Pa")
    ranges.within("solids", solids, 0.0, 0.999)
    ranges.close()
    activity = water_activity(solids, mono_share)
    # brackets of the root (numerical)
    return float(brentq(lambda t: activity * saturation_pressure_pa(t) - pressure_pa, 20.0, 360.0))
