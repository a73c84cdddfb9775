"""A joint belief in the logarithms of four factors: heat, coat, interface, browning.

Kept with its covariance: most of a finish's spread is common to all four, so a sighting fixes their
sum far better than any one of them, and marginals alone would throw that away.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtri
from scipy.stats import qmc

from bluekettle.core.errors import Ranges
from bluekettle.core.tables import value

Array = NDArray[np.float64]

NAMES = ("heat", "coat", "interface", "browning")
EVENINGS = ("evening_heat", "evening_coat", "evening_interface", "evening_browning")
MEMBERS = 256


@dataclass(frozen=True)
class Belief:
    """Mean (4,) and covariance (4, 4) of the log factors, in the order of NAMES, and how much was
    seen.
    """

    mean: Array
    cov: Array
    seen: int = 0

    def sd(self, name: str) -> float:
        """Log sd of one factor [-]."""
        i = NAMES.index(name)
        return float(np.sqrt(self.cov[i, i]))

    def factor(self, name: str) -> float:
        """Likely value of one factor [-]; 1 is the typical one."""
        return float(np.exp(self.mean[NAMES.index(name)]))


def first_belief(heat_sd: float) -> Belief:
    """The belief before anything was seen: independent, median 1.

    `heat_sd` is the appliance's log sd (0.35 broiler, 0.20 oven, 0.15 air fryer), 0.01 to 1;
    OutOfRange otherwise.
    """
    ranges = Ranges()
    ranges.within("heat_sd", heat_sd, 0.01, 1.0)
    ranges.close()
    sds = (heat_sd, value("spread_coat"), value("spread_interface"), value("spread_browning"))
    return Belief(np.zeros(4), np.diag(np.square(sds)))


def draw_factors(belief: Belief, seed: int = 1, members: int = MEMBERS) -> Array:
    """Log factors of an ensemble [-], (members, 4); scrambled Sobol, same bits for the same seed.

    Raises OutOfRange for a seed outside 0 to 2**31 or members that are no power of two from 16 to
    1024.
    """
    ranges = Ranges()
    ranges.within("seed", seed, 0, 2**31)
    if members not in (16, 32, 64, 128, 256, 512, 1024):
        ranges.add("members", members, "a power of two from 16 to 1024")
    ranges.close()
    points = qmc.Sobol(4, scramble=True, rng=seed).random(members)
    normal = ndtri(np.clip(points, 1e-6, 1 - 1e-6))
    normal[0] = 0.0
    return np.asarray(belief.mean + normal @ np.linalg.cholesky(belief.cov + 1e-9 * np.eye(4)).T)


def learn(
    belief: Belief, log_factors: Array, log_ratio: Array, log_sd: float | None = None
) -> Belief:
    """The belief after one sign was seen.

    Parameters
    ----------
    belief : Belief
        What `log_factors` were drawn from.
    log_factors : ndarray, shape (members, 4)
    log_ratio : ndarray, shape (members,)
        ln(own time of the sign / time at which it was seen); inf where a member never shows it.
    log_sd : float, optional
        Log-time error of a sight, 0.15 by default.

    Notes
    -----
    The log time is nearly linear in the log factors, so a least-squares line through the members
    gives the gain of an ensemble Kalman step: smooth where importance weights would leave a handful
    of members after a few sightings. An odd sighting, over three sd from what was believed, counts
    for less (its error is widened to that distance).

    Raises
    ------
    OutOfRange
        Shapes that disagree, or a sign that under a fifth of the members ever show.
    """
    ranges = Ranges()
    finite = np.isfinite(log_ratio)
    if log_factors.shape != (log_ratio.size, 4):
        ranges.add("log_factors", log_factors.shape, "one row of four per member")
    ranges.within("log_sd", 0.15 if log_sd is None else log_sd, 0.01, 2.0)
    if np.isnan(log_ratio).any() or not np.isfinite(log_factors).all():
        ranges.add("log_ratio", log_ratio.shape, "no NaN in ratios, finite factors")
    ranges.within("members that show the sign", float(finite.mean()), 0.2, 1.0)
    ranges.close()
    error = value("sighting_error") if log_sd is None else log_sd
    x = log_factors[finite] - belief.mean
    design = np.column_stack([np.ones(len(x)), x])
    fit, *_ = np.linalg.lstsq(design, log_ratio[finite], rcond=None)
    middle, slope = fit[0], fit[1:]
    rest = float(np.var(log_ratio[finite] - design @ fit))
    spread = float(slope @ belief.cov @ slope)
    noise = error**2 + rest
    # beyond three standard deviations an evening counts less (design)
    if middle**2 > 9.0 * (spread + noise):
        noise += middle**2 / 9.0  # the same three, squared (design)
    gain = belief.cov @ slope / (spread + noise)
    cov = belief.cov - np.outer(gain, slope @ belief.cov)
    return Belief(belief.mean - gain * middle, 0.5 * (cov + cov.T), belief.seen + 1)


def evening_cov() -> Array:
    """What is drawn anew every evening [-], (4, 4): the weather of an appliance that else keeps its
    heat, and half of what is unknown of the brush, the meat's surface and the sauce's batch.
    """
    return np.diag([value(name) ** 2 for name in EVENINGS])


def next_cook(began: Belief, ended: Belief) -> Belief:
    """What one evening leaves for another: of what it taught, the share that stays.

    Parameters
    ----------
    began, ended : Belief
        Before the evening's first sign, and after its last.

    Notes
    -----
    A factor is a habit, which stays, and the evening, which is drawn anew (`evening_cov`). Signs
    tell the sum; what they tell of the habit follows by regression on the sum, exactly for normal
    spreads. The next evening is the habit with a new evening on top, so the spread never falls
    under that of an evening.
    """
    anew = evening_cov()
    habit = without_negative(began.cov - anew)
    keeps = habit @ np.linalg.inv(began.cov)
    cov = habit - keeps @ (began.cov - ended.cov) @ keeps.T + anew
    mean = began.mean + keeps @ (ended.mean - began.mean)
    return Belief(mean, 0.5 * (cov + cov.T), ended.seen)


def without_negative(cov: Array) -> Array:
    """The nearest covariance [-], (4, 4): a belief narrower than an evening knows its habit."""
    values, axes = np.linalg.eigh(0.5 * (cov + cov.T))
    return np.asarray((axes * np.maximum(values, 0.0)) @ axes.T)
