"""The plan of a meal as a calendar (iCalendar, RFC 5545): start, ends of long waits, and supper.

A later export of the same meal updates the earlier: the keys of its events stay.
"""

from __future__ import annotations

import re
from datetime import datetime, timedelta

from icalendar import Alarm, Calendar, Event

from bluekettle.schemas.meal import MealTaskPublic, SchedulePublic

LONG = timedelta(minutes=20)  # a wait that one walks away from
BEFORE = timedelta(minutes=5)  # how long before the end of such a wait one is called
MARKS = re.compile("[⟨⟩]")


def calendar_of(plan: SchedulePublic, now: datetime, meal: str = "") -> str:
    """The calendar as text. meal : what its events are keyed by; the name of the meal if empty."""
    meal = meal or re.sub("[^a-z0-9]+", "-", plan.name.lower()).strip("-") or "meal"
    found = Calendar()
    found.add("prodid", "-//Blue Kettle//Meal//EN")
    found.add("version", "2.0")
    found.add("method", "PUBLISH")
    name = plan.name or "Supper"
    called = {line.id: line.name for line in plan.lines}
    if plan.feasible:
        found.add_component(event(meal, "begin", f"Begin: {name}", plan.first_at, now))
        for task in long_waits(plan):
            says = f"Over: {MARKS.sub('', task.label)} ({called[task.line]})"
            found.add_component(event(meal, task.key, says, task.end_at, now))
    found.add_component(event(meal, "supper", name, plan.serve_at, now))
    return str(found.to_ical().decode())


def long_waits(plan: SchedulePublic) -> list[MealTaskPublic]:
    """Machine work that is long enough to walk away from."""
    machines = [task for task in plan.tasks if task.who == "machine"]
    return [task for task in machines if task.end_at - task.start_at >= LONG]


def event(meal: str, key: str, says: str, at: datetime, now: datetime) -> Event:
    """One moment, with an alarm."""
    made = Event()
    made.add("uid", f"{meal}-{key.replace('/', '-')}@bluekettle.invalid")
    made.add("dtstamp", now)
    made.add("dtstart", at)
    made.add("dtend", at + timedelta(minutes=1))
    made.add("summary", says)
    made.add("sequence", int(now.timestamp()) // 60 % 2**31)
    alarm = Alarm()
    alarm.add("action", "DISPLAY")
    alarm.add("description", says)
    alarm.add("trigger", -BEFORE)
    made.add_component(alarm)
    return made
