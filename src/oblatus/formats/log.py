"""What a log says, as JSON."""

from __future__ import annotations

from datetime import date, datetime
from typing import Literal
from uuid import UUID

from oblatus.core.after.drift import Drift, DriftAdvice
from oblatus.core.after.due import Due
from oblatus.core.after.wear import Wear
from oblatus.core.log.feedback import FacedBand
from oblatus.core.log.says import Call, Parts, Reliable, Seen
from oblatus.formats.fields import Strict
from oblatus.formats.log_shots import LogShotDocument
from oblatus.formats.rounded import rounded
from oblatus.formats.sections.after import DecisionDocument, HeldDocument
from oblatus.formats.sections.choices import BandDocument
from oblatus.formats.sections.measuring import HeadEvidenceDocument

NotedBy = Literal["player", "fitter", "file"]
OfferState = Literal["open", "accepted", "declined", "newer"]


class SeenOut(Strict):
    """Shots of a kind: count, mean strokes seen and expected, the difference drawn toward the model, in 8 of 10 between;
    `weight` of the log in it; what is said of it."""

    shots: int
    seen: float
    expected: float
    difference: float
    low: float
    high: float
    weight: float
    call: Call


class RoundOut(Strict):
    """A round: how many shots, strokes over what was expected in all, and another round that looks the same."""

    round: UUID
    on: date
    by: NotedBy
    shots: int
    unknown: int
    over: float
    same_as: date | None


class LineOut(Strict):
    """A situation, or a club in one, or a month."""

    key: str
    name: str
    club: str
    seen: SeenOut


class ReliableOut(Strict):
    """Shots whose chance of a clean strike was expected between two, and the share that came."""

    low: float
    high: float
    shots: int
    expected: float
    came: float
    came_low: float
    came_high: float


class InsteadOut(Strict):
    """A club taken where another was advised."""

    taken: str
    advised: str
    times: int
    strokes_round: float
    words: str


class PartsOut(Strict):
    """Strokes a round more than expected by strike and by distance, and by taking other clubs than advised."""

    strike: float
    distance: float
    choice: float
    bad_seen: int
    bad_expected: float
    known: int
    bad_costs: float
    instead: list[InsteadOut]


class LeakSeenOut(Strict):
    """Where strokes go: by the model, and as seen."""

    situation: str
    name: str
    shots: int
    model: float
    seen: float


class HeadShownOut(Strict):
    """A head on a kind of ground: the model's strokes a shot over its shots, what a proof and the log moved, each with
    its count and weight, and the sum. `called` beside the bag's other clubs; `alone` whether all short shots with it
    went otherwise than expected, by head or player."""

    club: str
    name: str
    surface: str
    model: float
    proof: float
    proof_balls: int
    log: float
    log_shots: int
    log_weight: float
    called: bool
    alone: Call
    total: float


class OfferOut(Strict):
    """Something that the log would put in the place of what was assumed; `state` by what the fitter said to it before.

    One of `shot_mix`, `distances`, `table_scale` and `evidence` is there: what the fitting would hold; `before` is what
    it held without.
    """

    key: str
    name: str
    words: str
    shots: int
    state: OfferState
    shot_mix: dict[str, float] | None = None
    distances: list[BandDocument] | None = None
    table_scale: float | None = None
    evidence: HeadEvidenceDocument | None = None
    before: HeldDocument | None = None
    shares: list[ShareNowOut] | None = None


class ShareNowOut(Strict):
    """A share as it was assumed, as it was counted, and as it would be."""

    name: str
    before: float
    count: int
    after: float


class RowRefusedOut(Strict):
    """A row of a file that cannot be taken, and why."""

    row: int
    field: str
    message: str


class LogOut(Strict):
    """Everything that the log of a fitting says. `unknown` shots were hit with a club that is not in the bag, or in a
    situation that this player is not fitted for: they are kept and not judged."""

    shots: int
    rounds: list[RoundOut]
    unknown: int
    spread: float
    whole: SeenOut | None
    over_round: float
    situations: list[LineOut]
    clubs: list[LineOut]
    months: list[LineOut]
    reliability: list[ReliableOut]
    parts: PartsOut | None
    leaks: list[LeakSeenOut]
    heads: list[HeadShownOut]
    offers: list[OfferOut]
    decisions: list[DecisionDocument]
    choices: list[SituationChoiceOut]
    clubs_here: list[ClubChoiceOut]


class ClubChoiceOut(Strict):
    """A club that a shot can be noted with."""

    code: str
    name: str


class SituationChoiceOut(Strict):
    """A situation that a shot can be noted in, on a ground, with the club that the model would take."""

    situation: str
    name: str
    ground: str
    advised: str


class DueOut(Strict):
    """Something that wants looking at: when, why then; the fitter's reason where it was put off."""

    key: str
    on: date
    words: str
    why: str
    put_off: str
    late: bool


class DriftOut(Strict):
    """A club as built and as read again; `read_on` null: typed, on no known day."""

    code: str
    name: str
    built_deg: float
    now_deg: float
    drift_deg: float
    carry_built_m: float
    carry_now_m: float
    strokes_round: float
    advice: DriftAdvice
    read_on: date | None


class WearOut(Strict):
    """Grooves by use: all by a stated rule of judgement."""

    strikes: float
    worn: float
    spin_dry_rpm: float
    spin_dry_now_rpm: float
    spin_wet_rpm: float
    spin_wet_now_rpm: float
    run_more_wet_m: float
    strokes_round: float


class AfterOut(Strict):
    """Rechecks: since when it counts, what is due, lofts read again, wear."""

    since: date
    since_words: str
    due: list[DueOut]
    drifts: list[DriftOut]
    drift_strokes_round: float
    wear: WearOut


