"""Evidence and schools as JSON."""

from __future__ import annotations

from oblatus.core.fitting import Recommendation, explain
from oblatus.core.fitting.evidence import Evidence, Flip
from oblatus.core.fitting.schools import SchoolOutcome
from oblatus.formats.fields import Strict

AXIS_WORDS = {
    "attack": "attack",
    "lean": "lean",
    "entry": "entry",
    "firmness": "firmness of the turf",
    "sand": "penetrometer reading of the sand",
}


class ShareOut(Strict):
    """How often a head was the choice for its slot."""

    slot: int
    code: str
    name: str
    share: float


class FlipOut(Strict):
    """The nearest change along an axis that changes the choice, in a sentence and as a number."""

    axis: str
    value: float
    at: float
    unit: str
    text: str


class FlipsOut(Strict):
    """What would flip the choice."""

    revision: int
    flips: list[FlipOut]


class EvidenceOut(Strict):
    """How sure, and what to measure next."""

    revision: int
    resamples: int
    assumed_count: bool
    shares: list[ShareOut]
    next_measurement: str | None


class SchoolOut(Strict):
    """A school's proposal beside the present one."""

    question: str
    choice: str
    asks: str
    changed: bool
    clubs: list[str]


class SchoolsOut(Strict):
    """Every other school."""

    revision: int
    schools: list[SchoolOut]


def evidence_out(revision: int, recommendation: Recommendation, evidence: Evidence) -> EvidenceOut:
    """The evidence with names and sentences."""
    names = {c.stock.code: c.stock.name for c in recommendation.candidates}
    return EvidenceOut(
        revision=revision,
        resamples=evidence.count,
        assumed_count=evidence.assumed_count,
        shares=[ShareOut(slot=s.slot, code=s.code, name=names[s.code], share=round(s.share, 3)) for s in evidence.shares],
        next_measurement=_next(evidence),
    )


def flips_out(revision: int, recommendation: Recommendation, flips: tuple[Flip, ...]) -> FlipsOut:
    """Every flip in a sentence."""
    return FlipsOut(revision=revision, flips=[_flip(recommendation, flip) for flip in flips])


def schools_out(revision: int, outcomes: list[SchoolOutcome]) -> SchoolsOut:
    """Every school with the clubs it leads to."""
    return SchoolsOut(
        revision=revision,
        schools=[
            SchoolOut(
                question=o.question,
                choice=o.choice,
                asks=o.asks,
                changed=o.changed,
                clubs=[_club(o.recommendation, club.pick) for club in o.recommendation.clubs],
            )
            for o in outcomes
        ],
    )


def _club(recommendation: Recommendation, pick: int) -> str:
    candidate = recommendation.candidates[pick]
    head = candidate.head
    return f"{explain.degrees(head.loft_deg)} {candidate.stock.name}, {explain.degrees(head.bounce_deg)} bounce"


def _flip(recommendation: Recommendation, flip: Flip) -> FlipOut:
    scale = 1000.0 if flip.unit == "m" else 1.0
    value, at = scale * flip.value, scale * flip.at
    old = recommendation.candidates[recommendation.clubs[flip.slot].pick]
    new = next(c for c in recommendation.candidates if c.stock.code == flip.code and c.slot == flip.slot)
    text = (
        f"{AXIS_WORDS[flip.axis]} {'under' if at < value else 'over'} {_shown(flip, at)}: at "
        f"{explain.degrees(old.head.loft_deg)} {new.stock.name} with {explain.degrees(new.head.bounce_deg)} of bounce "
        f"instead of {old.stock.name} with {explain.degrees(old.head.bounce_deg)}"
    )
    unit = {"m": "mm", "deg": "degrees"}.get(flip.unit, flip.unit)
    return FlipOut(axis=flip.axis, value=round(value, 3), at=round(at, 3), unit=unit, text=text[0].upper() + text[1:])


def _shown(flip: Flip, at: float) -> str:
    shown = f"{at:.2f}" if flip.unit == "kg/cm2" else f"{at:.0f}" if flip.unit in {"m", "g"} else f"{at:.1f}"
    unit = {"deg": "°", "m": " mm", "g": " g", "kg/cm2": " kg/cm²"}[flip.unit]
    return shown.replace("-", "−") + unit


def _next(evidence: Evidence) -> str | None:
    if evidence.assumed_count:
        return "Ten measured strikes: the spreads are assumed until then."
    if evidence.next_axis is None:
        return None
    axis = AXIS_WORDS[evidence.next_axis]
    return f"More strikes with {axis} measured: it alone turns {evidence.next_share:.0%} of the resamples."
