"""The families that the next edits of a fitting will ask for, so that they can be made before anyone waits for them."""

from __future__ import annotations

from oblatus.core.fitting.bends import exact_of
from oblatus.core.fitting.candidates import candidates_of
from oblatus.core.fitting.fitting import Fitting, carry_model_of, check_fitting
from oblatus.core.fitting.judge import StrokesJudge
from oblatus.core.fitting.recommend import sheet_for
from oblatus.core.fitting.scenarios import build_scenarios
from oblatus.core.gapping.ladder import LEAST_STEP_DEG
from oblatus.core.strike import FamilyJob


def jobs_ahead(fitting: Fitting, judge: StrokesJudge) -> tuple[FamilyJob, ...]:
    """Families of every head of the rack at the bends that a search reckons: an edit of the
    habit asks for few others.

    Raises
    ------
    InputError
        As `recommend`.
    """
    check_fitting(fitting)
    sheet = sheet_for(
        fitting, judge, build_scenarios(fitting.player, fitting.grounds, fitting.layouts), carry_model_of(fitting)
    )
    candidates = candidates_of(fitting.stock, fitting.bag.pitching_wedge.loft_deg + LEAST_STEP_DEG)
    heads = [candidates[i].head for i in exact_of(candidates)]
    return sheet.jobs_for([fitting.bag.pitching_wedge, fitting.bag.nine_iron, *heads])
