"""Food as one heat finds it, and the kitchen it is cooked in; checked before anything is
computed.
"""

from __future__ import annotations

from dataclasses import dataclass, field, fields, replace
from math import pi, sqrt
from typing import Any, TypeVar

from bluekettle.core.errors import MissingData, Ranges
from bluekettle.core.heat import Body, equal_body
from bluekettle.core.stages.cuts import Cut, cut, cut_keys
from bluekettle.core.stages.finishes import finish_keys
from bluekettle.core.stages.first_heats import first_heat, first_heat_keys
from bluekettle.core.stages.kitchen import LIMITS, Kitchen
from bluekettle.core.tables import row

STATES = ("fridge", "frozen")
TENDERISE = first_heat_keys()
FINISHES = finish_keys()
JOBS = tuple(dict.fromkeys((*FINISHES, *(first_heat(key).job for key in TENDERISE))))
WIDE_M = 0.5  # a half-length from which on food is endless in that direction (numerical)
SHAPED = ("mass_kg", "pieces", "thickness_mm")


Heated = TypeVar("Heated", bound="Piece")


@dataclass(frozen=True)
class Piece:
    """Food of one cut, all pieces alike, in one kitchen. thickness_mm : of one piece."""

    cut: str
    mass_kg: float
    pieces: int
    thickness_mm: float
    state: str = "fridge"
    kitchen: Kitchen = field(default_factory=Kitchen)
    seed: int = 1

    def check(self) -> Cut:
        """Its cut, once food and kitchen are in range.

        Raises
        ------
        OutOfRange
            Every fault at once, fields named as in the document.
        """
        ranges = Ranges()
        ranges.one_of("cut", self.cut, cut_keys())
        ranges.one_of("state", self.state, STATES)
        for name in SHAPED:
            ranges.within(name, getattr(self, name), *LIMITS[name])
        check_kitchen(self.kitchen, ranges)
        if not ranges.faults:
            self._check_shape(cut(self.cut), ranges)
        ranges.close()
        return cut(self.cut)

    def under(self, asked: type[Heated], /, **more: Any) -> Heated:
        """The same food and kitchen in a heat, with what that heat is asked besides."""
        own = {one.name: getattr(self, one.name) for one in fields(Piece)}
        return asked(**own, **more)

    def _check_shape(self, found: Cut, ranges: Ranges) -> None:
        """A piece cannot be thicker than about two and a half times the breadth its mass leaves
        it.
        """
        volume = self.mass_kg / found.food.density_kg_m3 / self.pieces
        # no piece is flatter than a sixth of its breadth (estimated)
        most = 1e3 * (volume / 0.16) ** (1.0 / 3.0)
        if self.thickness_mm > most:
            each = f"{self.mass_kg / self.pieces * 1e3:.0f} g a piece"
            ranges.add("thickness_mm", self.thickness_mm, f"up to {most:.0f} mm for {each}")

    def directions(self) -> tuple[tuple[float, ...], tuple[float, ...]]:
        """Half-lengths or radius [m] of the directions of one piece, and their powers (0 slab, 1
        cylinder), from its thickness and its mass.

        Raises
        ------
        MissingData
            A shape that no rule is known for.
        """
        found = cut(self.cut)
        half = 0.5e-3 * self.thickness_mm  # half of it, and mm to m
        volume = self.mass_kg / found.food.density_kg_m3 / self.pieces
        if found.shape == "cylinder":
            return (half, volume / (pi * half**2) / 2.0), (1.0, 0.0)
        if found.shape == "slab":
            side = 0.5 * (volume / (2.0 * half)) ** 0.5
            return (half, side, side), (0.0, 0.0, 0.0)
        raise MissingData("shape", found.shape, ("slab", "cylinder"))

    def body(self, h_w_m2_k: float, lies: str) -> Body:
        """The body of one dimension that heats like one piece at this exchange [W/m²K].

        lies : how the pieces lie, a row of `lying`, each as if so many times as thick; stacked, the
        cut's `packing` stands for how they touch (above 1) or let the steam in between (below 1).
        MissingData names the known ones.
        """
        found = cut(self.cut)
        line, (own, powers) = row("lying", lies), self.directions()
        thick = float(line["factor"]) * own[0]
        halves = tuple(min(half, WIDE_M) for half in (thick, *own[1:]))
        conductivity = float(found.food.k_w_m_k[-1])  # of hot food: nearly even above freezing
        body = equal_body(halves, powers, h_w_m2_k, conductivity)
        packing = found.packing if line["of_cut"] == "yes" else 1.0
        return replace(body, half_m=body.half_m * packing)

    def surface_m2(self) -> float:
        """Whole surface to be glazed [m²]: two broad faces and the rim of a slab, the mantle of a
        cylinder.
        """
        found = cut(self.cut)
        thickness = self.thickness_mm * 1e-3
        volume = self.mass_kg / found.food.density_kg_m3
        if found.shape == "cylinder":
            return float(4.0 * volume / thickness)
        each = volume / self.pieces / thickness
        return self.pieces * (2.0 * each + 4.0 * sqrt(each) * thickness)


def check_kitchen(kitchen: Kitchen, ranges: Ranges) -> None:
    """Note what is out of range in a kitchen."""
    for name, number in kitchen.figures.items():
        ranges.within(f"kitchen.{name}", number, *LIMITS[name])
    for job, top in kitchen.tops_c.items():
        ranges.one_of(f"kitchen.tops_c.{job}", job, JOBS)
        ranges.within(f"kitchen.tops_c.{job}", top, 40.0, 500.0, "°C")
    for place, rack in enumerate(kitchen.racks_m):
        ranges.within(f"kitchen.racks_m.{place}", rack, 0.03, 0.45, "m")
    for finish, learnt in kitchen.learnt.items():
        ranges.one_of(f"kitchen.learnt.{finish}", finish, FINISHES)
        learnt.check(f"kitchen.learnt.{finish}", ranges)
