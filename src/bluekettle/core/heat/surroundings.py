"""What can surround a piece of food: steam, bath, simmering liquid, air still or moving, radiation,
a hot plate.

Each is one `Surroundings`: how strongly it exchanges heat, at what temperature, how dry it is, and
what radiates.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

from bluekettle.core.errors import Ranges
from bluekettle.core.tables import Row, row, rows, value

RACK_REFERENCE_M = 0.15  # where broilers are measured (design)


@dataclass(frozen=True)
class Surroundings:
    """A boundary. h [W/m²K], air and wall [°C], absorbed element flux [W/m²], vapour in the air
    [Pa]; `wet` surfaces (steam, bath, simmer, closed foil) neither evaporate nor dry."""

    h_w_m2_k: float
    air_c: float
    wall_c: float
    element_w_m2: float
    vapour_pa: float
    wet: bool


def surroundings(key: str, air_c: float | None = None) -> Surroundings:
    """One row of the surroundings table, at another temperature where `air_c` is given.

    Raises
    ------
    MissingData
        No such row.
    OutOfRange
        `air_c` outside 30 to 320 °C.
    """
    line: Row = row("surroundings", key)
    found = Surroundings(
        float(line["h_w_m2_k"]),
        float(line["air_c"]),
        float(line["wall_c"]),
        float(line["element_w_m2"]),
        float(line["vapour_pa"]),
        line["wet"] == "yes",
    )
    if air_c is None:
        return found
    ranges = Ranges()
    ranges.within("air_c", air_c, 30.0, 320.0, "°C")
    ranges.close()
    return replace(found, air_c=air_c, wall_c=air_c + found.wall_c - found.air_c)


def surroundings_keys() -> tuple[str, ...]:
    """All keys, in table order."""
    return tuple(rows("surroundings"))


def loaded_air_c(
    dial_c: float, power_w: float, loss_w_k: float, u_w_m2_k: float, area_m2: float, food_c: float
) -> float:
    """Temperature that a heater can hold in its air with food in it [°C]: its dial, or where power,
    loss to the room and what the food takes up balance.

    u_w_m2_k, area_m2, food_c : exchange with the food, its surface, and the temperature at which a
    wet surface holds it. Raises OutOfRange for a power, loss or exchange that is not above 0, and
    for temperatures no kitchen has.
    """
    ranges = Ranges()
    ranges.within("power_w", power_w, 1.0, 1e5, "W")
    ranges.within("loss_w_k", loss_w_k, 0.01, 1e3, "W/K")
    ranges.within("u_w_m2_k", u_w_m2_k, 0.1, 1e4, "W/m²K")
    ranges.within("area_m2", area_m2, 0.0, 100.0, "m²")
    ranges.within("dial_c", dial_c, 30.0, 400.0, "°C")
    ranges.within("food_c", food_c, 0.0, 120.0, "°C")
    ranges.close()
    food_w_k = u_w_m2_k * area_m2
    held = (power_w + loss_w_k * value("kitchen_c") + food_w_k * food_c) / (loss_w_k + food_w_k)
    return min(dial_c, held)


def element_at(flux_w_m2: float, distance_m: float) -> float:
    """Absorbed flux of a broiler's element [W/m²] at a rack distance [m], from that at 15 cm.

    An element over a tray: the view factor between facing strips, F = √(1 + x²) - x with x =
    distance / breadth, so that close up the flux grows slower than by any inverse square: twice the
    usual one at 5 cm, half of it at 30. Raises OutOfRange outside 0.03 to 0.45 m.
    """
    ranges = Ranges()
    ranges.within("distance_m", distance_m, 0.03, 0.45, "m")
    ranges.within("flux_w_m2", flux_w_m2, 0.0, 25_000.0, "W/m²")
    ranges.close()

    def view(d: float) -> float:
        x = d / 0.10  # breadth of the glowing loops [m] (typical, estimated)
        return float((1.0 + x * x) ** 0.5 - x)

    return flux_w_m2 * view(distance_m) / view(RACK_REFERENCE_M)
