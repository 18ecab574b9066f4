"""Other ground for some days: as you are, the setup first, then one other club. docs/models/log.md, 5."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from oblatus.core.card.setup import Tool
from oblatus.core.clubs import StockHead
from oblatus.core.fitting.costs import Sheet
from oblatus.core.fitting.fitting import Fitting, carry_model_of, check_fitting
from oblatus.core.fitting.judge import StrokesJudge, judge_of_laws
from oblatus.core.fitting.laws import Law, draw_laws
from oblatus.core.fitting.proved import shifts_of
from oblatus.core.fitting.recommend import ABOVE, sheet_for
from oblatus.core.fitting.scenarios import Scenario, Setup, build_scenarios
from oblatus.core.grounds import Ground
from oblatus.core.strokes import PINS
from oblatus.errors import fault

Floats = NDArray[np.float64]

LEAN_STEPS_DEG, ENTRY_STEPS = (-3.0, 3.0), (-0.012, 0.012)
"""Changes of lean [degrees] and of where the sole lands, by the ball's place [m], that are looked at."""
LEAST_CHANGE = 0.005
"""A change of setup is named from so many strokes a round."""
SETUP_SHARE = 2.0 / 3.0
"""The setup is advised where it brings so much of what a club would."""
DRAWS, SEED = 400, 23
PIN_WEIGHTS = np.array([pin.weight for pin in PINS])
Advice = Literal["setup", "club", "both", "none"]


@dataclass(frozen=True, slots=True)
class SetupChange:
    """How a shot is to be played there instead: with which club and setup, what changes from home, and what it wins.

    `spreads` is the largest change of lean or entry in this player's own spreads: beyond two nobody does it at will.
    """

    scenario: Scenario
    tool: Tool
    before: Tool
    setup: Setup
    lean_change_deg: float
    opening_change_deg: float
    entry_change: float
    spreads: float
    gain: float


@dataclass(frozen=True, slots=True)
class Doubt:
    """A gain in 8 of 10 draws of the laws and of how far claims come true, and the share of draws above zero."""

    low: float
    high: float
    better: float


@dataclass(frozen=True, slots=True)
class TripAnswer:
    """Strokes a round there, and what changes win.

    `bought` is the head borrowed or bought, `left_out` the club it stands for, None where there was room; both None where
    no head on the rack wins anything. `setup_gain_home`: what setups of one's own choice would win at home, too. Doubts
    None: not drawn.
    """

    grounds: tuple[Ground, ...]
    as_is: float
    at_home: float
    changes: tuple[SetupChange, ...]
    setup_gain: float
    bought: StockHead | None
    left_out: Tool | None
    club_gain: float
    both_gain: float
    advice: Advice
    setup_gain_home: float = 0.0
    setup_doubt: Doubt | None = None
    club_doubt: Doubt | None = None
    both_doubt: Doubt | None = None


@dataclass(frozen=True, slots=True, eq=False)
class _Way:
    """One way to play every short scenario: row of the club, and the setup."""

    club: NDArray[np.int64]
    setups: tuple[Setup, ...]


def trip_answer(
    fitting: Fitting, tools: Sequence[Tool], grounds: Sequence[Ground], judge: StrokesJudge, *, doubt: bool = False
) -> TripAnswer:
    """What a set does on other ground, and what to change first.

    Parameters
    ----------
    fitting : player, home grounds, rack
    tools : the wedges in the bag
    grounds : the mix there, shares sum 1
    doubt : draw the laws too

    Raises
    ------
    InputError
        If no ground has a share, or there is no wedge to take along.
    """
    if not tools:
        raise fault("bag.wedges", "there is no wedge to take along")
    if not any(ground.share > 0.0 for ground in grounds):
        raise fault("grounds", "at least one ground needs a share of the golf")
    check_fitting(fitting)
    return _Trip(fitting, tools, grounds, judge).answer(doubt=doubt)


