"""What a finish says to a cook: milestones, the two windows, when to look, the risk of burning
against time.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.errors import Ranges
from bluekettle.core.glaze.ensemble import tail_quantile, weighted_quantile, weighted_quantiles
from bluekettle.core.glaze.finish import Finish

Array = NDArray[np.float64]

MILESTONES = ("set", "bubbling", "amber", "mahogany", "bitter", "burnt", "crisp")
SITES = ("face", "edge")
SET, BUBBLING, AMBER, MAHOGANY, BITTER, BURNT, CRISP = range(7)
FACE, EDGE, BACK = 0, 1, 2
RISK_ACCEPTED = 0.05


@dataclass(frozen=True)
class OpenBand:
    """Low, likely and high (P10, P50, P90) of a time [s]; None where the members of that quantile
    never get there.
    """

    low_s: float | None
    likely_s: float | None
    high_s: float | None
    reached: float  # share of weight that reaches it at all


@dataclass(frozen=True)
class Gap:
    """By sight: from a sign to the wanted colour, and from the wanted colour to burnt; bands of
    time [s].
    """

    sign: str
    to_wanted: OpenBand
    wanted_to_burnt: OpenBand


@dataclass(frozen=True)
class Window:
    """The pull window by the clock: opens and closes [s]; empty where `opens_s` is not before
    `closes_s`.
    """

    opens_s: float | None
    closes_s: float | None
    empty: bool
    hit: float  # chance that a pull in the middle of it is at the wanted colour and not burnt


@dataclass(frozen=True)
class Milestones:
    """All that is read from one finish under one set of weights."""

    bands: dict[str, dict[str, OpenBand]]
    window: Window
    gaps: tuple[Gap, ...]
    look_from_s: float
    look_every_s: float
    possible: float  # share of members in which the wanted colour comes before burning
    risk: Array  # chance of burning at each sample time
    wanted: Array  # chance of having the wanted colour at each sample time
    lead: tuple[str, ...] = ()


def band(times: Array, weights: Array) -> OpenBand:
    """P10, P50 and P90 of times that may be inf."""
    found = weighted_quantiles(times, weights, (0.1, 0.5, 0.9))
    low, likely, high = (t if math.isfinite(t) else None for t in found)
    return OpenBand(low, likely, high, float(weights[np.isfinite(times)].sum() / weights.sum()))


def bands_of(times: Array, weights: Array) -> list[OpenBand]:
    """`band` of each column of times (members, n), from one sorting of them all."""
    order = np.argsort(times, axis=0, kind="stable")
    lined = np.take_along_axis(times, order, 0)
    sorted_weights = weights[order]
    total = weights.sum()
    place = (np.cumsum(sorted_weights, axis=0) - 0.5 * sorted_weights) / total
    reached = (np.isfinite(times) * weights[:, None]).sum(axis=0) / total
    quantiles = (0.1, 0.5, 0.9)
    after = np.array(
        [(place < q).sum(axis=0) for q in quantiles]
    )  # the first member at or past each quantile
    last = len(times) - 1
    columns = np.arange(times.shape[1])
    above, below = np.minimum(after, last), np.clip(after - 1, 0, last)
    low, high = lined[below, columns], lined[above, columns]
    span = np.where(above > below, place[above, columns] - place[below, columns], 1.0)
    with np.errstate(invalid="ignore"):
        share = np.where(
            above > below, (np.array(quantiles)[:, None] - place[below, columns]) / span, 0.0
        )
        found = np.where(np.isinf(high), np.inf, low + (high - low) * share)
    low_s, likely_s, high_s = (
        [t if math.isfinite(t) else None for t in row] for row in found.tolist()
    )
    return [OpenBand(*one) for one in zip(low_s, likely_s, high_s, reached.tolist(), strict=True)]


def wanted_times(finish: Finish, want: int) -> Array:
    """When each member first has the wanted face, set, with an edge that is not burnt [s]; inf
    where never. A dark surface that shows through a wet coat is not ready yet.
    """
    face = np.maximum(finish.times_s[:, FACE, want], finish.times_s[:, FACE, SET])
    if finish.times_s.shape[1] > BACK:  # turned: both broad sides have to be there
        face = np.maximum(face, finish.times_s[:, BACK, want])
    return np.where(face < finish.times_s[:, EDGE, BURNT], face, np.inf)


def read_milestones(finish: Finish, weights: Array, want: str = "mahogany") -> Milestones:
    """Bands, windows, looks and risk of a finish.

    Parameters
    ----------
    finish : Finish
    weights : ndarray, shape (members,)
        Not negative, with a positive sum.
    want : {"amber", "mahogany"}

    Notes
    -----
    By the clock: from the median of the wanted colour to the moment the risk (edge burnt or face
    bitter) passes 5 %. By sight: gaps within each member, then their quantiles; so what is common
    to all milestones falls out.

    Raises
    ------
    OutOfRange
    """
    ranges = Ranges()
    ranges.one_of("want", want, ("amber", "mahogany"))
    if (
        weights.shape != (finish.times_s.shape[0],)
        or not (weights >= 0).all()
        or not weights.sum() > 0
    ):
        ranges.add("weights", weights.shape, "one weight of 0 or more per member")
    ranges.close()
    target = MILESTONES.index(want)
    times = finish.times_s
    every_band = bands_of(times.reshape(len(times), -1), weights)
    bands = {
        site: {name: every_band[s * times.shape[2] + i] for i, name in enumerate(MILESTONES)}
        for s, site in enumerate((*SITES, "back")[: times.shape[1]])
    }
    ready = wanted_times(finish, target)
    spoilt = np.minimum(times[:, EDGE, BURNT], times[:, FACE, BITTER])
    if times.shape[1] > BACK:
        spoilt = np.minimum(spoilt, times[:, BACK, BITTER])
    total = weights.sum()
    gone = spoilt[None, :] <= finish.sample_s[:, None]
    risk = np.minimum(1.0, gone @ weights / total)
    has = ((ready[None, :] <= finish.sample_s[:, None]) & ~gone) @ weights / total
    window = clock_window(ready, spoilt, weights)
    gaps = tuple(
        sight_gap(name, times[:, site, sign], ready, spoilt, weights)
        for name, site, sign in (("bubbling", EDGE, BUBBLING), ("amber at the edges", EDGE, AMBER))
    )
    first = np.minimum(times[:, EDGE, BUBBLING], times[:, EDGE, AMBER])
    look_from = tail_quantile(first, weights, 0.05)
    horizon = float(finish.sample_s[-1])
    look_from = min(look_from, horizon) if math.isfinite(look_from) else horizon
    # Half the shortest likely gap from amber edges to the wanted colour, and to trouble; between 5
    # s and 2 min.
    spans = [g for g in (gaps[1].to_wanted.low_s, gaps[1].wanted_to_burnt.low_s) if g is not None]
    # looks: every 5 s to 2 min (design)
    every = min(120.0, max(5.0, 0.5 * min(spans))) if spans else 15.0
    possible = float(weights[np.isfinite(ready)].sum() / total)
    return Milestones(bands, window, gaps, look_from, every, possible, risk, has)


def clock_window(ready: Array, spoilt: Array, weights: Array) -> Window:
    """From the median of the wanted colour to 5 % risk of burning."""
    opens = weighted_quantile(ready, weights, 0.5)
    closes = tail_quantile(spoilt, weights, RISK_ACCEPTED)
    opens_s = opens if math.isfinite(opens) else None
    closes_s = closes if math.isfinite(closes) else None
    empty = opens_s is None or (closes_s is not None and closes_s <= opens_s)
    middle = opens if closes_s is None or empty else 0.5 * (opens + closes)
    hit = (
        float(weights[(ready <= middle) & (spoilt > middle)].sum() / weights.sum())
        if opens_s is not None
        else 0.0
    )
    return Window(opens_s, closes_s, empty, hit)


def sight_gap(name: str, sign: Array, ready: Array, spoilt: Array, weights: Array) -> Gap:
    """Gaps within each member from a sign to the wanted colour and from there to trouble."""
    both = np.isfinite(sign) & np.isfinite(ready)
    never = OpenBand(None, None, None, 0.0)
    if not both.any() or weights[both].sum() <= 0.0:
        return Gap(name, never, never)
    share = float(weights[both].sum() / weights.sum())
    to_wanted = band(np.maximum(0.0, ready[both] - sign[both]), weights[both])
    with np.errstate(invalid="ignore"):
        onward = band(
            np.where(
                np.isfinite(spoilt[both]), np.maximum(0.0, spoilt[both] - ready[both]), np.inf
            ),
            weights[both],
        )
    return Gap(
        name,
        OpenBand(to_wanted.low_s, to_wanted.likely_s, to_wanted.high_s, share),
        OpenBand(onward.low_s, onward.likely_s, onward.high_s, onward.reached * share),
    )
