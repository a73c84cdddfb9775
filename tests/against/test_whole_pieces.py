"""The body of one dimension against whole pieces: three-dimensional finite differences for bricks,
two-dimensional ones for short cylinders, with the come-up of their vessel; and textbook series.
"""

from dataclasses import replace

import numpy as np
import pytest
from tests.one_cook import Dish, forecast

from bluekettle.core.chain.fire import inside_after
from bluekettle.core.chain.food import peak_from_now, raw_food, stood
from bluekettle.core.chain.passage import Kitchen as Around
from bluekettle.core.chain.passage import Step
from bluekettle.core.glaze import Draws, draw_members
from bluekettle.core.heat import Surroundings, heat_in, surroundings
from bluekettle.core.heat.body import series
from bluekettle.core.lethality import kill_for
from bluekettle.core.stages import Kitchen, cut, cut_keys
from bluekettle.core.stages.waiting import COVERED, H_IN_FIRE
from bluekettle.core.tables import value

N = 14  # cells along each half direction
NEAR_K = 0.4  # so near to the vessel the middle tells no more


class Whole:
    """An eighth of a brick, or a quarter of a cylinder's section, of one food."""

    def __init__(self, halves, round_, food):
        self.axes = []
        self.food = food
        for axis, half in enumerate(halves):
            edge = half * np.linspace(0.0, 1.0, N + 1) ** 0.85
            middle = 0.5 * (edge[1:] + edge[:-1])
            power = 1 if round_ and axis == 0 else 0
            shape = [1] * len(halves)
            shape[axis] = -1
            inner = edge[1:-1] ** power / np.diff(middle)
            volume = np.diff(edge ** (power + 1)) / (power + 1)
            rim = edge[-1] ** power, edge[-1] - middle[-1]
            self.axes.append((inner.reshape(shape), rim, volume.reshape(shape)))
        self.thinnest = min(np.min(np.diff(h * np.linspace(0, 1, N + 1) ** 0.85)) for h in halves)

    def rate(self, temp, around_c, h):
        """Heat flowing into each cell [W/m³] by Fourier's law."""
        k = np.interp(temp, self.food.temp_c, self.food.k_w_m_k)
        found = np.zeros_like(temp)
        for axis, (inner, (rim, gap), volume) in enumerate(self.axes):
            t, c = np.moveaxis(temp, axis, 0), np.moveaxis(k, axis, 0)
            geometry = np.moveaxis(inner, axis, 0)
            flow = geometry * 0.5 * (c[1:] + c[:-1]) * np.diff(t, axis=0)
            part = np.zeros_like(t)
            part[:-1] += flow
            part[1:] -= flow
            part[-1] += rim / (1.0 / h + gap / c[-1]) * (around_c - t[-1])
            found += np.moveaxis(part, 0, axis) / volume
        return found

    def middle(self, start_c, times_s, around_c, h_of):
        """Temperature of the middle [°C] at each time, by explicit steps from a uniform start."""
        heat = self.food.enthalpy_j_m3
        stable = 0.8 * self.thinnest**2 * 3.3e6 / (2.0 * len(self.axes) * 0.6)
        temp = np.full([N] * len(self.axes), float(start_c))
        clock, found = 0.0, []
        for until in times_s:
            steps = max(1, int(np.ceil((until - clock) / stable)))
            dt = (until - clock) / steps
            for _ in range(steps if dt > 0 else 0):
                now = clock + 0.5 * dt
                stored = np.interp(temp, self.food.temp_c, heat)
                stored += dt * self.rate(temp, around_c(now), h_of(now))
                temp = np.interp(stored, heat, self.food.temp_c)
                clock += dt
            found.append(float(temp.ravel()[0]))
        return np.array(found)


def halves_of(dish):
    """Half-lengths [m] of one piece, from mass, thickness and shape."""
    found = cut(dish.cut)
    half = dish.thickness_mm / 2000.0
    volume = dish.mass_kg / found.food.density_kg_m3 / dish.pieces
    if found.shape == "cylinder":
        return (half, volume / np.pi / half**2 / 2.0)
    side = np.sqrt(volume / (2.0 * half)) / 2.0
    return (half, side, side)


