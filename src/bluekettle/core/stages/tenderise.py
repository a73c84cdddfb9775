"""The first heat of a dish for all members, and the timer that brings the bite asked for."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.errors import NotConverged, NotSafe, within
from bluekettle.core.glaze import Draws, film_constants
from bluekettle.core.heat import GEOMETRY, surroundings
from bluekettle.core.lethality import NO_CREDIT_BELOW_C, kill_for
from bluekettle.core.pressure import gauge_saturation_c, quick_release_s
from bluekettle.core.stages.dish import Cut, Dish
from bluekettle.core.stages.dry import run_dry
from bluekettle.core.stages.tally import CENTRE, DANGER, LATE, LOG, MEAN, PEAK
from bluekettle.core.stages.vessel import run_vessel
from bluekettle.core.tables import value
from bluekettle.core.thermo import ambient_pressure_pa, boiling_point_c, latent_heat_j_kg

Array = NDArray[np.float64]

TRACE_SAMPLES = 400


@dataclass(frozen=True)
class Tenderised:
    """Result of the first heat.

    come_up_s, hold_s, natural_s, quick_s, cook_centre, cook_mean [min], log_reduction, danger_min,
    peak_c, late_s (the last moment at which the centre was under 54.4 °C) : (members,).
    profile_c : (members, cells) [°C]; half_m : (members,) [m]; trace : (n, 4), time [s], vessel,
    centre, mean [°C].
    crust_m, brown_index, lost_kg_m2 : (members,) what dry heat did to the surface; zero elsewhere.
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
    profile_c: Array
    half_m: Array
    trace: Array
    target_c: float
    boil_c: float
    crust_m: Array
    brown_index: Array
    lost_kg_m2: Array


@dataclass(frozen=True)
class Vessel:
    """A closed or covered vessel at work: heater [W] and loss [W/K] of each member, heat to drive
    out the air [J], the oven around it, the temperature it is held at, release, exchange with the
    food, liquid [kg] and where it starts.
    """

    target_c: float
    power: Array
    loss: Array
    liquid_kg: float
    h_up: float
    h_hold: float
    start_c: float
    vent_j: Array
    oven_c: float = 0.0
    oven_w_k: float = 0.0
    natural_s: float = 0.0
    quick_s: float = 0.0


def vessel_of(dish: Dish, draws: Draws, boil_c: float) -> Vessel:
    """How this dish's first heat is heated, held and released."""
    kitchen = dish.kitchen
    spread = float(dish.first.appliance["spread"] or 0.0)
    simmer, none, tap_c = value("h_simmer_w_m2_k"), np.zeros(draws.members), value("tap_c")

    def lossy(name: str) -> Array:
        return value(name) * draws.factor("loss", value("spread_loss"))

    if dish.tenderise == "pressure":
        volume, release = kitchen.or_typical("pot_volume_l"), dish.release_kind
        return Vessel(
            gauge_saturation_c(
                kitchen.or_typical("pot_gauge_kpa"), kitchen.or_typical("altitude_m")
            ),
            kitchen.or_typical("pot_power_w") * draws.factor("power", value("spread_power")),
            lossy("pot_loss_w_k"),
            dish.liquid,
            simmer,
            value("h_steam_w_m2_k"),
            tap_c,
            value("vent_steam_kg")
            * latent_heat_j_kg(100.0)
            * draws.factor("vent", value("spread_vent")),
            natural_s={"quick": 0.0, "mixed": value("natural_part_s"), "natural": -1.0}[release],
            quick_s=(
                0.0
                if release == "natural"
                else quick_release_s(volume, value("quick_release_s_per_l"))
            ),
        )
    if dish.tenderise == "braise":
        # The oven's unknown stands for heat received; a dish has no loss to the room while it is in
        # the oven.
        return Vessel(
            boil_c - value("braise_simmer_gap_c"),
            none,
            none,
            dish.liquid,
            simmer,
            simmer,
            tap_c,
            none,
            oven_c=kitchen.or_typical("oven_c"),
            oven_w_k=value("h_dish_w_k"),
        )
    if dish.tenderise == "bath":
        target_c, h = min(kitchen.or_typical("bath_c"), boil_c - 0.5), surroundings("bath").h_w_m2_k
        water = value("bath_fill") * kitchen.or_typical("bath_volume_l")
        power = kitchen.or_typical("bath_power_w") * draws.factor("power", value("spread_power"))
        # Just under its heat, so that it counts as back only once the cold food no longer drags it
        # down.
        return Vessel(target_c, power, lossy("bath_loss_w_k"), water, h, h, target_c - 0.05, none)
    if dish.tenderise == "simmer":
        power = (
            kitchen.or_typical("burner_w")
            * value("burner_efficiency")
            * draws.factor("power", spread)
        )
        target_c = boil_c - value("simmer_gap_c")
        return Vessel(
            target_c, power, lossy("pan_loss_w_k"), dish.liquid, simmer, simmer, tap_c, none
        )
    power = kitchen.or_typical("slow_power_w") * draws.factor("power", spread)
    target_c = boil_c - value("slow_gap_c")
    return Vessel(target_c, power, lossy("slow_loss_w_k"), dish.liquid, simmer, simmer, tap_c, none)


