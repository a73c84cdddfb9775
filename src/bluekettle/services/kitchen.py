"""The kitchen that is kept: settings, appliances, and what was seen of them."""

from __future__ import annotations

import unicodedata
from collections.abc import Sequence
from datetime import datetime
from typing import Any

import numpy as np
from sqlalchemy import Engine
from sqlmodel import Session

from bluekettle.core.errors import CoreError, Fault, OutOfRange, Ranges
from bluekettle.core.sauce import sample_sauce
from bluekettle.core.stages import (
    JOBS,
    LIMITS,
    ApplianceKind,
    appliance_keys,
    appliance_kind,
    finish_keys,
)
from bluekettle.schemas.base import AsidePublic
from bluekettle.schemas.dish import (
    InsideDocument,
    KitchenDocument,
    LearntDocument,
    MachineDocument,
)
from bluekettle.schemas.kitchen import (
    GEAR,
    ApplianceCreate,
    AppliancePublic,
    CalibratedPublic,
    KitchenPublic,
    ObservationCreate,
    ObservationPublic,
    SettingsDocument,
    StepLearnt,
)
from bluekettle.schemas.sauce import OnDishCreate, SauceCreate
from bluekettle.services.appliance_kinds import kind_public, mm_of, shown
from bluekettle.services.errors import Changed, Conflict, NotFound
from bluekettle.services.learning import (
    FIGURES,
    FINISH,
    belief_at,
    believable,
    dial_of,
    figures_of,
    mahogany,
    mahogany_by,
    remembered,
    steps_of,
)
from bluekettle.services.recipes import for_dish
from bluekettle.store import repositories
from bluekettle.store.engine import for_writing
from bluekettle.store.tables import Appliance, KitchenSettings, Observation, Sauce

# Column, label, unit shown, column of the table of typical figures, factor from stored to shown.
MOST_SEEN = 200


def get_kitchen(engine: Engine, now: datetime) -> KitchenPublic:
    """All of it."""
    with Session(engine) as session:
        return public(session, now)


def public(session: Session, now: datetime) -> KitchenPublic:
    """The kitchen as it is told, with the figures and beliefs that go into dishes."""
    settings, damaged = settings_of(session)
    found = repositories.appliances(session)
    figures: dict[str, float] = {}
    learnt: dict[str, LearntDocument] = {}
    if settings.altitude_m is not None:
        figures["altitude_m"] = settings.altitude_m
    machines: dict[str, MachineDocument] = {}
    # The first in use stands for its job, with all its figures: never one oven's heat with
    # another's calibration.
    readable, aside = readable_of(session, found)
    for job, appliance in first_in_use([a for a, _ in readable]).items():
        figures.update(figures_of(appliance))
        machines[job] = machine_of(appliance, job)
        seen = remembered(repositories.observations(session, appliance.id or 0))
        if job in finish_keys() and seen:
            belief = belief_at(appliance, seen, now)
            learnt[job] = LearntDocument(
                mean=[round(float(m), 9) for m in belief.mean],
                cov=[round(float(c), 12) for c in belief.cov.ravel()],
                seen=belief.seen,
            )
    first = first_in_use([a for a, _ in readable])
    usable = {job: machines[job] for job in machines if job in JOBS}
    return KitchenPublic(
        machines=usable,
        # No small things named is nobody said, not that there are none.
        for_plans=KitchenDocument(
            **figures, gear=settings.gear or None, learnt=learnt, machines=usable
        ),
        settings=settings,
        appliances=[
            told.model_copy(update={"instead": instead_of(a, first)}) for a, told in readable
        ],
        aside=[*damaged, *aside],
        kinds=[kind_public(key) for key in appliance_keys()],
        figures=figures,
        learnt=learnt,
        gear=list(GEAR),
    )


