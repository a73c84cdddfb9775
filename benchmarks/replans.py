"""Evenings in which a third of all steps take longer: how long each plan of the rest takes, and
what comes of it. Run: make bench.
"""

from __future__ import annotations

import statistics
import sys
from collections.abc import Sequence
from pathlib import Path

sys.path.insert(0, str(Path(__file__).parents[1]))

from tests.schedule.evening_cooked import Evening, planned, slowed

EVENINGS = (("boathouse", 1), ("four-dishes", 1), ("five-dishes", 1), ("eight", 1))
UNTIL_S = 6.0 * 3600.0


def report(evenings: Sequence[tuple[str, int]] = EVENINGS) -> None:
    """A line for each evening."""
    print("meal                  replans  median_s  longest_s  supper  most past a limit [min]")
    for key, seed in evenings:
        plan, steps = planned(key)
        slow = slowed(steps, seed)
        cooked = Evening(plan, steps, lambda line, step, s=slow: s.get(f"{line}/{step.key}", 1.0))
        cooked.cook(UNTIL_S)
        spent = cooked.spent or [0.0]
        supper = max(cooked.served.values()) / 60.0
        past = max(cooked.past().values(), default=0.0) / 60.0
        print(
            f"{key:20}  {len(cooked.spent):7}  {statistics.median(spent):8.2f}  {max(spent):9.2f}"
            f"  {supper:6.0f}  {past:6.1f}"
        )


if __name__ == "__main__":
    report([(key, 1) for key in sys.argv[1:]] or EVENINGS)