def usual(key, heat, **more):
    """A cut as it is usually bought, in one heat."""
    found = cut(key)
    bite = next(b for b in ("tug", "falls", "shreds", "sliceable") if b in found.targets)
    release = {"pressure": "quick"}.get(heat)
    return Dish(
        key,
        found.mass_kg,
        found.pieces,
        found.thickness_mm,
        tenderise=heat,
        release=release,
        bite=bite,
        sauce=None,
        coats=0,
        **more,
    )


def both_middles(dish, exchange):
    """Times [s] while the middle still heats, the core's middle and that of the whole piece [°C].

    `exchange` : h while the vessel comes up and while it holds [W/m²K]. The vessel's own curve is
    taken from the core, so that only the food is compared.
    """
    f = forecast(dish)
    found, trace = cut(dish.cut), f.trace
    time, vessel, middle = trace["time_s"], trace["vessel_c"], trace["centre_c"]
    released = np.flatnonzero(np.diff(vessel) < -0.5)
    end = released[0] if released.size else len(time) - 1
    near = np.flatnonzero(vessel[: end + 1] - middle[: end + 1] < NEAR_K)
    end = min(end, near[0]) if near.size else end
    places = np.unique(np.linspace(0, end, 60).astype(int))
    packing = 1.0 if dish.tenderise == "bath" else found.packing  # bags lie in one layer
    whole = Whole(
        [packing * half for half in halves_of(dish)], found.shape == "cylinder", found.food
    )
    come_up = f.come_up.likely_s
    seen = whole.middle(
        middle[0],
        time[places],
        lambda t: np.interp(t, time, vessel),
        lambda t: exchange[0] if t < come_up else exchange[1],
    )
    return time[places], vessel[places], middle[places], seen


WARM = [key for key in cut_keys() if cut(key).species != "vegetable"]


@pytest.mark.parametrize("key", cut_keys())
def test_the_middle_of_every_cut_under_pressure_is_that_of_the_whole_piece(key):
    h = value("h_simmer_w_m2_k"), value("h_steam_w_m2_k")
    _time, vessel, core, whole = both_middles(usual(key, "pressure", timer_min=120.0), h)
    first = vessel.max() - core[0]
    half_way = whole > vessel.max() - 0.5 * first
    assert np.max(np.abs(core - whole)[half_way]) < 0.0125 * first, np.round(core - whole, 2)
    assert np.max(np.abs(core - whole)) < 0.06 * first


@pytest.mark.parametrize("key", WARM)
def test_the_kill_of_every_cut_in_a_bath_is_that_of_the_whole_piece(key):
    h = 2 * (surroundings("bath").h_w_m2_k,)
    dish = usual(key, "bath", kitchen=Kitchen(bath_c=64.0))
    time, vessel, core, whole = both_middles(dish, h)
    half_way = whole > 0.5 * (vessel.max() + core[0])
    assert np.max(np.abs(core - whole)[half_way]) < 1.0, np.round(core - whole, 2)
    kill = kill_for(cut(key).species)

    def logs(middle):
        rate = np.where(middle >= 54.4, 10 ** ((middle - 60.0) / kill.z_c) / kill.d60_min, 0.0)
        steps = 0.5 * (rate[1:] + rate[:-1]) * np.diff(time) / 60.0
        return np.concatenate([[0.0], np.cumsum(steps)])

    for wanted in (3.0, 7.0):
        at = np.interp(wanted, logs(whole), time)
        assert np.interp(at, time, logs(core)) == pytest.approx(wanted, abs=0.3)


def test_two_pieces_frozen_together_heat_like_one_of_twice_the_thickness():
    """Out of the freezer into steam: the middle of the block against a whole brick."""
    dish = replace(usual("beef-short-ribs", "pressure"), state="frozen", thickness_mm=30.0)
    food, h = cut(dish.cut).food, value("h_steam_w_m2_k")
    body = dish.piece.body(h, "block")
    half, side, _ = halves_of(dish)
    whole = Whole([2.0 * half, side, side], round_=False, food=food)
    times = np.linspace(0.0, 5400.0, 60)
    seen = whole.middle(-18.0, times, lambda t: 98.0, lambda t: h)
    steam = Surroundings(h, 98.0, 98.0, 0.0, 0.0, True)
    run = heat_in(steam, food, body.power, body.half_m, -18.0, 5400.0, dt_s=5.0, cells=24)
    core = np.interp(times, run.time_s, run.centre_c)
    warm = (seen > 20.0) & (seen < 92.0)  # past the ice
    assert warm.sum() > 5
    assert np.max(np.abs(core - seen)[warm]) < 3.5
    assert np.interp(60.0, seen, times) == pytest.approx(np.interp(60.0, core, times), rel=0.06)


