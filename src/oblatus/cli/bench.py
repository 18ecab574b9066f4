"""`oblatus bench`: what it costs, measured in one run: medians, percentiles and ratios."""

from __future__ import annotations

import math
import sys
import tempfile
import threading
import time
from argparse import Namespace
from collections.abc import Callable
from pathlib import Path
from typing import Any
from uuid import uuid4

import numpy as np
from numpy.typing import NDArray
from sqlmodel import select
from threadpoolctl import threadpool_limits

from oblatus.cli.arguments import number, show
from oblatus.cli.bench_build import measure_build
from oblatus.cli.bench_carries import measure_carries, measure_flight, times
from oblatus.cli.bench_edits import measure_edits
from oblatus.cli.bench_front import measure_front
from oblatus.cli.bench_imports import measure_import
from oblatus.cli.bench_live import measure_live
from oblatus.cli.bench_log import measure_log
from oblatus.cli.bench_memory import measure_memory
from oblatus.cli.bench_reference import strike_with_solve_ivp
from oblatus.cli.bench_screens import measure_screens
from oblatus.cli.bench_verdict import measure_verdict
from oblatus.core.bounds import Bound
from oblatus.core.clubs import Head
from oblatus.core.fitting import recommend
from oblatus.core.fitting.nodes import quadrature
from oblatus.core.grounds import Sand, Turf
from oblatus.core.strike import FamilyJob, FamilyPool, Swing, build_solid, ground_row
from oblatus.core.strike import _kernels as strike_kernels
from oblatus.core.strike import _lanes as lanes
from oblatus.core.strike.family_jobs import SHAPE
from oblatus.formats.convert import fitting_from
from oblatus.formats.demo import demo_fittings, demo_rack
from oblatus.formats.desk import DeskIn
from oblatus.settings import Settings
from oblatus.store.database import Database
from oblatus.store.migrate import migrate
from oblatus.store.server import LocalServer
from oblatus.store.tables import Studio
from oblatus.usecases.at_desk import at_desk
from oblatus.usecases.engine import engine
from oblatus.usecases.seed import DEMO_EMAIL, DEMO_PASSWORD, seed_once
from oblatus.web.app import create_app

EDITS = 100
_ALONE = ("memory", "screens")

Floats = NDArray[np.float64]


def add_bench(commands: Any) -> None:
    """Register `bench`."""
    parser = commands.add_parser("bench", help="measure the engine and the round trip of an edit")
    parser.add_argument("--json", action="store_true")
    parser.add_argument(
        "--part", choices=[*_parts(), *_ALONE], help="one part; memory and screens, which take long, only so"
    )
    parser.add_argument("--edits", type=number("edits", Bound(1, 100_000, "")), default=1000.0, help="of the memory part")
    parser.set_defaults(run=run_bench)


def run_bench(args: Namespace) -> int:
    """Run every measurement, or one, and print it; nothing is left behind."""
    figures: dict[str, Any] = {}
    if args.part == "memory":
        figures = measure_memory(int(args.edits), lambda words: print(words, file=sys.stderr, flush=True))
    if args.part == "screens":
        figures = measure_screens()
    for name, measure in _parts().items():
        if args.part in (None, name):
            figures |= measure()
    show({key: round(value, 4) for key, value in figures.items()}, args.json)
    return 0


def _parts() -> dict[str, Callable[[], dict[str, Any]]]:
    return {
        "verdict": measure_verdict, "flight": measure_flight, "carries": measure_carries, "strike": _strike,
        "build": measure_build, "log": measure_log, "growth": _growth, "ceiling": _ceiling, "round_trip": _round_trip,
        "edits": measure_edits,
    }  # fmt: skip


def _strike() -> dict[str, float]:
    """One direct strike against the general solver, and a family and an expectation on their own."""
    head, swing, turf = Head(56, 10), Swing(0.0, 0.0, -5.0, 20.0, 1.0, -0.071), Turf(90)
    solid, (kind, row) = build_solid(head, 0.0), ground_row(turf)
    rows = np.empty((80, 7))
    arguments = (
        kind, solid.sole, solid.face, solid.edge, solid.heights, solid.leads, solid.loft_in_plane, solid.in_plane,
        solid.mass, row, strike_kernels.CONTACTS[kind], swing.entry, 0.0, math.radians(-5.0), 20.0, 1.0, 0.005, rows,
    )  # fmt: skip

    def direct(_: int) -> None:
        for _ in range(100):
            strike_kernels.strike(*arguments)

    direct(0)
    one = float(np.median(times(direct, 9))) / 100
    reference = float(np.median(times(lambda _: strike_with_solve_ivp(solid, kind, row, swing), 3)))
    return {
        "strike_direct_us": 1e6 * one,
        "strike_solve_ivp_ms": 1e3 * reference,
        "strike_ratio_solve_ivp_to_direct": reference / one,
        "desk_six_heads_ms": 1e3 * float(np.median(times(_desk, 20))),
    }


