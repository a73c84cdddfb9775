"""The server under load: taps while others forecast, and a list of ten thousand cooks. Part of
`make bench`; `python benchmarks/server.py KETTLE` measures another version's command.
"""

from __future__ import annotations

import contextlib
import http.client
import json
import os
import random
import re
import sqlite3
import statistics
import subprocess
import sys
import tempfile
import threading
import time
import urllib.error
import urllib.request
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from bluekettle.api.examples import DISH

HERE = str(Path(sys.executable).with_name("kettle"))
CLIENTS = 8
TAPS = 300
COOKS = 10_000
READINGS = 1_000_000
PAGE_EVERY_S = 1.0
MOMENT = "%Y-%m-%d %H:%M:%f"
KILLS = 100


@contextlib.contextmanager
def served(kettle: str, folder: str) -> Iterator[str]:
    """A server of a command on a folder, and its address."""
    process = subprocess.Popen(
        [kettle, "serve", "--port", "0"],
        env={**os.environ, "KETTLE_DATA": folder},
        stdout=subprocess.PIPE,
        stderr=subprocess.DEVNULL,
        text=True,
    )
    try:
        assert process.stdout is not None
        found = re.search(r"http://127.0.0.1:\d+", process.stdout.readline())
        assert found, "the server did not print its address"
        yield found.group(0) + "/api/v1"
    finally:
        process.terminate()
        process.wait()


def ask(url: str, body: Any = None) -> Any:
    """What is answered; None for a refusal, which is an answer too."""
    data = None if body is None else json.dumps(body).encode()
    request = urllib.request.Request(url, data, {"Content-Type": "application/json"})
    try:
        with urllib.request.urlopen(request, timeout=120) as answer:
            return json.load(answer)
    except urllib.error.HTTPError:
        return None


def taps_under_load(kettle: str) -> None:
    """Seconds from a tap to its answer while eight clients forecast without a pause."""
    with tempfile.TemporaryDirectory() as folder, served(kettle, folder) as api:
        cook = ask(f"{api}/cooks", {"dish": DISH})["id"]
        quiet = tap_times(api, cook)
        stop = threading.Event()
        done: list[float] = []
        clients = [
            threading.Thread(target=forecasting, args=(api, number, stop, done))
            for number in range(CLIENTS)
        ]
        for client in clients:
            client.start()
        time.sleep(2.0)
        started, before = time.perf_counter(), len(done)
        busy = tap_times(api, cook)
        rate = (len(done) - before) / (time.perf_counter() - started)
        stop.set()
        for client in clients:
            client.join()
    for name, times in (("nobody forecasts", quiet), (f"{CLIENTS} clients forecast", busy)):
        tell_taps(name, times)
    print(f"  forecasts answered meanwhile    {rate:6.1f} a second")


def tell_taps(name: str, times: list[float]) -> None:
    """Median and the slow end."""
    slow = sum(t > 0.2 for t in times) / len(times)
    worst = statistics.quantiles(times, n=100)[98]
    print(
        f"  tap, {name:26} {statistics.median(times) * 1e3:6.0f} ms, 99 in 100 under"
        f" {worst * 1e3:6.0f} ms, over 200 ms: {slow:.0%}"
    )


def tap_times(api: str, cook: int) -> list[float]:
    """Seconds of taps, a twentieth of a second apart."""
    times = []
    for _ in range(TAPS):
        start = time.perf_counter()
        tap = {"kind": "extend", "step": "season.season", "seconds": 1}
        answer = ask(f"{api}/cooks/{cook}/events", tap)
        times.append(time.perf_counter() - start)
        assert answer, "the tap was refused"
        time.sleep(0.05)
    return times


def forecasting(api: str, number: int, stop: threading.Event, done: list[float]) -> None:
    """One client that asks for one dish after another."""
    mass = 1.0 + 0.1 * number
    while not stop.is_set():
        mass = 1.0 + (mass - 0.99) % 1.0
        ask(f"{api}/forecasts", {**DISH, "mass_kg": round(mass, 3)})
        done.append(mass)


def long_list(kettle: str) -> None:
    """Seconds of the first page of cooks, and of a search, in a log of ten thousand."""
    with tempfile.TemporaryDirectory() as folder:
        with served(kettle, folder) as api:
            ask(f"{api}/cooks", {"dish": DISH})
        multiply(Path(folder) / "kettle.sqlite3")
        with served(kettle, folder) as api:
            for name, path in (("first page", "/cooks"), ("a search", "/cooks?search=plum")):
                times = []
                for _ in range(7):
                    start = time.perf_counter()
                    ask(api + path)
                    times.append(time.perf_counter() - start)
                print(f"  {COOKS:,} cooks, {name:18} {statistics.median(times) * 1e3:6.0f} ms")


def multiply(database: Path) -> None:
    """Ten thousand copies of the one cook with its steps."""
    with sqlite3.connect(database) as store:
        for table, key in (("cook", "id"), ("cook_step", "cook_id")):
            columns = [c[1] for c in store.execute(f"pragma table_info({table})")]
            others = [c for c in columns if c not in (key, "id")]
            if not columns:
                continue
            names = ", ".join(f'"{c}"' for c in others)
            store.execute(
                f"with recursive n(i) as (select 2 union all select i + 1 from n where i < {COOKS})"
                f' insert into {table} ("{key}", {names}) select n.i, {names} from n, {table}'
            )
    store.close()


