"""The strike engine as a judge of soles: expected strike quality times fitness for what the shot needs."""

from __future__ import annotations

import math
import threading
from collections import OrderedDict
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from oblatus.core.clubs import Head
from oblatus.core.delivery import Habit, Player
from oblatus.core.fitting import _kernels
from oblatus.core.fitting.bench_rules import deliver_all, wanted_bounce
from oblatus.core.fitting.judge import Judgement
from oblatus.core.fitting.scenarios import Scenario
from oblatus.core.flight import GREEN_FIRMNESS
from oblatus.core.flight.tables import carry_table
from oblatus.core.gapping import CarryModel
from oblatus.core.strike import FamilyJob, FamilyPool, _quality, ground_row
from oblatus.core.strike import _kernels as strike_kernels
from oblatus.core.strike.families import Progress
from oblatus.core.threads import share_out

Floats = NDArray[np.float64]

TIE = 0.02
SERVED_WELL = 0.40
SPEED_GRID = 2.0
USUAL_LEAN_DEG = 5.0
LEAST_SPEED, MOST_SPEED = 12.0, 38.0
SAND_SPEED, SAND_CARRY, SAND_LOFT_DEG, SAND_LOFT_SHARE = 22.0, 12.0, 56.0, 0.03
SAND_SPIN_SHARE = 0.12
RUN_SCALE = 3.0
LIP_SCALE = 0.15
REACH_SCALE = 0.04
ENTRY_NODES = 12
ENTRY_SPAN = 2.4
JOBS_KEPT = 80_000
SETUPS_REMEMBERED = 400

_SetupKey = tuple[float, int, tuple[float, ...], float]


def quadrature(entries: int = ENTRY_NODES) -> tuple[Floats, Floats]:
    """Nodes of attack and lean (9, 3), a Gauss-Hermite product, and of entry (m, 2): standard normal, weights sum to 1.

    Twelve entries keep the quality within 0.005 rms of sixty-four (tests/core/strike/test_families.py).
    """
    r = math.sqrt(3.0)
    line = [(-r, 1 / 6), (0.0, 2 / 3), (r, 1 / 6)]
    z = np.linspace(-ENTRY_SPAN, ENTRY_SPAN, entries)
    w = np.exp(-0.5 * z * z)
    return np.array([(a, b, wa * wb) for a, wa in line for b, wb in line]), np.column_stack([z, w / w.sum()])


@dataclass(frozen=True, slots=True)
class Question:
    """Everything that a judgement asks the families, one row a (head, scenario) pair, heads outermost."""

    jobs: tuple[FamilyJob, ...]
    means: Floats
    speeds: Floats
    wanted_speed: Floats
    kinds: NDArray[np.int64]


