"""Devices that are not there, for a cook on a running server."""

from __future__ import annotations

import json
import time
import urllib.error
import urllib.request
from datetime import datetime
from typing import Any

import click

from bluekettle.core.errors import CoreError
from bluekettle.schemas.chain import ChainDocument
from bluekettle.services.devices import Devices, moments_until, running_of

TICK_S = 0.5
CATCH_UP = 400  # moments at once
AWAY_S = 60.0  # after so long a server that is away is given up


class Refused(click.ClickException):
    """The server does not take it, and says why."""


class Client:
    """The API of a running server."""

    def __init__(self, address: str, passcode: str) -> None:
        self.address, self.cookie = address.rstrip("/"), ""
        if passcode:
            with self.send("POST", "/session", {"passcode": passcode}) as answer:
                self.cookie = (answer.headers["Set-Cookie"] or "").partition(";")[0]

    def ask(self, method: str, path: str, body: Any = None) -> Any:
        """What it answers."""
        with self.send(method, path, body) as answer:
            return json.load(answer)

    def send(self, method: str, path: str, body: Any = None) -> Any:
        """The open answer; Refused with its words where it does not take it."""
        data = None if body is None else json.dumps(body).encode()
        headers = {"Content-Type": "application/json", "Cookie": self.cookie}
        request = urllib.request.Request(
            f"{self.address}/api/v1{path}", data, headers, method=method
        )
        try:
            return urllib.request.urlopen(request, timeout=30.0)
        except urllib.error.HTTPError as error:
            with error:
                raise Refused(told_by(error)) from None


def told_by(error: urllib.error.HTTPError) -> str:
    """What a refusal says."""
    try:
        return str(json.load(error)["detail"])
    except (ValueError, KeyError, TypeError):
        return f"the server answered {error.code}"


@click.command("simulate-probe")
@click.option("--cook", required=True, type=click.IntRange(1), help="number of a cook under way")
@click.option(
    "--speed",
    default=20.0,
    show_default=True,
    type=click.FloatRange(1, 60),
    help="of a rehearsal's clock; another cook is caught up with at this speed",
)
@click.option("--every", default=5.0, show_default=True, type=click.FloatRange(1, 600))
@click.option("--seed", default=1, show_default=True, type=click.IntRange(0, 2**31))
@click.option("--address", default="http://127.0.0.1:8740", show_default=True)
@click.option("--passcode", default="", envvar="KETTLE_PASSCODE")
def simulate_probe(
    cook: int, speed: float, every: float, seed: int, address: str, passcode: str
) -> None:
    """Play a probe, an oven thermometer and a pot's pin to a cook, from the heat model: with noise,
    with readings that never come, and with a probe that is loose for a while. It reads every
    EVERY seconds of the cook, and never tells anything of the future.
    """
    try:
        play(Client(address, passcode), cook, speed, every, seed)
    except (urllib.error.URLError, TimeoutError) as error:
        raise click.ClickException(f"nothing answers at {address} ({error})") from None
    except CoreError as error:
        raise click.ClickException(str(error)) from None
    except KeyboardInterrupt:
        click.echo("stopped")


def play(client: Client, cook: int, speed: float, every_s: float, seed: int) -> None:
    """Read and tell until the cook is over."""
    live = client.ask("GET", f"/cooks/{cook}/live")
    if live["rehearsal"]:
        client.ask("PUT", f"/cooks/{cook}/rehearsal", {"speed": speed})
        seed = live["rehearsal"]["seed"]
    devices = devices_of(client, cook, seed)
    last: datetime | None = None
    told, silent_s = 0, 0.0
    # A rehearsal's own clock is fast; of another cook only what is over is caught up with.
    most = CATCH_UP if live["rehearsal"] else max(1, round(speed * TICK_S / every_s))
    while not live["ended_at"]:
        running, now = running_of(live), datetime.fromisoformat(live["now"])
        try:
            if running is not None:
                if not devices.knows(running.stage):
                    devices = devices_of(client, cook, seed)
                last = running.heat_at if last is None or last < running.heat_at else last
                moments = moments_until(last, now, every_s, most)
                batch = [one for at in moments for one in devices.read(running, at)]
                if batch:
                    told += tell(client, cook, batch)
                last = moments[-1] if moments else last
            time.sleep(TICK_S)
            live, silent_s = client.ask("GET", f"/cooks/{cook}/live"), 0.0
        except urllib.error.URLError:
            silent_s += TICK_S
            if silent_s >= AWAY_S:
                raise
            time.sleep(TICK_S)
    click.echo(f"{told} readings told; the cook is over")


def devices_of(client: Client, cook: int, seed: int) -> Devices:
    """The devices of the kitchen in which it is cooked now."""
    document = client.ask("GET", f"/cooks/{cook}")["cooked"]
    return Devices(ChainDocument.model_validate(document), seed)


def tell(client: Client, cook: int, batch: list[dict[str, Any]]) -> int:
    """Tell a batch; how many were taken. One that came before, and whose answer was lost, or one
    for a cook that has just ended, is none: the next look says how it stands.
    """
    try:
        taken = client.ask("POST", f"/cooks/{cook}/readings", {"readings": batch})["taken"]
    except Refused as error:
        click.echo(f"not taken: {error.message}", err=True)
        return 0
    return int(taken)
