"""What every head costs in every situation, in strokes: the one function behind search, steps, leaks, doubt and schools.

A row belongs to a head, a column to a situation at a pin, or to an approach at a distance from a ground. For each the
player takes the setup, or the swing, that costs least, practice term included. Model: docs/models/strokes.md.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from oblatus.core.clubs import Head
from oblatus.core.constants import FLATTEST_ATTACK
from oblatus.core.delivery import RELEASE_RATE
from oblatus.core.fitting.asked import BINS, Asked, Costs, Wanted
from oblatus.core.fitting.bench_rules import wanted_bounce
from oblatus.core.fitting.jobs import JobBook, ground_under, questions_of
from oblatus.core.fitting.nodes import covariance_root, quadrature
from oblatus.core.fitting.proved import shifts_of
from oblatus.core.fitting.reckoned import Reckoned, Rows, name_of_all
from oblatus.core.flight.tables import GREENS, carry_table, height_table, run_tables
from oblatus.core.geometry import bounces_of
from oblatus.core.strike import FamilyJob, FamilyPool
from oblatus.core.strike import _kernels as strike_kernels
from oblatus.core.strike.families import Bank, Batch, Progress
from oblatus.core.strokes import _kernels as strokes_kernels
from oblatus.core.strokes import _matrix
from oblatus.core.strokes.situations import APPROACH_BEHIND, APPROACH_ROOM, LIP_CLEARANCE, PINS, Layout, pins_of
from oblatus.core.strokes.table import StrokesTable
from oblatus.core.strokes.worth import SHORT_CODES, in_fours, rows_of
from oblatus.core.threads import meanwhile, share_out

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]

SETUPS = 3
PIN_COUNT = strokes_kernels.SHORT_PINS
FEEL = (0.80, 1.04)
FEEL_NOISE = 2.0
PRACTICE_DEG = 4.0

NEVER = 1e3
"""Strokes of a setup that does not exist."""


@dataclass(frozen=True, slots=True, eq=False)
class _Known:
    """What was reckoned, and where a sheet's questions and its swings from every ground stand in it."""

    short: Rows
    short_places: Ints
    far: Rows
    far_places: Ints

    def of(self, heads: Sequence[Head]) -> tuple[Floats, Floats]:
        """Figures of heads at the questions and at the swings (heads, ..., width)."""
        return self.short.of(heads, self.short_places), self.far.of(heads, self.far_places)

    def look(self) -> bool:
        """Take in what other workers have reckoned; returns whether there was anything."""
        return any([self.short.look(), self.far.look()])


