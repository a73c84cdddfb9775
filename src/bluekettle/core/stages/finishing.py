"""A fierce heat: which film, when each coat goes on, and how long to look ahead."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.errors import MissingData, within
from bluekettle.core.glaze import (
    BEFORE,
    MILESTONES,
    Act,
    Coating,
    Draws,
    Finish,
    Heat,
    Lying,
    bare_film,
    oiled,
    run_finish,
)
from bluekettle.core.heat import element_at
from bluekettle.core.sauce import Composition
from bluekettle.core.stages.browning import Browning
from bluekettle.core.stages.cuts import Cut
from bluekettle.core.stages.finishes import finish_keys, finish_kind
from bluekettle.core.stages.handwork import likely_s
from bluekettle.core.stages.load import held_c
from bluekettle.core.tables import value

Array = NDArray[np.float64]

LONGEST_S = 3600.0
ROOM_C = 21.0  # kitchen air (typical)
LEAST_S = 30.0  # under the heat, or after the last act there: nothing is in and out in less
STEP_S = 2.0  # of the film: moments are told in whole steps
SHORTEST_LOOK_S = 480.0  # the film is always looked at for so long
LEAST_SET_S = 20.0  # a coat never counts as set before (typical, estimated)
LEAST_BETWEEN_S = 60.0  # from one act to the next: a film has to warm again
# Of a surface on which a film behaves as on wet meat (typical, estimated): dry crust and half-dried
# layer [m], browned, charred, share of its juice that is spent [-].
STILL_MOIST = np.array([1e-4, 1e-4, 0.05, 0.05, 0.05])
TOGETHER_S = 20.0  # a coat and a turn so near to each other are one way out of the heat
FACE, EDGE, BACK = 0, 1, 2
BARE_LAB = {
    "beef": (52.0, 10.0, 16.0),  # CIELAB of the raw food (typical, estimated)
    "pork": (52.0, 10.0, 16.0),  # the same
    "lamb": (52.0, 10.0, 16.0),  # the same
    "vegetable": (82.0, -1.0, 18.0),  # the same
    "seafood": (70.0, 12.0, 8.0),  # the same
    "poultry": (76.0, 4.0, 18.0),  # the same
}


def heat_of(dish: Browning) -> Heat:
    """The finishing appliance's heat, typical where the kitchen does not say."""
    kind = dish.kind.appliance
    air, wall, element = (kind.figure(name) for name in ("air_c", "wall_c", "element_w_m2"))
    h = (
        dish.kitchen.or_typical("hot_oven_h_w_m2_k")
        if "hot_oven_h_w_m2_k" in dish.kind.figures
        else kind.figure("h_w_m2_k")
    )
    if dish.kind.dial == "rack_m":
        element = element_at(
            dish.kitchen.or_typical("broiler_w_m2"), dish.kitchen.or_typical("rack_m")
        )
    else:
        # Walls and element follow the dial: the walls by as many degrees, a burner or element by
        # its share of power.
        dial = dish.kitchen.or_typical(dish.kind.dial)
        element *= (dial - ROOM_C) / (air - ROOM_C)
        held = held_c(dish, kind, dial, h, "finish")
        air, wall = held, wall + held - air
    spread = kind.spread
    if _air_unknown(dish):
        spread = math.hypot(spread, value("spread_oven_air"))  # still or fan: nobody said
    return Heat(h, air, wall, element, spread, dish.kind.vent, dish.kind.away)


def dial_that_holds(dish: Browning, read_c: float) -> float:
    """Where the dial stands [°C] by what a thermometer beside the food reads: there, or as stated
    where the food takes so much of the power that its air stays behind the dial.

    Raises OutOfRange for a reading that no kitchen's air has, MissingData for a heat that nobody
    measures by its air.
    """
    if not dish.kind.air:
        known = [key for key in finish_keys() if finish_kind(key).air]
        raise MissingData("air of the heat", dish.heat, known)
    within("read_c", read_c, 20.0, 400.0, "°C")
    stated, held_c = dish.kitchen.or_typical(dish.kind.dial), heat_of(dish).air_c
    return stated if held_c < stated and read_c >= held_c else read_c


def _air_unknown(dish: Browning) -> bool:
    """Whether it is an oven of which nobody said whether its air moves."""
    name = "hot_oven_h_w_m2_k"
    return name in dish.kind.figures and dish.kitchen.stated(name) is None


def coating_of(dish: Browning, cut: Cut) -> Coating:
    """The film: the dish's sauce at its coat, or a trace of juice."""
    if dish.sauce is None:
        if cut.species not in BARE_LAB:
            raise MissingData("colour of raw food", cut.species, tuple(BARE_LAB))
        return bare_film(BARE_LAB[cut.species])
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


def log_factors_of(dish: Browning, draws: Draws) -> Array | None:
    """Log factors of heat, coat, interface and browning where the kitchen has learnt them,
    (members, 4).
    """
    learnt = dish.kitchen.learnt.get(dish.heat)
    return None if learnt is None else learnt.draw(draws)


