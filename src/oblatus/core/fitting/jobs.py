"""The families of strikes that a question needs: which head, ground, opening and speed."""

from __future__ import annotations

import math
from collections.abc import Hashable, Sequence
from dataclasses import dataclass
from itertools import count as numbers_from

import numpy as np
from numpy.typing import NDArray

from oblatus.core.clubs import Head
from oblatus.core.constants import FLATTEST_ATTACK
from oblatus.core.fitting import _speeds
from oblatus.core.fitting.laws import Law
from oblatus.core.fitting.reckoned import name_of_all
from oblatus.core.fitting.scenarios import Scenario, Setup
from oblatus.core.flight.tables import carry_table, run_table
from oblatus.core.geometry import lofts_in_plane
from oblatus.core.grounds import Sand, Turf
from oblatus.core.strike import FamilyJob, ground_row

Floats = NDArray[np.float64]

SPEED_LOW, SPEED_RATIO, SPEED_NODES = 12.0, 1.2, 7
USUAL_LEAN_DEG, USUAL_ATTACK_DEG = 5.0, -5.0
SAND_SPEED, SAND_HOLE, SAND_LOFT_DEG, SAND_LOFT_SHARE = 22.0, 12.0, 56.0, 0.03


@dataclass(frozen=True, slots=True, eq=False)
class Question:
    """A short scenario with one of its setups; kind and row of its ground, what its families depend on besides head and
    setup, and the number by which they are known.
    """

    scenario: Scenario
    setup: Setup
    kind: int
    row: tuple[float, ...]
    place: Hashable
    number: int

    @property
    def name(self) -> bytes:
        """A name by all that its strokes depend on besides head, player and law."""
        scenario = self.scenario
        lip = (scenario.lip, scenario.ground.lip_distance) if scenario.lip > 0.0 else ()
        return name_of_all(self.place, self.setup, scenario.layout, lip, scenario.ground.green)


def questions_of(scenario: Scenario, law: Law, book: JobBook) -> list[Question]:
    """A short scenario with each of its setups, on its ground under a law."""
    kind, under = ground_under(scenario.surface, law)
    place = (kind, under, scenario.layout.hole, scenario.shot.lean_offset_deg, scenario.shot.attack_offset_deg)
    return [
        Question(scenario, setup, kind, under, place, book.number((setup.opening_deg, setup.release, *place)))
        for setup in scenario.setups
    ]


def ground_under(surface: Turf | Sand, law: Law) -> tuple[int, tuple[float, ...]]:
    """Kind and ground row of a surface under a law."""
    kind, row = ground_row(surface)
    return kind, law.row(kind, tuple(row.tolist()))


class JobBook:
    """The same job object for the same question, every time: the pool knows them by identity."""

    KEPT = 60_000

    def __init__(self) -> None:
        self._numbers: dict[object, int] = {}
        self._next = numbers_from(0)
        self._made: dict[tuple[int, int], FamilyJob] = {}
        self._same: dict[tuple[object, ...], FamilyJob] = {}

    def number(self, thing: object) -> int:
        """A number by which a head or a setup on a ground is known."""
        found = self._numbers.get(thing)
        if found is None:
            # never a number again that stood for something else: questions outlive the book's memory
            found = self._numbers[thing] = next(self._next)
        return found

    def short(self, head: Head, questions: Sequence[Question]) -> list[FamilyJob]:
        """The families that a head needs for the questions, at speeds that do not depend on the player."""
        if len(self._made) > self.KEPT:
            # others who look into the old ones meanwhile still find what they put there
            self._made, self._same, self._numbers = {}, {}, {}
        made = self._made
        mine = self.number(head)
        missing = [q for q in questions if (mine, q.number) not in made]
        if missing:
            for question, speed in zip(missing, _usual_speeds(head, missing).tolist(), strict=True):
                made[mine, question.number] = self._job(
                    mine, head, question.setup.opening_deg, question.kind, question.row, on_grid(speed),
                    question.setup.release,
                )  # fmt: skip
        return [made[mine, question.number] for question in questions]

    def stock(self, head: Head, kind: int, row: tuple[float, ...], speed: float, release: float) -> FamilyJob:
        """The family of a stock swing from a ground's fairway."""
        return self._job(self.number(head), head, 0.0, kind, row, on_grid(speed), release)

    def _job(
        self, number: int, head: Head, opening: float, kind: int, row: tuple[float, ...], speed: float, release: float
    ) -> FamilyJob:
        key = (number, opening, kind, row, speed, release)
        job = self._same.get(key)
        if job is None:
            job = self._same[key] = FamilyJob(head, opening, kind, row, speed, release)
        return job


def _usual_speeds(head: Head, questions: Sequence[Question]) -> Floats:
    """Head speed [m/s] that takes the ball to the hole, struck clean at a usual lean; in sand by the usual explosion."""
    opening = np.array([q.setup.opening_deg for q in questions])
    lean = np.array([USUAL_LEAN_DEG + q.scenario.shot.lean_offset_deg for q in questions])
    loft = np.radians(lofts_in_plane(head, opening)) - np.radians(lean)
    hole = np.array([q.scenario.layout.hole for q in questions])
    attack = np.radians(
        [min(USUAL_ATTACK_DEG + q.scenario.shot.attack_offset_deg, FLATTEST_ATTACK.value) for q in questions]
    )
    out = np.empty(len(questions))
    _speeds.clean_speeds(loft, attack, head.mass, hole, carry_table(), run_table("medium"), out)
    share = np.maximum(1.0 - SAND_LOFT_SHARE * (np.degrees(loft) - SAND_LOFT_DEG) / 2.0, 0.4)
    sand = np.array([q.scenario.shot.kind == "sand" for q in questions])
    return np.where(sand, SAND_SPEED * np.sqrt(hole / SAND_HOLE / share), out)


def on_grid(speed: float) -> float:
    """The nearest speed, by ratio, at which families are made: 12 to 35.8 m/s in steps of a fifth."""
    place = round(math.log(max(speed, 1.0) / SPEED_LOW) / math.log(SPEED_RATIO))
    return SPEED_LOW * SPEED_RATIO ** min(max(place, 0), SPEED_NODES - 1)
