"""Courses of the food's middle along a slow heat, and what readings say of them."""

from __future__ import annotations

import threading
from collections import OrderedDict
from collections.abc import Callable, Sequence
from datetime import datetime
from typing import Any

import numpy as np

from bluekettle.core.calibration import Courses, Probed, courses_of, follow_probe
from bluekettle.core.chain import Centres
from bluekettle.schemas.chain import ChainDocument
from bluekettle.services.workshop import Workshop
from bluekettle.store.tables import Reading

TASK = "centres"
MOST_KEPT = 8


class Shelf:
    """The newest few things that were made, by their keys."""

    def __init__(self) -> None:
        self._stands: OrderedDict[object, Any] = OrderedDict()
        self._lock = threading.Lock()

    def kept(self, key: object, made: Callable[[], Any]) -> Any:
        """What stands under a key, made where nothing does; None is not kept."""
        with self._lock:
            if key in self._stands:
                self._stands.move_to_end(key)
                return self._stands[key]
            found = made()
            if found is not None:
                self._stands[key] = found
                while len(self._stands) > MOST_KEPT:
                    self._stands.popitem(last=False)
            return found


class Probes:
    """Courses of the food's middle, computed beside: a tap never waits for them."""

    def __init__(self, workshop: Workshop) -> None:
        self.workshop = workshop
        self._courses = Shelf()
        self._probed = Shelf()

    def courses(self, document: ChainDocument, stage: str, dial: float | None) -> Courses | None:
        """Courses along a heat; None while they are being computed, or where the model has none."""
        payload = (document.model_dump_json(), stage, dial)

        def made() -> Courses | None:
            found: Centres | None = self.workshop.peek(TASK, payload)
            return None if found is None else courses_of(found.time_s, found.centre_c)

        found: Courses | None = self._courses.kept(payload, made)
        return found

    def failed(self, document: ChainDocument, stage: str, dial: float | None) -> bool:
        """Whether the model has no courses for this heat."""
        return self.workshop.failed(TASK, (document.model_dump_json(), stage, dial))

    def probed(self, courses: Courses, marks: Sequence[Reading], begin: datetime) -> Probed:
        """The courses weighed by marks."""
        key = (id(courses), begin, len(marks), marks[-1].id if marks else None)

        def made() -> tuple[Courses, Probed]:
            at_s = np.array([(one.taken_at - begin).total_seconds() for one in marks])
            read_c = np.array([one.value for one in marks])
            return courses, follow_probe(courses, at_s, read_c)  # beside them their key holds

        _, found = self._probed.kept(key, made)
        return found  # type: ignore[no-any-return]
