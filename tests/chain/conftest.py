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
    """The document after a JSON Patch (RFC 6902) of additions, copies and removals."""
    found = copy.deepcopy(document)
    for operation in operations:
        value = copy.deepcopy(operation.get("value"))
        if "from" in operation:
            at, last = place_of(found, operation["from"])
            value = copy.deepcopy(at[last])
        at, last = place_of(found, operation["path"])
        if operation["op"] == "remove":
            del at[last]
        elif isinstance(at, list):
            at.insert(last, value)
        else:
            at[last] = value
    return found


def place_of(document, path):
    """Where a JSON Pointer (RFC 6901) leads: list or object, and the key in it."""
    *way, last = path.lstrip("/").split("/")
    at = document
    for name in way:
        at = at[int(name)] if isinstance(at, list) else at.setdefault(name, {})
    return at, int(last) if isinstance(at, list) else last
