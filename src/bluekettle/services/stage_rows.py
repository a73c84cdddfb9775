"""Stages of the document from rows of a table."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

Json = dict[str, Any]
ANSWERS = {"true": True, "false": False}
FIGURES: dict[str, Callable[[str], Any]] = {
    "minutes": float,
    "hours": float,
    "core_c": float,
    "pieces": int,
    "membrane": ANSWERS.__getitem__,
}


def stage_json(row: dict[str, str]) -> Json:
    """A stage of the document from the text of its row: `until.by=bite` lies deeper; a `coat` is
    brushed on in it.
    """
    found: Json = {}
    for name, text in row.items():
        if name == "coat":
            found["acts"] = [{"do": "coat", "layer": text}]
            continue
        *way, last = name.split(".")
        at = found
        for key in way:
            at = at.setdefault(key, {})
        at[last] = FIGURES[last](text) if last in FIGURES and not text.startswith("$") else text
    return found