class _Trip:
    def __init__(self, fitting: Fitting, tools: Sequence[Tool], grounds: Sequence[Ground], judge: StrokesJudge) -> None:
        self.home, self.judge, self.of_laws = fitting, judge, judge_of_laws()
        self.away = replace(fitting, grounds=tuple(grounds))
        self.model = carry_model_of(fitting)
        bag = fitting.bag
        above = (Tool("pw", ABOVE[0], bag.pitching_wedge), Tool("9i", ABOVE[1], bag.nine_iron))
        self.wedges, self.tools = len(tools), (*tools, *above)
        self.favourite = fitting.player.schools.clubs == "favourite"
        self.scenarios = build_scenarios(fitting.player, grounds, fitting.layouts)
        self.short = [s for s in self.scenarios if s.shot.kind != "full"]
        self.usual = self._sheet(self.scenarios)
        self.weights = self.usual.weights[: len(self.short) * len(PINS)].reshape(-1, len(PINS)).sum(axis=1)
        self.far_weights = self.usual.weights[len(self.short) * len(PINS) :]

    def answer(self, *, doubt: bool) -> TripAnswer:
        own = self._as_at_home()
        mine = self._of_way(own, self.tools)
        best = self._best(self.tools, own, mine)
        changes = self._changes(own, best, mine)
        setup = self._with(own, changes)
        far = self._far(self.tools)
        at_home = _Trip(self.home, self.tools[: self.wedges], self.home.grounds, self.judge)
        as_is, strokes_home, gain_home = self._sum(mine, far), *at_home.as_is_and_setup()
        setup_gain = sum(change.gain for change in changes)
        bought, left_out, club_tools, club_way = self._club(own, mine, as_is)
        club_gain = both_gain = 0.0
        both = setup
        both_tools: Sequence[Tool] = self.tools
        if bought is not None:
            club_far = self._far(club_tools)
            club_mine = self._of_way(club_way, club_tools)
            club_gain = as_is - self._sum(club_mine, club_far)
            both_changes = self._changes(club_way, self._best(club_tools, club_way, club_mine), club_mine, club_tools)
            both_gain = club_gain + sum(change.gain for change in both_changes)
            if both_gain > setup_gain:
                both, both_tools = self._with(club_way, both_changes), club_tools
        both_gain = max(both_gain, setup_gain)
        found = TripAnswer(
            self.away.grounds, as_is, strokes_home, tuple(sorted(changes, key=lambda one: -one.gain)), setup_gain, bought,
            left_out, club_gain, both_gain,
            advised(setup_gain, club_gain, both_gain, self.home.economy.worth_changing), gain_home,
        )  # fmt: skip
        if not doubt:
            return found
        ways = [(own, self.tools), (setup, self.tools), (club_way, club_tools), (both, both_tools)]
        drawn = np.array([self._drawn(law, ways) for law in draw_laws()])
        gains = drawn[:, :1] - drawn[:, 1:]
        return replace(
            found,
            setup_doubt=self._doubt(gains[:, 0]),
            club_doubt=None if bought is None else self._doubt(gains[:, 1]),
            both_doubt=None if bought is None else self._doubt(gains[:, 2]),
        )

    def as_is_and_setup(self) -> tuple[float, float]:
        """Strokes a round as the player is, and what other setups win."""
        own = self._as_at_home()
        mine = self._of_way(own, self.tools)
        changes = self._changes(own, self._best(self.tools, own, mine), mine)
        return self._sum(mine, self._far(self.tools)), sum(change.gain for change in changes)

    def _sheet(self, scenarios: Sequence[Scenario], law: Law | None = None) -> Sheet:
        return sheet_for(self.away, self.judge if law is None else self.of_laws, scenarios, self.model, law)

    def _variants(self) -> list[tuple[Sheet, list[tuple[Setup, ...]]]]:
        """Sheets of every change of setup that is looked at: the face square, half or all the way open, with each lean
        and each place of the ball."""
        found = []
        steps = [(0.0, 0.0), *((lean, 0.0) for lean in LEAN_STEPS_DEG), *((0.0, entry) for entry in ENTRY_STEPS)]
        for lean, entry in steps:
            moved = [replace(s, setups=tuple(_moved(setup, lean, entry) for setup in s.setups)) for s in self.short]
            sheet = self._sheet(moved) if (lean, entry) != (0.0, 0.0) else self.usual
            found.append((sheet, [s.setups for s in moved]))
        return found

    def _as_at_home(self) -> _Way:
        """Club and setup of every shot as the player plays it at home; the usual setup with the best club there where
        nobody meets the shot at home. Who plays every short shot with one wedge takes that one along."""
        scenarios = build_scenarios(self.home.player, self.home.grounds, self.home.layouts)
        sheet = sheet_for(self.home, self.judge, scenarios, self.model)
        cost = _cost(sheet, self.tools)
        if self.favourite:
            weights = sheet.weights[: len(sheet.short) * len(PINS)].reshape(-1, len(PINS)).sum(axis=1)
            alone = int((cost[: self.wedges].min(axis=2) @ weights).argmin())
        here: dict[str, int] = {}
        for n, scenario in enumerate(sheet.short):
            known = here.get(scenario.shot.key)
            if known is None or scenario.share > sheet.short[known].share:
                here[scenario.shot.key] = n
        away = _cost(self.usual, self.tools)
        clubs, setups = [], []
        for n, scenario in enumerate(self.short):
            at = here.get(scenario.shot.key)
            if at is not None:
                club, setup = divmod(int(cost[:, at].argmin()), cost.shape[2])
                if self.favourite:
                    club, setup = alone, int(cost[alone, at].argmin())
                setups.append(sheet.short[at].setups[setup])
            else:
                club = alone if self.favourite else int(away[:, n, : len(scenario.setups)].min(axis=1).argmin())
                setups.append(scenario.setup)
            clubs.append(club)
        return _Way(np.array(clubs, dtype=np.int64), tuple(setups))

    def _of_way(self, way: _Way, tools: Sequence[Tool], law: Law | None = None) -> tuple[Floats, Floats]:
        """Cost and the model's strokes of every short scenario (scenarios,), played a given way."""
        if not self.short:
            return np.zeros(0), np.zeros(0)
        fixed = [replace(s, setups=(setup,)) for s, setup in zip(self.short, way.setups, strict=True)]
        sheet, every = self._sheet(fixed, law), np.arange(len(fixed))
        cost, strokes = _cost(sheet, tools), _strokes(sheet, tools)
        return cost[way.club, every, 0], strokes[way.club, every, 0]

    def _best(
        self, tools: Sequence[Tool], own: _Way, mine: tuple[Floats, Floats]
    ) -> list[tuple[int, Setup, float, float]]:
        """Of every scenario the club and setup that cost least, with cost and strokes; the own way where nothing beats
        it. A favourite club stays."""
        found = [
            (int(club), setup, float(cost), float(strokes))
            for club, setup, cost, strokes in zip(own.club, own.setups, *mine, strict=True)
        ]
        for sheet, setups in self._variants():
            cost, strokes = _cost(sheet, tools), _strokes(sheet, tools)
            for n, some in enumerate(setups):
                clubs = [int(own.club[n])] if self.favourite else list(range(len(tools)))
                here = cost[clubs, n, : len(some)]
                row, j = divmod(int(here.argmin()), here.shape[1])
                if here[row, j] < found[n][2] - 1e-9:
                    club = clubs[row]
                    found[n] = (club, some[j], float(here[row, j]), float(strokes[club, n, j]))
        return found

    def _changes(
        self, own: _Way, best: list[tuple[int, Setup, float, float]], mine: tuple[Floats, Floats],
        tools: Sequence[Tool] | None = None,
    ) -> list[SetupChange]:  # fmt: skip
        """The changes that win something worth naming."""
        tools = self.tools if tools is None else tools
        habit, found = self.home.player.habit, []
        for n, (club, setup, _, strokes) in enumerate(best):
            gain = float(self.weights[n] * (mine[1][n] - strokes))
            if gain < LEAST_CHANGE:
                continue
            was = own.setups[n]
            lean, entry = setup.lean_deg - was.lean_deg, setup.entry - was.entry
            spreads = max(abs(lean) / max(habit.lean_deg.spread, 0.1), abs(entry) / max(habit.entry.spread, 0.001))
            found.append(
                SetupChange(
                    self.short[n], tools[club], tools[int(own.club[n])], setup, lean, setup.opening_deg - was.opening_deg,
                    entry, spreads, gain,
                )
            )  # fmt: skip
        return found

    def _with(self, own: _Way, changes: Sequence[SetupChange]) -> _Way:
        clubs, setups = own.club.copy(), list(own.setups)
        every = {tool.code: n for n, tool in enumerate(self.tools)}
        for change in changes:
            n = self.short.index(change.scenario)
            clubs[n] = every.get(change.tool.code, len(self.tools))
            setups[n] = change.setup
        return _Way(clubs, tuple(setups))

    def _far(self, tools: Sequence[Tool], sheet: Sheet | None = None) -> Floats:
        """Strokes of every approach (columns,) with the best of the clubs in the bag."""
        columns = len(self.short) * len(PINS)
        costs = (self.usual if sheet is None else sheet).costs([tool.head for tool in tools])
        return np.asarray(costs.strokes[:, columns:].min(axis=0))

    def _sum(self, mine: tuple[Floats, Floats], far: Floats) -> float:
        return float(self.weights @ mine[1] + self.far_weights @ far)

    def _club(
        self, own: _Way, mine: tuple[Floats, Floats], as_is: float
    ) -> tuple[StockHead | None, Tool | None, Sequence[Tool], _Way]:
        """The one head of the rack that wins most in the place of a wedge, or beside them where there is room. Beside a
        favourite club it serves approaches alone, unless it is the better favourite."""
        heads = [item for item in self.home.stock if not item.owned and item.stock > 0]
        room = self.wedges < self.home.bag.wedge_room
        places: list[int | None] = [*range(self.wedges), *([None] if room else [])]
        if not heads:
            return None, None, self.tools, own
        every = [*self.tools, *(Tool(item.code, item.name, item.head) for item in heads)]
        cost, strokes = _cost(self.usual, every), _strokes(self.usual, every)
        for n, scenario in enumerate(self.short):
            cost[:, n, len(scenario.setups) :] = np.inf
        pick = cost.argmin(axis=2)
        least = np.take_along_axis(cost, pick[:, :, None], axis=2)[:, :, 0]
        here = np.take_along_axis(strokes, pick[:, :, None], axis=2)[:, :, 0]
        columns = len(self.short) * len(PINS)
        far = self.usual.costs([tool.head for tool in every]).strokes[:, columns:]
        best: tuple[float, int, int | None, NDArray[np.int64]] | None = None
        for place in places:
            kept = [n for n in range(len(self.tools)) if n != place]
            others = self._takes(least[kept], sum(n < self.wedges for n in kept))
            gone = own.club == place if place is not None else np.zeros(len(own.club), dtype=bool)
            at = np.arange(len(own.club))
            base_cost = np.where(gone, least[kept][others, at], mine[0])
            base_club = np.where(gone, np.array(kept)[others], own.club)
            base_strokes = np.where(gone, here[base_club, at], mine[1])
            far_kept = far[kept].min(axis=0)
            for h in range(len(self.tools), len(every)):
                better = least[h] < base_cost
                if self.favourite:
                    better[:] = self.weights @ least[h] < self.weights @ base_cost
                total = float(
                    self.weights @ np.where(better, here[h], base_strokes)
                    + self.far_weights @ np.minimum(far_kept, far[h])
                )
                if best is None or total < best[0] - 1e-9:
                    best = (total, h, place, np.where(better, h, base_club))
        if best is None or as_is - best[0] < LEAST_CHANGE:
            return None, None, self.tools, own
        _, h, place, who = best
        tools = [*self.tools, every[h]]  # the one left out keeps its row, so that rows stay; it serves nothing
        rows = np.where(who == h, len(self.tools), who)
        setups = tuple(
            own.setups[n] if rows[n] == own.club[n] else self.short[n].setups[int(pick[who[n], n])]
            for n in range(len(self.short))
        )
        left_out = None if place is None else self.tools[place]
        if place is not None:
            tools[place] = every[h]
        return heads[h - len(self.tools)], left_out, tools, _Way(rows, setups)

    def _takes(self, least: Floats, wedges: int) -> NDArray[np.int64]:
        """Which club (clubs, scenarios), wedges first, is taken for every scenario (scenarios,)."""
        who = least.argmin(axis=0)
        if self.favourite and wedges:
            who[:] = int((least[:wedges] @ self.weights).argmin())
        return np.asarray(who)

    def _drawn(self, law: Law, ways: Sequence[tuple[_Way, Sequence[Tool]]]) -> list[float]:
        """Strokes a round of every way under other laws."""
        sheet = self._sheet(self.scenarios, law)
        return [self._sum(self._of_way(way, tools, law), self._far(tools, sheet)) for way, tools in ways]

    def _doubt(self, gains: Floats) -> Doubt:
        rng = np.random.default_rng(SEED)
        common = np.exp(self.home.economy.claims_sd * rng.standard_normal(DRAWS))
        drawn = gains[np.arange(DRAWS) % len(gains)] * common
        return Doubt(float(np.percentile(drawn, 10)), float(np.percentile(drawn, 90)), float((drawn > 0.0).mean()))


