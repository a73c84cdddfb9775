"""Speed of the model: medians over repeats, one core, warm. Run: make bench."""

from __future__ import annotations

import os
import statistics
import time
from collections.abc import Callable

from bluekettle.core.glaze import Heat, draw_members, run_finish
from bluekettle.core.sauce import sample_sauce
from bluekettle.core.stages import Dish, Sighting, forecast
from bluekettle.core.stages.dish import cut
from bluekettle.core.stages.finishing import coating_of

RIBS = Dish("beef-short-ribs", 1.6, 6, 45.0, sauce=sample_sauce("plum-tea"), coats=2)


def median_s(work: Callable[[], object], repeats: int = 15) -> tuple[float, float]:
    """Median and worst seconds of several repeats, the first (cold) run left out."""
    work()
    times = []
    for _ in range(repeats):
        start = time.perf_counter()
        work()
        times.append(time.perf_counter() - start)
    return statistics.median(times), max(times)


def main() -> None:
    """Print one line per figure."""
    print(f"{os.cpu_count()} cores; median and worst of 15 repeats")
    draws = draw_members(1, 256)
    coating = coating_of(RIBS, cut(RIBS.cut))
    seen = Dish(**{**RIBS.__dict__, "sightings": (Sighting("amber at the edges", 200.0),)})
    work: dict[str, Callable[[], object]] = {
        "one finish, 256 members, both sites, 20 min": lambda: run_finish(
            draws, Heat(12, 220, 220, 2650, 0.35), coating, [(0, 0)], 80.0, 70.0, 1200
        ),
        "one dish from raw to plate, 128 members": lambda: forecast(RIBS),
        "the same after a sighting": lambda: forecast(seen),
        "from frozen": lambda: forecast(Dish(**{**RIBS.__dict__, "state": "frozen"})),
        "braise": lambda: forecast(Dish(**{**RIBS.__dict__, "tenderise": "braise"})),
    }
    for name, call in work.items():
        likely, worst = median_s(call)
        print(f"{name:48} {likely * 1e3:7.1f} ms   {worst * 1e3:7.1f} ms")


if __name__ == "__main__":
    main()
