"""A fitting as the engine takes it, the carries that follow from it, and what its ladder should do."""

from __future__ import annotations

import math
from dataclasses import dataclass, field, replace
from functools import lru_cache

import numpy as np

from oblatus.core.clubs import Head, StockHead
from oblatus.core.constants import MOST_WEDGES
from oblatus.core.delivery import Habit, Player
from oblatus.core.fitting.candidates import reachable_lofts
from oblatus.core.fitting.economy import Economy
from oblatus.core.fitting.proved import HeadShift
from oblatus.core.flight import REFERENCE_AIR, Air
from oblatus.core.gapping import (
    SWINGS,
    Band,
    CarryModel,
    Faced,
    Ladder,
    LadderSearch,
    LadderWish,
    MeasuredStrike,
    OwnedLoft,
    Swing,
    faced_distances,
    fit_carry_model,
    fit_player_carries,
)
from oblatus.core.gapping.ladder import LEAST_STEP_DEG, MOST_LOFT_DEG
from oblatus.core.grounds import Ground
from oblatus.core.shots import CATALOGUE, default_shot_mix, handicap_or_usual
from oblatus.core.strokes import Layout, Scatter
from oblatus.errors import fault

CLUBS_ALLOWED = 14
NINE_IRON_LESS_BOUNCE = 2.0
TOP_LOFT_BASE_DEG = 55.0
TOP_LOFT_NEED_DEG = 4.5
HIGH_SHARE_FOR_ALL = 0.14
LEAST_SPEEDS = 10


def wedge_room(other_clubs: int) -> int:
    """How many wedges the clubs allowed leave room for beside the others, at most four."""
    return max(min(CLUBS_ALLOWED - other_clubs, MOST_WEDGES), 0)


@dataclass(frozen=True, slots=True)
class Bag:
    """Lofts above the wedges [degrees], how many clubs are not wedges, and the pitching wedge as a head."""

    pitching_wedge: Head
    nine_iron_loft_deg: float = 41.0
    other_clubs: int = 10

    @property
    def nine_iron(self) -> Head:
        """The nine-iron as a head: the pitching wedge's sole with two degrees less bounce."""
        bounce = max(self.pitching_wedge.bounce_deg - NINE_IRON_LESS_BOUNCE, 0.0)
        return replace(self.pitching_wedge, loft_deg=self.nine_iron_loft_deg, bounce_deg=bounce)

    @property
    def wedge_room(self) -> int:
        """How many wedges the 14 clubs leave room for, at most four."""
        return wedge_room(self.other_clubs)


@dataclass(frozen=True, slots=True)
class Fitting:
    """Everything that the engine needs: player, ground mix, bag, heads to choose from, and a typed ladder if any.

    `strikes` were measured in `air`; `bands` say how often distances are faced if the shot mix does not;
    `ladder_factors` are the fitter's weights on the parts of the ladder; `layouts` where holes are, by shot; `economy`
    what a round and a change are worth; `heads_bought` the step of change that the fitter takes instead of the proposed
    one; `proved` what balls have shown of heads; `former` the names of clubs that are no longer as they were, by code.
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
    layouts: dict[str, Layout] = field(default_factory=dict)
    economy: Economy = field(default_factory=Economy)
    heads_bought: int | None = None
    proved: tuple[HeadShift, ...] = ()
    former: dict[str, str] = field(default_factory=dict)

    def club_name(self, code: str) -> str:
        """What a club is called, also one that is no longer as it was; the code itself where nothing else is known."""
        return next((item.name for item in self.stock if item.code == code), self.former.get(code, code))


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


def count_strikes(fitting: Fitting) -> int:
    """How many strikes a proposal stands on: those that tell a carry and are not set aside."""
    return sum(strike.counts for strike in measured_carries(fitting))


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
        return fit_player_carries(player, loft_deg, strikes, swings, air)
    return replace(fit_carry_model(player, loft_deg), swings=swings)


def wanted_top_loft(player: Player) -> float:
    """Top loft that the shot mix can use [degrees]: 55, up to 59.5 when a seventh of the golf is high soft shots."""
    mix = player.shot_mix or default_shot_mix(player.handicap)
    need = min(sum(mix.get(shot.key, 0.0) for shot in CATALOGUE if shot.high) / HIGH_SHARE_FOR_ALL, 1.0)
    strokes = handicap_or_usual(player.handicap)
    return TOP_LOFT_BASE_DEG + TOP_LOFT_NEED_DEG * need - (1.0 if strokes > 18.0 else 0.0)


def check_fitting(fitting: Fitting) -> None:
    """Refuse a fitting from which nothing can be proposed: no ground, no room for a wedge, more wedges than room."""
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
    faced = faced_of(fitting, model)
    wanted = wanted_top_loft(fitting.player)
    return LadderWish(lofts, owned, wanted, fitting.player.schools, faced, fitting.ladder_factors)


@dataclass(frozen=True, slots=True)
class LadderChoice:
    """Carry model, wish, the search behind it, and the evenest ladder of every count."""

    model: CarryModel
    wish: LadderWish
    search: LadderSearch
    options: tuple[Ladder, ...]


def ladder_choice(fitting: Fitting) -> LadderChoice:
    """Every ladder that could be built, by cover, gaps and steps alone; raises as `recommend`."""
    check_fitting(fitting)
    model = carry_model_of(fitting)
    wish = ladder_wish(fitting, model)
    search = LadderSearch(model, wish)
    options = tuple(ladder for count in range(1, fitting.bag.wedge_room + 1) for ladder in search.best(count))
    return LadderChoice(model, wish, search, options)


def faced_of(fitting: Fitting, model: CarryModel) -> Faced:
    """How often each distance up to the pitching wedge's full carry is faced."""
    longest = float(model.carries([model.pitching_wedge_loft_deg], model.swings[:1])[0, 0])
    return faced_distances(fitting.player, longest, fitting.bands)


def scatter_of(fitting: Fitting) -> Scatter:
    """The scatter of a player's shots: usual for the handicap; speed as measured once ten strikes or more tell it.

    Head speeds count within their own club and swing. Those of clock swings are the stock swings', those at the pitch,
    chip and sand stations the short shots'.
    """
    usual = Scatter.usual(fitting.player.handicap)
    clock = {swing.key for swing in fitting.swings}
    stock = _speed_scatter([s for s in fitting.strikes if s.swing in clock])
    short = _speed_scatter([s for s in fitting.strikes if s.swing not in clock and s.swing != "practice"])
    return Scatter.measured(usual, short, stock)


def _speed_scatter(strikes: list[MeasuredStrike]) -> float | None:
    """Standard deviation of the head speed as a share, pooled over clubs and swings; None from fewer than ten."""
    cells: dict[tuple[str, float, str], list[float]] = {}
    for strike in strikes:
        if strike.counts and strike.club_speed is not None:
            cells.setdefault((strike.club, strike.loft_deg, strike.swing), []).append(math.log(strike.club_speed))
    freedom = sum(len(values) - 1 for values in cells.values())
    if freedom < LEAST_SPEEDS - 1:
        return None
    squares = sum(float(np.var(values)) * len(values) for values in cells.values())
    return math.sqrt(squares / freedom)
