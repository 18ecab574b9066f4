"""Where strokes go, and whose they are: the club's part and the player's, situation by situation.
docs/models/strokes.md, 7.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from oblatus.core.clubs import Head
from oblatus.core.delivery import Estimate, Habit, Player
from oblatus.core.fitting.asked import Costs
from oblatus.core.fitting.costs import Sheet
from oblatus.core.fitting.fitting import Fitting, carry_model_of, faced_of
from oblatus.core.fitting.judge import StrokesJudge
from oblatus.core.fitting.recommend import ABOVE
from oblatus.core.fitting.recommendation import Recommendation
from oblatus.core.fitting.scenarios import Scenario, build_scenarios
from oblatus.core.shots import BY_KEY
from oblatus.core.strokes import PINS, Scatter
from oblatus.core.words import metres, metres_span

Floats = NDArray[np.float64]

BANDS = (0.0, 60.0, 100.0, 1e9)
SCRATCH = 0.0
SCRATCH_SPREADS = (1.0, 1.2, 0.008)
"""Spread of attack and lean [degrees] and entry [m] of a scratch player (judgement)."""
HALF = 0.5
LEAST = 0.005
DRILLS = {"entry": "line in the grass", "lean": "handle check", "speed": "clock ladder"}
SAND_DRILL = "box in the sand"


@dataclass(frozen=True, slots=True)
class Leak:
    """Strokes a round that a situation costs over a scratch player with the best tool.

    `won` is what the shown set wins there over today's bag; `club_part` what the best head for it could still win as this
    player swings; `player_part` the rest, and what halving the spread of entry, of lean, of speed would win of it, each
    alone. `served_by` names the club at each pin.
    """

    key: str
    name: str
    grounds: tuple[str, ...]
    share: float
    strokes: float
    won: float
    club_part: float
    player_part: float
    halving: dict[str, float]
    served_by: dict[str, str]

    @property
    def drill(self) -> str | None:
        """The drill for what practice would win most of; None where it wins next to nothing."""
        lever = max(self.halving, key=lambda name: self.halving[name])
        if self.halving[lever] < LEAST:
            return None
        in_sand = self.key in BY_KEY and BY_KEY[self.key].kind == "sand"
        return SAND_DRILL if lever == "entry" and in_sand else DRILLS[lever]


def leaks_of(recommendation: Recommendation, judge: StrokesJudge) -> tuple[Leak, ...]:
    """The leaks of the shown set, largest first."""
    sheet = recommendation.sheet
    weights = sheet.weights
    mine, who = _strokes(recommendation, sheet, recommendation_costs(recommendation))
    bag, _ = _strokes(recommendation, sheet, recommendation.bag_costs)
    every = np.concatenate([recommendation.costs.strokes, recommendation.bag_costs.strokes, recommendation.above.strokes])
    best = np.minimum(every.min(axis=0), mine)
    scratch = np.minimum(_scratch(recommendation, judge), best)
    halved = {name: mine - _halved(recommendation, judge, name, who) for name in DRILLS}
    names = _names(recommendation)
    found = []
    for key, name, columns in _groups(recommendation):
        w = weights[columns]
        total = float((mine - scratch)[columns] @ w)
        club = float((mine - best)[columns] @ w)
        found.append(
            Leak(
                key, name, tuple(dict.fromkeys(recommendation.columns[c].ground for c in columns)),
                float(w.sum() / weights.sum()), total, float((bag - mine)[columns] @ w), club, total - club,
                {lever: max(float(gain[columns] @ w), 0.0) for lever, gain in halved.items()},
                _served(recommendation, columns, who, names, key.startswith("approach")),
            )
        )  # fmt: skip
    return tuple(sorted(found, key=lambda leak: -leak.strokes))


def recommendation_costs(recommendation: Recommendation) -> Costs:
    """Costs of the clubs of the shown set; today's bag where that is what is shown and no candidates stand for it."""
    if recommendation.steps[recommendation.taken].kind == "bag":
        return recommendation.bag_costs
    return recommendation.costs.of(recommendation.picks)


def _strokes(recommendation: Recommendation, sheet: Sheet, mine: Costs) -> tuple[Floats, NDArray[np.int64]]:
    """The model's strokes of a set in every column, and the row that serves it (the clubs above come last)."""
    cost = np.concatenate([mine.cost, recommendation.above.cost])
    strokes = np.concatenate([mine.strokes, recommendation.above.strokes])
    who = cost.argmin(axis=0)
    if recommendation.problem.rules.favourite and len(mine.cost):
        short = sheet.is_short
        who = np.where(short, int((mine.cost[:, short] @ sheet.weights[short]).argmin()), who)
    return strokes[who, np.arange(len(who))], who


