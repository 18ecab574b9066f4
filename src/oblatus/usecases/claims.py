"""The studio's own score: what was claimed of changes against what logs show of them."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from typing import Any
from uuid import UUID

from oblatus.core.after.claims import CameTrue, Claim, came_true, claims_between, doubt_of_claims
from oblatus.core.log.says import EIGHT_OF_TEN, heads_shown, shot_spread
from oblatus.errors import InputError
from oblatus.formats.log import CameTrueOut, ClaimOut, ScoreOfClaimsOut, SharesOut
from oblatus.formats.rounded import rounded
from oblatus.store.database import Database
from oblatus.store.repositories import StudioRows
from oblatus.store.rounds import StudioRounds
from oblatus.store.tables import SnapshotRow, now
from oblatus.usecases.actor import Actor
from oblatus.usecases.days import day_of
from oblatus.usecases.logged import Logged, read_log

KINDS = ("bends only", "one head", "two heads", "three heads", "four heads")
LEAST_WEIGHT = 0.02


@dataclass(frozen=True, slots=True)
class Claims:
    """Every claim that a log says something of, and how many players have a kept set but no such log."""

    claims: tuple[Claim, ...]
    waiting: int


def claims_of(database: Database, actor: Actor) -> Claims:
    """Claims of the studio: the proposal that each player has played with, whose log has shots with its new clubs."""
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        first = StudioRounds(session, actor.studio_id).first_days()
        fittings = [(row.id, row.player_name) for row in rows.fittings()]
        kept: dict[UUID, SnapshotRow] = {}
        for fitting_id, _ in fittings:
            some = rows.kept_whole(fitting_id)
            if some:
                kept[fitting_id] = played_with(some, first.get(fitting_id))
    found, waiting = [], 0
    for fitting_id, player in fittings:
        if fitting_id not in kept:
            continue
        claim = _claim(database, actor, fitting_id, player, kept[fitting_id]) if fitting_id in first else None
        if claim is None:
            waiting += 1
        else:
            found.append(claim)
    return Claims(tuple(found), waiting)


def played_with(kept: Sequence[SnapshotRow], first: date | None) -> SnapshotRow:
    """The proposal that a log tells of: the last one kept until its first day, else the first; without a log the last."""
    if first is None:
        return kept[-1]
    before = [one for one in kept if day_of(one.created_at) <= first]
    return before[-1] if before else kept[0]


def _claim(database: Database, actor: Actor, fitting_id: UUID, player: str, kept: SnapshotRow) -> Claim | None:
    """What came of a kept proposal: its gain less what its new clubs cost more than expected beside the bag's others.

    A player who is off altogether is told apart from the clubs: only these were claimed.
    """
    result = kept.result
    if "steps" not in result:
        return None
    step = result["steps"][result["taken_step"]]
    try:
        log = read_log(database, actor, fitting_id)
    except InputError:
        return None
    changed = _changed(log, result)
    spread = shot_spread(log.known)
    shown = [one for one in heads_shown(log.known, spread, [t.code for t in log.tools]) if one.club in changed]
    shown = [one for one in shown if one.weight > LEAST_WEIGHT]
    if not shown or not log.known:
        return None
    shots_round = log.fitting.economy.shots_for(log.fitting.player.handicap)
    cost = variance = 0.0
    for one in shown:
        share = shots_round * one.shots / len(log.known)
        cost += share * one.difference / one.weight
        variance += (share * one.sd) ** 2 / one.weight
    claimed = float(step["gain_strokes_round"])
    kind = KINDS[min(int(step["heads_bought"]), len(KINDS) - 1)]
    return Claim(player, kind, claimed, claimed - cost, variance**0.5, sum(one.shots for one in shown))


def _changed(log: Logged, result: Mapping[str, Any]) -> set[str]:
    """Codes of the clubs in the bag that the proposal bought or bent."""
    clubs = result.get("clubs", [])
    names = {str(club["name"]) for club in clubs if not club["owned"] or abs(float(club["bend_deg"])) > 0.0}
    return {tool.code for tool in log.tools if tool.name in names}


def see_claims(database: Database, actor: Actor) -> ScoreOfClaimsOut:
    """The score of the studio's claims."""
    found = claims_of(database, actor)
    with database.transaction() as session:
        held = StudioRows(session, actor.studio_id).studio().claims_sd
    whole = came_true(found.claims)
    kinds = [came_true([one for one in found.claims if one.kind == kind], kind) for kind in KINDS]
    now_sd, would_be = doubt_of_claims(None) if held is None else held, doubt_of_claims(whole)
    return ScoreOfClaimsOut(
        claims=[_claim_out(one) for one in found.claims], kinds=[_came_out(one) for one in kinds if one is not None],
        every=None if whole is None else _came_out(whole), waiting=found.waiting,
        claims_sd=now_sd, would_be=rounded(would_be), held=_between(now_sd), would=_between(would_be), made_at=now(),
    )  # fmt: skip


def _between(sd: float) -> SharesOut:
    low, high = claims_between(sd)
    return SharesOut(low=rounded(low), high=rounded(high))


def take_claims(database: Database, actor: Actor, claims_sd: float) -> None:
    """Let new fittings begin with a doubt of claims; those that are there keep theirs."""
    with database.transaction() as session:
        studio = StudioRows(session, actor.studio_id).studio(lock=True)
        studio.claims_sd = claims_sd
        session.add(studio)


def _claim_out(claim: Claim) -> ClaimOut:
    wide = EIGHT_OF_TEN * claim.sd
    return ClaimOut(
        player=claim.player, kind=claim.kind, claimed=rounded(claim.claimed), seen=rounded(claim.seen),
        low=rounded(claim.seen - wide), high=rounded(claim.seen + wide), shots=claim.shots,
    )  # fmt: skip


def _came_out(found: CameTrue) -> CameTrueOut:
    return CameTrueOut(
        kind=found.kind, claims=found.claims, shots=found.shots, claimed=rounded(found.claimed),
        seen=rounded(found.seen), share=rounded(found.share), low=rounded(found.low), high=rounded(found.high),
    )  # fmt: skip
