"""From a dish's forecast, or a side, to a line of the meal: its tasks, the waits that it bears, and
what it occupies. The only place of this room that knows food.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cache
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.chain import Heat, Layer, PlanForecast, heat_row
from bluekettle.core.chain.forecast import place_of_slack
from bluekettle.core.chain.walk import Passed
from bluekettle.core.glaze import weighted_quantiles
from bluekettle.core.schedule.puzzle import Gap, Task, Use
from bluekettle.core.stages import Stage, appliance_kind
from bluekettle.core.tables import row, rows, value

Array = NDArray[np.float64]

IN_ROOM_S = 1800.0  # what sits longer than that sits in the fridge (as the chain says)
CAREFUL = 0.9  # quantile that a buffer is sized by (design)
TAIL_SHARE = 0.25  # of the time that finished food may stand, the most kept for a slow fire
TAIL_PART = 0.5  # of careful minus likely: hands stay free for it; the rest is the evening's risk
SHORT = 8.0  # price of a minute that a buffer lacks, beside a minute of evening (design 3's order)
LONG_FIRE_S = 900.0  # a longer one is looked into near its end only (estimated)
WATCHED_S = 360.0  # of it (estimated)
SPREAD_SIDE = 0.15  # log sd of a side's minutes (estimated)
NINE_TENTHS = 1.2816  # standard normal quantile of 0.9


@dataclass(frozen=True)
class Wait:
    """A wait that food bears: the row of `meal_waits` that tells how, and its most [s]; None for
    no limit.
    """

    key: str
    most_s: float | None

    @property
    def price(self) -> float:
        """Of a minute, beside a minute of evening [-]."""
        return float(row("meal_waits", self.key)["price"])


@dataclass(frozen=True)
class Line:
    """A dish or a side in a meal.

    seconds : of each task, one figure a member of its ensemble, (members,). waits : between which
    tasks it may wait and how. aheads : by the task that it has to be hot for, what is switched on.
    begins : tasks whose late begin makes the evening short. keeps : work beside whose outcome keeps
    for days.
    """

    key: str
    name: str
    tasks: tuple[Task, ...]
    labels: dict[str, str]
    who: dict[str, str]
    gaps: tuple[Gap, ...]
    waits: dict[tuple[str, str], str]
    uses: tuple[Use, ...]
    end: str
    begins: tuple[str, ...]
    seconds: dict[str, Array]
    weights: Array
    aheads: dict[str, str]
    keeps: frozenset[str] = frozenset()


@dataclass(frozen=True)
class Side:
    """A simple dish: minutes of hands before it cooks, of cooking, and of hands after; what it
    cooks in at which setting, whether somebody stirs, and how long it holds.
    """

    name: str
    prepare_min: float
    cook_min: float
    body: str = ""
    temp_c: float | None = None
    cook_hands: bool = False
    finish_min: float = 1.0
    holds_min: float = 10.0


@cache
def side(key: str) -> Side:
    """A common side by its key; MissingData names the known ones."""
    line = row("sides", key)
    return Side(
        line["name"],
        float(line["prepare_min"]),
        float(line["cook_min"]),
        line["body"],
        float(line["temp_c"]) if line["temp_c"] else None,
        line["cook_hands"] == "yes",
        float(line["finish_min"]),
        float(line["holds_min"]),
    )


@cache
def side_keys() -> tuple[str, ...]:
    """All common sides, in table order."""
    return tuple(rows("sides"))


def kept(key: str) -> Wait:
    """A wait with the limit of its row."""
    most = row("meal_waits", key)["most_min"]
    return Wait(key, 60.0 * float(most) if most else None)


def dish_line(key: str, name: str, forecast: PlanForecast) -> Line:
    """A dish as a line of the meal."""
    links = [link for link in forecast.links if link.serial]
    aside = [link for link in forecast.links if not link.serial and link.kind != "preheat"]
    waits = [wait_after(place, links, forecast) for place in range(len(links) - 1)]
    tail_at, tail_s = tail_of(links, waits)
    tasks = [task_of(key, link, tail_s if n == tail_at else 0.0) for n, link in enumerate(links)]
    tasks += [task_of(key, link) for link in aside]
    gaps: list[Gap] = []
    told: dict[tuple[str, str], str] = {}
    joint = covered_at(waits)
    for place, wait in enumerate(waits):
        before, after = tasks[place].key, tasks[place + 1].key
        least_s = tail_s if place == tail_at else 0.0
        wish_s = buffer_of(links[: place + 1], forecast.weights) if place == joint else 0.0
        gaps.append(gap_of(before, after, wait, least_s, wish_s))
        if wait is not None:
            told[before, after] = wait.key
    gaps += held_after_fire(key, links, waits)
    for link in aside:
        before, after = f"{key}/{link.key}", f"{key}/{needed_at(link.before, links)}"
        gaps.append(gap_of(before, after, kept("beside")))
        told[before, after] = "beside"
    return Line(
        key=key,
        name=name,
        tasks=tuple(tasks),
        labels={f"{key}/{link.key}": link.label for link in (*links, *aside)},
        who={f"{key}/{link.key}": link.who for link in (*links, *aside)},
        gaps=tuple(gaps),
        waits=told,
        uses=tuple(uses_of(key, links, forecast)),
        end=f"{key}/{links[-1].key}",
        begins=begins_of(key, links, waits),
        seconds={f"{key}/{link.key}": link.seconds for link in (*links, *aside)},
        weights=forecast.weights,
        aheads={
            f"{key}/{link.before}": link.label
            for link in forecast.links
            if not link.serial and link.kind == "preheat" and link.before
        },
        keeps=frozenset(f"{key}/{layer.id}.made" for layer in forecast.plan.layers if fresh(layer)),
    )


def fresh(layer: Layer) -> bool:
    """Whether a layer is mixed from what touched no raw food, so that it keeps."""
    return layer.contact == "clean" and not layer.boiled and layer.lines > 0


def needed_at(before: str, links: list[Stage]) -> str:
    """The link that work beside has to be ready for; the first of its stage where the forecast
    leaves that link out, since it takes no time.
    """
    keys = [link.key for link in links]
    if before in keys:
        return before
    stage = before.rsplit(".", 1)[0]
    return next(key for key in keys if key.rsplit(".", 1)[0] == stage)


def task_of(line: str, link: Stage, tail_s: float = 0.0) -> Task:
    """A link as a task, by its likely seconds."""
    hands, seconds = link.who in ("hands", "gate", "fire"), link.band.likely_s
    free_s = seconds - WATCHED_S if link.who == "fire" and seconds > LONG_FIRE_S else 0.0
    return Task(f"{line}/{link.key}", line, seconds, hands, tail_s, free_s)


def gap_of(
    before: str, after: str, wait: Wait | None, least_s: float = 0.0, wish_s: float = 0.0
) -> Gap:
    """What may lie between two tasks; nothing where there is no wait."""
    if wait is None:
        return Gap(before, after)
    most = wait.most_s
    told = row("meal_waits", wait.key)
    short = SHORT if wish_s or told["step"] == "slack" else 0.0
    wish = wish_s if most is None else min(wish_s, most)
    quality = told["limit"] == "quality"
    return Gap(before, after, least_s, most, quality, wish, wait.price, short)


def stage_id(link: Stage) -> str:
    """The stage that a link belongs to."""
    return link.key.rsplit(".", 1)[0]


def heats_of(forecast: PlanForecast) -> dict[str, Passed]:
    """The heats of a plan, by their stage."""
    return {one.stage.id: one for one in forecast.walk.passed if isinstance(one.stage, Heat)}


def last_fire(links: list[Stage]) -> int:
    """Place of the last stretch under a fire; -1 where there is none."""
    return max((n for n, link in enumerate(links) if link.who == "fire"), default=-1)


def wait_after(place: int, links: list[Stage], forecast: PlanForecast) -> Wait | None:
    """How the food waits between a link and the next; None where it goes on at once."""
    one, then = links[place], links[place + 1]
    if one.who == "fire" or then.who == "fire" or one.act or (one.approach and then.approach):
        return None
    heats = heats_of(forecast)
    begun = [n for n, link in enumerate(links) if stage_id(link) in heats]
    if place < begun[0]:
        return raw_wait(one, then)
    slack = place_of_slack(links)  # type: ignore[arg-type]  # a Stage has all that is asked
    fired = last_fire(links)
    if place >= fired >= 0:
        return fired_wait(one, then, forecast)
    heat = heats.get(stage_id(one)) if stage_id(one) == stage_id(then) else None
    if heat is not None and heat.passage.slow is not None:
        return heat_wait(one, then, heat)
    if fired < 0 and place == len(links) - 2:
        return covered(forecast)
    if place + 1 == slack:
        return covered(forecast)
    if "machine" not in (one.who, then.who) and not then.approach:
        return None  # one after the other, without a pause
    if then.approach:
        return kept("between" if one.kind == "transfer" else "tray")
    return kept("cooked")


def covered(forecast: PlanForecast) -> Wait:
    """Covered in the room, for as long as it stays warm enough; a few minutes where no slow heat
    is known to have warmed it.
    """
    if forecast.warm_s is None:
        return kept("cooked")
    return Wait("covered", forecast.warm_s)


def raw_wait(one: Stage, then: Stage) -> Wait | None:
    """Between links before the first heat."""
    if one.who == "hands":
        return None  # rubbed, and on with it: into the fridge, or to its heat
    short = one.who == "machine" and one.band.likely_s < IN_ROOM_S
    return kept("raw-room" if short or then.approach else "raw-fridge")


def heat_wait(one: Stage, then: Stage, heat: Passed) -> Wait | None:
    """Inside a slow heat: its machine goes on by itself, hands may be a little late."""
    if then.who == "machine":
        return None
    slow = heat_row(heat.stage.heat).slow  # type: ignore[attr-defined]  # a Heat, as asked
    assert slow is not None
    if one.who != "machine":
        return None  # opened, and looked at
    if one.kind == "release":
        return kept("shut")
    return kept(slow.goes_on)


def fired_wait(one: Stage, then: Stage, forecast: PlanForecast) -> Wait | None:
    """After the last fire: a crust or a glaze stands for minutes."""
    if then.who == "machine":
        return None
    if one.who == "machine":
        return kept("rested")
    coated = any(fire.coats for fire in forecast.fires[-1:])
    return kept("glazed" if coated else "crisp")


def tail_of(links: list[Stage], waits: list[Wait | None]) -> tuple[int, float]:
    """The first place after the last fire at which the food may wait, and the seconds kept there in
    case the fire takes longer than is likely.
    """
    fired = last_fire(links)
    if fired < 0:
        return -1, 0.0
    band = links[fired].band
    for place in range(fired, len(waits)):
        wait = waits[place]
        if wait is not None and wait.most_s is not None:
            return place, min(TAIL_PART * (band.high_s - band.likely_s), TAIL_SHARE * wait.most_s)
    return -1, 0.0


def held_after_fire(key: str, links: list[Stage], waits: list[Wait | None]) -> list[Gap]:
    """All that a crust waits for, one limit over all its waits together."""
    fired = last_fire(links)
    after = [(n, wait) for n, wait in enumerate(waits) if n >= fired >= 0 and wait is not None]
    if len(after) < 2:
        return []
    first, last = after[0][0], len(links) - 1
    done_s = sum(link.band.likely_s for link in links[first + 1 : last])
    most = max(wait.most_s or 0.0 for _, wait in after)
    grid_s = 10.0 * len(links)  # what rounding to the grid may add
    return [
        Gap(
            f"{key}/{links[first].key}",
            f"{key}/{links[last].key}",
            0.0,
            done_s + most + grid_s,
            True,
            price=0.0,
        )
    ]


def covered_at(waits: list[Wait | None]) -> int:
    """Place of the covered wait; -1 where there is none."""
    return max((n for n, wait in enumerate(waits) if wait and wait.key == "covered"), default=-1)


def buffer_of(links: list[Stage], weights: Array) -> float:
    """Careful minus likely seconds of some links together."""
    last_raw = max(
        (n for n, one in enumerate(links) if one.kind in ("season", "marinate")), default=-1
    )
    cooked = links[last_raw + 1 :]
    if not cooked:
        return 0.0
    total = np.sum([one.seconds for one in cooked], axis=0)
    likely, careful = weighted_quantiles(total, weights, (0.5, CAREFUL))
    return careful - likely


def begins_of(key: str, links: list[Stage], waits: list[Wait | None]) -> tuple[str, ...]:
    """The first link, and the first after a wait in the fridge."""
    places = {0, *(n + 1 for n, wait in enumerate(waits) if wait and wait.key == "raw-fridge")}
    return tuple(f"{key}/{links[n].key}" for n in sorted(places))


def uses_of(key: str, links: list[Stage], forecast: PlanForecast) -> list[Use]:
    """What a dish's heats occupy, and when."""
    found: list[Use] = []
    for one in forecast.walk.passed:
        body = one.passage.body
        if not body or not isinstance(one.stage, Heat):
            continue
        mine = [n for n, link in enumerate(links) if stage_id(link) == one.stage.id]
        into = next((n for n in mine if is_into(links[n], body)), None)
        last = leaving(mine, links, one)
        if into is None and found and found[-1].kind == body:  # it stays where it is
            found[-1] = replace(found[-1], last=f"{key}/{links[last].key}")
            continue
        first = mine[0] if into is None else into
        use = Use(
            f"{key}/{one.stage.id}",
            key,
            body,
            f"{key}/{links[first].key}",
            f"{key}/{links[last].key}",
            setting_c(one),
            row("bodies", body)["shares"] == "yes" and one.passage.slow is not None,
            ready_of(one),
            cold_of(one, forecast),
        )
        found.append(use)
    return found