def _beside_two(ask: Callable[[], Any]) -> dict[str, float]:
    """A desk question and a plain request of a third fitter, alone and while two others recompute without a pause."""
    fittings = [fitting_from(document, demo_rack()) for document in demo_fittings()[:2]]
    judge, stop = engine().judge, threading.Event()

    def recompute(n: int) -> None:
        while not stop.is_set():
            recommend(fittings[n], judge)

    def both(when: str) -> dict[str, float]:
        desk, plain = 1e3 * times(_desk, 60), 1e3 * times(lambda _: ask(), 60)
        return {
            f"desk_{when}_p50_ms": float(np.percentile(desk, 50)),
            f"desk_{when}_p95_ms": float(np.percentile(desk, 95)),
            f"request_{when}_p95_ms": float(np.percentile(plain, 95)),
        }

    alone = both("alone")
    threads = [threading.Thread(target=recompute, args=(n,)) for n in range(2)]
    for thread in threads:
        thread.start()
    try:
        beside = both("beside_two_recomputing")
    finally:
        stop.set()
        for thread in threads:
            thread.join()
    return alone | beside


def _desk(i: int) -> None:
    heads = [{"loft_deg": 56.0, "bounce_deg": float(b)} for b in (6, 8, 9, 10, 12, 14)]
    ground = {"kind": "turf", "firmness_g": 90.0}
    at_desk(DeskIn.model_validate({"heads": heads, "ground": ground, "entry_mm": -30.0 - i}), engine().pool)


def _growth() -> dict[str, float]:
    """Cold and warm cost by heads and scenarios (9 x 16 strikes each, two threads), and of the resampling."""
    figures: dict[str, float] = {}
    nodes, entries = quadrature(16)
    for heads, scenarios in ((75, 12), (150, 12), (300, 6), (300, 12)):
        jobs, means, roots = _field(heads, scenarios)
        pool = FamilyPool()
        start = time.perf_counter()
        pool.expect(jobs, means, roots, nodes, entries)
        cold = time.perf_counter() - start
        moved = means + np.array([0.01, 0.02, 0.001])
        warm = float(np.median(times(lambda _: pool.expect(jobs, moved, roots, nodes, entries), 3)))  # noqa: B023
        figures |= {
            f"{heads}_heads_{scenarios}_scenarios_cold_s": cold,
            f"{heads}_heads_{scenarios}_scenarios_warm_s": warm,
        }
    return figures


def _field(heads: int, scenarios: int) -> tuple[list[FamilyJob], Floats, Floats]:
    """Random heads on a spread of grounds."""
    rng = np.random.default_rng(2)
    jobs: list[FamilyJob] = []
    means: list[tuple[float, float, float]] = []
    for _ in range(heads):
        head = Head(
            float(rng.uniform(48, 62)), float(rng.uniform(4, 14)), float(rng.uniform(0.016, 0.025)),
            heel_relief=float(rng.uniform(0, 0.002)),
        )  # fmt: skip
        for j in range(scenarios):
            turf = j % 12 < 7
            ground = Turf(55.0 + 28 * (j % 4), 0.001 + 0.003 * (j % 3)) if turf else Sand(1.6 + 0.4 * (j % 3), 0.08)
            kind, row = ground_row(ground)
            opening = float((0, 0, 10)[j % 3] if turf else (0, 20, 30)[j % 3])
            jobs.append(FamilyJob(head, opening, kind, tuple(row.tolist()), (20.0, 16.0, 24.0)[j % 3], 1.0))
            means.append((math.radians(-5.0 if turf else -8.0), math.radians(5.0), -0.034))
    root = np.diag([math.radians(1.5), math.radians(2.0), 0.015])
    return jobs, np.array(means), np.tile(root, (len(jobs), 1, 1))


