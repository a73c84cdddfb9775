"""Where the dial of a fire stands, or its tray hangs, as the cook tells it while it is on."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from bluekettle.core import chain as core
from bluekettle.core.errors import Fault
from bluekettle.core.stages import Event, Kitchen, Progress, finish_kind, not_undone
from bluekettle.schemas.chain import ChainDocument
from bluekettle.schemas.cook import DialPublic
from bluekettle.schemas.heating import HeatingDocument
from bluekettle.services.chains import plan_of
from bluekettle.services.dishes import kitchen_of

RACKS_M = (0.08, 0.12, 0.16, 0.20, 0.25)  # of an oven of which nobody told any (typical, estimated)
AROUND = (-20.0, -10.0, 10.0, 20.0)  # settings near the planned one [°C]


def dials_of(document: ChainDocument, events: Sequence[Event]) -> dict[str, float]:
    """By the id of a fire, where its dial stands by what was told last and holds; in rounds that of
    one round is that of all.
    """
    told = {one.step: one.dial for one in not_undone(events) if one.kind == "dial"}
    if not told:
        return {}
    ways = core.paths(plan_of(document).stages)
    alike = {way: told[stage] for stage, way in ways.items() if stage in told}
    return {stage: alike[way] for stage, way in ways.items() if way in alike}


def with_dials(document: ChainDocument, dials: Mapping[str, float]) -> ChainDocument:
    """The plan with its dials where they stand; in rounds those of every round."""
    if not dials:
        return document
    told = document.model_dump(mode="json")
    ways = core.paths(plan_of(document).stages)
    for stage, value in dials.items():
        at = told
        for name in ways[stage].lstrip("/").split("/"):
            at = at[int(name)] if isinstance(at, list) else at[name]
        at["dial"] = value
    return ChainDocument.model_validate(told)


def with_dial(heating: HeatingDocument, value: float) -> HeatingDocument:
    """The food under its fire with the dial of that where it stands."""
    name = finish_kind(heating.fire).dial
    return heating.model_copy(update={"kitchen": heating.kitchen.model_copy(update={name: value})})


def dial_of(heating: HeatingDocument) -> float:
    """Where the dial of its fire stands: as stated, else as usual."""
    name = finish_kind(heating.fire).dial
    stated = getattr(heating.kitchen, name)
    return Kitchen().or_typical(name) if stated is None else float(stated)


def dial_public(
    document: ChainDocument, heating: HeatingDocument, stage: str, read: float | None
) -> DialPublic | None:
    """The dial of a fire; None of one that came for another, where it stands as usual. read : where
    it stands by a thermometer, where that is elsewhere.
    """
    row = heat_of_plan(document, stage)
    if row is None:
        return None
    value = dial_of(heating)
    if row.dial_unit == "m":
        racks = kitchen_of(heating.kitchen).racks_m
        usual = list(racks or RACKS_M)
    else:
        usual = [value + step for step in AROUND]
    usual = [one for one in usual if row.dial_low <= one <= row.dial_high]
    return DialPublic(
        value=value,
        unit=row.dial_unit,
        low=row.dial_low,
        high=row.dial_high,
        usual=usual,
        read=read,
    )


def heat_of_plan(document: ChainDocument, stage: str) -> core.HeatRow | None:
    """The heat of a stage that the plan itself has; None of others."""
    found = core.stage_named(plan_of(document).stages, stage)
    return core.heat_row(found.heat) if isinstance(found, core.Heat) else None


def dial_faults(
    document: ChainDocument, progress: Progress, stage: str, dial: float | None
) -> list[Fault]:
    """A dial wants food that is certainly under that fire, and a place that it can stand at."""
    fire = progress.fire
    if fire is None or fire.assumed or fire.name != stage:
        return [Fault("step", stage, "the fire that the food is under")]
    row = heat_of_plan(document, stage)
    if row is None:
        return [Fault("step", stage, "a fire of the plan: what came for another stands as usual")]
    if dial is None or not row.dial_low <= dial <= row.dial_high:
        return [Fault("dial", dial, f"{row.dial_low:g} to {row.dial_high:g} {row.dial_unit}")]
    return []
