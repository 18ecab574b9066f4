"""The card as JSON: clubs, carries, distances, how to play each lie, drills."""

from __future__ import annotations

import csv
import io
from collections.abc import Sequence
from dataclasses import replace
from datetime import date
from typing import Literal

from oblatus.core.card.bag import INTO, BagCard
from oblatus.core.card.drills import Drawing, DrillAdvice, Prescribed, Standing
from oblatus.core.card.setup import LieCard, Tool, ball_words, cautions_of, clock_words, lean_words, opened_words
from oblatus.core.gapping.estimates import Source
from oblatus.core.geometry import Hand
from oblatus.core.strike.risk import Light
from oblatus.core.words import Reader, decimals, speed, worded
from oblatus.formats.fields import Strict, SurfaceKey
from oblatus.formats.rounded import rounded
from oblatus.formats.strikes_csv import safe_text
from oblatus.units import METRES_PER_YARD

Basis = Literal["built", "proposed", "owned"]
BASIS: dict[Basis, str] = {"built": "as built", "proposed": "as proposed, not built yet", "owned": "as owned"}


class CardClubOut(Strict):
    """A wedge of the card."""

    code: str
    name: str
    loft_deg: float
    bounce_deg: float


class CardRowOut(Strict):
    """A club with a swing: carry, and between what 8 of 10 balls carry."""

    club: str
    loft_deg: float
    swing: str
    swing_name: str
    carry_m: float
    low_m: float
    high_m: float
    total_m: float
    source: Source
    count: int


class CardDistanceOut(Strict):
    """Which row for a distance: in still air, into the card's wind, to a firm green."""

    distance_m: float
    still: int
    into: int
    firm: int


class SaferOut(Strict):
    """A shot with a smaller chance of a bad miss."""

    club: str
    opening_deg: float
    opened: str
    strokes: float
    light: Light


class LieCardOut(Strict):
    """How to play one shot on one ground.

    `ball_mm` from the middle of the stance, towards the target positive, within `ball_doubt_mm`; `stance_open_deg` to the
    left of the target for a right-hander; `lean_change_deg`, `attack_change_deg` from the player's habit; `sole_mm` where
    the sole lands from the ball's centre; `on_green_m` how far onto the green the ball lands.
    """

    key: str
    shot: str
    shot_name: str
    ground: str
    surface: SurfaceKey
    share: float
    hole_m: float
    code: str
    club: str
    loft_deg: float
    opening_deg: float
    opened: str
    lean_deg: float
    lean_change_deg: float
    lean_words: str
    attack_deg: float
    attack_change_deg: float
    ball_mm: float
    ball_doubt_mm: float
    ball_words: str
    weight: float
    stance_mm: float
    stance_open_deg: float
    clock: str
    hours: float
    speed_mps: float
    carry_m: float
    run_m: float
    on_green_m: float
    sole_mm: float
    finish: str
    strokes: float
    light: Light
    risk: str
    safer: SaferOut | None
    cautions: list[str]


class DrillOut(Strict):
    """A prescribed drill, and how it goes."""

    key: str
    name: str
    trains: str
    why: str
    worth_strokes_round: float
    set_up: str
    do: str
    count: int
    score: str
    stop: str
    drawing: Drawing
    beat: int | None
    level: int
    levels: int
    mark: int
    advice: DrillAdvice


class CardOut(Strict):
    """Everything that the player takes home.

    `basis`: whether the clubs are as built, proposed, or owned; `measured` of the rows stand on strikes; `outlines_mm`
    the sections of the clubs of the lies, by code.
    """

    player: str
    hand: Hand
    made_on: date
    basis: Basis
    ball: str
    temperature_c: float
    measured: int
    every_m: float
    clubs: list[CardClubOut]
    rows: list[CardRowOut]
    distances: list[CardDistanceOut]
    rules: list[str]
    lies: list[LieCardOut]
    outlines_mm: dict[str, list[list[float]]]
    drills: list[DrillOut]
    practice_weeks: int


EVERY = {"m": 5.0, "yd": 5.0 * METRES_PER_YARD}
"""Between the lines of distances [m], by the reader's unit."""


def rows_out(card: BagCard) -> list[CardRowOut]:
    """The rows of a card."""
    return [
        CardRowOut(
            club=row.club.name, loft_deg=rounded(row.club.loft_deg), swing=row.swing, swing_name=row.swing_name,
            carry_m=rounded(row.carry, 3), low_m=rounded(row.low, 3), high_m=rounded(row.high, 3),
            total_m=rounded(row.total, 3),
            source=row.source, count=row.count,  # type: ignore[arg-type]
        )
        for row in card.rows
    ]  # fmt: skip


