"""Log reduction against the FSIS time and temperature tables for ready-to-eat product: never
shorter than them.
"""

import pytest

from bluekettle.core.lethality import POULTRY, RED_MEAT, kill_for, log_rate


@pytest.mark.parametrize(
    ("temp_c", "table_min", "most_min"),
    [(60.0, 35.0, 42.0), (62.778, 13.0, 15.0), (65.556, 4.0, 5.0), (71.1, 0.3, 0.6)],
)
def test_poultry_is_never_shorter_than_the_table(temp_c, table_min, most_min):
    """7 log of poultry; 60 °C 35 min, 62.8 °C 13 min, 65.6 °C 4 to 5 min, 71.1 °C under half a
    minute.
    """
    ours = POULTRY.wanted_log / log_rate(temp_c, POULTRY.d60_min, POULTRY.z_c)
    assert table_min <= ours <= most_min


@pytest.mark.parametrize(
    ("temp_f", "table_min"), [(130, 112), (135, 37), (140, 12), (145, 4), (150, 67 / 60)]
)
def test_red_meat_is_never_shorter_than_the_table(temp_f, table_min):
    """6.5 log of beef: 130 °F 112 min, 135 °F 36 to 37, 140 °F 12, 145 °F 4, 150 °F 67 s."""
    ours = RED_MEAT.wanted_log / log_rate((temp_f - 32) / 1.8, RED_MEAT.d60_min, RED_MEAT.z_c)
    assert table_min <= ours <= 1.5 * table_min


def test_nothing_is_credited_below_54_4_and_unknown_species_count_as_poultry():
    assert log_rate(54.39, RED_MEAT.d60_min, RED_MEAT.z_c) == 0.0
    assert kill_for("heron") == POULTRY
