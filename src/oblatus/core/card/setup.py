"""How to play each lie: the club and the setup that the search chose, with what a player can see and do.

docs/models/setup.md
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from oblatus.core.clubs import Head
from oblatus.core.delivery import Habit, Schools, Swing
from oblatus.core.figures import figures
from oblatus.core.fitting.costs import Sheet
from oblatus.core.fitting.desk import Spreads, at_desk, shares_at_desk
from oblatus.core.fitting.fitting import Fitting, carry_model_of
from oblatus.core.fitting.judge import StrokesJudge
from oblatus.core.fitting.proving import MIDDLE, clean_flight
from oblatus.core.fitting.recommend import ABOVE, sheet_for
from oblatus.core.fitting.scenarios import Scenario, Setup, build_scenarios
from oblatus.core.gapping import CarryModel
from oblatus.core.geometry import deliver
from oblatus.core.strike.families import FamilyPool
from oblatus.core.strike.risk import Risk, weight_of
from oblatus.core.strokes import PINS

Floats = NDArray[np.float64]

CLUB_LENGTH = 0.89
"""A wedge along the shaft [m]: 35 in."""
HANDS_AHEAD = 0.05
"""Hands hang so far on the target's side of the middle of the stance, at address and at impact [m] (judgement)."""
HANDS_DOUBT = 0.03
"""How far they do so from player to player [m] (judgement): the doubt of the ball's place."""
MOST_BALL = 0.16
"""Half a stance: farther from the middle no ball is played [m]."""
WEIGHT, WEIGHT_PER_ATTACK, WEIGHT_PER_LEAN = 0.55, 0.02, 0.01
"""Share of the weight on the lead foot at an attack of -4 and a lean of 4 degrees, and what a degree steeper, a degree
more lean add (judgement)."""
LEAST_WEIGHT, MOST_WEIGHT = 0.50, 0.80
NEUTRAL_ATTACK_DEG, NEUTRAL_LEAN_DEG = -4.0, 4.0
START_SHARE = 1.0 / 3.0
"""The ball starts about a third as far to the side as the face points (bench rule); the stance opens by so much."""
STANCES = ((7.5, 0.10), (9.0, 0.18), (10.5, 0.28), (12.0, 0.38))
"""Between the heels [m] up to a length of swing [hours] (judgement)."""
NAMED_DEG = 1.0
"""A change of lean or attack from the player's habit is named from here."""
SAFER_BY = 0.05
"""The safer shot is named if its weighed chance of a bad miss is so much smaller."""
OPEN_FACE_DEG = 10.0
LEAST_SPEED = figures(Swing)["speed_mps"].bound.low


@dataclass(frozen=True, slots=True)
class Tool:
    """A club to play with: code, name, and its head as it is built."""

    code: str
    name: str
    head: Head


@dataclass(frozen=True, slots=True)
class Safer:
    """A shot with a smaller chance of a bad miss: club, opening [degrees], strokes, risk."""

    tool: Tool
    opening_deg: float
    strokes: float
    risk: Risk


@dataclass(frozen=True, slots=True)
class LieCard:
    """How to play one shot on one ground, hole in the middle of the green.

    `ball` [m] from the middle of the stance, towards the target positive, within `ball_doubt`; `weight` share on the lead
    foot; `stance` [m] between the heels, `stance_open_deg` to the target's near side; `hours` length of the swing by the
    lead arm, 9.0 level; `carry`, `run` [m] of a clean strike; `lean_change_deg`, `attack_change_deg` from the player's
    habit; `strokes` to hole out, this one counted.
    """

    scenario: Scenario
    tool: Tool
    setup: Setup
    speed: float
    carry: float
    run: float
    ball: float
    ball_doubt: float
    weight: float
    stance: float
    stance_open_deg: float
    hours: float
    lean_change_deg: float
    attack_change_deg: float
    finish: str
    strokes: float
    risk: Risk
    safer: Safer | None

    @property
    def on_green(self) -> float:
        """How far onto the green the ball lands [m]; negative short of its front edge."""
        return self.carry - self.scenario.layout.edge


