"""What a cook teaches of the appliances it was cooked in: the signs that were told under a fire,
and the colour in which its food came out.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import Engine
from sqlmodel import Session

from bluekettle.core.calibration import COLOURS, SIGNS
from bluekettle.core.errors import CoreError
from bluekettle.core.glaze import MILESTONES, SITES, Act
from bluekettle.core.sauce import sample_sauce
from bluekettle.core.stages import Progress, Sign, appliance_kind, finish_kind
from bluekettle.core.stages.progress import stretches
from bluekettle.schemas.cook import SceneDocument
from bluekettle.schemas.heating import HeatingDocument
from bluekettle.schemas.kitchen import LessonPublic, LessonsPublic
from bluekettle.services.dials import dial_of
from bluekettle.services.errors import NotFound
from bluekettle.services.kitchen import first_in_use, heat_words, job_of, observation_public
from bluekettle.services.learning import (
    ABSURD,
    CAME_OUT,
    FIGURES,
    SAMPLE,
    belief_at,
    figures_of,
    mahogany_by,
    remembered,
)
from bluekettle.services.loaded import LONGEST_FIRE_S, Loaded
from bluekettle.store import repositories
from bluekettle.store.tables import Appliance, Cook, Observation

DAMAGED = (ValueError, KeyError, TypeError, CoreError)  # what cannot be read raises one of these
PREHEAT = "_preheat_min"  # how long it heats says nothing of how fierce it is


def teach(session: Session, loaded: Loaded, now: datetime) -> None:
    """Keep what the signs of a cook that has ended tell of its appliances, once. now : by the wall.

    A rehearsal teaches nothing: its food is simulated.
    """
    if loaded.told.rehearsal is not None or loaded.cook.ended_at is None:
        return
    told = repositories.observations_of_cook(session, loaded.cook_id)
    if any(one.sign not in CAME_OUT for one in told):
        return
    session.add_all(lessons(loaded, loaded.progress(now), used_of(session)))


def teach_colour(session: Session, loaded: Loaded, now: datetime, colour: str) -> None:
    """Keep what the colour of an ended cook's food tells of its fire, in place of what was told
    before. now : by the wall.
    """
    told = repositories.observations_of_cook(session, loaded.cook_id)
    before = [one for one in told if one.sign in CAME_OUT]
    if any(CAME_OUT[one.sign] == colour for one in before):
        return
    for one in before:
        session.delete(one)
    if loaded.told.rehearsal is None and loaded.cook.ended_at is not None and colour in COLOURS:
        progress = loaded.progress(now)
        session.add_all(colour_lesson(loaded, progress, used_of(session), colour))


def used_of(session: Session) -> dict[str, Appliance]:
    """The appliance that is used for each job, of those that can be read."""
    return first_in_use(sound(repositories.appliances(session)))


def sound(found: Sequence[Appliance]) -> list[Appliance]:
    """Appliances that can be read; a damaged one is taught nothing."""
    good = []
    for kept in found:
        try:
            job_of(kept)
            figures_of(kept)
        except DAMAGED:
            continue
        good.append(kept)
    return good


def lessons(
    loaded: Loaded, progress: Progress, used: dict[str, Appliance]
) -> Iterator[Observation]:
    """Signs under a sauce that lay on moist food first, until a way out was taken, in an appliance
    that is kept with the figures that the cook was reckoned with.
    """
    for stage, scene in loaded.chain.scenes.items():
        for sign in told_first(progress, stage):
            if believed(scene, sign):
                yield from lesson(loaded, progress, used, stage, sign)


def colour_lesson(
    loaded: Loaded, progress: Progress, used: dict[str, Appliance], colour: str
) -> Iterator[Observation]:
    """The colour of food that was under one fire that is looked at, and all of whose time there was
    told; nothing of a cook with several, whose colour is of no one of them.
    """
    looked_at = [stage for stage, scene in loaded.chain.scenes.items() if scene.glaze is not None]
    for stage in looked_at if len(looked_at) == 1 else ():
        under = [one for one in stretches(progress.steps) if one[0] == stage]
        changed = any(one.fire == stage for one in progress.changes)
        if under and all(told for *_, told in under) and not changed:
            heat_s = sum(end - begin for _, begin, end, _ in under)
            sign = Sign(f"came out {colour}", under[-1][2], heat_s, True, stage)
            if 1.0 <= heat_s <= LONGEST_FIRE_S:
                yield from lesson(loaded, progress, used, stage, sign)


def lesson(
    loaded: Loaded, progress: Progress, used: dict[str, Appliance], stage: str, sign: Sign
) -> Iterator[Observation]:
    """What one sign tells of the appliance of a fire; nothing where its film or its appliance is
    not known.
    """
    scene, document = loaded.chain.scenes[stage], loaded.scenes[stage].document
    kept = used.get(document.fire)
    if scene.film is None or kept is None or not same_appliance(kept, document):
        return
    sauce, name = sauce_of(document)
    if sauce is None:
        return
    yield Observation(
        appliance_id=int(kept.id or 0),
        ground="food",
        sign=sign.sign,
        at_s=round(sign.heat_s, 1),
        dial=dial_of(document),
        coat_mm=scene.film.mm,
        sauce_name=name,
        sauce=sauce,
        made_at=loaded.at(sign.at_s),
        cook_id=loaded.cook_id,
        deep_c=scene.film.deep_c,
        surface_c=scene.film.surface_c,
        acts=acts_before(progress, stage, sign.heat_s),
    )


def acts_before(progress: Progress, stage: str, heat_s: float) -> list[dict[str, Any]] | None:
    """Coats and turns that were done in a fire by some second of its own; None where none was."""
    done = [one for one in progress.acts if one.fire == stage and one.at_s < heat_s]
    acts = [Act(one.at_s, one.away_s, "coat" in one.act, "turn" in one.act) for one in done]
    return [act._asdict() for act in acts] or None


def told_first(progress: Progress, stage: str) -> list[Sign]:
    """Signs of a fire that teach, each once, until a way out changed it."""
    ends = [change.heat_s for change in progress.changes if change.fire == stage]
    until_s = min(ends, default=float("inf"))
    found: dict[str, Sign] = {}
    for sign in progress.signs:
        ours = sign.fire == stage and sign.teaches and sign.sign in SIGNS
        if ours and 1.0 <= sign.heat_s <= until_s:
            found.setdefault(sign.sign, sign)
    return list(found.values())


def believed(scene: SceneDocument, sign: Sign) -> bool:
    """Whether a sign came within reach of what was expected: a mistap teaches nothing."""
    if scene.glaze is None:
        return False
    site, mark = SIGNS[sign.sign]
    likely = scene.glaze.milestones[SITES[site]][MILESTONES[mark]].likely_s
    return likely is not None and likely / ABSURD <= sign.heat_s <= likely * ABSURD


def same_appliance(kept: Appliance, document: HeatingDocument) -> bool:
    """Whether a dish was reckoned with the figures of this appliance, wherever its dial stood."""
    dial = finish_kind(document.fire).dial
    own = figures_of(kept)
    names = {*own, *FIGURES[appliance_kind(kept.kind).type].values()}
    return all(
        getattr(document.kitchen, name) == own.get(name)
        for name in names
        if name != dial and not name.endswith(PREHEAT)
    )


def sauce_of(document: HeatingDocument) -> tuple[dict[str, Any] | None, str]:
    """The sauce of a dish as an observation keeps it; None without one."""
    if document.sauce is None:
        return None, ""
    if isinstance(document.sauce, str):
        return {SAMPLE: document.sauce}, sample_sauce(document.sauce).name
    return document.sauce.model_dump(mode="json"), document.sauce.name


@dataclass(frozen=True)
class Lesson:
    """What one appliance was taught: all its signs, and those of the cook."""

    kept: Appliance
    seen: Sequence[Observation]
    ours: Sequence[Observation]


def lessons_of(engine: Engine, cook_id: int, now: datetime) -> LessonsPublic:
    """What a cook taught, appliance by appliance. NotFound for no such cook."""
    with Session(engine) as session:
        cook = session.get(Cook, cook_id)
        if cook is None or cook.deleted_at is not None:
            raise NotFound("cook", cook_id)
        mine = repositories.observations_of_cook(session, cook_id)
        found = []
        for kept in repositories.appliances(session):
            ours = [one for one in mine if one.appliance_id == kept.id]
            if ours:
                seen = repositories.observations(session, int(kept.id or 0))
                found.append(Lesson(kept, seen, ours))
        session.expunge_all()
    told = []
    for one in found:
        try:
            told.append(lesson_public(one, now))
        except DAMAGED:
            continue  # the kitchen says so of it
    return LessonsPublic(appliances=told)


def lesson_public(lesson: Lesson, now: datetime) -> LessonPublic:
    """What was believed without the signs of the cook, and is with them."""
    kept, cook = lesson.kept, lesson.ours[0].cook_id
    good = remembered(lesson.seen)
    others = [one for one in good if one.cook_id != cook]
    before, after = belief_at(kept, others, now), belief_at(kept, good, now)
    return LessonPublic(
        appliance_id=int(kept.id or 0),
        appliance=kept.name,
        observations=[observation_public(one) for one in lesson.ours],
        before=mahogany_by(kept, before),
        after=mahogany_by(kept, after),
        says=heat_words(after.factor("heat"), after.sd("heat"), after.seen),
    )
