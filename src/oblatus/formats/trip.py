"""A trip's answer as JSON."""

from __future__ import annotations

from oblatus.core.after.trip import Advice, Doubt, SetupChange, TripAnswer
from oblatus.core.words import trimmed
from oblatus.formats.card import LieCardOut
from oblatus.formats.fields import Strict
from oblatus.formats.rounded import rounded


class SetupChangeOut(Strict):
    """How a shot is to be played there instead, and what changes from home; `spreads`: in the player's own spreads."""

    situation: str
    name: str
    ground: str
    club: str
    before: str
    lean_change_deg: float
    opening_change_deg: float
    entry_change_mm: float
    spreads: float
    gain_strokes_round: float


class GainDoubtOut(Strict):
    """A gain in 8 of 10 draws, and the share of draws above none."""

    low: float
    high: float
    better: float


class SetupGainOut(Strict):
    """What other setups win there, and would at home too."""

    changes: list[SetupChangeOut]
    gain_strokes_round: float
    gain_at_home_strokes_round: float
    doubt: GainDoubtOut | None


class BorrowedOut(Strict):
    """A head for the trip."""

    code: str
    name: str
    loft_deg: float
    bounce_deg: float
    price: float | None


class ClubGainOut(Strict):
    """What one other club in the bag wins there; `left_out` stays at home, null where there is room."""

    bought: list[BorrowedOut]
    left_out: str | None
    gain_strokes_round: float
    doubt: GainDoubtOut | None


class BothGainOut(Strict):
    """What both win."""

    gain_strokes_round: float
    doubt: GainDoubtOut | None


class TripOut(Strict):
    """Strokes a round with wedges there and at home, what changes win, and what to do first."""

    grounds: list[str]
    as_is_strokes_round: float
    at_home_strokes_round: float
    setup: SetupGainOut
    clubs: ClubGainOut
    both: BothGainOut
    advice: Advice
    words: str
    lies: list[LieCardOut]
    outlines_mm: dict[str, list[list[float]]]


def trip_out(answer: TripAnswer, lies: list[LieCardOut], outlines_mm: dict[str, list[list[float]]]) -> TripOut:
    """The answer as JSON; `lies` how to play each shot there, with the clubs' outlines by code."""
    bought = answer.bought
    return TripOut(
        grounds=[ground.name for ground in answer.grounds],
        as_is_strokes_round=rounded(answer.as_is), at_home_strokes_round=rounded(answer.at_home),
        setup=SetupGainOut(
            changes=[_change(one) for one in answer.changes], gain_strokes_round=rounded(answer.setup_gain),
            gain_at_home_strokes_round=rounded(answer.setup_gain_home), doubt=_doubt(answer.setup_doubt),
        ),
        clubs=ClubGainOut(
            bought=[] if bought is None else [
                BorrowedOut(
                    code=bought.code, name=bought.name, loft_deg=rounded(bought.head.loft_deg),
                    bounce_deg=round(bought.head.bounce_deg, 2), price=bought.price,
                )
            ],
            left_out=None if answer.left_out is None else answer.left_out.name,
            gain_strokes_round=rounded(answer.club_gain), doubt=_doubt(answer.club_doubt),
        ),
        both=BothGainOut(gain_strokes_round=rounded(answer.both_gain), doubt=_doubt(answer.both_doubt)),
        advice=answer.advice, words=advice_words(answer), lies=lies,
        outlines_mm=outlines_mm,
    )  # fmt: skip


def advice_words(answer: TripAnswer) -> str:
    """What to do first, in a sentence."""
    there = " and ".join(ground.name for ground in answer.grounds)
    harder = answer.as_is - answer.at_home
    side = f"{abs(harder):.1f} strokes a round {'more' if harder > 0 else 'less'} than at home as you are"
    setup, club = f"{answer.setup_gain:.1f}", f"{answer.club_gain:.1f}"
    head = "" if answer.bought is None else f"{trimmed(answer.bought.head.loft_deg)}° {answer.bought.name}"
    if answer.advice == "none":
        return f"{there}: {side}. Nothing that could be changed wins enough to be worth it."
    if answer.advice == "setup":
        return f"{there}: {side}. Change the setup first: {setup} a round. One other club would win {club}."
    if answer.advice == "club":
        return f"{there}: {side}. Take the {head}: {club} a round. Other setups would win {setup}."
    first = (
        f"the setup first, {setup} a round"
        if answer.setup_gain >= 2.0 / 3.0 * answer.club_gain
        else f"the {head}, {club}"
    )
    return f"{there}: {side}. Change {first}; with both it is {answer.both_gain:.1f}."


def _change(change: SetupChange) -> SetupChangeOut:
    return SetupChangeOut(
        situation=change.scenario.shot.key, name=change.scenario.shot.name, ground=change.scenario.ground.name,
        club=change.tool.name, before=change.before.name, lean_change_deg=rounded(change.lean_change_deg),
        opening_change_deg=rounded(change.opening_change_deg), entry_change_mm=rounded(1000.0 * change.entry_change),
        spreads=rounded(change.spreads), gain_strokes_round=rounded(change.gain),
    )  # fmt: skip


def _doubt(doubt: Doubt | None) -> GainDoubtOut | None:
    if doubt is None:
        return None
    return GainDoubtOut(low=rounded(doubt.low), high=rounded(doubt.high), better=rounded(doubt.better))
