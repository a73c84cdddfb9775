"""Choices of a plan, and what is asked of it to find them.

Each choice that is not followed is a JSON Patch (RFC 6902) of the plan's document, and moves a
named input.
"""

from __future__ import annotations

from dataclasses import dataclass

from bluekettle.core.chain.forecast import PlanForecast
from bluekettle.core.chain.heats import heat_row
from bluekettle.core.chain.passage import Fire
from bluekettle.core.chain.plan import Dress, Heat, Layer, Plan, Stage

Patch = tuple[dict[str, object], ...]
JUICE_WATER = 0.85  # mass fraction from which a sauce without much sugar is a juice (estimated)


@dataclass(frozen=True)
class Choice:
    """One school. patch : what has to change to follow it; empty where it is followed."""

    key: str
    chosen: bool
    patch: Patch = ()


@dataclass(frozen=True)
class School:
    """A question, and the schools that answer it."""

    key: str
    choices: tuple[Choice, ...]


def add(path: str, value: object) -> dict[str, object]:
    """One operation: this value at this place."""
    return {"op": "add", "path": path, "value": value}


def remove(path: str) -> dict[str, object]:
    """One operation: what is there goes."""
    return {"op": "remove", "path": path}


def heats(plan: Plan) -> list[tuple[int, Heat]]:
    """The plan's own heats with their places."""
    return [(i, stage) for i, stage in enumerate(plan.stages) if isinstance(stage, Heat)]


def picked(options: dict[str, Patch], chosen: str) -> tuple[Choice, ...]:
    """Choices of a question; that which is followed needs no change."""
    return tuple(
        Choice(key, key == chosen, () if key == chosen else patch) for key, patch in options.items()
    )


def is_released(stage: Heat) -> bool:
    """Whether a heat ends by letting its pressure go."""
    row = heat_row(stage.heat).slow
    return row is not None and row.released


def last_fire(f: PlanForecast) -> tuple[int, Heat, Fire] | None:
    """The last fire of the plan's own stages, with its place."""
    fires = {fire.stage: fire for fire in f.fires}
    found = [(i, s, fires[s.id]) for i, s in heats(f.plan) if s.id in fires]
    return found[-1] if found else None


def is_oiling(plan: Plan, stage: Stage) -> bool:
    """Whether a stage puts a film of oil on."""
    if not isinstance(stage, Dress):
        return False
    sauce = plan.layer(stage.layer).sauce
    return sauce is not None and sauce.oils


def moistens(plan: Plan, stage: Stage) -> bool:
    """Whether a stage tosses the food in a juice: thin, and nothing of it browns."""
    return isinstance(stage, Dress) and stage.how == "toss" and is_juice(plan.layer(stage.layer))


def is_juice(layer: Layer) -> bool:
    """Whether a layer is thin, and nothing of it browns."""
    sauce = layer.sauce
    return sauce is not None and sauce.water > JUICE_WATER and not sauce.caramelises


def leaves_juice(stage: Heat) -> bool:
    """Whether a heat leaves liquid that can be measured back."""
    row = heat_row(stage.heat)
    return row.slow is not None and row.slow.takes_liquid


def browns(stage: Heat) -> bool:
    """Whether a heat browns what lies bare in it."""
    row = heat_row(stage.heat)
    return row.fierce is not None or (row.slow is not None and row.slow.dry)


def both_ways(stage: Heat) -> bool:
    """Whether a heat can be slow and fierce."""
    row = heat_row(stage.heat)
    return row.slow is not None and row.fierce is not None