def lie_cards(
    fitting: Fitting, tools: Sequence[Tool], judge: StrokesJudge, scenarios: Sequence[Scenario] | None = None
) -> tuple[LieCard, ...]:
    """Every short shot that this player faces, with the club and setup that cost least, most frequent first.

    The clubs are the given ones with pitching wedge and nine-iron; what was proved of a head counts. `scenarios`, if
    given, stand in for the player's own: with other setups to choose from.
    """
    model = carry_model_of(fitting)
    every_shot = build_scenarios(fitting.player, fitting.grounds, fitting.layouts) if scenarios is None else scenarios
    sheet = sheet_for(fitting, judge, every_shot, model)
    every = [*tools, Tool("pw", ABOVE[0], fitting.bag.pitching_wedge), Tool("9i", ABOVE[1], fitting.bag.nine_iron)]
    costs = sheet.costs([tool.head for tool in every])
    who = _who(fitting, sheet, costs.cost, len(tools))
    found = []
    for n, scenario in enumerate(sheet.short):
        column = n * len(PINS) + MIDDLE
        tool = every[int(who[n])]
        chosen = int(costs.pick[who[n], column])
        found.append(
            _card(
                fitting, model, sheet, n, scenario, tool, chosen, float(costs.strokes[who[n], column]), judge.pool, every
            )
        )
    return tuple(sorted(found, key=lambda card: -card.scenario.share))


def _who(fitting: Fitting, sheet: Sheet, cost: Floats, tools: int) -> NDArray[np.int64]:
    """The club for the middle pin of every short scenario; one favourite wedge where the schools say so."""
    middles = [n * len(PINS) + MIDDLE for n in range(len(sheet.short))]
    who = cost[:, middles].argmin(axis=0)
    if fitting.player.schools.clubs == "favourite" and tools:
        short = sheet.is_short
        who[:] = int((cost[:tools][:, short] @ sheet.weights[short]).argmin())
    return np.asarray(who)


def _card(
    fitting: Fitting, model: CarryModel, sheet: Sheet, place: int, scenario: Scenario, tool: Tool, chosen: int,
    strokes: float, pool: FamilyPool, every: Sequence[Tool],
) -> LieCard:  # fmt: skip
    habit, setup = fitting.player.habit, scenario.setups[chosen]
    speed = sheet.speeds(tool.head)[place][chosen]
    carry, run = clean_flight(tool.head, setup, speed, scenario)
    risk = _risk(tool.head, setup, speed, scenario, habit, pool)
    hours = hours_of(model, tool.head.loft_deg, speed)
    face = deliver(tool.head, setup.lean_deg, setup.opening_deg).face_direction_deg
    return LieCard(
        scenario, tool, setup, speed, carry, run, ball_place(setup, habit), HANDS_DOUBT, weight_on(setup),
        stance_of(hours), START_SHARE * face, hours, setup.lean_deg - habit.lean_deg.mean,
        setup.attack_deg - habit.attack_deg.mean, finish_words(setup, fitting.player.schools), strokes, risk,
        None if risk.light == "clear" else _safer(sheet, place, scenario, habit, pool, every, risk),
    )  # fmt: skip


def ball_place(setup: Setup, habit: Habit) -> float:
    """Where the ball lies from the middle of the stance [m], towards the target positive.

    The hands hang `HANDS_AHEAD` of the middle, the shaft leans from them to the ball: a club of 35 in puts it
    L sin(lean) behind them. What the sole is to land behind or ahead of the habit moves the ball the other way: the arc
    stays where the body is. Judgement.
    """
    place = HANDS_AHEAD - CLUB_LENGTH * math.sin(math.radians(setup.lean_deg)) + habit.entry.mean - setup.entry
    return min(max(place, -MOST_BALL), MOST_BALL)


def weight_on(setup: Setup) -> float:
    """Share of the weight on the lead foot: more for a steeper attack and for more lean. Judgement."""
    steeper = NEUTRAL_ATTACK_DEG - setup.attack_deg
    found = WEIGHT + WEIGHT_PER_ATTACK * steeper + WEIGHT_PER_LEAN * (setup.lean_deg - NEUTRAL_LEAN_DEG)
    return min(max(found, LEAST_WEIGHT), MOST_WEIGHT)


def hours_of(model: CarryModel, loft_deg: float, speed: float) -> float:
    """Length of the swing by the lead arm [hours] for a head speed [m/s]: straight lines between no swing at 6, this
    player's own clock swings and the full swing at 12.
    """
    share = speed / float(model.full_speeds([loft_deg])[0])
    known = {"900": 9.0, "1030": 10.5, "full": 12.0}
    points = sorted((swing.speed_share, known[swing.key]) for swing in model.swings if swing.key in known)
    return float(np.interp(share, [0.0, *(s for s, _ in points)], [6.0, *(h for _, h in points)]))


