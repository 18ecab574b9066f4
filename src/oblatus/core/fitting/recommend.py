"""From a fitting to a proposal: ladder, candidates, judgement, the best sets, and what each club is for."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from oblatus.core.clubs import Head, StockHead
from oblatus.core.delivery import Habit, Player
from oblatus.core.fitting.bench_rules import BenchRules
from oblatus.core.fitting.judge import Judgement, SoleJudge
from oblatus.core.fitting.scenarios import Scenario, build_scenarios
from oblatus.core.fitting.sets import Candidate, ClubSet, SetProblem, candidates_for, reachable_lofts
from oblatus.core.flight import GREEN_FIRMNESS, REFERENCE_AIR, Air, Green
from oblatus.core.gapping import (
    SWINGS,
    Band,
    CarryModel,
    Ladder,
    LadderSearch,
    LadderWish,
    MeasuredStrike,
    OwnedLoft,
    Rung,
    Swing,
    faced_distances,
    fit_carry_model,
    fit_player_model,
)
from oblatus.core.gapping.ladder import LEAST_STEP_DEG, MOST_LOFT_DEG, MOST_WEDGES
from oblatus.core.grounds import GreenClass, Ground
from oblatus.core.shots import default_shot_mix
from oblatus.errors import fault

Floats = NDArray[np.float64]

CLUBS_ALLOWED = 14
BEST_SETS = 10
SETS_LOOKED_AT = 60
CONTENDERS = 48
RANKED = 8
TOP_LOFT_BASE_DEG = 55.0
TOP_LOFT_NEED_DEG = 4.5
HIGH_SHOTS = ("high_soft", "short_pitch", "sand_high_lip")
HIGH_SHARE_FOR_ALL = 0.14


@dataclass(frozen=True, slots=True)
class Bag:
    """Lofts above the wedges [degrees], how many clubs are not wedges, and the pitching wedge as a head."""

    pitching_wedge: Head
    nine_iron_loft_deg: float = 41.0
    other_clubs: int = 10

    @property
    def wedge_room(self) -> int:
        """How many wedges the 14 clubs leave room for, at most four."""
        return max(min(CLUBS_ALLOWED - self.other_clubs, MOST_WEDGES), 0)


@dataclass(frozen=True, slots=True)
class Fitting:
    """Everything that the engine needs: player, ground mix, bag, heads to choose from, and a typed ladder if any.

    `strikes` were measured in `air`; `bands` say how often distances are faced if the shot mix does not;
    `ladder_factors` are the fitter's weights on the parts of the ladder.
    """

    player: Player
    grounds: tuple[Ground, ...]
    bag: Bag
    stock: tuple[StockHead, ...]
    ladder_deg: tuple[float, ...] | None = None
    pinned: dict[float, str] = field(default_factory=dict)
    strikes: tuple[MeasuredStrike, ...] = ()
    swings: tuple[Swing, ...] = SWINGS
    air: Air = REFERENCE_AIR
    bands: tuple[Band, ...] = ()
    ladder_factors: dict[str, float] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class ClubChoice:
    """One club of the proposed set: its candidate, the scenarios it serves, and the ranked alternatives.

    `ranked` holds (candidate index, score of the best set with it in this slot), best first.
    """

    pick: int
    duties: tuple[int, ...]
    ranked: tuple[tuple[int, float], ...]


@dataclass(frozen=True, slots=True)
class Contender:
    """A set near the best, with its score by the judge and by the bench rules."""

    picks: tuple[int, ...]
    score: float
    bench: float


@dataclass(frozen=True, slots=True)
class Recommendation:
    """A proposal with all that explains it. Indices point into `candidates` and `scenarios`.

    `bench` and `bench_sets` are what the bench rules alone would say; `tied` counts the sets, of the 60 best looked at,
    that the judge could not tell from the best; the bench rules chose among them. `strikes` is how many measured
    strikes the carry model was fitted to.
    """

    carry_model: CarryModel
    strikes: int
    rungs: tuple[Rung, ...]
    options: tuple[Ladder, ...]
    ladder: Ladder
    typed: bool
    scenarios: tuple[Scenario, ...]
    candidates: tuple[Candidate, ...]
    judgement: Judgement
    bench: Judgement
    bench_sets: tuple[ClubSet, ...]
    tied: int
    contenders: tuple[Contender, ...]
    sets: tuple[ClubSet, ...]
    clubs: tuple[ClubChoice, ...]
    scenario_values: Floats
    served_by: tuple[int, ...]
    missing_lofts_deg: tuple[float, ...]
    pinned: tuple[bool, ...]
    lost_pins: tuple[tuple[float, str], ...]


def recommend(fitting: Fitting, judge: SoleJudge | None = None) -> Recommendation:
    """The proposal for a fitting.

    Raises
    ------
    InputError
        If the fitting has no room for a wedge, no ground with a share, or a carry that no head speed gives.
    """
    player, bag = fitting.player, fitting.bag
    choice = choose_ladder(fitting)
    model, ladder = choice.model, choice.ladder
    scenarios = build_scenarios(player, fitting.grounds)
    candidates = candidates_for(ladder.lofts_deg, fitting.stock)
    slots_found = {candidate.slot for candidate in candidates}
    missing = tuple(loft for slot, loft in enumerate(ladder.lofts_deg) if slot not in slots_found)
    renumbered = _close_slots(candidates, sorted(slots_found))
    heads = [candidate.head for candidate in renumbered] + [bag.pitching_wedge]
    bench = BenchRules().judge(heads, scenarios, player)
    judgement = bench if judge is None else judge.judge(heads, scenarios, player, model)
    held = {
        (candidate.slot, i)
        for i, candidate in enumerate(renumbered)
        if fitting.pinned.get(ladder.lofts_deg[sorted(slots_found)[candidate.slot]]) == candidate.stock.code
    }
    search = _SetSearch(renumbered, judgement.values, scenarios, player.schools.clubs == "favourite", dict(held))
    found = search.best(SETS_LOOKED_AT)
    cross = _SetSearch(renumbered, bench.values, scenarios, player.schools.clubs == "favourite", dict(held))
    sets, tied = _settle(found, cross, judgement.tie if judge is not None else 0.0)
    contenders = tuple(Contender(s.picks, s.score, cross.score(s.picks)) for s in sets[:CONTENDERS])
    sets = sets[:BEST_SETS]
    clubs, values, served = search.explain(sets)
    return Recommendation(
        carry_model=model,
        strikes=sum(strike.counts for strike in measured_carries(fitting)),
        rungs=_rungs(model, bag, ladder, fitting.grounds),
        options=choice.options,
        ladder=ladder,
        typed=fitting.ladder_deg is not None,
        scenarios=tuple(scenarios),
        candidates=tuple(renumbered),
        judgement=judgement,
        bench=bench,
        bench_sets=tuple(cross.best(1)),
        tied=tied,
        contenders=contenders,
        sets=tuple(sets),
        clubs=clubs,
        scenario_values=values,
        served_by=served,
        missing_lofts_deg=missing,
        pinned=tuple(slot in search.held for slot in range(len(clubs))),
        lost_pins=tuple(
            (loft, code)
            for loft, code in fitting.pinned.items()
            if loft in ladder.lofts_deg and not any(renumbered[i].stock.code == code for i in search.held.values())
        ),
    )


@dataclass(frozen=True, slots=True)
class LadderChoice:
    """Carry model, wish, the search behind it, the best ladder of every count, and the one that is taken."""

    model: CarryModel
    wish: LadderWish
    search: LadderSearch
    options: tuple[Ladder, ...]
    ladder: Ladder


def choose_ladder(fitting: Fitting) -> LadderChoice:
    """The ladder of a fitting, typed or the best of the wanted number; raises as `recommend`."""
    _check(fitting)
    model = carry_model_of(fitting)
    wish = ladder_wish(fitting, model)
    search = LadderSearch(model, wish)
    options = tuple(ladder for count in range(1, fitting.bag.wedge_room + 1) for ladder in search.best(count))
    return LadderChoice(model, wish, search, options, _choose(fitting, search, options))


def carry_model_of(fitting: Fitting) -> CarryModel:
    """The player's carry model: fitted to the strikes if there are any, else to the one carry or speed that is known."""
    player = fitting.player
    strikes = tuple(strike for strike in measured_carries(fitting) if strike.counts)
    return _carry_model(
        player.habit, player.pitching_wedge_carry, player.pitching_wedge_speed, fitting.bag.pitching_wedge.loft_deg,
        strikes, fitting.swings, fitting.air,
    )  # fmt: skip


