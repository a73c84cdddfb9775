"""Heavy runs in processes of their own."""

import multiprocessing
import os
import signal
import threading
import time
from contextlib import suppress
from datetime import UTC, datetime
from pathlib import Path

import pytest

from bluekettle.core.glaze.kernel import integrate
from bluekettle.core.stages.dry import run_dry
from bluekettle.core.stages.standing import carry_over, heat_one_side
from bluekettle.core.stages.vessel import run_vessel
from bluekettle.schemas.advice import FireCreate
from bluekettle.schemas.meal import MealDocument
from bluekettle.services.chains import forecast_chain
from bluekettle.services.errors import Busy
from bluekettle.services.heavy import warm, warming
from bluekettle.services.templates import templates
from bluekettle.services.workshop import Workshop

NOW = datetime(2026, 11, 7, 12, 0, tzinfo=UTC)


def test_a_forecast_does_not_wait_behind_what_thinks_ahead():
    """Six pieces of advice are asked for first; the forecast is there before the last of them."""
    workshop = Workshop(workers=1)
    dish = warming("pressure")
    asked = FireCreate(chain=dish)
    done: list[str] = []

    def ask(task, *payload):
        workshop.run(task, *payload)
        done.append(task)

    try:
        ask("forecast", dish, NOW)  # both processes are up and have their kernels
        ask("advise", asked)
        done.clear()
        ahead = [threading.Thread(target=ask, args=("advise", asked)) for _ in range(6)]
        for thread in ahead:
            thread.start()
        ask("forecast", dish, NOW)
        assert done.count("advise") < 6
        for thread in ahead:
            thread.join()
    finally:
        workshop.close()


def test_every_plan_runs_the_kernels_that_are_compiled_beforehand():
    """A bare dish and a rub hand whole numbers on; a kernel compiled for them would keep the first
    cook who asks waiting for eight seconds.
    """
    warm()
    dish = warming("pressure")
    slow, _, fire = dish.stages
    bare = [slow, fire.model_copy(update={"acts": []})]
    forecast_chain(dish.model_copy(update={"stages": bare, "layers": []}), NOW)
    crust = next(one for one in templates() if one.key == "sugar-crust")
    forecast_chain(crust.document, NOW)
    kernels = (integrate, carry_over, heat_one_side, run_vessel, run_dry)
    assert [len(kernel.signatures) for kernel in kernels] == [1] * len(kernels)


def test_a_workshop_that_is_abandoned_ends_at_once_and_tells_all_who_wait():
    shop = Workshop(1)
    document = templates()[0].document
    told = []

    def wait() -> None:
        try:
            told.append(shop.run("repair", document))
        except Busy as busy:
            told.append(str(busy))

    waiting = [threading.Thread(target=wait) for _ in range(6)]
    for one in waiting:
        one.start()
    while not multiprocessing.active_children():
        time.sleep(0.05)
    shop.abandon()
    shop.warm_beside()  # a moment that was set before comes after the end: nothing is started
    for one in waiting:
        one.join(20.0)
    assert told == ["the model's process ended; ask again in a moment"] * 6
    workers = multiprocessing.active_children()
    for worker in workers:
        worker.join(10.0)
    # By its number: where two threads wait for one process, only one of them is told its end.
    assert not [worker for worker in workers if is_there(worker.pid)]


RIBS = warming("pressure").model_dump(mode="json")
ONE_DISH = {"name": "ribs", "dishes": [{"id": "a", "dish": RIBS}]}


def is_there(pid):
    """Whether a process runs, or is not yet taken note of."""
    try:
        os.kill(pid, 0)
    except ProcessLookupError:
        return False
    return True


def test_what_only_thinks_ahead_can_be_had_ready_before_anybody_asks():
    shop = Workshop(1)
    try:
        shop.warm_beside()
        (worker,) = multiprocessing.active_children()
        plan = shop.run("first_schedule", MealDocument.model_validate(ONE_DISH), NOW)
        assert plan.feasible
        assert multiprocessing.active_children() == [worker]
    finally:
        shop.abandon()


@pytest.mark.parametrize("source_too", [False, True], ids=["the worker", "and its source"])
def test_a_worker_that_was_killed_is_replaced_by_one_that_answers_the_same(source_too):
    going = set(multiprocessing.active_children())  # those of a shop that was just shut
    shop = Workshop(1)
    dish = warming("pressure")
    try:
        told = shop.run("forecast", dish, NOW)
        (worker,) = set(multiprocessing.active_children()) - going
        assert worker.pid is not None
        source = parent_of(worker.pid)
        assert source != os.getpid()
        os.kill(worker.pid, signal.SIGKILL)
        if source_too:
            os.kill(source, signal.SIGKILL)
        worker.join(10.0)
        again = None
        while again is None:
            with suppress(Busy):  # told to whoever asked the one that ended
                again = shop.run("forecast", dish, NOW)
        assert again == told == forecast_chain(dish, NOW)
        assert worker not in multiprocessing.active_children()
    finally:
        shop.abandon()


def parent_of(pid):
    """The process that a process was copied from."""
    status = Path(f"/proc/{pid}/stat").read_text(encoding="ascii")
    return int(status.rpartition(")")[2].split()[1])
