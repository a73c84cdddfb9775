"""What a cook takes in energy, roughly: what each heat draws while it heats up and holds."""

from __future__ import annotations

from bluekettle.core.chain.forecast import PlanForecast
from bluekettle.core.chain.plan import Heat
from bluekettle.core.stages.links import Stage as Line
from bluekettle.core.tables import row

J_PER_KWH = 3.6e6  # (definition)
HEATING = ("warm_up", "oven_up", "heat_up")  # of the appliance, beside or waited for
COMING = ("come_up",)  # of what is in the vessel
HOLDING = ("hold", "finish")  # under the heat, in parts where hands come between


def energy_kwh(f: PlanForecast) -> dict[str, float]:
    """Energy [kWh] by what carries it: electricity, gas, charcoal. MissingData for a heat of
    which nothing is known.
    """
    found: dict[str, float] = {}
    for one in f.walk.passed:
        if not isinstance(one.stage, Heat):
            continue
        told = row("energy", one.stage.heat)
        own = [link for link in f.links if link.key.rsplit(".", 1)[0] == one.stage.id]
        joules = (
            float(told["up_w"]) * longest_s(own, HEATING)
            + float(told["come_up_w"]) * all_s(own, COMING)
            + float(told["hold_w"]) * all_s(own, HOLDING)
        )
        found[told["carrier"]] = found.get(told["carrier"], 0.0) + joules / J_PER_KWH
    return found


def step_of(link: Line) -> str:
    """What a link is within its stage: "pot.hold-2" is a hold."""
    return link.key.rsplit(".", 1)[-1].split("-")[0]


def all_s(links: list[Line], steps: tuple[str, ...]) -> float:
    """Likely seconds of these links together."""
    return sum(link.band.likely_s for link in links if step_of(link) in steps)


def longest_s(links: list[Line], steps: tuple[str, ...]) -> float:
    """Likely seconds of the longest: a wait for an appliance is part of its heating up."""
    return max((link.band.likely_s for link in links if step_of(link) in steps), default=0.0)
