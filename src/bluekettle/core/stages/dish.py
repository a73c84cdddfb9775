"""A dish as it is asked for, and the kitchen it is cooked in; checked whole before anything is
computed.
"""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from math import pi, sqrt

from bluekettle.core.errors import MissingData, Ranges
from bluekettle.core.glaze import Act
from bluekettle.core.heat import Body, equal_body
from bluekettle.core.sauce import CONTACTS, RAW, Composition
from bluekettle.core.stages.finishes import FinishKind, finish_keys, finish_kind
from bluekettle.core.stages.first_heats import FirstHeat, first_heat, first_heat_keys
from bluekettle.core.stages.kitchen import LIMITS, MAX_COATS, Kitchen
from bluekettle.core.tables import Row, row, rows, value
from bluekettle.core.tenderness import BITES
from bluekettle.core.thermo import FoodProperties, food_properties
from bluekettle.core.units import percent

STATES = ("fridge", "frozen")
TENDERISE = first_heat_keys()
RELEASES = ("quick", "mixed", "natural")
FINISHES = finish_keys()
JOBS = tuple(dict.fromkeys((*FINISHES, *(first_heat(key).job for key in TENDERISE))))
WANTS = ("amber", "mahogany")
SIGNS = ("nothing yet", "bubbling", "amber at the edges", "dark")
MAX_FLIPS = 4
BONY = 0.1  # share of bone from which bones are a work of their own (typical, estimated)
WIDE_M = 0.5  # a half-length from which on food is endless in that direction (numerical)
LEAST_BETWEEN_MIN = 1.0  # between two coats: brushing itself takes most of a minute


@dataclass(frozen=True)
class Cut:
    """One row of the cuts table, typed. Targets are cook values [min] by bite; a bite that makes no
    sense is absent.
    """

    key: str
    name: str
    piece: str
    species: str
    shape: str
    thickness_mm: float
    thin_mm: float
    thick_mm: float
    mass_kg: float
    pieces: int
    packing: float
    juice_fraction: float
    bone_fraction: float  # bone, core and trimmings that are not eaten
    aspect: float  # length over breadth of a piece
    bends: bool  # a rack or an arm can be coiled in a pot
    salted: bool  # as it is bought
    cooked: bool  # as it is bought: what touches it has touched nothing raw
    site: str
    targets: dict[str, float]
    overdone: float
    safe_c: float
    safe_if: str  # what that temperature holds for, where not for all; amounts in braces [°C]
    pleasant_c: float | None
    release: str
    usual_heat: str  # that kitchens make it tender with, and brown it with: keys of `heats`
    usual_finish: str
    allergens: tuple[str, ...]
    food: FoodProperties

    @property
    def gate(self) -> bool:
        """Whether a thermometer gate stands before the plate (anything but vegetables)."""
        return self.species != "vegetable"

    @property
    def is_meat(self) -> bool:
        """Whether it is meat or poultry."""
        return self.species not in ("vegetable", "seafood")

    @property
    def on_the_bone(self) -> bool:
        """Whether meat is on a bone: of anything else the share is core and trimmings."""
        return self.is_meat and self.bone_fraction >= BONY

    @property
    def usual_bite(self) -> str:
        """What most want of it."""
        return "falls" if "falls" in self.targets else list(self.targets)[-1]

    def bite_words(self, bite: str) -> tuple[str, str]:
        """What a bite is called ("falls off the bone"), and what it means; of what has no bone it
        is not said to stay on one. MissingData for an unknown bite.
        """
        line = row("bites", bite)
        if self.on_the_bone:
            return line["text"], line["hint"]
        return line["bare_text"], line["bare_hint"]


_CUTS: dict[str, Cut] = {}


def cut(key: str) -> Cut:
    """The cut of this key; MissingData names the known ones."""
    if key not in _CUTS:
        _CUTS[key] = _read_cut(row("cuts", key))
    return _CUTS[key]


