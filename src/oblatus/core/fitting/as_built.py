"""What a set of given heads is worth to a player, without choosing anything."""

from __future__ import annotations

from collections.abc import Sequence

from oblatus.core.clubs import Head
from oblatus.core.fitting.fitting import Fitting, carry_model_of, check_fitting
from oblatus.core.fitting.judge import StrokesJudge
from oblatus.core.fitting.recommend import sheet_for
from oblatus.core.fitting.recommendation import strokes_of
from oblatus.core.fitting.scenarios import build_scenarios


def strokes_with(fitting: Fitting, heads: Sequence[Head], judge: StrokesJudge) -> float:
    """Strokes a round with exactly these wedges beside the irons above them: the same sum as for every proposal.

    Raises
    ------
    InputError
        As `check_fitting`, or if a carry is given that no head speed gives.
    """
    check_fitting(fitting)
    scenarios = build_scenarios(fitting.player, fitting.grounds, fitting.layouts)
    sheet = sheet_for(fitting, judge, scenarios, carry_model_of(fitting))
    above = sheet.costs([fitting.bag.pitching_wedge, fitting.bag.nine_iron])
    return strokes_of(sheet, sheet.costs(list(heads)), above, fitting.player.schools.clubs == "favourite")