class Sheet:
    """All heads of one question: raw strokes by setup and pin; what was reckoned for others of the player serves."""

    def __init__(
        self, asked: Asked, pool: FamilyPool, jobs: JobBook, reckoned: Reckoned, progress: Progress | None = None
    ) -> None:
        self.asked, self.pool, self.jobs, self.reckoned, self.progress = asked, pool, jobs, reckoned, progress
        self.short, self.swings = asked.short, asked.model.swings
        self.questions = [question for scenario in self.short for question in questions_of(scenario, asked.law, jobs)]
        self._bands = np.array([wanted_bounce(q.scenario, q.setup) for q in self.questions]).reshape(-1, 2)
        self._fairways = [
            (*ground_under(ground.turf, asked.law), GREENS.index(ground.green)) for ground, _ in asked.approaches
        ]
        places = [(i, j) for i, scenario in enumerate(self.short) for j in range(len(scenario.setups))]
        self._places = np.array(places, dtype=np.int64).reshape(-1, 2).T
        self._short_size = len(self.short) * SETUPS * PIN_COUNT
        self._swing_count = len(asked.approaches) * len(self.swings)
        self.size = self._short_size + self._swing_count * 2 * BINS
        shots = asked.economy.shots_for(asked.player.handicap)
        short = [scenario.share * pin.weight for scenario in self.short for pin in PINS]
        approach = [share * weight for _, share in asked.approaches for weight in asked.distances[1]]
        self.weights = shots * np.array([*short, *approach])
        self.is_short = np.arange(len(self.weights)) < len(short)
        self._known: dict[tuple[float, ...], _Known] = {}

    def raw(self, heads: Sequence[Head]) -> Floats:
        """Strokes by setup and pin, then by ground, swing, feel and distance: (heads, size)."""
        nothing = self._nothing(len(heads))
        return np.asarray(self._reckoned(heads, Wanted(~nothing.short, ~nothing.swings))[0])

    def served(self, heads: Sequence[Head], who: Ints) -> Floats:
        """Strokes in every column (columns,) by the row of heads that serves it; only those are reckoned."""
        wanted = self._nothing(len(heads))
        short = len(self.short) * PIN_COUNT
        wanted.short[who[:short], np.repeat(np.arange(len(self.short)), PIN_COUNT)] = True
        wanted.swings[who[short:], np.repeat(np.arange(len(self.asked.approaches)), BINS)] = True
        return np.asarray(self.partly(heads, wanted)[0].strokes[who, np.arange(len(who))])

    def close(self, heads: Sequence[Head], own: float, best: float) -> Wanted:
        """Setups and swings that lie within `own` strokes of the head's best and `best` of the best of the heads, at any
        pin or distance.
        """
        raw = self.raw(heads)
        n = len(heads)
        short = raw[:, : self._short_size].reshape(n, len(self.short), SETUPS, PIN_COUNT)
        short = short + self.practice(heads)[:, :, :, None]
        far = raw[:, self._short_size :].reshape(n, len(self.asked.approaches), len(self.swings), 2, BINS).min(axis=3)
        found = [
            ((part <= part.min(axis=2, keepdims=True) + own) & (part <= part.min(axis=(0, 2), keepdims=True) + best)).any(
                3
            )
            for part in (short, far)
        ]
        return Wanted(*found)

    def partly(self, heads: Sequence[Head], wanted: Wanted, scales: Sequence[float] = (1.0,)) -> list[Costs]:
        """Costs of what is wanted alone; `NEVER` and more where nothing is.

        For every scale that stretches the handicap in the strokes table: they have the strikes in common.
        """
        return [self.fold(raw, heads) for raw in self._reckoned(heads, wanted, scales)]

    def _nothing(self, count: int) -> Wanted:
        return Wanted(
            np.zeros((count, len(self.short), SETUPS), dtype=bool),
            np.zeros((count, len(self.asked.approaches), len(self.swings)), dtype=bool),
        )

    def _reckoned(self, heads: Sequence[Head], wanted: Wanted, scales: Sequence[float] = (1.0,)) -> Floats:
        """Raw strokes (scales, heads, size) where wanted, `NEVER` elsewhere; what was asked before is known."""
        handicaps = tuple(scale * self.asked.handicap for scale in scales)
        known, every = self._known_at(handicaps), list(dict.fromkeys(heads))
        places = {head: n for n, head in enumerate(every)}
        at = np.array([places[head] for head in heads], dtype=np.int64)
        wants = wanted.short[:, self._places[0], self._places[1]], wanted.swings.reshape(len(heads), self._swing_count)
        found = known.of(every)
        lacks = [_anywhere(w, at, part) for w, part in zip(wants, found, strict=True)]
        if any(some.any() for some in lacks) and known.look():
            found = known.of(every)
            lacks = [_anywhere(w, at, part) for w, part in zip(wants, found, strict=True)]
        self._fill(every, known, found, lacks, handicaps)
        return self._laid_out(found[0][at], found[1][at], wants, len(handicaps))

    def _fill(
        self, heads: Sequence[Head], known: _Known, found: tuple[Floats, Floats], lacks: Sequence[Bools],
        handicaps: tuple[float, ...],
    ) -> None:  # fmt: skip
        """Reckon what lacks, of questions and of swings, into the figures found, and have it known."""
        (short, far), (lacks_short, lacks_far) = found, lacks
        progress, far_progress = _told_together(self.progress)
        if lacks_far.any():
            with meanwhile(lambda: self._fill_approaches(heads, far, lacks_far, handicaps, far_progress)) as filled:
                self._fill_short(heads, short, lacks_short, handicaps, progress)
                filled()
            known.far.put(heads, known.far_places, far, lacks_far)
        else:
            self._fill_short(heads, short, lacks_short, handicaps, progress)
        if lacks_short.any():
            known.short.put(heads, known.short_places, short, lacks_short)

    def _laid_out(self, short: Floats, far: Floats, wants: tuple[Bools, Bools], readings: int) -> Floats:
        """Figures of questions and of swings as raw strokes (readings, heads, size)."""
        heads = len(short)
        figures = np.where(wants[0][:, :, None], short[:, :, :-1], NEVER)
        figures = figures.reshape(heads, len(self.questions), readings, PIN_COUNT)
        block = np.full((readings, heads, len(self.short), SETUPS, PIN_COUNT), NEVER)
        block[:, :, self._places[0], self._places[1]] = figures.transpose(2, 0, 1, 3)
        swings = np.where(wants[1][:, :, None], far, NEVER).reshape(heads, self._swing_count, readings, 2 * BINS)
        parts = block, swings.transpose(2, 0, 1, 3)
        return np.concatenate([part.reshape(readings, heads, math.prod(part.shape[2:])) for part in parts], axis=2)

    def _known_at(self, handicaps: tuple[float, ...]) -> _Known:
        """What was reckoned by these readings of the strokes table, and the places of this sheet's questions in it."""
        known = self._known.get(handicaps)
        if known is None:
            asked, contact = self.asked, self.asked.law.contact.tobytes()
            about = handicaps, asked.table, asked.scatter, asked.model, contact, asked.entries
            root = covariance_root(asked.player.habit).tobytes()
            short = self.reckoned.rows(name_of_all("short", root, *about), len(handicaps) * PIN_COUNT + 1)
            far = self.reckoned.rows(name_of_all("far", asked.player.habit, *about), len(handicaps) * 2 * BINS)
            distances = asked.distances[0].tobytes()
            swings = [name_of_all(*fairway, distances, n) for fairway in self._fairways for n in range(len(self.swings))]
            known = _Known(short, short.places([q.name for q in self.questions]), far, far.places(swings))
            self._known[handicaps] = known
        return known

    def short_strokes(self, heads: Sequence[Head]) -> Floats:
        """The model's strokes of every short scenario by setup and pin (heads, scenarios, setups, pins)."""
        return self.raw(heads)[:, : self._short_size].reshape(len(heads), len(self.short), SETUPS, PIN_COUNT)

    def costs(self, heads: Sequence[Head], raw: Floats | None = None) -> Costs:
        """Costs of heads, from their own raw strokes or from those given (between bends)."""
        return self.fold(self.raw(heads) if raw is None else raw, heads)

    def fold(self, raw: Floats, heads: Sequence[Head]) -> Costs:
        """The best setup or swing for every column, moved by what was proved of a head."""
        n, practice = len(raw), self.practice(heads)
        short = raw[:, : self._short_size].reshape(n, len(self.short), SETUPS, PIN_COUNT)
        width = len(self.short) * PIN_COUNT
        total = short + practice[:, :, :, None]
        pick = total.argmin(axis=2)
        cost = np.take_along_axis(total, pick[:, :, None, :], axis=2)[:, :, 0, :]
        strokes = np.take_along_axis(short, pick[:, :, None, :], axis=2)[:, :, 0, :]
        if self.asked.proved:
            shift = shifts_of(heads, self.short, self.asked.proved)[:, :, None]
            cost, strokes = cost + shift, strokes + shift
        swings = raw[:, self._short_size :].reshape(n, len(self.asked.approaches), len(self.swings) * 2, BINS)
        taken = swings.argmin(axis=2)
        approach = swings.min(axis=2).reshape(n, len(self.asked.approaches) * BINS)
        return Costs(
            np.concatenate([cost.reshape(n, width), approach], axis=1),
            np.concatenate([strokes.reshape(n, width), approach], axis=1),
            np.concatenate([pick.reshape(n, width), taken.reshape(approach.shape)], axis=1),
        )

    def practice(self, heads: Sequence[Head]) -> Floats:
        """Practice's strokes a shot: (heads, short scenarios, setups)."""
        out = np.zeros((len(heads), len(self.short), SETUPS))
        if not self.questions:
            return out
        economy = self.asked.economy
        bounce = self.delivered_bounce(heads)
        outside = np.maximum(np.maximum(self._bands[:, 0] - bounce, bounce - self._bands[:, 1]), 0.0)
        found = np.minimum(economy.practice * (outside / PRACTICE_DEG) ** 2, economy.practice_most)
        out[:, self._places[0], self._places[1]] = found
        return out

    def delivered_bounce(self, heads: Sequence[Head]) -> Floats:
        """Delivered bounce [degrees] of every head at every setup of every short scenario (heads, questions)."""
        setups = [question.setup for question in self.questions]
        return bounces_of(heads, np.array([s.opening_deg for s in setups]), np.array([s.lean_deg for s in setups]))

    def jobs_for(self, heads: Sequence[Head]) -> tuple[FamilyJob, ...]:
        """The families that the costs of these heads are made of."""
        found = [job for head in heads for job in self.jobs.short(head, self.questions)]
        return (*found, *(job for head in heads for job, _, _ in self._stock_jobs(head)))

    def _stock_jobs(self, head: Head) -> list[tuple[FamilyJob, float, int]]:
        """Of every ground and stock swing the family, the true speed over its speed, and the green."""
        asked, found = self.asked, []
        full = float(asked.model.full_speeds([head.loft_deg])[0])
        release = RELEASE_RATE[asked.player.habit.release]
        for kind, under, green in self._fairways:
            for swing in self.swings:
                job = self.jobs.stock(head, kind, under, full * swing.speed_share, release)
                found.append((job, full * swing.speed_share / job.speed, green))
        return found

    def speeds(self, head: Head) -> list[list[float]]:
        """Head speed [m/s] that the player takes for the middle pin of every short scenario, setup by setup."""
        known = self._known_at((self.asked.handicap,))
        figures = known.short.of([head], known.short_places)
        if np.isnan(figures).any():
            self.raw([head])
            figures = known.short.of([head], known.short_places)
        found: list[list[float]] = [[] for _ in self.short]
        for i, speed in zip(self._places[0].tolist(), figures[0, :, -1].tolist(), strict=True):
            found[i].append(speed)
        return found

    def _contacts(self) -> Floats:
        contacts = strike_kernels.CONTACTS * self.asked.law.contact
        contacts[:, strike_kernels.RESTITUTION] = self.asked.model.restitution
        usual = strike_kernels.USUAL_GRIP
        contacts[strike_kernels.TURF, strike_kernels.GRIP_FACTOR] = self.asked.model.friction / usual
        return contacts

    def _fill_short(
        self,
        heads: Sequence[Head],
        figures: Floats,
        lacks: Bools,
        handicaps: Sequence[float],
        progress: Progress | None,
    ) -> None:
        """Reckon what lacks (heads, questions) into the figures (heads, questions, width).

        They are strokes by reading and pin, and the head speed [m/s] for the middle pin.
        """
        if not lacks.any():
            return
        asked = self.asked
        # situation by situation, so that its strokes stay near
        situation, of_head = np.nonzero(lacks.T)
        families = [self.jobs.short(head, self.questions) for head in heads]
        jobs = [families[h][q] for h, q in zip(of_head.tolist(), situation.tolist(), strict=True)]
        family_speeds = np.array([job.speed for job in jobs])
        setups = [question.setup for question in self.questions]
        mean = np.array([(math.radians(s.attack_deg), math.radians(s.lean_deg), s.entry) for s in setups])
        means, root = mean[situation], covariance_root(asked.player.habit)
        most = asked.model.full_speeds([head.loft_deg for head in heads])[of_head] / family_speeds
        numbers, lips = self._situations()
        about = tuple((q.scenario.layout, asked.scatter.sideways(q.setup.opening_deg)) for q in self.questions)
        read = [_pins_of_layouts(about, handicap, asked.table) for handicap in handicaps]
        holes, edges = read[0][:2]
        short, green, fail = (_stacked([one[part] for one in read]) for part in (2, 3, 4))
        shape = (len(jobs), len(handicaps), PIN_COUNT)
        out, aims = np.empty(shape), np.empty(shape)
        runs = run_tables()
        nodes, entries = quadrature(self.asked.entries)
        contacts = self._contacts()

        def use(mine: Ints, batch: Batch, bank: Bank, pool: NDArray[np.float32]) -> None:
            found, aimed = np.empty((len(mine), *shape[1:])), np.empty((len(mine), *shape[1:]))

            def work(part: slice) -> None:
                here = mine[part]
                _matrix.short_shots(
                    batch.solids[part], batch.kinds[part], batch.grounds[part], batch.speeds[part],
                    batch.releases[part], batch.slots[part], means[here], root, situation[here], most[here],
                    bank.heights, bank.leads, bank.scalars, pool, contacts, nodes, entries, carry_table(), runs, lips,
                    numbers, holes, edges, short, green, fail, found[part], aimed[part],
                )  # fmt: skip

            share_out(work, len(mine))
            out[mine], aims[mine] = found, aimed

        self.pool.visit(jobs, use, progress)
        figures[of_head, situation, :-1] = out.reshape(len(jobs), -1)
        figures[of_head, situation, -1] = aims[:, 0, 1] * family_speeds

    def _situations(self) -> tuple[Floats, Floats]:
        """Every question as numbers for the kernel, and the height tables of its lips."""
        lips = list(dict.fromkeys(q.scenario.ground.lip_distance for q in self.questions if q.scenario.lip > 0.0))
        numbers = np.zeros((len(self.questions), _matrix.SITUATION_COLUMNS))
        for q, question in enumerate(self.questions):
            scenario = question.scenario
            lip = scenario.lip + LIP_CLEARANCE if scenario.lip > 0.0 else 0.0
            numbers[q] = (
                SHORT_CODES[scenario.layout.short], lip,
                lips.index(scenario.ground.lip_distance) if lip > 0.0 else 0,
                GREENS.index(scenario.ground.green), self.asked.scatter.speed,
            )  # fmt: skip
        return numbers, _heights_at(tuple(lips))

    def _fill_approaches(
        self,
        heads: Sequence[Head],
        figures: Floats,
        lacks: Bools,
        handicaps: Sequence[float],
        progress: Progress | None,
    ) -> None:
        """Reckon what lacks (heads, swings from the grounds) into the figures (heads, swings, width).

        They are strokes by reading and distance, of the swing as it is and by feel.
        """
        asked, model = self.asked, self.asked.model
        each = len(self.swings)
        of_head, swing_at = np.nonzero(lacks)
        stock = [self._stock_jobs(head) for head in heads]
        found = [stock[h][at] for h, at in zip(of_head.tolist(), swing_at.tolist(), strict=True)]
        jobs = [job for job, _, _ in found]
        lean = np.radians([model.lean_deg + swing.extra_lean_deg for swing in self.swings])[swing_at % each]
        attack, entry = math.radians(min(model.attack_deg, FLATTEST_ATTACK.value)), asked.player.habit.entry.mean
        mean = np.column_stack([np.full(len(jobs), attack), lean, np.full(len(jobs), entry)])
        scale, greens = np.array([s for _, s, _ in found]), np.array([g for _, _, g in found], dtype=np.int64)
        layouts = tuple(Layout(d, APPROACH_ROOM, APPROACH_BEHIND, "rough", "rough") for d in asked.distances[0].tolist())
        read = [rows_of(layouts, asked.scatter.sideways(0.0), handicap, asked.table) for handicap in handicaps]
        edges = read[0][1]
        short, far, fail = (_stacked([one[part] for one in read]) for part in (2, 3, 4))
        root, runs = covariance_root(asked.player.habit), run_tables()
        out = np.empty((len(jobs), len(handicaps), 2, BINS))
        nodes, entries = quadrature(self.asked.entries)
        contacts = self._contacts()

        def use(mine: Ints, batch: Batch, bank: Bank, pool: NDArray[np.float32]) -> None:
            shape = (len(mine), len(handicaps), BINS)
            plain, feel = np.empty(shape), np.empty(shape)

            def work(part: slice) -> None:
                here = mine[part]
                _matrix.stock_swings(
                    batch.solids[part], batch.kinds[part], batch.grounds[part], batch.speeds[part],
                    batch.releases[part], batch.slots[part], mean[here], root, greens[here], scale[here], bank.heights,
                    bank.leads, bank.scalars, pool, contacts, nodes, entries, carry_table(), runs,
                    asked.scatter.stock_speed, *FEEL, edges, SHORT_CODES["rough"], short, far, fail, plain[part],
                    feel[part],
                )  # fmt: skip

            share_out(work, len(mine))
            out[mine] = np.stack([plain, feel], axis=2)

        self.pool.visit(jobs, use, progress)
        figures[of_head, swing_at] = out.reshape(len(jobs), -1)


