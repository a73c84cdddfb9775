"""Two hundred simulated kitchens, cooked in by the guide and by fixed minutes.

Each kitchen's fierce heat is 0.6 to 1.6 of the usual (evenly in its logarithm) and stays. Of the
spread of its hand, its cut and its sauce a share stays (nine tenths: "same"; half: "half"; none:
"anew"); the rest is drawn anew every evening, as is all else. None of this is the belief's own
split. The cook
looks when the guide says, tells the signs that the simulated food shows by then, and takes it out
when the guide says. What was seen on one evening teaches the next.

Run: .venv/bin/python -m tests.against.rehearsed_kitchens [KITCHENS] [DISH|colours] [same|half|anew]
prints a table of docs/model.md. With `colours` for the dish number, nobody looks: the food is out
when the plan's minutes are over, and the colour it came out in is told, which teaches the next.
"""

from __future__ import annotations

import sys
from dataclasses import dataclass, replace

import numpy as np
from tests.conftest import SHORT_RIBS

from bluekettle.core.calibration import (
    COLOURS,
    Belief,
    CameOut,
    SignSeen,
    first_belief,
    learn_from,
    learn_from_colour,
    next_cook,
)
from bluekettle.core.chain import (
    Fire,
    Known,
    Memory,
    Plan,
    Truth,
    eaten,
    forecast_plan,
    hidden_kitchen,
    truth_of,
)
from bluekettle.core.glaze import Draws, weighted_quantile
from bluekettle.core.stages import Sighting, looks_of
from bluekettle.core.stages.finishing import heat_of
from bluekettle.core.stages.kitchen import Learnt
from bluekettle.schemas.chain import ChainDocument
from bluekettle.services.chains import plan_of

KITCHENS, EVENINGS = 200, 4
STAYS = {"same": 0.9, "half": 0.5, "anew": 0.0}  # of the variance
FACTORS = (0.6, 1.6)
STAGE = "finish"
SIGNS = {"bubbling": (1, 1), "amber at the edges": (1, 2), "dark": (0, 3)}
MOST_LOOKS = 400
DISHES = {
    "ribs, one coat, amber, broiler": {"coats": 1, "want": "amber"},
    "ribs, one coat, dark, broiler": {"coats": 1, "want": "mahogany"},
    "ribs, one coat, amber, oven": {"coats": 1, "want": "amber", "finish": "oven"},
}


@dataclass
class Tally:
    """How many evenings came out as wanted, and how many burnt."""

    evenings: int = 0
    right: int = 0
    burnt: int = 0

    def add(self, truth: Truth, out_s: float) -> None:
        """Count one evening."""
        found = eaten(truth.fire(STAGE), out_s)
        self.evenings += 1
        self.right += found.right
        self.burnt += found.burnt

    def shares(self) -> str:
        """Right and burnt in per cent."""
        right, burnt = (100.0 * count / self.evenings for count in (self.right, self.burnt))
        return f"{right:.0f} % | {burnt:.0f} %"


def plan_for(more: dict[str, object]) -> Plan:
    """A dish as a plan."""
    return plan_of(ChainDocument.model_validate({**SHORT_RIBS, **more}))


def fire_of(plan: Plan, seen: list[Sighting], memory: Memory[Known]) -> Fire:
    """The fire as the guide sees it after some signs."""
    told = replace(plan, sightings={STAGE: tuple(seen)})
    return forecast_plan(told, memory=memory).fires[0]


def by_the_guide(plan: Plan, truth: Truth, memory: Memory[Known]) -> tuple[float, list[Sighting]]:
    """When the food is taken out [s], and the signs that were told."""
    times = truth.fire(STAGE).finish.times_s[0]
    now, seen = 0.0, []
    for _ in range(MOST_LOOKS):
        fire = fire_of(plan, seen, memory)
        pull = weighted_quantile(fire.pull_s, fire.weights, 0.5)
        looks = looks_of(fire.milestones, fire.finish.sample_s)
        after = next((t for t in looks if t > now), now + fire.milestones.look_every_s)
        if after >= pull:
            return max(now, pull), seen
        now = after
        known = {one.sign for one in seen}
        new = [s for s, (site, mark) in SIGNS.items() if times[site, mark] <= now]
        seen += [Sighting(sign, now) for sign in new if sign not in known]
        if "dark" in new and fire.want == "mahogany":
            return now, seen
    raise AssertionError("it was never taken out")


def taught(belief: Belief, fire: Fire, seen: list[Sighting]) -> Belief:
    """What an evening's signs teach the next."""
    told = [SignSeen(one.sign, one.at_s) for one in seen]
    return next_cook(belief, learn_from(belief, heat_of(fire.under.dish), fire.coating, told))


