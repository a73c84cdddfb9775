"""One finish: an appliance's heat on a glazed or bare surface, for every member of the ensemble."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.errors import Ranges
from bluekettle.core.glaze.activity import sucrose_equivalent
from bluekettle.core.glaze.ensemble import Draws
from bluekettle.core.glaze.kernel import MEAT, FilmConstants, Ground, film_constants, integrate
from bluekettle.core.sauce.mixing import enough_sugar
from bluekettle.core.tables import value
from bluekettle.core.thermo import ambient_pressure_pa, saturation_temp_c

Array = NDArray[np.float64]

# Sucrose-equivalent of a kg of meat juice's dry solids: nine tenths protein and ash, as in
# `bare_film`.
JUICE_BOUND = sucrose_equivalent(0.0, 0.0, 0.1, 0.8, 0.1, 0.0)
ALKALINE_GAIN = 1.6  # of bare browning under baking powder (typical, estimated)


@dataclass(frozen=True)
class Heat:
    """What an appliance does to a surface: h [W/m²K], air and wall [°C], absorbed element flux
    [W/m²], log sd of it.

    vent : share of the vapour that free air with this h would carry off [-]; under a hot plate it
    is only what leaves through the grooves.
    """

    h_w_m2_k: float
    air_c: float
    wall_c: float
    element_w_m2: float
    spread: float
    vent: float = 1.0


@dataclass(frozen=True)
class HeatChange:
    """Another heat from a moment under the heat on [s]; `edge_share` is what foil over the edges
    leaves to them.
    """

    at_s: float
    heat: Heat
    edge_share: float = 1.0

    def as_array(self) -> Array:
        """The seven figures the kernel reads."""
        h = self.heat
        return np.array(
            [self.at_s, h.h_w_m2_k, h.air_c, h.wall_c, h.element_w_m2, self.edge_share, h.vent],
            dtype=float,
        )


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
    raw_lab: tuple[float, float, float] = (45.0, 18.0, 26.0)
    protein_gain: float = (
        1.0  # of bare browning; above 1 where baking powder makes the surface alkaline
    )

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
        0.07,
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
    raw_lab: tuple[float, float, float] = (52.0, 22.0, 30.0),
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
        "other": 0.8 * spice_kg_m2,
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


@dataclass(frozen=True)
class Finish:
    """Result of `run_finish`.

    times_s : (members, sites, 7), set, bubbling, amber, mahogany, bitter, burnt, crisp [s]; inf
    where not reached.
    traces : (members, sites, samples, 4), browning index, film [°C], water fraction, crust [m].
    sample_s : (samples,) [s]. coats_s : start and end of the time out of the heat for each coat.
    """

    times_s: Array
    traces: NDArray[np.float32]
    sample_s: Array
    coats_s: tuple[tuple[float, float], ...]
    caramelises: bool
    flips_s: tuple[float, ...] = ()


def run_finish(
    draws: Draws,
    heat: Heat,
    coating: Coating,
    coats_s: Sequence[tuple[float, float]],
    deep_c: float | Array,
    surface_c: float,
    time_s: float,
    altitude_m: float = 0.0,
    dt_s: float = 2.0,
    every_s: float = 10.0,
    shreds: bool = False,
    constants: FilmConstants | None = None,
    flips_s: Sequence[float] = (),
    ground: Ground = MEAT,
    log_factors: Array | None = None,
    change: HeatChange | None = None,
    dried: Array | None = None,
) -> Finish:
    """Integrate a finish for all members and for both sites (face and edge).

    Parameters
    ----------
    coats_s : sequence of (start, end)
        Time out of the heat in which each coat is brushed [s], in order; one to eight. A first coat
        of (0, 0) is on before the heat; a later one leaves the food bare until then.
    deep_c : float or ndarray, shape (members,)
        Food below the shallow layer, 0 to 120 °C. surface_c : food under the coat at the start, 0
        to 100 °C.
    time_s : float
        Simulated time, 30 s to 3 h.
    shreds : bool
        Thin strands: the face is then the `shred` site (thinner coat, weaker interface).
    flips_s : sequence of float
        Moments at which the piece is turned (or the strands tossed) [s]; a third site `back` is
        then run, which faces away at first.
    ground : Ground
        What the film lies on: moist food, or the damp bread of a scout.
    change : HeatChange, optional
        Another heat from some second on: a lower rack, another appliance, foil over the edges.
    log_factors : ndarray, shape (members, 4), optional
        Logarithms of the heat, coat, interface and browning factors, instead of those of `draws`.
    dried : ndarray, shape (members, 2) or (2,), optional
        Dried crust [m] and browning index of the food itself at the start, from a dry first heat;
        none where absent.

    Returns
    -------
    Finish
        First order in the step; milestones within 1.5 % of a halved step at the default of 2 s.

    Raises
    ------
    OutOfRange
        Names every argument outside its range.
    """
    ranges = Ranges()
    ranges.within("h_w_m2_k", heat.h_w_m2_k, 1.0, 1000.0, "W/m²K")
    ranges.within("vent", heat.vent, 0.01, 1.0)
    ranges.within("air_c", heat.air_c, 60.0, 320.0, "°C")
    ranges.within("wall_c", heat.wall_c, 20.0, 500.0, "°C")
    ranges.within("element_w_m2", heat.element_w_m2, 0.0, 15_000.0, "W/m²")
    ranges.within("coats", len(coats_s), 1, 8)
    ranges.within("coat_kg_m2", coating.coat_kg_m2, 0.02, 4.0, "kg/m²")
    ranges.within("water", coating.water, 0.0, 0.95)
    ranges.within("surface_c", surface_c, 0.0, 101.0, "°C")
    ranges.within("time_s", time_s, 30.0, 10_800.0, "s")
    ranges.within("dt_s", dt_s, 0.05, 5.0, "s")
    ranges.within("every_s", every_s, 0.05, 600.0, "s")
    ranges.within("altitude_m", altitude_m, -400.0, 4500.0, "m")
    for temp in np.atleast_1d(np.asarray(deep_c, dtype=float)):
        ranges.within("deep_c", float(temp), 0.0, 120.0, "°C")
    before = 0.0
    for place, (start, end) in enumerate(coats_s):
        ranges.within(f"coats_s.{place}.0", start, before, time_s, "s")
        ranges.within(
            f"coats_s.{place}.1", end, start if math.isfinite(start) else 0.0, time_s, "s"
        )
        before = max(before, end)
    for place, flip in enumerate(flips_s):
        ranges.within(f"flips_s.{place}", flip, 1.0, time_s, "s")
    if log_factors is not None and (
        log_factors.shape != (draws.members, 4) or not np.isfinite(log_factors).all()
    ):
        ranges.add("log_factors", log_factors.shape, f"finite, of shape ({draws.members}, 4)")
    brought = np.zeros(2) if dried is None else dried
    if brought.shape not in ((2,), (draws.members, 2)) or not (
        np.isfinite(brought).all() and (brought >= 0.0).all()
    ):
        ranges.add(
            "dried", brought.shape, f"finite, 0 or more, of shape (2,) or ({draws.members}, 2)"
        )
    ranges.close()
    pressure = ambient_pressure_pa(altitude_m)
    boil_c = saturation_temp_c(pressure)
    c = constants or film_constants()
    interface = c.interface_bare_w_m2_k if coating.bare else c.interface_face_w_m2_k
    face_coat = c.shred_coat_share if shreds else 1.0
    face_interface = interface * (c.interface_shred_share if shreds else 1.0)
    sites = np.array(
        [
            [1.0, face_coat, face_interface, 1.0],
            [
                c.edge_heat_share,
                face_coat * c.edge_coat_share,
                interface * c.interface_edge_share,
                0.0,
            ],
            [1.0, face_coat, face_interface, -1.0],
        ]
    )[: 3 if len(flips_s) else 2]
    factors = (
        np.exp(log_factors)
        if log_factors is not None
        else np.column_stack(
            [
                draws.factor("heat", heat.spread),
                draws.factor("coat", value("spread_coat")),
                draws.factor("interface", value("spread_interface")),
                draws.factor("browning", value("spread_browning")),
            ]
        )
    )
    bound = sucrose_equivalent(
        coating.sucrose,
        coating.glucose + coating.fructose,
        coating.other,
        coating.protein,
        coating.salt,
        coating.acid,
    )
    steps = round(time_s / dt_s)
    every = max(1, round(every_s / dt_s))
    times, traces = integrate(
        factors,
        np.broadcast_to(np.asarray(deep_c, dtype=float), (draws.members,)).copy(),
        min(surface_c, boil_c),
        sites,
        np.array([heat.h_w_m2_k, heat.air_c, heat.wall_c, heat.element_w_m2, heat.vent]),
        np.array([coating.water, coating.dry_solids, bound, coating.fat]),
        np.array(coats_s, dtype=float),
        coating.coat_kg_m2,
        coating.sugar_power() * c.brown_rate_1_s,
        (1.0 if coating.bare else c.protein_under_film) * c.protein_rate_1_s * coating.protein_gain,
        pressure,
        boil_c,
        coating.bare,
        np.array(sorted(flips_s), dtype=float),
        dt_s,
        steps,
        every,
        c,
        ground,
        change.as_array() if change else np.array([np.inf, 1, 1, 1, 0, 1, 1]),
        np.array([value("bare_juice_kg_m2"), 0.90, JUICE_BOUND]),
        c.protein_rate_1_s,
        np.broadcast_to(brought, (draws.members, 2)).copy(),
    )
    samples = dt_s * every * np.arange(traces.shape[2])
    return Finish(
        times,
        traces,
        samples,
        tuple((float(a), float(b)) for a, b in coats_s),
        coating.caramelises,
        tuple(sorted(flips_s)),
    )
