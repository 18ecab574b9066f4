"""What lies outside its range is refused with its field, its value and the range; nothing is clamped."""

from __future__ import annotations

import math

import pytest

from oblatus.core.bounds import FLIGHT, IMPACT, Bound, check, check_all
from oblatus.core.words import Reader, worded
from oblatus.errors import InputError


@pytest.mark.parametrize(("name", "bound"), [*IMPACT.items(), *FLIGHT.items()])
def test_both_ends_are_allowed_and_nothing_beyond(name: str, bound: Bound):
    assert check(name, bound.low, bound) == bound.low
    assert check(name, bound.high, bound) == bound.high
    for beyond in (math.nextafter(bound.low, -math.inf), math.nextafter(bound.high, math.inf)):
        with pytest.raises(InputError) as refused:
            check(name, beyond, bound)
        (fault,) = refused.value.faults
        assert (fault.field, fault.message) == (name, bound.words())


@pytest.mark.parametrize("value", [math.nan, math.inf, -math.inf, True, "30", None, [1.0]])
def test_what_is_no_number_is_refused(value):
    with pytest.raises(InputError):
        check("loft", value, Bound(0, 90, "degrees"))


def test_a_whole_number_is_taken_as_a_number():
    found = check("loft", 56, Bound(0, 90, "degrees"))
    assert (found, type(found)) == (56.0, float)


def test_all_faults_are_told_together():
    with pytest.raises(InputError) as refused:
        check_all({"launch_deg": 90.0, "spin_rpm": 9000.0, "ball_speed_mps": 0.5}, FLIGHT)
    assert [fault.field for fault in refused.value.faults] == ["launch_deg", "ball_speed_mps"]


def test_words_have_a_unit_where_there_is_one():
    assert Bound(0, 1, "").words() == "must be between 0 and 1"
    said = Bound(2, 50, "m/s").words()
    assert worded(said) == "must be between 2 and 50 m/s"
    assert worded(said, Reader("yd", "mph")) == "must be between 4.5 and 111.8 mph"
    assert worded(Bound(0.2, 1.05, "", percent=True).words()) == "must be between 20 and 105 %"