def _read_cut(line: Row) -> Cut:
    targets = {bite: float(line[f"c_{bite}"]) for bite in BITES if line[f"c_{bite}"]}
    parts = {name: float(line[name]) for name in ("water", "protein", "fat", "carbohydrate", "ash")}
    return Cut(
        line["key"],
        line["name"],
        line["piece"],
        line["species"],
        line["shape"],
        float(line["thickness_mm"]),
        float(line["thin_mm"]),
        float(line["thick_mm"]),
        float(line["mass_kg"]),
        int(line["pieces"]),
        float(line["packing"]),
        float(line["juice_fraction"]),
        float(line["bone_fraction"]),
        float(line["aspect"]),
        line["bends"] == "yes",
        line["salted"] == "yes",
        line["cooked"] == "yes",
        line["site"],
        targets,
        float(line["c_overdone"]),
        float(line["safe_c"]),
        line["safe_if"],
        float(line["pleasant_c"]) if line["pleasant_c"] else None,
        line["release"],
        line["usual_heat"],
        line["usual_finish"],
        tuple(line["allergens"].split()),
        food_properties(parts),
    )


def cut_keys() -> tuple[str, ...]:
    """Keys of all cuts, in table order."""
    return tuple(rows("cuts"))


@dataclass(frozen=True)
class Sighting:
    """What the cook saw, and when: seconds under the heat."""

    sign: str
    at_s: float


