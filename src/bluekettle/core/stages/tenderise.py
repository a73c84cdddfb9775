"""The first heat: pressure or a covered braise, for all members, and the timer that brings the bite asked for."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.errors import NotConverged
from bluekettle.core.glaze import Draws
from bluekettle.core.heat import GEOMETRY
from bluekettle.core.lethality import kill_for
from bluekettle.core.pressure import gauge_saturation_c, quick_release_s
from bluekettle.core.stages.dish import VESSEL_OF, Cut, Dish
from bluekettle.core.stages.vessel import run_vessel
from bluekettle.core.tables import row, value
from bluekettle.core.thermo import boiling_point_c, latent_heat_j_kg

Array = NDArray[np.float64]

TRACE_SAMPLES = 400
LONGEST_S = {"pressure": 4 * 3600.0, "braise": 8 * 3600.0}


@dataclass(frozen=True)
class Tenderised:
    """Result of the first heat.

    come_up_s, hold_s, natural_s, quick_s, cook_centre, cook_mean [min], log_reduction, danger_min, peak_c : (members,)
    profile_c : (members, cells) [°C]; half_m : (members,) [m]; trace : (n, 4), time [s], vessel, centre, mean [°C].
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
    profile_c: Array
    half_m: Array
    trace: Array
    target_c: float
    boil_c: float


def run_tenderise(dish: Dish, cut: Cut, draws: Draws, hold_s: float, pot_c: float | None = None) -> Tenderised:
    """Run the first heat with a given hold [s] under pressure or at the simmer.

    `pot_c` is the temperature of pot and liquid at the start [°C] where they are hot already; else tap and kitchen.
    """
    kitchen = dish.kitchen
    altitude = kitchen.or_typical("altitude_m")
    boil_c = boiling_point_c(altitude)
    members = draws.members
    pressure = dish.tenderise == "pressure"
    vessel = row("appliances", VESSEL_OF[dish.tenderise])
    half = dish.effective_half_m() * draws.factor("thickness", value("spread_thickness"))
    cold = value("fridge_c") if dish.state == "fridge" else value("freezer_c")
    start = cold + value("spread_start_c") * draws.normal["start"]
    amount = draws.factor("liquid", value("spread_liquid"))
    exponent = GEOMETRY[cut.shape]
    # Surface through which the piece is heated, so that mass and thickness agree: volume over volume per m².
    area = amount * dish.mass_kg / cut.food.density_kg_m3 * (exponent + 1) / half
    if pressure:
        target_c = gauge_saturation_c(kitchen.or_typical("pot_gauge_kpa"), altitude)
        power = kitchen.or_typical("pot_power_w") * draws.factor("power", value("spread_power"))
        oven_w_k, oven_c, release = 0.0, 0.0, dish.release_kind
        loss = value("pot_loss_w_k") * draws.factor("loss", value("spread_loss"))
        volume = kitchen.or_typical("pot_volume_l")
        quick = 0.0 if release == "natural" else quick_release_s(volume, value("quick_release_s_per_l"))
        natural = {"quick": 0.0, "mixed": value("natural_part_s"), "natural": -1.0}[release]
    else:
        target_c = boil_c - value("braise_simmer_gap_c")
        power = np.zeros(members)
        oven_w_k, oven_c = value("h_dish_w_k"), kitchen.or_typical("oven_c")
        # The oven's unknown stands for heat received; a dish has no loss to the room while it is in the oven.
        loss = np.zeros(members)
        quick = natural = 0.0
    vent = value("vent_steam_kg") * latent_heat_j_kg(100.0) * draws.factor("vent", value("spread_vent"))
    kill = kill_for(cut.species)
    phases, sums, profile, trace = run_vessel(
        half, start, power, loss, dish.liquid * amount, area, vent, exponent, cut.food.enthalpy_j_m3,
        cut.food.k_w_m_k, float(vessel["body_j_k"]), value("tap_c") if pot_c is None else pot_c, value("kitchen_c") if pot_c is None else pot_c, oven_c,
        oven_w_k, target_c, boil_c, hold_s, natural, quick, value("h_simmer_w_m2_k"),
        value("h_steam_w_m2_k") if pressure else value("h_simmer_w_m2_k"), value("kitchen_c"),
        kill.d60_min, kill.z_c, 5.0 if pressure else 10.0, max(30.0, hold_s / 300.0), TRACE_SAMPLES if members > 2 else 1,
    )  # fmt: skip
    return Tenderised(
        phases[:, 0], phases[:, 1], phases[:, 2], phases[:, 3], sums[:, 0], sums[:, 1], sums[:, 2], sums[:, 3],
        sums[:, 4], profile, half, trace[~np.isnan(trace[:, 0])], target_c, boil_c,
    )  # fmt: skip


def cook_of(run: Tenderised, cut: Cut) -> Array:
    """Cook value [min] at the site that decides for this cut, (members,)."""
    return run.cook_centre if cut.site == "centre" else run.cook_mean


def wary_pair(draws: Draws) -> Draws:
    """The median member, and one in which thickness and start are both on the cold side (about the 95th percentile)."""
    pair = {name: np.zeros(2) for name in draws.normal}
    pair["thickness"][1] = 1.65
    pair["start"][1] = -1.65
    return Draws(pair)


def find_hold_s(dish: Dish, cut: Cut, draws: Draws) -> float:
    """Shortest hold [s], in whole minutes, that brings the bite asked for and a safe centre.

    The bite is judged on the median member over the whole curve (come-up, hold and release), the temperature on an
    unfavourable one. Bisection on minutes, since both grow with the hold.

    Raises
    ------
    NotConverged
        The longest hold of this method does not get there; it tells how far it got.
    """
    pair = wary_pair(draws)
    target = cut.targets[dish.bite]

    def enough(minutes: int) -> bool:
        run = run_tenderise(dish, cut, pair, 60.0 * minutes)
        return bool(cook_of(run, cut)[0] >= target and (not cut.gate or run.peak_c[1] >= cut.safe_c + 1.0))

    low, high = -1, int(LONGEST_S[dish.tenderise] / 60.0)
    if not enough(high):
        reached = float(cook_of(run_tenderise(dish, cut, pair, 60.0 * high), cut)[0])
        raise NotConverged(f"cook value for {cut.name} that {dish.bite}", target, reached)
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


def return_leg_s(dish: Dish, cut: Cut) -> tuple[float, float]:
    """Seconds of come-up and of hold for a return leg after a failed check: a third of the cook value again.

    The pot is hot, so it only has to climb from boiling to its pressure: heat of pot, liquid, juices and food over
    its power. A braise goes straight on.
    """
    altitude = dish.kitchen.or_typical("altitude_m")
    boil_c = boiling_point_c(altitude)
    missing = cut.targets[dish.bite] / 3.0
    if dish.tenderise == "braise":
        temp_c = boil_c - value("braise_simmer_gap_c")
        return 300.0, 60.0 * missing / 10.0 ** ((temp_c - value("cook_reference_c")) / value("cook_z_c"))
    target_c = gauge_saturation_c(dish.kitchen.or_typical("pot_gauge_kpa"), altitude)
    capacity = dish.liquid * 4190.0 + float(row("appliances", "electric-pot")["body_j_k"])
    capacity += dish.mass_kg * cut.food.specific_heat_j_kg_k(80.0, 110.0)
    come_up = capacity * (target_c - boil_c + 5.0) / dish.kitchen.or_typical("pot_power_w")
    rate = 10.0 ** ((target_c - value("cook_reference_c")) / value("cook_z_c"))
    return come_up, 60.0 * missing / rate
