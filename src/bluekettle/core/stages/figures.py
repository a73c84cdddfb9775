"""Every figure of a kitchen in one place, a row of `kitchen_figures.csv`: its words, its unit, what
is accepted, what is typical, and what kitchens differ by.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

from bluekettle.core.errors import MissingData
from bluekettle.core.stages.appliances import appliance_kind
from bluekettle.core.tables import Row, rows

PREHEAT = "preheat_s"  # the column of heating up, told in minutes


@dataclass(frozen=True)
class Figure:
    """One figure, in `unit`. low, high : accepted. usual_low, usual_high : a tenth of kitchens lie
    below, a tenth above. draw : of the ensemble, for a property of a kitchen that nobody stated;
    empty for a dial, which is set as the plan says. low_says, high_says : its usual ends as a cook
    says them, where the unit says nothing. known : what it is of, in a list of what is known.
    """

    key: str
    label: str
    describes: str
    unit: str
    typical: float
    low: float
    high: float
    usual_low: float
    usual_high: float
    draw: str
    low_says: str
    high_says: str
    known: str


def typical_of(told: str) -> float:
    """What "water-bath power_w", a column of the appliances, or a plain number comes to [the
    figure's unit].
    """
    appliance, _, column = told.partition(" ")
    if not column:
        return float(told)
    found = appliance_kind(appliance).figure(column)
    return found / 60.0 if column == PREHEAT else found


def _read(line: Row) -> Figure:
    return Figure(
        line["key"],
        line["label"],
        line["describes"],
        line["unit"],
        typical_of(line["typical"]),
        float(line["low"]),
        float(line["high"]),
        float(line["usual_low"]),
        float(line["usual_high"]),
        line["draw"],
        line["low_says"],
        line["high_says"],
        line["known"],
    )


@cache
def figures() -> dict[str, Figure]:
    """All figures by their key, in table order."""
    return {key: _read(line) for key, line in rows("kitchen_figures").items()}


def figure(key: str) -> Figure:
    """The figure of this key; MissingData names the known ones."""
    found = figures().get(key)
    if found is None:
        raise MissingData("kitchen figure", key, tuple(figures()))
    return found
