"""Chains to time: twelve stages with two fires, one more fire, and forty stages with six."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from bluekettle.core import chain
from bluekettle.core.glaze import draw_members
from bluekettle.core.sauce import sample_sauce

MEMBERS = draw_members(1, 256)
GLAZE = (chain.Layer("glaze", "glaze", sample_sauce("plum-tea")),)


def fire(key: str, heat: str, minutes: float | None = None) -> chain.Heat:
    """A fire that ends by its look, or after some minutes."""
    until = chain.Until("colour") if minutes is None else chain.Until("minutes", minutes)
    dial = None if heat == "broiler" else 220.0
    return chain.Heat(key, heat, until, dial, coat_mm=0.5)


def coated(key: str, heat: str, minutes: float | None = None) -> tuple[chain.Stage, ...]:
    """Brushed, under a fire, and a moment's rest."""
    return (
        chain.Dress(f"{key}-brush", "glaze", "brush", 0.4),
        fire(key, heat, minutes),
        chain.Rest(f"{key}-rest", 2.0, False),
    )


START: tuple[chain.Stage, ...] = (
    chain.Season("salt", "", 20.0),
    chain.Heat("pot", "pressure", chain.Until("minutes", 35.0), release="natural", liquid_l=0.35),
    chain.Drain("out"),
    chain.Rest("cool", 5.0, False),
    chain.TakeApart("cut", "portions", 8),
    chain.Blot("dry"),
)


def ribs(*stages: chain.Stage) -> chain.Plan:
    """Short ribs by these stages."""
    return chain.Plan("beef-short-ribs", 1.6, 6, 45.0, (*START, *stages), layers=GLAZE)


TWELVE = ribs(*coated("first", "oven", 6.0), *coated("last", "broiler"))
THREE = ribs(
    *coated("first", "oven", 6.0), *coated("second", "oven", 4.0), *coated("last", "broiler")
)
FORTY = ribs(
    *(one for i in range(5) for one in coated(f"f{i}", "oven", 3.0)),
    *(chain.Rest(f"wait-{i}", 1.0, False) for i in range(16)),
    *coated("last", "broiler"),
)


def work() -> dict[str, tuple[Callable[[], object], str]]:
    """Name, what to run, and its goal."""
    assert (len(TWELVE.stages), len(FORTY.stages)) == (12, 40)
    return {
        "chain of 12 stages, two fires": (lambda: run(TWELVE), "250 ms"),
        "the same with a third fire": (lambda: run(THREE), "40 ms more"),
        "the same 12 after an edit of its last fire": (edited(TWELVE), ""),
        "the same 12 after an edit of its first heat": (edited(TWELVE, 1), ""),
        "chain of 40 stages, six fires, nothing known": (lambda: run(FORTY), ""),
        "the same 40 after an edit of its last fire": (edited(FORTY), "1 s"),
        "the same 40 after an edit of its first fire": (edited(FORTY, 7), "1 s"),
    }


def run(plan: chain.Plan, memory: chain.Memory[chain.Known] | None = None) -> object:
    """One forecast of all members."""
    return chain.forecast_plan(plan, None, MEMBERS, memory)


def edited(plan: chain.Plan, place: int = -2) -> Callable[[], object]:
    """A forecast after the heat at this place has changed a little, each time anew."""
    memory: chain.Memory[chain.Known] = chain.Memory()
    run(plan, memory)
    turn = [0]

    def again() -> object:
        turn[0] += 1
        heat = plan.stages[place]
        assert isinstance(heat, chain.Heat)
        if heat.until.minutes is None:
            other = replace(heat, coat_mm=heat.coat_mm + 1e-3 * turn[0], dial=0.15 + 1e-3 * turn[0])
        else:
            minutes = heat.until.minutes + 0.01 * turn[0]
            other = replace(heat, until=replace(heat.until, minutes=minutes))
        stages = tuple(other if one is heat else one for one in plan.stages)
        return run(replace(plan, stages=stages), memory)

    return again
