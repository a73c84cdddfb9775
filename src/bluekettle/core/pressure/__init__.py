"""The pot: saturation temperature from gauge pressure and altitude, heat balance, release, and
fill.

Knows vessel, liquid and air; the food meets it in `stages`.
"""

from __future__ import annotations

from dataclasses import dataclass

from bluekettle.core.errors import Ranges
from bluekettle.core.thermo import (
    ambient_pressure_pa,
    boiling_point_c,
    saturation_temp_c,
)

__all__ = ["Fill", "Vessel", "fill_of", "gauge_saturation_c", "quick_release_s"]


@dataclass(frozen=True)
class Vessel:
    """A closed pot or covered dish: heating power [W], volume [L], gauge pressure [kPa], heat
    capacity [J/K], heat loss [W/K]."""

    power_w: float
    volume_l: float
    gauge_kpa: float
    body_j_k: float
    loss_w_k: float


@dataclass(frozen=True)
class Fill:
    """How full a pot is: share of its volume, liquid before and after the juices [L], the line it
    may not pass.
    """

    share: float
    liquid_before_l: float
    liquid_after_l: float
    line: float


def gauge_saturation_c(gauge_kpa: float, altitude_m: float) -> float:
    """Temperature of saturated steam [°C] at a gauge pressure [kPa] and an altitude [m].

    Raises OutOfRange outside 0 to 150 kPa.

    Examples
    --------
    >>> round(gauge_saturation_c(80.0, 1500.0), 2)
    114.15
    """
    ranges = Ranges()
    ranges.within("gauge_kpa", gauge_kpa, 0.0, 150.0, "kPa")
    ranges.close()
    if gauge_kpa == 0.0:
        return boiling_point_c(altitude_m)
    return saturation_temp_c(ambient_pressure_pa(altitude_m) + gauge_kpa * 1e3)


def quick_release_s(volume_l: float, seconds_per_l: float) -> float:
    """Time to vent a pot [s]: 60 to 180 s, by volume. Raises OutOfRange outside 0.5 to 50 L and 1
    to 120 s/L.
    """
    ranges = Ranges()
    ranges.within("volume_l", volume_l, 0.5, 50.0, "L")
    ranges.within("seconds_per_l", seconds_per_l, 1.0, 120.0, "s/L")
    ranges.close()
    # a quick release takes 1 to 3 minutes (estimated)
    return min(180.0, max(60.0, volume_l * seconds_per_l))


def fill_of(
    volume_l: float, liquid_l: float, food_l: float, juice_l: float, swells: bool = False
) -> Fill:
    """Fill of a pot against the two-thirds line (half for what swells), and how far the liquid
    rises with the juices.

    Juice only moves from the food into the liquid, so the sum of both stays what it was.
    Raises OutOfRange for a volume outside 0.5 to 50 L or amounts outside 0 to 50 L.
    """
    ranges = Ranges()
    ranges.within("volume_l", volume_l, 0.5, 50.0, "L")
    for name, amount in (("liquid_l", liquid_l), ("food_l", food_l), ("juice_l", juice_l)):
        ranges.within(name, amount, 0.0, 50.0, "L")
    ranges.close()
    line = 0.5 if swells else 2.0 / 3.0
    return Fill((liquid_l + food_l) / volume_l, liquid_l, liquid_l + juice_l, line)
