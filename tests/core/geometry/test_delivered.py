"""Delivered geometry against the printed table, the one-degree rule and symmetry."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from oblatus.core.clubs import Head
from oblatus.core.geometry import _kernels as kernels
from oblatus.core.geometry import deliver, deliver_many, head_outline, head_row, sole_section
from oblatus.errors import InputError

# lean, opening | delivered loft, bounce, edge height in mm of the reference club, 56 degrees with 10 of bounce
TABLE = [
    ((0, 0), (56, 10, 3.46)),
    ((5, 0), (51, 5, 2.05)),
    ((12, 0), (44, -2, 0.68)),
    ((0, 10), (60.6, 14.3, 5.3)),
    ((0, 20), (65.7, 18.3, 7.7)),
    ((0, 30), (71.2, 22.1, 9.8)),
    ((0, 45), (79.9, 27.3, 12.2)),
]


@pytest.mark.parametrize(("setup", "printed"), TABLE)
def test_the_printed_table(setup, printed):
    found = deliver(Head(56, 10), *setup)
    assert found.loft_deg == pytest.approx(printed[0], abs=0.051)
    assert found.bounce_deg == pytest.approx(printed[1], abs=0.051)
    assert 1000 * found.leading_edge_height == pytest.approx(printed[2], abs=0.051 if setup[1] else 0.0051)


@given(st.floats(44, 64), st.floats(0, 16), st.floats(-8, 16))
def test_one_degree_of_lean_takes_one_of_loft_and_bounce(loft, bounce, lean):
    found = deliver(Head(loft, bounce), lean, 0.0)
    assert found.loft_deg == pytest.approx(loft - lean, abs=1e-9)
    assert found.bounce_deg == pytest.approx(bounce - lean, abs=1e-9)
    assert found.face_direction_deg == pytest.approx(0.0, abs=1e-9)


def test_thirty_degrees_about_the_shaft_alone_add_about_twelve():
    strict = deliver(Head(56, 10), 0.0, 30.0, hands_drop=0.0)
    assert strict.loft_deg - 56 == pytest.approx(12, abs=0.6)
    assert strict.bounce_deg - 10 == pytest.approx(12, abs=0.6)


@given(st.floats(50, 62), st.floats(58, 68), st.floats(-8, 12), st.floats(0, 45))
def test_a_left_hander_is_the_mirror(loft, lie, lean, opening):
    head = Head(loft, 10, lie_deg=lie)
    right, left = deliver(head, lean, opening), deliver(head, lean, opening, "left")
    assert left.face_direction_deg == -right.face_direction_deg
    assert (left.loft_deg, left.bounce_deg) == (right.loft_deg, right.bounce_deg)
    assert right.face_direction_deg >= -1e-9


@given(st.floats(-20, 60), st.floats(56, 70))
def test_the_turn_is_a_rotation(opening, lie):
    m = np.empty((3, 3))
    kernels.opening_matrix(math.radians(opening), math.radians(lie), 0.2, m)
    assert m @ m.T == pytest.approx(np.eye(3), abs=1e-12)
    assert np.linalg.det(m) == pytest.approx(1.0)


def test_heel_relief_keeps_the_edge_down_when_opened():
    full, relieved = Head(56, 10), Head(56, 10, heel_relief=0.0015)
    assert 1000 * deliver(full, 0, 25).leading_edge_height == pytest.approx(8.8, abs=0.06)
    assert 1000 * deliver(relieved, 0, 25).leading_edge_height == pytest.approx(7.7, abs=0.06)
    assert deliver(full, 0, 0).leading_edge_height == pytest.approx(deliver(relieved, 0, 0).leading_edge_height, abs=1e-4)


def test_many_equals_one_by_one_and_python():
    heads = [Head(52, 8), Head(60, 6, heel_relief=0.0015, front_bevel=0.003, front_bevel_deg=6)]
    opening, lean = np.array([0.0, 0.0, 25.0]), np.array([-3.0, 6.0, 2.0])
    many = deliver_many(heads, opening, lean)
    for i, head in enumerate(heads):
        for k in range(3):
            one = deliver(head, lean[k], opening[k])
            assert many[i, k, 0] == pytest.approx(one.loft_deg)
            assert many[i, k, 3] == pytest.approx(one.leading_edge_height)
    slow = np.empty((2, 3, 4))
    kernels.deliver.py_func(np.array([head_row(h) for h in heads]), np.radians(opening), np.radians(lean), 0.2, slow)
    assert slow[:, :, 3] == pytest.approx(many[:, :, 3])


def test_the_section_is_as_long_as_the_sole_and_falls_by_the_bounce():
    head = Head(56, 10, sole_width=0.022)
    section = sole_section(head, 401)
    assert np.hypot(*np.diff(section, axis=0).T).sum() == pytest.approx(0.022)
    middle = np.diff(section, axis=0)[200]
    assert math.degrees(math.atan2(-middle[1], -middle[0])) == pytest.approx(10, abs=0.1)
    outline = head_outline(head)
    assert np.isfinite(outline).all()
    assert outline[:, 1].max() == pytest.approx(0.037 * math.cos(math.radians(56)), abs=0.002)


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"loft_deg": 5}, "loft_deg"),
        ({"sole_width": 0.002}, "sole_width_mm"),
        ({"camber_radius": 0.001}, "camber_radius_mm"),
        ({"bounce_deg": math.nan}, "bounce_deg"),
        ({"front_bevel": 0.008, "trailing_relief_fraction": 0.6, "sole_width": 0.012}, "front_bevel_mm"),
    ],
)
def test_heads_that_cannot_exist(change, field):
    with pytest.raises(InputError) as error:
        Head(**{"loft_deg": 56.0, "bounce_deg": 10.0, **change})
    assert error.value.faults[0].field == field


@pytest.mark.parametrize("setup", [(90, 0), (0, 80), (math.inf, 0)])
def test_setups_outside_the_range(setup):
    with pytest.raises(InputError):
        deliver(Head(56, 10), *setup)


def test_shapes_in_words():
    assert Head(56, 10).shape_words() == "full sole, regular"
    assert Head(56, 10, sole_width=0.016, heel_relief=0.001).shape_words() == "heel-relieved, slim"
    assert Head(56, 10, sole_width=0.024, trailing_relief_fraction=0.3).shape_words() == "back-relieved, broad"
    assert (
        Head(56, 10, front_bevel=0.004, front_bevel_deg=7, trailing_relief_fraction=0.2)
        .shape_words()
        .startswith("two-plane")
    )
