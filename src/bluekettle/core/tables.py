"""Reads the data folder once and checks it; the models ask here and never open a file.

Every row tells its source (a key of data/sources.toml), its kind (how the figure came about) and,
for a lone constant, the bounds it is believed to lie in.
"""

from __future__ import annotations

import csv
import math
import re
import tomllib
from dataclasses import dataclass
from functools import cache
from pathlib import Path

from bluekettle.core.errors import MissingData

__all__ = [
    "Constant",
    "Row",
    "check_data",
    "constant",
    "constants",
    "part",
    "parts",
    "row",
    "rows",
    "sources",
    "value",
]

DATA = Path(__file__).parent / "data"
KINDS = ("measured", "reviewed", "compiled", "derived", "estimated")
# What the kitchen looks like at a step: food on a board and the like, or a vessel and its state.
SHOWN = (
    *("board", "brush", "cold", "covered", "check", "rest", "plate"),
    *("slow/empty", "slow/open", "slow/warming", "slow/holding", "slow/falling", "slow/venting"),
    *("fierce/empty", "fierce/open", "fierce/under"),
)
TABLES = (
    "cuts",
    "ingredients",
    "tints",
    "sauces",
    "appliances",
    "handwork",
    "cautions",
    "heat_cautions",
    "water_activity",
    "surroundings",
    "heats",
    "lying",
    "measures",
    "swaps",
    "step_words",
    "preparation",
    "beginnings",
    "bites",
    "offers",
    "kitchen_figures",
    "energy",
    "schools",
    "meal_waits",
    "bodies",
    "sides",
)

Row = dict[str, str]


@dataclass(frozen=True)
class Constant:
    """A model constant with its unit, believed bounds and provenance."""

    name: str
    value: float
    unit: str
    low: float
    high: float
    source: str
    kind: str
    note: str


@cache
def sources() -> dict[str, dict[str, str]]:
    """All sources by key."""
    return tomllib.loads((DATA / "sources.toml").read_text(encoding="utf-8"))


@cache
def rows(table: str) -> dict[str, Row]:
    """All rows of a table by their `key` column, in file order."""
    with (DATA / f"{table}.csv").open(encoding="utf-8", newline="") as file:
        return {line["key"]: line for line in csv.DictReader(file)}


@cache
def parts(table: str, name: str) -> dict[str, Row]:
    """Rows of a table that have a part of this name, by the key of that part: its columns, which
    begin with the name, without it, and the row's own.
    """
    found = {}
    for line in rows(table).values():
        if line[name]:
            own = {key.removeprefix(f"{name}_"): told for key, told in line.items()}
            found[line[name]] = {**line, **own, "key": line[name]}
    return found


def part(table: str, name: str, key: str) -> Row:
    """A part of a row by its key; MissingData names the known ones."""
    found = parts(table, name).get(key)
    if found is None:
        raise MissingData(f"{table}, {name}", key, tuple(parts(table, name)))
    return found


def row(table: str, key: str) -> Row:
    """One row; MissingData names the known keys."""
    found = rows(table).get(key)
    if found is None:
        raise MissingData(table, key, tuple(rows(table)))
    return found


@cache
def constants() -> dict[str, Constant]:
    """All lone constants by name."""
    return {
        key: Constant(
            key,
            float(line["value"]),
            line["unit"],
            float(line["low"]),
            float(line["high"]),
            line["source"],
            line["kind"],
            line["note"],
        )
        for key, line in rows("constants").items()
    }


def constant(name: str) -> Constant:
    """One constant with its provenance."""
    try:
        return constants()[name]
    except KeyError:
        raise MissingData("constants", name, tuple(constants())) from None


def value(name: str) -> float:
    """The value of one constant [unit of its row]."""
    return constant(name).value


def check_data() -> list[str]:
    """What is wrong with the data: unknown sources or kinds, values out of their bounds, constants
    that nothing reads. Empty when all is well.
    """
    found: list[str] = []
    for table in (*TABLES, "constants"):
        for key, line in rows(table).items():
            if line.get("source") not in sources():
                found.append(f"{table}/{key}: unknown source {line.get('source')!r}")
            if line.get("kind") not in KINDS:
                found.append(f"{table}/{key}: unknown kind {line.get('kind')!r}")
            if None in line or None in line.values():
                found.append(f"{table}/{key}: wrong number of columns")
    found += wordless()
    code = "".join(file.read_text(encoding="utf-8") for file in DATA.parent.rglob("*.py"))
    for name in constants():
        if not re.search(rf"\b{name}\b", code):
            found.append(f"constants/{name}: nothing reads it")
    for item in constants().values():
        if not (math.isfinite(item.value) and item.low <= item.value <= item.high):
            found.append(
                f"constants/{item.name}: {item.value} lies outside {item.low} to {item.high}"
            )
    return found


def wordless() -> list[str]:
    """Heats that nothing is said of when they are opened or looked at, or that have no body in a
    meal; food without a word on its thermometer; and steps without a picture.
    """
    heats = [f"slow/{line['slow']}" for line in rows("heats").values() if line["slow"]]
    heats += [f"fierce/{line['fierce']}" for line in rows("heats").values() if line["fierce"]]
    found = [f"heat_cautions/{key}: missing" for key in heats if key not in rows("heat_cautions")]
    bodies = {line["body"] for line in rows("heats").values()}
    found += [f"bodies/{key}: missing" for key in sorted(bodies - set(rows("bodies")))]
    known = {each for line in rows("bodies").values() for each in line["appliances"].split()}
    found += [
        f"bodies: no body is an appliance of the kind {key}"
        for key, line in rows("appliances").items()
        if key not in known and not line["shares"]
    ]
    found += [
        f"bodies/{key}: sides_instead {other!r} is no body"
        for key, line in rows("bodies").items()
        for other in line["sides_instead"].split()
        if other not in rows("bodies")
    ]
    found += [
        f"heats/{key}: slow_goes_on {line['slow_goes_on']!r} is no wait of a meal"
        for key, line in rows("heats").items()
        if line["slow"] and line["slow_goes_on"] not in rows("meal_waits")
    ]
    food = {line["species"] for line in rows("cuts").values()}
    found += [f"cautions/{key}: missing" for key in sorted(food - set(rows("cautions")))]
    steps = rows("step_words").items()
    return found + [
        f"step_words/{key}: shows {line['shows']!r}, which nobody draws"
        for key, line in steps
        if line["shows"] not in SHOWN
    ]
