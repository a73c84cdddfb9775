"""A meal on the stove: how its dishes stand together, and the rest of the evening planned anew."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from itertools import pairwise

from sqlalchemy import Engine
from sqlmodel import Session

from bluekettle.core import schedule as meals
from bluekettle.core.chain import heat_row
from bluekettle.core.errors import Fault, Infeasible, NotConverged, OutOfRange
from bluekettle.core.stages import Progress, StepPlan
from bluekettle.core.stages.delaying import is_wait
from bluekettle.core.tables import row
from bluekettle.schemas.supper import (
    SideMoveCreate,
    SideTellCreate,
    SideWayPublic,
    StillInPublic,
    SupperChange,
    SupperMovePublic,
    SupperNextPublic,
    SupperPublic,
    SupperSidePublic,
)
from bluekettle.services import kept_suppers as kept_service
from bluekettle.services.errors import Conflict, NotFound
from bluekettle.services.instructions import minutes_text
from bluekettle.services.kept_suppers import KeptSupper, Lines
from bluekettle.services.leaving import places
from bluekettle.services.live import looked
from bluekettle.services.loaded import Loaded
from bluekettle.services.log import load
from bluekettle.services.meal_parts import kinds_in_use
from bluekettle.services.side_calls import side_calls
from bluekettle.services.side_places import moved_side, use_of, ways_of
from bluekettle.services.steps import plain
from bluekettle.services.strips import Strips
from bluekettle.store import repositories
from bluekettle.store.engine import for_writing
from bluekettle.store.tables import Supper

HANDS = ("hands", "gate", "fire")
MOST_LATER = timedelta(hours=4)
MOST_MOVES = 200  # of one cook
ON_TIME_S = 60.0
TRIES = 3  # of a change while taps come (estimated)


@dataclass(frozen=True)
class OnStove:
    """A supper with all of its lines as they stand now, and the cooks that its dishes are. usual :
    kinds of bodies that are in the kept kitchen.
    """

    row: Supper
    kept: KeptSupper
    cooks: Mapping[str, Loaded]
    progress: Mapping[str, Progress]
    now: datetime
    usual: frozenset[str]

    @property
    def now_s(self) -> float:
        """Now, on the clock of the puzzle."""
        return self.kept.seconds(self.now)

    @property
    def lines(self) -> Lines:
        """The lines that are not over, as the plan sees them."""
        return {
            line: kept_service.standing(self.kept, line, progress, self.now_s)
            for line, progress in self.progress.items()
            if not progress.finished
        }

    @property
    def lost(self) -> frozenset[str]:
        """Kinds of bodies that a dish had to leave."""
        return frozenset(one.lost for cook in self.cooks.values() for one in cook.left) - {""}

    @property
    def events(self) -> dict[str, int]:
        """How much was told of every cook."""
        return {line: len(cook.rows) for line, cook in self.cooks.items()}


def on_stove(session: Session, supper_id: int, now: datetime, strips: Strips) -> OnStove:
    """A supper as it stands; NotFound, Unreadable, and Conflict where none of its dishes is under
    way any more.
    """
    supper = session.get(Supper, supper_id)
    if supper is None:
        raise NotFound("supper", supper_id)
    kept = kept_service.kept_from(supper)
    rows = repositories.cooks_of_supper(session, supper_id)
    cooks = {cook.line: load(session, int(cook.id or 0)) for cook in rows}
    if not cooks:
        raise Conflict("nothing of this supper is on the stove any more")
    clock = next(iter(cooks.values())).clock(now)
    progress = {line: looked(cook, clock, strips).progress for line, cook in cooks.items()}
    for line in kept.sides:
        progress[line] = kept_service.side_progress(kept, line, clock)
    return OnStove(supper, kept, cooks, progress, clock, kinds_in_use(session))


def public(stove: OnStove) -> SupperPublic:
    """A supper as it is told."""
    kept, lines = stove.kept, stove.lines
    outlook = meals.outlook_of(kept.puzzle, lines, kept.told, stove.now_s) if lines else None
    moves = meals.moves_of(lines, kept.seen, kept.told.start_s)
    return SupperPublic(
        id=int(stove.row.id or 0),
        title=stove.row.title,
        now=stove.now,
        wanted_at=kept.at(kept.puzzle.supper_s),
        serve_at=kept.at(told_supper(kept, lines) if outlook is None else outlook.supper_s),
        hands=kept.puzzle.pairs,
        stale=bool(lines) and meals.is_stale(outlook, lines, kept.told, stove.now_s),
        why=kept.why if moves else "",
        moved=[
            SupperMovePublic(
                line=move.line,
                name=kept.names[move.line],
                label=move.label,
                was_at=kept.at(move.was_s),
                is_at=kept.at(move.is_s),
            )
            for move in moves
        ],
        supper_was_at=kept.at(kept.seen[""]),
        next=coming(stove, lines),
        sides=[side_public(stove, line) for line in kept.sides],
        still_in=still_in(stove),
        version=stove.row.version,
    )


def still_in(stove: OnStove) -> list[StillInPublic]:
    """What would still go into a body that a dish had to leave."""
    lost = stove.lost
    if not lost:
        return []
    found: list[tuple[int | None, str, str]] = []
    for line, cook in stove.cooks.items():
        now_s = cook.seconds(stove.now)
        wanted = [p.row.body for p in places(cook, stove.progress[line], now_s)]
        found += [(cook.cook_id, line, kind) for kind in dict.fromkeys(wanted) if kind in lost]
    for line in stove.kept.sides:
        use = use_of(stove.kept, line)
        if use is not None and use.kind in lost and is_to_cook(stove, line):
            found.append((None, line, use.kind))
    return [
        StillInPublic(
            cook=cook_id,
            line=line,
            says=f"Still to go into the {row('bodies', kind)['name']}: {stove.kept.names[line]}.",
            ways=[] if cook_id is not None else side_ways(stove, line),
        )
        for cook_id, line, kind in found
    ]


def side_ways(stove: OnStove, line: str) -> list[SideWayPublic]:
    """Where a side can go, as it is told."""
    kinds = ways_of(stove.kept, line, stove.lost, stove.usual)
    return [SideWayPublic(body=kind, name=row("bodies", kind)["name"]) for kind in kinds]


def told_supper(kept: KeptSupper, lines: Lines) -> float:
    """When supper was told to be [s]."""
    told = kept.told.start_s
    ends = [states[-1] for states in lines.values() if states[-1].key in told]
    return max([told[one.key] + one.seconds for one in ends], default=kept.puzzle.supper_s)


def coming(stove: OnStove, lines: Lines) -> list[SupperNextPublic]:
    """The next act of every line that hands are wanted for, in the order of the plan."""
    kept = stove.kept
    found: list[SupperNextPublic] = []
    for line, states in lines.items():
        place = next((n for n, one in enumerate(states) if one.open and one.who in HANDS), None)
        if place is None:
            continue
        then, cook = states[place], stove.cooks.get(line)
        told_s = kept.told.start_s.get(then.key, then.begin_s)
        found.append(
            SupperNextPublic(
                cook=None if cook is None else cook.cook_id,
                line=line,
                name=kept.names[line],
                step=then.key.partition("/")[2],
                label=then.label,
                at=kept.at(max(told_s, then.begin_s)),
                waits_until=waits_until(kept, states[place - 1] if place else None, then),
            )
        )
    return sorted(found, key=lambda one: one.at)


def waits_until(kept: KeptSupper, one: meals.Stands | None, then: meals.Stands) -> datetime | None:
    """Until when an act may wait, by what is over before it; None for no limit that is known."""
    if one is None or one.over_s is None:
        return None
    gaps = [gap for gap in kept.puzzle.gaps if (gap.before, gap.after) == (one.key, then.key)]
    if not gaps or gaps[0].most_s is None or gaps[0].most_s <= gaps[0].least_s:
        return None
    return kept.at(one.over_s + gaps[0].most_s)


def side_public(stove: OnStove, line: str) -> SupperSidePublic:
    """A side as it stands."""
    kept, progress = stove.kept, stove.progress[line]
    state = next((s for s in progress.steps if s.plan.key == progress.current), None)
    use = use_of(kept, line) if is_to_cook(stove, line) else None
    was = kept.sides[line].was if use else ""
    both = {
        "line": line,
        "name": kept.names[line],
        "undoable": kept.sides[line].last_done > 0,
        "place": row("bodies", use.kind)["name"] if use else "",
        "was": was,
        "was_place": row("bodies", was)["name"] if was else "",
        "ways": [way for way in side_ways(stove, line) if use and way.body != was],
    }
    if state is None:
        over = {"step": None, "label": "On the table", "who": "", "begin_at": None, "due_at": None}
        return SupperSidePublic.model_validate({**both, **over, "calls": []})
    return SupperSidePublic(
        **both,
        step=state.plan.key,
        label=state.plan.label,
        who="machine" if state.plan.who == "machine" else "hands",
        begin_at=kept.began + timedelta(seconds=state.begin_s or 0.0),
        due_at=kept.began + timedelta(seconds=state.due_s),
        calls=side_calls(kept, line, progress),
    )


def is_to_cook(stove: OnStove, line: str) -> bool:
    """Whether a side is in its heat, or still to come to it."""
    use = use_of(stove.kept, line)
    open_keys = {one.key for one in stove.lines.get(line, ()) if one.over_s is None}
    return use is not None and use.last in open_keys


def plan_rest(
    engine: Engine, supper_id: int, version: int | None, now: datetime, strips: Strips
) -> SupperPublic:
    """Plan the rest of a supper anew, where that is to be done; else it is told as it stands, also
    where something was told meanwhile.

    Raises
    ------
    NotFound, Unreadable
    Conflict
        Nothing of it is on the stove any more, or no plan was found.
    """
    with Session(engine) as session:
        stove = on_stove(session, supper_id, now, strips)
        told = public(stove)
    if not told.stale or version not in (None, told.version):
        return told
    kept = replace(stove.kept, why=moved_to(stove) or cause_of(stove))
    return keep_plan(engine, stove, kept, now, strips) or look(engine, supper_id, now, strips)


def look(engine: Engine, supper_id: int, now: datetime, strips: Strips) -> SupperPublic:
    """A supper as it stands; as `on_stove`."""
    with Session(engine) as session:
        return public(on_stove(session, supper_id, now, strips))


def moved_to(stove: OnStove) -> str:
    """That a dish went to another heat since its waits were planned; empty where none did."""
    for line, cook in stove.cooks.items():
        kinds = [event for event in cook.fold.events if event.kind in ("moved", "instead")]
        if kinds and kinds[-1].kind == "instead":
            heat = cook.left[-1].instead[0].heat
            return f"{stove.kept.names[line]}: now in the {heat_row(heat).name}."
    return ""


def cause_of(stove: OnStove) -> str:
    """Why the rest is planned anew."""
    kept = stove.kept
    line, off_s = meals.drift_of(stove.lines, kept.told, stove.now_s)
    if not line or abs(off_s) < ON_TIME_S:
        return "Hands are wanted in two places at once."
    way = "later" if off_s > 0.0 else "sooner"
    return f"{kept.names[line]}: {minutes_text(abs(off_s))} {way} than planned."


def keep_plan(
    engine: Engine, stove: OnStove, kept: KeptSupper, now: datetime, strips: Strips
) -> SupperPublic | None:
    """Plan the rest by what is `kept` now, and keep it; None where something was told meanwhile.

    The search is not waited for with the store locked: a tap goes first.
    """
    if any(moved_often(cook) for cook in stove.cooks.values()):
        raise Conflict(f"it was planned anew {MOST_MOVES} times: go on dish by dish")
    if stove.lines:
        try:
            plan: meals.Replanned = strips.workshop.run(
                "replan", kept.puzzle, dict(stove.lines), kept.told, stove.now_s
            )
        except (Infeasible, NotConverged) as error:
            raise Conflict(
                f"no plan was found for the rest of it: go on dish by dish ({error})"
            ) from error
        kept = replace(kept, told=plan.told)
    supper_id = int(stove.row.id or 0)
    with Session(for_writing(engine)) as session:
        after = on_stove(session, supper_id, now, strips)
        if after.row.version != stove.row.version or after.events != stove.events:
            return None
        kept = move_all(session, after, kept)
        keep(session, after.row, kept, now)
        answer = public(on_stove(session, supper_id, now, strips))
        session.commit()
        return answer


def replace_line(
    session: Session, cook: Loaded, line: meals.Line, now: datetime, strips: Strips
) -> None:
    """A dish of a supper goes on in another heat: its part of the puzzle, told as it was else.

    Raises NotFound, Unreadable.
    """
    stove = on_stove(session, int(cook.cook.supper_id or 0), now, strips)
    keys = {f"{line.key}/{state.plan.key}" for state in stove.progress[line.key].steps}
    kept = kept_service.with_line(stove.kept, line, keys)
    keep(session, stove.row, kept, now)


def keep(session: Session, supper: Supper, kept: KeptSupper, now: datetime) -> None:
    """What is kept of a supper now."""
    supper.document = kept_service.kept_json(kept)
    supper.version += 1
    supper.updated_at = now
    session.add(supper)
    session.flush()


def moved_often(cook: Loaded) -> bool:
    """Whether its waits were moved as often as they can be."""
    return sum(row.kind == "moved" for row in cook.rows) >= MOST_MOVES


def move_all(session: Session, stove: OnStove, kept: KeptSupper) -> KeptSupper:
    """Put the waits of the plan into every line."""
    lines, at = stove.lines, stove.now
    holds = meals.holds_of(lines, kept.told.start_s, kept.waits, stove.now_s)
    for line in lines:
        progress = stove.progress[line]
        steps = [state.plan for state in progress.steps if not state.plan.beside]
        dropped = kept_service.open_waits(progress)
        waits = kept_service.waits_for(kept, holds, line, steps, dropped)
        if not changes(steps, dropped, waits):
            continue
        if line in kept.sides:
            at_s = (at - kept.began).total_seconds()
            side = kept.sides[line].with_event("moved", at_s, dropped=dropped, waits=tuple(waits))
            kept = replace(kept, sides={**kept.sides, line: side})
            continue
        cook = stove.cooks[line]
        data = {"dropped": list(dropped), "waits": [[b, plain(w)] for b, w in waits]}
        repositories.append_event(session, cook.cook_id, "moved", at, at, data)
    return kept


def changes(
    steps: Sequence[StepPlan], dropped: Sequence[str], waits: Sequence[tuple[str, StepPlan]]
) -> bool:
    """Whether waits are others than those that are there."""
    there = {
        (then.key, one.key): one.until_s
        for one, then in pairwise(steps)
        if is_wait(one) and one.key in dropped
    }
    wanted = {(before, wait.key): wait.until_s for before, wait in waits}
    if there.keys() != wanted.keys():
        return True
    return any(abs((there[key] or 0.0) - (until or 0.0)) > 1.0 for key, until in wanted.items())


def change_supper(
    engine: Engine, supper_id: int, wanted: SupperChange, now: datetime, strips: Strips
) -> SupperPublic:
    """Guests who come at another moment, more or fewer hands, or what moved was read.

    Raises NotFound, Unreadable; OutOfRange for a moment that is past; Conflict where nothing of it
    is on the stove any more, no plan was found, or taps kept coming while one was looked for.
    """
    told = changed(engine, supper_id, wanted, now, strips)
    if not wanted.seen:
        return told
    with Session(for_writing(engine)) as session:
        stove = on_stove(session, supper_id, now, strips)
        seen = {**stove.kept.seen, **stove.kept.told.start_s}
        seen[""] = told_supper(stove.kept, stove.lines)
        keep(session, stove.row, replace(stove.kept, seen=seen, why=""), now)
        answer = public(on_stove(session, supper_id, now, strips))
        session.commit()
        return answer


def changed(
    engine: Engine, supper_id: int, wanted: SupperChange, now: datetime, strips: Strips
) -> SupperPublic:
    """The supper with another moment or other hands, planned anew; as it stands where it has
    both."""
    for _ in range(TRIES):
        with Session(engine) as session:
            stove = on_stove(session, supper_id, now, strips)
            told = public(stove)
        kept = with_hands(with_moment(stove, wanted.wanted_at), wanted.hands)
        if kept is stove.kept:
            return told
        answer = keep_plan(engine, stove, kept, now, strips)
        if answer is not None:
            return answer
    raise Conflict("taps came while it was planned: it is as it was, tell it again")


def with_moment(stove: OnStove, wanted: datetime | None) -> KeptSupper:
    """What is kept, for guests who come then; OutOfRange for a moment that is past or far."""
    kept = stove.kept
    if wanted is None or kept.seconds(wanted) == kept.puzzle.supper_s:
        return kept
    latest = kept.at(kept.puzzle.supper_s) + MOST_LATER
    if not stove.now <= wanted <= latest:
        accepted = f"from now up to {latest:%H:%M} UTC"
        raise OutOfRange([Fault("wanted_at", wanted.isoformat(), accepted)])
    moved_s = kept.seconds(wanted) - kept.puzzle.supper_s
    return replace(
        kept,
        puzzle=replace(kept.puzzle, supper_s=kept.seconds(wanted)),
        told=told_for(kept, kept.seconds(wanted)),
        before=kept_service.Before(kept.puzzle.supper_s, kept.told),
        why=f"Guests: {minutes_text(abs(moved_s))} {'later' if moved_s > 0.0 else 'sooner'}.",
    )


def told_for(kept: KeptSupper, wanted_s: float) -> meals.Told:
    """What is told for guests at another moment, before it is planned anew: as it was where they
    come back to the moment of before and nothing was put elsewhere since.
    """
    before = kept.before
    if before and before.wanted_s == wanted_s and before.told.bodies == kept.told.bodies:
        return replace(before.told, start_s={**kept.told.start_s, **before.told.start_s})
    moved_s = wanted_s - kept.puzzle.supper_s
    return replace(kept.told, aim_s=kept.told.aim_s + moved_s)


def with_hands(kept: KeptSupper, hands: int | None) -> KeptSupper:
    """What is kept, with so many pairs of hands."""
    if hands is None or hands == kept.puzzle.pairs:
        return kept
    why = f"{hands} {'pair' if hands == 1 else 'pairs'} of hands."
    return replace(kept, puzzle=replace(kept.puzzle, pairs=hands), why=why)


def tell_side(
    engine: Engine, supper_id: int, told: SideTellCreate, now: datetime, strips: Strips
) -> SupperPublic:
    """A step of a side is done, or the last one was not. The same tap sent again changes nothing.

    Raises NotFound, Unreadable; Conflict for what was told already; OutOfRange for a side or a step
    that is none.
    """
    with Session(for_writing(engine)) as session:
        stove = on_stove(session, supper_id, now, strips)
        kept = stove.kept
        check_line(told.line, kept)
        side = kept.sides[told.line]
        if str(told.id) in side.taps:
            return public(stove)
        at_s = (stove.now - kept.began).total_seconds() - since_s(told, stove)
        if told.kind == "undo":
            if not side.last_done:
                raise Conflict("nothing of it was told yet")
            side = side.with_event("undo", max(0.0, at_s), undoes=side.last_done)
        else:
            check_side(told, stove.progress[told.line])
            side = side.with_event("done", max(0.0, at_s), step=told.step)
        side = side.tapped(told.id)
        keep(session, stove.row, replace(kept, sides={**kept.sides, told.line: side}), now)
        answer = public(on_stove(session, supper_id, now, strips))
        session.commit()
        return answer


def move_side(
    engine: Engine, supper_id: int, told: SideMoveCreate, now: datetime, strips: Strips
) -> SupperPublic:
    """A side goes into something else, and the rest is planned anew. Told again, nothing changes.

    Raises NotFound, Unreadable; OutOfRange for a side that is none, or a body that does not do it;
    Conflict for a side that is out of its heat, where no plan was found, or where taps kept coming.
    """
    for _ in range(TRIES):
        with Session(engine) as session:
            stove = on_stove(session, supper_id, now, strips)
            kept = stove.kept
            check_line(told.line, kept)
            use = use_of(kept, told.line)
            if use is not None and use.kind == told.body:
                return public(stove)
            if not is_to_cook(stove, told.line):
                raise Conflict(f"{kept.names[told.line]} is in no heat any more")
        check_way(told, stove)
        moved = moved_side(kept, told.line, told.body)
        answer = keep_plan(engine, stove, moved, now, strips)
        if answer is not None:
            return answer
    raise Conflict("taps came while it was planned: it is as it was, tell it again")


def check_way(told: SideMoveCreate, stove: OnStove) -> None:
    """OutOfRange for a body that a side cannot go into; to the one that it left it always can."""
    ways = ways_of(stove.kept, told.line, stove.lost, stove.usual)
    if told.body not in (*ways, stove.kept.sides[told.line].was):
        accepted = "one of " + ", ".join(ways) if ways else "none is known"
        raise OutOfRange([Fault("body", told.body, accepted)])


def check_line(line: str, kept: KeptSupper) -> None:
    """OutOfRange for a side that is none."""
    if line not in kept.sides:
        accepted = "one of " + ", ".join(kept.sides) if kept.sides else "no side is cooked"
        raise OutOfRange([Fault("line", line, accepted)])


def since_s(told: SideTellCreate, stove: OnStove) -> float:
    """How long ago it happened [s], by the clock of the cooks."""
    waited = 0.0
    if told.tapped_at is not None and told.sent_at is not None:
        waited = max(0.0, (told.sent_at - told.tapped_at).total_seconds())
    return told.ago_s + waited * next(iter(stove.cooks.values())).speed


def check_side(told: SideTellCreate, progress: Progress) -> None:
    """Conflict for a step that was told already, OutOfRange for one that is none."""
    states = {state.plan.key: state for state in progress.steps}
    if told.step not in states:
        raise OutOfRange([Fault("step", told.step, "one of " + ", ".join(states))])
    if states[told.step].state == "confirmed":
        raise Conflict(f"told already: {states[told.step].plan.label}")
