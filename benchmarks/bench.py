"""Speed and spread of the model: medians over repeats, one core, warm. Run: make bench."""

from __future__ import annotations

import os
import statistics
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path

import chains
import meals
import numpy as np
import replans
import server
from plain_film import solve

from bluekettle.core import chain
from bluekettle.core.advice import advise, explore, plan_effects, rescue
from bluekettle.core.calibration import (
    SIGNS,
    Belief,
    SignSeen,
    first_belief,
    learn_from,
    next_cook,
    predict,
)
from bluekettle.core.calibration.belief import evening_cov
from bluekettle.core.glaze import (
    BEFORE,
    Coating,
    Heat,
    draw_members,
    film_constants,
    run_finish,
    weighted_quantile,
)
from bluekettle.core.glaze.finish import bare_film, rubbed_film
from bluekettle.core.ingredients import ingredient, ingredient_keys, read_lines
from bluekettle.core.ingredients.lines import _amount_and_name
from bluekettle.core.sauce import sample_sauce
from bluekettle.core.stages import Sighting
from bluekettle.schemas.sauce import AnalyseCreate
from bluekettle.services.recipes import analyse


def ribs(heat: str = "pressure", **more: object) -> chain.Plan:
    """Short ribs made tender, two coats, broiled until amber: the dish that is timed."""
    stages = (
        chain.Season("season"),
        chain.Heat("cook", heat, chain.Until("bite", bite="falls")),
        chain.Dress("brush", "glaze"),
        chain.Heat(
            "broil",
            "broiler",
            chain.Until("colour"),
            acts=(chain.HeatAct("coat", layer="glaze"),),
        ),
        chain.Rest("rest", 3.0, covered=True),
    )
    glaze = chain.Layer("glaze", "plum and tea", sample_sauce("plum-tea"))
    plan = chain.Plan("beef-short-ribs", 1.6, 6, 45.0, stages, layers=(glaze,))
    return replace(plan, **more)  # type: ignore[arg-type]


RIBS = ribs()
LONG = AnalyseCreate(
    name="long",
    kind="glaze",
    lines=[
        f"{5 + i % 7} g {ingredient(key).name}" for i, key in enumerate(ingredient_keys()[:150])
    ],
)
HEATS = {
    "broiler": Heat(12, 220, 220, 2650, 0.35),
    "oven": Heat(12, 230, 230, 0, 0.20),
    "air fryer": Heat(50, 200, 200, 0, 0.15),
}
TRUTH = np.array([0.2, -0.1, 0.1, 0.1])
TOLD = ("bubbling", "amber at the edges", "amber", "dark")


def median_s(work: Callable[[], object], repeats: int = 15) -> tuple[float, float]:
    """Median and worst seconds of several repeats, the first (cold) run left out."""
    work()
    times = []
    for _ in range(repeats):
        start = time.perf_counter()
        work()
        times.append(time.perf_counter() - start)
    return statistics.median(times), max(times)


def forget_lines() -> bool:
    """Lines as if never read before."""
    _amount_and_name.cache_clear()
    return True


def speed(coating: Coating) -> None:
    """One line a figure."""
    told = chain.forecast_plan(RIBS)
    many = draw_members(1, 256)
    sighted = {"broil": (Sighting("amber at the edges", 200.0),)}
    seen = ribs(sightings=sighted)
    fire = told.fires[-1].under
    under_sight = replace(fire, dish=replace(fire.dish, sightings=sighted["broil"]))
    work: dict[str, tuple[Callable[[], object], str]] = {
        "one finish, 256 members, both sites, 20 min": (
            lambda: run_finish(many, HEATS["broiler"], coating, [BEFORE], 80.0, 70.0, 1200),
            "45 ms",
        ),
        f"whole dish, {len(told.links)} links, 256 members": (
            lambda: chain.forecast_plan(RIBS, draws=many),
            "200 ms",
        ),
        "whole dish, 128 members, as served": (lambda: chain.forecast_plan(RIBS), ""),
        "the same after a sighting": (lambda: chain.forecast_plan(seen), "200 ms"),
        "the same from frozen": (lambda: chain.forecast_plan(ribs(state="frozen")), "200 ms"),
        **{
            f"the same by another first heat: {heat}": (
                lambda heat=heat: chain.forecast_plan(ribs(heat)),
                "200 ms",
            )
            for heat in ("foil", "oven", "smoker", "bath", "simmer", "slow_cooker")
        },
        "explorer map, 60 x 40 settings": (lambda: explore(fire), "500 ms"),
        "rescue, five ways": (lambda: rescue(under_sight, draw_members(RIBS.seed), 200.0), ""),
        "advice over appliances, heats, coats and moments": (lambda: advise(fire), "1 s"),
        "a sauce of 150 lines, with its ladder": (
            lambda: analyse(LONG) if forget_lines() else None,
            "50 ms",
        ),
        "the same at the next stroke": (lambda: analyse(LONG), "50 ms"),
        "reading those lines": (lambda: read_lines(LONG.lines) if forget_lines() else None, ""),
        **chains.work(),
        "what each assumption is worth": (lambda: plan_effects(RIBS), ""),
    }
    for name, (call, goal) in work.items():
        likely, worst = median_s(call, 5 if name.startswith("advice") else 15)
        print(
            f"{name:46} {likely * 1e3:7.1f} ms   worst {worst * 1e3:7.1f} ms  "
            f" {goal and 'goal ' + goal}"
        )
    print(
        f"{'first forecast of a server just started':46} {first_request_s() * 1e3:7.1f} ms         "
        "             goal 3000 ms"
    )


