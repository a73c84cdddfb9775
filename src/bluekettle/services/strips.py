"""The glaze strip of a live cook after what was done and seen, kept while it is asked for."""

from __future__ import annotations

import json
from dataclasses import dataclass, replace

from bluekettle.core.errors import CoreError
from bluekettle.core.glaze import Act
from bluekettle.schemas.chain import ChainDocument
from bluekettle.schemas.forecast import GlazePublic
from bluekettle.services.courses import Probes
from bluekettle.services.errors import Busy
from bluekettle.services.workshop import Workshop

TASK = "glaze"


@dataclass(frozen=True)
class Seen:
    """What a strip is held to: coats and turns that were done, and signs with their seconds under
    the heat. stage : the fire that it belongs to. change : the way out that was taken, and when.
    dial : where its dial stands, where that was told: the document says so too.
    """

    acts: tuple[Act, ...] = ()
    signs: tuple[tuple[str, float], ...] = ()
    stage: str = ""
    change: tuple[str, float] | None = None
    dial: float | None = None

    def __bool__(self) -> bool:
        """Whether there is anything that the plan did not know."""
        return bool(self.acts or self.signs or self.change or self.dial)

    @property
    def key(self) -> str:
        """Changes whenever the strip does."""
        known = [self.acts, self.signs, self.stage, self.change, self.dial]
        return json.dumps(known) if self else ""

    def less(self) -> list[Seen]:
        """What stands in for it, the nearest first: a sign fewer, and another; then without the
        way out that was taken, with every sign.
        """
        signs = [self.signs[:count] for count in range(len(self.signs), -1, -1)]
        changed = [replace(self, signs=some) for some in signs[1:]]
        plain = [replace(self, signs=some, change=None) for some in signs]
        return changed + (plain if self.change else [])


class Strips:
    """Strips by what was seen. A strip that is not known yet is computed beside, and the last one
    known for the cook stands in meanwhile: a tap never waits for a model. probes : what is computed
    beside of a slow heat.
    """

    def __init__(self, workshop: Workshop) -> None:
        self.workshop = workshop
        self.probes = Probes(workshop)

    def now(
        self, document: ChainDocument, planned: GlazePublic, seen: Seen
    ) -> tuple[GlazePublic, bool]:
        """The strip to show now, and whether it is the one of all that was seen."""
        if not seen:
            return planned, True
        payload = self._payload(document, seen)
        found = self.workshop.peek(TASK, payload)
        if found is not None:
            return GlazePublic.model_validate(found), True
        failed = self.workshop.failed(TASK, payload)
        for less in seen.less():
            known = self.workshop.known(TASK, self._payload(document, less)) if less else None
            if known is not None:
                return GlazePublic.model_validate(known), failed
        return planned, failed

    def exactly(self, document: ChainDocument, planned: GlazePublic, seen: Seen) -> GlazePublic:
        """The strip of all that was seen, waited for."""
        if not seen:
            return planned
        payload = self._payload(document, seen)
        found = self.workshop.known(TASK, payload)
        if found is None:
            found = self.workshop.run(TASK, *payload)
            self.workshop.keep(TASK, payload, found)
        return GlazePublic.model_validate(found)

    def settled(self, document: ChainDocument, planned: GlazePublic, seen: Seen) -> GlazePublic:
        """The strip of all that was seen, waited for; the nearest that is known where the model has
        none, or has no time.
        """
        try:
            return self.exactly(document, planned, seen)
        except (CoreError, Busy):
            return self.now(document, planned, seen)[0]

    @staticmethod
    def _payload(document: ChainDocument, seen: Seen) -> tuple[object, ...]:
        return (document.model_dump_json(), seen.acts, seen.signs, seen.stage, seen.change)
