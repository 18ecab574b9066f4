"""From the document (millimetres, plain JSON) to the engine's nouns (SI)."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from functools import lru_cache
from typing import Any

from oblatus.core.build.bench import bend_left
from oblatus.core.clubs import Head, StockHead
from oblatus.core.delivery import Estimate, Habit, Player, Schools
from oblatus.core.figures import figures, in_engine
from oblatus.core.fitting import Bag, Economy, Fitting
from oblatus.core.fitting.proved import HeadShift
from oblatus.core.flight import Air
from oblatus.core.gapping import SWINGS, Band, MeasuredStrike, Swing
from oblatus.core.grounds import SURFACES, Ground
from oblatus.core.shots import BY_KEY
from oblatus.core.strokes.situations import Layout, OwnLie
from oblatus.core.words import day
from oblatus.formats.fitting import FittingDocument
from oblatus.formats.sections.bag import BagDocument, HeadDocument, RackHeadDocument
from oblatus.formats.sections.choices import EconomyDocument, HoleDocument
from oblatus.formats.sections.grounds import GroundDocument, SurfaceDocument
from oblatus.formats.sections.measuring import HeadEvidenceDocument
from oblatus.formats.sections.player import PlayerDocument
from oblatus.formats.strikes import strike_from

PITCHING_WEDGE_SOLE_WIDTH = 0.018
LOFT_CORRECTED_DEG = 3.0


@lru_cache(maxsize=4096)
def head_from(document: HeadDocument) -> Head:
    """Static geometry in SI; equal documents give the same head."""
    return Head(**in_engine(Head, document))


def fitting_from(
    document: FittingDocument, rack: Sequence[RackHeadDocument], strikes: Sequence[MeasuredStrike] | None = None
) -> Fitting:
    """The engine's fitting; `rack` serves unless the document brings its own, and so do `strikes` if they are given.

    A strike of a club whose loft was corrected by up to 3 degrees since counts for the club as it is now.
    """
    heads = document.rack if document.rack is not None else rack
    stock = [
        StockHead(
            f"own:{n}",
            wedge.name,
            head_from(wedge),
            wedge.make,
            True,
            1,
            bend_left(wedge.bend_limit_deg, wedge.bends_deg),
        )
        for n, wedge in enumerate(document.bag.wedges)
    ]  # fmt: skip
    stock += [
        StockHead(head.code, head.name, head_from(head), head.make, False, head.stock, head.bend_limit_deg, head.price)
        for head in heads
    ]
    bag = document.bag
    measured = [strike_from(strike) for strike in document.strikes] if strikes is None else strikes
    lofts = lofts_now(bag)
    pitching_wedge = Head(
        bag.pitching_wedge_loft_deg, bag.pitching_wedge_bounce_deg, sole_width=PITCHING_WEDGE_SOLE_WIDTH
    )
    return Fitting(
        player=_player(document.player),
        grounds=grounds_of(document),
        bag=Bag(pitching_wedge, bag.nine_iron_loft_deg, bag.other_clubs),
        stock=tuple(stock),
        ladder_deg=document.choices.ladder_deg,
        pinned={pin.loft_deg: pin.code for pin in document.choices.pinned},
        strikes=tuple(_with_loft_now(strike, lofts) for strike in measured),
        swings=swings_from(document),
        air=session_air(document),
        bands=tuple(Band(band.from_m, band.to_m, band.share) for band in document.choices.distances or ()),
        ladder_factors=document.choices.ladder_factors.model_dump(),
        layouts={layout.shot: _layout(layout) for layout in document.choices.layouts},
        economy=economy_from(document.choices.economy),
        heads_bought=document.choices.heads_bought,
        proved=tuple(_shift(one) for one in document.evidence),
        former=former_names(bag),
    )


def former_names(bag: BagDocument) -> dict[str, str]:
    """What wedges are called that are no longer as they were, by code."""
    return {one.code: f"{one.wedge.name}, as it was" for one in bag.former}


def heads_by_hand(document: FittingDocument, rack: Sequence[RackHeadDocument]) -> list[str]:
    """What the heads set by hand are called, in their order; the code of one that is known no more."""
    heads = document.rack if document.rack is not None else rack
    names = {head.code: head.name for head in heads} | former_names(document.bag)
    names |= {f"own:{n}": wedge.name for n, wedge in enumerate(document.bag.wedges)}
    return [names.get(pin.code, pin.code) for pin in document.choices.pinned]


def _shift(document: HeadEvidenceDocument) -> HeadShift:
    return HeadShift(
        head_from(document.head), tuple((one.shot, one.strokes) for one in document.shots), document.name,
        document.standing, document.against, day(document.on), sum(one.balls for one in document.shots),
    )  # fmt: skip


def economy_from(document: EconomyDocument) -> Economy:
    """What a round and a change are worth, the usual figures where none is typed."""
    usual = Economy()
    return Economy(
        document.shots_a_round,
        usual.worth_changing if document.worth_changing is None else document.worth_changing,
        usual.slot if document.slot is None else document.slot,
        usual.practice if document.practice is None else document.practice,
        table_scale=usual.table_scale if document.table_scale is None else document.table_scale,
        claims_sd=usual.claims_sd if document.claims_sd is None else document.claims_sd,
    )


def _layout(document: HoleDocument) -> Layout:
    own: OwnLie = "sand" if BY_KEY[document.shot].kind == "sand" else "rough"
    return Layout(document.hole_m, document.room_m, document.behind_m, document.short, own)


def swings_from(document: FittingDocument) -> tuple[Swing, ...]:
    """The clock swings and the fitter's own, the full swing first."""
    own = document.measuring.swings
    return (*SWINGS, *(Swing(swing.key, swing.name, swing.speed_share, swing.extra_lean_deg) for swing in own))


