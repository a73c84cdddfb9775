"""Links of the chain from raw to plate: every act and wait with its seconds for each member."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.glaze import Draws, Finish, weighted_quantiles
from bluekettle.core.stages.browning import Browning
from bluekettle.core.stages.finishing import LEAST_S
from bluekettle.core.tables import value

Array = NDArray[np.float64]

SHORTEST_SLACK_S = 120.0  # a shorter wait is not planned (design)
LEAST_WAIT_S = 20.0  # a shorter wait for the preheat is no link of its own


@dataclass(frozen=True)
class Band:
    """P10, P50 and P90 [s]."""

    low_s: float
    likely_s: float
    high_s: float

    @classmethod
    def of(cls, seconds: Array, weights: Array) -> Band:
        """Quantiles of one figure over the members."""
        return cls(*weighted_quantiles(seconds, weights, (0.1, 0.5, 0.9)))


@dataclass(frozen=True)
class Stage:
    """One link of the chain.

    who : hands, machine, gate (a check that only a person can pass) or fire (food under fierce
    heat).
    hidden : a wait or act nobody sets a timer for. serial : False where it runs beside the others.
    seconds : (members,). start : band of the seconds before serving at which it begins.
    fire : name of the fierce heat it belongs to; its clock stands still where `act` names what is
    done out of it (coat, turn, coat and turn). approach : once it is current, the food may be under
    the heat at any moment. before : key of the link that it has to be ready for.
    """

    key: str
    kind: str
    label: str
    who: str
    hidden: bool
    seconds: Array
    band: Band
    start: Band
    serial: bool = True
    note: str = ""
    fire: str = ""
    act: str = ""
    approach: bool = False
    before: str = ""


@dataclass(frozen=True)
class Link:
    """A link before its bands are known; as `Stage`."""

    key: str
    kind: str
    label: str
    who: str
    seconds: Array
    hidden: bool = True
    note: str = ""
    fire: str = ""
    act: str = ""
    approach: bool = False
    before: str = ""


PREHEAT_NOTE = "your timers never count it"


def stage_of(link: Link, start: Array, weights: Array, serial: bool = True) -> Stage:
    """A link with its bands."""
    return Stage(
        link.key,
        link.kind,
        link.label,
        link.who,
        link.hidden,
        link.seconds,
        Band.of(link.seconds, weights),
        Band.of(start, weights),
        serial,
        link.note,
        link.fire,
        link.act,
        link.approach,
        link.before,
    )


def first_coat_on(dish: Browning, finish: Finish) -> bool:
    """Whether a coat of sauce goes on before the heat."""
    return dish.coats > 0 and finish.coats[0].at_s == 0.0


def fire_links(dish: Browning, draws: Draws, pull_s: Array, finish: Finish) -> list[Link]:
    """Time under the heat between the acts, and each act out of it. Seconds under the heat are
    those of the finish; the last stretch ends with the pull.
    """
    links: list[Link] = []
    since, coat, turn = 0.0, int(first_coat_on(dish, finish)), 0
    for act in finish.acts:
        if act.at_s <= 0.0:
            continue
        stretch = np.full(draws.members, act.at_s - since)
        links.append(fire_link(dish, len(links), stretch))
        coat, turn = coat + act.coat, turn + act.turn
        key, name, label = act_words(act.coat, act.turn, coat, turn)
        links.append(
            Link(
                key,
                "coat" if act.coat else "turn",
                label,
                "hands",
                act.away_s * draws.factor("hands", value("spread_hands")),
                fire=dish.heat,
                act=name,
                approach=True,
            )
        )
        since = act.at_s
    links.append(fire_link(dish, len(links), np.maximum(LEAST_S, pull_s - since)))
    return links


def act_words(coat: bool, turned: bool, coats: int, turns: int) -> tuple[str, str, str]:
    """Key, name and label of an act out of the heat; `coats` and `turns` count it already."""
    if coat and turned:
        return f"coat-{coats}-turn-{turns}", "coat and turn", f"Coat {coats}, and turn it"
    if coat:
        return f"coat-{coats}", "coat", f"Coat {coats}"
    return f"turn-{turns}", "turn", "Turn it"


def fire_link(dish: Browning, place: int, seconds: Array) -> Link:
    """One stretch under the heat."""
    key = "finish" if place == 0 else f"finish-{place // 2 + 1}"
    look = dish.kind.look
    return Link(key, dish.heat, look, "fire", seconds, hidden=False, fire=dish.heat)


def slack_before_finish(total: Array, available_s: float | None, weights: Array) -> float:
    """Seconds of covered wait: careful minus likely time, as far as there is room for it before
    serving.
    """
    if available_s is None:
        return 0.0
    likely, careful = weighted_quantiles(total, weights, (0.5, 0.9))
    slack = min(careful, available_s) - likely
    return slack if slack >= SHORTEST_SLACK_S else 0.0


def serial(stages: tuple[Stage, ...]) -> tuple[Stage, ...]:
    """The links that add up."""
    return tuple(stage for stage in stages if stage.serial)


def chain_band(stages: tuple[Stage, ...], weights: Array) -> Band:
    """Band of the sum of the serial links, member by member."""
    return Band.of(np.sum([stage.seconds for stage in serial(stages)], axis=0), weights)


def least_sure(stages: tuple[Stage, ...]) -> str:
    """Key of the link with the widest band."""
    return max(serial(stages), key=lambda stage: stage.band.high_s - stage.band.low_s).key