def run_tenderise(
    dish: Dish, cut: Cut, draws: Draws, hold_s: float, pot_c: float | None = None
) -> Tenderised:
    """Run the first heat with a given hold [s]: under pressure, at the simmer, in the bath, in hot
    air or in foil.

    `pot_c` is the temperature of pot and liquid at the start [°C] where they are hot already; else
    tap and kitchen.
    """
    boil_c = boiling_point_c(dish.kitchen.or_typical("altitude_m"))
    half = dish.effective_half_m() * draws.factor("thickness", value("spread_thickness"))
    cold = value("fridge_c") if dish.state == "fridge" else value("freezer_c")
    start = cold + value("spread_start_c") * draws.normal["start"]
    if dish.first.around:
        return run_around(dish, cut, draws, half, start, hold_s, boil_c)
    vessel = vessel_of(dish, draws, boil_c)
    amount = draws.factor("liquid", value("spread_liquid"))
    exponent = GEOMETRY[cut.shape]
    # Surface through which the piece is heated, so that mass and thickness agree: volume over
    # volume per m².
    area = amount * dish.mass_kg / cut.food.density_kg_m3 * (exponent + 1) / half
    kill = kill_for(cut.species)
    bath = dish.tenderise == "bath"
    liquid_start_c = vessel.start_c if pot_c is None else pot_c
    body_start_c = (vessel.start_c if bath else value("kitchen_c")) if pot_c is None else pot_c
    phases, sums, profile, trace = run_vessel(
        half,
        start,
        vessel.power,
        vessel.loss,
        vessel.liquid_kg * amount,
        area,
        vessel.vent_j,
        exponent,
        cut.food.enthalpy_j_m3,
        cut.food.k_w_m_k,
        float(dish.first.appliance["body_j_k"]),
        liquid_start_c,
        body_start_c,
        vessel.oven_c,
        vessel.oven_w_k,
        vessel.target_c,
        boil_c,
        hold_s,
        vessel.natural_s,
        vessel.quick_s,
        vessel.h_up,
        vessel.h_hold,
        value("kitchen_c"),
        kill.d60_min,
        kill.z_c,
        value("proof_less_k") if bath else 0.0,
        dish.first.step_s,
        max(30.0, hold_s / 300.0),
        TRACE_SAMPLES if draws.members > 2 else 1,
    )
    none = np.zeros(draws.members)
    return Tenderised(
        phases[:, 0],
        phases[:, 1],
        phases[:, 2],
        phases[:, 3],
        sums[:, CENTRE],
        sums[:, MEAN],
        sums[:, LOG],
        sums[:, DANGER],
        sums[:, PEAK],
        sums[:, LATE],
        profile,
        half,
        trace[~np.isnan(trace[:, 0])],
        vessel.target_c,
        boil_c,
        none,
        none,
        none,
    )


def dry_c(dish: Dish) -> float:
    """Temperature of the air around the food [°C], or around its foil."""
    return dish.kitchen.or_typical(dish.first.dial)


def run_around(
    dish: Dish, cut: Cut, draws: Draws, half: Array, start: Array, hold_s: float, boil_c: float
) -> Tenderised:
    """The first heat in hot air, smoke or foil: what surrounds the food is hot from the start."""
    around = surroundings(dish.first.around, dry_c(dish))
    h = around.h_w_m2_k
    if "hot_oven_h_w_m2_k" in dish.first.figures:
        h = dish.kitchen.or_typical("hot_oven_h_w_m2_k")
    kill, c = kill_for(cut.species), film_constants()
    sums, profile, surface, trace = run_dry(
        half,
        start,
        h * draws.factor("power", float(dish.first.appliance["spread"])),
        GEOMETRY[cut.shape],
        cut.food.enthalpy_j_m3,
        cut.food.k_w_m_k,
        cut.food.water_fraction * cut.food.density_kg_m3,
        around.air_c,
        around.wall_c,
        around.element_w_m2,
        around.vapour_pa,
        around.wet,
        ambient_pressure_pa(dish.kitchen.or_typical("altitude_m")),
        boil_c,
        c.emissivity,
        c.crust_k_w_m_k,
        c.crust_vapour_m2_s,
        c.juice_supply_kg_m2_s,
        c.protein_rate_1_s,
        c.brown_ea_j_mol,
        value("brown_reference_c"),
        value("skin_dry_m"),
        kill.d60_min,
        kill.z_c,
        hold_s,
        dish.first.step_s,
        max(30.0, hold_s / 300.0),
        TRACE_SAMPLES if draws.members > 2 else 1,
    )
    none = np.zeros(draws.members)
    return Tenderised(
        none,
        none + hold_s,
        none,
        none,
        sums[:, CENTRE],
        sums[:, MEAN],
        sums[:, LOG],
        sums[:, DANGER],
        sums[:, PEAK],
        sums[:, LATE],
        profile,
        half,
        trace[~np.isnan(trace[:, 0])],
        dry_c(dish),
        boil_c,
        surface[:, 0],
        surface[:, 1],
        surface[:, 2],
    )


