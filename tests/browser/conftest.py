"""A real server on the built page, and Debian's Chromium."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import BrowserContext, expect
from tests.served import Server

# A server that has just started on a busy machine compiles nothing, but loads much. What is waited
# for is there or is not: patience only makes a failure late.
PATIENCE_MS = 45_000
expect.set_options(timeout=PATIENCE_MS)
AXE_LEVELS = ("serious", "critical")


@pytest.fixture
def server(tmp_path: Path) -> Iterator[Server]:
    found = Server(tmp_path)
    yield found
    if found.process and found.process.poll() is None:
        found.kill()


@pytest.fixture(scope="session")
def browser_type_launch_args(browser_type_launch_args: dict[str, Any]) -> dict[str, Any]:
    return {**browser_type_launch_args, "executable_path": "/usr/bin/chromium"}


@pytest.fixture(scope="session")
def browser_context_args(browser_context_args: dict[str, Any]) -> dict[str, Any]:
    return {
        **browser_context_args,
        "viewport": {"width": 1280, "height": 800},
        "locale": "en-GB",
        "timezone_id": "Europe/London",
        "reduced_motion": "reduce",
    }


@pytest.fixture
def axe() -> Any:
    """Runs axe on a page and returns its serious findings, once nothing on it is being worked
    out: an answer on its way is dimmed, and that is not how it is read.
    """
    source = (Path(__file__).parents[2] / "web/node_modules/axe-core/axe.min.js").read_text(
        encoding="utf-8"
    )

    def run(page: Any) -> list[str]:
        expect(page.locator("[aria-busy=true]")).to_have_count(0)
        page.evaluate(source)
        found = page.evaluate("axe.run(document, {resultTypes: ['violations']})")
        return [
            f"{v['id']}: {v['nodes'][0]['html'][:160]}"
            for v in found["violations"]
            if v["impact"] in AXE_LEVELS
        ]

    return run


@pytest.fixture
def context(context: BrowserContext) -> BrowserContext:
    context.set_default_timeout(2 * PATIENCE_MS)
    return context


@pytest.fixture(scope="session")
def base_url() -> None:
    """Each test serves its own kettle and goes to whole addresses (and pytest 9 warns of the
    plugin's own fixture).
    """