def settings_of(session: Session) -> tuple[SettingsDocument, list[AsidePublic]]:
    """The kitchen's settings; where they cannot be read the usual ones, and that they are not."""
    stored = session.get(KitchenSettings, 1)
    try:
        return SettingsDocument.model_validate(stored.document if stored else {}), []
    except ValueError:
        why = "height, units and hours of eating are the usual ones until they are saved again"
        return SettingsDocument(), [AsidePublic(id=0, title="Settings", why=why)]


def readable_of(
    session: Session, found: Sequence[Appliance]
) -> tuple[list[tuple[Appliance, AppliancePublic]], list[AsidePublic]]:
    """Appliances that can be read, as they are told; the others are set aside."""
    readable, aside = [], []
    for kept in found:
        try:
            readable.append((kept, appliance_public(session, kept)))
        except (ValueError, KeyError, TypeError, CoreError) as error:
            why = str(error).splitlines()[0][:200]
            aside.append(AsidePublic(id=int(kept.id or 0), title=kept.name, why=why))
    return readable, aside


WORDS: dict[str, Any] = {"buttons": {}, "display": "minutes", "counts_up": False, "outdoors": None}


def words_of(kept: Appliance) -> dict[str, Any]:
    """The machine's own words as they were kept, without what no screen can show."""
    if not isinstance(kept.words, dict):
        raise ValueError("its button names are damaged")
    known = {name: kept.words.get(name, usual) for name, usual in WORDS.items()}
    buttons = known["buttons"] if isinstance(known["buttons"], dict) else {}
    known["buttons"] = {shown_text(job): shown_text(text) for job, text in buttons.items()}
    return known


def shown_text(text: Any) -> str:
    """Text without control characters."""
    return "".join(c for c in str(text) if unicodedata.category(c) != "Cc")


def job_of(kept: Appliance) -> str:
    """The finish it gives, or its type."""
    return FINISH.get(kept.kind) or appliance_kind(kept.kind).type


def first_in_use(found: Sequence[Appliance]) -> dict[str, Appliance]:
    """By job, the appliance that plans reckon with."""
    first: dict[str, Appliance] = {}
    for kept in found:
        if kept.in_use:
            first.setdefault(job_of(kept), kept)
    return first


def instead_of(kept: Appliance, first: dict[str, Appliance]) -> str:
    """Name of the appliance of the same job that comes before this one; empty where none does."""
    other = first.get(job_of(kept))
    return "" if not kept.in_use or other is None or other.id == kept.id else other.name


def machine_of(kept: Appliance, job: str) -> MachineDocument:
    """The machine's own words for a job: the button named after it, or its first."""
    words = words_of(kept)
    buttons = words["buttons"]
    button = (
        buttons.get(job)
        or buttons.get("pressure" if job == "pot" else "")
        or next(iter(buttons.values()), "")
    )
    return MachineDocument(
        name=kept.name,
        button=button,
        display=words["display"],
        counts_up=words["counts_up"],
        outdoors=words["outdoors"],
        inside=inside_kept(kept),
        top_c=kept.top_c,
        racks_m=kept.racks_m or [],
    )


def inside_kept(kept: Appliance) -> InsideDocument | None:
    """Its inside, stated or typical of its kind; None where there is none."""
    kind = appliance_kind(kept.kind)
    width = mm_of(kept.width_m, kind.width_m)
    depth, height = mm_of(kept.depth_m, kind.depth_m), mm_of(kept.height_m, kind.height_m)
    if not width or not height:
        return None
    volume = kept.volume_l if kept.volume_l is not None else kind.volume_l
    return InsideDocument(
        shape=kept.shape or kind.shape,
        width_mm=width,
        depth_mm=depth or width,
        height_mm=height,
        volume_l=volume if kind.type in ("pot", "dish", "slow", "pan") else None,
        least_liquid_l=kind.least_liquid_l,
        zones=zones_of(kept),
    )


def zones_of(kept: Appliance) -> int:
    """Baskets of one size."""
    return 2 if kept.kind == "air-fryer-two" else 1