class StrikeJudge:
    """Judge by the strike engine. Families come from the pool; `progress` hears of the missing ones."""

    name = "strike model"

    def __init__(self, pool: FamilyPool, progress: Progress | None = None) -> None:
        self.pool = pool
        self.progress = progress
        self._numbers: dict[Head | _SetupKey, int] = {}
        self._made: dict[tuple[int, int, float], FamilyJob] = {}
        self._memos: OrderedDict[tuple[bytes, bytes], dict[FamilyJob, Floats]] = OrderedDict()
        self._guard = threading.Lock()

    def judge(self, heads: Sequence[Head], scenarios: Sequence[Scenario], player: Player, model: CarryModel) -> Judgement:
        """Values (heads, scenarios) = strike x stop x lip x reach."""
        delivered = deliver_all(heads, scenarios)
        question = self.ask(heads, scenarios, model, delivered)
        found = self._expect(question, len(scenarios), covariance_root(player.habit))
        shape = (len(heads), len(scenarios))
        parts = {"strike": found[:, _quality.QUALITY].reshape(shape)}
        parts |= self._fitness(heads, scenarios, model, question, found)
        values = np.ones(shape)
        for part in parts.values():
            values = values * part
        wanted = np.array([wanted_bounce(scenario) for scenario in scenarios]).reshape(len(scenarios), 2)
        return Judgement(self.name, values, parts, delivered, wanted, TIE, SERVED_WELL, question.speeds)

    def _expect(self, question: Question, setups: int, root: Floats) -> Floats:
        """What the pool expects of every row; rows that were asked before with the same setup and spread are remembered.

        A change of ladder, shares, weights or pins asks mostly what was asked already.
        """
        memos = [self._memo((mean.tobytes(), root.tobytes())) for mean in question.means[:setups]]
        found = np.empty((len(question.jobs), _quality.RESULTS))
        new = []
        for row, job in enumerate(question.jobs):
            known = memos[row % setups].get(job)
            if known is None:
                new.append(row)
            else:
                found[row] = known
        if new:
            nodes, entries = quadrature()
            roots = np.broadcast_to(root, (len(new), 3, 3)).copy()
            jobs = [question.jobs[row] for row in new]
            found[new] = self.pool.expect(jobs, question.means[new], roots, nodes, entries, self.progress)
            for row, job in zip(new, jobs, strict=True):
                memos[row % setups][job] = found[row].copy()
        return found

    def _memo(self, key: tuple[bytes, bytes]) -> dict[FamilyJob, Floats]:
        """Results by family for one setup and spread; the setups asked for longest ago are forgotten."""
        with self._guard:
            memo = self._memos.setdefault(key, {})
            self._memos.move_to_end(key)
            while len(self._memos) > SETUPS_REMEMBERED:
                self._memos.popitem(last=False)
        return memo

    def ask(self, heads: Sequence[Head], scenarios: Sequence[Scenario], model: CarryModel, delivered: Floats) -> Question:
        """The families and habit means behind a judgement. Speeds stand on a grid of 2 m/s, so families are shared."""
        n = len(heads)
        setups = [scenario.setup for scenario in scenarios]
        attack = np.radians([setup.attack_deg for setup in setups])
        rows = [ground_row(s.sand if s.shot.kind == "sand" else s.turf) for s in scenarios]
        kinds = np.array([kind for kind, _ in rows], dtype=np.int64)
        targets = np.array([scenario.shot.target for scenario in scenarios])
        loft = np.radians(delivered[:, :, 0])
        lean = np.array([setup.lean_deg for setup in setups])
        usual_lean = np.array([USUAL_LEAN_DEG + scenario.shot.lean_offset_deg for scenario in scenarios])
        usual_loft = loft + np.radians(lean - usual_lean)[None, :]
        full_speed = self.full_speeds(heads, model)
        wanted = _speeds(heads, scenarios, model, loft, attack, targets, full_speed)
        # what the families are made for does not depend on the player's lean, so that they serve the next player too
        usual = np.minimum(_speeds(heads, scenarios, model, usual_loft, attack, targets, full_speed), full_speed[:, None])
        speeds = np.clip(np.round(usual / SPEED_GRID) * SPEED_GRID, LEAST_SPEED, MOST_SPEED)
        keys = [
            (s.setup.opening_deg, kind, tuple(row.tolist()), s.setup.release)
            for s, (kind, row) in zip(scenarios, rows, strict=True)
        ]
        jobs = self._jobs(heads, keys, speeds)
        mean = np.column_stack([attack, np.radians([s.lean_deg for s in setups]), [s.entry for s in setups]])
        return Question(jobs, np.tile(mean, (n, 1)), speeds, wanted, kinds)

    def _jobs(self, heads: Sequence[Head], keys: Sequence[_SetupKey], speeds: Floats) -> tuple[FamilyJob, ...]:
        """The same job object for the same question, every time: the pool knows them by identity."""
        if len(self._made) > JOBS_KEPT:
            self._made.clear()
        head_numbers = [self._numbers.setdefault(head, len(self._numbers)) for head in heads]
        setup_numbers = [self._numbers.setdefault(key, len(self._numbers)) for key in keys]
        found: list[FamilyJob] = []
        for head, i, row in zip(heads, head_numbers, speeds.tolist(), strict=True):
            for (opening, kind, ground, release), j, speed in zip(keys, setup_numbers, row, strict=True):
                job = self._made.get((i, j, speed))
                if job is None:
                    job = self._made[i, j, speed] = FamilyJob(head, opening, kind, ground, speed, release)
                found.append(job)
        return tuple(found)

    def full_speeds(self, heads: Sequence[Head], model: CarryModel) -> Floats:
        """Full head speed of every head [m/s]."""
        return model.full_speeds([head.loft_deg for head in heads])

    def _fitness(
        self,
        heads: Sequence[Head],
        scenarios: Sequence[Scenario],
        model: CarryModel,
        question: Question,
        found: Floats,
    ) -> dict[str, Floats]:
        """Stop within the wanted run, clear the lip, reach the carry: each (heads, scenarios) in 0..1."""
        n, k = len(heads), len(scenarios)
        launch, sand = found[:, _quality.LAUNCH], np.tile(question.kinds == strike_kernels.SAND, n)
        speeds = question.speeds.ravel()
        # tangential ball speed for a ball speed of 1: of the clean strike on turf, a share of it through sand
        spin = np.where(sand, SAND_SPIN_SHARE, found[:, _quality.SPIN_SPEED] / np.maximum(speeds, 1.0))
        targets = np.tile([scenario.shot.target for scenario in scenarios], n)
        firmness = np.tile([GREEN_FIRMNESS[scenario.ground.green] for scenario in scenarios], n)
        lips = np.tile([scenario.ground.lip_height if scenario.shot.lip else 0.0 for scenario in scenarios], n)
        distances = np.tile([scenario.ground.lip_distance for scenario in scenarios], n)
        flights, launch = np.empty((n * k, 3)), np.maximum(launch, 0.05)
        table = carry_table()

        def fly(part: slice) -> None:
            _kernels.needs(
                launch[part], spin[part], targets[part], firmness[part], lips[part], distances[part], table, flights[part]
            )

        share_out(fly, n * k)
        air = flights.reshape(n, k, 3)
        low = np.array([-99.0 if s.shot.run is None else s.shot.run[0] for s in scenarios])
        high = np.array([99.0 if s.shot.run is None else s.shot.run[1] for s in scenarios])
        miss = np.maximum(np.maximum(low - air[:, :, 0], air[:, :, 0] - high), 0.0) / RUN_SCALE
        needs_lip = np.array([scenario.shot.lip for scenario in scenarios])
        lip = np.where(needs_lip, 1.0 / (1.0 + np.exp(-air[:, :, 1] / LIP_SCALE)), 1.0)
        return {
            "stop": np.exp(-0.5 * miss**2),
            "lip": lip,
            "reach": self._reach(heads, scenarios, model, question, found),
        }

    def _reach(
        self,
        heads: Sequence[Head],
        scenarios: Sequence[Scenario],
        model: CarryModel,
        question: Question,
        found: Floats,
    ) -> Floats:
        """Whether the player's full speed carries the shot; full swings carry what they carry."""
        full = np.array([scenario.shot.kind == "full" for scenario in scenarios])
        sand = question.kinds == strike_kernels.SAND
        level = found[:, _quality.LEVEL].reshape(question.speeds.shape)
        targets = np.array([scenario.shot.target for scenario in scenarios])
        in_sand = question.speeds * np.sqrt(targets / np.maximum(level, 0.5))
        needed = np.where(sand, in_sand, question.wanted_speed)
        beyond = needed / self.full_speeds(heads, model)[:, None] - 1.0
        return np.where(full, 1.0, 1.0 / (1.0 + np.exp(np.clip(beyond / REACH_SCALE, -60, 60))))


