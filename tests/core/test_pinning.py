"""A strip is never drawn against what was seen."""

import numpy as np
import pytest

from bluekettle.core.stages import Sighting
from bluekettle.core.stages.pinning import pin_index, warps

SAMPLES = np.arange(0.0, 601.0)
# Face: amber (0.4) at 200 s, mahogany (1) at 500 s; edge: amber at 100 s.
INDEX = np.array([SAMPLES * 0.002, SAMPLES * 0.004])


def drawn(*seen):
    """Face and edge as they are drawn, with signs told as (sign, second)."""
    told = [Sighting(sign, at_s) for sign, at_s in seen]
    return pin_index(SAMPLES, INDEX, warps(SAMPLES, INDEX, told))


def amber_at(row):
    return float(SAMPLES[np.flatnonzero(row >= 0.4 - 1e-9)[0]])


def test_without_a_sign_it_is_drawn_as_forecast():
    assert drawn() == pytest.approx(INDEX)


@pytest.mark.parametrize("at_s", [60.0, 100.0, 150.0, 250.0])
def test_amber_edges_lie_where_they_were_seen_and_the_face_is_amber_later(at_s):
    face, edge = drawn(("amber at the edges", at_s))
    assert amber_at(edge) == pytest.approx(at_s, abs=1.0)
    assert amber_at(face) == pytest.approx(max(200.0, 1.03 * at_s), abs=1.5)


def test_what_follows_the_last_sign_is_shifted_with_it():
    _, edge = drawn(("amber at the edges", 150.0))
    assert edge[400] == pytest.approx(INDEX[1][350])
    assert edge[75] == pytest.approx(INDEX[1][50]), "and before it, stretched"


@pytest.mark.parametrize("sign", ["nothing yet", "bubbling"])
def test_where_no_colour_was_seen_none_is_drawn(sign):
    face, edge = drawn((sign, 250.0))
    assert amber_at(face) == pytest.approx(1.03 * 250.0, abs=1.5)
    assert amber_at(edge) == pytest.approx(1.03 * 250.0, abs=1.5)
    face, edge = drawn((sign, 50.0))
    assert (face, edge) == (pytest.approx(INDEX[0]), pytest.approx(INDEX[1]))


def test_dark_is_the_face_at_mahogany_and_the_edge_was_amber_before():
    face, edge = drawn(("dark", 80.0))
    assert float(SAMPLES[np.flatnonzero(face >= 1.0 - 1e-9)[0]]) == pytest.approx(80.0, abs=1.5)
    assert amber_at(edge) == pytest.approx(80.0 / 1.03, abs=1.5)
    assert np.all(np.diff(face) >= 0)
