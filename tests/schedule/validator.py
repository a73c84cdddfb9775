"""Judges a plan of a meal by what a cook would see, from the forecasts alone. It shares no code
with the search: only the plan's times, the dishes' own links, and the kitchen are asked.
"""

from itertools import combinations, pairwise

CRISP_MIN, GLAZED_MIN, RESTED_MIN, TABLE_MIN = 10.0, 12.0, 15.0, 5.0
ROOM_MIN = 15.0
GRID_S = 30.5
COOLS_K_MIN = 5.0
VESSELS = ("pot", "pan", "slow")
SHARED = {"oven": 2, "bath": 3, "smoker": 2, "hob": 3}


def chain_of(forecast):
    return [link for link in forecast.links if link.serial]


def faults_of(plan, dishes, sides, kitchen, now_s):
    """Everything that is wrong with a plan, in words; empty where all is right. dishes : by key,
    their forecasts. sides : by key.
    """
    at = {task.key: task for task in plan.tasks}
    found = []
    for key, forecast in dishes.items():
        found += in_order(key, forecast, at)
        found += fires_attended(key, forecast, at)
        found += kept_warm(key, forecast, at)
        found += ready_before_use(key, forecast, at)
        found += crust_kept(key, forecast, at, plan)
    for key, side in sides.items():
        found += side_in_order(key, side, at)
    found += vessels_emptied(dishes, at, kitchen)
    found += one_thing_at_a_time(plan, kitchen)
    found += rooms_in_appliances(plan, kitchen)
    found += hot_when_needed(plan)
    found += [
        f"{ahead.label} had to be switched on before now"
        for ahead in plan.aheads
        if ahead.start_s < now_s - GRID_S
    ]
    for task in plan.tasks:
        if task.start_s < now_s - GRID_S:
            found.append(f"{task.key} begins before now")
        for begin, end in kitchen.quiet:
            if task.pair is not None and task.hands_s < end - 1 and task.end_s > begin + 1:
                found.append(f"{task.key} wakes somebody")
    lasts = [max(t.end_s for t in plan.tasks if t.line == key) for key in (*dishes, *sides)]
    if max(lasts) > plan.supper_s + 1.0:
        found.append("something comes after supper")
    told_cold = any(not past.after for past in plan.past)
    if plan.supper_s - min(lasts) > 60.0 * TABLE_MIN + GRID_S and not told_cold:
        found.append("something stands on the table too long")
    return found


def in_order(key, forecast, at):
    links = chain_of(forecast)
    found = [f"{key}/{link.key} is not planned" for link in links if f"{key}/{link.key}" not in at]
    for one, then in pairwise(links):
        end, begin = at[f"{key}/{one.key}"].end_s, at[f"{key}/{then.key}"].start_s
        if begin < end - 1.0:
            found.append(f"{then.key} begins before {one.key} is over")
        on_at_once = "fire" in (one.who, then.who)
        if on_at_once and begin > end + 1.0:
            found.append(f"{one.key} burns for {begin - end:.0f} s until {then.key}")
    return found


def fires_attended(key, forecast, at):
    found = []
    for link in chain_of(forecast):
        if link.who in ("fire", "gate", "hands") and at[f"{key}/{link.key}"].pair is None:
            found.append(f"nobody is at {link.key}")
        task = at[f"{key}/{link.key}"]
        if task.end_s - task.hands_s < min(300.0, task.end_s - task.start_s) - 1.0:
            found.append(f"nobody looks into {link.key} at its end")
    return found


def kept_warm(key, forecast, at):
    """Cooked food does not stand longer than it stays warm; raw food not in the room."""
    links = chain_of(forecast)
    slow = [n for n, link in enumerate(links) if link.key.endswith((".open", ".check"))]
    heats = {one.stage.id for one in forecast.walk.passed if one.passage.body}
    first = next(n for n, link in enumerate(links) if link.key.rsplit(".", 1)[0] in heats)
    found = [
        f"{key} lies raw in the room after {one.key}"
        for one, then in pairwise(links[: first + 1])
        if one.who == "machine"
        and one.band.likely_s < 1800.0
        and at[f"{key}/{then.key}"].start_s - at[f"{key}/{one.key}"].end_s > 60.0 * ROOM_MIN + 1.0
    ]
    if slow and forecast.warm_s is not None:
        last = max(slow)
        after = at[f"{key}/{links[last].key}"].end_s
        until = next((n for n in range(last, len(links)) if links[n].who == "fire"), len(links) - 1)
        stood = at[f"{key}/{links[until].key}"].start_s - after
        between = [at[f"{key}/{link.key}"] for link in links[last + 1 : until]]
        handled = sum(task.end_s - task.start_s for task in between)
        if stood > forecast.warm_s + handled + 1.0:
            found.append(f"{key} stands {stood / 60:.0f} min before its fire")
    return found


