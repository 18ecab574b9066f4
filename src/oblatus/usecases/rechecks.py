"""What is due after a fitting, lofts that were read again, and what grooves have lost."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from statistics import fmean
from uuid import UUID

from oblatus.core.after.drift import as_built, drifts_of
from oblatus.core.after.due import SHORT_WORDS, Due, due_from
from oblatus.core.after.wear import Use, wear_of
from oblatus.core.card.setup import Tool
from oblatus.core.fitting.fitting import carry_model_of
from oblatus.core.shots import handicap_or_usual
from oblatus.formats.fitting import FittingDocument
from oblatus.formats.log import AfterOut, drift_out, due_out, wear_out
from oblatus.formats.rounded import rounded
from oblatus.formats.sections.bag import OwnedWedgeDocument
from oblatus.store.database import Database
from oblatus.store.grounds_and_bags import StudioReadings
from oblatus.store.handovers import StudioHandovers
from oblatus.store.repositories import StudioRows
from oblatus.store.tables import FittingRow, HandoverRow, ReadingRow
from oblatus.usecases.actor import Actor
from oblatus.usecases.days import day_of, today
from oblatus.usecases.engine import engine
from oblatus.usecases.show_carries import inputs_of

MOST_READINGS = 5000
DAYS = 365.25


@dataclass(frozen=True, slots=True)
class Since:
    """From which day rechecks count, and why from then."""

    on: date
    words: str


def since_of(document: FittingDocument, row: FittingRow, handovers: Sequence[HandoverRow]) -> Since:
    """The day on which the newest club was built, else that of the newest hand-over, else that of the fitting."""
    built = [wedge.built.on for wedge in document.bag.wedges if wedge.built is not None]
    if built:
        return Since(max(built), "built")
    if handovers:
        return Since(day_of(max(one.created_at for one in handovers)), "handed over")
    return Since(day_of(row.created_at), "fitting begun")


def use_of(document: FittingDocument) -> Use:
    """Rounds and range balls as they were told, with this player's wedge shots a round."""
    use = document.after.use
    shots = document.choices.economy.shots_a_round
    return Use(use.rounds_year, use.range_balls_week, *(() if shots is None else (shots,)))


def softest(makes: Sequence[str]) -> str:
    """The make by which lofts are rechecked: forged heads drift first."""
    return "forged" if "forged" in makes else "cast"


def due_of(document: FittingDocument, since: Since, today: date, read_on: date | None = None) -> tuple[Due, ...]:
    """What is due after a fitting, soonest first; `read_on` the day on which lofts were read again."""
    looked = {one.key: one.on for one in document.after.looked_at}
    if read_on is not None:
        looked["lofts"] = max(read_on, looked.get("lofts", read_on))
    put_off = {one.key: (one.until, one.reason) for one in document.after.snoozes}
    make = softest([wedge.make for wedge in document.bag.wedges])
    return due_from(since.on, make, use_of(document), max(today, since.on), put_off, looked)


def next_due(
    document: FittingDocument, row: FittingRow, handovers: Sequence[HandoverRow], read_on: date | None
) -> tuple[date, str, bool] | None:
    """The first thing due for the list of players: day, words, late or not; None before anything was built or handed
    over."""
    since = since_of(document, row, handovers)
    if since.words == "fitting begun":
        return None
    day = today()
    first = due_of(document, since, day, read_on)[0]
    return first.on, SHORT_WORDS[first.key], first.on < day


def read_again(
    wedges: Sequence[OwnedWedgeDocument], readings: Sequence[ReadingRow]
) -> Mapping[str, tuple[float, date | None]]:
    """Lofts that were read after a club was built, by code: the mean of the newest day in the gauge; else the loft of the
    bag, where it is another than as built: nobody knows since which day."""
    found: dict[str, tuple[float, date | None]] = {}
    for n, wedge in enumerate(wedges):
        if wedge.built is None or wedge.built.loft_deg is None:
            continue
        code = f"own:{n}"
        here = [
            (day_of(row.taken_at), row.figures["loft_deg"]) for row in readings
            if row.kind == "gauge" and row.target == code and row.set_aside is None
            and day_of(row.taken_at) > wedge.built.on
        ]  # fmt: skip
        if here:
            newest = max(day for day, _ in here)
            found[code] = (fmean(loft for day, loft in here if day == newest), newest)
        elif wedge.loft_deg != wedge.built.loft_deg:
            found[code] = (wedge.loft_deg, None)
    return found


def see_after(database: Database, actor: Actor, fitting_id: UUID) -> AfterOut:
    """Rechecks of a fitting; raises NotFoundError, and InputError where no carry can be told."""
    inputs = inputs_of(database, actor, fitting_id)
    with database.transaction() as session:
        row = StudioRows(session, actor.studio_id).fitting(fitting_id)
        handovers = StudioHandovers(session, actor.studio_id).handovers(fitting_id)
        readings = StudioReadings(session, actor.studio_id).readings(fitting_id, MOST_READINGS)
    document, fitting = inputs.document, inputs.fitting()
    since = since_of(document, row, handovers)
    again = read_again(document.bag.wedges, readings)
    tools = [Tool(item.code, item.name, item.head) for item in fitting.stock if item.owned]
    built_deg = {
        f"own:{n}": wedge.built.loft_deg
        for n, wedge in enumerate(document.bag.wedges)
        if wedge.built is not None and wedge.built.loft_deg is not None
    }
    drifts, whole = drifts_of(
        fitting, as_built(tools, built_deg), {code: loft for code, (loft, _) in again.items()}, engine().judge
    )
    read_on = max((day for _, day in again.values() if day is not None), default=None)
    use = use_of(document)
    day = today()
    years = max((day - since.on).days, 0) / DAYS
    handicap = handicap_or_usual(fitting.player.handicap)
    wear = wear_of(use.strikes_year * years, carry_model_of(fitting), handicap, fitting.economy.shots_for(handicap))
    return AfterOut(
        since=since.on, since_words=since.words,
        due=[due_out(one, day) for one in due_of(document, since, day, read_on)],
        drifts=[drift_out(one, again[one.code][1]) for one in drifts], drift_strokes_round=rounded(whole),
        wear=wear_out(wear),
    )  # fmt: skip
