"""The proposal as JSON: keys carry units, indices are spelled out, sentences included. Strokes are a round unless
said.
"""

from __future__ import annotations

from typing import Literal

import numpy as np

from oblatus.core.fitting import explain
from oblatus.core.fitting.carries_of import GapKind
from oblatus.core.fitting.steps import StepKind
from oblatus.core.shots import Kind
from oblatus.formats.fields import Strict
from oblatus.formats.sections.bag import HeadDocument
from oblatus.formats.sections.measuring import ProofStanding
from oblatus.formats.strike import GroundIn


class RungOut(Strict):
    """One club with one swing."""

    club: str
    loft_deg: float
    swing: str
    club_speed_mps: float
    dynamic_loft_deg: float
    ball_speed_mps: float
    launch_deg: float
    spin_rpm: float
    carry_m: float
    apex_m: float
    landing_deg: float
    run_m: float
    source: Literal["modelled", "assumed"]


class GapOut(Strict):
    """Full-swing gap between neighbours [m] and what it is."""

    from_club: str
    to_club: str
    gap_m: float
    kind: GapKind


class LadderOut(Strict):
    """A ladder with its penalty, the weighted parts of it, what is to be done for it and what it gives up.

    `uncovered_share` is the share of faced distances that no swing reaches, `alone_share` that with one shot at most.
    """

    lofts_deg: list[float]
    penalty: float
    parts: dict[str, float]
    gaps_m: list[float]
    uncovered_m: float
    uncovered_share: float
    alone_share: float
    cost: float
    changes: list[str]
    left_out: list[str]
    gives_up: str
    chosen: bool


class LoftsOut(Strict):
    """The ladder, what other counts would do, and every rung."""

    chosen: LadderOut
    typed: bool
    options: list[LadderOut]
    wanted_gap_m: float
    wanted_top_deg: float
    rungs: list[RungOut]
    gaps: list[GapOut]


class BuiltClubOut(Strict):
    """A club as it would be built, small: for a step of change or a set."""

    code: str
    name: str
    owned: bool
    loft_deg: float
    bounce_deg: float
    sole_width_mm: float
    bend_deg: float
    outline_mm: list[list[float]]


class StepOut(Strict):
    """A step of change: today's bag, bends only, or heads bought.

    `gain_strokes_round` is the model's gain over today's bag; `low`, `high` hold it in 8 of 10 draws, `better_share` is
    the share of draws in which it beats the bag (null until they are drawn). `price` is the rack's, null where it states
    none. `more_strokes_round` is what it wins over the proposed step, `turned_down` why a further one is not proposed.
    """

    kind: StepKind
    heads_bought: int
    words: str
    clubs: list[BuiltClubOut]
    strokes_round: float
    gain_strokes_round: float
    more_strokes_round: float
    turned_down: str | None
    low: float | None
    high: float | None
    better_share: float | None
    price: float | None


class DoubtOut(Strict):
    """How the intervals were made: draws, how many draws of the laws are among them, doubt between level sets, and
    whether the number of strikes behind a spread is assumed.
    """

    draws: int
    law_draws: int
    paired: float
    assumed_count: bool


class LeakOut(Strict):
    """What a situation costs over a scratch player with the best tool, and whose it is.

    `won` is what the shown set wins there over today's bag; halving the spread of entry, lean or speed would win so much.
    """

    situation: str
    name: str
    grounds: list[str]
    share: float
    strokes_round: float
    won: float
    club_part: float
    player_part: float
    halving: dict[str, float]
    drill: str | None
    served_by: dict[str, str]


class SituationOut(Strict):
    """A short scenario for one club: strokes a shot over its pins with the chosen head, the owned one, the best on
    the rack.
    """

    scenario: str
    strokes: float
    opening_deg: float
    loft_deg: float
    bounce_deg: float
    face_direction_deg: float
    leading_edge_height_mm: float
    speed_mps: float
    owned_strokes: float | None
    best_strokes: float
    best_name: str
    serves: list[str]


