"""Where practitioners disagree: what each school would change of a plan, reckoned."""

from __future__ import annotations

import copy
from collections.abc import Sequence
from typing import Any

from bluekettle.core import chain as core
from bluekettle.core.errors import CoreError, NotConverged, OutOfRange
from bluekettle.core.glaze import draw_members
from bluekettle.schemas.chain import ChainDocument
from bluekettle.schemas.school import SchoolChoicePublic, SchoolPublic, SchoolsPublic
from bluekettle.services.chains import out_of_reach, plan_of

Json = dict[str, Any]
GLANCE = 64  # members that tell one school from another (numerical)
MEMORY: core.Memory[core.Known] = core.Memory()  # of this process


def schools_for(document: ChainDocument) -> SchoolsPublic:
    """The questions of a plan, each with its schools and what they change.

    Raises OutOfRange with every fault of the document.
    """
    plan = plan_of(document)
    draws = draw_members(plan.seed, GLANCE)
    try:
        base = core.forecast_plan(plan, None, draws, MEMORY)
    except NotConverged as error:
        raise OutOfRange([out_of_reach(document, error)]) from error
    words = core.school_rows()
    told = document.model_dump(mode="json")
    found = []
    for school in core.schools_of(base):
        rows = {choice.key: words[f"{school.key}/{choice.key}"] for choice in school.choices}
        first = rows[school.choices[0].key]
        choices = []
        for choice in school.choices:
            later_s, right = 0.0, base.right.all_of_it
            other = base if choice.chosen else tried(told, choice.patch, draws)
            if other is not None:
                later_s = other.total.likely_s - base.total.likely_s
                right = other.right.all_of_it
            choices.append(
                SchoolChoicePublic(
                    key=choice.key,
                    text=rows[choice.key]["text"],
                    why=rows[choice.key]["why"],
                    chosen=choice.chosen,
                    patch=list(choice.patch),
                    later_s=None if other is None else round(later_s, 1),
                    right=None if other is None else round(right, 3),
                )
            )
        found.append(
            SchoolPublic(
                key=school.key,
                question=first["question"],
                in_view=first["in_view"] == "1",
                choices=choices,
            )
        )
    return SchoolsPublic(schools=found)


def tried(told: Json, patch: Sequence[Json], draws: Any) -> core.PlanForecast | None:
    """The forecast of a changed plan; None where it cannot be cooked so."""
    try:
        plan = plan_of(ChainDocument.model_validate(changed(told, patch)))
        return core.forecast_plan(plan, None, draws, MEMORY)
    except (CoreError, ValueError):  # of the core, or of the document's own bounds
        return None


def changed(told: Json, patch: Sequence[Json]) -> Json:
    """A document after a JSON Patch of the operations that the core writes, add and remove (RFC
    6902).
    """
    found = copy.deepcopy(told)
    for operation in patch:
        *way, last = str(operation["path"]).lstrip("/").split("/")
        at: Any = found
        for name in way:
            at = at[int(name)] if isinstance(at, list) else at[name]
        if operation["op"] == "remove":
            del at[int(last)]
        elif not isinstance(at, list):
            at[last] = operation["value"]
        elif last == "-":
            at.append(operation["value"])
        else:
            at.insert(int(last), operation["value"])
    return found
