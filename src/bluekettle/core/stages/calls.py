"""When to call the cook while food is under fierce heat: look, look closer, full screen, out
now.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from bluekettle.core.errors import within
from bluekettle.core.glaze import Milestones
from bluekettle.core.stages.finishing import Array

MOST_CALLS = 80


@dataclass(frozen=True)
class Call:
    """One call: seconds under the heat, its level (look, closer, full, out) and what to say."""

    at_s: float
    level: str
    says: str


def out_by_s(milestones: Milestones, sample_s: Array) -> float:
    """The last moment [s] that can be defended: the window's end; with an empty window, the earlier
    of the wanted colour's median and the moment at which burning is as likely as not."""
    window = milestones.window
    if not window.empty and window.closes_s is not None:
        return window.closes_s
    even = sample_s[milestones.risk >= 0.5]
    first = [t for t in (window.opens_s, float(even[0]) if even.size else None) if t is not None]
    return min(first) if first else float(sample_s[-1])


def plan_calls(
    milestones: Milestones,
    sample_s: Array,
    coats_s: tuple[tuple[float, float], ...],
    flips_s: tuple[float, ...] = (),
) -> tuple[Call, ...]:
    """All calls of one finish, in order.

    Looks begin at the 5 % point of the first sign and follow at an interval no longer than half the
    shortest likely gap by sight. From the moment the risk passes 5 % (or the window opens) they
    come twice as often; the last fifth is full screen; then "Out now." until somebody says that it
    is out.
    """
    out = out_by_s(milestones, sample_s)
    first = min(milestones.look_from_s, out)
    window = milestones.window
    closer = window.opens_s if not window.empty and window.opens_s is not None else window.closes_s
    closer = min(closer if closer is not None else out, out)
    full = max(closer, out - max(15.0, 0.2 * (out - first)))
    calls = [
        Call(start, "coat", f"Coat {i + 1} now")
        for i, (start, _) in enumerate(coats_s)
        if start > 0
    ]
    calls += [Call(flip, "turn", "Turn it now") for flip in flips_s]
    time, every = first, max(milestones.look_every_s, (out - first) / (MOST_CALLS / 2))
    while time < out - 1.0 and len(calls) < MOST_CALLS:
        level = "full" if time >= full else "closer" if time >= closer else "look"
        says = {"look": "Look now", "closer": "Look closer", "full": "Nearly out. Watch it"}[level]
        calls.append(Call(float(time), level, says))
        time += every if level == "look" else max(5.0, 0.5 * every)
    calls.append(Call(float(out), "out", "Out now."))
    return tuple(sorted(calls, key=lambda call: call.at_s))


def risk_at(milestones: Milestones, sample_s: Array, time_s: float) -> float:
    """Chance of burning by a time under the heat [-], 0 to 6 h; OutOfRange otherwise."""
    within("time_s", time_s, 0.0, 21_600.0, "s")
    return float(np.interp(time_s, sample_s, milestones.risk))
