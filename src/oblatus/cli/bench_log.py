"""Speed of what a log of 2,000 shots says, and of a trip's answer."""

from __future__ import annotations

import time
from datetime import timedelta
from typing import Any
from uuid import uuid4

import numpy as np

from oblatus.cli.bench_carries import times
from oblatus.core.after.trip import trip_answer
from oblatus.core.card.setup import Tool
from oblatus.formats.convert import fitting_from, grounds_of
from oblatus.formats.demo import demo_fittings, demo_rack
from oblatus.store.tables import LogShotRow, now
from oblatus.usecases.engine import engine
from oblatus.usecases.log_told import log_out
from oblatus.usecases.logged import judged_log
from oblatus.usecases.propose import propose
from oblatus.usecases.show_carries import FittingInputs

SHOTS = 2000


def measure_log() -> dict[str, Any]:
    """A log as the Log step shows it, with an edit before each so that nothing of it is remembered; and the trip of the
    same player, first and once its families are there, without and with its doubt."""
    document = next(one for one in demo_fittings() if one.attached and one.attached.log)
    shots = document.attached.log if document.attached else ()
    rack = tuple(demo_rack())
    rows = []
    for n in range(SHOTS):
        one = shots[n % len(shots)]
        kept = one.model_dump(mode="json", exclude={"id", "round", "on", "removed"})
        day = one.on - timedelta(days=365 * (n // len(shots)))
        rows.append(LogShotRow(id=uuid4(), studio_id=uuid4(), fitting_id=uuid4(), round=one.round, on=day, shot=kept,
                               by="player", taken_at=now()))  # fmt: skip

    def log(n: int) -> None:
        economy = document.choices.economy.model_copy(update={"shots_a_round": 15.0 + 0.01 * n})
        choices = document.choices.model_copy(update={"economy": economy})
        inputs = FittingInputs(document.model_copy(update={"choices": choices}), rack, ())
        log_out(judged_log(inputs, rows), proposal)

    proposal = propose(document, rack).result
    log(-1)
    said = times(log, 12)
    fitting = fitting_from(document, rack)
    tools = [Tool(item.code, item.name, item.head) for item in fitting.stock if item.owned]
    away = grounds_of(document.model_copy(update={"grounds": document.after.trips[0].grounds}))
    began = time.perf_counter()
    trip_answer(fitting, tools, away, engine().judge)
    first = time.perf_counter() - began
    warm = times(lambda _: trip_answer(fitting, tools, away, engine().judge), 12)
    trip_answer(fitting, tools, away, engine().judge, doubt=True)
    sure = times(lambda _: trip_answer(fitting, tools, away, engine().judge, doubt=True), 6)
    return {
        "log_2000_shots_ms": 1e3 * float(np.median(said)), "log_2000_shots_p95_ms": 1e3 * float(np.quantile(said, 0.95)),
        "trip_first_ms": 1e3 * first, "trip_ms": 1e3 * float(np.median(warm)),
        "trip_with_doubt_ms": 1e3 * float(np.median(sure)),
    }  # fmt: skip
