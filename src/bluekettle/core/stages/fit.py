"""Whether a cut fits a vessel: height, a single layer with its gaps, batches, volume and the line,
drawn to scale.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from math import ceil, floor, pi, sqrt

from bluekettle.core.errors import Ranges
from bluekettle.core.pressure import Fill, fill_of
from bluekettle.core.stages.cuts import Cut, cut
from bluekettle.core.stages.inside import Inside
from bluekettle.core.stages.piece import Piece
from bluekettle.core.stages.tendering import Tendering
from bluekettle.core.tables import value
from bluekettle.core.units import amount, percent

SHAPES = ("round", "box")
TRIVET_M = 0.02  # a usual one (typical, estimated)
GAP_M = 0.008  # of air between pieces in a basket or on a tray (typical, estimated)
HEAD_M = 0.015  # air left above the food under a lid or element (typical, estimated)


@dataclass(frozen=True)
class Place:
    """A piece seen from above: its middle and its size [m], from the middle of the vessel."""

    x_m: float
    y_m: float
    width_m: float
    depth_m: float


@dataclass(frozen=True)
class Verdict:
    """One finding: stop, careful or fits; what, what would help, and what it is about: size, fill,
    batches or bones.
    """

    level: str
    message: str
    repair: str = ""
    about: str = "size"


@dataclass(frozen=True)
class Fit:
    """How a cut lies in a vessel. size_m : length, breadth, height of one piece as it lies. places
    : of a layer, none of what is coiled. layers : how many the height holds.
    """

    size_m: tuple[float, float, float]
    places: tuple[Place, ...]
    per_layer: int
    layers: int
    batches: int
    free_m: float
    fill: Fill | None
    verdicts: tuple[Verdict, ...]


def piece_size_m(
    found: Cut, mass_kg: float, pieces: int, thickness_mm: float
) -> tuple[float, float, float]:
    """Length, breadth and height [m] of one piece as it lies, bones and all."""
    height = 1e-3 * thickness_mm
    volume = mass_kg / found.food.density_kg_m3 / pieces
    if found.shape == "cylinder":
        return volume / (pi * height**2 / 4.0), height, height
    if found.shape == "sphere":
        across = (6.0 * volume / pi) ** (1.0 / 3.0)
        return across, across, across
    area = volume / height
    return sqrt(area * found.aspect), sqrt(area / found.aspect), height


def rows_in(inside: Inside, along: float, across: float, gap: float) -> list[Place]:
    """Pieces in rows, all lying the same way: the number of rows that holds most, each as full as
    its chord.
    """
    best: list[Place] = []
    depth = inside.width_m if inside.shape == "round" else inside.depth_m
    most = floor((depth + gap) / (across + gap) + 1e-9)
    for count in range(1, most + 1):
        places: list[Place] = []
        for i in range(count):
            y = (i - 0.5 * (count - 1)) * (across + gap)
            width = inside.width_m
            if inside.shape == "round":
                edge = abs(y) + 0.5 * across
                radius = 0.5 * inside.width_m
                width = 2.0 * sqrt(radius**2 - edge**2) if edge < radius else 0.0
            n = floor((width + gap) / (along + gap) + 1e-9)
            places += [
                Place((k - 0.5 * (n - 1)) * (along + gap), y, along, across) for k in range(n)
            ]
        if len(places) > len(best):
            best = places
    return best


def fit_cut(
    cut_key: str,
    mass_kg: float,
    pieces: int,
    thickness_mm: float,
    inside: Inside,
    touching: bool = False,
    stacked: bool = False,
    trivet_m: float = 0.0,
    liquid_l: float | None = None,
    swells: bool = False,
) -> Fit:
    """Lay a cut into a vessel.

    Parameters
    ----------
    mass_kg, pieces, thickness_mm : float, int, float
        As in the dish, 0.05 to 12 kg, 1 to 60, 5 to 150 mm.
    inside : Inside
        0.05 to 1 m across, 0.02 to 0.6 m high.
    touching : bool
        Pieces may touch (a pot); otherwise air between them (a basket, a tray).
    stacked : bool
        More than one layer is allowed; where pieces touch too, they may also stand on edge or coil.
    trivet_m, liquid_l : float
        Height of a rack below the food, 0 to 0.2 m; liquid, 0 to 20 L (the vessel's least where
        None).

    Raises
    ------
    OutOfRange
    """
    ranges = Ranges()
    ranges.within("mass_kg", mass_kg, 0.05, 12.0, "kg")
    ranges.within("pieces", pieces, 1, 60, "pieces")
    ranges.within("thickness_mm", thickness_mm, 5.0, 150.0, "mm")
    ranges.one_of("inside.shape", inside.shape, SHAPES)
    ranges.within("inside.width_m", inside.width_m, 0.05, 1.0, "m")
    ranges.within("inside.depth_m", inside.depth_m, 0.05, 1.0, "m")
    ranges.within("inside.height_m", inside.height_m, 0.02, 0.6, "m")
    ranges.within("inside.least_liquid_l", inside.least_liquid_l, 0.0, 20.0, "L")
    if inside.volume_l is not None:
        ranges.within("inside.volume_l", inside.volume_l, 0.5, 50.0, "L")
    ranges.within("inside.zones", inside.zones, 1, 4, "baskets")
    ranges.within("trivet_m", trivet_m, 0.0, 0.2, "m")
    if liquid_l is not None:
        ranges.within("liquid_l", liquid_l, 0.0, 20.0, "L")
    ranges.close()
    found = cut(cut_key)
    free = inside.height_m - trivet_m - HEAD_M
    size = piece_size_m(found, mass_kg, pieces, thickness_mm)
    lie = lying(found, size, pieces, inside, free, touching, stacked)
    fill = None
    if inside.least_liquid_l > 0.0 or liquid_l:
        food_l = mass_kg / found.food.density_kg_m3 * 1e3
        added = inside.least_liquid_l if liquid_l is None else liquid_l
        fill = fill_of(inside.litres, added, food_l, mass_kg * found.juice_fraction, swells)
    verdicts = [*lie_verdicts(found, lie, pieces, free)]
    if fill is not None:
        verdicts += fill_verdicts(fill, inside.least_liquid_l)
    verdicts += batch_verdicts(found, lie, pieces, touching)
    # from such a share bones stand out (estimated)
    if found.bone_fraction >= 0.15 and inside.least_liquid_l == 0.0 and lie.layers:
        tips = "Bones stand out: turn their tips inwards, away from the element."
        verdicts.append(Verdict("careful", tips, about="bones"))
    if lie.batches == 1 and not any(v.level == "stop" for v in verdicts):
        verdicts.insert(0, Verdict("fits", f"{counted(found, pieces)} fit {lie.words(pieces)}."))
    return Fit(
        size_m=lie.size_m,
        places=lie.places[:pieces],
        per_layer=lie.per_layer,
        layers=lie.layers,
        batches=lie.batches,
        free_m=free,
        fill=fill,
        verdicts=tuple(verdicts),
    )


@dataclass(frozen=True)
class Lie:
    """One way in which pieces may lie: flat, on_edge or coiled; the size of a piece as it lies [m],
    its places in a layer (none are drawn of a coil), layers and baskets.
    """

    way: str
    size_m: tuple[float, float, float]
    places: tuple[Place, ...]
    per_layer: int
    layers: int
    zones: int
    batches: int

    @property
    def at_once(self) -> int:
        """Pieces that go in together."""
        return self.per_layer * self.layers * self.zones

    def words(self, pieces: int) -> str:
        """How they lie."""
        if self.way == "on_edge":
            return "standing on edge"
        if self.way == "coiled":
            return "coiled, standing on edge"
        used = ceil(pieces / self.per_layer / self.zones)
        return "in one layer" if used == 1 else f"in {used} layers"


def lying(
    found: Cut,
    size: tuple[float, float, float],
    pieces: int,
    inside: Inside,
    free: float,
    touching: bool,
    stacked: bool,
) -> Lie:
    """The way that takes all at once: flat where that does, else, in a vessel that may be packed,
    on edge, else coiled (a rack, an arm).
    """
    flat = in_rows("flat", size, pieces, inside, free, touching, stacked)
    if flat.batches == 1 or not (touching and stacked):
        return flat
    on_edge = (size[0], size[2], size[1])
    standing = in_rows("on_edge", on_edge, pieces, inside, free, touching, stacked=False)
    if standing.batches == 1 and found.shape == "slab":
        return standing
    coil = coiled(on_edge, pieces, inside, free) if found.bends else flat
    return coil if coil.batches == 1 else flat


def in_rows(
    way: str,
    size: tuple[float, float, float],
    pieces: int,
    inside: Inside,
    free: float,
    touching: bool,
    stacked: bool,
) -> Lie:
    """Pieces in rows, the long side either way."""
    length, breadth, height = size
    gap = 0.0 if touching else GAP_M
    along, turned = (rows_in(inside, *lie, gap) for lie in ((length, breadth), (breadth, length)))
    places = tuple(turned if len(turned) > len(along) else along)
    layers = max(0, floor(free / height + 1e-9))
    layers = layers if stacked else min(1, layers)
    room = len(places) * layers * inside.zones
    batches = ceil(pieces / room) if room else 0
    return Lie(way, size, places, len(places), layers, inside.zones, batches)


def coiled(size: tuple[float, float, float], pieces: int, inside: Inside, free: float) -> Lie:
    """Pieces bent along the wall: what they cover, with the room that bends leave between them."""
    length, thickness, height = size
    depth = inside.width_m if inside.shape == "round" else inside.depth_m
    ground = inside.width_m * depth * (pi / 4.0 if inside.shape == "round" else 1.0)
    held = floor(value("coil_cover") * ground / (length * thickness) + 1e-9)
    layers = 1 if height <= free else 0
    room = held * layers * inside.zones
    batches = ceil(pieces / room) if room else 0
    return Lie("coiled", size, (), held, layers, inside.zones, batches)


def counted(found: Cut, pieces: int) -> str:
    """ "6 ribs"."""
    return f"{pieces} {found.piece}{'s' if pieces != 1 else ''}"


def cm(size_m: float) -> str:
    """A length in a sentence."""
    return amount(round(max(0.0, size_m) * 100.0, 1), "cm")


def lie_verdicts(found: Cut, lie: Lie, pieces: int, free: float) -> Iterator[Verdict]:
    """What does not go in at all."""
    length, breadth, height = lie.size_m
    if lie.layers == 0:
        yield Verdict(
            "stop",
            f"A {found.piece} is {cm(height)} high; {cm(free)} are free.",
            "A lower rack, thinner pieces, or another vessel",
        )
    if lie.per_layer == 0:
        yield Verdict(
            "stop",
            f"A {found.piece} of {cm(length)} by {cm(breadth)} does not lie flat in it.",
            "Cut the pieces, or take another vessel",
        )


def fill_verdicts(fill: Fill, least: float) -> Iterator[Verdict]:
    """What the lines of a pot say."""
    if fill.share > fill.line:
        yield Verdict(
            "stop",
            f"It would be {percent(fill.share)} full; the line is at {percent(fill.line)}.",
            "Less food, or two batches",
            "fill",
        )
    if fill.liquid_before_l < least * (1.0 - value("least_liquid_leeway")):
        yield Verdict(
            "stop",
            f"{amount(fill.liquid_before_l, 'L')} of liquid is under the vessel's least of"
            f" {amount(least, 'L')}.",
            f"Add {amount(least - fill.liquid_before_l, 'L')}",
            "fill",
        )
    if fill.liquid_after_l > 2.0 * fill.liquid_before_l:
        yield Verdict(
            "careful",
            f"Juices bring {amount(fill.liquid_before_l, 'L')} of liquid to"
            f" {amount(fill.liquid_after_l, 'L')}.",
            "Leave the sauce out of the pot, or reduce it afterwards",
            "fill",
        )


def batch_verdicts(found: Cut, lie: Lie, pieces: int, touching: bool) -> Iterator[Verdict]:
    """What goes in only in turns; of what may touch, smaller pieces help more."""
    helps = "Keep what is done warm, open on a rack; a minute under the heat again freshens it"
    if touching:
        helps = "Smaller pieces lie closer, or take a larger vessel; else the rest cooks after it"
    if lie.batches > 1:
        yield Verdict(
            "careful",
            f"{lie.at_once} of {counted(found, pieces)} go in at once: {lie.batches} batches.",
            helps,
            "batches",
        )


def fit_slow(dish: Tendering) -> Fit | None:
    """How food lies in the vessel of its slow heat; None where the kitchen knows no inside of it.

    A pot may be filled in layers, over its trivet where there is one; hot air wants one layer with
    air between. Raises OutOfRange as `fit_cut`.
    """
    inside = dish.kitchen.insides.get(dish.first.job)
    if inside is None:
        return None
    amounts = (dish.cut, dish.mass_kg, dish.pieces, dish.thickness_mm)
    if dish.first.dry:
        return fit_cut(*amounts, inside)
    if not dish.first.takes_liquid:
        return None
    gear = dish.kitchen.gear or frozenset()
    racked = dish.first.job == "pot" and "trivet" in gear
    return fit_cut(
        *amounts,
        inside,
        touching=True,
        stacked=True,
        trivet_m=TRIVET_M if racked else 0.0,
        liquid_l=dish.liquid,
    )


def fit_fierce(food: Piece, finish: str) -> Fit | None:
    """How food lies under a fierce heat; None where the kitchen knows no inside of it."""
    inside = food.kitchen.insides.get(finish)
    if inside is None:
        return None
    return fit_cut(food.cut, food.mass_kg, food.pieces, food.thickness_mm, inside)
