"""Heavy runs of the model, beside the requests that wait for them: in processes of their own, so
that a tap is answered at once whatever is being computed.
"""

from __future__ import annotations

import multiprocessing
import threading
from collections import OrderedDict
from collections.abc import Callable
from concurrent.futures import CancelledError, Future, ProcessPoolExecutor
from concurrent.futures import TimeoutError as NotYet
from concurrent.futures.process import BrokenProcessPool
from contextlib import suppress
from typing import Any

from bluekettle.core.errors import CoreError
from bluekettle.services.errors import Busy
from bluekettle.services.forking import worker_context
from bluekettle.services.heavy import BESIDE, TASKS, start_worker

KEPT = 256  # results of strips that are kept
MOST_WAITING = 12  # requests that may wait for the model at once; more are asked to come again
NICE, NICE_BESIDE = 5, 10  # of the processes: taps go first, thinking ahead last
LOOK_EVERY_S = 0.25  # whether anybody still waits

Key = tuple[str, Any]
FAILED = object()


def always() -> bool:
    """Somebody waits."""
    return True


class Workshop:
    """Runs tasks by name. Without workers they run at once, in the thread that asks.

    What only thinks ahead (`BESIDE`) has a worker of its own, so that no forecast waits for it.
    """

    def __init__(self, workers: int = 0) -> None:
        self.workers = workers
        self._pools: dict[bool, ProcessPoolExecutor] = {}
        self._lock = threading.Lock()
        self._starting = threading.Lock()  # held while a worker may be started
        self._waiting = 0
        self._over = False
        self._results: OrderedDict[Key, Any] = OrderedDict()
        self._begun: dict[Key, Future[Any]] = {}

    def run(self, task: str, *payload: Any, waits: Callable[[], bool] = always) -> Any:
        """The result of a task, waited for.

        `waits` tells whether anybody still wants it: a run that has not begun is then called off.
        Raises what the task raises; Busy where too many wait already, or nobody does any more.
        """
        if not self.workers:
            return TASKS[task](*payload)
        with self._lock:
            if self._waiting >= MOST_WAITING:
                raise Busy("too many forecasts are being computed; ask again in a moment")
            self._waiting += 1
        try:
            return self._wait(self._submit(task, payload), waits)
        finally:
            with self._lock:
                self._waiting -= 1

    def peek(self, task: str, payload: tuple[Any, ...]) -> Any | None:
        """The result of a task where it is known; else None, and it is begun."""
        found = self.known(task, payload)
        key = (task, payload)
        if found is not None or self.failed(task, payload):
            return found
        if not self.workers:
            try:
                return self._keep(key, TASKS[task](*payload))
            except CoreError:
                self._keep(key, FAILED)
                return None
        with self._lock:
            begun = self._begun.get(key)
        if begun is None:
            begun = self._submit(task, payload)
            with self._lock:
                self._begun[key] = begun
            begun.add_done_callback(lambda done: self._collect(key, done))
        return None

    def known(self, task: str, payload: tuple[Any, ...]) -> Any | None:
        """The result of a task where it is known."""
        with self._lock:
            found = self._results.get((task, payload))
            if found is not None:
                self._results.move_to_end((task, payload))
            return None if found is FAILED else found

    def failed(self, task: str, payload: tuple[Any, ...]) -> bool:
        """Whether a task was tried and the model has no answer."""
        with self._lock:
            return self._results.get((task, payload)) is FAILED

    def close(self) -> None:
        """End the workers."""
        with self._lock:
            pools, self._pools = self._pools, {}
        for pool in pools.values():
            pool.shutdown(wait=False, cancel_futures=True)

    def abandon(self) -> None:
        """End the workers at once, whatever they are at: they keep nothing, and nobody waits any
        more. For a process that is about to end, and has no other children.
        """
        self._over = True
        with self._starting:  # a worker that was just being started is among them
            self.close()
        for worker in multiprocessing.active_children():
            worker.terminate()

    def warm(self) -> None:
        """Start the workers and load their kernels, before anybody waits; what only thinks ahead
        starts when it is first asked, or told to.
        """
        for _ in range(self.workers):
            self._submit("warm", ())

    def warm_beside(self) -> None:
        """The same of what only thinks ahead; nothing where the workshop is closing."""
        if self.workers:
            with suppress(Busy):
                self._submit("warm_beside", ())

    def keep(self, task: str, payload: tuple[Any, ...], result: Any) -> Any:
        """Remember the result of a task; the same result."""
        return self._keep((task, payload), result)

    def _keep(self, key: Key, result: Any) -> Any:
        with self._lock:
            self._results[key] = result
            while len(self._results) > KEPT:
                self._results.popitem(last=False)
        return result

    def _collect(self, key: Key, done: Future[Any]) -> None:
        with self._lock:
            self._begun.pop(key, None)
        if done.cancelled():
            return
        error = done.exception()
        if error is None:
            self._keep(key, done.result())
        elif isinstance(error, CoreError):
            self._keep(key, FAILED)

    def _submit(self, task: str, payload: tuple[Any, ...]) -> Future[Any]:
        for _ in range(2):
            with self._starting:
                if self._over:
                    break
                pool = self._pool_of(task)
                try:
                    return pool.submit(TASKS[task], *payload)
                # It broke, was shut down meanwhile, or what it is copied from has just ended.
                except (RuntimeError, OSError, EOFError):
                    self._forget(pool)
        raise Busy("the model's process ended; ask again in a moment")

    def _pool_of(self, task: str) -> ProcessPoolExecutor:
        """The processes that run a task, started where there are none."""
        beside = task in BESIDE
        with self._lock:
            if beside not in self._pools:
                self._pools[beside] = ProcessPoolExecutor(
                    1 if beside else self.workers,
                    mp_context=worker_context(),
                    initializer=start_worker,
                    initargs=(NICE_BESIDE if beside else NICE,),
                )
            return self._pools[beside]

    def _forget(self, pool: ProcessPoolExecutor) -> None:
        """Let a broken pool go; the next run starts a new one."""
        with self._lock:
            self._pools = {key: other for key, other in self._pools.items() if other is not pool}
        pool.shutdown(wait=False)

    def _wait(self, begun: Future[Any], waits: Callable[[], bool]) -> Any:
        while True:
            try:
                return begun.result(timeout=LOOK_EVERY_S)
            except NotYet:
                if not waits() and begun.cancel():
                    raise Busy("nobody waits for this any more") from None
            except (CancelledError, BrokenProcessPool):
                raise Busy("the model's process ended; ask again in a moment") from None