def reached(times: Array) -> float:
    """The lone member's time [s], or the longest one looked at."""
    return float(times[0]) if math.isfinite(times[0]) else LONGEST_S


@dataclass(frozen=True)
class Below:
    """What the film lies on at the start: deep and surface temperature [°C], dried crust [m] and
    browning index, of the median member or of all.

    lying : what an earlier fire left on it. rub : a dry layer patted on. strands : pulled apart.
    oiled : oil is on it.
    """

    deep_c: float | Array
    surface_c: float
    dried: Array | None = None
    lying: Lying | None = None
    rub: Coating | None = None
    strands: bool = False
    oiled: bool = False

    @property
    def coated(self) -> bool:
        """Whether a film of an earlier fire lies on it."""
        return self.lying is not None and self.lying.laid > 0

    @property
    def moist(self) -> bool:
        """Whether it is whole moist food with nothing on it yet: what a calibration lays its film
        on.
        """
        if self.strands or self.coated or self.rub is not None or self.oiled:
            return False
        dried = self.median().dried
        return dried is None or bool((dried <= STILL_MOIST).all())

    def median(self) -> Below:
        """The median member alone."""
        dried = None if self.dried is None else np.median(np.atleast_2d(self.dried), axis=0)
        return replace(
            self, deep_c=float(np.median(self.deep_c)), dried=dried, lying=first_of(self.lying)
        )

    def alike(self, members: int) -> Below:
        """What the median member has, for so many members."""
        likely = self.median()
        return replace(likely, lying=repeated(likely.lying, members))


@dataclass(frozen=True)
class UnderFire:
    """One fire as it is asked what else could be done: the dish with its finish, what its film lies
    on, and the coats and turns that are planned.
    """

    dish: Browning
    below: Below
    acts: tuple[Act, ...]

    def likely(self) -> UnderFire:
        """The median member alone."""
        return replace(self, below=self.below.median())


def first_of(lying: Lying | None) -> Lying | None:
    """What lies on the first member, which is the median one."""
    if lying is None:
        return None
    return lying._replace(
        surface=lying.surface[:1], film=lying.film[:1], coats=lying.coats[:1], leaves=None
    )


def repeated(lying: Lying | None, members: int) -> Lying | None:
    """What lies on the first member, on each of so many."""
    if lying is None:
        return None
    return lying._replace(
        surface=np.repeat(lying.surface[:1], members, axis=0),
        film=np.repeat(lying.film[:1], members, axis=0),
        coats=np.repeat(lying.coats[:1], members, axis=0),
        leaves=None,
    )


def first_act(dish: Browning) -> Act:
    """The first coat: before the heat, or at its own minute under it."""
    if dish.coats and dish.coats_min is not None and dish.coats_min[0] > 0.0:
        return Act(60.0 * dish.coats_min[0], likely_s("recoat", dish.pieces))
    return BEFORE


def plan_acts(dish: Browning, heat: Heat, coating: Coating, below: Below) -> tuple[Act, ...]:
    """Every coat and turn of a finish in order, by seconds under the heat.

    The first coat goes on before the heat, each later one when the last has set on the face of the
    median member, rounded up to half a minute; where the dish says the minutes itself, those hold.
    A turn and a coat within `TOGETHER_S` are one way out of the heat. What was done already stands
    as it was done, and what is left follows it.
    """
    first, told = first_act(dish), dish.told
    again = below.coated and dish.coats == 0  # its film is on it already
    acts = [first] if first.at_s == 0.0 and not again else []
    own = [60.0 * m for m in dish.coats_min[len(acts) :]] if dish.coats_min else []
    turns = [60.0 * m for m in dish.flips_min]
    coats = own if dish.coats_min else None
    for act in told:
        acts.append(act)
        turns = turns[1:] if act.turn else turns
        if act.coat and coats is not None:
            coats = coats[1:]
    earliest = told[-1].at_s + LEAST_BETWEEN_S if told else 0.0
    if coats is None:
        coats = _coats_once_set(dish, heat, coating, below, acts, earliest)
    left = _together(
        [max(at, earliest) for at in coats], [max(at, earliest) for at in turns], dish.pieces
    )
    return tuple(act for act in (*acts, *left) if act.at_s < LONGEST_S - LEAST_S)


def _together(coats: list[float], turns: list[float], pieces: int) -> list[Act]:
    """Acts of the moments of coats and turns; those close to each other are one."""
    coat_s, turn_s = likely_s("recoat", pieces), likely_s("turn", pieces)
    acts = [Act(at, coat_s) for at in coats]
    for at in turns:
        near = next((i for i, act in enumerate(acts) if abs(act.at_s - at) <= TOGETHER_S), None)
        if near is None:
            acts.append(Act(at, turn_s, coat=False, turn=True))
        else:
            acts[near] = Act(acts[near].at_s, coat_s + 0.5 * turn_s, turn=True)
    return sorted(acts)


