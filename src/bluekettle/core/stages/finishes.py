"""Heats as fierce ones, that are looked at: that part of their rows, with words and dial."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

from bluekettle.core.stages.appliances import ApplianceKind, appliance_kind
from bluekettle.core.tables import part, parts


@dataclass(frozen=True)
class FinishKind:
    """One way to finish.

    dial : the kitchen figure a cook turns (a rack distance [m] or an air temperature [°C]).
    figures : all kitchen figures that enter. gentle, fierce : ends of the dial that advice looks
    at. preheat : the kitchen figure of its heating up [min]. vent, away : as in `Heat`. air : a
    thermometer beside the food reads where its dial stands. sides : broad sides it heats at once.
    calmer : how it is made gentler while food is in it. elsewhere : the finish that food is moved
    to from it. back_in : the slow heat in the same body, in which food that was not done can go
    on; empty where there is none. tray : fat pools on a tray under the food. The rest are words.
    """

    key: str
    name: str
    place: str
    done: str
    hint: str
    dial: str
    figures: tuple[str, ...]
    preheat: str
    gentle: float
    fierce: float
    vent: float
    sides: int
    away: float
    air: bool
    lift: str
    into: str
    look: str
    put: str
    button: str
    where: str
    off: str
    hot_thing: str
    calmer: str
    elsewhere: str
    back_in: str
    tray: bool
    appliance: ApplianceKind


@cache
def finish_kind(key: str) -> FinishKind:
    """The finish of this key; MissingData names the known ones."""
    line = part("heats", "fierce", key)
    return FinishKind(
        line["key"],
        line["name"],
        line["place"],
        line["done"],
        line["hint"],
        line["dial"],
        tuple(line["figures"].split()),
        line["preheat"],
        float(line["gentle"]),
        float(line["fierce"]),
        float(line["vent"]),
        int(line["sides"]),
        float(line["away"]),
        line["air"] == "yes",
        line["lift"],
        line["into"],
        line["look"],
        line["put"],
        line["button"],
        line["where"],
        line["off"],
        line["hot_thing"],
        line["calmer"],
        line["elsewhere"],
        line["back_in"],
        line["tray"] == "yes",
        appliance_kind(line["appliance"]),
    )


@cache
def finish_keys() -> tuple[str, ...]:
    """All finishes, in table order."""
    return tuple(parts("heats", "fierce"))
