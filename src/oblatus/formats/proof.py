"""A proof as JSON, version 1: candidates, situations, the plan, every ball; and what the balls say. Keys carry units."""

from __future__ import annotations

import json
from datetime import date
from typing import Annotated, Any, Literal, Self
from uuid import UUID

from pydantic import Field, StringConstraints, ValidationError, model_validator

from oblatus.core.bounds import Bound
from oblatus.core.figures import figures
from oblatus.core.gapping import MeasuredStrike
from oblatus.core.proof import OUTCOMES, Plan, make_plan
from oblatus.core.proof.outcome import OutcomeSource
from oblatus.core.proof.plan import BOUNDS
from oblatus.core.proof.verdict import Advice
from oblatus.core.shots import SHORT_SHOTS
from oblatus.core.strokes import Layout
from oblatus.core.strokes.situations import OwnLie, Short
from oblatus.errors import fault
from oblatus.formats.fields import Strict, SurfaceKey, Within, at_field, faults_of
from oblatus.formats.sections.bag import HeadDocument
from oblatus.formats.sections.parts import Name
from oblatus.formats.strikes import ClubCode, Origin, Reason

FORMAT: Literal["oblatus.proof"] = "oblatus.proof"
VERSION: Literal[1] = 1
MOST_BALLS = 1000
STRIKE = figures(MeasuredStrike)
BALL = {
    "to_hole_m": Bound(0, 120, "m"), "carry_m": STRIKE["carry_m"].bound, "entry_mm": STRIKE["entry_mm"].bound,
    "mark_length_mm": Bound(0, 600, "mm"), "mark_depth_mm": Bound(0, 120, "mm"),
}  # fmt: skip
"""What the figures of a ball of a proof may be."""

ShortShot = Literal[SHORT_SHOTS]  # type: ignore[valid-type]


class ProofCandidate(Strict):
    """A club that is proved: its code when the plan was made, its head, and what the model expects by situation."""

    code: ClubCode
    name: Name
    owned: bool
    head: HeadDocument
    expected_strokes: Annotated[tuple[Annotated[float, Within(Bound(1, 8, "strokes"))], ...], Field(min_length=1)]
    run_m: Annotated[tuple[Annotated[float, Within(Bound(-20, 80, "m"))], ...], Field(min_length=1)]


class ProofSituation(Strict):
    """A shot on a ground, where its hole is, and how often it is faced among those of the proof."""

    shot: ShortShot
    name: Name
    surface: SurfaceKey
    ground: Name
    hole_m: Annotated[float, Within(Bound(1, 120, "m"))]
    room_m: Annotated[float, Within(Bound(0.1, 60, "m"))]
    behind_m: Annotated[float, Within(Bound(0.1, 60, "m"))]
    short: Short
    share: Annotated[float, Within(Bound(0, 1, ""))]

    def layout(self) -> Layout:
        """The engine's layout."""
        own: OwnLie = "sand" if self.surface == "sand" else "rough"
        return Layout(self.hole_m, self.room_m, self.behind_m, self.short, own)


class ProofBall(Strict):
    """One ball: which club in which situation and block, and what was seen of it. Something is.

    `mark_length_mm` and `mark_depth_mm` are of the divot or the mark in the sand; `set_aside` a reason that is not the
    result. `id` is given where it is hit, so that it is never counted twice.
    """

    id: UUID
    club: Annotated[int, Within(Bound(0, 3, ""))]
    situation: Annotated[int, Within(Bound(0, 2, ""))]
    block: Annotated[int, Within(Bound(0, 400, ""))]
    outcome: Literal[OUTCOMES] | None = None  # type: ignore[valid-type]
    to_hole_m: Annotated[float, Within(BALL["to_hole_m"])] | None = None
    carry_m: Annotated[float, Within(BALL["carry_m"])] | None = None
    entry_mm: Annotated[float, Within(BALL["entry_mm"])] | None = None
    mark_length_mm: Annotated[float, Within(BALL["mark_length_mm"])] | None = None
    mark_depth_mm: Annotated[float, Within(BALL["mark_depth_mm"])] | None = None
    set_aside: Reason | None = None
    origin: Origin = "typed"
    simulated: bool = False

    @model_validator(mode="after")
    def _something_was_seen(self) -> Self:
        if self.outcome is None and self.to_hole_m is None and self.carry_m is None:
            raise at_field("outcome", "is missing: say how the ball came off, how far it carried or where it lies")
        return self


class FeelDocument(Strict):
    """How a block felt, 1 to 5."""

    block: Annotated[int, Within(Bound(0, 400, ""))]
    value: Annotated[int, Within(Bound(1, 5, ""))]


class ProofRequest(Strict):
    """What is to be proved: candidates by code, situations by shot and ground, and how many balls."""

    candidates: Annotated[tuple[ClubCode, ...], Field(min_length=2, max_length=4)]
    situations: Annotated[tuple[SituationKey, ...], Field(min_length=1, max_length=3)]
    balls_per_block: Annotated[int, Within(BOUNDS["balls_per_block"])] = 5
    rounds: Annotated[int, Within(BOUNDS["rounds"])] = 4
    seed: Annotated[int, Within(Bound(0, 2**31 - 1, ""))] = 0
    hide_model: bool = True

    @model_validator(mode="after")
    def _all_differ(self) -> Self:
        if len(set(self.candidates)) < len(self.candidates):
            raise at_field("candidates", "names one club twice")
        if len({(s.shot, s.ground) for s in self.situations}) < len(self.situations):
            raise at_field("situations", "names one situation twice")
        return self


