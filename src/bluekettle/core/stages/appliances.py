"""The kinds of appliances: one row each of their table, typed."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

from bluekettle.core.errors import MissingData
from bluekettle.core.tables import row, rows


@dataclass(frozen=True)
class ApplianceKind:
    """A kind of appliance with its typical figures; None for what a kind does not have.

    power_w, element_w_m2 : of its heater and of an open element on food. loss_w_k : to the room.
    gauge_kpa : at its pressure. body_j_k : heat that its body takes. least_liquid_l : 0 where it
    takes none. air_c, wall_c, h_w_m2_k : in it at its usual setting. preheat_s : to get there.
    spread : log sd of its heat. top_c : the end of its dial. width_m, depth_m, height_m : of its
    inside. racks_m : from the element. shares : the kind whose body it is part of.
    """

    key: str
    name: str
    type: str
    power_w: float | None
    loss_w_k: float | None
    volume_l: float | None
    gauge_kpa: float | None
    body_j_k: float | None
    least_liquid_l: float
    air_c: float | None
    wall_c: float | None
    h_w_m2_k: float | None
    element_w_m2: float | None
    preheat_s: float | None
    spread: float
    top_c: float | None
    shape: str
    width_m: float | None
    depth_m: float | None
    height_m: float | None
    racks_m: tuple[float, ...]
    shares: str
    preset: str

    def figure(self, name: str) -> float:
        """A figure that this kind has to have [as above]; MissingData where it has none."""
        found = getattr(self, name)
        if not isinstance(found, float):
            raise MissingData(f"appliances/{self.key}", name, ())
        return found


@cache
def appliance_kind(key: str) -> ApplianceKind:
    """The kind of this key; MissingData names the known ones."""
    line = row("appliances", key)

    def number(name: str) -> float | None:
        return float(line[name]) if line[name] else None

    return ApplianceKind(
        key=key,
        name=line["name"],
        type=line["type"],
        power_w=number("power_w"),
        loss_w_k=number("loss_w_k"),
        volume_l=number("volume_l"),
        gauge_kpa=number("gauge_kpa"),
        body_j_k=number("body_j_k"),
        least_liquid_l=number("least_liquid_l") or 0.0,
        air_c=number("air_c"),
        wall_c=number("wall_c"),
        h_w_m2_k=number("h_w_m2_k"),
        element_w_m2=number("element_w_m2"),
        preheat_s=number("preheat_s"),
        spread=float(line["spread"]),
        top_c=number("top_c"),
        shape=line["shape"],
        width_m=number("width_m"),
        depth_m=number("depth_m"),
        height_m=number("height_m"),
        racks_m=tuple(float(rack) for rack in line["racks_m"].split()),
        shares=line["shares"],
        preset=line["preset"],
    )


@cache
def appliance_keys() -> tuple[str, ...]:
    """All kinds, in table order."""
    return tuple(rows("appliances"))
