"""The colour in which food came out of a fire, told afterwards, as the belief reads it.

It says less than a sign at its second: only that the colour had come by then, and the next had not.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtr

from bluekettle.core.calibration.belief import Belief, without_negative
from bluekettle.core.calibration.observation import predict
from bluekettle.core.errors import Ranges
from bluekettle.core.glaze import BEFORE, MILESTONES, SITES, Act, Coating, Finish, Heat
from bluekettle.core.tables import value

Array = NDArray[np.float64]

COLOURS = ("pale", "amber", "mahogany", "bitter", "burnt")
FACE, EDGE = SITES.index("face"), SITES.index("edge")
LONGEST_S, SHORTEST_S = 10_800.0, 60.0  # of a film that is run (numerical)
MEMBERS = 512  # a range tells less of each member than a moment does (numerical)


@dataclass(frozen=True)
class CameOut:
    """A colour, and when the food came out [s under the heat]. deep_c, surface_c : of the food as
    it went under [°C]. acts : coats and turns that were done, in order.
    """

    colour: str
    at_s: float
    deep_c: float = 80.0  # of food that just came out (typical)
    surface_c: float = 70.0  # of food that just came out (typical)
    acts: tuple[Act, ...] = (BEFORE,)


def colour_chances(finish: Finish, at_s: float, log_sd: float | None = None) -> Array:
    """How likely each member would be called each colour at a moment [-], (members, 5) in the order
    of `COLOURS`; rows add up to 1.

    Bitter and burnt are judged at the edges, which get there first; the others on the face. log_sd
    : log-time error of a sight, 0.15 by default. OutOfRange for a moment outside 1 s to 3 h.
    """
    error = value("sighting_error") if log_sd is None else log_sd
    ranges = Ranges()
    ranges.within("at_s", at_s, 1.0, LONGEST_S, "s")
    ranges.within("log_sd", error, 0.01, 2.0)
    ranges.close()

    def come(site: int, mark: str) -> Array:
        own = finish.times_s[:, site, MILESTONES.index(mark)]
        with np.errstate(divide="ignore"):
            return np.asarray(ndtr(np.log(at_s / np.maximum(own, 1.0)) / error))

    burnt, bitter = come(EDGE, "burnt"), come(EDGE, "bitter")
    amber, mahogany = come(FACE, "amber"), come(FACE, "mahogany")
    spared = 1.0 - bitter
    chances = (
        spared * (1.0 - amber),
        spared * (amber - mahogany),
        spared * mahogany,
        bitter - burnt,
        burnt,
    )
    return np.maximum(np.column_stack(chances), 0.0)


def learn_colour(belief: Belief, log_factors: Array, chance: Array) -> Belief:
    """The belief after food came out in a colour.

    Parameters
    ----------
    belief : Belief
        What `log_factors` were drawn from.
    log_factors : ndarray, shape (members, 4)
    chance : ndarray, shape (members,)
        How likely each member would be called that colour then [-].

    Notes
    -----
    Members are weighed by their chance, and mean and covariance follow the weighted ones. A tenth
    of what is told is taken for misjudged (`colour_doubt`), any colour as likely as another: so a
    colour that no member shows teaches nothing.

    Raises
    ------
    OutOfRange
        Shapes that disagree, or chances outside 0 to 1.
    """
    ranges = Ranges()
    if log_factors.shape != (chance.size, 4) or not np.isfinite(log_factors).all():
        ranges.add("log_factors", log_factors.shape, "one row of four finite ones per member")
    if not ((chance >= 0.0) & (chance <= 1.0)).all():
        ranges.add("chance", float(np.max(chance)), "0 to 1")
    ranges.close()
    doubt = value("colour_doubt")
    told = (1.0 - doubt) * chance + doubt / len(COLOURS)
    root = np.linalg.cholesky(belief.cov + 1e-9 * np.eye(4))
    unit = np.linalg.solve(root, (log_factors - belief.mean).T).T
    even = np.full(len(unit), 1.0 / len(unit))
    mean, cov = _moments(unit, told / told.sum())
    mean_before, cov_before = _moments(unit, even)
    spread = without_negative(np.eye(4) + cov - cov_before)
    after = root @ spread @ root.T
    shifted = belief.mean + root @ (mean - mean_before)
    return Belief(shifted, 0.5 * (after + after.T), belief.seen + 1)


def learn_from_colour(belief: Belief, heat: Heat, coating: Coating, told: CameOut) -> Belief:
    """The belief after food came out in a colour, by an ensemble of the belief before.

    Raises OutOfRange for a colour that is none, a time that is not within 1 s and 3 h, or food that
    is under -30 or over 100 °C.
    """
    ranges = Ranges()
    ranges.one_of("colour", told.colour, COLOURS)
    ranges.within("at_s", told.at_s, 1.0, LONGEST_S, "s")
    for name in ("deep_c", "surface_c"):
        ranges.within(name, getattr(told, name), -30.0, 100.0, "°C")
    ranges.close()
    longest = min(LONGEST_S, max(SHORTEST_S, 2.0 * told.at_s))
    finish, factors = predict(
        belief,
        heat,
        coating,
        longest,
        told.deep_c,
        told.surface_c,
        acts=told.acts,
        members=MEMBERS,
    )
    chance = colour_chances(finish, told.at_s)[:, COLOURS.index(told.colour)]
    return learn_colour(belief, factors, np.clip(chance, 0.0, 1.0))


def _moments(points: Array, weights: Array) -> tuple[Array, Array]:
    """Weighted mean (4,) and covariance (4, 4)."""
    mean = weights @ points
    away = points - mean
    return mean, (weights[:, None] * away).T @ away
