"""Where a cook stands at a moment, as the Stove page reads it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from bluekettle.core.stages import (
    Event,
    Evidence,
    Progress,
    StepPlan,
    StepState,
    finish_kind,
    not_undone,
)
from bluekettle.core.stages.told import FAILED
from bluekettle.core.units import amount
from bluekettle.schemas.cook import (
    CheckPublic,
    FirePublic,
    GatePublic,
    LivePublic,
    OutPublic,
    ReturnPublic,
    SignPublic,
    StepPublic,
    WayPublic,
)
from bluekettle.schemas.forecast import GlazePublic
from bluekettle.schemas.reading import ProbePublic
from bluekettle.services.alarms import alarms_of
from bluekettle.services.dials import dial_public
from bluekettle.services.feeling import FeelNow, feel_now
from bluekettle.services.instructions import Words, minutes_text, stopwatch_text
from bluekettle.services.leaving import leavable
from bluekettle.services.loaded import Loaded
from bluekettle.services.offers import exit_alarms, exits_now, scout_now
from bluekettle.services.picture import picture_of
from bluekettle.services.probing import ProbeNow, devices_of, fresh_core, offer_now, probe_now
from bluekettle.services.rehearsing import rehearsal_now
from bluekettle.services.strips import Seen, Strips

UNDOABLE = ("done", "skip", "extend", "later", "saw", "felt", "rescue", "way", "dial", "instead")
ROOM_LIMIT_S = 2 * 3600.0  # usual guidance: food in the danger zone, at room temperature


@dataclass(frozen=True)
class Looked:
    """A cook as it stands by all that was told, seen and read."""

    progress: Progress
    probe: ProbeNow
    feel: FeelNow
    seen: Seen
    glaze: GlazePublic | None
    ready: bool


def looked(loaded: Loaded, now: datetime, strips: Strips) -> Looked:
    """Where a cook stands. now : by its own clock."""
    told = loaded.progress(now)
    probe = probe_now(loaded, told, now, strips.probes)
    feel = feel_now(loaded, told, strips.workshop)
    known = {**feel.seconds, **probe.seconds}
    if known:
        told = loaded.progress(now, probed=known)
    seen = loaded.seen(told)
    planned = loaded.planned_glaze(told)
    glaze, ready = (None, True)
    if planned is not None:
        glaze, ready = strips.now(loaded.as_read, planned, seen)
    progress = loaded.progress(now, glaze, seen.stage, known) if seen else told
    return Looked(progress, probe, feel, seen, glaze, ready)


def live(loaded: Loaded, now: datetime, strips: Strips) -> LivePublic:
    """The state as the Stove page reads it. now : by the clock of the cook."""
    look = looked(loaded, now, strips)
    progress, probe, seen, glaze = look.progress, look.probe, look.seen, look.glaze
    facts = loaded.scene().facts
    plan = next((s.plan for s in progress.steps if s.plan.key == progress.current), None)
    words = loaded.words(plan) if plan else Words("All done. How was it?", "", "")
    out = out_between(glaze, progress) if progress.fire and glaze else None
    words = said_now(words, progress, glaze, out, loaded)
    if plan is not None and plan.key in probe.seconds and probe.public is not None:
        words = until_core(words, probe.public)
    gate = gate_public(loaded, progress, plan, now)
    rehearsal = rehearsal_now(loaded, progress, plan, loaded.seconds(now))
    if gate is not None and rehearsal is not None and rehearsal.reads_c is not None:
        simulated = {"reads_c": rehearsal.reads_c, "read_by": "Rehearsal", "read_at": now}
        gate = gate.model_copy(update=simulated)
    serve_at = loaded.at(progress.serve_at_s)
    exits = [] if loaded.cook.ended_at else exits_now(loaded, progress, now)
    return LivePublic(
        id=loaded.cook_id,
        supper=loaded.cook.supper_id,
        title=loaded.cook.title,
        now=now,
        started_at=loaded.cook.started_at,
        ended_at=loaded.cook.ended_at,
        rated=loaded.told.rated,
        last_event=loaded.rows[-1].seq if loaded.rows else 0,
        undoable=last_standing(loaded.events),
        current=progress.current,
        says=words.says,
        button=words.button,
        detail=words.detail,
        caution=standing_caution(loaded, progress, loaded.seconds(now)),
        eat_by=eat_by(loaded, progress, loaded.seconds(now)),
        steps=[step_public(loaded, s) for s in progress.steps],
        serve_at=serve_at,
        serve_low_at=loaded.at(progress.serve_low_s),
        serve_high_at=loaded.at(progress.serve_high_s),
        planned_serve_at=facts.serve_at,
        feel=None if loaded.cook.ended_at else look.feel.public,
        fire=fire_public(loaded, progress),
        out=out,
        alarms=[]
        if loaded.cook.ended_at
        else sorted(
            [*alarms_of(loaded, progress, glaze, now), *exit_alarms(exits, loaded)],
            key=lambda alarm: alarm.at,
        ),
        looks_s=glaze.looks_s if progress.fire and glaze else [],
        glaze_key=seen.key if glaze else None,
        glaze_ready=look.ready,
        gate=gate,
        back=back_public(loaded, progress, now),
        checks=checks_public(loaded, progress),
        side_due=[] if loaded.cook.ended_at else list(progress.side_due),
        signs=[SignPublic(sign=s.sign, heat_s=s.heat_s, teaches=s.teaches) for s in progress.signs],
        allergens=facts.allergens,
        allergens_unknown=facts.allergens_unknown,
        picture=picture_of(loaded, progress, loaded.seconds(now)),
        waits_s=waits_s(progress, loaded.seconds(now)),
        probe=None if loaded.cook.ended_at else probe.public,
        devices=devices_of(loaded, now),
        offer=None if loaded.cook.ended_at else offer_now(loaded, progress, now),
        rehearsal=rehearsal,
        exits=exits,
        leavable=[] if loaded.cook.ended_at else leavable(loaded, progress, loaded.seconds(now)),
        scout=None if loaded.cook.ended_at else scout_now(loaded, progress, now),
        finished=progress.finished,
    )


def waits_s(progress: Progress, now_s: float) -> float:
    """Seconds until the planned start; 0 once it is begun."""
    first = progress.steps[0] if progress.steps else None
    if first is None or first.plan.key != "wait" or progress.current != "wait":
        return 0.0
    return max(0.0, first.due_s - now_s)


def last_standing(events: Sequence[Event]) -> int:
    """Number of the newest event that is neither undone nor an undo; 0 where there is none."""
    return max((e.seq for e in not_undone(events) if e.kind in UNDOABLE), default=0)


def said_now(
    words: Words,
    progress: Progress,
    glaze: GlazePublic | None,
    out: OutPublic | None,
    loaded: Loaded,
) -> Words:
    """The words of the moment: under the heat what was seen counts, and a failed check says so."""
    fire = progress.fire
    if fire is not None and fire.assumed:
        where = finish_kind(loaded.fire_scene(progress).document.fire).where
        assumed = "Nobody told me, so I count from the earliest moment it could be."
        return Words(f"It may be {where} already.", words.button, assumed)
    plan = next((s.plan for s in progress.steps if s.plan.key == progress.current), None)
    if plan is not None and plan.who == "fire" and glaze is not None:
        return Words(
            words.says, words.button, out_text(out) if out else under_text(loaded, plan, glaze)
        )
    failed = progress.checks[-1] if progress.checks else None
    first_back = plan is not None and plan.key.endswith(".load")
    if failed is not None and failed.verdict == FAILED and plan is not None:
        same = failed.step == plan.key or first_back
        why = failure_text(failed.temp_c, failed.why, loaded, failed.step)
        if same and failed.step == plan.key:
            return Words(words.says, words.button, f"{why} {words.detail}")
        if same:
            hold = loaded.step_of(plan).hold_s
            return Words(f"{why} {plan.label} for {minutes_text(hold)}.", "It is back in", "")
    return words


def until_core(words: Words, probe: ProbePublic) -> Words:
    """The words of a heat that a probe ends: no timer, but what it has to read."""
    wanted = amount(probe.target_c or 0.0, "°C")
    where = words.says.partition(":")[0]  # "In the low oven"
    return Words(f"{where} until {wanted} inside.", f"It reads {wanted}", words.detail)


def failure_text(read_c: float | None, why: str, loaded: Loaded, gate: str) -> str:
    """Why a check failed, with the reading and what is wanted."""
    if why != "too cold inside" or read_c is None:
        return f"{why[0].upper()}{why[1:]}."
    plan = next((p for p in loaded.fold.line if p.key == gate), None)
    asked = loaded.asked_c(plan) if plan else None
    wanted = f", {amount(asked, '°C')} wanted" if asked is not None else ""
    return f"{amount(read_c, '°C')} inside{wanted}."


SIGN_WORDS = {"bubbling": "Bubbling", "amber at the edges": "Amber edges", "dark": "Dark"}


def out_between(glaze: GlazePublic, progress: Progress) -> OutPublic | None:
    """When to take it out by the last sign that teaches: from its moment to the colour wanted."""
    signs = [s for s in progress.signs if s.teaches and s.sign in SIGN_WORDS]
    if not signs:
        return None
    last = signs[-1]
    gap = next((g for g in glaze.gaps if g.sign == last.sign), None)
    wanted = gap.to_wanted if gap else None
    if wanted is None or wanted.low_s is None or wanted.high_s is None:
        pull = glaze.pull
        if last.sign != "dark" or pull is None:
            return None
        return OutPublic(sign=last.sign, seen_s=last.heat_s, from_s=last.heat_s, to_s=last.heat_s)
    return OutPublic(
        sign=last.sign,
        seen_s=last.heat_s,
        from_s=round(last.heat_s + wanted.low_s, 1),
        to_s=round(last.heat_s + wanted.high_s, 1),
    )


def out_text(out: OutPublic) -> str:
    """ "Amber edges at 1:08. Out between 1:55 and 2:14." """
    seen = f"{SIGN_WORDS[out.sign]} at {stopwatch_text(out.seen_s)}."
    if out.from_s == out.to_s == out.seen_s:
        return f"{seen} Out now."
    return f"{seen} Out between {stopwatch_text(out.from_s)} and {stopwatch_text(out.to_s)}."


def under_text(loaded: Loaded, plan: StepPlan, glaze: GlazePublic) -> str:
    """What the food under the heat waits for: a look, or the clock."""
    scene = loaded.scene(plan)
    if scene.by_clock:
        return f"{minutes_text(scene.facts.timer_s)} in all, by the clock. I call you."
    return by_sight(glaze)


def by_sight(glaze: GlazePublic) -> str:
    """What the cook has left once a sign is seen, or why to look."""
    gap = next((g for g in glaze.gaps if g.sign.startswith("amber")), None)
    if gap is None or gap.to_wanted.low_s is None or gap.to_wanted.high_s is None:
        return "Look often: the right colour may not come before the edges burn."
    low, high = (stopwatch_text(s) for s in (gap.to_wanted.low_s, gap.to_wanted.high_s))
    return f"Edges first; the rest follows {low} to {high} later."


def step_public(loaded: Loaded, state: StepState) -> StepPublic:
    """One step with clock times."""
    plan = state.plan
    checks = [c for c in loaded.fold.checks if c.step == plan.key]
    return StepPublic(
        key=plan.key,
        label=plan.label,
        who=plan.who,
        state=state.state,
        beside=plan.beside,
        begin_at=loaded.moment(state.begin_s),
        end_at=loaded.moment(state.end_s),
        due_at=loaded.at(state.due_s),
        likely_s=plan.likely_s,
        fire=plan.fire,
        act=plan.act,
        gate=state.gate,
        note=checks[-1].why if checks else "",
        check=check_of(loaded, plan) if plan.who == "gate" else None,
    )


def fire_public(loaded: Loaded, progress: Progress) -> FirePublic | None:
    """The fierce heat that the food is under now."""
    fire = progress.fire
    if fire is None or loaded.cook.ended_at is not None:
        return None
    return FirePublic(
        name=fire.name,
        appliance=finish_kind(loaded.fire_scene(progress).document.fire).name,
        since=loaded.at(fire.since_s),
        before_s=round(fire.before_s, 1),
        assumed=fire.assumed,
        put_by=put_by(progress) if fire.assumed else "",
        dial=dial_public(
            loaded.planned,
            loaded.fire_scene(progress).document,
            fire.name,
            loaded.aired.get(fire.name),
        ),
    )


def put_by(progress: Progress) -> str:
    """Key of the step that puts the food under the fire that comes next."""
    line = [s for s in progress.steps if not s.plan.beside]
    keys = [s.plan.key for s in line]
    place = keys.index(progress.current or keys[0])
    ahead = next(i for i in range(place, len(line)) if line[i].plan.who == "fire")
    return keys[max(place, ahead - 1)]


def gate_public(
    loaded: Loaded, progress: Progress, plan: StepPlan | None, now: datetime
) -> GatePublic | None:
    """The check that is to be passed now, filled in with what the probe reads."""
    if plan is None or plan.who != "gate" or not progress.barrier:
        return None
    gate, read = check_of(loaded, plan), fresh_core(loaded, progress, now)
    if read is None or gate.wants_c is None:
        return gate
    filled = {"reads_c": round(read.value, 1), "read_by": read.device, "read_at": read.taken_at}
    return gate.model_copy(update=filled)


def check_of(loaded: Loaded, gate: StepPlan) -> GatePublic:
    """What a gate wants to be shown."""
    wants = gate.evidence or Evidence()
    asked = loaded.asked_c(gate)
    bath_c = loaded.scene(gate).facts.target_c
    return GatePublic(
        step=gate.key, tender=wants.tender, wants_c=asked, rests_on=rests_on(bath_c, wants, asked)
    )


def rests_on(target_c: float, wants: Evidence, asked_c: float | None) -> str:
    """What a gate rests on, where a time in the bath could stand for the usual temperature."""
    if wants.timed_c is None or wants.usual_c is None:
        return ""
    if asked_c == wants.timed_c:
        bath = amount(target_c, "°C")
        return f"Rests on time: {minutes_text(wants.timed_s)} in the bath at {bath}."
    usual = amount(wants.usual_c, "°C")
    return f"Its time in the bath was not confirmed, so {usual} counts."


def back_public(loaded: Loaded, progress: Progress, now: datetime) -> ReturnPublic | None:
    """The way back that is being taken, and the others there are."""
    current = progress.current or ""
    if "~" not in current or not progress.checks:
        return None
    failed = [c for c in progress.checks if c.verdict == FAILED]
    gate = failed[-1].step if failed else ""
    legs = loaded.fold.legs.get(gate, ())
    if not legs:
        return None
    way = legs.index(loaded.fold.taken[gate])
    serve_at = loaded.at(progress.serve_at_s)
    return ReturnPublic(
        step=gate,
        why=failed[-1].why,
        way=way,
        ways=[
            WayPublic(
                heat=leg.heat,
                says=leg.says,
                minutes=round(leg.likely_s / 60.0, 1),
                eat_at=serve_at + timedelta(seconds=leg.likely_s - legs[way].likely_s),
            )
            for leg in legs
        ],
    )


def checks_public(loaded: Loaded, progress: Progress) -> list[CheckPublic]:
    """Every check that was told, in order."""
    labels = {plan.key: plan.label for plan in loaded.every_plan}
    return [
        CheckPublic(
            step=check.step,
            label=labels.get(check.step.partition("~")[0], check.step),
            at=loaded.at(check.at_s),
            temp_c=check.temp_c,
            tender=check.tender,
            verdict=check.verdict,
            why=check.why,
        )
        for check in progress.checks
    ]


def standing_caution(loaded: Loaded, progress: Progress, now_s: float) -> str:
    """Food that stands out of its heat: when it has cooled into the danger zone, and when it has
    been there too long.
    """
    warm_s = loaded.scene().facts.warm_s
    since = stands_since(progress)
    if warm_s is None or since is None or not loaded.scene().facts.safety.gate:
        return ""
    stood = now_s - since
    if stood > warm_s + ROOM_LIMIT_S:
        return (
            "It has stood over two hours at room warmth: usual guidance is not to eat it any more."
        )
    if stood > warm_s:
        return f"It is cooling: on with it, or hold it above {amount(60.0, '°C')}."
    return ""


def eat_by(loaded: Loaded, progress: Progress, now_s: float) -> datetime | None:
    """Until when food that stands has to be eaten or chilled."""
    warm_s, since = loaded.scene().facts.warm_s, stands_since(progress)
    if warm_s is None or since is None or not standing_caution(loaded, progress, now_s):
        return None
    return loaded.at(since + warm_s + ROOM_LIMIT_S)


def stands_since(progress: Progress) -> float | None:
    """Since when the food is out of every heat and still on its way to the plate [s]."""
    if progress.fire is not None or progress.current is None:
        return None
    line = [s for s in progress.steps if not s.plan.beside]
    place = next(i for i, s in enumerate(line) if s.plan.key == progress.current)
    hot = [i for i, s in enumerate(line[:place]) if s.plan.who in ("fire",) or heats(s.plan)]
    if not hot or heats(line[place].plan):
        return None
    return line[hot[-1]].due_s


def heats(plan: StepPlan) -> bool:
    """Whether the food is in a heat during a step: a machine has it that is no rest or wait."""
    root = plan.key.rpartition(".")[2].partition("-")[0]
    return plan.who == "machine" and root in ("come_up", "hold", "natural")
