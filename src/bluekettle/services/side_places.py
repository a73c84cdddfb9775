"""Where a side of a supper cooks, and where else it can go."""

from __future__ import annotations

from dataclasses import replace

from bluekettle.core import schedule as meals
from bluekettle.core.tables import row
from bluekettle.services.kept_suppers import KeptSupper


def use_of(kept: KeptSupper, line: str) -> meals.Use | None:
    """What a side cooks in; None where it needs no heat."""
    return next((use for use in kept.puzzle.uses if use.line == line), None)


def ways_of(
    kept: KeptSupper, line: str, lost: frozenset[str], usual: frozenset[str]
) -> tuple[str, ...]:
    """Kinds of bodies that may come for the one that a side cooks in: of those in this kitchen,
    where anybody told what is in it, and none that is lost.
    """
    use = use_of(kept, line)
    if use is None:
        return ()
    others = row("bodies", use.kind)["sides_instead"].split()
    known = usual | {body.kind for body in kept.puzzle.bodies} if usual else frozenset(others)
    return tuple(kind for kind in others if kind in known and kind not in lost)


def moved_side(kept: KeptSupper, line: str, kind: str) -> KeptSupper:
    """The supper with a side in another kind of body, at the setting that it has."""
    puzzle, side = kept.puzzle, kept.sides[line]
    now = use_of(kept, line)
    assert now is not None
    use = replace(meals.side_use(line, kind, now.temp_c), key=now.key)
    bodies = puzzle.bodies
    if kind not in {body.kind for body in bodies}:
        bodies = (*bodies, meals.body_of(f"{kind}-new", kind))
    uses = tuple(use if one.key == now.key else one for one in puzzle.uses)
    puzzle = replace(puzzle, uses=uses, bodies=bodies)
    first = side.was or now.kind
    place = puzzle.bodies_of(use)[0].key
    return replace(
        kept,
        puzzle=puzzle,
        told=replace(kept.told, bodies={**kept.told.bodies, use.key: place}),
        sides={**kept.sides, line: replace(side, was="" if kind == first else first)},
        why=f"{kept.names[line]}: now in the {row('bodies', kind)['name']}.",
    )
