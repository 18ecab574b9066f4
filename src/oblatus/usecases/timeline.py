"""A player over the years: every fitting that follows another, and what happened in each."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence
from datetime import date
from itertools import pairwise
from typing import Any
from uuid import UUID

from oblatus.core.card.drills import BY_NAME, worked
from oblatus.core.log.says import seen_of, shot_spread
from oblatus.errors import InputError
from oblatus.formats.fitting import FittingDocument
from oblatus.formats.log import EraOut, MomentKind, MomentOut, TimelineOut
from oblatus.formats.rounded import rounded
from oblatus.store.builds import StudioBuilds
from oblatus.store.database import Database
from oblatus.store.grounds_and_bags import StudioReadings
from oblatus.store.handovers import StudioHandovers
from oblatus.store.proofs import StudioProofs
from oblatus.store.repositories import StudioRows
from oblatus.store.rounds import StudioRounds
from oblatus.store.tables import FittingRow, SnapshotRow
from oblatus.usecases.actor import Actor
from oblatus.usecases.claims import played_with
from oblatus.usecases.days import day_of
from oblatus.usecases.logged import read_log
from oblatus.usecases.rechecks import MOST_READINGS


def see_timeline(database: Database, actor: Actor, fitting_id: UUID) -> TimelineOut:
    """Every fitting of the player, oldest first, with every moment, newest first; raises NotFoundError."""
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        rows.fitting(fitting_id)
        line = rows.line_of(fitting_id)
        kept = {row.id: list(rows.kept_whole(row.id)) for row in line}
        shots = {row.id: StudioRounds(session, actor.studio_id).shots(row.id) for row in line}
        moments = [moment for row in line for moment in _moments(session, actor, row, kept[row.id])]
    for row in line:
        rounds = Counter((one.round, one.on) for one in shots[row.id])
        moments += [
            MomentOut(on=on, kind="round", words=f"{n} shots noted", fitting_id=row.id, link="log")
            for (_, on), n in rounds.items()
        ]
    came = {row.id: _came(database, actor, row.id) if shots[row.id] else None for row in line}
    eras = []
    for row in line:
        first = shots[row.id][0].on if shots[row.id] else None
        played = played_with(kept[row.id], first) if kept[row.id] else None
        count = len({one.round for one in shots[row.id]})
        eras.append(_era(row, kept[row.id], played, came[row.id], count, here=row.id == fitting_id))
    for n, (before, row) in enumerate(pairwise(line)):
        with database.transaction() as session:
            pages = StudioHandovers(session, actor.studio_id).handovers(before.id)
            drills = [drill for page in pages[:1] for drill in page.content["card"]["drills"]]
        eras[n + 1] = eras[n + 1].model_copy(update={"drills": drill_words(before, row, drills)})
    names = {leak["situation"]: leak["name"] for row in line for leak in _leaks(kept[row.id])}
    return TimelineOut(eras=eras, moments=sorted(moments, key=lambda one: one.on, reverse=True), situations=names)


LEVERS = {"entry": "entry_mm", "lean": "lean_deg"}
"""The estimate of the habit whose spread a drill trains; no spread of speed is kept."""


def drill_words(before: FittingRow, row: FittingRow, drills: Sequence[Mapping[str, Any]]) -> list[str]:
    """What became of the spreads that drills trained, where both fittings measured them."""
    found = []
    then, now = (FittingDocument.model_validate(one.document).player.delivery for one in (before, row))
    for drill in drills:
        key = LEVERS.get(BY_NAME[drill["key"]].trains)
        if key is None:
            continue
        was, is_ = getattr(then, key), getattr(now, key)
        if was.source != "measured" or is_.source != "measured":
            found.append(f"{drill['name']}: not measured again yet")
            continue
        seen = worked((was.spread, was.count or 0), (is_.spread, is_.count or 0))
        unit = "mm" if key.endswith("_mm") else "°"
        found.append(f"{drill['name']}: spread {was.spread:.1f} {unit} then, {is_.spread:.1f} {unit} now: {seen.call}")
    return found


def _moments(session: Any, actor: Actor, row: FittingRow, kept: list[SnapshotRow]) -> list[MomentOut]:
    """What happened in a fitting, rounds aside."""
    studio = actor.studio_id
    found: list[tuple[date, MomentKind, str, str]] = [(day_of(row.created_at), "fitting", "fitting begun", "player")]
    found += [(day_of(one.created_at), "kept", f"kept: {', '.join(one.clubs)}", "kept") for one in kept]
    for proof in StudioProofs(session, studio).proofs(row.id):
        clubs = [candidate["name"] for candidate in proof.document["candidates"]]
        found.append((day_of(proof.created_at), "proof", f"proof of {' and '.join(clubs)}", "proof"))
    for order in StudioBuilds(session, studio).orders(row.id):
        if order.state == "built" and order.ended_at is not None:
            found.append((day_of(order.ended_at), "built", f"built and signed by {order.ended_by}", "build"))
    for page in StudioHandovers(session, studio).handovers(row.id):
        found.append((day_of(page.created_at), "handed over", f"handed over by {page.made_by}", "card"))
    for on in sorted(_recheck_days(session, actor, row)):
        found.append((on, "recheck", "lofts read again", "log"))
    return [
        MomentOut.model_validate(
            {"on": on.isoformat(), "kind": kind, "words": words, "fitting_id": str(row.id), "link": link}
        )
        for on, kind, words, link in found
    ]


def _recheck_days(session: Any, actor: Actor, row: FittingRow) -> set[date]:
    """Days on which a built club was in the gauge again."""
    wedges = FittingDocument.model_validate(row.document).bag.wedges
    built = {f"own:{n}": wedge.built.on for n, wedge in enumerate(wedges) if wedge.built is not None}
    readings = StudioReadings(session, actor.studio_id).readings(row.id, MOST_READINGS)
    return {
        day_of(one.taken_at) for one in readings
        if one.kind == "gauge" and one.target in built and day_of(one.taken_at) > built[one.target]
    }  # fmt: skip


def _came(database: Database, actor: Actor, fitting_id: UUID) -> float | None:
    """Strokes a round more than expected, drawn toward none; None where nothing is judged."""
    try:
        log = read_log(database, actor, fitting_id)
    except InputError:
        return None
    if not log.known:
        return None
    seen = seen_of(log.known, shot_spread(log.known))
    return seen.difference * log.fitting.economy.shots_for(log.fitting.player.handicap)


def _leaks(kept: list[SnapshotRow]) -> list[Mapping[str, Any]]:
    """Where strokes went by the last kept proposal; an earlier engine's may not say."""
    return list(kept[-1].result.get("leaks", [])) if kept else []


