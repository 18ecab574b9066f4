"""How sure a choice is: paired draws of habit, laws and table, what would flip it, what to measure next."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from oblatus.core.fitting.axes import ASSUMED_COUNT, axes_of
from oblatus.core.fitting.costs import Sheet
from oblatus.core.fitting.field import TABLE_DOUBT, Field, bag_heads
from oblatus.core.fitting.judge import StrokesJudge, judge_of_laws
from oblatus.core.fitting.laws import draw_laws
from oblatus.core.fitting.recommend import sheet_for
from oblatus.core.fitting.recommendation import Recommendation, strokes_of
from oblatus.core.fitting.steps import recommended_step
from oblatus.core.strike.families import Progress

Floats = NDArray[np.float64]

DRAWS = 500
INTERVAL = (10.0, 90.0)
SEED = 7


@dataclass(frozen=True, slots=True)
class StepDoubt:
    """What a step gains in 8 of 10 draws, from and to, and in how many it beats today's bag (strokes a round, share)."""

    low: float
    high: float
    better_share: float


@dataclass(frozen=True, slots=True)
class ClubShare:
    """Share of the draws in which some set with this head is level with the best."""

    slot: int
    code: str
    share: float


@dataclass(frozen=True, slots=True)
class Doubt:
    """Doubt of a proposal. `law_draws` of the draws of the laws are in it (0 until they are made).

    `proposed` is the step that the draws leave as the proposed one; `paired` the standard deviation of the difference
    between the shown set and others near it, in the same draws; `assumed_count`: a spread is not measured; `next_share`
    the share of draws that the next axis alone turns.
    """

    count: int
    law_draws: int
    assumed_count: bool
    steps: tuple[StepDoubt, ...]
    proposed: int
    paired: float
    shares: tuple[ClubShare, ...]
    next_axis: str | None
    next_share: float


@dataclass(frozen=True, slots=True, eq=False)
class LawGains:
    """How the strokes of sets differ under each draw of the laws (draws, sets), today's bag first."""

    strokes: Floats


def doubt_of(recommendation: Recommendation, judge: StrokesJudge, laws: LawGains | None = None) -> Doubt:
    """Draw attack, lean and entry within their standard errors and the strokes table's handicap within a quarter.

    Every set is reckoned in the same 500 draws. Costs of a shortlist of heads are computed as they are and at two points
    along each axis; between them they are a parabola an axis. A common factor on all gains (log-normal, of the economy's
    `claims_sd`) widens what is stated and changes no ranking.
    """
    if laws is not None and laws.strokes.shape[1] != len(recommendation.steps):
        laws = None  # they were drawn for other steps
    field = Field(recommendation, judge)
    axes = [axis for axis in axes_of(recommendation.fitting) if axis.key in ("attack", "lean", "entry")]
    surface = field.surface(axes)
    rng = np.random.default_rng(SEED)
    draws = np.column_stack([axis.error * rng.standard_t(ASSUMED_COUNT - 1, DRAWS) for axis in axes])
    table = np.exp(TABLE_DOUBT * rng.standard_normal(DRAWS)) - 1.0
    common = np.exp(recommendation.fitting.economy.claims_sd * rng.standard_normal(DRAWS))
    draws = np.column_stack([draws, table])
    score, strokes = field.drawn(surface, draws)
    if laws is not None:
        strokes[:, : laws.strokes.shape[1]] += laws.strokes[np.arange(DRAWS) % len(laws.strokes)]
    gains = (strokes[:, :1] - strokes) * common[:, None]
    steps = tuple(_step_doubt(gains[:, n]) for n in range(len(recommendation.steps)))
    total = strokes[:, : len(steps)] + np.array([step.place for step in recommendation.steps])

    def there(a: int, b: int) -> float:
        return float(np.mean(total[:, b] < total[:, a]))

    tolerance = recommendation.tolerance
    level = score <= score[:, field.eligible].min(axis=1, keepdims=True) + tolerance
    shown = recommendation.taken
    near = [n for n in field.eligible if abs(field.now[n] - field.now[shown]) <= tolerance and n != shown]
    differences = score[:, near] - score[:, [shown]] if near else np.zeros((DRAWS, 1))
    alone = [field.turned(surface, draws, a, shown) for a in range(len(axes))]
    most = int(np.argmax(alone))
    return Doubt(
        count=DRAWS,
        law_draws=0 if laws is None else len(laws.strokes),
        assumed_count=any(not axis.known for axis in axes),
        steps=steps,
        proposed=recommended_step(
            recommendation.steps, recommendation.fitting.economy, recommendation.problem.rules, there
        ),
        paired=float(np.median(differences.std(axis=0))),
        shares=_shares(recommendation, field, level),
        next_axis=axes[most].key if alone[most] > 0.0 else None,
        next_share=alone[most],
    )


def draw_law_gains(recommendation: Recommendation, progress: Progress | None = None) -> LawGains:
    """Today's bag and every step under eight draws of the laws, as differences from the laws as taken.

    `progress` hears of (done, draws).
    """
    fitting, found = recommendation.fitting, []
    scenarios = list(recommendation.scenarios)
    laws, apart = draw_laws(), judge_of_laws()
    for done, law in enumerate(laws):
        found.append(_steps_under(recommendation, sheet_for(fitting, apart, scenarios, recommendation.carry_model, law)))
        if progress is not None:
            progress(done + 1, len(laws))
    return LawGains(np.array(found) - _steps_under(recommendation, recommendation.sheet))


def _steps_under(recommendation: Recommendation, sheet: Sheet) -> Floats:
    """Strokes a round of the bag and of every step on a sheet; the bag's place is that of its step."""
    fitting = recommendation.fitting
    above = sheet.costs([fitting.bag.pitching_wedge, fitting.bag.nine_iron])
    favourite = recommendation.problem.rules.favourite
    found = []
    for step in recommendation.steps:
        heads = bag_heads(fitting) if step.kind == "bag" else [recommendation.candidates[i].head for i in step.picks]
        found.append(strokes_of(sheet, sheet.costs(heads), above, favourite))
    return np.array(found)


def _step_doubt(gains: Floats) -> StepDoubt:
    low, high = np.percentile(gains, INTERVAL)
    return StepDoubt(float(low), float(high), float(np.mean(gains > 0.0)))


def _shares(recommendation: Recommendation, field: Field, level: NDArray[np.bool_]) -> tuple[ClubShare, ...]:
    """Survival of every club of the shown set: its head in some set that is level with the best."""
    found = []
    for slot, pick in enumerate(recommendation.picks):
        code = recommendation.candidates[pick].stock.code
        mine = [n for n in field.eligible if any(recommendation.candidates[i].stock.code == code for i in field.picks[n])]
        found.append(ClubShare(slot, code, float(level[:, mine].any(axis=1).mean()) if mine else 0.0))
    return tuple(found)
