"""Figures of the kitchen with their words, as they are sent."""

from __future__ import annotations

from bluekettle.core.stages import Kitchen, figure
from bluekettle.schemas.forecast import AssumedPublic


def assumed_public(kitchen: Kitchen, name: str) -> AssumedPublic:
    """A figure that nobody stated, with its words."""
    told = figure(name)
    return AssumedPublic(
        name=name,
        label=told.label,
        value=kitchen.or_typical(name),
        unit=told.unit,
        known=told.known,
    )
