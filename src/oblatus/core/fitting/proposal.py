"""The whole answer for a fitting: the proposal as the draws leave it, how sure it is, and where strokes go."""

from __future__ import annotations

from dataclasses import dataclass, replace

from oblatus.core.fitting.book import KEEP_BAG
from oblatus.core.fitting.evidence import Doubt, LawGains, doubt_of, draw_law_gains
from oblatus.core.fitting.fitting import Fitting
from oblatus.core.fitting.judge import StrokesJudge
from oblatus.core.fitting.leaks import Leak, leaks_of
from oblatus.core.fitting.recommend import recommend
from oblatus.core.fitting.recommendation import Built, Recommendation


@dataclass(frozen=True, slots=True)
class Proposal:
    """A recommendation with its doubt and leaks; a quick one has neither."""

    recommendation: Recommendation
    doubt: Doubt | None = None
    leaks: tuple[Leak, ...] = ()


def propose(
    fitting: Fitting, judge: StrokesJudge, *, among: frozenset[Built] | None = None, laws: bool = False
) -> Proposal:
    """Propose a set and say how sure that is.

    Parameters
    ----------
    among : the clubs near the last choice: a quick answer without doubt and leaks
    laws : draw the laws' constants too

    Raises
    ------
    InputError
        As `recommend`.
    """
    found = recommend(fitting, judge, among)
    if among is not None:
        return Proposal(found)
    gains = draw_law_gains(found) if laws else None
    found, doubt = settled(found, doubt_of(found, judge, gains), judge, gains)
    return Proposal(found, doubt, leaks_of(found, judge))


def settled(
    found: Recommendation, doubt: Doubt, judge: StrokesJudge, gains: LawGains | None
) -> tuple[Recommendation, Doubt]:
    """The proposal as the draws leave it.

    Sets are level within the doubt between them, if that is more than the usual; the proposed step is the one that is
    there in 8 of 10 draws, and is shown unless the fitter took another.
    """
    fitting, tolerance = found.fitting, max(found.tolerance, doubt.paired)
    if tolerance > found.tolerance:
        found = recommend(fitting, judge, tolerance=tolerance)
        doubt = doubt_of(found, judge, gains)
    if doubt.proposed == found.recommended:
        return found, doubt
    if fitting.heads_bought is None:
        step = found.steps[doubt.proposed]
        heads = KEEP_BAG if step.kind == "bag" else step.heads
        found = recommend(replace(fitting, heads_bought=heads), judge, tolerance=tolerance)
        return replace(found, recommended=found.taken), doubt_of(found, judge, gains)
    return replace(found, recommended=doubt.proposed), doubt
