"""The film under heat, integrated for all members of an ensemble and all sites at once
(compiled).
"""

from __future__ import annotations

from typing import Any

import numpy as np
from numba import njit

from bluekettle.core.glaze.activity import activity_of
from bluekettle.core.glaze.laws import (
    AIR_J_M3_K,
    AIR_VAPOUR_PA,
    left_to_brown,
    note_colours,
    note_setting,
    own_steam,
    pace_at,
    seen_and_worst,
    wetness_factor,
)
from bluekettle.core.glaze.records import (
    AT,
    AWAY,
    BOUND,
    BROWN,
    BROWNED,
    BROWNING,
    CHAR,
    CHARRED,
    CLEAR,
    COAT,
    COAT_SHARE,
    CONTACT,
    CRUST,
    DAMP,
    FAT,
    FILM_C,
    HEAT,
    INTERFACE,
    JUICY,
    MASS,
    MOST,
    RATE,
    SHARE,
    SIDE,
    SOLID,
    SPENT,
    TURN,
    WATER,
    Around,
    Change,
    FilmConstants,
    Fronts,
    Grid,
    Ground,
    HeatSource,
    Layer,
    Lying,
    Skin,
)
from bluekettle.core.thermo.steam import VAPOUR_J_KG_K, latent_heat_j_kg, psat_grid_pa
from bluekettle.core.units import KELVIN

SIGMA = 5.670374e-8  # Stefan-Boltzmann, CODATA 2018

_THETA = (
    0.52  # weight of the end of a step: nearly the trapezoidal rule, and still damped near boiling
)
_SOAK = 0.3  # share of a late coat's water that goes into the crust below (typical, estimated)
ROOM_C, ROOM_H = 21.0, 9.0  # while food is out of the heat (typical, estimated)
WATER_J_KG_K = 4186.0  # of water, J/(kg K)
FRONT_HEAD_S = 60.0  # the thermal front has begun before the finish (typical, estimated)
SOIL_J_M2_K = (
    300.0  # heat capacity of a dry film's residue, so that no film is without one (numerical)
)
DRY_ENOUGH = 0.3  # water fraction below which bare food shows its own surface (typical, estimated)
OVERDONE = 1.6  # times the burnt index, from which nothing more is asked of a site (numerical)