def distances_out(card: BagCard) -> list[CardDistanceOut]:
    """The lines of distances."""
    return [
        CardDistanceOut(distance_m=rounded(d.distance), still=d.still, into=d.into, firm=d.firm) for d in card.distances
    ]


def clubs_out(tools: Sequence[Tool]) -> list[CardClubOut]:
    """The wedges, by loft."""
    return [
        CardClubOut(
            code=tool.code,
            name=tool.name,
            loft_deg=rounded(tool.head.loft_deg),
            bounce_deg=rounded(tool.head.bounce_deg),
        )
        for tool in sorted(tools, key=lambda tool: tool.head.loft_deg)
    ]


def lie_out(card: LieCard, hand: Hand) -> LieCardOut:
    """A lie as JSON; a left-hander's stance opens the other way."""
    scenario, setup, safer = card.scenario, card.setup, card.safer
    side = 1.0 if hand == "right" else -1.0
    return LieCardOut(
        key=scenario.key, shot=scenario.shot.key, shot_name=scenario.shot.name, ground=scenario.ground.name,
        surface=scenario.shot.surface,
        # shown from here alone, whole or in tenths; a phone fetches forty lies
        share=rounded(scenario.share, 5), hole_m=rounded(scenario.layout.hole, 2),
        code=card.tool.code, club=card.tool.name, loft_deg=rounded(card.tool.head.loft_deg, 2),
        opening_deg=rounded(setup.opening_deg, 2), opened=opened_words(setup.opening_deg),
        lean_deg=rounded(setup.lean_deg, 2), lean_change_deg=rounded(card.lean_change_deg, 2),
        lean_words=lean_words(card.lean_change_deg),
        attack_deg=rounded(setup.attack_deg, 2), attack_change_deg=rounded(card.attack_change_deg, 2),
        ball_mm=rounded(1000 * card.ball, 1), ball_doubt_mm=rounded(1000 * card.ball_doubt, 1),
        ball_words=ball_words(card.ball), weight=rounded(card.weight, 3), stance_mm=round(1000 * card.stance),
        stance_open_deg=rounded(side * card.stance_open_deg, 2), clock=clock_words(card.hours),
        hours=rounded(card.hours, 2), speed_mps=rounded(card.speed, 2), carry_m=rounded(card.carry, 2),
        run_m=rounded(card.run, 2), on_green_m=rounded(card.on_green, 2), sole_mm=rounded(1000 * setup.entry, 1),
        finish=card.finish, strokes=rounded(card.strokes, 4), light=card.risk.light, risk=card.risk.rule,
        safer=None if safer is None else SaferOut(
            club=safer.tool.name, opening_deg=rounded(safer.opening_deg),
            opened=opened_words(safer.opening_deg), strokes=rounded(safer.strokes, 4),
            light=safer.risk.light,
        ),
        cautions=list(cautions_of(scenario, card.risk)),
    )  # fmt: skip


def drill_out(one: Prescribed, standing: Standing) -> DrillOut:
    """A prescribed drill with its standing."""
    drill = one.drill
    return DrillOut(
        key=drill.key, name=drill.name, trains=drill.trains, why=one.why, worth_strokes_round=rounded(one.worth),
        set_up=drill.set_up, do=drill.do, count=drill.count, score=drill.score, stop=drill.stop, drawing=drill.drawing,
        beat=drill.beat, level=standing.level, levels=len(drill.levels), mark=standing.mark, advice=standing.advice,
    )  # fmt: skip


def card_csv(card: CardOut, reader: Reader) -> str:
    """The distances as CSV in the reader's units: what to take in still air, into the wind, to a firm green."""
    unit = reader.distance
    per = 1.0 if unit == "m" else METRES_PER_YARD
    into = worded(f"{speed(INTO, 0)} into the wind", replace(reader, gap=" "))
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow([f"distance ({unit})", "club and swing", into, "firm green"])
    names = [safe_text(f"{row.club}, {row.swing_name}") for row in card.rows]
    for line in card.distances:
        writer.writerow([decimals(line.distance_m / per), names[line.still], names[line.into], names[line.firm]])
    writer.writerow([])
    writer.writerow(["club", "swing", f"carry ({unit})", f"from ({unit})", f"to ({unit})", "from what"])
    for row in card.rows:
        figures = [decimals(value / per) for value in (row.carry_m, row.low_m, row.high_m)]
        writer.writerow([safe_text(row.club), row.swing_name, *figures, row.source])
    return out.getvalue()