def is_into(link: Stage, body: str) -> bool:
    """Whether food goes into a body with this link; a crisping lid's pot is taken before it."""
    action = link.key.rsplit(".", 1)[1]
    emptied = row("bodies", body)["emptied"] == "yes"
    return action in ("load", "heat_up", "under") or (emptied and action == "lift")


def leaving(mine: list[int], links: list[Stage], one: Passed) -> int:
    """Place of the link after which a body is free: out of a fire or off a rack at once, out of a
    vessel only when the food is lifted from it.
    """
    slow = heat_row(one.stage.heat).slow if isinstance(one.stage, Heat) else None
    ends = [n for n in mine if links[n].key.rsplit(".", 1)[1] in ("open", "out")]
    last = ends[-1] if ends else mine[-1]
    if one.passage.slow is None or slow is None or not slow.takes_liquid:
        return last
    hands = (n for n in range(mine[-1] + 1, len(links)) if links[n].who == "hands")
    return next(hands, last)


def setting_c(one: Passed) -> float | None:
    """What a body is set to [°C]; None where its dial is no temperature."""
    assert isinstance(one.stage, Heat)
    line = heat_row(one.stage.heat)
    if line.dial_unit == "°C":
        return one.passage.dial
    if one.passage.fire is not None:
        return line.fierce.appliance.air_c if line.fierce else None
    return None