def _ceiling() -> dict[str, float]:
    """Counted operations of a turf and a sand family against the measured rate of a 32-bit matrix product, one thread."""
    figures: dict[str, float] = {}
    solid = build_solid(Head(56, 10), 0.0)
    sole, face, edge = (np.ascontiguousarray(p, dtype=np.float32) for p in (solid.sole, solid.face, solid.edge))
    out = np.empty(SHAPE, dtype=np.float32)
    a = np.random.default_rng(0).random((1024, 1024), dtype=np.float32)
    with threadpool_limits(1):
        a @ a
        peak = 2 * 1024**3 / float(np.median(times(lambda _: a @ a, 9)))
    figures["peak_float32_gflops_one_thread"] = peak / 1e9
    for name, ground, per_plate, plates in (("turf", Turf(90), 35, 24), ("sand", Sand(2.1), 66, 39)):
        kind, row = ground_row(ground)

        def make(_: int, kind: int = kind, row: Floats = row) -> None:
            lanes.family(
                kind, sole, face, edge, solid.heights, solid.loft_in_plane, solid.mass, row, 20.0, 1.0, out
            )  # fmt: skip

        make(0)
        took = float(np.median(times(make, 30)))
        operations = 2 * lanes.ROWS * lanes.PAD * (per_plate * plates + 40)
        figures[f"family_{name}_us"] = 1e6 * took
        figures[f"family_{name}_share_of_ceiling"] = operations / took / peak
    return figures


def _leaning(player: dict[str, Any], i: int) -> dict[str, Any]:
    """The player after the bench's i-th edit; as they were before the first."""
    delivery = player["delivery"]
    lean = {**delivery["lean_deg"], "mean": 3.0 + 0.05 * i}
    return player if i < 0 else {**player, "delivery": {**delivery, "lean_deg": lean}}


def _round_trip() -> dict[str, float]:
    """An edit through the whole application on a database of its own, without the network in between."""
    with tempfile.TemporaryDirectory(prefix="oblatus-bench-") as folder:
        server = LocalServer(Path(folder))
        start = time.perf_counter()
        settings = Settings(server.start(), "a key for the bench, never served to anyone")
        try:
            app = create_app(settings)
            database = app.extensions["oblatus_database"]
            owner = Database(server.owner_url())
            migrate(owner.engine)
            owner.engine.dispose()
            seed_once(database, settings, demo=True)
            ready = time.perf_counter() - start
            client = app.test_client()
            token = client.get("/api/session").get_json()["csrf_token"]
            signed = client.post(
                "/api/session", json={"email": DEMO_EMAIL, "password": DEMO_PASSWORD}, headers={"X-CSRF-Token": token}
            )
            headers = {"X-CSRF-Token": signed.get_json()["csrf_token"]}
            line = client.get("/api/fittings").get_json()["fittings"][0]
            fitting = client.get(f"/api/fittings/{line['id']}").get_json()
            player = fitting["document"]["player"]

            engine().works_ahead = True
            client.get(f"/api/fittings/{line['id']}")
            start = time.perf_counter()
            engine().wait()
            ahead = time.perf_counter() - start

            def edit(i: int) -> None:
                # as a screen sends it: what it saw beside what it wants, under a name of its own
                sections = {"base": {"player": _leaning(player, i - 1)}, "player": _leaning(player, i)}
                body = {"revision": fitting["revision"] + i, "edit_id": str(uuid4()), **sections}
                reply = client.patch(f"/api/fittings/{line['id']}", json=body, headers=headers)
                if reply.status_code != 200:
                    raise RuntimeError(reply.get_data(as_text=True))

            taken = 1e3 * times(edit, EDITS)

            def redraw(i: int) -> None:
                body = {"wind_head_mps": -5.0 + 0.1 * i, "temperature_c": 17.0}
                reply = client.post(f"/api/fittings/{line['id']}/carries", json=body, headers=headers)
                if reply.status_code != 200:
                    raise RuntimeError(reply.get_data(as_text=True))

            redraw(0)
            redrawn = 1e3 * times(redraw, EDITS)
            with database.transaction() as session:
                studio_id = session.exec(select(Studio)).one().id
            crowd = _beside_two(lambda: client.get("/api/session")) | measure_live(
                database, settings.database_url, studio_id
            )
            crowd |= measure_import(database, studio_id)
            crowd |= measure_front()
            database.engine.dispose()
        finally:
            server.stop()
            engine().works_ahead = False
    return {
        "database_made_migrated_seeded_s": ready,
        "families_ahead_of_a_fitting_s": ahead,
        **crowd,
        "ladder_redraw_p50_ms": float(np.percentile(redrawn, 50)),
        "ladder_redraw_p95_ms": float(np.percentile(redrawn, 95)),
        "edit_round_trip_p50_ms": float(np.percentile(taken, 50)),
        "edit_round_trip_p95_ms": float(np.percentile(taken, 95)),
    }
