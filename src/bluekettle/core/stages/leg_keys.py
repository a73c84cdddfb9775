"""Keys of the steps of a way back from a failed check: stable, so that events may name them."""

from __future__ import annotations


def leg_number(gate: str) -> int:
    """How many ways back lie before a gate: 0 for one of the plan."""
    rest = gate.partition("~")[2]
    return int(rest.split(".", 1)[0]) if rest else 0


def leg_stem(gate: str) -> tuple[str, int]:
    """Root and number of the way back that a failed gate opens."""
    return gate.partition("~")[0], leg_number(gate) + 1


def leg_key(gate: str, step: str) -> str:
    """Key of a step of the way back from a failed gate: stable, so that events may name it."""
    root, number = leg_stem(gate)
    return f"{root}~{number}.{step}"


def is_later_leg(key: str, stem: tuple[str, int]) -> bool:
    """Whether a step belongs to that way back or to one after it."""
    root, number = stem
    return key.partition("~")[0] == root and leg_number(key) >= number