@dataclass(frozen=True)
class Dish:
    """One food through tenderising and finish. liquid_l, timer_min and release None: computed or
    the usual one.

    coats_min : minute under the heat of each coat, in order; None: the first before the heat, each
    later one when the last has set. flips_min : minutes at which the food is turned; with any, both
    broad sides have to brown. told : coats and turns that were done, by seconds under the heat.
    sauce_lines : ingredients that the cook mixes, 0 for a bottle. contact : of the sauce with raw
    food.
    """

    cut: str
    mass_kg: float
    pieces: int
    thickness_mm: float
    state: str = "fridge"
    tenderise: str = "pressure"
    bite: str = "falls"
    release: str | None = None
    liquid_l: float | None = None
    timer_min: float | None = None
    finish: str = "broiler"
    want: str = "amber"
    sauce: Composition | None = None
    coats: int = 0
    coat_mm: float = 0.5
    coats_min: tuple[float, ...] | None = None
    flips_min: tuple[float, ...] = ()
    kitchen: Kitchen = field(default_factory=Kitchen)
    seed: int = 1
    sightings: tuple[Sighting, ...] = ()
    told: tuple[Act, ...] = ()
    sauce_lines: int = 0
    contact: str = "clean"

    def check(self) -> Cut:
        """The dish's cut, once everything is in range.

        Raises
        ------
        OutOfRange
            Every fault at once, fields named as in the dish document.
        """
        ranges = Ranges()
        ranges.one_of("cut", self.cut, cut_keys())
        ranges.one_of("state", self.state, STATES)
        ranges.one_of("tenderise", self.tenderise, TENDERISE)
        ranges.one_of("finish", self.finish, FINISHES)
        ranges.one_of("want", self.want, WANTS)
        ranges.one_of("sauce.contact", self.contact, CONTACTS)
        if self.release is not None:
            ranges.one_of("release", self.release, RELEASES)
        for name in (
            "mass_kg",
            "pieces",
            "thickness_mm",
            "coats",
            "coat_mm",
            "liquid_l",
            "timer_min",
        ):
            if getattr(self, name) is not None:
                ranges.within(name, getattr(self, name), *LIMITS[name])
        for name, number in self.kitchen.figures.items():
            ranges.within(f"kitchen.{name}", number, *LIMITS[name])
        self._check_moments(ranges)
        vessel = self.kitchen.insides.get(self.first.job) if self.tenderise in TENDERISE else None
        if vessel is not None and self.first.takes_liquid:
            ranges.within(
                f"kitchen.machines.{self.first.job}.inside", vessel.litres, 0.5, 50.0, "L of volume"
            )
        for finish, top in self.kitchen.tops_c.items():
            ranges.one_of(f"kitchen.tops_c.{finish}", finish, JOBS)
            ranges.within(f"kitchen.tops_c.{finish}", top, 40.0, 500.0, "°C")
        for place, rack in enumerate(self.kitchen.racks_m):
            ranges.within(f"kitchen.racks_m.{place}", rack, 0.03, 0.45, "m")
        for finish, learnt in self.kitchen.learnt.items():
            ranges.one_of(f"kitchen.learnt.{finish}", finish, FINISHES)
            learnt.check(f"kitchen.learnt.{finish}", ranges)
        for place, seen in enumerate(self.sightings):
            ranges.one_of(f"sightings.{place}.sign", seen.sign, SIGNS)
            ranges.within(f"sightings.{place}.at_s", seen.at_s, 1.0, 10_800.0, "s under the heat")
        if (
            self.liquid_l is not None
            and self.tenderise in TENDERISE
            and not self.first.takes_liquid
        ):
            ranges.add("liquid_l", self.liquid_l, f"null: {self.first.place} takes no liquid")
        if self.sauce is not None and self.sauce.water > 0.95:
            ranges.add(
                "sauce.lines",
                f"{percent(self.sauce.water)} water",
                "a sauce with at least 5 % that is not water",
            )
        if self.sauce is None and self.coats > 0:
            ranges.add("coats", self.coats, "0 coats when there is no sauce")
        if self.sauce is not None and self.coats == 0:
            ranges.add("coats", self.coats, f"1 to {MAX_COATS} coats when there is a sauce")
        if self.cut in cut_keys():
            found = cut(self.cut)
            ranges.one_of("bite", self.bite, tuple(found.targets))
            if not ranges.faults:
                self._check_shape(found, ranges)
        ranges.close()
        return cut(self.cut)

    def _check_moments(self, ranges: Ranges) -> None:
        """Coats and flips lie in order, within the longest finish, and there is a moment for each
        coat.
        """
        if len(self.flips_min) > MAX_FLIPS:
            ranges.add("flips_min", len(self.flips_min), f"up to {MAX_FLIPS} turns")
        if self.flips_min and self.finish in FINISHES and self.kind.sides > 1:
            ranges.add(
                "flips_min",
                list(self.flips_min),
                f"none: a {self.kind.name} heats both sides at once",
            )
        if self.coats_min is not None and len(self.coats_min) != self.coats:
            ranges.add(
                "coats_min",
                list(self.coats_min),
                f"one minute for each of the {self.coats} coats, or null",
            )
        for name, least in (("coats_min", LEAST_BETWEEN_MIN), ("flips_min", 0.0)):
            before = None
            for place, minute in enumerate(getattr(self, name) or ()):
                low, high, unit = LIMITS[name]
                ranges.within(
                    f"{name}.{place}", minute, low if before is None else before + least, high, unit
                )
                before = minute

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

    @property
    def release_kind(self) -> str:
        """The release asked for, or the usual one for this cut."""
        return self.release or cut(self.cut).release

    @property
    def raw_late(self) -> bool:
        """Whether a sauce that touched raw food, unboiled, goes onto ready food."""
        return self.sauce is not None and self.coats > 0 and self.contact == RAW

    @property
    def kind(self) -> FinishKind:
        """The row of its finish."""
        return finish_kind(self.finish)

    @property
    def first(self) -> FirstHeat:
        """The row of its first heat."""
        return first_heat(self.tenderise)

    @property
    def liquid(self) -> float:
        """Liquid [L]: as asked, or the usual of its first heat (a pressure pot's least and a little
        over).
        """
        if self.liquid_l is not None:
            return self.liquid_l
        return round(self.first.liquid_l + self.first.liquid_l_kg * self.mass_kg, 2)

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

    def body(self, h_w_m2_k: float) -> Body:
        """The body of one dimension that heats like one piece at this exchange [W/m²K].

        Where pieces are stacked, the cut's `packing` stands for how they touch (above 1) or let the
        steam in between (below 1).

        Raises
        ------
        MissingData
            A way to lie that no rule is known for.
        """
        found = cut(self.cut)
        found_halves, powers = self.directions()
        halves = tuple(min(half, WIDE_M) for half in found_halves)
        conductivity = float(found.food.k_w_m_k[-1])  # of hot food: nearly even above freezing
        body = equal_body(halves, powers, h_w_m2_k, conductivity)
        packing = {"stacked": found.packing, "single": 1.0}.get(self.first.lies)
        if packing is None:
            raise MissingData("lies", self.first.lies, ("stacked", "single"))
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

    def coat_kg_m2(self) -> float:
        """Mass of one coat [kg/m²] from its thickness and the sauce's density."""
        if self.sauce is None:
            return value("bare_juice_kg_m2")
        return self.coat_mm * self.sauce.mass_kg / self.sauce.volume_l
