"""What carries cost: the fit by number of strikes, the ladder search, and flights against other ways to compute them."""

from __future__ import annotations

import math
import subprocess
import sys
import time
from collections.abc import Callable, Sequence
from dataclasses import replace
from typing import Any

import numpy as np
from numpy.typing import NDArray
from threadpoolctl import threadpool_limits

from oblatus.cli.bench_reference import fly_with_numpy, fly_with_solve_ivp
from oblatus.core.delivery import Player
from oblatus.core.fitting.fitting import ladder_choice
from oblatus.core.flight import Delivery, fly_ball, strike_ball
from oblatus.core.flight import _kernels as flight_kernels
from oblatus.core.flight import _lanes as flight_lanes
from oblatus.core.gapping import (
    SWINGS,
    Cell,
    LadderSearch,
    LadderWish,
    MeasuredStrike,
    fit_carry_model,
    fit_player_model,
)
from oblatus.core.session import summarise
from oblatus.formats.convert import fitting_from
from oblatus.formats.demo import demo_fittings, demo_rack

Floats = NDArray[np.float64]
AIR = (1.17691, 1.83723e-5)
WIND = (-3.0, 2.0)
LOFTS = {"9i": 41.0, "pw": 46.0, "own:0": 50.0, "own:1": 55.0, "own:2": 60.0}
CELLS = [Cell(club, loft, swing.key) for club, loft in LOFTS.items() for swing in SWINGS]
OPERATIONS_A_STEP = 4 * 45 + 47
OPERATIONS_A_SHOT = 324
"""Additions, multiplications, divisions and roots of one Runge-Kutta step in a lane, and of impact, apex and landing,
counted in the source."""


def times(act: Callable[[int], Any], count: int) -> Floats:
    """Seconds of `count` calls."""
    found = np.empty(count)
    for i in range(count):
        start = time.perf_counter()
        act(i)
        found[i] = time.perf_counter() - start
    return found


def measure_carries() -> dict[str, float]:
    """The player's model by number of strikes, and the search over every ladder of four."""
    player, figures = Player(pitching_wedge_carry=106.0), {}
    strikes = _strikes(100_000)
    for count, repeats in ((30, 15), (100, 9), (1_000, 5), (10_000, 3), (100_000, 1)):
        few = strikes[:count]
        fit_player_model(player, 46.0, few[:30], CELLS)
        took = np.median(times(lambda _: fit_player_model(player, 46.0, few, CELLS), repeats))  # noqa: B023
        figures[f"player_model_{count}_strikes_ms"] = 1e3 * float(took)
    rng = np.random.default_rng(6)
    session = [
        replace(
            s, attack_deg=float(rng.normal(-6, 1)), lean_deg=float(rng.normal(5, 2)), entry=float(rng.normal(-0.03, 0.01))
        )
        for s in strikes[:10_000]
    ]
    fitting = fitting_from(demo_fittings()[3], demo_rack())
    choice = ladder_choice(fitting)
    grid = tuple(float(x) for x in np.arange(48.0, 64.25, 0.5))
    wish = LadderWish(grid, choice.wish.owned, 58.0, choice.wish.school, choice.wish.faced)

    def search(_: int) -> None:
        LadderSearch(choice.model, wish).best(4)

    search(0)
    figures["ladder_search_4_wedges_full_grid_ms"] = 1e3 * float(np.median(times(search, 9)))
    figures["session_summary_10000_strikes_ms"] = 1e3 * float(np.median(times(lambda _: summarise(session, ("900",)), 5)))
    figures["ladders_of_4_wedges"] = float(math.comb(len(grid), 4))
    return figures


def _at_the_shell() -> float:
    """How long `oblatus flight` takes for a ball over what it takes to import numpy and numba, side by side."""
    flight = ["-m", "oblatus.cli.main", "flight", "--ball-speed", "30", "--launch", "32", "--spin", "9000"]
    taken: list[float] = []
    for _ in range(5):
        for asked in (flight, ["-c", "import numpy, numba"]):
            start = time.perf_counter()
            subprocess.run([sys.executable, *asked], check=True, stdout=subprocess.DEVNULL)
            taken.append(time.perf_counter() - start)
    return float(np.median(taken[::2]) / np.median(taken[1::2]))


