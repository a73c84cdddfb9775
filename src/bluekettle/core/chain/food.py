"""The food as a stage receives it and hands it on, for every member at once."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.chain.plan import Plan
from bluekettle.core.glaze import OIL_GAIN, Coating, Draws, Lying, rubbed_film
from bluekettle.core.glaze.records import RATE
from bluekettle.core.halves import in_one
from bluekettle.core.heat import Surroundings
from bluekettle.core.heat.air import air_of, drying_of
from bluekettle.core.sauce import Composition
from bluekettle.core.stages import Cut, Piece, cut
from bluekettle.core.stages.bite import Cooked
from bluekettle.core.stages.dry import OUTSIDE
from bluekettle.core.stages.standing import carry_over
from bluekettle.core.stages.tally import (
    CENTRE,
    CENTRE_AWAY,
    LOG,
    MEAN,
    MEAN_AWAY,
    PEAK,
    Brought,
    raw,
)
from bluekettle.core.stages.tenderise import Tenderised, altitude_of, death_of, start_of
from bluekettle.core.stages.vessel import CELLS
from bluekettle.core.stages.waiting import STAND_STEP_S
from bluekettle.core.tables import value

Array = NDArray[np.float64]

H_UNHEATED = 8.0  # of the cold air that raw food came from [W/m²K] (typical, estimated)
LIES_RAW = "stacked"  # in the fridge (design)
LONG_STEP_S = 120.0  # of a wait of hours (numerical)
STRAND_M = 0.002  # half the thickness of a pulled strand (typical, estimated)
HEAP_M = 0.025  # half the height of strands that lie together (typical, estimated)


@dataclass(frozen=True)
class Food:
    """What a stage receives: shape and amount, inside, surface, and what touches it.

    half_m (members,) and power : the body of one dimension of the last heat. brought : profile,
    tallies and clock. outside (members, 6) : crust [m], browned and charred [-], water lost
    [kg/m²], bone dry [m], spent [-]. lying : film and coats of an earlier fire. waited (members,) :
    seconds in the room since the last heat. wet : whether its surface is. strands : pulled apart.
    rub : a dry layer on it. oiled : oil is. coats : layers put on since the last fire, with their
    thickness [mm]. on : the sauce that lies on it. placed : it lies on the tray or rack of a fire.
    checked : a thermometer gate has been passed. raw_on : something raw went on after that.
    bared : its membrane is off.
    """

    pieces: int
    mass_kg: float
    half_m: Array
    power: float
    brought: Brought
    outside: Array
    lying: Lying | None
    waited: Array
    wet: bool = False
    strands: bool = False
    rub: Coating | None = None
    oiled: bool = False
    coats: tuple[tuple[str, float], ...] = ()
    on: Composition | None = None
    placed: bool = False
    checked: bool = False
    raw_on: bool = False
    bared: bool = False

    @property
    def members(self) -> int:
        """Number of members."""
        return int(self.half_m.size)

    def tally(self, which: int) -> Array:
        """One of the sums of `stages.tally`, (members,): [min], [-] or [°C] as it is there."""
        return np.asarray(self.brought.sums[:, which])

    def cooked(self, of: Cut) -> Cooked:
        """Cook value at the site that decides for a cut, and how far from 100 °C it was gained."""
        centre = of.site == "centre"
        which, away = (CENTRE, CENTRE_AWAY) if centre else (MEAN, MEAN_AWAY)
        return Cooked(self.tally(which), self.tally(away))

    @property
    def browns(self) -> float:
        """How fast its bare surface browns against meat as it is [-]."""
        return (self.rub.protein_gain if self.rub else 1.0) * (OIL_GAIN if self.oiled else 1.0)

    @property
    def peak_c(self) -> Array:
        """Hottest that the middle has been [°C], (members,)."""
        return self.tally(PEAK)

    @property
    def log_reduction(self) -> Array:
        """Log reduction so far [-], (members,)."""
        return self.tally(LOG)

    def waits(self, seconds: Array) -> Food:
        """The same food after so many seconds in the room, (members,): reckoned when it matters."""
        return replace(self, waited=self.waited + seconds)


def raw_food(plan: Plan, draws: Draws) -> Food:
    """The food as it is taken from fridge or freezer."""
    piece = plan.piece()
    body = piece.body(H_UNHEATED, LIES_RAW)
    half = body.half_m * draws.factor("thickness", value("spread_thickness"))
    brought = raw(start_of(piece, draws), CELLS)
    none = np.zeros(draws.members)
    return Food(
        plan.pieces,
        plan.mass_kg,
        half,
        body.power,
        brought,
        np.zeros((draws.members, OUTSIDE)),
        None,
        none,
    )


def piece_now(plan: Plan, food: Food) -> Piece:
    """The food as it is now."""
    return replace(plan.piece(), mass_kg=food.mass_kg, pieces=food.pieces)


def stood(
    plan: Plan, food: Food, draws: Draws, seconds: Array, around: Surroundings, long: bool = False
) -> tuple[Food, Array]:
    """The food after so many seconds in its surroundings, and its surface [°C], (members,).

    Strands stand in a heap, and are tossed into one temperature when they are used.
    """
    if not food.strands:
        return lain(plan, food, draws, seconds, around, long)
    heap = replace(food, half_m=np.full(food.members, HEAP_M), power=0.0)
    heap, _ = lain(plan, heap, draws, seconds, around, long)
    mean = mean_of(heap)
    even = heap.brought._replace(profile_c=np.repeat(mean[:, None], CELLS, axis=1))
    return replace(heap, brought=even, half_m=food.half_m, power=food.power), mean


def lain(
    plan: Plan, food: Food, draws: Draws, seconds: Array, around: Surroundings, long: bool = False
) -> tuple[Food, Array]:
    """Each piece, or each strand, by itself in its surroundings; as `stood`."""
    pressure, boil = altitude_of(plan.piece(), draws)
    found: Cut = cut(plan.cut)
    profile, _, surface, sums = in_one(
        carry_over,
        food.brought,
        (food.half_m, np.ascontiguousarray(food.outside[:, 0]), seconds, pressure, boil),
        (
            food.power,
            drying_of(found.food, 1.0),
            air_of(around, around.h_w_m2_k, 1.0, 1.0),
            death_of(found, 0.0),
            LONG_STEP_S if long else STAND_STEP_S,
        ),
    )
    brought = Brought(profile, sums, food.brought.since_s + seconds)
    return replace(food, brought=brought, waited=np.zeros(food.members)), surface


def heated(food: Food, run: Tenderised, wet: bool) -> Food:
    """The food after a slow heat. A wet one soaks a crust off again."""
    outside = np.column_stack(
        [run.crust_m, run.browned, run.charred, run.lost_kg_m2, run.dry_m, run.spent]
    )
    if wet:
        outside = food.outside.copy()
        outside[:, 0] = outside[:, 4] = 0.0
    sums = np.column_stack(
        [
            run.cook_centre,
            run.cook_mean,
            run.log_reduction,
            run.danger_min,
            run.peak_c,
            run.late_s,
            run.centre_away,
            run.mean_away,
        ]
    )
    seconds = run.come_up_s + run.hold_s + run.natural_s + run.quick_s
    brought = Brought(run.profile_c, sums, food.brought.since_s + seconds)
    return replace(
        food,
        half_m=run.half_m,
        power=run.power,
        brought=brought,
        outside=outside,
        lying=None if wet else food.lying,
        on=None if wet else food.on,
        coats=() if wet else food.coats,
        rub=None if wet else food.rub,
        oiled=food.oiled and not wet,
        wet=wet,
        placed=False,
        waited=np.zeros(food.members),
    )


def mean_of(food: Food) -> Array:
    """How warm the food is on the whole [°C], (members,)."""
    outer = (np.arange(CELLS) + 1.0) ** (food.power + 1.0)
    shells = np.diff(outer, prepend=0.0)  # each holds what lies between its two radii
    return np.asarray(food.brought.profile_c @ shells / shells.sum())


def in_strands(food: Food) -> Food:
    """Pulled apart: thin, moist, as warm all through as it was on the whole, with a surface of its
    own. What waits it had are reckoned by then.
    """
    profile = np.repeat(mean_of(food)[:, None], CELLS, axis=1)
    return replace(
        food,
        strands=True,
        placed=False,
        half_m=np.full(food.members, STRAND_M),
        power=1.0,
        brought=food.brought._replace(profile_c=profile),
        outside=np.zeros((food.members, OUTSIDE)),
        lying=None,
        rub=None,
        oiled=False,
    )


def peak_from_now(food: Food) -> Food:
    """The same food, its hottest counted anew: what was reached before it was chilled, or in the
    heat before, says nothing of this one.
    """
    sums = food.brought.sums.copy()
    sums[:, PEAK] = food.brought.profile_c[:, 0]
    return replace(food, brought=food.brought._replace(sums=sums))


def with_rub(food: Food, sugar_kg_m2: float, spice_kg_m2: float, leavening: bool) -> Food:
    """A dry layer patted on [kg/m²]."""
    return replace(food, rub=rubbed_film(sugar_kg_m2, spice_kg_m2, leavening))


def with_oil(food: Food) -> Food:
    """Oil brushed on, once or more: on the bare surface of an earlier fire, where it has one."""
    if food.oiled:
        return food
    if food.lying is None or food.on is not None:
        return replace(food, oiled=True)
    coats = food.lying.coats.copy()
    coats[:, :, :, RATE] *= OIL_GAIN
    return replace(food, oiled=True, lying=food.lying._replace(coats=coats))


def hottest(food: Food) -> float:
    """What the middle of the unfavourable twentieth reached [°C]."""
    return float(np.quantile(food.peak_c, 0.05))