def first_request_s() -> float:
    """Median seconds of the first forecast asked of a server that has just printed its address."""
    times = []
    for _ in range(3):
        with tempfile.TemporaryDirectory() as folder:
            kettle = subprocess.Popen(
                [str(Path(sys.executable).with_name("kettle")), "serve", "--port", "0"],
                env={**os.environ, "KETTLE_DATA": folder},
                stdout=subprocess.PIPE,
                text=True,
            )
            assert kettle.stdout is not None
            address = kettle.stdout.readline().split()[4]
            body = (
                b'{"cut": "octopus", "mass_kg": 1.4, "pieces": 8, "thickness_mm": 35, "bite":'
                b' "tug"}'
            )
            request = urllib.request.Request(
                address + "api/v1/forecasts", body, {"content-type": "application/json"}
            )
            start = time.perf_counter()
            urllib.request.urlopen(request).read()
            times.append(time.perf_counter() - start)
            kettle.kill()
            kettle.wait()
    return statistics.median(times)


def against_plain(coating: Coating, members: int = 6) -> None:
    """The kernel against a per-member solve of the same equations by a stock ODE solver."""
    draws = draw_members(1, 256)
    for name, heat in HEATS.items():
        run = run_finish(draws, heat, coating, [BEFORE], 80.0, 70.0, 1200.0)
        kernel_s, _ = median_s(
            lambda heat=heat: run_finish(draws, heat, coating, [BEFORE], 80.0, 70.0, 1200.0)
        )
        sds = (heat.spread, 0.3, 0.3, 0.3)
        worst = 0.0
        start = time.perf_counter()
        for m in range(members):
            factors = tuple(
                float(np.exp(sd * draws.normal[n][m]))
                for sd, n in zip(sds, ("heat", "coat", "interface", "browning"), strict=True)
            )
            for site in (0, 1):
                plain = solve(factors, heat, coating, site == 1, 1200.0)
                for ours, theirs in zip(run.times_s[m, site, 2:6], plain, strict=True):
                    if np.isfinite(theirs) and np.isfinite(ours):
                        worst = max(worst, abs(ours / theirs - 1.0))
        plain_s = (time.perf_counter() - start) / members
        print(
            f"{name:10} plain solve {plain_s * 1e3:7.1f} ms a member, kernel"
            f" {kernel_s / 256 * 1e3:7.4f} ms: ratio {plain_s * 256 / kernel_s:6.0f}, largest"
            f" difference in a milestone {worst:.2%}"
        )


def spread(coating: Coating, draws: int = 3) -> None:
    """P90 over P10 of face mahogany and edge burnt: before anything was seen, after one look in the
    same cook, before the next cook after six, and what would be left if the habit were known.
    """
    print("\nP90/P10 of face mahogany, edge burnt; mean of three kitchens")
    for name, heat in HEATS.items():
        first = first_belief(heat.spread)
        print(f"{name:10} before anything was seen   {shown([first], heat, coating)}")
        for sign in TOLD[1:]:
            looks = [one_look(first, heat, coating, sign, seed) for seed in range(draws)]
            print(f"{'':10} one look: {sign:18} {shown(looks, heat, coating)}")
        for told in (TOLD[1:2], TOLD):
            nexts = [six_cooks(first, heat, coating, told, seed) for seed in range(draws)]
            label = f"next cook, {len(told)} told in each of six"
            print(f"{'':10} {label:28} {shown(nexts, heat, coating)}")
        habit_known = Belief(first.mean, evening_cov())
        print(f"{'':10} habit known, evening not     {shown([habit_known], heat, coating)}")


