"""How often a cook comes out right: every fire as it was wanted, and the bite that was wished."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.chain.passage import Fire
from bluekettle.core.glaze.milestones import EDGE, FACE, MILESTONES, wanted_times
from bluekettle.core.stages.bite import Tenderness

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Right:
    """Shares of evenings [-]: all of it, its fires alone (by stage), the bite alone (None where
    nobody wished for one).
    """

    all_of_it: float
    fires: tuple[tuple[str, float], ...]
    bite: float | None


def right_of(fires: Sequence[Fire], bite: Tenderness | None, weights: Array) -> Right:
    """What comes out right, by the same members in every fire; the bite is taken to be
    independent of the colour.

    weights : (members,), those of the whole cook.
    """
    good = np.ones(weights.size, dtype=bool)
    alone = []
    for fire in fires:
        own = fire_right(fire)
        good &= own
        alone.append((fire.stage, share(own, weights)))
    tender = None if bite is None else max(0.0, bite.enough - bite.overdone)
    return Right(share(good, weights) * (1.0 if tender is None else tender), tuple(alone), tender)


def fire_right(fire: Fire) -> NDArray[np.bool_]:
    """By sight: there is a moment at which the face is as wanted and no edge is burnt. By the
    clock: nothing is burnt or bitter when it is over. (members,)
    """
    if fire.by == "colour":
        return np.isfinite(wanted_times(fire.finish, MILESTONES.index(fire.want)))
    times = fire.finish.times_s
    spoilt = np.minimum(
        times[:, EDGE, MILESTONES.index("burnt")], times[:, FACE, MILESTONES.index("bitter")]
    )
    return np.asarray(spoilt > fire.timer_s)


def share(good: NDArray[np.bool_], weights: Array) -> float:
    """Weighted share of the members [-]."""
    return float(weights[good].sum() / weights.sum())