MomentKind = Literal["fitting", "kept", "proof", "built", "handed over", "round", "recheck"]


class MomentOut(Strict):
    """Something on a player's timeline."""

    on: date
    kind: MomentKind
    words: str
    fitting_id: UUID
    link: str


class EraOut(Strict):
    """One fitting of the timeline: when, lofts and bounces in the bag, habit, strokes by situation, and what the drills
    of the one before it did by what was measured now."""

    fitting_id: UUID
    on: date
    here: bool
    lofts_deg: list[float]
    bounces_deg: list[float]
    attack_deg: float
    attack_spread: float
    attack_source: str
    lean_deg: float
    lean_spread: float
    lean_source: str
    handicap: float | None
    promised_strokes_round: float | None
    came_strokes_round: float | None
    rounds: int
    strokes: dict[str, float]
    drills: list[str]


class TimelineOut(Strict):
    """A player over the years: fittings that follow each other, oldest first, and every moment, newest first."""

    eras: list[EraOut]
    moments: list[MomentOut]
    situations: dict[str, str]


class ClaimOut(Strict):
    """A change at a player: what was claimed and what is seen of it [strokes a round]."""

    player: str
    kind: str
    claimed: float
    seen: float
    low: float
    high: float
    shots: int


class CameTrueOut(Strict):
    """How much of what was claimed came true."""

    kind: str
    claims: int
    shots: int
    claimed: float
    seen: float
    share: float
    low: float
    high: float


class SharesOut(Strict):
    """Shares of what was claimed between which 8 of 10 claims come."""

    low: float
    high: float


class ScoreOfClaimsOut(Strict):
    """The studio's claims against what logs show; `claims_sd` the doubt that new fittings begin with, `would_be` what the
    claims say it should be, `held` and `would` the shares between which 8 of 10 claims come true by each."""

    claims: list[ClaimOut]
    kinds: list[CameTrueOut]
    every: CameTrueOut | None
    waiting: int
    claims_sd: float
    would_be: float
    held: SharesOut
    would: SharesOut
    made_at: datetime


OfferOut.model_rebuild()
LogOut.model_rebuild()


def seen_out(seen: Seen) -> SeenOut:
    """Rounded to what can be read."""
    return SeenOut(
        shots=seen.shots, seen=rounded(seen.seen), expected=rounded(seen.expected),
        difference=rounded(seen.difference), low=rounded(seen.low), high=rounded(seen.high),
        weight=rounded(seen.weight), call=seen.call,
    )  # fmt: skip


def reliable_out(one: Reliable) -> ReliableOut:
    """One stretch."""
    return ReliableOut(
        low=one.low, high=one.high, shots=one.shots, expected=rounded(one.expected), came=rounded(one.came),
        came_low=rounded(one.came_low), came_high=rounded(one.came_high),
    )  # fmt: skip


def parts_out(parts: Parts, names: dict[str, str]) -> PartsOut:
    """Parts with the clubs' names."""
    return PartsOut(
        strike=rounded(parts.strike), distance=rounded(parts.distance), choice=rounded(parts.choice),
        bad_seen=parts.bad_seen, bad_expected=rounded(parts.bad_expected), known=parts.known,
        bad_costs=rounded(parts.bad_costs),
        instead=[
            InsteadOut(
                taken=one.taken, advised=one.advised, times=one.times, strokes_round=rounded(one.strokes_round),
                words=f"took the {names[one.taken]} {_times(one.times)} where the {names[one.advised]} was advised: "
                f"{one.strokes_round:.2f} a round",
            )
            for one in parts.instead
        ],
    )  # fmt: skip


def _times(count: int) -> str:
    return "once" if count == 1 else "twice" if count == 2 else f"{count} times"


def shares_of_bands(bands: list[FacedBand]) -> list[ShareNowOut]:
    """Distances as shares, named by their stretch [m]: the words are made where the reader's units are known."""
    from oblatus.core.words import metres_span

    return [
        ShareNowOut(
            name=metres_span(one.low, one.high), before=rounded(one.assumed), count=one.count, after=rounded(one.share)
        )
        for one in bands
    ]


def due_out(due: Due, today: date) -> DueOut:
    """One of them, late or not."""
    return DueOut(key=due.key, on=due.on, words=due.words, why=due.why, put_off=due.put_off, late=due.on < today)


def drift_out(drift: Drift, read_on: date | None) -> DriftOut:
    """One club."""
    return DriftOut(
        code=drift.code, name=drift.name, built_deg=rounded(drift.built_deg), now_deg=rounded(drift.now_deg),
        drift_deg=rounded(drift.drift_deg), carry_built_m=rounded(drift.carry_built),
        carry_now_m=rounded(drift.carry_now), strokes_round=rounded(drift.strokes_round), advice=drift.advice,
        read_on=read_on,
    )  # fmt: skip


def wear_out(wear: Wear) -> WearOut:
    """Wear, rounded."""
    return WearOut(
        strikes=round(wear.strikes), worn=rounded(wear.worn), spin_dry_rpm=round(wear.spin_new["dry"]),
        spin_dry_now_rpm=round(wear.spin_now["dry"]), spin_wet_rpm=round(wear.spin_new["wet"]),
        spin_wet_now_rpm=round(wear.spin_now["wet"]), run_more_wet_m=rounded(wear.run_more["wet"]),
        strokes_round=rounded(wear.strokes_round),
    )  # fmt: skip


class NotedOut(Strict):
    """A shot of a round as it was noted, with what it was worth and what was expected; null where it is not judged."""

    shot: LogShotDocument
    club_name: str
    situation_name: str
    strokes: float | None
    expected: float | None