def setup_first(answer: TripAnswer) -> bool:
    """Whether the setup brings two thirds of what a club would."""
    return answer.setup_gain >= SETUP_SHARE * answer.club_gain


def advised(setup: float, club: float, both: float, worth: float) -> Advice:
    """Setup first: it is advised where it brings two thirds of what a club would; both where the second still wins what
    a change is worth; nothing below that."""
    if max(setup, club) < worth:
        return "none"
    first: Advice = "setup" if setup >= SETUP_SHARE * club else "club"
    return "both" if both - (setup if first == "setup" else club) >= worth else first


def _moved(setup: Setup, lean_deg: float, entry: float) -> Setup:
    return replace(
        setup, lean_deg=min(max(setup.lean_deg + lean_deg, -8.0), 18.0), entry=min(max(setup.entry + entry, -0.15), 0.04)
    )


def _strokes(sheet: Sheet, tools: Sequence[Tool]) -> Floats:
    """The model's strokes over the pins, what was proved counted in: (clubs, scenarios, setups)."""
    heads = [tool.head for tool in tools]
    shift = shifts_of(heads, sheet.short, sheet.asked.proved)
    return np.asarray(sheet.short_strokes(heads) @ PIN_WEIGHTS + shift[:, :, None])


def _cost(sheet: Sheet, tools: Sequence[Tool]) -> Floats:
    """Strokes with practice's: (clubs, scenarios, setups)."""
    return _strokes(sheet, tools) + sheet.practice([tool.head for tool in tools])
