"""The chain from raw to plate: every stage and hidden wait with its seconds for each member."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.glaze import Draws, Finish, weighted_quantiles
from bluekettle.core.stages.dish import Cut, Dish
from bluekettle.core.stages.handwork import hands_s
from bluekettle.core.stages.tenderise import Tenderised
from bluekettle.core.tables import value

Array = NDArray[np.float64]

SHORTEST_SLACK_S = 120.0
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
    hidden : a wait or act nobody sets a timer for. serial : False where it runs beside the links
    named by `beside`.
    seconds : (members,). start : band of the seconds before serving at which it begins.
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


def build_chain(
    dish: Dish,
    cut: Cut,
    run: Tenderised,
    draws: Draws,
    pull_s: Array,
    finish: Finish,
    available_s: float | None,
    weights: Array,
) -> tuple[tuple[Stage, ...], float]:
    """All links in order, and the covered wait put before the finish [s] where there is time to
    spare.
    """

    def hands(action: str) -> Array:
        return hands_s(action, dish.pieces, draws)

    # The broiler is the oven the dish braises in; a crisping lid needs its pot emptied first.
    kind, heat = dish.kind, dish.first
    share_of = shared_preheat(dish)
    shared = share_of < 1.0 or (dish.finish == "crisping_lid" and dish.tenderise == "pressure")
    links: list[tuple[str, str, str, str, bool, Array, str]] = []

    def link(
        key: str,
        kind: str,
        label: str,
        who: str,
        seconds: Array,
        hidden: bool = True,
        note: str = "",
    ) -> None:
        links.append((key, kind, label, who, hidden, seconds, note))

    zero = np.zeros(draws.members)
    piece = f"the {dish.pieces} pieces" if dish.pieces > 1 else "the piece"
    preheat_note = "your timers never count it"
    link("season", "season", f"Dry and salt {piece}", "hands", hands("season"))
    link("load", "preheat", heat.load_says, "hands", hands(heat.load))
    if heat.preheat:
        warm = preheat_first_s(dish) * draws.factor("preheat", value("spread_preheat"))
        still = np.maximum(0.0, warm - hands("season") - hands(heat.load))
        link("oven_up", "preheat", heat.wait_says, "machine", still, note=preheat_note)
    if heat.up_says:
        note = come_up_note(dish) if dish.tenderise == "pressure" else ""
        link("come_up", heat.key, heat.up_says, "machine", run.come_up_s, note=note)
    link("hold", heat.key, heat.hold_says, "machine", run.hold_s, hidden=False)
    if run.natural_s.max() > 0:
        link("natural", "release", "Pressure falls by itself", "machine", run.natural_s)
    if run.quick_s.max() > 0:
        link("quick", "release", "Vent the rest", "hands", run.quick_s)
    link("open", "release", heat.open_says, "hands", hands(heat.open))
    label = "Is it tender? Is it hot enough?" if cut.gate else "Is it tender?"
    link("check", "check", label, "gate", hands("check"))
    link("lift", "drain", kind.lift, "hands", hands("lift"))
    first = (
        dish.coats > 0 and finish.coats_s[0][1] == 0.0
    )  # else the first coat goes on under the heat
    brush = hands("brush") if first else zero
    preheat = (
        60.0
        * dish.kitchen.or_typical(kind.preheat)
        * share_of
        * draws.factor("preheat", value("spread_preheat"))
    )
    # Switched on ahead, so that nine times in ten it is ready when it is needed; a shared oven only
    # once it is free.
    ahead = np.full(draws.members, np.quantile(preheat, 0.9))
    head_start = hands("check") + hands("lift") + brush if shared else ahead
    wait = np.maximum(0.0, preheat - head_start)
    if np.quantile(wait, 0.9) < LEAST_WAIT_S:
        wait = zero
    if first:
        link("brush", "coat", "Brush the first coat", "hands", brush)
    link("heat_up", "preheat", f"Wait for the {kind.name}", "machine", wait, note=preheat_note)
    link("under", "transfer", kind.into, "hands", hands("under"))
    link("finish", dish.finish, kind.look, "fire", pull_s, hidden=False)
    link("out", "transfer", "Take out, switch off", "hands", hands("out"))
    link("rest", "rest", "Rest", "machine", np.full(draws.members, value("rest_s")))
    link("serve", "serve", "To the table", "hands", hands("serve"))
    total = np.sum([item[5] for item in links], axis=0)
    slack = slack_before_finish(total, available_s, weights)
    if slack > 0.0:
        place = next(i for i, item in enumerate(links) if item[0] in ("brush", "heat_up"))
        note = "kept so that nine evenings in ten are on time"
        links.insert(
            place,
            (
                "slack",
                "hold",
                "Covered, in hand",
                "machine",
                True,
                np.full(draws.members, slack),
                note,
            ),
        )
    before = np.cumsum([item[5] for item in links][::-1], axis=0)[::-1]
    stages = [
        Stage(
            key,
            kind,
            label,
            who,
            hidden,
            seconds,
            Band.of(seconds, weights),
            Band.of(start, weights),
            note=note,
        )
        for (key, kind, label, who, hidden, seconds, note), start in zip(links, before, strict=True)
        if seconds.max() >= 1.0
    ]
    names = [stage.key for stage in stages]
    under_start = before[[item[0] for item in links].index("under")]
    beside = Stage(
        "preheat",
        "preheat",
        f"Heat the {kind.name}",
        "machine",
        True,
        preheat,
        Band.of(preheat, weights),
        Band.of(under_start + wait + head_start, weights),
        serial=False,
        note="beside the other work",
    )
    stages.insert(names.index("under"), beside)
    return tuple(stages), slack


def preheat_first_s(dish: Dish) -> float:
    """Heating up of the first heat's appliance [s]; of an oven set low, as far as it has to go."""
    full = 60.0 * dish.kitchen.or_typical(dish.first.preheat)
    if dish.tenderise not in ("low_oven", "air_fry"):
        return full
    top = "hot_oven_c" if dish.tenderise == "low_oven" else "air_fryer_c"
    room = value("kitchen_c")
    return full * min(
        1.0,
        (dish.kitchen.or_typical(dish.first.dial) - room) / (dish.kitchen.or_typical(top) - room),
    )


def shared_preheat(dish: Dish) -> float:
    """Share of the whole preheat that is left where the first heat has warmed the same body
    already.
    """
    body = dish.first.body
    if body == "oven" and dish.finish == "broiler":
        return 0.7
    if body != dish.finish or body not in ("oven", "air_fryer"):
        return 1.0
    room = value("kitchen_c")
    rise = dish.kitchen.or_typical(dish.kind.dial) - room
    return max(0.1, (rise - dish.kitchen.or_typical(dish.first.dial) + room) / rise)


def come_up_note(dish: Dish) -> str:
    """What decides the come-up, in words."""
    frozen = "from frozen" if dish.state == "frozen" else "from the fridge"
    return f"{dish.mass_kg:g} kg {frozen} and {dish.liquid:g} L of liquid"


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
