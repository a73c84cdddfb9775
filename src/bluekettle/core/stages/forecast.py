"""A dish's forecast: its stages as a chain, each a distribution, with traces, milestones and what
was assumed.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, field, replace

import numpy as np
from numpy.typing import NDArray
from scipy.stats import norm

from bluekettle.core.errors import within
from bluekettle.core.glaze import (
    Coating,
    Draws,
    Finish,
    Milestones,
    draw_members,
    read_milestones,
    weighted_quantile,
)
from bluekettle.core.glaze.milestones import MILESTONES as MARKS
from bluekettle.core.glaze.milestones import wanted_times
from bluekettle.core.heat import Boundary, Matter, Surroundings, surroundings
from bluekettle.core.heat.air import air_of, drying_of
from bluekettle.core.lethality import NO_CREDIT_BELOW_C, kill_for
from bluekettle.core.pressure import Fill, fill_of
from bluekettle.core.stages.chain import (
    BLOTTED,
    Band,
    Stage,
    build_chain,
    chain_band,
    least_sure,
)
from bluekettle.core.stages.dish import Cut, Dish
from bluekettle.core.stages.figures import figures
from bluekettle.core.stages.finishing import (
    LEAST_S,
    Below,
    UnderFire,
    coating_of,
    pull_times,
    run_dish_finish,
    sighting_weights,
)
from bluekettle.core.stages.handwork import hands_s
from bluekettle.core.stages.standing import carry_over, heat_one_side
from bluekettle.core.stages.tally import TALLIES, Brought
from bluekettle.core.stages.tenderise import (
    Tenderised,
    cook_of,
    death_of,
    run_tenderise,
    with_hold,
)
from bluekettle.core.stages.vessel import CELLS
from bluekettle.core.tables import value

Array = NDArray[np.float64]

NEARLY = 0.9  # of the best chance, from which a later pull gains little (typical, estimated)
LEAST_COOK_MIN = 1e-6  # of food that no heat has reached: its logarithm has to exist (numerical)
H_IN_FIRE = 150.0  # to a film that boils [W/m²K] (typical, estimated)
STAND_STEP_S = 20.0  # (numerical)
WARM_STEP_S, WARM_MOST_S = 120.0, 7200.0  # (numerical)
HOLD_ABOVE_C = (
    57.0  # holding and waiting food is safe above this (design, after the usual guidance)
)
DEEP_M = 0.010  # depth at which the film's shallow layer meets the piece
BITE_ORDER = ("sliceable", "tug", "falls", "shreds")


@dataclass(frozen=True)
class Tenderness:
    """Cook value [min] as a band, the target, and the chances: at least the bite asked for, and
    overdone.
    """

    low: float
    likely: float
    high: float
    target: float
    enough: float
    overdone: float
    site: str


@dataclass(frozen=True)
class Safety:
    """Core temperature [°C] and log reduction on the unfavourable side (P5), with the figures they
    are held against.

    rests_on : "temperature", or in a water bath "time" where a time at less than the usual
    temperature is proven.
    probe_c : what the thermometer must read at the check for that. late_s : when the slowest pieces
    pass 54.4 °C.
    """

    core_low_c: float
    core_likely_c: float
    wanted_c: float
    log_low: float
    danger_min: float
    gate: bool
    rests_on: str
    probe_c: float
    wanted_log: float
    late_s: float


@dataclass(frozen=True)
class Forecast:
    """Everything the model says of one dish. Times [s]; curves as arrays.

    fill : None where the first heat takes no liquid. dried : (5,) dry crust and half-dried layer
    [m], browned, charred and spent [-] that the median member brings into the finish. lost_share :
    water that a dry first heat takes off, of the raw mass [-]. skin_index : how dark its outside is
    by then [-]. warm_s : how long it may stand in the room, covered.
    """

    dish: Dish
    cut: Cut
    stages: tuple[Stage, ...]
    total: Band
    hands: Band
    headline_s: float
    least_sure: str
    timer_s: float
    finish_timer_s: float
    come_up: Band
    milestones: Milestones
    finish: Finish
    coating: Coating
    weights: Array
    tenderness: Tenderness
    safety: Safety
    fill: Fill | None
    target_c: float
    sauce_kg: float
    trace: dict[str, Array]
    strip_index: Array  # (sites, samples)
    assumed: tuple[str, ...]
    deep_c: float
    surface_c: float
    dried: Array
    lost_share: float
    skin_index: float
    warm_s: float
    slack_s: float = 0.0
    notes: tuple[str, ...] = field(default_factory=tuple)

    @property
    def under(self) -> UnderFire:
        """Its finish, as advice asks of it."""
        below = Below(self.deep_c, self.surface_c, self.dried)
        return UnderFire(self.dish, below, self.finish.acts)


def forecast(dish: Dish, available_s: float | None = None, draws: Draws | None = None) -> Forecast:
    """Forecast one dish from the first act to the plate.

    Parameters
    ----------
    dish : Dish
    available_s : float, optional
        Seconds until it is to be served. Where more than the chain needs, the difference between
        the careful (P90) and the likely time becomes a covered wait before the finish.
    draws : Draws, optional
        The ensemble; drawn from the dish's seed when absent.

    Raises
    ------
    OutOfRange
        Every fault of the dish at once.
    NotConverged
        The bite asked for cannot be reached by this method; tells how far it got.
    """
    if available_s is not None:
        within("available_s", available_s, 0.0, 31 * 86_400.0, "s")
    cut = dish.check()
    draws = draws or draw_members(dish.seed)
    dish, hold_s = with_hold(dish, cut, draws)
    run = run_tenderise(dish, cut, draws, hold_s)
    waiting = standing_s(dish, draws)
    food = cut.food
    stood, _, outside = stand(dish, run, run.profile_c, waiting, IN_ROOM)
    deep_c, surface_c = below_surface(stood, run.half_m, outside)
    dried = dried_of(run) if dish.first.dry else None
    finish = run_dish_finish(dish, cut, draws, Below(deep_c, surface_c, dried))
    weights = sighting_weights(finish, dish.sightings)
    milestones = read_milestones(finish, weights, dish.want)
    pull = pull_times(finish, wanted_times(finish, MARKS.index(dish.want)))
    warm_s = warm_for_s(dish, run)
    stages, slack_s = build_chain(
        dish, cut, run, draws, pull.time_s, finish, available_s, weights, warm_s
    )
    peak = hottest_middle(dish, cut, run, stood, draws, pull.time_s)
    likely_pull_s = weighted_quantile(pull.time_s, weights, 0.5)
    finish_timer = best_minute_s(milestones, finish, likely_pull_s)
    members = draws.members
    return Forecast(
        dish=dish,
        cut=cut,
        stages=stages,
        total=chain_band(stages, weights),
        hands=chain_band(tuple(s for s in stages if s.who in ("hands", "gate")), weights),
        headline_s=hold_s + finish_timer,
        least_sure=least_sure(stages),
        timer_s=hold_s,
        finish_timer_s=finish_timer,
        come_up=Band.of(run.come_up_s, np.ones(members)),
        milestones=milestones,
        finish=finish,
        coating=coating_of(dish, cut),
        weights=weights,
        tenderness=judge_tenderness(cook_of(run, cut), dish, cut),
        safety=judge_safety(dish, run, np.maximum(peak, run.peak_c), cut),
        fill=(
            fill_of(
                vessel_litres(dish),
                dish.liquid,
                dish.mass_kg / food.density_kg_m3 * 1e3,
                dish.mass_kg * cut.juice_fraction,
            )
            if dish.first.takes_liquid
            else None
        ),
        target_c=run.target_c,
        sauce_kg=dish.coats * dish.coat_kg_m2() * dish.surface_m2() if dish.sauce else 0.0,
        trace={
            "time_s": run.trace[:, 0],
            "vessel_c": run.trace[:, 1],
            "centre_c": run.trace[:, 2],
            "mean_c": run.trace[:, 3],
        },
        strip_index=strip_index(finish, weights),
        warm_s=warm_s,
        assumed=tuple(
            name for name in figures() if dish.kitchen.stated(name) is None and _matters(name, dish)
        ),
        deep_c=float(np.median(deep_c)),
        surface_c=surface_c,
        dried=np.zeros(5) if dried is None else np.median(dried, axis=0),
        lost_share=lost_share(run, dish, cut),
        skin_index=float(np.median(run.browned + run.charred)),
        slack_s=slack_s,
    )


# What food may stand in: open in the kitchen, where it steams; under a lid or foil, where it does
# not; or in a fire, under a film that boils (its h typical, estimated).
IN_ROOM = surroundings("rest")
COVERED = Surroundings(value("h_rest_w_m2_k"), value("kitchen_c"), value("kitchen_c"), 0, 0, True)


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


def stand(
    dish: Dish, run: Tenderised, profile_c: Array, seconds: Array, around: Surroundings
) -> tuple[Array, Array, Array]:
    """Profiles [°C], peaks in the middle and surfaces [°C] of pieces that stand for their time."""
    none = np.zeros(len(profile_c))
    stood, peak, surface, _ = carry_over(
        Brought(profile_c, np.zeros((none.size, TALLIES)), none),
        run.half_m,
        run.crust_m,
        seconds,
        run.pressure_pa,
        run.boils_c,
        run.power,
        drying_of(dish.check().food, 1.0),
        air_of(around, around.h_w_m2_k, 1.0, 1.0),
        death_of(dish.check(), 0.0),
        STAND_STEP_S,
    )
    return stood, peak, surface


def hottest_middle(
    dish: Dish, cut: Cut, run: Tenderised, stood_c: Array, draws: Draws, seconds: Array
) -> Array:
    """Hottest that the middle of each member gets [°C] under the finish and at rest after it.

    In the heat a surface stands at about boiling under the film. A heat from one side heats one
    side at a time: the other neither gains nor loses.
    """
    rest = value("rest_s")
    if dish.kind.sides > 1:
        fire = Surroundings(H_IN_FIRE, run.boil_c, run.boil_c, 0.0, 0.0, True)
        heated, _, _ = stand(dish, run, stood_c, seconds, fire)
        _rested, peak, _ = stand(dish, run, heated, np.full(draws.members, rest), COVERED)
        return peak
    half = 0.5e-3 * dish.thickness_mm  # half of it, and mm to m
    none = np.zeros(draws.members)
    found, _, _ = heat_one_side(
        Brought(stood_c, np.zeros((none.size, TALLIES)), none),
        half * draws.factor("thickness", value("spread_thickness")),
        seconds,
        np.array([60.0 * minute for minute in dish.flips_min]),
        rest,
        Matter(cut.food.enthalpy_j_m3, cut.food.k_w_m_k),
        Boundary(H_IN_FIRE, run.boil_c, 0.0, 0.0, 0.0),
        Boundary(value("h_rest_w_m2_k"), value("kitchen_c"), 0.0, 0.0, 0.0),
        death_of(cut, 0.0),
        STAND_STEP_S,
    )
    return np.asarray(found)


def standing_s(dish: Dish, draws: Draws) -> Array:
    """Seconds from the opening to the heat in which the food stands, (members,)."""
    actions = [dish.first.open, "check", "lift"]
    actions += ["blot"] if dish.tenderise in BLOTTED else []
    actions += ["brush"] if brushed_before(dish) else []
    each = [hands_s(a, dish.pieces, draws, dish.mass_kg) for a in actions]
    return np.asarray(np.sum(each, axis=0))


def warm_for_s(dish: Dish, run: Tenderised) -> float:
    """How long a piece stays over 57 °C up to its surface when it stands covered [s], judged by a
    thin one; up to two hours.
    """
    thin = [int(np.argsort(run.half_m)[int(0.05 * len(run.half_m))])]
    profile = run.profile_c[thin]
    one = replace(
        run,
        half_m=run.half_m[thin],
        crust_m=run.crust_m[thin],
        pressure_pa=run.pressure_pa[thin],
        boils_c=run.boils_c[thin],
    )
    time = 0.0
    while time < WARM_MOST_S:
        profile, _, _ = stand(dish, one, profile, np.array([WARM_STEP_S]), COVERED)
        if profile[0, -1] < HOLD_ABOVE_C:
            return time
        time += WARM_STEP_S
    return time


def brushed_before(dish: Dish) -> bool:
    """Whether a coat goes on before the heat."""
    return dish.coats > 0 and (dish.coats_min is None or dish.coats_min[0] == 0.0)


def _matters(name: str, dish: Dish) -> bool:
    """Whether a kitchen figure enters this dish at all."""
    return name == "altitude_m" or name in dish.kind.figures or name in dish.first.figures


def vessel_litres(dish: Dish) -> float:
    """Volume of the vessel of its first heat [L]."""
    name = next((name for name in dish.first.figures if name.endswith("_volume_l")), "")
    return dish.kitchen.or_typical(name) if name else float(dish.first.appliance["volume_l"])


def dried_of(run: Tenderised) -> Array:
    """Dry crust and half-dried layer [m], how far the surface has browned and charred [-], and the
    share of the juice that is spent [-], as members bring them into the finish, (members, 5).
    """
    damp = np.maximum(0.0, run.crust_m - run.dry_m)
    return np.column_stack([run.dry_m, damp, run.browned, run.charred, run.spent])


def lost_share(run: Tenderised, dish: Dish, cut: Cut) -> float:
    """Water that leaves the median piece in dry heat, of its raw mass [-]."""
    surface_kg_m2 = cut.food.density_kg_m3 * run.half_m / (run.power + 1.0)
    return float(np.median(run.lost_kg_m2 / surface_kg_m2))


def below_surface(profile_c: Array, half_m: Array, surface_c: Array) -> tuple[Array, float]:
    """Temperature at `DEEP_M` below the surface of each member (members,), and the median of the
    shallow layer that the film warms, both [°C].

    profile_c : (members, CELLS) from the middle out; surface_c : (members,).
    """
    place = (np.arange(CELLS) + 0.5) / CELLS
    shallow = 0.5 * value("wet_layer_m")
    deep, layer = np.empty(half_m.size), np.empty(half_m.size)
    for m, half in enumerate(half_m):
        depth = np.append(half * (1.0 - place), 0.0)[::-1]
        temps = np.append(profile_c[m], surface_c[m])[::-1]
        deep[m], layer[m] = np.interp((DEEP_M, shallow), depth, temps)
    return np.clip(deep, 0.0, 100.0), float(np.clip(np.median(layer), 1.0, 100.0))


def judge_tenderness(cook: Array, dish: Dish, cut: Cut) -> Tenderness:
    """Band of the cook value [min], and the chances that it is enough and too much.

    Like pieces are not alike: the value at which one has a bite spreads about the table's.
    """
    low, likely, high = (float(q) for q in np.quantile(cook, (0.1, 0.5, 0.9)))
    easier = [cut.targets[b] for b in BITE_ORDER if b in cut.targets]
    target = cut.targets[dish.bite]
    # A bite is missed when the food comes nearer to the next tougher one than to the one asked for.
    below = [t for t in easier if t < target]
    # of the wish; under the softest bite (design)
    bar = (target * below[-1]) ** 0.5 if below else 0.6 * target
    return Tenderness(
        low,
        likely,
        high,
        target,
        share_over(cook, bar),
        share_over(cook, cut.overdone),
        cut.site,
    )


def share_over(cook: Array, bar: float) -> float:
    """Share of pieces [-] that their cook value [min] takes past a bar, as pieces differ."""
    away = np.log(np.maximum(cook, LEAST_COOK_MIN) / bar)
    return float(norm.cdf(away / value("spread_tender")).mean())


def judge_safety(dish: Dish, run: Tenderised, peak_c: Array, cut: Cut) -> Safety:
    """Core temperature and kill of the unfavourable twentieth, and what the check before the finish
    rests on.
    """
    wanted_log, log_low = (
        kill_for(cut.species).wanted_log,
        float(np.quantile(run.log_reduction, 0.05)),
    )
    less = value("proof_less_k")
    # A whole degree that a kitchen thermometer shows; the time was counted at no more than this.
    probe_c = float(math.floor(float(np.quantile(run.peak_c, 0.05)) - less))
    by_time = (
        dish.tenderise == "bath"
        and log_low >= wanted_log
        and NO_CREDIT_BELOW_C <= probe_c < cut.safe_c
    )
    return Safety(
        float(np.quantile(peak_c, 0.05)),
        float(np.median(peak_c)),
        cut.safe_c,
        log_low,
        float(np.quantile(run.danger_min, 0.95)),
        cut.gate,
        "time" if by_time else "temperature",
        probe_c if by_time else cut.safe_c,
        wanted_log,
        float(np.quantile(run.late_s, 0.95)),
    )


def strip_index(finish: Finish, weights: Array) -> Array:
    """Weighted median browning index [-] at each sample, (sites, samples).

    It never falls between two coats.
    """
    _, sites, samples, _ = finish.traces.shape
    out = np.empty((sites, samples))
    for s in range(sites):
        index = finish.traces[:, s, :, 0].astype(float)
        order = np.argsort(index, axis=0)
        cumulated = np.cumsum(weights[order], axis=0)
        pick = (cumulated < 0.5).sum(axis=0)
        out[s] = np.take_along_axis(index, np.take_along_axis(order, pick[None, :], 0), 0)[0]
    return out
