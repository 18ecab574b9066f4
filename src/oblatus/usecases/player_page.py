"""The page that a player opens by a link: what it tells, and what comes from the phone."""

from __future__ import annotations

import hashlib
import time
from collections.abc import Sequence
from threading import Lock
from uuid import UUID

from cachetools import TTLCache
from sqlmodel import Session

from oblatus.core.fitting.recommend import ABOVE
from oblatus.core.log.shots import RESULTS
from oblatus.core.words import ONE_LINE, Reader
from oblatus.errors import NotFoundError, TooManyError
from oblatus.formats.dates import as_ics, dates_of
from oblatus.formats.fitting import FittingDocument
from oblatus.formats.log_shots import LogShotDocument
from oblatus.formats.page import (
    DateOut,
    PageClubOut,
    PageDocument,
    PageOut,
    ResultOut,
    ScoredBy,
    ScoreDocument,
    ScoreOut,
    standings_of,
)
from oblatus.store.database import Database
from oblatus.store.grounds_and_bags import StudioReadings
from oblatus.store.handovers import StudioHandovers, handover_of
from oblatus.store.repositories import StudioRows
from oblatus.store.rounds import StudioRounds
from oblatus.store.tables import FittingRow, HandoverRow, now
from oblatus.usecases.course_log import add_shots, code_now, shots_from_page
from oblatus.usecases.days import day_of, latest_day, today
from oblatus.usecases.rechecks import due_of, since_of

MOST_A_MINUTE = 240
"""Requests for pages from one address, in each worker."""

MOST_SCORES = 3000


def digest_of(token: str) -> str:
    """A token as it is kept."""
    return hashlib.sha256(token.encode("utf-8", "surrogatepass")).hexdigest()


_CALLS: TTLCache[tuple[str, int], int] = TTLCache(4096, 120.0)
_COUNTING = Lock()


def _count(address: str) -> None:
    key = (address, int(time.monotonic() // 60.0))
    with _COUNTING:
        _CALLS[key] = calls = _CALLS.get(key, 0) + 1
    if calls > MOST_A_MINUTE:
        raise TooManyError("Too many requests from here. Wait a minute.", 60)


def open_page(database: Database, token: str, address: str) -> PageOut:
    """What a token opens.

    Raises
    ------
    NotFoundError
        If it opens nothing, or nothing any longer: in words for the player.
    TooManyError
        If the address asks too often.
    """
    _count(address)
    with database.transaction() as session:
        row = handover_of(session, digest_of(token))
        held = _held(row)
        rows = StudioHandovers(session, held.studio_id)
        newer = any(one.created_at > held.created_at and one.closed_at is None for one in rows.handovers(held.fitting_id))
        scores = [score_out(one) for one in rows.scores(held.id)]
        shots = StudioRounds(session, held.studio_id).shots(held.fitting_id)
        row_now = StudioRows(session, held.studio_id).fitting(held.fitting_id)
        document = FittingDocument.model_validate(row_now.document)
        dates = dates_now(session, row_now)
    bag = document.bag
    page = PageDocument.model_validate(held.content)
    above = [("pw", ABOVE[0], bag.pitching_wedge_loft_deg), ("9i", ABOVE[1], bag.nine_iron_loft_deg)]
    clubs = [PageClubOut(code=club.code, name=club.name, loft_deg=club.loft_deg) for club in page.card.clubs]
    return PageOut(
        page=page, scores=scores, standings=standings_of(page, scores), expires_at=held.expires_at, newer=newer,
        clubs=[*clubs, *(PageClubOut(code=code, name=name, loft_deg=loft) for code, name, loft in above)],
        results=[ResultOut(key=one.key, name=one.name) for one in RESULTS],
        dates=dates, gone=gone_from(document, page), noted_shots=len(shots),
        noted_rounds=len({one.round for one in shots}),
    )  # fmt: skip


def page_reader(database: Database, token: str) -> Reader | None:
    """The units that a page was handed over in; None where the token opens nothing."""
    with database.transaction() as session:
        row = handover_of(session, digest_of(token))
        if row is None:
            return None
        page = PageDocument.model_validate(row.content)
    return Reader(page.distance, page.speed, ONE_LINE)


def gone_from(document: FittingDocument, page: PageDocument) -> list[str]:
    """Names of the clubs of a page that are in the bag no longer; none of a set that was only proposed."""
    if page.card.basis == "proposed":
        return []
    return [club.name for club in page.card.clubs if not code_now(document, club).startswith("own:")]


def _held(row: HandoverRow | None) -> HandoverRow:
    if row is None:
        raise NotFoundError("This link opens nothing. Ask the studio for the right one.")
    if row.closed_at is not None:
        raise NotFoundError("The studio has closed this page. Ask there for a new one.")
    if row.expires_at <= now():
        raise NotFoundError(f"This page held until {row.expires_at:%d %B %Y}. Ask the studio for a new one.")
    return row


def player_scores(database: Database, token: str, scores: Sequence[ScoreDocument], address: str) -> int:
    """Add scores that the player counted, sent twice or not; raises as `open_page`, also past the most scores."""
    _count(address)
    with database.transaction() as session:
        row = _held(handover_of(session, digest_of(token)))
        return add_scores(StudioHandovers(session, row.studio_id), row.id, scores, "player")


def player_shots(database: Database, token: str, shots: Sequence[LogShotDocument], address: str) -> int:
    """Add shots that the player noted on the course, sent twice or not; raises as `open_page`, and TooManyError."""
    _count(address)
    with database.transaction() as session:
        row = _held(handover_of(session, digest_of(token)))
        document = FittingDocument.model_validate(StudioRows(session, row.studio_id).fitting(row.fitting_id).document)
        named = shots_from_page(document, PageDocument.model_validate(row.content), shots)
        return add_shots(StudioRounds(session, row.studio_id), row.fitting_id, named, "player")


def add_scores(rows: StudioHandovers, handover_id: UUID, scores: Sequence[ScoreDocument], by: ScoredBy) -> int:
    """Add scores to a page, each once; returns how many were new. Raises TooManyError past the most."""
    if len(rows.scores(handover_id)) + len(scores) > MOST_SCORES:
        raise TooManyError(f"A page holds at most {MOST_SCORES} scores.", 3600)
    moment = now()
    # a phone with a wrong clock practises today
    latest = latest_day()
    return rows.add_scores(
        handover_id,
        [
            {**one.model_dump(), "on": one.on if one.on <= latest else day_of(moment), "by": by, "taken_at": moment}
            for one in scores
        ],
    )


def page_dates(database: Database, token: str, address: str) -> bytes:
    """The days of a page as iCalendar; raises as `open_page`."""
    _count(address)
    with database.transaction() as session:
        row = _held(handover_of(session, digest_of(token)))
        studio = StudioRows(session, row.studio_id)
        dates = dates_now(session, studio.fitting(row.fitting_id))
        return as_ics(dates, studio.studio().name, row.id, row.created_at)


def dates_now(session: Session, row: FittingRow) -> list[DateOut]:
    """The days ahead of a player as they stand: what was put off or looked at since counts."""
    document = FittingDocument.model_validate(row.document)
    since = since_of(document, row, StudioHandovers(session, row.studio_id).handovers(row.id))
    gauged = StudioReadings(session, row.studio_id).last_gauged().get(row.id)
    return dates_of(due_of(document, since, today(), None if gauged is None else day_of(gauged)))


def score_out(row: object) -> ScoreOut:
    """A score as it is told."""
    return ScoreOut.model_validate(
        {name: str(getattr(row, name)) if name in {"id", "on"} else getattr(row, name) for name in ScoreOut.model_fields}
    )
