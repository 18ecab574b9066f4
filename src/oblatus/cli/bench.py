"""`oblatus bench`: what it costs, measured in one run: medians, percentiles and ratios."""

from __future__ import annotations

import subprocess
import sys
import tempfile
import time
from argparse import Namespace
from collections.abc import Callable
from pathlib import Path
from typing import Any

import numpy as np

from oblatus.cli.arguments import show
from oblatus.cli.bench_reference import fly_with_solve_ivp
from oblatus.core.fitting import recommend
from oblatus.core.flight import Delivery, fly_ball, strike_ball
from oblatus.core.flight import _kernels as flight_kernels
from oblatus.formats.convert import fitting_from
from oblatus.formats.rack import demo_rack
from oblatus.formats.recommendation import recommend_document
from oblatus.settings import Settings
from oblatus.store.migrate import migrate
from oblatus.store.server import LocalServer
from oblatus.usecases.seed import DEMO_EMAIL, DEMO_PASSWORD, demo_fittings, seed_once
from oblatus.web.app import create_app

COLD = (
    "import time; t = time.perf_counter()\n"
    "from oblatus.formats.rack import demo_rack\n"
    "from oblatus.formats.recommendation import recommend_document\n"
    "from oblatus.usecases.seed import demo_fittings\n"
    "recommend_document(demo_fittings()[0], demo_rack()); print(time.perf_counter() - t)"
)
EDITS = 100


def add_bench(commands: Any) -> None:
    """Register `bench`."""
    parser = commands.add_parser("bench", help="measure the engine and the round trip of an edit")
    parser.add_argument("--json", action="store_true")
    parser.set_defaults(run=run_bench)


def run_bench(args: Namespace) -> int:
    """Run every measurement and print it; nothing is left behind."""
    figures: dict[str, Any] = {}
    for measure in (_recommendation, _flight, _round_trip):
        figures |= measure()
    show({key: round(value, 4) for key, value in figures.items()}, args.json)
    return 0


def _times(act: Callable[[int], Any], count: int) -> np.ndarray[tuple[int], np.dtype[np.float64]]:
    """Seconds of `count` calls."""
    found = np.empty(count)
    for i in range(count):
        start = time.perf_counter()
        act(i)
        found[i] = time.perf_counter() - start
    return found


def _recommendation() -> dict[str, float]:
    document, rack = demo_fittings()[0], demo_rack()
    fitting = fitting_from(document, rack)
    cold = float(subprocess.run([sys.executable, "-c", COLD], check=True, capture_output=True, text=True).stdout)
    recommend(fitting)
    return {
        "recommendation_cold_process_s": cold,
        "recommendation_warm_ms": 1e3 * float(np.median(_times(lambda _: recommend(fitting), 20))),
        "recommendation_document_warm_ms": 1e3
        * float(np.median(_times(lambda _: recommend_document(document, rack), 20))),
    }


def _flight() -> dict[str, float]:
    launch = strike_ball(Delivery(28.0, 42.0))
    vectors = launch.vectors()
    nothing = np.empty((0, 3))
    air = (1.17691, 1.83723e-5)

    def kernels(_: int) -> None:
        for _ in range(200):
            flight_kernels.fly(*vectors, -3.0, 2.0, *air, 0.25, 0.0, nothing)

    kernels(0)
    count = 20_000
    batch = [np.full(count, value) for value in (28.0, np.radians(42.0), np.radians(-5.0))]
    out = np.empty((count, 6))

    def chain(_: int) -> None:
        flight_kernels.carries(batch[0], batch[1], batch[2], 0.285, 0.3, 0.027, 0.875, *air, 0.25, out)

    chain(0)
    reference = float(np.median(_times(lambda _: fly_with_solve_ivp(vectors, (-3.0, 2.0), air), 9)))
    called = float(np.median(_times(kernels, 9))) / 200
    inside = float(np.median(_times(chain, 9))) / count
    wrapped = float(np.median(_times(lambda _: fly_ball(launch), 200)))
    return {
        "flight_solve_ivp_us": 1e6 * reference,
        "flight_kernel_called_from_python_us": 1e6 * called,
        "flight_kernel_in_a_batch_with_impact_us": 1e6 * inside,
        "flight_with_checks_and_run_us": 1e6 * wrapped,
        "flight_ratio_solve_ivp_to_kernel_called": reference / called,
        "flight_ratio_solve_ivp_to_batch": reference / inside,
    }


def _round_trip() -> dict[str, float]:
    """An edit through the whole application on a database of its own, without the network in between."""
    with tempfile.TemporaryDirectory(prefix="oblatus-bench-") as folder:
        server = LocalServer(Path(folder))
        start = time.perf_counter()
        settings = Settings(server.start(), "a key for the bench, never served to anyone")
        try:
            app = create_app(settings)
            database = app.extensions["oblatus_database"]
            migrate(database.engine)
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

            def edit(i: int) -> None:
                player["delivery"]["lean_deg"]["mean"] = 3.0 + 0.05 * i
                body = {"revision": fitting["revision"] + i, "player": player}
                reply = client.patch(f"/api/fittings/{line['id']}", json=body, headers=headers)
                if reply.status_code != 200:
                    raise RuntimeError(reply.get_data(as_text=True))

            taken = 1e3 * _times(edit, EDITS)
            database.engine.dispose()
        finally:
            server.stop()
    return {
        "database_made_migrated_seeded_s": ready,
        "edit_round_trip_p50_ms": float(np.percentile(taken, 50)),
        "edit_round_trip_p95_ms": float(np.percentile(taken, 95)),
    }
