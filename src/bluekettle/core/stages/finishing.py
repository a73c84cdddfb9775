"""The second heat of a dish: which appliance, which film, when each coat goes on, and how long to
look ahead.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.errors import within
from bluekettle.core.glaze import (
    MILESTONES,
    Coating,
    Draws,
    Finish,
    Heat,
    bare_film,
    reweigh,
    run_finish,
)
from bluekettle.core.heat import element_at
from bluekettle.core.sauce import Composition
from bluekettle.core.stages.dish import Cut, Dish, Sighting
from bluekettle.core.stages.handwork import likely_s

Array = NDArray[np.float64]

LONGEST_S = 3600.0
ROOM_C = 21.0
LEAST_S = 30.0  # under the heat, or after the last act there: nothing is in and out in less
STEP_S = 2.0  # of the film: moments are told in whole steps
FACE, EDGE, BACK = 0, 1, 2
BARE_LAB = {
    "vegetable": (82.0, -1.0, 18.0),
    "seafood": (70.0, 12.0, 8.0),
    "poultry": (76.0, 4.0, 18.0),
}


def heat_of(dish: Dish) -> Heat:
    """The finishing appliance's heat, typical where the kitchen does not say."""
    line = dish.kind.appliance
    air, wall, element = (float(line[name]) for name in ("air_c", "wall_c", "element_w_m2"))
    if dish.finish == "broiler":
        element = element_at(
            dish.kitchen.or_typical("broiler_w_m2"), dish.kitchen.or_typical("rack_m")
        )
    else:
        # Walls and element follow the dial: the walls by as many degrees, a burner or element by
        # its share of power.
        dial = dish.kitchen.or_typical(dish.kind.dial)
        element *= (dial - ROOM_C) / (air - ROOM_C)
        air, wall = dial, wall + dial - air
    h = (
        dish.kitchen.or_typical("hot_oven_h_w_m2_k")
        if dish.finish == "oven"
        else float(line["h_w_m2_k"])
    )
    return Heat(h, air, wall, element, float(line["spread"]), dish.kind.vent)


def coating_of(dish: Dish, cut: Cut) -> Coating:
    """The film: the dish's sauce at its coat, or a trace of juice."""
    if dish.sauce is None:
        return bare_film(BARE_LAB.get(cut.species, (52.0, 10.0, 16.0)))
    return film_of(dish.sauce, dish.coat_kg_m2())


def film_of(sauce: Composition, coat_kg_m2: float) -> Coating:
    """A coat of a sauce as the film's coating; OutOfRange for a coat outside 0.01 to 5 kg/m²."""
    within("coat_kg_m2", coat_kg_m2, 0.01, 5.0, "kg/m²")
    return Coating(
        sauce.water,
        sauce.sucrose,
        sauce.glucose,
        sauce.fructose,
        sauce.other,
        sauce.protein,
        sauce.fat,
        sauce.salt,
        sauce.acid,
        coat_kg_m2,
        raw_lab=sauce.raw_lab,
    )


def log_factors_of(dish: Dish, draws: Draws) -> Array | None:
    """Log factors of heat, coat, interface and browning where the kitchen has learnt them,
    (members, 4).
    """
    learnt = dish.kitchen.learnt.get(dish.finish)
    return None if learnt is None else learnt.draw(draws)


def reached(times: Array) -> float:
    """The lone member's time, or the longest one looked at."""
    return float(times[0]) if math.isfinite(times[0]) else LONGEST_S


def plan_coats(
    dish: Dish,
    heat: Heat,
    coating: Coating,
    deep_c: float,
    surface_c: float,
    dried: Array | None = None,
) -> list[tuple[float, float]]:
    """When each coat is brushed [s under the heat]: the first before, each later one when the last
    has set on the face.

    The setting is that of the median member, rounded up to half a minute; brushing takes the hands'
    likely time. Where the dish says the minutes itself, those hold.
    """
    away = likely_s("recoat", dish.pieces)
    if dish.coats_min is not None and dish.coats:
        return coats_at(dish.coats_min, away)
    coats = [(0.0, 0.0)]
    median = _median_draws()
    altitude = dish.kitchen.or_typical("altitude_m")
    for _ in range(1, dish.coats):
        run = run_finish(
            median,
            heat,
            coating,
            coats,
            deep_c,
            surface_c,
            LONGEST_S,
            altitude,
            log_factors=log_factors_of(dish, median),
            dried=dried,
        )
        wet = run.traces[0, FACE, :, 2]
        back = coats[-1][1]
        dry = (run.sample_s > back + 20.0) & (wet < 0.12)
        ready = float(run.sample_s[dry][0]) if dry.any() else LONGEST_S
        start = math.ceil(ready / 30.0) * 30.0
        if start + away >= LONGEST_S:
            break
        coats.append((start, start + away))
    return coats


def coats_at(minutes: tuple[float, ...], away: float) -> list[tuple[float, float]]:
    """Coats at the cook's own minutes; a coat ends before the next one begins."""
    starts = [60.0 * m for m in minutes]
    ends = [start + away if start > 0 else 0.0 for start in starts]
    return [
        (start, min(end, after))
        for start, end, after in zip(starts, ends, [*starts[1:], np.inf], strict=True)
    ]


def _median_draws() -> Draws:
    return Draws({name: np.zeros(1) for name in ("heat", "coat", "interface", "browning")})


def run_dish_finish(
    dish: Dish, cut: Cut, draws: Draws, deep_c: Array, surface_c: float, dried: Array | None = None
) -> Finish:
    """The finish of a dish for the whole ensemble, looked at for about three times its likely
    length.
    """
    likely_dried = None if dried is None else np.median(np.atleast_2d(dried), axis=0)
    heat, coating = heat_of(dish), coating_of(dish, cut)
    likely_deep = float(np.median(deep_c))
    coats = plan_coats(dish, heat, coating, likely_deep, surface_c, likely_dried)
    flips = [60.0 * m for m in dish.flips_min]
    altitude = dish.kitchen.or_typical("altitude_m")
    median = run_finish(
        _median_draws(),
        heat,
        coating,
        coats,
        likely_deep,
        surface_c,
        LONGEST_S,
        altitude,
        flips_s=flips,
        log_factors=log_factors_of(dish, _median_draws()),
        dried=likely_dried,
    )
    goal = reached(
        median.times_s[:, [FACE, *([BACK] if flips else [])], MILESTONES.index(dish.want)].max(
            axis=1
        )
    )
    last = max([0.0, coats[-1][1], *flips])
    horizon = min(
        LONGEST_S,
        max(480.0, 60.0 * math.ceil(3.0 * goal / 60.0), 60.0 * math.ceil(1.5 * last / 60.0)),
    )
    every = max(5.0, horizon / 240.0)
    return run_finish(
        draws,
        heat,
        coating,
        coats,
        deep_c,
        surface_c,
        horizon,
        altitude,
        every_s=STEP_S * round(every / STEP_S),
        flips_s=flips,
        log_factors=log_factors_of(dish, draws),
        dried=dried,
    )


def sighting_weights(finish: Finish, sightings: tuple[Sighting, ...]) -> Array:
    """Weights of the members after what was seen; equal where nothing was."""
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
    last_act = max([finish.coats_s[-1][1], *finish.flips_s])
    latest = np.minimum(0.95 * spoilt, float(finish.sample_s[-1]))
    time = np.where(np.isfinite(ready), ready, latest)
    return Pull(np.maximum(time, last_act + LEAST_S), float(np.isfinite(ready).mean()))
