"""The chain from raw to plate: every stage and hidden wait with its seconds for each member."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.glaze import Draws, Finish, weighted_quantiles
from bluekettle.core.stages.dish import Cut, Dish
from bluekettle.core.stages.finishing import LEAST_S
from bluekettle.core.stages.handwork import hands_s
from bluekettle.core.stages.tenderise import Tenderised
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
BLOTTED = ("pressure", "braise", "foil", "simmer", "slow")  # what leaves these is wet


def build_chain(
    dish: Dish,
    cut: Cut,
    run: Tenderised,
    draws: Draws,
    pull_s: Array,
    finish: Finish,
    available_s: float | None,
    weights: Array,
    warm_s: float,
) -> tuple[tuple[Stage, ...], float]:
    """All links in order, and the covered wait put before the finish [s] where there is time to
    spare: never longer than the food stays warm enough (`warm_s`).
    """
    ready = ready_for_fire(dish, draws, first_coat_on(dish, finish))
    line = [
        *first_links(dish, cut, run, draws),
        *ready.links,
        *fire_links(dish, draws, pull_s, finish),
        *last_links(dish, cut, draws),
    ]
    total = np.sum([link.seconds for link in line], axis=0)
    slack = min(slack_before_finish(total, available_s, weights), warm_s)
    if slack >= SHORTEST_SLACK_S:
        place = next(i for i, link in enumerate(line) if link.approach)
        note = "kept so that nine evenings in ten are on time"
        seconds = np.full(draws.members, slack)
        line.insert(place, Link("slack", "hold", "Covered, in hand", "machine", seconds, note=note))
    before = np.cumsum([link.seconds for link in line][::-1], axis=0)[::-1]
    stages = [
        stage_of(link, start, weights)
        for link, start in zip(line, before, strict=True)
        if link.seconds.max() >= 1.0
    ]
    under_start = before[[link.key for link in line].index("under")]
    kind = dish.kind
    heating = Link(
        "preheat",
        "preheat",
        f"Heat the {kind.name}",
        "machine",
        ready.preheat_s,
        note="beside the other work",
        before="under",
    )
    beside = [stage_of(heating, under_start + ready.wait_s + ready.ahead_s, weights, serial=False)]
    beside += sauce_work(dish, draws, line, before, weights)
    for stage in beside:
        place = next(i for i, other in enumerate(stages) if other.key == stage.before)
        stages.insert(place, stage)
    return tuple(stages), slack if slack >= SHORTEST_SLACK_S else 0.0


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


def first_coat_on(dish: Dish, finish: Finish) -> bool:
    """Whether a coat of sauce goes on before the heat."""
    return dish.coats > 0 and finish.coats[0].at_s == 0.0


def first_links(dish: Dish, cut: Cut, run: Tenderised, draws: Draws) -> list[Link]:
    """From the raw food to the passed check."""
    heat = dish.first
    piece = f"the {dish.pieces} pieces" if dish.pieces > 1 else "the piece"

    def hands(action: str) -> Array:
        return hands_s(action, dish.pieces, draws, dish.mass_kg)

    salting = season_action(dish)
    links = [
        Link("season", "season", salting.label.format(piece), "hands", hands(salting.action)),
        Link("load", "preheat", heat.load_says, "hands", hands(heat.load)),
    ]
    if heat.preheat:
        doubt = draws.factor("preheat", value("spread_preheat"))
        warm = preheat_first_s(dish, draws) * doubt
        still = np.maximum(0.0, warm - hands(salting.action) - hands(heat.load))
        links.append(
            Link("oven_up", "preheat", heat.wait_says, "machine", still, note=PREHEAT_NOTE)
        )
    if heat.up_says:
        note = come_up_note(dish) if dish.tenderise == "pressure" else ""
        links.append(Link("come_up", heat.key, heat.up_says, "machine", run.come_up_s, note=note))
    links += hold_links(dish, run, draws)
    if run.natural_s.max() > 0:
        falls = "Pressure falls by itself"
        links.append(Link("natural", "release", falls, "machine", run.natural_s))
    if run.quick_s.max() > 0:
        links.append(Link("quick", "release", "Open the valve", "hands", run.quick_s))
    links.append(Link("open", "release", heat.open_says, "hands", hands(heat.open)))
    label = "Is it tender? Is it hot enough?" if cut.gate else "Is it tender?"
    links.append(Link("check", "check", label, "gate", hands("check")))
    return links


@dataclass(frozen=True)
class Salting:
    """The first act: handwork row and label, with the pieces left open."""

    action: str
    label: str


def season_action(dish: Dish) -> Salting:
    """Frozen food is not patted dry, nor is what goes into liquid: it is salted only."""
    if dish.state == "frozen" or dish.first.takes_liquid:
        return Salting("salt", "Salt {}")
    return Salting("season", "Dry and salt {}")


def hold_links(dish: Dish, run: Tenderised, draws: Draws) -> list[Link]:
    """The time of the first heat; in a basket it is turned halfway."""
    heat = dish.first
    if not heat.turns:
        return [Link("hold", heat.key, heat.hold_says, "machine", run.hold_s, hidden=False)]
    half = 0.5 * run.hold_s
    turn = hands_s("turn", dish.pieces, draws, dish.mass_kg)
    says = f"{heat.hold_says}, other side"
    return [
        Link("hold", heat.key, heat.hold_says, "machine", half, hidden=False),
        Link("turn", heat.key, "Turn it", "hands", turn, act="turn"),
        Link("hold-2", heat.key, says, "machine", half, hidden=False),
    ]


@dataclass(frozen=True)
class Ready:
    """What gets the food ready for the fire: links, and of the appliance its heating up, what is
    left to wait for it, and how long ahead of that wait it is switched on; (members,) [s].
    """

    links: list[Link]
    preheat_s: Array
    wait_s: Array
    ahead_s: Array


def ready_for_fire(dish: Dish, draws: Draws, brushed: bool) -> Ready:
    """Lift, blot, brush, wait for the appliance, and in with it."""
    kind = dish.kind

    def hands(action: str) -> Array:
        return hands_s(action, dish.pieces, draws, dish.mass_kg)

    zero = np.zeros(draws.members)
    blot = hands("blot") if dish.tenderise in BLOTTED else zero
    brush = hands("brush") if brushed else zero
    # The broiler is the oven the dish braises in; a crisping lid needs its pot emptied first.
    share = shared_preheat(dish)
    shared = share < 1.0 or (dish.finish == "crisping_lid" and dish.tenderise == "pressure")
    doubt = draws.factor("preheat", value("spread_preheat"))
    preheat = 60.0 * dish.kitchen.drawn(kind.preheat, draws) * share * doubt
    # Switched on ahead, so that nine times in ten it is ready when it is needed; a shared oven only
    # once it is free.
    ahead = np.full(draws.members, np.quantile(preheat, 0.9))
    if shared:
        ahead = hands("check") + hands("lift") + blot + brush
    wait = np.maximum(0.0, preheat - ahead)
    if np.quantile(wait, 0.9) < LEAST_WAIT_S:
        wait = zero
    links = [Link("lift", "drain", kind.lift, "hands", hands("lift"))]
    if dish.tenderise in BLOTTED:
        links.append(Link("blot", "blot", "Blot it dry", "hands", blot))
    if brushed:
        links.append(Link("brush", "coat", "Brush the first coat", "hands", brush, approach=True))
    label = f"Wait for the {kind.name}"
    links += [
        Link("heat_up", "preheat", label, "machine", wait, note=PREHEAT_NOTE, approach=True),
        Link("under", "transfer", kind.into, "hands", hands("under"), approach=True),
    ]
    return Ready(links, preheat, wait, ahead)


def fire_links(dish: Dish, draws: Draws, pull_s: Array, finish: Finish) -> list[Link]:
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
                fire=dish.finish,
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


def fire_link(dish: Dish, place: int, seconds: Array) -> Link:
    """One stretch under the heat."""
    key = "finish" if place == 0 else f"finish-{place // 2 + 1}"
    look = dish.kind.look
    return Link(key, dish.finish, look, "fire", seconds, hidden=False, fire=dish.finish)


def last_links(dish: Dish, cut: Cut, draws: Draws) -> list[Link]:
    """From the heat to the plate. What touched raw food on the way is checked once more."""

    def hands(action: str) -> Array:
        return hands_s(action, dish.pieces, draws, dish.mass_kg)

    links = [Link("out", "transfer", "Take out, switch off", "hands", hands("out"))]
    if dish.raw_late and cut.gate:
        label = "Hot enough again? Raw sauce went on"
        links.append(Link("check-again", "check", label, "gate", hands("probe")))
    rest = np.full(draws.members, value("rest_s"))
    links.append(Link("rest", "rest", "Rest", "machine", rest))
    if dish.bite == "shreds":
        if cut.on_the_bone:
            links.append(Link("bones", "bones", "Pull the bones", "hands", hands("bones")))
        links.append(Link("shred", "shred", "Pull it into strands", "hands", hands("shred")))
    elif dish.bite == "sliceable" and cut.gate:
        links.append(Link("slice", "portion", "Slice it", "hands", hands("slice")))
    links.append(Link("serve", "serve", "To the table", "hands", hands("serve")))
    return links


def sauce_work(
    dish: Dish, draws: Draws, line: list[Link], before: Array, weights: Array
) -> list[Stage]:
    """Mixing the cook's own sauce, and boiling what touched raw food: hands beside a machine's
    time, ready before the first coat.
    """
    if dish.sauce is None or (dish.sauce_lines == 0 and dish.contact != "boiled"):
        return []
    first = next(
        link.key for link in line if link.act.startswith("coat") or link.key in ("brush", "under")
    )
    lines = hands_s("sauce", max(1, dish.sauce_lines), draws)
    label = "Mix the sauce"
    if dish.contact == "boiled":
        lines = lines + hands_s("boil", 1, draws)
        label = "Mix the sauce and boil it" if dish.sauce_lines else "Boil the sauce"
    ready_by = before[[link.key for link in line].index(first)]
    link = Link("sauce", "sauce", label, "hands", lines, before=first, note="while it cooks")
    return [stage_of(link, ready_by + lines, weights, serial=False)]


def preheat_first_s(dish: Dish, draws: Draws) -> Array:
    """Heating up of the first heat's appliance [s], (members,); of an oven set low, as far as it
    has to go.
    """
    full = 60.0 * dish.kitchen.drawn(dish.first.preheat, draws)
    if dish.tenderise not in ("low_oven", "air_fry"):
        return full
    top = "hot_oven_c" if dish.tenderise == "low_oven" else "air_fryer_c"
    room = value("kitchen_c")
    rise = dish.kitchen.or_typical(dish.first.dial) - room
    return full * min(1.0, rise / (dish.kitchen.or_typical(top) - room))


def shared_preheat(dish: Dish) -> float:
    """Share of the whole preheat that is left where the first heat has warmed the same body
    already.
    """
    body = dish.first.body
    if body == "oven" and dish.finish == "broiler":
        return 0.7  # the element has a warm oven to start from (estimated)
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