def keep_settings(engine: Engine, document: SettingsDocument, now: datetime) -> KitchenPublic:
    """Change the settings."""
    with Session(for_writing(engine)) as session:
        stored = session.get(KitchenSettings, 1) or KitchenSettings(id=1, document={})
        stored.document = document.model_dump(mode="json")
        session.add(stored)
        session.flush()
        answer = public(session, now)
        session.commit()
        return answer


def keep_appliance(
    engine: Engine,
    given: ApplianceCreate,
    appliance_id: int | None = None,
    version: int | None = None,
) -> AppliancePublic:
    """Keep a new appliance, or change one.

    Raises
    ------
    OutOfRange
        An unknown kind, a figure that no dish could use, a body that is not there or would share
        itself.
    Changed
        The appliance is no longer at the `version` that was read, and is otherwise.
    """
    check(given)
    with Session(for_writing(engine)) as session:
        if appliance_id is None:
            kept = Appliance(kind="", name="", in_use=True, words={}, version=0)
        else:
            kept = load(session, appliance_id)
        if given.body_id is not None:
            body = session.get(Appliance, given.body_id)
            # A chain of bodies would never end in one.
            if body is None or body.id == appliance_id or body.body_id is not None:
                raise OutOfRange(
                    [
                        Fault(
                            "body_id",
                            given.body_id,
                            "the number of another appliance that shares no body itself",
                        )
                    ]
                )
        write(kept, given)
        if appliance_id is not None and version not in (None, kept.version):
            if not session.is_modified(kept):  # the same save again, its answer was lost
                return appliance_public(session, kept)
            raise Changed("appliance", appliance_id, kept.version)
        kept.version += 1
        session.add(kept)
        session.flush()
        answer = appliance_public(session, kept)
        session.commit()
        return answer


def check(given: ApplianceCreate) -> None:
    """The figures a dish would use lie within what a dish accepts."""
    ranges = Ranges()
    ranges.one_of("kind", given.kind, appliance_keys())
    ranges.close()
    stated = {
        **given.model_dump(),
        "preheat_s": given.preheat_min,
        "rack_m": None if given.rack_mm is None else given.rack_mm / 1e3,
    }
    for column, name in FIGURES.get(appliance_kind(given.kind).type, {}).items():
        if stated.get(column) is not None:
            shown_as = {"preheat_s": "preheat_min", "rack_m": "rack_mm"}.get(column, column)
            low, high, unit = LIMITS[name]
            factor, unit = (1e3, "mm") if column == "rack_m" else (1.0, unit)
            ranges.within(
                shown_as, factor * float(stated[column]), factor * low, factor * high, unit
            )
    if given.top_c is not None and given.setting_c is not None:
        ranges.within("setting_c", given.setting_c, 40.0, given.top_c, "°C, the highest it goes")
    ranges.close()


def write(kept: Appliance, given: ApplianceCreate) -> None:
    """Fields of the document into the row, in SI."""

    def metres(value: float | None) -> float | None:
        return None if value is None else value / 1e3

    kept.kind, kept.name, kept.in_use, kept.shape = (
        given.kind,
        given.name,
        given.in_use,
        given.shape,
    )
    for name in (
        "power_w",
        "volume_l",
        "gauge_kpa",
        "element_w_m2",
        "setting_c",
        "top_c",
        "body_id",
    ):
        setattr(kept, name, getattr(given, name))
    kept.preheat_s = None if given.preheat_min is None else 60.0 * given.preheat_min
    kept.width_m, kept.depth_m, kept.height_m = (
        metres(given.width_mm),
        metres(given.depth_mm),
        metres(given.height_mm),
    )
    kept.rack_m = metres(given.rack_mm)
    kept.racks_m = None if given.racks_mm is None else [r / 1e3 for r in sorted(given.racks_mm)]
    kept.words = {name: getattr(given, name) for name in WORDS}


