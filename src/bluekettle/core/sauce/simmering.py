"""Simmering a sauce down: minutes and burner in, yield and composition out, and the other way
round.
"""

from __future__ import annotations

from dataclasses import dataclass

from bluekettle.core.errors import Ranges
from bluekettle.core.sauce.mixing import Composition, without_water
from bluekettle.core.tables import value
from bluekettle.core.thermo import latent_heat_j_kg

LEAST_WATER = 0.10  # below this it is toffee, and the lumped sum no longer holds
CP_J_KG_K = 3800.0  # of a sauce, typical, estimated


@dataclass(frozen=True)
class Simmered:
    """What is left: the sauce, minutes to come to the boil and of simmering, water gone [kg], and
    whether the sauce got so thick that it would catch before the minutes were over."""

    sauce: Composition
    heat_up_min: float
    simmer_min: float
    gone_kg: float
    catches: bool


def heat_up_s(mass_kg: float, power_w: float, start_c: float) -> float:
    """Seconds to bring a sauce to the boil, with the burner's efficiency."""
    return mass_kg * CP_J_KG_K * (100.0 - start_c) / (power_w * value("burner_efficiency"))


def most_gone_kg(sauce: Composition) -> float:
    """Water [kg] that can leave before it is toffee, or the pan is all but dry."""
    return min(0.95, max(0.0, sauce.water - LEAST_WATER) / (1.0 - LEAST_WATER)) * sauce.mass_kg


# from the kitchen (typical)
def simmer(sauce: Composition, minutes: float, power_w: float, start_c: float = 20.0) -> Simmered:
    """Simmer for some minutes once it boils.

    Parameters
    ----------
    minutes : float
        0 to 240 min at the simmer. power_w : the burner as set, 100 to 6000 W. start_c : 0 to 100
        °C.

    Notes
    -----
    Water leaves at efficiency times power over the latent heat: the whole burner goes into steam. A
    lid, a wide pan's splatter and the rise of the boiling point are left out; good to about a
    quarter (estimated).

    Raises
    ------
    OutOfRange
    """
    ranges = Ranges()
    ranges.within("minutes", minutes, 0.0, 240.0, "min")
    ranges.within("power_w", power_w, 100.0, 6000.0, "W")
    ranges.within("start_c", start_c, 0.0, 100.0, "°C")
    ranges.close()
    rate = value("burner_efficiency") * power_w / latent_heat_j_kg(100.0)
    most = most_gone_kg(sauce)
    gone = min(60.0 * minutes * rate, most)
    left = without_water(sauce, gone)
    up = heat_up_s(sauce.mass_kg, power_w, start_c) / 60.0
    return Simmered(left, up, minutes, gone, 60.0 * minutes * rate > most)


def simmer_minutes(sauce: Composition, volume_l: float, power_w: float) -> float:
    """Minutes at the simmer until `volume_l` is left.

    Raises OutOfRange for a power outside 100 to 6000 W, or a volume that is more than there is or
    less than what stays at 10 % water.
    """
    ranges = Ranges()
    ranges.within("power_w", power_w, 100.0, 6000.0, "W")
    most = most_gone_kg(sauce)
    ranges.within("volume_l", volume_l, sauce.volume_l - most, sauce.volume_l, "L")
    ranges.close()
    rate = value("burner_efficiency") * power_w / latent_heat_j_kg(100.0)
    return (sauce.volume_l - volume_l) / rate / 60.0