def shown(beliefs: list[Belief], heat: Heat, coating: Coating) -> str:
    """The two ratios, as mean over beliefs."""
    rows = [ratios(belief, heat, coating) for belief in beliefs]
    return " ".join(f"{statistics.mean(column):5.2f}" for column in zip(*rows, strict=True))


def ratios(belief: Belief, heat: Heat, coating: Coating) -> list[float]:
    """P90 over P10 of face mahogany and of edge burnt."""
    times = predict(belief, heat, coating, 3600.0)[0].times_s
    equal = np.ones(len(times))
    return [
        weighted_quantile(t, equal, 0.9) / weighted_quantile(t, equal, 0.1)
        for t in (times[:, 0, 3], times[:, 1, 5])
    ]


def one_look(first: Belief, heat: Heat, coating: Coating, sign: str, seed: int) -> Belief:
    """The belief after one sign of a true evening, misjudged as eyes do."""
    dice = np.random.default_rng(seed)
    return learn_from(first, heat, coating, seen_in(TRUTH, heat, coating, (sign,), dice))


def six_cooks(
    first: Belief, heat: Heat, coating: Coating, told: tuple[str, ...], seed: int
) -> Belief:
    """The belief before the seventh evening of a kitchen that told these signs in six."""
    dice = np.random.default_rng(seed)
    belief = first
    for _ in range(6):
        tonight = TRUTH + dice.normal(size=4) * np.sqrt(np.diag(evening_cov()))
        seen = seen_in(tonight, heat, coating, told, dice)
        belief = next_cook(belief, learn_from(belief, heat, coating, seen))
    return belief


def seen_in(
    truth: np.ndarray,
    heat: Heat,
    coating: Coating,
    signs: tuple[str, ...],
    dice: np.random.Generator,
) -> list[SignSeen]:
    """These signs in an evening whose factors are known, each at a misjudged moment."""
    times = run_finish(
        draw_members(1, 16),
        heat,
        coating,
        [BEFORE],
        80.0,
        70.0,
        3600.0,
        log_factors=np.tile(truth, (16, 1)),
    ).times_s[0]
    return [
        SignSeen(sign, float(times[SIGNS[sign]] * np.exp(0.15 * dice.normal()))) for sign in signs
    ]


def sensitivity(name: str, coating: Coating) -> None:
    """Each uncertain constant by ±30 %: effect on face amber and on what is left from there to
    bitter edges, broiler.
    """
    median = draw_members().median_only()

    def window(**change: float) -> tuple[float, float]:
        c = film_constants()._replace(**change)
        t = run_finish(
            median, HEATS["broiler"], coating, [BEFORE], 93.0, 74.0, 5400, constants=c
        ).times_s[0]
        return t[0, 2], t[1, 4] - t[0, 2]

    base = window()
    print(
        f"\nsensitivity, broiler, {name}: face amber {base[0]:.0f} s, from there to bitter edges"
        f" {base[1]:.0f} s\n| constant | amber -30 % | +30 % | room -30 % | +30 %"
        " |\n|---|---|---|---|---|"
    )
    skip = (
        "amber_index",
        "mahogany_index",
        "brown_reference_c",
        "char_reference_c",
        "film_start_c",
        "brown_ea_j_mol",
        "char_ea_j_mol",
    )
    for constant in film_constants()._fields:
        if constant in skip:
            continue
        value = getattr(film_constants(), constant)
        most = min(1.0, 1.3 * value) if constant == "emissivity" else 1.3 * value
        down, up = window(**{constant: 0.7 * value}), window(**{constant: most})
        moved = [down[0] / base[0] - 1, up[0] / base[0] - 1]
        room = [down[1] - base[1], up[1] - base[1]]
        if max(map(abs, moved)) < 0.01 and max(map(abs, room)) < 0.02 * base[1]:
            continue  # matters too little for a line
        cells = [f"{m:+.0%}" for m in moved] + [f"{r:+.0f} s" for r in room]
        print(f"| {constant} | {' | '.join(cells)} |")


def main() -> None:
    """All of it."""
    print(f"{os.cpu_count()} cores; medians of 15 repeats, warm, one thread\n")
    coating = chain.forecast_plan(RIBS).fires[-1].coating
    speed(coating)
    print()
    against_plain(coating)
    spread(coating)
    for name, film in (
        ("a coat of plum and black tea", coating),
        ("bare", bare_film()),
        ("rubbed with sugar and spice", rubbed_film(0.05)),
    ):
        sensitivity(name, film)
    print()
    meals.report()
    replans.report()
    print()
    server.measure()


if __name__ == "__main__":
    main()
