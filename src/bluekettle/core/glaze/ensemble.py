"""The ensemble: what is not known about tonight, drawn once from a fixed seed, and re-weighted by
what is seen.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtri
from scipy.stats import qmc

from bluekettle.core.errors import Fault, OutOfRange, Ranges
from bluekettle.core.tables import value

Array = NDArray[np.float64]

MEMBERS = 128
NAMES = (
    "heat",
    "coat",
    "interface",
    "browning",
    "thickness",
    "start",
    "power",
    "loss",
    "hands",
    "liquid",
    "vent",
    "preheat",
)
# What a kitchen may be like where nobody said: drawn beside the rest, which they do not move.
UNKNOWN = ("altitude", "gauge", "volume", "heater", "oven_air", "heating_up")


@dataclass(frozen=True)
class Draws:
    """Standard normal draws by name, each of shape (members,); the first member is the median of
    everything.
    """

    normal: dict[str, Array]

    @property
    def members(self) -> int:
        """Number of members."""
        return int(self.normal["heat"].size)

    def factor(self, name: str, log_sd: float) -> Array:
        """Log-normal factors [-] of median 1 for one unknown, (members,)."""
        return np.exp(log_sd * self.normal[name])

    def picked(self, members: Sequence[int]) -> Draws:
        """Some members alone."""
        return Draws({name: normal[list(members)] for name, normal in self.normal.items()})

    def median_only(self) -> Draws:
        """The one member in which everything takes its middle value."""
        return Draws({name: np.zeros(1) for name in self.normal})


def draw_members(seed: int = 1, members: int = MEMBERS) -> Draws:
    """Draw the ensemble: scrambled Sobol points through the normal quantile, same bits for the same
    seed.

    Parameters
    ----------
    seed : int
        0 to 2**31.
    members : int
        A power of two from 8 to 1024. Member 0 is replaced by the median member.

    Raises
    ------
    OutOfRange
    """
    ranges = Ranges()
    ranges.within("seed", seed, 0, 2**31)
    if members not in (8, 16, 32, 64, 128, 256, 512, 1024):
        ranges.add("members", members, "a power of two from 8 to 1024")
    ranges.close()
    found: dict[str, Array] = {}
    for names, own in ((NAMES, seed), (UNKNOWN, seed + len(NAMES))):
        points = qmc.Sobol(len(names), scramble=True, rng=own).random(members)
        normal = ndtri(np.clip(points, 1e-6, 1 - 1e-6))
        normal[0] = 0.0
        found |= {name: np.ascontiguousarray(normal[:, i]) for i, name in enumerate(names)}
    return Draws(found)


def weighted_quantile(values: Array, weights: Array, quantile: float) -> float:
    """Quantile of weighted values [in their unit]; inf where the members beyond it never got there.

    Midpoint rule on the cumulated weight, linear between members (never between a finite value and
    inf). Raises OutOfRange for a quantile outside 0 to 1, a NaN, or weights that are negative or
    sum to nothing.
    """
    return weighted_quantiles(values, weights, (quantile,))[0]


def weighted_quantiles(values: Array, weights: Array, quantiles: Sequence[float]) -> list[float]:
    """Several of them from one sorting; otherwise as `weighted_quantile`."""
    ranges = Ranges()
    for quantile in quantiles:
        ranges.within("quantile", quantile, 0.0, 1.0)
    if values.shape != weights.shape or values.size == 0 or np.isnan(values).any():
        ranges.add("values", values.shape, "one or more values, no NaN, as many as weights")
    if not (weights >= 0.0).all() or not weights.sum() > 0.0:
        ranges.add("weights", weights.shape, "weights of 0 or more with a positive sum")
    ranges.close()
    order = np.argsort(values, kind="stable")
    sorted_values, sorted_weights = values[order], weights[order]
    place = np.cumsum(sorted_weights) - 0.5 * sorted_weights
    place /= sorted_weights.sum()
    return [_between(sorted_values, place, quantile) for quantile in quantiles]


TAIL_REACH = 0.03  # of the share on both sides that speaks for a tail (numerical)
TAIL_POINTS = 9


def tail_quantile(values: Array, weights: Array, quantile: float) -> float:
    """A quantile far out [in the unit of the values], from the members around it as well.

    The twentieth of 128 members is six of them, and any one would move it: the mean of the
    quantiles `TAIL_REACH` to both sides moves half as much from seed to seed (docs/model.md).
    Where some of them never get there, the plain quantile. Raises OutOfRange as
    `weighted_quantiles`, and for a quantile nearer than that to 0 or 1.
    """
    ranges = Ranges()
    ranges.within("quantile", quantile, TAIL_REACH, 1.0 - TAIL_REACH)
    ranges.close()
    near = np.linspace(quantile - TAIL_REACH, quantile + TAIL_REACH, TAIL_POINTS)
    found = np.array(weighted_quantiles(values, weights, tuple(near)))
    if not np.isfinite(found).all():
        return weighted_quantile(values, weights, quantile)
    return float(found.mean())


def _between(values: Array, place: Array, quantile: float) -> float:
    i = int(np.searchsorted(place, quantile))
    if i == 0:
        return float(values[0])
    if i >= len(values):
        return float(values[-1])
    low, high = float(values[i - 1]), float(values[i])
    if high == np.inf:
        return high
    return low + (high - low) * float((quantile - place[i - 1]) / (place[i] - place[i - 1]))


Sighting = tuple[
    Array, float
]  # each member's own time of the sign [s], the time at which it was seen [s]


def reweigh(sightings: Sequence[Sighting], members: int, log_sd: float | None = None) -> Array:
    """Weights of the members [-] after signs were seen, shape (members,), sum 1.

    A sign seen at a time is a log-normal observation of the member's own time for it (sd `log_sd`,
    0.15 by default). Members that never show the sign get no weight, unless none shows it: then the
    sighting tells nothing.

    Raises
    ------
    OutOfRange
        A time that is not positive and finite, `members` outside 1 to 4096, `log_sd` outside 0.01
        to 2, a NaN among the members' own times.
    """
    ranges = Ranges()
    ranges.within("members", members, 1, 4096)
    ranges.within("log_sd", log_sd if log_sd is not None else 0.15, 0.01, 2.0)
    if any(np.isnan(own).any() or own.shape != (members,) for own, _ in sightings):
        ranges.add("sightings", members, "one time for each member, no NaN")
    ranges.close()
    sd = value("sighting_error") if log_sd is None else log_sd
    log_weight = np.zeros(members)
    for own, seen_s in sightings:
        if not (np.isfinite(seen_s) and seen_s > 0.0):
            raise OutOfRange([Fault("at_s", seen_s, "a time above 0 s under the heat")])
        reached = np.isfinite(own)
        if not reached.any():
            continue
        distance = np.full(members, 12.0)  # standard deviations: as good as never (numerical)
        distance[reached] = np.abs(np.log(np.maximum(own[reached], 1.0) / seen_s)) / sd
        # Tails of a Student-like weight: one wrong tap may not silence every member.
        log_weight += -2.5 * np.log1p(distance**2 / 4.0)
        log_weight[~reached] -= 30.0  # a weight of about 1e-13 (numerical)
    weight = np.exp(log_weight - log_weight.max())
    return np.asarray(weight / weight.sum())
