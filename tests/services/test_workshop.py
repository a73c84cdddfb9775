"""Heavy runs in processes of their own."""

import threading
from datetime import UTC, datetime

from bluekettle.schemas.dish import DishDocument
from bluekettle.services.heavy import WARM
from bluekettle.services.workshop import Workshop

NOW = datetime(2026, 11, 7, 12, 0, tzinfo=UTC)


def test_a_forecast_does_not_wait_behind_what_thinks_ahead():
    """Six pieces of advice are asked for first; the forecast is there before the last of them."""
    workshop = Workshop(workers=1)
    dish = DishDocument.model_validate(WARM)
    done: list[str] = []

    def ask(task, *payload):
        workshop.run(task, *payload)
        done.append(task)

    try:
        ask("forecast", dish, NOW)  # both processes are up and have their kernels
        ask("advise", dish)
        done.clear()
        ahead = [threading.Thread(target=ask, args=("advise", dish)) for _ in range(6)]
        for thread in ahead:
            thread.start()
        ask("forecast", dish, NOW)
        assert done.count("advise") < 6
        for thread in ahead:
            thread.join()
    finally:
        workshop.close()
