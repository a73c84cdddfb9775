"""The kitchen a dish is cooked in: what is known of it, what is typical, and what is accepted."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.errors import MissingData, Ranges
from bluekettle.core.glaze import Draws
from bluekettle.core.stages.figures import figure
from bluekettle.core.stages.figures import figures as figures_of_kitchens
from bluekettle.core.stages.inside import Inside

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


@dataclass(frozen=True, init=False)
class Kitchen:
    """What is known of the kitchen. A figure that is not stated is typical, and the forecast
    reports it as assumed.

    figures : those that were stated, by their key in `kitchen_figures.csv`; each may also be given
    by its name, None for not stated. learnt : by finish, what calibration says of it. tops_c : by
    finish or body, the highest its dial goes [°C]. racks_m : the broiler's racks [m below the
    element]. gear : small things at hand; None where nobody said. indoors : jobs whose appliance
    was said to stand indoors. insides : of what the first heats go into and of the finishes, where
    known.
    """

    figures: Mapping[str, float]
    tops_c: Mapping[str, float]
    racks_m: tuple[float, ...]
    gear: frozenset[str] | None
    indoors: frozenset[str]
    insides: Mapping[str, Inside]
    learnt: Mapping[str, Learnt]

    def __init__(
        self,
        figures: Mapping[str, float] | None = None,
        *,
        tops_c: Mapping[str, float] | None = None,
        racks_m: tuple[float, ...] = (),
        gear: frozenset[str] | None = None,
        indoors: frozenset[str] = frozenset(),
        insides: Mapping[str, Inside] | None = None,
        learnt: Mapping[str, Learnt] | None = None,
        **stated: float | None,
    ) -> None:
        """Raises MissingData for a figure that is not in the table."""
        named = {key: number for key, number in stated.items() if number is not None}
        known = {**(figures or {}), **named}
        in_order = {figure(key).key: known[key] for key in sorted(known)}
        told = {
            "figures": in_order,
            "tops_c": tops_c or {},
            "racks_m": racks_m,
            "gear": gear,
            "indoors": indoors,
            "insides": insides or {},
            "learnt": learnt or {},
        }
        for name, given in told.items():
            object.__setattr__(self, name, given)

    def having(self, name: str, number: float) -> Kitchen:
        """The same kitchen with one figure stated."""
        return replace(self, figures={**self.figures, name: number})

    def stated(self, name: str) -> float | None:
        """What was said of a figure [its unit]; None where nothing was."""
        return self.figures.get(figure(name).key)

    def or_typical(self, name: str) -> float:
        """The stated or the typical value [its unit]."""
        stated = self.stated(name)
        return figure(name).typical if stated is None else float(stated)

    def drawn(self, name: str, draws: Draws) -> NDArray[np.float64]:
        """The figure of each member, (members,): as stated, or typical with what kitchens differ
        by, since nobody knows it. MissingData for a dial, which is set as the plan says.
        """
        stated = self.stated(name)
        if stated is not None:
            return np.full(draws.members, float(stated))
        row = figure(name)
        if not row.draw:
            known = tuple(key for key, one in figures_of_kitchens().items() if one.draw)
            raise MissingData("figure that kitchens differ by", name, known)
        normal = draws.normal.get(row.draw, np.zeros(draws.members)) / NINE_TENTHS
        low, high, typical = row.usual_low, row.usual_high, row.typical
        if name == "altitude_m":  # most kitchens are low; none of them is known to be below the sea
            return np.maximum(low, 0.5 * high * normal)
        side = np.where(normal < 0.0, typical / max(low, LEAST_RATIO * typical), high / typical)
        return np.clip(typical * side**normal, row.low, row.high)


LEAST_RATIO = 0.1  # of what may be as little as nothing (numerical)
NINE_TENTHS = 1.2816  # standard normal quantile of 0.9

# Accepted ranges of every number a cook may give: low, high, unit.
LIMITS = {
    "mass_kg": (0.05, 12.0, "kg"),
    "pieces": (1, 60, "pieces"),
    "thickness_mm": (5.0, 150.0, "mm"),
    "liquid_l": (0.0, 6.0, "L"),
    "timer_min": (0.0, 2880.0, "min"),
    "coats": (0, MAX_COATS, "coats"),
    "coat_mm": (0.1, 2.0, "mm"),
    **{key: (one.low, one.high, one.unit) for key, one in figures_of_kitchens().items()},
    "coats_min": (0.0, 55.0, "min under the heat"),
    "flips_min": (0.5, 55.0, "min under the heat"),
}
