"""A slow heat for all members, and the timer that brings what is asked of it."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.errors import NotConverged
from bluekettle.core.glaze import Draws, film_constants
from bluekettle.core.halves import in_halves, joined, part_of
from bluekettle.core.heat import Matter, surroundings
from bluekettle.core.heat.air import air_of, drying_of
from bluekettle.core.lethality import NO_CREDIT_BELOW_C, kill_for
from bluekettle.core.pressure import gauge_saturation_c, quick_release_s
from bluekettle.core.stages.bite import Cooked
from bluekettle.core.stages.cuts import Cut, cut
from bluekettle.core.stages.dry import OUTSIDE, run_dry
from bluekettle.core.stages.load import held_c
from bluekettle.core.stages.piece import Piece
from bluekettle.core.stages.tally import (
    CENTRE,
    CENTRE_AWAY,
    DANGER,
    LATE,
    LOG,
    MEAN,
    MEAN_AWAY,
    PEAK,
    Brought,
    Death,
    raw,
)
from bluekettle.core.stages.tendering import Tendering
from bluekettle.core.stages.vessel import CELLS, Pot, Run, run_vessel
from bluekettle.core.tables import value
from bluekettle.core.thermo import ambient_pressure_pa, boiling_point_c, latent_heat_j_kg

Array = NDArray[np.float64]

TRACE_SAMPLES = 400


@dataclass(frozen=True)
class Tenderised:
    """Result of the first heat.

    come_up_s, hold_s, natural_s, quick_s, cook_centre, cook_mean [min], log_reduction, danger_min,
    peak_c, late_s (the last moment at which the centre was under 54.4 °C), centre_away, mean_away
    (cook values times how far from 100 °C they were gained [K min]) : (members,).
    profile_c : (members, cells) [°C]; half_m : (members,) [m] and power of the body of one
    dimension (heat.Body); trace : (n, 4), time [s], vessel, centre, mean [°C]; centres : (members,
    samples) [°C] every `every_s`, nan once it is over.
    crust_m, browned, charred, lost_kg_m2, dry_m, spent : (members,) what dry heat did to the
    surface; zero elsewhere. Of the crust, `dry_m` is bone dry; `spent` is a share of the juice.
    pressure_pa, boils_c : (members,) of the air.
    """

    come_up_s: Array
    hold_s: Array
    natural_s: Array
    quick_s: Array
    cook_centre: Array
    cook_mean: Array
    log_reduction: Array
    danger_min: Array
    peak_c: Array
    late_s: Array
    centre_away: Array
    mean_away: Array
    profile_c: Array
    half_m: Array
    power: float
    trace: Array
    centres: Array
    every_s: float
    target_c: float
    boil_c: float
    crust_m: Array
    browned: Array
    charred: Array
    lost_kg_m2: Array
    dry_m: Array
    spent: Array
    pressure_pa: Array
    boils_c: Array


def altitude_of(dish: Piece, draws: Draws) -> tuple[Array, Array]:
    """Pressure of the air [Pa] and boiling point [°C] of each member."""
    altitude = dish.kitchen.drawn("altitude_m", draws)
    places, index = np.unique(altitude, return_inverse=True)
    pressure = np.array([ambient_pressure_pa(float(a)) for a in places])
    boil = np.array([boiling_point_c(float(a)) for a in places])
    return pressure[index], boil[index]


def pot_of(dish: Tendering, draws: Draws, area_m2: Array, start_c: float | None = None) -> Pot:
    """How this dish's first heat is heated, held and released, as the kernel reads it.

    area_m2 : the food's surface in it, (members,). start_c : of vessel and liquid where they are
    hot already [°C]; else from the tap and the kitchen.
    """
    _, boil = altitude_of(dish, draws)
    amount = draws.factor("liquid", value("spread_liquid"))
    none, simmer = np.zeros(draws.members), value("h_simmer_w_m2_k")
    tap_c, room_c = value("tap_c"), value("kitchen_c")
    pot = Pot(
        power_w=none,
        loss_w_k=none,
        liquid_kg=dish.liquid * amount,
        surface_m2=area_m2,
        vent_j=none,
        target_c=boil,
        boil_c=boil,
        natural_s=none,
        quick_s=none,
        body_j_k=dish.first.appliance.figure("body_j_k"),
        liquid_start_c=tap_c if start_c is None else start_c,
        body_start_c=room_c if start_c is None else start_c,
        oven_c=0.0,
        oven_w_k=0.0,
        h_up=simmer,
        h_hold=simmer,
        room_c=room_c,
    )
    return POTS[dish.heat](pot, dish, draws, amount, start_c)


def lossy(name: str, draws: Draws) -> Array:
    """Loss to the room [W/K] of each member."""
    return value(name) * draws.factor("loss", value("spread_loss"))


def pressure_pot(
    pot: Pot, dish: Tendering, draws: Draws, amount: Array, start_c: float | None
) -> Pot:
    """A closed pot: it drives the air out, climbs to its pressure and is released."""
    kitchen, release = dish.kitchen, dish.release_kind
    gauge, altitude = kitchen.drawn("pot_gauge_kpa", draws), kitchen.drawn("altitude_m", draws)
    target = [gauge_saturation_c(float(g), float(a)) for g, a in zip(gauge, altitude, strict=True)]
    vent = value("vent_steam_kg") * latent_heat_j_kg(100.0)
    volume, per_l = kitchen.drawn("pot_volume_l", draws), value("quick_release_s_per_l")
    quick = np.array([quick_release_s(float(v), per_l) for v in volume])
    natural_s = {"quick": 0.0, "mixed": value("natural_part_s"), "natural": -1.0}[release]
    return pot._replace(
        power_w=kitchen.drawn("pot_power_w", draws) * draws.factor("power", value("spread_power")),
        loss_w_k=lossy("pot_loss_w_k", draws),
        vent_j=vent * draws.factor("vent", value("spread_vent")),
        target_c=np.array(target),
        natural_s=np.full(draws.members, natural_s),
        quick_s=np.zeros(draws.members) if release == "natural" else quick,
        h_hold=value("h_steam_w_m2_k"),
    )


def covered_dish(
    pot: Pot, dish: Tendering, draws: Draws, amount: Array, start_c: float | None
) -> Pot:
    """A dish in the oven. The oven's unknown stands for heat received; in it, the dish has no loss
    to the room. Its outside is that of a squat cylinder, twice as wide as high, which food and
    liquid half fill.
    """
    litres = dish.liquid + 1e3 * dish.mass_kg / cut(dish.cut).food.density_kg_m3
    wide_m = (8e-3 * litres / value("dish_fill") / math.pi) ** (1.0 / 3.0)  # of its volume
    return pot._replace(
        target_c=pot.boil_c - value("braise_simmer_gap_c"),
        oven_c=dish.kitchen.or_typical("oven_c"),
        oven_w_k=value("u_dish_w_m2_k") * math.pi * wide_m**2,
    )


def water_bath(
    pot: Pot, dish: Tendering, draws: Draws, amount: Array, start_c: float | None
) -> Pot:
    """A tank with a thermostat, hot before the food comes in."""
    kitchen = dish.kitchen
    h = surroundings("bath").h_w_m2_k
    target = np.minimum(kitchen.or_typical("bath_c"), pot.boil_c - 0.5)
    water = value("bath_fill") * kitchen.drawn("bath_volume_l", draws)
    # Just under its heat, so that it counts as back only once the cold food no longer drags it
    # down.
    hot_c = float(target.min()) - 0.05
    heater = kitchen.drawn("bath_power_w", draws) * draws.factor("power", value("spread_power"))
    return pot._replace(
        power_w=heater,
        loss_w_k=lossy("bath_loss_w_k", draws),
        liquid_kg=water * amount,
        target_c=target,
        liquid_start_c=hot_c,
        body_start_c=hot_c,
        h_up=h,
        h_hold=h,
    )


def simmering_pot(
    pot: Pot, dish: Tendering, draws: Draws, amount: Array, start_c: float | None
) -> Pot:
    """A lidded pot on a burner."""
    spread = dish.first.appliance.spread
    burner = dish.kitchen.drawn("burner_w", draws) * draws.factor("power", spread)
    return pot._replace(
        power_w=burner * value("burner_efficiency"),
        loss_w_k=lossy("pan_loss_w_k", draws),
        target_c=pot.boil_c - value("simmer_gap_c"),
    )


def slow_cooker(
    pot: Pot, dish: Tendering, draws: Draws, amount: Array, start_c: float | None
) -> Pot:
    """A covered crock with a small heater."""
    spread = dish.first.appliance.spread
    return pot._replace(
        power_w=dish.kitchen.drawn("slow_power_w", draws) * draws.factor("power", spread),
        loss_w_k=lossy("slow_loss_w_k", draws),
        target_c=pot.boil_c - value("slow_gap_c"),
    )


POTS = {
    "pressure": pressure_pot,
    "braise": covered_dish,
    "bath": water_bath,
    "simmer": simmering_pot,
    "slow": slow_cooker,
}


def run_tenderise(
    dish: Tendering,
    cut: Cut,
    draws: Draws,
    hold_s: float,
    pot_c: float | None = None,
    start_c: float | None = None,
    brought: Brought | None = None,
    outside: Array | None = None,
) -> Tenderised:
    """Run the first heat with a given hold [s]: under pressure, at the simmer, in the bath, in hot
    air or in foil.

    `pot_c` is the temperature of pot and liquid at the start [°C] where they are hot already; else
    tap and kitchen. `start_c` is that of the food where it was heated before; else fridge or
    freezer. `brought` is what the stages before have made of it, and `outside` its surface
    (members, 6); raw where absent.
    """
    if brought is None:
        brought = raw(start_of(dish, draws, start_c), CELLS)
    if dish.first.around:
        surface = np.zeros((draws.members, OUTSIDE)) if outside is None else outside
        return run_around(dish, cut, draws, brought, surface, hold_s)
    pot = pot_of(dish, draws, np.ones(draws.members), pot_c)
    body = dish.lying(pot.h_hold)
    half = body.half_m * draws.factor("thickness", value("spread_thickness"))
    amount = draws.factor("liquid", value("spread_liquid"))
    # Surface through which the piece is heated, so that mass and thickness agree: volume over
    # volume per m².
    area = amount * dish.mass_kg / cut.food.density_kg_m3 * (body.power + 1.0) / half
    less_k = value("proof_less_k") if dish.first.proves else 0.0
    pot = pot._replace(surface_m2=area)
    matter = Matter(cut.food.enthalpy_j_m3, cut.food.k_w_m_k)
    death, steps = death_of(cut, less_k), run_of(dish, draws, hold_s)

    def run(part: slice) -> tuple[Array, ...]:
        """The vessel with some of the members."""
        some, own = part_of(brought, draws.members, part), part_of(pot, draws.members, part)
        found: tuple[Array, ...] = run_vessel(
            half[part], some, own, body.power, matter, death, steps
        )
        return found

    parts = in_halves(draws.members, run)
    phases, sums, profile = (joined(parts, place) for place in range(3))
    trace = parts[0][3]
    none = np.zeros(draws.members)
    pressure, boil = altitude_of(dish, draws)
    return Tenderised(
        come_up_s=phases[:, 0],
        hold_s=phases[:, 1],
        natural_s=phases[:, 2],
        quick_s=phases[:, 3],
        **tallied(sums),
        profile_c=profile,
        half_m=half,
        power=body.power,
        trace=trace[~np.isnan(trace[:, 0])],
        centres=joined(parts, 4),
        every_s=steps.every_s,
        target_c=float(pot.target_c[0]),
        boil_c=float(pot.boil_c[0]),
        crust_m=none,
        browned=none,
        charred=none,
        lost_kg_m2=none,
        dry_m=none,
        spent=none,
        pressure_pa=pressure,
        boils_c=boil,
    )


def tallied(sums: Array) -> dict[str, Array]:
    """What a run added up, (members, TALLIES), by the names of `Tenderised`."""
    return {
        "cook_centre": sums[:, CENTRE],
        "cook_mean": sums[:, MEAN],
        "log_reduction": sums[:, LOG],
        "danger_min": sums[:, DANGER],
        "peak_c": sums[:, PEAK],
        "late_s": sums[:, LATE],
        "centre_away": sums[:, CENTRE_AWAY],
        "mean_away": sums[:, MEAN_AWAY],
    }


def death_of(cut: Cut, less_k: float) -> Death:
    """The thermal death that a cut is judged by, counted so much colder [K]."""
    kill = kill_for(cut.species)
    return Death(kill.d60_min, kill.z_c, float(less_k))


def run_of(dish: Tendering, draws: Draws, hold_s: float) -> Run:
    """Steps and samples of a first heat."""
    samples = TRACE_SAMPLES if draws.members > 2 else 1
    every_s = max(30.0, hold_s / 300.0)  # samples of the traces (design)
    return Run(float(hold_s), float(dish.first.step_s), every_s, samples)


def first_air_c(dish: Tendering) -> float:
    """Air that the first heat holds around this much food [°C]; of hot air only."""
    h = surroundings(dish.first.around, dry_c(dish)).h_w_m2_k
    if "hot_oven_h_w_m2_k" in dish.first.figures:
        h = dish.kitchen.or_typical("hot_oven_h_w_m2_k")
    return held_c(dish, dish.first.appliance, dry_c(dish), h, "first")


def dry_c(dish: Tendering) -> float:
    """Temperature of the air around the food [°C], or around its foil."""
    return dish.kitchen.or_typical(dish.first.dial)


def start_of(dish: Piece, draws: Draws, start_c: float | None = None) -> Array:
    """What the food starts from [°C], (members,): its fridge or freezer, or as told."""
    if start_c is not None:
        return np.full(draws.members, float(start_c))
    cold = value("fridge_c") if dish.state == "fridge" else value("freezer_c")
    return cold + value("spread_start_c") * draws.normal["start"]


def run_around(
    dish: Tendering, cut: Cut, draws: Draws, brought: Brought, outside: Array, hold_s: float
) -> Tenderised:
    """The first heat in hot air, smoke or foil: what surrounds the food is hot from the start."""
    around = surroundings(dish.first.around, dry_c(dish))
    h = np.full(draws.members, around.h_w_m2_k)
    if "hot_oven_h_w_m2_k" in dish.first.figures:
        h = dish.kitchen.drawn("hot_oven_h_w_m2_k", draws)
    if dish.first.dry:
        around = surroundings(dish.first.around, first_air_c(dish))
    body = dish.lying(float(np.median(h)))
    half = body.half_m * draws.factor("thickness", value("spread_thickness"))
    pressure, boil = altitude_of(dish, draws)
    exchange = h * draws.factor("power", dish.first.appliance.spread)
    drying, air, death = drying_of(cut.food, 1.0), air_of(around, 1.0, 1.0, 1.0), death_of(cut, 0.0)
    steps = run_of(dish, draws, hold_s)
    film = film_constants()
    film = film._replace(protein_rate_1_s=dish.browns * film.protein_rate_1_s)

    def run(part: slice) -> tuple[Array, ...]:
        """The hot air around some of the members."""
        found: tuple[Array, ...] = run_dry(
            half[part],
            part_of(brought, draws.members, part),
            outside[part],
            exchange[part],
            pressure[part],
            boil[part],
            body.power,
            drying,
            air,
            film,
            value("skin_dry_m"),
            death,
            steps,
        )
        return found

    parts = in_halves(draws.members, run)
    sums, profile, surface = (joined(parts, place) for place in range(3))
    trace = parts[0][3]
    none = np.zeros(draws.members)
    return Tenderised(
        come_up_s=none,
        hold_s=none + hold_s,
        natural_s=none,
        quick_s=none,
        **tallied(sums),
        profile_c=profile,
        half_m=half,
        power=body.power,
        trace=trace[~np.isnan(trace[:, 0])],
        centres=joined(parts, 4),
        every_s=steps.every_s,
        target_c=dry_c(dish),
        boil_c=float(boil[0]),
        # in one piece, so that what follows is compiled once for wet and dry
        crust_m=np.ascontiguousarray(surface[:, 0]),
        browned=surface[:, 1],
        charred=surface[:, 2],
        lost_kg_m2=surface[:, 3],
        dry_m=surface[:, 4],
        spent=surface[:, 5],
        pressure_pa=pressure,
        boils_c=boil,
    )


def cook_of(run: Tenderised, cut: Cut) -> Array:
    """Cook value [min] at the site that decides for this cut, (members,)."""
    return cooked_of(run, cut).minutes


def cooked_of(run: Tenderised, cut: Cut) -> Cooked:
    """Cook value at the site that decides for this cut, and how far from 100 °C it was gained."""
    if cut.site == "centre":
        return Cooked(run.cook_centre, run.centre_away)
    return Cooked(run.cook_mean, run.mean_away)


def wary_pair(draws: Draws) -> Draws:
    """The median member, and one in which thickness and start are both on the cold side (about the
    95th percentile).
    """
    pair = {name: np.zeros(2) for name in draws.normal}
    pair["thickness"][1] = 1.65  # the 5 % tail of a normal
    pair["start"][1] = -1.65  # the same
    return Draws(pair)


def safe_by(dish: Tendering, cut: Cut, run: Tenderised) -> NDArray[np.bool_]:
    """Whether each member is safe inside after the first heat, (members,): by its temperature and a
    degree over, or in a water bath by a time at temperature that is proven (log reduction)."""
    hot = run.peak_c >= cut.safe_c + 1.0
    if not dish.first.proves:
        return np.asarray(hot)
    proven = run.log_reduction >= kill_for(cut.species).wanted_log
    return np.asarray(hot | (proven & (run.peak_c - value("proof_less_k") >= NO_CREDIT_BELOW_C)))


def shortest_hold_s(enough: Callable[[int], bool], longest_s: float, what: str) -> float:
    """Shortest hold [s], in whole minutes, that is enough; whether it is grows with the hold.

    Doubled until it is enough: the longest hold of a bath takes far longer to compute than a usual
    one. Then bisection. Raises NotConverged where the longest is not enough.
    """
    low, high, longest = -1, 30, int(longest_s / 60.0)
    high = min(high, longest)
    while not enough(high):
        if high == longest:
            raise NotConverged(what, float(longest), float(longest))
        low, high = high, min(2 * high, longest)
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (low, middle) if enough(middle) else (middle, high)
    return 60.0 * high


def pleasant_hold_s(dish: Tendering, cut: Cut, draws: Draws) -> float | None:
    """Shortest hold [s] in whole minutes that brings the middle of the median piece to where this
    cut is pleasant; None where the cut has no such temperature or this heat does not get there.
    """
    pleasant = cut.pleasant_c
    if pleasant is None:
        return None
    pair = wary_pair(draws)

    def enough(minutes: int) -> bool:
        run = run_tenderise(dish, cut, pair, 60.0 * minutes)
        return bool(run.peak_c[0] >= pleasant)

    try:
        return shortest_hold_s(enough, dish.first.longest_s, cut.name)
    except NotConverged:
        return None
