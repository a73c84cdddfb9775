"""One finish: an appliance's heat on a glazed or bare surface, for every member of the ensemble."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.errors import Fault, OutOfRange, Ranges
from bluekettle.core.glaze.activity import sucrose_equivalent
from bluekettle.core.glaze.ensemble import Draws
from bluekettle.core.glaze.kernel import integrate
from bluekettle.core.glaze.records import (
    MEAT,
    Change,
    FilmConstants,
    Grid,
    Ground,
    HeatSource,
    Layer,
    Lying,
    Skin,
    film_constants,
)
from bluekettle.core.halves import in_halves, joined, part_of
from bluekettle.core.sauce.mixing import enough_sugar
from bluekettle.core.tables import value
from bluekettle.core.thermo import ambient_pressure_pa, saturation_temp_c

Array = NDArray[np.float64]

# Sucrose-equivalent of a kg of meat juice's dry solids: nine tenths protein and ash, as in
# `bare_film`.
JUICE_WATER = 0.90  # of meat juice, as in `bare_film` (typical, estimated)
# meat juice: water, protein, ash (typical, estimated)
JUICE_BOUND = sucrose_equivalent(0.0, 0.0, 0.1, 0.8, 0.1, 0.0)
ALKALINE_GAIN = 1.6  # of bare browning under baking powder (typical, estimated)
# Of bare browning under a film of oil: it wets evenly, and what it turns into browns along. It
# holds back no heat to speak of: 0.1 mm is a fiftieth of what hot air resists (typical, estimated).
OIL_GAIN = 1.2


@dataclass(frozen=True)
class Heat:
    """What an appliance does to a surface: h [W/m²K], air and wall [°C], absorbed element flux
    [W/m²], log sd of it.

    vent : share of the vapour that free air with this h would carry off [-]; under a hot plate it
    is only what leaves through the grooves. away : share of h that a side turned away from the
    heat still has [-]: little on a tray, most of it on a grate or in a basket.
    """

    h_w_m2_k: float
    air_c: float
    wall_c: float
    element_w_m2: float
    spread: float
    vent: float = 1.0
    away: float = 0.35  # of what lies on a tray (typical, estimated)

    def for_kernel(self) -> HeatSource:
        """As the kernel reads it."""
        figures = (
            self.h_w_m2_k,
            self.air_c,
            self.wall_c,
            self.element_w_m2,
            self.vent,
            self.away,
        )
        return HeatSource(*map(float, figures))


@dataclass(frozen=True)
class HeatChange:
    """Another heat from a moment under the heat on [s]; `edge_share` is what foil over the edges
    leaves to them.
    """

    at_s: float
    heat: Heat
    edge_share: float = 1.0

    def for_kernel(self) -> Change:
        """As the kernel reads it."""
        return Change(float(self.at_s), self.heat.for_kernel(), float(self.edge_share))


@dataclass(frozen=True)
class Coating:
    """What is on the surface, as mass fractions of the sauce, and the mass of one coat [kg/m²]."""

    water: float
    sucrose: float
    glucose: float
    fructose: float
    other: float
    protein: float
    fat: float
    salt: float
    acid: float
    coat_kg_m2: float
    bare: bool = False
    raw_lab: tuple[float, float, float] = (45.0, 18.0, 26.0)  # a dark red glaze (typical)
    protein_gain: float = 1.0  # of bare browning; above 1 where baking powder or oil hastens it

    @property
    def caramelises(self) -> bool:
        """Whether there is sugar enough for caramel milestones: by its share of the solids, so that
        simmering a sauce down makes none of it."""
        return enough_sugar(self.sucrose + self.glucose + self.fructose, self.water, self.fat)

    @property
    def dry_solids(self) -> float:
        """Mass fraction that is neither water nor fat [-]."""
        return 1.0 - self.water - self.fat

    def sugar_power(self) -> float:
        """Browning power of the film's sugars against dry fructose [-], Maillard gain included."""
        if not self.caramelises:
            return 0.0
        solids = max(self.dry_solids, 1e-6)
        sucrose = value("brown_sucrose_share") * (
            1.0 + value("brown_acid_gain") * self.acid / solids
        )
        power = (
            self.fructose + value("brown_glucose_share") * self.glucose + sucrose * self.sucrose
        ) / solids
        return power * (1.0 + value("brown_maillard_gain") * self.protein / solids)


# pale meat (typical)
def bare_film(raw_lab: tuple[float, float, float] = (58.0, 14.0, 16.0)) -> Coating:
    """A blotted surface without sauce: a trace of meat juice, the model's own film for bare
    food.
    """
    return Coating(
        0.90,
        0,
        0,
        0,
        0.01,
        0.07,  # share of protein in meat juice (typical)
        0.01,
        0.01,
        0,
        value("bare_juice_kg_m2"),
        bare=True,
        raw_lab=raw_lab,
    )


