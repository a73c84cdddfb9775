"""`kettle serve`: the port and the folder are had before anything is touched."""

from __future__ import annotations

import gc
import signal
import threading
from datetime import UTC, datetime, timedelta
from urllib.parse import quote

import click

from bluekettle.api.guard import is_own
from bluekettle.app import create_app
from bluekettle.commands.data import plainly
from bluekettle.config import Config
from bluekettle.demo import fill
from bluekettle.services.samples import is_empty, is_sample
from bluekettle.services.workshop import Workshop
from bluekettle.serving import make_server, open_port
from bluekettle.store.backup import DAILY, back_up, back_up_changes
from bluekettle.store.folder import FolderTrouble, held, writable
from bluekettle.store.opening import open_with_care

HOUR_S = 3600.0
BESIDE_S = 30.0  # until what only thinks ahead is started too: taps come first
LEAST_PASSCODE = 8
EVERYWHERE = {"0.0.0.0": "127.0.0.1"}  # what to open on this machine where all addresses are served
OWN_KITCHEN = (
    "{folder} holds a kitchen of its own, and the sample scenario would be written over it: leave"
    " --demo out, or name another folder in KETTLE_DATA"
)


@click.command()
@click.option("--host", default="127.0.0.1", show_default=True)
@click.option("--port", default=8740, show_default=True, type=click.IntRange(0, 65535))
@click.option(
    "--passcode",
    default="",
    envvar="KETTLE_PASSCODE",
    help="what another device has to tell first, eight characters or more",
)
@click.option("--name", multiple=True, help="a name that phones may call it by, like kitchen.local")
@click.option("--demo", is_flag=True, help="serve the sample scenario, in a folder of its own")
@click.option("--fresh", is_flag=True, help="begin anew; what was there is kept as a backup")
def serve(
    host: str, port: int, passcode: str, name: tuple[str, ...], demo: bool, fresh: bool
) -> None:
    """Serve the application and print its address. Beyond this machine it wants a passcode."""
    check_passcode(host, passcode)
    config = Config.from_environment({host, *name}, demo, passcode, beyond=not is_own(host))
    try:
        listening = open_port(host, port)
    except OSError as error:
        raise click.ClickException(
            f"cannot listen on {host}:{port} ({error.strerror}); choose another --port"
        ) from None
    workshop = Workshop(config.workers)
    try:
        with held(config.folder):
            writable(config.folder)
            # Load the compiled kernels while the rest is made ready.
            workshop.warm()
            start_later(workshop)
            prepare(config, demo, fresh)
            app = create_app(config, workshop)
            keep_copies(config)
            address = f"http://{EVERYWHERE.get(host, host)}:{listening.getsockname()[1]}/"
            click.echo(f"Blue Kettle is on {address}  (stop with Ctrl-C)")
            if passcode:
                click.echo(f"Join once with {address}#join={quote(passcode)}")
            signal.signal(signal.SIGTERM, signal.default_int_handler)
            # What was loaded stays: a collection that walks all of it would hold a tap for 0.2 s.
            gc.collect()
            gc.freeze()
            make_server(app, listening).run()
    except FolderTrouble as error:
        raise plainly(error) from None
    finally:
        workshop.abandon()
        listening.close()


def start_later(workshop: Workshop) -> None:
    """Start what plans meals and thinks ahead, once the rest had its time."""
    later = threading.Timer(BESIDE_S, workshop.warm_beside)
    later.daemon = True
    later.start()


def check_passcode(host: str, passcode: str) -> None:
    """Refuse to listen beyond this machine without one, and a short one anywhere."""
    if passcode and len(passcode) < LEAST_PASSCODE:
        raise click.ClickException(
            f"--passcode is {len(passcode)} characters long; use {LEAST_PASSCODE} or more"
        )
    if not passcode and not is_own(host):
        raise click.ClickException(
            f"--host {host} lets other devices in: give them a --passcode of {LEAST_PASSCODE}"
            " characters or more"
        )


def prepare(config: Config, demo: bool, fresh: bool) -> None:
    """Copy what is there, begin anew where that is asked, and fill in the sample scenario."""
    now = datetime.now(UTC)
    engine = open_with_care(config.database, now)
    if demo and not is_empty(engine) and not is_sample(engine):
        engine.dispose()
        raise FolderTrouble(OWN_KITCHEN.format(folder=config.folder))
    if fresh and not is_empty(engine):
        back_up(config.database, now)
        engine.dispose()
        for file in config.folder.glob(config.database.name + "*"):
            file.unlink()
        engine = open_with_care(config.database, now)
    elif not is_empty(engine):
        copy_changes(config, timedelta(0))
    if demo and is_empty(engine):
        fill(engine, now)
    engine.dispose()


def copy_changes(config: Config, age: timedelta) -> None:
    """Copy the database where it changed; a copy that cannot be made is told, and stops nothing."""
    try:
        back_up_changes(config.database, datetime.now(UTC), age)
    except FolderTrouble as error:
        click.echo(str(error), err=True)


def keep_copies(config: Config) -> threading.Event:
    """Copy the database once a day where something was written; the event ends it."""
    over = threading.Event()

    def copy() -> None:
        while not over.wait(HOUR_S):
            copy_changes(config, DAILY)

    threading.Thread(target=copy, name="copies", daemon=True).start()
    return over