class ScenarioOut(Strict):
    """One shot on one ground: its setup, where the hole is, strokes a shot with the set, who serves it at each pin.

    `served_by` are slots of the set, -1 the pitching wedge, -2 the nine-iron; full swings have none.
    """

    key: str
    shot: str
    shot_name: str
    kind: Kind
    ground: str
    share: float
    opening_deg: float
    lean_deg: float
    attack_deg: float
    entry_mm: float
    release: float
    ground_here: GroundIn
    target_carry_m: float
    hole_m: float
    room_m: float
    behind_m: float
    short: str
    lip_m: float
    wanted_bounce_low_deg: float
    wanted_bounce_high_deg: float
    served_by: dict[str, int]
    strokes: float | None


class CandidateOut(Strict):
    """A ranked head for a slot, at its best bend: `behind` is what the set with it costs more, strokes a round."""

    code: str
    name: str
    owned: bool
    bend_deg: float
    shape: str
    head: HeadDocument
    outline_mm: list[list[float]]
    edge_height_mm: float
    price: float | None
    behind: float
    reason: str


class OpeningOut(Strict):
    """How far the face is opened where the club serves."""

    situation: str
    ground: str
    pin: str
    opening_deg: float


class ClubOut(Strict):
    """One club of the set: what it is, what it brings and replaces, its reason and the ranking for its slot."""

    slot: int
    code: str
    name: str
    owned: bool
    loft_deg: float
    bounce_deg: float
    sole_width_mm: float
    bend_deg: float
    openings: list[OpeningOut]
    brings_strokes_round: float
    brings: list[BringsOut]
    replaces: str | None
    duty: str
    duties: list[str]
    reason: str
    pinned: bool
    survives: float | None
    proofs: list[ProvedOut]
    candidates: list[CandidateOut]
    situations: list[SituationOut]


class ProvedOut(Strict):
    """How a proof of the club's head stood to what the model expected, in a line."""

    standing: ProofStanding
    words: str


class BringsOut(Strict):
    """What a club brings in a shot, strokes a round."""

    name: str
    strokes_round: float


class BagVerdictOut(Strict):
    """What is to be done with an owned wedge, and why."""

    code: str
    verdict: str
    why: str


class SetOut(Strict):
    """A whole set: strokes a round behind the best, and what it gains and gives up against the shown one, by shot."""

    behind: float
    clubs: list[str]
    gains: str
    gives_up: str
    shown: bool


class NoteOut(Strict):
    """A caution or an open end."""

    kind: Literal["caution", "assumed", "gap", "proof", "rule"]
    text: str


class EconomyOut(Strict):
    """The figures by which the decision was made, typed or usual; 8 of 10 claims come to between `claims_low` and
    `claims_high` of what was claimed."""

    shots_a_round: float
    worth_changing: float
    slot: float
    practice: float
    typed: list[str]
    table_scale: float = 1.0
    claims_sd: float = 0.5
    claims_low: float | None = None
    claims_high: float | None = None


class RecommendationOut(Strict):
    """The whole proposal. `strikes_key` tells the strikes that it stands on from any others.

    `taken_step` is the step whose set is shown, `recommended_step` the one proposed: places in `steps`. `whole_rack` says
    whether every head of the rack was looked at, or only those near the last choice.
    """

    engine_version: str
    club_speed_mps: float
    full_lean_deg: float
    carry_assumed: bool
    strikes: int
    strikes_key: str = ""
    whole_rack: bool
    strokes_round_bag: float
    strokes_round: float
    gain_strokes_round: float
    practice_strokes_round: float
    steps: list[StepOut]
    recommended_step: int
    taken_step: int
    doubt: DoubtOut | None
    verdict: str
    practice: str
    economy: EconomyOut
    lofts: LoftsOut
    scenarios: list[ScenarioOut]
    clubs: list[ClubOut]
    bag: list[BagVerdictOut]
    sets: list[SetOut]
    level_sets: int
    level_within: float
    first_because: str
    leaks: list[LeakOut]
    notes: list[NoteOut]
    next_measurement: str | None


Rows = np.ndarray[tuple[int, int], np.dtype[np.float64]]


def club_labels(result: RecommendationOut) -> list[str]:
    """The clubs of the shown set in a line each."""
    clubs = result.steps[result.taken_step].clubs
    return [f"{c.name}: {explain.degrees(c.loft_deg)}, {explain.degrees(c.bounce_deg)} bounce" for c in clubs]