def two_devices(kettle: str) -> None:
    """Seconds from a tap to its answer, and until a second device that asks as the page does has
    the new state, with two of them following.
    """
    with tempfile.TemporaryDirectory() as folder, served(kettle, folder) as api:
        cook = ask(f"{api}/cooks", {"dish": DISH})["id"]
        seen: dict[int, float] = {}
        stop = threading.Event()

        def follow() -> None:
            while not stop.is_set():
                found = ask(f"{api}/cooks/live")["cooks"][0]["last_event"]
                seen.setdefault(found, time.perf_counter())
                time.sleep(PAGE_EVERY_S)

        devices = [threading.Thread(target=follow) for _ in range(2)]
        for device in devices:
            device.start()
        taps, shown = [], []
        for _ in range(100):
            start = time.perf_counter()
            tap = {"kind": "extend", "step": "season.season", "seconds": 1}
            number = ask(f"{api}/cooks/{cook}/events", tap)["last_event"]
            taps.append(time.perf_counter() - start)
            while number not in seen:
                time.sleep(0.01)
            shown.append(seen[number] - start)
        stop.set()
        for device in devices:
            device.join()
    for name, times in (("to its own picture", taps), ("to the second device", shown)):
        worst = statistics.quantiles(times, n=20)[18]
        print(
            f"  tap, two devices, {name:20} {statistics.median(times) * 1e3:6.0f} ms, 95 in 100"
            f" under {worst * 1e3:6.0f} ms"
        )


def many_readings(kettle: str) -> None:
    """Seconds of the state of a cook in its pot, before and after a million readings."""
    with tempfile.TemporaryDirectory() as folder:
        database = Path(folder) / "kettle.sqlite3"
        with served(kettle, folder) as api:
            live = ask(f"{api}/cooks", {"dish": DISH})
            cook = live["id"]
            while live["current"] != "cook.hold":
                tap = {"kind": "done", "step": live["current"]}
                live = ask(f"{api}/cooks/{cook}/events", tap)
            path = f"{api}/cooks/{cook}"
            ask(f"{path}/readings", {"quantity": "core_c", "value": 9.0})
            states(path)  # the courses are computed beside
            few = states(path)
            with sqlite3.connect(database) as store:
                store.execute(
                    f"""with recursive n(i) as
                        (select 1 union all select i + 1 from n where i < {READINGS})
                    insert into reading
                        (cook_id, device, quantity, site, value, taken_at, received_at, mark)
                    select r.cook_id, r.device, r.quantity, r.site, 10 + 50.0 * n.i / {READINGS},
                        strftime('{MOMENT}', r.taken_at, '+' || (n.i / 250.0) || ' seconds'),
                        r.received_at, n.i % 7500 = 0
                    from reading r, n where r.id = 1"""
                )
            store.close()
            many = states(path)
            one = {"quantity": "air_c", "value": 20.0, "device": "other"}
            start = time.perf_counter()
            assert ask(f"{path}/readings", one)
            told = time.perf_counter() - start
    print(
        f"  state with one reading {few * 1e3:6.1f} ms, with {READINGS:,} {many * 1e3:6.1f} ms;"
        f" one more is taken in {told * 1e3:.0f} ms"
    )


def states(path: str) -> float:
    """Median seconds of asking for the state of a cook."""
    times = []
    for _ in range(15):
        start = time.perf_counter()
        assert ask(f"{path}/live")["probe"]
        times.append(time.perf_counter() - start)
    return statistics.median(times)


def killed(kettle: str) -> None:
    """Taps and readings that were acknowledged and are gone after a hundred kills amid writing."""
    with tempfile.TemporaryDirectory() as folder:
        port, cook, acknowledged, lost = 0, 0, 0, 0
        for _ in range(KILLS):
            process = subprocess.Popen(
                [kettle, "serve", "--port", str(port)],
                env={**os.environ, "KETTLE_DATA": folder, "KETTLE_WORKERS": "1"},
                stdout=subprocess.PIPE,
                stderr=subprocess.DEVNULL,
                text=True,
            )
            assert process.stdout is not None
            found = re.search(r"http://127.0.0.1:(\d+)", process.stdout.readline())
            assert found, "the server did not print its address"
            port, api = int(found.group(1)), found.group(0) + "/api/v1"
            cook = cook or ask(f"{api}/cooks", {"dish": DISH})["id"]
            kept = ask(f"{api}/cooks/{cook}/live")["last_event"]
            lost += acknowledged - min(acknowledged, kept)
            threading.Timer(random.uniform(0.02, 0.3), process.kill).start()
            tap = {"kind": "extend", "step": "season.season", "seconds": 1}
            with contextlib.suppress(OSError, http.client.HTTPException, ValueError):
                while True:
                    answer = ask(f"{api}/cooks/{cook}/events", tap)
                    acknowledged = max(acknowledged, answer["last_event"])
            process.wait()
            process.stdout.close()
    print(f"  {KILLS} kills amid writes: {acknowledged} taps acknowledged, {lost} lost")


def measure(kettle: str = HERE) -> None:
    """All of it."""
    print("the server")
    taps_under_load(kettle)
    long_list(kettle)
    two_devices(kettle)
    many_readings(kettle)
    killed(kettle)


if __name__ == "__main__":
    measure(*sys.argv[1:2])
