"""Quantities inside sentences: one figure for a reader of metres and one for a reader of yards."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oblatus.core.words import (
    CLOSE,
    ONE_LINE,
    OPEN,
    SI,
    Reader,
    counted,
    decimals,
    limits,
    metres,
    metres_span,
    percent,
    quantity,
    shortened,
    speed,
    trimmed,
    worded,
)
from oblatus.units import METRES_PER_YARD

AMERICAN = Reader("yd", "mph")


@pytest.mark.parametrize(
    ("text", "metric", "other"),
    [
        (metres(91.44), "91 m", "100 yd"),
        (metres(-0.2), "0 m", "0 yd"),
        (metres(-2.5, 1), "−2.5 m", "−2.7 yd"),
        (metres_span(60, 100), "60–100 m", "66–109 yd"),
        (speed(2, 0), "2 m/s", "4 mph"),
        ("nothing to convert", "nothing to convert", "nothing to convert"),
    ],
)
def test_a_sentence_in_the_readers_units(text, metric, other):
    assert worded(f"about {text}.") == f"about {metric}."
    assert worded(f"about {text}.", AMERICAN) == f"about {other}."


@given(st.floats(-300, 300), st.integers(0, 3))
def test_no_mark_is_left_and_the_figure_is_the_number(value, places):
    for reader, per in ((SI, 1.0), (AMERICAN, METRES_PER_YARD)):
        said = worded(f"({metres(value, places)}, {speed(abs(value))})", reader)
        assert OPEN not in said
        assert CLOSE not in said
        figure = float(said[1:].split(" ")[0].replace("−", "-"))
        assert figure == pytest.approx(value / per, abs=0.51 * 10**-places + 1e-3)


@pytest.mark.parametrize(
    ("value", "places", "browser"),
    [
        (80.5, 0, "81"), (81.5, 0, "82"), (81.49, 0, "81"), (-0.5, 0, "−1"), (-0.4, 0, "0"), (5.25, 1, "5.3"),
        (0.125, 2, "0.13"), (1.005, 2, "1.00"), (2.345, 2, "2.35"), (100.0, 0, "100"), (1e-9, 2, "0.00"),
        (57.35, 1, "57.4"), (1234567.5, 0, "1234568"),
    ],
)  # fmt: skip
def test_a_figure_is_what_a_browser_writes(value, places, browser):
    """Expected: toFixed of ECMA-262, with the sign and zero of our screens."""
    assert decimals(value, places) == browser


def test_on_a_screen_a_figure_and_its_unit_stay_on_one_line():
    text = f"{quantity('8.5', 'mm')} in {metres(20)}, {percent(0.305, 1)} at {speed(4)}"
    assert worded(text) == "8.5 mm in 20 m, 30.5 % at 4.0 m/s"
    assert worded(text, Reader(gap=ONE_LINE)) == "8.5\xa0mm in 20\xa0m, 30.5\xa0% at 4.0\xa0m/s"


def test_decimals_that_say_nothing_are_left_out():
    assert [trimmed(x) for x in (60.0, 60.04, 54.6, -0.04, 5.25)] == ["60", "60", "54.6", "0", "5.3"]
    assert trimmed(100.0, 0) == "100"


@pytest.mark.parametrize(
    ("count", "one", "several", "said"),
    [(0, "strike", "", "0 strikes"), (1, "strike", "", "1 strike"), (2, "strike", "", "2 strikes"),
     (1, "row is", "rows are", "1 row is"), (3, "row is", "rows are", "3 rows are")],
)  # fmt: skip
def test_what_is_counted_is_one_or_several(count, one, several, said):
    assert counted(count, one, several) == said


@pytest.mark.parametrize(
    ("low", "high", "unit", "metric", "other"),
    [(30, 170, "m", "30 and 170 m", "32.9 and 185.9 yd"), (0, 4, "m", "0 and 4 m", "0 and 4.3 yd"),
     (91.44, 182.88, "m", "91.5 and 182.8 m", "100 and 200 yd"), (2, 50, "m/s", "2 and 50 m/s", "4.5 and 111.8 mph"),
     (-430, 4000, "m", "-430 and 4000 m", "-470.2 and 4374.4 yd")],
)  # fmt: skip
def test_limits_are_rounded_to_what_lies_between_them(low, high, unit, metric, other):
    """Whoever types a limit as it was read is taken."""
    said = f"must be between {limits(low, high, unit)}"
    assert worded(said) == f"must be between {metric}".replace("-", "\N{MINUS SIGN}")
    assert worded(said, AMERICAN) == f"must be between {other}".replace("-", "\N{MINUS SIGN}")


def test_a_text_that_is_cut_keeps_its_marks_whole():
    text = f"carry_m must be between {limits(1, 200, 'm')} (900)"
    for most in range(1, len(text) + 2):
        cut = shortened(text, most)
        assert len(cut) <= most
        assert OPEN not in worded(cut)
    assert shortened(text, len(text)) == text


@pytest.mark.parametrize(
    ("value", "shown"), [(1e30, "1e+30"), (-1.5e300, "−1.5e+300"), (float("inf"), "inf"), (1e20, "1" + 20 * "0")]
)
def test_a_figure_that_cannot_be_is_written_all_the_same(value, shown):
    """What was refused is quoted, and a device may send anything."""
    assert trimmed(value, 3) == shown
    assert worded(metres(value, 0)) == f"{shown} m"
