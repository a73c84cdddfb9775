"""What is kept, and the commands about it: real processes on a real folder."""

import json
import os
import select
import shutil
import sqlite3
import subprocess
import sys
from datetime import datetime, timedelta
from pathlib import Path
from typing import Any
from urllib.error import HTTPError
from uuid import uuid4

import pytest

from bluekettle.store.backup import KEPT, backups
from tests.conftest import SHORT_RIBS
from tests.served import Server

KETTLE = str(Path(sys.executable).with_name("kettle"))
RIBS = {**SHORT_RIBS, "coats": 1}


@pytest.fixture
def server(tmp_path: Path):
    found = Server(tmp_path)
    yield found
    if found.process and found.process.poll() is None:
        found.kill()


def kettle(folder: Path, *words: str) -> subprocess.CompletedProcess[str]:
    """A command of the kettle, run to its end."""
    return subprocess.run(
        [KETTLE, *words],
        env={"KETTLE_DATA": str(folder), "PATH": "/usr/bin:/bin"},
        capture_output=True,
        text=True,
        timeout=120,
        check=False,
    )


def titles(server: Server) -> list[str]:
    return [plan["title"] for plan in server.ask("/plans")["plans"]]


def refused(answer: subprocess.CompletedProcess[str], *words: str) -> None:
    """It ends with a plain message, and no trace of the program."""
    assert answer.returncode != 0
    assert "Traceback" not in answer.stderr
    for word in words:
        assert word in answer.stderr


def test_a_running_kitchen_is_not_touched_by_a_second_server(server: Server):
    server.start()
    server.ask("/plans", {"dish": RIBS})
    refused(kettle(server.data, "serve", "--fresh", "--port", "0"), "another kettle is running")
    taken = kettle(server.data, "serve", "--fresh", "--port", str(server.port))
    refused(taken, "cannot listen", "--port")
    assert len(titles(server)) == 1


def test_the_sample_is_never_written_over_a_kitchen_of_ones_own(server: Server):
    server.start()
    server.ask("/plans", {"dish": RIBS})
    server.kill()
    for words in (("--demo",), ("--demo", "--fresh")):
        refused(kettle(server.data, "serve", "--port", "0", *words), "a kitchen of its own")
    server.start()
    assert len(titles(server)) == 1


def test_what_is_thrown_away_can_be_brought_back(server: Server):
    server.start()
    server.ask("/plans", {"dish": RIBS})
    server.kill()
    server.start("--fresh")
    assert titles(server) == []
    server.kill()
    copy = backups(server.data)[-1]
    assert kettle(server.data, "restore", str(copy)).returncode == 0
    server.start()
    assert len(titles(server)) == 1


def test_seven_copies_are_kept_and_none_where_nothing_changed(server: Server):
    for _ in range(KEPT + 2):
        server.start()
        server.ask("/plans", {"dish": RIBS})
        server.kill()
    server.start()
    copies = backups(server.data)
    assert len(copies) == KEPT
    server.kill()
    server.start()
    assert backups(server.data)[:-1] == copies[1:] or backups(server.data) == copies
    newest = sqlite3.connect(copies[-1])
    assert newest.execute("SELECT count(*) FROM plan").fetchone()[0] >= KEPT
    newest.close()


def test_an_export_is_whole_and_comes_back(server: Server, tmp_path: Path):
    server.start("--demo")
    before = {path: server.ask(path) for path in ("/cooks", "/plans", "/sauces", "/kitchen")}
    server.kill()
    file = tmp_path / "all.json"
    assert kettle(server.data, "export", str(file)).returncode == 0
    document = json.loads(file.read_text(encoding="utf-8"))
    assert document["format"] == "kettle.export/1"
    assert document["tables"]["sauce"][0]["document"]["lines"]
    other = Server(tmp_path / "other")
    other.data.mkdir()
    assert kettle(other.data, "restore", str(file)).returncode == 0
    other.start()
    assert {path: other.ask(path) for path in before} == before
    other.kill()
    file.write_text('{"format": "kettle.export/1", "revision": "9999", "tables": {}}')
    refused(kettle(other.data, "restore", str(file)), "newer version")
    file.write_text("[1]")
    refused(kettle(other.data, "restore", str(file)), "no export")


def test_a_damaged_or_newer_database_is_told_plainly(server: Server):
    server.start()
    for _ in range(30):
        server.ask("/plans", {"dish": RIBS})
    server.kill()
    database = server.data / "kettle.sqlite3"
    settle(database)
    sound = server.data / "sound.sqlite3"
    shutil.copyfile(database, sound)
    content = bytearray(database.read_bytes())
    content[8192:40_960] = b"\xff" * 32_768
    database.write_bytes(bytes(content))
    refused(kettle(server.data, "serve", "--port", "0"), "damaged", "kettle restore")
    refused(kettle(server.data, "check"), "findings")
    assert kettle(server.data, "restore", str(sound)).returncode == 0
    assert kettle(server.data, "check").returncode == 0
    with sqlite3.connect(database) as store:
        store.execute("UPDATE alembic_version SET version_num = '9999'")
    store.close()
    refused(kettle(server.data, "serve", "--port", "0"), "newer version", "KETTLE_DATA")


