"""Whether a cut fits a vessel: height, a single layer with its gaps, batches, volume and the line,
drawn to scale.
"""

from __future__ import annotations

from dataclasses import dataclass
from math import ceil, floor, pi, sqrt

from bluekettle.core.errors import Ranges
from bluekettle.core.pressure import Fill, fill_of
from bluekettle.core.stages.dish import Cut, Dish, cut
from bluekettle.core.stages.inside import Inside

SHAPES = ("round", "box")
TRIVET_M = 0.02  # a usual one (typical, estimated)
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
    """How a cut lies in a vessel. size_m : length, breadth, height of one piece. layers : how many
    the height holds.
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
        Pieces may touch (a pot); otherwise 8 mm of air between them (a basket, a tray).
    stacked : bool
        More than one layer is allowed.
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
    length, breadth, height = piece_size_m(found, mass_kg, pieces, thickness_mm)
    gap = 0.0 if touching else 0.008
    tries = [rows_in(inside, length, breadth, gap), rows_in(inside, breadth, length, gap)]
    places = max(tries, key=len)
    free = inside.height_m - trivet_m - HEAD_M
    layers = (
        max(0, floor(free / height + 1e-9))
        if stacked
        else min(1, max(0, floor(free / height + 1e-9)))
    )
    room = len(places) * layers * inside.zones
    batches = ceil(pieces / room) if room else 0
    fill = None
    least = inside.least_liquid_l
    if least > 0.0 or liquid_l:
        food_l = mass_kg / found.food.density_kg_m3 * 1e3
        amount = least if liquid_l is None else liquid_l
        fill = fill_of(inside.litres, amount, food_l, mass_kg * found.juice_fraction, swells)
    names = f"{found.piece}s" if pieces != 1 else found.piece
    verdicts = _judge(
        found,
        (length, breadth, height),
        places,
        pieces,
        layers,
        batches,
        free,
        fill,
        least,
        inside,
        names,
    )
    return Fit(
        (length, breadth, height),
        tuple(places[:pieces]),
        len(places),
        layers,
        batches,
        free,
        fill,
        verdicts,
    )


def _judge(
    found: Cut,
    size: tuple[float, float, float],
    places: list[Place],
    pieces: int,
    layers: int,
    batches: int,
    free: float,
    fill: Fill | None,
    least: float,
    inside: Inside,
    names: str,
) -> tuple[Verdict, ...]:
    """What stops it, what needs care, or that it fits."""
    out: list[Verdict] = []
    if layers == 0:
        out.append(
            Verdict(
                "stop",
                f"A {found.piece} is {size[2] * 100:.1f} cm high; {max(0.0, free) * 100:.1f} cm are"
                " free.",
                "A lower rack, thinner pieces, or another vessel",
            )
        )
    if not places:
        out.append(
            Verdict(
                "stop",
                f"A {found.piece} of {size[0] * 100:.0f} by {size[1] * 100:.0f} cm does not lie"
                " flat in it.",
                "Cut the pieces, or take another vessel",
            )
        )
    if fill is not None:
        if fill.share > fill.line:
            out.append(
                Verdict(
                    "stop",
                    f"It would be {fill.share:.0%} full; the line is at {fill.line:.0%}.",
                    "Less food, or two batches",
                    "fill",
                )
            )
        if fill.liquid_before_l < least:
            out.append(
                Verdict(
                    "stop",
                    f"{fill.liquid_before_l:g} L of liquid is under the vessel's least of"
                    f" {least:g} L.",
                    f"Add {least - fill.liquid_before_l:.2f} L",
                    "fill",
                )
            )
        if fill.liquid_after_l > 2.0 * fill.liquid_before_l:
            out.append(
                Verdict(
                    "careful",
                    f"Juices bring {fill.liquid_before_l:.2f} L of liquid to"
                    f" {fill.liquid_after_l:.2f} L.",
                    "Leave the sauce out of the pot, or reduce it afterwards",
                    "fill",
                )
            )
    if batches > 1:
        out.append(
            Verdict(
                "careful",
                f"{len(places) * layers * inside.zones} of {pieces} {names} go in at once:"
                f" {batches} batches.",
                "Hold the first batch warm, and crisp it again for a minute",
                "batches",
            )
        )
    if found.bone_fraction >= 0.15 and inside.least_liquid_l == 0.0 and layers:
        out.append(
            Verdict(
                "careful",
                "Bones stand out: turn their tips inwards, away from the element.",
                "",
                "bones",
            )
        )
    if not any(v.level == "stop" for v in out) and batches == 1:
        layers_used = ceil(pieces / len(places) / inside.zones)
        how = "one layer" if layers_used == 1 else f"{layers_used} layers"
        out.insert(0, Verdict("fits", f"{pieces} {names} fit in {how}.", ""))
    return tuple(out)


def fits_of(dish: Dish) -> dict[str, Fit]:
    """How a dish lies in the kept vessels it goes through: by job, where the kitchen knows their
    insides.

    A pot may be filled in layers, over its trivet where there is one; hot air wants one layer with
    air between. Raises OutOfRange as `fit_cut`.
    """
    found = {}
    amounts = (dish.cut, dish.mass_kg, dish.pieces, dish.thickness_mm)
    job = dish.first.job
    first = dish.kitchen.insides.get(job)
    if first is not None and dish.first.takes_liquid:
        racked = job == "pot" and dish.kitchen.gear and "trivet" in dish.kitchen.gear
        found[job] = fit_cut(
            *amounts,
            first,
            touching=True,
            stacked=True,
            trivet_m=TRIVET_M if racked else 0.0,
            liquid_l=dish.liquid,
        )
    elif first is not None and dish.first.dry:
        found[job] = fit_cut(*amounts, first)
    finish = dish.kitchen.insides.get(dish.finish)
    if finish is not None:
        found[dish.finish] = fit_cut(*amounts, finish)
    return found
