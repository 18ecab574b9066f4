"""Evidence and schools as JSON."""

from __future__ import annotations

from oblatus.core.fitting import Recommendation, explain
from oblatus.core.fitting.evidence import Doubt
from oblatus.core.fitting.flips import Flip
from oblatus.core.fitting.schools import SchoolOutcome
from oblatus.core.words import quantity
from oblatus.formats.fields import Strict
from oblatus.formats.rounded import rounded

AXIS_WORDS = {
    "attack": "attack",
    "lean": "lean",
    "entry": "entry",
    "firmness": "firmness of the turf",
    "sand": "penetrometer reading of the sand",
}


class ShareOut(Strict):
    """Share of the draws in which some set with this head is level with the best."""

    slot: int
    code: str
    name: str
    share: float


class StepDoubtOut(Strict):
    """A step's gain in 8 of 10 draws, and the share of draws in which it beats today's bag."""

    heads_bought: int
    low: float
    high: float
    better_share: float


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
    """How sure, with the draws of the laws, and what to measure next."""

    revision: int
    draws: int
    law_draws: int
    paired: float
    assumed_count: bool
    steps: list[StepDoubtOut]
    recommended_step: int
    shares: list[ShareOut]
    next_measurement: str | None


class SchoolOut(Strict):
    """A school's proposal beside the present one."""

    question: str
    choice: str
    asks: str
    changed: bool
    gain_strokes_round: float
    clubs: list[str]


class SchoolsOut(Strict):
    """Every other school."""

    revision: int
    schools: list[SchoolOut]


def evidence_out(revision: int, recommendation: Recommendation, doubt: Doubt) -> EvidenceOut:
    """The doubt with names and sentences."""
    names = {c.stock.code: c.stock.name for c in recommendation.candidates}
    return EvidenceOut(
        revision=revision,
        draws=doubt.count,
        law_draws=doubt.law_draws,
        paired=rounded(doubt.paired),
        assumed_count=doubt.assumed_count,
        steps=[
            StepDoubtOut(
                heads_bought=step.heads, low=rounded(d.low), high=rounded(d.high), better_share=rounded(d.better_share)
            )
            for step, d in zip(recommendation.steps, doubt.steps, strict=True)
        ],
        recommended_step=doubt.proposed,
        shares=[ShareOut(slot=s.slot, code=s.code, name=names[s.code], share=rounded(s.share)) for s in doubt.shares],
        next_measurement=explain.next_measurement(doubt),
    )


def flips_out(revision: int, flips: tuple[Flip, ...]) -> FlipsOut:
    """Every flip in a sentence."""
    return FlipsOut(revision=revision, flips=[_flip(flip) for flip in flips])


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
                gain_strokes_round=rounded(o.recommendation.steps[o.recommendation.taken].gain),
                clubs=[_club(o.recommendation, pick) for pick in o.recommendation.picks],
            )
            for o in outcomes
        ],
    )


def _club(recommendation: Recommendation, pick: int) -> str:
    candidate = recommendation.candidates[pick]
    head = candidate.head
    return f"{explain.degrees(head.loft_deg)} {candidate.stock.name}, {explain.degrees(head.bounce_deg)} bounce"


def _flip(flip: Flip) -> FlipOut:
    scale = 1000.0 if flip.unit == "m" else 1.0
    value, at = scale * flip.value, scale * flip.at
    instead = f"{flip.new} instead of {flip.old}" if flip.new and flip.old else flip.new or f"without {flip.old}"
    text = f"{AXIS_WORDS[flip.axis]} {'under' if at < value else 'over'} {_shown(flip, at)}: {instead}"
    unit = {"m": "mm", "deg": "degrees"}.get(flip.unit, flip.unit)
    return FlipOut(axis=flip.axis, value=rounded(value), at=rounded(at), unit=unit, text=text[0].upper() + text[1:])


def _shown(flip: Flip, at: float) -> str:
    shown = f"{at:.2f}" if flip.unit == "kg/cm²" else f"{at:.0f}" if flip.unit in {"m", "g"} else f"{at:.1f}"
    shown = shown.replace("-", "−")
    return f"{shown}°" if flip.unit == "deg" else quantity(shown, "mm" if flip.unit == "m" else flip.unit)