def settle(database: Path) -> None:
    """Bring everything from the log of a database into its file."""
    store = sqlite3.connect(database)
    store.execute("PRAGMA wal_checkpoint(TRUNCATE)")
    store.close()


def test_a_record_that_cannot_be_read_is_named_by_the_check(server: Server):
    server.start()
    plan = server.ask("/plans", {"dish": RIBS})
    server.kill()
    with sqlite3.connect(server.data / "kettle.sqlite3") as store:
        store.execute("UPDATE plan SET dish = '{\"cut\": 3}'")
    store.close()
    refused(kettle(server.data, "check"), "1 findings")
    assert f"plan {plan['id']} " in kettle(server.data, "check").stdout


def test_a_killed_server_loses_no_tap_and_leaves_nothing_running(server: Server):
    server.start()
    cook = server.ask("/cooks", {"dish": RIBS})
    told = server.ask(f"/cooks/{cook['id']}/events", {"kind": "done", "step": "season.season"})
    server.ask(f"/cooks/{cook['id']}/readings", {"quantity": "core_c", "value": 21.5})
    assert server.process is not None
    helpers = [os.pidfd_open(pid) for pid in descendants(server.process.pid)]
    assert len(helpers) > len(children(server.process.pid))  # a worker is a copy of a child
    server.kill()
    for helper in helpers:
        ended, _, _ = select.select([helper], [], [], 30.0)
        os.close(helper)
        assert ended, "the model's processes outlive the server"
    server.start()
    live = server.ask(f"/cooks/{cook['id']}/live")
    assert live["current"] == told["current"] == "cook.load"
    assert [device["value"] for device in live["devices"]] == [21.5]


def children(pid: int) -> list[int]:
    found = Path(f"/proc/{pid}/task/{pid}/children").read_text(encoding="ascii").split()
    return [int(one) for one in found]


def descendants(pid: int) -> list[int]:
    return [one for child in children(pid) for one in (child, *descendants(child))]


MANY = 2000  # as many as are taken at once
TMPFS = ("unshare", "--user", "--map-root-user", "--mount", "sh", "-c")


def test_a_full_disk_keeps_what_was_kept_and_takes_the_tap_once_there_is_room(tmp_path: Path):
    mount = f'mount -t tmpfs -o size=6m none {tmp_path} && exec "$@"'
    if subprocess.run([*TMPFS, mount, "sh", "true"], check=False).returncode:
        pytest.skip("this machine lets nobody mount a small disk")
    server = Server(tmp_path, inside=(*TMPFS, mount, "sh"))
    server.start()
    try:
        assert server.process is not None
        disk = Path(f"/proc/{server.process.pid}/root{tmp_path}")
        cook = server.ask("/cooks", {"dish": RIBS})
        fill_up(disk / "filler")
        tap = {"id": str(uuid4()), "kind": "done", "step": "season.season"}
        with pytest.raises(HTTPError) as full:
            tell_often(server, cook["id"])
        assert full.value.code == 507
        assert "full" in json.load(full.value)["detail"]
        many = many_readings(cook["started_at"])
        with pytest.raises(HTTPError) as unread:
            server.ask(f"/cooks/{cook['id']}/readings", many)
        assert unread.value.code == 507
        live = server.ask(f"/cooks/{cook['id']}/live")
        assert (live["current"], live["devices"]) == ("season.season", [])  # all or none
        (disk / "filler").unlink()
        assert server.ask(f"/cooks/{cook['id']}/readings", many)["taken"] == MANY
        assert server.ask(f"/cooks/{cook['id']}/events", tap)["current"] == "cook.load"
    finally:
        server.kill()


def many_readings(since: str) -> dict[str, Any]:
    """A batch of a probe, a thousandth of a second apart."""
    begin = datetime.fromisoformat(since)
    moments = [begin + timedelta(milliseconds=number) for number in range(MANY)]
    readings = [{"quantity": "core_c", "value": 8.0, "at": at.isoformat()} for at in moments]
    return {"readings": readings}


def tell_often(server: Server, cook: int) -> None:
    """More taps than there is room for in the log of the database."""
    for _ in range(40):
        server.ask(
            f"/cooks/{cook}/events", {"kind": "extend", "step": "cook.come_up", "seconds": 5}
        )


def fill_up(file: Path) -> None:
    """Write until there is no room left."""
    block: Any = b"x" * 4096
    with file.open("wb", buffering=0) as filler:
        try:
            while True:
                filler.write(block)
        except OSError:
            pass
