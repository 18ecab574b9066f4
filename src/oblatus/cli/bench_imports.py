"""A file of 100,000 rows through the whole import, beside a bare COPY of the same strikes."""

from __future__ import annotations

import csv
import io
import time
from uuid import UUID

import numpy as np
import openpyxl

from oblatus.formats.fitting import FittingDocument
from oblatus.formats.imports import LayoutDocument
from oblatus.formats.sections.grounds import GroundDocument
from oblatus.formats.sections.player import PlayerDocument
from oblatus.store.database import Database
from oblatus.store.repositories import STRIKE_COLUMNS, StudioRows
from oblatus.usecases.actor import Actor
from oblatus.usecases.begin_import import begin_import, import_run
from oblatus.usecases.look_at_import import look_at_import
from oblatus.usecases.run_import import RunOptions, start_import
from oblatus.usecases.start_fitting import add_document

ROWS = 100_000
HEADER = ("Club", "Swing", "Carry (yd)", "Club Speed (mph)", "Ball Speed (mph)", "Launch Angle (deg)", "Spin Rate (rpm)",
          "Apex (ft)", "Attack Angle (deg)", "Shaft Lean (deg)", "Entry (mm)", "Note")  # fmt: skip
RANGES = ((40, 110), (60, 90), (60, 95), (20, 40), (4000, 11000), (30, 90), (-9, -1), (0, 10), (-90, -10))


def measure_import(database: Database, studio_id: UUID) -> dict[str, float]:
    """Seconds for a CSV and a workbook, of any header, to be strikes; and for a bare COPY of the same strikes."""
    actor = Actor(UUID(int=0), studio_id, "bench")
    rows = _rows(("full", "9:00", "10:30"))
    csv_s, bare_s = _import(database, actor, _csv(rows))
    xlsx_s, _ = _import(database, actor, _workbook(rows))
    return {
        "import_rows": float(ROWS),
        "import_csv_s": csv_s,
        "import_xlsx_s": xlsx_s,
        "bare_copy_s": bare_s,
        "import_csv_over_bare_copy": csv_s / bare_s,
    }


def many_strikes(database: Database, studio_id: UUID) -> UUID:
    """A fitting with a hundred thousand strikes at the pitch."""
    actor = Actor(UUID(int=0), studio_id, "bench")
    fitting, _ = _two_fittings(database, actor)
    _take(database, actor, fitting, _csv(_rows(("pitch",))))
    return fitting


def _rows(swings: tuple[str, ...]) -> list[tuple[object, ...]]:
    rng = np.random.default_rng(1)
    figures = [np.round(rng.uniform(low, high, ROWS), 1).tolist() for low, high in RANGES]
    named = np.array(swings)[rng.integers(0, len(swings), ROWS)].tolist()
    return list(zip(["PW"] * ROWS, named, *figures, [""] * ROWS, strict=True))


def _import(database: Database, actor: Actor, content: bytes) -> tuple[float, float]:
    """Seconds to read, check and take the file, and to COPY the strikes that came of it."""
    fitting, other = _two_fittings(database, actor)
    return _take(database, actor, fitting, content), _bare_copy(database, fitting, other)


def _two_fittings(database: Database, actor: Actor) -> tuple[UUID, UUID]:
    document = FittingDocument(player=PlayerDocument(name="bench"), grounds=(GroundDocument(name="home", share=1.0),))
    with database.transaction() as session:
        rows = StudioRows(session, actor.studio_id)
        return add_document(rows, document).id, add_document(rows, document).id


def _take(database: Database, actor: Actor, fitting: UUID, content: bytes) -> float:
    """Seconds to read, check and take the file."""
    row = begin_import(database, actor, fitting, "bench", content)
    mapping = look_at_import(database, actor, fitting, row.id, LayoutDocument(), None, "m").mapping
    if mapping is None:
        raise RuntimeError("the bench's own file is not understood")
    start = time.perf_counter()
    start_import(database, actor, fitting, row.id, mapping, RunOptions(take=True))
    while (run := import_run(database, actor, fitting, row.id)).state == "running":
        time.sleep(0.05)
    took = time.perf_counter() - start
    if run.counts is None or run.counts["taken"] != ROWS:
        raise RuntimeError(f"{run.state}: {run.words}")
    return took


def _bare_copy(database: Database, fitting: UUID, other: UUID) -> float:
    """Seconds for the same rows, ready as text, into the same table of another fitting."""
    names = ", ".join(("studio_id", *STRIKE_COLUMNS))
    connection = database.engine.raw_connection()
    try:
        cursor = connection.cursor()
        with cursor.copy(f"copy (select {names} from strike where fitting_id = '{fitting}') to stdout") as out:
            lines = [bytes(block) for block in out]
        there = str(other).encode()
        start = time.perf_counter()
        with cursor.copy(f"copy strike ({names}, taken_at, fitting_id) from stdin") as into:
            for line in lines:
                into.write(line.rstrip(b"\n") + b"\t2026-01-01\t" + there + b"\n")
        connection.commit()
        return time.perf_counter() - start
    finally:
        connection.close()


def _csv(rows: list[tuple[object, ...]]) -> bytes:
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(HEADER)
    writer.writerows(rows)
    return out.getvalue().encode()


def _workbook(rows: list[tuple[object, ...]]) -> bytes:
    book = openpyxl.Workbook(write_only=True)
    page = book.create_sheet("strikes")
    page.append(HEADER)
    for row in rows:
        page.append(row)
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()