def _speeds(
    heads: Sequence[Head],
    scenarios: Sequence[Scenario],
    model: CarryModel,
    loft: Floats,
    attack: Floats,
    targets: Floats,
    full_speed: Floats,
) -> Floats:
    """Head speed [m/s] that carries each scenario's distance at these delivered lofts (heads, scenarios) [rad]."""
    n, k = loft.shape
    out, table = np.empty((n, k)), carry_table()
    lofts, attacks, straight = loft.ravel(), np.tile(attack, n), np.ones(n * k)
    masses, carries, flat = np.repeat([head.mass for head in heads], k), np.tile(targets, n), out.reshape(-1)

    def solve(part: slice) -> None:
        _kernels.clean_speeds(lofts[part], attacks[part], straight[part], masses[part], carries[part], table, flat[part])

    share_out(solve, n * k)
    shares = {"full": model.swings[0], "swing_1030": model.swing("1030"), "swing_900": model.swing("900")}
    for j, scenario in enumerate(scenarios):
        if scenario.shot.kind == "full":
            out[:, j] = full_speed * shares[scenario.shot.key].speed_share
        elif scenario.shot.kind == "sand":
            share = np.maximum(1.0 - SAND_LOFT_SHARE * (np.degrees(loft[:, j]) - SAND_LOFT_DEG) / 2.0, 0.4)
            out[:, j] = SAND_SPEED * np.sqrt(targets[j] / SAND_CARRY / share)
    return out


def covariance_root(habit: Habit) -> Floats:
    """Lower Cholesky factor of the covariance of attack, lean [rad] and entry [m]."""
    spreads = [math.radians(habit.attack_deg.spread), math.radians(habit.lean_deg.spread), habit.entry.spread]
    covariance = np.diag(np.square(np.maximum(spreads, 1e-6)))
    for (a, b), r in zip(((0, 1), (0, 2), (1, 2)), habit.correlations, strict=True):
        covariance[a, b] = covariance[b, a] = r * math.sqrt(covariance[a, a] * covariance[b, b])
    return np.linalg.cholesky(covariance)