def stance_of(hours: float) -> float:
    """Between the heels [m] for a length of swing."""
    return next((width for upto, width in STANCES if hours <= upto), STANCES[-1][1])


def finish_words(setup: Setup, schools: Schools) -> str:
    """What to look at when the ball is gone."""
    if setup.opening_deg >= OPEN_FACE_DEG:
        return "the face looks at the sky"
    if schools.hands == "quiet":
        return "the grip end points at the belt"
    if schools.hands == "free":
        return "the head has passed the hands"
    if setup.lean_deg >= NEUTRAL_LEAN_DEG + 2.0:
        return "the hands are still ahead of the head"
    return "the handle is level with the belt, the chest faces the flag"


def _swing(setup: Setup, speed: float) -> Swing:
    speed = max(speed, LEAST_SPEED)
    return Swing(setup.opening_deg, setup.lean_deg, setup.attack_deg, speed, setup.release, setup.entry)


def _spreads(habit: Habit) -> Spreads:
    return Spreads(habit.attack_deg.spread, habit.lean_deg.spread, habit.entry.spread)


def _risk(head: Head, setup: Setup, speed: float, scenario: Scenario, habit: Habit, pool: FamilyPool) -> Risk:
    return at_desk([head], _swing(setup, speed), scenario.surface, _spreads(habit), pool).heads[0].risk


def _safer(
    sheet: Sheet, place: int, scenario: Scenario, habit: Habit, pool: FamilyPool, every: Sequence[Tool], risk: Risk
) -> Safer | None:
    """The shot with the smallest chance of a bad miss, if that is clearly smaller; opened or not, with whichever club."""
    strokes = sheet.short_strokes([tool.head for tool in every])
    tried = [(n, j, speed) for n, tool in enumerate(every) for j, speed in enumerate(sheet.speeds(tool.head)[place])]
    heads = [every[n].head for n, _, _ in tried]
    swings = [_swing(scenario.setups[j], speed) for _, j, speed in tried]
    shares = shares_at_desk(heads, swings, scenario.surface, _spreads(habit), pool)
    weights = [weight_of(mine, head.loft_deg) for mine, head in zip(shares, heads, strict=True)]
    least = int(np.argmin(weights))
    if weights[least] >= risk.weight - SAFER_BY:
        return None
    n, j, speed = tried[least]
    setup = scenario.setups[j]
    found = _risk(every[n].head, setup, speed, scenario, habit, pool)
    return Safer(every[n], setup.opening_deg, float(strokes[n, place, j, MIDDLE]), found)


BALL = 0.043
"""A ball's width, by which places in the stance are told [m]."""


def ball_words(ball: float) -> str:
    """Where the ball lies, in ball widths from the middle of the stance."""
    halves = round(2.0 * ball / BALL)
    if abs(halves) < 1:
        return "middle of the stance"
    count = abs(halves) / 2.0
    width = "half a ball" if count == 0.5 else "a ball" if count == 1.0 else f"{count:g} balls"
    return f"{width} {'ahead' if halves > 0 else 'back'} of the middle"


def clock_words(hours: float) -> str:
    """The swing by the lead arm, back and through, to the half hour: 8:30 to 3:30."""
    half = round(2.0 * hours)
    if half >= 24:
        return "full"
    back, through = half / 2.0, 12.0 - half / 2.0

    def told(hour: float) -> str:
        whole = int(hour) or 12
        return f"{whole}:{'30' if hour % 1.0 else '00'}"

    return f"{told(back)} to {told(through)}"


def lean_words(change_deg: float) -> str:
    """A lean beside the player's own, named as a change."""
    if abs(change_deg) < NAMED_DEG:
        return "your own lean"
    return f"{abs(change_deg):.0f}° {'more' if change_deg > 0 else 'less'} lean than you do"


def opened_words(opening_deg: float) -> str:
    """How the face lies."""
    if abs(opening_deg) < NAMED_DEG:
        return "square"
    return f"{abs(opening_deg):.0f}° {'open' if opening_deg > 0 else 'closed'}"


def cautions_of(scenario: Scenario, risk: Risk) -> tuple[str, ...]:
    """Rules and cautions that belong to a shot."""
    found = []
    if scenario.shot.kind == "sand":
        found.append("The club does not touch the sand before the stroke; the rules in force and the course decide.")
    if risk.light != "clear" or scenario.shot.kind == "sand":
        found.append("A thin one flies far and flat: nobody stands in the whole line.")
    return tuple(found)
