"""The built page is served whole, with its own routes, and nothing beside it."""

import pytest
from tests.conftest import Kitchen


@pytest.mark.parametrize("path", ["/", "/plan", "/stove/3", "/log", "/anything/else"])
def test_the_pages_own_routes_all_give_the_page(kitchen: Kitchen, path):
    answer = kitchen.client.get(path)
    assert answer.status_code == 200
    assert b'<div id="app">' in answer.data
    assert answer.headers["Cache-Control"] == "no-cache"
    answer.close()


def test_the_page_needs_no_other_host(kitchen: Kitchen):
    """Fonts, styles and scripts ship with the application."""
    answer = kitchen.client.get("/")
    page = answer.text
    answer.close()
    assert "http://" not in page
    assert "https://" not in page
    script = page.split('src="')[1].split('"')[0]
    asset = kitchen.client.get(script)
    assert asset.status_code == 200
    assert "immutable" in asset.headers["Cache-Control"]
    asset.close()


@pytest.mark.parametrize(
    "path", ["/../config.py", "/assets/../../app.py", "/.env", "/assets/none.js"]
)
def test_nothing_outside_the_page_is_served(kitchen: Kitchen, path):
    answer = kitchen.client.get(path)
    assert answer.status_code == 404
    assert answer.content_type == "application/problem+json"
