"""Thermal properties of food from its composition, frozen and thawed."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.errors import Ranges

Array = NDArray[np.float64]

GRID_C0, GRID_STEP_C, GRID_N = -40.0, 0.5, 401  # -40 to 160 °C
FREEZING_C = -1.0
COMPONENTS = ("water", "protein", "fat", "carbohydrate", "ash")

# Choi and Okos (1986) as printed in the ASHRAE Handbook of Refrigeration: polynomials in °C, lowest
# power first.
K_W_M_K = {
    "water": (5.7109e-1, 1.7625e-3, -6.7036e-6),
    "protein": (1.7881e-1, 1.1958e-3, -2.7178e-6),
    "fat": (1.8071e-1, -2.7604e-4, -1.7749e-7),
    "carbohydrate": (2.0141e-1, 1.3874e-3, -4.3312e-6),
    "ash": (3.2962e-1, 1.4011e-3, -2.9069e-6),
    "ice": (2.2196, -6.2489e-3, 1.0154e-4),
}
# The same source.
RHO_KG_M3 = {
    "water": (9.9718e2, 3.1439e-3, -3.7574e-3),
    "protein": (1.3299e3, -5.1840e-1, 0.0),
    "fat": (9.2559e2, -4.1757e-1, 0.0),
    "carbohydrate": (1.5991e3, -3.1046e-1, 0.0),
    "ash": (2.4238e3, -2.8063e-1, 0.0),
    "ice": (9.1689e2, -1.3071e-1, 0.0),
}
# The same source.
CP_KJ_KG_K = {
    "water": (4.1762, -9.0864e-5, 5.4731e-6),
    "protein": (2.0082, 1.2089e-3, -1.3129e-6),
    "fat": (1.9842, 1.4733e-3, -4.8008e-6),
    "carbohydrate": (1.5488, 1.9625e-3, -5.9399e-6),
    "ash": (1.0926, 1.8896e-3, -3.6817e-6),
    "ice": (2.0623, 6.0769e-3, 0.0),
}
FUSION_J_KG = 333.6e3  # latent heat of ice


@dataclass(frozen=True)
class FoodProperties:
    """Properties of one food on a uniform temperature grid, for the conduction kernel.

    enthalpy_j_m3 and k_w_m_k have shape (401,), from -40 to 160 °C in steps of 0.5 °C; enthalpy is
    0 at -40 °C.
    """

    density_kg_m3: float
    enthalpy_j_m3: Array
    k_w_m_k: Array
    water_fraction: float

    @property
    def temp_c(self) -> Array:
        """The grid's temperatures [°C]."""
        return np.asarray(GRID_C0 + GRID_STEP_C * np.arange(GRID_N), dtype=np.float64)

    def specific_heat_j_kg_k(self, low_c: float, high_c: float) -> float:
        """Mean specific heat between two temperatures [J/kgK], latent heat included."""
        low, high = np.interp([low_c, high_c], self.temp_c, self.enthalpy_j_m3)
        return float((high - low) / (high_c - low_c) / self.density_kg_m3)


def _polynomial(table: dict[str, tuple[float, float, float]], name: str, temp_c: Array) -> Array:
    a, b, c = table[name]
    return a + b * temp_c + c * temp_c**2


def ice_fraction(water: float, temp_c: Array) -> Array:
    """Mass fraction of ice [-] by Tchigeov's relation (ASHRAE Refrigeration), never more than the
    water itself.
    """
    below = np.maximum(FREEZING_C - temp_c, 1e-9)
    share = 1.105 / (1.0 + 0.7138 / np.log(below + 1.0))  # Tchigeov, as in docs/model.md
    return np.where(temp_c < FREEZING_C, np.clip(share, 0.0, 1.0) * water, 0.0)


def food_properties(fractions: dict[str, float]) -> FoodProperties:
    """Properties of a food from its mass fractions.

    Parameters
    ----------
    fractions : dict
        Mass fractions [-] of water, protein, fat, carbohydrate and ash; they are normalised to 1.

    Raises
    ------
    OutOfRange
        A fraction below 0, or a sum below 0.5 (the food is not described) or above 1.5.

    Notes
    -----
    Parallel model by volume for conductivity, sum by mass for enthalpy; Choi and Okos (1986).
    Conductivity of lean beef at 20 °C comes to about 0.48 W/mK, as in ASHRAE's tables of measured
    values (0.4 to 0.5).
    """
    ranges = Ranges()
    for name in fractions:
        ranges.one_of("fractions", name, COMPONENTS)
        ranges.within(f"fractions.{name}", fractions[name], 0.0, 1.0)
    total = sum(fractions.values())
    ranges.within("sum of fractions", total, 0.5, 1.5)
    ranges.close()
    share = {name: fractions.get(name, 0.0) / total for name in COMPONENTS}
    temp: Array = np.asarray(GRID_C0 + GRID_STEP_C * np.arange(GRID_N), dtype=np.float64)
    # The water polynomials are fits for liquid water: below freezing they are held at 0 °C.
    ice = ice_fraction(share["water"], temp)
    parts: dict[str, Array] = {name: np.full_like(temp, share[name]) for name in COMPONENTS}
    parts["water"] = share["water"] - ice
    parts["ice"] = ice
    safe: dict[str, Array] = {
        name: np.maximum(temp, 0.0) if name == "water" else temp for name in parts
    }
    volumes = {name: parts[name] / _polynomial(RHO_KG_M3, name, safe[name]) for name in parts}
    volume = np.sum(list(volumes.values()), axis=0)
    k = np.sum([volumes[n] / volume * _polynomial(K_W_M_K, n, safe[n]) for n in parts], axis=0)
    cp = np.sum([parts[n] * _polynomial(CP_KJ_KG_K, n, safe[n]) for n in parts], axis=0) * 1e3
    sensible = np.concatenate([[0.0], np.cumsum(0.5 * (cp[1:] + cp[:-1]) * GRID_STEP_C)])
    enthalpy = sensible + FUSION_J_KG * (ice[0] - ice)
    # One density for all temperatures (that at 20 °C): the piece keeps its mass, and its size, as
    # it warms.
    density = float(1.0 / volume[int((20.0 - GRID_C0) / GRID_STEP_C)])
    return FoodProperties(density, enthalpy * density, k, share["water"])
