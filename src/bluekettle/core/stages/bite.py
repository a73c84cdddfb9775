"""How it will eat: the bite that was wished for, from the cook value of every member."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtr

from bluekettle.core.stages.cuts import Cut
from bluekettle.core.tables import value

Array = NDArray[np.float64]

LEAST_COOK_MIN = 1e-6  # of food that no heat has reached: its logarithm has to exist (numerical)
BITE_ORDER = ("sliceable", "tug", "falls", "shreds")


@dataclass(frozen=True)
class Tenderness:
    """Cook value [min] as a band, the target, and the chances: at least the bite asked for, and
    overdone.
    """

    low: float
    likely: float
    high: float
    target: float
    enough: float
    overdone: float
    site: str


@dataclass(frozen=True)
class Cooked:
    """Cook values [min], (members,), and the same times how far from 100 °C they were gained
    [K min], (members,).
    """

    minutes: Array
    away: Array

    @property
    def spread(self) -> Array:
        """Log sd of what such a value is worth, (members,): like pieces differ, and z is not known
        to the kelvin. What was gained near 100 °C is worth the same by any z.
        """
        away_k = self.away / np.maximum(self.minutes, LEAST_COOK_MIN)
        by_z = away_k * math.log(10.0) * value("spread_z") / value("cook_z_c") ** 2
        return np.asarray(np.hypot(value("spread_tender"), by_z))


def judge_tenderness(cooked: Cooked, bite: str, cut: Cut) -> Tenderness:
    """Band of the cook value [min], and the chances that it is enough and too much.

    Like pieces are not alike: the value at which one has a bite spreads about the table's.
    """
    low, likely, high = (float(q) for q in np.quantile(cooked.minutes, (0.1, 0.5, 0.9)))
    return Tenderness(
        low,
        likely,
        high,
        cut.targets[bite],
        share_over(cooked, least_for(bite, cut)),
        share_over(cooked, cut.overdone),
        cut.site,
    )


def least_for(bite: str, cut: Cut) -> float:
    """Cook value [min] under which a bite is missed: the food comes nearer to the next tougher one.
    KeyError for a bite that is not the cut's.
    """
    target = cut.targets[bite]
    below = [t for b in BITE_ORDER if (t := cut.targets.get(b, target)) < target]
    # of the wish; under the softest bite (design)
    return float((target * below[-1]) ** 0.5) if below else 0.6 * target


def share_over(cooked: Cooked, bar: float) -> float:
    """Share of pieces [-] that their cook value takes past a bar [min], as pieces differ."""
    over = np.log(np.maximum(cooked.minutes, LEAST_COOK_MIN) / bar)
    return float(ndtr(over / cooked.spread).mean())
