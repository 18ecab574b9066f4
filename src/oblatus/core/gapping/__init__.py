"""Carries by club and clock swing, and the search for the best ladder of lofts."""

from oblatus.core.gapping.carries import SWINGS, CarryModel, Rung, fit_carry_model
from oblatus.core.gapping.ladder import Ladder, LadderWeights, LadderWish, score_ladder, search_ladders

__all__ = [
    "SWINGS",
    "CarryModel",
    "Ladder",
    "LadderWeights",
    "LadderWish",
    "Rung",
    "fit_carry_model",
    "score_ladder",
    "search_ladders",
]
