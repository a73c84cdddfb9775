"""A document in a kitchen: what it leaves open itself is filled from what is known there."""

from __future__ import annotations

from typing import Any

from bluekettle.schemas.chain import ChainDocument
from bluekettle.schemas.dish import KitchenDocument


def filled(told: KitchenDocument, here: KitchenDocument) -> KitchenDocument:
    """What a document says of its kitchen, and of this kitchen what it leaves open. Of what there
    is one for each job, machines and what was learnt of them, it keeps those that it names.
    """
    own: dict[str, Any] = {name: value for name, value in told if value is not None}
    own["machines"] = {**here.machines, **told.machines}
    own["learnt"] = {**here.learnt, **told.learnt}
    return here.model_copy(update=own)


def as_its_own(document: ChainDocument, here: KitchenDocument) -> ChainDocument:
    """A cooked document to be planned anew in a kitchen: without what that knows itself, when it
    was served and what was seen of it.
    """
    known = {name for name, value in here if value is not None}
    kept = {
        name: value
        for name, value in document.kitchen
        if value is not None and name not in {*known, "machines", "learnt"}
    }
    again: dict[str, Any] = {"kitchen": KitchenDocument(**kept), "serve_at": None, "sightings": {}}
    return document.model_copy(update=again)
