"""Expected strokes: the printed values of the table, the printed vectors of one strike's worth, and what must hold
always.
"""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from oblatus.core.flight.tables import carry_table, run_table
from oblatus.core.strokes import LIES, PINS, TOUR_TABLE, Balls, Layout, Scatter, expected_strokes, pins_of
from oblatus.core.strokes import _kernels as kernels
from oblatus.core.strokes.worth import in_fours, rows_of
from oblatus.errors import InputError
from oblatus.units import METRES_PER_FOOT, METRES_PER_YARD

GREEN = {0.5: 1.014, 1: 1.151, 2: 1.530, 3: 1.711, 5: 1.908, 8: 2.053, 12: 2.210}
ROUGH = {5: 2.506, 12: 2.694, 20: 2.887, 40: 3.080}
SAND = {5: 2.793, 12: 2.869, 20: 2.962, 40: 3.290}


@pytest.mark.parametrize(("lie", "printed"), [("green", GREEN), ("rough", ROUGH), ("sand", SAND)])
def test_the_printed_strokes_of_a_twelve_handicap(lie, printed):
    found = TOUR_TABLE.strokes(lie, np.array(list(printed)), None)
    assert found == pytest.approx(list(printed.values()), abs=0.0006)


def test_at_the_nodes_a_scratch_player_has_the_table():
    feet = np.array(TOUR_TABLE.green_feet) * METRES_PER_FOOT
    yards = np.array(TOUR_TABLE.yards) * METRES_PER_YARD
    assert TOUR_TABLE.strokes("green", feet, 0.0) == pytest.approx(TOUR_TABLE.green)
    assert TOUR_TABLE.strokes("sand", yards, 0.0) == pytest.approx(TOUR_TABLE.sand)


@given(st.sampled_from(LIES), st.floats(0, 120), st.floats(0, 40), st.floats(0, 30))
def test_strokes_rise_with_distance_and_handicap(lie, distance, more, handicap):
    here = TOUR_TABLE.strokes(lie, distance, handicap)
    assert TOUR_TABLE.strokes(lie, distance + more, handicap) >= here - 1e-12
    assert TOUR_TABLE.strokes(lie, distance, handicap + 5) >= here - 1e-12
    assert here >= 1.0


def lined(x, nodes, values):
    """Linear between the nodes, and on with the slope of the last two."""
    slope = (values[-1] - values[-2]) / (nodes[-1] - nodes[-2])
    return np.interp(x, nodes, values) + slope * np.maximum(x - nodes[-1], 0.0)


def by_the_page(lie, d, h):
    """The strokes of a lie as docs/models/strokes.md has them, by numpy alone."""
    table = TOUR_TABLE
    if lie == "green":
        return lined(d * (1.0 + 0.022 * h) / METRES_PER_FOOT, table.green_feet, table.green) + 0.0005 * h * d
    if lie == "fringe":
        return np.minimum(by_the_page("green", d, h) + 0.10 + 0.004 * h, by_the_page("fairway", d, h))
    slope = {"fairway": 0.018, "rough": 0.023, "sand": 0.034}[lie]
    return lined(d / METRES_PER_YARD, table.yards, getattr(table, lie)) + slope * h


@pytest.mark.parametrize("lie", LIES)
def test_strokes_are_those_of_the_page_in_any_order_of_distances(lie):
    d = np.random.default_rng(5).uniform(0.0, 180.0, (40, 5))
    for handicap in (-3.0, 0.0, 17.5):
        np.testing.assert_allclose(TOUR_TABLE.strokes(lie, d, handicap), by_the_page(lie, d, handicap), rtol=1e-13)


@pytest.mark.parametrize(
    "layout",
    [Layout(25, 8, 9, "rough", "rough"), Layout(12, 7, 10, "sand", "sand"), Layout(13, 9, 10, "fringe", "rough"),
     Layout(20, 5, 9, "sand", "rough")],
)  # fmt: skip
def test_the_rows_around_a_hole_are_those_of_the_page(layout):
    handicap, sideways = 14.0, 0.06
    hole, edge, short, far, fail = rows_of((layout, layout), sideways, handicap)
    t = 0.125 * np.arange(len(short))
    assert t[-1] == pytest.approx(160.0)
    away = np.abs(t - layout.hole)
    beside = np.hypot(away, np.sqrt(3.0) * sideways * layout.hole)

    def around(lie):
        return 1.0 + (4.0 * by_the_page(lie, away, handicap) + 2.0 * by_the_page(lie, beside, handicap)) / 6.0

    beyond = np.where(t <= layout.hole + layout.behind, around("green"), around("rough"))
    missing = layout.edge - t
    before = {
        "rough": around("rough"),
        "fringe": np.where(missing <= 0.0, beyond, np.where(missing <= 6.0, around("fringe"), around("rough"))),
        "sand": np.where(missing <= 8.0, around("sand"), around(layout.own)),
    }[layout.short]
    for column in range(2):
        np.testing.assert_allclose(far[:, column], beyond, rtol=1e-13)
        np.testing.assert_allclose(short[:, column], before, rtol=1e-13)
    assert fail == pytest.approx(1.0 + by_the_page(layout.own, layout.hole, handicap), rel=1e-13)
    assert (list(hole), list(edge)) == ([layout.hole] * 2, [layout.edge] * 2)