def measured_carries(fitting: Fitting) -> list[MeasuredStrike]:
    """The strikes that tell a carry: full and clock swings, set aside or not."""
    known = {swing.key for swing in fitting.swings}
    return [strike for strike in fitting.strikes if strike.carry is not None and strike.swing in known]


@lru_cache(maxsize=32)
def _carry_model(
    habit: Habit,
    carry: float | None,
    speed: float | None,
    loft_deg: float,
    strikes: tuple[MeasuredStrike, ...],
    swings: tuple[Swing, ...],
    air: Air,
) -> CarryModel:
    player = Player(habit, pitching_wedge_carry=carry, pitching_wedge_speed=speed)
    if strikes:
        return fit_player_model(player, loft_deg, strikes, swings=swings, air=air).carries
    return replace(fit_carry_model(player, loft_deg), swings=swings)


def wanted_top_loft(player: Player) -> float:
    """Top loft that the shot mix can use [degrees]: 55, up to 59.5 when a seventh of the golf is high soft shots."""
    mix = player.shot_mix or default_shot_mix(player.handicap)
    need = min(sum(mix.get(key, 0.0) for key in HIGH_SHOTS) / HIGH_SHARE_FOR_ALL, 1.0)
    strokes = 12.0 if player.handicap is None else player.handicap
    return TOP_LOFT_BASE_DEG + TOP_LOFT_NEED_DEG * need - (1.0 if strokes > 18.0 else 0.0)


