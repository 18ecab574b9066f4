"""Hand a fitting over to its player: a page of its own, opened by a token that only the link holds."""

from __future__ import annotations

import hashlib
import hmac
import io
from base64 import b64encode, urlsafe_b64encode
from collections.abc import Sequence
from datetime import datetime, timedelta
from typing import Any
from uuid import UUID, uuid4

import segno

from oblatus.core.card.bag import card_rows
from oblatus.core.card.far import PINS, far_table
from oblatus.core.fitting.carries_of import ClubRow
from oblatus.core.words import Reader, trimmed, worded
from oblatus.errors import ConflictError, InputError
from oblatus.formats.card import EVERY
from oblatus.formats.dates import dates_ahead
from oblatus.formats.page import HandoverDocument, HandoverOut, PageDocument, ScoreDocument, far_out, standings_of
from oblatus.formats.recommendation import RecommendationOut
from oblatus.settings import Settings
from oblatus.store.database import Database
from oblatus.store.handovers import StudioHandovers
from oblatus.store.repositories import StudioRows
from oblatus.store.tables import HandoverRow, now
from oblatus.usecases.actor import Actor
from oblatus.usecases.card_of import card_of, tools_of
from oblatus.usecases.days import day_of
from oblatus.usecases.engine import engine
from oblatus.usecases.player_page import add_scores, digest_of, score_out
from oblatus.usecases.propose import propose
from oblatus.usecases.rechecks import softest, use_of
from oblatus.usecases.show_carries import FittingInputs, inputs_of
from oblatus.usecases.strikes_of import measured

HOLDS_FOR = timedelta(days=548)
"""Eighteen months."""

TOKEN_BYTES = 16


def hand_over(
    database: Database, settings: Settings, actor: Actor, fitting_id: UUID, handover_id: UUID, revision: int,
    reader: Reader,
) -> UUID:  # fmt: skip
    """Make the player's page of the fitting as it stands at a revision; sent again it is the same one.

    Raises
    ------
    ConflictError
        If the fitting has moved on: what is handed over is what the fitter saw.
    InputError
        If there is no wedge to make it from.
    NotFoundError
        If the studio has no such fitting.
    """
    inputs = inputs_of(database, actor, fitting_id)
    with database.transaction() as session:
        studio = StudioRows(session, actor.studio_id).studio().name
        scores = StudioHandovers(session, actor.studio_id).scores_of_fitting(fitting_id)
        known = {row.id for row in StudioHandovers(session, actor.studio_id).handovers(fitting_id)}
    if handover_id in known:
        return handover_id
    moment = now()
    by_drill: dict[str, list[int]] = {}
    for one in scores:
        by_drill.setdefault(one.drill, []).append(one.score)
    content = _content(inputs, studio, moment, reader, by_drill)
    with database.transaction() as session:
        row = StudioRows(session, actor.studio_id).fitting(fitting_id, lock=True)
        if row.revision != revision:
            raise ConflictError("This fitting changed since the card on this screen was made.", row.revision)
        session.add(
            HandoverRow(
                id=handover_id, studio_id=actor.studio_id, fitting_id=fitting_id,
                digest=digest_of(token_of(settings, handover_id)), content=content.model_dump(mode="json"),
                made_by=actor.name, created_at=moment, expires_at=moment + HOLDS_FOR,
            )
        )  # fmt: skip
    return handover_id


def _content(
    inputs: FittingInputs, studio: str, moment: datetime, reader: Reader, scores: dict[str, list[int]]
) -> PageDocument:
    found = propose(inputs.document, inputs.rack, measured(inputs.strikes)).result
    if found is None and not inputs.document.bag.wedges:
        raise InputError(propose(inputs.document, inputs.rack, measured(inputs.strikes)).problem)
    fitting, every = inputs.fitting(), EVERY[reader.distance]
    card = card_of(inputs.document, fitting, found, engine().judge, every, day_of(moment), scores)
    _, tools = tools_of(inputs.document, fitting, found)
    rows = card_rows(fitting, [ClubRow(tool.code, tool.name, tool.head.loft_deg) for tool in tools])
    makes = {item.code: item.make for item in fitting.stock}
    make = softest([makes.get(tool.code, "cast") for tool in tools])
    page = PageDocument(
        studio=studio, made_on=day_of(moment), distance=reader.distance, speed=reader.speed, card=card,
        far=far_out(far_table(fitting, rows, every), list(PINS)),
        dates=dates_ahead(day_of(moment), make, use_of(inputs.document)), summary=_summary(found),
    )  # fmt: skip
    # in the units of the day: the page is never made again
    return PageDocument.model_validate_json(worded(page.model_dump_json(), reader))


def _summary(found: RecommendationOut | None) -> list[str]:
    """What changes, why, what it should save, how sure."""
    if found is None:
        return []
    step = found.steps[found.taken_step]
    words = [found.verdict]
    words += [f"{trimmed(club.loft_deg)}°, {club.name}: {club.reason}" for club in found.clubs]
    if step.low is not None and step.high is not None and step.gain_strokes_round > 0.005:
        gain, span = f"{step.gain_strokes_round:.1f}", f"{step.low:.1f} and {step.high:.1f}"
        words.append(f"It should save {gain} strokes a round, 8 of 10 between {span}.")
    return words


