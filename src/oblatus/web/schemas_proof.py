"""What the routes of proofs take and answer."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from pydantic import Field

from oblatus.core.proof.plan import BOUNDS
from oblatus.formats.fields import Strict, Within
from oblatus.formats.proof import ProofBall, ProofOut, ProofRequest
from oblatus.formats.sections.measuring import HeadEvidenceDocument
from oblatus.formats.strikes import Reason


class ProofPath(Strict):
    """A proof of a fitting."""

    fitting_id: UUID
    proof_id: UUID


class BallPath(ProofPath):
    """A ball of a proof."""

    ball_id: UUID


class ProofIn(ProofRequest):
    """A proof to be planned; the id is the screen's, so that one sent twice is one."""

    id: UUID


class PlanAheadIn(Strict):
    """So many balls with each club in each situation."""

    situations: Annotated[int, Field(strict=False), Within(BOUNDS["situations"])] = 1
    balls_per_block: Annotated[int, Field(strict=False), Within(BOUNDS["balls_per_block"])] = 5
    rounds: Annotated[int, Field(strict=False), Within(BOUNDS["rounds"])] = 4


class PlanAheadOut(Strict):
    """What they can tell apart."""

    words: str


class ProofsOut(Strict):
    """The proofs of a fitting, newest first."""

    proofs: list[ProofOut]


class BallsIn(Strict):
    """Balls in the order in which they were hit."""

    balls: Annotated[tuple[ProofBall, ...], Field(min_length=1, max_length=200)]


class BallsOut(Strict):
    """How many were new."""

    taken: int


class BallTellIn(Strict):
    """Why a ball does not count (null: it does), or that it is taken out or put back."""

    set_aside: Reason | None = None
    out: bool | None = None


class EvidenceFromOut(Strict):
    """What a proof shows of its heads, as the fitting's evidence has it."""

    evidence: list[HeadEvidenceDocument]
