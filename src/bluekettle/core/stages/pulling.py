"""When food comes out of a fierce heat, from the film of every member and what was seen."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.glaze import MILESTONES, Finish, Milestones, reweigh
from bluekettle.core.glaze.milestones import EDGE, FACE
from bluekettle.core.stages.browning import Sighting
from bluekettle.core.stages.finishing import LEAST_S

Array = NDArray[np.float64]

NEARLY = 0.9  # of the best chance, from which a later pull gains little (typical, estimated)


def sighting_weights(finish: Finish, sightings: tuple[Sighting, ...]) -> Array:
    """Weights of the members [-] after what was seen; equal where nothing was."""
    times = finish.times_s
    own = {
        "bubbling": times[:, EDGE, MILESTONES.index("bubbling")],
        "amber at the edges": times[:, EDGE, MILESTONES.index("amber")],
        "dark": times[:, FACE, MILESTONES.index("mahogany")],
    }
    members = times.shape[0]
    weights = reweigh([(own[s.sign], s.at_s) for s in sightings if s.sign in own], members)
    for seen in sightings:
        if seen.sign == "nothing yet":
            # Still pale: members that should have bubbled by then lose most of their weight.
            weights = np.where(own["bubbling"] > 0.9 * seen.at_s, weights, 0.02 * weights)
    return np.asarray(weights / weights.sum())


@dataclass(frozen=True)
class Pull:
    """When each member would be taken out [s], (members,), and the chance that it is what was
    wanted.
    """

    time_s: Array
    possible: float


def pull_times(finish: Finish, ready: Array) -> Pull:
    """At the wanted colour; where that never comes before burning, just before the burning; at the
    latest the horizon.
    """
    spoilt = np.minimum(
        finish.times_s[:, EDGE, MILESTONES.index("burnt")],
        finish.times_s[:, FACE, MILESTONES.index("bitter")],
    )
    last_act = finish.last_act_s
    latest = np.minimum(0.95 * spoilt, float(finish.sample_s[-1]))
    time = np.where(np.isfinite(ready), ready, latest)
    return Pull(np.maximum(time, last_act + LEAST_S), float(np.isfinite(ready).mean()))


def best_minute_s(milestones: Milestones, finish: Finish, likely_s: float) -> float:
    """The timer of the finish [s]: the earliest whole minute after the last act at which nearly as
    many evenings are right as at any; where none is right at all, the likely one.

    The median moment of the colour would be too early for half of the evenings.
    """
    after = math.ceil((finish.last_act_s + LEAST_S) / 60.0)
    minutes = np.arange(max(1, after), int(finish.sample_s[-1] // 60.0) + 1)
    right = np.interp(60.0 * minutes, finish.sample_s, milestones.wanted)
    if not right.size or right.max() <= 0.0:
        return max(60.0, round(likely_s / 60.0) * 60.0)
    return 60.0 * float(minutes[np.argmax(right >= NEARLY * right.max())])


def strip_index(finish: Finish, weights: Array) -> Array:
    """Weighted median browning index [-] at each sample, (sites, samples).

    It never falls between two coats.
    """
    _, sites, samples, _ = finish.traces.shape
    out = np.empty((sites, samples))
    even = bool((weights == weights[0]).all())
    for s in range(sites):
        index = np.ascontiguousarray(finish.traces[:, s, :, 0].T)
        if even:  # the same one by rank at every sample: nothing has to be sorted
            rank = int((np.cumsum(weights) < 0.5).sum())
            out[s] = np.partition(index, rank, axis=1)[:, rank]
            continue
        order = np.argsort(index, axis=1)
        cumulated = np.cumsum(weights[order], axis=1)
        pick = (cumulated < 0.5).sum(axis=1)
        there = np.take_along_axis(order, pick[:, None], 1)
        out[s] = np.take_along_axis(index, there, 1)[:, 0]
    return out