@lru_cache(maxsize=6)
def _pins_of_layouts(
    about: tuple[tuple[Layout, float], ...], handicap: float, table: StrokesTable
) -> tuple[Floats, Floats, Floats, Floats, Floats]:
    """Of every layout and sideways scatter (questions, ...): see `rows_of`, a row of pins each, in fours."""
    made = {one: rows_of(in_fours(tuple(pins_of(one[0]))), one[1], handicap, table) for one in dict.fromkeys(about)}
    holes, edges, short, green, fail = (np.stack([made[one][part] for one in about]) for part in range(5))
    return holes, edges, short, green, fail


@lru_cache(maxsize=6)
def _heights_at(distances: tuple[float, ...]) -> Floats:
    """The height tables at these distances [m] (distances, ...); one that nobody reads for none."""
    return np.stack([height_table(distance) for distance in distances]) if distances else np.zeros((1, 1, 1, 1))


def _anywhere(wants: Bools, at: Ints, figures: Floats) -> Bools:
    """What is wanted of a head in any row and has no figures yet (heads, questions); `at` is the head of every row."""
    wanted = np.zeros(figures.shape[:2], dtype=bool)
    np.logical_or.at(wanted, at, wants)
    return wanted & np.isnan(figures[:, :, 0])


def _stacked(rows: Sequence[Floats]) -> Floats:
    """Arrays of one shape as one; a single one is not copied."""
    return rows[0][None] if len(rows) == 1 else np.stack(rows)


def _told_together(progress: Progress | None) -> tuple[Progress | None, Progress | None]:
    """Progress of two halves of a question that go on at once, told as one count."""
    if progress is None:
        return None, None
    tell, counts = progress, [(0, 0), (0, 0)]

    def half(mine: int) -> Progress:
        def hear(done: int, total: int) -> None:
            counts[mine] = done, total
            tell(sum(done for done, _ in counts), sum(total for _, total in counts))

        return hear

    return half(0), half(1)
