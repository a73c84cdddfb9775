"""How the processes that run the model come to be: copied from one that has loaded it already, so
that one that ended is replaced at once. Loads nothing itself.
"""

from __future__ import annotations

import multiprocessing
from multiprocessing import forkserver
from multiprocessing.context import BaseContext

LOADED = "bluekettle.services.warmed"
COPIED = "forkserver"


def worker_context() -> BaseContext:
    """Where workers are started: copied where the system can, else begun from nothing."""
    if COPIED not in multiprocessing.get_all_start_methods():
        return multiprocessing.get_context("spawn")
    found = multiprocessing.get_context(COPIED)
    found.set_forkserver_preload([LOADED])
    return found


def begin_loading() -> None:
    """Load the model in a process of its own, beside whatever this one loads meanwhile."""
    if worker_context().get_start_method() == COPIED:
        forkserver.ensure_running()
