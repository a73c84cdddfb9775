"""Chains to ask about: those that ship, by their key."""

import copy
import json
from pathlib import Path

import bluekettle

FOLDER = Path(bluekettle.__file__).parent / "templates"
TEMPLATES = {
    raw["key"]: raw["document"]
    for raw in (json.loads(f.read_text(encoding="utf-8")) for f in sorted(FOLDER.glob("*.json")))
}


def chain(key):
    """A copy of a shipped chain, to be changed."""
    return copy.deepcopy(TEMPLATES[key])


def stage(document, key):
    """One of its stages, those of tails too."""
    for one in document["stages"]:
        if one["id"] == key:
            return one
        for share in one.get("shares", []):
            for inner in share["stages"]:
                if inner["id"] == key:
                    return inner
    raise KeyError(key)


def patched(document, operations):
    """The document after a JSON Patch of "add" and "remove" operations (RFC 6902)."""
    found = copy.deepcopy(document)
    for operation in operations:
        *way, last = operation["path"].lstrip("/").split("/")
        at = found
        for name in way:
            at = at[int(name)] if isinstance(at, list) else at.setdefault(name, {})
        if operation["op"] == "remove":
            del at[int(last) if isinstance(at, list) else last]
        elif isinstance(at, list):
            at.insert(int(last), operation["value"])
        else:
            at[last] = operation["value"]
    return found