def _settle(found: list[ClubSet], cross: _SetSearch, tie: float) -> tuple[list[ClubSet], int]:
    """Sets within the judge's own tie limit of the best are level: the bench rules choose among them."""
    level = [club_set for club_set in found if found[0].score - club_set.score < tie]
    if len(level) < 2:
        return found, 0
    first = max(level, key=lambda club_set: cross.score(club_set.picks))
    return [first, *(club_set for club_set in found if club_set is not first)], len(level)


def _check(fitting: Fitting) -> None:
    if not any(ground.share > 0.0 for ground in fitting.grounds):
        raise fault("grounds", "at least one ground needs a share of the golf")
    if fitting.bag.wedge_room == 0:
        raise fault("bag.other_clubs", f"leaves no room for a wedge among {CLUBS_ALLOWED} clubs", fitting.bag.other_clubs)
    if fitting.player.wedge_count is not None and fitting.player.wedge_count > fitting.bag.wedge_room:
        raise fault(
            "player.wedge_count",
            f"with {fitting.bag.other_clubs} other clubs there is room for {fitting.bag.wedge_room}",
            fitting.player.wedge_count,
        )


def ladder_wish(fitting: Fitting, model: CarryModel) -> LadderWish:
    """What the ladder should do, from the fitting."""
    lofts = reachable_lofts(fitting.stock)
    if not lofts:
        top = fitting.bag.pitching_wedge.loft_deg + LEAST_STEP_DEG
        lofts = tuple(float(x) for x in np.arange(top, MOST_LOFT_DEG + 0.25, 0.5))
    owned = tuple(
        OwnedLoft(item.code, item.name, item.head.loft_deg, item.bend_limit_deg) for item in fitting.stock if item.owned
    )
    longest = float(model.carries([model.pitching_wedge_loft_deg], model.swings[:1])[0, 0])
    faced = faced_distances(fitting.player, longest, fitting.bands)
    wanted = wanted_top_loft(fitting.player)
    return LadderWish(lofts, owned, wanted, fitting.player.schools, faced, fitting.ladder_factors)


def _choose(fitting: Fitting, search: LadderSearch, options: tuple[Ladder, ...]) -> Ladder:
    if fitting.ladder_deg is not None:
        return search.score(fitting.ladder_deg)
    wanted = fitting.player.wedge_count
    fitting_count = [ladder for ladder in options if wanted is None or len(ladder.lofts_deg) == wanted]
    if not fitting_count:
        raise fault("bag", "no head on the rack or in the bag reaches a loft below the pitching wedge")
    return min(fitting_count, key=lambda ladder: ladder.penalty)