def knowing(plan: Plan, heat: str, belief: Belief) -> Plan:
    """The plan in a kitchen that has learnt."""
    learnt = Learnt(tuple(belief.mean), tuple(belief.cov.ravel()), belief.seen)
    return replace(plan, kitchen=replace(plan.kitchen, learnt={heat: learnt}))


def kitchen_of(number: int, evening: int, heat: float, stays: float) -> Draws:
    """One evening in one kitchen; `heat` in its standard deviations, `stays` of the variance."""
    tonight = hidden_kitchen(1000 + EVENINGS * number + evening, heat)
    usual = hidden_kitchen(500_000 + number)
    mixed = {
        name: np.sqrt(stays) * usual.normal[name] + np.sqrt(1.0 - stays) * tonight.normal[name]
        for name in ("coat", "interface", "browning")
    }
    return Draws({**tonight.normal, **mixed})


def rehearse(
    more: dict[str, object], kitchens: int = KITCHENS, stays: float = STAYS["half"]
) -> dict[str, Tally]:
    """Every kitchen for four evenings; tallies by what was known."""
    plain = plan_for(more)
    forecast = forecast_plan(plain)
    fire = forecast.fires[0]
    heat = fire.under.dish.heat
    spread = heat_of(fire.under.dish).spread
    minutes = {forecast.slows[0].stage: forecast.slows[0].timer_s / 60.0}
    names = ("fixed minutes", "the guide, first evening", "after one", "after two", "after three")
    tallies = {name: Tally() for name in names}
    for number, factor in enumerate(np.geomspace(*FACTORS, kitchens)):
        plan, belief = plain, first_belief(spread)
        for evening in range(EVENINGS):
            kitchen = kitchen_of(number, evening, float(np.log(factor) / spread), stays)
            truth = truth_of(plain, kitchen, minutes)
            out_s, seen = by_the_guide(plan, truth, Memory())
            tallies[names[1 + evening]].add(truth, out_s)
            if evening == 0:
                tallies[names[0]].add(truth, fire.timer_s)
            belief = taught(belief, fire, seen)
            plan = knowing(plain, heat, belief)
    return tallies


def colour_of(truth: Truth, out_s: float) -> str:
    """What the simulated food looks like as it comes out."""
    face, edge = truth.fire(STAGE).finish.times_s[0]
    come = [face[2], face[3], edge[4], edge[5]]
    return COLOURS[max((i + 1 for i, t in enumerate(come) if t <= out_s), default=0)]


def by_minutes(
    more: dict[str, object], kitchens: int = KITCHENS, stays: float = STAYS["half"]
) -> dict[str, Tally]:
    """Every kitchen for four evenings, nobody looks, the colour is told; tallies by evening."""
    plain = plan_for(more)
    forecast = forecast_plan(plain)
    first = forecast.fires[0]
    heat = heat_of(first.under.dish)
    minutes = {forecast.slows[0].stage: forecast.slows[0].timer_s / 60.0}
    tallies = {f"minutes, {when}": Tally() for when in ("first", "second", "third", "fourth")}
    for number, factor in enumerate(np.geomspace(*FACTORS, kitchens)):
        fire, belief = first, first_belief(heat.spread)
        for evening, tally in enumerate(tallies.values()):
            kitchen = kitchen_of(number, evening, float(np.log(factor) / heat.spread), stays)
            truth, out_s = truth_of(plain, kitchen, minutes), fire.timer_s
            tally.add(truth, out_s)
            told = CameOut(colour_of(truth, out_s), out_s)
            belief = next_cook(belief, learn_from_colour(belief, heat, first.coating, told))
            fire = fire_of(knowing(plain, first.under.dish.heat, belief), [], Memory())
    return tallies


def main() -> None:
    """Print the table."""
    kitchens = int(sys.argv[1]) if len(sys.argv) > 1 else KITCHENS
    colours = sys.argv[2:3] == ["colours"]
    names = (
        list(DISHES) if len(sys.argv) < 3 else [list(DISHES)[0 if colours else int(sys.argv[2])]]
    )
    stays = STAYS[sys.argv[3]] if len(sys.argv) > 3 else STAYS["half"]
    print("| dish | pulled by | in the wanted colours | burnt |")
    print("|---|---|---|---|")
    for name in names:
        cooked = by_minutes if colours else rehearse
        for known, tally in cooked(DISHES[name], kitchens, stays).items():
            print(f"| {name} | {known} | {tally.shares()} |", flush=True)


if __name__ == "__main__":
    main()
