"""How it will eat: the bite that was wished for, from the cook value of every member."""

from __future__ import annotations

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


def judge_tenderness(cook: Array, bite: str, cut: Cut) -> Tenderness:
    """Band of the cook value [min], and the chances that it is enough and too much.

    Like pieces are not alike: the value at which one has a bite spreads about the table's.
    """
    low, likely, high = (float(q) for q in np.quantile(cook, (0.1, 0.5, 0.9)))
    return Tenderness(
        low,
        likely,
        high,
        cut.targets[bite],
        share_over(cook, least_for(bite, cut)),
        share_over(cook, cut.overdone),
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


def share_over(cook: Array, bar: float) -> float:
    """Share of pieces [-] that their cook value [min] takes past a bar, as pieces differ."""
    away = np.log(np.maximum(cook, LEAST_COOK_MIN) / bar)
    return float(ndtr(away / value("spread_tender")).mean())
