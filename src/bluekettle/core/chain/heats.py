"""Every heat that a stage can be: one row each, with the models that know it.

A row has a slow part (heat goes in for as long as it takes), a fierce one (a surface that is looked
at), or both.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

from bluekettle.core.stages import FinishKind, FirstHeat, finish_kind, first_heat
from bluekettle.core.tables import row, rows


@dataclass(frozen=True)
class HeatRow:
    """One heat. body : what it occupies, so that another stage in it finds it warm. dial_low,
    dial_high : ends of its dial in `dial_unit`. needs : what else it takes, in words.
    outdoors : only ever lit in the open. flame : an open fire, into which what
    drips can catch. coals : it glows, and its ash stays hot.
    """

    key: str
    name: str
    slow: FirstHeat | None
    fierce: FinishKind | None
    body: str
    dial_low: float
    dial_high: float
    dial_unit: str
    needs: str
    outdoors: bool
    flame: bool
    coals: bool

    @property
    def proves(self) -> bool:
        """Whether a time at its temperature is proof: a water bath's."""
        return self.slow is not None and self.slow.proves

    @property
    def warms(self) -> str:
        """What it is that heats up: foil and a covered dish stand in an oven."""
        part = self.slow or self.fierce
        return row("bodies", self.body)["warms"] or (part.name if part else self.name)


@cache
def heat_row(key: str) -> HeatRow:
    """The heat of this key; MissingData names the known ones."""
    line = row("heats", key)
    return HeatRow(
        line["key"],
        line["name"],
        first_heat(line["slow"]) if line["slow"] else None,
        finish_kind(line["fierce"]) if line["fierce"] else None,
        line["body"],
        float(line["dial_low"]),
        float(line["dial_high"]),
        line["dial_unit"],
        line["needs"],
        line["outdoors"] == "yes",
        line["flame"] == "yes",
        line["coals"] == "yes",
    )


@cache
def heat_keys() -> tuple[str, ...]:
    """All heats, in table order."""
    return tuple(rows("heats"))
