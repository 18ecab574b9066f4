"""The tables of core as the screens take them."""

from __future__ import annotations

import math
from collections.abc import Mapping
from functools import cache
from typing import Any, get_args

from oblatus.core.bounds import FLIGHT, Bound
from oblatus.core.build.sheet import PRICE_LIST
from oblatus.core.card.bag import INTO
from oblatus.core.clubs import BEND_LIMIT_DEG, DRIFT_MATTERS_DEG, Head
from oblatus.core.constants import MOST_WEDGES
from oblatus.core.delivery import Habit, Schools, Swing
from oblatus.core.figures import figures, in_document
from oblatus.core.fitting.proved import OTHER_SITUATIONS, OTHER_SURFACE
from oblatus.core.flight import REFERENCE_AIR
from oblatus.core.flight.impact import LIE_CLASSES
from oblatus.core.gapping import SWINGS, MeasuredStrike
from oblatus.core.gapping.carries import ASSUMED_PITCHING_WEDGE_CARRY
from oblatus.core.gapping.ladder import PART_WORDS
from oblatus.core.gapping.strikes import STATIONS, WANTED_STRIKES
from oblatus.core.grounds import SEASON_OF_MONTH, SURFACES, GreenClass, Ground, Season, SurfaceKind
from oblatus.core.log.shots import RESULTS, SITUATIONS
from oblatus.core.proof.outcome import IN_SAND, OUTCOMES
from oblatus.core.proof.plan import BOUNDS as PROOF_BOUNDS
from oblatus.core.questions import QUESTIONS, Question
from oblatus.core.schools import SCHOOLS
from oblatus.core.shots import BY_KEY, CATALOGUE, Short
from oblatus.core.strike.lies import LIES
from oblatus.core.strokes.situations import PINS
from oblatus.formats import limits
from oblatus.formats.card import BASIS
from oblatus.formats.carries import FINDER
from oblatus.formats.fitting import AFTER_THE_SET, SECTIONS, WITH_CODES
from oblatus.formats.imports.mapping import DELIMITERS, ENCODINGS
from oblatus.formats.log_file import LOG_FIELDS
from oblatus.formats.log_shots import DISTANCE, LEFT
from oblatus.formats.proof import BALL
from oblatus.formats.sections.after import CARD_PAPERS, CARD_PARTS
from oblatus.formats.sections.build import BUILD
from oblatus.formats.sections.choices import BAND_FROM, BAND_TO, LOFTS
from oblatus.formats.sections.parts import SHARE_TOLERANCE
from oblatus.formats.strike import SwingIn, surface_out
from oblatus.formats.strikes import Divot
from oblatus.web.schemas_catalogue import (
    AirOut,
    BandEdgesOut,
    BoundOut,
    CatalogueOut,
    ClassOut,
    FigureBoundOut,
    FigureField,
    KeyNameOut,
    LadderEdgesOut,
    LieOut,
    LogShotBoundsOut,
    MostOut,
    OutcomeOut,
    PickedOut,
    PriceLineOut,
    ProvedElsewhere,
    QuestionOut,
    SchoolQuestionOut,
    ShotOut,
    SpreadsOut,
    StationKeyOut,
    SurfaceKindOut,
)

SIGNS = {"degrees": "°"}
"""Units as a screen has them, where that is another sign than the shell's."""


