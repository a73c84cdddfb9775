"""Steps and events of a cook between their rows and the core."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from bluekettle.core.stages import Event, Evidence, Leg, StepPlan
from bluekettle.store.tables import CookEvent, CookStep

IN_DATA = ("beside", "before", "fire", "act", "approach", "until_s")


def plan_of(row: CookStep) -> StepPlan:
    """A step as the core follows it."""
    return plan_from(
        {
            "key": row.key,
            "who": row.who,
            "label": row.label,
            "low_s": row.low_s,
            "likely_s": row.likely_s,
            "high_s": row.high_s,
            **row.data,
        }
    )


def plan_from(kept: dict[str, Any]) -> StepPlan:
    """A step from plain JSON."""
    evidence = kept.get("evidence")
    names = ("key", "who", "label", "low_s", "likely_s", "high_s", *IN_DATA)
    known = {name: kept[name] for name in names if name in kept}
    return StepPlan(**known, evidence=None if evidence is None else Evidence(**evidence))


def row_of(plan: StepPlan, cook_id: int, place: int) -> CookStep:
    """A step as it is kept."""
    kept = asdict(plan)
    data = {name: kept[name] for name in (*IN_DATA, "evidence")}
    plain = {name: kept[name] for name in ("key", "who", "label", "low_s", "likely_s", "high_s")}
    return CookStep(cook_id=cook_id, place=place, data=data, **plain)


def plain(plan: StepPlan) -> dict[str, Any]:
    """A step as it is kept inside an event."""
    return asdict(plan)


def leg_json(leg: Leg) -> dict[str, Any]:
    """A way back as it is kept beside the check that asked for it."""
    return asdict(leg)


def leg_from(kept: dict[str, Any]) -> Leg:
    """A way back as it was kept."""
    steps = tuple(plan_from(step) for step in kept["steps"])
    return Leg(kept["heat"], kept["says"], steps)


def event_of(row: CookEvent, at_s: float) -> Event:
    """An event in seconds from the start."""
    data = row.data
    return Event(
        seq=row.seq,
        kind=row.kind,
        at_s=at_s,
        step=data.get("step", ""),
        seconds=data.get("seconds", 0.0),
        sign=data.get("sign", ""),
        undoes=data.get("undoes") or 0,
        temp_c=data.get("temp_c"),
        tender=data.get("tender"),
        reason=data.get("reason", ""),
        legs=tuple(leg_from(leg) for leg in data.get("legs", ())),
        way=data.get("way", 0),
        change=data.get("change", ""),
        jumped=tuple(data.get("jumped", ())),
        dropped=tuple(data.get("dropped", ())),
        waits=tuple((before, plan_from(wait)) for before, wait in data.get("waits", ())),
        ended=tuple(data.get("ended", ())),
        left=tuple(data.get("still", ())),
        dial=float(data.get("dial") or 0.0),
        steps=tuple((after, plan_from(step)) for after, step in data.get("steps", ())),
    )