def test_series_have_the_first_terms_of_the_textbook():
    """Incropera, table 5.1: first eigenvalue and coefficient at Biot 1 and 100."""
    table = {
        (0.0, 1.0): (0.8603, 1.1191),
        (1.0, 1.0): (1.2558, 1.2071),
        (2.0, 1.0): (1.5708, 1.2732),
        (0.0, 100.0): (1.5552, 1.2731),
        (1.0, 100.0): (2.3809, 1.6015),
        (2.0, 100.0): (3.1102, 1.9990),
    }
    for (power, biot), (zeta, first) in table.items():
        z, amplitude = series(power, biot)
        assert z[0] == pytest.approx(zeta, abs=1e-4)
        assert amplitude[0] == pytest.approx(first, abs=2e-4)


def one_face(temp, dx, k, rho_cp, seconds, rest_s, boil_c):
    """Hottest middle [°C] of a whole slab, one face under a heat, then at rest; explicit steps."""
    middle, peak, dt = len(temp) // 2, float(temp[len(temp) // 2]), 0.2
    for step in range(int((seconds + rest_s) / dt)):
        h, around = (H_IN_FIRE, boil_c) if step * dt < seconds else (value("h_rest_w_m2_k"), 21.0)
        flow = k * np.diff(temp) / dx
        rate = np.zeros_like(temp)
        rate[:-1] += flow
        rate[1:] -= flow
        rate[-1] += (around - temp[-1]) / (1.0 / h + 0.5 * dx / k)
        temp = temp + dt / (rho_cp * dx) * rate
        peak = max(peak, float(temp[middle]))
    return peak


def hottest_after(dish, flat_c, seconds):
    """Hottest middle of a piece that is as warm all through, under a fire and at rest after it."""
    draws = Draws({name: np.zeros(2) for name in draw_members(3).normal})
    raw = raw_food(dish.plan, draws)
    even = raw.brought._replace(profile_c=np.full_like(raw.brought.profile_c, flat_c))
    half = np.full(2, 0.5e-3 * dish.thickness_mm)
    food = peak_from_now(replace(raw, brought=even, half_m=half, power=0.0))
    heat = next(stage for stage in dish.plan.stages if stage.id == "finish")
    step = Step(dish.plan, draws, Around(np.zeros(2)))
    heated = inside_after(heat, dish.fire, food, step, np.full(2, seconds))
    rested, _ = stood(dish.plan, heated, draws, np.full(2, value("rest_s")), COVERED)
    return float(rested.peak_c[0])


def test_a_broiler_heats_a_thin_piece_from_one_side_only():
    """Fifteen millimetres, lukewarm all through: the middle gets what one face lets in."""
    thin = Dish("pork-ribs", 0.6, 4, 15.0, tenderise="bath", sauce=None, coats=0)
    food = cut(thin.cut).food
    at = int((60.0 - food.temp_c[0]) / (food.temp_c[1] - food.temp_c[0]))
    k = float(food.k_w_m_k[at])
    rho_cp = float(np.gradient(food.enthalpy_j_m3, food.temp_c)[at])
    cells, warm_c = 60, 50.0
    slab = np.full(cells, warm_c)
    seen = one_face(slab, 0.015 / cells, k, rho_cp, 300.0, value("rest_s"), 100.0)
    once = hottest_after(thin, warm_c, 300.0)
    assert once == pytest.approx(seen, abs=0.7)
    both = hottest_after(replace(thin, finish="contact"), warm_c, 300.0)
    assert both > once + 3.0
    turned = hottest_after(replace(thin, flips_min=(2.5,)), warm_c, 300.0)
    assert turned < both
    assert turned == pytest.approx(once, abs=3.0)
