"""The ladder of a proposal as JSON."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise

from oblatus.core.fitting import Recommendation, explain, explain_sets
from oblatus.core.fitting.carries_of import gap_kind
from oblatus.core.gapping import Ladder, Rung
from oblatus.formats.recommendation import GapOut, LadderOut, LoftsOut, RungOut
from oblatus.formats.rounded import rounded


def lofts_out(recommendation: Recommendation, wanted_top: float) -> LoftsOut:
    """The ladder of the set that is shown, beside the evenest of every number of wedges."""
    options = recommendation.options
    names = ["nine-iron", "pitching wedge"] + [explain.degrees(loft) for loft in recommendation.ladder.lofts_deg]
    swings = len(recommendation.rungs) // len(names)
    rungs = [_rung(rung, names[i // swings], recommendation) for i, rung in enumerate(recommendation.rungs)]
    full = [rung for rung in rungs if rung.swing == "full"]
    wanted = recommendation.ladder.wanted_gap
    gaps = []
    for a, b in pairwise(full[1:]):
        gap = a.carry_m - b.carry_m
        gaps.append(GapOut(from_club=a.club, to_club=b.club, gap_m=rounded(gap), kind=gap_kind(gap, wanted)))
    return LoftsOut(
        chosen=ladder_out(recommendation.ladder, options, True),
        typed=recommendation.typed,
        options=[ladder_out(o, options, o.lofts_deg == recommendation.ladder.lofts_deg) for o in options],
        wanted_gap_m=rounded(wanted),
        wanted_top_deg=rounded(wanted_top),
        rungs=rungs,
        gaps=gaps,
    )


def ladder_out(ladder: Ladder, options: Sequence[Ladder], chosen: bool) -> LadderOut:
    """A ladder beside the best of each number."""
    return LadderOut(
        lofts_deg=list(ladder.lofts_deg),
        penalty=rounded(ladder.penalty),
        parts={name: rounded(part) for name, part in ladder.parts.items()},
        gaps_m=[rounded(gap) for gap in ladder.gaps],
        uncovered_m=rounded(ladder.uncovered),
        uncovered_share=rounded(ladder.uncovered_share),
        alone_share=rounded(ladder.alone_share),
        cost=rounded(ladder.cost),
        changes=[explain_sets.change_words(change) for change in ladder.changes],
        left_out=[wedge.name for wedge in ladder.left_out],
        gives_up=explain_sets.ladder_gives_up(ladder, options),
        chosen=chosen,
    )


def _rung(rung: Rung, club: str, recommendation: Recommendation) -> RungOut:
    return RungOut(
        club=club,
        loft_deg=rounded(rung.loft_deg),
        swing=rung.swing,
        club_speed_mps=rounded(rung.delivery.speed),
        dynamic_loft_deg=rounded(rung.delivery.dynamic_loft_deg),
        ball_speed_mps=rounded(rung.launch.ball_speed),
        launch_deg=rounded(rung.launch.launch_deg),
        spin_rpm=rounded(rung.launch.spin_rpm, 0),
        carry_m=rounded(rung.flight.carry),
        apex_m=rounded(rung.flight.apex),
        landing_deg=rounded(rung.flight.landing_deg),
        run_m=rounded(rung.flight.run),
        source="assumed" if recommendation.carry_model.assumed and not recommendation.strikes else "modelled",
    )
