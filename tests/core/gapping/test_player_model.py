"""The player model against players whose carries are known: coverage, robustness, honesty with few strikes."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest

from oblatus.core.delivery import Estimate, Habit, Player
from oblatus.core.flight import Air
from oblatus.core.gapping import SWINGS, CarryModel, Cell, MeasuredStrike, Swing, fit_carry_model, fit_player_model
from oblatus.core.gapping._player_fit import _priors
from oblatus.core.gapping.carries import square_flights
from oblatus.core.gapping.faced import Band, faced_distances
from oblatus.core.gapping.unit_doubt import ODDS, other_unit_odds
from oblatus.errors import InputError

LOFTS = {"9i": 41.0, "pw": 46.0, "own:0": 50.0, "own:1": 56.0, "own:2": 60.0}
CELLS = [Cell(club, loft, swing.key) for club, loft in LOFTS.items() for swing in SWINGS]
TYPED = Player(Habit(lean_deg=Estimate(5.0, 2.0)), pitching_wedge_carry=106.0)


class SimulatedPlayer:
    """A player drawn from the usual doubts, every cell off by two per cent; balls scatter in speed, loft and contact."""

    def __init__(self, seed: int) -> None:
        self.rng = np.random.default_rng(seed)
        self.player = Player(Habit(lean_deg=Estimate(float(self.rng.normal(5, 1)), 2)))
        start = fit_carry_model(self.player, 46)
        usual, doubt, _ = _priors(self.player, start, SWINGS)
        x = self.rng.normal(usual, doubt)
        swings = tuple(
            Swing(s.key, s.name, math.exp(share), extra)
            for s, share, extra in zip(SWINGS, [0.0, *x[8:10]], x[5:8], strict=True)
        )
        self.model = CarryModel(
            math.exp(x[0]), 46.0, x[1], start.attack_deg, False, swings, math.exp(x[2]), x[3], max(x[4], 0.0)
        )
        self.own = {cell: math.exp(self.rng.normal(0, 0.02)) for cell in CELLS}

    def truth(self, cell: Cell) -> float:
        return float(self.model.carries([cell.loft_deg], [self.model.swing(cell.swing)])[0, 0]) * self.own[cell]

    def strikes(self, cells: list[Cell], balls: int, rich: bool = False, mishits: float = 0.0) -> list[MeasuredStrike]:
        rng, found = self.rng, []
        for cell in cells:
            swing = self.model.swing(cell.swing)
            for _ in range(balls):
                speed = self.model.full_speeds([cell.loft_deg])[0] * swing.speed_share * (1 + rng.normal(0, 0.02))
                loft = math.radians(cell.loft_deg - self.model.lean_deg - swing.extra_lean_deg + rng.normal(0, 1.5))
                friction = self.model.friction * math.exp(rng.normal(0, 0.06))
                flight = square_flights(
                    np.array([speed]), np.array([loft]), self.model.attack_deg, friction, self.model.restitution
                )[0]
                carry = flight[0] * self.own[cell] * math.exp(rng.normal(0, 0.03))
                if rng.random() < mishits:
                    carry *= rng.uniform(0.55, 0.85)
                strike = MeasuredStrike(str(len(found)), cell.club, cell.loft_deg, cell.swing, float(max(carry, 2.0)))
                if rich:
                    strike = replace(
                        strike, club_speed=float(speed), ball_speed=float(flight[4]),
                        launch_deg=math.degrees(flight[5]) + rng.normal(0, 0.7),
                        spin_rpm=float(min(flight[3] * 30 / math.pi, 15_900)),
                    )  # fmt: skip
                found.append(strike)
        return found

    def cells(self, count: int) -> list[Cell]:
        return [CELLS[i] for i in self.rng.permutation(len(CELLS))[:count]]


def test_the_eighty_per_cent_interval_covers_seventy_to_ninety_of_a_hundred():
    """500 simulated players: one, four or six cells, three or five balls, carry alone or more, some mishits."""
    inside: dict[tuple[bool, bool], list[bool]] = {}
    for seed in range(500):
        someone, rich = SimulatedPlayer(seed), seed % 2 == 1
        count, balls = ((1, 3), (4, 3), (6, 5))[seed % 3]
        fit = fit_player_model(someone.player, 46, someone.strikes(someone.cells(count), balls, rich, 0.02), CELLS)
        for cell in fit.cells:
            key = (rich, cell.count > 0)
            inside.setdefault(key, []).append(cell.low <= someone.truth(cell.cell) <= cell.high)
    for key, hits in inside.items():
        assert 0.70 <= np.mean(hits) <= 0.90, (key, np.mean(hits))


def test_three_strikes_give_a_wide_answer_and_thirty_a_tight_one():
    someone = SimulatedPlayer(7)
    cells = [CELLS[3], CELLS[6], CELLS[7], CELLS[9], CELLS[11], CELLS[14]]
    widths = []
    for count, balls in ((0, 0), (1, 3), (6, 5)):
        fit = fit_player_model(someone.player, 46, someone.strikes(cells[:count], balls), CELLS)
        widths.append(np.mean([(cell.high - cell.low) / cell.carry for cell in fit.cells]))
    assert widths[0] > 1.3 * widths[1] > 1.3 * 1.3 * widths[2]
    assert widths[2] < 0.12


def test_without_strikes_it_is_the_known_carry_and_says_so():
    fit = fit_player_model(TYPED, 46, [], CELLS)
    start = fit_carry_model(TYPED, 46)
    assert fit.carries.speed == pytest.approx(start.speed, rel=1e-6)
    assert {cell.source for cell in fit.cells} == {"modelled"}
    assert (fit.leave_one_out, fit.outliers, fit.used) == (None, (), 0)
    assert {cell.source for cell in fit_player_model(Player(), 46, [], CELLS).cells} == {"assumed"}


def test_strikes_recover_speed_lean_and_swings():
    someone = SimulatedPlayer(11)
    fit = fit_player_model(someone.player, 46, someone.strikes(CELLS, 12, rich=True), CELLS)
    assert fit.carries.speed == pytest.approx(someone.model.speed, rel=0.02)
    for mine, true in zip(fit.carries.swings[1:], someone.model.swings[1:], strict=True):
        assert mine.speed_share == pytest.approx(true.speed_share, rel=0.02)
    full = someone.model.lean_deg + someone.model.swings[0].extra_lean_deg
    assert fit.carries.lean_deg + fit.carries.swings[0].extra_lean_deg == pytest.approx(full, abs=1.2)


def test_an_outlier_is_found_shown_and_pulls_little():
    someone = SimulatedPlayer(3)
    strikes = someone.strikes(CELLS[3:9], 5)
    without = fit_player_model(someone.player, 46, strikes, CELLS)
    short = replace(strikes[0], id="short", carry=0.5 * strikes[0].carry)
    fit = fit_player_model(someone.player, 46, [*strikes, short], CELLS)
    assert "short" in [outlier.strike for outlier in fit.outliers]
    assert next(o for o in fit.outliers if o.strike == "short").share < -0.4
    cell = next(c for c in fit.cells if c.cell == CELLS[3])
    before = next(c for c in without.cells if c.cell == CELLS[3])
    assert cell.carry == pytest.approx(before.carry, rel=0.03)
    assert cell.count == before.count + 1


def test_strikes_set_aside_count_for_nothing_but_are_counted():
    someone = SimulatedPlayer(5)
    strikes = someone.strikes(CELLS[3:5], 4)
    aside = [replace(strike, id=f"a{i}", carry=20.0, set_aside="thin") for i, strike in enumerate(strikes[:3])]
    fit = fit_player_model(someone.player, 46, [*strikes, *aside], CELLS)
    same = fit_player_model(someone.player, 46, strikes, CELLS)
    assert [c.carry for c in fit.cells] == pytest.approx([c.carry for c in same.cells])
    assert (fit.used, fit.aside) == (8, 3)
    only = fit_player_model(TYPED, 46, aside, CELLS)
    assert only.used == 0
    assert {cell.source for cell in only.cells} == {"modelled"}


def test_leave_one_out_is_what_leaving_out_gives():
    someone = SimulatedPlayer(21)
    strikes = someone.strikes([CELLS[3], CELLS[6], CELLS[9]], 5)
    fit = fit_player_model(someone.player, 46, strikes)
    misses = []
    for i, strike in enumerate(strikes):
        others = fit_player_model(someone.player, 46, strikes[:i] + strikes[i + 1 :])
        told = next(c.carry for c in others.cells if c.cell.club == strike.club)
        misses.append(told - strike.carry)
    assert fit.outliers == ()
    assert fit.leave_one_out == pytest.approx(float(np.sqrt(np.mean(np.square(misses)))), rel=0.1)


def test_the_next_cell_narrows_all_of_them_most():
    someone = SimulatedPlayer(13)
    strikes = someone.strikes([CELLS[3], CELLS[6]], 5)
    fit = fit_player_model(someone.player, 46, strikes, CELLS)
    best, worst = fit.next_cells[0], fit.next_cells[-1]
    assert best.cell.swing != "full"  # both measured cells are full swings
    assert best.all_then < worst.all_then <= best.all_now + 1e-9
    seen = fit_player_model(someone.player, 46, [*strikes, *someone.strikes([best.cell], 5)], CELLS)
    other = fit_player_model(someone.player, 46, [*strikes, *someone.strikes([worst.cell], 5)], CELLS)
    assert sum(c.high - c.low for c in seen.cells) < sum(c.high - c.low for c in other.cells)
    faced = faced_distances(someone.player, 105.0, (Band(30, 45, 1.0),))
    asked = fit_player_model(someone.player, 46, strikes, CELLS, faced=faced)
    assert asked.next_cells[0].cell.swing == "900"


def test_a_club_of_one_strike_two_of_equal_loft_and_no_full_swing_are_answered():
    someone = SimulatedPlayer(17)
    twin = Cell("own:9", 56.0, "900")
    someone.own[twin] = 1.0
    strikes = [*someone.strikes([CELLS[11], twin], 4), replace(someone.strikes([CELLS[14]], 1)[0], id="one")]
    fit = fit_player_model(someone.player, 46, strikes, [*CELLS, twin])
    assert all(math.isfinite(c.low) and c.low < c.carry < c.high for c in fit.cells)
    wide = {c.cell: (c.high - c.low) / c.carry for c in fit.cells}
    assert wide[CELLS[9]] > wide[CELLS[11]]  # the full swing of a club known at 9:00 only


@pytest.mark.parametrize("loft", [41.0, 50.0])
def test_other_pitching_wedges_are_fitted_too(loft):
    strikes = [MeasuredStrike(str(i), "pw", loft, "full", 100.0 + i) for i in range(3)]
    fit = fit_player_model(Player(), loft, strikes)
    assert fit.cells[0].carry == pytest.approx(101.0, rel=0.03)


def test_more_loft_never_carries_further_whatever_was_measured():
    for seed in range(40):
        someone = SimulatedPlayer(seed)
        fit = fit_player_model(someone.player, 46, someone.strikes(someone.cells(3), 3, mishits=0.2), CELLS)
        carries = fit.carries.carries(np.arange(46.0, 64.5, 0.5))
        assert (np.diff(carries, axis=0) < 0).all()


def test_carries_measured_in_thin_air_are_told_for_thick():
    someone = SimulatedPlayer(2)
    strikes = someone.strikes(CELLS[3:4], 5)
    high = fit_player_model(someone.player, 46, strikes, air=Air(20.0, 2000.0))
    low = fit_player_model(someone.player, 46, strikes, air=Air(20.0, 0.0))
    full = SWINGS[0].key
    in_thick = [fit.carries.rung(46.0, fit.carries.swing(full)).flight.carry for fit in (high, low)]
    assert in_thick[0] < in_thick[1] - 2.0


def test_yards_taken_for_metres_are_doubted_when_the_player_is_known():
    """Over 60 players: most mistakes are asked about, few right pastes are, and few when nothing is known."""
    caught = alarms = other_way = blind = 0
    for seed in range(60):
        someone = SimulatedPlayer(seed)
        fit = fit_player_model(someone.player, 46, someone.strikes([CELLS[3], CELLS[6], CELLS[9]], 5), CELLS)
        new = someone.strikes([CELLS[6], CELLS[12]], 5)
        caught += other_unit_odds(fit, [replace(s, carry=s.carry / 0.9144) for s in new], "m") > ODDS
        other_way += other_unit_odds(fit, [replace(s, carry=s.carry * 0.9144) for s in new], "yd") > ODDS
        alarms += other_unit_odds(fit, new, "m") > ODDS
        nothing_known = fit_player_model(Player(), 46, [], CELLS)
        blind += other_unit_odds(nothing_known, [replace(s, carry=s.carry / 0.9144) for s in new], "m") > ODDS
    found = (caught, other_way, alarms, blind)
    assert min(caught, other_way) >= 42, found
    assert alarms <= 3, found
    assert blind <= 20, found


def test_a_strike_outside_its_range_is_refused_with_its_field():
    with pytest.raises(InputError) as error:
        MeasuredStrike("1", "pw", 46.0, "full", 300.0, spin_rpm=99_000.0)
    assert {fault.field for fault in error.value.faults} == {"carry_m", "spin_rpm"}


def test_what_tells_an_unknown_turns_from_the_usual_to_the_strikes():
    """By how much its doubt is narrowed: nothing without strikes, both at first, and the strikes in the end."""

    def told(balls: int) -> dict[str, str]:
        player = SimulatedPlayer(3)
        strikes = player.strikes([Cell("pw", 46.0, "full"), Cell("own:1", 56.0, "900")], balls)
        model = fit_player_model(player.player, 46.0, strikes, CELLS)
        return {one.name: one.told_by for one in model.parameters}

    none, few, many = told(0), told(1), told(30)
    assert set(none.values()) == {"usual"}
    order = ["usual", "both", "strikes"]
    assert all(order.index(few[name]) <= order.index(many[name]) for name in many)
    assert many["head speed, full pitching wedge"] == "strikes"
    assert many["head speed, 9:00"] == "both", "thirty balls of one swing tell its share with the other unknowns"
    assert many["head speed, 10:30"] == "usual", "no ball was hit with it"
