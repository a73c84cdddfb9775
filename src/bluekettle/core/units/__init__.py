"""Units at the core's edge: what a kitchen says, in SI and back. Inside the core all is SI."""

from __future__ import annotations

__all__ = ["KELVIN", "c_to_f", "fingers_to_mm", "minutes", "pounds_to_kg"]

KELVIN = 273.15
FINGER_MM = 18.0  # the breadth of an adult's index finger, typical, estimated
POUND_KG = 0.45359237


def c_to_f(temp_c: float) -> float:
    """Degrees Fahrenheit of a Celsius temperature."""
    return temp_c * 9.0 / 5.0 + 32.0


def pounds_to_kg(mass_lb: float) -> float:
    """Kilograms of a mass in avoirdupois pounds (exact by definition)."""
    return mass_lb * POUND_KG


def fingers_to_mm(fingers: float) -> float:
    """Millimetres of a thickness told in fingers."""
    return fingers * FINGER_MM


def minutes(time_s: float) -> float:
    """Minutes of a time in seconds."""
    return time_s / 60.0
