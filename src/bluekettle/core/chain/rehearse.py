"""One kitchen that nobody knows, for a rehearsal: the food of a plan in it, with the times that its
heats really had.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.chain.passage import Fire
from bluekettle.core.chain.plan import Heat, Plan, Share, Split, Stage, unrolled
from bluekettle.core.chain.walk import Passed, walk
from bluekettle.core.errors import MissingData, Ranges
from bluekettle.core.glaze import Act, Draws, draw_members
from bluekettle.core.glaze.milestones import EDGE, FACE
from bluekettle.core.stages import cut
from bluekettle.core.stages.bite import BITE_ORDER, least_for
from bluekettle.core.stages.tally import CENTRE, MEAN
from bluekettle.core.tables import value

Array = NDArray[np.float64]

TOO_MUCH = ("bitter_index", "burnt_index")  # of the face, of the edge


@dataclass(frozen=True)
class Eaten:
    """What came of a fire at the second at which the food left it: browning index of face and edge
    [-], whether that is the colour that was wanted, and whether it is burnt.
    """

    face: float
    edge: float
    right: bool
    burnt: bool


@dataclass(frozen=True)
class Truth:
    """The food in the hidden kitchen: what it is after every stage, and every fire's film."""

    plan: Plan
    passed: tuple[Passed, ...]

    def after(self, stage: str) -> Passed:
        """The food after a stage; MissingData names those there are."""
        found = next((one for one in self.passed if one.stage.id == stage), None)
        if found is None:
            known = [one.stage.id for one in self.passed]
            raise MissingData("stage of the rehearsal", stage, known)
        return found

    def core_c(self, stage: str) -> float:
        """The middle of the food at the end of a stage [°C]."""
        return float(self.after(stage).passage.food.brought.profile_c[0, 0])

    def bite(self, stage: str) -> str:
        """How it eats at the end of a stage: one of the cut's bites; empty for tougher than all."""
        of = cut(self.plan.cut)
        which = CENTRE if of.site == "centre" else MEAN
        cook_min = float(self.after(stage).passage.food.tally(which)[0])
        known = [bite for bite in BITE_ORDER if bite in of.targets]
        return next((b for b in reversed(known) if cook_min >= least_for(b, of)), "")

    def fire(self, stage: str) -> Fire:
        """A fire's film; MissingData for a stage that is none."""
        found = self.after(stage).passage.fire
        if found is None:
            known = [one.stage.id for one in self.passed if one.passage.fire is not None]
            raise MissingData("fire of the rehearsal", stage, known)
        return found


def eaten(fire: Fire, out_s: float) -> Eaten:
    """What a fire of one kitchen comes to where the food leaves it after so many seconds [s]."""
    traces, times = fire.finish.traces[0], fire.finish.sample_s
    face, edge = (float(np.interp(out_s, times, traces[s, :, 0])) for s in (FACE, EDGE))
    right = float(np.interp(out_s, times, fire.milestones.wanted))
    half = 0.5  # of a member that is there or is not (numerical)
    limits = [value(name) for name in TOO_MUCH]
    burnt = face >= limits[0] or edge >= limits[1]
    return Eaten(face, edge, right >= half and not burnt, burnt)


def hidden_kitchen(seed: int, heat: float | None = None) -> Draws:
    """One kitchen, drawn from what kitchens are like.

    Parameters
    ----------
    seed : int
        0 to 2**31; the same seed is the same kitchen.
    heat : float, optional
        Log factor of its fierce heats in their standard deviations, -4 to 4; drawn when absent.

    Raises
    ------
    OutOfRange
    """
    ranges = Ranges()
    ranges.within("seed", seed, 0, 2**31)
    if heat is not None:
        ranges.within("heat", heat, -4.0, 4.0)
    ranges.close()
    dice = np.random.default_rng(seed)
    drawn = {name: dice.standard_normal(1) for name in sorted(draw_members().normal)}
    if heat is not None:
        drawn["heat"] = np.array([heat])
    return Draws(drawn)


def alike(kitchen: Draws, members: int) -> Draws:
    """The same kitchen so many times over, for what wants several members."""
    return Draws({name: np.repeat(drawn, members) for name, drawn in kitchen.normal.items()})


def truth_of(
    plan: Plan,
    kitchen: Draws,
    minutes: Mapping[str, float],
    acts: Mapping[str, tuple[Act, ...]] | None = None,
) -> Truth:
    """The food of a plan in one kitchen.

    Parameters
    ----------
    plan : Plan
    kitchen : Draws
        Of one member.
    minutes : mapping
        What each slow heat really had [min], by the id of its stage: its planned time where it has
        not been yet. Every slow heat that ends by a bite or a core temperature is in it.
    acts : mapping, optional
        Coats and turns that were done, by the id of their fire.
    """
    stages = timed_stages(unrolled(plan.stages), minutes)
    real = replace(plan, stages=stages, sightings={}, told=dict(acts or {}))
    return Truth(real, walk(real, kitchen).passed)


def timed_stages(stages: Sequence[Stage], minutes: Mapping[str, float]) -> tuple[Stage, ...]:
    """The stages with the minutes that their heats had."""
    found: list[Stage] = []
    for stage in stages:
        if isinstance(stage, Heat) and stage.id in minutes:
            until = replace(stage.until, minutes=minutes[stage.id])
            found.append(replace(stage, until=until))
        elif isinstance(stage, Split):
            shares = tuple(
                Share(one.share, timed_stages(unrolled(one.stages), minutes))
                for one in stage.shares
            )
            found.append(replace(stage, shares=shares))
        else:
            found.append(stage)
    return tuple(found)