def test_fringe_lies_between_green_and_fairway():
    d = np.linspace(0, 15, 61)
    fringe = TOUR_TABLE.strokes("fringe", d, 12.0)
    assert (fringe > TOUR_TABLE.strokes("green", d, 12.0) - 1e-9).all()
    assert (fringe <= TOUR_TABLE.strokes("fairway", d, 12.0)).all()


@pytest.mark.parametrize(
    ("field", "asked"),
    [("lie", ("water", 3.0, 12.0)), ("distance_m", ("green", -1.0, 12.0)), ("distance_m", ("green", float("nan"), None)),
     ("handicap", ("green", 3.0, 90.0))],
)  # fmt: skip
def test_bad_questions_are_refused_at_the_field(field, asked):
    with pytest.raises(InputError) as raised:
        TOUR_TABLE.checked(*asked)
    assert raised.value.faults[0].field == field


A = Layout(25, 8, 9, "rough", "rough")
ONE = Balls.of([(1, 17, 40, 5200)])
MIXED = Balls.of([(0.6, 17, 40, 5200), (0.25, 13.5, 43, 3800), (0.1, 21, 26, 5500), (0.05, None)])
BUNKER = Balls.of([(0.8, 12.5, 46, 3500), (0.2, 9.5, 42, 2500)])


@pytest.mark.parametrize(
    ("balls", "layout", "handicap", "green", "options", "printed"),
    [
        (ONE, A, 12, "medium", {}, 2.617),
        (ONE, A, 12, "medium", {"noise": 0.0456, "sideways": 0.0494}, 2.641),
        (MIXED, A, 12, "medium", {"noise": 0.0456, "sideways": 0.0494}, 3.021),
        (BUNKER, Layout(12, 7, 10, "sand", "sand"), 12, "firm",
         {"noise": 0.0456, "sideways": 0.0494, "lip": (1.2, 3.0)}, 2.776),
        (Balls.of([(1, 10.5, 30, 3600)]), Layout(13, 9, 10, "fringe", "rough"), 0, "firm",
         {"noise": 0.030, "sideways": 0.035}, 2.308),
        (Balls.of([(1, 13, 48, 4000)]), Layout(20, 5, 9, "sand", "rough"), 24, "soft",
         {"noise": 0.0612, "sideways": 0.0638}, 3.056),
    ],
    ids="ABCDEF",
)  # fmt: skip
def test_the_printed_worths(balls, layout, handicap, green, options, printed):
    assert expected_strokes(balls, layout, handicap, green, **options) == pytest.approx(printed, abs=0.01)


def test_the_usual_scatter_of_a_handicap():
    scatter = Scatter.usual(12)
    assert scatter.speed == pytest.approx(0.0456)
    assert scatter.stock_speed == pytest.approx(0.0296)
    assert scatter.sideways(0) == pytest.approx(0.0494)
    assert scatter.sideways(20) == pytest.approx(0.0494 + 0.012)


def test_pins_move_the_hole_and_leave_the_green_where_it_is():
    for layout in (A, Layout(12, 6, 10, "sand", "sand"), Layout(18, 15, 10, "fringe", "rough")):
        pins = pins_of(layout)
        assert [pin.edge for pin in pins] == pytest.approx([layout.edge] * 3)
        assert [pin.room for pin in pins] == pytest.approx([layout.room * share for share in (0.45, 1.0, 1.8)])
        assert all(pin.behind >= 4.0 for pin in pins)
    assert sum(pin.weight for pin in PINS) == pytest.approx(1.0)


def test_a_high_lip_costs_a_low_ball():
    low = Balls.of([(1, 12.5, 28, 3500)])
    layout = Layout(12, 6, 10, "sand", "sand")
    free, stopped = (expected_strokes(low, layout, 12, lip=lip) for lip in (None, (2.2, 3.0)))
    assert stopped == pytest.approx(1 + TOUR_TABLE.strokes("sand", 12.0, 12.0))
    assert stopped > free


def test_pins_that_are_reckoned_together_cost_what_each_costs_alone():
    """Fours of pins before, around and beyond the ball's landing, and what fills a four that is not full."""
    layouts = tuple(Layout(d, 11, 11, "rough", "rough") for d in np.linspace(16.0, 56.0, kernels.DISTANCES))
    for costs, some in ((kernels.swing_costs, layouts), (kernels.short_costs, layouts[3:6])):
        _, edges, short, far, fail = rows_of(in_fours(some), 0.05, 12)
        room = np.empty((kernels.ROOMS, kernels.MOST_AIMS))
        factors = np.array([0.8, 1.0, 1.2])
        room[kernels.FACTORS, :3] = factors
        face, every = np.empty((3, len(fail))), np.empty((3, len(fail)))
        costs(
            MIXED.rows(), 3, edges, kernels.SHORT_ROUGH, 0.0, np.empty((1, 1, 1)), carry_table(), run_table("medium"),
            short, far, fail, room, face, every,
        )  # fmt: skip
        alone = [[expected_strokes(MIXED, one, 12, sideways=0.05, factor=f) for one in some] for f in factors]
        assert every[:, : len(some)] == pytest.approx(np.array(alone), rel=1e-12)
