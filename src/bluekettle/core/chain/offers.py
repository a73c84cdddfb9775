"""What makes sense next: at every joint of a chain the rows of `offers.csv` whose conditions hold
of the food as it is there, the likeliest first.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from bluekettle.core.chain.begin import is_open, portions
from bluekettle.core.chain.conditions import fields_of, rows_that_hold
from bluekettle.core.chain.forecast import PlanForecast
from bluekettle.core.chain.heats import heat_row
from bluekettle.core.chain.plan import Drain, Dress, Heat, Season, Stage, TakeApart, Thaw
from bluekettle.core.stages import Cut
from bluekettle.core.tables import rows

OF_STAGES = ("raw", "cooked", "unsalted", "chilled", "frozen", "moist", "fired")
OF_SHAPE = ("whole", "strands", "bony")
FACTS = frozenset((*OF_STAGES, *OF_SHAPE))


def stages_to_put(f: PlanForecast) -> dict[str, dict[str, str]]:
    """Every row as a stage of this plan: its text, kind (`stage`) and fields as text. What only
    the page knows stands as `$sauce` and `$stage`.
    """
    told = {
        "$heat": f.cut.usual_heat,
        "$bite": f.cut.usual_bite,
        "$finish": f.cut.usual_finish,
        "$portions": str(portions(f.plan.mass_kg, f.plan.pieces)),
    }
    return {
        key: {"text": row["text"], **fields_of(row, told)} for key, row in rows("offers").items()
    }


@dataclass(frozen=True)
class Joint:
    """Between two stages: keys of the rows that make sense there, the likeliest first, and the
    sauce that would go on; empty where none is in use.
    """

    offers: tuple[str, ...]
    sauce: str


def joints(f: PlanForecast) -> dict[str, Joint]:
    """The joint after each stage, by its id; before all of them by ''."""
    fires = {fire.stage for fire in f.fires}
    found = {}
    for done, rest, strands in ways(f):
        facts = facts_after(done, f.cut, f.plan.state, strands, fires)
        key = done[-1].id if done else ""
        found[key] = Joint(offered(facts), sauce_between(done, rest))
    return found


def ways(f: PlanForecast) -> Iterator[tuple[tuple[Stage, ...], tuple[Stage, ...], bool]]:
    """The stages up to each joint and after it, and whether the food lies in strands there."""
    common = [one.stage for one in f.walk.line]
    strands = [False, *(one.passage.food.strands for one in f.walk.line)]
    later = [one.stage for tail in f.walk.tails for one in tail.line]
    for place, apart in enumerate(strands):
        yield tuple(common[:place]), (*common[place:], *later), apart
    for tail in f.walk.tails:
        own = [one.stage for one in tail.line]
        for place, one in enumerate(tail.line, start=1):
            yield (*common, *own[:place]), tuple(own[place:]), one.passage.food.strands


def sauce_between(done: Sequence[Stage], rest: Sequence[Stage]) -> str:
    """The sauce that would go on: the one that lies on the food in the next heat, since one fire
    has one sauce; where none does, the last that was used, else the next.
    """
    heats = (place for place, stage in enumerate(rest, start=1) if isinstance(stage, Heat))
    soon = rest[: next(heats, 0)]
    sauces = (*map(sauce_of, soon), *map(sauce_of, reversed(done)), *map(sauce_of, rest))
    return next(filter(None, sauces), "")


def sauce_of(stage: Stage) -> str:
    """The sauce that a stage puts on; a marinade is none."""
    if isinstance(stage, Dress):
        return stage.layer
    acts = stage.acts if isinstance(stage, Heat) else ()
    return next((act.layer for act in acts if act.do == "coat"), "")


def facts_after(
    done: Sequence[Stage], of: Cut, state: str, strands: bool, fires: set[str]
) -> frozenset[str]:
    """What holds of the food after these stages, in words of the table."""
    heated = any(isinstance(stage, Heat) for stage in done)
    thawed = any(isinstance(stage, Thaw) for stage in done)
    told = {
        "raw": not heated and not of.cooked,
        "cooked": heated or of.cooked,
        "unsalted": not of.salted and not any(isinstance(stage, Season) for stage in done),
        "frozen": state == "frozen" and not heated and not thawed,
        "chilled": state == "fridge" or thawed,
        "moist": bool(done) and leaves_moist(done[-1]),
        "fired": any(stage.id in fires for stage in done),
        "whole": not strands,
        "strands": strands,
        "bony": of.on_the_bone
        and not any(isinstance(stage, TakeApart) and stage.how == "bones" for stage in done),
    }
    return frozenset(fact for fact, holds in told.items() if holds)


def leaves_moist(stage: Stage) -> bool:
    """Whether food comes wet out of a stage."""
    if isinstance(stage, Heat):
        row = heat_row(stage.heat)
        return row.slow is not None and not is_open(row)
    return isinstance(stage, Drain)


def offered(facts: frozenset[str]) -> tuple[str, ...]:
    """Keys of the rows whose conditions hold; MissingData for one that nothing decides."""
    return tuple(row["key"] for row in rows_that_hold("offers", FACTS, facts))
