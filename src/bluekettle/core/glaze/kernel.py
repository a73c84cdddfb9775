"""The film under heat, integrated for all members of an ensemble and all sites at once
(compiled).
"""

from __future__ import annotations

from functools import cache
from typing import Any, NamedTuple

import numpy as np
from numba import njit

from bluekettle.core.glaze.activity import activity_of
from bluekettle.core.tables import value
from bluekettle.core.thermo.steam import VAPOUR_J_KG_K, latent_heat_j_kg, psat_grid_pa
from bluekettle.core.units import KELVIN

SIGMA = 5.670374e-8
GAS_J_MOL_K = 8.314462
# rho cp of hot humid air at film temperature, with Lewis number near 1 (typical, estimated)
AIR_J_M3_K = 950.0

_THETA = (
    0.52  # weight of the end of a step: nearly the trapezoidal rule, and still damped near boiling
)
_SOAK = 0.3  # share of a late coat's water that goes into the crust below (typical, estimated)


class FilmConstants(NamedTuple):
    """Every uncertain constant of the film model, in the units of data/constants.csv; handed to the
    kernel whole.
    """

    emissivity: float
    crust_k_w_m_k: float
    crust_vapour_m2_s: float
    juice_supply_kg_m2_s: float
    juice_fade_s: float
    wet_layer_m: float
    film_cp_dry_j_kg_k: float
    film_start_c: float
    brown_rate_1_s: float
    protein_rate_1_s: float
    protein_under_film: float
    brown_ea_j_mol: float
    brown_wet_fraction: float
    set_water_fraction: float
    amber_index: float
    mahogany_index: float
    bitter_index: float
    burnt_index: float
    interface_face_w_m2_k: float
    interface_bare_w_m2_k: float
    interface_edge_share: float
    interface_shred_share: float
    edge_heat_share: float
    edge_coat_share: float
    shred_coat_share: float
    away_share: float


class Ground(NamedTuple):
    """What the film lies on: conductivity [W/mK], diffusivity [m²/s], heat capacity [J/m³K], water
    [kg/m³], and its share of the juice that meat supplies from within."""

    k_w_m_k: float
    alpha_m2_s: float
    capacity_j_m3_k: float
    water_kg_m3: float
    supply_share: float


MEAT = Ground(0.5, 1.35e-7, 3.7e6, 680.0, 1.0)
# Soft white bread, damped: porous, so it insulates and holds little (typical, estimated from its
# density of 300 kg/m³).
DAMP_BREAD = Ground(0.12, 1.1e-7, 1.1e6, 180.0, 0.0)


@cache
def film_constants() -> FilmConstants:
    """The film's constants as the data tables give them."""
    return FilmConstants(*(value(name) for name in FilmConstants._fields))


_REF_K = value("brown_reference_c") + KELVIN

AIR_VAPOUR_PA = 3000.0  # vapour in a vented hot cavity (typical, estimated)
ROOM_C, ROOM_H = 21.0, 9.0


@njit(cache=True, error_model="numpy")
def film_temp_c(
    start_c: float,
    guess_c: float,
    capacity: float,
    dt: float,
    gain: float,
    h: float,
    air_c: float,
    wall4: float,
    element: float,
    u: float,
    below_c: float,
    activity: float,
    h_mass: float,
    pressure: float,
    water_rate: float,
    emissivity: float,
    theta: float,
    net_before: float,
) -> Any:
    """Film temperature at the end of a step, its evaporation there [kg/m²s] and the net heat
    [W/m²], by Newton on its balance.

    Heat in: gain [h (air - T) + eps sigma (wall^4 - T^4) + element]; out: conduction u (T - below)
    and evaporation with Spalding's logarithm, so that a film can never pass its own boiling point
    while water is left. The step weighs the net heat at its end by `theta` and that at its start
    (`net_before`) by the rest: 1 is backward Euler, 0.5 the trapezoidal rule. Written for g(T) = 0
    with g falling: the steps are kept below the boiling point.
    """
    temp = guess_c
    rate, net = 0.0, 0.0
    for _ in range(12):
        kelvin = temp + KELVIN
        partial = activity * psat_grid_pa(temp)
        # Saturation slope by Clausius and Clapeyron.
        latent = latent_heat_j_kg(min(temp, 200.0))
        slope = partial * latent / (VAPOUR_J_KG_K * kelvin * kelvin)
        if partial < 0.98 * pressure:
            unit = h_mass * pressure / (VAPOUR_J_KG_K * kelvin)
            rate = unit * np.log((pressure - AIR_VAPOUR_PA) / (pressure - partial))
            rate_slope = unit / (pressure - partial) * slope
        else:
            # Beyond 98 % of boiling the logarithm is carried on by its tangent: the film simply
            # boils.
            unit = h_mass * pressure / (VAPOUR_J_KG_K * kelvin)
            rate = unit * (
                np.log((pressure - AIR_VAPOUR_PA) / (0.02 * pressure))
                + (partial - 0.98 * pressure) / (0.02 * pressure)
            )
            rate_slope = unit / (0.02 * pressure) * slope
        if rate < 0.0:  # the film takes up no water from the air
            rate = 0.0
            rate_slope = 0.0
        if rate > water_rate:
            rate = water_rate
            rate_slope = 0.0
        heat = gain * (h * (air_c - temp) + emissivity * SIGMA * (wall4 - kelvin**4) + element)
        heat_slope = -gain * (h + 4.0 * emissivity * SIGMA * kelvin**3)
        net = heat - u * (temp - below_c) - latent * rate
        g = theta * net + (1.0 - theta) * net_before - capacity * (temp - start_c) / dt
        g_slope = theta * (heat_slope - u - latent * rate_slope) - capacity / dt
        move = -g / g_slope
        if move > 15.0:
            move = 15.0
        elif move < -15.0:
            move = -15.0
        temp += move
        if abs(move) < 0.02:
            break
    return temp, rate, net


