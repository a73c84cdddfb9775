"""Amounts inside sentences: marked where they are written, and shown in a cook's own units at the
edge.

A sentence of the core never says "63 °C" for good: it says `amount(63.0, "°C")`, and whoever shows
it renders it in the scale that the cook reads.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass

from bluekettle.core.errors import MissingData, within

OPEN, CLOSE = "⟨", "⟩"
_MARKED = re.compile(f"{OPEN}(-?[0-9.]+) ([^{CLOSE}]+){CLOSE}")
POUND_KG = 0.45359237  # by definition
OUNCE_G = 28.349523125  # by definition
INCH_MM = 25.4  # by definition
FOOT_M = 0.3048  # by definition
CUP_L = 0.2365882365  # by definition
QUART_L = 4 * CUP_L


@dataclass(frozen=True)
class Reading:
    """How a cook reads amounts: US kitchen units or metric ones, Fahrenheit or Celsius."""

    us: bool = False
    fahrenheit: bool = False


METRIC = Reading()


def amount(value: float, unit: str) -> str:
    """An amount in SI or a metric kitchen unit, marked for `render`.

    Raises MissingData for a unit that `render` does not know, OutOfRange for what is no number.

    Examples
    --------
    >>> render(f"at least {amount(63.0, '°C')} inside", Reading(fahrenheit=True))
    'at least 145 °F inside'
    """
    within("value", value, -1e9, 1e9, unit)
    if unit not in _METRIC:
        raise MissingData("units of a sentence", unit, tuple(_METRIC))
    return f"{OPEN}{round(value, 6):.10g} {unit}{CLOSE}"


def render(text: str, reading: Reading = METRIC) -> str:
    """The text with every marked amount in the cook's units, each with its unit."""
    return _MARKED.sub(lambda found: _shown(float(found[1]), found[2], reading), text)


def _shown(value: float, unit: str, reading: Reading) -> str:
    if unit in ("°C", "K"):
        return _degrees(value, unit, reading.fahrenheit)
    found = _US.get(unit) if reading.us else None
    return (found or _METRIC[unit])(value)


def _degrees(value: float, unit: str, fahrenheit: bool) -> str:
    """A temperature, or with "K" a difference of two, to the whole degree."""
    if not fahrenheit:
        return f"{value:.0f} °C"
    zero = 32.0 if unit == "°C" else 0.0  # by definition
    return f"{1.8 * value + zero:.0f} °F"  # by definition


def _plain(digits: int, unit: str) -> Callable[[float], str]:
    return lambda value: f"{round(value, digits):g} {unit}"


def _scaled(factor: float, digits: int, unit: str) -> Callable[[float], str]:
    return lambda value: f"{round(value / factor, digits):g} {unit}"


def _us_volume(litres: float) -> str:
    """Cups to the quarter up to a quart, then quarts."""
    if litres < QUART_L:
        quarters = max(1, round(4.0 * litres / CUP_L))
        return f"{quarters / 4:g} cup{'' if quarters <= 4 else 's'}"
    return f"{round(litres / QUART_L, 1):g} qt"


_METRIC: dict[str, Callable[[float], str]] = {
    "°C": _plain(0, "°C"),
    "K": _plain(0, "°C"),
    "kg": _plain(2, "kg"),
    "g": _plain(0, "g"),
    "L": _plain(2, "L"),
    "mm": _plain(0, "mm"),
    "cm": _plain(1, "cm"),
    "m": _plain(0, "m"),
}
_US: dict[str, Callable[[float], str]] = {
    "kg": _scaled(POUND_KG, 1, "lb"),
    "g": _scaled(OUNCE_G, 1, "oz"),
    "L": _us_volume,
    "mm": _scaled(INCH_MM, 1, "in"),
    "cm": _scaled(INCH_MM / 10.0, 1, "in"),
    "m": _scaled(FOOT_M, 0, "ft"),
}
