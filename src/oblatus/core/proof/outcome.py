"""What one ball of a proof is worth in strokes, from what was seen of it. docs/models/proof.md, 2."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, get_args

from oblatus.core.strokes import Layout
from oblatus.core.strokes._rows import FAR_SHORT, FRINGE_REACH
from oblatus.core.strokes.table import TOUR_TABLE, Lie, StrokesTable

Outcome = Literal["good", "heavy", "thin", "left_in", "over"]
OUTCOMES: tuple[Outcome, ...] = get_args(Outcome)
IN_SAND: tuple[Outcome, ...] = ("left_in",)
"""Outcomes of sand alone."""
OutcomeSource = Literal["paces", "carry", "assumed"]

GOOD_SHARE = 0.12
"""A good ball without a distance lies so far from the hole, as a share of the shot (judgement)."""
HEAVY_SHARE = 0.55
THIN_SHARE = 1.6
OVER_SHARE = 1.35
"""Where a heavy, thin or too long ball comes to rest, as a share of the shot (judgement)."""


@dataclass(frozen=True, slots=True)
class Seen:
    """What was seen of a ball: outcome, paces to the hole [m], carry [m]; None where it was not."""

    outcome: Outcome | None
    to_hole: float | None = None
    carry: float | None = None


@dataclass(frozen=True, slots=True)
class Worth:
    """Strokes with this one counted, the lie and distance [m] they come from, and what that rests on."""

    strokes: float
    lie: Lie
    distance: float
    source: OutcomeSource


def ball_strokes(
    seen: Seen, layout: Layout, run: float, handicap: float | None, table: StrokesTable = TOUR_TABLE
) -> Worth:
    """Strokes of a ball by the table: one, and what is left from where it lies.

    Paces to the hole say the distance; else the carry with the run of this club [m] does; else the outcome stands for a
    usual distance. The lie follows from the outcome and from where on the line the ball lies.

    Raises
    ------
    ValueError
        If nothing was seen.
    """
    if seen.outcome == "left_in":
        distance = layout.hole if seen.to_hole is None else seen.to_hole
        source: OutcomeSource = "assumed" if seen.to_hole is None else "paces"
        return _worth(layout.own, distance, source, handicap, table)
    if seen.to_hole is not None:
        return _worth(_lie_at(seen.outcome, layout, seen.to_hole), seen.to_hole, "paces", handicap, table)
    if seen.carry is not None:
        total = seen.carry + run
        lie = _lie_on_line(layout, seen.carry, total)
        return _worth(lie, abs(total - layout.hole), "carry", handicap, table)
    if seen.outcome is None:
        raise ValueError("nothing was seen of this ball")
    if seen.outcome == "good":
        return _worth("green", GOOD_SHARE * layout.hole, "assumed", handicap, table)
    share = {"heavy": HEAVY_SHARE, "thin": THIN_SHARE, "over": OVER_SHARE}[seen.outcome]
    total = share * layout.hole
    return _worth(_lie_on_line(layout, total, total), abs(total - layout.hole), "assumed", handicap, table)


def _worth(lie: Lie, distance: float, source: OutcomeSource, handicap: float | None, table: StrokesTable) -> Worth:
    return Worth(1.0 + float(table.strokes(lie, distance, handicap)), lie, distance, source)


def _lie_at(outcome: Outcome | None, layout: Layout, to_hole: float) -> Lie:
    """The lie of a ball so far from the hole: beyond the green's rim on the side that its outcome tells."""
    if outcome == "heavy":
        return _lie_on_line(layout, layout.hole - to_hole, layout.hole - to_hole)
    if outcome in ("thin", "over"):
        return "green" if to_hole <= layout.behind else "rough"
    return "green" if to_hole <= max(layout.room, layout.behind) else "rough"


def _lie_on_line(layout: Layout, carry: float, total: float) -> Lie:
    """The lie at a total distance: short of the green what lies there, behind it rough; own lie far short over sand."""
    if total > layout.hole + layout.behind:
        return "rough"
    if carry >= layout.edge:
        return "green"
    missing = layout.edge - carry
    if layout.short == "fringe":
        return "fringe" if missing <= FRINGE_REACH else "rough"
    if layout.short == "sand":
        return "sand" if missing <= FAR_SHORT else layout.own
    return "rough"