def _close_slots(candidates: list[Candidate], slots: list[int]) -> list[Candidate]:
    where = {slot: n for n, slot in enumerate(slots)}
    return [Candidate(c.stock, where[c.slot], c.bend_deg, c.head) for c in candidates]


def _rungs(model: CarryModel, bag: Bag, ladder: Ladder, grounds: Sequence[Ground]) -> tuple[Rung, ...]:
    green = Green(GREEN_FIRMNESS[_main_green(grounds)])
    lofts = (bag.nine_iron_loft_deg, bag.pitching_wedge.loft_deg, *ladder.lofts_deg)
    return tuple(model.rung(loft, swing, REFERENCE_AIR, green) for loft in lofts for swing in model.swings)


def _main_green(grounds: Sequence[Ground]) -> GreenClass:
    return max(grounds, key=lambda ground: ground.share).green


class _SetSearch:
    """The set search for one judgement: shares of short shots, own full swings, the pitching wedge as it stands.

    `held` maps a slot to the candidate that the fitter chose by hand.
    """

    def __init__(
        self,
        candidates: Sequence[Candidate],
        values: Floats,
        scenarios: Sequence[Scenario],
        favourite: bool,
        held: dict[int, int],
    ) -> None:
        self.candidates = candidates
        self.held = held
        self.values = values[:-1]
        self.shares = np.array([scenario.share for scenario in scenarios])
        self.full = np.array([scenario.shot.kind == "full" for scenario in scenarios], dtype=bool)
        # a full-swing scenario belongs to whichever club the distance asks for, never to the pitching wedge here
        self.fixed = np.where(self.full, 0.0, values[-1])
        self.favourite = favourite
        self.slots = max((c.slot for c in candidates), default=-1) + 1
        # every wedge hits its own full swings, so they add up club by club instead of going to the best club
        own = self.values[:, self.full] @ self.shares[self.full] / max(self.slots, 1)
        self.problem = SetProblem(
            candidates,
            self.values,
            np.where(self.full, 0.0, self.shares),
            self.fixed,
            ~self.full,
            favourite=favourite,
            own=own,
        )

    def best(self, count: int, only: tuple[int, int] | None = None) -> list[ClubSet]:
        """The best sets; with `only` = (slot, candidate) that club is held in its slot."""
        return self.problem.search(count, self.held if only is None else {**self.held, only[0]: only[1]})

    def score(self, picks: Sequence[int]) -> float:
        """The score of one set."""
        return self.problem.score(picks)

    def explain(self, sets: Sequence[ClubSet]) -> tuple[tuple[ClubChoice, ...], Floats, tuple[int, ...]]:
        """Per club its duties and ranking; per scenario its value and who serves it (-1 the pitching wedge)."""
        if not sets:
            return (), np.zeros(len(self.shares)), tuple(-1 for _ in self.shares)
        picks = sets[0].picks
        mine = self.values[list(picks)]
        server = mine.argmax(axis=0)
        if self.favourite:
            server = np.where(self.full, server, int((mine[:, ~self.full] @ self.shares[~self.full]).argmax()))
        value = np.where(self.full, mine.mean(axis=0), mine[server, np.arange(len(server))])
        by_wedge = self.full | (value >= self.fixed) | self.favourite
        served = np.where(by_wedge, server, -1)
        value = np.maximum(value, np.where(by_wedge, value, self.fixed))
        clubs = tuple(
            ClubChoice(pick, tuple(int(s) for s in np.flatnonzero((served == slot) & ~self.full)), self._ranked(slot))
            for slot, pick in enumerate(picks)
        )
        return clubs, value, tuple(int(s) for s in served)

    def _ranked(self, slot: int) -> tuple[tuple[int, float], ...]:
        """Every candidate of a slot with the score of the best set that has it, best first."""
        rows: list[tuple[int, float]] = []
        for i, candidate in enumerate(self.candidates):
            if candidate.slot == slot:
                best = self.best(1, (slot, i))
                if best:
                    rows.append((i, best[0].score))
        rows.sort(key=lambda row: -row[1])
        return tuple(rows[:RANKED])
