"""What would flip a proposal: the nearest change along each axis at which another set wins."""

from __future__ import annotations

from dataclasses import dataclass

from oblatus.core.fitting.axes import Axis, axes_of
from oblatus.core.fitting.field import Field
from oblatus.core.fitting.judge import StrokesJudge
from oblatus.core.fitting.recommendation import Recommendation
from oblatus.core.strike.families import Progress

STEPS = 4


@dataclass(frozen=True, slots=True)
class Flip:
    """The nearest change along an axis at which another set wins more than level sets differ by."""

    axis: str
    unit: str
    value: float
    at: float
    old: str
    new: str


def find_flips(recommendation: Recommendation, judge: StrokesJudge, progress: Progress | None = None) -> tuple[Flip, ...]:
    """The nearest change along each axis at which another set near the shown one wins more than level sets differ by.

    Sets that buy no more heads than the shown one are compared, each reckoned anew at every value. `progress` hears of
    (done, axes).
    """
    field, axes = Field(recommendation, judge), axes_of(recommendation.fitting)
    found: list[Flip | None] = []
    for axis in axes:
        if progress is not None:
            progress(len(found), len(axes))
        found.append(_flip(field, axis))
    if progress is not None:
        progress(len(axes), len(axes))
    return tuple(flip for flip in found if flip is not None)


def _flip(field: Field, axis: Axis) -> Flip | None:
    changes = []
    for sign in (1.0, -1.0):
        before = 0.0
        for step in range(1, STEPS + 1):
            by = sign * axis.reach * (step / STEPS) ** 1.5
            if field.better(axis, by) is not None:
                changes.append(_nearest(field, axis, before, by))
                break
            before = by
    if not changes:
        return None
    by = min(changes, key=abs)
    other = field.better(axis, by)
    if other is None:
        return None
    now, then = field.names(field.shown), field.names(other)
    gone = [name for name in now if name not in then]
    come = [name for name in then if name not in now]
    return Flip(axis.key, axis.unit, axis.value, axis.value + by, ", ".join(gone), ", ".join(come))


def _nearest(field: Field, axis: Axis, same: float, other: float) -> float:
    """Halve the stretch between a change that keeps the choice and one that flips it."""
    for _ in range(3):
        middle = 0.5 * (same + other)
        if field.better(axis, middle) is None:
            same = middle
        else:
            other = middle
    return other