def ready_before_use(key, forecast, at):
    found = []
    for link in forecast.links:
        if not link.serial and link.kind != "preheat":
            stage = link.before.rsplit(".", 1)[0]
            its = [one for one in chain_of(forecast) if one.key.rsplit(".", 1)[0] == stage]
            made, used = at[f"{key}/{link.key}"], at[f"{key}/{its[0].key}"]
            if f"{key}/{link.before}" in at:
                used = at[f"{key}/{link.before}"]
            if made.end_s > used.start_s + 1.0:
                found.append(f"{link.key} is not ready for {link.before}")
    return found


def crust_kept(key, forecast, at, plan):
    """From the fire to the table, less what is done to it, within minutes; or it is told."""
    links = chain_of(forecast)
    fired = [n for n, link in enumerate(links) if link.who == "fire"]
    if not fired:
        return []
    out, last = links[fired[-1]], links[-1]
    between = links[fired[-1] + 1 : -1]
    done = sum(at[f"{key}/{one.key}"].end_s - at[f"{key}/{one.key}"].start_s for one in between)
    stood = at[f"{key}/{last.key}"].start_s - at[f"{key}/{out.key}"].end_s - done
    coats = forecast.fires[-1].coats
    rests = any(link.who == "machine" for link in between)
    minutes = RESTED_MIN if rests else GLAZED_MIN if coats else CRISP_MIN
    most = 60.0 * minutes + 10.0 * len(links) + GRID_S
    told = any(past.line == key and past.after for past in plan.past)
    return [] if stood <= most or told else [f"{key} stands {stood / 60:.0f} min after its fire"]


def side_in_order(key, side, at):
    parts = [at[f"{key}/{name}"] for name in ("prepare", "cook", "finish") if f"{key}/{name}" in at]
    return [
        f"{then.key} begins before {one.key} is over"
        for one, then in pairwise(parts)
        if then.start_s < one.end_s - 1.0
    ]


def one_thing_at_a_time(plan, kitchen):
    acts = [task for task in plan.tasks if task.pair is not None and task.end_s > task.start_s]
    found = [
        f"{one.key} and {other.key} at once"
        for one, other in combinations(acts, 2)
        if one.pair == other.pair
        and one.hands_s < other.end_s - 1.0
        and other.hands_s < one.end_s - 1.0
    ]
    return found + [f"{t.key}: pair {t.pair}" for t in acts if not 0 <= t.pair < kitchen.pairs]


def vessels_emptied(dishes, at, kitchen):
    """Nothing goes into a pot before the last food was lifted out of it."""
    spans = []
    for key, forecast in dishes.items():
        links = chain_of(forecast)
        for one in forecast.walk.passed:
            if one.passage.slow is None or one.passage.body not in VESSELS:
                continue
            mine = [n for n, link in enumerate(links) if link.key.startswith(f"{one.stage.id}.")]
            out = next(link for link in links[mine[-1] + 1 :] if link.who == "hands")
            begin = at[f"{key}/{links[mine[0]].key}"].start_s
            spans.append((one.passage.body, key, begin, at[f"{key}/{out.key}"].end_s))
    return [
        f"the {body} still holds {one if begin < other_begin else other}"
        for (body, one, begin, end), (same, other, other_begin, other_end) in combinations(spans, 2)
        if body == same
        and one != other
        and sum(b.kind == body for b in kitchen.bodies) == 1
        and begin < other_end - 1.0
        and other_begin < end - 1.0
    ]


def rooms_in_appliances(plan, kitchen):
    found = []
    bodies = {body.key: body for body in kitchen.bodies}
    for key in {use.body for use in plan.taken}:
        uses = [use for use in plan.taken if use.body == key]
        body = bodies[key]
        room = body.places if body.zoned else SHARED.get(body.kind, 1)
        for use in uses:
            beside = [o for o in uses if o.start_s <= use.start_s < o.end_s - 1.0]
            if len({o.line for o in beside}) > room:
                found.append(f"{len(beside)} in the {key}")
        for one, other in combinations(uses, 2):
            if one.line == other.line or body.zoned:
                continue
            first, then = sorted((one, other), key=lambda use: use.start_s)
            apart = then.start_s - first.end_s
            alike = (
                None not in (one.temp_c, other.temp_c) and abs(one.temp_c - other.temp_c) <= 10.0
            )
            if apart < -1.0 and not alike:
                found.append(f"{one.use} and {other.use} at once in the {key}")
            if apart >= -1.0 and None not in (first.temp_c, then.temp_c):
                cools = 60.0 * (first.temp_c - then.temp_c - 10.0) / COOLS_K_MIN
                if apart < cools - GRID_S:
                    found.append(f"the {key} is still hot from {first.use} for {then.use}")
                if then.temp_c - first.temp_c > 30.0 and apart < 60.0:
                    found.append(f"the {key} is at {then.temp_c} °C at once for {then.use}")
    return found


def hot_when_needed(plan):
    """An appliance is hot within three minutes of its use, and no fire finds a cold one."""
    begins = {use.use: use.start_s for use in plan.taken}
    return [
        f"{ahead.label} is ready {ahead.ready_s - begins[ahead.use]:.0f} s off its use"
        for ahead in plan.aheads
        if abs(ahead.ready_s - begins[ahead.use]) > 180.0
    ]
