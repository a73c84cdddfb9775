"""What was reckoned before: after an edit the food goes anew only from the first stage that
changed on.
"""

from __future__ import annotations

import hashlib
from collections import OrderedDict
from threading import Lock
from typing import Generic, TypeVar

from bluekettle.core.chain.plan import Heat, Plan, Stage
from bluekettle.core.glaze import Draws

Kept = TypeVar("Kept")

MOST = 160  # stages whose passage is kept, of up to 2 MB each (design)


class Memory(Generic[Kept]):
    """The newest passages, by a key that holds all they were reckoned from."""

    def __init__(self, most: int = MOST) -> None:
        self.most = most
        self.hits = 0
        self.misses = 0
        self._kept: OrderedDict[bytes, Kept] = OrderedDict()
        self._lock = Lock()

    def find(self, key: bytes) -> Kept | None:
        """What was kept under a key; None where nothing was."""
        with self._lock:
            found = self._kept.get(key)
            if found is None:
                self.misses += 1
                return None
            self.hits += 1
            self._kept.move_to_end(key)
            return found

    def keep(self, key: bytes, one: Kept) -> Kept:
        """Keep something under a key; the same thing."""
        with self._lock:
            self._kept[key] = one
            while len(self._kept) > self.most:
                self._kept.popitem(last=False)
        return one


def first_key(plan: Plan, draws: Draws) -> bytes:
    """Key of the raw food: what it is, the kitchen and the ensemble."""
    found = hashlib.sha256()
    food = (plan.cut, plan.mass_kg, plan.pieces, plan.thickness_mm, plan.state, plan.kitchen)
    found.update(repr(food).encode())
    for name in sorted(draws.normal):
        found.update(name.encode())
        found.update(draws.normal[name].tobytes())
    return found.digest()


def next_key(key: bytes, plan: Plan, stage: Stage, ahead: object) -> bytes:
    """Key of the food after one more stage: the stage, the layers it uses, what was seen and done
    in it, and what it has to know of those that follow.
    """
    used = {getattr(stage, "layer", "")}
    if isinstance(stage, Heat):
        used |= {act.layer for act in stage.acts}
    layers = [layer for layer in plan.layers if layer.id in used]
    seen, told = plan.sightings.get(stage.id, ()), plan.told.get(stage.id, ())
    return hashlib.sha256(key + repr((stage, layers, seen, told, ahead)).encode()).digest()
