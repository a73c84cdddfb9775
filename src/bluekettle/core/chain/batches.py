"""What does not lie in one layer goes under the fire in batches: one after the other, each from the
first stage that has no room for all of it on.
"""

from __future__ import annotations

from collections.abc import Iterator

from bluekettle.core.chain.forecast import PlanForecast
from bluekettle.core.chain.heats import heat_row
from bluekettle.core.chain.plan import (
    MOST_HEATS,
    MOST_SHARES,
    MOST_STAGES,
    Beside,
    Dress,
    Heat,
    Rounds,
    Split,
    Stage,
    TakeApart,
    fresh_id,
    ids_of,
)

Operation = dict[str, object]


def in_batches(f: PlanForecast, crowded: str, count: int) -> tuple[Operation, ...]:
    """A JSON Patch (RFC 6902) that splits a plan into so many equal batches before a stage that has
    no room for all; with it goes the sauce that is put on for it. Empty where there is no such
    split: too many batches, a stage in rounds or a split, one of these after it, another appliance,
    which would take all of it together again, or a cut into so many portions in all.
    """
    stages = f.plan.stages
    place = next((n for n, stage in enumerate(stages) if stage.id == crowded), None)
    if place is None or not 2 <= count <= MOST_SHARES:
        return ()
    while place and isinstance(stages[place - 1], Dress):
        place -= 1
    rest = stages[place:]
    if any(isinstance(stage, Rounds | Split) or in_portions(stage) for stage in rest):
        return ()
    heats = [stage for stage in rest if isinstance(stage, Heat)]
    if len({heat_row(stage.heat).body for stage in heats}) != 1:
        return ()
    more = count - 1
    if len(heats) * more + sum(isinstance(one.stage, Heat) for one in f.walk.passed) > MOST_HEATS:
        return ()
    if len(rest) * more + len(f.walk.passed) + len(f.walk.beside) >= MOST_STAGES:
        return ()
    return tuple(operations(place, rest, len(stages), count, ids_of(f.plan)))


def in_portions(stage: Stage) -> bool:
    """Whether it is cut into a number of portions that is told for all of it."""
    return isinstance(stage, TakeApart) and stage.how == "portions"


def operations(
    place: int, rest: tuple[Stage, ...], whole: int, count: int, ids: set[str]
) -> Iterator[Operation]:
    """An empty split at the end, and a copy of every stage in each of its batches: in the first as
    it was, in the others with an id of its own. What is done beside stays where it is.
    """
    name = fresh_id("batches", ids)
    shares = [{"share": round(1.0 / count, 4), "stages": []} for _ in range(count)]
    split: Operation = {"kind": "split", "id": name, "shares": shares}
    yield {"op": "add", "path": f"/stages/{whole}", "value": split}
    inside = [n for n, stage in enumerate(rest, start=place) if not isinstance(stage, Beside)]
    taken = {*ids, name}
    for batch in range(count):
        for to, n in enumerate(inside):
            at = f"/stages/{whole}/shares/{batch}/stages/{to}"
            yield {"op": "copy", "from": f"/stages/{n}", "path": at}
            if batch:
                own = fresh_id(f"{rest[n - place].id}-{batch + 1}", taken)
                taken.add(own)
                yield {"op": "add", "path": f"{at}/id", "value": own}
    for n in reversed(inside):
        yield {"op": "remove", "path": f"/stages/{n}"}