def measure_flight() -> dict[str, float]:
    """One shot and many: our kernel, the general solver, vectorised numpy, and the arithmetic ceiling of one thread."""
    launch = strike_ball(Delivery(28.0, 42.0))
    vectors = launch.vectors()
    nothing = np.empty((0, 3))

    def called(_: int) -> None:
        for _ in range(200):
            flight_kernels.fly(*vectors, *WIND, *AIR, 0.25, 0.0, nothing)

    count = 20_000
    rng = np.random.default_rng(3)
    speeds, lofts = rng.uniform(18, 38, count), np.radians(rng.uniform(32, 52, count))
    attacks, out = np.full(count, math.radians(-5.0)), np.empty((count, 6))
    friction, restitution = np.full(count, 0.285), np.full(count, 0.875)

    def batch(_: int) -> None:
        flight_lanes.carries(speeds, lofts, attacks, friction, 0.3, restitution, *AIR, 0.25, out)

    called(0)
    batch(0)
    starts = np.array([flight_kernels.impact(s, d, a, 0, 0, 0.285, 0.3, 0, 0.027, 0.875)
                       for s, d, a in zip(speeds, lofts, attacks, strict=True)])  # fmt: skip
    by_numpy, steps = fly_with_numpy(starts, AIR)
    worst = float(np.abs(by_numpy - out[:, 0]).max())
    if worst > 0.05:
        raise RuntimeError(f"numpy and the kernel differ by {worst} m")
    a = rng.random((1024, 1024))
    with threadpool_limits(1):
        a @ a
        peak = 2 * 1024**3 / float(np.median(times(lambda _: a @ a, 7)))
    solver = float(np.median(times(lambda _: fly_with_solve_ivp(vectors, WIND, AIR), 9)))
    one = float(np.median(times(called, 9))) / 200
    inside = float(np.median(times(batch, 9))) / count
    vectorised = float(np.median(times(lambda _: fly_with_numpy(starts, AIR), 3))) / count
    return {
        "flight_at_the_shell_over_importing_numpy_and_numba": _at_the_shell(),
        "flight_solve_ivp_us": 1e6 * solver,
        "flight_numpy_vectorised_us": 1e6 * vectorised,
        "flight_kernel_called_from_python_us": 1e6 * one,
        "flight_kernel_in_a_batch_with_impact_us": 1e6 * inside,
        "flight_with_checks_and_run_us": 1e6 * float(np.median(times(lambda _: fly_ball(launch), 200))),
        "flight_shots_per_second": 1.0 / inside,
        "flight_ratio_solve_ivp_to_kernel_called": solver / one,
        "flight_ratio_solve_ivp_to_batch": solver / inside,
        "flight_ratio_numpy_to_batch": vectorised / inside,
        "peak_float64_gflops_one_thread": peak / 1e9,
        "flight_share_of_ceiling": (OPERATIONS_A_STEP * float(steps.mean()) + OPERATIONS_A_SHOT) / inside / peak,
    }


def _strikes(count: int) -> Sequence[MeasuredStrike]:
    """Strikes of a usual player, carry with six per cent of scatter."""
    model = fit_carry_model(Player(pitching_wedge_carry=104.0), 46.0)
    rng = np.random.default_rng(5)
    usual = {cell: float(model.carries([cell.loft_deg], [model.swing(cell.swing)])[0, 0]) for cell in CELLS}
    scatter = np.exp(rng.normal(0.0, 0.06, count))
    return [
        MeasuredStrike(str(i), cell.club, cell.loft_deg, cell.swing, usual[cell] * float(scatter[i]))
        for i, cell in ((i, CELLS[i % len(CELLS)]) for i in range(count))
    ]