def _scratch(recommendation: Recommendation, judge: StrokesJudge) -> Floats:
    """Strokes of a scratch player with the best of the rack as it stands, and of the clubs above, in every column."""
    fitting = recommendation.fitting
    usual, spreads = Habit(), SCRATCH_SPREADS
    habit = replace(
        usual,
        attack_deg=Estimate(usual.attack_deg.mean, spreads[0]),
        lean_deg=Estimate(usual.lean_deg.mean, spreads[1]),
        entry=Estimate(usual.entry.mean, spreads[2]),
    )
    player = Player(
        habit, SCRATCH, fitting.player.pitching_wedge_carry, fitting.player.pitching_wedge_speed,
        shot_mix=fitting.player.shot_mix,
    )  # fmt: skip
    other = replace(fitting, player=player, strikes=())
    model = carry_model_of(other)
    asked = replace(recommendation.sheet.asked, player=player, model=model, scatter=Scatter.usual(SCRATCH))
    # apart, so that the short shots' sheet is the same whatever changes in the player
    short = judge.sheet(
        replace(asked, short=_same_short(recommendation, other), approaches=(), faced=faced_of(other, model))
    )
    approaches = judge.sheet(replace(asked, short=()))
    heads = [fitting.bag.pitching_wedge, fitting.bag.nine_iron, *(item.head for item in fitting.stock if item.stock > 0)]
    return np.concatenate([sheet.costs(heads).strokes.min(axis=0) for sheet in (short, approaches)])


def _same_short(recommendation: Recommendation, other: Fitting) -> tuple[Scenario, ...]:
    """The short scenarios of the fitting, set up as another player would."""
    scenarios = {s.key: s for s in build_scenarios(other.player, other.grounds, other.layouts)}
    return tuple(scenarios.get(mine.key, mine) for mine in recommendation.sheet.short)


def _halved(recommendation: Recommendation, judge: StrokesJudge, lever: str, who: NDArray[np.int64]) -> Floats:
    """Strokes of the set in every column when one spread is half of what it is, the same clubs serving."""
    fitting = recommendation.fitting
    habit, scatter = fitting.player.habit, recommendation.sheet.asked.scatter
    if lever == "entry":
        habit = replace(habit, entry=replace(habit.entry, spread=HALF * habit.entry.spread))
    elif lever == "lean":
        habit = replace(habit, lean_deg=replace(habit.lean_deg, spread=HALF * habit.lean_deg.spread))
    else:
        scatter = replace(scatter, speed=HALF * scatter.speed, stock_speed=HALF * scatter.stock_speed)
    player = replace(fitting.player, habit=habit)
    sheet = judge.sheet(replace(recommendation.sheet.asked, player=player, scatter=scatter))
    return sheet.served(_heads(recommendation), who)


def _heads(recommendation: Recommendation) -> list[Head]:
    bag = recommendation.fitting.bag
    if recommendation.steps[recommendation.taken].kind == "bag":
        mine = [item.head for item in recommendation.fitting.stock if item.owned]
    else:
        mine = [recommendation.candidates[i].head for i in recommendation.picks]
    return [*mine, bag.pitching_wedge, bag.nine_iron]


def _names(recommendation: Recommendation) -> list[str]:
    """Names of the clubs in the order of the rows."""
    if recommendation.steps[recommendation.taken].kind == "bag":
        mine = [item.name for item in recommendation.fitting.stock if item.owned]
    else:
        mine = [recommendation.candidates[i].stock.name for i in recommendation.picks]
    return [*mine, *ABOVE]


def _groups(recommendation: Recommendation) -> list[tuple[str, str, list[int]]]:
    """Columns by shot, approaches by stretches of distance."""
    found: dict[str, tuple[str, list[int]]] = {}
    for c, column in enumerate(recommendation.columns):
        if column.scenario is not None:
            key, name = column.scenario.shot.key, column.scenario.shot.name
        else:
            band = int(np.searchsorted(BANDS, column.distance, side="right")) - 1
            key, name = APPROACHES[band]
        found.setdefault(key, (name, []))[1].append(c)
    return [(key, name, columns) for key, (name, columns) in found.items()]


APPROACHES = (
    ("approach_short", f"approaches to {metres(BANDS[1])}"),
    ("approach_middle", f"approaches {metres_span(BANDS[1], BANDS[2])}"),
    ("approach_long", f"approaches over {metres(BANDS[2])}"),
)


def _served(
    recommendation: Recommendation, columns: Sequence[int], who: NDArray[np.int64], names: Sequence[str], far: bool
) -> dict[str, str]:
    """The club that serves most of the weight at each pin; an approach has one hole, so that one club stands for all."""
    found: dict[str, str] = {}
    for pin in PINS:
        here = [c for c in columns if far or recommendation.columns[c].pin == pin.name]
        weight: dict[int, float] = {}
        for c in here:
            weight[int(who[c])] = weight.get(int(who[c]), 0.0) + float(recommendation.sheet.weights[c])
        found[pin.name] = names[max(weight, key=lambda row: weight[row])]
    return found