def _era(
    row: FittingRow, kept: list[SnapshotRow], played: SnapshotRow | None, over: float | None, rounds: int, *, here: bool
) -> EraOut:
    document = FittingDocument.model_validate(row.document)
    delivery, promised = document.player.delivery, None
    if played is not None and "steps" in played.result:
        result = played.result
        promised = float(result["steps"][result["taken_step"]]["gain_strokes_round"])
    return EraOut(
        fitting_id=row.id, on=day_of(row.created_at), here=here,
        lofts_deg=[rounded(wedge.loft_deg) for wedge in document.bag.wedges],
        bounces_deg=[rounded(wedge.bounce_deg) for wedge in document.bag.wedges],
        attack_deg=delivery.attack_deg.mean, attack_spread=delivery.attack_deg.spread,
        attack_source=delivery.attack_deg.source, lean_deg=delivery.lean_deg.mean,
        lean_spread=delivery.lean_deg.spread, lean_source=delivery.lean_deg.source, handicap=document.player.handicap,
        promised_strokes_round=None if promised is None else rounded(promised),
        came_strokes_round=None if promised is None or over is None else rounded(promised - over), rounds=rounds,
        drills=[],
        strokes={leak["situation"]: rounded(float(leak["strokes_round"])) for leak in _leaks(kept)},
    )  # fmt: skip