def cook_of(run: Tenderised, cut: Cut) -> Array:
    """Cook value [min] at the site that decides for this cut, (members,)."""
    return run.cook_centre if cut.site == "centre" else run.cook_mean


def wary_pair(draws: Draws) -> Draws:
    """The median member, and one in which thickness and start are both on the cold side (about the
    95th percentile).
    """
    pair = {name: np.zeros(2) for name in draws.normal}
    pair["thickness"][1] = 1.65
    pair["start"][1] = -1.65
    return Draws(pair)


def safe_by(dish: Dish, cut: Cut, run: Tenderised) -> NDArray[np.bool_]:
    """Whether each member is safe inside after the first heat, (members,): by its temperature and a
    degree over, or in a water bath by a time at temperature that is proven (log reduction)."""
    hot = run.peak_c >= cut.safe_c + 1.0
    if dish.tenderise != "bath":
        return np.asarray(hot)
    proven = run.log_reduction >= kill_for(cut.species).wanted_log
    return np.asarray(hot | (proven & (run.peak_c - value("proof_less_k") >= NO_CREDIT_BELOW_C)))


def find_hold_s(dish: Dish, cut: Cut, draws: Draws) -> float:
    """Shortest hold [s], in whole minutes, that brings the bite asked for and a safe centre.

    The bite is judged on the median member over the whole curve (come-up, hold and release), the
    temperature on an unfavourable one. Bisection on minutes, since both grow with the hold.

    Raises
    ------
    NotConverged
        The longest hold of this method does not get there; it tells how far it got. NotSafe where
        it is tender by then, and an unfavourable piece still not safe inside.
    """
    pair = wary_pair(draws)
    target = cut.targets[dish.bite]

    def enough(minutes: int) -> bool:
        run = run_tenderise(dish, cut, pair, 60.0 * minutes)
        return bool(cook_of(run, cut)[0] >= target and (not cut.gate or safe_by(dish, cut, run)[1]))

    # Doubled until it is enough: the longest hold of a bath takes far longer to compute than a
    # usual one.
    low, high, longest = -1, 30, int(dish.first.longest_s / 60.0)
    while not enough(high):
        if high == longest:
            run = run_tenderise(dish, cut, pair, 60.0 * high)
            reached = float(cook_of(run, cut)[0])
            if reached >= target:
                raise NotSafe(f"temperature inside {cut.name}", cut.safe_c, float(run.peak_c[1]))
            raise NotConverged(f"cook value for {cut.name} that {dish.bite}", target, reached)
        low, high = high, min(2 * high, longest)
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (low, middle) if enough(middle) else (middle, high)
    return 60.0 * high


def with_hold(dish: Dish, cut: Cut, draws: Draws) -> tuple[Dish, float]:
    """The dish and its hold [s]: the cook's own timer where one was given, else the one found."""
    if dish.timer_min is not None:
        return dish, 60.0 * dish.timer_min
    hold_s = find_hold_s(dish, cut, draws)
    return replace(dish, timer_min=hold_s / 60.0), hold_s


def return_leg_s(dish: Dish, cut: Cut, core_c: float | None = None) -> tuple[float, float]:
    """Seconds of come-up and of hold for a return leg after a failed check: a third of the cook
    value again.

    A pot is hot, so it only has to climb from boiling to its pressure: heat of pot, liquid, juices
    and food over its power. Anything else goes straight on, after five minutes of warming: the
    centre at the temperature of its vessel, or in hot air at `core_c` [°C], what it had when it
    came out (90 where nobody knows). Raises OutOfRange for a `core_c` outside 0 to 130 °C.
    """
    if core_c is not None:
        within("core_c", core_c, 0.0, 130.0, "°C")
    altitude = dish.kitchen.or_typical("altitude_m")
    boil_c = boiling_point_c(altitude)
    missing = cut.targets[dish.bite] / 3.0
    if dish.tenderise == "pressure":
        target_c = gauge_saturation_c(dish.kitchen.or_typical("pot_gauge_kpa"), altitude)
        capacity = dish.liquid * 4190.0 + float(dish.first.appliance["body_j_k"])
        capacity += dish.mass_kg * cut.food.specific_heat_j_kg_k(80.0, 110.0)
        come_up = capacity * (target_c - boil_c + 5.0) / dish.kitchen.or_typical("pot_power_w")
    else:
        come_up = 300.0
        one = Draws({name: np.zeros(1) for name in ("heat", "loss", "power", "vent")})
        centre_c = 90.0 if core_c is None else core_c
        target_c = (
            min(boil_c, centre_c) if dish.first.around else vessel_of(dish, one, boil_c).target_c
        )
    rate = 10.0 ** ((target_c - value("cook_reference_c")) / value("cook_z_c"))
    return come_up, 60.0 * missing / rate
