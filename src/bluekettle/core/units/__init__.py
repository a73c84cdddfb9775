"""Units at the core's edge: what a kitchen says, in SI and back. Inside the core all is SI."""

from __future__ import annotations

from bluekettle.core.errors import within
from bluekettle.core.units.phrase import METRIC, Reading, amount, render
from bluekettle.core.units.words import percent, span_words, times_in_ten

__all__ = [
    "KELVIN",
    "METRIC",
    "Reading",
    "amount",
    "c_to_f",
    "fingers_to_mm",
    "minutes",
    "percent",
    "pounds_to_kg",
    "render",
    "span_words",
    "times_in_ten",
]

KELVIN = 273.15  # by definition
FINGER_MM = 18.0  # the breadth of an adult's index finger, typical, estimated
POUND_KG = 0.45359237  # by definition


def c_to_f(temp_c: float) -> float:
    """Degrees Fahrenheit of a Celsius temperature, -273.15 to 2000 °C; OutOfRange otherwise."""
    return within("temp_c", temp_c, -KELVIN, 2000.0, "°C") * 9.0 / 5.0 + 32.0  # by definition


def pounds_to_kg(mass_lb: float) -> float:
    """Mass [kg] of avoirdupois pounds (exact by definition), 0 to 10 000 lb; OutOfRange
    otherwise.
    """
    return within("mass_lb", mass_lb, 0.0, 1e4, "lb") * POUND_KG


def fingers_to_mm(fingers: float) -> float:
    """Thickness [mm] told in fingers, 0 to 50; OutOfRange otherwise."""
    return within("fingers", fingers, 0.0, 50.0, "fingers") * FINGER_MM


def minutes(time_s: float) -> float:
    """Minutes of a time in seconds, up to a year either way; OutOfRange otherwise."""
    return within("time_s", time_s, -3.2e7, 3.2e7, "s") / 60.0
