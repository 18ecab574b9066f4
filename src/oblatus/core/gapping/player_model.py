"""A player's carries from few or many strikes: a physical model with usual values as priors, and its own doubt."""

from __future__ import annotations

from collections.abc import Sequence

from oblatus.core.delivery import Player
from oblatus.core.flight import REFERENCE_AIR, Air
from oblatus.core.gapping._player_fit import Problem
from oblatus.core.gapping.carries import SWINGS, CarryModel, Swing, fit_carry_model
from oblatus.core.gapping.estimates import Cell, PlayerModel, cell_of
from oblatus.core.gapping.faced import Faced
from oblatus.core.gapping.strikes import MeasuredStrike


def fit_player_model(
    player: Player,
    pitching_wedge_loft_deg: float,
    strikes: Sequence[MeasuredStrike],
    cells: Sequence[Cell] = (),
    swings: Sequence[Swing] = SWINGS,
    air: Air = REFERENCE_AIR,
    faced: Faced | None = None,
) -> PlayerModel:
    """The player's model from the strikes that count, and what it says of every cell.

    Parameters
    ----------
    strikes : measured strikes; those without a carry, or of a swing that `swings` does not have, are kept out
    cells : cells to be told besides those that were measured
    air : the air in which the strikes were measured
    faced : how often each distance is faced, by which the doubt of each cell matters

    Raises
    ------
    InputError
        As `fit_carry_model`, for the typed carry or speed that stands in for strikes.
    """
    known = {swing.key for swing in swings}
    strikes = [strike for strike in strikes if strike.carry is not None and strike.swing in known]
    return _solved(player, pitching_wedge_loft_deg, strikes, cells, swings, air).result(strikes, faced)


def fit_player_carries(
    player: Player,
    pitching_wedge_loft_deg: float,
    strikes: Sequence[MeasuredStrike],
    swings: Sequence[Swing] = SWINGS,
    air: Air = REFERENCE_AIR,
) -> CarryModel:
    """The carry model of `fit_player_model` alone, for strikes that all have a carry and one of these swings."""
    problem = _solved(player, pitching_wedge_loft_deg, strikes, (), swings, air)
    return problem.model(problem.x)


def _solved(
    player: Player,
    pitching_wedge_loft_deg: float,
    strikes: Sequence[MeasuredStrike],
    cells: Sequence[Cell],
    swings: Sequence[Swing],
    air: Air,
) -> Problem:
    start = fit_carry_model(player, pitching_wedge_loft_deg)
    usable = [strike for strike in strikes if strike.counts]
    every = list(dict.fromkeys([*cells, *(cell_of(strike) for strike in strikes)]))
    problem = Problem(player, start, every, swings, air, usable)
    problem.solve()
    return problem