def rubbed_film(
    sugar_kg_m2: float,
    spice_kg_m2: float = 0.1,
    baking_powder: bool = False,
    raw_lab: tuple[float, float, float] = (52.0, 22.0, 30.0),  # a rub of paprika (typical)
) -> Coating:
    """A surface with a dry rub and no sauce: sugar patted on (sucrose), spices and starch, and a
    trace of juice.

    `baking_powder` raises the surface's pH: bare browning runs `ALKALINE_GAIN` times as fast.
    Raises OutOfRange for sugar outside 0 to 0.5 or spices outside 0 to 0.5 kg/m².
    """
    ranges = Ranges()
    ranges.within("sugar_kg_m2", sugar_kg_m2, 0.0, 0.5, "kg/m²")
    ranges.within("spice_kg_m2", spice_kg_m2, 0.0, 0.5, "kg/m²")
    ranges.close()
    juice = value("bare_juice_kg_m2")
    total = sugar_kg_m2 + spice_kg_m2 + juice
    parts = {
        "sucrose": sugar_kg_m2,
        "other": 0.8 * spice_kg_m2,  # of dry spice (typical, estimated)
        # of dry spice, and of juice (typical, estimated)
        "protein": 0.2 * spice_kg_m2 + 0.1 * juice,
    }
    shares = {name: mass / total for name, mass in parts.items()}
    return Coating(
        0.9 * juice / total,
        shares["sucrose"],
        0,
        0,
        shares["other"],
        shares["protein"],
        0,
        0,
        0,
        total,
        bare=True,
        raw_lab=raw_lab,
        protein_gain=ALKALINE_GAIN if baking_powder else 1.0,
    )


def oiled(film: Coating) -> Coating:
    """A film of bare or rubbed food with oil on it: it browns `OIL_GAIN` times as fast.

    Raises OutOfRange for a film of sauce.
    """
    if not film.bare:
        raise OutOfRange([Fault("film", "a sauce", "bare or rubbed food")])
    return replace(film, protein_gain=film.protein_gain * OIL_GAIN)


class Act(NamedTuple):
    """Something done to food under the heat: at a second, for so many seconds out of it."""

    at_s: float
    away_s: float = 0.0
    coat: bool = True
    turn: bool = False


SURFACE_FIGURES, FILM_FIGURES, COAT_FIGURES = 5, 5, 5  # columns of `Lying`
BEFORE = Act(0.0)  # a coat that is on before the heat
MOST_ACTS = 16


@dataclass(frozen=True)
class Finish:
    """Result of `run_finish`. All times are seconds under the heat: they stand still while it is
    out.

    times_s : (members, sites, 7), set, bubbling, amber, mahogany, bitter, burnt, crisp [s]; inf
    where not reached.
    traces : (members, sites, samples, 4), browning index, film [°C], water fraction, crust [m].
    sample_s : (samples,) [s]. lying : the surface, its film and its coats at the end.
    """

    times_s: Array
    traces: NDArray[np.float32]
    sample_s: Array
    acts: tuple[Act, ...]
    caramelises: bool
    lying: Lying

    @property
    def coats(self) -> tuple[Act, ...]:
        """Acts that bring a coat."""
        return tuple(act for act in self.acts if act.coat)

    @property
    def turns(self) -> tuple[Act, ...]:
        """Acts that turn the piece."""
        return tuple(act for act in self.acts if act.turn)

    @property
    def last_act_s(self) -> float:
        """When the last act is done [s under the heat]; 0 where all is done before it."""
        return max((act.at_s for act in self.acts), default=0.0)