def session_air(document: FittingDocument) -> Air:
    """The air in which strikes were measured, without wind."""
    return Air(document.measuring.temperature_c, document.measuring.altitude_m)


def lofts_now(bag: BagDocument) -> dict[str, float]:
    """Lofts [degrees] of the clubs in the bag, as they are, by code."""
    lofts = {"9i": bag.nine_iron_loft_deg, "pw": bag.pitching_wedge_loft_deg}
    return lofts | {f"own:{n}": wedge.loft_deg for n, wedge in enumerate(bag.wedges)}


def _with_loft_now(strike: MeasuredStrike, lofts: Mapping[str, float]) -> MeasuredStrike:
    loft = lofts.get(strike.club, strike.loft_deg)
    if loft == strike.loft_deg or abs(loft - strike.loft_deg) > LOFT_CORRECTED_DEG:
        return strike
    return replace(strike, loft_deg=loft)


def _estimate(document: Any, scale: float = 1.0) -> Estimate:
    return Estimate(document.mean * scale, document.spread * scale, document.count, document.source)


def _player(document: PlayerDocument) -> Player:
    delivery = document.delivery
    return Player(
        habit=Habit(
            attack_deg=_estimate(delivery.attack_deg),
            lean_deg=_estimate(delivery.lean_deg),
            entry=_estimate(delivery.entry_mm, 0.001),
            release=delivery.release,
            opening=delivery.opening,
        ),
        handicap=document.handicap,
        pitching_wedge_carry=document.pitching_wedge_carry_m,
        pitching_wedge_speed=document.pitching_wedge_speed_mps,
        wedge_count=document.wedge_count,
        schools=Schools(**document.schools.model_dump()),
        shot_mix=dict(document.shot_mix) if document.shot_mix is not None else None,
    )


def grounds_of(document: FittingDocument) -> tuple[Ground, ...]:
    """The grounds of the mix."""
    return tuple(_ground(ground) for ground in document.grounds)


def _ground(document: GroundDocument) -> Ground:
    parts: dict[str, Any] = {key: _surface(document.surface(key)) for key in SURFACES} | in_engine(Ground, document)
    return Ground(name=document.name, share=document.share, green=document.green, **parts)


def _surface(document: SurfaceDocument) -> Any:
    kind = document.kind_of
    values = in_engine(kind.made_of, document)
    if kind.picked is not None:
        values[figures(kind.made_of)[kind.picked.figure].attribute] = kind.picked.values[
            getattr(document, kind.picked.field)
        ]
    return kind.made_of(**values)
