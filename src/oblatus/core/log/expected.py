"""What the model expects of logged shots: strokes with each club, and how often it is struck cleanly."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from oblatus.core.card.setup import LEAST_SPEED, Tool
from oblatus.core.fitting.asked import BINS
from oblatus.core.fitting.desk import DESK_ENTRIES
from oblatus.core.fitting.fitting import Fitting, carry_model_of
from oblatus.core.fitting.judge import StrokesJudge
from oblatus.core.fitting.nodes import covariance_root, quadrature
from oblatus.core.fitting.proved import HeadShift
from oblatus.core.fitting.recommend import ABOVE, sheet_for
from oblatus.core.fitting.scenarios import build_scenarios
from oblatus.core.log.shots import APPROACH, LoggedShot, approach_layout, lie_before
from oblatus.core.strike import FamilyJob, _quality, ground_row
from oblatus.core.strike.single import OUTCOMES
from oblatus.core.strokes import PINS, Layout
from oblatus.core.strokes.table import TOUR_TABLE

Floats = NDArray[np.float64]

STRUCK_WELL = ("clean", "out", "short", "long")
"""Outcomes that a player calls neither heavy nor thin: a ball may be clean and the wrong length."""
PIN_WEIGHTS = np.array([pin.weight for pin in PINS])


@dataclass(frozen=True, slots=True)
class Expected:
    """What is expected of a shot.

    `strokes` with the club taken; `advised` with the club that the page named first, else the one that the model would
    take, `advised_club` its code; `best_club` that of the model; `clean` the
    chance that it is struck neither heavy nor thin, None where no family says it (approaches); `layout` where the hole
    is.
    """

    strokes: float
    advised: float
    advised_club: str
    best_club: str
    clean: float | None
    layout: Layout


class Expectations:
    """The model's word on shots of one player with the clubs that are in the bag; `tools` come with irons above them.

    What was proved counts, what an earlier log showed does not: it is the same shots that are looked at again.
    """

    def __init__(self, fitting: Fitting, tools: Sequence[Tool], judge: StrokesJudge, known: Sequence[HeadShift]) -> None:
        self.fitting, self.judge = replace(fitting, proved=tuple(known)), judge
        bag = fitting.bag
        self.tools = (*tools, Tool("pw", ABOVE[0], bag.pitching_wedge), Tool("9i", ABOVE[1], bag.nine_iron))
        self.codes = [tool.code for tool in self.tools]
        scenarios = build_scenarios(fitting.player, fitting.grounds, fitting.layouts)
        self.sheet = sheet_for(self.fitting, judge, scenarios, carry_model_of(fitting))
        self.costs = self.sheet.costs([tool.head for tool in self.tools])
        self.handicap = self.sheet.asked.handicap
        short = len(self.sheet.short) * len(PINS)
        n = len(self.tools)
        self._short = self.costs.strokes[:, :short].reshape(n, -1, len(PINS)) @ PIN_WEIGHTS
        self._short_cost = self.costs.cost[:, :short].reshape(n, -1, len(PINS)) @ PIN_WEIGHTS
        self._far = self.costs.strokes[:, short:].reshape(n, len(self.sheet.asked.approaches), BINS)
        self._middles, weights = self.sheet.asked.distances
        self._usual_approach = float(self._middles @ weights)

    def of(self, shots: Sequence[LoggedShot]) -> list[Expected | None]:
        """What is expected of every shot; None where the club is none of this bag or nobody faces the situation."""
        places = [self._place(shot) for shot in shots]
        wanted = {
            (place, self.codes.index(shot.club))
            for shot, place in zip(shots, places, strict=True)
            if place is not None and shot.club in self.codes and shot.situation != APPROACH
        }
        clean = self._clean(sorted(wanted))
        known: dict[tuple[object, ...], Expected] = {}  # most shots of a log are like others of it

        def one(shot: LoggedShot, place: int) -> Expected:
            key = (place, shot.situation, shot.distance, shot.club, shot.advised)
            if key not in known:
                known[key] = self._one(shot, place, clean)
            return known[key]

        return [
            None if place is None or shot.club not in self.codes else one(shot, place)
            for shot, place in zip(shots, places, strict=True)
        ]

    def _place(self, shot: LoggedShot) -> int | None:
        """The short scenario, or the ground of an approach; the most faced one where the ground is none of the mix."""
        if shot.situation == APPROACH:
            grounds = [ground for ground, _ in self.sheet.asked.approaches]
            shares = [share for _, share in self.sheet.asked.approaches]
            if not grounds:
                return None
            named = next((n for n, ground in enumerate(grounds) if ground.name == shot.ground), None)
            return int(np.argmax(shares)) if named is None else named
        here = [n for n, scenario in enumerate(self.sheet.short) if scenario.shot.key == shot.situation]
        if not here:
            return None
        named = next((n for n in here if self.sheet.short[n].ground.name == shot.ground), None)
        return max(here, key=lambda n: self.sheet.short[n].share) if named is None else named

    def _one(self, shot: LoggedShot, place: int, clean: dict[tuple[int, int], float]) -> Expected:
        club = self.codes.index(shot.club)
        if shot.situation == APPROACH:
            distance = self._usual_approach if shot.distance is None else shot.distance
            strokes = np.array([np.interp(distance, self._middles, row) for row in self._far[:, place]])
            # beyond the farthest bin the table says how much harder it gets
            strokes += self._harder(shot, float(np.clip(distance, self._middles[0], self._middles[-1])), distance)
            best = int(strokes.argmin())
            told = self._advised(shot, best)
            return Expected(
                float(strokes[club]), float(strokes[told]), self.codes[told], self.codes[best], None,
                approach_layout(distance),
            )  # fmt: skip
        layout = self.sheet.short[place].layout
        distance = layout.hole if shot.distance is None else shot.distance
        more = self._harder(shot, layout.hole, distance)
        best = int(self._short_cost[:, place].argmin())
        moved = replace(layout, hole=max(distance, layout.room + 1.0))
        told = self._advised(shot, best)
        return Expected(
            float(self._short[club, place]) + more, float(self._short[told, place]) + more, self.codes[told],
            self.codes[best], clean[place, club], moved,
        )  # fmt: skip

    def _advised(self, shot: LoggedShot, best: int) -> int:
        return self.codes.index(shot.advised) if shot.advised in self.codes else best

    def _harder(self, shot: LoggedShot, usual: float, distance: float) -> float:
        """What the distance adds to the usual one's strokes, by the table from this lie."""
        lie = lie_before(shot.situation)
        here, there = TOUR_TABLE.strokes(lie, np.array([distance, usual]), self.handicap)
        return float(here - there)

    def _clean(self, wanted: Sequence[tuple[int, int]]) -> dict[tuple[int, int], float]:
        """Chance of a clean strike by short scenario and club, each at the setup that the search chose."""
        if not wanted:
            return {}
        jobs, means = [], []
        middle = len(PINS) // 2
        for place, club in wanted:
            scenario, head = self.sheet.short[place], self.tools[club].head
            chosen = int(self.costs.pick[club, place * len(PINS) + middle])
            setup, speed = scenario.setups[chosen], self.sheet.speeds(head)[place][chosen]
            kind, row = ground_row(scenario.surface)
            jobs.append(
                FamilyJob(head, setup.opening_deg, kind, tuple(row.tolist()), max(speed, LEAST_SPEED), setup.release)
            )
            means.append((math.radians(setup.attack_deg), math.radians(setup.lean_deg), setup.entry))
        root = covariance_root(self.fitting.player.habit)
        nodes, entries = quadrature(DESK_ENTRIES)
        found = self.judge.pool.expect(jobs, np.array(means), np.tile(root, (len(jobs), 1, 1)), nodes, entries)
        well = [_quality.FIRST_SHARE + OUTCOMES.index(name) for name in STRUCK_WELL]
        return dict(zip(wanted, found[:, well].sum(axis=1).tolist(), strict=True))