def run_finish(
    draws: Draws,
    heat: Heat,
    coating: Coating,
    acts: Sequence[Act],
    deep_c: float | Array,
    surface_c: float,
    time_s: float,
    altitude_m: float = 0.0,
    dt_s: float = 2.0,
    every_s: float = 10.0,
    shreds: bool = False,
    constants: FilmConstants | None = None,
    ground: Ground = MEAT,
    log_factors: Array | None = None,
    change: HeatChange | None = None,
    dried: Array | None = None,
    lying: Lying | None = None,
    leaves_s: Array | None = None,
    every_side: bool = False,
    looks_on: bool = False,
) -> Finish:
    """Integrate a finish for all members and for both sites (face and edge).

    Parameters
    ----------
    acts : sequence of Act
        Coats and turns in order, up to 16, with one coat at the least. A first coat at 0 s is on
        before the heat; a later one leaves the food bare until then. With any turn (or toss of
        strands) a third site `back` is run, which faces away at first.
    deep_c : float or ndarray, shape (members,)
        Food below the shallow layer, 0 to 120 °C. surface_c : food under the coat at the start, 0
        to 100 °C.
    time_s : float
        Simulated time under the heat, 30 s to 3 h. Time out of it comes on top.
    shreds : bool
        Thin strands: the face is then the `shred` site (thinner coat, weaker interface).
    ground : Ground
        What the film lies on: moist food, or the damp bread of a scout.
    change : HeatChange, optional
        Another heat from some second on: a lower rack, another appliance, foil over the edges.
    log_factors : ndarray, shape (members, 4), optional
        Logarithms of the heat, coat, interface and browning factors, instead of those of `draws`.
    dried : ndarray, shape (members, 5) or (5,), optional
        Dry crust and half-dried layer [m], how far the food itself has browned and charred [-] and
        the share of its juice that is spent [-] at the start, from a dry first heat; none where
        absent.
    lying : Lying, optional
        What an earlier fire left on the food, of as many sites; then no coat is needed.
    leaves_s : ndarray, shape (members,), optional
        When each member leaves the heat [s]; at `time_s` where absent.
    every_side : bool
        The side turned away is run as well, whether or not the piece is turned.
    looks_on : bool
        What is told looks past the moment that a member leaves, as if it stayed; what lies on it is
        that of the moment.

    Returns
    -------
    Finish
        First order in the step; milestones within 1.5 % of a halved step at the default of 2 s.

    Raises
    ------
    OutOfRange
        Names every argument outside its range.
    """
    brought = np.zeros(5) if dried is None else dried
    fewest = 0 if lying is not None and lying.laid else 1
    _check_finish(
        draws, heat, coating, acts, deep_c, surface_c, time_s, dt_s, log_factors, brought, fewest
    )
    ranges = Ranges()
    ranges.within("every_s", every_s, 0.05, 600.0, "s")
    ranges.within("altitude_m", altitude_m, -400.0, 4500.0, "m")
    ranges.close()
    pressure = ambient_pressure_pa(altitude_m)
    boil_c = saturation_temp_c(pressure)
    c = constants or film_constants()
    every = max(1, round(every_s / dt_s))
    never = HeatChange(math.inf, heat)
    turned = any(act.turn for act in acts)
    sites = sites_of(coating, shreds, every_side or turned, c)
    looked = 3 if turned else 2
    steps = round(time_s / dt_s)
    leaves = np.full(draws.members, steps)
    if leaves_s is not None:
        leaves = np.clip(np.round(leaves_s / dt_s), 0, steps).astype(np.int64)
    on = lying_on(lying, brought, draws.members, len(sites), acts, leaves)
    factors = factors_of(draws, heat, log_factors)
    deep = np.broadcast_to(np.asarray(deep_c, dtype=float), (draws.members,)).copy()
    skin = Skin(
        coating.bare, value("bare_juice_kg_m2"), JUICE_WATER, JUICE_BOUND, c.protein_rate_1_s
    )
    in_order = np.array(acts, dtype=float).reshape(-1, len(Act._fields))

    def run(part: slice) -> tuple[Array, Array]:
        """The film of some members."""
        found: tuple[Array, Array] = integrate(
            factors[part],
            deep[part],
            float(min(surface_c, boil_c)),
            part_of(on, draws.members, part),
            sites,
            heat.for_kernel(),
            layer_of(coating, c),
            skin,
            in_order,
            (change or never).for_kernel(),
            Grid(float(dt_s), steps, every, pressure, boil_c),
            c,
            ground,
            looked if looks_on else 0,
        )
        return found

    parts = in_halves(draws.members, run)
    times, traces = joined(parts, 0)[:, :looked], joined(parts, 1)[:, :looked]
    samples = dt_s * every * np.arange(traces.shape[2], dtype=float)
    done = tuple(Act(*act) for act in acts)
    on = on._replace(laid=on.laid + sum(act.coat for act in done))
    return Finish(times, traces, samples, done, coating.caramelises, on)


def lying_on(
    lying: Lying | None,
    dried: Array,
    members: int,
    sites: int,
    acts: Sequence[Act],
    leaves: NDArray[np.int64],
) -> Lying:
    """What lies on the food as this run begins, with room for the coats it brings: a copy, which
    the kernel writes into.
    """
    more = sum(act.coat for act in acts)
    if lying is None:
        surface = np.zeros((members, sites, SURFACE_FIGURES))
        surface[:] = np.atleast_2d(dried)[:, None, :]
        film = np.zeros((members, sites, FILM_FIGURES))
        coats = np.zeros((members, sites, more + 1, COAT_FIGURES))
        return Lying(surface, film, coats, 0, leaves)
    coats = np.zeros((members, sites, lying.laid + more + 1, COAT_FIGURES))
    coats[:, :, : lying.laid + 1] = lying.coats[:, :sites, : lying.laid + 1]
    return Lying(
        lying.surface[:, :sites].copy(), lying.film[:, :sites].copy(), coats, lying.laid, leaves
    )


