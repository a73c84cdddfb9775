"""What has to be at hand before the first act: things by stage, act and check, from their table."""

from __future__ import annotations

from bluekettle.core.chain.forecast import PlanForecast
from bluekettle.core.chain.heats import heat_row
from bluekettle.core.chain.plan import (
    Beside,
    Blot,
    Cool,
    Drain,
    Dress,
    Heat,
    Hold,
    Marinate,
    Rest,
    Season,
    Stage,
    TakeApart,
    Thaw,
)
from bluekettle.core.errors import MissingData
from bluekettle.core.tables import row


def things_of(stage: Stage) -> tuple[str, ...]:
    """Keys of `preparation.csv` that a stage needs; MissingData for a kind that is not known."""
    match stage:
        case Thaw():
            return (f"thaw.{stage.where}",)
        case Season():
            return () if stage.layer else ("season",)
        case Marinate():
            return ("marinate",)
        case Heat():
            return tuple(act.do for act in stage.acts)
        case Drain():
            return ("drain",)
        case Blot():
            return ("blot",)
        case Rest():
            return ("covered",) if stage.covered else ()
        case Cool():
            return ("cool",)
        case TakeApart() | Dress() | Hold():
            return (stage.how,)
        case Beside():
            return ()
        case _:
            raise MissingData("kind of stage", type(stage).__name__, ["those of a plan"])


def things_at_hand(f: PlanForecast) -> tuple[str, ...]:
    """Things to lay out, in the order of their first use, each once."""
    found: list[str] = []
    for one in f.walk.passed:
        if isinstance(one.stage, Heat):
            found.append(heat_row(one.stage.heat).needs)
        keys = list(things_of(one.stage))
        pulled = f"{one.stage.id}.membrane"
        keys += ["membrane"] if any(link.key == pulled for link in one.passage.links) else []
        keys += ["blot"] if any(link.kind == "blot" for link in one.passage.links) else []
        if one.gate is not None:
            keys += ["gate.tender"] if one.gate.tender else []
            keys += [] if one.gate.safe_c is None else ["gate.safe"]
        found += [row("preparation", key)["thing"] for key in keys]
    return tuple(dict.fromkeys(thing for thing in found if thing))
