"""When to call the cook while food is under fierce heat: look, nearer, nearly out, out now.

Each level calls once, the nearer the louder; between them the cook looks at the moments of
`looks_of`, which are shown and do not ring.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from bluekettle.core.errors import within
from bluekettle.core.glaze import Act, Milestones
from bluekettle.core.stages.finishing import Array

MOST_LOOKS = 40
LEVELS = ("look", "act", "closer", "full", "out")
SAYS = {
    "look": "Look now",
    "closer": "Look closer",
    "full": "Nearly out. Watch it",
    "out": "Out now.",
}
EVEN = 0.5  # as likely as not
LAST_FIFTH = 0.2  # of a window, when the calls fill the screen (design)
LEAST_FULL_S = 15.0  # (design)
LEAST_LOOK_S = 5.0  # (design)


@dataclass(frozen=True)
class Call:
    """One call: seconds under the heat, its level (look to out) and what to say."""

    at_s: float
    level: str
    says: str


def out_by_s(milestones: Milestones, sample_s: Array) -> float:
    """The last moment [s] that can be defended: the window's end; with an empty window, the earlier
    of the wanted colour's median and the moment at which burning is as likely as not.
    """
    window = milestones.window
    if not window.empty and window.closes_s is not None:
        return window.closes_s
    even = sample_s[milestones.risk >= EVEN]
    ends = (window.opens_s, float(even[0]) if even.size else None)
    first = [end for end in ends if end is not None]
    return min(first) if first else float(sample_s[-1])


@dataclass(frozen=True)
class Nearing:
    """Moments of one finish [s under the heat], in order: first look, closer, nearly out, out."""

    look_s: float
    closer_s: float
    full_s: float
    out_s: float


def nearing_of(milestones: Milestones, sample_s: Array) -> Nearing:
    """The first look is the 5 % point of the first sign; closer from the moment the window opens
    (or the risk passes 5 %); the last fifth is nearly out.
    """
    out = out_by_s(milestones, sample_s)
    first = min(milestones.look_from_s, out)
    window = milestones.window
    opens = window.opens_s if not window.empty else window.closes_s
    closer = min(out if opens is None else opens, out)
    full = max(closer, out - max(LEAST_FULL_S, LAST_FIFTH * (out - first)))
    return Nearing(first, closer, min(full, out), out)


def plan_calls(
    milestones: Milestones, sample_s: Array, acts: tuple[Act, ...] = ()
) -> tuple[Call, ...]:
    """All calls of one finish, in order: each level once, and each act when it is due.

    A level that would come at the same moment as a louder one is left out.
    """
    near = nearing_of(milestones, sample_s)
    levels = [
        ("look", near.look_s),
        ("closer", near.closer_s),
        ("full", near.full_s),
        ("out", near.out_s),
    ]
    calls = [
        Call(float(at), level, SAYS[level])
        for (level, at), later in zip(levels, [*(t for _, t in levels[1:]), np.inf], strict=True)
        if at < later
    ]
    calls += [Call(act.at_s, "act", act_says(act)) for act in acts if act.at_s > 0.0]
    return tuple(sorted(calls, key=lambda call: (call.at_s, LEVELS.index(call.level))))


def calls_by_clock(out_s: float, acts: tuple[Act, ...] = ()) -> tuple[Call, ...]:
    """The calls of a fierce heat that ends by the clock [s under the heat], 1 s to 3 h: nearly out
    in its last fifth, out at its end, and each act when it is due. OutOfRange otherwise.
    """
    within("out_s", out_s, 1.0, 10_800.0, "s")
    full_s = out_s - max(LEAST_FULL_S, LAST_FIFTH * out_s)
    calls = [Call(out_s, "out", SAYS["out"])]
    if full_s > 0.0:
        calls.append(Call(full_s, "full", SAYS["full"]))
    calls += [Call(act.at_s, "act", act_says(act)) for act in acts if 0.0 < act.at_s < out_s]
    return tuple(sorted(calls, key=lambda call: (call.at_s, LEVELS.index(call.level))))


def act_says(act: Act) -> str:
    """What to say when an act is due."""
    if act.coat and act.turn:
        return "Turn it and coat it"
    return "Next coat now" if act.coat else "Turn it now"


def looks_of(milestones: Milestones, sample_s: Array) -> tuple[float, ...]:
    """Moments to look [s under the heat]: from the first sign on at an interval no longer than half
    the shortest likely gap by sight, twice as often from the moment it gets near.
    """
    near = nearing_of(milestones, sample_s)
    every = max(milestones.look_every_s, (near.out_s - near.look_s) / MOST_LOOKS)
    looks, time = [], near.look_s
    while time < near.out_s - 1.0:
        looks.append(round(float(time), 1))
        time += every if time < near.closer_s else max(LEAST_LOOK_S, 0.5 * every)
    return tuple(looks)


def risk_at(milestones: Milestones, sample_s: Array, time_s: float) -> float:
    """Chance of burning by a time under the heat [-], 0 to 6 h; OutOfRange otherwise."""
    within("time_s", time_s, 0.0, 21_600.0, "s")
    return float(np.interp(time_s, sample_s, milestones.risk))