def _check_finish(
    draws: Draws,
    heat: Heat,
    coating: Coating,
    acts: Sequence[Act],
    deep_c: float | Array,
    surface_c: float,
    time_s: float,
    dt_s: float,
    log_factors: Array | None,
    brought: Array,
    fewest: int,
) -> None:
    """Raise OutOfRange with every fault of a finish."""
    ranges = Ranges()
    ranges.within("h_w_m2_k", heat.h_w_m2_k, 1.0, 1000.0, "W/m²K")
    ranges.within("vent", heat.vent, 0.01, 1.0)
    ranges.within("air_c", heat.air_c, 60.0, 320.0, "°C")
    ranges.within("wall_c", heat.wall_c, 20.0, 500.0, "°C")
    ranges.within("element_w_m2", heat.element_w_m2, 0.0, 25_000.0, "W/m²")
    ranges.within("coats", sum(act.coat for act in acts), fewest, 8)
    ranges.within("acts", len(acts), fewest, MOST_ACTS)
    ranges.within("coat_kg_m2", coating.coat_kg_m2, 0.02, 4.0, "kg/m²")
    ranges.within("water", coating.water, 0.0, 0.95)
    ranges.within("surface_c", surface_c, 0.0, 101.0, "°C")
    ranges.within("time_s", time_s, 30.0, 10_800.0, "s")
    ranges.within("dt_s", dt_s, 0.05, 5.0, "s")
    for temp in np.atleast_1d(np.asarray(deep_c, dtype=float)):
        ranges.within("deep_c", float(temp), 0.0, 120.0, "°C")
    before = 0.0
    for place, act in enumerate(acts):
        ranges.within(f"acts.{place}.at_s", act.at_s, before, time_s - dt_s, "s")
        ranges.within(f"acts.{place}.away_s", act.away_s, 0.0, 3600.0, "s")
        before = max(before, act.at_s) if math.isfinite(act.at_s) else before
    if log_factors is not None and (
        log_factors.shape != (draws.members, 4) or not np.isfinite(log_factors).all()
    ):
        ranges.add("log_factors", log_factors.shape, f"finite, of shape ({draws.members}, 4)")
    shaped = brought.shape in ((5,), (draws.members, 5))
    if not (shaped and np.isfinite(brought).all() and (brought >= 0.0).all()):
        accepted = f"finite, 0 or more, of shape (5,) or ({draws.members}, 5)"
        ranges.add("dried", brought.shape, accepted)
    ranges.close()


def sites_of(coating: Coating, shreds: bool, turned: bool, c: FilmConstants) -> Array:
    """Face, edge and, where the piece is turned, back: (sites, 5) factors [-] as the kernel reads
    them."""
    interface = c.interface_bare_w_m2_k if coating.bare else c.interface_face_w_m2_k
    coat = c.shred_coat_share if shreds else 1.0
    face = interface * (c.interface_shred_share if shreds else 1.0)
    edge = interface * c.interface_edge_share
    juicy = c.shred_juice_share if shreds else 1.0
    sites = [
        [1.0, coat, face, 1.0, juicy],
        [c.edge_heat_share, coat * c.edge_coat_share, edge, 0.0, juicy],
        [1.0, coat, face, -1.0, juicy],
    ]
    return np.array(sites)[: 3 if turned else 2]


def factors_of(draws: Draws, heat: Heat, log_factors: Array | None) -> Array:
    """Factors of heat, coat, interface and browning [-], (members, 4)."""
    if log_factors is not None:
        return np.exp(log_factors)
    spreads = {
        "heat": heat.spread,
        "coat": value("spread_coat"),
        "interface": value("spread_interface"),
        "browning": value("spread_browning"),
    }
    return np.column_stack([draws.factor(name, spread) for name, spread in spreads.items()])


def layer_of(coating: Coating, c: FilmConstants) -> Layer:
    """One coat as the kernel reads it."""
    sugars = coating.glucose + coating.fructose
    bound = sucrose_equivalent(
        coating.sucrose, sugars, coating.other, coating.protein, coating.salt, coating.acid
    )
    protein = (1.0 if coating.bare else c.protein_under_film) * c.protein_rate_1_s
    figures = (
        coating.water,
        coating.dry_solids,
        bound,
        coating.fat,
        coating.other + coating.protein + coating.fat,
        coating.coat_kg_m2,
        coating.sugar_power() * c.brown_rate_1_s + protein * coating.protein_gain,
        c.brown_sugar_most if coating.caramelises else c.brown_protein_most,
    )
    # All of one type: a whole number among them would have the kernel compiled anew.
    return Layer(*map(float, figures))
