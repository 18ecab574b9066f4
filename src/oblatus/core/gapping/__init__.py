"""Carries by club and clock swing, fitted to the player's strikes, and the search for the best ladder of lofts."""

from oblatus.core.gapping.carries import SWINGS, CarryModel, Rung, Swing, fit_carry_model
from oblatus.core.gapping.estimates import Cell, CellEstimate, PlayerModel, cell_of
from oblatus.core.gapping.faced import Band, Faced, faced_distances
from oblatus.core.gapping.ladder import (
    Ladder,
    LadderSearch,
    LadderWeights,
    LadderWish,
    OwnedLoft,
)
from oblatus.core.gapping.player_model import fit_player_carries, fit_player_model
from oblatus.core.gapping.strikes import MeasuredStrike

__all__ = [
    "SWINGS",
    "Band",
    "CarryModel",
    "Cell",
    "CellEstimate",
    "Faced",
    "Ladder",
    "LadderSearch",
    "LadderWeights",
    "LadderWish",
    "MeasuredStrike",
    "OwnedLoft",
    "PlayerModel",
    "Rung",
    "Swing",
    "cell_of",
    "faced_distances",
    "fit_carry_model",
    "fit_player_carries",
    "fit_player_model",
]
