"""A sign seen on food, or on a scout of damp bread, as the belief reads it."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.calibration.belief import MEMBERS, Belief, draw_factors, learn, next_cook
from bluekettle.core.errors import Ranges
from bluekettle.core.glaze import (
    BEFORE,
    DAMP_BREAD,
    MEAT,
    Act,
    Coating,
    Finish,
    Heat,
    draw_members,
    run_finish,
)

Array = NDArray[np.float64]

SIGNS = {
    "set": (0, 0),
    "bubbling": (1, 1),
    "amber at the edges": (1, 2),
    "amber": (0, 2),
    "dark": (0, 3),
    "burnt": (1, 5),
}
SCOUT_S = 600.0  # damp bread is burnt by then (design)


@dataclass(frozen=True)
class SignSeen:
    """A sign, its time under the heat [s], and whether it was on a scout (this glaze on damp
    bread). deep_c, surface_c : of the food as it went under [°C]. acts : coats and turns that were
    done before it, in order.
    """

    sign: str
    at_s: float
    scout: bool = False
    deep_c: float = 80.0  # of food that just came out (typical)
    surface_c: float = 70.0  # of food that just came out (typical)
    acts: tuple[Act, ...] = (BEFORE,)


def observed_times(finish: Finish, sign: str) -> Array:
    """Each member's own time of a sign [s], (members,); inf where it never shows. OutOfRange for an
    unknown sign.
    """
    ranges = Ranges()
    ranges.one_of("sign", sign, tuple(SIGNS))
    ranges.close()
    site, mark = SIGNS[sign]
    return np.asarray(finish.times_s[:, site, mark])


def scout_times(heat: Heat, coating: Coating, log_factors: Array) -> Finish:
    """The glaze on damp bread at room temperature under the same heat: its own substrate, the same
    unknowns.
    """
    members = len(log_factors)
    return run_finish(
        draw_members(1, members),
        heat,
        coating,
        [BEFORE],
        21.0,  # kitchen air (typical)
        21.0,  # kitchen air (typical)
        SCOUT_S,
        log_factors=log_factors,
        ground=DAMP_BREAD,
    )


def predict(
    belief: Belief,
    heat: Heat,
    coating: Coating,
    time_s: float = 1800.0,  # longer than a finish takes (design)
    deep_c: float = 80.0,  # of food that just came out (typical)
    surface_c: float = 70.0,  # of food that just came out (typical)
    seed: int = 1,
    acts: Sequence[Act] = (BEFORE,),
    members: int = MEMBERS,
) -> tuple[Finish, Array]:
    """A finish as this belief expects it, and the log factors it was run with."""
    factors = draw_factors(belief, seed, members)
    finish = run_finish(
        draw_members(seed, len(factors)),
        heat,
        coating,
        acts,
        deep_c,
        surface_c,
        time_s,
        log_factors=factors,
        ground=MEAT,
    )
    return finish, factors


def expected_s(belief: Belief, heat: Heat, coating: Coating, seen: SignSeen) -> float:
    """The likely time of a sign by this belief [s]; inf where under a fifth of the members ever
    show it.
    """
    factors = draw_factors(belief)
    finish = (
        scout_times(heat, coating, factors)
        if seen.scout
        else predict(belief, heat, coating, 3600.0)[0]
    )
    own = observed_times(finish, seen.sign)
    finite = own[np.isfinite(own)]
    # a sign that fewer members reach is none (design)
    return float(np.median(finite)) if finite.size >= 0.2 * own.size else math.inf


def learn_from(
    belief: Belief,
    heat: Heat,
    coating: Coating,
    observations: Sequence[SignSeen],
    time_s: float = 1800.0,  # longer than a finish takes (design)
    another_evening: bool = False,
) -> Belief:
    """The belief after several signs, one after the other, each with the ensemble of the belief
    before it; with `another_evening` each sign is of an evening of its own, and one more follows.

    Raises OutOfRange for a time that is not within 1 s and 3 h, an unknown sign, or food that is
    under -30 or over 100 °C.
    """
    ranges = Ranges()
    ranges.within("time_s", time_s, 30.0, 10_800.0, "s")
    for place, seen in enumerate(observations):
        ranges.within(f"observations.{place}.at_s", seen.at_s, 1.0, 10_800.0, "s")
        ranges.one_of(f"observations.{place}.sign", seen.sign, tuple(SIGNS))
        for name in ("deep_c", "surface_c"):
            ranges.within(f"observations.{place}.{name}", getattr(seen, name), -30.0, 100.0, "°C")
    ranges.close()
    for place, seen in enumerate(observations):
        factors = draw_factors(belief, seed=place + 1)
        if seen.scout:
            finish = scout_times(heat, coating, factors)
        else:
            longest = max(time_s, 3.0 * seen.at_s)
            food = (seen.deep_c, seen.surface_c)
            finish, factors = predict(
                belief, heat, coating, longest, *food, seed=place + 1, acts=seen.acts
            )
        own = observed_times(finish, seen.sign)
        with np.errstate(invalid="ignore"):
            ratio = np.where(np.isfinite(own), np.log(np.maximum(own, 1.0) / seen.at_s), np.inf)
        learnt = learn(belief, factors, ratio)
        belief = next_cook(belief, learnt) if another_evening else learnt
    return belief
