"""The course log of a fitting: shots come in, and what they say goes out."""

from __future__ import annotations

from collections.abc import Sequence
from uuid import UUID

from oblatus.errors import Fault, InputError, NotFoundError, TooManyError, fault
from oblatus.formats.card import CardClubOut
from oblatus.formats.fitting import FittingDocument
from oblatus.formats.log import LogOut, NotedBy, NotedOut
from oblatus.formats.log_shots import MOST_LOGGED, LogShotDocument
from oblatus.formats.page import PageDocument
from oblatus.formats.rounded import rounded
from oblatus.formats.sections.grounds import ground_called
from oblatus.store.database import Database
from oblatus.store.repositories import StudioRows
from oblatus.store.rounds import StudioRounds
from oblatus.store.tables import now
from oblatus.usecases.actor import Actor
from oblatus.usecases.days import latest_day
from oblatus.usecases.log_told import log_out
from oblatus.usecases.logged import inputs_and_rows, judged_log, names_of, read_log, shot_of_row, situation_name
from oblatus.usecases.propose import propose
from oblatus.usecases.strikes_of import measured

NO_LONGER = "not in this bag"


def take_shots(database: Database, actor: Actor, fitting_id: UUID, shots: Sequence[LogShotDocument]) -> int:
    """Take shots that the fitter noted, sent twice or not; returns how many were new.

    Raises
    ------
    InputError
        If a day is in the future, or a club is none of this bag.
    NotFoundError
        If the studio has no such fitting.
    TooManyError
        If the log is full.
    """
    with database.transaction() as session:
        row = StudioRows(session, actor.studio_id).fitting(fitting_id)
        check_shots(FittingDocument.model_validate(row.document), shots)
        return add_shots(StudioRounds(session, actor.studio_id), fitting_id, shots, "fitter")


def check_shots(document: FittingDocument, shots: Sequence[LogShotDocument]) -> None:
    """Refuse shots of days to come, and with clubs that the bag does not have."""
    known = {"pw", "9i", *(f"own:{n}" for n in range(len(document.bag.wedges)))}
    known |= {one.code for one in document.bag.former}
    faults: list[Fault] = []
    for n, shot in enumerate(shots):
        if shot.on > latest_day():
            faults += fault(f"shots.{n}.on", "is in the future", shot.on).faults
        if not shot.removed and shot.club not in known:
            faults += fault(f"shots.{n}.club", "is not in this bag", shot.club).faults
    if faults:
        raise InputError(faults)


def add_shots(rows: StudioRounds, fitting_id: UUID, shots: Sequence[LogShotDocument], by: NotedBy) -> int:
    """Rows for shots; a phone with a wrong clock played today."""
    if rows.count(fitting_id) + len(shots) > MOST_LOGGED:
        raise TooManyError(f"A log holds at most {MOST_LOGGED} shots.", 3600)
    moment = now()
    latest = latest_day()
    every: dict[UUID, dict[str, object]] = {}
    for shot in shots:
        removed = shot.removed or (shot.id in every and every[shot.id]["removed_at"] is not None)
        every[shot.id] = {
            "id": shot.id, "round": shot.round, "on": min(shot.on, latest),
            "shot": shot.model_dump(mode="json", exclude={"id", "round", "on", "removed"}), "by": by, "taken_at": moment,
            "removed_at": moment if removed else None,
        }  # fmt: skip
    return rows.add_shots(fitting_id, list(every.values())) if every else 0


def shots_from_page(
    document: FittingDocument, page: PageDocument, shots: Sequence[LogShotDocument]
) -> list[LogShotDocument]:
    """Shots of a player's page with the codes and names that its clubs and grounds go by today: they may have changed
    since."""
    codes = {club.code: code_now(document, club) for club in page.card.clubs}

    def now_called(code: str | None) -> str | None:
        return None if code is None else codes.get(code, code)

    return [
        shot.model_copy(
            update={
                "club": now_called(shot.club),
                "advised": now_called(shot.advised),
                "ground": ground_called(document.grounds, shot.ground),
            }
        )
        for shot in shots
    ]


def code_now(document: FittingDocument, club: CardClubOut) -> str:
    """The code by which a club of a page goes in a bag: by its name, of two alike the one of that loft; the wedge in its
    place where that is the same but for its name; its own code where it is in the bag no longer."""
    wedges = document.bag.wedges
    named = [(abs(float(w.loft_deg) - club.loft_deg), n) for n, w in enumerate(wedges) if w.name == club.name]
    if named:
        return f"own:{min(named)[1]}"
    former = next((one.code for one in document.bag.former if one.wedge.name == club.name), None)
    if former is not None:
        return former
    for n, wedge in enumerate(wedges):
        if club.code == f"own:{n}" and (wedge.loft_deg, wedge.bounce_deg) == (club.loft_deg, club.bounce_deg):
            return club.code
    return f"gone:{club.code}"[:40] if club.code.startswith("own:") else club.code


def mark_round(database: Database, actor: Actor, fitting_id: UUID, round_id: UUID, *, out: bool) -> None:
    """Take a round out of the log, or put it back; raises NotFoundError."""
    with database.transaction() as session:
        StudioRows(session, actor.studio_id).fitting(fitting_id, lock=True)
        rows = StudioRounds(session, actor.studio_id)
        if not rows.of_round(fitting_id, round_id):
            raise NotFoundError("There is no such round.")
        rows.mark_round(fitting_id, round_id, now() if out else None)


def see_log(database: Database, actor: Actor, fitting_id: UUID) -> LogOut:
    """What the log says; raises as `read_log`."""
    inputs, rows = inputs_and_rows(database, actor, fitting_id)
    proposal = propose(inputs.document, inputs.rack, measured(inputs.strikes)).result
    return log_out(judged_log(inputs, rows), proposal)


def see_round(database: Database, actor: Actor, fitting_id: UUID, round_id: UUID) -> list[NotedOut]:
    """The shots of a round with what each was worth; raises NotFoundError."""
    log = read_log(database, actor, fitting_id)
    names = names_of(log)
    found = [
        NotedOut(
            shot=shot_of_row(row), club_name=names.get(shot.club, NO_LONGER),
            situation_name=situation_name(shot.situation),
            strokes=None if one is None else rounded(one.strokes),
            expected=None if one is None else rounded(one.expected.strokes),
        )
        for row, shot, one in zip(log.rows, log.shots, log.noted, strict=True)
        if row.round == round_id
    ]  # fmt: skip
    if not found:
        raise NotFoundError("There is no such round.")
    return found