@njit(cache=True, error_model="numpy")
def wetness_factor(water_fraction: float, half: float) -> float:
    """How far water holds browning back [-]: 1 dry, a half at the reference fraction."""
    ratio = water_fraction / half
    return 1.0 / (1.0 + ratio * ratio)


@njit(cache=True, nogil=True, error_model="numpy")
def integrate(
    factors: Any,
    deep_c: Any,
    start_c: float,
    sites: Any,
    heat: Any,
    sauce: Any,
    coats: Any,
    coat_mass: float,
    sugar_rate: float,
    protein_rate: float,
    pressure: float,
    boil_c: float,
    bare: bool,
    flips: Any,
    dt: float,
    steps: int,
    every: int,
    c: FilmConstants,
    ground: Ground,
    change: Any,
    juice: Any,
    bare_rate: float,
    dried: Any,
) -> Any:
    """Run every member and site; returns (milestone times, traces).

    factors (members, 4): heat, coat, interface, browning. deep_c (members,): food below the shallow
    layer [°C]. sites (sites, 4): heat share, coat share, interface [W/m²K], side (1 faces the heat
    at first, -1 is turned away, 0 stands on edge); at each of `flips` [s] the sides change places.
    heat (5,): h, air_c, wall_c, element, vent. change (7,): from this second on another heat (h,
    air_c, wall_c, element), share of it on the edge, and its vent. sauce (4,): water, dry solids,
    sucrose-equivalent of the dry solids, fat, each per kg of sauce. coats (n, 2): start and end [s]
    of the time out of the heat in which a coat is brushed. Where the first ends after 0, the food
    lies bare until then: juice (mass [kg/m²], water, sucrose-equivalent of its dry solids) is on
    it, and it browns by its protein at `bare_rate`. dried (members, 2): crust [m] and browning
    index that the food brings along. Milestone times (members, sites, 7) [s], inf where not
    reached: set, bubbling, amber, mahogany, bitter, burnt, crisp. Traces (members, sites, samples,
    4): index of the top layer, film temperature [°C], water fraction, crust [m].
    """
    members, n_sites, n_coats = factors.shape[0], sites.shape[0], coats.shape[0]
    samples = steps // every + 1
    times = np.full((members, n_sites, 7), np.inf)
    traces = np.zeros((members, n_sites, samples, 4), dtype=np.float32)
    wall4 = (heat[2] + KELVIN) ** 4
    room4 = (ROOM_C + KELVIN) ** 4
    layer_j = c.wet_layer_m * ground.capacity_j_m3_k
    shows = c.bitter_index - c.mahogany_index  # a bitter layer under a fresh coat looks mahogany
    marks = np.array([c.amber_index, c.mahogany_index, c.bitter_index, c.burnt_index])
    layers = np.zeros(max(1, n_coats))
    for m in range(members):
        for s in range(n_sites):
            share, interface = sites[s, 0], sites[s, 2] * factors[m, 2]
            mass = coat_mass * sites[s, 1] * factors[m, 1]
            water, dry, bound, fat = 0.0, 0.0, 0.0, 0.0
            film, below, crust = c.film_start_c, start_c, dried[m, 0]
            layers[:] = 0.0
            laid = 0
            under = dried[
                m, 1
            ]  # browning of the food itself, where it lies bare before its first coat
            if bare:
                layers[0], under = under, 0.0
            browns = coats[0, 1] > 0.0 or under > 0.0
            if coats[0, 1] > 0.0:
                water, dry, bound = (
                    juice[0] * juice[1],
                    juice[0] * (1.0 - juice[1]),
                    juice[0] * (1.0 - juice[1]) * juice[2],
                )
            worst_before, top_before = 0.0, 0.0
            wet_fraction, rate, below_step, crust_step = 1.0, 0.0, 0.0, 0.0
            end_before, net, fresh, was_out = 0.0, 0.0, True, False
            done = False
            for n in range(steps + 1):
                t = n * dt
                if laid < n_coats and t >= coats[laid, 1]:
                    # A coat: water, solids and their heat join the film; a part of the water soaks
                    # into the crust.
                    capacity = water * 4186.0 + (dry + fat) * c.film_cp_dry_j_kg_k + 300.0
                    fresh = mass * (
                        sauce[0] * 4186.0 + (sauce[1] + sauce[3]) * c.film_cp_dry_j_kg_k
                    )
                    film = (film * capacity + c.film_start_c * fresh) / (capacity + fresh)
                    soaked = 0.0
                    if crust > 0.0:
                        soaked = min(_SOAK * mass * sauce[0], crust * ground.water_kg_m3)
                        crust -= soaked / ground.water_kg_m3
                    water += mass * sauce[0] - soaked
                    dry += mass * sauce[1]
                    bound += mass * sauce[2]
                    fat += mass * sauce[3]
                    laid += 1
                    fresh = True
                    top_before = max(0.0, max(layers[0], under) - shows)
                    for j in range(2):  # the colour is that of the fresh coat now
                        if top_before < marks[j]:
                            times[m, s, 2 + j] = np.inf
                top = max(0, laid - 1)
                if n % every == 0:
                    k = n // every
                    traces[m, s, k, 0] = (
                        max(layers[top], max(layers[0], under) - shows) if laid > 0 else under
                    )
                    traces[m, s, k, 1] = film
                    traces[m, s, k, 2] = wet_fraction
                    traces[m, s, k, 3] = crust
                if n == steps:
                    break
                if done and n_coats == laid and n % every == 0:
                    # Burnt: nothing after this is asked of the site; the traces hold the last
                    # state.
                    for k in range(n // every + 1, samples):
                        for j in range(4):
                            traces[m, s, k, j] = traces[m, s, n // every, j]
                    break
                out = False
                for i in range(n_coats):
                    if coats[i, 0] <= t < coats[i, 1]:
                        out = True
                if out != was_out or (t >= change[0] and t - dt < change[0]):
                    # the surroundings jump: the heat of the last step says nothing of this one
                    fresh = True
                was_out = out
                if out:
                    h, air, w4, element, gain, vent = ROOM_H, ROOM_C, room4, 0.0, 1.0, 1.0
                else:
                    h, air, w4, element = share * heat[0], heat[1], wall4, share * heat[3]
                    gain, vent = factors[m, 0], heat[4]
                    if t >= change[0]:
                        part = share if sites[s, 3] != 0.0 else share * change[5]
                        h, air, element, vent = (
                            part * change[1],
                            change[2],
                            part * change[4],
                            change[6],
                        )
                        w4 = (change[3] + KELVIN) ** 4
                    side = sites[s, 3]
                    for i in range(flips.size):
                        if t >= flips[i]:
                            side = -side
                    if (
                        side < 0.0
                    ):  # turned away: what air passes below, and no radiation to speak of
                        h, w4, element = c.away_share * h, (film + KELVIN) ** 4, 0.0
                # Water, crust and the layer below are taken at the middle of the step, as the last
                # step's rates foretell it: so the step is second order where it matters, and stays
                # implicit in the film itself.
                crust_mid = max(0.0, crust + 0.5 * crust_step)
                below_mid = min(below + 0.5 * below_step, boil_c)
                contact = (
                    interface
                    if laid > 0
                    else interface * c.interface_bare_w_m2_k / c.interface_face_w_m2_k
                )
                u = 1.0 / (1.0 / contact + crust_mid / c.crust_k_w_m_k)
                activity = activity_of(max(0.5 * water, water - 0.5 * rate * dt), bound)
                wet_before = wet_fraction
                capacity = water * 4186.0 + (dry + fat) * c.film_cp_dry_j_kg_k + 300.0
                film_before = film
                theta = 1.0 if fresh else _THETA
                fresh = False
                film, end_rate, net = film_temp_c(
                    film,
                    film,
                    capacity,
                    dt,
                    gain,
                    h,
                    air,
                    w4,
                    element,
                    u,
                    below_mid,
                    activity,
                    vent * h / AIR_J_M3_K,
                    pressure,
                    0.9 * water / dt,
                    c.emissivity,
                    theta,
                    net,
                )
                rate = theta * end_rate + (1.0 - theta) * end_before
                rate = min(rate, 0.9 * water / dt)
                end_before = end_rate
                water -= rate * dt
                wet_fraction = water / (water + dry + fat) if water > 0.0 else 0.0
                # The shallow layer: heated through interface and crust, cooled to the depth of the
                # thermal front, and held at boiling by its own water, which leaves a dried crust
                # behind.
                depth = np.sqrt(np.pi * ground.alpha_m2_s * (t + 60.0))
                loss = ground.k_w_m_k / depth
                supply = ground.supply_share * c.juice_supply_kg_m2_s * np.exp(-t / c.juice_fade_s)
                boiled = 0.0
                if (bare or laid == 0) and wet_fraction < 0.3:
                    # Nothing covers the food: its own water leaves through the dried layer by
                    # diffusion.
                    partial = min(psat_grid_pa(below), 0.97 * pressure)
                    drive = np.log((pressure - AIR_VAPOUR_PA) / (pressure - partial))
                    resist = AIR_J_M3_K / (vent * h) + crust / c.crust_vapour_m2_s
                    boiled = max(
                        0.0, pressure / (VAPOUR_J_KG_K * (below + KELVIN)) * drive / resist
                    )
                latent = latent_heat_j_kg(below)
                below_before, crust_before = below, crust
                below = (layer_j * below + dt * (u * film + loss * deep_c[m] - latent * boiled)) / (
                    layer_j + dt * (u + loss)
                )
                if below > boil_c:
                    # Held at boiling: what comes in over what goes deeper, and over the warming up
                    # to here, is steam.
                    held = (
                        u * (film - boil_c)
                        - loss * (boil_c - deep_c[m])
                        - layer_j * (boil_c - below_before) / dt
                    )
                    boiled = max(boiled, held / latent)
                    below = boil_c
                if boiled > supply:
                    crust += (boiled - supply) * dt / ground.water_kg_m3
                below_step, crust_step = below - below_before, crust - crust_before
                # Browning: the mean of both ends of the step in the Arrhenius factor keeps it
                # second order.
                mean_k = 0.5 * (film + film_before) + KELVIN
                heat_up = (
                    np.exp(-c.brown_ea_j_mol / GAS_J_MOL_K * (1.0 / mean_k - 1.0 / _REF_K))
                    * factors[m, 3]
                )
                pace = (
                    heat_up
                    * wetness_factor(0.5 * (wet_before + wet_fraction), c.brown_wet_fraction)
                    * dt
                )
                for i in range(laid):
                    layers[i] += (sugar_rate + protein_rate) * pace
                if browns:
                    under += (bare_rate if laid == 0 else c.protein_under_film * bare_rate) * pace
                after = t + dt
                if times[m, s, 0] == np.inf and wet_fraction < c.set_water_fraction and laid > 0:
                    times[m, s, 0] = after
                if times[m, s, 1] == np.inf and film > boil_c and times[m, s, 0] < np.inf:
                    rise = film - film_before
                    late = (film - boil_c) / rise * dt if rise > film - boil_c > 0.0 else 0.0
                    times[m, s, 1] = max(after - late, times[m, s, 0])
                if times[m, s, 6] == np.inf and crust > 0.0003:
                    times[m, s, 6] = after
                # Bitter and burnt are judged on the worst layer, which is the first. The colour is
                # that of the top one, until a layer below is dark enough to show through: so
                # mahogany never comes after bitter.
                worst = max(layers[0], under)
                seen = max(layers[top], worst - shows) if laid > 0 else under
                for j in range(4):
                    now, before = (seen, top_before) if j < 2 else (worst, worst_before)
                    if times[m, s, 2 + j] == np.inf and now >= marks[j]:
                        part = (marks[j] - before) / (now - before) if now > before else 1.0
                        times[m, s, 2 + j] = t + dt * min(1.0, max(0.0, part))
                top_before, worst_before = seen, worst
                done = worst > 1.6 * c.burnt_index
    return times, traces
