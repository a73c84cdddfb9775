"""What a stage gives back: the food after it, the links of its time, and what was seen or used."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.chain.food import Food
from bluekettle.core.chain.heats import heat_row
from bluekettle.core.chain.plan import Heat, Plan, Stage
from bluekettle.core.glaze import Coating, Draws, Finish, Milestones
from bluekettle.core.pressure import Fill
from bluekettle.core.sauce import RAW
from bluekettle.core.stages.finishing import UnderFire
from bluekettle.core.stages.handwork import hands_s
from bluekettle.core.stages.links import Link
from bluekettle.core.stages.tenderise import Tenderised

Array = NDArray[np.float64]


COOLED_S = 1800.0  # after so long an appliance is cold again, or nearly (typical, estimated)


@dataclass(frozen=True)
class Used:
    """A body that a stage heated: by which heat, its dial [unit of the row], and the seconds from
    the first act to when it was free again, (members,).
    """

    heat: str
    dial: float
    free_s: Array


@dataclass(frozen=True)
class SlowHeat:
    """What a slow heat did: its timer [s], its liquid [L], and how full its vessel gets."""

    stage: str
    heat: str
    timer_s: float
    run: Tenderised
    liquid_l: float
    fill: Fill | None


@dataclass(frozen=True)
class Fire:
    """What a fire did: the film, read; when each member leaves it [s]; the timer [s]; weights of
    the members after what was seen under it, (members,). under : as advice asks of it.
    """

    stage: str
    heat: str
    by: str
    want: str
    finish: Finish
    milestones: Milestones
    coating: Coating
    weights: Array
    pull_s: Array
    timer_s: float
    strip_index: Array
    coats: int
    under: UnderFire


@dataclass(frozen=True)
class Warmed:
    """An appliance that is switched on ahead of a link: label, how long it takes, how long is left
    to wait for it, and how far ahead of that it starts, each (members,) [s].
    """

    label: str
    before: str
    preheat_s: Array
    wait_s: Array
    ahead_s: Array


@dataclass(frozen=True)
class Kitchen:
    """The kitchen between two stages: bodies by name, seconds since the first act (members,), and
    layers that have touched raw food.
    """

    elapsed_s: Array
    used: dict[str, Used] = field(default_factory=dict)
    raw_layers: frozenset[str] = frozenset()
    last_heat: str = ""


@dataclass(frozen=True)
class Passage:
    """What a stage hands on. links : in order; their keys carry the id of the stage."""

    food: Food
    links: tuple[Link, ...] = ()
    slow: SlowHeat | None = None
    fire: Fire | None = None
    warmed: Warmed | None = None
    body: str = ""
    dial: float = 0.0
    sauce_kg: dict[str, float] = field(default_factory=dict)
    touched_raw: frozenset[str] = frozenset()
    notes: tuple[str, ...] = ()


@dataclass(frozen=True)
class Step:
    """What a stage is run in: the plan, the draws, the kitchen as it is, the stage before it, the
    heat that follows at once if one does, whether a heat is still to come, and the bodies that
    another share goes into later.
    """

    plan: Plan
    draws: Draws
    kitchen: Kitchen
    before: Stage | None = None
    next_heat: str = ""
    more: bool = False
    wanted: frozenset[str] = frozenset()

    def hands(self, action: str, food: Food) -> Array:
        """Seconds of an action on this food, (members,)."""
        return hands_s(action, food.pieces, self.draws, food.mass_kg)

    def stays_from(self, stage: Heat) -> bool:
        """Whether the food is in this heat already, and only its dial is turned."""
        before = self.before
        return isinstance(before, Heat) and not before.cut_short and stays(before, stage.heat)

    def stays_for(self, stage: Heat) -> bool:
        """Whether the food stays where it is for the next stage."""
        return not stage.cut_short and stays(stage, self.next_heat)

    def warm(self, body: str) -> Used | None:
        """What a body was used for, where that is not so long ago that it has cooled."""
        used = self.kitchen.used.get(body)
        if used is None:
            return None
        since = float(np.median(self.kitchen.elapsed_s - used.free_s))
        return used if since < COOLED_S else None

    def is_raw(self, layer: str) -> bool:
        """Whether a layer has touched raw food by now, and no boil of it is planned."""
        own = self.plan.layer(layer)
        touched = layer in self.kitchen.raw_layers or own.contact == RAW
        return touched and not own.boiled

    def zero(self) -> Array:
        """No seconds, (members,)."""
        return np.zeros(self.draws.members)


Run = Callable[..., Passage]


def link(
    stage: Stage,
    key: str,
    kind: str,
    label: str,
    who: str,
    seconds: Array,
    hidden: bool = True,
    **more: str | bool,
) -> Link:
    """A link of a stage: its key is that of the stage and its own."""
    return Link(f"{stage.id}.{key}", kind, label, who, seconds, hidden=hidden, **more)  # type: ignore[arg-type]


def of_pieces(food: Food) -> str:
    """ "the 6 pieces", or "the piece"."""
    return f"the {food.pieces} pieces" if food.pieces > 1 else "the piece"


def stays(one: Heat, next_heat: str) -> bool:
    """Whether food goes from one heat into the next (none where empty) without being moved: the
    same appliance, with another dial or another end.
    """
    slow = heat_row(one.heat).slow
    return one.heat == next_heat and (slow is None or not slow.takes_liquid)
