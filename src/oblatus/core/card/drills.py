"""Drills: a catalogue in our own names, and which two or three this player is to practise. docs/models/setup.md, 4."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from scipy.special import fdtri

from oblatus.core.grounds import TURF
from oblatus.core.session.faults import Fault
from oblatus.core.shots import BY_KEY
from oblatus.core.words import counted

Lever = Literal["entry", "lean", "speed", "aim", "opening"]
ANYWHERE = "any"
Drawing = Literal[
    "line",
    "box",
    "note",
    "tee",
    "stick",
    "hand",
    "beat",
    "throw",
    "stops",
    "bruise",
    "belt",
    "arc",
    "gates",
    "lies",
    "face",
]

STOP = "Stop when it hurts; a clinician, not a fitter, is asked then. Off hard mats and frozen ground at most twenty."
MOST = 3
LEAST_WORTH = 0.005
"""Strokes a round below which no drill is prescribed for what practice would win (judgement)."""
FAULT_WORTH = 0.05
"""Strokes a round by which a fault that strikes show comes before one that the model only expects (judgement)."""
WEEKS = 4
"""The plan: so many weeks, each drill twice a week (judgement)."""
RAISE_AFTER, CHANGE_AFTER = 3, 6
"""Passed so many times in a row: the next level. Not once in so many: another drill."""

DrillAdvice = Literal["go on", "next level", "another drill", "done"]
Difference = Literal["smaller", "larger", "no difference shown"]


@dataclass(frozen=True, slots=True)
class Drill:
    """One drill.

    `trains` what, on which `surface`: the key of a kind of ground, or `ANYWHERE`; `faults` of the session that it is for;
    `set_up`, `do`, `score`, `stop` in words; `count` balls or swings of one go; `levels` how many must come off, level by
    level; `beat` per minute where a pace is kept.
    """

    key: str
    name: str
    trains: Lever
    surface: str
    faults: tuple[str, ...]
    set_up: str
    do: str
    count: int
    levels: tuple[int, ...]
    score: str
    drawing: Drawing
    beat: int | None = None
    stop: str = STOP


CATALOGUE: tuple[Drill, ...] = (
    Drill("line", "Line in the grass", "entry", "turf", ("ground_first", "entry_scattered"),
          "Paint or scratch a line across the swing where the ball would lie. No ball.",
          "Brush the grass from the line forward, ten times, a hand's width apart.", 10, (6, 8, 9),
          "It counts when the grass is touched from the line on, within a ball's width.", "line"),
    Drill("tee", "The tee must stand", "entry", "turf", ("ground_first",),
          "A ball on a low tee, a second tee pushed in two hands behind it, flush with the grass.",
          "Pitch the ball and leave the tee behind it standing.", 10, (6, 8, 9),
          "It counts when the tee behind stands and the ball flies.", "tee"),
    Drill("bruise", "Bruise, not divot", "entry", "turf", ("entry_scattered", "handle_ahead"),
          "Soft, mown turf; five balls in a row.",
          "Pitch each and look at the ground: a bruise is right, a divot is not.",
          10, (5, 7, 9), "It counts when the grass is bent and the soil is not open.", "bruise"),
    Drill("box", "Box in the sand", "entry", "sand", ("sand_scattered", "edge_in_sand"),
          "Draw a box in the sand a club head wide and two hands long, with a line across its middle. No ball.",
          "Splash the box out: in behind the line, out ahead of it, long and shallow.", 10, (5, 7, 9),
          "It counts when the mark begins and ends inside the box.", "box",
          stop="Never dry-brush sand near faces. Stop when it hurts; a clinician, not a fitter, is asked then."),
    Drill("note", "Mark like a bank note", "entry", "sand", ("edge_in_sand",),
          "A ball on the middle of a mark the size of a bank note, drawn in the sand.",
          "Take the whole mark with the ball on it and no deeper than a thumb's nail.", 10, (4, 6, 8),
          "It counts when the mark is gone, the hole is shallow and the ball is out.", "note"),
    Drill("stick", "Stick behind", "entry", ANYWHERE, ("ground_first", "entry_scattered"),
          "A stick in the ground an arm's length behind the ball, slanted along the way the club comes down too flat.",
          "Swing to nine o'clock without touching it.", 10, (6, 8, 10),
          "It counts when the stick is not touched and the ball flies.", "stick"),
    Drill("wide", "Wide and low", "entry", "turf", ("entry_scattered",),
          "A second ball two hands behind the first, both in line.",
          "Take the club back over the second ball without lifting it, chest stays low, and brush through.",
          10, (6, 8, 9),
          "It counts when the turf is brushed under the first ball and the second lies still.", "arc"),
    Drill("belt", "Grip end to the belt", "lean", ANYWHERE, ("handle_ahead",),
          "Chip with a wedge, ball in the middle, level handle.",
          "Stop at the finish: the grip end points at the belt, the shaft is not ahead of the arms.", 10, (6, 8, 9),
          "It counts when the grip end points at the belt.", "belt"),
    Drill("hand", "Lead hand alone", "lean", "turf", ("early_release",),
          "The lead hand alone on the grip, a hand's width down; short chips.",
          "Chip without the head passing the hand before the ball is gone.", 10, (5, 7, 8),
          "It counts when the ball is struck first and the wrist is flat at the finish.", "hand"),
    Drill("beat", "Even beat", "speed", ANYWHERE, (),
          "The phone beats even time, or somebody counts.",
          "Back on one, through on two, with the same length both ways.",
          12, (8, 10, 11), "It counts when the club is at the end of its way on the beat.", "beat", beat=52),
    Drill("stops", "Four stops", "speed", "turf", (),
          "Four towels at 10, 15, 20 and 25 paces; one length of swing, the club changes.",
          "Land one ball on each with a club that does it, then go back.", 8, (4, 5, 6),
          "It counts when it lands within a club's length of the towel.", "stops"),
    Drill("gates", "Clock ladder with gates", "speed", ANYWHERE, (),
          "Two sticks at 7:30 and 9:00 on the way back, as seen from the front.",
          "Three balls to each length, up and down, landing always farther or always shorter.", 12, (8, 10, 11),
          "It counts when the ball lands beyond the one before on the way up, short of it on the way down.", "gates"),
    Drill("throw", "Throw the sand", "aim", "sand", (),
          "No ball. A target on the green; the face as open as for the shot.",
          "Throw the sand at the target and read where it went.", 10, (5, 7, 8),
          "It counts when the sand flies within a step of the line to the target.", "throw"),
    Drill("face", "Open first, grip second", "opening", ANYWHERE, (),
          "Lay the club down square, turn the face to the wanted opening, and only then take the grip.",
          "Play greenside shots with the opening of the card; check the face after every grip.", 10, (6, 8, 9),
          "It counts when the face still looks where it was set after the ball is gone.", "face"),
    Drill("lies", "Nine lies, one ball", "aim", ANYWHERE, (),
          "Nine different lies round a green, one ball each, never the same twice in a row.",
          "Say club, setup and landing place from the card, then play it.", 9, (3, 4, 6),
          "It counts when it stops within two club lengths.", "lies"),
)  # fmt: skip
BY_NAME = {drill.key: drill for drill in CATALOGUE}


@dataclass(frozen=True, slots=True)
class Gain:
    """Strokes a round that halving the spread of entry, lean or speed wins in a situation (key, name of the leak)."""

    key: str
    name: str
    halving: Mapping[str, float]


@dataclass(frozen=True, slots=True)
class Prescribed:
    """A drill for this player: why, and what half the scatter of what it trains is worth [strokes a round]."""

    drill: Drill
    why: str
    worth: float


def prescribe(gains: Sequence[Gain], faults: Sequence[Fault]) -> tuple[Prescribed, ...]:
    """Two or three drills: those whose halved scatter wins most strokes, faults that strikes show first.

    Of one lever on one kind of ground there is one drill, that for a fault if there is one.
    """
    found: dict[tuple[str, str], Prescribed] = {}
    for (lever, surface), (worth, names) in _worths(gains).items():
        for drill in CATALOGUE:
            if drill.trains != lever or drill.surface not in {surface, ANYWHERE}:
                continue
            fault = next((f for f in faults if f.key in drill.faults), None)
            why = f"scatter of {_LEVER[lever]}, most won in {names}"
            if fault:
                why = f"{fault.words}, {fault.shown} of {counted(fault.of, 'strike')}"
            here = Prescribed(drill, why, worth + (FAULT_WORTH if fault else 0.0))
            best = found.get((lever, surface))
            if best is None or here.worth > best.worth:
                found[lever, surface] = here
    every = {one.drill.key: one for one in sorted(found.values(), key=lambda one: one.worth) if one.worth >= LEAST_WORTH}
    chosen = sorted(every.values(), key=lambda one: -one.worth)[:MOST]
    worths = _worths(gains)
    return tuple(Prescribed(one.drill, one.why, _own_worth(one.drill, worths)) for one in chosen)


_LEVER = {"entry": "where the sole lands", "lean": "lean", "speed": "speed"}


def _own_worth(drill: Drill, worths: dict[tuple[str, str], tuple[float, str]]) -> float:
    """What the halved scatter wins wherever the drill trains it."""
    return sum(
        worth for (lever, surface), (worth, _) in worths.items()
        if lever == drill.trains and drill.surface in {surface, ANYWHERE}
    )  # fmt: skip


def _worths(gains: Sequence[Gain]) -> dict[tuple[str, str], tuple[float, str]]:
    """Strokes a round that half the scatter wins, by lever and kind of ground, with the shots that it wins most in."""
    total: dict[tuple[str, str], list[tuple[float, str]]] = {}
    for leak in gains:
        surface = BY_KEY[leak.key].surface if leak.key in BY_KEY else TURF.key
        for lever, gain in leak.halving.items():
            total.setdefault((lever, surface), []).append((gain, leak.name))
    return {
        place: (sum(gain for gain, _ in won), ", ".join(name for _, name in sorted(won, reverse=True)[:2]))
        for place, won in total.items()
    }


@dataclass(frozen=True, slots=True)
class Standing:
    """How a drill goes: its level from 0, the mark to pass, and what is next by what was scored."""

    level: int
    mark: int
    passed: int
    advice: DrillAdvice


def standing_of(drill: Drill, scores: Sequence[int]) -> Standing:
    """The standing after scores in their order: three passes in a row raise the level, six goes without one ask for
    another drill, three passes at the last level are done.
    """
    level, row, dry = 0, 0, 0
    advice: DrillAdvice = "go on"
    for score in scores:
        advice = "go on"
        if score >= drill.levels[level]:
            row, dry = row + 1, 0
        else:
            row, dry = 0, dry + 1
        if row >= RAISE_AFTER:
            last = level == len(drill.levels) - 1
            advice = "done" if last else "next level"
            level, row = (level, row) if last else (level + 1, 0)
        elif dry >= CHANGE_AFTER:
            advice = "another drill"
    return Standing(level, drill.levels[level], row, advice)


@dataclass(frozen=True, slots=True)
class Worked:
    """What became of a spread that drills trained: spread now over spread then, in 8 of 10 between."""

    ratio: float
    low: float
    high: float
    call: Difference


def worked(then: tuple[float, int], now: tuple[float, int]) -> Worked:
    """Two measured spreads with their counts of strikes, the later beside the earlier.

    Their variances compare by F: s1^2 / s2^2 over the true ratio is F(n1 - 1, n2 - 1) for normal scatter (Fisher 1924).
    It is called where one does not lie in the interval. Fewer than two strikes, or no spread, tell nothing: then the
    interval is as wide as can be.
    """
    (before, m), (after, n) = then, now
    if min(m, n) < 2 or before <= 0.0:
        return Worked(1.0, 0.0, float("inf"), "no difference shown")
    ratio = after / before
    low = ratio / float(fdtri(n - 1, m - 1, 0.9)) ** 0.5
    high = ratio / float(fdtri(n - 1, m - 1, 0.1)) ** 0.5
    call: Difference = "no difference shown"
    if high < 1.0:
        call = "smaller"
    elif low > 1.0:
        call = "larger"
    return Worked(ratio, low, high, call)
