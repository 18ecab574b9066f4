"""The families that the next edits of a fitting will ask for, so that they can be made before anyone waits for them."""

from __future__ import annotations

from oblatus.core.fitting.bench_rules import deliver_all
from oblatus.core.fitting.recommend import Fitting, choose_ladder
from oblatus.core.fitting.scenarios import build_scenarios
from oblatus.core.fitting.sets import candidates_for
from oblatus.core.fitting.strike_judge import StrikeJudge
from oblatus.core.strike import FamilyJob

NEIGHBOUR_DEG = 2.0
OPTION_BEHIND_DEG = 1.0


def jobs_ahead(fitting: Fitting, judge: StrikeJudge) -> tuple[FamilyJob, ...]:
    """Families of every head bent to every loft near the ladder or one of its alternatives, nearest first.

    A change of lean, speed or weights moves the ladder by a half degree or two: those heads are the ones it asks for.

    Raises
    ------
    InputError
        As `recommend`.
    """
    choice = choose_ladder(fitting)
    anchors = [(loft, 0.0) for loft in choice.ladder.lofts_deg]
    anchors += [(loft, OPTION_BEHIND_DEG) for option in choice.options for loft in option.lofts_deg]
    near = {loft: min(abs(loft - other) + behind for other, behind in anchors) for loft in choice.wish.lofts_deg}
    lofts = sorted((loft for loft, far in near.items() if far <= NEIGHBOUR_DEG), key=lambda loft: near[loft])
    bent = (candidate.head for candidate in candidates_for(lofts, fitting.stock))
    heads = list(dict.fromkeys([fitting.bag.pitching_wedge, *bent]))
    scenarios = build_scenarios(fitting.player, fitting.grounds)
    return judge.ask(heads, scenarios, choice.model, deliver_all(heads, scenarios)).jobs