@njit(cache=True, error_model="numpy")
def film_temp_c(
    start_c: float,
    capacity: float,
    dt: float,
    around: Around,
    u: float,
    below_c: float,
    activity: float,
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
    temp = start_c
    h_mass = around.vent * around.h_w_m2_k / AIR_J_M3_K
    rate, net = 0.0, 0.0
    for _ in range(12):
        kelvin = temp + KELVIN
        partial = activity * psat_grid_pa(temp)
        # Saturation slope by Clausius and Clapeyron.
        latent = latent_heat_j_kg(min(temp, 200.0))
        slope = partial * latent / (VAPOUR_J_KG_K * kelvin * kelvin)
        if partial < 0.98 * pressure:  # near boiling the log is followed by its tangent (numerical)
            unit = h_mass * pressure / (VAPOUR_J_KG_K * kelvin)
            rate = unit * np.log((pressure - AIR_VAPOUR_PA) / (pressure - partial))
            rate_slope = unit / (pressure - partial) * slope
        else:
            # Beyond 98 % of boiling the logarithm is carried on by its tangent: the film simply
            # boils.
            unit = h_mass * pressure / (VAPOUR_J_KG_K * kelvin)
            rate = unit * (
                np.log((pressure - AIR_VAPOUR_PA) / (0.02 * pressure))  # (numerical)
                + (partial - 0.98 * pressure) / (0.02 * pressure)  # (numerical)
            )
            rate_slope = unit / (0.02 * pressure) * slope  # (numerical)
        if rate < 0.0:  # the film takes up no water from the air
            rate = 0.0
            rate_slope = 0.0
        if rate > water_rate:
            rate = water_rate
            rate_slope = 0.0
        heat = around.gain * (
            around.h_w_m2_k * (around.air_c - temp)
            + emissivity * SIGMA * (around.wall_k4 - kelvin**4)
            + around.element_w_m2
        )
        heat_slope = -around.gain * (around.h_w_m2_k + 4.0 * emissivity * SIGMA * kelvin**3)
        net = heat - u * (temp - below_c) - latent * rate
        g = theta * net + (1.0 - theta) * net_before - capacity * (temp - start_c) / dt
        g_slope = theta * (heat_slope - u - latent * rate_slope) - capacity / dt
        move = -g / g_slope
        if move > 15.0:  # a step of Newton is never longer, K (numerical)
            move = 15.0  # (numerical)
        elif move < -15.0:  # (numerical)
            move = -15.0  # (numerical)
        temp += move
        if abs(move) < 0.02:  # close enough, K (numerical)
            break
    return temp, rate, net


@njit(cache=True, error_model="numpy")
def surroundings_at(
    clock_s: float,
    out: bool,
    turned: bool,
    film_c: float,
    site: Any,
    fire: HeatSource,
    change: Change,
    gain: float,
) -> Any:
    """What surrounds a site now: the kitchen's air while it is out, else its appliance."""
    if out:
        return Around(ROOM_H, ROOM_C, (ROOM_C + KELVIN) ** 4, 0.0, 1.0, 1.0)
    now, part = fire, site[SHARE]
    if clock_s >= change.from_s:
        now = change.fire
        if site[SIDE] == 0.0:
            part *= change.edge_share
    h, wall_k4, element = part * now.h_w_m2_k, (now.wall_c + KELVIN) ** 4, part * now.element_w_m2
    side = -site[SIDE] if turned else site[SIDE]
    if side < 0.0:
        # Turned away: what air passes below, and no radiation to speak of.
        h, wall_k4, element = now.away * h, (film_c + KELVIN) ** 4, 0.0
    elif turned and site[SIDE] == 0.0:
        # The rim that lay nearest to the fire is now away from it; air still passes.
        wall_k4, element = (film_c + KELVIN) ** 4, 0.0
    return Around(h, now.air_c, wall_k4, element, gain, now.vent)


@njit(cache=True, error_model="numpy")
def film_capacity(water: float, solid: float, cp_dry: float) -> float:
    """Heat capacity of a film [J/m²K]."""
    return water * WATER_J_KG_K + solid * cp_dry + SOIL_J_M2_K


@njit(cache=True, error_model="numpy")
def coat_on(
    film_c: float,
    water: float,
    dry: float,
    bound: float,
    fat: float,
    crust_m: float,
    mass: float,
    layer: Layer,
    ground: Ground,
    c: FilmConstants,
) -> Any:
    """A coat of `mass` [kg/m²] joins the film: its water, solids and heat; a part of the water
    soaks into the crust. Returns film [°C], water, dry, bound and fat [kg/m²], crust [m].
    """
    capacity = film_capacity(water, dry + fat, c.film_cp_dry_j_kg_k)
    brought = mass * (layer.water * WATER_J_KG_K + (layer.dry + layer.fat) * c.film_cp_dry_j_kg_k)
    film_c = (film_c * capacity + c.film_start_c * brought) / (capacity + brought)
    soaked = 0.0
    if crust_m > 0.0:
        soaked = min(_SOAK * mass * layer.water, crust_m * ground.water_kg_m3)
        crust_m -= soaked / ground.water_kg_m3
    water += mass * layer.water - soaked
    dry += mass * layer.dry
    bound += mass * layer.bound
    fat += mass * layer.fat
    return film_c, water, dry, bound, fat, crust_m


@njit(cache=True, error_model="numpy")
def shallow_step(
    film_c: float,
    below_c: float,
    crust_m: float,
    damp_m: float,
    u: float,
    deep_c: float,
    depth_m: float,
    faded: float,
    dt: float,
    open_: bool,
    around: Around,
    grid: Grid,
    ground: Ground,
    c: FilmConstants,
    juicy: float,
) -> Any:
    """The shallow layer after a step: its temperature [°C], the crust and the damp below it [m].

    `juicy` [-] is how far juice follows from within: thin strands have next to none; of it `faded`
    [-] is left by now, and the thermal front is `depth_m` [m] below. The layer is
    heated through interface and crust (`u` [W/m²K]), cooled to the depth of the thermal
    front, and held at boiling by its own water, which leaves a dried crust behind; `open_` where no
    wet film covers it.
    """
    layer_j = c.wet_layer_m * ground.capacity_j_m3_k
    loss = ground.k_w_m_k / depth_m
    juicy *= ground.supply_share
    supply = juicy * c.juice_supply_kg_m2_s * faded
    # All juice that flows in flows because the surface dries, and the piece empties.
    kept = juicy * (c.juice_share * faded)
    boiled = 0.0
    if open_:
        boiled = own_steam(
            below_c, crust_m, around.vent * around.h_w_m2_k, c.crust_vapour_m2_s, grid.pressure_pa
        )
    latent = latent_heat_j_kg(below_c)
    before_c = below_c
    drawn = u * film_c + loss * deep_c - latent * boiled
    below_c = (layer_j * below_c + dt * drawn) / (layer_j + dt * (u + loss))
    if below_c > grid.boil_c:
        # What comes in over what goes deeper, and over the warming up to here, is steam.
        warming = layer_j * (grid.boil_c - before_c) / dt
        held = u * (film_c - grid.boil_c) - loss * (grid.boil_c - deep_c) - warming
        boiled = max(boiled, held / latent)
        below_c = grid.boil_c
    dries = ((1.0 - kept) * boiled - supply) * dt
    if dries > 0.0:
        # First what slow heat has half dried, and then the moist food.
        deeper = min(damp_m, dries / (c.bound_share * ground.water_kg_m3))
        damp_m -= deeper
        dries -= deeper * c.bound_share * ground.water_kg_m3
        crust_m += deeper + dries / ground.water_kg_m3
    return below_c, crust_m, damp_m


@njit(cache=True, error_model="numpy")
def hand_on(
    lies: Any, dried: Any, coats: Any, wet: Any, layers: Any, laid: int, crust: float, damp: float
) -> None:
    """Write what a site takes away: film [°C] and [kg/m²], its coats, crust and damp [m]."""
    lies[FILM_C], lies[WATER], lies[SOLID], lies[BOUND], lies[FAT] = wet
    coats[:] = layers
    dried[CRUST], dried[DAMP] = crust, damp
    if laid == 0:
        dried[BROWN], dried[CHAR] = layers[0, BROWNED], layers[0, CHARRED]


@njit(cache=True, error_model="numpy")
def spent_after(spent: float, seconds: float, c: FilmConstants) -> float:
    """Share of its juice that is gone [-] after so many seconds more: it does not come again."""
    return float(1.0 - (1.0 - spent) * np.exp(-seconds / c.juice_fade_s))


@njit(cache=True, error_model="numpy")
def run_site(
    times: Any,
    traces: Any,
    factors: Any,
    deep_c: float,
    start_c: float,
    dried: Any,
    lies: Any,
    coats: Any,
    laid: int,
    leaves: int,
    goes_on: bool,
    site: Any,
    fire: HeatSource,
    layer: Layer,
    skin: Skin,
    acts: Any,
    change: Change,
    grid: Grid,
    c: FilmConstants,
    ground: Ground,
    fronts: Fronts,
) -> None:
    """Run one site of one member; fills its milestone times (7,) and traces (samples, 4).

    dried (5,), lies (5,) and coats (coats + 1, 5) are the columns of `Lying`, written as it leaves;
    what is asked of a site that `goes_on` past that is as if it stayed. The clock stands still
    while the food is out: steps under the heat are counted apart from all steps.
    """
    dt = grid.dt_s
    layers = coats.copy()
    spent, gone = dried[SPENT], False
    shows = c.bitter_index - c.mahogany_index  # a bitter layer under a fresh coat looks mahogany
    marks = (c.amber_index, c.mahogany_index, c.bitter_index, c.burnt_index)
    interface = site[INTERFACE] * factors[CONTACT]
    mass = layer.coat_kg_m2 * site[COAT_SHARE] * factors[MASS]
    clear = np.exp(-layer.hiding * mass / c.hide_kg_m2)
    film, water, dry = lies[FILM_C], lies[WATER], lies[SOLID]
    bound, fat = lies[BOUND], lies[FAT]
    below, crust, damp = start_c, dried[CRUST], dried[DAMP]
    done_acts = 0
    late_coat = False
    if laid == 0:
        film, water, dry, bound, fat = c.film_start_c, 0.0, 0.0, 0.0, 0.0
        layers[:] = 0.0
        # The food itself, where it lies bare before its first coat; of a bare dish, its lone film.
        own = 1 if skin.bare else 0
        layers[own, BROWNED], layers[own, CHARRED] = dried[BROWN], dried[CHAR]
        late_coat = acts[0, AT] > 0.0 or acts[0, AWAY] > 0.0 or acts[0, COAT] == 0.0
    browns = late_coat or layers[0, BROWNED] > 0.0
    if late_coat:
        juice_dry = skin.juice_kg_m2 * (1.0 - skin.juice_water)
        water, dry, bound = (
            skin.juice_kg_m2 * skin.juice_water,
            juice_dry,
            juice_dry * skin.juice_bound,
        )
    worst_before, top_before = 0.0, 0.0
    wet_fraction, rate, below_step, crust_step = 1.0, 0.0, 0.0, 0.0
    end_before, net, fresh = 0.0, 0.0, True
    turned, burnt, out, out_left, changed = False, False, False, 0, False
    n, total = 0, 0  # steps under the heat, and all steps
    while True:
        t = n * dt
        # An act begins: the food comes out for its time, and is back with a coat on it or turned.
        if done_acts < len(acts) and not out and t >= acts[done_acts, AT]:
            out_left = int(np.ceil(acts[done_acts, AWAY] / dt - 1e-9))
            out = True
            fresh = fresh or out_left > 0
        if out and out_left == 0:
            out = False
            if acts[done_acts, AWAY] > 0.0:
                fresh = True  # the surroundings jump: the last step's heat says nothing of this one
            if acts[done_acts, TURN] > 0.0:
                turned = not turned
            if acts[done_acts, COAT] > 0.0:
                film, water, dry, bound, fat, crust = coat_on(
                    film, water, dry, bound, fat, crust, mass, layer, ground, c
                )
                laid += 1
                layers[laid, RATE], layers[laid, MOST] = layer.rate_1_s, layer.most
                layers[laid, CLEAR] = clear
                fresh = True
                top_before, _ = seen_and_worst(layers, laid, shows)
                times[0] = np.inf  # this coat has to set
                for j in range(2):  # the colour is that of the fresh coat now, and of what it shows
                    if top_before < marks[j]:
                        times[2 + j] = np.inf
            done_acts += 1
            continue
        if not out and n % grid.every == 0:
            k = n // grid.every
            traces[k, 0], _ = seen_and_worst(layers, laid, shows)
            traces[k, 1] = film
            traces[k, 2] = wet_fraction
            traces[k, 3] = crust
            if burnt and done_acts == len(acts) and (gone or leaves >= grid.steps):
                # Nothing after this is asked of the site; the traces hold the last state.
                for after_k in range(k + 1, len(traces)):
                    for j in range(4):
                        traces[after_k, j] = traces[k, j]
                break
        if n >= leaves and not gone:
            gone = True
            wet = (film, water, dry, bound, fat)
            hand_on(lies, dried, coats, wet, layers, laid, crust, damp)
            dried[SPENT] = spent_after(spent, total * dt, c)
        if n == grid.steps or (gone and not goes_on):
            break
        if not out and not changed and t >= change.from_s:
            changed = True
            fresh = True
        around = surroundings_at(t, out, turned, film, site, fire, change, factors[HEAT])
        # Water, crust and the layer below are taken at the middle of the step, as the last step's
        # rates foretell it: so the step is second order where it matters, and implicit in the film.
        crust_mid = max(0.0, crust + 0.5 * crust_step)
        below_mid = min(below + 0.5 * below_step, grid.boil_c)
        contact = interface
        if laid == 0:
            contact = interface * c.interface_bare_w_m2_k / c.interface_face_w_m2_k
        u = 1.0 / (1.0 / contact + crust_mid / c.crust_k_w_m_k)
        activity = activity_of(max(0.5 * water, water - 0.5 * rate * dt), bound)
        wet_before, film_before = wet_fraction, film
        capacity = film_capacity(water, dry + fat, c.film_cp_dry_j_kg_k)
        theta = 1.0 if fresh else _THETA
        fresh = False
        most = 0.9 * water / dt  # a step never takes the last of the water (numerical)
        film, end_rate, net = film_temp_c(
            film,
            capacity,
            dt,
            around,
            u,
            below_mid,
            activity,
            grid.pressure_pa,
            most,
            c.emissivity,
            theta,
            net,
        )
        rate = min(theta * end_rate + (1.0 - theta) * end_before, most)
        end_before = end_rate
        water -= rate * dt
        wet_fraction = water / (water + dry + fat) if water > 0.0 else 0.0
        below_before, crust_before = below, crust
        below, crust, damp = shallow_step(
            film,
            below,
            crust,
            damp,
            u,
            deep_c,
            fronts.depth_m[total],
            fronts.faded[total],
            dt,
            (skin.bare or laid == 0) and wet_fraction < DRY_ENOUGH,
            around,
            grid,
            ground,
            c,
            site[JUICY] * (1.0 - spent),
        )
        below_step, crust_step = below - below_before, crust - crust_before
        # Browning: the mean of both ends of the step in the Arrhenius factor keeps it second order.
        mean_c = 0.5 * (film + film_before)
        wetness = wetness_factor(0.5 * (wet_before + wet_fraction), c.brown_wet_fraction)
        dry_s = factors[BROWNING] * wetness * dt
        pace = pace_at(mean_c, c.brown_ea_j_mol, c.brown_reference_c) * dry_s
        char = c.char_rate_1_s * pace_at(mean_c, c.char_ea_j_mol, c.char_reference_c) * dry_s
        for i in range(1, laid + 1):
            left = left_to_brown(layers[i, BROWNED], layers[i, MOST])
            layers[i, BROWNED] += layers[i, RATE] * left * pace
            layers[i, CHARRED] += char
        if browns:
            rate_1_s = skin.rate_1_s if laid == 0 else c.protein_under_film * skin.rate_1_s
            left = left_to_brown(layers[0, BROWNED], c.brown_protein_most)
            layers[0, BROWNED] += rate_1_s * left * pace
            layers[0, CHARRED] += char
        total += 1
        step = 0.0 if out else dt
        if out:
            out_left -= 1
        else:
            n += 1
        if laid > 0:
            note_setting(
                times,
                t,
                step,
                film_before,
                film,
                wet_before,
                wet_fraction,
                grid.boil_c,
                c.set_water_fraction,
            )
        if times[6] == np.inf and crust > c.crackles_m:
            thicker, over = crust - crust_before, c.crackles_m - crust_before
            times[6] = t + (step * over / thicker if thicker > over > 0.0 else step)
        # Bitter and burnt are judged on the worst layer; the colour is that of the top one and of
        # what shows through it.
        seen, worst = seen_and_worst(layers, laid, shows)
        note_colours(times, t, step, seen, top_before, worst, worst_before, marks)
        top_before, worst_before = seen, worst
        burnt = worst > OVERDONE * c.burnt_index
    if not gone:
        wet = (film, water, dry, bound, fat)
        hand_on(lies, dried, coats, wet, layers, laid, crust, damp)
        dried[SPENT] = spent_after(spent, total * dt, c)


@njit(cache=True, error_model="numpy")
def fronts_of(acts: Any, grid: Grid, c: FilmConstants, ground: Ground) -> Fronts:
    """How the front and the juice stand at every step, those out of the heat among them."""
    steps = grid.steps + 1
    for i in range(len(acts)):
        steps += int(np.ceil(acts[i, AWAY] / grid.dt_s))
    seconds = np.arange(steps) * grid.dt_s
    return Fronts(
        np.sqrt(np.pi * ground.alpha_m2_s * (seconds + FRONT_HEAD_S)),
        np.exp(-seconds / c.juice_fade_s),
    )


@njit(cache=True, nogil=True, error_model="numpy")
def integrate(
    factors: Any,
    deep_c: Any,
    start_c: float,
    lying: Lying,
    sites: Any,
    fire: HeatSource,
    layer: Layer,
    skin: Skin,
    acts: Any,
    change: Change,
    grid: Grid,
    c: FilmConstants,
    ground: Ground,
    looked: int,
) -> Any:
    """Run every member and site; returns (milestone times, traces).

    Parameters
    ----------
    factors : (members, 4)
        Heat, coat, interface, browning.
    deep_c : (members,)
        Food below the shallow layer [°C]. start_c : the layer itself at the start [°C].
    lying : Lying
        What the food brings along on its surface; holds afterwards what it takes away.
    sites : (sites, 5)
        Heat share, coat share, interface [W/m²K], side (1 faces the heat at first, -1 is turned
        away, 0 stands on edge), and how far juice follows from within.
    acts : (n, 4)
        In order: second under the heat, seconds out of it, whether a coat goes on, whether the
        piece is turned. Where the first coat is not at 0, the food lies bare until then: its juice
        is on it, and it browns by its protein.

    looked : int
        So many sites are looked at past the moment that the food leaves, as if it stayed.

    Returns
    -------
    times : (members, sites, 7)
        Seconds under the heat, inf where not reached: set, bubbling, amber, mahogany, bitter,
        burnt, crisp.
    traces : (members, sites, samples, 4)
        Index of the colour seen, film temperature [°C], water fraction, crust [m].
    """
    members, n_sites = factors.shape[0], sites.shape[0]
    samples = grid.steps // grid.every + 1
    times = np.full((members, n_sites, 7), np.inf)
    traces = np.zeros((members, n_sites, samples, 4), dtype=np.float32)
    fronts = fronts_of(acts, grid, c, ground)
    for m in range(members):
        for s in range(n_sites):
            run_site(
                times[m, s],
                traces[m, s],
                factors[m],
                deep_c[m],
                start_c,
                lying.surface[m, s],
                lying.film[m, s],
                lying.coats[m, s],
                lying.laid,
                lying.leaves[m],
                s < looked,
                sites[s],
                fire,
                layer,
                skin,
                acts,
                change,
                grid,
                c,
                ground,
                fronts,
            )
    return times, traces
