"""From a seen state to a way out: lower the rack, foil the edges, change the appliance, leave it,
pull now.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.chain import Fire
from bluekettle.core.errors import MissingData, Ranges, within
from bluekettle.core.glaze import (
    Draws,
    Finish,
    Heat,
    HeatChange,
    read_milestones,
    run_finish,
    weighted_quantile,
)
from bluekettle.core.glaze.milestones import BITTER, BURNT, EDGE, FACE, MILESTONES, wanted_times
from bluekettle.core.stages import FinishKind, cut, finish_kind
from bluekettle.core.stages.finishing import (
    UnderFire,
    film_on,
    heat_of,
    log_factors_of,
)
from bluekettle.core.stages.pulling import pull_times, sighting_weights, strip_index
from bluekettle.core.units import amount, percent

Array = NDArray[np.float64]

FOILED = 0.25  # share of the heat that reaches an edge under foil (typical, estimated)
LESS_K = 20.0  # that a heat is turned down by (design)
SHOWN_S, SHOWN_TIMES = 600.0, 4.0  # of a strip after a way out was taken (design)
AHEAD_S = 1500.0  # as far as a rescue is looked ahead (design)


@dataclass(frozen=True)
class Way:
    """One way out: its key ("as is", "calmer", "elsewhere", "foil" or "now"), what to do, minutes
    more [s] to the wanted colour (None where it seldom comes),
    the chance of it before burning for who looks, the risk of burning for who goes by that minute,
    and the reason in one sentence.
    """

    key: str
    do: str
    more_s: float | None
    chance: float
    risk: float
    reason: str


def rescue(fire: UnderFire, draws: Draws, at_s: float) -> tuple[Way, ...]:
    """Ways out at a moment under the heat, the best first.

    Parameters
    ----------
    fire : UnderFire
        What was seen stands in its dish's sightings.
    draws : Draws
        Of the members that the food below was run for.
    at_s : float
        Now, in seconds under the heat, 1 to 3600.

    Raises
    ------
    OutOfRange
    """
    ranges = Ranges()
    ranges.within("at_s", at_s, 1.0, 3600.0, "s")
    ranges.close()
    dish = fire.dish
    as_is = run_on(fire, draws, at_s, None)
    weights = sighting_weights(as_is, dish.sightings)
    want = MILESTONES.index(dish.want)
    ways = [way_of("as is", "Leave it as it is", as_is, weights, want, at_s)]
    for key, (do, change) in changes(fire, at_s).items():
        ways.append(way_of(key, do, run_on(fire, draws, at_s, change), weights, want, at_s))
    ways.append(pulled_now(as_is, weights, want, at_s))
    return tuple(sorted(ways, key=lambda w: (-(w.chance - w.risk), w.do)))


def changes(fire: UnderFire, at_s: float) -> dict[str, tuple[str, HeatChange]]:
    """What could be done to the heat from a moment on [s]: its words and what it does, by key."""
    kind, heat = fire.dish.kind, heat_of(fire.dish)
    weaker = replace(
        heat,
        element_w_m2=0.5 * heat.element_w_m2,
        air_c=heat.air_c - LESS_K,
        wall_c=heat.wall_c - LESS_K,
    )
    other = finish_kind(kind.elsewhere)
    says, elsewhere = moved(fire, other)
    found = {
        "calmer": (kind.calmer, HeatChange(at_s, weaker)),
        "elsewhere": (says, HeatChange(at_s, elsewhere)),
    }
    if kind.sides == 1:  # nothing goes between food and a plate that lies on it
        found["foil"] = ("Foil over the edges", HeatChange(at_s, heat, FOILED))
    return found


def taken(fire: Fire, draws: Draws, key: str, at_s: float) -> Fire:
    """A fire in which this way out was taken at a moment [s]: its film, and what is read off it
    after all that was seen.

    Raises MissingData for a way that this fire does not have, OutOfRange as `rescue`.
    """
    within("at_s", at_s, 1.0, 3600.0, "s")
    known = changes(fire.under, at_s)
    if key not in known:
        raise MissingData("way out", key, tuple(known))
    ahead_s = min(AHEAD_S, max(SHOWN_S, SHOWN_TIMES * at_s))
    finish = run_on(fire.under, draws, at_s, known[key][1], ahead_s)
    weights = sighting_weights(finish, fire.under.dish.sightings)
    pull = pull_times(finish, wanted_times(finish, MILESTONES.index(fire.want)))
    return replace(
        fire,
        finish=finish,
        milestones=read_milestones(finish, weights, fire.want),
        weights=weights,
        pull_s=np.maximum(pull.time_s, at_s),
        strip_index=strip_index(finish, weights),
    )


def moved(fire: UnderFire, other: FinishKind) -> tuple[str, Heat]:
    """In another appliance: half way up its dial, or as far from the element as it goes."""
    distance = other.dial == "rack_m"
    half_way = 5.0 * round((other.gentle + other.fierce) / 10.0)  # dials go in steps of 5 °C
    dial = other.gentle if distance else half_way
    kitchen = fire.dish.kitchen.having(other.dial, dial)
    says = f"{amount(100.0 * dial, 'cm')} below" if distance else f"at {amount(dial, '°C')}"
    where = f"{other.into}, {says} it" if distance else f"{other.into} {says}"
    return where, heat_of(replace(fire.dish, heat=other.key, kitchen=kitchen))


def run_on(
    fire: UnderFire,
    draws: Draws,
    at_s: float,
    change: HeatChange | None,
    ahead_s: float = AHEAD_S,
) -> Finish:
    """The film with a change of heat from a moment on, for so long [s]."""
    dish, below = fire.dish, fire.below
    last_s = max((act.at_s for act in fire.acts), default=0.0)
    return run_finish(
        draws,
        heat_of(dish),
        film_on(dish, cut(dish.cut), below),
        fire.acts,
        below.deep_c,
        below.surface_c,
        max(at_s, last_s) + ahead_s,
        dish.kitchen.or_typical("altitude_m"),
        change=change,
        log_factors=log_factors_of(dish, draws),
        dried=below.dried,
        lying=below.lying,
        shreds=below.strands,
    )


def spoilt_s(finish: Finish) -> Array:
    """When edges are burnt or the face is bitter [s], (members,)."""
    return np.minimum(finish.times_s[:, EDGE, BURNT], finish.times_s[:, FACE, BITTER])


def way_of(key: str, do: str, finish: Finish, weights: Array, want: int, at_s: float) -> Way:
    """How it comes out if it stays so from now on until it has its colour."""
    ready, spoilt = wanted_times(finish, want), spoilt_s(finish)
    good = np.isfinite(ready) & (spoilt > np.maximum(ready, at_s))
    chance = float(weights[good].sum())
    more = None
    risk = float(weights[spoilt <= at_s].sum())
    if chance > 0.2:  # a way that comes out one evening in five is worth telling (design)
        more = max(0.0, weighted_quantile(ready[good], weights[good], 0.5) - at_s)
        risk = float(weights[spoilt <= at_s + more].sum())
    told = f"about {more / 60:.1f} min more" if more is not None else "the colour seldom comes"
    reason = (
        f"{do}: {told}; right {percent(chance)} by eye, burnt {percent(risk)} by that clock alone."
    )
    return Way(key, do, more, chance, risk, reason)


def pulled_now(finish: Finish, weights: Array, want: int, at_s: float) -> Way:
    """How it is if it comes out at once."""
    burnt = float(weights[spoilt_s(finish) <= at_s].sum())
    done = float(weights[wanted_times(finish, want) <= at_s].sum())
    reason = f"Pull it now: {percent(done)} likely to have its colour."
    return Way("now", "Pull it now", 0.0, max(0.0, done - burnt), burnt, reason)
