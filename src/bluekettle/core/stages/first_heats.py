"""Heats as slow ones, that go on for as long as it takes: that part of their rows, with its words,
its dial and what it needs.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

from bluekettle.core.stages.appliances import ApplianceKind, appliance_kind
from bluekettle.core.tables import part, parts, row


@dataclass(frozen=True)
class Setting:
    """A word on the machine, and the figure of its dial that it stands for."""

    name: str
    value: float


def settings_of(told: str) -> tuple[Setting, ...]:
    """Settings as the table writes them: "low 115; high 220"."""
    pairs = [one.split() for one in told.split(";") if one.strip()]
    return tuple(Setting(name, float(figure)) for name, figure in pairs)


@dataclass(frozen=True)
class FirstHeat:
    """One way to make food tender.

    around : row of the surroundings where the food is in air or foil; empty where it is in a vessel
    of liquid or steam.
    dial : the kitchen figure a cook turns. figures : all kitchen figures that enter. preheat : the
    figure of its heating up [min], empty where it starts cold. body : what it occupies (a finish in
    the same body finds it warm). lies : how the pieces lie in it, stacked or in a single layer.
    settings : the words that its dial has instead of figures.
    liquid_l, liquid_l_kg : usual liquid [L] and more of it per kg of food [L/kg]; both 0 where it
    takes none.
    turns : how often the food is turned in it. longest_s, step_s : longest hold looked at and the
    model's shortest step [s]. wets : what leaves it has a wet surface. proves : a time at its
    temperature is proof. from_frozen : frozen meat may go straight into it. full_dial : the
    figure of a dial that the whole heating up is for, empty where it always takes all of it.
    feels : a skewer can try the food while it goes on. way_back : its place among those that are
    tried where food has to go back, 0 for never. released : its pressure has to be let go before it
    is opened. goes_on : row of the waits of a meal, where it is not ended at once. The rest are
    words and handwork.
    """

    key: str
    name: str
    place: str
    done: str
    hint: str
    around: str
    dial: str
    settings: tuple[Setting, ...]
    figures: tuple[str, ...]
    preheat: str
    body: str
    lies: str
    liquid_l: float
    liquid_l_kg: float
    load: str
    load_says: str
    wait_says: str
    up_says: str
    hold_says: str
    open: str
    open_says: str
    feels: bool
    back: str
    turns: int
    longest_s: float
    step_s: float
    wets: bool
    proves: bool
    from_frozen: bool
    full_dial: str
    way_back: int
    released: bool
    goes_on: str
    appliance: ApplianceKind

    def setting_at(self, figure: float) -> str:
        """The word on its dial for a figure; empty where it has none within 2 % of it."""
        near = 0.02  # of the figure (design)
        names = [s.name for s in self.settings if abs(s.value - figure) <= near * s.value]
        return names[0] if names else ""

    @property
    def job(self) -> str:
        """What the food lies in, by the type of its appliance: its inside and its machine's words
        are kept by it.
        """
        return self.appliance.type

    @property
    def takes_liquid(self) -> bool:
        """Whether liquid is measured into it."""
        return self.liquid_l > 0.0

    @property
    def dry(self) -> bool:
        """Whether hot air reaches the food, so that its surface dries."""
        return bool(self.around) and row("surroundings", self.around)["wet"] != "yes"


@cache
def first_heat(key: str) -> FirstHeat:
    """The first heat of this key; MissingData names the known ones."""
    line = part("heats", "slow", key)
    return FirstHeat(
        line["key"],
        line["name"],
        line["place"],
        line["done"],
        line["hint"],
        line["around"],
        line["dial"],
        settings_of(line["settings"]),
        tuple(line["figures"].split()),
        line["preheat"],
        line["body"],
        line["lies"],
        float(line["liquid_l"]),
        float(line["liquid_l_kg"]),
        line["load"],
        line["load_says"],
        line["wait_says"],
        line["up_says"],
        line["hold_says"],
        line["open"],
        line["open_says"],
        line["feels"] == "yes",
        line["back"],
        int(line["turns"]),
        3600.0 * float(line["longest_h"]),
        float(line["step_s"]),
        line["wets"] == "yes",
        line["proves"] == "yes",
        line["from_frozen"] != "no",
        line["full_dial"],
        int(line["way_back"] or 0),
        line["released"] == "yes",
        line["goes_on"],
        appliance_kind(line["appliance"]),
    )


@cache
def first_heat_keys() -> tuple[str, ...]:
    """All first heats, in table order."""
    return tuple(parts("heats", "slow"))