def token_of(settings: Settings, handover_id: UUID) -> str:
    """The 128 bits that open a page: made from the program's own secret, so that only their digest is kept."""
    made = hmac.new(settings.secret_key.encode(), b"handover " + handover_id.bytes, hashlib.sha256).digest()
    return urlsafe_b64encode(made[:TOKEN_BYTES]).rstrip(b"=").decode()


def see_handovers(
    database: Database, settings: Settings, actor: Actor, fitting_id: UUID, address: str
) -> list[HandoverOut]:
    """Every hand-over of a fitting, newest first; `address` is under which name the program was reached.

    Raises
    ------
    NotFoundError
        If the studio has no such fitting.
    """
    with database.transaction() as session:
        StudioRows(session, actor.studio_id).fitting(fitting_id)
        rows = StudioHandovers(session, actor.studio_id)
        found = [(row, rows.scores(row.id)) for row in rows.handovers(fitting_id)]
    out = []
    for row, scores in found:
        path = f"/p/{token_of(settings, row.id)}" if row.closed_at is None and row.expires_at > now() else ""
        page, counted = PageDocument.model_validate(row.content), [score_out(one) for one in scores]
        out.append(
            HandoverOut(
                id=row.id, made_by=row.made_by, created_at=row.created_at, expires_at=row.expires_at,
                closed_at=row.closed_at, path=path, qr=_qr(f"{address.rstrip('/')}{path}") if path else "",
                page=page, scores=counted, standings=standings_of(page, counted),
            )
        )  # fmt: skip
    return out


def page_link(database: Database, settings: Settings, actor: Actor, fitting_id: UUID, address: str) -> str | None:
    """The address of the newest page that is open, if there is one; raises NotFoundError if there is no fitting."""
    with database.transaction() as session:
        StudioRows(session, actor.studio_id).fitting(fitting_id)
        rows = StudioHandovers(session, actor.studio_id).handovers(fitting_id)
    held = next((row for row in rows if row.closed_at is None and row.expires_at > now()), None)
    return None if held is None else f"{address.rstrip('/')}/p/{token_of(settings, held.id)}"


def _qr(address: str) -> str:
    """The address as a QR code (ISO/IEC 18004), a picture in a data address."""
    out = io.BytesIO()
    segno.make(address, error="m", micro=False).save(out, kind="svg", scale=4, border=4, dark="#17211d", light="#ffffff")
    return f"data:image/svg+xml;base64,{b64encode(out.getvalue()).decode()}"


def handover_documents(rows: StudioHandovers, fitting_id: UUID) -> list[dict[str, Any]]:
    """Every hand-over of a fitting as it goes into a file, newest first."""
    return [
        {
            "content": row.content, "made_by": row.made_by, "created_at": row.created_at.isoformat(),
            "expires_at": row.expires_at.isoformat(), "closed_at": row.closed_at and row.closed_at.isoformat(),
            "scores": [score_out(one).model_dump(mode="json") for one in rows.scores(row.id)],
        }
        for row in rows.handovers(fitting_id)
    ]  # fmt: skip


def add_handovers(
    rows: StudioHandovers, fitting_id: UUID, handovers: Sequence[HandoverDocument], settings: Settings | None
) -> None:
    """Rows for hand-overs that came with a file; without settings their pages are closed: no link to them was given."""
    for one in handovers:
        new = uuid4()
        digest = digest_of(token_of(settings, new)) if settings else digest_of(str(uuid4()))
        rows.session.add(
            HandoverRow(
                id=new, studio_id=rows.studio_id, fitting_id=fitting_id, digest=digest,
                content=one.content.model_dump(mode="json"), made_by=one.made_by, created_at=one.created_at,
                expires_at=one.expires_at, closed_at=one.closed_at if settings else one.closed_at or now(),
            )
        )  # fmt: skip
        rows.session.flush()
        if one.scores:
            rows.add_scores(new, [{**score.model_dump(), "taken_at": one.created_at} for score in one.scores])


def close_page(database: Database, actor: Actor, fitting_id: UUID, handover_id: UUID) -> None:
    """Close a player's page: its link opens nothing any longer; raises NotFoundError."""
    with database.transaction() as session:
        row = StudioHandovers(session, actor.studio_id).handover(fitting_id, handover_id, lock=True)
        row.closed_at = row.closed_at or now()
        session.add(row)


def fitter_scores(
    database: Database, actor: Actor, fitting_id: UUID, handover_id: UUID, scores: Sequence[ScoreDocument]
) -> int:
    """Add scores that the fitter counted; raises NotFoundError."""
    with database.transaction() as session:
        rows = StudioHandovers(session, actor.studio_id)
        rows.handover(fitting_id, handover_id)
        return add_scores(rows, handover_id, scores, "fitter")