def as_given(kept: Appliance) -> ApplianceCreate:
    """The row as the document it came from."""

    def mm(value: float | None) -> float | None:
        return None if value is None else round(value * 1e3, 1)

    return ApplianceCreate(
        kind=kept.kind,
        name=kept.name,
        in_use=kept.in_use,
        power_w=kept.power_w,
        volume_l=kept.volume_l,
        gauge_kpa=kept.gauge_kpa,
        element_w_m2=kept.element_w_m2,
        setting_c=kept.setting_c,
        top_c=kept.top_c,
        preheat_min=None if kept.preheat_s is None else kept.preheat_s / 60.0,
        shape=kept.shape,
        width_mm=mm(kept.width_m),  # type: ignore[arg-type]
        depth_mm=mm(kept.depth_m),
        height_mm=mm(kept.height_m),
        rack_mm=mm(kept.rack_m),
        body_id=kept.body_id,
        racks_mm=None if kept.racks_m is None else [r * 1e3 for r in kept.racks_m],
        **words_of(kept),
    )


def drop_appliance(engine: Engine, appliance_id: int) -> None:
    """Delete an appliance with what was seen of it. Conflict while another shares its body."""
    with Session(for_writing(engine)) as session:
        kept = load(session, appliance_id)
        sharing = [a.name for a in repositories.appliances(session) if a.body_id == appliance_id]
        if sharing:
            raise Conflict(
                f"“{kept.name}” is the body of {', '.join(sharing)}; give them another body first"
            )
        repositories.forget_appliance(session, appliance_id)
        session.delete(kept)
        session.commit()


def load(session: Session, appliance_id: int) -> Appliance:
    """A row; NotFound."""
    found = session.get(Appliance, appliance_id)
    if found is None:
        raise NotFound("appliance", appliance_id)
    return found


def appliance_public(session: Session, kept: Appliance) -> AppliancePublic:
    """An appliance as it is told."""
    kind = appliance_kind(kept.kind)
    seen = repositories.observations(session, kept.id or 0)
    finish = FINISH.get(kept.kind)
    history: list[StepLearnt] = []
    if finish:
        good = remembered(seen)
        beliefs = steps_of(kept, good)
        numbers = [None, *[s.id for s in good]]
        history = [
            StepLearnt(
                observation_id=n, factor=round(b.factor("heat"), 3), log_sd=round(b.sd("heat"), 3)
            )
            for n, b in zip(numbers, beliefs, strict=True)
        ]
    racks = kept.racks_m if kept.racks_m is not None else kind.racks_m
    return AppliancePublic(
        id=kept.id or 0,
        version=kept.version,
        kind=kept.kind,
        kind_name=kind.name,
        type=kind.type,
        given=as_given(kept),
        figures=shown(kept, kind),
        finish=finish,
        observations=[observation_public(s) for s in seen],
        history=history,
        heat_says=says(history),
        shape=kept.shape or kind.shape,
        width_mm=mm_of(kept.width_m, kind.width_m),
        depth_mm=mm_of(kept.depth_m, kind.depth_m),
        height_mm=mm_of(kept.height_m, kind.height_m),
        racks_mm=[round(r * 1e3) for r in racks],
        inside=inside_kept(kept),
        shares=shares_of(session, kept, kind),
    )


def shares_of(session: Session, kept: Appliance, kind: ApplianceKind) -> str:
    """Whose body it shares, in words."""
    if kept.body_id is not None:
        body = session.get(Appliance, kept.body_id)
        return body.name if body else ""
    return f"{appliance_kind(kind.shares).name} (assumed)" if kind.shares else ""


def says(history: Sequence[StepLearnt]) -> str:
    """How fierce it is and how sure that is."""
    if not history:
        return ""
    return heat_words(history[-1].factor, history[-1].log_sd, len(history) - 1)


