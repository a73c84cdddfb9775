"""The kitchen a dish is cooked in: what is known of it, what is typical, and what is accepted."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.errors import Ranges
from bluekettle.core.glaze import Draws
from bluekettle.core.heat.surroundings import RACK_REFERENCE_M
from bluekettle.core.stages.inside import Inside
from bluekettle.core.tables import row, value

MAX_COATS = 6


@dataclass(frozen=True)
class Learnt:
    """What was seen of an appliance, a hand and a glaze: mean (4,) and covariance (4, 4) of the
    logarithms of heat, coat, interface and browning, by rows; and how many signs it rests on."""

    mean: tuple[float, ...]
    cov: tuple[float, ...]
    seen: int

    def check(self, field: str, ranges: Ranges) -> None:
        """Four means within a factor of twenty, and a covariance that is one."""
        shapes = len(self.mean) == 4 and len(self.cov) == 16
        if not shapes or not all(-3.0 <= m <= 3.0 for m in self.mean):
            ranges.add(
                f"{field}.mean",
                list(self.mean),
                "four logarithms from -3 to 3 and sixteen covariances",
            )
            return
        cov = np.reshape(self.cov, (4, 4))
        if not (
            np.isfinite(cov).all()
            and np.allclose(cov, cov.T, atol=1e-9)
            and np.linalg.eigvalsh(cov).min() > -1e-9
        ):
            ranges.add(
                f"{field}.cov", "16 figures", "a symmetric covariance with no negative variance"
            )
        elif not cov.diagonal().max() <= 4.0:
            ranges.add(f"{field}.cov", float(cov.diagonal().max()), "variances of at most 4")

    def draw(self, draws: Draws) -> NDArray[np.float64]:
        """Log factors of these members, (members, 4)."""
        normal = np.column_stack(
            [draws.normal[name] for name in ("heat", "coat", "interface", "browning")]
        )
        root = np.linalg.cholesky(np.reshape(self.cov, (4, 4)) + 1e-9 * np.eye(4))
        return np.asarray(np.array(self.mean) + normal @ root.T)


@dataclass(frozen=True)
class Kitchen:
    """What is known of the kitchen. None stands for a typical value, which the forecast then
    reports as assumed.

    *_preheat_min : until the appliance is hot [min]; oven_preheat_min is that of the braise.
    low_oven_c, fry_c : dials
    of the oven and the air fryer as first heats. learnt : by finish, what calibration says of it.
    tops_c : by finish or body, the highest its dial goes [°C]. racks_m : the broiler's racks [m
    below the element]. gear : small things at hand; None where nobody said. indoors : jobs whose
    appliance was said to
    stand indoors. insides : of what the first heats go into and of the finishes, where known.
    """

    altitude_m: float | None = None
    pot_power_w: float | None = None
    pot_volume_l: float | None = None
    pot_gauge_kpa: float | None = None
    oven_c: float | None = None
    broiler_w_m2: float | None = None
    rack_m: float | None = None
    air_fryer_c: float | None = None
    hot_oven_c: float | None = None
    hot_oven_h_w_m2_k: float | None = None
    lid_c: float | None = None
    grill_c: float | None = None
    charcoal_c: float | None = None
    contact_c: float | None = None
    low_oven_c: float | None = None
    fry_c: float | None = None
    smoke_c: float | None = None
    bath_c: float | None = None
    bath_power_w: float | None = None
    bath_volume_l: float | None = None
    burner_w: float | None = None
    pan_volume_l: float | None = None
    slow_power_w: float | None = None
    slow_volume_l: float | None = None
    oven_preheat_min: float | None = None
    broiler_preheat_min: float | None = None
    air_fryer_preheat_min: float | None = None
    hot_oven_preheat_min: float | None = None
    lid_preheat_min: float | None = None
    grill_preheat_min: float | None = None
    charcoal_preheat_min: float | None = None
    contact_preheat_min: float | None = None
    smoke_preheat_min: float | None = None
    bath_preheat_min: float | None = None
    tops_c: Mapping[str, float] = field(default_factory=dict)
    racks_m: tuple[float, ...] = ()
    gear: frozenset[str] | None = None
    indoors: frozenset[str] = frozenset()
    insides: Mapping[str, Inside] = field(default_factory=dict)
    learnt: Mapping[str, Learnt] = field(default_factory=dict)

    def having(self, name: str, figure: float) -> Kitchen:
        """The same kitchen with one figure stated."""
        return replace(self, **{name: figure})  # type: ignore[arg-type]

    def or_typical(self, name: str) -> float:
        """The stated or the typical value [unit of its name]."""
        stated = getattr(self, name)
        return float(stated) if stated is not None else TYPICAL[name]()

    def drawn(self, name: str, draws: Draws) -> NDArray[np.float64]:
        """The figure of each member, (members,): as stated, or typical with what kitchens differ
        by, since nobody knows it.
        """
        stated = getattr(self, name)
        if stated is not None:
            return np.full(draws.members, float(stated))
        normal = draws.normal.get(draw_of(name), np.zeros(draws.members)) / NINE_TENTHS
        low, high = PLAUSIBLE[name]
        typical = TYPICAL[name]()
        if name == "altitude_m":  # most kitchens are low; none of them is known to be below the sea
            return np.maximum(low, 0.5 * high * normal)
        side = np.where(normal < 0.0, typical / max(low, LEAST_RATIO * typical), high / typical)
        accepted = LIMITS[name]
        return np.clip(typical * side**normal, accepted[0], accepted[1])


def draw_of(name: str) -> str:
    """Which draw of the ensemble an unknown figure takes."""
    return "heating_up" if name.endswith("_preheat_min") else DRAWN[name]


# What kitchens differ by, figure by figure: a tenth lies below, a tenth above (typical, estimated;
# the broiler from its factor of three).
PLAUSIBLE = {
    "altitude_m": (0.0, 1500.0),
    "pot_power_w": (700.0, 1500.0),
    "pot_volume_l": (4.0, 8.0),
    "pot_gauge_kpa": (50.0, 103.0),
    "oven_c": (140.0, 165.0),
    "broiler_w_m2": (1800.0, 4500.0),
    "rack_m": (0.10, 0.22),
    "air_fryer_c": (185.0, 210.0),
    "hot_oven_c": (215.0, 245.0),
    "hot_oven_h_w_m2_k": (10.0, 25.0),
    "lid_c": (180.0, 220.0),
    "grill_c": (200.0, 270.0),
    "oven_preheat_min": (6.0, 18.0),
    "broiler_preheat_min": (3.0, 10.0),
    "air_fryer_preheat_min": (0.0, 6.0),
    "hot_oven_preheat_min": (9.0, 25.0),
    "lid_preheat_min": (1.0, 6.0),
    "grill_preheat_min": (7.0, 18.0),
    "charcoal_c": (190.0, 260.0),
    "charcoal_preheat_min": (20.0, 45.0),
    "contact_c": (170.0, 210.0),
    "contact_preheat_min": (3.0, 10.0),
    "low_oven_c": (115.0, 145.0),
    "fry_c": (165.0, 195.0),
    "smoke_c": (98.0, 120.0),
    "smoke_preheat_min": (15.0, 50.0),
    "bath_c": (62.0, 70.0),
    "bath_power_w": (700.0, 1500.0),
    "bath_volume_l": (8.0, 20.0),
    "bath_preheat_min": (10.0, 45.0),
    "burner_w": (1000.0, 3000.0),
    "pan_volume_l": (4.0, 10.0),
    "slow_power_w": (160.0, 320.0),
    "slow_volume_l": (3.0, 7.0),
}
# Which draw of the ensemble a figure takes that nobody stated: properties of a kitchen, not dials,
# for a dial is set as the plan says.
DRAWN = {
    "altitude_m": "altitude",
    "pot_gauge_kpa": "gauge",
    "pot_power_w": "heater",
    "pot_volume_l": "volume",
    "bath_power_w": "heater",
    "bath_volume_l": "volume",
    "burner_w": "heater",
    "slow_power_w": "heater",
    "hot_oven_h_w_m2_k": "oven_air",
}
LEAST_RATIO = 0.1  # of what may be as little as nothing (numerical)
NINE_TENTHS = 1.2816  # standard normal quantile of 0.9


# Kind and column of the appliances table that a figure is typical of.
TYPICAL_OF = {
    "pot_power_w": ("electric-pot", "power_w"),
    "pot_volume_l": ("electric-pot", "volume_l"),
    "pot_gauge_kpa": ("electric-pot", "gauge_kpa"),
    "oven_c": ("covered-dish", "air_c"),
    "broiler_w_m2": ("oven-broiler", "element_w_m2"),
    "air_fryer_c": ("air-fryer", "air_c"),
    "hot_oven_c": ("hot-oven", "air_c"),
    "hot_oven_h_w_m2_k": ("hot-oven", "h_w_m2_k"),
    "lid_c": ("crisping-lid", "air_c"),
    "grill_c": ("gas-grill", "air_c"),
    "charcoal_c": ("charcoal-grill", "air_c"),
    "contact_c": ("contact-grill", "air_c"),
    "smoke_c": ("smoker", "air_c"),
    "bath_c": ("water-bath", "air_c"),
    "bath_power_w": ("water-bath", "power_w"),
    "bath_volume_l": ("water-bath", "volume_l"),
    "burner_w": ("burner", "power_w"),
    "pan_volume_l": ("stock-pot", "volume_l"),
    "slow_power_w": ("slow-cooker", "power_w"),
    "slow_volume_l": ("slow-cooker", "volume_l"),
}
# The kind whose heating up a figure is.
PREHEATED = {
    "oven": "covered-dish",
    "broiler": "oven-broiler",
    "air_fryer": "air-fryer",
    "hot_oven": "hot-oven",
    "lid": "crisping-lid",
    "grill": "gas-grill",
    "charcoal": "charcoal-grill",
    "contact": "contact-grill",
    "smoke": "smoker",
    "bath": "water-bath",
}


def _of(kind: str, column: str, scale: float = 1.0) -> Callable[[], float]:
    return lambda: float(row("appliances", kind)[column]) * scale


TYPICAL: dict[str, Callable[[], float]] = {
    "altitude_m": lambda: 0.0,
    "rack_m": lambda: RACK_REFERENCE_M,
    "low_oven_c": lambda: value("low_oven_c"),
    "fry_c": lambda: value("fry_c"),
    **{name: _of(*place) for name, place in TYPICAL_OF.items()},
    **{
        f"{name}_preheat_min": _of(kind, "preheat_s", 1.0 / 60.0)
        for name, kind in PREHEATED.items()
    },
}

# Accepted ranges of every number a cook may give: low, high, unit.
LIMITS = {
    "mass_kg": (0.05, 12.0, "kg"),
    "pieces": (1, 60, "pieces"),
    "thickness_mm": (5.0, 150.0, "mm"),
    "liquid_l": (0.0, 6.0, "L"),
    "timer_min": (0.0, 2880.0, "min"),
    "coats": (0, MAX_COATS, "coats"),
    "coat_mm": (0.1, 2.0, "mm"),
    "altitude_m": (-400.0, 4500.0, "m"),
    "pot_power_w": (300.0, 3000.0, "W"),
    "pot_volume_l": (1.5, 25.0, "L"),
    "pot_gauge_kpa": (30.0, 110.0, "kPa"),
    "oven_c": (110.0, 200.0, "°C"),
    "broiler_w_m2": (1000.0, 9000.0, "W/m²"),
    "rack_m": (0.05, 0.35, "m"),
    "air_fryer_c": (150.0, 230.0, "°C"),
    "hot_oven_c": (160.0, 290.0, "°C"),
    "hot_oven_h_w_m2_k": (8.0, 30.0, "W/m²K"),
    "lid_c": (150.0, 240.0, "°C"),
    "grill_c": (150.0, 310.0, "°C"),
    "charcoal_c": (150.0, 320.0, "°C"),
    "contact_c": (120.0, 250.0, "°C"),
    "low_oven_c": (80.0, 170.0, "°C"),
    "fry_c": (100.0, 210.0, "°C"),
    "smoke_c": (80.0, 160.0, "°C"),
    "bath_c": (45.0, 95.0, "°C"),
    "bath_power_w": (300.0, 3000.0, "W"),
    "bath_volume_l": (3.0, 60.0, "L"),
    "burner_w": (300.0, 6000.0, "W"),
    "pan_volume_l": (1.5, 25.0, "L"),
    "slow_power_w": (80.0, 600.0, "W"),
    "slow_volume_l": (1.0, 12.0, "L"),
    **{f"{name}_preheat_min": (0.0, 120.0, "min") for name in PREHEATED},
    "coats_min": (0.0, 55.0, "min under the heat"),
    "flips_min": (0.5, 55.0, "min under the heat"),
}