def _coats_once_set(
    dish: Browning, heat: Heat, coating: Coating, below: Below, acts: list[Act], earliest_s: float
) -> list[float]:
    """Moments [s] of the coats still to come: each once the last has set on the median's face."""
    median = _median_draws()
    away = likely_s("recoat", dish.pieces)
    found: list[float] = []
    done = list(acts)
    for _ in range(sum(act.coat for act in acts), dish.coats):
        run = run_finish(
            median,
            heat,
            coating,
            done,
            below.deep_c,
            below.surface_c,
            LONGEST_S,
            dish.kitchen.or_typical("altitude_m"),
            log_factors=log_factors_of(dish, median),
            dried=below.dried,
            lying=below.lying,
            shreds=below.strands,
        )
        wet = run.traces[0, FACE, :, 2]
        dry = (run.sample_s > done[-1].at_s + LEAST_SET_S) & (wet < value("set_water_fraction"))
        ready = float(run.sample_s[dry][0]) if dry.any() else LONGEST_S
        start = max(earliest_s, math.ceil(ready / 30.0) * 30.0)  # to the half minute (design)
        if start >= LONGEST_S - LEAST_S:
            break
        found.append(start)
        done.append(Act(start, away))
    return found


def _median_draws() -> Draws:
    return Draws({name: np.zeros(1) for name in ("heat", "coat", "interface", "browning")})


def run_dish_finish(
    dish: Browning,
    cut: Cut,
    draws: Draws,
    below: Below,
    step_s: float = STEP_S,
    least_s: float = SHORTEST_LOOK_S,
    most_s: float = LONGEST_S,
    leaves_s: Array | None = None,
) -> Finish:
    """The finish of a dish for the whole ensemble, looked at for about three times its likely
    length, at least `least_s` and, past its last act, at most `most_s` [s], in steps of `step_s`
    [s]. Where it is known when each member leaves [s], what lies on it then is for the next fire.
    """
    heat, coating = heat_of(dish), film_on(dish, cut, below)
    likely = below.median()
    acts = plan_acts(dish, heat, coating, likely)
    altitude = dish.kitchen.or_typical("altitude_m")
    last_act_s = max((act.at_s for act in acts), default=0.0)
    acted = 60.0 * math.ceil((last_act_s + LEAST_S) / 60.0)
    bound = min(LONGEST_S, max(most_s, acted))  # what comes later does not make it longer
    median = run_finish(
        _median_draws(),
        heat,
        coating,
        acts,
        likely.deep_c,
        likely.surface_c,
        bound,
        altitude,
        log_factors=log_factors_of(dish, _median_draws()),
        dried=likely.dried,
        lying=likely.lying,
        shreds=below.strands,
    )
    sides = [FACE, BACK] if median.turns else [FACE]
    goal = reached(median.times_s[:, sides, MILESTONES.index(dish.want)].max(axis=1))
    # looked at past three times the goal (design)
    whole = [60.0 * math.ceil(share / 60.0) for share in (3.0 * goal, 1.5 * last_act_s)]
    horizon = min(bound, max(least_s, *whole))
    every = max(5.0, horizon / 240.0)  # samples of the strip (design)
    if leaves_s is not None:  # what was told after its timer was done before it left
        leaves_s = np.maximum(leaves_s, last_act_s + LEAST_S)
    return run_finish(
        draws,
        heat,
        coating,
        acts,
        below.deep_c,
        below.surface_c,
        horizon,
        altitude,
        dt_s=step_s,
        every_s=step_s * round(every / step_s),
        log_factors=log_factors_of(dish, draws),
        dried=below.dried,
        lying=below.lying,
        shreds=below.strands,
        leaves_s=leaves_s,
        every_side=leaves_s is not None,
        looks_on=True,
    )


def left_lying(
    dish: Browning, cut: Cut, draws: Draws, below: Below, acts: Sequence[Act], leaves_s: Array
) -> Lying:
    """What lies on each member when it leaves the heat at its own moment [s]: for the next fire."""
    return run_finish(
        draws,
        heat_of(dish),
        film_on(dish, cut, below),
        acts,
        below.deep_c,
        below.surface_c,
        max(LEAST_S, float(leaves_s.max()) + STEP_S),
        dish.kitchen.or_typical("altitude_m"),
        every_s=STEP_S * 30.0,  # nothing of its traces is read (numerical)
        log_factors=log_factors_of(dish, draws),
        dried=below.dried,
        lying=below.lying,
        leaves_s=leaves_s,
        shreds=below.strands,
        every_side=True,
    ).lying


def film_on(dish: Browning, cut: Cut, below: Below) -> Coating:
    """The film of this finish: its sauce, else a rub that was patted on, else a trace of juice; oil
    lies on both.
    """
    if dish.sauce is not None:
        return coating_of(dish, cut)
    film = below.rub or coating_of(dish, cut)
    return oiled(film) if below.oiled else film