def heat_words(factor: float, log_sd: float, signs: int) -> str:
    """How fierce an appliance is, from so many signs, and how sure that is."""
    spread = float(np.exp(1.2816 * log_sd))
    if not signs:
        return (
            f"not calibrated: others of its kind give {1 / spread:.2f} to {spread:.2f} times the"
            " typical heat"
        )
    word = (
        "about typical"
        if 0.93 <= factor <= 1.07
        else "fiercer than typical"
        if factor > 1
        else "gentler than typical"
    )
    low, high = factor / spread, factor * spread
    return (
        f"{word}: {factor:.2f} times the typical heat, {low:.2f} to {high:.2f} likely, from"
        f" {signs} sign{'s' if signs > 1 else ''}"
    )


def observation_public(seen: Observation) -> ObservationPublic:
    """One sign."""
    return ObservationPublic(
        id=seen.id or 0,
        ground=seen.ground,
        sign=seen.sign,
        at_s=seen.at_s,
        dial=seen.dial,
        sauce=seen.sauce_name,
        made_at=seen.made_at,
        forgotten=seen.forgotten_at is not None,
        cook_id=seen.cook_id,
    )


def observe(
    engine: Engine, appliance_id: int, given: ObservationCreate, now: datetime
) -> CalibratedPublic:
    """Keep a sign, and what it taught.

    Raises
    ------
    OutOfRange
        A sign that this glaze or bread never shows, or a time twelvefold off what is expected; an
        appliance that finishes nothing.
    Conflict
        More than 200 signs on one appliance.
    """
    # The model runs before the store is locked: a tap never waits for what is being learnt.
    with Session(engine) as session:
        kept = load(session, appliance_id)
        if kept.kind not in FINISH:
            accepted = "an appliance that finishes: " + ", ".join(FINISH)
            raise OutOfRange([Fault("appliance", kept.kind, accepted)])
        seen = repositories.observations(session, appliance_id)
        if sum(one.cook_id is None for one in seen) >= MOST_SEEN:
            raise Conflict(
                f"“{kept.name}” has {MOST_SEEN} signs that were told here; keep it as a new"
                " appliance"
            )
        sauce, name = copy_of(session, given)
        one = Observation(
            appliance_id=appliance_id,
            ground=given.ground,
            sign=given.sign,
            at_s=given.at_s,
            dial=dial_of(kept),
            coat_mm=given.coat_mm,
            sauce_name=name,
            sauce=sauce,
            made_at=now,
        )
        earlier = remembered(seen)
        believable(kept, earlier, one)
        before = mahogany_by(kept, belief_at(kept, earlier, now))
        after = mahogany(kept, [*earlier, one])
    with Session(for_writing(engine)) as session:
        kept = load(session, appliance_id)
        session.add(one)
        session.flush()
        told = appliance_public(session, kept)
        session.commit()
    return CalibratedPublic(appliance=told, before=before, after=after, says=told.heat_says)


def copy_of(session: Session, given: ObservationCreate) -> tuple[dict[str, Any] | None, str]:
    """A copy of the sauce that was under the heat, so that deleting the sauce later takes nothing
    from the belief.
    """
    if given.ground in ("bread", "syrup"):
        return None, {"bread": "plain bread", "syrup": "sugar syrup"}[given.ground]
    if given.sauce_id is None:
        return None, sample_sauce("bottled-sweet").name
    sauce = session.get(Sauce, given.sauce_id)
    if sauce is None:
        raise OutOfRange([Fault("sauce_id", given.sauce_id, "the number of a kept sauce, or null")])
    recipe = SauceCreate.model_validate(sauce.document)
    document = for_dish(OnDishCreate.model_validate(recipe.model_dump()))
    return document.model_dump(mode="json"), recipe.name


def forget(engine: Engine, observation_id: int, now: datetime, again: bool) -> AppliancePublic:
    """Forget one observation, or take it back in (`again`)."""
    with Session(for_writing(engine)) as session:
        one = session.get(Observation, observation_id)
        if one is None:
            raise NotFound("observation", observation_id)
        one.forgotten_at = None if again else now
        session.add(one)
        session.commit()
        return appliance_public(session, load(session, one.appliance_id))