def ready_of(one: Passed) -> float:
    """How long before its use an appliance is switched on [s]: nine times in ten it is hot then."""
    warmed = one.passage.warmed
    return 0.0 if warmed is None else float(np.quantile(warmed.preheat_s, CAREFUL))


def cold_of(one: Passed, forecast: PlanForecast) -> float:
    """How long the appliance of a heat takes from cold [s], on the careful side."""
    assert isinstance(one.stage, Heat)
    line = heat_row(one.stage.heat)
    kind = line.fierce if one.passage.fire is not None else line.slow
    name = kind.preheat if kind is not None else ""
    if not name:
        return 0.0
    doubt = float(np.exp(NINE_TENTHS * value("spread_preheat")))
    return 60.0 * forecast.plan.kitchen.or_typical(name) * doubt


def side_line(key: str, side: Side, members: int) -> Line:
    """A side as a line of the meal; its minutes differ by a sixth from evening to evening."""
    parts = [
        ("prepare", f"Prepare: {side.name}", side.prepare_min, True),
        ("cook", side.name, side.cook_min, side.cook_hands),
        ("finish", f"To the table: {side.name}", side.finish_min, True),
    ]
    parts = [one for one in parts if one[2] > 0.0]
    # Even quantiles of a standard normal, in an order of their own: no dice in the core.
    spread = np.exp(SPREAD_SIDE * normal_scores(members))
    tasks = tuple(Task(f"{key}/{name}", key, 60.0 * m, hands) for name, _, m, hands in parts)
    gaps: list[Gap] = []
    waits: dict[tuple[str, str], str] = {}
    held = Wait("rested", 60.0 * side.holds_min)
    for one, then in pairwise(tasks):
        raw = one.key.endswith("/prepare") and then.key.endswith("/cook")
        wait = kept("side-raw") if raw else held
        gaps.append(gap_of(one.key, then.key, wait))
        waits[one.key, then.key] = wait.key
    uses: tuple[Use, ...] = ()
    if side.body and side.cook_min:
        uses = (side_use(key, side.body, side.temp_c),)
    aheads = (
        {f"{key}/cook": f"Heat the {row('bodies', side.body)['name']}"}
        if uses and uses[0].ready_s
        else {}
    )
    return Line(
        key,
        side.name,
        tasks,
        {f"{key}/{name}": label for name, label, _, _ in parts},
        {t.key: "hands" if t.hands else "machine" for t in tasks},
        tuple(gaps),
        waits,
        uses,
        tasks[-1].key,
        (tasks[0].key,),
        {t.key: t.seconds * spread for t in tasks},
        np.full(members, 1.0 / members),
        aheads,
    )


def side_use(key: str, body: str, temp_c: float | None) -> Use:
    """What a side of this key cooks in, at its setting [°C]; None for what has none."""
    shares = row("bodies", body)["shares"] == "yes"
    cook, ready_s = f"{key}/cook", 0.0
    if temp_c is not None:  # from cold
        usual = row("bodies", body)["appliances"].split()[0]
        ready_s = appliance_kind(usual).preheat_s or 0.0
    return Use(cook, key, body, cook, cook, temp_c, shares, ready_s, ready_s)


def normal_scores(members: int) -> Array:
    """Standard normal quantiles [-], (members,), the median first."""
    from scipy.special import ndtri  # noqa: PLC0415

    scores = ndtri((np.arange(members) + 0.5) / members)
    return np.asarray(scores[np.argsort(np.abs(scores), kind="stable")])