@cache
def catalogue_out() -> CatalogueOut:
    """Everything that is the same for every fitting."""
    habit = Habit()
    return CatalogueOut(
        shots=[ShotOut(key=shot.key, name=shot.name, kind=shot.kind) for shot in CATALOGUE],
        schools=[
            SchoolQuestionOut(**_question(key, asked).model_dump(), usual=getattr(Schools(), key))
            for key, asked in SCHOOLS.items()
        ],
        questions=[_question(key, asked) for key, asked in QUESTIONS.items()],
        head=_fields(Head),
        swing=_fields(Swing),
        grounds=[_surface(kind) for kind in SURFACES.values()],
        place=_fields(Ground),
        sections=list(SECTIONS),
        proposal_sections=[name for name in SECTIONS if name not in AFTER_THE_SET],
        sections_with_codes=list(WITH_CODES),
        greens=list(get_args(GreenClass)),
        carry_lies=[KeyNameOut(key=key, name=key.replace("_", " ")) for key in LIE_CLASSES],
        pins=[KeyNameOut(key=pin.name, name=pin.words) for pin in PINS],
        shorts=list(get_args(Short)),
        into_mps=INTO,
        divots=list(get_args(Divot)),
        outcomes=[OutcomeOut(key=key, name=key.replace("_", " "), in_sand=key in IN_SAND) for key in OUTCOMES],
        stations=[_station(s.key, s.name, WANTED_STRIKES, s.shot, clock=True) for s in SWINGS]
        + [_station(s.key, s.name, s.wanted, s.shot, clock=False) for s in STATIONS],
        strike=_fields(MeasuredStrike),
        lies=[
            LieOut(name=name, swing=SwingIn.model_validate(in_document(swing)), ground=surface_out(ground))
            for name, (swing, ground) in LIES.items()
        ],
        spreads=SpreadsOut(
            attack_spread_deg=habit.attack_deg.spread,
            lean_spread_deg=habit.lean_deg.spread,
            entry_spread_mm=1000.0 * habit.entry.spread,
        ),
        most=MostOut(
            grounds=limits.MOST_GROUNDS,
            readings=limits.MOST_READINGS,
            wedges=limits.MOST_WEDGES_OWNED,
            photos=limits.MOST_PHOTOS,
            swings=limits.MOST_OWN_SWINGS,
            bands=limits.MOST_BANDS,
            bends_before=limits.MOST_BENDS_BEFORE,
            name=limits.NAME_LETTERS,
            swing_name=limits.SWING_NAME_LETTERS,
            mapping_name=limits.MAPPING_NAME_LETTERS,
            ball=limits.BALL_LETTERS,
            note=limits.NOTE_LETTERS,
            why=limits.WHY_LETTERS,
        ),
        share_tolerance=SHARE_TOLERANCE,
        bend_limit_deg={make: limit for make, limit in BEND_LIMIT_DEG.items()},
        drift_matters_deg=DRIFT_MATTERS_DEG,
        proved_elsewhere=ProvedElsewhere(other_situations=OTHER_SITUATIONS, other_surface=OTHER_SURFACE),
        proof_plan={key: BoundOut(low=bound.low, high=bound.high) for key, bound in PROOF_BOUNDS.items()},
        proof_ball={key: _bound(bound) for key, bound in BALL.items()},
        log_shot=LogShotBoundsOut(distance_m=_bound(DISTANCE), left_m=_bound(LEFT)),
        build={key: BoundOut(low=bound.low, high=bound.high) for key, bound in BUILD.items()},
        air=AirOut(**{key: BoundOut(low=FLIGHT[key].low, high=FLIGHT[key].high) for key in AirOut.model_fields}),
        ladder_parts=_named(PART_WORDS),
        ladder_air_c=REFERENCE_AIR.temperature_c,
        ladder=LadderEdgesOut(most_wedges=MOST_WEDGES, most_loft_deg=LOFTS.high),
        bands=BandEdgesOut(
            from_m=BoundOut(low=BAND_FROM.low, high=BAND_FROM.high),
            to_m=BoundOut(low=BAND_TO.low, high=BAND_TO.high),
        ),
        seasons=list(get_args(Season)),
        season_of_month=list(SEASON_OF_MONTH),
        finder_m=BoundOut(low=FINDER.low, high=FINDER.high),
        prices=[
            PriceLineOut(key=key, name=name, low=bound.low, high=bound.high) for key, (name, bound) in PRICE_LIST.items()
        ],
        results=[KeyNameOut(key=one.key, name=one.name) for one in RESULTS],
        log_situations=[KeyNameOut(key=key, name=BY_KEY[key].name if key in BY_KEY else key) for key in SITUATIONS],
        log_fields=_named(LOG_FIELDS),
        card_parts=_named(CARD_PARTS),
        card_papers=_named(CARD_PAPERS),
        card_bases=_named(BASIS),
        encodings=_named(ENCODINGS),
        delimiters=list(DELIMITERS),
        assumed_carry_m=ASSUMED_PITCHING_WEDGE_CARRY,
    )


def _question(key: str, asked: Question) -> QuestionOut:
    choices = _named({choice: one.words for choice, one in asked.choices.items()})
    return QuestionOut(key=key, name=asked.words, choices=choices)


def _bound(bound: Bound) -> FigureBoundOut:
    return FigureBoundOut(low=bound.low, high=bound.high, unit=bound.unit)


def _named(table: Mapping[Any, str]) -> list[KeyNameOut]:
    return [KeyNameOut(key=key, name=words) for key, words in table.items()]


def _fields(kind: type) -> list[FigureField]:
    return [
        FigureField(
            key=key, words=f.words, unit="%" if f.percent else SIGNS.get(f.bound.unit, f.bound.unit), low=f.bound.low,
            high=f.bound.high, usual=f.usual, percent=f.percent, places=f.places, where=f.where, short=f.short,
        )
        for key, f in figures(kind).items()
    ]  # fmt: skip


def _surface(kind: SurfaceKind) -> SurfaceKindOut:
    known = figures(kind.made_of)
    picked = kind.picked
    return SurfaceKindOut(
        key=kind.key, words=kind.words, reading=kind.reading, readings=kind.readings, readings_words=kind.readings_words,
        source=kind.source, instrument=kind.instrument, instrument_figure=kind.instrument_figure,
        figures=_fields(kind.made_of),
        classes=[
            ClassOut(
                key=one.key, words=one.words, upto=None if math.isinf(one.upto) else one.upto, with_end=one.with_end,
                usual=one.usual,
            )
            for one in kind.classes
        ],
        picked=None if picked is None else PickedOut(
            field=picked.field, words=picked.words, figure=picked.figure,
            values={word: value * known[picked.figure].per for word, value in picked.values.items()},
        ),
    )  # fmt: skip


def _station(key: str, name: str, wanted: int, shot: str, *, clock: bool) -> StationKeyOut:
    return StationKeyOut(key=key, name=name, wanted=wanted, in_sand=BY_KEY[shot].kind == "sand", clock=clock)