class SituationKey(Strict):
    """A shot of the catalogue on a ground of the mix."""

    shot: ShortShot
    ground: Name


ProofRequest.model_rebuild()


class ProofDocument(Strict):
    """A proof: what was planned and expected when it began, and every ball."""

    format: Literal["oblatus.proof"] = FORMAT
    version: Literal[1] = VERSION
    id: UUID
    made_on: date
    engine_version: Annotated[str, StringConstraints(max_length=20)]
    handicap: Annotated[float, Within(Bound(-10, 54, "strokes"))] | None = None
    shots_a_round: Annotated[float, Within(Bound(0, 80, "shots"))] = 14.0
    round_share: Annotated[float, Within(Bound(0, 1, ""))] = 0.0
    candidates: Annotated[tuple[ProofCandidate, ...], Field(min_length=2, max_length=4)]
    situations: Annotated[tuple[ProofSituation, ...], Field(min_length=1, max_length=3)]
    balls_per_block: Annotated[int, Within(BOUNDS["balls_per_block"])] = 5
    rounds: Annotated[int, Within(BOUNDS["rounds"])] = 4
    seed: Annotated[int, Within(Bound(0, 2**31 - 1, ""))] = 0
    hide_model: bool = True
    feel: Annotated[tuple[FeelDocument, ...], Field(max_length=400)] = ()
    balls: Annotated[tuple[ProofBall, ...], Field(max_length=MOST_BALLS)] = ()

    def plan(self) -> Plan:
        """The plan, made anew from its numbers."""
        return make_plan(len(self.candidates), len(self.situations), self.balls_per_block, self.rounds, self.seed)

    @model_validator(mode="after")
    def _balls_belong(self) -> Self:
        for candidate in self.candidates:
            if not len(candidate.expected_strokes) == len(candidate.run_m) == len(self.situations):
                raise at_field("candidates", "need an expectation and a run for each situation")
        blocks = self.plan().blocks
        for n, ball in enumerate(self.balls):
            if ball.block >= len(blocks):
                raise at_field(f"balls.{n}.block", f"must be below {len(blocks)}")
            if (blocks[ball.block].club, blocks[ball.block].situation) != (ball.club, ball.situation):
                raise at_field(f"balls.{n}.club", "is not the club of its block")
        if len({ball.id for ball in self.balls}) < len(self.balls):
            raise at_field("balls", "two balls have the same id")
        return self


class BlockOut(Strict):
    """A block of the plan, and how far it is."""

    place: int
    situation: int
    club: int
    hit: int
    aside: int
    feel: int | None


class BallOut(Strict):
    """A ball with what it is worth: strokes with this one counted, from which lie and distance, by what."""

    ball: ProofBall
    strokes: float
    lie: str
    distance_m: float
    source: OutcomeSource
    mark: str


class ComparisonOut(Strict):
    """Two clubs, the first less the second in strokes a shot: negative is better for the first. Null: all situations.

    `seen`, `error` are of the balls alone, `watched` half the interval that may be looked at after every ball;
    `expected`, `expected_spread` the model's; `mean`, `low`, `high` (8 of 10) what is believed now, `a_round` the same
    for a round, `chance` that the first is better.
    """

    first: int
    second: int
    situation: int | None
    balls: int
    seen: float
    error: float
    watched: float | None
    expected: float
    expected_spread: float
    mean: float
    low: float
    high: float
    a_round: float
    chance: float


class ClubSeenOut(Strict):
    """What was seen of a club in a situation; entries in mm."""

    club: int
    situation: int
    balls: int
    strokes: float
    spread: float
    entry_mm: float | None
    entry_spread_mm: float | None


class LaneOut(Strict):
    """A club over its situations: balls, mean strokes (None without balls), and what the model expects of it."""

    club: int
    balls: int
    strokes: float | None
    expected: float
    expected_spread: float


class ProofVerdictOut(Strict):
    """The verdict so far, in figures and a sentence; `closing` how the first two came apart: balls, mean, low, high."""

    advice: Advice
    club: int | None
    more: int
    complete: bool
    words: str
    findings: list[str]
    comparisons: list[ComparisonOut]
    seen: list[ClubSeenOut]
    lanes: list[LaneOut]
    sigma: float
    closing: list[list[float]]


class ProofPlanOut(Strict):
    """What a plan can tell apart; `stations` is where the monitor stands for each situation."""

    blocks: list[BlockOut]
    balls: int
    balls_each: int
    detectable: float
    words: str
    stations: list[str]


class ProofOut(Strict):
    """A proof with its plan, the balls and what they say.

    `taken_out`: balls that were, the last one last; `replaced`: which of its clubs are not there any longer, in words.
    """

    document: ProofDocument
    plan: ProofPlanOut
    balls: list[BallOut]
    verdict: ProofVerdictOut
    taken_out: tuple[ProofBall, ...] = ()
    replaced: tuple[str, ...] = ()


def load_proof(text: str) -> ProofDocument:
    """Read a proof.

    Raises
    ------
    InputError
        If the text is not JSON, not this format or version, or any field is wrong.
    """
    try:
        data: Any = json.loads(text)
    except (ValueError, RecursionError) as error:
        raise fault("document", f"is not JSON: {str(error)[:120]}") from error
    if not isinstance(data, dict) or data.get("format") != FORMAT:
        raise fault("format", f"must be {FORMAT}: this is no proof")
    if data.get("version") != VERSION:
        raise fault("version", f"this program reads version {VERSION} only", str(data.get("version")))
    try:
        return ProofDocument.model_validate(data)
    except ValidationError as error:
        raise faults_of(error) from error
