"""One piece of food as a body of one dimension that heats like it: through its ends as well.

Under a constant boundary a brick or a short cylinder heats as the product of the series of its
directions (Carslaw and Jaeger, Conduction of Heat in Solids, 2nd ed., ch. 5; Incropera, ch. 5). A
body whose area grows with the distance from its middle to a power between 0 (slab) and 2 (sphere)
has a lag and a decay of its own: the power and the radius are found for which the middle is half
way, and nearly there, when that of the product is (the equivalent dimension of Cleland and Earle).
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import brentq
from scipy.special import gamma, jv, jvp

from bluekettle.core.errors import Ranges

Array = NDArray[np.float64]

HALVINGS = 28  # of an interval that holds one root: to 1e-9 (numerical)
TERMS = 8  # of a series: from the fourth on they add less than 1e-4 (numerical)
HALF_WAY, NEARLY = 0.5, 0.04  # share of the difference left; between them lies what cooks (design)
MOST_POWER = 6.0  # more directions than three help each other at a weak exchange (numerical)
SERIES_KEPT, BODIES_KEPT = 2048, 512  # a server runs for weeks (numerical)
LOWEST_BIOT = 1e-3  # below it all of the piece has one temperature (numerical)


@dataclass(frozen=True)
class Body:
    """Radius [m] and the power with which area grows towards the surface: 0 slab, 1 cylinder, 2
    sphere, and between.
    """

    half_m: float
    power: float


@lru_cache(maxsize=SERIES_KEPT)
def series(power: float, biot: float) -> tuple[Array, Array]:
    """Eigenvalues [-] and amplitudes in the middle [-] of a body heated from outside, each
    (TERMS,).

    T_middle is left by a share sum(amplitude * exp(-eigenvalue² Fo)). The eigenvalues solve
    z J(v+1, z) = Bi J(v, z) with v = (power - 1) / 2.
    """
    v = 0.5 * (power - 1.0)

    def off(z: Array) -> Array:
        return np.asarray(z * jv(v + 1.0, z) - biot * jv(v, z))

    # One root lies between zero and the first root of J(v), the others between the roots of J(v +
    # 1) and J(v), which are about pi apart.
    grid = np.linspace(1e-6, (TERMS + 1.5) * np.pi, 12 * TERMS)
    values = off(grid)
    places = np.flatnonzero(values[:-1] * values[1:] < 0.0)[:TERMS]
    low, high = grid[places], grid[places + 1]
    rising = values[places] < 0.0
    for _ in range(HALVINGS):
        middle = 0.5 * (low + high)
        below = (off(middle) < 0.0) == rising
        low, high = np.where(below, middle, low), np.where(below, high, middle)
    z = 0.5 * (low + high)
    norm = 0.5 * (jvp(v, z) ** 2 + (1.0 - (v / z) ** 2) * jv(v, z) ** 2)
    amplitude = jv(v + 1.0, z) / z / norm * (0.5 * z) ** v / gamma(v + 1.0)
    return z, np.asarray(amplitude)


def left(power: float, biot: float, fourier: Array | float) -> Array:
    """Share of the first difference that is left in the middle [-] at a Fourier number [-]."""
    z, amplitude = series(power, round(max(biot, LOWEST_BIOT), 6))
    return np.asarray(np.sum(amplitude * np.exp(-np.multiply.outer(fourier, z**2)), axis=-1))


def share_left(
    halves_m: tuple[float, ...], powers: tuple[float, ...], h_over_k: float, a_t: float
) -> float:
    """What is left in the middle [-] of a product of bodies after `a_t` [m²], diffusivity times
    time, at exchange over conductivity `h_over_k` [1/m].
    """
    found = 1.0
    for half, power in zip(halves_m, powers, strict=True):
        found *= float(left(power, h_over_k * half, a_t / half**2))
    return found


def when_left(
    halves_m: tuple[float, ...], powers: tuple[float, ...], h_over_k: float, share: float
) -> float:
    """Diffusivity times time [m²] until a share is left in the middle of a product of bodies."""
    thin = min(halves_m)
    # Between a fiftieth, at which no middle knows of it yet, and four times what a slab takes.
    soonest = 0.02 * thin**2  # (numerical)
    most = thin**2 * (20.0 + 20.0 / (h_over_k * thin))  # (numerical)

    def off(a_t: float) -> float:
        return share_left(halves_m, powers, h_over_k, a_t) - share

    return float(brentq(off, soonest, most, xtol=1e-6 * thin**2))


def equal_body(
    halves_m: tuple[float, ...], powers: tuple[float, ...], h_w_m2_k: float, k_w_m_k: float
) -> Body:
    """The body of one dimension whose middle is half way, and nearly there, when that of the piece
    is.

    Parameters
    ----------
    halves_m : tuple of float
        Half-lengths or radius of the directions whose product the piece is [m], 0.5 mm to 2 m.
    powers : tuple of float
        0 for each slab direction, 1 for a cylinder's radius, 2 for a sphere.
    h_w_m2_k : float
        Exchange with the surroundings [W/m²K], 0.1 to 1e5.
    k_w_m_k : float
        Conductivity of the food [W/mK], 0.01 to 10.

    Returns
    -------
    Body
        The middle agrees with the product within 1 % of the first difference at all times
        (tests/against/test_whole_pieces.py).

    Raises
    ------
    OutOfRange
        Names every argument outside its range.
    """
    ranges = Ranges()
    for number, half in enumerate(halves_m):
        ranges.within(f"halves_m.{number}", half, 5e-4, 2.0, "m")
    for number, power in enumerate(powers):
        ranges.within(f"powers.{number}", power, 0.0, 2.0)
    ranges.within("h_w_m2_k", h_w_m2_k, 0.1, 1e5, "W/m²K")
    ranges.within("k_w_m_k", k_w_m_k, 0.01, 10.0, "W/mK")
    ranges.close()
    return _equal(halves_m, powers, h_w_m2_k / k_w_m_k)


@lru_cache(maxsize=BODIES_KEPT)
def _equal(halves_m: tuple[float, ...], powers: tuple[float, ...], h_over_k: float) -> Body:
    half_way, nearly = (when_left(halves_m, powers, h_over_k, s) for s in (HALF_WAY, NEARLY))

    def radius(power: float) -> float:
        """The radius [m] at which a body of this power is nearly there at the same time."""

        def off(half: float) -> float:
            return when_left((half,), (power,), h_over_k, NEARLY) / nearly - 1.0

        thin = min(halves_m)
        return float(brentq(off, 0.2 * thin, 8.0 * thin, rtol=1e-5))  # (numerical)

    def late(power: float) -> float:
        return when_left((radius(power),), (power,), h_over_k, HALF_WAY) / half_way - 1.0

    if late(0.0) * late(MOST_POWER) > 0.0:
        power = 0.0 if abs(late(0.0)) < abs(late(MOST_POWER)) else MOST_POWER
    else:
        power = float(brentq(late, 0.0, MOST_POWER, xtol=1e-3))
    return Body(radius(power), power)
