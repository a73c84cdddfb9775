"""Thermodynamics of water and food: steam, ambient pressure, and the properties of food by
composition.

Knows nothing of dishes. Scalar functions that kernels call are compiled with Numba; the rest is
NumPy.
"""

from bluekettle.core.thermo.food import FoodProperties, food_properties
from bluekettle.core.thermo.steam import (
    ambient_pressure_pa,
    boiling_point_c,
    latent_heat_j_kg,
    saturation_pressure_pa,
    saturation_temp_c,
)

__all__ = [
    "FoodProperties",
    "ambient_pressure_pa",
    "boiling_point_c",
    "food_properties",
    "latent_heat_j_kg",
    "saturation_pressure_pa",
    "saturation_temp_c",
]
