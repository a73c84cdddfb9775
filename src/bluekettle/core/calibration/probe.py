"""A probe in the food: which courses of an ensemble go with what it reads, and when those get to a
temperature.

Temperatures of the middle over time in, a band of times out. A probe that came loose, or that lies
somewhere else, teaches nothing.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.errors import Ranges, within
from bluekettle.core.tables import value

Array = NDArray[np.float64]

MOST_MEMBERS = 32  # of the ensemble that are looked at (numerical)
PACES, LAGS = 9, 5  # of each member (numerical)
SDS = 2.0  # how far they reach, in their sds (numerical)
CAP_SDS = 3.0  # beyond it a reading counts no more against a course (design)
APART_S = 600.0  # readings this far apart say something new of where the tip lies (estimated)
MOST_APART = 12.0  # of them that count (estimated)
LEAST_COURSES = 16.0  # that are left, by their effective number (design)
TENTH = 1.2816  # sds from the middle of a normal to its tenth
SHORTEST = 1e-3  # of the rest of the way (numerical)
SOFTER, SOFTEST = 0.8, 1e-3  # steps of it (numerical)
FIRST = 3.0  # how much further off the first reading may be: it starts warm, or it is known badly
FEWEST = 0.2  # share of the courses that get there, under which no moment is told (design)


@dataclass(frozen=True)
class Courses:
    """The middle of the food over time, for every member at every pace.

    time_s : (n,) from the begin of the heat [s]; centre_c : (courses, n) [°C]; prior : (courses,)
    weights [-] before anything was read.
    """

    time_s: Array
    centre_c: Array
    prior: Array


@dataclass(frozen=True)
class Probed:
    """What the readings said: weights of the courses [-], (courses,), and which readings have leapt
    away from the likely course, (readings,).
    """

    weights: Array
    loose: NDArray[np.bool_]


@dataclass(frozen=True)
class Reached:
    """When a temperature is reached [s from the begin of the heat]: low, likely and high (P10, P50,
    P90), inf where a share of that size does not reach it; and the share that does [-].
    """

    low_s: float
    likely_s: float
    high_s: float
    share: float


def courses_of(time_s: Array, centre_c: Array) -> Courses:
    """Courses from an ensemble's middles, (members, n) [°C] at (n,) [s]: each member faster and
    slower too, and beginning sooner and later, for what the model does not know of shape and
    contact: heat reaches the middle of a brick later than that of a slab, and then it goes faster.

    Raises OutOfRange for times that do not rise, or figures that are none.
    """
    ranges = Ranges()
    rises = time_s.size > 1 and bool(np.all(np.diff(time_s) > 0.0))
    ranges.within("time_s", float(rises), 1.0, 1.0, "(1: rising)")
    finite = bool(np.all(np.isfinite(centre_c)))
    ranges.within("centre_c", float(finite), 1.0, 1.0, "(1: numbers alone)")
    ranges.close()
    every = max(1, len(centre_c) // MOST_MEMBERS)
    members = centre_c[::every]
    steps, lags = np.linspace(-SDS, SDS, PACES), np.linspace(-SDS, SDS, LAGS)
    half_s = half_way_s(time_s, members)
    found, prior = [], []
    for step in steps:
        pace = np.exp(step * value("spread_pace"))
        for lag in lags:
            moved = time_s * pace - lag * value("spread_lag") * half_s
            found += [np.interp(moved, time_s, member) for member in members]
            prior += [np.exp(-0.5 * (step**2 + lag**2))] * len(members)  # of two normals
    weights = np.array(prior)
    return Courses(time_s, np.array(found), weights / weights.sum())


def half_way_s(time_s: Array, centre_c: Array) -> float:
    """When the median middle has come half of its way [s]."""
    median = np.median(centre_c, axis=0)
    half = 0.5 * (median[0] + median[-1])  # by definition
    return float(time_s[int(np.argmax(median >= half))])


def follow_probe(courses: Courses, at_s: Array, read_c: Array) -> Probed:
    """Weigh the courses by what was read.

    Parameters
    ----------
    courses : Courses
    at_s, read_c : (readings,)
        Seconds from the begin of the heat, and the temperature [°C]; in any order. None at all
        leaves the courses as they are.
    """
    if at_s.size == 0:
        return Probed(courses.prior, np.zeros(0, dtype=np.bool_))
    sd = float(np.hypot(value("probe_error_k"), value("probe_place_k")))
    there = np.array([np.interp(at_s, courses.time_s, one) for one in courses.centre_c])
    off = (read_c - there) / sd
    news = min(MOST_APART, 1.0 + float(np.ptp(at_s)) / APART_S)
    against = 0.5 * news * np.mean(np.minimum(off**2, CAP_SDS**2), axis=1)  # of a normal
    weights = tempered(courses.prior, against)
    likely = np.array([weighted_median(column, weights) for column in there.T])
    return Probed(weights, jumps(at_s, read_c - likely))


def jumps(at_s: Array, off_k: Array) -> NDArray[np.bool_]:
    """Which readings have leapt away from the likely course, (readings,): food that is slow or warm
    moves off it by and by, a probe that slips out does at once.
    """
    most = value("probe_loose_k")
    loose = np.zeros(at_s.size, dtype=np.bool_)
    good: float | None = None
    for place in np.argsort(at_s, kind="stable"):
        off = float(off_k[place])
        leap = abs(off) if good is None else min(abs(off), abs(off - good))
        loose[place] = leap > (FIRST * most if good is None else most)
        if not loose[place]:
            good = off
    return loose


def tempered(prior: Array, against: Array) -> Array:
    """Weights [-] by what speaks against each course (an exponent), softened until enough of them
    are left: where the food is like none of them, the nearest is not taken for the truth.
    """
    soft = 1.0
    while True:
        weights = prior * np.exp(soft * (against.min() - against))
        weights = weights / weights.sum()
        if 1.0 / float(np.sum(weights**2)) >= LEAST_COURSES or soft < SOFTEST:
            return np.asarray(weights)
        soft *= SOFTER


def weighted_median(values: Array, weights: Array) -> float:
    """The value [as given] that half of the weight lies under."""
    order = np.argsort(values)
    return float(values[order][np.searchsorted(np.cumsum(weights[order]), 0.5)])


def when_reached(
    courses: Courses, probed: Probed, target_c: float, last: tuple[float, float] | None = None
) -> Reached:
    """When the middle reaches a temperature.

    Parameters
    ----------
    courses : Courses
    probed : Probed
    target_c : float
        [°C]
    last : (seconds, temperature), optional
        The last good reading, [s] from the begin of the heat and [°C]: from there each course goes
        on as it does from that temperature. None where nothing was read.

    Raises
    ------
    OutOfRange
        A target beyond -60 to 350 °C.
    """
    within("target_c", target_c, -60.0, 350.0, "°C")
    when = crossings(courses, target_c)
    from_s = 0.0
    if last is not None:
        from_s, now_c = last
        there = crossings(courses, min(now_c, target_c))
        with np.errstate(invalid="ignore"):
            rest = np.where(np.isfinite(when), when - there, np.inf)
        when = from_s + np.maximum(0.0, rest)
    share = float(probed.weights[np.isfinite(when)].sum())
    order = np.argsort(when)
    summed = np.cumsum(probed.weights[order])
    places = [min(int(np.searchsorted(summed, q)), len(order) - 1) for q in (0.1, 0.5, 0.9)]
    low, likely, high = (float(when[order][place]) for place in places)
    low, likely, high = with_rest(low, likely, high, from_s)
    return Reached(low, likely, high, share)


def crossings(courses: Courses, target_c: float) -> Array:
    """When each course first reaches a temperature [s], (courses,); inf where it does not."""
    hot = courses.centre_c >= target_c
    first = np.where(hot.any(axis=1), hot.argmax(axis=1), -1)
    when = np.full(len(first), np.inf)
    when[first == 0] = courses.time_s[0]
    for i in np.flatnonzero(first > 0):
        k = first[i]
        pair = courses.centre_c[i, k - 1 : k + 1]
        when[i] = np.interp(target_c, pair, courses.time_s[k - 1 : k + 1])
    return when


def with_rest(
    low_s: float, likely_s: float, high_s: float, from_s: float
) -> tuple[float, float, float]:
    """The band [s] with what readings so far do not tell of the rest of the way: the shape of the
    piece is not the model's.
    """
    rest = likely_s - from_s
    if not np.isfinite(rest) or rest <= 0.0:
        return low_s, likely_s, high_s
    more = TENTH * value("spread_rest")
    under = np.hypot(np.log(rest / max(low_s - from_s, SHORTEST * rest)), more)
    low_s = from_s + rest * float(np.exp(-under))
    if np.isfinite(high_s):
        over = np.hypot(np.log((high_s - from_s) / rest), more)
        high_s = from_s + rest * float(np.exp(over))
    return low_s, likely_s, high_s
