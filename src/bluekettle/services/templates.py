"""Chains to begin with: one file each, in `bluekettle/templates`."""

from __future__ import annotations

import json
from functools import cache
from pathlib import Path

from bluekettle.schemas.chain import ChainDocument
from bluekettle.schemas.chain_forecast import TemplatePublic

FOLDER = Path(__file__).parents[1] / "templates"


@cache
def templates() -> tuple[TemplatePublic, ...]:
    """All templates, in the order of their files."""
    found = []
    for file in sorted(FOLDER.glob("*.json")):
        raw = json.loads(file.read_text(encoding="utf-8"))
        document = ChainDocument.model_validate(raw["document"])
        found.append(TemplatePublic(key=raw["key"], hint=raw["hint"], document=document))
    return tuple(found)
