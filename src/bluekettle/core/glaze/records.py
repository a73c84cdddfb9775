"""What the compiled film reads: its constants, what it lies on, the heat, the coats, and the
columns of its arrays.
"""

from __future__ import annotations

from functools import cache
from typing import Any, NamedTuple

from bluekettle.core.tables import value


class FilmConstants(NamedTuple):
    """Every uncertain constant of the film model, in the units of data/constants.csv; handed to the
    kernel whole.
    """

    emissivity: float
    crust_k_w_m_k: float
    crust_vapour_m2_s: float
    juice_supply_kg_m2_s: float
    juice_fade_s: float
    juice_share: float
    bound_share: float
    wet_layer_m: float
    film_cp_dry_j_kg_k: float
    film_start_c: float
    brown_rate_1_s: float
    protein_rate_1_s: float
    protein_under_film: float
    brown_ea_j_mol: float
    brown_reference_c: float
    brown_sugar_most: float
    brown_protein_most: float
    char_rate_1_s: float
    char_ea_j_mol: float
    char_reference_c: float
    hide_kg_m2: float
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
    shred_juice_share: float
    crackles_m: float


class Ground(NamedTuple):
    """What the film lies on: conductivity [W/mK], diffusivity [m²/s], heat capacity [J/m³K], water
    [kg/m³], and its share of the juice that meat supplies from within."""

    k_w_m_k: float
    alpha_m2_s: float
    capacity_j_m3_k: float
    water_kg_m3: float
    supply_share: float


MEAT = Ground(0.5, 1.35e-7, 3.7e6, 680.0, 1.0)  # of meat near 70 % water (typical, estimated)
# Soft white bread, damped: porous, so it insulates and holds little (typical, estimated from its
# density of 300 kg/m³).
DAMP_BREAD = Ground(0.12, 1.1e-7, 1.1e6, 180.0, 0.0)


@cache
def film_constants() -> FilmConstants:
    """The film's constants as the data tables give them."""
    return FilmConstants(*(value(name) for name in FilmConstants._fields))


class HeatSource(NamedTuple):
    """What an appliance does: exchange [W/m²K], air and wall [°C], absorbed element flux [W/m²],
    the share of the vapour that leaves freely [-], and that of the exchange which a side turned
    away still has [-].
    """

    h_w_m2_k: float
    air_c: float
    wall_c: float
    element_w_m2: float
    vent: float
    away: float


class Change(NamedTuple):
    """Another heat from a second under the heat on, and the share of it that edges get [-]."""

    from_s: float
    fire: HeatSource
    edge_share: float


class Layer(NamedTuple):
    """One coat: water, dry solids, their sucrose-equivalent, fat, and what of it hides the surface
    below, each per kg of sauce; its mass on a face [kg/m²]; and how fast its sugars and proteins
    brown at 120 °C [1/s], and the index at which they have all browned [-].
    """

    water: float
    dry: float
    bound: float
    fat: float
    hiding: float
    coat_kg_m2: float
    rate_1_s: float
    most: float


class Skin(NamedTuple):
    """The food's own surface: whether nothing is ever put on it, its juice [kg/m²], the juice's
    water and sucrose-equivalent of dry solids [-], and how fast it browns bare at 120 °C [1/s].
    """

    bare: bool
    juice_kg_m2: float
    juice_water: float
    juice_bound: float
    rate_1_s: float


class Around(NamedTuple):
    """What surrounds one site at one moment; `gain` is the factor on all of its heat."""

    h_w_m2_k: float
    air_c: float
    wall_k4: float
    element_w_m2: float
    gain: float
    vent: float


class Grid(NamedTuple):
    """Step [s], steps under the heat, steps between samples, pressure [Pa], boiling point [°C]."""

    dt_s: float
    steps: int
    every: int
    pressure_pa: float
    boil_c: float


class Fronts(NamedTuple):
    """By steps since the finish began, the same for every member: how deep the thermal front has
    come [m], and what is left of the juice that comes up [-].
    """

    depth_m: Any
    faded: Any


AT, AWAY, COAT, TURN = range(4)  # columns of an act
SHARE, COAT_SHARE, INTERFACE, SIDE, JUICY = range(5)  # columns of a site
HEAT, MASS, CONTACT, BROWNING = range(4)  # columns of a member's factors
CRUST, DAMP, BROWN, CHAR, SPENT = range(5)  # columns of what slow dry heat hands on
FILM_C, WATER, SOLID, BOUND, FAT = range(5)  # columns of a film: [°C], then [kg/m²]
# Columns of one coat: how far it has browned and charred, its rate [1/s] and limit, and the share
# of what lies below that shows through it.
BROWNED, CHARRED, RATE, MOST, CLEAR = range(5)


class Lying(NamedTuple):
    """What lies on the food, read at the start of a fire and written at its end: the surface below
    (members, sites, 5), the film (members, sites, 5), its coats, the food itself first (members,
    sites, coats + 1, 5); how many coats lie there at the start; and the step at which each member
    leaves the heat (members,).
    """

    surface: Any
    film: Any
    coats: Any
    laid: int
    leaves: Any
