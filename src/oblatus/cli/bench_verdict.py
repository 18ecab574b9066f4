"""What the verdict costs: the whole search, an edit of habit, the steps and leaks, doubt and the draws of the laws."""

from __future__ import annotations

import subprocess
import sys
import tempfile
from dataclasses import replace

import numpy as np

from oblatus.cli.bench_carries import times
from oblatus.cli.bench_memory import edit_habit
from oblatus.core.fitting import Fitting, StrokesJudge, recommend
from oblatus.core.fitting.evidence import doubt_of, draw_law_gains
from oblatus.core.fitting.leaks import leaks_of
from oblatus.core.fitting.recommendation import near
from oblatus.core.strike import FamilyPool
from oblatus.drill.served import Served
from oblatus.drill.tablet import Tablet
from oblatus.formats.convert import fitting_from
from oblatus.formats.demo import demo_fittings, demo_rack
from oblatus.usecases.seed import DEMO_EMAIL, DEMO_PASSWORD

FRESH = (
    "import sys, time; t = time.perf_counter()\n"
    "from pathlib import Path\n"
    "from oblatus.core.fitting.evidence import doubt_of\n"
    "from oblatus.core.fitting.leaks import leaks_of\n"
    "from oblatus.core.fitting.proposal import settled\n"
    "from oblatus.core.fitting.recommend import recommend\n"
    "from oblatus.formats.convert import fitting_from\n"
    "from oblatus.formats.demo import demo_fittings, demo_rack\n"
    "from oblatus.usecases.engine import engine, keep_families_in\n"
    "keep_families_in(Path(sys.argv[1])); judge = engine().judge\n"
    "found = recommend(fitting_from(demo_fittings()[0], demo_rack()), judge); print(time.perf_counter() - t)\n"
    "found, _ = settled(found, doubt_of(found, judge), judge, None); leaks_of(found, judge)\n"
    "print(time.perf_counter() - t)"
)


def measure_verdict() -> dict[str, float]:
    """Medians in ms unless named otherwise; every repetition has another habit, so that nothing is remembered."""
    (_, without), (recommended, fresh) = _fresh_processes()
    worker = _fresh_worker()
    fitting = fitting_from(demo_fittings()[0], demo_rack())
    judge = StrokesJudge(FamilyPool())
    cold = float(times(lambda _: recommend(fitting, judge), 1)[0])
    found = recommend(fitting, judge)
    clubs = near(found)
    recommend(_moved(fitting, 90), judge, clubs)
    quick = times(lambda i: recommend(_moved(fitting, i), judge, clubs), 15)
    whole = times(lambda i: recommend(_moved(fitting, 20 + i), judge), 5)
    asked = [fitting_from(document, demo_rack()) for document in demo_fittings()]
    every = [_whole_warm(other, judge) for other in asked]
    doubt_of(found, judge)
    doubted = [recommend(_moved(fitting, 40 + i), judge, clubs) for i in range(5)]
    doubt = times(lambda i: doubt_of(doubted[i], judge), 5)
    leaks = times(lambda i: leaks_of(doubted[i], judge), 5)
    draw_law_gains(found)
    laws = times(lambda _: draw_law_gains(found), 3)
    return {
        "verdict_fresh_process_without_families_s": without,
        "verdict_fresh_process_recommendation_s": recommended,
        "verdict_fresh_process_with_doubt_and_leaks_s": fresh,
        "verdict_fresh_worker_s": worker,
        "verdict_whole_search_cold_s": cold,
        "verdict_whole_search_warm_s": float(np.median(whole)),
        "verdict_whole_search_warm_slowest_player_s": max(every),
        "verdict_near_clubs_after_an_edit_p50_ms": 1e3 * float(np.median(quick)),
        "verdict_near_clubs_after_an_edit_p95_ms": 1e3 * float(np.percentile(quick, 95)),
        "verdict_leaks_ms": 1e3 * float(np.median(leaks)),
        "verdict_doubt_500_draws_ms": 1e3 * float(np.median(doubt)),
        "verdict_eight_draws_of_the_laws_s": float(np.median(laws)),
    }


def _fresh_processes() -> list[list[float]]:
    """First recommendation of a process, and with its doubt and leaks [s]: of one that finds no families, and of one that
    finds those which the first kept.

    A served one finds those of `./start`.
    """

    def fresh(folder: str) -> list[float]:
        done = subprocess.run([sys.executable, "-c", FRESH, folder], check=True, capture_output=True, text=True)
        return [float(line) for line in done.stdout.split()]

    with tempfile.TemporaryDirectory() as folder:
        return [fresh(folder) for _ in range(2)]


def _fresh_worker() -> float:
    """First proposal over the whole rack [s] of a served program whose workers were all ended, for a habit that is new to
    it: from the end of the old ones to the answer.
    """
    served = Served.start()
    try:
        tablet = Tablet(served.address, DEMO_EMAIL, DEMO_PASSWORD)
        tablet.sign_in()
        path = f"/api/fittings/{tablet.insist('GET', '/api/fittings').body['fittings'][0]['id']}"
        tablet.insist("GET", path)
        edit_habit(tablet, path, 0)
        served.kill_workers()

        def answered(_: int) -> None:
            if not tablet.insist("GET", path).body["recommendation"]["whole_rack"]:
                raise AssertionError("not the whole rack's answer")

        return float(times(answered, 1)[0])
    finally:
        served.stop()


def _whole_warm(fitting: Fitting, judge: StrokesJudge) -> float:
    """Median [s] of the whole search after an edit of habit."""
    recommend(fitting, judge)
    return float(np.median(times(lambda i: recommend(_moved(fitting, 60 + i), judge), 3)))


def _moved(fitting: Fitting, i: int) -> Fitting:
    """The fitting with an attack that is another each time."""
    habit = fitting.player.habit
    attack = replace(habit.attack_deg, mean=habit.attack_deg.mean + 0.01 * (i + 1))
    return replace(fitting, player=replace(fitting.player, habit=replace(habit, attack_deg=attack)))
