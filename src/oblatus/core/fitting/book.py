"""The matrix of a fitting, and the steps of change that are found in it."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from oblatus.core.fitting.bench_rules import BenchRules
from oblatus.core.fitting.bends import FEW, between_bends, exact_of
from oblatus.core.fitting.candidates import Candidate
from oblatus.core.fitting.costs import Sheet
from oblatus.core.fitting.fitting import Fitting
from oblatus.core.fitting.recommendation import ClubChoice, served_strokes, strokes_of
from oblatus.core.fitting.sets import ClubSet, Rules, SetProblem, held_of, in_order
from oblatus.core.fitting.steps import Step, rank_level, recommended_step
from oblatus.core.words import counted
from oblatus.errors import fault

Floats = NDArray[np.float64]

EXACT_ROUNDS = 2
BEST_SETS = 10
KEEP_BAG = -1
CONTENDERS = 32
SWAPS = 2
NEAR, NEAR_STROKES = 4, 1e-6
WORSE = 1e-9

PITCHING_WEDGE = -1
"""Its place among the candidates' bench values."""


class Book:
    """The matrix of a fitting and the steps of change found in it, exact for every club that is shown."""

    def __init__(
        self, fitting: Fitting, sheet: Sheet, candidates: list[Candidate], lowest: float, tolerance: float
    ) -> None:
        self.fitting, self.sheet, self.candidates, self.lowest = fitting, sheet, candidates, lowest
        above = [fitting.bag.pitching_wedge, fitting.bag.nine_iron]
        self.owned = [item for item in fitting.stock if item.owned]
        owned, heads = [item.head for item in self.owned], [candidate.head for candidate in candidates]
        # all that is reckoned from the start at once: it goes quicker
        nodes = exact_of(candidates)
        raw = sheet.raw([*above, *owned, *(heads[i] for i in nodes)])
        first = len(above) + len(owned)
        self.above = sheet.costs(above, raw[: len(above)])
        self.bag_costs = sheet.costs(owned, raw[len(above) : first])
        self.costs = sheet.costs(heads, between_bends(raw[first:], nodes, candidates))
        self.exact = np.isin(np.arange(len(candidates)), nodes)
        self.rules = self._rules()
        self.bag_score = self._bag(self.bag_costs.cost)
        self.bag_strokes = self._bag_strokes()
        reached = {round(candidate.head.loft_deg, 2) for candidate in candidates}
        self.missing = tuple(x for x in fitting.ladder_deg or () if round(x, 2) not in reached)
        self.steps: list[Step] = []
        self.recommended = self.taken = self.level_count = 0
        self.tolerance = tolerance
        self.sets: tuple[ClubSet, ...] = ()
        self._known: list[tuple[int, ...]] = []
        self._near: set[tuple[int, ...]] = set()
        self._benched: dict[int, Floats] = {}

    def _rules(self) -> Rules:
        fitting = self.fitting
        lofts = tuple(
            x for x in fitting.ladder_deg or () if any(abs(c.head.loft_deg - x) < 0.01 for c in self.candidates)
        )
        held = held_of(self.candidates, fitting.pinned)
        favourite = fitting.player.schools.clubs == "favourite"
        if lofts:
            return Rules((len(lofts),), 0.0, lofts, held, favourite)
        wanted = fitting.player.wedge_count
        most = fitting.bag.wedge_room if wanted is None else wanted
        if len(held) > most:
            where = f"there is room for {most}" if wanted is None else f"{counted(most, 'wedge is', 'wedges are')} wanted"
            raise fault("choices.pinned", f"{counted(len(held), 'head is', 'heads are')} set by hand where {where}")
        slot = fitting.economy.slot if wanted is None else 0.0
        return Rules(tuple(range(max(len(held), 1), most + 1)), slot, None, held, favourite, len(self.owned))

    def _bag(self, rows: Floats) -> float:
        """Strokes of today's bag by a sheet's rows (cost or strokes), its clubs chosen by cost."""
        weights, fixed = self.sheet.weights, self.above.cost.min(axis=0)
        if not self.owned:
            return float(fixed @ weights)
        best = np.minimum(rows.min(axis=0), fixed)
        if self.rules.favourite:
            short = self.sheet.is_short
            alone = int((self.bag_costs.cost[:, short] @ weights[short]).argmin())
            best = np.where(short, rows[alone], best)
        return float(best @ weights)

    def _bag_strokes(self) -> float:
        return strokes_of(self.sheet, self.bag_costs, self.above, self.rules.favourite)

    def settle(self) -> None:
        """Find the steps, reckon every club near them exactly, look again, and state the steps by what is exact."""
        self._problem()
        for _ in range(EXACT_ROUNDS):
            self.steps = self._find_steps()
            self._known = [step.picks for step in self.steps if step.kind != "bag"]
            if not self._reckon([*self._known, *self._near]):
                break
        self.steps = [self.steps[0], *self._again(self.steps[1:])]
        self._show_least_change()
        self.recommended = recommended_step(self.steps, self.fitting.economy, self.rules)
        self.taken = self._taken()
        self._count_level()

    def _reckon(self, sets: Iterable[Sequence[int]]) -> bool:
        """Make the costs of every club of these sets exact; returns whether any was not."""
        new = sorted({i for picks in sets for i in picks if not self.exact[i]})
        if not new:
            return False
        exact = self.sheet.costs([self.candidates[i].head for i in new])
        self.costs.cost[new], self.costs.strokes[new], self.costs.pick[new] = exact.cost, exact.strokes, exact.pick
        self.exact[new] = True
        self._problem()
        return True

    def _again(self, steps: Sequence[Step]) -> list[Step]:
        """The steps by exact costs: the best of the sets near, for every number of heads that still does better."""
        found: list[Step] = []
        for step in steps:
            sets = [p for p in {step.picks, *self._near} if self._bought(p) <= step.heads]
            best = in_order(ClubSet(p, self.problem.score(p)) for p in sets)[0]
            if not self._no_worse(best):
                best = ClubSet(step.picks, self.problem.score(step.picks))
            if not found or best.score < found[-1].score - WORSE:
                found.append(self._step(best))
        return found

    def _taken(self) -> int:
        """The step whose set is shown: the fitter's, if there is such a step, else the proposed one."""
        wanted = self.fitting.heads_bought
        if wanted is None:
            return self.recommended
        if wanted == KEEP_BAG:
            return 0 if self.steps[0].picks else self.recommended
        mine = [n for n, step in enumerate(self.steps) if step.kind != "bag" and step.heads == wanted]
        return mine[0] if mine else self.recommended

    def _problem(self) -> None:
        weights = self.sheet.weights
        self.problem = SetProblem(
            self.candidates, self.costs.cost * weights, (self.above.cost * weights).min(axis=0), self.sheet.is_short,
            self.rules, self.lowest,
        )  # fmt: skip

    def strokes(self, picks: Sequence[int]) -> float:
        """The model's strokes a round of a set."""
        return strokes_of(self.sheet, self.costs.of(picks), self.above, self.rules.favourite)

    def served_strokes(self, picks: Sequence[int]) -> Floats:
        """The model's strokes a round of a set in every column."""
        return served_strokes(self.problem, self.costs, self.above, self.sheet.weights, picks)

    def bag_picks(self) -> tuple[int, ...] | None:
        """Today's bag as candidates, if the rules allow it as it stands."""
        found = [
            next((i for i, c in enumerate(self.candidates) if c.stock.code == item.code and c.bend_deg == 0.0), None)
            for item in self.owned
        ]
        if not found or None in found or self.rules.held or self.rules.lofts_deg is not None:
            return None
        if len(found) > max(self.rules.counts):
            return None
        return tuple(sorted(i for i in found if i is not None))

    def _find_steps(self) -> list[Step]:
        """Today's bag, then the best set for every number of heads bought that does better than with fewer."""
        steps = [Step("bag", 0, self.bag_picks() or (), self.bag_score, self.bag_strokes, 0.0)]
        before = np.inf
        for heads in range(max(self.rules.counts) + 1):
            # the sets of the round before are a limit from which the search starts
            known = [self.problem.score(p) for p in self._known if self._bought(p) <= heads]
            best = self.problem.best(heads, NEAR, min([before, *known]) + NEAR_STROKES)
            if not best or best[0].score > before - WORSE:
                continue
            before = best[0].score
            self._near |= {one.picks for one in best}
            found = best[0] if self._no_worse(best[0]) else self._next_best(heads, best[0].score)
            if found is not None:
                steps.append(self._step(found))
        if len(steps) == 1 and not self.owned:
            raise fault("bag", "no set can be built: the rack has no heads that go together within these lofts")
        return steps

    def _next_best(self, heads: int, score: float) -> ClubSet | None:
        """The best set that is not worse than today's bag by the model alone, if one is level with the best."""
        _, listed = self.problem.within(heads, score + self.tolerance)
        return next((one for one in in_order(listed) if self._no_worse(one)), None)

    def _bought(self, picks: Sequence[int]) -> int:
        return sum(self.candidates[i].bought for i in picks)

    def _step(self, one: ClubSet) -> Step:
        bought, strokes = self._bought(one.picks), self.strokes(one.picks)
        kind: Literal["bends", "heads"] = "heads" if bought else "bends"
        return Step(
            kind, bought, one.picks, one.score, strokes, self.bag_strokes - strokes, self.rules.place(len(one.picks))
        )

    def _show_least_change(self) -> None:
        """Have every step show the level set that changes least, if it still does better than the step before.

        Every step, not the taken one alone: what a step wins is one figure, whichever is taken, and it is what decides.
        """
        for n, step in enumerate(self.steps):
            if step.kind == "bag":
                continue
            _, listed = self.problem.within(step.heads, step.score + self.tolerance)
            before = self.steps[n - 1].score if n > 1 else np.inf
            exactly = [one for one in listed if self._bought(one.picks) == step.heads and one.score < before - WORSE]
            order = rank_level(
                exactly, self.candidates, self.fitting.bag.pitching_wedge.loft_deg, self._bench_values,
                0 if self.rules.slot > 0.0 else max(self.rules.counts),
            )  # fmt: skip
            found = next((exactly[i] for i in order if self._no_worse(exactly[i])), None)
            if found is None:
                continue
            self._reckon([found.picks])
            shown = self._step(ClubSet(found.picks, self.problem.score(found.picks)))
            if shown.score < before - WORSE:
                self.steps[n] = shown

    def _count_level(self) -> None:
        """Count the sets that are level with the best of the step that is shown."""
        step = self.steps[self.taken]
        best = self.problem.best(step.heads, 1, step.score + NEAR_STROKES)
        least = best[0].score if best else step.score
        self.level_count, listed = self.problem.within(step.heads, least + self.tolerance)
        self.sets = tuple(in_order(listed)[:BEST_SETS])

    def _no_worse(self, one: ClubSet) -> bool:
        """Not worse than today's bag by the model; a set that the fitter has asked for may be."""
        asked = self.rules.held or self.rules.lofts_deg is not None or len(self.owned) > max(self.rules.counts)
        return bool(asked) or self.strokes(one.picks) <= self.bag_strokes + WORSE

    def contenders(self, clubs: Sequence[ClubChoice]) -> tuple[tuple[int, ...], ...]:
        """The shown set with one club another, the nearest two for every slot; then sets near the best of the steps."""
        shown = self.steps[self.taken].picks
        swaps = [
            tuple(sorted((*shown[:slot], other, *shown[slot + 1 :])))
            for slot, club in enumerate(clubs)
            for other, _ in [row for row in club.ranked if row[0] != club.pick][:SWAPS]
        ]
        near = in_order(ClubSet(picks, self.problem.score(picks)) for picks in self._near)
        return tuple(dict.fromkeys([*swaps, *(one.picks for one in (*self.sets, *near))]))[:CONTENDERS]

    def _bench_values(self, level: Sequence[ClubSet]) -> Floats:
        """What the bench rules say of every set: the shares' sum of its best club's value."""
        short = self.sheet.short
        used = {PITCHING_WEDGE, *(i for one in level for i in one.picks)} - set(self._benched)
        if used and len(self.candidates) <= FEW:
            used = {PITCHING_WEDGE, *range(len(self.candidates))}  # all at once: it goes quicker
        if level and used:
            heads = [self.fitting.bag.pitching_wedge if i == PITCHING_WEDGE else self.candidates[i].head for i in used]
            values = BenchRules().judge(heads, short, self.fitting.player).values
            self._benched.update(zip(used, values, strict=True))
        shares = np.array([scenario.share for scenario in short])
        return np.array(
            [float(np.max([self._benched[i] for i in (*one.picks, PITCHING_WEDGE)], axis=0) @ shares) for one in level]
        )
